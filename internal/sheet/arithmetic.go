package sheet

import (
	"math"
	"strings"
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

// Halvings is the self-correcting way to divide an edge into n equal parts: fold
// the left (0) or right (1) end to the last mark, in turn, for ever. It is the
// period of 1/n written in twos, read from its last digit. n is odd, 3 to 99.
func Halvings(n int) string {
	var digits strings.Builder
	r := 1
	for {
		r *= 2
		if r >= n {
			digits.WriteByte('1')
			r -= n
		} else {
			digits.WriteByte('0')
		}
		if r == 1 || digits.Len() > 2*n {
			return digits.String()
		}
	}
}

// Thirds is how far the two folds of an edge folded in three like an S must move,
// from the three widths that are seen, in mm: positive towards the last end. The
// folds then lie at a third and two thirds of the sum of the widths.
func Thirds(first, middle, last float64) (firstFold, secondFold float64) {
	third := (first + middle + last) / 3
	return third - first, last - third
}

// AfterFolds is what is left of a first error after so many self-correcting folds:
// each halves it.
func AfterFolds(errorMM float64, folds int) float64 { return errorMM / math.Pow(2, float64(folds)) }

// guessMM is how far off a first guess by eye is taken to be, or a tenth of a
// short edge.
const guessMM = 5.0

// Correcting is the self-correcting way to the first of n equal parts of an edge.
type Correcting struct {
	Folds        string    // as Halvings gives them
	FirstErrorMM float64   // of the guess
	AfterMM      []float64 // what is left of it after each of three rounds
	HandMM       float64   // each fold's own error, one standard deviation
	DriftMM      float64   // what those add up to
}

// SelfCorrecting is that way for an edge and a hand; ok is false unless n is odd,
// 3 to 33.
func SelfCorrecting(n int, edgeMM, handMM float64) (c Correcting, ok bool) {
	if n%2 == 0 || n < 3 || n > 33 {
		return c, false
	}
	c = Correcting{Folds: Halvings(n), FirstErrorMM: math.Min(guessMM, edgeMM/10), HandMM: handMM, DriftMM: Drift(handMM)}
	for round := 1; round <= 3; round++ {
		c.AfterMM = append(c.AfterMM, AfterFolds(c.FirstErrorMM, round*len(c.Folds)))
	}
	return c, true
}

// Drift is what random errors of each such fold add up to, in the long run.
func Drift(sigmaMM float64) float64 { return sigmaMM / math.Sqrt(1-0.25) }

// CreepFlat and CreepRound are by how much n layers inside a fold shift its last
// one against the first, pressed flat or left round.
func CreepFlat(n int, thicknessMM float64) float64 { return float64(n-1) * thicknessMM }
func CreepRound(n int, thicknessMM float64) float64 {
	return float64(n-1) * math.Pi * thicknessMM / 2
}
