package divide

import (
	"math"
	"strings"
)

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
