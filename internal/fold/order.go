package fold

import (
	"context"

	"tussock/internal/fold/layers"
	"tussock/internal/geom"
)

// reorder fills the table of who lies on whom. Pairs that moved together keep
// their order, reversed if they were turned over; pairs that stayed keep theirs;
// others go to the side the plan says, or are left to the layer solver.
func (s *State) reorder(p Plan, out *State, cut cutting, body []int16) error {
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
	var free []bool
	if len(p.Free) > 0 {
		free = make([]bool, n)
		for _, f := range p.Free {
			free[f] = true
		}
	}
	unknown := false
	for i := range n {
		pi := out.F[i].Parent
		for j := i + 1; j < n; j++ {
			pj := out.F[j].Parent
			old := s.Above(pi, pj)
			if free != nil && free[i] && free[j] {
				unknown = true
				continue
			}
			if !dirty[i] && !dirty[j] {
				out.set(i, j, old)
				continue
			}
			together := body[i] == body[j]
			if together && (old == 0 || pi == pj) {
				continue // a rigid motion brings nothing to lie on anything
			}
			if !boxes[i].Touches(boxes[j]) || !geom.Overlaps(out.folded[i], out.folded[j]) {
				continue
			}
			switch {
			case together && body[i] != 0 && !p.Bodies[body[i]-1].T.FaceUp():
				old = -old
			case together:
			case p.Solve:
				old, unknown = 0, true
			case body[i] != 0:
				old = p.Place
			default:
				old = -p.Place
			}
			out.set(i, j, old)
		}
	}
	if unknown || p.Solve {
		return out.solve(p.Hints)
	}
	return nil
}

// Problem is the order of a state as the layer solver sees it.
func (s *State) Problem() *layers.Problem {
	p := &layers.Problem{Polys: s.folded, Known: s.order}
	for _, h := range s.H {
		iso := s.F[h.A].Iso
		if h.Kind != Glue {
			p.Hinges = append(p.Hinges, layers.Hinge{A: int(h.A), B: int(h.B), P: iso.Apply(h.P), Q: iso.Apply(h.Q),
				Folded: iso.FaceUp() != s.F[h.B].Iso.FaceUp()})
		}
	}
	return p
}

// problem is the same with hints.
func (s *State) problem(hints []Hint) *layers.Problem {
	p := s.Problem()
	for _, h := range hints {
		p.Hints = append(p.Hints, layers.Hint{I: int(h.I), J: int(h.J), Sign: h.Sign, Hard: h.Hard, Why: h.Why})
	}
	return p
}

func (s *State) count(ctx context.Context, hints []Hint, limit int) (int, bool) {
	return layers.Count(ctx, s.problem(hints), limit)
}

// solve finds the orders that are not known yet.
func (s *State) solve(hints []Hint) error {
	p := s.problem(hints)
	sol, conflict := layers.Solve(p)
	if conflict != nil {
		err := failure(CodeLayers, "%s", conflict.Why)
		err.Rule = string(conflict.Kind)
		for _, f := range conflict.Pieces {
			err.Pieces = append(err.Pieces, s.F[f].Parent)
		}
		return err
	}
	s.order = sol.Order
	if sol.Ambiguous {
		s.Choice = &Choice{FacetID(sol.Differs[0]), FacetID(sol.Differs[1])}
	}
	return nil
}

func (s *State) set(i, j int, v int8) {
	n := len(s.F)
	s.order[i*n+j], s.order[j*n+i] = v, -v
}

// Resolve is the state with every order looked for anew, under the hints alone:
// for crease patterns read from a file.
func (s *State) Resolve(hints []Hint) (*State, error) {
	out := *s
	out.order = make([]int8, len(s.F)*len(s.F))
	if err := out.solve(hints); err != nil {
		return nil, err
	}
	return &out, nil
}

// Sensed is the hint that makes hinge h a mountain or a valley.
func (s *State) Sensed(h Hinge, a Assignment) Hint {
	sign := -int8(a)
	if !s.F[h.A].Iso.FaceUp() {
		sign = -sign
	}
	return Hint{I: h.B, J: h.A, Sign: sign, Hard: true, Why: "a crease cannot be folded in the sense given"}
}
