package steps_test

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"tussock/internal/fold"
	"tussock/internal/fold/steps"
	"tussock/internal/foldtest"
	"tussock/internal/geom"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// place is where a landmark lies at the end of a replay.
func place(t *testing.T, r *sequence.Replay, name string) geom.Vec {
	t.Helper()
	at, ok := sequence.Place(r.Final(), r.Landmarks[name])
	if !ok {
		t.Fatalf("%s is not on the paper", name)
	}
	return at
}

func sound(t *testing.T, name string, r *sequence.Replay) {
	t.Helper()
	if f := r.Final().Faults(); len(f) > 0 {
		t.Errorf("%s: %v", name, f)
	}
}

// An inside reverse and an outside reverse of the same tip put it in the same
// place; inside, the walls enclose it; outside, it encloses the walls.
func TestReverseInsideAndOutside(t *testing.T) {
	text := "sheet square 100\nvalley bring TR to BL as d\npoint A = part(TL,C,0.6)\npoint W = sheet(10,80)\npoint V = sheet(20,60)\nreverse KIND TL through A square [TL BR] spine TL BR as r"
	in := foldtest.Fold(t, strings.Replace(text, "KIND", "inside", 1))
	out := foldtest.Fold(t, strings.Replace(text, "KIND", "outside", 1))
	sound(t, "inside", in)
	sound(t, "outside", out)
	if a, b := place(t, in, "TL"), place(t, out, "TL"); a.Dist(b) > 1e-9 {
		t.Errorf("the tip goes to %v inside and to %v outside", a, b)
	}
	depth := func(r *sequence.Replay) (tipTop, tipLow, wallTop, wallLow int) {
		s := r.Final()
		d := s.Depths()
		tipLow, wallLow = 99, 99
		for i, f := range s.F {
			moved := !f.Iso.Near(r.Steps[0].After.F[at(r.Steps[0].After, f)].Iso, 1e-7)
			overlapsTip := geom.Overlaps(s.Folded(fold.FacetID(i)), geom.Polygon{{X: 42, Y: 42}, {X: 46, Y: 42}, {X: 46, Y: 46}})
			if moved {
				tipTop, tipLow = max(tipTop, d[i]), min(tipLow, d[i])
			} else if overlapsTip {
				wallTop, wallLow = max(wallTop, d[i]), min(wallLow, d[i])
			}
		}
		return tipTop, tipLow, wallTop, wallLow
	}
	if tt, tl, wt, wl := depth(in); tt >= wt || tl <= wl {
		t.Errorf("inside: tip at layers %d to %d, walls at %d and %d", tl, tt, wl, wt)
	}
	if tt, tl, wt, wl := depth(out); tt <= wt || tl >= wl {
		t.Errorf("outside: tip at layers %d to %d, walls at %d and %d", tl, tt, wl, wt)
	}
}

func at(s *fold.State, f fold.Facet) fold.FacetID { return s.FacetsAtSheet(f.Poly.Centroid())[0] }

// A squash by hand: the folded spine comes to lie on the line about which the
// flap stood, its far end as far from the centre as before.
func TestSquashByHand(t *testing.T) {
	r := foldtest.Fold(t, "sheet square 150\nvalley bring TL to BR\nvalley bring TR to BL\nsquash spine C TR onto [C BR]")
	sound(t, "squash", r)
	c, tr := place(t, r, "C"), place(t, r, "TR")
	br := place(t, r, "BR")
	l, _ := geom.LineThrough(c, br)
	if math.Abs(l.Side(tr)) > 1e-9 || math.Abs(tr.Dist(c)-75*math.Sqrt2) > 1e-9 {
		t.Errorf("TR lies at %v, C at %v, BR at %v", tr, c, br)
	}
	// Squashing a flap that is closed is refused in words.
	p := foldtest.Parse(t, "sheet square 150\nvalley bring TL to BR\nsquash spine TL BR onto [C BL]")
	s, _ := sheet.New(150, 150, 80, 0.1)
	if q := p.Run(s, nil); q.Err == nil {
		t.Error("a flap without a spine is squashed")
	}
}

