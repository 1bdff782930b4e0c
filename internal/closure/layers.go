package closure

import (
	"math"

	"tussock/internal/fold"
	"tussock/internal/geom"
)

// lying is a pair of pieces that share area in the flat-folded toy.
type lying struct {
	upper, lower fold.FacetID
	corners      geom.Polygon // of what they share, folded plane
}

// stacked are all pairs of pieces that lie on each other.
func (m *Mechanism) stacked() []lying {
	if m.stack != nil {
		return m.stack
	}
	m.stack = []lying{}
	for i := range m.s.F {
		for j := range m.s.F {
			a, b := fold.FacetID(i), fold.FacetID(j)
			if m.s.Above(a, b) <= 0 {
				continue
			}
			if common := geom.ClipConvex(m.s.Folded(a), m.s.Folded(b)); common != nil {
				m.stack = append(m.stack, lying{a, b, common})
			}
		}
	}
	return m.stack
}

// orderRows are, for each corner of what two pieces share, by how much the upper one
// rises over the lower one for each unknown at the very start, as a part of the sheet's
// size: they must not be negative.
func (m *Mechanism) orderRows(orbit []int32, n int) [][]float64 {
	// The motion of each piece at the start: turns ux, uy about axes in the plane, and
	// the rise k of the origin, by unknown.
	type twist struct{ ux, uy, k float64 }
	moves := make([][]twist, len(m.s.F))
	seen := make([]bool, len(m.s.F))
	for r := range m.s.F {
		if seen[r] {
			continue
		}
		m.walk(fold.FacetID(r), seen, func(f, g fold.FacetID, t turn) {
			if t.hinge < 0 {
				moves[g] = make([]twist, n)
				return
			}
			moves[g] = append([]twist(nil), moves[f]...)
			if o := orbit[t.hinge]; o >= 0 {
				at := geom.Lift(m.s.F[f].Iso)
				a := &m.axis[t.hinge]
				u := at.Turn(geom.Vec3{X: a.d.X, Y: a.d.Y}).Scale(t.sigma)
				p := at.Apply(geom.Vec3{X: a.p.X, Y: a.p.Y})
				w := &moves[g][o]
				w.ux, w.uy, w.k = w.ux+u.X, w.uy+u.Y, w.k+u.Y*p.X-u.X*p.Y
			}
		})
	}
	var rows [][]float64
	for _, s := range m.stacked() {
		up, low := moves[s.upper], moves[s.lower]
		for _, x := range s.corners {
			row := make([]float64, n)
			any := false
			for o := range row {
				d := twist{up[o].ux - low[o].ux, up[o].uy - low[o].uy, up[o].k - low[o].k}
				row[o] = (d.ux*x.Y - d.uy*x.X + d.k) / m.size
				any = any || math.Abs(row[o]) > 1e-9
				if math.Abs(row[o]) <= 1e-9 {
					row[o] = 0
				}
			}
			if any {
				rows = append(rows, row)
			}
		}
	}
	return rows
}

// underMM is how far an upper piece may come to lie under a lower one, mm: rounding.
const underMM = 1e-6

// Wrong are the pairs of pieces whose order is turned round in a pose that is opened only
// a little from the flat-folded one.
func (m *Mechanism) Wrong(at []geom.Iso3) []Pair {
	var out []Pair
	for _, s := range m.stacked() {
		a, b := m.s.F[s.upper].Iso.Inverse(), m.s.F[s.lower].Iso.Inverse()
		c := s.corners.Centroid()
		for _, x := range s.corners {
			x = x.Lerp(c, 0.01)
			p, q := a.Apply(x), b.Apply(x)
			if at[s.upper].Apply(flatSpot(p)).Z-at[s.lower].Apply(flatSpot(q)).Z < -underMM {
				out = append(out, Pair{s.upper, s.lower})
				break
			}
		}
	}
	return out
}

// crossMM is by how much pieces must reach through each other to count, mm.
const crossMM = 0.05

// placedPiece is a piece where it is: its corners, its extent, and its plane.
type placedPiece struct {
	corners []geom.Vec3
	lo, hi  geom.Vec3
	up      geom.Vec3
	off     float64
}

// Crossing are the pairs of placed pieces that pass through each other: each reaches through
// the plane of the other, and there they have a stretch in common.
func Crossing(s *fold.State, at []geom.Iso3) []Pair {
	n := len(s.F)
	all := make([]placedPiece, n)
	count := 0
	for i := range s.F {
		count += len(s.F[i].Poly)
	}
	room := make([]geom.Vec3, 0, count)
	for i, f := range s.F {
		p := &all[i]
		first := len(room)
		for k, v := range f.Poly {
			q := at[i].Apply(flatSpot(v))
			room = append(room, q)
			if k == 0 {
				p.lo, p.hi = q, q
			}
			p.lo = geom.Vec3{X: min(p.lo.X, q.X), Y: min(p.lo.Y, q.Y), Z: min(p.lo.Z, q.Z)}
			p.hi = geom.Vec3{X: max(p.hi.X, q.X), Y: max(p.hi.Y, q.Y), Z: max(p.hi.Z, q.Z)}
		}
		p.corners = room[first:len(room):len(room)]
		p.up = at[i].Turn(geom.Vec3{Z: 1})
		p.off = p.up.Dot(at[i].T)
	}
	var out []Pair
	for i := range n {
		a := &all[i]
		for j := range i {
			b := &all[j]
			if a.hi.X < b.lo.X || b.hi.X < a.lo.X || a.hi.Y < b.lo.Y || b.hi.Y < a.lo.Y || a.hi.Z < b.lo.Z || b.hi.Z < a.lo.Z {
				continue
			}
			if a.straddles(b) && b.straddles(a) && a.meets(b) {
				out = append(out, Pair{fold.FacetID(j), fold.FacetID(i)})
			}
		}
	}
	return out
}

// height is how far a spot lies off the plane of a piece.
func (p *placedPiece) height(v geom.Vec3) float64 { return p.up.Dot(v) - p.off }

// straddles tells whether a piece has corners on both sides of another's plane. Pieces
// that cross each other both do.
func (p *placedPiece) straddles(of *placedPiece) bool {
	lo, hi := 0.0, 0.0
	for _, v := range p.corners {
		z := of.height(v)
		lo, hi = min(lo, z), max(hi, z)
	}
	return lo < -crossMM && hi > crossMM
}

// meets tells whether two pieces that straddle each other's planes have a stretch of the
// line in which these planes cut each other in common.
func (p *placedPiece) meets(q *placedPiece) bool {
	dir := p.up.Cross(q.up)
	if dir.Len() < 1e-9 {
		return false
	}
	dir = dir.Unit()
	a, b := p.chord(q, dir)
	c, d := q.chord(p, dir)
	return min(b, d)-max(a, c) > crossMM
}

// chord is from where to where along dir a piece lies in the plane of another.
func (p *placedPiece) chord(of *placedPiece, dir geom.Vec3) (lo, hi float64) {
	lo, hi = math.Inf(1), math.Inf(-1)
	for i, v := range p.corners {
		w := p.corners[(i+1)%len(p.corners)]
		a, b := of.height(v), of.height(w)
		if a < 0 == (b < 0) {
			continue
		}
		at := dir.Dot(v.Add(w.Sub(v).Scale(a / (a - b))))
		lo, hi = min(lo, at), max(hi, at)
	}
	return lo, hi
}
