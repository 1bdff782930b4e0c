package draw

import (
	"math"

	"tussock/internal/geom"
	"tussock/internal/sequence/spread"
)

// GapWide is how wide the picture of a gap is on paper, in mm, for the magnification
// that is told with it.
const GapWide = 60.0

// Gap draws a cut through a fold, magnified: the layer that stays, those inside, and
// the layer that comes over round them and ends short of, at or past its target.
func Gap(c spread.Clearance, thicknessMM float64) (p Picture, o Overlay, times float64) {
	// Everything below is in thicknesses, so that rounding does no harm.
	t, c := 1.0, c
	c.MM /= thicknessMM
	inner := float64(c.Inside) * t
	if c.Inside == 0 {
		inner = t / 2
	}
	long := math.Max(10*t, 3*c.MM+6*t) // from the target to the fold
	strip := func(front bool, x0, x1, y0, y1 float64) {
		p.Faces = append(p.Faces, Face{Front: front, Points: flatPoints(geom.Vec{X: x0, Y: y0}, geom.Vec{X: x1, Y: y0}, geom.Vec{X: x1, Y: y1}, geom.Vec{X: x0, Y: y1})})
	}
	strip(true, 0, long, -t, 0)
	for i := range c.Inside {
		strip(false, t, long-t/4, float64(i)*t, float64(i+1)*t)
	}
	end := 0.0
	switch c.Verdict {
	case spread.Leave:
		end = c.MM
	case spread.Overlap:
		end = -c.MM
	}
	strip(true, end, long, inner, inner+t)
	// The bend: half a ring round what lies inside.
	mid := geom.Vec{X: long, Y: inner / 2}
	var ring []geom.Vec
	const parts = 12
	for _, r := range []float64{inner/2 + t, inner / 2} {
		for i := range parts + 1 {
			k := i
			if r == inner/2 {
				k = parts - i
			}
			a := math.Pi * (float64(k)/parts - 0.5)
			ring = append(ring, mid.Add(geom.Vec{X: r * math.Cos(a), Y: r * math.Sin(a)}))
		}
	}
	p.Faces = append(p.Faces, Face{Front: true, Points: flatPoints(ring...)})
	box := geom.Box{MinX: math.Min(0, end) - 2*t, MaxX: long + inner/2 + 2*t, MinY: -2.5 * t, MaxY: inner + 3.5*t}
	p.View = view(box)
	o = nothing(box)
	for _, x := range []float64{0, end} {
		o.Strokes = append(o.Strokes, Stroke{"axis", flatPoints(geom.Vec{X: x, Y: -2 * t}, geom.Vec{X: x, Y: inner + 3*t})})
	}
	return p, o, GapWide / (box.Width() * thicknessMM)
}
