package body_test

import (
	"math"
	"testing"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/motion/glide/craft"
	"tussock/internal/shelf"
)

func area3(p []geom.Vec3) float64 {
	sum := geom.Vec3{}
	for i := 1; i+1 < len(p); i++ {
		sum = sum.Add(p[i].Sub(p[0]).Cross(p[i+1].Sub(p[0])))
	}
	return sum.Len() / 2
}

// A bent edge keeps its paper, stands up by the sine of its angle, on the side that was
// bent, and an even curl stands alike on both sides.
func TestLipsStandUp(t *testing.T) {
	p, _ := shelf.Find("curlew")
	for _, knobs := range []map[string]float64{{"curl": 8}, {"curl": 6, "curl_uneven": 4}, {"curl": 0, "rudder": 10}, {"curl": -5}} {
		r := on(t, p, 210, 297, knobs)
		pose := body.Standing(r)
		f, ok := craft.FrameOf(r, pose)
		if !ok {
			t.Fatal("no frame")
		}
		for _, l := range craft.Lips(r, pose) {
			rise, whole, parts := 0.0, 0.0, 0.0
			side := 0.0
			for i := range pose.State.F {
				id := fold.FacetID(i)
				if pose.PartOf(id) != l.Part {
					continue
				}
				c := pose.Corners(id)
				rest, bent := l.Cut(c)
				whole += area3(c)
				parts += area3(rest) + area3(bent)
				for _, v := range bent {
					towards := f.Right.Cross(f.Chord).Unit() // up from level wings
					if l.Part == 0 {
						towards = f.Right
					}
					d := v.Sub(l.At)
					d = d.Sub(l.Axis.Scale(d.Dot(l.Axis)))
					if h := d.Dot(towards); math.Abs(h) > math.Abs(rise) {
						rise = h
					}
					side += v.Sub(f.Nose).Dot(f.Right)
				}
			}
			if math.Abs(whole-parts) > 1e-6*whole {
				t.Errorf("%v: %v mm² become %v", knobs, whole, parts)
			}
			deg := knobs["curl"]
			switch {
			case l.Part == 0:
				deg = knobs["rudder"]
			case side > 0:
				deg += knobs["curl_uneven"] / 2
			default:
				deg -= knobs["curl_uneven"] / 2
			}
			if want := 10 * math.Sin(geom.Rad(deg)); math.Abs(rise-want) > 0.15 {
				t.Errorf("%v, wing %d: the edge stands %.2f mm up, not %.2f", knobs, l.Part, rise, want)
			}
		}
	}
	if lips := craft.Lips(on(t, p, 210, 297, map[string]float64{"curl": 0}), body.Standing(on(t, p, 210, 297, nil))); len(lips) != 0 {
		t.Errorf("%d edges are bent without a bend", len(lips))
	}
}

// Fins stand on their wings: they are pieces of their own, upright, one on each side,
// and they count as no wing.
func TestFinsStandOnTheWings(t *testing.T) {
	p, _ := shelf.Find("godwit")
	r := on(t, p, 215.9, 279.4, map[string]float64{"wing": 90})
	pose := body.Standing(r)
	f, ok := craft.FrameOf(r, pose)
	if !ok {
		t.Fatal("no frame")
	}
	sides := map[bool]int{}
	for w, wing := range r.Openings {
		if wing.Op != craft.OpFin {
			continue
		}
		lo, hi := math.Inf(1), math.Inf(-1)
		out := 0.0
		n := 0
		for i := range pose.State.F {
			if pose.PartOf(fold.FacetID(i)) != w+1 {
				continue
			}
			n++
			for _, c := range pose.Corners(fold.FacetID(i)) {
				d := c.Sub(f.Nose)
				lo, hi = math.Min(lo, d.Dot(f.Up)), math.Max(hi, d.Dot(f.Up))
				out += d.Dot(f.Right)
			}
		}
		if n == 0 || hi-lo < 12 {
			t.Errorf("fin %d has %d pieces and stands %.1f mm high", w+1, n, hi-lo)
		}
		sides[out > 0]++
	}
	if sides[true] != 1 || sides[false] != 1 {
		t.Errorf("fins by side: %v", sides)
	}
	if pose.Residual > 0.5 {
		t.Errorf("hinges miss by %v mm", pose.Residual)
	}
}
