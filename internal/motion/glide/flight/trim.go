package flight

import (
	"math"

	"tussock/internal/geom"
	"tussock/internal/motion/glide/air"
)

// Trim is a steady glide: the angle of attack at which nothing turns it, and what
// follows from that.
type Trim struct {
	AttackDeg float64
	SpeedMS   float64
	Ratio     float64 // metres ahead for each metre down
	SinkMS    float64
	CL        float64
	Stiffness float64 // -dCm/da there, per rad: how firmly it holds that angle
	Best      bool    // the one a level throw settles into
}

// level gives lift, drag and moment coefficients at an angle of attack and a speed.
func (m *Model) level(a, speed float64) (cl, cd, cm float64) {
	sin, cos := math.Sincos(a)
	c := m.table.look(cos, sin)
	soft := 1.0
	if m.Bends.Softening {
		soft = 1 / (1 + speed*speed/(air.SofteningSpeed*air.SofteningSpeed))
	}
	cn, ca := c.cn+soft*c.cnCurl, c.ca*math.Sqrt(air.FrictionSpeed/math.Max(speed, 0.1))
	return cn*cos - ca*sin, cn*sin + ca*cos, c.cm + soft*c.cmCurl
}

// steady is the speed at which a glider at an angle of attack sinks steadily.
func (m *Model) steady(a float64) (speed, cl, cd float64) {
	speed = air.FrictionSpeed
	for range 4 {
		cl, cd, _ = m.level(a, speed)
		speed = math.Sqrt(2 * m.Weight.MassKg * air.Gravity / (air.AirDensity * m.s * math.Max(math.Hypot(cl, cd), 1e-6)))
	}
	return speed, cl, cd
}

// Trims are the steady glides from nose down to steep: several are normal, and the
// flight decides. None means that it has no steady glide with the nose ahead.
func (m *Model) Trims() []Trim {
	var out []Trim
	const from, to, n = -6.0, 70.0, 304
	moment := func(a float64) float64 {
		v := air.FrictionSpeed // matters only where edges give way at speed
		if m.Bends.Softening {
			v, _, _ = m.steady(a)
		}
		_, _, cm := m.level(a, v)
		return cm
	}
	last := moment(geom.Rad(from))
	for i := 1; i <= n; i++ {
		hi := geom.Rad(from + (to-from)*float64(i)/n)
		lo := geom.Rad(from + (to-from)*float64(i-1)/n)
		now := moment(hi)
		if last > 0 && now <= 0 {
			a := lo + (hi-lo)*last/(last-now)
			v, cl, cd := m.steady(a)
			const h = 0.01
			if t := (Trim{AttackDeg: geom.Deg(a), SpeedMS: v, Ratio: cl / cd, SinkMS: v * cd / math.Hypot(cl, cd), CL: cl,
				Stiffness: (moment(a-h) - moment(a+h)) / (2 * h)}); cl > 0 {
				out = append(out, t)
			}
		}
		last = now
	}
	if len(out) > 0 {
		out[0].Best = true
	}
	return out
}

// BestGlide is the angle of attack with the best glide ratio, whatever the trim, and
// LeastSink that with the least sink.
func (m *Model) BestGlide() (best, least Trim) {
	for i := 2; i <= 120; i++ {
		a := geom.Rad(float64(i) / 4)
		v, cl, cd := m.steady(a)
		t := Trim{AttackDeg: geom.Deg(a), SpeedMS: v, Ratio: cl / cd, SinkMS: v * cd / math.Hypot(cl, cd), CL: cl}
		if t.Ratio > best.Ratio {
			best = t
		}
		if least.SinkMS == 0 || t.SinkMS < least.SinkMS {
			least = t
		}
	}
	return best, least
}

// CurlFor is the curl of both edges, rad, that trims it at an angle of attack. ok is
// false when no curl within reach does.
func (m *Model) CurlFor(attack float64) (curl float64, ok bool) {
	cm := func(c float64) float64 {
		b := m.Bends
		b.CurlRight, b.CurlLeft = c, c
		n := m.WithBends(b)
		v, _, _ := n.steady(attack)
		_, _, out := n.level(attack, v)
		return out
	}
	lo, hi := geom.Rad(-10), geom.Rad(30)
	if cm(lo) > 0 || cm(hi) < 0 {
		return 0, false
	}
	for range 30 {
		mid := (lo + hi) / 2
		if cm(mid) < 0 {
			lo = mid
		} else {
			hi = mid
		}
	}
	return (lo + hi) / 2, true
}

// WithBends is the same toy with other last bends.
func (m *Model) WithBends(b air.Bends) *Model {
	n := NewModel(m.Shape, m.Weight, b)
	n.sprung = m.sprung
	return n
}

// Margin is the static margin: how far the centre of mass lies ahead of the neutral
// point, as a part of the mean chord.
func (m *Model) Margin() float64 { return (m.D.NeutralM - m.Weight.CoM.X) / m.c }

// LoadingNM2 is the weight over the wing area.
func (m *Model) LoadingNM2() float64 { return m.Weight.MassKg * air.Gravity / m.s }
