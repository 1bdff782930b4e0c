package leap

import (
	"math"
	"testing"

	"tussock/internal/sheet"
)

// bare is a toy as a table of cases describes it: a sheet, a pleat, nothing else.
type bare struct {
	w, h, gsm, t      float64 // sheet, mm and g/m²
	crease, b, c, len float64 // mm
	n                 int
	radius            float64 // mm
	rest              float64 // deg; 0 for what the radius gives
}

func (q bare) toy() Toy {
	rest := q.rest
	if rest == 0 {
		rest = sheet.RestOpening(q.n, q.t, q.radius)
	}
	k := sheet.StackFactor(float64(q.n), 0) * sheet.WithPanel(sheet.CreaseStiffness(sheet.Ordinary, q.t, q.radius), q.b, q.radius) * q.crease / 1e3
	c := Crease{k, rest * math.Pi / 180, float64(q.n) * q.crease / 1e3 * sheet.PlasticMoment(q.t), sheet.CreaseReturn(q.radius)}
	return Toy{MassKg: q.w * q.h * q.gsm * 1e-9, BodyShare: 0.8, BodyM: q.len / 1e3, CoMAhead: 0.45 * q.len / 1e3, Gyration: 0.29 * q.len / 1e3, NoseUpM: 0.002,
		MiddleM: q.b / 1e3, FootM: q.c / 1e3, WidthM: q.crease / 1e3, PlanM2: q.crease * q.len * 1e-6, Layers: float64(q.n), ThickM: q.t / 1e3, Hip: c, Catch: c}
}

// kami is a thin 1:2 sheet, the hopper that the others are compared with.
func kami(radius float64) bare {
	return bare{w: 75, h: 150, gsm: 65, t: 0.08, crease: 37.5, b: 12, c: 12, len: 60, n: 6, radius: radius}
}

func card(radius float64) bare {
	return bare{w: 50, h: 100, gsm: 160, t: 0.195, crease: 25, b: 10, c: 10, len: 40, n: 4, radius: radius}
}

var wood = Trial{Friction: 0.9}

func near(t *testing.T, what string, got, want, part float64) {
	t.Helper()
	if math.Abs(got-want) > part*math.Abs(want) {
		t.Errorf("%s is %.4g, want %.4g to %.0f %%", what, got, want, 100*part)
	}
}

// Cases with all inputs printed: energy, speed, length and height. Where the table
// rounds to 1 cm, half of that is allowed for.
func TestCases(t *testing.T) {
	for _, q := range []struct {
		name                          string
		bare                          bare
		mJ, vx, vy, cmLong, cmHigh, n float64
	}{
		{"A", kami(0.2), 0.68, 0.22, 0.57, 2, 2, 0},
		{"B", kami(1), 4.3, 0.52, 1.31, 11, 8, 2.0},
		{"C", kami(2), 15.8, 0.89, 2.37, 26, 21, 4.6},
		{"D", bare{w: 37.5, h: 75, gsm: 65, t: 0.08, crease: 18.75, b: 6, c: 6, len: 30, n: 6, radius: 1}, 0, 0.83, 1.86, 22, 14, 0},
		{"E", bare{w: 105, h: 210, gsm: 80, t: 0.104, crease: 52.5, b: 15, c: 15, len: 84, n: 6, radius: 1}, 0, 0, 0, 11, 9, 1.4},
		{"G", card(1), 0, 0, 0, 28, 19, 0},
		{"F", card(2), 0, 0, 0, 74, 50, 0},
	} {
		a := q.bare.toy().Leap(wood)
		for _, v := range []struct {
			what           string
			got, want, rag float64
		}{{"stored mJ", a.StoredJ * 1e3, q.mJ, 0}, {"vx", a.Vx, q.vx, 0.005}, {"vy", a.Vy, q.vy, 0.005}, {"length cm", a.LengthM * 100, q.cmLong, 0.5}, {"height cm", a.HeightM * 100, q.cmHigh, 0.5}, {"half flips", a.HalfFlips, q.n, 0.05}} {
			if v.want != 0 && math.Abs(v.got-v.want) > 0.1*v.want+v.rag {
				t.Errorf("%s: %s is %.3f, the table has %.3f", q.name, v.what, v.got, v.want)
			}
		}
		if a.T < 1e-3 || a.T > 10e-3 {
			t.Errorf("%s: the push takes %.1f ms", q.name, a.T*1e3)
		}
		if v := math.Hypot(a.Vx, a.Vy); v < 0.6 && q.name != "A" || v > 4.1 {
			t.Errorf("%s: takes off at %.2f m/s", q.name, v)
		}
	}
}

