package flight

import (
	"math"
	"testing"

	"tussock/internal/geom"
	"tussock/internal/motion/glide/air"
)

// What one change does, in sign and size, on the shelf's own gliders.

func trimOf(t *testing.T, m *Model) Trim {
	t.Helper()
	tr := m.Trims()
	if len(tr) == 0 {
		t.Fatal("no steady glide")
	}
	return tr[0]
}

func curled(m *Model, deg float64) *Model {
	return m.WithBends(air.Bends{CurlRight: geom.Rad(deg), CurlLeft: geom.Rad(deg)})
}

// bestCurl is the curl of the best glide, in degrees.
func bestCurl(t *testing.T, m *Model) float64 {
	t.Helper()
	best, _ := m.BestGlide()
	c, ok := m.CurlFor(geom.Rad(best.AttackDeg))
	if !ok {
		t.Fatal("no curl gives the best glide")
	}
	return geom.Deg(c)
}

// Best glide and least sink want a few degrees and some more; a degree more slows the
// trim by some 7 to 12 %.
func TestMoreCurlIsSlower(t *testing.T) {
	for _, id := range []string{"curlew", "shelduck"} {
		m := shelfGlider(t, id, nil)
		c := bestCurl(t, m)
		if c < 0.5 || c > 8 {
			t.Errorf("%s: best glide at %v°", id, c)
		}
		_, least := m.BestGlide()
		if slow, ok := m.CurlFor(geom.Rad(least.AttackDeg)); !ok && id == "shelduck" || ok && geom.Deg(slow) < 1.5*c {
			t.Errorf("%s: least sink at %v°", id, geom.Deg(slow))
		}
		a, b := trimOf(t, curled(m, c)), trimOf(t, curled(m, c+1))
		if part := b.SpeedMS/a.SpeedMS - 1; part > -0.04 || part < -0.15 {
			t.Errorf("%s: a degree more changes the trim speed by %.1f %%", id, 100*part)
		}
		f, g := curled(m, c), curled(m, c-1)
		throw := Throw{SpeedMS: 1.1 * a.SpeedMS, HeightM: 1.6}
		if d := g.Fly(throw, Room{}, nil).DistanceM/f.Fly(throw, Room{}, nil).DistanceM - 1; d > -0.01 || d < -0.3 {
			t.Errorf("%s: a degree less changes the distance by %.1f %%", id, 100*d)
		}
	}
}

// A millimetre aft slows the trim by some 0.2 m/s, and a third of a degree less curl
// makes up for it.
func TestWeightFurtherAft(t *testing.T) {
	for _, id := range []string{"curlew", "shelduck"} {
		m := shelfGlider(t, id, nil)
		c := bestCurl(t, m)
		w := m.Weight
		w.CoM.X += 0.001
		a := trimOf(t, curled(m, c))
		moved := NewModel(m.Shape, w, m.Bends)
		b := trimOf(t, curled(moved, c))
		if d := b.SpeedMS - a.SpeedMS; d > -0.05 || d < -0.45 {
			t.Errorf("%s: the trim speed changes by %v m/s", id, d)
		}
		back, ok := moved.CurlFor(geom.Rad(a.AttackDeg))
		if less := c - geom.Deg(back); !ok || less < 0.1 || less > 0.7 {
			t.Errorf("%s: %v° less curl makes up for it", id, less)
		}
	}
}

// 0.2 g at the nose moves the centre of mass forward by a few millimetres, and needs
// more curl for the same glide.
func TestClipOnTheNose(t *testing.T) {
	for _, id := range []string{"curlew", "shelduck"} {
		bare, clipped := shelfGlider(t, id, nil), shelfGlider(t, id, map[string]float64{"clip": 0.2})
		d := (bare.Weight.CoM.X - clipped.Weight.CoM.X) * 1e3
		if d < 1 || d > 8 {
			t.Errorf("%s: the centre of mass moves forward by %v mm", id, d)
		}
		if m := clipped.Margin() - bare.Margin(); m < 0.01 || m > 0.05 {
			t.Errorf("%s: the margin grows by %v", id, m)
		}
		best, _ := bare.BestGlide()
		a, ok1 := bare.CurlFor(geom.Rad(best.AttackDeg))
		b, ok2 := clipped.CurlFor(geom.Rad(best.AttackDeg))
		if more := geom.Deg(b - a); !ok1 || !ok2 || more < 0.3 || more > 3 {
			t.Errorf("%s: it needs %v° more curl", id, more)
		}
	}
}

// Thrown 10° upwards at trim it comes less far.
func TestThrownUpwards(t *testing.T) {
	for _, id := range []string{"curlew", "shelduck"} {
		m := shelfGlider(t, id, nil)
		m = curled(m, bestCurl(t, m))
		v := 1.1 * trimOf(t, m).SpeedMS
		a, b := m.Fly(Throw{SpeedMS: v, HeightM: 1.6}, Room{}, nil), m.Fly(Throw{SpeedMS: v, HeightM: 1.6, AngleDeg: 10}, Room{}, nil)
		if d := b.DistanceM/a.DistanceM - 1; d > 0.02 || d < -0.3 {
			t.Errorf("%s: 10° upwards changes the distance by %.0f %%", id, 100*d)
		}
	}
}

