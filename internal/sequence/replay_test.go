package sequence_test

import (
	"math"
	"os"
	"strings"
	"testing"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/sequence"
	"tussock/internal/sequence/remarks"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/ways"
)

func a4(t testing.TB) sheet.Sheet {
	t.Helper()
	s, err := sheet.New(210, 297, 80, 0.1)
	if err != nil {
		t.Fatal(err)
	}
	return s
}

func run(t *testing.T, text string) *sequence.Replay {
	t.Helper()
	p, err := ways.Parse("t", text)
	if err != nil {
		t.Fatal(err)
	}
	s, err := sheet.New(p.WidthMM, p.HeightMM, 80, 0.1)
	if err != nil {
		t.Fatal(err)
	}
	return p.Run(s, nil)
}

// Every way of placing a crease, on a 100 square, with a landing known by hand.
func TestAlignments(t *testing.T) {
	for _, c := range []struct {
		name, fold, point string
		x, y              float64
	}{
		{"corner to corner", "valley bring TL to BR", "TL", 100, 0},
		{"corner to middle", "valley bring TL to C", "TL", 50, 50},
		{"edge to edge", "valley bring left to right", "TL", 100, 100},
		{"edge to crease", "crease bring left to right as k\nvalley bring left to k", "TL", 50, 100},
		{"edge to line by landmarks", "valley bring [TL TR] to [L R]", "TR", 100, 50},
		{"corner to line through a point", "crease bring left to right as k\nvalley bring TL to k through BL near T", "TL", 50, math.Sqrt(7500)},
		{"through two points", "valley through L T moving TL", "TL", 50, 50},
		{"perpendicular", "valley through part(BL,TL,0.75) square left moving TL", "TL", 0, 50},
		{"parallel at a distance", "valley along par(left,20,TR) moving TL", "TL", 40, 100},
		{"along a bisector", "valley along bis(left,bottom) moving TL", "TL", 100, 0},
		{"toward by a length", "point P = toward(TL,TR,30)\nvalley bring TL to P", "TL", 30, 100},
		{"foot of a point", "point F = foot(C,[BL BR])\nvalley bring T to F", "T", 50, 0},
		{"with offset", "valley bring left to right offset 5 toward BL", "TL", 90, 100},
		{"mountain", "mountain bring TL to BR", "TL", 100, 0},
		{"two moving edges of a crease", "crease through BL TR\ncrease through BR TL\nvalley bring TL to C", "TL", 50, 50},
		{"turned over", "turn lr", "TL", 100, 100},
		{"turned head over", "turn tb", "TL", 0, 0},
		{"rotated", "rotate 90", "TL", 0, 0},
	} {
		r := run(t, "sheet square 100\n"+c.fold)
		if r.Err != nil {
			t.Errorf("%s: %v", c.name, r.Err)
			continue
		}
		at, ok := sequence.Place(r.Final(), r.Landmarks[c.point])
		if !ok || math.Hypot(at.X-c.x, at.Y-c.y) > 1e-9 {
			t.Errorf("%s: %s lies at %v, want %v, %v", c.name, c.point, at, c.x, c.y)
		}
		if f := r.Final().Faults(); len(f) > 0 {
			t.Errorf("%s: %v", c.name, f)
		}
	}
}

// A tilt turns the line about the pivot towards the landmark, on both sides.
func TestTiltIsMirrored(t *testing.T) {
	left := run(t, "sheet square 100\nvalley along par([B T],10,BL) tilt 5 toward BL about T moving BL as w")
	right := run(t, "sheet square 100\nvalley along par([B T],10,BR) tilt 5 toward BR about T moving BR as w")
	if left.Err != nil || right.Err != nil {
		t.Fatal(left.Err, right.Err)
	}
	a, _ := sequence.Place(left.Final(), left.Landmarks["BL"])
	b, _ := sequence.Place(right.Final(), right.Landmarks["BR"])
	if math.Abs(a.X-(100-b.X)) > 1e-9 || math.Abs(a.Y-b.Y) > 1e-9 {
		t.Errorf("left lands at %v, right at %v", a, b)
	}
	plain := run(t, "sheet square 100\nvalley along par([B T],10,BL) moving BL as w")
	c, _ := sequence.Place(plain.Final(), plain.Landmarks["BL"])
	// The line now leans outward at the tail: the corner is folded less far in.
	if !(a.X < c.X) {
		t.Errorf("a tilt toward the corner folds it to %v, without to %v", a, c)
	}
}

