// Package airtest makes wings of known shapes for tests of what carries in the air.
package airtest

import (
	"math"
	"testing"

	"tussock/internal/geom"
	"tussock/internal/motion/glide/air"
)

// Wing is a straight wing by its chord at parts of the half span: leading edge and
// chord as functions of y from -b/2 to b/2, cut into equal strips.
func Wing(b float64, strips int, inset bool, lead, chord func(y float64) float64) (out []air.Strip, area float64) {
	edge := func(y float64) air.Edge {
		x := lead(y)
		return air.Edge{Lead: geom.Vec3{X: x, Y: y}, Trail: geom.Vec3{X: x + chord(y), Y: y}}
	}
	for k := range strips {
		y0, y1 := b*(float64(k)/float64(strips)-0.5), b*(float64(k+1)/float64(strips)-0.5)
		s := air.Strip{Left: edge(y0), Right: edge(y1), FreeLeft: free(inset && k == 0), FreeRight: free(inset && k == strips-1)}
		out = append(out, s)
		area += s.Chord() * s.Width()
	}
	return out, area
}

// Flat is a straight leading edge.
func Flat(float64) float64 { return 0 }

// One is a chord that is the same everywhere.
func One(float64) float64 { return 1 }

// Lift solves a wing about its leading edge.
func Lift(t *testing.T, s []air.Strip, chordwise int) air.Derivatives {
	t.Helper()
	q, ok := air.NewSurface(s, chordwise)
	if !ok {
		t.Fatal("no lift")
	}
	return q.Derivatives(geom.Vec3{})
}

// Near fails when a figure is off by more than a part of what it should be.
func Near(t *testing.T, what string, got, want, part float64) {
	t.Helper()
	if math.Abs(got-want) > part*math.Abs(want) {
		t.Errorf("%s is %.4f, not %.4f within %g %%", what, got, want, 100*part)
	}
}

// Halves marks the strips of a wing as right and left, with a lip of a given depth.
func Halves(s []air.Strip, lip float64) []air.Strip {
	for i := range s {
		s[i].LipM = lip
		if s[i].Left.Lead.Y+s[i].Right.Lead.Y < 0 {
			s[i].Part = air.LeftWing
		}
	}
	return s
}

// Delta is a pointed wing of a root chord of 1.
func Delta(ar float64, strips int) []air.Strip {
	b := ar / 2
	s, _ := Wing(b, strips, true, func(y float64) float64 { return 2 * math.Abs(y) / b }, func(y float64) float64 { return math.Max(1e-6, 1-2*math.Abs(y)/b) })
	return Halves(s, 0)
}

func Surface(t *testing.T, s []air.Strip, chordwise int) *air.Surface {
	t.Helper()
	q, ok := air.NewSurface(s, chordwise)
	if !ok {
		t.Fatal("no surface")
	}
	return q
}

func free(tip bool) float64 {
	if tip {
		return 1
	}
	return 0
}
