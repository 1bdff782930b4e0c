package teller

import "math"

// The pocket of a shut teller is a pyramid over an equilateral triangle of a quarter of the
// sheet's side: a finger of a width comes to rest where its sides hold it.
const (
	reachPart  = 0.21650635094610965 // height of that triangle, √3/8 of the side: how deep a pocket is
	wedge      = 0.8944271909999159  // 2/√5: width of the pocket by distance from its end
	BulgePart  = 0.15                // soft fingers and soft paper take this much more
	ComfortMM  = 10.0                // of a finger inside that holds
	mouthPart  = reachPart * wedge   // the widest finger at its mouth
	leastOK    = 5.0                 // mm of a finger inside with which it can be held at all
	RoundUpMM  = 5.0                 // sides are proposed in steps of this
	LeastMM    = 80.0                // sides that are folded
	MostSideMM = 300.0
)

// DepthMM is how deep a pocket is.
func DepthMM(side float64) float64 { return reachPart * side }

// InsideMM is how far a finger goes in; negative where it does not.
func InsideMM(side, finger float64) float64 { return reachPart*side - finger/wedge }

// WidestMM is the widest finger that enters at all.
func WidestMM(side float64) float64 { return mouthPart * side }

// SideFor is the side of a sheet whose pockets hold a finger comfortably.
func SideFor(finger float64) float64 { return (ComfortMM + finger/wedge) / reachPart }

// Soft is the width that a finger of a width shrinks to in its pocket: skin and paper give way.
func Soft(finger float64) float64 { return finger / (1 + BulgePart) }

// Holds tells whether so much of a finger inside is enough to hold it.
func Holds(insideMM float64) bool { return insideMM >= leastOK }

// ProposedMM is the side proposed for a finger, in whole steps, as large as a sheet allows.
func ProposedMM(finger, sheetMM float64) float64 {
	s := math.Ceil(SideFor(finger)/RoundUpMM-1e-9) * RoundUpMM
	return math.Max(LeastMM, math.Min(math.Min(sheetMM, MostSideMM), s))
}

// Sizes are the sides of what is folded from a sheet: after the first four folds, finished,
// and a pocket's.
func Sizes(side float64) (blintz, finished, pocket float64) {
	return side / math.Sqrt2, side / 2, side / 4
}

// alignMM is how exactly a fold meets its target, printed.
const alignMM = 0.4

// GapMM is what a fold must stop short of the middle by: half a turn about the layers inside,
// and how exactly hands meet a line.
func GapMM(thickness float64) float64 { return math.Pi/2*thickness + alignMM }

// OverlapMM is by how much flaps lie over one another at the middles of the shorter sides of
// a sheet that is not square, when corners stop a gap short of its middle; positive binds,
// negative is what is left free. Trim is what comes off the longer side: the fold of a corner
// to the middle of a sheet w by h meets the side w at (w² + h²)/4w from the corner.
func OverlapMM(width, height, gap float64) (overlap, trim float64) {
	w, h := math.Min(width, height), math.Max(width, height)
	return (h*h-w*w)/(2*w) - math.Sqrt2*gap, h - w
}