// Exchanging left and right in a pattern gives the mirror image of the toy.
func TestMirrorSymmetry(t *testing.T) {
	text, err := os.ReadFile("testdata/lock.pattern")
	if err != nil {
		t.Fatal(err)
	}
	swap := strings.NewReplacer("TL", "TR", "TR", "TL", "BL", "BR", "BR", "BL", "SL", "SR", "SR", "SL",
		"Q1", "Q2", "Q2", "Q1", "[L ", "[R ", "[R ", "[L ", "left to right", "right to left")
	// Point names keep their lines; only what they refer to is exchanged.
	a, b := run(t, string(text)), run(t, swap.Replace(string(text)))
	if a.Err != nil || b.Err != nil {
		t.Fatal(a.Err, b.Err)
	}
	for i := range a.Steps {
		x, y := body.Measure(a.Steps[i].After), body.Measure(b.Steps[i].After)
		if math.Abs(x.CoM.X+y.CoM.X-210) > 1e-9 || math.Abs(x.CoM.Y-y.CoM.Y) > 1e-9 || math.Abs(x.AreaMM2-y.AreaMM2) > 1e-6 {
			t.Errorf("step %d: centre of mass %v and %v are no mirror images", i+1, x.CoM, y.CoM)
		}
	}
}

func TestReplayIsDeterministic(t *testing.T) {
	p, _ := shelf.Find("shelduck")
	first := p.Run(a4(t), nil).Final()
	for range 20 {
		again := p.Run(a4(t), nil).Final()
		for i := range first.F {
			if first.F[i].Iso != again.F[i].Iso || len(first.F[i].Poly) != len(again.F[i].Poly) {
				t.Fatalf("piece %d differs between two replays", i)
			}
		}
	}
}

func TestFailuresSpeakOfLandmarks(t *testing.T) {
	curlew, _ := shelf.Find("curlew")
	shelduck, _ := shelf.Find("shelduck")
	for _, c := range []struct {
		name   string
		r      *sequence.Replay
		step   int
		code   fold.Code
		detail string
	}{
		{"too wide a nose", curlew.Run(a4(t), map[string]float64{"nose": 70}), 2, fold.CodeNoLine, "the top left corner cannot reach the centre crease"},
		{"keel line beside the paper", curlew.Run(a4(t), map[string]float64{"depth": 60}), 7, fold.CodeMissesLine, "nothing would stay behind"},
		{"wing line through the keel", curlew.Run(a4(t), map[string]float64{"depth": -10}), 7, fold.CodeExpect, "8 pieces of paper instead of 4"},
		{"knob out of range", curlew.Run(a4(t), map[string]float64{"wing": 400}), 0, fold.CodeKnob, "must be 0 to 180°"},
		{"unknown knob", curlew.Run(a4(t), map[string]float64{"tail": 4}), 0, fold.CodeKnob, `no knob called "tail"`},
		{"not a number", curlew.Run(a4(t), map[string]float64{"wing": math.NaN()}), 0, fold.CodeKnob, "Wing angle is NaN"},
		{"wrong proportions", shelduck.Run(sheet.Sheet{WidthMM: 60, HeightMM: 300, GSM: 80, ThicknessMM: 0.1}, nil), 0, fold.CodeRequire, "between 1.2 and 1.6 times as high as wide"},
		{"bent line", run(t, "sheet square 100\ncrease bring left to right as k\nvalley bring BL to TR\nvalley along k moving TL"), 3, fold.CodeBent, "bent by an earlier fold"},
		{"off the paper", run(t, "sheet rect 100 50\ncrease bring bottom to top\npoint P = meet(bis(left,bottom),right)"), 1, fold.CodeOffPaper, "falls off the paper"},
		{"already there", run(t, "sheet square 100\nvalley bring TL to TL"), 1, fold.CodeNoLine, "lies on the top left corner already"},
		{"check fails", run(t, "sheet square 100\nvalley bring TL to C\nexpect TL at B within 0.1"), 1, fold.CodeCheck, "should now lie at the middle of the bottom edge and is ⟨50|mm|1⟩ away"},
		{"count fails", run(t, "sheet square 100\nvalley bring TL to C\nexpect facets 3"), 1, fold.CodeCheck, "3 pieces, and divide it into 2"},
	} {
		if c.r.Err == nil {
			t.Errorf("%s is folded without complaint", c.name)
			continue
		}
		if e := fold.As(c.r.Err); e.Step != c.step || e.Code != c.code || !strings.Contains(e.Detail, c.detail) {
			t.Errorf("%s: step %d %s %q; want step %d %s %q", c.name, e.Step, e.Code, e.Detail, c.step, c.code, c.detail)
		}
		if c.r.Final() == nil {
			t.Errorf("%s: no good state is left to show", c.name)
		}
	}
}

