package shelf_test

import (
	"math"
	"regexp"
	"strings"
	"testing"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/prepare"
	"tussock/internal/sequence/remarks"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
)

func plain(t *testing.T, w, h float64) sheet.Sheet {
	t.Helper()
	s, err := sheet.New(w, h, sheet.PlainGSM, sheet.PlainThicknessMM)
	if err != nil {
		t.Fatal(err)
	}
	return s
}

// Sheets a little off the proportions that a toy needs are folded all the same and say
// what is off; farther off they are refused with the millimetres; and the sheet that
// Tussock itself says how to get, as exact as it says that is, always does.
func TestSheetsALittleOff(t *testing.T) {
	all, err := shelf.All()
	if err != nil {
		t.Fatal(err)
	}
	squares := 0
	for _, p := range all {
		if p.WidthMM != p.HeightMM {
			continue
		}
		squares++
		for _, off := range []float64{-1.4, -1, -0.5, 0, 0.5, 1, 1.4} {
			s := plain(t, 150, 150+off)
			if r := p.Run(s, nil); r.Err != nil {
				t.Errorf("%s, %v mm off: %v", p.ID, off, r.Err)
			}
			says := p.Nearly(s)
			if p.Takes(s.Ratio()) && says != "" && p.AsFolded(s) == s || !p.Takes(s.Ratio()) && says == "" {
				t.Errorf("%s, %v mm off says %q", p.ID, off, says)
			}
		}
		for _, from := range [][2]float64{{210, 297}, {215.9, 279.4}} {
			routes, err := prepare.Ways(plain(t, from[0], from[1]), prepare.Want{Kind: prepare.Square}, false)
			if err != nil || len(routes) == 0 {
				t.Fatal(err)
			}
			for _, r := range routes {
				for _, k := range []float64{-1.9, -1, 1, 1.9} {
					s := r.Piece
					s.HeightMM += k * r.ErrorMM
					if got := p.Run(s, nil); got.Err != nil {
						t.Errorf("%s from %v by %s, %v standard deviations off: %v", p.ID, from, r.Name, k, got.Err)
					}
				}
			}
		}
		if p.MaxRatio < 1.01 {
			err := p.Run(plain(t, 150, 154), nil).Err
			if err == nil || !strings.Contains(err.Error(), "is folded from a square; this sheet is 4 mm higher than wide") {
				t.Errorf("%s, 4 mm off: %v", p.ID, err)
			}
			wants := prepare.Sheets(p, plain(t, 150, 154), 0, 0)
			if len(wants) == 0 || !strings.Contains(wants[0].Words, "Trim") || wants[0].Want.HeightMM != 150 || wants[0].Want.WidthMM != 150 {
				t.Errorf("%s, 4 mm off, wants %+v", p.ID, wants)
			}
		}
	}
	if squares < 4 {
		t.Fatalf("%d patterns are square", squares)
	}
}

