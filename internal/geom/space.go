package geom

import "math"

// Vec3 is a point or a displacement in space, in mm.
type Vec3 struct{ X, Y, Z float64 }

func (a Vec3) Add(b Vec3) Vec3      { return Vec3{a.X + b.X, a.Y + b.Y, a.Z + b.Z} }
func (a Vec3) Sub(b Vec3) Vec3      { return Vec3{a.X - b.X, a.Y - b.Y, a.Z - b.Z} }
func (a Vec3) Scale(k float64) Vec3 { return Vec3{a.X * k, a.Y * k, a.Z * k} }
func (a Vec3) Dot(b Vec3) float64   { return a.X*b.X + a.Y*b.Y + a.Z*b.Z }
func (a Vec3) Len() float64         { return math.Sqrt(a.Dot(a)) }
func (a Vec3) Dist(b Vec3) float64  { return a.Sub(b).Len() }
func (a Vec3) Cross(b Vec3) Vec3 {
	return Vec3{a.Y*b.Z - a.Z*b.Y, a.Z*b.X - a.X*b.Z, a.X*b.Y - a.Y*b.X}
}

// Unit is the direction of a; the zero vector stays zero.
func (a Vec3) Unit() Vec3 {
	l := a.Len()
	if l == 0 {
		return a
	}
	return a.Scale(1 / l)
}

// Iso3 is a rigid motion of space: rows of a rotation matrix and a shift.
type Iso3 struct {
	R [3]Vec3
	T Vec3
}

// Apply is the image of a point.
func (m Iso3) Apply(p Vec3) Vec3 { return m.Turn(p).Add(m.T) }

// Turn is the image of a direction.
func (m Iso3) Turn(p Vec3) Vec3 { return Vec3{m.R[0].Dot(p), m.R[1].Dot(p), m.R[2].Dot(p)} }

// After is "first n, then m".
func (m Iso3) After(n Iso3) Iso3 {
	var out Iso3
	for r, v := range m.R {
		out.R[r] = Vec3{
			v.X*n.R[0].X + v.Y*n.R[1].X + v.Z*n.R[2].X,
			v.X*n.R[0].Y + v.Y*n.R[1].Y + v.Z*n.R[2].Y,
			v.X*n.R[0].Z + v.Y*n.R[1].Z + v.Z*n.R[2].Z,
		}
	}
	out.T = m.Apply(n.T)
	return out
}

// Inverse undoes m: the transposed rotation, and the shift taken back.
func (m Iso3) Inverse() Iso3 {
	out := Iso3{R: [3]Vec3{{m.R[0].X, m.R[1].X, m.R[2].X}, {m.R[0].Y, m.R[1].Y, m.R[2].Y}, {m.R[0].Z, m.R[1].Z, m.R[2].Z}}}
	out.T = out.Turn(m.T).Scale(-1)
	return out
}

// Lift puts the plane into space at z = 0. A reflection becomes the half turn
// of space that has the same effect on the plane, so that paper stays paper.
func Lift(m Iso2) Iso3 {
	z := 1.0
	if !m.FaceUp() {
		z = -1
	}
	return Iso3{
		R: [3]Vec3{{m.A, m.B, 0}, {m.C, m.D, 0}, {0, 0, z}},
		T: Vec3{m.TX, m.TY, 0},
	}
}

// InSpace is the point at height 0.
func (v Vec) InSpace() Vec3 { return Vec3{X: v.X, Y: v.Y} }

// Onto is the motion that brings a triangle onto another of the same sides.
func Onto(a, b [3]Vec3) Iso3 {
	frame := func(t [3]Vec3) Iso3 { // space to the triangle's own frame, by rows
		x := t[1].Sub(t[0]).Unit()
		z := x.Cross(t[2].Sub(t[0])).Unit()
		m := Iso3{R: [3]Vec3{x, z.Cross(x), z}}
		m.T = m.Turn(t[0]).Scale(-1)
		return m
	}
	return frame(b).Inverse().After(frame(a))
}

// Swing turns by rad about the axis through p in direction dir, by the right
// hand (Rodrigues' rotation formula).
func Swing(p, dir Vec3, rad float64) Iso3 {
	u := dir.Unit()
	s, c := math.Sincos(rad)
	k := 1 - c
	m := Iso3{R: [3]Vec3{
		{c + u.X*u.X*k, u.X*u.Y*k - u.Z*s, u.X*u.Z*k + u.Y*s},
		{u.Y*u.X*k + u.Z*s, c + u.Y*u.Y*k, u.Y*u.Z*k - u.X*s},
		{u.Z*u.X*k - u.Y*s, u.Z*u.Y*k + u.X*s, c + u.Z*u.Z*k},
	}}
	m.T = p.Sub(m.Turn(p))
	return m
}