// What Advise offers must work, and just beyond it must not.
func TestAdviceIsTrue(t *testing.T) {
	p, _ := shelf.Find("curlew")
	for _, knobs := range []map[string]float64{{"nose": 70}, {"depth": 40}, {"depth": -20, "wing": 80}, {"slope": 12}} {
		s := a4(t)
		advice := remarks.Advise(p, s, knobs)
		if len(advice) != 1 || advice[0].Knob == "" {
			t.Errorf("%v: advice is %+v", knobs, advice)
			continue
		}
		a := advice[0]
		k := p.Knobs[p.KnobIndex(a.Knob)]
		try := func(v float64) bool {
			with := map[string]float64{}
			for n, x := range knobs {
				with[n] = x
			}
			with[a.Knob] = v
			return p.Run(s, with).Err == nil
		}
		for _, v := range []float64{a.Min, a.Max, a.Fix, (a.Min + a.Max) / 2} {
			if !try(v) {
				t.Errorf("%v: %s = %v is advised and does not work", knobs, a.Knob, v)
			}
		}
		if a.Max < k.Max && try(a.Max+0.15) || a.Min > k.Min && try(a.Min-0.15) {
			t.Errorf("%v: %s works beyond %v to %v", knobs, a.Knob, a.Min, a.Max)
		}
	}
	// By hand: the corner reaches the middle when the crease starts at most a quarter of the
	// width from it; before that the wing line crosses the keel.
	if a := remarks.Advise(p, a4(t), map[string]float64{"nose": 70})[0]; a.Max < 40 || a.Max > 52.5 {
		t.Errorf("nose works up to %v, by hand at most 52.5", a.Max)
	}
	shelduck, _ := shelf.Find("shelduck")
	square, _ := sheet.New(200, 200, 80, 0.1)
	a := remarks.Advise(shelduck, square, nil)
	if len(a) != 1 || a[0].Knob != "" || a[0].Min != 240 || a[0].Max != 320 {
		t.Errorf("on a square of 200 the advice is %+v, want heights 240 to 320", a)
	}
	if a := remarks.Advise(p, a4(t), nil); a != nil {
		t.Errorf("advice without need: %+v", a)
	}
}

func BenchmarkReplayGlider(b *testing.B) {
	text, err := os.ReadFile("testdata/pointed.pattern")
	if err != nil {
		b.Fatal(err)
	}
	s := a4(b)
	b.ReportAllocs()
	for b.Loop() {
		p, err := ways.Parse("pointed.pattern", string(text))
		if err != nil {
			b.Fatal(err)
		}
		if r := p.Run(s, nil); r.Err != nil {
			b.Fatal(r.Err)
		}
	}
}

func BenchmarkReplayLock(b *testing.B) {
	p, _ := shelf.Find("shelduck")
	s := a4(b)
	b.ReportAllocs()
	for b.Loop() {
		if r := p.Run(s, nil); r.Err != nil {
			b.Fatal(r.Err)
		}
	}
}

func BenchmarkReplayBird(b *testing.B) {
	text, err := os.ReadFile("testdata/bird.pattern")
	if err != nil {
		b.Fatal(err)
	}
	s, err := sheet.New(150, 150, 80, 0.1)
	if err != nil {
		b.Fatal(err)
	}
	b.ReportAllocs()
	for b.Loop() {
		p, err := ways.Parse("bird.pattern", string(text))
		if err != nil {
			b.Fatal(err)
		}
		if r := p.Run(s, nil); r.Err != nil {
			b.Fatal(r.Err)
		}
	}
}

// An edit at the last fold of the bird replays from there.
func BenchmarkEditOfBird(b *testing.B) {
	text, err := os.ReadFile("testdata/bird.pattern")
	if err != nil {
		b.Fatal(err)
	}
	s, err := sheet.New(150, 150, 80, 0.1)
	if err != nil {
		b.Fatal(err)
	}
	old, err := ways.Parse("bird.pattern", string(text))
	if err != nil {
		b.Fatal(err)
	}
	prev := old.Run(s, nil)
	p, err := ways.Parse("bird.pattern", strings.Replace(string(text), "bring BL to WA grab BL as wingA", "bring BL to WA grab BL", 1))
	if err != nil {
		b.Fatal(err)
	}
	b.ReportAllocs()
	for b.Loop() {
		if r := p.Rerun(prev, s, nil); r.Err != nil || r.Resumed != 16 {
			b.Fatal(r.Err, r.Resumed)
		}
	}
}
