package wheel_test

import (
	"math"
	"math/cmplx"
	"math/rand/v2"
	"slices"
	"testing"

	"tussock/internal/motion/spin/wheel"
)

func pinwheel(angle float64) wheel.Wheel {
	return wheel.Wheel{Blades: 5, Inner: 0.015, Outer: 0.045, Chord: 0.020, Angle: angle * deg, MassKg: 0.66e-3}
}

// A fall of 2 m out of the hand: it has not settled, and says so by its numbers.
func TestDrop(t *testing.T) {
	for _, c := range []struct{ angle, speed, rpm float64 }{{10, 1.37, 523}, {20, 1.65, 862}, {30, 2.11, 876}} {
		w := pinwheel(c.angle)
		path := w.Polar().Drop(2, w.Inertia(), 1)
		end := path[len(path)-1]
		near(t, "speed after 2 m", end.Speed, c.speed, 0.15)
		near(t, "rpm after 2 m", end.Rate*30/math.Pi, c.rpm, 0.15)
		// Long enough, it settles where the steady law has it.
		long := w.Polar().Drop(60, w.Inertia(), 1)
		v, rate := w.Falls()
		near(t, "settled", long[len(long)-1].Speed, v, 0.02)
		near(t, "settled", long[len(long)-1].Rate, rate, 0.02)
		last := wheel.Moment{}
		for _, m := range path {
			if m.Fallen < last.Fallen || m.Speed < 0 || m.Rate < 0 || m.T < last.T {
				t.Fatalf("%+v after %+v", m, last)
			}
			last = m
		}
		// It never falls faster than a stone, and by energy never as fast as without air.
		if end.T < math.Sqrt(2*2/9.81) || end.Speed > math.Sqrt(2*9.81*2) {
			t.Errorf("%+v", end)
		}
	}
}

// In a wind: without friction the law of the free wheel; friction slows, a thick pin holds.
func TestWindOnAPin(t *testing.T) {
	w := turbine(30)
	tips, _ := w.Free()
	free, ok := w.Polar().Turns(3, 0)
	if !ok {
		t.Fatal("does not start")
	}
	near(t, "no friction", free, tips*3/w.Outer, 0.01)
	last := free
	for _, pin := range []float64{0.5e-3, 2e-3, 5e-3} {
		rate, ok := w.Polar().Turns(3, pin)
		if !ok || rate >= last {
			t.Errorf("pin %v: %v after %v", pin, rate, last)
		}
		last = rate
	}
	if _, ok := w.Polar().Turns(0.3, 8e-3); ok {
		t.Error("a breeze turns it on a thick pin")
	}
	// Blown twice as hard it turns twice as fast, without friction.
	twice, _ := w.Polar().Turns(6, 0)
	near(t, "twice the wind", twice/free, 2, 0.01)
}

// A brute-force check in steps of its own: annuli with an induction each, found by
// fixed-point iteration, instead of one for the whole wheel.
func annuli(w wheel.Wheel) (tips float64) {
	const rho, n = 1.2, 40
	torque := func(lambda float64) float64 {
		sum := 0.0
		dr := (w.Outer - w.Inner) / n
		for i := range n {
			r := w.Inner + (float64(i)+0.5)*dr
			omega := lambda / w.Outer
			a := 0.0
			var q float64
			for range 400 {
				u := 1 - a
				v2 := u*u + omega*omega*r*r
				alpha := math.Atan2(u, omega*r) - w.Angle
				cn := 0.0
				if s := math.Sin(alpha); s != 0 {
					cn = math.Copysign(1/(0.222+0.283/math.Abs(s)), s)
				}
				half := rho / 2 * v2 * w.Chord * float64(w.Blades) * dr
				thrust := half * (cn*math.Cos(w.Angle) + 0.03*math.Sin(w.Angle))
				q = half * (cn*math.Sin(w.Angle) - 0.03*math.Cos(w.Angle)) * r
				ct := thrust / (rho / 2 * 2 * math.Pi * r * dr)
				next := 0.4
				if ct < 0.96 {
					next = (1 - math.Sqrt(math.Max(0, 1-ct))) / 2
				} else {
					next = 0.4 + (ct-0.96)/0.57
				}
				a += 0.05 * (math.Max(-0.5, math.Min(0.95, next)) - a)
			}
			sum += q
		}
		return sum
	}
	lo, hi := 0.05, 8.0
	for range 30 {
		if mid := (lo + hi) / 2; torque(mid) > 0 {
			lo = mid
		} else {
			hi = mid
		}
	}
	return lo
}

func TestOneInductionAgainstAnnuli(t *testing.T) {
	for _, w := range []wheel.Wheel{turbine(30), turbine(45), pinwheel(30),
		{Blades: 8, Inner: 0.025, Outer: 0.05, Chord: 0.015, Angle: 35 * deg, MassKg: 1e-3}} {
		got, _ := w.Free()
		near(t, "tips over wind", got, annuli(w), 0.10)
	}
}

