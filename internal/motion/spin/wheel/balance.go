package wheel

import (
	"math"
	"math/cmplx"

	"tussock/internal/motion/glide/air"
)

// Uneven is how far the centre of mass of blades lies off the axle, as mass times radius, by
// the mass and the radius of one blade and the angles at which they stand.
func Uneven(bladeKg, radius float64, at []float64) complex128 {
	var sum complex128
	for _, a := range at {
		sum += cmplx.Rect(bladeKg*radius, a)
	}
	return sum
}

// Stalls tells whether a wheel on a level axle stops with its heavy side down: the moment of
// that side is more than what starts it.
func Stalls(uneven, start float64) bool { return uneven*air.Gravity > start }

// Rattles is the rate above which an uneven wheel is thrown about in its play, rad/s: the
// centrifugal force on the offset is more than the weight.
func Rattles(uneven, massKg float64) float64 {
	if uneven <= 0 {
		return math.Inf(1)
	}
	return math.Sqrt(air.Gravity * massKg / uneven)
}

// Wobbles is how far an uneven wheel leans that turns freely as it falls, radians: its moment
// over that of the centrifugal forces, small angles; upright and across are its moments of
// inertia.
func Wobbles(uneven, rate, upright, across float64) float64 {
	stiff := math.Abs(upright-across) * rate * rate
	if stiff <= 0 {
		return math.Pi / 2
	}
	return math.Min(math.Pi/2, uneven*air.Gravity/stiff)
}

// Blade is one blade's pull along the axle at a wind and a rate of the strips, N: what an odd
// blade has more or less of that leans the wheel.
func (w Wheel) Blade(wind, rate float64) float64 { return w.Thrust(wind, rate) / float64(w.Blades) }

// Inflow is the part of the air ahead that reaches the blades while nothing loads the wheel.
func (w Wheel) Inflow() float64 { return 1 - induction(w.loading(w.freeStrips())) }
