package geom

import "math"

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
// in t; its real roots are bracketed over the range of t within reach mm of the
// foot of p and bisected to rounding.
func FoldPointsToLines(p Vec, l Line, q Vec, m Line, reach float64) (folds []Line, landings []Vec) {
	foot, d := l.Foot(p), l.Dir()
	at := func(t float64) (Line, Vec, bool) {
		land := foot.Add(d.Scale(t))
		f, ok := FoldPointToPoint(p, land)
		return f, land, ok
	}
	// Times the squared length of the move, so that the value is a polynomial.
	miss := func(t float64) float64 {
		land := foot.Add(d.Scale(t))
		n := land.Sub(p)
		k := n.Dot(n)
		// q mirrored in the bisector of p and land, times k.
		w := 2 * n.Dot(q.Sub(Mid(p, land)))
		return k*m.Side(q) - w*m.N.Dot(n)
	}
	const cells = 720
	take := func(t float64) {
		f, land, ok := at(t)
		if !ok || math.Abs(m.Side(f.Mirror(q))) > 1e-6 {
			return
		}
		for _, g := range landings {
			if g.Dist(land) < Distinct {
				return
			}
		}
		folds, landings = append(folds, f), append(landings, land)
	}
	prev, a := miss(-reach), -reach
	for i := 1; i <= cells; i++ {
		b := -reach + 2*reach*float64(i)/cells
		v := miss(b)
		if v == 0 {
			take(b)
		}
		if prev*v < 0 {
			lo, hi, flo := a, b, prev
			for range 80 {
				c := (lo + hi) / 2
				if fc := miss(c); fc*flo > 0 {
					lo, flo = c, fc
				} else {
					hi = c
				}
			}
			take((lo + hi) / 2)
		}
		prev, a = v, b
	}
	return folds, landings
}
