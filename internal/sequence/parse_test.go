package sequence_test

import (
	"errors"
	"math"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"tussock/internal/body"
	"tussock/internal/sequence/lang"
	"tussock/internal/sequence/manual"
	"tussock/internal/sequence/remarks"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/ways"
)

func TestParseErrorsNamePlaceAndFix(t *testing.T) {
	for _, c := range []struct {
		text      string
		line, col int
		problem   string
		fix       string
	}{
		{"sheet rect 210 297\nvaley bring TL to C", 2, 1, `"valey" is not a statement`, `did you mean "valley"?`},
		{"sheet rect 210 297\nvalley bring TL to keal", 2, 20, `nothing is called "keal" yet`, "use one of"},
		{"sheet rect 210 297\ncrease bring left to right as keel\nvalley bring TL to keal through T", 3, 20, `nothing is called "keal" yet`, "did you mean"},
		{"sheet rect 210\n", 1, 15, "the end of the line stands where the height in mm is needed", "write a number"},
		{"sheet rect 210 29700\n", 1, 16, "the height in mm is 29700", "from 20 to 2000"},
		{"sheet rect 210 297\ncrease bring left to right as TL", 2, 31, `"TL" is a point already`, "another name"},
		{"sheet rect 210 297\nvalley through TL BR", 2, 21, "it is not said which side moves", `add "moving"`},
		{"sheet rect 210 297\npoint P = part(TL,BR)", 2, 21, `stands where "," is needed`, `write ","`},
		{"sheet rect 210 297\npoint P = mid(P,TL)", 2, 15, `nothing is called "P" yet`, ""},
		{"sheet rect 210 297\nvalley bring TL to C \"x", 2, 22, "no closing quote", `end it with "`},
		{"sheet rect 210 297\nvalley bring TL to C expect -3", 2, 29, "the count is -3", "from 0"},
		{"sheet rect 210 297\nknob a \"A\" = 5 mm from 6 to 9", 2, 14, "outside 6 to 9", "widen"},
		{"sheet rect 210 297\ncrease bring left to right @", 2, 28, "has no meaning here", "remove it"},
		{"sheet rect 210 297\nsay \"hello\"", 2, 1, `"say" belongs under a step`, "above it"},
		{"sheet rect 210 297\nturn over", 2, 6, "is not a way to turn over", "lr or tb"},
		{"valley bring left to right", 1, 1, "names no sheet", "sheet rect 210 297"},
		{"sheet rect 210 297\nnose Q\ncrease bring left to right", 3, 1, "not a landmark", "name a point"},
		{"sheet rect 210 297\npoint P = " + strings.Repeat("mid(", 40), 2, 0, "nested too deeply", "line of its own"},
		{"sheet rect 210 297\nparam a = 1/0\n", 2, 11, "is not a number", "1/3"},
	} {
		_, err := ways.Parse("try.pattern", c.text)
		var pe *lang.ParseError
		if !errors.As(err, &pe) {
			t.Errorf("%q gives %v, want a parse error", c.text, err)
			continue
		}
		if pe.Line != c.line || c.col > 0 && pe.Col != c.col || !strings.Contains(pe.Problem, c.problem) || !strings.Contains(pe.Fix, c.fix) {
			t.Errorf("%q gives %q (%s), want %d:%d %q (%s)", c.text, pe, pe.Fix, c.line, c.col, c.problem, c.fix)
		}
		if !strings.HasPrefix(err.Error(), "try.pattern:") {
			t.Errorf("%q does not name the file", err)
		}
	}
}

