package prints_test

import (
	"math"
	"slices"
	"strings"
	"testing"
	"unicode/utf8"

	"tussock/internal/draw"
	"tussock/internal/geom"
	. "tussock/internal/prints"
	"tussock/internal/say"
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
		st := draw.StageOf(r, d.No, draw.Watching)
		for i, q := range st.Over.Sizes {
			st.Over.Sizes[i].Text = say.Plain(q.Text)
		}
		out = append(out, Panel{Picture: st.Picture, Over: &st.Over, Second: st.After, Head: d.Title(), Text: say.Plain(d.Say), Notes: []string{say.Plain(d.Looks)}})
	}
	return out
}

// What is drawn over a step is on its SVG and on its print, each element once: the painters
// only paint what the picture holds.
func TestPaintersAgree(t *testing.T) {
	for _, id := range shelf.Names() {
		for i, p := range panelsOf(t, id) {
			heads, shapes := 0, 0
			for _, a := range p.Over.Arrows {
				heads += len(a.Heads)
			}
			for _, s := range p.Over.Signs {
				shapes += len(s.Shapes)
			}
			svg := draw.SVG(p.Picture, p.Over, draw.Plain)
			if n := strings.Count(svg, "<path "); n != len(p.Over.Arrows) {
				t.Errorf("%s step %d: the SVG has %d arrows of %d", id, i+1, n, len(p.Over.Arrows))
			}
			if n := strings.Count(svg, "<polygon "); n != len(p.Picture.Faces)+len(p.Over.Moving)+heads+shapes {
				t.Errorf("%s step %d: the SVG has %d areas; the picture has %d pieces, %d that move, %d heads, %d parts of signs", id, i+1, n, len(p.Picture.Faces), len(p.Over.Moving), heads, shapes)
			}
			p.Second = nil
			leaf := Steps("Toy", []Panel{p}, Pages[0], Usual)[0]
			if len(leaf.Tops) != heads+shapes || len(leaf.Fills) != len(p.Picture.Faces) {
				t.Errorf("%s step %d: the print has %d heads and signs of %d, %d pieces of %d", id, i+1, len(leaf.Tops), heads+shapes, len(leaf.Fills), len(p.Picture.Faces))
			}
			hatched := slices.ContainsFunc(leaf.Strokes, func(s Stroke) bool { return s.Kind == Hatch })
			if len(p.Over.Moving) > 0 && !hatched {
				t.Errorf("%s step %d: what moves is not shaded on the print", id, i+1)
			}
			for _, q := range p.Over.Sizes {
				if !slices.ContainsFunc(leaf.Words, func(w Word) bool { return w.Text == q.Text }) || !strings.Contains(svg, ">"+q.Text+"<") {
					t.Errorf("%s step %d: %q is not printed", id, i+1, q.Text)
				}
			}
		}
	}
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
						if !on(w.At) || w.At.X+WideMM(w.Text, w.SizeMM) > page.WidthMM {
							t.Errorf("%s: %q at %v runs off the page", id, w.Text, w.At)
						}
					}
				}
				for _, p := range panels {
					for _, word := range strings.Fields(p.Text + " " + strings.Join(p.Notes, " ")) {
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

// Lines are as wide as the room, and no letter is lost: none is cut in two, and an accent
// stays with its letter.
func TestParagraphsKeepAllLetters(t *testing.T) {
	const width, size = 20, 3.0
	for _, text := range []string{"", "short", "a few words that go over several lines, as they do", strings.Repeat("x", 50), strings.Repeat("Żółć", 12), "ένα δύο " + strings.Repeat("έ", 30)} {
		lines := Paragraph(text, width, size)
		if got := strings.ReplaceAll(strings.Join(lines, ""), " ", ""); got != strings.ReplaceAll(text, " ", "") {
			t.Errorf("%q becomes %q", text, lines)
		}
		for i, l := range lines {
			if w := WideMM(l, size); w > width || !utf8.ValidString(l) || strings.HasPrefix(l, "\u0301") {
				t.Errorf("%q is %.1f mm wide", l, w)
			}
			if i+1 < len(lines) {
				if first, _, _ := strings.Cut(lines[i+1], " "); WideMM(l+" "+first, size) <= width && WideMM(first, size) < width/2 {
					t.Errorf("%q has room for %q", l, first)
				}
			}
		}
	}
	long := strings.Repeat("Zażółć gęślą ", 20)
	cut := AtMost(2, long, width, size)
	if len(cut) != 2 || !strings.HasSuffix(cut[1], "…") || WideMM(cut[1], size) > width || !strings.HasPrefix(long, strings.TrimSuffix(strings.Join(cut, " "), "…")) || !utf8.ValidString(cut[1]) {
		t.Errorf("%q", cut)
	}
	if one := AtMost(2, "one line", width, size); len(one) != 1 || one[0] != "one line" {
		t.Errorf("%q", one)
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
