// Package geom is the plane and space geometry under the fold engine: points,
// lines, motions that keep lengths, convex pieces of paper and their moments.
//
// In words: a sheet of paper is a convex outline; folding it lays a straight
// line over it, cuts the outline in two along that line and mirrors one half.
// Everything a fold needs is here and nothing that knows about paper.
//
// Lengths are millimetres, angles are radians unless a name ends in Deg.
package geom

// One tolerance policy for the whole program, in millimetres. Sheets are 50 to
// 1000 mm, double precision errs by about 1e-13 of that, so each value has
// decades of room on both sides.
const (
	// OnLine is the distance within which a point lies on a line.
	OnLine = 1e-6
	// Overlap is the penetration depth above which two pieces share area, and
	// the length above which two hinges or a hinge and a side share a stretch.
	Overlap = 1e-5
	// Tear is the gap at a hinge above which the paper would have torn.
	Tear = 1e-5
	// OnPaper is the distance within which a point given by a person or a
	// pattern lies on a piece of paper.
	OnPaper = 1e-4
	// Distinct is the distance below which two points do not fix a line.
	Distinct = 1e-3
)
