package hump_test

import (
	"math"
	"testing"

	"tussock/internal/motion/flap/hump"
	"tussock/internal/sheet"
)

const deg = math.Pi / 180

// The angles of the square bird's wings and their slopes, to the digits that are known.
func TestWingsOfTheSquareBird(t *testing.T) {
	for phi, want := range map[float64]float64{2.5: 16.806, 5: 23.605, 10: 32.955, 15: 39.886, 20: 45.556, 30: 54.736, 45: 65.530, 60: 74.458} {
		lam, ok := hump.Square.Wing(phi * deg)
		if !ok || math.Abs(lam/deg-want) > 6e-4 {
			t.Errorf("phi %v: %v, want %v", phi, lam/deg, want)
		}
		// cos λ = tan(45° - φ/2) for a square.
		if c := math.Tan((45 - phi/2) * deg); math.Abs(math.Cos(lam)-c) > 1e-12 {
			t.Errorf("phi %v: cos λ %v, want %v", phi, math.Cos(lam), c)
		}
	}
	if lam, ok := hump.Square.Wing((90 - 1e-7) * deg); !ok || math.Abs(lam/deg-90) > 1e-3 {
		t.Errorf("flat: %v %v", lam/deg, ok)
	}
	for phi, want := range map[float64]float64{5: 2.297, 10: 1.566, 20: 1.044, 45: 0.644, 89.999: 0.5} {
		s, ok := hump.Square.Slope(phi * deg)
		if !ok || math.Abs(s-want) > 6e-4 {
			t.Errorf("slope at %v: %v, want %v", phi, s, want)
		}
		const h = 1e-6
		a, _ := hump.Square.Wing(phi*deg - h)
		b, _ := hump.Square.Wing(phi*deg + h)
		if phi < 80 && math.Abs(s-(b-a)/(2*h)) > 1e-6 {
			t.Errorf("slope at %v: %v, by differences %v", phi, s, (b-a)/(2*h))
		}
	}
	// The other sense: sectors that make the wings rise as it is pulled, and an end.
	other := hump.Vertex{Sigma: 0, Sector: 22.5 * deg}
	for phi, want := range map[float64]float64{0: 22.5, 10: 20.260, 20: 10.526} {
		if lam, ok := other.Wing(phi * deg); !ok || math.Abs(lam/deg-want) > 6e-4 {
			t.Errorf("other, phi %v: %v, want %v", phi, lam/deg, want)
		}
	}
	if _, ok := other.Wing(30 * deg); ok {
		t.Error("paper reaches where it cannot")
	}
}

// The same linkage built in space: ridges at ±φ in the plane of symmetry, the edges of a
// wing's sector tilted out by λ, every sector as wide as on the flat sheet.
func TestSectorsKeepTheirWidth(t *testing.T) {
	for _, v := range []hump.Vertex{hump.Square, {Sigma: 30 * deg, Sector: 50 * deg}, {Sigma: 20 * deg, Sector: 35 * deg}} {
		for phi := 3.0; phi < 70; phi += 7 {
			lam, ok := v.Wing(phi * deg)
			if !ok {
				continue
			}
			// From shut, straight down, a wing's middle lies λ out; its edges are σ before and
			// behind it.
			edge := [3]float64{math.Sin(v.Sigma), math.Cos(v.Sigma) * math.Sin(lam), math.Cos(v.Sigma) * math.Cos(lam)}
			ridge := [3]float64{math.Sin(phi * deg), 0, math.Cos(phi * deg)}
			dot := edge[0]*ridge[0] + edge[1]*ridge[1] + edge[2]*ridge[2]
			if g := math.Acos(dot); math.Abs(g-v.Sector) > 1e-9 {
				t.Errorf("%+v at %v: the sector between is %v, want %v", v, phi, g/deg, v.Sector/deg)
			}
		}
	}
}

