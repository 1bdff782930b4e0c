package shelf_test

import (
	"math"
	"strings"
	"testing"

	"tussock/internal/body"
	"tussock/internal/motion/glide/craft"
	"tussock/internal/sequence"
	"tussock/internal/sequence/remarks"
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
		for _, f := range remarks.Lint(p) {
			if f.Kind == "words" || f.Kind == "long" || f.Kind == "unused" {
				t.Errorf("%s line %d: %s", p.ID, f.Line, f.Text)
			}
		}
	}
}

// Every glider folds on its own sheet, and on A4 and letter where it takes their
// proportions; it is even from left to right, and each side of its nose and fins mirrors
// the other.
func TestGlidersOnOfficeSheets(t *testing.T) {
	all, err := shelf.All()
	if err != nil {
		t.Fatal(err)
	}
	gliders, letter := 0, 0
	for _, p := range all {
		if p.Moves != "fly" {
			continue
		}
		gliders++
		for _, s := range [][2]float64{{p.WidthMM, p.HeightMM}, {210, 297}, {215.9, 279.4}} {
			ratio := s[1] / s[0]
			if p.MaxRatio > 0 && (ratio < p.MinRatio || ratio > p.MaxRatio) {
				continue
			}
			if s[0] == 215.9 {
				letter++
			}
			sh, err := sheet.New(s[0], s[1], 80, 0.1)
			if err != nil {
				t.Fatal(err)
			}
			r := p.Run(sh, nil)
			if r.Err != nil {
				t.Errorf("%s on %v x %v: %v", p.ID, s[0], s[1], r.Err)
				continue
			}
			g, ok := craft.Measure(r, craft.Stand(r))
			if !ok || g.SpanMM < 80 || g.WingAreaMM2 < 8000 || g.CoMAftMM < 0.25*g.LengthMM || g.CoMAftMM > 0.7*g.LengthMM {
				t.Errorf("%s on %v x %v: %+v", p.ID, s[0], s[1], g)
			}
			m := body.Standing(r).Weigh()
			if off := math.Abs(m.CoM.Sub(g.Frame.Nose).Dot(g.Frame.Right)); off > 0.3 {
				t.Errorf("%s on %v x %v: its weight lies %.2f mm aside", p.ID, s[0], s[1], off)
			}
		}
	}
	if gliders != 7 || letter < 6 {
		t.Errorf("%d gliders, %d of them on letter", gliders, letter)
	}
}