// A foot that starts from rest, without the finger's push and without air, leaves inside
// the cone of friction.
func TestConeOfFriction(t *testing.T) {
	for _, mu := range []float64{0.2, 0.4, 0.8} {
		a := kami(1).toy().Leap(Trial{Friction: mu, Vacuum: true})
		if a.Vx/a.Vy > mu || a.LengthM/a.HeightM > 4*mu*1.01 {
			t.Errorf("at friction %.1f: %.3f, L/H %.3f", mu, a.Vx/a.Vy, a.LengthM/a.HeightM)
		}
	}
}

// On ice nothing moves along the table as a whole, and no energy is lost or won.
func TestMomentumAndEnergyAreKept(t *testing.T) {
	for _, r := range []float64{0.2, 1, 2} {
		toy := kami(r).toy()
		toy.Hip.Most, toy.Catch.Most = math.Inf(1), math.Inf(1)
		l := toy.Launch(Trial{NoNose: true}, nil)
		if math.Abs(l.Vx) > 1e-3 {
			t.Errorf("radius %.1f: drifts at %.5f m/s", r, l.Vx)
		}
		if math.Abs(l.LostPart) > 1e-4 {
			t.Errorf("radius %.1f: energy drifts by %.2e", r, l.LostPart)
		}
	}
}

// Through the air without drag the spin and the speed along stay what they were.
func TestVacuumFlight(t *testing.T) {
	toy := kami(1).toy()
	tr := Trial{Friction: 0.9, Vacuum: true}
	l := toy.Launch(tr, nil)
	a := toy.Fly(l, tr, 0)
	near(t, "height", a.HeightM-l.Up, l.Vy*l.Vy/(2*Gravity), 1e-3)
	near(t, "length", a.LengthM, 2*l.Vx*l.Vy/Gravity, 1e-3)
	near(t, "half flips", a.HalfFlips, math.Abs(l.Spin)*a.TimeS/math.Pi, 1e-6)
}

// rise is the height of a vertical throw with drag: (l/2) ln(1 + v²/(g l)), exact.
func rise(vy, dragLength float64) float64 {
	return dragLength / 2 * math.Log(1+vy*vy/(Gravity*dragLength))
}

// A vertical throw with quadratic drag has a closed form.
func TestRise(t *testing.T) {
	near(t, "1.31", rise(1.31, 0.725), 0.0784, 2e-3)
	near(t, "2.37", rise(2.37, 0.725), 0.2110, 2e-3)
	toy := kami(1).toy()
	a := toy.Fly(Launch{Vy: 2, Left: true, Inertia: 1}, wood, 0)
	near(t, "flown", a.HeightM, rise(2, toy.dragLength()), 2e-3)
}

// Pure creases and thin pleats: energy grows with size, mass with its square, so that
// without air height falls with size, and height in body lengths with its square.
func TestScale(t *testing.T) {
	leap := func(s float64) (Toy, Arc) {
		q := bare{w: 75 * s, h: 150 * s, gsm: 65, t: 0.08, crease: 37.5 * s, b: 12 * s, c: 12 * s, len: 60 * s, n: 1, rest: 100, radius: 1}
		toy := q.toy()
		toy.Hip.Stiffness, toy.Catch.Stiffness = 0.02*s, 0.02*s // stiff enough that weight is nothing
		toy.Hip.Most, toy.Catch.Most = 1, 1
		toy.ThickM, toy.NoseUpM = 0, 0
		tr := wood
		tr.Vacuum, tr.NoNose = true, true
		return toy, toy.Leap(tr)
	}
	t1, a1 := leap(1)
	for _, s := range []float64{0.5, 2} {
		t2, a2 := leap(s)
		near(t, "energy", a2.StoredJ/a1.StoredJ, s, 1e-6)
		near(t, "mass", t2.MassKg/t1.MassKg, s*s, 1e-9)
		near(t, "height", a2.HeightM/a1.HeightM, 1/s, 0.05)
		near(t, "height over size", a2.HeightM/t2.BodyM/(a1.HeightM/t1.BodyM), 1/(s*s), 0.05)
	}
}

// The other way round everything is mirrored.
func TestMirrored(t *testing.T) {
	f := kami(1).toy()
	b := f
	b.Backward = true
	x, y := f.Leap(wood), b.Leap(wood)
	if x.LengthM <= 0 || y.LengthM != -x.LengthM || y.Spin != -x.Spin || y.HeightM != x.HeightM {
		t.Errorf("%+v against %+v", x, y)
	}
	if x.Spin >= 0 {
		t.Errorf("a leap forward tips nose down, not %v", x.Spin)
	}
}