// Turns: a bend of the keel's tail turns to its own side, alike for both sides, and half
// of it turns about half as much. A blunt glider turns more from its edges than a
// pointed one with a deep keel.
func TestTurnsFromUnevenness(t *testing.T) {
	turn := func(m *Model, b air.Bends) float64 {
		b.CurlLeft += m.Bends.CurlLeft
		b.CurlRight += m.Bends.CurlRight
		f := m.WithBends(b).Fly(Throw{SpeedMS: 5, HeightM: 1.6}, Room{}, nil)
		return f.HeadingDeg / f.DistanceM
	}
	m := shelfGlider(t, "curlew", map[string]float64{"curl": 4})
	one, two := turn(m, air.Bends{Rudder: geom.Rad(2)}), turn(m, air.Bends{Rudder: geom.Rad(4)})
	if one <= 0 || two <= one {
		t.Errorf("the keel's tail to the right turns by %v and %v degrees a metre", one, two)
	}
	if other := turn(m, air.Bends{Rudder: geom.Rad(-2)}); math.Abs(other+one) > 1e-6 {
		t.Errorf("to the left %v, to the right %v", other, one)
	}
	broad := shelfGlider(t, "shelduck", map[string]float64{"curl": 2})
	apart := air.Bends{CurlRight: geom.Rad(1), CurlLeft: geom.Rad(-1)}
	a, b := math.Abs(turn(m, apart)), math.Abs(turn(broad, apart))
	if a > b || b < 1 || b > 25 {
		t.Errorf("edges apart turn the pointed one by %v, the broad one by %v degrees a metre", a, b)
	}
}

// The modes: with too little curl it dives, with a good one it glides, thrown too fast
// with much it stalls or loops.
func TestModesInWords(t *testing.T) {
	m := shelfGlider(t, "shelduck", nil)
	c := bestCurl(t, m)
	v := trimOf(t, curled(m, c)).SpeedMS
	for _, q := range []struct {
		curl, speed float64
		want        []Mode
	}{{-6, 5, []Mode{Dive}}, {c, v, []Mode{Glide}}, {9, 1.6 * v, []Mode{Stalling}}, {12, 12, []Mode{Loop, Stalling}}} {
		f := curled(m, q.curl).Fly(Throw{SpeedMS: q.speed, HeightM: 1.6}, Room{}, nil)
		ok := false
		for _, w := range q.want {
			ok = ok || f.Mode == w
		}
		if !ok || f.Mode.Words() == "" {
			t.Errorf("curl %v° at %v m/s: %s, not %v", q.curl, q.speed, f.Mode, q.want)
		}
	}
}

// A room stops it: at the wall, under the ceiling, at the side; and it tells what is
// left over a rope.
func TestFlightInARoom(t *testing.T) {
	m := curled(shelfGlider(t, "curlew", nil), 4)
	throw := Throw{SpeedMS: 8, HeightM: 1.6}
	free := m.Fly(throw, Room{}, nil)
	wall := m.Fly(throw, Room{LengthM: 3}, nil)
	nose := m.corners[0].x
	for _, c := range m.corners {
		nose = math.Max(nose, c.x)
	}
	if wall.End != HitWall || wall.AheadM > 3 || wall.AheadM < 3-nose-0.02 {
		t.Errorf("%+v", wall)
	}
	if f := m.Fly(Throw{SpeedMS: 14, AngleDeg: 60, HeightM: 1.6}, Room{CeilingM: 3}, nil); f.End != HitRoof || f.HighestM > 3 {
		t.Errorf("%+v", f)
	}
	if f := m.Fly(Throw{SpeedMS: 8, HeightM: 1.6, YawDeg: 0, BankDeg: 60}, Room{WidthM: 1}, nil); f.End != HitSide {
		t.Errorf("%+v", f)
	}
	rope := m.Fly(throw, Room{RopeAtM: 2, RopeM: 1}, nil)
	if !(rope.RopeOverM > 0) || rope.DistanceM != free.DistanceM {
		t.Errorf("over the rope by %v", rope.RopeOverM)
	}
	if higher := m.Fly(throw, Room{RopeAtM: 2, RopeM: 1.3}, nil); math.Abs(rope.RopeOverM-higher.RopeOverM-0.3) > 1e-9 {
		t.Errorf("a rope 0.3 m higher leaves %v instead of %v", higher.RopeOverM, rope.RopeOverM)
	}
}

// Softening: at speed a curled edge does less, so a hard throw loops less.
func TestEdgesGiveWayAtSpeed(t *testing.T) {
	m := curled(shelfGlider(t, "shelduck", map[string]float64{"depth": 25}), 9)
	b := m.Bends
	b.Softening = true
	stiff, soft := m.Fly(Throw{SpeedMS: 5.5, HeightM: 1.6}, Room{}, nil), m.WithBends(b).Fly(Throw{SpeedMS: 5.5, HeightM: 1.6}, Room{}, nil)
	if soft.HighestM >= stiff.HighestM {
		t.Errorf("it climbs to %v m, with stiff edges to %v", soft.HighestM, stiff.HighestM)
	}
	slow, slower := trimOf(t, m).SpeedMS, trimOf(t, m.WithBends(b)).SpeedMS
	if slower < slow || slower > 1.1*slow {
		t.Errorf("its trim goes from %v to %v m/s", slow, slower)
	}
}

// Sideways: a glider with a V comes back from a bank; its numbers are those of motions
// that can be seen.
func TestSideways(t *testing.T) {
	m := curled(shelfGlider(t, "curlew", map[string]float64{"wing": 80}), 4)
	l := m.Sideways(trimOf(t, m))
	if l.RollS <= 0 || l.RollS > 0.5 {
		t.Errorf("it takes up a roll in %v s", l.RollS)
	}
	if l.WobblePeriodS < 0.1 || l.WobblePeriodS > 3 {
		t.Errorf("it wobbles in %v s", l.WobblePeriodS)
	}
	flat := curled(shelfGlider(t, "curlew", map[string]float64{"wing": 105}), 4)
	if flat.D.Clb <= m.D.Clb {
		t.Error("hanging wings roll back more than raised ones")
	}
}
