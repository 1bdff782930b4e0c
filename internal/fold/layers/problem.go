package layers

import "tussock/internal/geom"

// Hinge is a straight contact of pieces A and B in the folded plane. Folded
// tells that both pieces lie on the same side of it.
type Hinge struct {
	A, B   int
	P, Q   geom.Vec
	Folded bool
}

// Hint says that piece I lies above (+1) or below (-1) piece J. Hard hints must
// hold; others are tried first. Why is what a conflict says of a hard one.
type Hint struct {
	I, J int
	Sign int8
	Hard bool
	Why  string
}

// Problem is a set of convex pieces in the folded plane with what is known of
// their order. Known is n*n with +1 where row lies above column, -1 below and 0
// where it is to be found (or where the two share no area).
type Problem struct {
	Polys  []geom.Polygon
	Hinges []Hinge
	Known  []int8
	Hints  []Hint
}

// Kind says which rule cannot be kept.
type Kind string

const (
	Pierce  Kind = "pierce"  // a piece would pass through a hinge
	Cross   Kind = "cross"   // two hinges on one line would interleave
	Ring    Kind = "ring"    // three pieces would lie in a ring
	Against Kind = "against" // what a step says cannot be
)

// Conflict is why there is no order: the rule that breaks in the first line of
// reasoning, and the pieces it is about (for Pierce the piece, then the hinge).
type Conflict struct {
	Kind   Kind
	Pieces []int
	Why    string
}

func (c *Conflict) Error() string { return "layers would have to pass through each other: " + c.Why }

// Solution is a complete order. Ambiguous is set when a second valid order
// exists; Differs is then a pair that the two orders place differently.
type Solution struct {
	Order     []int8
	Ambiguous bool
	Differs   [2]int
}