// Two flat-foldable vertices; the folds close: the product of the turns about the creases
// is none.
func TestFlatVertexOfFour(t *testing.T) {
	for opposed, want := range map[bool]float64{false: -127.36, true: -28.35} {
		r := hump.Flat4(50*deg, 80*deg, 60*deg, opposed)
		if math.Abs(r[1]/deg-want) > 0.006 {
			t.Errorf("opposed %v: %v, want %v", opposed, r[1]/deg, want)
		}
		sectors := [4]float64{50 * deg, 80 * deg, 130 * deg, 100 * deg}
		m := [3][3]float64{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}
		for i := range 4 {
			m = mul(m, turn(0, r[i]))
			m = mul(m, turn(2, sectors[i]))
		}
		for i := range 3 {
			for j := range 3 {
				want := 0.0
				if i == j {
					want = 1
				}
				if math.Abs(m[i][j]-want) > 1e-12 {
					t.Errorf("opposed %v does not close: %v", opposed, m)
				}
			}
		}
	}
}

func mul(a, b [3][3]float64) (c [3][3]float64) {
	for i := range 3 {
		for j := range 3 {
			for k := range 3 {
				c[i][j] += a[i][k] * b[k][j]
			}
		}
	}
	return c
}

func turn(axis int, by float64) (m [3][3]float64) {
	s, c := math.Sincos(by)
	i, j := (axis+1)%3, (axis+2)%3
	m[axis][axis], m[i][i], m[j][j], m[i][j], m[j][i] = 1, c, c, -s, s
	return m
}

// A pull of 10 and 20 mm at 50 mm from the hump, wings of 75 mm.
func TestPulls(t *testing.T) {
	for _, c := range []struct{ phi0, pull, swing, tip float64 }{{5, 10, 10.5, 13.7}, {5, 20, 18.0, 23.5}, {2, 10, 14.1, 0}, {2, 20, 22.9, 0}, {10, 10, 7.8, 0}, {10, 20, 14.1, 0}} {
		a, _ := hump.Square.Wing(c.phi0 * deg)
		b, ok := hump.Square.Wing(hump.Opened(c.phi0*deg, c.pull/1e3, 0.05))
		if !ok || math.Abs((b-a)/deg-c.swing) > 0.06 {
			t.Errorf("%+v: swing %v", c, (b-a)/deg)
		}
		if tip := 1e3 * hump.Tip(0.075, a, b); c.tip > 0 && math.Abs(tip-c.tip) > 0.06 {
			t.Errorf("%+v: tip %v mm", c, tip)
		}
	}
	// Work done on the tail comes out at the tips: force times way, exactly in the small.
	k, ok := hump.Square.Advantage(20*deg, 0.075, 0.05)
	const h = 1e-7
	a, _ := hump.Square.Wing(20 * deg)
	b, _ := hump.Square.Wing(20*deg + h)
	if tip, tail := 0.075*(b-a), 2*0.05*h; !ok || math.Abs(k-tip/tail) > 1e-5 {
		t.Errorf("advantage %v, ways %v", k, tip/tail)
	}
	if f := hump.Shut(4, 1e-4, 0.02); math.Abs(f-0.02*0.02/2) > 1e-12 {
		t.Errorf("shut at %v", f)
	}
}

// Wings of one layer, 70 mm long: their own beat and how far they hang.
func TestWingsBend(t *testing.T) {
	for _, c := range []struct{ gsm, mm, hz, droop float64 }{{65, 0.08, 5.2, 14}, {80, 0.104, 7.0, 7.9}, {120, 0.15, 9.9, 3.9}} {
		b := sheet.Bending(sheet.Ordinary, c.mm)
		if f := hump.Frequency(b, c.gsm/1e3, 0.07); math.Abs(f-c.hz) > 0.03*c.hz {
			t.Errorf("%v g/m² beats at %v Hz, want %v", c.gsm, f, c.hz)
		}
		if d := 1e3 * hump.Droop(b, c.gsm/1e3, 0.07); math.Abs(d-c.droop) > 0.08*c.droop {
			t.Errorf("%v g/m² hangs %v mm, want %v", c.gsm, d, c.droop)
		}
	}
	if g, ok := hump.Gain(2, 7); !ok || g <= 1 || g > 1.1 {
		t.Errorf("gain %v", g)
	}
	if _, ok := hump.Gain(5, 7); ok {
		t.Error("a gain is told near the wing's own beat")
	}
}
