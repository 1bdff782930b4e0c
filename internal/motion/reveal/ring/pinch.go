package ring

import "math"

// Pinched is how far the joints of a pinched hexagon stand from its axis, radians: those that
// are shut, and the three between that come together on the axis.
type Pinched struct{ Shut, Axis float64 }

// Pinch the ring so far, 0 flat to 1 shut: joints in between go from level to the axis, and
// the others follow by the cosine rule of spherical triangles: cos 60° = cos a cos s +
// sin a sin s cos 60°.
func Pinch(part float64) Pinched {
	a := math.Pi / 2 * (1 + part)
	x, y := math.Cos(a), math.Sin(a)/2
	return Pinched{Shut: math.Atan2(y, x) - math.Acos(math.Min(1, 0.5/math.Hypot(x, y))), Axis: a}
}

// Folds are the angles that joints are folded by, degrees: those that are shut, and those on
// the axis.
func (p Pinched) Folds() (shut, axis float64) {
	at := func(polar, turn float64) [3]float64 {
		return [3]float64{math.Sin(polar) * math.Cos(turn), math.Sin(polar) * math.Sin(turn), math.Cos(polar)}
	}
	fold := func(mid, a, b [3]float64) float64 {
		dot := func(u, v [3]float64) float64 { return u[0]*v[0] + u[1]*v[1] + u[2]*v[2] }
		off := func(v [3]float64) (o [3]float64) {
			k := dot(v, mid)
			for i := range v {
				o[i] = v[i] - k*mid[i]
			}
			return o
		}
		u, v := off(a), off(b)
		c := dot(u, v) / math.Sqrt(dot(u, u)*dot(v, v))
		return 180 - math.Acos(math.Max(-1, math.Min(1, c)))*180/math.Pi
	}
	const third = math.Pi / 3
	shut = fold(at(p.Shut, 0), at(p.Axis, third), at(p.Axis, -third))
	axis = fold(at(p.Axis, 0), at(p.Shut, third), at(p.Shut, -third))
	return shut, axis
}

// Shuts tells which joints a flex at a three of corners shuts: those before the places of that
// parity or the others. Joint i lies between place i-1 and place i.
func (s State) Shuts(corners int) int {
	n := s.Leaves()
	if s[corners].lowFirst(n) == s.along(n) {
		return corners
	}
	return 1 - corners
}
