package closure_test

import (
	"math"
	"os"
	"path/filepath"
	"slices"
	"testing"

	"tussock/internal/closure"
	"tussock/internal/fold"
	"tussock/internal/foldtest"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// The spine of an inside reverse fold and its new creases: the tangents of half their
// angles are as one to the cosine of the angle between them.
func TestInsideReverse(t *testing.T) {
	const sector = 128.659808
	s := star(t, sector, 180-sector, 180-sector, sector)
	flat, err := s.Flattened(func(i int, _ fold.Hinge) (fold.Assignment, bool) {
		return fold.Assignment(senses("MMVM")[int32(i)]), false
	})
	if err != nil {
		t.Fatal(err)
	}
	m := closure.Of(flat)
	for _, c := range []struct{ body, crease float64 }{{30, 46.431696}, {90, 116.014366}, {150, 160.995104}} {
		mo := m.Move(closure.Ask{Drives: []closure.Drive{drive(0, c.body)}}, 10)
		if mo.State != closure.Sound {
			t.Fatalf("%v: %s at %v", c.body, mo.State, mo.Part)
		}
		sound(t, mo.Last())
		near(t, "new crease", math.Abs(geom.Deg(mo.Last().Rho[1])), c.crease, 1e-5)
	}
}

// undoing asks for the way back of a step: the creases that it made or changed move, and
// home is the pose before it.
func undoing(r *sequence.Replay) (s *fold.State, a closure.Ask) {
	d := r.Steps[len(r.Steps)-1]
	before, movers := make([]float64, len(d.After.H)), map[int]bool{}
	for i, h := range d.After.H {
		if h.Parent >= 0 {
			before[i] = math.Pi * float64(d.Before.Assigned(d.Before.H[h.Parent]))
		}
		if before[i] != math.Pi*float64(d.After.Assigned(h)) {
			movers[i] = true
		}
	}
	return d.After, closure.Ask{Movers: func(i int) bool { return movers[i] }, Home: closure.Towards, Target: before}
}

// hingeAt is the hinge whose middle lies nearest to a spot of the sheet.
func hingeAt(s *fold.State, x, y float64) int32 {
	best := 0
	for i, h := range s.H {
		if geom.Mid(h.P, h.Q).Dist(geom.Vec{X: x, Y: y}) < geom.Mid(s.H[best].P, s.H[best].Q).Dist(geom.Vec{X: x, Y: y}) {
			best = i
		}
	}
	return int32(best)
}

func TestHalfwayThroughAStep(t *testing.T) {
	type at struct{ x, y, deg float64 }
	for _, c := range []struct {
		name, text string
		lead       at
		want       []at
	}{
		{"squash 45", "sheet square 150\nuse preliminary\nsquash spine C B onto [C BL]", at{75, 37, 45},
			[]at{{37, 37, -135}, {90, 37, 131.70265}, {60, 37, 131.70265}}},
		{"squash 90", "sheet square 150\nuse preliminary\nsquash spine C B onto [C BL]", at{75, 37, 90},
			[]at{{37, 37, -90}, {90, 37, 85.468419}, {60, 37, 85.468419}}},
		{"petal", "sheet square 150\nuse preliminary\npetal BL creases bis([BL B],[BL C]) bis([BL L],[BL C]) spines [C B] [C L]", at{75, 15, 90},
			[]at{{15, 75, 90}, {42, 64, -90}, {64, 42, -90}, {112, 15, 41.882041}, {37, 15, 41.882041}, {15, 112, 41.882041}, {15, 37, 41.882041}}},
		{"rabbit", "sheet polygon 0 0 150 0 60 130\nrabbit P1 P2 P3 fixed part(C,P3,0.5)", at{34, 21, -90},
			[]at{{108, 21, -90}, {64, 86, -53.356395}, {67.5, 21, 53.356395}}},
	} {
		s, a := undoing(foldtest.Fold(t, c.text))
		m := closure.Of(s)
		a.Drives = []closure.Drive{drive(hingeAt(s, c.lead.x, c.lead.y), c.lead.deg)}
		mo := m.Move(a, 6)
		if mo.State != closure.Sound {
			t.Errorf("%s: %s at %v", c.name, mo.State, mo.Part)
			continue
		}
		sound(t, mo.Last())
		for _, w := range c.want {
			near(t, c.name, geom.Deg(mo.Last().Rho[hingeAt(s, w.x, w.y)]), w.deg, 1e-5)
		}
	}
}

// A band of three layers with a notch that is pushed in, opened like a book: one piece of
// its spine takes all others along, and every fold of the notch follows the law of the
// inside reverse fold.
func TestTokenOpensLikeABook(t *testing.T) {
	p := foldtest.Toy(t, "hanging-token")
	for _, size := range [][2]float64{{215.9, 279.4}, {210, 297}, {150, 200}} {
		r := foldtest.On(t, p, size[0], size[1], map[string]float64{"notch": size[0] / 7, "pin": size[0] / 6})
		s := r.Final()
		m := closure.Of(s)
		x := size[0] / 2
		spine := m.On(geom.LineAt(geom.Vec{X: x}, geom.Vec{Y: 1}))
		if len(spine) != 3 {
			t.Fatalf("%d spine pieces", len(spine))
		}
		law := 2 * math.Atan(math.Tan(geom.Rad(15))/math.Cos(math.Atan2(1./7, 1./6)))
		for _, lead := range spine {
			want := geom.Rad(30) * math.Copysign(1, m.Flat()[lead])
			mo := m.Move(closure.Ask{Drives: []closure.Drive{{Hinge: lead, Want: want}}}, 10)
			if mo.State != closure.Sound {
				t.Errorf("lead %d: %s at %v, %d crossings", lead, mo.State, mo.Part, len(mo.Last().Crossing))
				continue
			}
			f := mo.Last()
			sound(t, f)
			notch, open := 0, 0
			for i, rho := range f.Rho {
				switch a := math.Abs(rho); {
				case math.Abs(a-law) < 1e-7:
					notch++
				case math.Abs(a-geom.Rad(30)) < 1e-7:
					open++
				case math.Abs(a-math.Abs(m.Flat()[i])) > 1e-7:
					t.Errorf("lead %d: hinge %d at %v", lead, i, geom.Deg(rho))
				}
			}
			if notch != 6 || open != 6 {
				t.Errorf("lead %d: %d folds of the notch, %d of the spine", lead, notch, open)
			}
		}
	}
}

// A fortune teller closes to four pockets, and opens one way; by spherical trigonometry.
func TestTellerOpensBothWays(t *testing.T) {
	r := foldtest.On(t, foldtest.Toy(t, "teller"), 160, 160, nil)
	s := r.Final()
	if len(s.F) != 32 { // 24, and the diagonals
		t.Fatalf("%d pieces", len(s.F))
	}
	m := closure.Of(s)
	half := []int32{hingeAt(s, 80, 100), hingeAt(s, 80, 60), hingeAt(s, 100, 80), hingeAt(s, 60, 80)}
	tip, pocket := hingeAt(s, 60, 60), hingeAt(s, 20, 120)
	var drives []closure.Drive
	for _, h := range half {
		drives = append(drives, drive(h, 180))
	}
	var must []int32
	for i, h := range s.H { // the outer creases of the first blintz
		mid := geom.Mid(h.P, h.Q)
		if m.Flat()[i] != 0 && (math.Abs(mid.X-20) < 3 || math.Abs(mid.X-140) < 3) && (math.Abs(mid.Y-39.7) < 1 || math.Abs(mid.Y-120.3) < 1) ||
			m.Flat()[i] != 0 && (math.Abs(mid.Y-20) < 3 || math.Abs(mid.Y-140) < 3) && (math.Abs(mid.X-39.7) < 1 || math.Abs(mid.X-120.3) < 1) {
			must = append(must, int32(i))
		}
	}
	if len(must) != 8 {
		t.Fatalf("%d pocket edges", len(must))
	}
	mo := m.Move(closure.Ask{Drives: drives, Must: must, Tied: true}, 10)
	if mo.State != closure.Sound {
		t.Fatalf("%s at %v", mo.State, mo.Part)
	}
	closed := mo.Last()
	sound(t, closed)
	near(t, "tips", math.Abs(geom.Deg(closed.Rho[tip])), 90, 1e-5)
	near(t, "pockets", math.Abs(geom.Deg(closed.Rho[pocket])), 70.528779, 1e-5)
	for _, c := range []struct{ gamma, delta, n, chi float64 }{{10, 100.155889, 28.431706, 99.602442}, {25, 117.794884, 73.406765, 80.941242}, {40, 147.045165, 130.745757, 45.399400}} {
		open := []closure.Drive{drive(half[0], 180), drive(half[1], 180), drive(half[2], 180-c.n), drive(half[3], 180-c.n)}
		mo := m.Move(closure.Ask{From: closed.Rho, Drives: open, Tied: true}, 10)
		if mo.State != closure.Sound {
			t.Errorf("γ %v: %s at %v", c.gamma, mo.State, mo.Part)
			continue
		}
		f := mo.Last()
		sound(t, f)
		near(t, "tips", math.Abs(geom.Deg(f.Rho[tip])), 180-c.delta, 1e-5)
		near(t, "pockets", math.Abs(geom.Deg(f.Rho[pocket])), 180-c.chi, 1e-5)
		// γ is what the design says: cos η = cos 45°/cos γ.
		if eta := geom.Deg(math.Acos(math.Cos(math.Pi/4) / math.Cos(geom.Rad(c.gamma)))); eta <= 0 || eta > 45 {
			t.Errorf("η %v", eta)
		}
	}
}

// Wings let down: the hinges named start and no others; the hump does not open rigidly.
func TestBird(t *testing.T) {
	r := foldtest.On(t, foldtest.Toy(t, "bird"), 150, 150, nil)
	s := r.Final()
	if len(s.F) != 40 {
		t.Fatalf("%d pieces", len(s.F))
	}
	m := closure.Of(s)
	var drives []closure.Drive
	for _, o := range r.Openings {
		for i, h := range s.H {
			if m.Flat()[i] != 0 && h.Along(o.Pieces...) {
				drives = append(drives, closure.Drive{Hinge: int32(i), Want: math.Copysign(geom.Rad(100), m.Flat()[i])})
			}
		}
	}
	mo := m.Move(closure.Ask{Drives: drives}, 20)
	sound(t, mo.Last())
	moved := 0
	for i, rho := range mo.Last().Rho {
		if math.Abs(rho-m.Flat()[i]) > 1e-9 {
			moved++
		}
	}
	if mo.State != closure.Sound || moved != 8 || len(drives) != 8 {
		t.Errorf("%s, %d of %d moved", mo.State, moved, len(drives))
	}
	// The hump pulled apart as one stiff mechanism: no way that keeps the layers in order.
	var hump []closure.Drive
	for _, h := range []int32{hingeAt(s, 62, 88), hingeAt(s, 88, 62)} {
		hump = append(hump, closure.Drive{Hinge: h, Want: math.Copysign(geom.Rad(170), m.Flat()[h])})
	}
	stiff := func(i int) bool { return m.Flat()[i] != 0 } // wings that do not bend along their middle
	if mo := m.Move(closure.Ask{Drives: hump, Movers: stiff}, 5); mo.State == closure.Sound {
		t.Error("the finished bird opens its hump rigidly")
	}
}

// Whatever a toy of the shelf opens, exactly that starts and the order is kept.
func TestShelfOpensWhatItNames(t *testing.T) {
	files, err := filepath.Glob("../shelf/*.pattern")
	if err != nil || len(files) < 10 {
		t.Fatal(err, len(files))
	}
	tried := 0
	for _, file := range files {
		text, err := os.ReadFile(file)
		if err != nil {
			t.Fatal(err)
		}
		r := foldtest.Fold(t, string(text))
		// What opens about creases that are not folded yet is posed with the toys of package body.
		fresh := slices.ContainsFunc(r.Openings, func(o sequence.Opening) bool { return o.Fresh != 0 })
		if len(r.Openings) == 0 || len(r.Bends) > 0 || fresh {
			continue
		}
		tried++
		s := r.Final()
		m := closure.Of(s)
		var drives []closure.Drive
		for _, o := range r.Openings {
			for i, h := range s.H {
				if m.Flat()[i] != 0 && h.Along(o.Pieces...) && math.Abs(m.Flat()[i])-geom.Rad(o.AngleDeg) > 1e-9 {
					drives = append(drives, closure.Drive{Hinge: int32(i), Want: math.Copysign(geom.Rad(o.AngleDeg), m.Flat()[i])})
				}
			}
		}
		ways := m.Ways(closure.Ask{Drives: drives})
		// A notch in the spine of a book opens with it: all of its folds start as well.
		carries := slices.ContainsFunc(r.Steps, func(d sequence.Done) bool { return d.Op == sequence.OpReverse }) && r.Pattern.Moves == "spin"
		if len(ways) > 0 && carries && ways[0].Movers > len(drives) {
			ways[0].Movers = len(drives)
		}
		if len(ways) == 0 || ways[0].Movers != len(drives) || ways[0].AgainstOrder > 1e-6 {
			t.Errorf("%s: %d ways for %d drives", filepath.Base(file), len(ways), len(drives))
			continue
		}
		mo := m.Follow(closure.Ask{Drives: drives}, ways[0], 10)
		if f := mo.Last(); f.GapMM > 2e-10 || mo.State != closure.Sound {
			t.Errorf("%s: %s, gap %g, %d crossings", filepath.Base(file), mo.State, f.GapMM, len(f.Crossing))
		}
	}
	if tried < 7 {
		t.Errorf("only %d toys tried", tried)
	}
}
