package closure

import (
	"math"

	"gonum.org/v1/gonum/mat"

	"tussock/internal/fold"
	"tussock/internal/geom"
)

// system are the closure equations in a few unknowns: each unknown is the angle of one or
// more hinges that fold alike (an orbit).
type system struct {
	m     *Mechanism
	orbit []int32 // by hinge, -1 for hinges that keep their angle
	n     int
	loops []int     // with at least one unknown
	spans [][]int32 // the unknowns in each of them
	rows  int
	pulls []pull
}

// pull is the distance of two spots of the paper, along the way from one piece to the
// other: a row of its own behind those of the loops.
type pull struct {
	turns []turn
	a, b  geom.Vec3
	span  []int32
}

func (m *Mechanism) system(orbit []int32, n int, spots []*[2]Spot) *system {
	m.look()
	y := &system{m: m, orbit: orbit, n: n}
	for i, l := range m.loops {
		if span := y.span(l.turns); len(span) > 0 {
			y.loops, y.spans = append(y.loops, i), append(y.spans, span)
			y.rows += l.rows()
		}
	}
	for _, s := range spots {
		p := pull{turns: m.path(s[0].Facet, s[1].Facet), a: flatSpot(s[0].At), b: flatSpot(s[1].At)}
		p.span = y.span(p.turns)
		y.pulls = append(y.pulls, p)
	}
	return y
}

func flatSpot(v geom.Vec) geom.Vec3 { return geom.Vec3{X: v.X, Y: v.Y} }

func (y *system) span(turns []turn) []int32 {
	var out []int32
	seen := map[int32]bool{}
	for _, t := range turns {
		if o := y.orbit[t.hinge]; o >= 0 && !seen[o] {
			seen[o] = true
			out = append(out, o)
		}
	}
	return out
}

// path are the turns from one piece to another, by the fewest hinges.
func (m *Mechanism) path(from, to fold.FacetID) []turn {
	type step struct {
		before fold.FacetID
		by     turn
	}
	came := map[fold.FacetID]step{from: {}}
	queue := []fold.FacetID{from}
	for k := 0; k < len(queue) && queue[k] != to; k++ {
		f := queue[k]
		for _, i := range m.touching[f] {
			t, g := m.cross(f, i)
			if _, known := came[g]; !known {
				came[g] = step{f, t}
				queue = append(queue, g)
			}
		}
	}
	var back []turn
	for at := to; at != from; at = came[at].before {
		if _, known := came[at]; !known {
			return nil
		}
		back = append(back, came[at].by)
	}
	for i, j := 0, len(back)-1; i < j; i, j = i+1, j-1 {
		back[i], back[j] = back[j], back[i]
	}
	return back
}

// spread fills the angles of all hinges from the unknowns.
func (y *system) spread(x, rho []float64) {
	for i, o := range y.orbit {
		if o >= 0 {
			rho[i] = x[o]
		}
	}
}

// gather reads the unknowns off the angles of all hinges.
func (y *system) gather(rho []float64) []float64 {
	x := make([]float64, y.n)
	for i, o := range y.orbit {
		if o >= 0 {
			x[o] = rho[i]
		}
	}
	return x
}

// eval computes by how much the loops fail to close, and if jac is not nil its derivative
// by the unknowns (rows one after the other). Rotations in rad, shifts as a part of the
// sheet's size. Rows of pulls follow: distance as a part of the size.
func (y *system) eval(rho, c, jac []float64) {
	if jac != nil {
		clear(jac)
	}
	row := 0
	for _, i := range y.loops {
		l := y.m.loops[i]
		y.round(l, row, rho, c, jac)
		row += l.rows()
	}
	for i := range y.pulls {
		y.pulled(&y.pulls[i], row, rho, c, jac)
		row++
	}
}

// round goes once round a loop. The derivative by the angle of a hinge is the turn about
// its axis where the way has carried it.
func (y *system) round(l loop, row int, rho, c, jac []float64) {
	m := y.m
	first := m.axis[l.turns[0].hinge].p
	start := geom.Vec3{X: first.X, Y: first.Y}
	at := identity
	for _, t := range l.turns {
		if o := y.orbit[t.hinge]; o >= 0 && jac != nil {
			a := &m.axis[t.hinge]
			u := at.Turn(geom.Vec3{X: a.d.X, Y: a.d.Y}).Scale(t.sigma)
			k := row*y.n + int(o)
			jac[k] += u.X
			jac[k+y.n] += u.Y
			jac[k+2*y.n] += u.Z
			if !l.vertex {
				p := at.Apply(geom.Vec3{X: a.p.X, Y: a.p.Y})
				v := u.Cross(start.Sub(p)).Scale(1 / m.size)
				jac[k+3*y.n] += v.X
				jac[k+4*y.n] += v.Y
				jac[k+5*y.n] += v.Z
			}
		}
		at = at.After(m.swing(t, rho[t.hinge]))
	}
	w := logOf(at)
	c[row], c[row+1], c[row+2] = w.X-l.off[0], w.Y-l.off[1], w.Z-l.off[2]
	if !l.vertex {
		d := at.Apply(start).Sub(start).Scale(1 / m.size)
		c[row+3], c[row+4], c[row+5] = d.X-l.off[3], d.Y-l.off[4], d.Z-l.off[5]
	}
}

