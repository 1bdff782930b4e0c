package air_test

import (
	"math"
	"testing"

	"tussock/internal/geom"
	"tussock/internal/motion/glide/air"
	"tussock/internal/motion/glide/air/airtest"
)

// The textbook's worked example: aspect ratio 5, swept back by 45°, four panels a half,
// one from front to back. Made finer it comes down to about 3.2.
func TestWorkedLatticeExample(t *testing.T) {
	s, _ := airtest.Wing(5, 8, false, math.Abs, airtest.One)
	airtest.Near(t, "the coarse example", airtest.Lift(t, s, 1).CNa, 3.44, 0.01)
	s, _ = airtest.Wing(5, 32, true, math.Abs, airtest.One)
	if c := airtest.Lift(t, s, 4).CNa; c < 3.15 || c > 3.25 {
		t.Errorf("made finer it is %v", c)
	}
}

// Rectangles: the square plate of lifting-surface theory, and Helmbold's formula, which
// is right for narrow and high for wide ones.
func TestRectangles(t *testing.T) {
	s, _ := airtest.Wing(1, 20, true, airtest.Flat, airtest.One)
	l := airtest.Lift(t, s, 6)
	airtest.Near(t, "a square plate", l.CNa, 1.460, 0.01)
	if l.NeutralM < 0.15 || l.NeutralM > 0.21 {
		t.Errorf("its neutral point lies at %v", l.NeutralM)
	}
	helmbold := func(ar float64) float64 { return 2 * math.Pi * ar / (2 + math.Sqrt(ar*ar+4)) }
	s, _ = airtest.Wing(0.5, 20, true, airtest.Flat, airtest.One)
	airtest.Near(t, "aspect ratio 0.5", airtest.Lift(t, s, 6).CNa, helmbold(0.5), 0.01)
	s, _ = airtest.Wing(4, 24, true, airtest.Flat, airtest.One)
	airtest.Near(t, "aspect ratio 4", airtest.Lift(t, s, 6).CNa, helmbold(4), 0.08)
}

// Ellipses of growing span approach the lifting line, 2 pi AR / (AR + 2), and the
// quarter chord.
func TestEllipses(t *testing.T) {
	for ar, part := range map[float64]float64{8: 0.05, 20: 0.02} {
		b := ar * math.Pi / 4 // a root chord of 1
		chord := func(y float64) float64 { return math.Sqrt(math.Max(1e-4, 1-4*y*y/(b*b))) }
		s, _ := airtest.Wing(b, 48, true, func(y float64) float64 { return 0.25 * (1 - chord(y)) }, chord)
		l := airtest.Lift(t, s, 4)
		airtest.Near(t, "an ellipse", l.CNa, 2*math.Pi*ar/(ar+2), part)
		airtest.Near(t, "its neutral point", l.NeutralM, 0.25, 0.06)
	}
}

// Slender deltas: pi AR / 2, and two thirds of the root chord behind the point.
func TestSlenderDeltas(t *testing.T) {
	for _, c := range []struct{ ar, ratio, np float64 }{{0.1, 0.975, 0.656}, {0.25, 0.946, 0.648}} {
		b := c.ar / 2 // a root chord of 1: S = b/2, AR = 2b
		s, _ := airtest.Wing(b, 32, true, func(y float64) float64 { return 2 * math.Abs(y) / b }, func(y float64) float64 { return math.Max(1e-6, 1-2*math.Abs(y)/b) })
		l := airtest.Lift(t, s, 6)
		airtest.Near(t, "lift over its limit", l.CNa/(math.Pi*c.ar/2), c.ratio, 0.03)
		if math.Abs(l.NeutralM-c.np) > 0.012 {
			t.Errorf("aspect ratio %v: the neutral point lies at %v, not %v", c.ar, l.NeutralM, c.np)
		}
	}
}

// What does not depend on size, place or side: coefficients of a wing that is larger,
// further aft, or mirrored.
func TestLiftOfTheSameWing(t *testing.T) {
	lead := func(y float64) float64 { return 0.3*math.Abs(y) + 0.1*y }
	s, _ := airtest.Wing(2, 12, true, lead, airtest.One)
	base := airtest.Lift(t, s, 4)
	moved := make([]air.Strip, len(s))
	mirrored := make([]air.Strip, len(s))
	change := func(e air.Edge, f func(geom.Vec3) geom.Vec3) air.Edge {
		return air.Edge{Lead: f(e.Lead), Trail: f(e.Trail)}
	}
	for i, q := range s {
		bigger := func(v geom.Vec3) geom.Vec3 { return v.Scale(3).Add(geom.Vec3{X: 5, Z: 2}) }
		moved[i] = air.Strip{Left: change(q.Left, bigger), Right: change(q.Right, bigger), FreeLeft: q.FreeLeft, FreeRight: q.FreeRight}
		side := func(v geom.Vec3) geom.Vec3 { return geom.Vec3{X: v.X, Y: -v.Y, Z: v.Z} }
		mirrored[i] = air.Strip{Left: change(q.Right, side), Right: change(q.Left, side), FreeLeft: q.FreeRight, FreeRight: q.FreeLeft}
	}
	big := airtest.Lift(t, moved, 4)
	airtest.Near(t, "the lift of a larger one", big.CNa, base.CNa, 1e-9)
	airtest.Near(t, "its neutral point", big.NeutralM, 3*base.NeutralM+5, 1e-9)
	side := airtest.Lift(t, mirrored, 4)
	airtest.Near(t, "the lift of the mirror image", side.CNa, base.CNa, 1e-9)
	if _, ok := air.NewSurface(nil, 4); ok {
		t.Error("no wing lifts")
	}
}

func BenchmarkSurface(b *testing.B) {
	s, _ := airtest.Wing(1, 16, true, airtest.Flat, airtest.One)
	b.ReportAllocs()
	for b.Loop() {
		air.NewSurface(s, 6)
	}
}
