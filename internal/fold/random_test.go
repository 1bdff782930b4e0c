package fold_test

import (
	"math/rand/v2"
	"os"
	"strconv"
	"testing"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sheet"
)

// randomFold makes one random simple fold: any line through two spots of the
// toy, any side, either sense, held at any piece. ok is false when it misses.
func randomFold(r *rand.Rand, s *fold.State, id int) (*fold.State, bool) {
	b := s.Box()
	spot := func() geom.Vec {
		return geom.Vec{X: b.MinX + r.Float64()*b.Width(), Y: b.MinY + r.Float64()*b.Height()}
	}
	l, ok := geom.LineThrough(spot(), spot())
	if !ok {
		return s, false
	}
	sel := fold.Selection{Line: l, Side: 1, Sense: fold.ValleySense, Seeds: []fold.FacetID{fold.FacetID(r.IntN(len(s.F)))}}
	if r.IntN(2) == 0 {
		sel.Side = -1
	}
	if r.IntN(2) == 0 {
		sel.Sense = fold.MountainSense
	}
	if r.IntN(5) == 0 {
		sel.Seeds = nil
	}
	make := s.SimpleFold
	if r.IntN(6) == 0 {
		make = s.CreaseOnly
	}
	plan, err := make(sel, fold.CreaseID(id))
	if err != nil {
		return s, false
	}
	out, err := s.Apply(plan)
	return out, err == nil
}

// Simple folds with a closed set of layers never tear, never let layers pass
// through each other, and keep every gram of paper.
func TestRandomFoldsStaySound(t *testing.T) {
	n := 10_000
	if v, err := strconv.Atoi(os.Getenv("TUSSOCK_RANDOM")); err == nil {
		n = v // more, for a long night
	}
	most := 0
	for seed := range n {
		r := rand.New(rand.NewPCG(uint64(seed), 7))
		sh, err := sheet.New(100+200*r.Float64(), 100+200*r.Float64(), 80, 0.1)
		if err != nil {
			t.Fatal(err)
		}
		s := fold.Start(sh)
		for k := 1; k <= 7; k++ {
			next, ok := randomFold(r, s, k)
			if !ok {
				continue
			}
			s = next
		}
		most = max(most, len(s.F))
		if f := s.Faults(); len(f) > 0 {
			t.Fatalf("seed %d: %d pieces: %v", seed, len(s.F), f)
		}
	}
	if most < 20 {
		t.Errorf("the random toys have at most %d pieces: the test tries too little", most)
	}
}

// The check itself must see faults, or the test above proves nothing.
func TestFaultsAreSeen(t *testing.T) {
	sh, _ := sheet.New(100, 100, 80, 0.1)
	s := fold.Start(sh)
	l := geom.Line{N: geom.Vec{X: 1}, D: 50}
	plan, err := s.SimpleFold(fold.Selection{Line: l, Side: 1, Sense: fold.ValleySense}, 1)
	if err != nil {
		t.Fatal(err)
	}
	good, err := s.Apply(plan)
	if err != nil {
		t.Fatal(err)
	}
	if f := good.Faults(); len(f) != 0 {
		t.Fatalf("a half fold has faults: %v", f)
	}
	torn := *good
	torn.F = append([]fold.Facet(nil), good.F...)
	torn.F[1].Iso = geom.Rotation(0.1, geom.Vec{}).After(torn.F[1].Iso)
	if len(torn.Faults()) == 0 {
		t.Error("a torn sheet passes")
	}
	lost := *good
	lost.F = append([]fold.Facet(nil), good.F...)
	lost.F[0].Poly = lost.F[0].Poly[:3]
	if len(lost.Faults()) == 0 {
		t.Error("missing paper passes")
	}
}

func TestTearIsRefused(t *testing.T) {
	sh, _ := sheet.New(100, 100, 80, 0.1)
	s := fold.Start(sh)
	half := geom.Line{N: geom.Vec{X: 1}, D: 50}
	plan, _ := s.CreaseOnly(fold.Selection{Line: half, Side: 1, Sense: fold.ValleySense}, 1)
	s, err := s.Apply(plan)
	if err != nil {
		t.Fatal(err)
	}
	// Move one half alone about a line that is not its hinge.
	away := geom.Line{N: geom.Vec{X: 1}, D: 80}
	_, err = s.Apply(fold.Plan{Line: away, Side: 1, Place: 1,
		Bodies: []fold.Body{{Facets: []fold.FacetID{1}, T: geom.Reflection(away)}}})
	if err == nil || fold.As(err).Code != fold.CodeTear {
		t.Errorf("moving a hinged piece alone gives %v, want a tear", err)
	}
}

// Valley puts the moved layer on top, mountain beneath; turning over swaps.
func TestSenseDecidesWhatIsOnTop(t *testing.T) {
	sh, _ := sheet.New(100, 100, 80, 0.1)
	l := geom.Line{N: geom.Vec{X: 1}, D: 50}
	for _, c := range []struct {
		sense fold.Sense
		want  fold.Assignment
		above int8
	}{{fold.ValleySense, fold.Valley, 1}, {fold.MountainSense, fold.Mountain, -1}} {
		s := fold.Start(sh)
		plan, _ := s.SimpleFold(fold.Selection{Line: l, Side: 1, Sense: c.sense}, 1)
		s, _ = s.Apply(plan)
		if got := s.Above(1, 0); got != c.above {
			t.Errorf("sense %d: moved layer at %d", c.sense, got)
		}
		if got := s.Assigned(s.H[0]); got != c.want {
			t.Errorf("sense %d gives assignment %d", c.sense, got)
		}
		turned, _ := s.Apply(s.Whole(geom.Reflection(l)))
		if got := turned.Above(1, 0); got != -c.above {
			t.Errorf("turned over: moved layer at %d", got)
		}
		if got := turned.Assigned(turned.H[0]); got != c.want {
			t.Errorf("turning over changes the crease to %d", got)
		}
	}
}

func TestOldStateIsUntouched(t *testing.T) {
	sh, _ := sheet.New(120, 100, 80, 0.1)
	s := fold.Start(sh)
	r := rand.New(rand.NewPCG(9, 9))
	for k := 1; k <= 5; k++ {
		before := s.Count()
		pieces := len(s.F)
		next, ok := randomFold(r, s, k)
		if s.Count() != before || len(s.F) != pieces {
			t.Fatal("folding changed the state it started from")
		}
		if ok {
			s = next
		}
	}
}
