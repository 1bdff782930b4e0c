package body

import (
	"math"

	"tussock/internal/geom"
)

// How the folds of one vertex depend on each other when the paper between them
// stays flat and stiff. Angles in degrees.

// FourCrease is a flat-foldable vertex with four creases: the sector between
// creases 0 and 1 is A, between 1 and 2 B, then 180-A and 180-B.
type FourCrease struct{ A, B float64 }

// Ratios are |t1/t0| of its two ways of folding, where t is the tangent of half
// the fold angle: in the first, opposite creases 0 and 2 fold alike and 1 and 3
// against each other; in the second 1 and 3 fold alike and 0 and 2 against each
// other. Law: the closure of a spherical four-bar with opposite sides that add up
// to 180°, (cos, sin)((A+B)/2) / (cos, sin)((A-B)/2).
func (v FourCrease) Ratios() (first, second float64) {
	p, m := geom.Rad(v.A+v.B)/2, geom.Rad(v.A-v.B)/2
	return math.Abs(math.Cos(p) / math.Cos(m)), math.Abs(math.Sin(p) / math.Sin(m))
}

// Folds are the four fold angles when crease 0 is folded by deg, in the first or
// the second way, signs by sense.
func (v FourCrease) Folds(deg float64, second bool) [4]float64 {
	t := math.Tan(geom.Rad(deg) / 2)
	a, b := v.Ratios()
	angle := func(x float64) float64 { return geom.Deg(2 * math.Atan(x)) }
	if second {
		return [4]float64{deg, angle(-b * t), -deg, angle(-b * t)}
	}
	return [4]float64{deg, angle(-a * t), deg, angle(a * t)}
}

// Closure is by how many degrees the four creases fail to close with these fold
// angles: the turn left over after going once round the vertex.
func (v FourCrease) Closure(folds [4]float64) float64 {
	sectors := [4]float64{v.A, v.B, 180 - v.A, 180 - v.B}
	m := geom.Iso3{R: [3]geom.Vec3{{X: 1}, {Y: 1}, {Z: 1}}}
	for i := range 4 {
		m = m.After(geom.Swing(geom.Vec3{}, geom.Vec3{X: 1}, geom.Rad(folds[i])))
		m = m.After(geom.Swing(geom.Vec3{}, geom.Vec3{Z: 1}, geom.Rad(sectors[i])))
	}
	// The full turn, not R - Rᵀ, which also vanishes at 180°.
	trace := m.R[0].X + m.R[1].Y + m.R[2].Z
	return geom.Deg(math.Acos(math.Max(-1, math.Min(1, (trace-1)/2))))
}

// Salt is the vertex of a fortune teller: eight creases 45° apart, fourfold
// symmetric. Its ridges stand at angle Ridge from the axis, its valleys at Valley.
type Salt struct {
	Ridge, Valley         float64
	RidgeFold, ValleyFold float64
}

// SaltAt gives the two ways the vertex can stand with its ridges at an angle from
// the axis: shallow, and pinched. ok is false where there is none. Law: a sector
// keeps its 45°, cos 45 = cos r cos v + sin r sin v cos 45.
func SaltAt(ridge float64) (shallow, pinched Salt, ok bool) {
	r := geom.Rad(ridge)
	c45 := math.Sqrt2 / 2
	a, b := math.Cos(r), math.Sin(r)*c45
	k := c45 / math.Hypot(a, b)
	if k > 1 {
		return shallow, pinched, false
	}
	mid, half := math.Atan2(b, a), math.Acos(k)
	at := func(v float64) Salt {
		dir := func(polar, azimuth float64) geom.Vec3 {
			return geom.Vec3{X: math.Sin(polar) * math.Cos(azimuth), Y: math.Sin(polar) * math.Sin(azimuth), Z: math.Cos(polar)}
		}
		r0, r1 := dir(r, 0), dir(r, math.Pi/2)
		v0, v1 := dir(v, math.Pi/4), dir(v, -math.Pi/4)
		bend := func(n, m geom.Vec3) float64 {
			n, m = n.Unit(), m.Unit()
			return geom.Deg(math.Acos(math.Max(-1, math.Min(1, n.Dot(m)))))
		}
		return Salt{ridge, geom.Deg(v), bend(v1.Cross(r0), r0.Cross(v0)), bend(r0.Cross(v0), v0.Cross(r1))}
	}
	return at(mid + half), at(mid - half), true
}
