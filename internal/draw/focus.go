package draw

import "math"

// smallPart is the part of the paper below which a fold is shown magnified as well.
const smallPart = 0.3

// Focus is the part of a picture where a step happens, when that is so small that it
// deserves a magnifier: left, top, width and height in mm. ok is false for others.
func Focus(p Picture, o Overlay) (view [4]float64, ok bool) {
	lo, hi := [2]float64{math.Inf(1), math.Inf(1)}, [2]float64{math.Inf(-1), math.Inf(-1)}
	grow := func(points []float64) {
		for i, v := range points {
			lo[i%2], hi[i%2] = math.Min(lo[i%2], v), math.Max(hi[i%2], v)
		}
	}
	for _, m := range o.Moving {
		grow(m.Points)
	}
	for _, s := range o.Strokes {
		if s.Kind == "valley" || s.Kind == "mountain" || s.Kind == "cut" {
			grow(s.Points)
		}
	}
	for _, s := range o.Signs {
		grow(s.At[:])
	}
	size := math.Max(hi[0]-lo[0], hi[1]-lo[1])
	whole := math.Max(p.View[2], p.View[3])
	if !(size > 0) || size > smallPart*whole {
		return view, false
	}
	// A square about it with half as much again around.
	c, half := [2]float64{(lo[0] + hi[0]) / 2, (lo[1] + hi[1]) / 2}, 0.8*size
	return [4]float64{round(c[0] - half), round(c[1] - half), round(2 * half), round(2 * half)}, true
}
