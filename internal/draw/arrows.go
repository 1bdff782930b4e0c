package draw

import (
	"cmp"
	"math"
	"slices"

	"tussock/internal/fold"
	"tussock/internal/geom"
)

// travel is the way of one stiff part of the paper in a step.
type travel struct {
	from, to geom.Vec // of the spot of it that goes farthest
	root     fold.FacetID
	hidden   bool // it ends beneath other layers
}

func (t travel) far() float64 { return t.from.Dist(t.to) }

// inward is how far from a corner, towards the middle of its piece, an arrow begins.
const inward = 0.1

// travels are the ways of all parts that move from one state to another, those that go
// farthest first. What moves alike is one part.
func travels(before, after *fold.State) []travel {
	var out []travel
	var moves []geom.Iso2
	for i, f := range after.F {
		root := rootOf(before, f)
		old := before.F[root].Iso
		if old.Near(f.Iso, geom.Still) {
			continue
		}
		move := f.Iso.After(old.Inverse())
		k := slices.IndexFunc(moves, func(m geom.Iso2) bool { return m.Near(move, geom.Still) })
		if k < 0 {
			k, moves, out = len(moves), append(moves, move), append(out, travel{})
		}
		mid := f.Poly.Centroid()
		for _, v := range f.Poly {
			v = v.Lerp(mid, inward)
			t := travel{from: old.Apply(v), to: f.Iso.Apply(v), root: root}
			top, ok := after.TopAt(t.to)
			t.hidden = ok && int(top) != i
			// One that is seen at its end goes before one that is a little farther.
			if d := t.far() - out[k].far(); d > geom.OnPaper && (!t.hidden || out[k].hidden || d > 0.1*t.far()) || t.hidden != out[k].hidden && !t.hidden && t.far() > 0.9*out[k].far() {
				out[k] = t
			}
		}
	}
	slices.SortStableFunc(out, func(a, b travel) int { return cmp.Compare(b.far(), a.far()) })
	return out
}

// Of the parts that move so many at most get an arrow, and those that go less far than a
// part of the farthest get none.
const (
	mostArrows  = 4
	leastTravel = 0.15
	shortArrow  = 0.03 // part of the toy's size
	sameArrow   = 0.05
)

// motions draws an arrow for every part that moves. What goes in beneath other layers in a
// step of several folds is pushed there.
func (k *sketch) motions(kind string) {
	after := k.d.After
	if k.d.Op == "pleat" && len(k.d.Moves) > 0 { // it ends near where it began
		after = k.d.Moves[0].After
	}
	drawn := 0
	var kept []travel
	all := travels(k.d.Before, after)
	for _, t := range all {
		near := func(o travel) bool {
			return t.from.Dist(o.from) < sameArrow*k.size && t.to.Dist(o.to) < sameArrow*k.size
		}
		// One is always drawn, however small the step.
		if drawn == mostArrows || drawn > 0 && t.far() < shortArrow*k.size || t.far() < leastTravel*all[0].far() || slices.ContainsFunc(kept, near) {
			continue
		}
		how := kind
		if kind == "fold" && t.hidden && len(all) > 1 {
			how = "push"
		}
		kept = append(kept, t)
		k.arrow(how, k.lay.put(t.root, t.from), t.to)
		drawn++
	}
}

// room is how much of an arrow's way is left out at both ends, for the signs there: a part
// of the toy's size, and at most a part of the way.
const (
	arrowRoom = 0.035
	mostRoom  = 0.2
)

// curve bows an arrow away from the middle of the toy. Its ends lie on the straight way
// between what it joins.
func curve(kind string, from, to geom.Vec, b geom.Box) Arrow {
	room := math.Min(arrowRoom*longer(b), mostRoom*from.Dist(to))
	d := to.Sub(from).Unit().Scale(room)
	from, to = from.Add(d), to.Sub(d)
	mid := geom.Mid(from, to)
	bow := to.Sub(from).Left().Scale(0.28)
	if c := b.Centre(); mid.Add(bow).Dist(c) < mid.Sub(bow).Dist(c) {
		bow = bow.Scale(-1)
	}
	return arrowOf(kind, from, mid.Add(bow), to, longer(b))
}
