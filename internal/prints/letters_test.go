package prints_test

import (
	"bytes"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"tussock/internal/geom"
	"tussock/internal/prints"
)

// read is the text of a PDF.
func read(t *testing.T, pdf []byte) string {
	t.Helper()
	file := filepath.Join(t.TempDir(), "p.pdf")
	if err := os.WriteFile(file, pdf, 0o600); err != nil {
		t.Fatal(err)
	}
	out, err := exec.CommandContext(t.Context(), "pdftotext", "-layout", file, "-").Output()
	if err != nil {
		t.Fatalf("pdftotext (make test installs it): %v", err)
	}
	return string(out)
}

// Names print in their own letters, come back whole from the PDF, and the PDF stays small
// and the same.
func TestNamesInTheirOwnLetters(t *testing.T) {
	names := []string{"Łódź, żółta gęś", "Ελένη της Λήμνου", "Щука Ёжикова", "Çiğdem Ørsted ſ Ñandú", "3 × 4 ± 0,5 mm · “quoted” – ½ → °"}
	leaf := prints.Leaf{Page: prints.Pages[0]}
	for i, n := range names {
		leaf.Words = append(leaf.Words, prints.Word{At: geom.Vec{X: 20, Y: 20 + 10*float64(i)}, SizeMM: 5, Text: n})
		if lacks := prints.Unprinted(n); lacks != "" {
			t.Errorf("%q lacks %q", n, lacks)
		}
	}
	var a, b bytes.Buffer
	for _, out := range []*bytes.Buffer{&a, &b} {
		if err := prints.PDF(out, names[0], []prints.Leaf{leaf}); err != nil {
			t.Fatal(err)
		}
	}
	if !bytes.Equal(a.Bytes(), b.Bytes()) {
		t.Error("the same leaf gives other bytes")
	}
	if a.Len() > 120_000 {
		t.Errorf("%d bytes: is the font subset?", a.Len())
	}
	text := read(t, a.Bytes())
	for _, n := range names {
		if !strings.Contains(text, n) {
			t.Errorf("%q does not come back from\n%s", n, text)
		}
	}
	// Other scripts are told, and whole in the SVG.
	for n, lacks := range map[string]string{"李 of Łódź": "李", "نورس na": "نورس", "Plain": ""} {
		if got := prints.Unprinted(n); got != lacks {
			t.Errorf("%q lacks %q, want %q", n, got, lacks)
		}
		leaf.Words = []prints.Word{{At: geom.Vec{X: 20, Y: 20}, SizeMM: 5, Text: n}}
		if svg := prints.SVG(leaf); !strings.Contains(svg, n) {
			t.Errorf("%q is not whole in %s", n, svg)
		}
	}
}

// Pages of steps stand below one another in one SVG, all of their words, paper and lines.
func TestPagesInOneSVG(t *testing.T) {
	var leaves []prints.Leaf
	for i := range 3 {
		at := geom.Vec{X: 20, Y: 30 + float64(i)}
		leaves = append(leaves, prints.Leaf{Page: prints.Pages[0], Words: []prints.Word{{At: at, SizeMM: 4, Text: "李"}},
			Strokes: []prints.Stroke{{Kind: prints.Valley, A: at, B: at}}, Fills: []prints.Fill{{Points: []geom.Vec{at, at, at}, Tone: []prints.Tone{prints.Front, prints.Back, prints.Back}[i]}}})
	}
	one := prints.Stacked(leaves)
	if one.Page.HeightMM != 3*297 || one.Words[2].At.Y != 2*297+32 || one.Fills[1].Points[0].Y != 297+31 || one.Strokes[1].A.Y != 297+31 {
		t.Errorf("%+v", one)
	}
	svg := prints.SVG(one)
	for what, n := range map[string]int{"李": 3, "<polygon": 3, "<path": 3, "#ffffff": 1, "#cdcdcd": 2} {
		if got := strings.Count(svg, what); got != n {
			t.Errorf("%d of %q, want %d", got, what, n)
		}
	}
}
