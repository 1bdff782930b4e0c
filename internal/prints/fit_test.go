package prints_test

import (
	"math"
	"strings"
	"testing"

	"tussock/internal/geom"
	"tussock/internal/prints"
)

// half is as wide as letters were taken for by the law: half an em each.
func half(text string) float64 { return 0.5 * float64(len([]rune(text))) }

// right is a right isosceles triangle on its hypotenuse.
func right(hyp float64) geom.Polygon {
	return geom.Polygon{{X: 0, Y: 0}, {X: hyp, Y: 0}, {X: hyp / 2, Y: hyp / 2}}
}

func TestOneLineInATriangle(t *testing.T) {
	for _, c := range []struct {
		n int
		f float64
	}{{3, .28571}, {5, .22222}, {10, .14286}} {
		got, ok := prints.Fit(strings.Repeat("m", c.n), right(100), 100, half)
		if !ok || len(got.Lines) != 1 || math.Abs(got.SizeMM/100-c.f) > 2e-4 {
			t.Errorf("%d letters: %+v, want %g of the hypotenuse", c.n, got, c.f)
		}
	}
}

// A sheet of 150 mm, a margin of 1.5: the triangles of its numbers.
func TestTextInATriangle(t *testing.T) {
	leg := 37.5 - 1.5*(2+math.Sqrt2)
	for _, c := range []struct {
		text  string
		mm    float64
		lines int
	}{{"ASK AGAIN LATER", 6.1, 2}, {"YOU WILL FIND A LUCKY COIN TODAY", 4.6, 3}} {
		got, ok := prints.Fit(c.text, right(leg*math.Sqrt2), 100, half)
		if !ok || len(got.Lines) < c.lines || got.SizeMM < c.mm-0.15 || got.SizeMM > c.mm+0.6 {
			t.Errorf("%s: %.2f mm in %d lines, want %g in %d", c.text, got.SizeMM, len(got.Lines), c.mm, c.lines)
		}
	}
}

func TestInset(t *testing.T) {
	leg, m := 40.0, 1.5
	in := prints.Inset(geom.Polygon{{X: 0, Y: 0}, {X: leg, Y: 0}, {X: 0, Y: leg}}, m)
	want := leg - m*(2+math.Sqrt2)
	if a := math.Abs(in.Area()); math.Abs(a-want*want/2) > 1e-6 {
		t.Errorf("area %g, want %g", a, want*want/2)
	}
	if prints.Inset(geom.Polygon{{X: 0, Y: 0}, {X: 3, Y: 0}, {X: 0, Y: 3}}, 2) != nil {
		t.Error("something is left of a triangle narrower than its margins")
	}
}

// No line leaves its shape, whichever the shape and the text.
func TestNoLineLeavesItsShape(t *testing.T) {
	shapes := []geom.Polygon{right(40), {{X: 0, Y: 20}, {X: 20, Y: 0}, {X: 40, Y: 20}}, {{X: 0, Y: 0}, {X: 25, Y: 0}, {X: 25, Y: 25}}, {{X: 0, Y: 0}, {X: 25, Y: 0}, {X: 25, Y: 20}, {X: 0, Y: 20}}}
	for _, s := range shapes {
		for _, text := range []string{"A", "RED", "Look for a shell with two colours", "Wasserstandsanzeiger lesen", "Ζήτα μια ευχή από τη θάλασσα", "Zażółć gęślą jaźń"} {
			got, ok := prints.Fit(text, s, prints.MostTypeMM, prints.Printed)
			if !ok {
				if got.SizeMM >= prints.LeastTypeMM {
					t.Errorf("%q in %v is said not to fit at %.2f mm", text, s, got.SizeMM)
				}
				continue
			}
			var said []string
			for _, l := range got.Lines {
				said = append(said, l.Text)
				w := prints.Printed(l.Text) * got.SizeMM / 2
				for _, x := range []float64{-w, w} {
					for _, y := range []float64{-got.SizeMM / 2, got.SizeMM / 2} {
						if p := l.At.Add(geom.Vec{X: x, Y: y}); !s.Contains(p, 1e-6) {
							t.Errorf("%q: the line %q leaves %v at %v", text, l.Text, s, p)
						}
					}
				}
			}
			if strings.Join(said, " ") != text {
				t.Errorf("%q came to be %q", text, said)
			}
		}
	}
}

func BenchmarkFit(b *testing.B) {
	s := right(40)
	for b.Loop() {
		prints.Fit("Look for a shell with two colours", s, prints.MostTypeMM, prints.Printed)
	}
}
