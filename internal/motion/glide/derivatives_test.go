package glide

import (
	"math"
	"testing"

	"tussock/internal/geom"
)

// halves marks the strips of a wing as right and left, with a lip of a given depth.
func halves(s []Strip, lip float64) []Strip {
	for i := range s {
		s[i].LipM = lip
		if s[i].Left.Lead.Y+s[i].Right.Lead.Y < 0 {
			s[i].Part = LeftWing
		}
	}
	return s
}

// delta is a pointed wing of a root chord of 1.
func delta(ar float64, strips int) []Strip {
	b := ar / 2
	s, _ := wing(b, strips, true, func(y float64) float64 { return 2 * math.Abs(y) / b }, func(y float64) float64 { return math.Max(1e-6, 1-2*math.Abs(y)/b) })
	return halves(s, 0)
}

func surface(t *testing.T, s []Strip, chordwise int) *Surface {
	t.Helper()
	q, ok := NewSurface(s, chordwise)
	if !ok {
		t.Fatal("no surface")
	}
	return q
}

// A slender delta in sideslip rolls with its lift: dClb/da = -pi/3, the torque of the
// wake's impulse at the side velocity.
func TestSlenderDeltaRollsInSideslip(t *testing.T) {
	d := surface(t, delta(0.1, 32), 10).Derivatives(geom.Vec3{})
	near(t, "roll from sideslip with lift", d.Clba, -math.Pi/3, 0.01)
}

// Polhamus: an elliptic wake, so Ki pi AR = 1, and a vortex factor of pi.
func TestSuctionOfDeltas(t *testing.T) {
	for _, ar := range []float64{0.1, 0.5, 1, 2} {
		s := surface(t, delta(ar, 32), 6)
		d := s.Derivatives(geom.Vec3{})
		near(t, "Ki pi AR", d.Ki*math.Pi*ar, 1, 0.02)
		sweep := math.Atan(4 / ar)
		near(t, "the vortex factor", (d.CNa-d.CNa*d.CNa*d.Ki)/math.Cos(sweep), math.Pi, 0.02)
	}
}

// Thin-aerofoil theory of a lip of a tenth of the chord: effect .396, moment about the
// quarter chord .540 per radian; six panels give some 11 % less.
func TestLipOfAnAerofoil(t *testing.T) {
	s, _ := wing(400, 2, false, flat, one)
	d := surface(t, halves(s, 0.1), 6).Derivatives(geom.Vec3{X: 0.25})
	near(t, "the effect of a lip", -d.CNd/d.CNa, 0.396, 0.12)
	near(t, "its moment", d.Cmd, 0.540, 0.12)
}

// Charts for straight wings: Clb of -.00023 per square degree at aspect ratio 6.
func TestDihedralOfARectangle(t *testing.T) {
	s, _ := wing(6, 24, true, flat, one)
	lift := func(e Edge) Edge {
		z := math.Abs(e.Lead.Y) * math.Tan(geom.Rad(5))
		e.Lead.Z, e.Trail.Z = z, z
		return e
	}
	for i := range s {
		s[i].Left, s[i].Right = lift(s[i].Left), lift(s[i].Right)
	}
	d := surface(t, halves(s, 0), 4).Derivatives(geom.Vec3{X: 0.25})
	near(t, "roll from sideslip for 5°", geom.Rad(d.Clb)/5, -0.00023, 0.10)
	if d.Clb >= 0 {
		t.Error("wings in a V must lift the side that the wind comes from")
	}
}

// finned is a swept wing with a keel below, for signs.
func finned() []Strip {
	s, _ := wing(0.2, 16, true, func(y float64) float64 { return 1.5 * math.Abs(y) }, func(y float64) float64 { return 0.2 - math.Abs(y) })
	s = halves(s, 0.01)
	for k := range 3 {
		z := func(k int) float64 { return -0.03 + 0.01*float64(k) }
		e := func(k int) Edge {
			return Edge{geom.Vec3{X: -2 * z(k), Z: z(k)}, geom.Vec3{X: 0.2, Z: z(k)}}
		}
		s = append(s, Strip{Left: e(k), Right: e(k + 1), FreeLeft: k == 0, Part: Keel, LipM: 0.01})
	}
	return s
}

// The signs as they are told to people.
func TestSignsOfBends(t *testing.T) {
	d := surface(t, finned(), 6).Derivatives(geom.Vec3{X: 0.11})
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
	s := surface(t, finned(), 6)
	a, b := s.Derivatives(geom.Vec3{X: 0.10, Z: 0.003}), s.Derivatives(geom.Vec3{X: 0.12, Z: 0.003})
	near(t, "the neutral point", a.NeutralM, b.NeutralM, 1e-9)
	near(t, "pitching moment", b.Cma-a.Cma, a.CNa*0.02/s.chordM, 1e-9)
	near(t, "roll", a.Clp, b.Clp, 1e-6)
	// Solved anew about the other point, by brute force: the strips moved instead.
	moved := finned()
	shift := func(e Edge) Edge { e.Lead.X -= 0.12; e.Trail.X -= 0.12; return e }
	for i := range moved {
		moved[i].Left, moved[i].Right = shift(moved[i].Left), shift(moved[i].Right)
	}
	c := surface(t, moved, 6).Derivatives(geom.Vec3{Z: 0.003})
	for _, q := range [][2]float64{{c.Cmq, b.Cmq}, {c.Cnr, b.Cnr}, {c.Clr, b.Clr}, {c.Cnp, b.Cnp}, {c.Clba, b.Clba}} {
		if math.Abs(q[0]-q[1]) > 1e-9+1e-6*math.Abs(q[1]) {
			t.Errorf("moved by the strips %v, by the point %v", q[0], q[1])
		}
	}
}
