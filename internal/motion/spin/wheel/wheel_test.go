package wheel_test

import (
	"math"
	"testing"

	"tussock/internal/motion/spin/wheel"
)

const deg = math.Pi / 180

func turbine(angle float64) wheel.Wheel {
	return wheel.Wheel{Blades: 4, Inner: 0.015, Outer: 0.045, Chord: 0.025, Angle: angle * deg, MassKg: 1e-3}
}

func breath(speed float64) wheel.Breath {
	return wheel.Breath{Mouth: 0.010, Speed: speed, Away: 0.080, Aim: 0.030}
}

func near(t *testing.T, what string, got, want, part float64) {
	t.Helper()
	if math.Abs(got-want) > part*math.Abs(want) {
		t.Errorf("%s: %.4g, want %.4g to %.0f %%", what, got, want, 100*part)
	}
}

// Rates under a breath and its torque at the start, against a blade element model with
// induction.
func TestBreath(t *testing.T) {
	for _, c := range []struct{ speed, angle, rpm, tol float64 }{{5, 30, 191, 0.08}, {10, 30, 436, 0.08}, {15, 30, 668, 0.08}, {5, 60, 130, 0.08}, {10, 60, 291, 0.08}, {15, 60, 444, 0.08}, {10, 15, 568, 0.10}, {10, 20, 519, 0.10}} {
		rate, ok := turbine(c.angle).Turns(breath(c.speed), 0.5e-3) // a pin 1 mm thick
		if !ok {
			t.Fatalf("%+v does not start", c)
		}
		near(t, "rpm", rate*30/math.Pi, c.rpm, c.tol)
	}
	for _, c := range []struct{ speed, angle, torque float64 }{{5, 30, 1.10e-5}, {10, 30, 4.38e-5}, {15, 30, 9.86e-5}, {10, 60, 5.8e-5}} {
		near(t, "start", turbine(c.angle).Blown(breath(c.speed), 0, 0), c.torque, 0.10)
	}
	// A jet brings no more than its momentum on a flat blade.
	if q, most := turbine(30).Blown(breath(10), 0, 0), 1.2*math.Pi*0.01*0.01/4*100*0.03*math.Sin(60*deg)/2; q > most {
		t.Errorf("%v N m of at most %v", q, most)
	}
}

// Tips over wind without load, and the fall of a pinwheel.
func TestWindAndFall(t *testing.T) {
	for angle, tips := range map[float64]float64{5: 3.3, 10: 4.0, 20: 3.06, 30: 2.12, 45: 1.28, 60: 0.76, 75: 0.36} {
		got, _ := turbine(angle).Free()
		near(t, "tips over wind", got, tips, 0.08)
	}
	for _, c := range []struct{ angle, speed, rpm float64 }{{10, 1.40, 1196}, {20, 2.01, 1302}, {30, 2.49, 1118}} {
		w := wheel.Wheel{Blades: 5, Inner: 0.015, Outer: 0.045, Chord: 0.020, Angle: c.angle * deg, MassKg: 0.66e-3}
		v, rate := w.Falls()
		near(t, "falls", v, c.speed, 0.12)
		near(t, "rpm", rate*30/math.Pi, c.rpm, 0.12)
	}
}

// Trends with sign and order, and limits.
func TestTrends(t *testing.T) {
	last := math.Inf(1)
	for _, angle := range []float64{20, 30, 45, 60, 75} {
		rate, ok := turbine(angle).Turns(breath(10), 0.5e-3)
		if !ok || rate >= last {
			t.Errorf("%v°: %v rad/s after %v", angle, rate, last)
		}
		last = rate
	}
	start := func(angle float64) float64 { return turbine(angle).Blown(breath(10), 0, 0) }
	best, at := 0.0, 0.0
	for a := 1.0; a < 90; a++ {
		if q := start(a); q > best {
			best, at = q, a
		}
	}
	if at < 45 || at > 60 || math.Abs(start(0.01)) > best*0.035 || math.Abs(start(89.99)) > best/50 {
		t.Errorf("starts best at %v°, %v of it at 0 and %v at 90", at, start(0.01)/best, start(89.99)/best)
	}
	if _, ok := turbine(30).Turns(breath(1), 8e-3); ok {
		t.Error("a whisper turns a wheel on a thick pin")
	}
	// Falls go with the root of mass over area, whatever the size.
	w := wheel.Wheel{Blades: 5, Inner: 0.015, Outer: 0.045, Chord: 0.02, Angle: 20 * deg, MassKg: 0.66e-3}
	v, rate := w.Falls()
	heavy := w
	heavy.MassKg *= 4
	v2, rate2 := heavy.Falls()
	large := wheel.Wheel{Blades: 5, Inner: 0.03, Outer: 0.09, Chord: 0.04, Angle: 20 * deg, MassKg: 0.66e-3}
	v3, rate3 := large.Falls()
	near(t, "four times the mass", v2/v, 2, 1e-9)
	near(t, "four times the mass", rate2/rate, 2, 1e-9)
	near(t, "twice the size", v3/v, 0.5, 1e-9)
	near(t, "twice the size", rate3/rate, 0.25, 1e-9)
	_, thrust := w.Free()
	if thrust > 1.14 || thrust < 0.2 {
		t.Errorf("thrust coefficient %v", thrust)
	}
}
