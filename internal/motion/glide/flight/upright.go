package flight

import (
	"math"

	"tussock/internal/geom"
	"tussock/internal/motion/glide/air"
)

// Upright is a flight in the upright plane only: place ahead and down, speed in body
// axes, pitch and its rate. For sweeps of toys that are even from side to side; it
// leaves out all that rolls and turns, and costs half as much.
type Upright struct{ DistanceM, TimeS, HighestM float64 }

type upright [6]float64 // x, down, u, w, pitch, rate

// FlyUpright throws it in free air, up to the ground.
func (m *Model) FlyUpright(t Throw) Upright {
	pitch := geom.Rad(t.AngleDeg + t.NoseDeg)
	attack := geom.Rad(t.NoseDeg)
	s := upright{0, -t.HeightM, t.SpeedMS * math.Cos(attack), t.SpeedMS * math.Sin(attack), pitch, geom.Rad(t.PitchDeg)}
	out := Upright{HighestM: t.HeightM}
	floor := func(s *upright) float64 {
		sin, cos := math.Sincos(s[4])
		low := 0.0
		for _, c := range m.corners {
			low = math.Max(low, -sin*c.x+cos*c.z)
		}
		return s[1] + low
	}
	for out.TimeS < maxSeconds {
		dt := math.Min(0.02, 1.2/(m.rate*math.Max(math.Hypot(s[2], s[3]), 0.1)))
		if q := math.Abs(s[5]); q > 15 {
			dt = math.Min(dt, 0.2/q)
		}
		before := s
		m.stepUpright(&s, dt)
		if s[1] > -0.5 && floor(&s) >= 0 {
			lo, hi := 0.0, 1.0
			for range 12 {
				mid := (lo + hi) / 2
				s = before
				m.stepUpright(&s, mid*dt)
				if floor(&s) >= 0 {
					hi = mid
				} else {
					lo = mid
				}
			}
			out.TimeS += hi * dt
			break
		}
		out.TimeS += dt
		out.HighestM = math.Max(out.HighestM, -s[1])
	}
	out.DistanceM = s[0]
	return out
}

func (m *Model) changeUpright(s *upright) (d upright) {
	u, w, q := s[2], s[3], s[5]
	sin, cos := math.Sincos(s[4])
	d[0], d[1] = u*cos+w*sin, -u*sin+w*cos
	f, t := m.Air(u, 0, w, 0, q, 0)
	own := m.Weight.MassKg
	d[2] = (f.x + own*(-air.Gravity*sin-q*w)) / m.m.x
	d[3] = (f.z + own*(air.Gravity*cos+q*u)) / m.m.z
	d[4] = q
	d[5] = m.inverse[1][1] * t.y
	return d
}

func (m *Model) stepUpright(s *upright, dt float64) {
	add := func(a *upright, k float64, d *upright) (out upright) {
		for i := range out {
			out[i] = a[i] + k*d[i]
		}
		return out
	}
	k1 := m.changeUpright(s)
	x := add(s, dt/2, &k1)
	k2 := m.changeUpright(&x)
	x = add(s, dt/2, &k2)
	k3 := m.changeUpright(&x)
	x = add(s, dt, &k3)
	k4 := m.changeUpright(&x)
	for i := range s {
		s[i] += dt / 6 * (k1[i] + 2*k2[i] + 2*k3[i] + k4[i])
	}
}
