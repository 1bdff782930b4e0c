package prints_test

import (
	"math"
	"strings"
	"testing"
	. "tussock/internal/prints"

	"tussock/internal/draw"
	"tussock/internal/geom"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
)

// panelsOf is the steps of a pattern of the shelf, on its own sheet.
func panelsOf(tb testing.TB, id string) []Panel {
	tb.Helper()
	p, ok := shelf.Find(id)
	if !ok {
		tb.Fatalf("no %s", id)
	}
	r := p.Run(sheet.Sheet{WidthMM: p.WidthMM, HeightMM: p.HeightMM, GSM: 80, ThicknessMM: 0.1}, nil)
	if r.Err != nil {
		tb.Fatal(r.Err)
	}
	var out []Panel
	for _, d := range r.Steps {
		o := draw.Next(d)
		out = append(out, Panel{draw.Flat(d.Before), &o, d.Title(), d.Say, d.Looks})
	}
	return out
}

// Every step is on some page with all of its words; nothing lies off the page or in
// another step's place; shapes keep their proportions.
func TestStepSheets(t *testing.T) {
	for _, id := range shelf.Names() {
		panels := panelsOf(t, id)
		for _, page := range Pages {
			for _, l := range []Layout{Usual, Large, Summary} {
				leaves := Steps("Toy", panels, page, l)
				if want := (len(panels) + l.Cols*l.Rows - 1) / (l.Cols * l.Rows); len(leaves) != want {
					t.Errorf("%s: %d pages, not %d", id, len(leaves), want)
				}
				var text strings.Builder
				for _, leaf := range leaves {
					on := func(v geom.Vec) bool {
						return v.X >= 0 && v.Y >= 0 && v.X <= page.WidthMM && v.Y <= page.HeightMM
					}
					for _, f := range leaf.Fills {
						for _, v := range f.Points {
							if !on(v) {
								t.Fatalf("%s: paper at %v", id, v)
							}
						}
					}
					for _, s := range leaf.Strokes {
						if !on(s.A) || !on(s.B) {
							t.Fatalf("%s: a line from %v to %v", id, s.A, s.B)
						}
					}
					for _, w := range leaf.Words {
						text.WriteString(w.Text + " ")
						if !on(w.At) || w.At.X+LetterPart*w.SizeMM*float64(len(w.Text)) > page.WidthMM+4 {
							t.Errorf("%s: %q at %v runs off the page", id, w.Text, w.At)
						}
					}
				}
				for _, p := range panels {
					for _, word := range strings.Fields(p.Text + " " + p.Note) {
						if !strings.Contains(text.String(), word) {
							t.Errorf("%s: the word %q is lost", id, word)
						}
					}
				}
			}
		}
	}
}

// The PDF of a step sheet shows paper of two tones and ink.
func TestStepSheetIsDrawn(t *testing.T) {
	leaves := Steps("Curlew", panelsOf(t, "curlew"), Pages[0], Usual)
	pic := Rendered(t, leaves[:1])[0]
	var dark, grey int
	for _, v := range pic.Pix {
		switch {
		case v < 80:
			dark++
		case v > 190 && v < 215:
			grey++
		}
	}
	if all := len(pic.Pix); dark < all/500 || grey < all/500 {
		t.Errorf("%d dark and %d grey dots of %d", dark, grey, all)
	}
}

// Bands for young folders run beside every fold at the tolerance that is asked for.
func TestBandsBesideFolds(t *testing.T) {
	guide := Guide{geom.Segment{A: geom.Vec{X: 20, Y: 0}, B: geom.Vec{X: 80, Y: 100}}, Valley}
	leaves, err := Lay(Order{Title: "t", Outline: Rect(100, 100), Guides: []Guide{guide}, BandMM: 2, Page: Pages[0]})
	if err != nil {
		t.Fatal(err)
	}
	var fold geom.Line
	bands := 0
	for _, s := range leaves[0].Strokes {
		if s.Kind == Valley {
			fold, _ = geom.LineThrough(s.A, s.B)
		}
	}
	for _, s := range leaves[0].Strokes {
		if s.Kind == Band {
			bands++
			if d := math.Abs(fold.Side(s.A)); math.Abs(d-2) > 1e-6 {
				t.Errorf("a band lies %v mm off", d)
			}
		}
	}
	if bands != 2 {
		t.Errorf("%d bands", bands)
	}
}

func TestParagraphsKeepAllLetters(t *testing.T) {
	for _, text := range []string{"", "short", "a few words that go over several lines, as they do", strings.Repeat("x", 50)} {
		lines := Paragraph(text, 12)
		if got := strings.ReplaceAll(strings.Join(lines, ""), " ", ""); got != strings.ReplaceAll(text, " ", "") {
			t.Errorf("%q becomes %q", text, lines)
		}
		for _, l := range lines {
			if len(l) > 12 {
				t.Errorf("%q is too long", l)
			}
		}
	}
}

// An SVG of a step is small and quick.
func BenchmarkStepSVG(b *testing.B) {
	p, _ := shelf.FindStudy("flapper")
	r := p.Run(sheet.Sheet{WidthMM: p.WidthMM, HeightMM: p.HeightMM, GSM: 80, ThicknessMM: 0.1}, nil)
	d := r.Steps[len(r.Steps)-1]
	var text string
	for b.Loop() {
		o := draw.Next(d)
		text = draw.SVG(draw.Flat(d.Before), &o, draw.Plain)
	}
	b.ReportMetric(float64(len(text))/1e3, "kB")
}
