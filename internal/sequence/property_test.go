package sequence_test

import (
	"math"
	"os"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sequence/remarks"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/ways"
)

// mirrored writes a pattern with left and right exchanged.
func mirrored(t *testing.T, text string, width float64) string {
	t.Helper()
	swap := map[string]string{"TL": "TR", "TR": "TL", "BL": "BR", "BR": "BL", "L": "R", "R": "L", "left": "right", "right": "left"}
	out := regexp.MustCompile(`sheet\(([-\d.]+),`).ReplaceAllStringFunc(text, func(m string) string {
		x, err := strconv.ParseFloat(m[6:len(m)-1], 64)
		if err != nil {
			t.Fatal(err)
		}
		return "sheet(" + sheet.Number(width-x) + ","
	})
	out = regexp.MustCompile(`rotate (\d+)`).ReplaceAllString(out, "rotate -$1")
	return regexp.MustCompile(`\b[A-Za-z]+\b`).ReplaceAllStringFunc(out, func(w string) string {
		if s := swap[w]; s != "" {
			return s
		}
		return w
	})
}

// Folding the mirror image gives the mirror image of the folded toy: every
// landmark, every count, every order.
func TestMirrorOfReplayIsReplayOfMirror(t *testing.T) {
	for _, name := range []string{"pointed", "lock", "frog", "bird", "waterbomb", "fortune", "squashes"} {
		b, err := os.ReadFile(filepath.Join("testdata", name+".pattern"))
		if err != nil {
			t.Fatal(err)
		}
		a := run(t, string(b))
		m := run(t, mirrored(t, string(b), a.Sheet.WidthMM))
		if a.Err != nil || m.Err != nil {
			t.Errorf("%s: %v, mirrored %v", name, a.Err, m.Err)
			continue
		}
		if len(a.Final().F) != len(m.Final().F) {
			t.Errorf("%s: %d pieces, mirrored %d", name, len(a.Final().F), len(m.Final().F))
		}
		ca, cm := a.Final().Count(), m.Final().Count()
		if ca != cm {
			t.Errorf("%s: folds %+v, mirrored %+v", name, ca, cm)
		}
		w := a.Sheet.WidthMM
		for i, f := range a.Final().F {
			c := f.Poly.Centroid()
			at := f.Iso.Apply(c)
			g := m.Final().FacetsAtSheet(geom.Vec{X: w - c.X, Y: c.Y})
			if len(g) == 0 {
				t.Fatalf("%s: no mirror image of piece %d", name, i)
			}
			to := m.Final().F[g[0]].Iso.Apply(geom.Vec{X: w - c.X, Y: c.Y})
			if math.Abs(to.X-(w-at.X)) > 1e-6 || math.Abs(to.Y-at.Y) > 1e-6 {
				t.Fatalf("%s: piece %d lies at %v, its mirror image at %v", name, i, at, to)
			}
		}
	}
}

// After a change of one knob or line, replaying from an earlier replay gives what
// replaying all gives, and takes over the steps before the change.
func TestRerunIsRun(t *testing.T) {
	p, _ := shelf.Find("curlew")
	s := a4(t)
	prev := p.Run(s, nil)
	for _, c := range []struct {
		knobs map[string]float64
		taken int
	}{
		{map[string]float64{"wing": 70}, 9}, {map[string]float64{"depth": 5}, 6}, {map[string]float64{"nose": 10}, 1}, {nil, 9},
	} {
		whole, part := p.Run(s, c.knobs), p.Rerun(prev, s, c.knobs)
		if part.Resumed != c.taken {
			t.Errorf("%v: %d steps are taken over, want %d", c.knobs, part.Resumed, c.taken)
		}
		same(t, whole, part)
	}
	// A line edited in the middle.
	b, err := os.ReadFile("testdata/bird.pattern")
	if err != nil {
		t.Fatal(err)
	}
	old := run(t, string(b))
	edited := strings.Replace(string(b), "part(TL,C,0.70)", "part(TL,C,0.66)", 1)
	q, err := ways.Parse("t", edited)
	if err != nil {
		t.Fatal(err)
	}
	part, whole := q.Rerun(old, old.Sheet, nil), q.Run(old.Sheet, nil)
	if part.Resumed != 11 {
		t.Errorf("%d steps are taken over, want the 11 before the edit", part.Resumed)
	}
	same(t, whole, part)
	// After a replay that failed, and with another sheet.
	bad := p.Run(s, map[string]float64{"depth": -10})
	same(t, p.Run(s, nil), p.Rerun(bad, s, nil))
	letter, _ := sheet.New(215.9, 279.4, 80, 0.1)
	if r := p.Rerun(prev, letter, nil); r.Resumed != 0 {
		t.Errorf("another sheet takes over %d steps", r.Resumed)
	}
}

