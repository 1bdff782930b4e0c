// Package geom is the plane and space geometry under the fold engine: points,
// lines, motions that keep lengths, convex pieces of paper and their moments.
//
// In words: a sheet of paper is a convex outline; folding it lays a straight
// line over it, cuts the outline in two along that line and mirrors one half.
// Everything a fold needs is here and nothing that knows about paper.
//
// Lengths are millimetres, angles are radians unless a name ends in Deg.
package geom

// One tolerance policy for the whole program. Sheets are 50 to 1000 mm, double precision
// errs by about 1e-13 of that, so each value has decades of room on both sides. Lengths
// are compared with lengths, areas with areas, directions with directions.

// Lengths, in millimetres.
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
	// Landed is how near a landing computed from a fold lies to where it should: more
	// than that and the fold is none.
	Landed = 1e-6
	// Still is the difference of two motions of a piece below which it has kept its place:
	// mm of its shift, and of each part of its direction.
	Still = 1e-7
)

// OverlapMM2 is the area, in square millimetres, above which a piece of paper is one.
const OverlapMM2 = 1e-5

// Directions, as the sine of the angle between them.
const (
	// Aligned is the angle below which two lines run side by side: over a metre they
	// part by a thousandth of OnPaper.
	Aligned = 1e-9
	// SameWay is the angle below which rounding alone tells two directions apart.
	SameWay = 1e-12
)
