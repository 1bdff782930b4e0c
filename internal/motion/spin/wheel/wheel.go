// Package wheel is the laws of wheels that turn in the air: how fast a wind, a fall or a
// breath turns them, and how they start.
//
// In words: each blade is cut into strips, each strip is a flat plate that meets the air at
// its own angle. A wheel in a wind slows the air that it works in, and a falling one rides on
// it; both are told by one mean induction. A breath reaches a part of the wheel only, the
// rest of it is held back by still air.
//
// Lengths in m, masses in kg, rates in rad/s, angles in radians from the plane of the wheel.
package wheel

import (
	"math"

	"tussock/internal/motion/glide/air"
)

// Wheel is n flat blades, all at one angle: from radius Inner to Outer, Chord wide.
type Wheel struct {
	Blades              int
	Inner, Outer, Chord float64
	Angle               float64
	MassKg              float64
}

const (
	// friction of a blade's faces: a laminar plate has 2.66/√Re, 0.02 to 0.05 at these sizes.
	friction = 0.03
	// The normal force of a flat plate, 1 / (0.222 + 0.283 / sin α): drag handbooks.
	plateA, plateB = 0.222, 0.283
	// hubDrag is that of the disc inside of the blades.
	hubDrag = 1.1
	strips  = 30
)

// blade is a wheel with the sine and cosine of its angle at hand.
type blade struct {
	Wheel
	sin, cos float64
}

func (w Wheel) blade() blade {
	sin, cos := math.Sincos(w.Angle)
	return blade{w, sin, cos}
}

// at is thrust and torque of all blades for each m of radius, air coming along the axle at u.
// The sine of the angle at which the plate meets the air is that of the two speeds.
func (b blade) at(r, u, rate float64) (thrust, torque float64) {
	speed2 := u*u + rate*rate*r*r
	if speed2 == 0 {
		return 0, 0
	}
	meets := (u*b.cos - rate*r*b.sin) / math.Sqrt(speed2)
	n := meets / (plateA*math.Abs(meets) + plateB)
	q := air.AirDensity / 2 * speed2 * b.Chord * float64(b.Blades)
	return q * (n*b.cos + friction*b.sin), q * (n*b.sin - friction*b.cos) * r
}

// over sums along the blades: the middle of each strip.
func (w Wheel) over(f func(r float64) float64) float64 {
	dr := (w.Outer - w.Inner) / strips
	sum := 0.0
	for i := range strips {
		sum += f(w.Inner+(float64(i)+0.5)*dr) * dr
	}
	return sum
}

// Thrust and Torque of the wheel in even air, without what it does to the air.
func (w Wheel) Thrust(u, rate float64) float64 {
	b := w.blade()
	return w.over(func(r float64) float64 { t, _ := b.at(r, u, rate); return t })
}

// Torque is that.
func (w Wheel) Torque(u, rate float64) float64 {
	b := w.blade()
	return w.over(func(r float64) float64 { _, q := b.at(r, u, rate); return q })
}

// Area that the blades sweep.
func (w Wheel) Area() float64 { return math.Pi * (w.Outer*w.Outer - w.Inner*w.Inner) }

// loading is the thrust over that of the air on the area, at a rate of the strips.
func (w Wheel) loading(tip float64) float64 {
	return w.Thrust(1, tip/w.Outer) / (air.AirDensity / 2 * w.Area())
}

// freeStrips is the rate of the strips at which nothing drives them: torque falls through
// nought there.
func (w Wheel) freeStrips() float64 {
	lo, hi := 1e-3, 1.0
	for w.Torque(1, hi/w.Outer) > 0 && hi < 200 {
		lo, hi = hi, hi*1.5
	}
	for range 22 {
		if mid := (lo + hi) / 2; w.Torque(1, mid/w.Outer) > 0 {
			lo = mid
		} else {
			hi = mid
		}
	}
	return lo
}

// Free is a wheel that nothing holds: how many times as fast as the wind its tips go, and its
// thrust coefficient, by one mean induction.
func (w Wheel) Free() (tips, thrust float64) {
	free := w.freeStrips()
	a := induction(w.loading(free))
	return free * (1 - a), thrustOf(a)
}

// induction is the part of the wind that a loading of the strips takes: momentum theory.
func induction(loading float64) float64 {
	c := math.Max(0, loading)
	return c / (4 + c)
}

