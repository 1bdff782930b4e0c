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
	col := func(i int) Vec3 {
		switch i {
		case 0:
			return Vec3{n.R[0].X, n.R[1].X, n.R[2].X}
		case 1:
			return Vec3{n.R[0].Y, n.R[1].Y, n.R[2].Y}
		}
		return Vec3{n.R[0].Z, n.R[1].Z, n.R[2].Z}
	}
	var out Iso3
	for r := range 3 {
		out.R[r] = Vec3{m.R[r].Dot(col(0)), m.R[r].Dot(col(1)), m.R[r].Dot(col(2))}
	}
	out.T = m.Apply(n.T)
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
