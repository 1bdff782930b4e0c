package fold

import (
	"context"

	"tussock/internal/geom"
	"tussock/internal/say"
)

// Walk places every piece by going from hinge to hinge, starting at root, which
// keeps its place. folded says of hinge number i whether it is to be folded.
// Pieces that do not hang together with root keep their place. Where hinges form
// loops the result need not close; gaps show that. It fails with CodeTear when a hinge
// would have to fold that is to stay flat, or the other way round: the ways round a
// loop then disagree about which side is up.
func (s *State) Walk(root FacetID, folded func(i int, h Hinge) bool) ([]geom.Iso2, error) {
	out := make([]geom.Iso2, len(s.F))
	seen := make([]bool, len(s.F))
	for i := range out {
		out[i] = s.F[i].Iso
	}
	touching := make([][]int, len(s.F))
	for i, h := range s.H {
		touching[h.A] = append(touching[h.A], i)
		touching[h.B] = append(touching[h.B], i)
	}
	seen[root] = true
	for queue := []FacetID{root}; len(queue) > 0; queue = queue[1:] {
		f := queue[0]
		for _, i := range touching[f] {
			h := s.H[i]
			g, _ := h.Other(f)
			if seen[g] || h.Kind == Glue {
				continue
			}
			seen[g] = true
			out[g] = out[f]
			if folded(i, h) {
				out[g] = out[f].After(geom.Reflection(geom.LineAt(h.P, h.Q.Sub(h.P))))
			}
			queue = append(queue, g)
		}
	}
	for i, h := range s.H {
		turned := out[h.A].FaceUp() != out[h.B].FaceUp()
		if h.Kind == Glue || turned == folded(i, h) {
			continue
		}
		must := "stay flat"
		if turned {
			must = "fold as well"
		}
		m := geom.Segment{A: h.P, B: h.Q}.Mid()
		e := Errorf(CodeTear, "these creases do not fold flat together: the crease %s from the left and %s from below on the flat sheet would have to %s", say.MM(m.X, 0), say.MM(m.Y, 0), must)
		return nil, e
	}
	return out, nil
}

// Flattened is a crease pattern folded flat: hinges with sense Mountain or Valley
// are folded so, those in either are folded in whichever sense works, all others
// stay open. It fails with CodeTear when the pieces do not close up and with
// CodeLayers when no order of the layers is possible.
func (s *State) Flattened(sense func(i int, h Hinge) (a Assignment, either bool)) (*State, error) {
	out, err := s.laid(sense)
	if err != nil {
		return nil, err
	}
	var hints []Hint
	for i, h := range out.H {
		if a, _ := sense(i, s.H[i]); a != Flat {
			hints = append(hints, out.Sensed(h, a))
		}
	}
	return out.Resolve(hints)
}

// laid is Flattened without the order of the layers.
func (s *State) laid(sense func(i int, h Hinge) (a Assignment, either bool)) (*State, error) {
	out := *s
	isos, err := s.Walk(0, func(i int, h Hinge) bool {
		a, either := sense(i, h)
		return a != Flat || either
	})
	if err != nil {
		return nil, err
	}
	out.F = make([]Facet, len(s.F))
	for i, f := range s.F {
		f.Iso = isos[i]
		out.F[i] = f
	}
	out.order = make([]int8, len(s.F)*len(s.F))
	out.refresh()
	if g := out.WorstGap(); g > geom.Tear {
		e := failure(CodeTear, "the creases do not fold flat: the paper would have to open by %s", say.MM(g, 2))
		e.GapMM = g
		return nil, e
	}
	return &out, nil
}

// Orders counts the orders of the layers in which a crease pattern can be folded
// flat, up to limit, the first piece keeping its face. done is false when there may be
// more: the limit was reached, or the context has ended.
func (s *State) Orders(ctx context.Context, limit int, sense func(i int, h Hinge) (a Assignment, either bool)) (n int, done bool, err error) {
	out, err := s.laid(sense)
	if err != nil {
		return 0, true, err
	}
	var hints []Hint
	for i, h := range out.H {
		if a, _ := sense(i, s.H[i]); a != Flat {
			hints = append(hints, out.Sensed(h, a))
		}
	}
	n, done = out.count(ctx, hints, limit)
	return n, done, nil
}
