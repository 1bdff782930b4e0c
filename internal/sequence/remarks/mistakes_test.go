package remarks_test

import (
	"testing"

	"tussock/internal/sequence"
	"tussock/internal/sequence/remarks"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
)

// Each mistake is a toy of its own: all the paper is there, it differs from the right
// fold and from the other mistakes, and what it shows is what its words say.
func TestMistakesAreFolded(t *testing.T) {
	kinds := map[string]int{}
	for _, id := range append(shelf.Names(), shelf.StudyNames()...) {
		p, found := shelf.Find(id)
		if !found {
			p, _ = shelf.FindStudy(id)
		}
		s := sheet.Sheet{WidthMM: p.WidthMM, HeightMM: p.HeightMM, GSM: 80, ThicknessMM: 0.1}
		r := p.Run(s, nil)
		for _, d := range r.Steps {
			for _, m := range remarks.Mistakes(p, r, d.No) {
				kinds[m.Kind]++
				if m.Words == "" || m.Cure == "" {
					t.Errorf("%s step %d, %s: no words", id, d.No, m.Kind)
				}
				if a, b := m.After.PaperMM2(), d.After.PaperMM2(); a < b-1e-6 || a > b+1e-6 {
					t.Errorf("%s step %d, %s: %v of %v mm²", id, d.No, m.Kind, a, b)
				}
			}
			if got := remarks.Mistakes(p, r, d.No); d.Op == "turn" && len(got) != 0 {
				t.Errorf("%s step %d is a turn: %d mistakes", id, d.No, len(got))
			}
		}
		if remarks.Mistakes(p, r, 0) != nil || remarks.Mistakes(p, r, 99) != nil {
			t.Error("steps that are not there")
		}
	}
	for _, k := range []string{"face", "side", "turn", "past", "short", "layers"} {
		if kinds[k] == 0 {
			t.Errorf("no step shows the mistake %q: %v", k, kinds)
		}
	}
	// Folded to the other side: the corner's other face shows, where it should lie.
	p, _ := shelf.Find("curlew")
	r := p.Run(sheet.Sheet{WidthMM: 210, HeightMM: 297, GSM: 80, ThicknessMM: 0.1}, nil)
	for _, m := range remarks.Mistakes(p, r, 2) {
		if m.Kind != "side" {
			continue
		}
		right, wrong := r.Steps[1].After, m.After
		if right.Box() != wrong.Box() {
			t.Error("the box differs")
		}
		corner := r.Landmarks["TL"]
		a, b := right.FacetsAtSheet(corner)[0], wrong.FacetsAtSheet(corner)[0]
		base := right.FacetsAtSheet(r.Landmarks["C"])[0]
		under := wrong.FacetsAtSheet(r.Landmarks["C"])[0]
		if right.Above(a, base) <= 0 || wrong.Above(b, under) >= 0 {
			t.Error("the corner lies on the same side")
		}
	}
}

// Folding on after a slip: up to the step all is as it should be, from there on it is
// not, and without a slip nothing changes.
func TestFoldingOnAfterASlip(t *testing.T) {
	p, _ := shelf.Find("curlew")
	r := p.Run(sheet.Sheet{WidthMM: 210, HeightMM: 297, GSM: 80, ThicknessMM: 0.1}, nil)
	off, ok := remarks.Slipped(p, r, 2, -2) // the first corner falls 2 mm short
	if !ok || off.Err != nil || len(off.Steps) != len(r.Steps) {
		t.Fatalf("%v, %v", ok, off)
	}
	if off.Steps[0].After.Box() != r.Steps[0].After.Box() {
		t.Error("step 1 differs")
	}
	a, _ := sequence.Place(r.Steps[1].After, r.Landmarks["TL"])
	b, _ := sequence.Place(off.Steps[1].After, r.Landmarks["TL"])
	if d := a.Dist(b); d < 1.9 || d > 2.9 {
		t.Errorf("the corner lies %v mm off", d)
	}
	if off.Final().Box() == r.Final().Box() {
		t.Error("the toy is the same")
	}
	same, _ := remarks.Slipped(p, r, 2, 0)
	if same.Final().Box() != r.Final().Box() {
		t.Error("no slip changes the toy")
	}
	if _, ok := remarks.Slipped(p, r, 6, 1); ok { // along a crease: nothing is brought
		t.Error("a fold along a crease slips")
	}
}
