package sheet

import (
	"math"
)

// Sheet arithmetic: what can be had from a sheet, and what errors of squaring do.
// All of it is exact geometry; lengths mm, angles degrees.

// SquareRun is so many squares of one size.
type SquareRun struct {
	SideMM float64
	Count  int
}

// Squares takes the largest square off a rectangle again and again (Euclid's way),
// down to a least side.
func Squares(widthMM, heightMM, leastMM float64) []SquareRun {
	a, b := math.Max(widthMM, heightMM), math.Min(widthMM, heightMM)
	var out []SquareRun
	for b >= leastMM && b > 0 && len(out) < 32 {
		n := int(math.Floor(a/b + 1e-9))
		out = append(out, SquareRun{b, n})
		a, b = b, a-float64(n)*b
	}
	return out
}

// EqualSquares is the largest side of n equal squares in rows and columns.
func EqualSquares(widthMM, heightMM float64, n int) float64 {
	best := 0.0
	for i := 1; i <= n; i++ {
		j := (n + i - 1) / i
		best = math.Max(best, math.Min(widthMM/float64(i), heightMM/float64(j)))
	}
	return best
}

// Trim is a sheet of a wanted shape cut from another.
type Trim struct {
	WidthMM, HeightMM float64
	Scale             float64 // of every length, against the size wanted
	Possible          bool    // the wanted size itself can be cut
	OffWidthMM        float64 // taken off the width at the scale given
	OffHeightMM       float64
}

// SameRatio is the largest sheet with the proportions of a wanted one that can be
// cut from a sheet, upright as it lies: the answer to holding the other office
// standard.
func SameRatio(haveW, haveH, wantW, wantH float64) Trim {
	k := math.Min(haveW/wantW, haveH/wantH)
	t := Trim{Scale: math.Min(k, 1), Possible: k >= 1-1e-12}
	t.WidthMM, t.HeightMM = wantW*t.Scale, wantH*t.Scale
	t.OffWidthMM, t.OffHeightMM = haveW-t.WidthMM, haveH-t.HeightMM
	return t
}

// Taper is by how much the far edge is out when an edge is laid down with an
// error in angle along a width.
func Taper(widthMM, errorDeg float64) float64 { return widthMM * math.Tan(errorDeg*math.Pi/180) }

// OffSquare is what a corner that is off square by an angle does to a square: the
// difference of its diagonals, to first order, and the mismatch of an edge.
func OffSquare(sideMM, errorDeg float64) (diagonalMM, edgeMM float64) {
	e := errorDeg * math.Pi / 180
	return math.Sqrt2 * sideMM * e, sideMM * math.Sin(e)
}

// FanAngle is the angle in degrees of a pentagon fan folded to a mark on the raw
// edge of a halved square, at a part of half the side from the middle: arctan 3 =
// 71.57° at the customary third, 72° at cot 72°.
func FanAngle(part float64) float64 { return math.Atan(1/part) * 180 / math.Pi }

// CreepFlat and CreepRound are by how much n layers inside a fold shift its last
// one against the first, pressed flat or left round.
func CreepFlat(n int, thicknessMM float64) float64 { return float64(n-1) * thicknessMM }
func CreepRound(n int, thicknessMM float64) float64 {
	return float64(n-1) * math.Pi * thicknessMM / 2
}

// FoldingLimit is how long paper must be at least to be halved n times in one direction, mm:
// π t (2ⁿ + 4)(2ⁿ − 1) / 6, by the lengths of all folds.
func FoldingLimit(n int, thicknessMM float64) float64 {
	k := math.Exp2(float64(n))
	return math.Pi * thicknessMM / 6 * (k + 4) * (k - 1)
}

// CreaseDrift is how far off a crease through n layers lies in the outermost one, mm, at most:
// it is made in the middle of what the layers shift.
func CreaseDrift(n int, thicknessMM float64) float64 { return CreepRound(n, thicknessMM) / 2 }
