package wheel

import (
	"math"

	"tussock/internal/motion/glide/air"
)

// Polar is a wheel in even air at every rate: how its thrust and torque go with the speed of
// its tips over that of the air, with the wheel's own slowing of the air in it. It is made
// once and asked often.
type Polar struct {
	wheel          Wheel
	tips           []float64 // of the air far ahead, rising
	thrust, torque []float64 // over ½ρu²A and ½ρu²AR
}

// Past the rate at which nothing drives it the strips say too much of what they take: the
// loading has a pole. The table ends there and is held.
const polarPoints, pastFree = 18, 1.15

// Polar of a wheel.
func (w Wheel) Polar() Polar {
	p := Polar{wheel: w}
	free := w.freeStrips()
	for i := range polarPoints {
		strips := pastFree * free * float64(i) / (polarPoints - 1)
		a := induction(w.loading(strips))
		tips := strips * (1 - a)
		if n := len(p.tips); n > 0 && tips <= p.tips[n-1] {
			break
		}
		q := w.Torque(1-a, tips/w.Outer) / (air.AirDensity / 2 * w.Area() * w.Outer)
		p.tips, p.thrust, p.torque = append(p.tips, tips), append(p.thrust, thrustOf(a)), append(p.torque, q)
	}
	return p
}

// at is a column of the table at a speed of the tips over that of the air.
func (p Polar) at(of []float64, tips float64) float64 {
	last := len(p.tips) - 1
	switch {
	case tips <= 0:
		return of[0]
	case tips >= p.tips[last]:
		return of[last]
	}
	step := 1
	for p.tips[step] < tips {
		step++
	}
	k := (tips - p.tips[step-1]) / (p.tips[step] - p.tips[step-1])
	return of[step-1] + k*(of[step]-of[step-1])
}

// Torque at a wind and a rate, N m.
func (p Polar) Torque(wind, rate float64) float64 {
	if wind <= 0 {
		return p.wheel.Torque(0, rate)
	}
	return air.AirDensity / 2 * wind * wind * p.wheel.Area() * p.wheel.Outer * p.at(p.torque, rate*p.wheel.Outer/wind)
}

// Thrust at a wind and a rate, N, with that of the disc inside of the blades.
func (p Polar) Thrust(wind, rate float64) float64 {
	tips := math.Inf(1)
	if wind > 0 {
		tips = rate * p.wheel.Outer / wind
	}
	return air.AirDensity / 2 * wind * math.Abs(wind) * (p.wheel.Area()*p.at(p.thrust, tips) + hubDrag*math.Pi*p.wheel.Inner*p.wheel.Inner)
}

// Rub is the friction of a pin of a radius under the wheel's weight and a thrust along it,
// N m: Coulomb's law.
func (w Wheel) Rub(pin, thrust float64) float64 {
	return hubFriction * (w.MassKg*air.Gravity + thrust) * pin
}

// Turns is the rate that a wind keeps it at on a pin; false where it does not start.
func (p Polar) Turns(wind, pin float64) (rate float64, ok bool) {
	left := func(rate float64) float64 {
		return p.Torque(wind, rate) - p.wheel.Rub(pin, p.Thrust(wind, rate))
	}
	if wind <= 0 || p.wheel.Starts(wind)-p.wheel.Rub(pin, p.Thrust(wind, 0)) <= 0 {
		return 0, false
	}
	hi := p.tips[len(p.tips)-1] * wind / p.wheel.Outer
	lo := 0.0
	const scan = 40
	for i := 1; i <= scan; i++ {
		if at := hi * float64(i) / scan; left(at) > 0 {
			lo = at
		}
	}
	hi = math.Min(hi, lo+hi/scan)
	for range 40 {
		if mid := (lo + hi) / 2; left(mid) > 0 {
			lo = mid
		} else {
			hi = mid
		}
	}
	return lo, true
}

// SpinUp is how long it takes to 63 % of its rate in a steady wind, s, good to 30 %: a part
// of the angular momentum over the torque of the start, by the angle of the blades.
func (w Wheel) SpinUp(inertia, rate, start float64) float64 {
	if start <= 0 {
		return math.Inf(1)
	}
	return shapeOf(w.Angle) * inertia * rate / start
}

// shapes are that part at angles of the blades, degrees: by a blade element model with
// induction.
var shapes = [][2]float64{{10, 0.54}, {20, 0.58}, {30, 0.65}, {45, 0.75}, {60, 0.79}}

func shapeOf(angle float64) float64 {
	deg := angle * 180 / math.Pi
	for i, s := range shapes {
		if deg <= s[0] {
			if i == 0 {
				return s[1]
			}
			was := shapes[i-1]
			return was[1] + (s[1]-was[1])*(deg-was[0])/(s[0]-was[0])
		}
	}
	return shapes[len(shapes)-1][1]
}

// Moment is a wheel at a time of its fall.
type Moment struct{ T, Fallen, Speed, Rate float64 }

// Drop is a fall from a height out of the hand, without a turn: Newton's laws for falling and
// turning. drag multiplies what holds it up. The last moment is at the floor.
func (p Polar) Drop(height, inertia, drag float64) []Moment {
	const dt, most = 0.006, 60.0
	now := Moment{}
	out := make([]Moment, 1, 512)
	for now.T < most {
		up := drag * p.Thrust(now.Speed, now.Rate)
		q := p.Torque(now.Speed, now.Rate)
		next := now
		next.T += dt
		next.Speed += dt * (air.Gravity - up/p.wheel.MassKg)
		next.Rate = math.Max(0, now.Rate+dt*q/inertia)
		// A fast wheel follows the air at once: no step goes past the rate that nothing drives.
		if top := p.tips[len(p.tips)-1] * next.Speed / p.wheel.Outer; q > 0 && next.Rate > top {
			next.Rate = math.Max(now.Rate, top)
		}
		next.Fallen += dt * (now.Speed + next.Speed) / 2
		if next.Fallen >= height {
			k := (height - now.Fallen) / math.Max(1e-12, next.Fallen-now.Fallen)
			return append(out, Moment{now.T + k*dt, height, now.Speed + k*(next.Speed-now.Speed), now.Rate + k*(next.Rate-now.Rate)})
		}
		now = next
		out = append(out, now)
	}
	return out
}

// Curled is the angle that a blade with a curl works at: its chord, concave to the wind, lies
// flatter by a quarter of chord over radius; a radius below 0 is convex to it, 0 is no curl.
// Confidence is low.
func Curled(angle, chord, radius float64) float64 {
	if radius == 0 {
		return angle
	}
	return angle - chord/(4*radius)
}
