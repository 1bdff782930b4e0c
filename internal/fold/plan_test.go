package fold_test

import (
	"math"
	"testing"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sheet"
)

func square(t *testing.T) *fold.State {
	t.Helper()
	s, err := sheet.New(100, 100, 80, 0.1)
	if err != nil {
		t.Fatal(err)
	}
	return fold.Start(s)
}

func upright(x float64) geom.Line { return geom.Line{N: geom.Vec{X: 1}, D: x} }
func level(y float64) geom.Line   { return geom.Line{N: geom.Vec{Y: 1}, D: y} }

func folded(t *testing.T, s *fold.State, sel fold.Selection, id fold.CreaseID) *fold.State {
	t.Helper()
	p, err := s.SimpleFold(sel, id)
	if err != nil {
		t.Fatal(err)
	}
	out, err := s.Apply(p)
	if err != nil {
		t.Fatal(err)
	}
	return out
}

// A book fold laid in half again: whoever is held, all four layers must come
// along, since they hang together beyond the crease.
func TestClosureFollowsHinges(t *testing.T) {
	s := folded(t, square(t), fold.Selection{Line: upright(50), Side: 1, Sense: fold.ValleySense}, 1)
	for held := range fold.FacetID(2) {
		// The line crosses the spine, so both layers hang together beyond it.
		got := s.Closure(fold.Selection{Line: level(50), Side: 1, Sense: fold.ValleySense, Seeds: []fold.FacetID{held}})
		if len(got) != 2 {
			t.Errorf("holding layer %d across the spine moves %v", held, got)
		}
	}
	// Beside the spine only what is held moves, if nothing lies on it.
	beside := fold.Selection{Line: upright(25), Side: -1, Sense: fold.ValleySense}
	top, bottom := fold.FacetID(1), fold.FacetID(0)
	if s.Above(top, bottom) != 1 {
		t.Fatal("the moved layer is not on top")
	}
	beside.Seeds = []fold.FacetID{top}
	if got := s.Closure(beside); len(got) != 1 {
		t.Errorf("the top layer alone takes %v along", got)
	}
	// The lower one cannot come up through the upper one.
	beside.Seeds = []fold.FacetID{bottom}
	if got := s.Closure(beside); len(got) != 2 {
		t.Errorf("a valley fold of the lower layer moves %v", got)
	}
	// Folded behind it goes alone.
	beside.Sense = fold.MountainSense
	if got := s.Closure(beside); len(got) != 1 {
		t.Errorf("a mountain fold of the lower layer moves %v", got)
	}
}

func TestFoldsThatMiss(t *testing.T) {
	s := square(t)
	for name, sel := range map[string]fold.Selection{
		"line beside the sheet":     {Line: upright(150), Side: 1, Sense: fold.ValleySense},
		"everything would move":     {Line: upright(150), Side: -1, Sense: fold.ValleySense},
		"line along the edge":       {Line: upright(0), Side: 1, Sense: fold.ValleySense},
		"seeds on the resting side": {Line: upright(100), Side: 1, Sense: fold.ValleySense, Seeds: []fold.FacetID{0}},
	} {
		if _, err := s.SimpleFold(sel, 1); err == nil || fold.As(err).Code != fold.CodeMissesLine {
			t.Errorf("%s gives %v", name, err)
		}
	}
	if _, err := s.CreaseOnly(fold.Selection{Line: upright(150), Side: 1, Sense: fold.ValleySense}, 1); err == nil || fold.As(err).Code != fold.CodeMissesLine {
		t.Errorf("a crease beside the sheet gives %v", err)
	}
}

