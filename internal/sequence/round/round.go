// Package round holds what is done to a toy in the round, once it lies folded flat: kept
// beside the flat toy and evaluated on the finished one.
package round

import (
	"math"

	"tussock/internal/geom"
)

// Op is a kind of step, by its word in the language.
type Op string

// Opening is a crease that is opened to an angle once the folding is done.
type Opening struct {
	Pieces   []geom.Segment // of the crease, on the sheet
	Moving   geom.Vec       // a point of the part that swings, on the sheet
	AngleDeg float64        // 180 flat-folded, 0 flat open
	Step     int
	Until    int            // the step from which another one stands instead; 0 for none
	Op       Op             // the word it was set by
	Rides    bool           // what swings stands on another part
	Fresh    int8           // of creases that are not folded yet: +1 what swings comes up, -1 it goes down
	With     []geom.Segment // folds that must open as well, by as much as they have to
}

// Bending bends layers about a line without a crease, over an arc of a given
// radius. Line and Moving are places of the sheet: the line runs through A and B
// as they lie in the finished toy.
type Bending struct {
	Step     int
	Kind     Op       // bend, curl or wrap
	A, B     geom.Vec // two spots of the sheet that the line goes through
	Moving   geom.Vec // a spot of the part that is bent away
	AngleDeg float64  // positive towards the viewer
	RadiusMM float64
	All      bool // all layers beyond the line are bent, not only those that hang on the spot
	// Arcs are what the bend is made of where its radius grows on the way, as that of paper
	// that is wound over itself does; none for one radius.
	Arcs []Arc
}

// Arc is a stretch of a bend: an arc with one radius, a straight piece, or, without a
// length, a sharp bend.
type Arc struct{ MM, Deg float64 }

// RadiusMM of an arc; 0 for what is none.
func (a Arc) RadiusMM() float64 {
	if a.Deg == 0 {
		return 0
	}
	return a.MM / math.Abs(geom.Rad(a.Deg))
}

// Bent are the arcs of a bend, the one next to its line first.
func (b Bending) Bent() []Arc {
	if len(b.Arcs) > 0 {
		return b.Arcs
	}
	return []Arc{{b.RadiusMM * math.Abs(geom.Rad(b.AngleDeg)), math.Abs(b.AngleDeg)}}
}

// Parting spreads the leaves that hang on a line to equal angles.
type Parting struct {
	Ridges []geom.Segment // folds between the leaves' own halves, round one spot
	Turn   int8           // the sense of most of these: +1 mountain, -1 valley; 0 where no spot has all leaves
	Step   int
	Pieces []geom.Segment // of the axis, on the sheet
	Shut   []geom.Segment // of the axis as well, between leaves that stay together
	Leaves int
}

// Pivoting slides layers by a small turn in their own plane. It is not strictly
// flat: the paper bulges a little by what does not close.
type Pivoting struct {
	Step     int
	At       geom.Vec // on the sheet
	Moving   geom.Vec
	AngleDeg float64
}