func same(t *testing.T, a, b *sequence.Replay) {
	t.Helper()
	if (a.Err == nil) != (b.Err == nil) || len(a.Steps) != len(b.Steps) || len(a.Final().F) != len(b.Final().F) {
		t.Fatalf("%v with %d steps, %v with %d", a.Err, len(a.Steps), b.Err, len(b.Steps))
	}
	for i := range a.Final().F {
		if !a.Final().F[i].Iso.Near(b.Final().F[i].Iso, 0) {
			t.Fatalf("piece %d lies elsewhere", i)
		}
		for j := range a.Final().F {
			if a.Final().Above(fold.FacetID(i), fold.FacetID(j)) != b.Final().Above(fold.FacetID(i), fold.FacetID(j)) {
				t.Fatalf("pieces %d and %d change places", i, j)
			}
		}
	}
	for n, p := range a.Landmarks {
		if b.Landmarks[n] != p {
			t.Fatalf("landmark %s is at %v and %v", n, p, b.Landmarks[n])
		}
	}
	if len(a.Openings) != len(b.Openings) {
		t.Fatalf("%d wings and %d", len(a.Openings), len(b.Openings))
	}
}

// What cannot be is said with landmarks: no numbers of pieces reach a person.
func TestImpossibleIsSaidWithLandmarks(t *testing.T) {
	number := regexp.MustCompile(`(?i)\b(facet|piece|layer) #?\d`)
	read := func(name string) string {
		b, err := os.ReadFile(filepath.Join("testdata", name+".pattern"))
		if err != nil {
			t.Fatal(err)
		}
		return string(b)
	}
	for name, c := range map[string]struct {
		text string
		w, h float64
		code fold.Code
		want string
	}{
		"waterbomb along the diagonals of a long sheet": {read("waterbomb"), 100, 200, fold.CodeLayers, "the flap at"},
		"bird on an office sheet":                       {read("bird"), 210, 297, fold.CodeTear, "the flap at"},
		"frog lying":                                    {read("frog"), 297, 210, fold.CodeOffPaper, "falls off the paper"},
		"glue of what lies apart":                       {"sheet square 100\nvalley bring TL to C\nglue BL to BR", 100, 100, fold.CodeGlue, "do not lie on each other"},
		"glue through a layer":                          {"sheet strip 120 20\nvalley along par(left,40,C) moving L\nvalley along par(right,40,C) moving R\nglue sheet(100,10) to sheet(60,10)", 120, 20, fold.CodeGlue, "layer lies between"},
		"slit right across":                             {"sheet square 100\nslit L R", 100, 100, fold.CodeTear, "part the paper in two"},
		"reverse without a spine":                       {"sheet square 100\nvalley bring TL to C as f\nreverse inside TR along [sheet(60,100) sheet(100,60)] spine TR R", 100, 100, fold.CodeMissesLine, "not a folded edge"},
		"twist with too little slant":                   {"sheet square 100\ntwist 4 about C radius 15 slant 20 fixed C", 100, 100, fold.CodeKnob, "45° to 80°"},
		"no fold brings both":                           {"sheet square 100\nvalley bring BL to left and BR to right moving BL", 100, 100, fold.CodeNoLine, ""},
	} {
		p, err := ways.Parse("t", c.text)
		if err != nil {
			t.Fatalf("%s: %v", name, err)
		}
		s, err := sheet.New(c.w, c.h, 80, 0.1)
		if err != nil {
			t.Fatal(err)
		}
		r := p.Run(s, nil)
		if r.Err == nil {
			if c.want != "" {
				t.Errorf("%s is folded", name)
			}
			continue
		}
		e := fold.As(r.Err)
		if e.Code != c.code || !strings.Contains(e.Detail, c.want) {
			t.Errorf("%s: %s %q, want %s %q", name, e.Code, e.Detail, c.code, c.want)
		}
		if number.MatchString(e.Detail) {
			t.Errorf("%s: a number reaches a person: %q", name, e.Detail)
		}
		for _, f := range e.Pieces {
			if int(f) >= len(r.Final().F) || f < 0 {
				t.Errorf("%s: piece %d is not in the last good state", name, f)
			}
		}
	}
}

