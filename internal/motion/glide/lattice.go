package glide

import (
	"math"

	"tussock/internal/geom"
)

// Edge is the chord at one end of a strip: from the leading to the trailing edge, m.
type Edge struct{ Lead, Trail geom.Vec3 }

// Strip is a part of a lifting surface between two chords, Left to the left of Right
// for somebody who looks forward.
type Strip struct {
	Left, Right Edge
	// FreeLeft and FreeRight tell that nothing is joined on there: a tip.
	FreeLeft, FreeRight bool
}

// Chord is the mean chord of a strip, m.
func (s Strip) Chord() float64 {
	return (s.Left.Trail.X - s.Left.Lead.X + s.Right.Trail.X - s.Right.Lead.X) / 2
}

// Width is its width across the flow, in its own plane, m.
func (s Strip) Width() float64 {
	d := s.Right.Lead.Sub(s.Left.Lead)
	return math.Hypot(d.Y, d.Z)
}

// tipInset is the part of its width by which the outermost strip of a free edge is
// shortened: the whirl leaves the paper a little inside of the tip.
const tipInset = 0.25

// panel is one horseshoe: a bound whirl on the quarter chord between a and b, legs
// straight aft, and the spot on the three-quarter chord where no air goes through.
type panel struct {
	a, b, control, normal geom.Vec3
}

// lattice is all panels with the matrix of what each does at every control point.
type lattice struct {
	panels []panel
	lu     [][]float64
	pivot  []int
}

// newLattice covers strips with so many panels from front to back. ok is false when the
// panels do not determine the flow.
func newLattice(strips []Strip, chordwise int) (l *lattice, ok bool) {
	l = &lattice{}
	for _, s := range strips {
		if s.FreeLeft {
			s.Left = between(s.Left, s.Right, tipInset)
		}
		if s.FreeRight {
			s.Right = between(s.Right, s.Left, tipInset)
		}
		for k := range chordwise {
			at := func(e Edge, part float64) geom.Vec3 {
				return e.Lead.Add(e.Trail.Sub(e.Lead).Scale((float64(k) + part) / float64(chordwise)))
			}
			a, b := at(s.Left, 0.25), at(s.Right, 0.25)
			c := at(s.Left, 0.75).Add(at(s.Right, 0.75)).Scale(0.5)
			span := b.Sub(a)
			n := geom.Vec3{X: 1}.Cross(geom.Vec3{Y: span.Y, Z: span.Z}).Unit()
			l.panels = append(l.panels, panel{a, b, c, n})
		}
	}
	n := len(l.panels)
	l.lu = make([][]float64, n)
	for i, p := range l.panels {
		l.lu[i] = make([]float64, n)
		for j, q := range l.panels {
			l.lu[i][j] = q.at(p.control).Dot(p.normal)
		}
	}
	return l, l.factor()
}

func between(from, to Edge, part float64) Edge {
	mix := func(a, b geom.Vec3) geom.Vec3 { return a.Add(b.Sub(a).Scale(part)) }
	return Edge{mix(from.Lead, to.Lead), mix(from.Trail, to.Trail)}
}

// at is the velocity that a horseshoe of unit strength gives at a point (law of Biot
// and Savart): the bound whirl and two legs that run aft without end.
func (p panel) at(q geom.Vec3) geom.Vec3 {
	v := line(p.a, p.b, q)
	return v.Add(leg(p.b, q)).Sub(leg(p.a, q))
}

// coreM is the distance below which a whirl gives nothing: the middle of the whirl.
const coreM = 1e-9

// line is the velocity of a straight whirl from a to b of unit strength.
func line(a, b, q geom.Vec3) geom.Vec3 {
	r1, r2 := q.Sub(a), q.Sub(b)
	c := r1.Cross(r2)
	n := c.Dot(c)
	if n < coreM*coreM {
		return geom.Vec3{}
	}
	k := b.Sub(a).Dot(r1.Scale(1/r1.Len()).Sub(r2.Scale(1/r2.Len()))) / (4 * math.Pi * n)
	return c.Scale(k)
}

// leg is that of a whirl from a point straight aft.
func leg(from, q geom.Vec3) geom.Vec3 {
	r := q.Sub(from)
	d2 := r.Y*r.Y + r.Z*r.Z
	if d2 < coreM*coreM {
		return geom.Vec3{}
	}
	k := (1 + r.X/r.Len()) / (4 * math.Pi * d2)
	return geom.Vec3{Y: -r.Z * k, Z: r.Y * k}
}

// factor splits the matrix into triangles, with pivots.
func (l *lattice) factor() bool {
	n := len(l.lu)
	l.pivot = make([]int, n)
	for c := range n {
		p := c
		for r := c + 1; r < n; r++ {
			if math.Abs(l.lu[r][c]) > math.Abs(l.lu[p][c]) {
				p = r
			}
		}
		if math.Abs(l.lu[p][c]) < 1e-12 {
			return false
		}
		l.lu[c], l.lu[p] = l.lu[p], l.lu[c]
		l.pivot[c] = p
		for r := c + 1; r < n; r++ {
			f := l.lu[r][c] / l.lu[c][c]
			l.lu[r][c] = f
			if f == 0 {
				continue
			}
			row, top := l.lu[r][c+1:], l.lu[c][c+1:]
			for k := range row {
				row[k] -= f * top[k]
			}
		}
	}
	return n > 0
}

// solve gives the strengths for a right side.
func (l *lattice) solve(b []float64) []float64 {
	x := append([]float64(nil), b...)
	n := len(x)
	// All exchanges first: the stored factors have been exchanged with their rows.
	for c := range n {
		x[c], x[l.pivot[c]] = x[l.pivot[c]], x[c]
	}
	for r := range n {
		for c := range r {
			x[r] -= l.lu[r][c] * x[c]
		}
	}
	for r := n - 1; r >= 0; r-- {
		for c := r + 1; c < n; c++ {
			x[r] -= l.lu[r][c] * x[c]
		}
		x[r] /= l.lu[r][r]
	}
	return x
}

// Lift is what a small angle of attack does, per radian.
type Lift struct {
	CNa      float64 // normal force over q S
	NeutralM float64 // where it acts, behind x = 0
}

// LiftOf covers a surface and finds its lift, for the area that coefficients are told
// for. ok is false for surfaces without strips.
func LiftOf(strips []Strip, chordwise int, areaM2 float64) (out Lift, ok bool) {
	l, ok := newLattice(strips, chordwise)
	if !ok || !(areaM2 > 0) {
		return out, false
	}
	// Air from a little below: no air goes through where the whirls and it together
	// have no part along the normal.
	b := make([]float64, len(l.panels))
	for i, p := range l.panels {
		b[i] = -p.normal.Z
	}
	force, moment := 0.0, 0.0
	for i, g := range l.solve(b) {
		p := l.panels[i]
		// Kutta and Joukowski: rho Γ V × l on the bound whirl.
		up := g * (p.b.Y - p.a.Y)
		force += up
		moment += up * (p.a.X + p.b.X) / 2
	}
	if force == 0 {
		return out, false
	}
	return Lift{2 * force / areaM2, moment / force}, true
}
