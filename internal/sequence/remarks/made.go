package remarks

import (
	"cmp"
	"math"
	"slices"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// Made tells whether a step asks only for creases that the sheet has already, such
// as the diagonal left by squaring it: then there is nothing to fold. The stretches
// are those creases, on the sheet.
func Made(d sequence.Done, stretches []geom.Segment) bool {
	if d.Op != sequence.OpCrease || len(stretches) == 0 {
		return false
	}
	some := false
	for _, h := range d.After.H {
		if h.Kind != fold.Crease || h.Crease != fold.CreaseID(d.No) {
			continue
		}
		if !covered(geom.Segment{A: h.P, B: h.Q}, stretches) {
			return false
		}
		some = true
	}
	return some
}

// covered tells whether stretches lie along all of a segment.
func covered(s geom.Segment, stretches []geom.Segment) bool {
	l, ok := geom.LineThrough(s.A, s.B)
	if !ok {
		return false
	}
	dir := s.B.Sub(s.A).Unit()
	var on [][2]float64
	for _, q := range stretches {
		if math.Abs(l.Side(q.A)) < geom.OnPaper && math.Abs(l.Side(q.B)) < geom.OnPaper {
			a, b := dir.Dot(q.A.Sub(s.A)), dir.Dot(q.B.Sub(s.A))
			on = append(on, [2]float64{min(a, b), max(a, b)})
		}
	}
	slices.SortFunc(on, func(a, b [2]float64) int { return cmp.Compare(a[0], b[0]) })
	reached := 0.0
	for _, q := range on {
		if q[0] <= reached+geom.OnPaper {
			reached = max(reached, q[1])
		}
	}
	return reached >= s.Len()-geom.OnPaper
}
