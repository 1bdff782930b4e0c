package steps

import (
	"slices"

	"tussock/internal/fold"
	"tussock/internal/geom"
)

// Reverse pushes the tip of a flap in between its own two walls (inside), or
// wraps it around them (outside), along line l. The spine is where the walls
// hang together; several stretches for a flap closed at more than one edge. Both
// walls' tips get the same reflection but are two bodies: each turns over in
// itself, their mutual order stays.
func Reverse(s *fold.State, tip geom.Vec, l geom.Line, spine []geom.Segment, outside bool, id fold.CreaseID) (fold.Plan, error) {
	at, err := seeds(s, tip)
	if err != nil {
		return fold.Plan{}, err
	}
	side := sideOfTip(s, at, tip, l)
	up, down, err := walls(s, spine)
	if err != nil {
		return fold.Plan{}, err
	}
	set := beyond(s, at, l, side, nil)
	within := func(w []fold.FacetID) []fold.FacetID {
		return slices.DeleteFunc(slices.Clone(w), func(f fold.FacetID) bool { return !slices.Contains(set, f) })
	}
	upper := beyond(s, within(up), l, side, spine)
	lower := beyond(s, within(down), l, side, spine)
	switch {
	case len(upper) == 0 || len(lower) == 0:
		return fold.Plan{}, fold.Errorf(fold.CodeMissesLine, "the tip has no folded edge beyond the fold line, so there is nothing to reverse")
	case slices.ContainsFunc(upper, func(f fold.FacetID) bool { return slices.Contains(lower, f) }):
		return fold.Plan{}, fold.Errorf(fold.CodeMissesLine, "the two walls of the tip hang together beyond the fold line, so it cannot be turned; name every folded edge of the tip as spine")
	case len(upper)+len(lower) < len(set):
		return fold.Plan{}, fold.Errorf(fold.CodeMissesLine, "more hangs on the tip than its two walls; name every folded edge of the tip as spine")
	}
	splits := []fold.Split{{Line: l, Facets: set}}
	d, err := s.Divide(splits, id)
	if err != nil {
		return fold.Plan{}, err
	}
	r := geom.Reflection(l)
	tips := [2]part{{t: r}, {t: r}}
	p := fold.Plan{Splits: splits, Solve: true, Crease: id}
	for i := range d.F {
		f := fold.FacetID(i)
		k, inner := 0, int8(1) // the upper wall lies above its own tip
		switch {
		case slices.Contains(upper, d.F[f].Parent):
		case slices.Contains(lower, d.F[f].Parent):
			k, inner = 1, -1
		default:
			continue
		}
		if lies(d, f, l) != side {
			continue
		}
		tips[k].set = append(tips[k].set, f)
		if outside {
			inner = -inner
		}
		for j := range d.F {
			if g := fold.FacetID(j); g != f && d.F[j].Parent == d.F[f].Parent {
				p.Hints = append(p.Hints, fold.Hint{I: g, J: f, Sign: inner, Hard: true, Why: "the tip cannot pass between its walls"})
			}
		}
	}
	for _, t := range tips {
		p.Bodies = append(p.Bodies, fold.Body{Facets: t.set, T: t.t})
	}
	if !outside {
		p.Hints = append(p.Hints, between(d, tips, up, down)...)
	}
	for _, f := range tips[0].set { // the two walls keep their order
		for _, g := range tips[1].set {
			if v := d.Above(f, g); v != 0 {
				p.Hints = append(p.Hints, fold.Hint{I: f, J: g, Sign: v, Hard: true, Why: "the two walls of the tip would have to change places"})
			}
		}
	}
	return p, nil
}

// between asks that a tip pushed in lies inside of every flap whose spine was named, where
// several are nested: a finger pushes it to the very middle.
func between(d *fold.State, tips [2]part, up, down []fold.FacetID) []fold.Hint {
	var hints []fold.Hint
	for j := range d.F {
		g := fold.FacetID(j)
		for _, t := range tips {
			if slices.Contains(t.set, g) {
				continue
			}
			for _, f := range t.set {
				switch parent := d.F[g].Parent; {
				case slices.Contains(up, parent):
					hints = append(hints, fold.Hint{I: g, J: f, Sign: 1})
				case slices.Contains(down, parent):
					hints = append(hints, fold.Hint{I: g, J: f, Sign: -1})
				}
			}
		}
	}
	return hints
}

func seeds(s *fold.State, p geom.Vec) ([]fold.FacetID, error) {
	at := s.FacetsAtSheet(p)
	if len(at) == 0 {
		return nil, fold.Errorf(fold.CodeOffPaper, "the tip that should be turned is not on the paper")
	}
	return at, nil
}

func sideOfTip(s *fold.State, at []fold.FacetID, tip geom.Vec, l geom.Line) float64 {
	if l.Side(s.F[at[0]].Iso.Apply(tip)) < 0 {
		return -1
	}
	return 1
}

// Sink pushes a tip in along line l between its own layers, whatever folds it
// holds: every crease beyond the line changes its sense, the order of the layers
// there stays.
func Sink(s *fold.State, tip geom.Vec, l geom.Line, id fold.CreaseID) (fold.Plan, error) {
	at, err := seeds(s, tip)
	if err != nil {
		return fold.Plan{}, err
	}
	side := sideOfTip(s, at, tip, l)
	splits := []fold.Split{{Line: l, Facets: beyond(s, at, l, side, nil)}}
	d, err := s.Divide(splits, id)
	if err != nil {
		return fold.Plan{}, err
	}
	var tips []fold.FacetID
	p := fold.Plan{Splits: splits, Solve: true, Crease: id}
	for i := range d.F {
		f := fold.FacetID(i)
		if !slices.Contains(splits[0].Facets, d.F[f].Parent) || lies(d, f, l) != side {
			continue
		}
		tips = append(tips, f)
		p.Bodies = append(p.Bodies, fold.Body{Facets: []fold.FacetID{f}, T: geom.Reflection(l)})
	}
	if len(tips) == 0 || len(tips) == len(d.F) {
		return p, fold.Errorf(fold.CodeMissesLine, "the fold line does not cross the tip")
	}
	for _, f := range tips {
		for _, g := range tips {
			if v := d.Above(f, g); v > 0 {
				p.Hints = append(p.Hints, fold.Hint{I: f, J: g, Sign: 1, Hard: true, Why: "the tip's layers cannot be pushed in"})
			}
		}
		for j := range d.F { // the outer layers stay outside
			if g := fold.FacetID(j); g != f && d.F[j].Parent == d.F[f].Parent {
				over := 0
				for _, k := range tips {
					over += int(d.Above(f, k))
				}
				if over != 0 {
					p.Hints = append(p.Hints, fold.Hint{I: g, J: f, Sign: int8(over / max(over, -over))})
				}
			}
		}
	}
	return p, nil
}
