package divide_test

import (
	"math"
	"testing"
	"time"

	"tussock/internal/geom"
	"tussock/internal/sheet/divide"
)

// Halves, thirds, fifths and sevenths of a square are exact within three or four
// creases; on an office sheet too, since proportion does not matter to them.
func TestExactFractions(t *testing.T) {
	for _, c := range []struct {
		w, h   float64
		f      float64
		within int
	}{
		{150, 150, 1.0 / 2, 1}, {150, 150, 1.0 / 4, 2}, {150, 150, 1.0 / 3, 4}, {210, 297, 1.0 / 3, 4}, {150, 150, 3.0 / 8, 3}, {150, 150, 1.0 / 5, 4}, {150, 150, 1.0 / 7, 4},
	} {
		r := divide.Fraction(c.w, c.h, c.f)
		if len(r) == 0 {
			t.Fatalf("no recipe for %v", c.f)
		}
		last := r[len(r)-1]
		if !last.Exact || len(last.Creases) > c.within {
			t.Errorf("%v of %v x %v: %d creases, off by %v mm", c.f, c.w, c.h, len(last.Creases), last.ErrorMM)
		}
	}
}

// Every recipe is true: replayed by hand, its last crease meets the edge where it
// says; longer recipes are better; errors are those of the mark.
func TestRecipesAreTrue(t *testing.T) {
	for _, f := range []float64{0.2, 0.37, 1.0 / 7, 0.61} {
		prev := math.Inf(1)
		for _, r := range divide.Fraction(210, 297, f) {
			last := r.Creases[len(r.Creases)-1].Line
			l, ok := geom.LineThrough(last.A, last.B)
			if !ok || math.Abs(l.Side(r.Mark)) > 1e-6 || math.Abs(r.Mark.X) > 1e-6 {
				t.Errorf("the mark %v is not where crease %v meets the left edge", r.Mark, last)
			}
			if math.Abs(r.Mark.Y/297-r.Value) > 1e-9 || math.Abs(math.Abs(r.Value-f)*297-r.ErrorMM) > 1e-6 {
				t.Errorf("%v: value %v, error %v", f, r.Value, r.ErrorMM)
			}
			if r.ErrorMM >= prev {
				t.Errorf("%v: %d creases are no better than fewer", f, len(r.Creases))
			}
			prev = r.ErrorMM
			for _, c := range r.Creases {
				if c.Words == "" {
					t.Error("a crease without words")
				}
			}
		}
		if prev > 1.5 {
			t.Errorf("%v is only found to %v mm", f, prev)
		}
	}
}

// Angles: 45° and 22.5° are exact; on a square 60° is found to a degree's
// fraction, and the diagonal of an A sheet is known to miss 36° by 0.74°.
func TestAngles(t *testing.T) {
	for deg, within := range map[float64]int{45: 1, 22.5: 2, 67.5: 2} {
		r := divide.Angle(150, 150, deg)
		if len(r) == 0 || !r[len(r)-1].Exact || len(r[len(r)-1].Creases) > within {
			t.Errorf("%v°: %+v", deg, r)
		}
	}
	r := divide.Angle(297, 210, 36)
	if len(r) == 0 || math.Abs(r[0].ErrorDeg+0.736) > 0.01 {
		t.Errorf("the first recipe for 36° on an A sheet is off by %v", r[0].ErrorDeg)
	}
	r = divide.Angle(150, 150, 60)
	if last := r[len(r)-1]; math.Abs(last.ErrorDeg) > 0.5 {
		t.Errorf("60° is found to %v°", last.ErrorDeg)
	}
}

func TestSearchIsQuick(t *testing.T) {
	start := time.Now()
	divide.Fraction(210, 297, 0.43217)
	t.Logf("%d ms", time.Since(start).Milliseconds())
	if time.Since(start) > 4*time.Second {
		t.Errorf("a search takes %v", time.Since(start))
	}
}
