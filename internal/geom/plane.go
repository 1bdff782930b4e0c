package geom

import "math"

// Vec is a point or a displacement in the plane, in mm.
type Vec struct{ X, Y float64 }

func (a Vec) Add(b Vec) Vec             { return Vec{a.X + b.X, a.Y + b.Y} }
func (a Vec) Sub(b Vec) Vec             { return Vec{a.X - b.X, a.Y - b.Y} }
func (a Vec) Scale(k float64) Vec       { return Vec{a.X * k, a.Y * k} }
func (a Vec) Dot(b Vec) float64         { return a.X*b.X + a.Y*b.Y }
func (a Vec) Cross(b Vec) float64       { return a.X*b.Y - a.Y*b.X }
func (a Vec) Len() float64              { return math.Hypot(a.X, a.Y) }
func (a Vec) Dist(b Vec) float64        { return math.Hypot(a.X-b.X, a.Y-b.Y) }
func (a Vec) Left() Vec                 { return Vec{-a.Y, a.X} }
func (a Vec) Lerp(b Vec, k float64) Vec { return Vec{a.X + k*(b.X-a.X), a.Y + k*(b.Y-a.Y)} }

// Unit returns the direction of a; the zero vector stays zero.
func (a Vec) Unit() Vec {
	l := a.Len()
	if l == 0 {
		return Vec{}
	}
	return a.Scale(1 / l)
}

// Finite tells whether both coordinates are ordinary numbers.
func (a Vec) Finite() bool {
	return !math.IsNaN(a.X) && !math.IsInf(a.X, 0) && !math.IsNaN(a.Y) && !math.IsInf(a.Y, 0)
}

// Mid is the point half-way between a and b.
func Mid(a, b Vec) Vec { return a.Lerp(b, 0.5) }

// Line is the set of points p with N·p = D. N is a unit vector, D is in mm.
type Line struct {
	N Vec
	D float64
}

// LineThrough is the line through two points; ok is false when they are closer
// than Distinct, since they then fix no direction.
func LineThrough(a, b Vec) (l Line, ok bool) {
	d := b.Sub(a)
	if d.Len() < Distinct {
		return Line{}, false
	}
	n := d.Unit().Left()
	return Line{n, n.Dot(a)}, true
}

// LineAt is the line through p in direction dir (any non-zero length).
func LineAt(p, dir Vec) Line {
	n := dir.Unit().Left()
	return Line{n, n.Dot(p)}
}

// Side is the signed distance of p from the line in mm, positive where N points.
func (l Line) Side(p Vec) float64 { return l.N.Dot(p) - l.D }

// Dir is the unit direction along the line, N turned clockwise by a quarter.
func (l Line) Dir() Vec { return Vec{l.N.Y, -l.N.X} }

// Foot is the nearest point of the line to p.
func (l Line) Foot(p Vec) Vec { return p.Sub(l.N.Scale(l.Side(p))) }

// Mirror is p reflected in the line.
func (l Line) Mirror(p Vec) Vec { return p.Sub(l.N.Scale(2 * l.Side(p))) }

// Flip is the same line with its sides exchanged.
func (l Line) Flip() Line { return Line{l.N.Scale(-1), -l.D} }

// Meet is the crossing of two lines; ok is false when they run side by side
// (Aligned).
func Meet(a, b Line) (p Vec, ok bool) {
	det := a.N.Cross(b.N)
	if math.Abs(det) < Aligned {
		return Vec{}, false
	}
	return Vec{(a.D*b.N.Y - b.D*a.N.Y) / det, (b.D*a.N.X - a.D*b.N.X) / det}, true
}

// Parallel tells whether two lines run side by side (Aligned).
func Parallel(a, b Line) bool { return math.Abs(a.N.Cross(b.N)) < Aligned }

// Offset is the parallel line at the given distance on the side where N points.
func (l Line) Offset(mm float64) Line { return Line{l.N, l.D + mm} }

// Turned is the line turned counter-clockwise by rad about p (p need not lie on it).
func (l Line) Turned(rad float64, p Vec) Line {
	m := Rotation(rad, p)
	return l.Moved(m)
}

// TurnedBy is the line turned by rad about the foot of a point; sense 1 is
// counter-clockwise, -1 clockwise.
func (l Line) TurnedBy(rad float64, about Vec, sense int) Line {
	return l.Turned(float64(sense)*rad, l.Foot(about))
}