// An exact square measured with a ruler passes: its diagonal has a whole tenth of a
// millimetre and no more. What is off is told in millimetres where it can be folded and
// where it cannot, and both ways of telling it agree where both can.
func TestEffectOfSheetsALittleOff(t *testing.T) {
	all, err := shelf.All()
	if err != nil {
		t.Fatal(err)
	}
	effect := func(id string, w, h, rising, falling float64) body.Effect {
		t.Helper()
		p, found := shelf.Find(id)
		if !found {
			t.Fatal(id)
		}
		q := sheet.Squareness{TrimWidthMM: w, TrimHighMM: h}
		if rising > 0 || falling > 0 {
			q, _ = sheet.Measured(w, h, rising, falling)
		}
		e, err := body.EffectOf(p, w, h, sheet.PlainGSM, sheet.PlainThicknessMM, q)
		if err != nil {
			t.Fatal(err)
		}
		return e
	}
	worst := func(e body.Effect) (w float64) {
		for _, m := range e.Misfits {
			w = math.Max(w, m.MM)
		}
		return w
	}
	for _, p := range all {
		if p.WidthMM != p.HeightMM {
			continue
		}
		for _, d := range [][2]float64{{212.1, 0}, {0, 212.1}, {212.1, 212.1}, {212.2, 212.1}} {
			if e := effect(p.ID, 150, 150, d[0], d[1]); e.Why != "" || worst(e) > 0 || e.Trim || e.PerMM() != 0 {
				t.Errorf("%s, an exact square with diagonals %v: %+v", p.ID, d, e)
			}
		}
		for _, c := range [][4]float64{{150, 151, 0, 0}, {150, 149, 212, 211}, {150, 150, 213, 211.2}, {148, 150, 0, 0}} {
			e := effect(p.ID, c[0], c[1], c[2], c[3])
			if e.Why != "" || e.PerMM() > 3 || worst(e) > 0 && e.PerMM() < 0.2 {
				t.Errorf("%s, %v: %q, %v mm for 1 mm", p.ID, c, e.Why, e.PerMM())
			}
		}
	}
	// The oracle's flaps take half of what is too much on each side: 1 mm for 1 mm.
	folded := effect("fortune", 150, 151, 0, 0)
	p, _ := shelf.Find("fortune")
	about := body.MisfitsAbout(p.Run(plain(t, 150, 150), nil), plain(t, 150, 151))
	if folded.Estimated || math.Abs(folded.PerMM()-1) > 0.1 {
		t.Errorf("folded, %v mm for 1 mm", folded.PerMM())
	}
	most := 0.0
	for _, m := range about {
		most = math.Max(most, m.MM)
	}
	if math.Abs(most-worst(folded)) > 0.15 {
		t.Errorf("to first order %v, folded %v", most, worst(folded))
	}
}

// What folders are told has no word for those who write patterns in it.
func TestFoldersAreToldNothingForAuthors(t *testing.T) {
	author := regexp.MustCompile(`\b(name|named|write|landmark|spine named|require|say which|knob)\b|\[|\bsheet\(|[a-z]+[0-9]|\bM[0-9]`)
	all, err := shelf.All()
	if err != nil {
		t.Fatal(err)
	}
	refused := 0
	for _, p := range all {
		for _, size := range [][2]float64{{60, 60}, {150, 150}, {150, 156}, {210, 297}, {297, 210}, {100, 300}, {300, 90}} {
			s := plain(t, size[0], size[1])
			f := remarks.FitOf(p, s, nil)
			if !f.Works {
				refused++
			}
			for _, text := range []string{f.Why, f.FirstWhy, p.Nearly(s)} {
				if w := author.FindString(strings.ReplaceAll(text, p.Title, "")); w != "" {
					t.Errorf("%s on %v: %q is an author's word in %q", p.ID, size, w, text)
				}
			}
		}
		for _, k := range p.Knobs {
			for _, v := range []float64{k.Min, k.Max} {
				err := p.Run(plain(t, p.WidthMM, p.HeightMM), map[string]float64{k.Name: v}).Err
				if err == nil {
					continue
				}
				text := fold.As(err).Told()
				if w := author.FindString(text); w != "" {
					t.Errorf("%s with %s at %v: %q is an author's word in %q", p.ID, k.Name, v, w, text)
				}
			}
		}
	}
	if refused < 10 {
		t.Errorf("only %d sheets were refused", refused)
	}
}

// What a step should look like is a sentence: it goes behind "It looks right when".
func TestLooksAreSentences(t *testing.T) {
	verb := regexp.MustCompile(` (is|are|lies|lie|meet|meets|met|touch|touches|runs|run|starts|stands|stand|points|point|match|shows|show|holds|follows|leaves|leave|ends|end|goes|does|do|has|have|reaches|halves|close|closes|opens|open|stay|stays|cross|crosses|fits|forms|makes?|sits?|slides|looks?|hangs?|comes?|leans?|covers?|falls?|rests|turns|bends?|tapers|faces|remains?|spreads|was|were|can|springs|appears|slips?|sinks|differ|pass|passes)\b`)
	all, err := shelf.All()
	if err != nil {
		t.Fatal(err)
	}
	more, err := shelf.AddOns()
	if err != nil {
		t.Fatal(err)
	}
	for _, p := range append(all, more...) {
		for _, s := range p.Steps {
			if s.Looks != "" && !verb.MatchString(s.Looks) {
				t.Errorf("%s, step %d: it looks right when %s", p.ID, s.No, s.Looks)
			}
		}
	}
}