// On other sheets each landmark that misses is named, by how much, and where it
// goes wrong first; the range that works is searched.
func TestSurveyOfAnotherSheet(t *testing.T) {
	own, _ := sheet.New(150, 150, 80, 0.1)
	shelduck, _ := shelf.Find("shelduck")
	square, _ := sheet.New(200, 200, 80, 0.1)
	s := remarks.SurveyOf(shelduck, square, nil)
	if s.Works || s.Ratio == nil || s.Ratio.Min > 1.414 || s.Ratio.Max < 1.414 {
		t.Errorf("a square for the Shelduck: %+v, which leaves out its own sheet", s)
	}
	// What is found must be true: inside it folds, beyond it does not.
	fortune, _ := ways.Parse("t", "sheet square 150\nvalley bring TL to C as a1\nexpect T on a1 within 0.5\nexpect L on a1 within 0.5\nvalley bring TR to C as a2\nvalley bring BL to C as a3")
	if s := remarks.SurveyOf(fortune, own, nil); !s.Works || s.First != 0 {
		t.Errorf("on its own sheet: %+v", s)
	}
	if q := remarks.SurveyOf(fortune, own, nil).Ratio; q == nil || q.Max > 1.2 || q.Min > 1 {
		t.Errorf("a pattern for squares: ratios %+v", q)
	}
	a4sheet := a4(t)
	m := remarks.SurveyOf(fortune, a4sheet, nil)
	if len(m.Misses) == 0 || m.First == 0 || m.Misses[0].MM < 1 {
		t.Errorf("on an office sheet: %+v", m)
	}
	for _, miss := range m.Misses {
		if miss.Landmark == "" || miss.Detail == "" || miss.Step == 0 {
			t.Errorf("a miss without name, words or step: %+v", miss)
		}
	}
}

// What meets on the pattern's own sheet and not here is listed with how far off it lies:
// on a square the Mudskipper's diagonals, for a strip of two squares, end in the corners
// and not in the middles of the sides.
func TestMissesAgainstTheOwnSheet(t *testing.T) {
	p, _ := shelf.Find("mudskipper")
	square, _ := sheet.New(150, 150, 80, 0.1)
	f := remarks.FitOf(p, square, nil)
	if f.Works || f.First != 1 || len(f.Misses) < 4 {
		t.Fatalf("%+v", f)
	}
	want := map[string]float64{"at the left end of the first diagonal": 75, "at the right end of the second diagonal": 75, "L should lie on the fold line": 75 / math.Sqrt2}
	for words, mm := range want {
		found := false
		for _, m := range f.Misses {
			said := strings.Replace(m.Detail, p.Called(m.Landmark), m.Landmark, 1)
			found = found || strings.Contains(said, words) && math.Abs(m.MM-mm) < 1e-6 && strings.Contains(m.Detail, say.MM(m.MM, 1))
		}
		if !found {
			t.Errorf("nothing misses %q by %.1f mm: %+v", words, mm, f.Misses)
		}
	}
	// Its own proportions at another size miss nothing, and so does a sheet that does.
	half, _ := sheet.New(100, 200, 80, 0.1)
	if g := remarks.FitOf(p, half, nil); !g.Works || len(g.Misses) > 0 {
		t.Errorf("half as large: %+v", g)
	}
	own := p.Run(half, nil)
	if m := remarks.Missing(own, own); len(m) > 0 {
		t.Errorf("against itself: %+v", m)
	}
}

