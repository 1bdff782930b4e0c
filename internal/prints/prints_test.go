package prints

import (
	"bytes"
	"encoding/xml"
	"fmt"
	"image"
	"image/draw"
	"image/png"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
	"testing"

	ink "tussock/internal/draw"
	"tussock/internal/geom"
)

const dotsPerMM = 10 // of the pictures that are measured

// rendered prints a PDF to pictures, a page each.
func rendered(t *testing.T, leaves []Leaf) []*image.Gray {
	t.Helper()
	dir := t.TempDir()
	file := filepath.Join(dir, "t.pdf")
	var b bytes.Buffer
	if err := PDF(&b, "test", leaves); err != nil {
		t.Fatal(err)
	}
	if err := os.WriteFile(file, b.Bytes(), 0o600); err != nil {
		t.Fatal(err)
	}
	out, err := exec.CommandContext(t.Context(), "pdftoppm", "-png", "-gray", "-r", fmt.Sprint(25.4*dotsPerMM), file, filepath.Join(dir, "p")).CombinedOutput()
	if err != nil {
		t.Fatalf("pdftoppm (make test installs it): %v %s", err, out)
	}
	names, _ := filepath.Glob(filepath.Join(dir, "p*.png"))
	if len(names) != len(leaves) {
		t.Fatalf("%d pages for %d leaves", len(names), len(leaves))
	}
	var pics []*image.Gray
	for _, n := range names {
		f, err := os.Open(n)
		if err != nil {
			t.Fatal(err)
		}
		img, err := png.Decode(f)
		if err != nil {
			t.Fatal(err)
		}
		if err := f.Close(); err != nil {
			t.Fatal(err)
		}
		grey := image.NewGray(img.Bounds())
		draw.Draw(grey, grey.Bounds(), img, image.Point{}, draw.Src)
		pics = append(pics, grey)
	}
	return pics
}

// dark are the middles, in mm, of the dark stretches along a row or a column.
func dark(p *image.Gray, across bool, at float64) []float64 {
	var out []float64
	n := p.Bounds().Dx()
	if !across {
		n = p.Bounds().Dy()
	}
	line := int(math.Round(at * dotsPerMM))
	from := -1
	for i := range n + 1 {
		black := false
		if i < n {
			if across {
				black = p.GrayAt(i, line).Y < 170
			} else {
				black = p.GrayAt(line, i).Y < 170
			}
		}
		switch {
		case black && from < 0:
			from = i
		case !black && from >= 0:
			out = append(out, float64(from+i)/2/dotsPerMM)
			from = -1
		}
	}
	return out
}

func near(t *testing.T, what string, got, want float64) {
	t.Helper()
	if math.Abs(got-want) > 0.15 { // 0.2 is promised, a dot is 0.1
		t.Errorf("%s is %.3f mm on paper, not %.3f", what, got, want)
	}
}

func rect(w, h float64) geom.Polygon {
	return geom.Polygon{{}, {X: w}, {X: w, Y: h}, {Y: h}}
}

// One page: outline, check length and ruler are as long as they say, in mm and in
// inches, on both pages that printers hold; front and back lie on one another.
func TestTrueSizeOnOnePage(t *testing.T) {
	guide := Guide{geom.Segment{A: geom.Vec{X: 30, Y: 0}, B: geom.Vec{X: 30, Y: 140}}, Crease}
	for _, page := range Pages {
		for _, inches := range []bool{false, true} {
			leaves, err := Lay(Order{Title: "Square", Outline: rect(120, 140), Guides: []Guide{guide}, Front: true, Back: true, Down: "back", Inches: inches, Page: page})
			if err != nil || len(leaves) != 2 {
				t.Fatalf("%d leaves, %v", len(leaves), err)
			}
			pics := rendered(t, leaves)
			foot := page.HeightMM - MarginMM
			for i, p := range pics {
				near(t, "the page's width", float64(p.Bounds().Dx())/dotsPerMM, page.WidthMM)
				mid := foot - footMM - 21.3
				x := dark(p, true, mid)
				if len(x) < 2 {
					t.Fatalf("page %d: %v", i, x)
				}
				near(t, "the outline's width", x[len(x)-1]-x[0], 120)
				if i == 0 {
					near(t, "the left edge", x[0], MarginMM)
				} else { // mirrored
					near(t, "the left edge", page.WidthMM-x[len(x)-1], MarginMM)
				}
				y := dark(p, false, x[0]+17.3)
				near(t, "the outline's height", foot-footMM-y[0], 140)
				long := CheckMM
				if inches {
					long = CheckIn * 25.4
				}
				ticks := dark(p, true, foot-8.5-1.0)
				near(t, "the check length", ticks[1]-ticks[0], long)
				rule := dark(p, true, foot-1-2.2) // only ticks of units and halves reach there
				unit := 10.0
				if inches {
					unit = 25.4
				}
				near(t, "the ruler's first unit", rule[2]-rule[0], unit)
				near(t, "the ruler's five units", rule[10]-rule[0], 5*unit)
			}
			for _, at := range []float64{6, page.HeightMM - 6} {
				a, b := dark(pics[0], true, at-1), dark(pics[1], true, at-1)
				if len(a) != 2 || len(b) != 2 {
					t.Fatalf("crosses %v and %v", a, b)
				}
				near(t, "a cross seen through the paper", page.WidthMM-b[1], a[0])
			}
		}
	}
}

