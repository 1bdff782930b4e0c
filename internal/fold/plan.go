package fold

import (
	"math"

	"tussock/internal/geom"
)

// Sense is the way a simple fold goes as one looks at the toy.
type Sense int8

const (
	ValleySense   Sense = 1  // moved layers come up and over: they end on top
	MountainSense Sense = -1 // moved layers go behind: they end underneath
)

// Body is a set of pieces that move together. Side says which part of pieces
// cut by the plan's line belongs to it: +1 where Line.Side is positive, -1 where
// negative, 0 for whole pieces.
type Body struct {
	Facets []FacetID
	Side   int8
	T      geom.Iso2
}

// Plan is one operation, ready to be applied: cut these pieces along this line
// (given in the folded plane), then move these bodies; moved pieces go above
// (+1) or below (-1) whatever they come to lie on.
type Plan struct {
	Line   geom.Line
	Side   int8 // the side that moves, or would
	Split  []FacetID
	Bodies []Body
	Place  int8
	Crease CreaseID
}

// Moved is how many pieces the plan moves.
func (p Plan) Moved() int {
	n := 0
	for _, b := range p.Bodies {
		n += len(b.Facets)
	}
	return n
}

// Selection is which layers take part in a simple fold.
type Selection struct {
	Line  geom.Line
	Side  int8
	Seeds []FacetID // what the fingers hold; nil takes all layers
	Sense Sense
}

// halves are the folded pieces cut down to the moving side; nil where a piece
// has no area there.
func (s *State) halves(l geom.Line, side int8) []geom.Polygon {
	out := make([]geom.Polygon, len(s.F))
	for i := range s.F {
		pos, neg := s.folded[i].Split(l)
		if side < 0 {
			pos = neg
		}
		out[i] = pos
	}
	return out
}

// Closure is the set of pieces that must move with the seeds: neighbours whose
// joining hinge has length on the moving side, and layers that lie in the way
// (above for a valley, below for a mountain). Sorted by number. An empty set
// means that nothing held reaches over the line.
func (s *State) Closure(sel Selection) []FacetID {
	part := s.halves(sel.Line, sel.Side)
	in := make([]bool, len(s.F))
	var queue []FacetID
	add := func(f FacetID) {
		if !in[f] && part[f] != nil {
			in[f] = true
			queue = append(queue, f)
		}
	}
	if sel.Seeds == nil {
		for i := range s.F {
			add(FacetID(i))
		}
	}
	for _, f := range sel.Seeds {
		add(f)
	}
	side := float64(sel.Side)
	for len(queue) > 0 {
		f := queue[0]
		queue = queue[1:]
		for _, h := range s.H {
			other := h.B
			switch f {
			case h.A:
			case h.B:
				other = h.A
			default:
				continue
			}
			iso := s.F[f].Iso
			reach := math.Max(side*sel.Line.Side(iso.Apply(h.P)), side*sel.Line.Side(iso.Apply(h.Q)))
			if reach > geom.OnLine {
				add(other)
			}
		}
		for g := range s.F {
			if !in[g] && part[g] != nil && s.Above(FacetID(g), f) == int8(sel.Sense) &&
				geom.Overlaps(part[f], part[g]) {
				add(FacetID(g))
			}
		}
	}
	var set []FacetID
	for i, ok := range in {
		if ok {
			set = append(set, FacetID(i))
		}
	}
	return set
}

// SimpleFold plans a valley or mountain fold of a closed set of layers.
func (s *State) SimpleFold(sel Selection, id CreaseID) (Plan, *Error) {
	set := s.Closure(sel)
	if len(set) == 0 {
		return Plan{}, Errorf(CodeMissesLine, "the fold line does not cross the layers that should move")
	}
	p := Plan{Line: sel.Line, Side: sel.Side, Place: int8(sel.Sense), Crease: id,
		Split: s.crossed(set, sel.Line)}
	if len(p.Split) == 0 && len(set) == len(s.F) {
		return Plan{}, Errorf(CodeMissesLine, "the fold line runs beside the paper, so nothing would stay behind")
	}
	p.Bodies = []Body{{Facets: set, Side: sel.Side, T: geom.Reflection(sel.Line)}}
	return p, nil
}

// CreaseOnly plans a fold that is opened again: the layers are only divided.
func (s *State) CreaseOnly(sel Selection, id CreaseID) (Plan, *Error) {
	set := s.Closure(sel)
	p := Plan{Line: sel.Line, Side: sel.Side, Crease: id, Split: s.crossed(set, sel.Line)}
	if len(p.Split) == 0 {
		return Plan{}, Errorf(CodeMissesLine, "the crease would not cross the paper")
	}
	return p, nil
}

// Whole plans a motion of the entire toy: turning over or rotating.
func (s *State) Whole(m geom.Iso2) Plan {
	all := make([]FacetID, len(s.F))
	for i := range all {
		all[i] = FacetID(i)
	}
	return Plan{Bodies: []Body{{Facets: all, T: m}}}
}

func (s *State) crossed(set []FacetID, l geom.Line) []FacetID {
	var out []FacetID
	for _, f := range set {
		if pos, neg := s.folded[f].Split(l); pos != nil && neg != nil {
			out = append(out, f)
		}
	}
	return out
}
