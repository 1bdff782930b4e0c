package air

import (
	"math"

	"gonum.org/v1/gonum/mat"

	"tussock/internal/geom"
)

// Edge is the chord at one end of a strip: from the leading to the trailing edge, m.
type Edge struct{ Lead, Trail geom.Vec3 }

// Part tells which part of the glider a strip belongs to.
type Part int8

// The parts. Right and left are those of somebody who looks forward.
const (
	RightWing Part = iota
	LeftWing
	Keel
	Fin
)

func (p Part) Wing() bool { return p == RightWing || p == LeftWing }

// Strip is a part of a lifting surface between two chords, Left to the left of Right
// for somebody who looks forward; of an upright one Left is the lower.
type Strip struct {
	Left, Right Edge
	// FreeLeft and FreeRight tell how free an end is, 0 to 1: 1 is a tip, at 0 something is
	// joined on that the air does not go round.
	FreeLeft, FreeRight float64
	Part                Part
	LipM                float64 // depth of the edge that can be bent, 0 for none
	Layers              float64 // of paper at the leading edge
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

// Area of a strip, m².
func (s Strip) Area() float64 { return s.Chord() * s.Width() }

// panel is one horseshoe: a bound whirl on the quarter chord between a and b, legs
// straight aft, and the spot on the three-quarter chord where no air goes through.
type panel struct {
	a, b, control, normal geom.Vec3
	legA, legB            float64 // from the ends of the bound whirl to the trailing edge
	part                  Part
	half                  float64    // of its width, m
	lip                   bool       // on the edge that can be bent
	from, to              [2]float64 // along x, at both ends of the strip
}

// ahead is the part of a panel that lies ahead of a place along x.
func (p panel) ahead(x float64) float64 {
	const n = 16
	part, whole := 0.0, 0.0
	for k := range n {
		t := (float64(k) + 0.5) / n
		from, to := p.from[0]+t*(p.from[1]-p.from[0]), p.to[0]+t*(p.to[1]-p.to[0])
		part, whole = part+math.Max(0, math.Min(to, x)-from), whole+to-from
	}
	return part / whole
}

// lattice is all panels with the matrix of what each does at every control point.
type lattice struct {
	panels    []panel // strip by strip
	chordwise int     // how many make a strip
	lu        mat.LU
}

// worstCondition is the condition number above which panels do not determine the flow.
const worstCondition = 1e12

// newLattice covers strips with so many panels from front to back; the last ones
// of a strip with a lip are the lip. ok is false when the panels do not determine the flow.
func newLattice(strips []Strip, chordwise int) (l *lattice, ok bool) {
	l = &lattice{chordwise: chordwise}
	for _, s := range strips {
		l.cover(s, chordwise)
	}
	n := len(l.panels)
	if n == 0 {
		return l, false
	}
	a := mat.NewDense(n, n, nil)
	for i := range l.panels {
		p := &l.panels[i]
		for j := range l.panels {
			a.Set(i, j, l.panels[j].on(p).Dot(p.normal))
		}
	}
	l.lu.Factorize(a)
	return l, l.lu.Cond() < worstCondition
}

func (l *lattice) cover(s Strip, chordwise int) {
	left, right := s.Left, s.Right
	s.Left, s.Right = between(left, right, tipInset*s.FreeLeft), between(right, left, tipInset*s.FreeRight)
	cuts, lip := chordCuts(s, chordwise)
	for k := range chordwise {
		part := func(p float64) float64 { return cuts[k] + p*(cuts[k+1]-cuts[k]) }
		at := func(e Edge, p float64) geom.Vec3 { return e.Lead.Add(e.Trail.Sub(e.Lead).Scale(part(p))) }
		a, b := at(s.Left, 0.25), at(s.Right, 0.25)
		c := at(s.Left, 0.75).Add(at(s.Right, 0.75)).Scale(0.5)
		span := b.Sub(a)
		l.panels = append(l.panels, panel{a: a, b: b, control: c,
			normal: geom.Vec3{X: 1}.Cross(geom.Vec3{Y: span.Y, Z: span.Z}).Unit(),
			legA:   s.Left.Trail.X - a.X, legB: s.Right.Trail.X - b.X,
			part: s.Part, half: math.Hypot(span.Y, span.Z) / 2, lip: k >= lip,
			from: [2]float64{at(s.Left, 0).X, at(s.Right, 0).X}, to: [2]float64{at(s.Left, 1).X, at(s.Right, 1).X}})
	}
}

// chordCuts are where the panels of a strip begin, as parts of its chord, and the first
// panel of its lip. The lip is one panel, so that its hinge is an edge; before it they
// grow shorter step by step to the lip's depth, since whirls see their neighbours best
// when these are of a size.
func chordCuts(s Strip, chordwise int) (cuts []float64, lip int) {
	cuts, lip = make([]float64, chordwise+1), chordwise
	rest, ratio := 1.0, 1.0
	if s.LipM > 0 && chordwise > 1 {
		lip = chordwise - 1
		last := math.Min(0.5, s.LipM/s.Chord())
		rest = 1 - last
		ratio = stepRatio(rest/last, lip)
	}
	size, sum := 1.0, 0.0
	for k := range lip {
		cuts[k] = sum
		sum += size
		size *= ratio
	}
	for k := range lip {
		cuts[k] *= rest / sum
	}
	cuts[lip], cuts[chordwise] = rest, 1
	return cuts, lip
}

// stepRatio is r with 1 + 1/r + … + 1/r^(n-1) = total, at most 1: sizes that grow from 1.
func stepRatio(total float64, n int) float64 {
	lo, hi := 0.2, 1.0
	for range 40 {
		r := (lo + hi) / 2
		sum, size := 0.0, 1.0
		for range n {
			sum += size
			size /= r
		}
		if sum > total {
			lo = r
		} else {
			hi = r
		}
	}
	return (lo + hi) / 2
}

func between(from, to Edge, part float64) Edge {
	mix := func(a, b geom.Vec3) geom.Vec3 { return a.Add(b.Sub(a).Scale(part)) }
	return Edge{mix(from.Lead, to.Lead), mix(from.Trail, to.Trail)}
}

// on is the velocity that a horseshoe of unit strength gives where another panel asks for it
// (law of Biot and Savart): the bound whirl and two legs that run aft without end.
func (p *panel) on(q *panel) geom.Vec3 {
	v := line(p.a, p.b, q.control)
	return v.Add(leg(p.b, q.control, q.core(p.b))).Sub(leg(p.a, q.control, q.core(p.a)))
}

// core is the radius within which a leg that begins at a place turns stiffly, where it
// passes this panel: half the panel's width, for nearer the lattice is too coarse to tell.
// The panel's own legs, and those of its neighbours beside it, are where it expects them.
func (p *panel) core(at geom.Vec3) float64 {
	for _, own := range [2]*geom.Vec3{&p.a, &p.b} {
		if dy, dz := at.Y-own.Y, at.Z-own.Z; dy*dy+dz*dz < sameLegM*sameLegM {
			return coreM
		}
	}
	return p.half
}

// sameLegM is how near two legs are the same.
const sameLegM = 1e-7

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

// leg is that of a whirl from a point straight aft, with a core.
func leg(from, q geom.Vec3, core float64) geom.Vec3 {
	r := q.Sub(from)
	d2 := r.Y*r.Y + r.Z*r.Z
	if d2 < coreM*coreM {
		return geom.Vec3{}
	}
	k := (1 + r.X/r.Len()) / (4 * math.Pi * math.Max(d2, core*core))
	return geom.Vec3{Y: -r.Z * k, Z: r.Y * k}
}

// solve gives the strengths of all whirls for several ways the air comes, each told by
// the speed with which it would go through a panel.
func (l *lattice) solve(through ...func(p panel) float64) ([][]float64, bool) {
	n := len(l.panels)
	rhs := mat.NewDense(n, len(through), nil)
	for i, p := range l.panels {
		for k, f := range through {
			rhs.Set(i, k, -f(p))
		}
	}
	var x mat.Dense
	if err := l.lu.SolveTo(&x, false, rhs); err != nil {
		return nil, false
	}
	out := make([][]float64, len(through))
	for k := range through {
		out[k] = mat.Col(nil, k, &x)
	}
	return out, true
}