// A square that takes the page across is printed on it as it is: one cut makes it, and both faces
// lie on one another through the paper.
func TestSquareAcrossAPage(t *testing.T) {
	at := geom.Vec{X: 50, Y: 30}
	o := Order{Title: "Square", Outline: rect(210, 210), Page: Pages[0], Front: true, Back: true, Down: "back",
		Notes: []ink.Ink{{At: at, Text: "F", SizeMM: 5}, {At: at, Text: "B", SizeMM: 5, Back: true}}}
	leaves, err := Lay(o)
	if err != nil || len(leaves) != 2 {
		t.Fatal(len(leaves), err)
	}
	for i, l := range leaves {
		cuts := 0
		for _, s := range l.Strokes {
			if s.Kind == Cut {
				cuts++
				if math.Abs(s.A.Y-210) > 1e-9 || math.Abs(s.B.X-s.A.X) < 209 {
					t.Errorf("the cut runs from %v to %v", s.A, s.B)
				}
			}
		}
		want := geom.Vec{X: []float64{50, 160}[i], Y: 180}
		found := false
		for _, w := range l.Words {
			if w.Text == []string{"F", "B"}[i] {
				found = w.At.Dist(want) < 1e-9
			}
		}
		if cuts != 1 || !found {
			t.Errorf("leaf %d: %d cuts, the text in its place %v", i, cuts, found)
		}
	}
}

// A sheet larger than the page goes over several; each shows its part, and laid
// together at their seams they are the sheet.
func TestTiledPagesAddUp(t *testing.T) {
	for _, c := range []struct{ w, h float64 }{{215, 215}, {300, 420}, {60, 500}} {
		leaves, err := Lay(Order{Title: "Large", Outline: rect(c.w, c.h), Page: Pages[0]})
		if err != nil {
			t.Fatal(err)
		}
		g := Order{Page: Pages[0]}.grid(geom.Box{MaxX: c.w, MaxY: c.h})
		if len(leaves) != g.cols*g.rows || len(leaves) < 2 {
			t.Fatalf("%v: %d leaves, %d × %d", c, len(leaves), g.cols, g.rows)
		}
		pics := rendered(t, leaves)
		// Along the lowest row of pages, through the middle of each.
		total := 0.0
		for col := range g.cols {
			row := g.page.HeightMM - MarginMM - footMM - 33.3
			x := dark(pics[col], true, row)
			left, right := MarginMM+overlapMM/2, g.page.WidthMM-MarginMM-overlapMM/2 // the seams
			if col == 0 {
				left = x[0]
			}
			if col == g.cols-1 {
				right = x[len(x)-1]
			}
			total += right - left
		}
		near(t, fmt.Sprintf("the width of %v over %d pages", c, g.cols), total, c.w)
		// Every corner of the outline is on some page, and every seam on two.
		signs := map[string]int{}
		for _, l := range leaves {
			for _, w := range l.Words {
				if w.SizeMM == 2.4 {
					signs[w.Text]++
				}
			}
		}
		for s, n := range signs {
			if n != 2 {
				t.Errorf("%v: the sign %s stands on %d pages", c, s, n)
			}
		}
		if len(signs) == 0 {
			t.Errorf("%v: no signs", c)
		}
	}
}