// The petal of a bird base by hand: the point rises to 150 above where it was.
func TestPetalByHand(t *testing.T) {
	r := foldtest.Fold(t, "sheet square 150\nuse preliminary\nrotate 45\npetal BL creases bis([BL B],[BL C]) bis([BL L],[BL C]) spines [C B] [C L]")
	sound(t, "petal", r)
	bl, c := place(t, r, "BL"), place(t, r, "C")
	if math.Abs(bl.X-c.X) > 1e-9 || math.Abs(bl.Y-c.Y-(150-75*math.Sqrt2)) > 1e-6 {
		t.Errorf("the point lies at %v, the closed corner at %v", bl, c)
	}
}

// A sink turns every crease of the tip: what was a mountain is a valley, and the
// toy ends short by the tip.
func TestSinkTurnsTheTip(t *testing.T) {
	r := foldtest.Fold(t, "sheet square 150\nuse waterbomb\nsink C through part(C,TL,0.3) part(C,TR,0.3) as s")
	sound(t, "sink", r)
	before, after := r.Steps[len(r.Steps)-1].Before, r.Final()
	if h := before.Box().Height() - after.Box().Height(); math.Abs(h-0.3*75) > 1e-6 {
		t.Errorf("the toy is %v mm shorter, want %v", h, 0.3*75)
	}
	tip := r.Landmarks["C"]
	turned := 0
	for _, h := range after.H {
		if h.P.Dist(tip) > 1e-6 && h.Q.Dist(tip) > 1e-6 {
			continue
		}
		for _, g := range before.H {
			if (geom.Segment{A: g.P, B: g.Q}).Dist(geom.Mid(h.P, h.Q)) < 1e-6 && before.Assigned(g) != fold.Flat {
				if after.Assigned(h) != -before.Assigned(g) {
					t.Errorf("a crease at the tip was %d and is %d", before.Assigned(g), after.Assigned(h))
				}
				turned++
			}
		}
	}
	if turned != 6 {
		t.Errorf("%d creases meet at the tip, want 6", turned)
	}
}

// Turning a point inside out twice gives the same senses again; once turns all.
func TestPopTwiceIsNothing(t *testing.T) {
	one := foldtest.Fold(t, "sheet square 150\nuse preliminary\npop C")
	two := foldtest.Fold(t, "sheet square 150\nuse preliminary\npop C\npop C")
	base := foldtest.Fold(t, "sheet square 150\nuse preliminary")
	a, b, c := base.Final(), one.Final(), two.Final()
	for i := range a.H {
		if a.Assigned(a.H[i]) != -b.Assigned(b.H[i]) || a.Assigned(a.H[i]) != c.Assigned(c.H[i]) {
			t.Fatalf("hinge %d: %d, popped %d, twice %d", i, a.Assigned(a.H[i]), b.Assigned(b.H[i]), c.Assigned(c.H[i]))
		}
	}
	sound(t, "popped", one)
}

