package flight

import (
	"math"
	"testing"

	"tussock/internal/geom"
	"tussock/internal/motion/glide/air"
	"tussock/internal/motion/glide/air/airtest"
)

// sheetOf is a flat plate as a toy: strips, mass spread evenly, centre of mass at a
// part of the chord.
func plateToy(t *testing.T, chord, span, grams, com float64) *Model {
	t.Helper()
	s, _ := airtest.Wing(span, 16, true, airtest.Flat, func(float64) float64 { return chord })
	m := grams * 1e-3
	w := air.Weight{MassKg: m, CoM: geom.Vec3{X: com * chord}, Ixx: m * span * span / 12, Iyy: m * chord * chord / 12, Izz: m * (span*span + chord*chord) / 12}
	return NewModel(air.NewShape(airtest.Surface(t, airtest.Halves(s, 0.01), 6), plateCorners(chord, span)), w, air.Bends{})
}

func plateCorners(chord, span float64) []geom.Vec3 {
	var out []geom.Vec3
	for _, x := range []float64{0, chord} {
		for _, y := range []float64{-span / 2, span / 2} {
			out = append(out, geom.Vec3{X: x, Y: y})
		}
	}
	return out
}

func (m *Model) wind(attackDeg float64) (cl, cd float64) {
	cl, cd, _ = m.level(geom.Rad(attackDeg), air.FrictionSpeed)
	return cl, cd
}

func TestBlasius(t *testing.T) {
	airtest.Near(t, "both sides of a plate at Re 50,000", 2*(air.PlateFriction(5e4)-4.1/5e4), 0.01188, 1e-3)
}

// Hoerner: a square plate across the wind has 1.1 to 1.2.
func TestPlateAcrossTheWind(t *testing.T) {
	m := plateToy(t, 0.15, 0.15, 2, 0.5)
	if c := m.table.look(0, 1).cn; c < 1.1 || c > 1.2 {
		t.Errorf("its normal force is %v", c)
	}
	if c := m.table.look(0, -1).cn; c > -1.1 || c < -1.2 {
		t.Errorf("from above it is %v", c)
	}
}

// Plates in tunnels at small Reynolds numbers: greatest lift, by aspect ratio, to 20 %.
func TestGreatestLiftOfPlates(t *testing.T) {
	for _, c := range []struct{ ar, want, from, to float64 }{{1, 1.1, 30, 37}, {2, 0.85, 10, 45}, {3, 0.75, 8, 45}} {
		m := plateToy(t, 0.1, 0.1*c.ar, 1, 0.3)
		best := 0.0
		for a := c.from; a <= c.to; a += 0.5 {
			cl, _ := m.wind(a)
			best = math.Max(best, cl)
		}
		airtest.Near(t, "greatest lift", best, c.want, 0.20)
	}
}

// Joessel: the centre of pressure of a square plate goes from the front to the middle.
func TestCentreOfPressureTravels(t *testing.T) {
	m := plateToy(t, 0.15, 0.15, 2, 0)
	at := func(a float64) float64 {
		sin, cos := math.Sincos(geom.Rad(a))
		c := m.table.look(cos, sin)
		return -c.cm / c.cn
	}
	if x := at(1); x < 0.16 || x > 0.21 {
		t.Errorf("at small angles it lies at %v of the chord", x)
	}
	if x := at(90); math.Abs(x-0.5) > 0.03 {
		t.Errorf("across the wind it lies at %v", x)
	}
	last := 0.0
	for a := 1.0; a <= 90; a += 5 {
		if x := at(a); x < last-1e-6 {
			t.Errorf("it goes back at %v°", a)
		} else {
			last = x
		}
	}
}

func TestGlideRatioOfAPlate(t *testing.T) {
	m := plateToy(t, 0.125, 0.375, 3, 0.3) // Reynolds number 50,000 at 6 m/s
	best := 0.0
	for a := 1.0; a < 20; a += 0.25 {
		cl, cd := m.wind(a)
		best = math.Max(best, cl/cd)
	}
	if best < 5.5 || best > 9 {
		t.Errorf("its best glide ratio is %v", best)
	}
}

// Polhamus and wind tunnels: a delta of aspect ratio 1 at 20°, without suction.
func TestDeltaAtHighAngle(t *testing.T) {
	s := airtest.Delta(1, 32)
	h := air.NewShape(airtest.Surface(t, s, 6), nil)
	m := NewModel(h, air.Weight{MassKg: 1, CoM: geom.Vec3{X: 0.6}, Ixx: 1, Iyy: 1, Izz: 1}, air.Bends{})
	cl, _ := m.wind(20)
	airtest.Near(t, "lift at 20°", cl, 0.775, 0.08)
}

// The diamond angle and its inverse agree all the way round, and the table joins up at
// the back.
func TestDiamondAngle(t *testing.T) {
	for a := -math.Pi + 1e-9; a < math.Pi; a += 0.01 {
		sin, cos := math.Sincos(a)
		if got := angleOf(diamond(cos, sin)); math.Abs(got-a) > 1e-9 {
			t.Fatalf("%v comes back as %v", a, got)
		}
	}
	m := plateToy(t, 0.1, 0.2, 2, 0.3)
	a, b := m.table.look(-1, 1e-9), m.table.look(-1, -1e-9)
	if math.Abs(a.cn-b.cn) > 1e-3 || math.Abs(a.ca-b.ca) > 1e-3 {
		t.Errorf("from behind %+v and %+v", a, b)
	}
}
