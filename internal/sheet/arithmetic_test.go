package sheet_test

import (
	"math"
	"testing"

	"tussock/internal/sheet"
	"tussock/internal/sheet/divide"
)

func close(t *testing.T, what string, got, want, tol float64) {
	t.Helper()
	if math.Abs(got-want) > tol {
		t.Errorf("%s is %v, want %v", what, got, want)
	}
}

// The exact oracles of sheet arithmetic.
func TestSheetArithmeticReference(t *testing.T) {
	for _, c := range []struct {
		w, h, least float64
		want        []sheet.SquareRun
	}{
		{210, 297, 15, []sheet.SquareRun{{SideMM: 210, Count: 1}, {SideMM: 87, Count: 2}, {SideMM: 36, Count: 2}, {SideMM: 15, Count: 2}}},
		{215.9, 279.4, 12, []sheet.SquareRun{{SideMM: 215.9, Count: 1}, {SideMM: 63.5, Count: 3}, {SideMM: 25.4, Count: 2}, {SideMM: 12.7, Count: 2}}},
	} {
		got := sheet.Squares(c.w, c.h, c.least)
		if len(got) != len(c.want) {
			t.Fatalf("%v x %v: %v", c.w, c.h, got)
		}
		for i, q := range c.want {
			if math.Abs(got[i].SideMM-q.SideMM) > 1e-6 || got[i].Count != q.Count {
				t.Errorf("%v x %v: %v, want %v", c.w, c.h, got[i], q)
			}
		}
	}
	for n, want := range map[int]float64{2: 148.5, 4: 105, 6: 99, 8: 74.25, 12: 70} {
		close(t, "equal squares", sheet.EqualSquares(210, 297, n), want, 1e-9)
	}
	a := sheet.SameRatio(210, 297, 215.9, 279.4)
	if a.Possible {
		t.Error("letter can be cut from A4")
	}
	close(t, "letter ratio from A4", a.HeightMM, 271.76, 0.01)
	close(t, "its scale", a.Scale, 0.9727, 1e-4)
	close(t, "its trim", a.OffHeightMM, 25.24, 0.01)
	b := sheet.SameRatio(215.9, 279.4, 210, 297)
	close(t, "A4 ratio from letter", b.WidthMM, 197.56, 0.01)
	close(t, "its trim", b.OffWidthMM, 18.34, 0.01)
	for deg, want := range map[float64]float64{0.25: 0.92, 0.5: 1.83, 1: 3.67} {
		close(t, "taper", sheet.Taper(210, deg), want, 0.005)
	}
	for deg, want := range map[float64][2]float64{0.25: {0.93, 0.65}, 0.5: {1.85, 1.31}, 1: {3.70, 2.62}} {
		d, e := sheet.OffSquare(150, deg)
		close(t, "diagonals", d, want[0], 0.006)
		close(t, "edge", e, want[1], 0.006)
	}
	close(t, "the exact mark", sheet.FanAngle(1/math.Tan(2*math.Pi/5)), 72, 1e-9)
	close(t, "the customary mark", sheet.FanAngle(1.0/3), 71.57, 0.005)
	for n, want := range map[int]string{3: "01", 5: "0011", 7: "001", 9: "000111"} {
		if got := divide.Halvings(n); got != want {
			t.Errorf("1/%d is halved by %s, want %s", n, got, want)
		}
	}
	if got := divide.Halvings(11); len(got) != 10 {
		t.Errorf("1/11 has a period of %d", len(got))
	}
	for _, c := range []struct {
		n      int
		cycles int
		want   float64
	}{{3, 1, 1.25}, {5, 1, 0.3125}, {7, 1, 0.625}, {3, 2, 0.3125}, {5, 2, 0.0195}, {7, 2, 0.078}} {
		close(t, "error after cycles", divide.AfterFolds(5, c.cycles*len(divide.Halvings(c.n))), c.want, 5e-4)
	}
	close(t, "drift", divide.Drift(0.3), 0.346, 5e-4)
	for n, want := range map[int]float64{3: 4.40, 5: 58.43, 7: 877.76} {
		close(t, "folding limit", sheet.FoldingLimit(n, 0.1), want, 0.005)
	}
	close(t, "folding limit of one fold", sheet.FoldingLimit(1, 0.1), math.Pi*0.1, 1e-9)
	for n, want := range map[int][2]float64{2: {0.157, 0.1}, 4: {0.471, 0.3}, 8: {1.10, 0.7}, 16: {2.36, 1.5}} {
		close(t, "creep, round", sheet.CreepRound(n, 0.1), want[0], 0.005)
		close(t, "creep, flat", sheet.CreepFlat(n, 0.1), want[1], 1e-9)
	}
}
