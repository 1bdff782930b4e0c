package wheel

import (
	"math"
	"slices"
)

// Move is one blade turned about the axle, to even a wheel out.
type Move struct {
	Blade int       // from 0
	By    float64   // forward, the way that blades are counted, in what gaps are counted in
	Gaps  []float64 // what they are then
}

// Gaps are the mean of the gaps between blades and by how much they scatter about it, the
// root of their mean square.
func Gaps(gaps []float64) (mean, spread float64) {
	if len(gaps) == 0 {
		return 0, 0
	}
	for _, g := range gaps {
		mean += g
	}
	mean /= float64(len(gaps))
	for _, g := range gaps {
		spread += (g - mean) * (g - mean)
	}
	return mean, math.Sqrt(spread / float64(len(gaps)))
}

// stray is how far each blade stands from where it would stand evenly; the middle one of all
// stands right. Gap i lies behind blade i.
func stray(gaps []float64) []float64 {
	mean, _ := Gaps(gaps)
	out := make([]float64, len(gaps))
	at := 0.0
	for i, g := range gaps {
		out[i] = at - float64(i)*mean
		at += g
	}
	sorted := slices.Clone(out)
	slices.Sort(sorted)
	right := sorted[(len(sorted)-1)/2]
	for i := range out {
		out[i] -= right
	}
	return out
}

// Even are the moves that even a wheel out, the blade that stands off most first; none for
// what stands off by less than least. As one blade stays where it is, there are fewer moves
// than blades.
func Even(gaps []float64, least float64) []Move {
	var out []Move
	now := slices.Clone(gaps)
	for range len(gaps) - 1 {
		off := stray(now)
		worst := 0
		for i, d := range off {
			more := math.Abs(d) - math.Abs(off[worst])
			if more > 1e-9 || more > -1e-9 && beside(now, i) > beside(now, worst)+1e-9 {
				worst = i
			}
		}
		if math.Abs(off[worst]) < least {
			break
		}
		now = Moved(now, worst, -off[worst])
		out = append(out, Move{worst, -off[worst], now})
	}
	return out
}

// beside is by how much the gaps beside a blade stand off the mean.
func beside(gaps []float64, blade int) float64 {
	mean, _ := Gaps(gaps)
	before := gaps[(blade+len(gaps)-1)%len(gaps)]
	return math.Max(math.Abs(gaps[blade]-mean), math.Abs(before-mean))
}

// Moved are the gaps after one blade has been turned forward.
func Moved(gaps []float64, blade int, by float64) []float64 {
	out := slices.Clone(gaps)
	out[(blade+len(out)-1)%len(out)] += by
	out[blade] -= by
	return out
}

// Angles at which blades stand by the gaps between them, radians from the first.
func Angles(gaps []float64) []float64 {
	mean, _ := Gaps(gaps)
	out := make([]float64, len(gaps))
	at := 0.0
	for i, g := range gaps {
		if mean > 0 {
			out[i] = 2 * math.Pi * at / (mean * float64(len(gaps)))
		}
		at += g
	}
	return out
}
