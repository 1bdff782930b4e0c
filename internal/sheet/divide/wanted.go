package divide

import (
	"fmt"
	"math"

	"tussock/internal/given"
	"tussock/internal/say"
)

// Wanted is a question about the left edge of a sheet: a fraction of it from below, a
// length, equal parts, or an angle at the lower left corner from the lower edge.
type Wanted struct {
	What string  // fraction, length, parts or angle
	Part float64 // numerator, mm, how many parts, or degrees
	Of   float64 // denominator of a fraction
}

// MostParts is into how many parts an edge is divided: more are closer than a hand is
// exact.
const MostParts = 33

// What can be found at all: marks too near to an end are no marks, and angles too near to
// an edge no creases.
const (
	leastFraction = 0.005
	leastDeg      = 0.5
	mostOf        = 1000
)

// Parts is into how many equal parts the edge is to be divided; 0 when it is not.
func (w Wanted) Parts() int {
	n := w.Of
	if w.What == "parts" {
		n = w.Part
	} else if w.What != "fraction" || w.Part != 1 {
		return 0
	}
	if n != math.Trunc(n) {
		return 0
	}
	return int(n)
}

// Target is the fraction of the edge, or the angle in degrees, that is wanted. The error
// is a *given.Error with the field part.
func (w Wanted) Target(edgeMM float64) (float64, error) {
	refuse := func(said, want string) (float64, error) {
		return 0, &given.Error{Field: "part", Value: w.Part, Said: said, Want: want}
	}
	inside := func(f float64) bool { return f >= leastFraction && f <= 1-leastFraction }
	switch w.What {
	case "angle":
		if !(w.Part > leastDeg && w.Part < 90-leastDeg) {
			return refuse("the angle is "+say.Value(w.Part, "deg", 2), say.Between(leastDeg, 90-leastDeg, "deg", 1))
		}
		return w.Part, nil
	case "parts":
		if n := w.Parts(); n < 2 || n > MostParts {
			return refuse(fmt.Sprintf("it is to be divided into %v equal parts", w.Part), fmt.Sprintf("2 to %d", MostParts))
		}
		return 1 / w.Part, nil
	case "length":
		if !inside(w.Part / edgeMM) {
			return refuse("the length is "+say.MM(w.Part, 1), "a length on the left edge, which has "+say.MM(edgeMM, 1))
		}
		return w.Part / edgeMM, nil
	}
	if f := w.Part / w.Of; math.IsNaN(f) || !inside(f) || w.Of > mostOf {
		return refuse(fmt.Sprintf("the fraction is %v of %v", w.Part, w.Of), "between 0 and 1")
	}
	return w.Part / w.Of, nil
}

// Equal is how an edge is divided into n equal parts once a recipe for the first mark is
// there: the way that corrects itself, nil unless n is odd, and the marks in order with
// their errors. Of the recipes the last, which is the best, gives the first mark.
func Equal(n int, edgeMM, handMM float64, found []Recipe) (*Correcting, []Mark) {
	if n < 2 || n > MostParts {
		return nil, nil
	}
	var c *Correcting
	if q, ok := SelfCorrecting(n, edgeMM, handMM); ok {
		c = &q
	}
	first := n&(n-1) != 0 // halving alone gives powers of two
	off := 0.0
	if first && len(found) > 0 {
		best := found[len(found)-1]
		off = math.Hypot(best.ErrorMM, handMM*math.Sqrt(float64(len(best.Creases))))
	}
	return c, Tree(n, edgeMM, first, off, handMM)
}
