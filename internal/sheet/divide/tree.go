package divide

import (
	"fmt"
	"math"
	"slices"
)

// Mark is one of the marks that divide an edge into equal parts, and how it is made.
type Mark struct {
	K       int     // it lies at K of the parts from the beginning
	Words   string  // "" for the mark that a recipe gives
	From    [2]int  // marks (0 and n are the ends) that are brought together
	ErrorMM float64 // one standard deviation, for a hand that is off by so much at each fold
}

// Tree divides an edge into n equal parts, from its ends and a first mark that is off
// by firstMM (0 when there is none: n is then a power of two): which mark is brought to
// which, in what order, with the error at each. A fold between two marks lies at the
// mean of their errors, and adds the hand's own; a part folded over carries its error
// twice. Of all ways to a mark the surest is taken.
func Tree(n int, lengthMM float64, first bool, firstMM, handMM float64) []Mark {
	const none = math.MaxFloat64
	err := make([]float64, n+1)
	how := make([]Mark, n+1)
	for k := range err {
		err[k] = none
	}
	err[0], err[n] = 0, 0
	if first {
		err[1] = firstMM
		how[1] = Mark{K: 1, ErrorMM: firstMM}
	}
	ends := func(k int) string {
		switch k {
		case 0:
			return "the beginning"
		case n:
			return "the end"
		}
		return fmt.Sprintf("mark %d", k)
	}
	done := map[int]bool{0: true, n: true, 1: first}
	order := []Mark{}
	if first {
		order = append(order, how[1])
	}
	// The surest mark that can be made from those there are, again and again: no
	// later one can make an earlier one surer.
	for {
		best := Mark{ErrorMM: none}
		for a := range err {
			for b := a + 1; b < len(err) && done[a]; b++ {
				if !done[b] {
					continue
				}
				try := func(k int, e float64, words string) {
					if k > 0 && k < n && !done[k] && e < best.ErrorMM-1e-12 {
						best = Mark{k, words, [2]int{a, b}, e}
					}
				}
				if (a+b)%2 == 0 {
					try((a+b)/2, math.Hypot(math.Hypot(err[a], err[b])/2, handMM), fmt.Sprintf("Bring %s to %s, pinch, open.", ends(a), ends(b)))
				}
				// Folded at b, a comes to lie as far beyond it, and the other way round.
				try(2*b-a, math.Hypot(math.Hypot(2*err[b], err[a]), handMM), fmt.Sprintf("Fold at %s; where %s comes to lie is the next mark. Pinch it, open.", ends(b), ends(a)))
				try(2*a-b, math.Hypot(math.Hypot(2*err[a], err[b]), handMM), fmt.Sprintf("Fold at %s; where %s comes to lie is the next mark. Pinch it, open.", ends(a), ends(b)))
			}
		}
		if best.ErrorMM == none {
			break
		}
		done[best.K], err[best.K] = true, best.ErrorMM
		order = append(order, best)
	}
	if len(order) != n-1 || lengthMM <= 0 {
		return nil
	}
	return slices.Clip(order)
}