// Halving n times gives 2ⁿ layers of one spot and 2ⁿ-1 folded hinges.
func TestHalvingCounts(t *testing.T) {
	s := square(t)
	for n := 1; n <= 6; n++ {
		b := s.Box()
		l := upright(b.Centre().X)
		if n%2 == 0 {
			l = level(b.Centre().Y)
		}
		s = folded(t, s, fold.Selection{Line: l, Side: 1, Sense: fold.ValleySense}, fold.CreaseID(n))
		if len(s.F) != 1<<n {
			t.Fatalf("after %d halvings there are %d pieces", n, len(s.F))
		}
		depths := s.Depths()
		deepest := 0
		for _, d := range depths {
			deepest = max(deepest, d)
		}
		if deepest != 1<<n-1 {
			t.Errorf("after %d halvings the stack is %d deep", n, deepest+1)
		}
		if c := s.Count(); c.Folded != c.Hinges {
			t.Errorf("after %d halvings %d of %d hinges are folded", n, c.Folded, c.Hinges)
		}
	}
	if f := s.Faults(); len(f) > 0 {
		t.Errorf("%v", f[:min(3, len(f))])
	}
}

// A crease folded and opened divides the paper and leaves it flat; folding along
// it later divides nothing more.
func TestFoldingAlongACrease(t *testing.T) {
	s := square(t)
	p, err := s.CreaseOnly(fold.Selection{Line: upright(50), Side: 1, Sense: fold.ValleySense}, 1)
	if err != nil {
		t.Fatal(err)
	}
	if s, err = s.Apply(p); err != nil {
		t.Fatal(err)
	}
	if c := s.Count(); c.Hinges != 1 || c.Folded != 0 {
		t.Errorf("an opened crease counts as %+v", c)
	}
	s = folded(t, s, fold.Selection{Line: upright(50), Side: 1, Sense: fold.MountainSense}, 2)
	if c := s.Count(); len(s.F) != 2 || c.Mountain != 1 || c.Valley != 0 {
		t.Errorf("folding along it gives %d pieces and %+v", len(s.F), c)
	}
	if a := s.Box().Width() * s.Box().Height(); math.Abs(a-5000) > 1e-9 {
		t.Errorf("the half sheet covers %v mm²", a)
	}
}

func TestTooManyPieces(t *testing.T) {
	s := square(t)
	var err error
	for n := 1; n <= 12 && err == nil; n++ {
		b := s.Box()
		l := upright(b.MinX + b.Width()*0.5)
		if n%2 == 0 {
			l = level(b.MinY + b.Height()*0.5)
		}
		var p fold.Plan
		if p, err = s.SimpleFold(fold.Selection{Line: l, Side: 1, Sense: fold.ValleySense}, fold.CreaseID(n)); err == nil {
			s, err = s.Apply(p)
		}
	}
	if err == nil || fold.As(err).Code != fold.CodeTooMany {
		t.Errorf("folding on and on ends with %v", err)
	}
}

func TestPointsOnPaper(t *testing.T) {
	s := folded(t, square(t), fold.Selection{Line: upright(50), Side: 1, Sense: fold.ValleySense}, 1)
	if at := s.FacetsAtSheet(geom.Vec{X: 50, Y: 10}); len(at) != 2 {
		t.Errorf("a point of the crease lies on %d pieces", len(at))
	}
	if at := s.FacetsAtSheet(geom.Vec{X: 120, Y: 10}); at != nil {
		t.Errorf("a point off the sheet lies on %v", at)
	}
	if id, ok := s.TopAt(geom.Vec{X: 20, Y: 20}); !ok || id != 1 {
		t.Errorf("the uppermost piece is %d, %v", id, ok)
	}
	if _, ok := s.TopAt(geom.Vec{X: 80, Y: 20}); ok {
		t.Error("there is paper where the folded half was")
	}
}

func BenchmarkHalving64(b *testing.B) {
	sh, err := sheet.New(200, 200, 80, 0.1)
	if err != nil {
		b.Fatal(err)
	}
	b.ReportAllocs()
	for b.Loop() {
		s := fold.Start(sh)
		for n := 1; n <= 6; n++ {
			c := s.Box().Centre()
			l := upright(c.X)
			if n%2 == 0 {
				l = level(c.Y)
			}
			p, err := s.SimpleFold(fold.Selection{Line: l, Side: 1, Sense: fold.ValleySense}, fold.CreaseID(n))
			if err != nil {
				b.Fatal(err)
			}
			if s, err = s.Apply(p); err != nil {
				b.Fatal(err)
			}
		}
	}
}
