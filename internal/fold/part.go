package fold

import (
	"slices"

	"tussock/internal/geom"
	"tussock/internal/say"
)

// Operations that part paper, join it, or take it back to where it was.

// slit removes hinges along stretches of the sheet.
func (s *State) slit(cuts []geom.Segment) {
	s.H = slices.DeleteFunc(s.H, func(h Hinge) bool { return h.Kind != Glue && h.Along(cuts...) })
}

// without is the state less some pieces, which are kept as cut-off paper.
func (s *State) without(gone []FacetID) *State {
	out := &State{Sheet: s.Sheet, Removed: slices.Clone(s.Removed), Choice: s.Choice}
	number := make([]FacetID, len(s.F))
	for i, f := range s.F {
		number[i] = -1
		if slices.Contains(gone, FacetID(i)) {
			out.Removed = append(out.Removed, f.Poly)
			continue
		}
		number[i] = FacetID(len(out.F))
		out.F = append(out.F, f)
	}
	for _, h := range s.H {
		h.A, h.B = number[h.A], number[h.B]
		if h.A >= 0 && h.B >= 0 {
			out.H = append(out.H, h)
		}
	}
	out.refresh()
	out.order = make([]int8, len(out.F)*len(out.F))
	for i := range s.F {
		for j := range s.F {
			if number[i] >= 0 && number[j] >= 0 {
				out.order[int(number[i])*len(out.F)+int(number[j])] = s.Above(FacetID(i), FacetID(j))
			}
		}
	}
	return out
}

// InOnePiece tells whether all paper hangs together.
func (s *State) InOnePiece() bool { return len(s.Flood(0, nil)) == len(s.F) }

// Flood is all pieces that hang together with f, not crossing the hinges that
// stop says. Sorted by number.
func (s *State) Flood(f FacetID, stop func(h Hinge) bool) []FacetID {
	in := make([]bool, len(s.F))
	in[f] = true
	for queue := []FacetID{f}; len(queue) > 0; queue = queue[1:] {
		for _, h := range s.H {
			g, ok := h.Other(queue[0])
			if !ok || in[g] || stop != nil && stop(h) {
				continue
			}
			in[g] = true
			queue = append(queue, g)
		}
	}
	var out []FacetID
	for i, ok := range in {
		if ok {
			out = append(out, FacetID(i))
		}
	}
	return out
}

// stick joins two pieces face to face where they overlap.
func (s *State) stick(a, b FacetID) (Hinge, error) {
	common := geom.ClipConvex(s.folded[a], s.folded[b])
	if common == nil || !geom.Overlaps(s.folded[a], s.folded[b]) {
		return Hinge{}, Errorf(CodeGlue, "the faces to be glued do not lie on each other")
	}
	for c := range s.F {
		id := FacetID(c)
		if between := s.Above(id, a)*s.Above(id, b) < 0; between && geom.Overlaps(s.folded[c], common) {
			err := failure(CodeGlue, "a layer lies between the faces to be glued")
			err.Pieces = []FacetID{id, a, b}
			return Hinge{}, err
		}
	}
	p, q := common[0], common[len(common)/2]
	ia, ib := s.F[a].Iso.Inverse(), s.F[b].Iso.Inverse()
	return Hinge{A: a, B: b, P: ia.Apply(p), Q: ia.Apply(q), Kind: Glue, Parent: -1,
		OnB: [2]geom.Vec{ib.Apply(p), ib.Apply(q)}}, nil
}

// splitGlue keeps glued pieces glued when they are cut: each part of one to each
// part of the other that it lies on.
func (s *State) splitGlue(p Plan, c cutting, h Hinge) []Hinge {
	var out []Hinge
	parts := func(f FacetID) map[FacetID]geom.Polygon {
		if !c.isCut[f] {
			return map[FacetID]geom.Polygon{f: s.folded[f]}
		}
		pos, neg := s.folded[f].Split(c.line[f].Moved(s.F[f].Iso))
		// The line's sides on the sheet and in the plane agree under Moved.
		if p.Side > 0 {
			pos, neg = neg, pos
		}
		return map[FacetID]geom.Polygon{f: pos, c.move[f]: neg}
	}
	pa, pb := parts(h.A), parts(h.B)
	for _, a := range []FacetID{h.A, c.move[h.A]} {
		for _, b := range []FacetID{h.B, c.move[h.B]} {
			if pa[a] == nil || pb[b] == nil || !geom.Overlaps(pa[a], pb[b]) {
				continue
			}
			common := geom.ClipConvex(pa[a], pb[b])
			if common == nil {
				continue
			}
			u, v := common[0], common[len(common)/2]
			ia, ib := s.F[h.A].Iso.Inverse(), s.F[h.B].Iso.Inverse()
			piece := h
			piece.A, piece.B = a, b
			piece.P, piece.Q = ia.Apply(u), ia.Apply(v)
			piece.OnB = [2]geom.Vec{ib.Apply(u), ib.Apply(v)}
			out = append(out, piece)
		}
	}
	return out
}

// goBack lays every piece where it lay in an earlier state, creases made since
// left open. Pieces cut off since stay cut off.
func (s *State) goBack(to *State) (*State, error) {
	out := &State{Sheet: s.Sheet, Removed: s.Removed, F: make([]Facet, len(s.F)), H: slices.Clone(s.H)}
	from := make([]FacetID, len(s.F))
	for i, f := range s.F {
		c := f.Poly.Centroid()
		at := to.FacetsAtSheet(c)
		if len(at) == 0 {
			return nil, Errorf(CodeOffPaper, "part of the paper was not there in the state to go back to")
		}
		from[i] = at[0]
		f.Iso, f.Parent = to.F[at[0]].Iso, FacetID(i)
		out.F[i] = f
	}
	for i := range out.H {
		out.H[i].Parent = int32(i)
	}
	out.refresh()
	n := len(out.F)
	out.order = make([]int8, n*n)
	for i := range n {
		for j := range i {
			if v := to.Above(from[i], from[j]); v != 0 && geom.Overlaps(out.folded[i], out.folded[j]) {
				out.set(i, j, v)
			}
		}
	}
	for _, h := range out.H {
		if g := out.gap(h); g > geom.Tear {
			return nil, Errorf(CodeTear, "a joint made since would have to open by %s", say.MM(g, 1))
		}
	}
	return out, nil
}
