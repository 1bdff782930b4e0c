package fold_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"tussock/internal/fold"
	"tussock/internal/geom"
)

// someFolds is a square after up to n random simple folds, and every state on
// the way.
func someFolds(t *testing.T, r *rand.Rand, n int) []*fold.State {
	t.Helper()
	all := []*fold.State{square(t)}
	for k := range n {
		if next, ok := randomFold(r, all[len(all)-1], k+1); ok && len(next.F) < 60 {
			all = append(all, next)
		}
	}
	return all
}

func sound(t *testing.T, s *fold.State, what string) {
	t.Helper()
	if f := s.Faults(); len(f) > 0 {
		t.Fatalf("%s: %v", what, f)
	}
}

// Going back to any earlier state lays every piece where it lay then, and going
// forward again gives the toy as it was.
func TestGoingBackAndForth(t *testing.T) {
	r := rand.New(rand.NewPCG(31, 7))
	for range 200 {
		all := someFolds(t, r, 6)
		last := all[len(all)-1]
		then := all[r.IntN(len(all))]
		back, err := last.Apply(fold.Plan{States: &fold.Known{To: then}})
		if err != nil {
			t.Fatal(err)
		}
		sound(t, back, "gone back")
		for i, f := range back.F {
			was := then.FacetsAtSheet(f.Poly.Centroid())
			if len(was) == 0 || !then.F[was[0]].Iso.Near(f.Iso, 1e-9) {
				t.Fatalf("piece %d lies elsewhere than before", i)
			}
		}
		if back.Box() != then.Box() && math.Abs(back.Box().Width()-then.Box().Width()) > 1e-9 {
			t.Fatalf("the toy is %v, it was %v", back.Box(), then.Box())
		}
		again, err := back.Apply(fold.Plan{States: &fold.Known{To: last}})
		if err != nil {
			t.Fatal(err)
		}
		for i := range again.F {
			if !again.F[i].Iso.Near(last.F[i].Iso, 1e-9) {
				t.Fatalf("piece %d does not come back", i)
			}
			for j := range again.F {
				if a, b := again.Above(fold.FacetID(i), fold.FacetID(j)), last.Above(fold.FacetID(i), fold.FacetID(j)); a != b {
					t.Fatalf("pieces %d and %d lie %d, lay %d", i, j, a, b)
				}
			}
		}
	}
}

// A toy made by simple folds, opened out and folded again from its creases and
// their senses alone, lies as it lay, in an order that is sound.
func TestFoldedAgainFromItsCreases(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 77))
	for range 200 {
		all := someFolds(t, r, 5)
		s := all[len(all)-1]
		again, err := s.Flattened(func(_ int, h fold.Hinge) (fold.Assignment, bool) { return s.Assigned(h), false })
		if err != nil {
			t.Fatal(err)
		}
		sound(t, again, "folded again")
		for i := range s.F {
			if !again.F[i].Iso.Near(s.F[i].Iso, 1e-6) {
				t.Fatalf("piece %d lies elsewhere", i)
			}
		}
		for i, h := range s.H {
			if a, b := s.Assigned(h), again.Assigned(again.H[i]); a != b {
				t.Fatalf("a crease folded %d came out %d", a, b)
			}
		}
	}
}

// Cutting along a line takes paper off that is counted, leaves the rest sound,
// and never changes the sum.
func TestWhatIsCutOffIsCounted(t *testing.T) {
	r := rand.New(rand.NewPCG(12, 12))
	done := 0
	for range 300 {
		all := someFolds(t, r, 4)
		s := all[len(all)-1]
		b := s.Box()
		l := upright(b.MinX + (0.2+0.6*r.Float64())*b.Width())
		cut, err := s.Divide([]fold.Split{{Line: l}}, 99)
		if err != nil {
			t.Fatal(err)
		}
		var off []fold.FacetID
		var area float64
		for i := range cut.F {
			if c := cut.Folded(fold.FacetID(i)).Centroid(); l.Side(c) > 0 {
				off = append(off, fold.FacetID(i))
				area += cut.F[i].Poly.Area()
			}
		}
		if len(off) == 0 || len(off) == len(cut.F) {
			continue
		}
		left, err := s.Apply(fold.Plan{Splits: []fold.Split{{Line: l}}, Crease: 99, Remove: off})
		if err != nil {
			t.Fatal(err)
		}
		done++
		sound(t, left, "cut")
		if got := left.PaperMM2(); math.Abs(got+area-s.PaperMM2()) > 1e-6 {
			t.Fatalf("%v mm² stay and %v go, of %v", got, area, s.PaperMM2())
		}
		if w := left.Box(); w.MaxX > l.D+1e-9 {
			t.Fatalf("paper is left beyond the cut: %v", w)
		}
	}
	if done < 100 {
		t.Errorf("only %d cuts were made", done)
	}
}

