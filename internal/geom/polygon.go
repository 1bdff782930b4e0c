package geom

import (
	"math"
	"sort"
)

// Polygon is a simple polygon by its corners; pieces of paper are convex and
// counter-clockwise.
type Polygon []Vec

// Area is the enclosed area in mm², positive for counter-clockwise corners.
func (p Polygon) Area() float64 {
	var s float64
	for i, a := range p {
		s += a.Cross(p[(i+1)%len(p)])
	}
	return s / 2
}

// Centroid is the centre of area. A polygon without area gives the mean corner.
func (p Polygon) Centroid() Vec {
	if len(p) == 0 {
		return Vec{}
	}
	o := p[0] // moments about a corner: no loss of digits far from the origin
	var s float64
	var c Vec
	for i := range p {
		a, b := p[i].Sub(o), p[(i+1)%len(p)].Sub(o)
		k := a.Cross(b)
		s += k
		c = c.Add(a.Add(b).Scale(k))
	}
	if s == 0 {
		for _, q := range p {
			c = c.Add(q.Sub(o))
		}
		return o.Add(c.Scale(1 / float64(len(p))))
	}
	return o.Add(c.Scale(1 / (3 * s)))
}

// Moved is the image under an isometry, kept counter-clockwise.
func (p Polygon) Moved(m Iso2) Polygon {
	q := make(Polygon, len(p))
	if m.FaceUp() {
		for i, a := range p {
			q[i] = m.Apply(a)
		}
		return q
	}
	for i, a := range p {
		q[len(p)-1-i] = m.Apply(a)
	}
	return q
}

// Split divides a convex polygon by a line into the part where Side > 0 and the
// part where Side < 0. Corners within OnLine count as on the line, so a line
// through a corner makes no sliver. A part without interior is nil.
func (p Polygon) Split(l Line) (pos, neg Polygon) {
	n := len(p)
	side := make([]float64, n)
	var hasPos, hasNeg bool
	for i, a := range p {
		d := l.Side(a)
		if math.Abs(d) < OnLine {
			d = 0
		}
		side[i] = d
		hasPos = hasPos || d > 0
		hasNeg = hasNeg || d < 0
	}
	switch {
	case !hasNeg && !hasPos:
		return nil, nil
	case !hasNeg:
		return p, nil
	case !hasPos:
		return nil, p
	}
	pos, neg = make(Polygon, 0, n+1), make(Polygon, 0, n+1)
	for i, a := range p {
		j := (i + 1) % n
		if side[i] >= 0 {
			pos = append(pos, a)
		}
		if side[i] <= 0 {
			neg = append(neg, a)
		}
		if side[i]*side[j] < 0 {
			x := a.Lerp(p[j], side[i]/(side[i]-side[j]))
			pos, neg = append(pos, x), append(neg, x)
		}
	}
	return pos, neg
}

// ClipConvex is the common part of two convex counter-clockwise polygons, nil
// when they share no interior.
func ClipConvex(p, q Polygon) Polygon {
	out := p
	for i := range q {
		if len(out) == 0 {
			return nil
		}
		if q[i].Dist(q[(i+1)%len(q)]) < OnLine {
			continue
		}
		// Left of each side of a counter-clockwise polygon is inside.
		out, _ = out.Split(LineAt(q[i], q[(i+1)%len(q)].Sub(q[i])))
	}
	if len(out) < 3 {
		return nil
	}
	return out
}

// Overlaps tells whether two convex counter-clockwise polygons share area: along
// the normal of every side of both they push into each other by more than Overlap
// (separating axis theorem). It stops at the first side that parts them, and at each side with the
// first corner that reaches over it.
func Overlaps(p, q Polygon) bool { return reachesIn(p, q) && reachesIn(q, p) }

// reachesIn tells whether q reaches over every side of p by more than Overlap.
func reachesIn(p, q Polygon) bool {
	a := p[len(p)-1]
	for _, b := range p {
		ex, ey := b.X-a.X, b.Y-a.Y
		l2 := ex*ex + ey*ey
		if l2 >= OnLine*OnLine {
			least := Overlap * Overlap * l2
			over := false
			for _, v := range q {
				if c := ex*(v.Y-a.Y) - ey*(v.X-a.X); c > 0 && c*c > least {
					over = true
					break
				}
			}
			if !over {
				return false
			}
		}
		a = b
	}
	return true
}

// Contains tells whether point a lies in a convex counter-clockwise polygon or
// within tol of it.
func (p Polygon) Contains(a Vec, tol float64) bool {
	for i := range p {
		e := p[(i+1)%len(p)].Sub(p[i])
		l := e.Len()
		if l < OnLine {
			continue
		}
		if e.Cross(a.Sub(p[i]))/l < -tol {
			return false
		}
	}
	return len(p) > 2
}

