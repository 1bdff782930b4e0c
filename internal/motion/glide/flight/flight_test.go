package flight

import (
	"math"
	"math/rand/v2"
	"testing"

	"tussock/internal/geom"
	"tussock/internal/motion/glide/air"
	"tussock/internal/motion/glide/air/airtest"
	"tussock/internal/motion/glide/craft"
)

// Without air it is a stone: a parabola, whatever it turns about, and no energy is
// lost or made.
func TestThrownWithoutAir(t *testing.T) {
	m := plateToy(t, 0.1, 0.15, 4, 0.4)
	m.corners = nil
	throw := Throw{SpeedMS: 6, AngleDeg: geom.Deg(0.5), HeightM: 1.6 - 0.01, PitchDeg: 200, RollDeg: 100, TurnDeg: -40}
	f := m.Fly(throw, Room{Airless: true}, nil)
	v, h := 6.0, 1.59
	want := v * math.Cos(0.5) / air.Gravity * (v*math.Sin(0.5) + math.Sqrt(v*v*math.Sin(0.5)*math.Sin(0.5)+2*air.Gravity*h))
	if math.Abs(f.AheadM-want) > 1e-5 || math.Abs(want-4.916125) > 1e-5 {
		t.Errorf("it lands at %.6f, not %.6f", f.AheadM, want)
	}
	s := m.start(throw)
	energy := func() float64 {
		i := m.inertia
		w := [3]float64{s[10], s[11], s[12]}
		e := 0.5*m.Weight.MassKg*(s[3]*s[3]+s[4]*s[4]+s[5]*s[5]) - m.Weight.MassKg*air.Gravity*s[2]
		for a := range 3 {
			for b := range 3 {
				e += 0.5 * w[a] * i[a][b] * w[b]
			}
		}
		return e
	}
	e0 := energy()
	for range 100 {
		m.step(&s, 0.01, true)
	}
	if d := math.Abs(energy()-e0) / e0; d > 1e-6 {
		t.Errorf("energy changes by %v", d)
	}
}

// The air only ever takes energy: at small rates in every state.
func TestAirNeverGivesEnergy(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 9))
	for _, m := range []*Model{plateToy(t, 0.1, 0.3, 3, 0.3), shelfGlider(t, "curlew", nil), shelfGlider(t, "shelduck", nil)} {
		bad := 0
		for range 200_000 {
			u, v, w := 4*r.NormFloat64(), 4*r.NormFloat64(), 4*r.NormFloat64()
			speed := math.Sqrt(u*u + v*v + w*w)
			p := (2*r.Float64() - 1) * 0.2 * 2 * speed / m.b
			q := (2*r.Float64() - 1) * 0.1 * 2 * speed / m.c
			n := (2*r.Float64() - 1) * 0.1 * 2 * speed / m.b
			f, tq := m.even().Air(u, v, w, p, q, n)
			if f.x*u+f.y*v+f.z*w+tq.x*p+tq.y*q+tq.z*n > 0 {
				bad++
			}
		}
		if bad > 0 {
			t.Errorf("in %d of 200,000 states the air gives energy", bad)
		}
	}
}

// even is the same glider without anything that differs from side to side.
func (m *Model) even() *Model {
	out := *m
	out.cy0, out.cl0, out.cn0 = 0, 0, 0
	return &out
}

