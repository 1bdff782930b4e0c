package shelf_test

import (
	"fmt"
	"testing"

	"tussock/internal/sequence"
	"tussock/internal/sequence/spread"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
)

// mostPerMM is how far a millimetre at one step can move a landmark at the end, at most:
// a lever of ten times the distance between two landmarks, and no toy on the shelf has one.
const mostPerMM = 20.0

// A millimetre off at a step is felt at the end, and never more than geometry allows:
// every pattern, every knob at both ends, its own sheet, one smaller and one larger.
func TestAMillimetreMovesMillimetres(t *testing.T) {
	shelved, err := shelf.All()
	if err != nil {
		t.Fatal(err)
	}
	studied, err := shelf.Studies()
	if err != nil {
		t.Fatal(err)
	}
	folded := 0
	for _, p := range append(shelved, studied...) {
		sets := []map[string]float64{nil}
		if !testing.Short() {
			for _, k := range p.Knobs {
				if k.Plain || k.Kind != sequence.HardFold {
					continue
				}
				sets = append(sets, map[string]float64{k.Name: k.Min}, map[string]float64{k.Name: k.Max})
			}
		}
		for _, scale := range []float64{1, 0.6, 1.3} {
			for _, knobs := range sets {
				r := p.Run(sheet.Sheet{WidthMM: p.WidthMM * scale, HeightMM: p.HeightMM * scale, GSM: 80, ThicknessMM: 0.1}, knobs)
				if r.Err != nil {
					continue
				}
				folded++
				s, err := spread.Of(r, 0.3, 1, 1)
				if err != nil {
					t.Errorf("%s %v %v: %v", p.ID, scale, knobs, err)
					continue
				}
				for _, q := range s.Steps {
					if q.PerMM > mostPerMM {
						t.Errorf("%s at %v times its size, %s: 1 mm off at step %d moves %s by %.0f mm", p.ID, scale, fmt.Sprint(knobs), q.No, p.Called(q.Worst), q.PerMM)
					}
				}
			}
		}
	}
	if folded < 100 {
		t.Errorf("only %d were folded", folded)
	}
}
