package spread_test

import (
	"fmt"
	"math"
	"regexp"
	"strings"
	"testing"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sequence"
	"tussock/internal/sequence/spread"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/ways"
)

// all are the patterns of the shelf and the studies.
func all(t *testing.T) []*sequence.Pattern {
	t.Helper()
	out, err := shelf.All()
	if err != nil {
		t.Fatal(err)
	}
	studies, err := shelf.Studies()
	if err != nil {
		t.Fatal(err)
	}
	return append(out, studies...)
}

// ends are the pattern's own knobs and, on its own sheet, each knob that moves a hard fold at
// either end of its range; a switch has none. All knobs on all three sheets were tried once: a minute more.
func ends(p *sequence.Pattern, scale float64) []map[string]float64 {
	out := []map[string]float64{nil}
	for _, k := range p.Knobs {
		if scale == 1 && !k.Plain && !k.Either && k.Kind == sequence.HardFold {
			out = append(out, map[string]float64{k.Name: k.Min}, map[string]float64{k.Name: k.Max})
		}
	}
	return out
}

var folds = regexp.MustCompile(`^(valley|mountain|crease) `)

// What the study calls free moves nothing when the toy is folded anew with that line laid
// beside its landmarks, and of the others it says no less than that: it knows of tilted
// lines and of marks that creases make as well. A crease that is there guides the hand: a line
// beside it would be another fold.
func TestFreeIsFreeWhenFoldedAnew(t *testing.T) {
	tried := 0
	for _, p := range all(t) {
		for _, scale := range []float64{1, 0.7, 1.4} {
			sh := sheet.Sheet{WidthMM: p.WidthMM * scale, HeightMM: p.HeightMM * scale, GSM: 80, ThicknessMM: 0.1}
			for _, knobs := range ends(p, scale) {
				tried += anew(t, p, sh, knobs)
			}
		}
	}
	if tried < 200 {
		t.Errorf("only %d steps could be folded anew", tried)
	}
}

// anew compares all steps of one toy and says how many could be folded anew.
func anew(t *testing.T, p *sequence.Pattern, sh sheet.Sheet, knobs map[string]float64) (tried int) {
	t.Helper()
	const h = 0.02
	r := p.Run(sh, knobs)
	if r.Err != nil {
		return 0
	}
	s, err := spread.Of(r, 0.3, 1, 1)
	if err != nil {
		t.Fatal(p.ID, err)
	}
	for _, q := range s.Steps {
		worst, ok := foldedAnew(t, p, sh, knobs, q.No, h)
		if !ok || guided(r.Steps[q.No-1]) {
			continue
		}
		tried++
		if q.Class == spread.Free && worst > spread.FreeMM*1.05 {
			t.Errorf("%s %v step %d reads free; folded anew it moves a landmark %.2f mm a mm", p.ID, knobs, q.No, worst)
		}
		if q.PerMM < 0.85*worst-0.05 || q.PerMM > 4*worst+2.4 {
			t.Errorf("%s %v on %.0f mm, step %d: the study says %.2f mm a mm, folding anew %.2f", p.ID, knobs, sh.WidthMM, q.No, q.PerMM, worst)
		}
	}
	return tried
}

// guided tells of a step that folds along an earlier crease.
func guided(d sequence.Done) bool {
	for _, h := range d.Before.H {
		iso := d.Before.F[h.A].Iso
		if h.Kind == fold.Crease && math.Abs(d.Line.Side(iso.Apply(h.P))) < geom.OnPaper && math.Abs(d.Line.Side(iso.Apply(h.Q))) < geom.OnPaper {
			return true
		}
	}
	return false
}

// foldedAnew folds the pattern with the line of one step beside its landmarks by h on either
// side, and says how far the worst landmark then lies apart, a mm for a mm.
func foldedAnew(t *testing.T, p *sequence.Pattern, sh sheet.Sheet, knobs map[string]float64, no int, h float64) (worst float64, ok bool) {
	t.Helper()
	lines := strings.Split(p.Text, "\n")
	at := p.Steps[no-1].Line - 1
	text := lines[at]
	if !folds.MatchString(text) || strings.Contains(text, " offset ") || strings.Contains(text, " tilt ") {
		return 0, false
	}
	for _, toward := range []string{"TL", "BR", "C"} {
		var both [2]*sequence.Replay
		for i, mm := range []float64{h, -h} {
			lines[at] = beside(text, fmt.Sprintf(" offset %v toward %s", mm, toward))
			q, err := ways.Parse(p.ID, strings.Join(lines, "\n"))
			if err != nil {
				t.Fatalf("%s: %v", lines[at], err)
				return 0, false
			}
			both[i] = q.Despite(sh, knobs)
		}
		if both[0].Err != nil || both[1].Err != nil {
			continue
		}
		for name, a := range both[0].Landmarks {
			b, there := both[1].Landmarks[name]
			u, on := sequence.Place(both[0].Final(), a)
			v, too := sequence.Place(both[1].Final(), b)
			// On a crease another piece may be meant than before: that is no slip.
			if per := u.Dist(v) / (2 * h); there && on && too && per < flipped {
				worst = math.Max(worst, per)
			}
		}
		return worst, true
	}
	return 0, false
}

// after are the words of a fold that follow its alignment, and so its offset.
var after = regexp.MustCompile(` (moving|grab|under|over|between|layers|behind|expect|sharp|firm|soft|bent|class|optional|conditioning|both|as) `)

// flipped is what no slip does, but another choice of piece: some hundred mm a mm.
const flipped = 100

// beside puts words where a fold's offset stands.
func beside(text, words string) string {
	if at := after.FindStringIndex(text + " "); at != nil {
		return text[:at[0]] + words + text[at[0]:]
	}
	return text + words
}