// At small angles the elements are the lattice.
func TestElementsAgreeWithTheLattice(t *testing.T) {
	for _, id := range []string{"curlew", "shelduck"} {
		m := shelfGlider(t, id, map[string]float64{"curl": 0})
		const v, h = 6.0, 1e-3
		q := air.AirDensity * v * v / 2 * m.s
		d := m.D
		for i, want := range [][3]float64{{d.CYb, d.Clb, d.Cnb}, {d.CYp, d.Clp, d.Cnp}, {d.CYr, d.Clr, d.Cnr}} {
			var s [4]float64
			s[i] = h
			hi := m.lateral(v, s)
			s[i] = -h
			lo := m.lateral(v, s)
			for k, per := range []float64{q, q * m.b, q * m.b} {
				if got := (hi[k] - lo[k]) / (2 * h * per); math.Abs(got-want[k]) > 0.01*math.Abs(want[k])+1e-4 {
					t.Errorf("%s: derivative %d %d is %v, of the lattice %v", id, i, k, got, want[k])
				}
			}
		}
		a := geom.Rad(0.5)
		f, tq := m.Air(v*math.Cos(a), 0, v*math.Sin(a), 0, 0, 0)
		g, tg := m.Air(v*math.Cos(a), 0, -v*math.Sin(a), 0, 0, 0)
		airtest.Near(t, id+": lift", (g.z-f.z)/(2*a*q), d.CNa, 0.03)
		if got := (tq.y - tg.y) / (2 * a * q * m.c); math.Abs(got-d.Cma) > 0.01 {
			t.Errorf("%s: Cma is %v, of the lattice %v", id, got, d.Cma)
		}
	}
}

// The step that flies fast loses nothing against a very short one.
func TestStepIsShortEnough(t *testing.T) {
	m := shelfGlider(t, "curlew", map[string]float64{"curl": 3})
	for v := 5.0; v <= 14; v += 3 {
		throw := Throw{SpeedMS: v, HeightM: 1.6}
		a, b := m.Fly(throw, Room{}, nil), m.fly(throw, Room{}, nil, 0.0005)
		if math.Abs(a.DistanceM-b.DistanceM) > 0.005 {
			t.Errorf("thrown at %v m/s: %v m, with short steps %v", v, a.DistanceM, b.DistanceM)
		}
	}
}

// A mirrored glider flies the mirrored path; an even one thrown level does not drift.
func TestMirroredGliderFliesMirrored(t *testing.T) {
	for _, id := range []string{"curlew", "shelduck"} {
		m := shelfGlider(t, id, map[string]float64{"curl": 4})
		if f := m.Fly(Throw{SpeedMS: 6, HeightM: 1.6}, Room{}, nil); math.Abs(f.DriftM) > 1e-6 {
			t.Errorf("%s, even and level, drifts by %v m", id, f.DriftM)
		}
		b := m.Bends
		b.CurlRight += 0.02
		b.Rudder, b.Twist, b.Nose = 0.03, -0.004, 0.01
		n := b
		n.CurlRight, n.CurlLeft, n.Rudder, n.Twist, n.Nose = b.CurlLeft, b.CurlRight, -b.Rudder, -b.Twist, -b.Nose
		right, left := mirroredWeight(m, false).WithBends(b), mirroredWeight(m, true).WithBends(n)
		for _, bank := range []float64{0, 7} {
			f := right.Fly(Throw{SpeedMS: 6, HeightM: 1.6, BankDeg: bank, YawDeg: 1}, Room{}, nil)
			g := left.Fly(Throw{SpeedMS: 6, HeightM: 1.6, BankDeg: -bank, YawDeg: -1}, Room{}, nil)
			if math.Abs(f.DriftM+g.DriftM) > 1e-9 || math.Abs(f.AheadM-g.AheadM) > 1e-9 || f.DriftM == 0 {
				t.Errorf("%s: %v, %v and mirrored %v, %v", id, f.AheadM, f.DriftM, g.AheadM, g.DriftM)
			}
		}
	}
}

// mirroredWeight is a glider whose shape is even and whose weight lies a little aside.
func mirroredWeight(m *Model, mirror bool) *Model {
	s := 1.0
	if mirror {
		s = -1
	}
	w := m.Weight
	w.CoM.Y, w.Ixy, w.Iyz = s*0.0005, s*1e-8, s*1e-8
	h := *m.Shape
	h.Corners = []geom.Vec3{{}}
	return NewModel(&h, w, m.Bends)
}

