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

// Split cuts pieces along a line before anything moves. Line lies in the folded
// plane, or on the flat sheet when OnSheet is set. Facets are pieces of the state
// that the plan is for; nil means all. Pressed is the stretch of the line that
// becomes a crease (nil for all of it); the rest is a construction line. From
// tells which of the step's lines it is, for the study of errors.
type Split struct {
	Line    geom.Line
	OnSheet bool
	Facets  []FacetID
	Pressed *geom.Segment
	From    int8
}

// Hint says for a plan that piece I ends above (+1) or below (-1) piece J. Hard
// hints must hold, and Why is what is said when they cannot.
type Hint struct {
	I, J FacetID
	Sign int8
	Hard bool
	Why  string
}

// Plan is one operation, ready to be applied.
//
// A simple fold cuts the pieces in Split along Line (folded plane), moves its
// one body and puts what moved above (+1) or below (-1) all that it comes to lie
// on: the order is forced. Other operations give Splits instead, name bodies of
// whole pieces of the divided state, and set Solve: the order among different
// bodies is then found by the layer solver, helped by the hints.
type Plan struct {
	Line    geom.Line
	Side    int8 // the side that moves, or would
	Split   []FacetID
	Pressed *geom.Segment // stretch of Line that is creased; nil for all
	Place   int8

	Splits []Split
	Solve  bool
	Hints  []Hint
	Remove []FacetID      // pieces of the divided state that are cut off
	Slit   []geom.Segment // stretches of the sheet where hinges are cut open
	Glue   [][2]FacetID   // pieces of the divided state stuck face to face
	Free   []FacetID      // pieces whose order is looked for anew, wherever they lie
	States *Known         // take places and orders from an earlier state instead of moving

	Bodies []Body
	Crease CreaseID
}

// Known is an earlier state that a plan goes back to.
type Known struct{ To *State }

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
	// Free leaves layers that lie in the way where they are, for folds that are
	// tucked under or over a named layer.
	Free    bool
	Pressed *geom.Segment // stretch of Line that is creased; nil for all
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
			other, ok := h.Other(f)
			if !ok {
				continue
			}
			iso := s.F[f].Iso
			p, q := h.Ends(f)
			reach := math.Max(side*sel.Line.Side(iso.Apply(p)), side*sel.Line.Side(iso.Apply(q)))
			if reach > geom.OnLine {
				add(other)
			}
		}
		if sel.Free {
			continue
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
func (s *State) SimpleFold(sel Selection, id CreaseID) (Plan, error) {
	set := s.Closure(sel)
	if len(set) == 0 {
		return Plan{}, Errorf(CodeMissesLine, "the fold line does not cross the layers that should move")
	}
	p := Plan{Line: sel.Line, Side: sel.Side, Place: int8(sel.Sense), Crease: id, Pressed: sel.Pressed,
		Split: s.Crossed(set, sel.Line)}
	if len(p.Split) == 0 && len(set) == len(s.F) {
		return Plan{}, Errorf(CodeMissesLine, "the fold line runs beside the paper, so nothing would stay behind")
	}
	p.Bodies = []Body{{Facets: set, Side: sel.Side, T: geom.Reflection(sel.Line)}}
	return p, nil
}

// CreaseOnly plans a fold that is opened again: the layers are only divided.
func (s *State) CreaseOnly(sel Selection, id CreaseID) (Plan, error) {
	set := s.Closure(sel)
	p := Plan{Line: sel.Line, Side: sel.Side, Crease: id, Pressed: sel.Pressed, Split: s.Crossed(set, sel.Line)}
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

// Crossed are the pieces of a set that a line of the folded plane cuts in two.
func (s *State) Crossed(set []FacetID, l geom.Line) []FacetID {
	var out []FacetID
	for _, f := range set {
		if pos, neg := s.folded[f].Split(l); pos != nil && neg != nil {
			out = append(out, f)
		}
	}
	return out
}
