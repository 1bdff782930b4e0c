package body_test

import (
	"math"
	"testing"

	"tussock/internal/body"
)

func TestFourCreaseReference(t *testing.T) {
	for _, c := range []struct{ a, b, first, second float64 }{
		{60, 90, 0.267949, 3.732051}, {45, 67.5, 0.566454, 4.261973}, {50, 80, 0.437527, 3.501704},
	} {
		v := body.FourCrease{A: c.a, B: c.b}
		first, second := v.Ratios()
		near(t, "first way", first, c.first, 1e-6)
		near(t, "second way", second, c.second, 1e-6)
		for _, deg := range []float64{1, 40, 90, 150} {
			for _, way := range []bool{false, true} {
				if r := v.Closure(v.Folds(deg, way)); r > 1e-5 {
					t.Errorf("%v folded by %v° (second %v) does not close: %g°", v, deg, way, r)
				}
			}
		}
		// The check must see what does not close.
		bad := v.Folds(60, false)
		bad[1] += 5
		if r := v.Closure(bad); r < 1 {
			t.Errorf("%v: a fold 5° off closes within %g°", v, r)
		}
	}
}

func TestSaltReference(t *testing.T) {
	for _, c := range []struct{ r, v1, rf1, vf1, v2, rf2, vf2 float64 }{
		{80, 85.849134, 8.301732, 20, 66.146982, 47.706037, 20},
		{70, 81.645408, 16.709184, 40, 43.881965, 92.236069, 40},
		{60, 77.333531, 25.332939, 60, 24.203428, 131.593143, 60},
		{50, 72.853147, 34.293705, 80, 7.388333, 165.223334, 80},
	} {
		a, b, ok := body.SaltAt(c.r)
		if !ok {
			t.Fatalf("no way to stand at %v", c.r)
		}
		near(t, "shallow valley", a.Valley, c.v1, 1e-6)
		near(t, "pinched valley", b.Valley, c.v2, 1e-6)
		for i, q := range [][2]float64{{a.RidgeFold, c.rf1}, {a.ValleyFold, c.vf1}, {b.RidgeFold, c.rf2}, {b.ValleyFold, c.vf2}} {
			near(t, "fold "+string(rune('0'+i)), math.Min(q[0], 180-q[0]+360), q[1], 1e-5)
		}
	}
	if a, _, ok := body.SaltAt(90); !ok || math.Abs(a.Valley-90) > 1e-9 || a.RidgeFold > 1e-9 {
		t.Errorf("flat paper stands as %+v", a)
	}
}