// Equal blades cancel; one that stands off or weighs more does what the law says; a blade
// that lies the other way costs two of n.
func TestBlades(t *testing.T) {
	for n := 2; n <= 12; n++ {
		at := wheel.Angles(slices.Repeat([]float64{5}, n))
		if u := cmplx.Abs(wheel.Uneven(1, 1, at)); u > 1e-12 {
			t.Errorf("%d blades: %v", n, u)
		}
		at[n/2] += 5 * deg
		near(t, "5° off", cmplx.Abs(wheel.Uneven(1, 1, at)), 2*math.Sin(2.5*deg), 1e-9)
		near(t, "5° off, as the table has it", cmplx.Abs(wheel.Uneven(1, 1, at)), 0.0872, 1e-3)
	}
	for n := 3; n <= 8; n++ {
		w := wheel.Wheel{Blades: n, Inner: 0.015, Outer: 0.045, Chord: 0.02, Angle: 40 * deg, MassKg: 1e-3}
		all := w.Torque(3, 0)
		one := w
		one.Blades = 1
		other := one
		other.Angle = -one.Angle
		near(t, "one reversed", (all-one.Torque(3, 0)+other.Torque(3, 0))/all, 1-2/float64(n), 0.05) // friction of the faces goes on holding
	}
}

// Counting folds between blades: the worked example, and a thousand uneven wheels evened out
// by hands that count to half folds and miss by a quarter of one.
func TestEvenOut(t *testing.T) {
	gaps := []float64{3.5, 5, 5.5, 6, 5}
	mean, _ := wheel.Gaps(gaps)
	moves := wheel.Even(gaps, 0.25)
	if mean != 5 || len(moves) == 0 || len(moves) > 4 || moves[0].Gaps[0] <= 3.5 {
		t.Errorf("mean %v, %+v", mean, moves)
	}
	if _, s := wheel.Gaps(moves[len(moves)-1].Gaps); s > 0.25 {
		t.Errorf("ends at %v", moves[len(moves)-1].Gaps)
	}
	r := rand.New(rand.NewPCG(3, 9))
	var spreads []float64
	for range 1000 {
		n := 3 + r.IntN(6)
		real := make([]float64, n)
		for i := range real {
			real[i] = 5
		}
		for i := range real { // every blade stands somewhere about its place
			real = wheel.Moved(real, i, 1.2*r.NormFloat64())
		}
		for move := 0; move < n-1; move++ {
			counted := make([]float64, n)
			for i, g := range real {
				counted[i] = math.Max(0, math.Round(2*g)/2)
			}
			next := wheel.Even(counted, 0.25)
			if len(next) == 0 {
				break
			}
			real = wheel.Moved(real, next[0].Blade, next[0].By+0.25*r.NormFloat64())
		}
		_, s := wheel.Gaps(real)
		spreads = append(spreads, s)
		// Exact hands need no more moves than blades less one.
		if all := wheel.Even(real, 1e-9); len(all) > n-1 {
			t.Fatalf("%d moves for %d blades", len(all), n)
		} else if len(all) > 0 {
			if _, s := wheel.Gaps(all[len(all)-1].Gaps); s > 1e-9 {
				t.Fatalf("%v is left of %v", all[len(all)-1].Gaps, real)
			}
		}
	}
	slices.Sort(spreads)
	t.Logf("spread: median %.2f, nine of ten under %.2f folds", spreads[500], spreads[900])
	if spreads[500] >= 0.5 {
		t.Errorf("median spread %v folds", spreads[500])
	}
}

// An uneven wheel: stalls, rattles and leans as the worked numbers say.
func TestUneven(t *testing.T) {
	for e, rpm := range map[float64]float64{0.2: 2115, 0.5: 1338, 1: 946} {
		near(t, "rattles", wheel.Rattles(1e-3*e*1e-3, 1e-3)*30/math.Pi, rpm, 0.01)
	}
	for speed, most := range map[float64]float64{5: 0.75, 10: 3.9} {
		w := turbine(30)
		start := w.Blown(breath(speed), 0.5e-3, 0)
		if wheel.Stalls(0.8*most*1e-6, start) || !wheel.Stalls(1.3*most*1e-6, start) {
			t.Errorf("at %v m/s a wheel stalls from %v g·mm on, not %v", speed, start/9.81*1e6, most)
		}
	}
	i := 137.7e-9
	near(t, "leans at 1200 rpm", wheel.Wobbles(1e-6, 1200*math.Pi/30, i, 0.58*i)/deg, 0.6, 0.5)
	if a, b := wheel.Wobbles(1e-6, 20, i, i/2), wheel.Wobbles(1e-6, 120, i, i/2); a < 30*b {
		t.Errorf("a slow wheel leans by %v, a fast one by %v", a, b)
	}
}
