package tellers_test

import (
	"math"
	"testing"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/foldtest"
	"tussock/internal/geom"
	"tussock/internal/motion/reveal/teller"
	"tussock/internal/motion/reveal/tellers"
	"tussock/internal/motion/toys"
)

func lift(v geom.Vec) geom.Vec3 { return v.InSpace() }

// gap is how far the two pieces of a hinge are apart.
func gap(p body.Pose, h fold.Hinge) float64 {
	a, b := p.At[h.A], p.At[h.B]
	return math.Max(a.Apply(lift(h.P)).Dist(b.Apply(lift(h.P))), a.Apply(lift(h.Q)).Dist(b.Apply(lift(h.Q))))
}

// Every hinge stays whole through both openings, and the pose at the pattern's own mouth is
// the engine's.
func TestOpeningsClose(t *testing.T) {
	for _, side := range []float64{80, 150, 210, 300} {
		r := foldtest.On(t, foldtest.Toy(t, "teller"), side, side, nil)
		if r.Err != nil {
			t.Fatal(r.Err)
		}
		for _, way := range []teller.Side{teller.A, teller.B} {
			for deg := 0.0; deg <= 45; deg += 2.5 {
				p := tellers.Opened(r, way, geom.Rad(deg))
				for _, h := range p.State.H {
					if g := gap(p, h); g > 1e-9 {
						t.Fatalf("%g mm, %v, γ %g°: a hinge gapes by %g mm", side, way, deg, g)
					}
				}
			}
		}
		if m := body.Standing(r).Weigh().G; math.Abs(toys.PaperG(r)-m) > 1e-9*m {
			t.Errorf("%g mm: %g g of paper, standing %g g", side, toys.PaperG(r), m)
		}
		engine := body.Standing(r) // opened to the left and right by 2γ = 50°
		mine := tellers.Opened(r, teller.A, geom.Rad(25))
		for i := range engine.State.F {
			for j := range engine.State.F {
				a, b := engine.State.F[i].Poly.Centroid(), engine.State.F[j].Poly.Centroid()
				want := engine.At[i].Apply(lift(a)).Dist(engine.At[j].Apply(lift(b)))
				fi, fj := mine.State.FacetsAtSheet(a), mine.State.FacetsAtSheet(b)
				if len(fi) == 0 || len(fj) == 0 {
					t.Fatal("a piece is lost")
				}
				got := mine.At[fi[0]].Apply(lift(a)).Dist(mine.At[fj[0]].Apply(lift(b)))
				if math.Abs(got-want) > 2e-3*side/150 {
					t.Fatalf("%g mm: pieces %d and %d are %.4f mm apart, in the engine's pose %.4f", side, i, j, got, want)
				}
			}
		}
	}
}
