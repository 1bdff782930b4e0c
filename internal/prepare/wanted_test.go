package prepare

import (
	"math"
	"testing"

	"tussock/internal/sequence"
	"tussock/internal/sequence/remarks"
	"tussock/internal/sheet"
)

// The sheets that would do lie in the proportions that fold, and whatever is offered can
// be got out of the sheet at hand.
func TestSheetsThatWouldDo(t *testing.T) {
	p := &sequence.Pattern{WidthMM: 210, HeightMM: 297, MinRatio: 1.25, MaxRatio: 1.5}
	lo, hi := Proportions(p, remarks.Fit{Survey: remarks.Survey{Ratio: &remarks.Range{Min: 1.1, Max: 1.45}}})
	if lo != 1.25 || hi != 1.45 {
		t.Fatalf("from %v to %v", lo, hi)
	}
	if lo, hi := Proportions(p, remarks.Fit{}); lo != 0 || hi != 0 {
		t.Errorf("where nothing was found: %v to %v", lo, hi)
	}
	for _, c := range []struct {
		have       sheet.Sheet
		offers     int
		ratioFirst float64 // 0: another size
	}{
		{a4, 0, 0},
		{letter, 1, 297.0 / 210}, // folds, in other proportions
		{sheet.Sheet{WidthMM: 297, HeightMM: 210, GSM: 80, ThicknessMM: 0.1}, 3, 0}, // lying: turn it
		{sheet.Sheet{WidthMM: 150, HeightMM: 150, GSM: 80, ThicknessMM: 0.1}, 2, 1.25},
		{sheet.Sheet{WidthMM: 100, HeightMM: 400, GSM: 80, ThicknessMM: 0.1}, 2, 1.45},
	} {
		all := Sheets(p, c.have, lo, hi)
		if len(all) != c.offers {
			t.Errorf("%v x %v: %+v", c.have.WidthMM, c.have.HeightMM, all)
			continue
		}
		for i, f := range all {
			if i == 0 && math.Abs(f.Want.Ratio-c.ratioFirst) > 1e-9 {
				t.Errorf("%v x %v: first %+v", c.have.WidthMM, c.have.HeightMM, f)
			}
			if f.Want.Kind == Ratio {
				if f.Want.Ratio < lo-1e-9 || f.Want.Ratio > hi+1e-9 {
					t.Errorf("%+v does not fold", f)
				}
				if got := ways(t, c.have, f.Want, true); len(got) == 0 {
					t.Errorf("%+v cannot be had", f)
				}
			}
		}
	}
	square := &sequence.Pattern{WidthMM: 150, HeightMM: 150}
	if all := Sheets(square, a4, 0.999, 1.001); len(all) != 1 || all[0].Want.Kind != Square {
		t.Errorf("a square toy wants %+v", all)
	}
}

// Lengths that do not grow with the sheet are told with what they would be: to a tenth,
// within their range, and only those that would change.
func TestFixedLengths(t *testing.T) {
	p := &sequence.Pattern{WidthMM: 210, HeightMM: 297, Knobs: []sequence.Knob{
		{Name: "depth", Unit: "mm", Default: 25, Min: 2, Max: 80}, {Name: "edge", Unit: "mm", Default: 30, Min: 5, Max: 32},
		{Name: "none", Unit: "mm", Default: 0, Min: 0, Max: 9}, {Name: "v", Unit: "deg", Default: 80, Max: 180},
		{Name: "plain", Unit: "mm", Default: 4, Max: 9, Plain: true}, {Name: "radius", Unit: "mm", Default: 1, Max: 3, Implied: true},
	}}
	k := Scale(p, sheet.Sheet{WidthMM: 420, HeightMM: 420})
	if math.Abs(k-420.0/297) > 1e-12 {
		t.Errorf("scale %v", k)
	}
	got := FixedLengths(p, map[string]float64{"depth": 20}, k)
	if len(got) != 2 || got[0] != (Fixed{"depth", "", 20, 28.3}) || got[1].ScaledMM != 32 {
		t.Errorf("%+v", got)
	}
	if got := FixedLengths(p, nil, 1); len(got) != 0 {
		t.Errorf("on its own sheet: %+v", got)
	}
}
