package geom

import (
	"math"
	"slices"
)

// The single-fold constructions, by their customary O-numbers. Each returns all
// fold lines there are; choosing among them is the caller's.

// FoldPointToPoint (O2) is the crease that lays a on b: their perpendicular
// bisector. ok is false when they coincide.
func FoldPointToPoint(a, b Vec) (Line, bool) {
	d := b.Sub(a)
	if d.Len() < Distinct {
		return Line{}, false
	}
	n := d.Unit()
	return Line{n, n.Dot(Mid(a, b))}, true
}

// FoldLineToLine (O3) are the creases that lay line a on line b: the midline of
// parallels, else both bisectors of the angle. Equal lines give none.
func FoldLineToLine(a, b Line) []Line {
	if Parallel(a, b) {
		if a.N.Dot(b.N) < 0 {
			b = b.Flip()
		}
		if math.Abs(a.D-b.D) < OnLine {
			return nil
		}
		return []Line{{a.N, (a.D + b.D) / 2}}
	}
	p, _ := Meet(a, b)
	return []Line{LineAt(p, a.Dir().Add(b.Dir())), LineAt(p, a.Dir().Sub(b.Dir()))}
}

// FoldPointToLine (O5) are the creases through pivot that lay point p on line l:
// none, one or two. The landing points are returned beside them.
func FoldPointToLine(p Vec, l Line, pivot Vec) (folds []Line, landings []Vec) {
	r := p.Dist(pivot)
	h := l.Side(pivot)
	s2 := r*r - h*h
	if s2 < -OnLine*math.Max(r, 1) || r < Distinct {
		return nil, nil
	}
	s := math.Sqrt(math.Max(s2, 0))
	foot := l.Foot(pivot)
	for _, k := range []float64{s, -s} {
		q := foot.Add(l.Dir().Scale(k))
		f, ok := FoldPointToPoint(p, q)
		if !ok { // already on the line there: the crease through both
			if f, ok = LineThrough(p, pivot); !ok {
				continue
			}
		}
		folds, landings = append(folds, f), append(landings, q)
		if s < OnLine {
			break
		}
	}
	return folds, landings
}

// FoldPointsToLines (O6) are the creases that lay point p on line l and point q
// on line m at once: at most three. The landings of p are returned beside them.
// With p's landing at parameter t along l, the landing of q leaves m by a cubic
// in t, whose real roots are taken within reach mm of the foot of p.
func FoldPointsToLines(p Vec, l Line, q Vec, m Line, reach float64) (folds []Line, landings []Vec) {
	foot, d := l.Foot(p), l.Dir()
	// With n = n0 + t d the way from p to its landing, q's image in the bisector misses m
	// by m(q) - w N.n/|n|^2, w = 2 n.(q-p) - |n|^2. Times |n|^2 that is a polynomial.
	n0, to := foot.Sub(p), q.Sub(p)
	h2, side := n0.Dot(n0), m.Side(q)
	a, b := m.N.Dot(n0), m.N.Dot(d)
	w0, w1 := 2*n0.Dot(to)-h2, 2*d.Dot(to)
	cubic := [4]float64{side*h2 - w0*a, -(w0*b + w1*a), side + a - w1*b, b}
	for _, t := range realRoots(cubic, reach) {
		land := foot.Add(d.Scale(t))
		f, ok := FoldPointToPoint(p, land)
		if !ok || math.Abs(m.Side(f.Mirror(q))) > Landed || slices.ContainsFunc(landings, func(g Vec) bool { return g.Dist(land) < Distinct }) {
			continue
		}
		folds, landings = append(folds, f), append(landings, land)
	}
	return folds, landings
}