// Creases that are not named stay as they are: three at 120° fold flat with no fourth, so
// on a square with both middle lines creased they are refused, whichever way they point
// and whatever piece stays in place; with the fourth one named they fold.
func TestUnnamedCreasesStayFlat(t *testing.T) {
	s, err := sheet.New(100, 100, 80, 0.1)
	if err != nil {
		t.Fatal(err)
	}
	c := geom.Vec{X: 50, Y: 50}
	ray := func(deg float64, sense steps.Sense) steps.Line {
		end, _ := geom.Polygon(s.Outline()).Exit(c, geom.Vec{X: math.Cos(geom.Rad(deg)), Y: math.Sin(geom.Rad(deg))})
		return steps.Line{Seg: geom.Segment{A: c, B: end}, Sense: sense}
	}
	for _, first := range []float64{0, 90, 180, 270} {
		creased := fold.Start(s)
		for id, l := range []geom.Line{{N: geom.Vec{X: 1}, D: 50}, {N: geom.Vec{Y: 1}, D: 50}} {
			all := make([]fold.FacetID, len(creased.F))
			for i := range all {
				all[i] = fold.FacetID(i)
			}
			if creased, err = creased.Divide([]fold.Split{{Facets: all, Line: l}}, fold.CreaseID(id+1)); err != nil {
				t.Fatal(err)
			}
		}
		if len(creased.F) != 4 {
			t.Fatalf("%d pieces", len(creased.F))
		}
		three := []steps.Line{ray(first, steps.Either), ray(first+120, steps.Either), ray(first+240, steps.Either)}
		for _, fixed := range []geom.Vec{{X: 30, Y: 45}, {X: 70, Y: 55}, {X: 45, Y: 80}, {X: 55, Y: 20}} {
			plan, err := steps.Collapse(creased, fixed, three, nil, 3)
			if err == nil {
				_, err = creased.Apply(plan)
			}
			if err == nil || fold.As(err).Code != fold.CodeTear {
				t.Errorf("three creases from %v°, %v fixed: %v", first, fixed, err)
			}
			four := append(three[:3:3], ray(first+180, steps.Either))
			plan, err = steps.Collapse(creased, fixed, four, nil, 3)
			if err != nil {
				t.Fatalf("four creases from %v°: %v", first, err)
			}
			if _, err := creased.Apply(plan); err != nil {
				t.Errorf("four creases from %v°: %v", first, err)
			}
		}
	}
}

// Any random flat-foldable single vertex collapses: four creases with opposite
// sectors that add up to 180°, whatever the angles.
func TestCollapseOfRandomVertices(t *testing.T) {
	rnd := rand.New(rand.NewPCG(8, 9))
	for range 60 {
		a, b := 30+100*rnd.Float64(), 30+100*rnd.Float64()
		if math.Abs(a+b-180) < 8 || math.Abs(a-b) < 8 {
			continue
		}
		s, _ := sheet.New(200, 200, 80, 0.1)
		c := geom.Vec{X: 90 + 20*rnd.Float64(), Y: 90 + 20*rnd.Float64()}
		turn := 6.28 * rnd.Float64()
		var lines []steps.Line
		for _, deg := range []float64{0, a, a + b, 180 + b} {
			d := geom.Vec{X: math.Cos(turn + geom.Rad(deg)), Y: math.Sin(turn + geom.Rad(deg))}
			end, _ := geom.Polygon(s.Outline()).Exit(c, d)
			lines = append(lines, steps.Line{Seg: geom.Segment{A: c, B: end}, Sense: steps.Either})
		}
		st := fold.Start(s)
		plan, err := steps.Collapse(st, geom.Vec{X: 1, Y: 1}, lines, nil, 1)
		if err != nil {
			t.Fatalf("sectors %.1f %.1f: %v", a, b, err)
		}
		out, err := st.Apply(plan)
		if err != nil {
			t.Fatalf("sectors %.1f %.1f: %v", a, b, err)
		}
		if f := out.Faults(); len(f) > 0 {
			t.Errorf("sectors %.1f %.1f: %v", a, b, f)
		}
		if n := out.Count(); n.Folded < 4 || n.Mountain == 0 || n.Valley == 0 {
			t.Errorf("sectors %.1f %.1f: %+v", a, b, n)
		}
	}
}