// thrustOf is the thrust coefficient of an induction: momentum theory up to 0.4, the usual
// line for heavy loads beyond.
func thrustOf(a float64) float64 {
	if a <= 0.4 {
		return 4 * a * (1 - a)
	}
	return 0.96 + 0.57*(a-0.4)
}

// Starts is the torque in a wind while it still stands, N m.
func (w Wheel) Starts(wind float64) float64 {
	f := 4 / (4 + w.loading(0))
	return w.Torque(wind, 0) * f * f
}

// Falls is how fast it falls, m/s, and turns, when it has settled.
func (w Wheel) Falls() (speed, rate float64) {
	tips, thrust := w.Free()
	speed = math.Sqrt(2 * w.MassKg * air.Gravity / (air.AirDensity * (thrust*w.Area() + hubDrag*math.Pi*w.Inner*w.Inner)))
	return speed, tips * speed / w.Outer
}

// Inertia about the axle, of blades that weigh alike along their length.
func (w Wheel) Inertia() float64 {
	return w.MassKg * (w.Outer*w.Outer + w.Outer*w.Inner + w.Inner*w.Inner) / 3
}

// Breath is a jet from a mouth: how wide it is there, how fast, how far away, and how far from
// the axle it meets the wheel.
type Breath struct{ Mouth, Speed, Away, Aim float64 }

// There is how fast a breath is where it meets the wheel, m/s, and half as wide as it is, m.
func (b Breath) There() (speed, radius float64) {
	speed = b.Speed * math.Min(1, jetDecay*b.Mouth/b.Away)
	return speed, b.Mouth / 2 * b.Speed / speed
}

const (
	// jetDecay is two thirds of 6.2, of a round jet's middle line; mean over its width.
	jetDecay = 4.1
	// Of what the strips say, what a breath brings and what still air holds back: from a blade
	// element model with induction, good to a tenth against it.
	caught, held = 0.7, 0.5
	// hubFriction is that of a pin in paper.
	hubFriction = 0.3
)

// Blown is the torque of a breath on a wheel on a pin, N m.
func (w Wheel) Blown(b Breath, pin, rate float64) float64 { return w.jet(b, pin).torque(rate) }

// jet is a breath on a wheel, strip by strip.
type jet struct {
	blade
	u, held float64         // speed there, m/s; what the pin holds back, N m
	still   float64         // what still air holds back, over the square of the rate
	r, part [strips]float64 // of each strip, and the part of it that is in the jet
	dr      float64
}

func (w Wheel) jet(b Breath, pin float64) *jet {
	u, wide := b.There()
	j := &jet{blade: w.blade(), u: u, dr: (w.Outer - w.Inner) / strips}
	for i := range j.r {
		r := w.Inner + (float64(i)+0.5)*j.dr
		x := (r - b.Aim) / wide
		j.r[i], j.part[i] = r, math.Min(1, wide/(2*math.Sqrt(math.Pi)*r)*math.Exp(-x*x))
	}
	for i, r := range j.r { // a blade meets still air at one angle, whatever its rate
		_, q := j.at(r, 0, 1)
		j.still += held * (1 - j.part[i]) * q * j.dr
	}
	j.held = w.Rub(pin, air.AirDensity*math.Pi*b.Mouth*b.Mouth/4*b.Speed*b.Speed)
	return j
}

func (j *jet) torque(rate float64) float64 {
	sum := 0.0
	for i, r := range j.r {
		_, in := j.at(r, j.u, rate)
		sum += j.part[i] * in
	}
	return caught*sum*j.dr + j.still*rate*math.Abs(rate) - j.held
}

// Turns is the rate that a breath keeps it at; false where it does not start.
func (w Wheel) Turns(b Breath, pin float64) (rate float64, ok bool) {
	j := w.jet(b, pin)
	if j.torque(0) <= 0 {
		return 0, false
	}
	// The highest rate at which it is still driven, by a scan and bisection. Tips go at most
	// some times as fast as the breath.
	const steps, mostTips = 40, 5.0
	most := mostTips * j.u / w.Outer
	last := 0.0
	for i := 1; i <= steps; i++ {
		if at := most * float64(i) / steps; j.torque(at) > 0 {
			last = at
		}
	}
	lo, hi := last, last+most/steps
	for range 24 {
		if mid := (lo + hi) / 2; j.torque(mid) > 0 {
			lo = mid
		} else {
			hi = mid
		}
	}
	return lo, true
}