// Lanchester: with much mass the glider swings up and down in pi sqrt 2 V/g.
func TestSwingOfAHeavyGlider(t *testing.T) {
	for _, c := range []struct{ times, want, part float64 }{{100, 1, 0.03}, {1, 1.42, 0.15}} {
		m := shelfGlider(t, "curlew", map[string]float64{"curl": 3})
		w := m.Weight
		w.MassKg *= c.times
		for _, i := range []*float64{&w.Ixx, &w.Iyy, &w.Izz, &w.Ixy, &w.Ixz, &w.Iyz} {
			*i *= c.times
		}
		m = NewModel(m.Shape, w, m.Bends)
		trims := m.Trims()
		if len(trims) == 0 {
			t.Fatal("it has no trim")
		}
		tr := trims[0]
		period := swing(m, tr)
		airtest.Near(t, "its period over Lanchester's", period/(math.Pi*math.Sqrt2*tr.SpeedMS/air.Gravity), c.want, c.part)
	}
}

// swing is the time between two lowest speeds, thrown a little too fast from high up.
func swing(m *Model, tr Trim) float64 {
	s := m.start(Throw{SpeedMS: 1.05 * tr.SpeedMS, AngleDeg: -geom.Deg(math.Atan(1 / tr.Ratio)), NoseDeg: tr.AttackDeg})
	var at, v []float64
	for i := 0; len(at) < 2 && i < 100_000; i++ {
		m.step(&s, 0.005, false)
		v = append(v, math.Sqrt(s[3]*s[3]+s[4]*s[4]+s[5]*s[5]))
		if n := len(v) - 1; n > 1 && v[n-1] < v[n-2] && v[n-1] <= v[n] {
			at = append(at, float64(i)*0.005)
		}
	}
	if len(at) < 2 {
		return 0
	}
	return at[1] - at[0]
}

// A plate of 60 x 180 mm without curl, by its centre of mass: falling-plate
// experiments, from flutter to dive.
func TestRegimesOfAPlate(t *testing.T) {
	order := []struct {
		com  float64
		want []Mode
	}{
		{0.50, []Mode{Flutter, Tumble}}, {0.46, []Mode{Flutter, Tumble}},
		{0.30, []Mode{Stalling, Glide}}, {0.20, []Mode{Dive}},
	}
	for _, c := range order {
		m := plateToy(t, 0.06, 0.18, 3, c.com)
		f := m.Fly(Throw{SpeedMS: 3, AngleDeg: -20, HeightM: 12}, Room{}, nil)
		ok := false
		for _, w := range c.want {
			ok = ok || f.Mode == w
		}
		if !ok {
			t.Errorf("centre of mass at %v: %s, not %v (%+v)", c.com, f.Mode, c.want, f)
		}
	}
	// In between it mushes: a steady glide at a steep angle of attack.
	last := 90.0
	for _, com := range []float64{0.42, 0.38, 0.35, 0.30, 0.27} {
		tr := plateToy(t, 0.06, 0.18, 3, com).Trims()
		if len(tr) == 0 {
			t.Fatalf("no trim at %v", com)
		}
		if tr[0].AttackDeg > last {
			t.Errorf("centre of mass at %v: trims at %v° after %v°", com, tr[0].AttackDeg, last)
		}
		last = tr[0].AttackDeg
		if com >= 0.35 && tr[0].AttackDeg < 20 {
			t.Errorf("centre of mass at %v: trims at %v°, no mush", com, tr[0].AttackDeg)
		}
	}
}

