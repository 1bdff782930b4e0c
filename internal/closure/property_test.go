package closure_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"tussock/internal/closure"
	"tussock/internal/fold"
	"tussock/internal/foldtest"
	"tussock/internal/geom"
)

// pitted is a random vertex that folds flat: sectors in which alternate ones add up to 180.
func pitted(r *rand.Rand, n int) []float64 {
	for {
		out := make([]float64, n)
		var odd, even float64
		for i := range out {
			out[i] = 25 + 90*r.Float64()
			if i%2 == 0 {
				even += out[i]
			} else {
				odd += out[i]
			}
		}
		ok := true
		for i := range out {
			if i%2 == 0 {
				out[i] *= 180 / even
			} else {
				out[i] *= 180 / odd
			}
			ok = ok && out[i] > 15 && out[i] < 150
		}
		if ok {
			return out
		}
	}
}

// flatOrNone folds a vertex flat with random senses that obey the count of Maekawa.
func flatOrNone(r *rand.Rand, s *fold.State) (*fold.State, bool) {
	n := len(s.H)
	for range 40 {
		mv, sum := make([]fold.Assignment, n), 0
		for i := range mv {
			mv[i] = fold.Mountain
			if r.IntN(2) == 0 {
				mv[i] = fold.Valley
			}
			sum += int(mv[i])
		}
		if sum != 2 && sum != -2 {
			continue
		}
		if flat, err := s.Flattened(func(i int, _ fold.Hinge) (fold.Assignment, bool) { return mv[i], false }); err == nil {
			return flat, true
		}
	}
	return nil, false
}

// Random vertices of four and six creases, opened from flat-folded: each closes to less
// than a hundredth of a millimetre all the way, or says that it is locked or stuck; four
// creases obey the half-angle law in one of its two forms.
func TestRandomVerticesOpen(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 14))
	sound := map[int]int{}
	tried := map[int]int{}
	for range 60 {
		n := 4 + 2*r.IntN(2)
		sectors := pitted(r, n)
		flat, ok := flatOrNone(r, star(t, sectors...))
		if !ok {
			continue
		}
		tried[n]++
		m := closure.Of(flat)
		lead := int32(r.IntN(n))
		mo := m.Move(closure.Ask{Drives: []closure.Drive{{Hinge: lead, Want: math.Copysign(geom.Rad(90), m.Flat()[lead])}}}, 12)
		for _, f := range mo.Frames {
			if f.GapMM > closure.SaidMM {
				t.Errorf("%v: gap %g mm and %s", sectors, f.GapMM, mo.State)
			}
		}
		if mo.State == closure.Stuck || mo.State == closure.Locked {
			continue
		}
		sound[n]++
		if n != 4 {
			continue
		}
		half := func(i int) float64 { return math.Tan(mo.Last().Rho[i] / 2) }
		p, q := geom.Rad(sectors[0]+sectors[1])/2, geom.Rad(sectors[0]-sectors[1])/2
		first, second := math.Abs(math.Cos(p)/math.Cos(q)), math.Abs(math.Sin(p)/math.Sin(q))
		got := math.Abs(half(1) / half(0))
		if math.Abs(got-first) > 1e-6*first && math.Abs(got-second) > 1e-6*second {
			t.Errorf("%v: ratio %v, the law says %v or %v", sectors, got, first, second)
		}
	}
	for n, k := range tried {
		if k < 10 || sound[n] < k*3/4 {
			t.Errorf("%d creases: %d of %d opened", n, sound[n], k)
		}
	}
}

// The mirror image of a vertex moves as its mirror image: mountains stay mountains.
func TestMirrorImageMovesAlike(t *testing.T) {
	sectors := []float64{50, 80, 130, 100}
	mirrored := []float64{100, 130, 80, 50}
	a := closure.Of(star(t, sectors...)).Move(closure.Ask{Drives: []closure.Drive{drive(0, 75)}, Sense: senses("MVMM")}, 6)
	b := closure.Of(star(t, mirrored...)).Move(closure.Ask{Drives: []closure.Drive{drive(0, 75)}, Sense: senses("MMMV")}, 6)
	for i, k := range []int{0, 3, 2, 1} {
		near(t, "mirrored", b.Last().Rho[k], a.Last().Rho[i], 1e-9)
	}
}

// Random lines across a folded flap, reversed and then opened again like a book.
func TestRandomReverseFoldsOpen(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 5))
	opened := 0
	for range 12 {
		at, e := 0.2+0.5*r.Float64(), 0.2+0.5*r.Float64()
		text := "sheet square 100\nparam at = " + num(at) + "\nparam e = " + num(e) +
			"\nvalley bring TR to BL as d\npoint A = part(TL,BR,at)\npoint E = part(TL,BL,e)\nreverse inside TL through A E spine TL BR"
		toTip := geom.Vec{X: -1, Y: 1}
		crease := geom.Vec{Y: 100 * (1 - e)}.Sub(geom.Vec{X: 100 * at, Y: 100 * (1 - at)})
		slant := geom.Deg(math.Acos(toTip.Unit().Dot(crease.Unit())))
		p := foldtest.Parse(t, text)
		replay := foldtest.On(t, p, 100, 100, nil)
		s := replay.Final()
		m := closure.Of(s)
		spine := m.On(geom.LineAt(geom.Vec{Y: 100}, geom.Vec{X: 1, Y: -1}))
		if len(spine) == 0 {
			t.Fatal("no spine")
		}
		mo := m.Move(closure.Ask{Drives: []closure.Drive{{Hinge: spine[0], Want: math.Copysign(geom.Rad(60), m.Flat()[spine[0]])}}}, 10)
		if mo.State != closure.Sound {
			continue
		}
		opened++
		sound(t, mo.Last())
		law := 2 * math.Atan(math.Tan(geom.Rad(30))/math.Abs(math.Cos(geom.Rad(slant))))
		found := false
		for _, rho := range mo.Last().Rho {
			found = found || math.Abs(math.Abs(rho)-law) < 1e-6
		}
		if !found {
			t.Errorf("slant %v: no crease at %v°: %v", slant, geom.Deg(law), deg(mo.Last().Rho))
		}
		// Mass stays: every piece keeps its size, wherever it goes.
		for i, f := range s.F {
			p, q := f.Poly[0], f.Poly[1]
			a := mo.Last().At[i].Apply(geom.Vec3{X: p.X, Y: p.Y}).Dist(mo.Last().At[i].Apply(geom.Vec3{X: q.X, Y: q.Y}))
			near(t, "side", a, p.Dist(q), 1e-9)
		}
	}
	if opened < 10 {
		t.Errorf("%d of 12 opened", opened)
	}
}

// Two flaps folded into the same room pass through each other, and are said to.
func TestCrossingIsSaid(t *testing.T) {
	r := foldtest.Fold(t, "sheet strip 150 50\ncrease through sheet(50,0) sheet(50,50)\ncrease through sheet(100,0) sheet(100,50)")
	m := closure.Of(r.Final())
	mo := m.Move(closure.Ask{Drives: []closure.Drive{drive(0, 100), drive(1, 100)}}, 6)
	if mo.State != closure.Sound {
		t.Fatalf("at 100°: %s", mo.State)
	}
	mo = m.Move(closure.Ask{Drives: []closure.Drive{drive(0, 135), drive(1, 135)}}, 6)
	if mo.State != closure.Crosses || len(mo.Last().Crossing) != 1 {
		t.Errorf("at 135°: %s, %v", mo.State, mo.Last().Crossing)
	}
}
