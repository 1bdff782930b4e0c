package geom

import (
	"math"
	"slices"
)

// realRoots are the real roots of c0 + c1 t + c2 t² + c3 t³ from -reach to reach, in
// order. Between the turning points of the cubic it is monotone, so that each stretch
// holds one root at most, found by bisection to rounding; where it only touches zero, the
// turning point itself is the root.
func realRoots(c [4]float64, reach float64) []float64 {
	at := func(t float64) float64 { return c[0] + t*(c[1]+t*(c[2]+t*c[3])) }
	// By how much rounding may have moved a value near t.
	slack := func(t float64) float64 {
		x := math.Abs(t)
		return 1e-13 * (math.Abs(c[0]) + x*(math.Abs(c[1])+x*(math.Abs(c[2])+x*math.Abs(c[3]))))
	}
	ends := []float64{-reach}
	for _, t := range quadraticRoots(3*c[3], 2*c[2], c[1]) {
		if t > -reach && t < reach {
			ends = append(ends, t)
		}
	}
	ends = append(ends, reach)
	slices.Sort(ends)
	var out []float64
	for i, t := range ends {
		if math.Abs(at(t)) <= slack(t) {
			out = append(out, t)
		}
		if i+1 == len(ends) || at(t)*at(ends[i+1]) >= 0 {
			continue
		}
		lo, hi := t, ends[i+1]
		for rising := at(lo) < 0; ; {
			mid := (lo + hi) / 2
			if mid <= lo || mid >= hi {
				break
			}
			if (at(mid) < 0) == rising {
				lo = mid
			} else {
				hi = mid
			}
		}
		out = append(out, (lo+hi)/2)
	}
	slices.Sort(out)
	return out
}

// quadraticRoots of a t² + b t + c; also where a, or a and b, are nothing.
func quadraticRoots(a, b, c float64) []float64 {
	disc := b*b - 4*a*c
	if disc < 0 {
		return nil
	}
	// The larger in magnitude first, so that nothing is taken from its like.
	q := -(b + math.Copysign(math.Sqrt(disc), b)) / 2
	var out []float64
	if a != 0 {
		out = append(out, q/a)
	}
	if q != 0 {
		out = append(out, c/q)
	}
	return slices.DeleteFunc(out, func(t float64) bool { return math.IsNaN(t) || math.IsInf(t, 0) })
}