// Records are about 88 m and 29 s. Nothing may beat them by much, and the best hard
// throw must come to 30 m and 6 s.
func TestHardThrowsStayWithinRecords(t *testing.T) {
	far, long := 0.0, 0.0
	var far25, long25 float64
	for _, id := range []string{"curlew", "shelduck"} {
		base := shelfGlider(t, id, nil)
		for _, grams := range []float64{5, 6.2} {
			w := base.Weight
			k := grams * 1e-3 / w.MassKg
			w.MassKg *= k
			for _, i := range []*float64{&w.Ixx, &w.Iyy, &w.Izz, &w.Ixy, &w.Ixz, &w.Iyz} {
				*i *= k
			}
			for curl := -2.0; curl <= 10; curl += 1 {
				m := NewModel(base.Shape, w, air.Bends{CurlRight: geom.Rad(curl), CurlLeft: geom.Rad(curl)})
				for _, v := range []float64{20, 25, 28} {
					for a := -5.0; a <= 75; a += 8 {
						f := m.Fly(Throw{SpeedMS: v, AngleDeg: a, HeightM: 1.8}, Room{}, nil)
						far, long = math.Max(far, f.DistanceM), math.Max(long, f.TimeS)
						if v == 25 {
							far25, long25 = math.Max(far25, f.DistanceM), math.Max(long25, f.TimeS)
						}
					}
				}
			}
		}
	}
	t.Logf("farthest %.1f m, longest %.1f s; at 25 m/s %.1f m, %.1f s", far, long, far25, long25)
	if far > 88*1.2 || long > 29*1.2 {
		t.Errorf("%.1f m and %.1f s are beyond all records", far, long)
	}
	if far25 < 30 || long25 < 6 {
		t.Errorf("the best throw at 25 m/s comes to %.1f m and %.1f s only", far25, long25)
	}
}

// The bound for height: straight up at 25 m/s against friction alone, then down at the
// least sink. Records and the design's shapes give some 29 s; the shelf's two have less
// wing and come to 19 and 24 s.
func TestVerticalClimbBound(t *testing.T) {
	for _, id := range []string{"curlew", "shelduck"} {
		m := shelfGlider(t, id, nil)
		_, least := m.BestGlide()
		v, h, dt := 25.0, 0.0, 0.001
		for v > 0 {
			drag := air.AirDensity / 2 * v * v * m.s * m.polar.cd0 * math.Sqrt(air.FrictionSpeed/math.Max(v, 0.1))
			v -= (air.Gravity + drag/m.Weight.MassKg) * dt
			h += v * dt
		}
		if s := h / least.SinkMS; s < 18 || s > 40 {
			t.Errorf("%s: %.1f m up, %.1f s down", id, h, s)
		}
	}
}

// Scaling: a toy of the same paper loading twice as large, thrown sqrt 2 times as fast
// and without friction's own scale, flies twice as far in sqrt 2 the time (Froude).
func TestScaleOfAFlight(t *testing.T) {
	small := shelfGlider(t, "curlew", map[string]float64{"curl": 3})
	const k = 2.0
	grow := func(v geom.Vec3) geom.Vec3 { return v.Scale(k) }
	var strips []air.Strip
	for _, s := range small.Shape.Strips {
		e := func(e air.Edge) air.Edge { return air.Edge{Lead: grow(e.Lead), Trail: grow(e.Trail)} }
		s.Left, s.Right, s.LipM = e(s.Left), e(s.Right), s.LipM*k
		strips = append(strips, s)
	}
	h := air.NewShape(airtest.Surface(t, strips, craft.ChordwisePanels), nil)
	h.Friction = small.Shape.Friction * math.Sqrt(math.Sqrt(k)) // the speed law would lower it
	w := small.Weight
	w.MassKg *= k * k * k
	w.CoM = grow(w.CoM)
	for _, i := range []*float64{&w.Ixx, &w.Iyy, &w.Izz, &w.Ixy, &w.Ixz, &w.Iyz} {
		*i *= k * k * k * k * k
	}
	b := small.Bends
	large := NewModel(h, w, b)
	small.corners, large.corners = nil, nil
	// The axial force of both, suction included, must scale alike.
	a := small.Fly(Throw{SpeedMS: 6, HeightM: 1.6}, Room{}, nil)
	large.Shape = h
	c := large.Fly(Throw{SpeedMS: 6 * math.Sqrt(k), HeightM: 1.6 * k}, Room{}, nil)
	airtest.Near(t, "distance", c.DistanceM, k*a.DistanceM, 0.06)
	airtest.Near(t, "time", c.TimeS, math.Sqrt(k)*a.TimeS, 0.06)
}

