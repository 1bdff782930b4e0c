package steps

import (
	"math"
	"slices"

	"tussock/internal/fold"
	"tussock/internal/geom"
)

// Place says where moved layers are to end: under or over the layers at a spot of
// the sheet, or, with neither, above everything that stays.
type Place struct{ Under, Over []fold.FacetID }

// reach is how far a hinge gets beyond a line on the given side, in mm.
func reach(s *fold.State, h fold.Hinge, f fold.FacetID, l geom.Line, side float64) float64 {
	iso := s.F[f].Iso
	p, q := h.Ends(f)
	return math.Max(side*l.Side(iso.Apply(p)), side*l.Side(iso.Apply(q)))
}

// beyond floods from seeds over hinges that get beyond the line, not over those
// along the stretches. Seeds without area beyond the line are left out.
func beyond(s *fold.State, seeds []fold.FacetID, l geom.Line, side float64, stop []geom.Segment) []fold.FacetID {
	in := map[fold.FacetID]bool{}
	var queue []fold.FacetID
	add := func(f fold.FacetID) {
		if !in[f] && farSide(s.Folded(f), l, side) > geom.OnLine {
			in[f] = true
			queue = append(queue, f)
		}
	}
	for _, f := range seeds {
		add(f)
	}
	for ; len(queue) > 0; queue = queue[1:] {
		for _, h := range s.H {
			if g, ok := h.Other(queue[0]); ok && !h.Along(stop...) && reach(s, h, queue[0], l, side) > geom.OnLine {
				add(g)
			}
		}
	}
	return sorted(in)
}

func farSide(p geom.Polygon, l geom.Line, side float64) float64 {
	far := math.Inf(-1)
	for _, v := range p {
		far = math.Max(far, side*l.Side(v))
	}
	return far
}

func sorted(in map[fold.FacetID]bool) []fold.FacetID {
	out := make([]fold.FacetID, 0, len(in))
	for f := range in {
		out = append(out, f)
	}
	slices.Sort(out)
	return out
}

// walls are the two pieces at each folded hinge along the stretches, the upper
// one and the lower one.
func walls(s *fold.State, spine []geom.Segment) (upper, lower []fold.FacetID, err error) {
	for _, h := range s.H {
		if !h.Along(spine...) || s.Assigned(h) == fold.Flat {
			continue
		}
		a, b := h.A, h.B
		if s.Above(a, b) < 0 {
			a, b = b, a
		}
		upper, lower = append(upper, a), append(lower, b)
	}
	if len(upper) == 0 {
		return nil, nil, fold.Errorf(fold.CodeMissesLine, "the edge that should be the spine is not a folded edge here")
	}
	return upper, lower, nil
}

// lies tells on which side of a line the middle of a piece lies, +1 or -1.
func lies(s *fold.State, f fold.FacetID, l geom.Line) float64 {
	return math.Copysign(1, l.Side(s.Folded(f).Centroid()))
}

// placed are the hints that put moved pieces where they should end. Pieces are
// those of the divided state d.
func placed(d *fold.State, moved map[fold.FacetID]bool, at Place) []fold.Hint {
	var hints []fold.Hint
	free := len(at.Under) == 0 && len(at.Over) == 0
	for _, i := range sorted(moved) {
		for j := range d.F {
			id := fold.FacetID(j)
			if moved[id] {
				continue
			}
			h := fold.Hint{I: i, J: id, Sign: 1, Hard: free, Why: "the flap must be on top; turn the paper over first?"}
			switch parent := d.F[j].Parent; {
			case slices.Contains(at.Under, parent):
				h.Sign, h.Hard, h.Why = -1, true, "the flap cannot go under that layer"
			case slices.Contains(at.Over, parent):
				h.Hard, h.Why = true, "the flap cannot go over that layer"
			}
			hints = append(hints, h)
		}
	}
	return hints
}

// part is one group of pieces with its motion while a plan is being made.
type part struct {
	set []fold.FacetID // of the divided state
	t   geom.Iso2
}

// planned makes the plan of moving parts. Every part must hold paper.
func planned(d *fold.State, splits []fold.Split, id fold.CreaseID, at Place, parts ...part) fold.Plan {
	p := fold.Plan{Splits: splits, Solve: true, Crease: id}
	moved := map[fold.FacetID]bool{}
	for _, q := range parts {
		if len(q.set) > 0 {
			p.Bodies = append(p.Bodies, fold.Body{Facets: q.set, T: q.t})
		}
		for _, f := range q.set {
			moved[f] = true
		}
	}
	p.Hints = placed(d, moved, at)
	return p
}

// Tuck plans a simple fold whose moved layers end under or over the layers named.
// What lies in the way stays where it is.
func Tuck(s *fold.State, sel fold.Selection, at Place, id fold.CreaseID) (fold.Plan, error) {
	sel.Free = true
	set := s.Closure(sel)
	if len(set) == 0 {
		return fold.Plan{}, fold.Errorf(fold.CodeMissesLine, "the fold line does not cross the layers that should move")
	}
	crossed := s.Crossed(set, sel.Line)
	var splits []fold.Split
	if len(crossed) > 0 {
		splits = []fold.Split{{Line: sel.Line, Facets: crossed, Pressed: sel.Pressed}}
	}
	d, err := s.Divide(splits, id) // also without a split: it says from what each piece comes
	if err != nil {
		return fold.Plan{}, err
	}
	move := part{t: geom.Reflection(sel.Line)}
	for i := range d.F {
		if f := fold.FacetID(i); slices.Contains(set, d.F[i].Parent) && lies(d, f, sel.Line) == float64(sel.Side) {
			move.set = append(move.set, f)
		}
	}
	p := planned(d, splits, id, at, move)
	for i := range p.Hints {
		p.Hints[i].Sign *= signOf(sel.Sense, p.Hints[i].Hard)
	}
	return p, nil
}

// Around plans the turn of a leaf that lies round others about a fold that is there: each
// of its pieces goes its own way, above or below what stays.
func Around(s *fold.State, sel fold.Selection, id fold.CreaseID) (fold.Plan, error) {
	sel.Free = true
	set := s.Closure(sel)
	if len(set) == 0 || len(set) == len(s.F) || len(s.Crossed(set, sel.Line)) > 0 {
		return fold.Plan{}, fold.Errorf(fold.CodeMissesLine, "no leaf hangs there by itself that could be turned about this fold")
	}
	p := fold.Plan{Solve: true, Crease: id}
	for _, f := range set {
		p.Bodies = append(p.Bodies, fold.Body{Facets: []fold.FacetID{f}, T: geom.Reflection(sel.Line)})
	}
	return p, nil
}

// signOf turns the preference for the outside round for a mountain fold; what is
// said of a named layer stays.
func signOf(sense fold.Sense, hard bool) int8 {
	if hard {
		return 1
	}
	return int8(sense)
}
