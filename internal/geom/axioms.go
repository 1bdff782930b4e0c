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
