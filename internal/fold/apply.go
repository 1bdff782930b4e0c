package fold

import (
	"slices"

	"tussock/internal/geom"
	"tussock/internal/say"
)

// Apply carries out a plan and returns the new state. The old one is untouched.
// It fails with CodeTear when a hinge would open, CodeLayers when no order of the
// layers is possible, and CodeTooMany when the toy gets more pieces than
// MaxFacets.
func (s *State) Apply(p Plan) (*State, error) {
	base := s
	if len(p.Splits) > 0 {
		var err error
		if base, err = s.Divide(p.Splits, p.Crease); err != nil {
			return nil, err
		}
	}
	out, err := base.carryOut(p)
	if err != nil {
		if base != s {
			if e := As(err); e != nil {
				for i, f := range e.Pieces {
					e.Pieces[i] = base.F[f].Parent
				}
			}
		}
		return nil, err
	}
	if base != s { // parents are those of the state that the plan was for
		for i := range out.F {
			out.F[i].Parent = base.F[out.F[i].Parent].Parent
		}
		for i, h := range out.H {
			if h.Parent >= 0 {
				out.H[i].Parent = base.H[h.Parent].Parent
			}
		}
	}
	return out, nil
}

// Divide cuts pieces along lines and moves nothing. Parents in the result are
// those of s.
func (s *State) Divide(splits []Split, id CreaseID) (*State, error) {
	cur := s
	root := make([]FacetID, len(s.F))
	for i := range root {
		root[i] = FacetID(i)
	}
	parent := make([]int32, len(s.H))
	for i := range parent {
		parent[i] = int32(i)
	}
	for _, sp := range splits {
		p := Plan{Line: sp.Line, Side: 1, Crease: id, Pressed: sp.Pressed}
		for f := range cur.F {
			if sp.Facets == nil || slices.Contains(sp.Facets, root[f]) {
				p.Split = append(p.Split, FacetID(f))
			}
		}
		if len(cur.F)+len(p.Split) > MaxFacets {
			return nil, tooMany()
		}
		out := &State{Sheet: s.Sheet, Removed: s.Removed, Choice: s.Choice}
		cut := cur.split(p, out, sp.OnSheet, sp.From)
		cur.splitHinges(p, cut, out)
		out.refresh()
		if err := cur.reorder(p, out, cut, make([]int16, len(out.F))); err != nil {
			return nil, err
		}
		next := make([]FacetID, len(out.F))
		for i, f := range out.F {
			next[i] = root[f.Parent]
		}
		up := make([]int32, len(out.H))
		for i, h := range out.H {
			up[i] = -1
			if h.Parent >= 0 {
				up[i] = parent[h.Parent]
			}
		}
		root, parent, cur = next, up, out
	}
	if cur == s { // nothing is cut, and every piece comes from itself
		whole := *s
		whole.F, whole.H = slices.Clone(s.F), slices.Clone(s.H)
		cur = &whole
	}
	for i := range cur.F {
		cur.F[i].Parent = root[i]
	}
	for i := range cur.H {
		cur.H[i].Parent = parent[i]
	}
	return cur, nil
}

func tooMany() error {
	return Errorf(CodeTooMany, "this would divide the paper into more than %d pieces", MaxFacets)
}

