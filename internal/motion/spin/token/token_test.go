package token_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"tussock/internal/motion/spin/token"
)

const deg = math.Pi / 180

// Leans and what puts them right, to the digits that are known; and back again.
func TestLeans(t *testing.T) {
	for h, want := range map[float64]float64{1: 26.57, 2: 14.04, 5: 5.71} {
		tau, ok := token.Lean(0.5e-3, h/1e3)
		if !ok || math.Abs(tau/deg-want) > 0.006 {
			t.Errorf("h %v mm: %v°, want %v", h, tau/deg, want)
		}
		if e := token.Offset(tau, h/1e3); math.Abs(e-0.5e-3) > 1e-12 {
			t.Errorf("h %v mm: back to %v", h, e)
		}
	}
	for _, h := range []float64{0, -1e-3} {
		if _, ok := token.Lean(0.5e-3, h); ok {
			t.Errorf("a mass %v m below its point hangs", h)
		}
	}
	if up := 1e3 * token.StandsTo(0.3e-3, 0.4e-3); math.Abs(up-1.2) > 1e-9 {
		t.Errorf("stands to %v mm", up)
	}
	if !math.IsInf(token.StandsTo(0.4e-3, 0.3e-3), 1) {
		t.Error("a tip in a narrower dimple falls over")
	}
	if d := 1e3 * token.FlapShift(0.53e-3, 1.5e-3, 0.12e-3); math.Abs(d-6.625) > 1e-9 {
		t.Errorf("flap by %v mm", d)
	}
	if e := 1e3 * token.Offset(10*deg, 3e-3); math.Abs(e-0.53) > 0.002 {
		t.Errorf("10° at 3 mm is %v mm", e)
	}
}

// A flap that goes as far as is said brings the centre of mass under the point, whatever the
// token.
func TestFlapsPutItRight(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 11))
	for range 500 {
		mass, flap, e := 1e-3+4e-3*r.Float64(), 5e-5+4e-4*r.Float64(), 3e-3*(2*r.Float64()-1)
		// The rest stays; the flap goes the other way.
		after := e - flap*token.FlapShift(e, mass, flap)/mass
		if math.Abs(after) > 1e-12 {
			t.Fatalf("%v m are left of %v", after, e)
		}
	}
}

// The spot that touches first is the one on the side it leans to, or one that hangs lower.
func TestWhatTouchesFirst(t *testing.T) {
	var rim []token.Rim
	for i := range 8 {
		rim = append(rim, token.Rim{R: 0.03, Angle: float64(i) * math.Pi / 4})
	}
	for k := range 8 {
		first, clear := token.Touches(5e-3, rim, 6*deg, float64(k)*math.Pi/4)
		if first != k || math.Abs(clear-(5e-3-0.03*math.Sin(6*deg))) > 1e-12 {
			t.Errorf("leans to %d, touches at %d with %v", k, first, clear)
		}
	}
	rim[3].Z = -4e-3
	if first, _ := token.Touches(5e-3, rim, 1*deg, 0); first != 3 {
		t.Errorf("the low corner is 3, touched %d", first)
	}
	if first, _ := token.Touches(5e-3, nil, 0, 0); first != -1 {
		t.Error("no rim touches")
	}
}

