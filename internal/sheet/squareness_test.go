package sheet_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"tussock/internal/sheet"
)

// A sheet built with a known corner is judged to have it, by either diagonal or
// both; what is trimmed fits inside it; the corners miss as they do when folded.
func TestMeasuredSheets(t *testing.T) {
	r := rand.New(rand.NewPCG(10, 4))
	for range 1000 {
		w, h, off := 100+200*r.Float64(), 100+200*r.Float64(), 4*(r.Float64()-0.5)
		e := off * math.Pi / 180
		// Lower left at the origin, the left edge leaning right by e.
		topX, topY := h*math.Sin(e), h*math.Cos(e)
		rising, falling := math.Hypot(topX+w, topY), math.Hypot(topX-w, topY)
		for _, d := range [][2]float64{{rising, falling}, {rising, 0}, {0, falling}} {
			q, ok := sheet.Measured(w, h, d[0], d[1])
			if !ok || math.Abs(q.OffDeg-off) > 1e-6 || q.MisfitMM > 1e-9 {
				t.Fatalf("%v x %v off by %v is judged %+v, %v", w, h, off, q, ok)
			}
			if math.Abs(q.TrimWidthMM-(w-math.Abs(topX))) > 1e-6 || math.Abs(q.TrimHighMM-topY) > 1e-6 {
				t.Fatalf("%v x %v off by %v trims to %+v", w, h, off, q)
			}
			// The lower left corner, carried onto the right edge square to it.
			if miss := math.Abs(w * math.Sin(e)); math.Abs(q.MissWideMM-miss) > 1e-6 {
				t.Fatalf("corners miss by %v, not %v", q.MissWideMM, miss)
			}
		}
		both, _ := sheet.Measured(w, h, rising, falling)
		one, _ := sheet.Measured(w, h, rising, 0)
		if !(both.OffByDeg < one.OffByDeg) {
			t.Fatalf("two diagonals tell no more than one: %v, %v", both.OffByDeg, one.OffByDeg)
		}
	}
	// The textbook case: half a degree on a 150 mm square is 1.85 mm of diagonals.
	q, _ := sheet.Measured(150, 150, 213.06, 211.21)
	if math.Abs(q.OffDeg-0.5) > 0.003 || math.Abs(q.MissWideMM-1.31) > 0.01 {
		t.Errorf("150 mm off by half a degree: %+v", q)
	}
	if q, ok := sheet.Measured(200, 100, 223.6068, 223.6068); !ok || math.Abs(q.OffDeg) > 1e-9 || math.Abs(q.TrimWidthMM-200) > 1e-9 {
		t.Errorf("a true sheet: %+v", q)
	}
	if q, _ := sheet.Measured(200, 100, 230, 230); q.MisfitMM < 6 {
		t.Errorf("diagonals too long for the sides: %+v", q)
	}
	for _, d := range [][2]float64{{0, 0}, {300, 0}, {0, 100}, {1e9, 1}} {
		if q, ok := sheet.Measured(200, 100, d[0], d[1]); ok {
			t.Errorf("diagonals %v: %+v", d, q)
		}
	}
}