// What folders know: trends with their order and about their size.
func TestTrends(t *testing.T) {
	high := func(q bare) float64 { return q.toy().Leap(wood).HeightM * 100 }
	long := func(q bare, tr Trial) float64 { return q.toy().Leap(tr).LengthM * 100 }
	rising := func(what string, v ...float64) {
		t.Helper()
		for i := 1; i < len(v); i++ {
			if v[i] <= v[i-1] {
				t.Errorf("%s: %.2f", what, v)
			}
		}
	}
	// Weight at the same radius: 11, 15, 21, 27 cm.
	var l []float64
	for _, p := range [][2]float64{{65, 0.08}, {80, 0.104}, {120, 0.15}, {160, 0.195}} {
		q := kami(1)
		q.gsm, q.t = p[0], p[1]
		l = append(l, long(q, wood))
	}
	rising("weight", l...)
	for i, want := range []float64{11, 15, 21, 27} {
		near(t, "length by weight", l[i], want, 0.10)
	}
	// Layers: 3, 6, 8, 11 cm.
	var h []float64
	for _, n := range []int{2, 4, 6, 8} {
		q := kami(1)
		q.n = n
		h = append(h, high(q))
	}
	rising("layers", h...)
	near(t, "eight layers", h[3], 11, 0.10)
	// Pressed less far: 7.7, 5.4, 3.6, 1.8 cm.
	var p []float64
	for _, th := range []float64{0.8, 0.5, 0.3, 0.1} {
		p = append(p, 100*kami(1).toy().Leap(Trial{Friction: 0.7, Pressed: th}).HeightM)
	}
	rising("pressing", p...)
	for i, want := range []float64{1.8, 3.6, 5.4, 7.7} {
		near(t, "height by pressing", p[i], want, 0.05)
	}
	// Friction: the angle.
	var a []float64
	for i, mu := range []float64{0.3, 0.5, 0.7, 0.9, 1.2} {
		q := kami(1).toy().Leap(Trial{Friction: mu})
		a = append(a, q.Vx/q.Vy)
		near(t, "vx over vy", q.Vx/q.Vy, []float64{.152, .233, .305, .369, .454}[i], 0.10)
	}
	rising("friction", a...)
	// Half the size goes absolutely and relatively higher.
	small := bare{w: 37.5, h: 75, gsm: 65, t: 0.08, crease: 18.75, b: 6, c: 6, len: 30, n: 6, radius: 1}
	if up := high(small) / high(kami(1)); up < 1.5 || up > 2 {
		t.Errorf("half the size goes %.2f times as high", up)
	}
	// Bent beats creased by about ten; over-pressing kills it.
	if up := high(kami(2)) / high(kami(0.2)); up < 8 || up > 16 {
		t.Errorf("bent goes %.1f times as high as nailed down", up)
	}
	// An overhang is caught: a quarter, a half, three quarters and more.
	whole := high(kami(1))
	for mm, want := range map[float64]float64{1: 0.25, 2: 0.5, 3: 0.78} {
		q := kami(1)
		q.c += mm
		if lost := 1 - high(q)/whole; math.Abs(lost-want) > 0.08 {
			t.Errorf("%v mm of overhang cost %.2f", mm, lost)
		}
	}
}

func TestFeetShare(t *testing.T) {
	if v := FeetShare(0); math.Abs(v-0.9759) > 1e-3 {
		t.Errorf("no flip: %v", v)
	}
	if one, two := FeetShare(1), FeetShare(2); one > 0.3 || two < 0.5 || two > 0.8 {
		t.Errorf("one %v, two %v", one, two)
	}
	if v := FeetShare(8); math.Abs(v-0.5) > 1e-3 {
		t.Errorf("many flips are a toss: %v", v)
	}
}

func BenchmarkLaunch(b *testing.B) {
	toy := kami(1).toy()
	b.ReportAllocs()
	for b.Loop() {
		toy.Leap(wood)
	}
}

// The table of symptoms with its sizes: nose up, mass nearer the hip, gyration.
func TestTableOfSizes(t *testing.T) {
	base := kami(1).toy()
	ref := base.Leap(wood)
	for name, q := range map[string]struct {
		spoil  func(*Toy)
		of     func(Arc) float64
		lo, hi float64
	}{
		"nose 2 to 15 mm":    {func(t *Toy) { t.NoseUpM = 0.015 }, distance, 1.1, 1.6},
		"CoM nearer the hip": {func(t *Toy) { t.CoMAhead -= 0.007 }, distance, 1.1, 1.6},
		"CoM farther":        {func(t *Toy) { t.CoMAhead += 0.007 }, distance, 0.5, 0.85},
		"CoM raised":         {func(t *Toy) { t.CoMUp = 0.008 }, distance, 1.15, 1.8},
		"gyration":           {func(t *Toy) { t.Gyration = 0.20 * t.BodyM }, func(a Arc) float64 { return math.Abs(a.Spin) }, 0.5, 0.85},
	} {
		toy := base
		q.spoil(&toy)
		if v := q.of(toy.Leap(wood)) / q.of(ref); v < q.lo || v > q.hi {
			t.Errorf("%s: %.2f times", name, v)
		}
	}
}

func distance(a Arc) float64 { return math.Abs(a.LengthM) }