func TestPatternHead(t *testing.T) {
	p, ok := shelf.Find("Curlew")
	if !ok {
		t.Fatal("no Curlew on the shelf")
	}
	if p.Title != "Curlew" || p.Moves != "fly" || p.Minutes != 6 || p.WidthMM != 210 || p.MaxRatio != 2 || p.Head("nose") != "T" {
		t.Errorf("head is read as %+v", p)
	}
	want := map[string][]int{"nose": {2, 3}, "depth": {7, 9}, "slope": {7, 9}, "wing": {10}}
	for _, k := range p.Knobs {
		if k.Implied { // a last bend: it belongs to the step that sets the wings
			want[k.Name] = want["wing"]
		}
		if got := k.Steps; len(got) != len(want[k.Name]) || got[0] != want[k.Name][0] {
			t.Errorf("knob %s belongs to steps %v, want %v", k.Name, got, want[k.Name])
		}
		if k.Changes == "" || k.Label == "" {
			t.Errorf("knob %s has no words", k.Name)
		}
	}
	all, err := shelf.All()
	if err != nil {
		t.Fatal(err)
	}
	for _, p := range all {
		for _, s := range p.Steps {
			if n := len(strings.Fields(s.Say)); n == 0 || n > 25 {
				t.Errorf("%s step %d has %d words to read aloud", p.Title, s.No, n)
			}
		}
	}
}

// Whatever is written, the reader answers with a pattern or a parse error, and a
// pattern that was read can be replayed without a panic.
func FuzzParse(f *testing.F) {
	var files []string
	for _, where := range []string{"testdata", "../shelf", "../shelf/studies", "../foldtest/toys"} {
		found, err := filepath.Glob(where + "/*.pattern")
		if err != nil || len(found) == 0 {
			f.Fatal(where, err)
		}
		files = append(files, found...)
	}
	for _, e := range manual.Reference(ways.Language()) {
		f.Add(e.Example)
	}
	for _, name := range files {
		b, err := os.ReadFile(name)
		if err != nil {
			f.Fatal(err)
		}
		f.Add(string(b))
	}
	f.Add("sheet square 100\nvalley bring TL to mid(BL,BR)\nwing along left moving TL angle 4")
	f.Add("sheet square 100\nparam a = -(width*2 - 3)/max(1,-2) + sqrt(4)\npoint P = sheet(a/0, dist(BL,TR)*tan(90))\ncrease through BL P")
	f.Add("sheet rect 20 2000\nparam k = 9999\npoint P = toward(TL,TR,k)\nrotate k\nturn tb\nexpect facets 1")
	for _, head := range []string{"spin axle BL TR", "spin blades TL TR", "spin stands along diag(BL,TR)", "flap hump L B", "flap neck T", "flap tube B T", "flap roots L R", "reveal zones 3", "reveal states", "hop foot TL"} {
		way := strings.Fields(head)[0]
		f.Add("moves " + way + "\nsheet square 100\n" + head + "\nvalley bring left to right as v\nopen along v moving TL angle 90")
	}
	f.Add("moves spin\nknob n \"Leaves\" = 5 from 3 to 8 fold changes \"Blades.\"\nsheet ngon n 70\ngather about C as r\npart [C M1] into n-1")
	s, err := sheet.New(210, 297, 80, 0.1)
	if err != nil {
		f.Fatal(err)
	}
	f.Fuzz(func(t *testing.T, text string) {
		p, err := ways.Parse("f", text)
		if err != nil {
			var pe *lang.ParseError
			if !errors.As(err, &pe) || pe.Line < 1 || pe.Col < 1 {
				t.Fatalf("error without a place: %v", err)
			}
			return
		}
		if len(p.Steps) > 40 {
			return // long ones are only slow
		}
		r := p.Run(s, nil)
		if r.Err == nil && r.Final() == nil {
			t.Fatal("neither a state nor an error")
		}
		if len(r.Final().F) < 30 {
			remarks.Warnings(r)
		}
		if r.Err == nil && len(r.Final().F) < 30 {
			pose := body.Standing(r)
			if limit := 0.03 * math.Hypot(s.WidthMM, s.HeightMM); pose.Sound() && !(pose.Residual <= limit && pose.MissDeg <= 180) {
				t.Fatalf("a pose with %v mm, %v°: %q", pose.Residual, pose.MissDeg, pose.Unsound())
			}
		}
	})
}
