package glide

import (
	"math"
	"testing"

	"tussock/internal/geom"
)

// wing is a straight wing by its chord at parts of the half span: leading edge and
// chord as functions of y from -b/2 to b/2, cut into equal strips.
func wing(b float64, strips int, inset bool, lead, chord func(y float64) float64) (out []Strip, area float64) {
	edge := func(y float64) Edge {
		x := lead(y)
		return Edge{geom.Vec3{X: x, Y: y}, geom.Vec3{X: x + chord(y), Y: y}}
	}
	for k := range strips {
		y0, y1 := b*(float64(k)/float64(strips)-0.5), b*(float64(k+1)/float64(strips)-0.5)
		s := Strip{Left: edge(y0), Right: edge(y1), FreeLeft: inset && k == 0, FreeRight: inset && k == strips-1}
		out = append(out, s)
		area += s.Chord() * s.Width()
	}
	return out, area
}

func flat(float64) float64 { return 0 }
func one(float64) float64  { return 1 }

func lift(t *testing.T, s []Strip, chordwise int) Derivatives {
	t.Helper()
	q, ok := NewSurface(s, chordwise)
	if !ok {
		t.Fatal("no lift")
	}
	return q.Derivatives(geom.Vec3{})
}

func near(t *testing.T, what string, got, want, part float64) {
	t.Helper()
	if math.Abs(got-want) > part*math.Abs(want) {
		t.Errorf("%s is %.4f, not %.4f within %g %%", what, got, want, 100*part)
	}
}

// The textbook's worked example: aspect ratio 5, swept back by 45°, four panels a half,
// one from front to back. Made finer it comes down to about 3.2.
func TestWorkedLatticeExample(t *testing.T) {
	s, _ := wing(5, 8, false, math.Abs, one)
	near(t, "the coarse example", lift(t, s, 1).CNa, 3.44, 0.01)
	s, _ = wing(5, 32, true, math.Abs, one)
	if c := lift(t, s, 4).CNa; c < 3.15 || c > 3.25 {
		t.Errorf("made finer it is %v", c)
	}
}

// Rectangles: the square plate of lifting-surface theory, and Helmbold's formula, which
// is right for narrow and high for wide ones.
func TestRectangles(t *testing.T) {
	s, _ := wing(1, 20, true, flat, one)
	l := lift(t, s, 6)
	near(t, "a square plate", l.CNa, 1.460, 0.01)
	if l.NeutralM < 0.15 || l.NeutralM > 0.21 {
		t.Errorf("its neutral point lies at %v", l.NeutralM)
	}
	helmbold := func(ar float64) float64 { return 2 * math.Pi * ar / (2 + math.Sqrt(ar*ar+4)) }
	s, _ = wing(0.5, 20, true, flat, one)
	near(t, "aspect ratio 0.5", lift(t, s, 6).CNa, helmbold(0.5), 0.01)
	s, _ = wing(4, 24, true, flat, one)
	near(t, "aspect ratio 4", lift(t, s, 6).CNa, helmbold(4), 0.08)
}

// Ellipses of growing span approach the lifting line, 2 pi AR / (AR + 2), and the
// quarter chord.
func TestEllipses(t *testing.T) {
	for ar, part := range map[float64]float64{8: 0.05, 20: 0.02} {
		b := ar * math.Pi / 4 // a root chord of 1
		chord := func(y float64) float64 { return math.Sqrt(math.Max(1e-4, 1-4*y*y/(b*b))) }
		s, _ := wing(b, 48, true, func(y float64) float64 { return 0.25 * (1 - chord(y)) }, chord)
		l := lift(t, s, 4)
		near(t, "an ellipse", l.CNa, 2*math.Pi*ar/(ar+2), part)
		near(t, "its neutral point", l.NeutralM, 0.25, 0.06)
	}
}

// Slender deltas: pi AR / 2, and two thirds of the root chord behind the point.
func TestSlenderDeltas(t *testing.T) {
	for _, c := range []struct{ ar, ratio, np float64 }{{0.1, 0.975, 0.656}, {0.25, 0.946, 0.648}} {
		b := c.ar / 2 // a root chord of 1: S = b/2, AR = 2b
		s, _ := wing(b, 32, true, func(y float64) float64 { return 2 * math.Abs(y) / b }, func(y float64) float64 { return math.Max(1e-6, 1-2*math.Abs(y)/b) })
		l := lift(t, s, 6)
		near(t, "lift over its limit", l.CNa/(math.Pi*c.ar/2), c.ratio, 0.03)
		if math.Abs(l.NeutralM-c.np) > 0.012 {
			t.Errorf("aspect ratio %v: the neutral point lies at %v, not %v", c.ar, l.NeutralM, c.np)
		}
	}
}

// What does not depend on size, place or side: coefficients of a wing that is larger,
// further aft, or mirrored.
func TestLiftOfTheSameWing(t *testing.T) {
	lead := func(y float64) float64 { return 0.3*math.Abs(y) + 0.1*y }
	s, _ := wing(2, 12, true, lead, one)
	base := lift(t, s, 4)
	moved := make([]Strip, len(s))
	mirrored := make([]Strip, len(s))
	change := func(e Edge, f func(geom.Vec3) geom.Vec3) Edge { return Edge{f(e.Lead), f(e.Trail)} }
	for i, q := range s {
		bigger := func(v geom.Vec3) geom.Vec3 { return v.Scale(3).Add(geom.Vec3{X: 5, Z: 2}) }
		moved[i] = Strip{Left: change(q.Left, bigger), Right: change(q.Right, bigger), FreeLeft: q.FreeLeft, FreeRight: q.FreeRight}
		side := func(v geom.Vec3) geom.Vec3 { return geom.Vec3{X: v.X, Y: -v.Y, Z: v.Z} }
		mirrored[i] = Strip{Left: change(q.Right, side), Right: change(q.Left, side), FreeLeft: q.FreeRight, FreeRight: q.FreeLeft}
	}
	big := lift(t, moved, 4)
	near(t, "the lift of a larger one", big.CNa, base.CNa, 1e-9)
	near(t, "its neutral point", big.NeutralM, 3*base.NeutralM+5, 1e-9)
	side := lift(t, mirrored, 4)
	near(t, "the lift of the mirror image", side.CNa, base.CNa, 1e-9)
	if _, ok := NewSurface(nil, 4); ok {
		t.Error("no wing lifts")
	}
}

func BenchmarkSurface(b *testing.B) {
	s, _ := wing(1, 16, true, flat, one)
	b.ReportAllocs()
	for b.Loop() {
		NewSurface(s, 6)
	}
}
