// Package fold is the folded sheet: which pieces of paper there are, where each
// lies, which lies on which, and what one fold does to all of that.
//
// In words: the sheet is divided by creases into pieces (facets). Each keeps its
// place on the flat sheet for ever and carries one motion that says where it
// lies now. Two pieces that meet at a crease are joined by a hinge. A table says
// for every two pieces that overlap which is on top. A fold chooses the layers
// that move, cuts them along the fold line, mirrors one side and lays it on top
// (valley) or beneath (mountain). If a hinge would have to open, the paper would
// tear and the fold is refused.
//
// Every operation is a Plan, and State.Apply is the only place that carries one
// out. Everything is deterministic and free of shared state.
package fold