// Rabbit ears of random triangles fold flat, and lay all three sides on one line.
func TestRabbitEarsOfRandomTriangles(t *testing.T) {
	rnd := rand.New(rand.NewPCG(10, 11))
	for range 40 {
		pts := []geom.Vec{{X: 0, Y: 0}, {X: 100 + 60*rnd.Float64(), Y: 20 * rnd.Float64()}, {X: 30 + 60*rnd.Float64(), Y: 80 + 60*rnd.Float64()}}
		s, err := sheet.Polygon(pts, 80, 0.1)
		if err != nil {
			t.Fatal(err)
		}
		o := s.Outline()
		lines, ferr := steps.RabbitEar(o[0], o[1], o[2])
		if ferr != nil {
			t.Fatal(ferr)
		}
		st := fold.Start(s)
		plan, ferr := steps.Collapse(st, geom.Polygon(o).Centroid().Lerp(o[2], 0.6), lines, nil, 1)
		if ferr != nil {
			t.Fatal(ferr)
		}
		out, ferr := st.Apply(plan)
		if ferr != nil {
			t.Fatalf("%v: %v", o, ferr)
		}
		at := func(p geom.Vec) geom.Vec { return out.F[out.FacetsAtSheet(p)[0]].Iso.Apply(p) }
		l, ok := geom.LineThrough(at(o[2]), at(o[0]))
		if !ok || math.Abs(l.Side(at(o[1]))) > 1e-6 {
			t.Errorf("%v: the sides do not come to lie on one line", o)
		}
	}
	if _, err := steps.RabbitEar(geom.Vec{}, geom.Vec{X: 10}, geom.Vec{X: 20}); err == nil {
		t.Error("three corners on one line have an ear")
	}
}

// Twists of every number of sides and hand close, keep every gram, and turn the
// middle without moving its centre.
func TestTwistsClose(t *testing.T) {
	for n := 3; n <= 8; n++ {
		for _, slant := range []float64{65, -65} {
			s, err := sheet.NGon(n, 90, 80, 0.1)
			if err != nil {
				t.Fatal(err)
			}
			c := geom.Polygon(s.Outline()).Centroid()
			lines, ferr := steps.Twist(s.Outline(), c, n, 18, 0.3, geom.Rad(slant))
			if ferr != nil {
				t.Fatal(ferr)
			}
			st := fold.Start(s)
			plan, ferr := steps.Collapse(st, c, lines, nil, 1)
			if ferr != nil {
				t.Fatalf("%d sides, slant %v: %v", n, slant, ferr)
			}
			out, ferr := st.Apply(plan)
			if ferr != nil {
				t.Fatalf("%d sides, slant %v: %v", n, slant, ferr)
			}
			if d := out.PaperMM2() - s.AreaMM2(); math.Abs(d) > 1e-6 {
				t.Errorf("%d sides: %v mm² are lost", n, d)
			}
			if g := out.WorstGap(); g > 1e-6 {
				t.Errorf("%d sides: a hinge is open by %v mm", n, g)
			}
		}
	}
}

// Gathered packs of n-gons: every corner comes to lie on one spot, so does every
// middle of a side.
func TestPacksGather(t *testing.T) {
	for n := 3; n <= 8; n++ {
		s, err := sheet.NGon(n, 70, 80, 0.1)
		if err != nil {
			t.Fatal(err)
		}
		c := geom.Polygon(s.Outline()).Centroid()
		st := fold.Start(s)
		plan, ferr := steps.Collapse(st, c, steps.Gather(s.Outline(), c), nil, 1)
		if ferr != nil {
			t.Fatal(n, ferr)
		}
		out, ferr := st.Apply(plan)
		if ferr != nil {
			t.Fatal(n, ferr)
		}
		at := func(p geom.Vec) geom.Vec { return out.F[out.FacetsAtSheet(p)[0]].Iso.Apply(p) }
		for i, p := range s.Outline() {
			if d := at(p).Dist(at(s.Outline()[0])); d > 1e-6 {
				t.Errorf("%d-gon: corner %d lies %v mm from the first", n, i, d)
			}
		}
		if f := out.Faults(); len(f) > 0 {
			t.Errorf("%d-gon: %v", n, f)
		}
	}
}

// Tucked under a layer the flap is under it; over it, over.
func TestTuckUnderAndOver(t *testing.T) {
	text := "sheet rect 100 200\npoint P = part(BL,TL,0.6)\npoint A = part(BL,TL,0.75)\nvalley bring BL to P as f1\nvalley through A square [P A] moving TL WHERE BL as f2"
	for where, sign := range map[string]int8{"under": -1, "over": 1} {
		r := foldtest.Fold(t, strings.Replace(text, "WHERE", where, 1))
		s := r.Final()
		a, b := s.FacetsAtSheet(r.Landmarks["TL"])[0], s.FacetsAtSheet(r.Landmarks["BL"])[0]
		if s.Above(a, b) != sign {
			t.Errorf("%s: the flap lies at %d", where, s.Above(a, b))
		}
	}
}