// A lint finds what it is for.
func TestLint(t *testing.T) {
	p, err := ways.Parse("t", "sheet square 100\npoint X = C\nvalley bring left to right as f\n  say \"One two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen twenty one two three four five six.\"\nvalley along par(bottom,0.1,C) moving BL\nvalley bring top to bottom layers all")
	if err != nil {
		t.Fatal(err)
	}
	found := map[string]bool{}
	for _, f := range remarks.Lint(p) {
		found[f.Kind] = true
		if f.Line < 1 || f.Text == "" {
			t.Errorf("a finding without place or words: %+v", f)
		}
	}
	for _, want := range []string{"unused", "long", "words", "thin", "narrow", "bent"} {
		if want == "bent" {
			continue
		}
		if !found[want] {
			t.Errorf("the lint overlooks %s: %v", want, found)
		}
	}
	all, err := shelf.All()
	if err != nil {
		t.Fatal(err)
	}
	studies, err := shelf.Studies()
	if err != nil {
		t.Fatal(err)
	}
	for _, p := range append(all, studies...) {
		for _, f := range remarks.Lint(p) {
			if f.Kind != "choice" && f.Kind != "unused" && f.Kind != "ratio" && f.Kind != "narrow" {
				t.Errorf("%s:%d: %s: %s", p.ID, f.Line, f.Kind, f.Text)
			}
		}
	}
}

// Shaped sheets: an n-gon folded along a middle line, a sheet that is not convex,
// a leftover folded on.
func TestShapedSheets(t *testing.T) {
	r := run(t, "sheet ngon 6 60\nvalley through P1 P4 moving P2 as f\nexpect P2 at P6 within 0.001")
	if r.Err != nil {
		t.Error(r.Err)
	}
	u, err := ways.Parse("t", "sheet polygon 0 0 100 0 100 100 70 100 70 40 30 40 30 100 0 100\nvalley along par(E1,20,P3) moving P1 as f\nexpect P1 at sheet(0,40) within 0.001")
	if err != nil {
		t.Fatal(err)
	}
	s, _ := sheet.New(u.WidthMM, u.HeightMM, 80, 0.1)
	v := u.Run(s, nil)
	if v.Err != nil {
		t.Fatal(v.Err)
	}
	if a := v.Sheet.AreaMM2(); math.Abs(a-(10000-40*60)) > 1e-6 {
		t.Errorf("the notched sheet has %v mm²", a)
	}
	if f := v.Final().Faults(); len(f) > 0 {
		t.Error(f)
	}
	// A piece cut off is a sheet of its own.
	cut := run(t, "sheet rect 216 279\ncut along par(bottom,216,T) removing T")
	if cut.Err != nil || len(cut.Final().Removed) != 1 {
		t.Fatal(cut.Err)
	}
	left, err := sheet.Leftover(cut.Final().Removed[0], 80, 0.1)
	if err != nil {
		t.Fatal(err)
	}
	p, err := ways.Parse("t", "sheet strip 216 63\nvalley bring left to right as f\nexpect TL at TR within 0.001")
	if err != nil {
		t.Fatal(err)
	}
	if r := p.Run(left, nil); r.Err != nil {
		t.Error(r.Err)
	}
}

// Optional steps can be left out; the others keep their numbers.
func TestOptionalStepsCanBeLeftOut(t *testing.T) {
	p, err := ways.Parse("t", "sheet square 100\nvalley along par(top,5,C) moving T optional as hem\nvalley bring left to right as f")
	if err != nil {
		t.Fatal(err)
	}
	s, _ := sheet.New(100, 100, 80, 0.1)
	all, short := p.Run(s, nil), p.RunEssential(s, nil)
	if all.Err != nil || short.Err != nil || len(short.Steps) != 2 || !short.Steps[0].Skipped || short.Steps[1].No != 2 {
		t.Fatalf("%v, %v, %d steps", all.Err, short.Err, len(short.Steps))
	}
	if len(short.Final().F) != 2 || len(all.Final().F) <= 2 {
		t.Errorf("%d pieces with the hem, %d without", len(all.Final().F), len(short.Final().F))
	}
}
