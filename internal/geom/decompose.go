package geom

import (
	"math"
	"slices"
)

// Simple tells whether a closed outline does not cross or touch itself.
func (p Polygon) Simple() bool {
	n := len(p)
	for i := range n {
		for j := i + 1; j < n; j++ {
			if j == i+1 || i == 0 && j == n-1 {
				continue
			}
			if segmentsTouch(p[i], p[(i+1)%n], p[j], p[(j+1)%n]) {
				return false
			}
		}
	}
	return math.Abs(p.Area()) > OverlapMM2
}

func segmentsTouch(a, b, c, d Vec) bool {
	r, s := b.Sub(a), d.Sub(c)
	det := r.Cross(s)
	if math.Abs(det) < SameWay*r.Len()*s.Len() {
		if math.Abs(c.Sub(a).Cross(r)) > OnLine*r.Len() {
			return false
		}
		t0, t1 := c.Sub(a).Dot(r), d.Sub(a).Dot(r)
		return math.Max(t0, t1) >= 0 && math.Min(t0, t1) <= r.Dot(r)
	}
	t, u := c.Sub(a).Cross(s)/det, c.Sub(a).Cross(r)/det
	return t >= 0 && t <= 1 && u >= 0 && u <= 1
}

// Convex cuts a simple counter-clockwise outline into convex pieces: ears are
// cut off as triangles and joined again wherever the joint piece stays convex.
func (p Polygon) Convex() []Polygon {
	if p.convex() {
		return []Polygon{slices.Clone(p)}
	}
	var pieces []Polygon
	rest := slices.Clone(p)
	for len(rest) > 3 {
		ear := -1
		for i := range rest {
			if rest.isEar(i) {
				ear = i
				break
			}
		}
		if ear < 0 {
			break
		}
		n := len(rest)
		pieces = append(pieces, Polygon{rest[(ear+n-1)%n], rest[ear], rest[(ear+1)%n]})
		rest = slices.Delete(rest, ear, ear+1)
	}
	pieces = append(pieces, rest)
	for joined := true; joined; {
		joined = false
		for i := 0; i < len(pieces) && !joined; i++ {
			for j := i + 1; j < len(pieces) && !joined; j++ {
				if q, ok := merged(pieces[i], pieces[j]); ok && q.convex() {
					pieces[i] = q
					pieces = slices.Delete(pieces, j, j+1)
					joined = true
				}
			}
		}
	}
	return pieces
}

// IsConvex tells whether a counter-clockwise outline turns left at every corner
// (straight ones allowed).
func (p Polygon) IsConvex() bool { return p.convex() }

func (p Polygon) convex() bool {
	n := len(p)
	for i := range n {
		a, b, c := p[i], p[(i+1)%n], p[(i+2)%n]
		e := b.Sub(a)
		if e.Cross(c.Sub(b)) < -OnLine*e.Len() {
			return false
		}
	}
	return n > 2
}

func (p Polygon) isEar(i int) bool {
	n := len(p)
	a, b, c := p[(i+n-1)%n], p[i], p[(i+1)%n]
	if b.Sub(a).Cross(c.Sub(b)) < OverlapMM2 {
		return false
	}
	t := Polygon{a, b, c}
	for k, q := range p {
		if k != i && k != (i+1)%n && k != (i+n-1)%n && t.Contains(q, OnLine) {
			return false
		}
	}
	return true
}

// merged joins two pieces that share a whole side.
func merged(p, q Polygon) (Polygon, bool) {
	n, m := len(p), len(q)
	for i := range n {
		for j := range m {
			if p[i].Dist(q[(j+1)%m]) < OnLine && p[(i+1)%n].Dist(q[j]) < OnLine {
				out := Polygon{}
				for k := range n {
					out = append(out, p[(i+1+k)%n])
				}
				for k := 2; k < m; k++ {
					out = append(out, q[(j+k)%m])
				}
				return out, true
			}
		}
	}
	return nil, false
}

// Shared is the stretch along which two pieces lie side by side.
func (p Polygon) Shared(q Polygon) (Segment, bool) {
	for i := range p {
		a, b := p[i], p[(i+1)%len(p)]
		l, ok := LineThrough(a, b)
		if !ok {
			continue
		}
		for j := range q {
			c, d := q[j], q[(j+1)%len(q)]
			if math.Abs(l.Side(c)) > OnPaper || math.Abs(l.Side(d)) > OnPaper || d.Sub(c).Dot(b.Sub(a)) > 0 {
				continue
			}
			dir := b.Sub(a).Unit()
			t := func(v Vec) float64 { return dir.Dot(v.Sub(a)) }
			lo, hi := math.Max(0, t(d)), math.Min(b.Dist(a), t(c))
			if hi-lo > Overlap {
				return Segment{a.Add(dir.Scale(lo)), a.Add(dir.Scale(hi))}, true
			}
		}
	}
	return Segment{}, false
}

// Straightened is the outline without corners that lie on a straight side. Corners that lie
// on one spot are one corner.
func (p Polygon) Straightened() Polygon {
	var apart Polygon
	for i, v := range p {
		if i == 0 || v.Dist(apart[len(apart)-1]) > OnPaper {
			apart = append(apart, v)
		}
	}
	for len(apart) > 1 && apart[0].Dist(apart[len(apart)-1]) <= OnPaper {
		apart = apart[:len(apart)-1]
	}
	p = apart
	var out Polygon
	n := len(p)
	for i, v := range p {
		a, b := v.Sub(p[(i+n-1)%n]), p[(i+1)%n].Sub(v)
		if math.Abs(a.Cross(b)) > OnPaper*math.Max(a.Len(), b.Len()) || a.Dot(b) < 0 {
			out = append(out, v)
		}
	}
	return out
}
