package body_test

import (
	"math"
	"testing"

	"tussock/internal/body"
	"tussock/internal/foldtest"
	"tussock/internal/geom"
	"tussock/internal/sequence"
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
