package draw_test

import (
	"math"
	"regexp"
	"strconv"
	"strings"
	"testing"

	. "tussock/internal/draw" //nolint:revive // tests of what is not exported too
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
)

var quantities = regexp.MustCompile(`⟨([0-9.]+)\|mm\|\d⟩`)

// Every length in a sentence stands on its picture, or is a gap that the step leaves, or is
// the distance of two places that have signs: on the own sheet, a larger one and with other
// knobs.
func TestLengthsOfSentencesAreOnThePicture(t *testing.T) {
	looked := 0
	for _, id := range shelf.Names() {
		p, _ := shelf.Find(id)
		for _, scale := range []float64{1, 1.2} {
			s, err := sheet.New(scale*p.WidthMM, scale*p.HeightMM, 80, 0.1)
			if err != nil {
				t.Fatal(err)
			}
			r := p.Run(s, nil)
			if r.Err != nil {
				t.Fatal(r.Err)
			}
			for _, d := range r.Steps {
				o := Next(d)
				for _, m := range quantities.FindAllStringSubmatch(d.Say, -1) {
					v, err := strconv.ParseFloat(m[1], 64)
					if err != nil {
						t.Fatal(err)
					}
					looked++
					if !onPicture(v, d, o) {
						t.Errorf("%s step %d on %.0f mm: %q names %.1f mm, and the picture has %v", id, d.No, s.WidthMM, d.Say, v, o.Sizes)
					}
				}
			}
		}
	}
	if looked < 60 {
		t.Errorf("only %d lengths were looked for", looked)
	}
}

// onPicture tells whether a length is drawn, left as a gap, or lies between two signs or
// between a sign and the fold.
func onPicture(mm float64, d sequence.Done, o Overlay) bool {
	size := math.Max(d.Before.Box().Width(), d.Before.Box().Height())
	near := func(v float64) bool { return math.Abs(v-mm) < 0.06+2*FanCap*size }
	for _, s := range o.Sizes {
		if m := quantities.FindStringSubmatch(s.Text); m != nil {
			if v, err := strconv.ParseFloat(m[1], 64); err == nil && math.Abs(v-mm) < 0.06 {
				return true
			}
		}
	}
	if math.Abs(d.GapMM-mm) < 0.06 || math.Abs(math.Abs(d.ShiftMM)-mm) < 0.06 {
		return true
	}
	for i, a := range o.Signs {
		for _, b := range o.Signs[:i] {
			if near(math.Hypot(a.At[0]-b.At[0], a.At[1]-b.At[1])) {
				return true
			}
		}
		// From the fold, or from where the paper ends.
		for _, k := range o.Strokes {
			for j := 0; j+1 < len(k.Points); j += 2 {
				if near(math.Hypot(a.At[0]-k.Points[j], a.At[1]-k.Points[j+1])) {
					return true
				}
			}
		}
	}
	return false
}

// "both" in a sentence is two of something on the picture.
func TestBothIsTwo(t *testing.T) {
	seen := 0
	for _, id := range shelf.Names() {
		r := replay(t, id, nil)
		for _, d := range r.Steps {
			if !strings.Contains(strings.ToLower(d.Say), "both ") {
				continue
			}
			seen++
			st := StageOf(r, d.No, Watching)
			two := len(st.Over.Arrows) >= 2 || len(st.Over.Signs) >= 2 || len(st.Over.Strokes) >= 2 || len(st.Over.Moving) >= 2 || d.LayersFolded() >= 2
			if !two {
				t.Errorf("%s step %d says both, and its picture has one of everything: %q", id, d.No, d.Say)
			}
		}
	}
	if seen < 10 {
		t.Errorf("only %d sentences", seen)
	}
}

// Every step says what to do, and when it looks right, with how much it
// may be off where something is placed.
func TestEveryStepSaysWhenItIsRight(t *testing.T) {
	tolerance := regexp.MustCompile(`within|about|no more than|short of|touching|without|\d\.\.\d`)
	for _, id := range shelf.Names() {
		for _, d := range replay(t, id, nil).Steps {
			if d.Say == "" || d.Looks == "" {
				t.Errorf("%s step %d says %q and looks right when %q", id, d.No, d.Say, d.Looks)
			}
			placed := len(d.Moves) > 0 && d.HasLine()
			if placed && !tolerance.MatchString(d.Looks) {
				t.Errorf("%s step %d (%s): looks right when %q: within what?", id, d.No, d.Op, d.Looks)
			}
		}
	}
}
