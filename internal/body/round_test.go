package body_test

import (
	"math"
	"testing"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/foldtest"
	"tussock/internal/geom"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

func inRound(t *testing.T, text string) (*sequence.Replay, body.Pose) {
	t.Helper()
	r := foldtest.Fold(t, text)
	return r, body.Standing(r)
}

func corner(p body.Pose, at geom.Vec) geom.Vec3 {
	f := p.State.FacetsAtSheet(at)[0]
	return p.At[f].Apply(geom.Vec3{X: at.X, Y: at.Y})
}

// A quarter bend of radius 20 by hand: the straight part beyond it stands upright
// one radius up and one radius along.
func TestBendByHand(t *testing.T) {
	_, p := inRound(t, "sheet rect 50 200\ncrease through L R\nbend hcentre moving T angle 90 radius 20")
	near(t, "residual", p.Residual, 0, 1e-9)
	arc := 20 * math.Pi / 2
	top := corner(p, geom.Vec{X: 25, Y: 200})
	near(t, "z of the top edge", top.Z, 20+(100-arc), 0.1)
	near(t, "y of the top edge", top.Y, 100+20, 0.1)
	near(t, "mass", p.Weigh().G, 50*200*80e-6, 1e-9)
}

// A strip wrapped once round closes to a ring: its ends meet, its centre of mass
// lies in the ring's middle.
func TestWrapClosesARing(t *testing.T) {
	_, p := inRound(t, "sheet strip 200 20\ncrease through B T\nwrap left moving C girth 200")
	a, b := corner(p, geom.Vec{X: 0, Y: 10}), corner(p, geom.Vec{X: 200, Y: 10})
	near(t, "gap of the ring", a.Dist(b), 0, 0.5)
	m := p.Weigh()
	near(t, "height of the centre", m.CoM.Z, 100/math.Pi, 0.2)
	near(t, "place of the centre", m.CoM.X, 0, 0.6)
	near(t, "inertia about the ring's axis", m.Iyy, m.G*(100/math.Pi)*(100/math.Pi), m.G*(100/math.Pi)*(100/math.Pi)*0.01)
}

// A bend the other way is the mirror image; curling both layers of a folded strip
// leaves them together.
func TestBendsMirror(t *testing.T) {
	_, up := inRound(t, "sheet rect 50 200\ncrease through L R\nbend hcentre moving T angle 60 radius 10")
	_, down := inRound(t, "sheet rect 50 200\ncrease through L R\nbend hcentre moving T angle 60 radius 10 down")
	a, b := corner(up, geom.Vec{X: 25, Y: 200}), corner(down, geom.Vec{X: 25, Y: 200})
	near(t, "z", a.Z, -b.Z, 1e-9)
	near(t, "y", a.Y, b.Y, 1e-9)
	_, p := inRound(t, "sheet rect 100 200\nvalley bring left to right as f\ncurl hcentre moving TL angle 50 radius 15")
	near(t, "residual of two layers", p.Residual, 0, 1e-9)
	near(t, "layers stay together", corner(p, geom.Vec{X: 0, Y: 200}).Dist(corner(p, geom.Vec{X: 100, Y: 200})), 0, 1e-9)
}

// Leaves of a folded cross part to equal angles.
func TestLeavesPart(t *testing.T) {
	_, p := inRound(t, "sheet square 100\nvalley bring left to right as f\npart f into 4")
	a, b, c := corner(p, geom.Vec{X: 0, Y: 50}), corner(p, geom.Vec{X: 50, Y: 50}), corner(p, geom.Vec{X: 100, Y: 50})
	u, v := a.Sub(b).Unit(), c.Sub(b).Unit()
	near(t, "angle between the leaves", geom.Deg(math.Acos(u.Dot(v))), 90, 1e-9)
}

// A clip of known weight by hand: centre of mass of two weights.
func TestLoads(t *testing.T) {
	r, p := inRound(t, "sheet square 100\ncrease bring left to right as f\nclip T mass 0.8\ntape C size 20 10 mass 0.2")
	paper := 100 * 100 * 80e-6
	near(t, "mass", p.Weigh().G, paper+1, 1e-12)
	near(t, "CoM y", p.Weigh().CoM.Y, (paper*50+0.8*100+0.2*50)/(paper+1), 1e-9)
	f := body.Final(r)
	near(t, "the report says the same", f.CoM[1], p.Weigh().CoM.Y, 1e-9)
	near(t, "the report's mass", f.MassG, paper+1, 1e-12)
	if steps := body.Steps(r); steps[0].CoM[1] != 50 || steps[1].CoM[1] <= 50 {
		t.Errorf("the clip weighs from its own step on: %v, %v", steps[0].CoM, steps[1].CoM)
	}
}

// Layers that slide no longer close; the residual says by how much.
func TestPivotIsNotFlat(t *testing.T) {
	_, p := inRound(t, "sheet square 100\nvalley bring TL to C as f\npivot TL about L angle 3")
	if p.Residual < 0.5 || p.Residual > 6 {
		t.Errorf("sliding by 3° leaves %v mm", p.Residual)
	}
}

// The reference's flapping bird with its wings at right angles.
func TestBirdPoseReference(t *testing.T) {
	text := parsed(t, "bird").Text
	for _, c := range []struct {
		angle                              string
		x, y, ixx, iyy, izz, ixy, ixz, iyz float64
	}{
		{"180", 74.48925, 56.31119, 308.7376, 810.4060, 1119.1436, -98.3180, 0, 0},
		{"90", 74.48925, 57.34984, 410.6538, 842.9801, 1188.4858, -99.2729, 0, 0},
	} {
		_, p := inRound(t, text+"\nwing along wingA and wingB moving BL and TR angle "+c.angle)
		m := p.Weigh()
		near(t, "mass", m.G, 1.8, 1e-9)
		near(t, "residual", p.Residual, 0, 1e-9)
		near(t, "x", m.CoM.X, c.x, 1e-5)
		near(t, "y", m.CoM.Y, c.y, 1e-5)
		for i, q := range [][2]float64{{m.Ixx, c.ixx}, {m.Iyy, c.iyy}, {m.Izz, c.izz}, {m.Ixy, c.ixy}, {m.Ixz, c.ixz}, {m.Iyz, c.iyz}} {
			near(t, "inertia "+string(rune('0'+i))+" at "+c.angle, q[0], q[1], 1e-3)
		}
	}
}

// Paper wound three times round grows by its thickness each turn: the gauge, the paper
// that is used up, and how far out its end lies, by hand.
func TestWoundPaperGrows(t *testing.T) {
	p := foldtest.Parse(t, "sheet strip 330 20\ncrease through B T\nwrap left moving C girth 100")
	sh, err := sheet.New(330, 20, 80, 0.5)
	if err != nil {
		t.Fatal(err)
	}
	r := p.Run(sh, nil)
	if r.Err != nil {
		t.Fatal(r.Err)
	}
	var arcs []sequence.Arc
	used := 0.0
	for _, a := range r.Bends[0].Bent() {
		used += a.MM
		if a.RadiusMM() > 0 {
			arcs = append(arcs, a)
		}
	}
	near(t, "all paper is wound", used, 330, 1e-9)
	if len(arcs) != 4 {
		t.Fatalf("%d arcs: %v", len(arcs), arcs)
	}
	for i, a := range arcs {
		near(t, "radius", a.RadiusMM(), 100/(2*math.Pi)+0.5*float64(i), 1e-9)
		if i < 3 {
			near(t, "a whole turn", a.Deg, 360, 4)
		}
	}
	pose := body.Standing(r)
	if !pose.Sound() {
		t.Error(pose.Unsound())
	}
	// Every layer lies on a circle about the gauge, each a thickness further out.
	axis := geom.Vec3{Z: 100 / (2 * math.Pi)}
	most := 0.0
	for i := range pose.State.F {
		for _, c := range pose.Corners(fold.FacetID(i)) {
			most = math.Max(most, math.Hypot(c.X-axis.X, c.Z-axis.Z))
		}
	}
	near(t, "the outermost layer", most, arcs[3].RadiusMM(), 0.15)
}

// Halves that are wrapped round a finger from both sides lie on each other on two radii.
func TestWrapsFromBothSidesOverlap(t *testing.T) {
	r := toysToCome[0].on(t, 150, 150)
	first, second := r.Bends[0], r.Bends[1]
	radius := 55 / (2 * math.Pi)
	near(t, "radius of the tube", radius, 8.754, 5e-4)
	half := 75.8 / 2
	near(t, "how far each half goes round", first.AngleDeg, geom.Deg(half/radius), 0.01)
	near(t, "as printed", first.AngleDeg, 248, 0.5)
	var arcs []sequence.Arc
	for _, a := range second.Bent() {
		if a.RadiusMM() > 0 {
			arcs = append(arcs, a)
		}
	}
	if len(first.Bent()) != 1 || len(arcs) != 2 {
		t.Fatalf("%v, %v", first.Bent(), arcs)
	}
	near(t, "where the second half meets the first", arcs[0].Deg, 360-first.AngleDeg, 1e-6)
	layers := (arcs[1].RadiusMM() - radius) / r.Sheet.ThicknessMM
	near(t, "layers under it", layers, 4, 1e-9)
	near(t, "overlap", first.AngleDeg-(360-first.AngleDeg), 136, 1)
	// The centre of mass by the integral over the flat toy: paper at x from the axis comes
	// to lie R (1 - cos x/R) above it.
	flat := r.UpTo(9).Final()
	var sum, area float64
	for i := range flat.F {
		poly := flat.Folded(fold.FacetID(i))
		const n = 4000
		for k := range n {
			x := (float64(k) + 0.5) / n * 150
			l := geom.Line{N: geom.Vec{X: 1}, D: x}
			if s, ok := poly.ClipLine(l); ok {
				a := s.Len() * 150 / n
				area += a
				sum += a * radius * (1 - math.Cos((x-75)/radius))
			}
		}
	}
	near(t, "area", area, 150*150, 20)
	thin := foldtest.Toy(t, "finger-flapper")
	sh, err := sheet.New(150, 150, 80, 0.01)
	if err != nil {
		t.Fatal(err)
	}
	m := body.Standing(thin.Run(sh, nil)).Weigh()
	near(t, "height of the centre of mass", math.Abs(m.CoM.Z), sum/area, 0.02)
	near(t, "about as printed", sum/area, 9.1, 0.15)
	thick := body.Standing(r).Weigh()
	if up := math.Abs(thick.CoM.Z) - math.Abs(m.CoM.Z); up <= 0 || up > 1 {
		t.Errorf("thickness moves it by %v mm", up)
	}
}