// AngleAt is the angle in radians that the polygon takes up around point v: its
// corner angle, π on a side, 2π inside, 0 outside (within OnPaper).
func (p Polygon) AngleAt(v Vec) float64 {
	if !p.Contains(v, OnPaper) {
		return 0
	}
	for i, a := range p {
		if a.Dist(v) < OnPaper {
			in, out := p[(i+len(p)-1)%len(p)].Sub(a), p[(i+1)%len(p)].Sub(a)
			return math.Abs(math.Atan2(out.Cross(in), out.Dot(in)))
		}
	}
	if p.Contains(v, -OnPaper) {
		return 2 * math.Pi
	}
	return math.Pi
}

// ClipLine is the stretch of a line inside a convex polygon.
func (p Polygon) ClipLine(l Line) (Segment, bool) {
	d := l.Dir()
	o := l.N.Scale(l.D)
	lo, hi := math.Inf(-1), math.Inf(1)
	for i := range p {
		e := p[(i+1)%len(p)].Sub(p[i])
		if e.Len() < OnLine {
			continue
		}
		in := e.Unit().Left()
		// in·(o + t d - p[i]) >= 0
		k, c := in.Dot(d), in.Dot(o.Sub(p[i]))
		switch {
		case math.Abs(k) < SameWay:
			if c < -OnLine {
				return Segment{}, false
			}
		case k > 0:
			lo = math.Max(lo, -c/k)
		default:
			hi = math.Min(hi, -c/k)
		}
	}
	if !(hi-lo > Overlap) || math.IsInf(hi-lo, 0) {
		return Segment{}, false
	}
	return Segment{o.Add(d.Scale(lo)), o.Add(d.Scale(hi))}, true
}

// Exit is where a ray from a point inside a convex polygon leaves it.
func (p Polygon) Exit(from, dir Vec) (Vec, bool) {
	seg, ok := p.ClipLine(LineAt(from, dir))
	if !ok || !p.Contains(from, OnPaper) {
		return from, false
	}
	if seg.A.Sub(from).Dot(dir) > seg.B.Sub(from).Dot(dir) {
		return seg.A, true
	}
	return seg.B, true
}

// Crosses tells whether segment p q on line l runs through the inside of a convex
// polygon over more than Overlap.
func Crosses(poly Polygon, l Line, p, q Vec) bool {
	pos, neg := 0.0, 0.0
	for _, v := range poly {
		d := l.Side(v)
		pos, neg = math.Max(pos, d), math.Min(neg, d)
	}
	if pos < OnLine || neg > -OnLine {
		return false
	}
	seg, ok := poly.ClipLine(l)
	if !ok {
		return false
	}
	d := l.Dir()
	lo := math.Max(math.Min(d.Dot(p), d.Dot(q)), math.Min(d.Dot(seg.A), d.Dot(seg.B)))
	hi := math.Min(math.Max(d.Dot(p), d.Dot(q)), math.Max(d.Dot(seg.A), d.Dot(seg.B)))
	return hi-lo > Overlap
}

// Box is an axis-parallel rectangle in mm.
type Box struct{ MinX, MinY, MaxX, MaxY float64 }

// EmptyBox contains nothing; Grow it.
func EmptyBox() Box {
	return Box{math.Inf(1), math.Inf(1), math.Inf(-1), math.Inf(-1)}
}

// Grow is the least box that holds b and the points.
func (b Box) Grow(ps ...Vec) Box {
	for _, p := range ps {
		b.MinX, b.MaxX = math.Min(b.MinX, p.X), math.Max(b.MaxX, p.X)
		b.MinY, b.MaxY = math.Min(b.MinY, p.Y), math.Max(b.MaxY, p.Y)
	}
	return b
}

func (b Box) Width() float64  { return b.MaxX - b.MinX }
func (b Box) Height() float64 { return b.MaxY - b.MinY }

// Touches tells whether two boxes share area (deeper than Overlap).
func (b Box) Touches(c Box) bool {
	return math.Min(b.MaxX, c.MaxX)-math.Max(b.MinX, c.MinX) > Overlap &&
		math.Min(b.MaxY, c.MaxY)-math.Max(b.MinY, c.MinY) > Overlap
}

// Centre is the middle of the box.
func (b Box) Centre() Vec { return Vec{(b.MinX + b.MaxX) / 2, (b.MinY + b.MaxY) / 2} }

// Hull is the convex hull, counter-clockwise, without collinear corners.
func Hull(points []Vec) Polygon {
	ps := append([]Vec(nil), points...)
	sort.Slice(ps, func(i, j int) bool {
		return ps[i].X < ps[j].X || ps[i].X == ps[j].X && ps[i].Y < ps[j].Y
	})
	half := func(ps []Vec) Polygon {
		var h Polygon
		for _, p := range ps {
			// A corner that does not stand out from its neighbours' line is none.
			for len(h) > 1 && h[len(h)-1].Sub(h[len(h)-2]).Cross(p.Sub(h[len(h)-2])) <= OnLine*p.Dist(h[len(h)-2]) {
				h = h[:len(h)-1]
			}
			h = append(h, p)
		}
		return h
	}
	if len(ps) < 3 {
		return ps
	}
	lower := half(ps)
	rev := make([]Vec, len(ps))
	for i, p := range ps {
		rev[len(ps)-1-i] = p
	}
	upper := half(rev)
	return append(lower[:len(lower)-1], upper[:len(upper)-1]...)
}
