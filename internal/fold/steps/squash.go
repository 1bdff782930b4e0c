package steps

import (
	"math"
	"slices"

	"tussock/internal/fold"
	"tussock/internal/geom"
)

// SquashLines are the lines of a squash: b halves the angle between the flap's
// spine and the hinge line m about which the flap stands up. Of the two lines
// that halve it, it is the one that moves the spine's middle least; where both
// move it alike, as at a right angle, the one that lays it on the stretch of m
// that is meant.
func SquashLines(spine geom.Segment, m geom.Line, onto geom.Segment) (b geom.Line, ok bool) {
	s, ok := geom.LineThrough(spine.A, spine.B)
	if !ok {
		return b, false
	}
	folds := geom.FoldLineToLine(s, m)
	if len(folds) == 0 {
		return b, false
	}
	mid := spine.Mid()
	b = folds[0]
	for _, f := range folds[1:] {
		d := f.Mirror(mid).Dist(mid) - b.Mirror(mid).Dist(mid)
		if math.Abs(d) < alikePart*spine.Len() {
			d = onto.Dist(f.Mirror(mid)) - onto.Dist(b.Mirror(mid))
		}
		if d < 0 {
			b = f
		}
	}
	return b, true
}

// alikePart is how much two ways may differ, as a part of the spine's length, and be alike:
// paper with the errors of a hand squashes as exact paper does.
const alikePart = 0.05

// Squash opens a flap and flattens it the other way: the flap stands up along m,
// its spine is laid on m, and the paper beyond b folds over. spine is on the
// sheet.
func Squash(s *fold.State, spine []geom.Segment, m, b geom.Line, at Place, id fold.CreaseID) (fold.Plan, error) {
	up, down, err := walls(s, spine)
	if err != nil {
		return fold.Plan{}, err
	}
	f := up[0]
	var mid geom.Vec
	for _, h := range s.H {
		if h.Along(spine...) && s.Assigned(h) != fold.Flat {
			mid = s.F[h.A].Iso.Apply(geom.Mid(h.P, h.Q))
			break
		}
	}
	sideM, sideB := 1.0, 1.0
	if m.Side(mid) < 0 {
		sideM = -1
	}
	if b.Side(mid) < 0 {
		sideB = -1
	}
	upper := beyond(s, up, m, sideM, spine)
	lower := beyond(s, down, b, sideB, spine)
	if slices.ContainsFunc(upper, func(g fold.FacetID) bool { return slices.Contains(lower, g) }) || !slices.Contains(upper, f) {
		return fold.Plan{}, fold.Errorf(fold.CodeMissesLine, "the flap is not open at its end, so it cannot be squashed")
	}
	splits := []fold.Split{{Line: m, Facets: upper}, {Line: b, Facets: append(slices.Clone(upper), lower...), From: 1}}
	d, err := s.Divide(splits, id)
	if err != nil {
		return fold.Plan{}, err
	}
	rm, rb := geom.Reflection(m), geom.Reflection(b)
	lowTip, upTip, upRest := part{t: rb}, part{t: rm.After(rb)}, part{t: rm}
	for i := range d.F {
		g := fold.FacetID(i)
		tip := lies(d, g, b) == sideB
		switch {
		case slices.Contains(lower, d.F[g].Parent):
			if tip {
				lowTip.set = append(lowTip.set, g)
			}
		case slices.Contains(upper, d.F[g].Parent) && lies(d, g, m) == sideM:
			if tip {
				upTip.set = append(upTip.set, g)
			} else {
				upRest.set = append(upRest.set, g)
			}
		}
	}
	return planned(d, splits, id, at, lowTip, upTip, upRest), nil
}

// PetalLine is the line about which a petal's centre swings: through the spots
// where each side crease meets its spine.
func PetalLine(k, spine [2]geom.Line) (h geom.Line, ok bool) {
	p, ok1 := geom.Meet(k[0], spine[0])
	q, ok2 := geom.Meet(k[1], spine[1])
	if !ok1 || !ok2 {
		return h, false
	}
	return geom.LineThrough(p, q)
}

// Petal lifts the point of a flap about line h while its two sides fold in along
// lines k. spines are the folded edges at the sides, on the sheet.
func Petal(s *fold.State, tip geom.Vec, k [2]geom.Line, h geom.Line, spines [2][]geom.Segment, at Place, id fold.CreaseID) (fold.Plan, error) {
	start, err := seeds(s, tip)
	if err != nil {
		return fold.Plan{}, err
	}
	side := sideOfTip(s, start, tip, h)
	both := append(slices.Clone(spines[0]), spines[1]...)
	top := beyond(s, start, h, side, both)
	splits := []fold.Split{{Line: h, Facets: top, From: 2}}
	var outer [2]float64
	var lower [2][]fold.FacetID
	for i := range 2 {
		var across []fold.FacetID
		for _, q := range s.H {
			if !q.Along(spines[i]...) || s.Assigned(q) == fold.Flat {
				continue
			}
			for _, f := range []fold.FacetID{q.A, q.B} {
				g, _ := q.Other(f)
				if !slices.Contains(top, f) || slices.Contains(top, g) || reach(s, q, f, h, side) < geom.OnLine {
					continue
				}
				across = append(across, g)
				iso := s.F[f].Iso
				for _, v := range []geom.Vec{q.P, q.Q} { // the end on the tip's side
					if side*h.Side(iso.Apply(v)) > geom.OnLine {
						outer[i] = k[i].Side(iso.Apply(v))
					}
				}
			}
		}
		if len(across) == 0 || outer[i] == 0 {
			return fold.Plan{}, fold.Errorf(fold.CodeMissesLine, "the side of the flap that should fold in is not a folded edge here")
		}
		outer[i] /= max(outer[i], -outer[i])
		lower[i] = beyond(s, across, k[i], outer[i], both)
		splits = append(splits, fold.Split{Line: k[i], Facets: append(slices.Clone(top), lower[i]...), From: int8(i)})
	}
	d, err := s.Divide(splits, id)
	if err != nil {
		return fold.Plan{}, err
	}
	rh := geom.Reflection(h)
	parts := []part{{t: rh}}
	for i := range 2 {
		rk := geom.Reflection(k[i])
		parts = append(parts, part{t: rh.After(rk)}, part{t: rk})
	}
	for i := range d.F {
		f := fold.FacetID(i)
		parent := d.F[f].Parent
		out := -1
		for j := range 2 {
			if lies(d, f, k[j]) == outer[j] {
				out = j
			}
		}
		switch {
		case slices.Contains(top, parent) && lies(d, f, h) == side:
			n := 0
			if out >= 0 {
				n = 1 + 2*out
			}
			parts[n].set = append(parts[n].set, f)
		case out >= 0 && slices.Contains(lower[out], parent):
			parts[2+2*out].set = append(parts[2+2*out].set, f)
		}
	}
	return planned(d, splits, id, at, parts...), nil
}
