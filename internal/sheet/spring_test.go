package sheet_test

import (
	"math"
	"testing"

	"tussock/internal/sheet"
)

func TestSpringback(t *testing.T) {
	for u, want := range map[float64]float64{0.1: 26.91, 0.25: 66.09, 0.5: 123.75, 1: 180} {
		if got := 180 * sheet.Springback(u); math.Abs(got-want) > 0.01 {
			t.Errorf("%v: %.3f, want %.2f", u, got, want)
		}
	}
}

func TestStacks(t *testing.T) {
	if sheet.StackFactor(6, 0) != 6 || sheet.StackFactor(6, 1) != 216 || sheet.StackFactor(6, 1)/sheet.StackFactor(6, 0) != 36 {
		t.Error("sliding goes with n, bonded with n³")
	}
}

// Stiffness of usual papers, N/rad per m at 20 mm, and the most a layer bears.
func TestPapers(t *testing.T) {
	for _, q := range []struct{ mm, kappa, plastic float64 }{{0.078, 0.0063, 0.046}, {0.09, 0.0097, 0.061}, {0.104, 0.0150, 0.081}, {0.15, 0.045, 0.169}, {0.195, 0.099, 0.285}} {
		if k := sheet.Bending(sheet.Ordinary, q.mm) / 0.020; math.Abs(k-q.kappa) > 0.01*q.kappa {
			t.Errorf("%v mm: %v", q.mm, k)
		}
		if m := sheet.PlasticMoment(q.mm); math.Abs(m-q.plastic) > 0.01*q.plastic {
			t.Errorf("%v mm bears %v", q.mm, m)
		}
	}
}

// Grain across the crease makes it about twice as stiff as along it, and all angles lie
// between.
func TestGrain(t *testing.T) {
	across, along := sheet.GrainFactor(90), sheet.GrainFactor(0)
	if r := across / along; math.Abs(r-1.9) > 1e-9 {
		t.Errorf("ratio %v", r)
	}
	last := along
	for a := 15.0; a <= 90; a += 15 {
		if v := sheet.GrainFactor(a); v < last-0.05 {
			t.Errorf("at %v°: %v after %v", a, v, last)
		} else {
			last = v
		}
	}
}
