// Package steps plans the operations of paper folding that move several groups
// of layers at once: reverse folds, squashes, petals, collapses, sinks, twists.
//
// In words: each function looks at the folded paper, says where it is to be
// creased, which pieces move how, and what must lie on what. It moves nothing;
// fold.State.Apply does that, and finds the order of the layers.
//
// Spots and stretches given as "sheet" are those of the flat sheet; lines are in
// the folded plane unless said otherwise. Errors are error.
package steps