func TestRefusals(t *testing.T) {
	s, _ := sheet.New(100, 100, 80, 0.1)
	st := fold.Start(s)
	spine := []geom.Segment{{A: geom.Vec{X: 0, Y: 50}, B: geom.Vec{X: 100, Y: 50}}}
	if _, err := steps.Reverse(st, geom.Vec{X: 0, Y: 100}, geom.LineAt(geom.Vec{Y: 80}, geom.Vec{X: 1}), spine, false, 1); err == nil {
		t.Error("a flat sheet is reversed")
	}
	if _, err := steps.Reverse(st, geom.Vec{X: 500, Y: 100}, geom.LineAt(geom.Vec{Y: 80}, geom.Vec{X: 1}), spine, false, 1); err == nil || fold.As(err).Code != fold.CodeOffPaper {
		t.Errorf("a tip off the paper gives %v", err)
	}
	if _, err := steps.Pop(st, geom.Vec{X: 50, Y: 50}); err == nil {
		t.Error("a flat sheet is popped")
	}
	if _, err := steps.Sink(st, geom.Vec{X: 0, Y: 0}, geom.LineAt(geom.Vec{Y: -5}, geom.Vec{X: 1}), 1); err == nil {
		t.Error("a line beside the paper sinks something")
	}
	if _, err := steps.Collapse(st, geom.Vec{X: -5}, nil, nil, 1); err == nil || fold.As(err).Code != fold.CodeOffPaper {
		t.Errorf("a fixed spot off the paper gives %v", err)
	}
	l := []steps.Line{{Seg: geom.Segment{A: geom.Vec{X: 50}, B: geom.Vec{X: 50}}}}
	if _, err := steps.Collapse(st, geom.Vec{X: 5, Y: 5}, l, nil, 1); err == nil || fold.As(err).Code != fold.CodeNoLine {
		t.Errorf("a crease without length gives %v", err)
	}
	if _, err := steps.Twist(s.Outline(), geom.Vec{X: 50, Y: 50}, 4, 90, 0, geom.Rad(50)); err == nil {
		t.Error("a twist larger than the paper is made")
	}
	if _, ok := steps.PetalLine([2]geom.Line{{N: geom.Vec{X: 1}}, {N: geom.Vec{X: 1}}}, [2]geom.Line{{N: geom.Vec{X: 1}}, {N: geom.Vec{X: 1}}}); ok {
		t.Error("parallel lines give a petal")
	}
	if _, ok := steps.SquashLines(geom.Segment{A: geom.Vec{X: 1}, B: geom.Vec{X: 9}}, geom.Line{N: geom.Vec{Y: 1}}, geom.Segment{}); ok {
		t.Error("a spine on its own line gives a squash")
	}
}

// Square to its spine a flap may be laid to either side: the stretch that is named says
// which, on exact paper and on paper that is a little off.
func TestSquashAtARightAngle(t *testing.T) {
	for _, off := range []float64{0, 1e-12, -1e-12, 1e-3, -1e-3, 0.02, -0.02} {
		for _, way := range []float64{1, -1} {
			spine := geom.Segment{B: geom.Vec{X: 10 * math.Sin(off), Y: 10 * math.Cos(off)}}
			onto := geom.Segment{B: geom.Vec{X: way * 10}}
			b, ok := steps.SquashLines(spine, geom.Line{N: geom.Vec{Y: 1}}, onto)
			if !ok || b.Mirror(spine.B).Dist(geom.Vec{X: way * 10}) > 1e-9 {
				t.Errorf("%v off, towards %v: laid to %v", off, way, b.Mirror(spine.B))
			}
		}
	}
}
