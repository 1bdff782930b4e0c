package fold

import (
	"math"

	"tussock/internal/geom"
)

// cutting is the bookkeeping of one Apply: where each old piece went.
type cutting struct {
	stay, move []FacetID   // new numbers of the two parts; move is -1 when not cut
	line       []geom.Line // the fold line on the sheet, for pieces that are cut
	isCut      []bool
}

// Apply carries out a plan and returns the new state. The old one is untouched.
// It fails with CodeTear when a hinge would open, and CodeTooMany when the toy
// gets more pieces than MaxFacets.
func (s *State) Apply(p Plan) (*State, *Error) {
	if len(s.F)+len(p.Split) > MaxFacets {
		return nil, Errorf(CodeTooMany, "this would divide the paper into more than %d pieces", MaxFacets)
	}
	out := &State{Sheet: s.Sheet}
	cut := s.split(p, out)
	s.splitHinges(p, cut, out)

	body := make([]int16, len(out.F)) // 0 stays, k moves with body k-1
	for k, b := range p.Bodies {
		for _, f := range b.Facets {
			target := cut.stay[f]
			if cut.isCut[f] && b.Side == p.Side {
				target = cut.move[f]
			}
			body[target] = int16(k + 1)
			out.F[target].Iso = b.T.After(out.F[target].Iso)
		}
	}
	out.refresh()
	for _, h := range out.H {
		if g := out.gap(h); g > geom.Tear {
			return nil, Errorf(CodeTear, "the paper would tear: an earlier crease would have to open by %.1f mm", g)
		}
	}
	s.reorder(p, out, cut, body)
	return out, nil
}

// split cuts the facets. The part that stays keeps its number, so that the
// first facet of a glider remains in its keel; moved parts are appended.
func (s *State) split(p Plan, out *State) cutting {
	n := len(s.F)
	c := cutting{make([]FacetID, n), make([]FacetID, n), make([]geom.Line, n), make([]bool, n)}
	out.F = make([]Facet, n, n+len(p.Split))
	for i, f := range s.F {
		f.Parent = FacetID(i)
		out.F[i] = f
		c.stay[i], c.move[i] = FacetID(i), -1
	}
	for _, i := range p.Split {
		f := s.F[i]
		l := p.Line.Moved(f.Iso.Inverse())
		pos, neg := f.Poly.Split(l)
		if pos == nil || neg == nil {
			continue
		}
		if p.Side > 0 {
			pos, neg = neg, pos
		}
		out.F[i].Poly = pos
		c.move[i] = FacetID(len(out.F))
		c.line[i], c.isCut[i] = l, true
		out.F = append(out.F, Facet{Poly: neg, Iso: f.Iso, Parent: i})
		if seg, ok := f.Poly.ClipLine(l); ok {
			out.H = append(out.H, Hinge{i, c.move[i], seg.A, seg.B, p.Crease})
		}
	}
	return c
}

// splitHinges divides every earlier hinge that touches a cut piece.
func (s *State) splitHinges(p Plan, c cutting, out *State) {
	side := float64(p.Side)
	made := out.H
	out.H = make([]Hinge, 0, len(s.H)+2*len(made))
	for _, h := range s.H {
		if !c.isCut[h.A] && !c.isCut[h.B] {
			out.H = append(out.H, h)
			continue
		}
		l := c.line[h.A]
		if !c.isCut[h.A] {
			l = c.line[h.B]
		}
		put := func(a, b geom.Vec) {
			if a.Dist(b) <= geom.Overlap {
				return
			}
			piece := Hinge{h.A, h.B, a, b, h.Crease}
			if side*l.Side(geom.Mid(a, b)) > 0 {
				if c.isCut[h.A] {
					piece.A = c.move[h.A]
				}
				if c.isCut[h.B] {
					piece.B = c.move[h.B]
				}
			}
			out.H = append(out.H, piece)
		}
		dp, dq := l.Side(h.P), l.Side(h.Q)
		if math.Abs(dp) < geom.OnLine || math.Abs(dq) < geom.OnLine || dp*dq > 0 {
			put(h.P, h.Q)
			continue
		}
		x := h.P.Lerp(h.Q, dp/(dp-dq))
		put(h.P, x)
		put(x, h.Q)
	}
	out.H = append(out.H, made...)
}

// reorder fills the table of who lies on whom. Pairs that moved together keep
// their order, reversed if they were turned over; pairs that stayed keep theirs;
// moved pieces go to the side the plan says.
func (s *State) reorder(p Plan, out *State, cut cutting, body []int16) {
	n := len(out.F)
	out.order = make([]int8, n*n)
	boxes := make([]geom.Box, n)
	for i := range boxes {
		boxes[i] = geom.EmptyBox().Grow(out.folded[i]...)
	}
	dirty := make([]bool, n) // moved or cut: the others lie to each other as before
	for i := range dirty {
		dirty[i] = body[i] != 0 || i >= len(s.F) || cut.isCut[i]
	}
	for i := range n {
		pi := out.F[i].Parent
		for j := i + 1; j < n; j++ {
			pj := out.F[j].Parent
			old := s.Above(pi, pj)
			if !dirty[i] && !dirty[j] {
				out.set(i, j, old)
				continue
			}
			together := body[i] == body[j]
			if together && (old == 0 || pi == pj) {
				continue // a rigid motion brings nothing to lie on anything
			}
			if !touch(boxes[i], boxes[j]) || !geom.Overlaps(out.folded[i], out.folded[j]) {
				continue
			}
			switch {
			case together && body[i] != 0 && !p.Bodies[body[i]-1].T.FaceUp():
				old = -old
			case together:
			case body[i] != 0:
				old = p.Place
			default:
				old = -p.Place
			}
			out.set(i, j, old)
		}
	}
}

func touch(a, b geom.Box) bool {
	return math.Min(a.MaxX, b.MaxX)-math.Max(a.MinX, b.MinX) > geom.Overlap &&
		math.Min(a.MaxY, b.MaxY)-math.Max(a.MinY, b.MinY) > geom.Overlap
}

func (s *State) set(i, j int, v int8) {
	n := len(s.F)
	s.order[i*n+j], s.order[j*n+i] = v, -v
}