// A slit lets go of the crease it runs along and of no other, and the two halves
// still hang together beside it.
func TestSlit(t *testing.T) {
	s := folded(t, square(t), fold.Selection{Line: upright(50), Side: 1, Sense: fold.ValleySense}, 1)
	flat, err := s.Apply(fold.Plan{States: &fold.Known{To: square(t)}})
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct {
		from, to float64
		one      bool
	}{{0, 50, true}, {25, 75, true}, {0, 100, false}} {
		ends := []fold.Split{{Line: level(c.from)}, {Line: level(c.to)}}
		out, err := flat.Apply(fold.Plan{Splits: ends, Crease: 2, Slit: []geom.Segment{{A: geom.Vec{X: 50, Y: c.from}, B: geom.Vec{X: 50, Y: c.to}}}})
		if err != nil {
			t.Fatal(err)
		}
		sound(t, out, "slit")
		var length float64
		for _, h := range out.H {
			if h.Crease == 1 {
				length += h.P.Dist(h.Q)
			}
		}
		if want := 100 - (c.to - c.from); math.Abs(length-want) > 1e-9 || out.InOnePiece() != c.one || out.PaperMM2() != 10_000 {
			t.Errorf("slit from %v to %v: %v mm of the crease hold, want %v; in one piece %v", c.from, c.to, length, want, out.InOnePiece())
		}
	}
}

// Faces glued stay glued through later folds; faces that do not lie on each
// other, or have a layer between, cannot be glued.
func TestGlueHolds(t *testing.T) {
	book := folded(t, square(t), fold.Selection{Line: upright(50), Side: 1, Sense: fold.ValleySense}, 1)
	glued, err := book.Apply(fold.Plan{Glue: [][2]fold.FacetID{{0, 1}}})
	if err != nil {
		t.Fatal(err)
	}
	// The leaves come along with each other now, whichever is held.
	for held := range fold.FacetID(2) {
		sel := fold.Selection{Line: level(60), Side: 1, Sense: fold.ValleySense, Seeds: []fold.FacetID{held}}
		if got := glued.Closure(sel); len(got) != 2 {
			t.Errorf("holding glued leaf %d moves %v", held, got)
		}
	}
	r := rand.New(rand.NewPCG(3, 14))
	for range 100 {
		s := glued
		for k := range 4 {
			if next, ok := randomFold(r, s, k+2); ok && len(next.F) < 60 {
				s = next
			}
		}
		sound(t, s, "folded after gluing")
		n := 0
		for _, h := range s.H {
			if h.Kind == fold.Glue {
				n++
				if s.Assigned(h) != fold.Flat {
					t.Fatal("glue counts as a fold")
				}
			}
		}
		if n == 0 {
			t.Fatal("the glue is gone")
		}
	}
	quarter := folded(t, book, fold.Selection{Line: level(50), Side: 1, Sense: fold.ValleySense}, 2)
	stack := quarter.StackAt(geom.Vec{X: 20, Y: 20})
	if len(stack) != 4 {
		t.Fatalf("%d layers in a square folded twice", len(stack))
	}
	for name, pair := range map[string][2]fold.FacetID{"the outer layers": {stack[0], stack[3]}, "a layer and the next but one": {stack[0], stack[2]}} {
		if _, err := quarter.Apply(fold.Plan{Glue: [][2]fold.FacetID{pair}}); err == nil || fold.As(err).Code != fold.CodeGlue {
			t.Errorf("%s are glued: %v", name, err)
		}
	}
	open, _ := square(t).CreaseOnly(fold.Selection{Line: upright(50), Side: 1, Sense: fold.ValleySense}, 1)
	flat, err := square(t).Apply(open)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := flat.Apply(fold.Plan{Glue: [][2]fold.FacetID{{0, 1}}}); err == nil || fold.As(err).Code != fold.CodeGlue {
		t.Errorf("halves side by side are glued: %v", err)
	}
}

// The layers at a place are told from the top down, the first being what is seen.
func TestLayersAtAPlace(t *testing.T) {
	r := rand.New(rand.NewPCG(40, 2))
	for range 100 {
		all := someFolds(t, r, 6)
		s := all[len(all)-1]
		b := s.Box()
		for range 20 {
			at := geom.Vec{X: b.MinX + r.Float64()*b.Width(), Y: b.MinY + r.Float64()*b.Height()}
			stack := s.StackAt(at)
			top, ok := s.TopAt(at)
			if ok && len(stack) > 0 && stack[0] != top {
				t.Fatalf("at %v the stack is %v and %d is seen", at, stack, top)
			}
			for i, f := range stack {
				for _, g := range stack[i+1:] {
					if s.Above(f, g) < 0 {
						t.Fatalf("at %v the stack %v is out of order", at, stack)
					}
				}
			}
		}
	}
}

// A pinch presses its stretch of the line and nothing else; together with what
// only divides the paper it is as long as the line.
func TestPinchIsAsLongAsItIs(t *testing.T) {
	for _, c := range []struct{ from, to, pressed float64 }{{0, 100, 100}, {40, 60, 20}, {0, 15, 15}, {90, 140, 10}, {60, 40, 20}} {
		pinch := geom.Segment{A: geom.Vec{X: 50, Y: c.from}, B: geom.Vec{X: 50, Y: c.to}}
		p, err := square(t).CreaseOnly(fold.Selection{Line: upright(50), Side: 1, Sense: fold.ValleySense, Pressed: &pinch}, 1)
		if err != nil {
			t.Fatal(err)
		}
		s, err := square(t).Apply(p)
		if err != nil {
			t.Fatal(err)
		}
		sound(t, s, "pinched")
		lengths := map[fold.HingeKind]float64{}
		for _, h := range s.H {
			lengths[h.Kind] += h.P.Dist(h.Q)
		}
		if math.Abs(lengths[fold.Crease]-c.pressed) > 1e-9 || math.Abs(lengths[fold.Crease]+lengths[fold.Construction]-100) > 1e-9 {
			t.Errorf("pinched from %v to %v: %v", c.from, c.to, lengths)
		}
	}
}
