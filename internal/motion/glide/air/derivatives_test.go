package air_test

import (
	"math"
	"testing"

	"tussock/internal/geom"
	"tussock/internal/motion/glide/air"
	"tussock/internal/motion/glide/air/airtest"
)

// A slender delta in sideslip rolls with its lift: dClb/da = -pi/3, the torque of the
// wake's impulse at the side velocity.
func TestSlenderDeltaRollsInSideslip(t *testing.T) {
	d := airtest.Surface(t, airtest.Delta(0.1, 32), 10).Derivatives(geom.Vec3{})
	airtest.Near(t, "roll from sideslip with lift", d.Clba, -math.Pi/3, 0.01)
}

// Polhamus: an elliptic wake, so Ki pi AR = 1, and a vortex factor of pi.
func TestSuctionOfDeltas(t *testing.T) {
	for _, ar := range []float64{0.1, 0.5, 1, 2} {
		s := airtest.Surface(t, airtest.Delta(ar, 32), 6)
		d := s.Derivatives(geom.Vec3{})
		airtest.Near(t, "Ki pi AR", d.Ki*math.Pi*ar, 1, 0.02)
		sweep := math.Atan(4 / ar)
		airtest.Near(t, "the vortex factor", (d.CNa-d.CNa*d.CNa*d.Ki)/math.Cos(sweep), math.Pi, 0.02)
	}
}

// Thin-aerofoil theory of a lip of a tenth of the chord: effect .396, moment about the
// quarter chord .540 per radian; six panels give some 11 % less.
func TestLipOfAnAerofoil(t *testing.T) {
	s, _ := airtest.Wing(400, 2, false, airtest.Flat, airtest.One)
	d := airtest.Surface(t, airtest.Halves(s, 0.1), 6).Derivatives(geom.Vec3{X: 0.25})
	airtest.Near(t, "the effect of a lip", -d.CNd/d.CNa, 0.396, 0.12)
	airtest.Near(t, "its moment", d.Cmd, 0.540, 0.12)
}

// Charts for straight wings: Clb of -.00023 per square degree at aspect ratio 6.
func TestDihedralOfARectangle(t *testing.T) {
	s, _ := airtest.Wing(6, 24, true, airtest.Flat, airtest.One)
	lift := func(e air.Edge) air.Edge {
		z := math.Abs(e.Lead.Y) * math.Tan(geom.Rad(5))
		e.Lead.Z, e.Trail.Z = z, z
		return e
	}
	for i := range s {
		s[i].Left, s[i].Right = lift(s[i].Left), lift(s[i].Right)
	}
	d := airtest.Surface(t, airtest.Halves(s, 0), 4).Derivatives(geom.Vec3{X: 0.25})
	airtest.Near(t, "roll from sideslip for 5°", geom.Rad(d.Clb)/5, -0.00023, 0.10)
	if d.Clb >= 0 {
		t.Error("wings in a V must lift the side that the wind comes from")
	}
}

// finned is a swept wing with a keel below, for signs.
func finned() []air.Strip {
	s, _ := airtest.Wing(0.2, 16, true, func(y float64) float64 { return 1.5 * math.Abs(y) }, func(y float64) float64 { return 0.2 - math.Abs(y) })
	s = airtest.Halves(s, 0.01)
	for k := range 3 {
		z := func(k int) float64 { return -0.03 + 0.01*float64(k) }
		e := func(k int) air.Edge {
			return air.Edge{Lead: geom.Vec3{X: -2 * z(k), Z: z(k)}, Trail: geom.Vec3{X: 0.2, Z: z(k)}}
		}
		s = append(s, air.Strip{Left: e(k), Right: e(k + 1), Part: air.Keel, LipM: 0.01})
	}
	s[len(s)-3].FreeLeft = 1
	return s
}

// The signs as they are told to people.
func TestSignsOfBends(t *testing.T) {
	d := airtest.Surface(t, finned(), 6).Derivatives(geom.Vec3{X: 0.11})
	for name, ok := range map[string]bool{
		"tail edges up lift the nose":       d.Cmd > 0 && d.CNd < 0,
		"right edge up rolls to the right":  d.Clda > 0,
		"right nose up rolls to the left":   d.ClTw < 0,
		"keel tail right turns right":       d.CnRud > 0,
		"nose right turns right":            d.CnNos > 0,
		"rolling and pitching are damped":   d.Clp < 0 && d.Cmq < 0,
		"turning is damped":                 d.Cnr < 0,
		"a wind from the right pushes left": d.CYb < 0,
	} {
		if !ok {
			t.Errorf("not so: %s: %+v", name, d)
		}
	}
}

// Moving the point that moments are taken about is exact: derivatives about two points
// differ by force times arm, and the neutral point stays.
func TestDerivativesAboutAnotherPoint(t *testing.T) {
	s := airtest.Surface(t, finned(), 6)
	a, b := s.Derivatives(geom.Vec3{X: 0.10, Z: 0.003}), s.Derivatives(geom.Vec3{X: 0.12, Z: 0.003})
	airtest.Near(t, "the neutral point", a.NeutralM, b.NeutralM, 1e-9)
	airtest.Near(t, "pitching moment", b.Cma-a.Cma, a.CNa*0.02/s.ChordM, 1e-9)
	airtest.Near(t, "roll", a.Clp, b.Clp, 1e-6)
	// Solved anew about the other point, by brute force: the strips moved instead.
	moved := finned()
	shift := func(e air.Edge) air.Edge { e.Lead.X -= 0.12; e.Trail.X -= 0.12; return e }
	for i := range moved {
		moved[i].Left, moved[i].Right = shift(moved[i].Left), shift(moved[i].Right)
	}
	c := airtest.Surface(t, moved, 6).Derivatives(geom.Vec3{Z: 0.003})
	for _, q := range [][2]float64{{c.Cmq, b.Cmq}, {c.Cnr, b.Cnr}, {c.Clr, b.Clr}, {c.Cnp, b.Cnp}, {c.Clba, b.Clba}} {
		if math.Abs(q[0]-q[1]) > 1e-9+1e-6*math.Abs(q[1]) {
			t.Errorf("moved by the strips %v, by the point %v", q[0], q[1])
		}
	}
}