// carryOut does all of a plan but its Splits.
func (s *State) carryOut(p Plan) (*State, error) {
	if len(s.F)+len(p.Split) > MaxFacets {
		return nil, tooMany()
	}
	if p.States != nil {
		return s.goBack(p.States.To)
	}
	out := &State{Sheet: s.Sheet, Removed: s.Removed}
	cut := s.split(p, out, false, 0)
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
	out.slit(p.Slit)
	for _, h := range out.H {
		if g := out.gap(h); g > geom.Tear {
			err := failure(CodeTear, "the paper would tear: an earlier crease would have to open by %s", say.MM(g, 1))
			if h.Kind == Glue {
				err = failure(CodeTear, "glued layers would come apart by %s", say.MM(g, 1))
			}
			err.Pieces = []FacetID{out.F[h.A].Parent, out.F[h.B].Parent}
			err.Crease = h.Crease
			return nil, err
		}
	}
	if err := s.reorder(p, out, cut, body); err != nil {
		return nil, err
	}
	for i, h := range out.H { // what is folded has been pressed, whatever it was divided for
		if h.Kind == Construction && out.F[h.A].Iso.FaceUp() != out.F[h.B].Iso.FaceUp() {
			out.H[i].Kind = Crease
			if h.Crease == 0 {
				out.H[i].Crease = p.Crease
			}
		}
	}
	for _, g := range p.Glue {
		h, err := out.stick(g[0], g[1])
		if err != nil {
			return nil, err
		}
		out.H = append(out.H, h)
	}
	if len(p.Remove) > 0 {
		return out.without(p.Remove), nil
	}
	return out, nil
}

// cutting is the bookkeeping of one split: where each old piece went.
type cutting struct {
	stay, move []FacetID   // new numbers of the two parts; move is -1 when not cut
	line       []geom.Line // the fold line on the sheet, for pieces that are cut
	isCut      []bool
}

// split cuts the facets. The part that stays keeps its number, so that the
// first facet of a glider remains in its keel; moved parts are appended.
func (s *State) split(p Plan, out *State, onSheet bool, from int8) cutting {
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
		l := p.Line
		if !onSheet {
			l = l.Moved(f.Iso.Inverse())
		}
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
		seg, ok := f.Poly.ClipLine(l)
		if !ok {
			continue
		}
		h := Hinge{A: i, B: c.move[i], P: seg.A, Q: seg.B, Crease: p.Crease, Line: from, Parent: -1}
		if p.Pressed == nil {
			out.H = append(out.H, h)
			continue
		}
		pressed := *p.Pressed
		if !onSheet {
			back := f.Iso.Inverse()
			pressed = geom.Segment{A: back.Apply(pressed.A), B: back.Apply(pressed.B)}
		}
		out.H = append(out.H, pressedParts(h, pressed)...)
	}
	return c
}

// pressedParts divides a new hinge into what is pressed and what is not.
func pressedParts(h Hinge, pressed geom.Segment) []Hinge {
	d := h.Q.Sub(h.P).Unit()
	t := func(v geom.Vec) float64 { return d.Dot(v.Sub(h.P)) }
	lo, hi := min(t(pressed.A), t(pressed.B)), max(t(pressed.A), t(pressed.B))
	end := h.P.Dist(h.Q)
	var out []Hinge
	put := func(a, b float64, kind HingeKind) {
		a, b = max(a, 0), min(b, end)
		if b-a > geom.Overlap {
			piece := h
			piece.P, piece.Q, piece.Kind = h.P.Add(d.Scale(a)), h.P.Add(d.Scale(b)), kind
			out = append(out, piece)
		}
	}
	put(0, lo, Construction)
	put(lo, hi, Crease)
	put(hi, end, Construction)
	return out
}

// splitHinges divides every earlier hinge that touches a cut piece.
func (s *State) splitHinges(p Plan, c cutting, out *State) {
	side := float64(p.Side)
	made := out.H
	out.H = make([]Hinge, 0, len(s.H)+2*len(made))
	for k, h := range s.H {
		h.Parent = int32(k)
		if !c.isCut[h.A] && !c.isCut[h.B] {
			out.H = append(out.H, h)
			continue
		}
		if h.Kind == Glue {
			out.H = append(out.H, s.splitGlue(p, c, h)...)
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
			piece := h
			piece.P, piece.Q = a, b
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
		if dp > -geom.OnLine && dp < geom.OnLine || dq > -geom.OnLine && dq < geom.OnLine || dp*dq > 0 {
			put(h.P, h.Q)
			continue
		}
		x := h.P.Lerp(h.Q, dp/(dp-dq))
		put(h.P, x)
		put(x, h.Q)
	}
	out.H = append(out.H, made...)
}
