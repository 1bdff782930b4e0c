// Package token is a token that stands or spins on a point: how it leans, how long it spins,
// how fast it must to stand, and what puts it right.
//
// In words: what leans has its weight beside its point, by as much as the lean and the depth
// of the weight say; the point goes there, or a flap goes the other way. What spins is
// slowed by the air along its faces, by edges that stand up, and by its point on the table.
//
// Lengths in m, masses in kg, angles in radians, rates in rad/s.
package token

import (
	"cmp"
	"math"

	"tussock/internal/motion/glide/air"
)

// Lean is how far a token leans whose centre of mass lies e beside its point and h below the
// place where it rests, radians: tan τ = e / h. ok is false where the mass lies above: then
// it stands only as far as point and dimple are round (StandsTo).
func Lean(e, h float64) (tau float64, ok bool) {
	if !(h > 0) {
		return math.Pi / 2, false
	}
	return math.Atan2(e, h), true
}

// StandsTo is how far the centre of mass may lie above the point, m, when a round tip of
// radius tip rolls in a dimple of a larger radius: r_p r_d / (r_d - r_p), the law of rocking
// bodies. A dimple no wider than the tip holds whatever stands in it.
func StandsTo(tip, dimple float64) float64 {
	if dimple <= tip {
		return math.Inf(1)
	}
	return tip * dimple / (dimple - tip)
}

// Offset is how far the centre of mass lies beside the point of a token that leans so.
func Offset(tau, h float64) float64 { return h * math.Tan(tau) }

// FlapShift is how far a flap must go so that the centre of mass moves by e: the moment is
// the same, e M = m Δ.
func FlapShift(e, massKg, flapKg float64) float64 { return e * massKg / flapKg }

// Rim is a spot of the rim: how far out, at which angle, and how far above the level of the
// point when nothing leans; below is negative.
type Rim struct{ R, Angle, Z float64 }

// Clearance is how far a spot of the rim is above the table when the token leans tau towards
// an angle, m, its point standing so high over the table.
func Clearance(point float64, r Rim, tau, towards float64) float64 {
	return point + r.Z - r.R*math.Sin(tau)*math.Cos(r.Angle-towards)
}

// Touches is the spot that touches first, and how far it is above the table; -1 for no rim.
func Touches(point float64, rim []Rim, tau, towards float64) (first int, clear float64) {
	first, clear = -1, math.Inf(1)
	for i, r := range rim {
		if c := Clearance(point, r, tau, towards); c < clear {
			first, clear = i, c
		}
	}
	return first, clear
}

// Body is a token that spins: its mass, its moment of inertia about the upright axis and
// about one across it, how far out it reaches, and how high its centre of mass is over the
// table.
type Body struct {
	MassKg, Upright, Across, R, H float64
}

// Disc is an even disc.
func Disc(massKg, r, h float64) Body {
	return Body{massKg, massKg * r * r / 2, massKg * r * r / 4, r, h}
}

// Slowing is what slows it: friction of the point and its radius of contact, and edges that
// stand up, as the moment over the square of the rate, N m s².
type Slowing struct {
	Friction, Contact float64
	Edges             float64
	// Air is by how much the air slows more than the laws say, what was learnt from spins; 0
	// counts as 1.
	Air float64
}

// Edges is the moment of edges that stand up, each of an area at a radius, over the square of
// the rate: ½ ρ C_D Σ A r³, C_D 1.2 for a flat edge across the flow.
func Edges(areas, radii []float64) float64 {
	sum := 0.0
	for i, a := range areas {
		sum += a * radii[i] * radii[i] * radii[i]
	}
	return air.AirDensity / 2 * 1.2 * sum
}

const (
	// laminar is the moment of both faces of a disc in still air, over ρ r⁴ √(ν ω³): von
	// Kármán's flow at a rotating disc, 0.616 π for both faces.
	laminar = 1.935
	// viscosity of air, m²/s, at 20 °C.
	viscosity = 1.5e-5
)

// drag is the constant of the air along the faces, N m s^1.5.
func (b Body) drag() float64 {
	return laminar * air.AirDensity * math.Pow(b.R, 4) * math.Sqrt(viscosity)
}

// Rub is the moment of the point on the table, N m: ⅔ μ m g a, that of an even contact.
func (s Slowing) Rub(massKg float64) float64 {
	return 2.0 / 3 * s.Friction * massKg * air.Gravity * s.Contact
}

// SpinDown is how long a token turns from one rate down to another, s, and how many turns it
// makes: I dω/dt = -(rub + K ω^1.5 + edges ω²). Summed by Simpson's rule in the root of the
// rate, where the sum is smooth.
func (b Body) SpinDown(s Slowing, from, to float64) (seconds, turns float64) {
	if !(from > to && to >= 0 && b.Upright > 0) {
		return 0, 0
	}
	air := cmp.Or(s.Air, 1)
	rub, k, edges := s.Rub(b.MassKg), air*b.drag(), air*s.Edges
	f := func(u float64) (dt, dn float64) {
		w := u * u
		m := rub + k*w*u + edges*w*w
		if m == 0 {
			return math.Inf(1), math.Inf(1)
		}
		dt = b.Upright * 2 * u / m
		return dt, dt * w / (2 * math.Pi)
	}
	const n = 400
	lo, hi := math.Sqrt(to), math.Sqrt(from)
	h := (hi - lo) / n
	for i := range n + 1 {
		weight := 2.0
		switch {
		case i == 0 || i == n:
			weight = 1
		case i%2 == 1:
			weight = 4
		}
		dt, dn := f(lo + float64(i)*h)
		seconds += weight * dt * h / 3
		turns += weight * dn * h / 3
	}
	return seconds, turns
}

// Stands is the least rate at which a token stands on a point under its centre of mass:
// 2 √(I m g h) / I_s, I about a line across it through the point (law of the sleeping top).
func (b Body) Stands() float64 {
	across := b.Across + b.MassKg*b.H*b.H
	return 2 * math.Sqrt(across*b.MassKg*air.Gravity*b.H) / b.Upright
}

// Wobble is how far a token leans while it turns steadily on its point, radians, when its
// centre of mass lies e beside it: towards the heavy side. It is where weight and centrifugal
// force are in balance, for small angles: τ = m e (g + ω² h) / (ω² (I_s - I) - m g h), I
// about a line across it through the point. ok is false where nothing holds it: too slow, or
// a token that is no disc.
func (b Body) Wobble(e, rate float64) (tau float64, ok bool) {
	m, w2 := b.MassKg, rate*rate
	stiff := w2*(b.Upright-b.Across-m*b.H*b.H) - m*air.Gravity*b.H
	if stiff <= 0 {
		return math.Pi / 2, false
	}
	return m * e * (air.Gravity + w2*b.H) / stiff, true
}

// Rubs is the rate under which it leans more than a limit, rad/s; infinite where it does so
// at any rate.
func (b Body) Rubs(e, limit float64) float64 {
	m := b.MassKg
	stiff := limit*(b.Upright-b.Across-m*b.H*b.H) - m*e*b.H
	if stiff <= 0 {
		return math.Inf(1)
	}
	return math.Sqrt(m * air.Gravity * (e + b.H*limit) / stiff)
}
