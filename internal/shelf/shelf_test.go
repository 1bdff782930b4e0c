package shelf_test

import (
	"strings"
	"testing"

	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
)

// Whatever lies on the shelf can be read aloud in one breath, says when it looks right
// where a fold is made, and folds on its own sheet without a remark of the checker.
func TestShelfReadsAloud(t *testing.T) {
	all, err := shelf.All()
	if err != nil {
		t.Fatal(err)
	}
	for _, p := range all {
		r := p.Run(sheet.Sheet{WidthMM: p.WidthMM, HeightMM: p.HeightMM, GSM: 80, ThicknessMM: 0.1}, nil)
		if r.Err != nil {
			t.Errorf("%s: %v", p.ID, r.Err)
		}
		for _, s := range p.Steps {
			if n := len(strings.Fields(s.Say)); n == 0 || n > 25 {
				t.Errorf("%s step %d has %d words: %q", p.ID, s.No, n, s.Say)
			}
			if (s.Op == sequence.OpValley || s.Op == sequence.OpMountain) && len(strings.Fields(s.Looks)) == 0 && p.Moves == "fly" {
				t.Errorf("%s step %d does not say when it looks right", p.ID, s.No)
			}
		}
		for _, f := range p.Lint() {
			if f.Kind == "words" || f.Kind == "long" || f.Kind == "unused" {
				t.Errorf("%s line %d: %s", p.ID, f.Line, f.Text)
			}
		}
	}
}