// Spinning down: alone in the air and alone on its point by closed forms, both together and
// with edges against known figures; longer from a faster start, shorter with more of
// anything.
func TestSpinDown(t *testing.T) {
	disc := token.Disc(1.5e-3, 0.04, 5e-3)
	if s, _ := disc.SpinDown(token.Slowing{}, 60, 5); math.Abs(s-33.2) > 0.05 {
		t.Errorf("in the air alone %v s", s)
	}
	point := token.Slowing{Friction: 0.25, Contact: 0.2e-3}
	heavy := disc
	heavy.R = 1e-6 // no air to speak of
	if s, n := heavy.SpinDown(point, 60, 0); math.Abs(s-146.8) > 0.2 || math.Abs(n-60*s/2/(2*math.Pi)) > 0.2 {
		t.Errorf("on its point alone %v s and %v turns", s, n)
	}
	last := math.Inf(1)
	for _, c := range []struct{ edges, seconds, turns float64 }{{0, 29.8, 76}, {2e-9, 24.9, 56}, {1e-8, 16.9, 29}} {
		s, n := disc.SpinDown(token.Slowing{Friction: point.Friction, Contact: point.Contact, Edges: c.edges}, 60, 1)
		if math.Abs(s-c.seconds) > 0.02*c.seconds || math.Abs(n-c.turns) > 0.03*c.turns || s >= last {
			t.Errorf("edges %v: %v s, %v turns; want %v and %v", c.edges, s, n, c.seconds, c.turns)
		}
		last = s
	}
	small := token.Disc(0.8e-3, 0.03, 5e-3)
	for edges, want := range map[float64]float64{0: 24, 1e-8: 8.2} {
		if s, _ := small.SpinDown(token.Slowing{Friction: point.Friction, Contact: point.Contact, Edges: edges}, 80, 1); math.Abs(s-want) > 0.06*want {
			t.Errorf("a small one with edges %v: %v s, want %v", edges, s, want)
		}
	}
	slow, _ := disc.SpinDown(point, 30, 1)
	fast, _ := disc.SpinDown(point, 60, 1)
	rough, _ := disc.SpinDown(token.Slowing{Friction: 2 * point.Friction, Contact: point.Contact, Edges: 0}, 60, 1)
	if !(slow < fast && rough < fast) {
		t.Errorf("%v from 30, %v from 60, %v on a rough table", slow, fast, rough)
	}
	// Step by step instead of by Simpson's rule.
	w, at, dt := 60.0, 0.0, 1e-4
	k := 1.935 * 1.2 * math.Pow(0.04, 4) * math.Sqrt(1.5e-5)
	for w > 1 {
		w -= (point.Rub(disc.MassKg) + k*math.Pow(w, 1.5)) / disc.Upright * dt
		at += dt
	}
	if math.Abs(fast-at) > 0.02*at {
		t.Errorf("%v s by the sum, %v s step by step", fast, at)
	}
	if s, n := disc.SpinDown(point, 1, 2); s != 0 || n != 0 {
		t.Error("it spins up by itself")
	}
}

// The least rate at which it stands.
func TestStands(t *testing.T) {
	d := token.Disc(1e-3, 0.03, 5e-3)
	if w := d.Stands(); math.Abs(w-15.56) > 0.03 {
		t.Errorf("%v rad/s", w)
	}
	thin := token.Disc(1e-3, 0.03, 5e-3)
	thin.Across -= thin.MassKg * thin.H * thin.H // without the term of its height
	if w := thin.Stands(); math.Abs(w-14.76) > 0.03 {
		t.Errorf("a thin disc %v rad/s", w)
	}
	if low := token.Disc(1e-3, 0.03, 2e-3).Stands(); low >= d.Stands() {
		t.Error("a lower one needs to be faster")
	}
}

// Edges that stand up slow by their area and the cube of their radius.
func TestEdges(t *testing.T) {
	one := token.Edges([]float64{1e-4}, []float64{0.03})
	if math.Abs(one-0.6*1.2*1e-4*2.7e-5) > 0.03*one {
		t.Errorf("%v", one)
	}
	if two := token.Edges([]float64{1e-4, 1e-4}, []float64{0.03, 0.06}); math.Abs(two/one-9) > 1e-9 {
		t.Errorf("%v and %v", one, two)
	}
}

// A token that turns steadily lies where weight and centrifugal force leave it: the lean of
// the law is the lowest place of m g z - I ω² / 2, found by going through all of them.
func TestWobbleIsWhereNothingPulls(t *testing.T) {
	b := token.Disc(1.5e-3, 0.03, 0.005)
	least := func(e, rate float64) float64 {
		best, at := math.Inf(1), 0.0
		for tau := -0.02; tau < 0.2; tau += 1e-5 {
			s, c := math.Sincos(tau)
			z := b.H*c - e*s
			out := e*c + b.H*s
			v := b.MassKg*9.81*z - (b.Across*s*s+b.Upright*c*c+b.MassKg*out*out)*rate*rate/2
			if v < best {
				best, at = v, tau
			}
		}
		return at
	}
	for _, c := range []struct{ e, rate float64 }{{0.2e-3, 60}, {0.5e-3, 60}, {0.5e-3, 30}, {0.3e-3, 25}} {
		tau, ok := b.Wobble(c.e, c.rate)
		if want := least(c.e, c.rate); !ok || math.Abs(tau-want) > 0.03*want+1e-4 {
			t.Errorf("%v: leans %v, lowest at %v", c, tau, want)
		}
		if rate := b.Rubs(c.e, tau); math.Abs(rate-c.rate) > 1e-6*c.rate {
			t.Errorf("%v: leans so from %v rad/s on", c, rate)
		}
	}
	if _, ok := b.Wobble(0.3e-3, 10); ok {
		t.Error("it is held up below the rate that it needs")
	}
	if !math.IsInf(b.Rubs(1e-3, 0.02), 1) {
		t.Error("a point a millimetre off does not rub with so little room")
	}
}
