package body_test

import (
	"math"
	"testing"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/ways"
)

// Every motion that is shown keeps the paper whole, weighs the same all the way, begins
// with the paper before the step and ends with the paper after it.
func TestMotionsKeepThePaperWhole(t *testing.T) {
	shown, all := map[sequence.Op]int{}, map[sequence.Op]int{}
	for _, id := range append(shelf.Names(), shelf.StudyNames()...) {
		p, found := shelf.Find(id)
		if !found {
			p, _ = shelf.FindStudy(id)
		}
		r := p.Run(sheet.Sheet{WidthMM: p.WidthMM, HeightMM: p.HeightMM, GSM: 80, ThicknessMM: 0.1}, nil)
		if r.Err != nil {
			t.Fatal(r.Err)
		}
		long := math.Max(p.WidthMM, p.HeightMM)
		for _, d := range r.Steps {
			all[d.Op]++
			m, ok := body.MotionOf(r, d.No, 9)
			if !ok {
				continue
			}
			shown[d.Op]++
			mass := m.Poses[0].Weigh().G
			for i, q := range m.Poses {
				if q.Residual > 0.004*long {
					t.Errorf("%s step %d, pose %d: torn by %v mm", id, d.No, i, q.Residual)
				}
				if g := q.Weigh().G; math.Abs(g-mass) > 1e-9 {
					t.Errorf("%s step %d weighs %v, then %v", id, d.No, mass, g)
				}
			}
			if d.InTheRound() {
				continue
			}
			compare := func(what string, q body.Pose, s *fold.State) {
				t.Helper()
				for i := range q.State.F {
					c := q.State.F[i].Poly.Centroid()
					at := q.At[i].Apply(geom.Vec3{X: c.X, Y: c.Y})
					f := s.FacetsAtSheet(c)
					if len(f) == 0 {
						continue // cut off in this step
					}
					want := s.F[f[0]].Iso.Apply(c)
					if at.Dist(geom.Vec3{X: want.X, Y: want.Y}) > 0.006*long {
						t.Errorf("%s step %d (%s), %s: a piece lies %v mm off", id, d.No, d.Op, what, at.Dist(geom.Vec3{X: want.X, Y: want.Y}))
						return
					}
				}
			}
			compare("before", m.Poses[0], d.Before)
			compare("after", m.Poses[len(m.Poses)-1], d.After)
		}
	}
	t.Logf("shown %v of %v", shown, all)
	for _, op := range []sequence.Op{sequence.OpValley, sequence.OpMountain, sequence.OpCrease, sequence.OpTurn, "wing"} {
		if shown[op] < all[op]*9/10 {
			t.Errorf("%s: %d of %d are shown", op, shown[op], all[op])
		}
	}
}

// Half-way through a plain fold the flap stands upright: as high as it reaches beyond
// its crease.
func TestHalfWayTheFlapStands(t *testing.T) {
	p, err := ways.Parse("t", "sheet rect 100 200\nvalley bring top to bottom as f")
	if err != nil {
		t.Fatal(err)
	}
	r := p.Run(sheet.Sheet{WidthMM: 100, HeightMM: 200, GSM: 80, ThicknessMM: 0.1}, nil)
	m, ok := body.MotionOf(r, 1, 9)
	if !ok || len(m.Poses) != 9 {
		t.Fatalf("%d poses", len(m.Poses))
	}
	// Fanned, the flap lies above the other half at the end, and side by side with it at
	// the beginning.
	f := m.Fanned(0.5)
	level := func(p body.Pose, i int) float64 { return p.Corners(fold.FacetID(i))[0].Z }
	if d := math.Abs(level(f[8], 0) - level(f[8], 1)); math.Abs(d-0.5) > 1e-9 {
		t.Errorf("at the end the layers lie %v mm apart", d)
	}
	if d := math.Abs(level(f[0], 0) - level(f[0], 1)); d > 1e-9 {
		t.Errorf("at the beginning they lie %v mm apart", d)
	}
	high := 0.0
	for i := range m.Poses[4].State.F {
		for _, c := range m.Poses[4].Corners(fold.FacetID(i)) {
			high = math.Max(high, c.Z)
		}
	}
	if math.Abs(high-100) > 1e-6 {
		t.Errorf("the flap stands %v mm high", high)
	}
	behind, err := ways.Parse("t", "sheet rect 100 200\nmountain bring top to bottom as f")
	if err != nil {
		t.Fatal(err)
	}
	b, _ := body.MotionOf(behind.Run(r.Sheet, nil), 1, 9)
	low := 0.0
	for i := range b.Poses[4].State.F {
		for _, c := range b.Poses[4].Corners(fold.FacetID(i)) {
			low = math.Min(low, c.Z)
		}
	}
	if math.Abs(low+100) > 1e-6 {
		t.Errorf("folded behind it hangs %v mm", low)
	}
}

func BenchmarkMotionOfAPetal(b *testing.B) {
	p, _ := shelf.FindStudy("bird")
	r := p.Run(sheet.Sheet{WidthMM: p.WidthMM, HeightMM: p.HeightMM, GSM: 80, ThicknessMM: 0.1}, nil)
	for b.Loop() {
		body.MotionOf(r, len(r.Steps), 17)
	}
}