// SenseToward is the way to turn about the foot of a point that carries the line towards
// another. Where that lies square to the line, both ways do as well, and the smallest
// error tells them apart: whoever measures errors must keep the sense.
func (l Line) SenseToward(about, toward Vec) int {
	foot := l.Foot(about)
	// Counter-clockwise carries a line towards points that lie on the left of
	// the way from the foot to the point's own foot on the line.
	way := l.Foot(toward).Sub(foot)
	if way.Len() < Distinct {
		way = l.Dir()
	}
	if way.Cross(toward.Sub(foot)) < 0 {
		return -1
	}
	return 1
}

// Moved is the image of the line under an isometry.
func (l Line) Moved(m Iso2) Line {
	p := m.Apply(l.N.Scale(l.D))
	n := m.Turn(l.N)
	return Line{n, n.Dot(p)}
}

// Segment is a straight piece between two points.
type Segment struct{ A, B Vec }

// Dist is the distance of a point from the segment, in mm.
func (s Segment) Dist(p Vec) float64 {
	d := s.B.Sub(s.A)
	t := p.Sub(s.A).Dot(d) / math.Max(d.Dot(d), 1e-30)
	return p.Dist(s.A.Add(d.Scale(math.Min(1, math.Max(0, t)))))
}

// Mid is the middle of the segment.
func (s Segment) Mid() Vec { return Mid(s.A, s.B) }

// Len is its length in mm.
func (s Segment) Len() float64 { return s.A.Dist(s.B) }

// Iso2 is a motion of the plane that keeps lengths: rotation or reflection, then
// a shift. Image of (x, y) is (A x + B y + TX, C x + D y + TY).
type Iso2 struct{ A, B, C, D, TX, TY float64 }

// Identity leaves every point where it is.
var Identity = Iso2{A: 1, D: 1}

func (m Iso2) Apply(p Vec) Vec {
	return Vec{m.A*p.X + m.B*p.Y + m.TX, m.C*p.X + m.D*p.Y + m.TY}
}

// Turn applies the rotation or reflection without the shift, for directions.
func (m Iso2) Turn(v Vec) Vec { return Vec{m.A*v.X + m.B*v.Y, m.C*v.X + m.D*v.Y} }

// Near tells whether two motions agree within tol: directions as they are, shifts
// in mm.
func (m Iso2) Near(n Iso2, tol float64) bool {
	for _, d := range []float64{m.A - n.A, m.B - n.B, m.C - n.C, m.D - n.D, m.TX - n.TX, m.TY - n.TY} {
		if math.Abs(d) > tol {
			return false
		}
	}
	return true
}

// Det is +1 for a rotation, -1 for a reflection (up to rounding).
func (m Iso2) Det() float64 { return m.A*m.D - m.B*m.C }

// FaceUp tells whether the motion keeps the front side towards the viewer.
func (m Iso2) FaceUp() bool { return m.Det() > 0 }

// After is the motion "first n, then m".
func (m Iso2) After(n Iso2) Iso2 {
	t := m.Apply(Vec{n.TX, n.TY})
	return Iso2{
		m.A*n.A + m.B*n.C, m.A*n.B + m.B*n.D,
		m.C*n.A + m.D*n.C, m.C*n.B + m.D*n.D,
		t.X, t.Y,
	}
}

// Inverse undoes m.
func (m Iso2) Inverse() Iso2 {
	d := m.Det()
	r := Iso2{A: m.D / d, B: -m.B / d, C: -m.C / d, D: m.A / d}
	t := r.Turn(Vec{m.TX, m.TY})
	r.TX, r.TY = -t.X, -t.Y
	return r
}

// Reflection is the mirror image in a line.
func Reflection(l Line) Iso2 {
	n := l.N
	return Iso2{
		1 - 2*n.X*n.X, -2 * n.X * n.Y,
		-2 * n.X * n.Y, 1 - 2*n.Y*n.Y,
		2 * l.D * n.X, 2 * l.D * n.Y,
	}
}

// Rotation turns counter-clockwise by rad about centre.
func Rotation(rad float64, centre Vec) Iso2 {
	s, c := math.Sincos(rad)
	m := Iso2{A: c, B: -s, C: s, D: c}
	t := centre.Sub(m.Turn(centre))
	m.TX, m.TY = t.X, t.Y
	return m
}

// Rad converts degrees to radians.
func Rad(deg float64) float64 { return deg * math.Pi / 180 }

// Deg converts radians to degrees.
func Deg(rad float64) float64 { return rad * 180 / math.Pi }