// A sheet as large as the page, upright or lying, gets its guides printed on itself, one
// page for each face, and nothing is scaled; it says how far its crosses are apart.
func TestGuidesOnTheSheetItself(t *testing.T) {
	a4 := rect(210, 297)
	guide := Guide{geom.Segment{A: geom.Vec{X: 105, Y: 0}, B: geom.Vec{X: 105, Y: 297}}, Valley}
	leaves, err := Lay(Order{Title: "Leaflet", Outline: a4, Guides: []Guide{guide}, Front: true, Back: true, Page: Pages[0]})
	if err != nil || len(leaves) != 2 {
		t.Fatalf("%d leaves, %v", len(leaves), err)
	}
	for i, k := range []Kind{Valley, Mountain} { // seen from behind a valley is a mountain
		s := leaves[i].Strokes[0]
		if s.Kind != k || math.Abs(s.A.X-105) > 1e-9 || math.Abs(s.B.X-105) > 1e-9 || math.Abs(math.Abs(s.A.Y-s.B.Y)-289) > 1e-9 {
			t.Errorf("leaf %d: %+v", i, s)
		}
	}
	for _, l := range leaves {
		if !slices.ContainsFunc(l.Words, func(w Word) bool { return w.Text == "198 mm from cross to cross" }) {
			t.Errorf("the check is missing: %+v", l.Words)
		}
	}
	for _, c := range []struct {
		w, h  float64
		page  Page
		pages int
	}{{297, 210, Pages[0], 1}, {152.4, 152.4, OwnPage(152.4, 152.4), 1}, {152.4, 152.4, Pages[0], 1}, {75, 150, OwnPage(75, 150), 1}} {
		leaves, err := Lay(Order{Outline: rect(c.w, c.h), Guides: []Guide{{geom.Segment{A: geom.Vec{X: c.w / 2, Y: 0}, B: geom.Vec{X: c.w / 2, Y: c.h}}, Valley}}, Front: true, Page: c.page})
		if err != nil || len(leaves) != c.pages {
			t.Errorf("%+v: %d leaves, %v", c, len(leaves), err)
			continue
		}
		if c.page.Name != "A4" && (leaves[0].Page.WidthMM != c.w || leaves[0].Page.HeightMM != c.h) {
			t.Errorf("%+v is printed on %+v", c, leaves[0].Page)
		}
	}
	for _, c := range []struct {
		w, h float64
		name string
	}{{210, 297, "A4"}, {215.9, 279.4, "Letter"}, {279.4, 215.9, "Letter"}, {150, 150, "A4"}, {139.7, 215.9, "Letter"}, {0, 0, "A4"}} {
		if p := PageFor(c.w, c.h); p.Name != c.name {
			t.Errorf("%v × %v is printed on %s", c.w, c.h, p.Name)
		}
	}
}

// The SVG has the same lines, and is well-formed whatever the title.
func TestSVGIsTrueSize(t *testing.T) {
	l, err := Whole(Order{Title: "A <b> & c", Outline: rect(300, 200), Page: Pages[0]})
	if err != nil {
		t.Fatal(err)
	}
	text := SVG(l)
	var doc struct {
		Width string `xml:"width,attr"`
		Box   string `xml:"viewBox,attr"`
		Paths []struct {
			Class string `xml:"class,attr"`
			D     string `xml:"d,attr"`
		} `xml:"path"`
	}
	if err := xml.Unmarshal([]byte(text), &doc); err != nil {
		t.Fatal(err)
	}
	if !strings.HasSuffix(doc.Width, "mm") || !strings.HasPrefix(doc.Box, "0 0 "+strings.TrimSuffix(doc.Width, "mm")) {
		t.Errorf("width %s, box %s", doc.Width, doc.Box)
	}
	longest := 0.0
	for _, p := range doc.Paths {
		var x1, y1, x2, y2 float64
		if _, err := fmt.Sscanf(p.D, "M%f %fL%f %f", &x1, &y1, &x2, &y2); err != nil {
			t.Fatal(err)
		}
		if p.Class == "cut" {
			longest = max(longest, math.Hypot(x2-x1, y2-y1))
		}
	}
	if math.Abs(longest-300) > 1e-3 {
		t.Errorf("the long edge is %v mm", longest)
	}
}

func TestWhatCannotBePrinted(t *testing.T) {
	if _, err := Lay(Order{Page: Pages[0]}); err == nil {
		t.Error("nothing is laid out")
	}
	if _, err := Lay(Order{Outline: rect(2000, 2000), Page: Pages[0]}); err == nil || !strings.Contains(err.Error(), "small enough for 60 pages") {
		t.Errorf("%v", err)
	}
}

func BenchmarkPDF(b *testing.B) {
	leaves, err := Lay(Order{Title: "Large", Outline: rect(300, 420), Page: Pages[0]})
	if err != nil {
		b.Fatal(err)
	}
	for b.Loop() {
		var w bytes.Buffer
		if err := PDF(&w, "t", leaves); err != nil {
			b.Fatal(err)
		}
	}
}