// A lighter paper never flies faster at trim; more weight at the nose never moves the
// centre of mass aft.
func TestLightAndNoseHeavy(t *testing.T) {
	last := 0.0
	for _, gsm := range []float64{50, 60, 80, 100, 120} {
		m := gliderOn(t, "curlew", gsm, map[string]float64{"curl": 4})
		tr := m.Trims()
		if len(tr) == 0 {
			t.Fatal("no trim")
		}
		if tr[0].SpeedMS <= last {
			t.Errorf("%v g/m² flies at %v m/s, lighter paper at %v", gsm, tr[0].SpeedMS, last)
		}
		last = tr[0].SpeedMS
	}
	aft := math.Inf(1)
	for _, g := range []float64{0, 0.1, 0.2, 0.5, 1} {
		m := shelfGlider(t, "shelduck", map[string]float64{"clip": g})
		if m.Weight.CoM.X >= aft {
			t.Errorf("with %v g at the nose the centre of mass lies at %v, before at %v", g, m.Weight.CoM.X, aft)
		}
		aft = m.Weight.CoM.X
	}
}

// A flight allocates nothing: thousands are thrown for one answer.
func TestFlightAllocatesNothing(t *testing.T) {
	m := shelfGlider(t, "curlew", map[string]float64{"curl": 4})
	path := make([]Sample, 0, 4096)
	room := Room{LengthM: 30, WidthM: 10, CeilingM: 4, RopeAtM: 3, RopeM: 1}
	if n := testing.AllocsPerRun(20, func() {
		path = path[:0]
		m.Fly(Throw{SpeedMS: 6, HeightM: 1.6, BankDeg: 5}, room, &path)
	}); n != 0 {
		t.Errorf("%v allocations a flight", n)
	}
}

func BenchmarkFlight(b *testing.B) {
	m := shelfGlider(b, "curlew", map[string]float64{"curl": 3})
	b.ReportAllocs()
	for b.Loop() {
		// From high up, so that it lasts 5 s.
		s := m.start(Throw{SpeedMS: 5, HeightM: 1000})
		for range 250 {
			m.step(&s, 0.02, false)
		}
	}
}

func BenchmarkFlightToTheFloor(b *testing.B) {
	m := shelfGlider(b, "curlew", map[string]float64{"curl": 3})
	path := make([]Sample, 0, 4000)
	b.ReportAllocs()
	for b.Loop() {
		path = path[:0]
		m.Fly(Throw{SpeedMS: 5, HeightM: 5}, Room{CeilingM: 8, WidthM: 20, LengthM: 60}, &path)
	}
}

// In the upright plane alone an even toy flies as in space.
func TestUprightFlightIsTheSame(t *testing.T) {
	for _, id := range []string{"curlew", "shelduck"} {
		for _, curl := range []float64{0, 3, 8} {
			m := shelfGlider(t, id, map[string]float64{"curl": curl})
			for _, v := range []float64{4, 6, 9} {
				throw := Throw{SpeedMS: v, AngleDeg: -5, HeightM: 1.6}
				a, b := m.Fly(throw, Room{}, nil), m.FlyUpright(throw)
				if math.Abs(a.DistanceM-b.DistanceM) > 0.002 || math.Abs(a.TimeS-b.TimeS) > 0.001 {
					t.Errorf("%s, curl %v°, %v m/s: %v m, %v s in space, %v m, %v s upright", id, curl, v, a.DistanceM, a.TimeS, b.DistanceM, b.TimeS)
				}
			}
		}
	}
}

func BenchmarkUprightFlight(b *testing.B) {
	m := shelfGlider(b, "curlew", map[string]float64{"curl": 3})
	b.ReportAllocs()
	for b.Loop() {
		m.FlyUpright(Throw{SpeedMS: 5, HeightM: 1.6})
	}
}