// open is by how much a loop fails to close in the flat-folded toy, when that is within
// what the fold engine takes for closed.
func (m *Mechanism) open(l *loop) [6]float64 {
	var c [6]float64
	still := make([]int32, len(m.flat))
	for i := range still {
		still[i] = -1
	}
	(&system{m: m, orbit: still}).round(*l, 0, m.flat, c[:], nil)
	for _, v := range c {
		if math.Abs(v) > keptOff {
			return [6]float64{}
		}
	}
	return c
}

// keptOff is the most that a loop may be open in the flat-folded toy, rad and parts of the
// size.
const keptOff = 1e-6

func (y *system) pulled(p *pull, row int, rho, c, jac []float64) {
	m := y.m
	at := identity
	ats := make([]geom.Iso3, len(p.turns))
	for i, t := range p.turns {
		ats[i] = at
		at = at.After(m.swing(t, rho[t.hinge]))
	}
	b := at.Apply(p.b)
	away := b.Sub(p.a)
	d := away.Len()
	c[row] = d / m.size
	if jac == nil || d < 1e-12 {
		return
	}
	dir := away.Scale(1 / (d * m.size))
	for i, t := range p.turns {
		if o := y.orbit[t.hinge]; o >= 0 {
			a := &m.axis[t.hinge]
			u := ats[i].Turn(geom.Vec3{X: a.d.X, Y: a.d.Y}).Scale(t.sigma)
			q := ats[i].Apply(geom.Vec3{X: a.p.X, Y: a.p.Y})
			jac[row*y.n+int(o)] += u.Cross(b.Sub(q)).Dot(dir)
		}
	}
}

var identity = geom.Iso3{R: [3]geom.Vec3{{X: 1}, {Y: 1}, {Z: 1}}}

// logOf is the turn of a motion as axis times angle, rad.
func logOf(m geom.Iso3) geom.Vec3 {
	v := geom.Vec3{X: m.R[2].Y - m.R[1].Z, Y: m.R[0].Z - m.R[2].X, Z: m.R[1].X - m.R[0].Y}.Scale(0.5)
	sin, cos := v.Len(), (m.R[0].X+m.R[1].Y+m.R[2].Z-1)/2
	if sin > 1e-9 {
		return v.Scale(math.Atan2(sin, cos) / sin)
	}
	if cos > 0 {
		return v
	}
	// Half a turn: the axis is the largest column of R + 1.
	best, axis := 0.0, geom.Vec3{}
	for _, q := range [3]geom.Vec3{
		{X: m.R[0].X + 1, Y: m.R[1].X, Z: m.R[2].X}, {X: m.R[0].Y, Y: m.R[1].Y + 1, Z: m.R[2].Y}, {X: m.R[0].Z, Y: m.R[1].Z, Z: m.R[2].Z + 1},
	} {
		if l := q.Len(); l > best {
			best, axis = l, q
		}
	}
	return axis.Unit().Scale(math.Pi)
}

// normal adds JᵀJ and -Jᵀc of the closure rows to a and b; weights are those of the loops,
// nil for 1.
func (y *system) normal(c, jac, a, b, weights []float64) {
	row := 0
	for k, i := range y.loops {
		r := y.m.loops[i].rows()
		w := 1.0
		if weights != nil {
			w = weights[k]
		}
		for e := row; e < row+r; e++ {
			y.addRow(jac[e*y.n:(e+1)*y.n], y.spans[k], c[e], w, a, b)
		}
		row += r
	}
}

// arms are how long the longest hinge of each loop is, as a part of the size: by so much a
// turn that is left over gapes.
func (y *system) arms() []float64 {
	out := make([]float64, len(y.loops))
	for k, i := range y.loops {
		for _, t := range y.m.loops[i].turns {
			h := y.m.s.H[t.hinge]
			out[k] = math.Max(out[k], h.P.Dist(h.Q)/y.m.size)
		}
	}
	return out
}

// addRow adds one equation "this row times the step is -res", weighted, to the normal equations.
func (y *system) addRow(row []float64, span []int32, res, weight float64, a, b []float64) {
	w := weight * weight
	for _, p := range span {
		v := w * row[p]
		if v == 0 {
			continue
		}
		b[p] -= v * res
		for _, q := range span {
			a[int(p)*y.n+int(q)] += v * row[q]
		}
	}
}

// solve finds the step of normal equations with damping mu; unknowns that are held do not
// move. false when the matrix is not positive.
func solve(n int, a, b []float64, held []bool, mu float64, step []float64) bool {
	var free []int
	for i := range n {
		step[i] = 0
		if held == nil || !held[i] {
			free = append(free, i)
		}
	}
	k := len(free)
	if k == 0 {
		return true
	}
	sym := mat.NewSymDense(k, nil)
	rhs := mat.NewVecDense(k, nil)
	for i, p := range free {
		rhs.SetVec(i, b[p])
		for j := i; j < k; j++ {
			v := a[p*n+free[j]]
			if i == j {
				v += mu
			}
			sym.SetSym(i, j, v)
		}
	}
	var ch mat.Cholesky
	if !ch.Factorize(sym) {
		return false
	}
	var x mat.VecDense
	if err := ch.SolveVecTo(&x, rhs); err != nil && x.Len() != k {
		return false
	}
	for i, p := range free {
		step[p] = x.AtVec(i)
		if math.IsNaN(step[p]) {
			return false
		}
	}
	return true
}

// worst is the largest closure error.
func (y *system) worst(c []float64) float64 {
	var w float64
	for _, v := range c[:y.rows] {
		w = math.Max(w, math.Abs(v))
	}
	return w
}
