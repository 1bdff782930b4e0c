package shadow_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"tussock/internal/fold"
	"tussock/internal/fold/shadow"
	"tussock/internal/geom"
	"tussock/internal/sheet"
)

// off puts given errors on lines, in their order, and pushes layers out by creep.
type off struct {
	slips [][2]float64
	creep float64
}

func (o off) Slip(n int) (a, b float64) {
	if n < len(o.slips) {
		return o.slips[n][0], o.slips[n][1]
	}
	return 0, 0
}

func (o off) Creep(*fold.State, fold.Hinge) float64 { return o.creep }

const side = 100.0

func start(t *testing.T) *fold.State {
	t.Helper()
	s, err := sheet.New(side, side, 80, 0.1)
	if err != nil {
		t.Fatal(err)
	}
	return fold.Start(s)
}

// book folds everything on the positive side of a line over.
func book(t *testing.T, s *fold.State, l geom.Line, id fold.CreaseID) fold.Move {
	t.Helper()
	p, err := s.SimpleFold(fold.Selection{Line: l, Side: 1, Sense: fold.ValleySense}, id)
	if err != nil {
		t.Fatal(err)
	}
	after, err := s.Apply(p)
	if err != nil {
		t.Fatal(err)
	}
	return fold.Move{Before: s, After: after, Lines: []geom.Line{l}}
}

func upright(x float64) geom.Line { return geom.Line{N: geom.Vec{X: 1}, D: x} }
func level(y float64) geom.Line   { return geom.Line{N: geom.Vec{Y: 1}, D: y} }

// at is where a spot of the sheet comes to lie, in the exact toy and in the other.
func at(t *testing.T, s *fold.State, toy *shadow.Toy, sheet geom.Vec) (exact, real geom.Vec) {
	t.Helper()
	f := s.FacetsAtSheet(sheet)
	if len(f) == 0 {
		t.Fatalf("no paper at %v", sheet)
	}
	return s.F[f[0]].Iso.Apply(sheet), toy.Iso[f[0]].Apply(sheet)
}

// Without errors the other toy is the exact one, fold after fold.
func TestWithoutErrorsItIsTheToy(t *testing.T) {
	s := start(t)
	toy := shadow.New(s, off{})
	random := rand.New(rand.NewPCG(7, 1))
	for id := fold.CreaseID(1); id <= 6; id++ {
		box := s.Box()
		angle := random.Float64() * math.Pi
		l := geom.LineAt(box.Centre(), geom.Vec{X: math.Cos(angle), Y: math.Sin(angle)})
		m := book(t, s, l, id)
		toy.Follow(m, m.Lines)
		s = m.After
		for i, f := range s.F {
			if !f.Iso.Near(toy.Iso[i], 1e-9) {
				t.Fatalf("after fold %d piece %d lies %+v, not %+v", id, i, toy.Iso[i], f.Iso)
			}
		}
	}
	if toy.Worst > 1e-9 || toy.Lines != 6 {
		t.Errorf("worst %v, %d lines", toy.Worst, toy.Lines)
	}
}

// A line 1 mm off along its whole length moves what it carries by 2 mm; one that is off at
// one end alone turns it by twice its own angle.
func TestSlipsByHand(t *testing.T) {
	s := start(t)
	m := book(t, s, upright(50), 1)
	corner := geom.Vec{X: side, Y: side}

	toy := shadow.New(s, off{slips: [][2]float64{{1, 1}}})
	toy.Follow(m, m.Lines)
	exact, real := at(t, m.After, toy, corner)
	if d := real.Sub(exact); math.Abs(math.Abs(d.X)-2) > 1e-9 || math.Abs(d.Y) > 1e-9 {
		t.Errorf("1 mm off moves the corner by %+v", d)
	}

	toy = shadow.New(s, off{slips: [][2]float64{{1, -1}}})
	toy.Follow(m, m.Lines)
	exact, real = at(t, m.After, toy, corner)
	// The line turns about the middle by atan(1/50), so the flap by twice that.
	if turned, want := exact.Dist(real)/exact.Dist(geom.Vec{X: 50, Y: 50}), 2*math.Sin(math.Atan(1.0/50)); math.Abs(turned-want) > 1e-9 {
		t.Errorf("the flap turned by %v, not %v", turned, want)
	}
}

// An early error is carried along: a second, exact fold of both layers reflects it, and two
// errors add up as far as they are small.
func TestErrorsAreCarriedAlong(t *testing.T) {
	s := start(t)
	first := book(t, s, upright(50), 1)
	second := book(t, first.After, level(50), 2)
	corner := geom.Vec{X: side, Y: side}
	moved := func(o off) geom.Vec {
		toy := shadow.New(s, o)
		toy.Follow(first, first.Lines)
		toy.Follow(second, second.Lines)
		exact, real := at(t, second.After, toy, corner)
		if toy.Worst > 1e-9 {
			t.Errorf("%+v: the paper must give %v mm", o, toy.Worst)
		}
		return real.Sub(exact)
	}
	early, late := moved(off{slips: [][2]float64{{0.5, 0.5}}}), moved(off{slips: [][2]float64{{0, 0}, {0.5, 0.5}}})
	if math.Abs(math.Hypot(early.X, early.Y)-1) > 0.02 || math.Abs(math.Hypot(late.X, late.Y)-1) > 0.02 {
		t.Errorf("half a millimetre moves the corner by %+v early and %+v late", early, late)
	}
	both := moved(off{slips: [][2]float64{{0.5, 0.5}, {0.5, 0.5}}})
	if d := both.Sub(early.Add(late)); math.Hypot(d.X, d.Y) > 0.02 {
		t.Errorf("both: %+v, the sum %+v", both, early.Add(late))
	}
	twice := moved(off{slips: [][2]float64{{1, 1}}})
	if d := twice.Sub(early.Scale(2)); math.Hypot(d.X, d.Y) > 0.02 {
		t.Errorf("twice the error: %+v, twice the move %+v", twice, early.Scale(2))
	}
}

// Thickness moves the line into what moves, so the flap falls short by twice that; what it
// asks for is kept.
func TestCreepFallsShort(t *testing.T) {
	s := start(t)
	m := book(t, s, upright(50), 1)
	toy := shadow.New(s, off{creep: 0.3})
	toy.Follow(m, m.Lines)
	exact, real := at(t, m.After, toy, geom.Vec{X: side, Y: 40})
	if d := real.X - exact.X; math.Abs(d-0.6) > 1e-9 { // the edge should have reached x = 0
		t.Errorf("the edge lies at %v instead of %v", real.X, exact.X)
	}
	if len(toy.Gaps) != 1 || math.Abs(toy.Gaps[0]-0.6) > 1e-12 {
		t.Errorf("gaps %v", toy.Gaps)
	}
	// A motion in which nothing is creased by hand takes no error.
	loose := m
	loose.Loose = true
	free := shadow.New(s, off{slips: [][2]float64{{5, 5}}})
	free.Follow(loose, loose.Lines)
	if exact, real := at(t, m.After, free, geom.Vec{X: side, Y: 40}); exact.Dist(real) > 1e-9 || free.Lines != 0 {
		t.Errorf("a loose motion moved it to %+v from %+v", real, exact)
	}
}
