package care_test

import (
	"testing"

	"tussock/internal/care"
	"tussock/internal/sequence"
	"tussock/internal/sequence/spread"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
)

func steps(t *testing.T, id string, s sheet.Sheet) (*sequence.Replay, []care.Step) {
	t.Helper()
	p, _ := shelf.Find(id)
	r := p.Run(s, nil)
	if r.Err != nil {
		t.Fatal(r.Err)
	}
	all, err := care.Of(r, spread.Adult)
	if err != nil || len(all) != len(r.Steps) {
		t.Fatalf("%d of %d steps, %v", len(all), len(r.Steps), err)
	}
	return r, all
}

// Every fold says what to press with; the thicker the stack, the harder the tool; a
// place to hold lies on the paper that stays.
func TestCareOfTheShelf(t *testing.T) {
	for _, id := range shelf.Names() {
		p, _ := shelf.Find(id)
		s := sheet.Sheet{WidthMM: p.WidthMM, HeightMM: p.HeightMM, GSM: 80, ThicknessMM: 0.1}
		r, all := steps(t, id, s)
		share := 0.0
		for i, c := range all {
			d := r.Steps[i]
			share += c.Share
			fold := d.Op == sequence.OpValley || d.Op == sequence.OpMountain || d.Op == sequence.OpCrease
			if fold && (c.Tool == "" || c.PerMM <= 0 && c.Class != spread.Free && !c.Soft || !c.Made) {
				t.Errorf("%s step %d: %+v", id, d.No, c)
			}
			if d.Op == sequence.OpTurn && (c.Tool != "" || c.Made || c.OpensDeg != 0) {
				t.Errorf("%s step %d is a turn: %+v", id, d.No, c)
			}
			if c.OpensDeg < 0 || c.OpensDeg > 180 {
				t.Errorf("%s step %d opens %v°", id, d.No, c.OpensDeg)
			}
			if c.Hold == nil {
				continue
			}
			if float64(d.Side)*d.Line.Side(*c.Hold) > 0 {
				t.Errorf("%s step %d holds what moves", id, d.No)
			}
			on := false
			for f := range d.Before.F {
				on = on || d.Before.F[f].Folded().Contains(*c.Hold, 1)
			}
			if !on {
				t.Errorf("%s step %d holds %v, off the paper", id, d.No, *c.Hold)
			}
		}
		if share < 0.99 || share > 1.01 {
			t.Errorf("%s: the shares add up to %v", id, share)
		}
	}
}

// Thicker paper needs harder tools, opens the same or more, and strains.
func TestCareFollowsThePaper(t *testing.T) {
	thin := sheet.Sheet{WidthMM: 210, HeightMM: 297, GSM: 60, ThicknessMM: 0.07}
	thick := sheet.Sheet{WidthMM: 210, HeightMM: 297, GSM: 200, ThicknessMM: 0.25}
	_, a := steps(t, "curlew", thin)
	_, b := steps(t, "curlew", thick)
	strained := 0
	for i := range a {
		if a[i].Strain != "" {
			t.Errorf("step %d strains thin paper", a[i].No)
		}
		if b[i].Strain != "" {
			strained++
		}
		if a[i].SlideMM > b[i].SlideMM {
			t.Errorf("step %d: thin paper slides more", a[i].No)
		}
	}
	if strained == 0 {
		t.Error("nothing strains board")
	}
}
