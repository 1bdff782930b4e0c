package layermap

import (
	"math"
	"slices"

	"tussock/internal/fold"
	"tussock/internal/geom"
)

// Pocket is a space between two layers that is held along folds and open at a
// mouth.
type Pocket struct {
	Mouth   geom.Segment // the longest straight opening
	DepthMM float64      // from the mouth to the farthest spot, square to it
	Cover   int          // layers that lie over its upper wall; 0 when it opens to the viewer
	Beneath int          // layers that lie under its lower wall
	Closed  float64      // share of its rim that is folded, 0 to 1
	Region  []geom.Polygon
	Upper   fold.FacetID // a piece of its upper wall
	Lower   fold.FacetID
}

// minPocketMM is the least depth and mouth of a pocket worth a finger.
const minPocketMM = 2.0

// joint is what becomes of a layer at a side of a cell.
type joint int8

const (
	ends   joint = iota // a raw edge
	goesOn              // it, or its neighbour over an open crease, is there on the other side
	turns               // it is folded, and comes back in the same cell
)

// Pockets finds the pockets of a flat toy, the best for a tuck first: deep, with
// a wide mouth, and not covered.
func Pockets(s *fold.State, cells []Cell) []Pocket {
	stacked := Stacked(s, cells)
	m := newMesh(cells)
	bySide := make([][]side, len(cells))
	for _, sd := range m.sides {
		bySide[sd.cell] = append(bySide[sd.cell], sd)
	}
	f := finder{s: s, m: m, cells: stacked, sides: bySide, seen: map[[2]int]bool{}}
	var out []Pocket
	for c := range stacked {
		for k := 1; k < len(stacked[c].Stack); k++ {
			if f.seen[[2]int{c, k}] {
				continue
			}
			if p, ok := f.pocket(c, k); ok {
				out = append(out, p)
			}
		}
	}
	worth := func(p Pocket) float64 { return p.DepthMM * p.Mouth.Len() / float64(1+min(p.Cover, p.Beneath)) }
	slices.SortStableFunc(out, func(a, b Pocket) int {
		switch x, y := worth(a), worth(b); {
		case x > y:
			return -1
		case x < y:
			return 1
		}
		return 0
	})
	return out
}

type finder struct {
	s     *fold.State
	m     *mesh
	cells []Cell
	sides [][]side
	seen  map[[2]int]bool // cell and gap: gap k lies under layer k-1 of the stack
}

// fate tells what becomes of a layer of a cell at one of its sides, and with whom.
func (f *finder) fate(layer int, sd side) (joint, int) {
	mid := geom.Mid(f.m.at[sd.a], f.m.at[sd.b])
	over := f.m.across(sd)
	if over >= 0 && slices.Contains(f.cells[over].Stack, layer) {
		return goesOn, layer
	}
	for _, h := range f.s.H {
		g, ok := h.Other(fold.FacetID(layer))
		if !ok || h.Kind == fold.Glue {
			continue
		}
		iso := f.s.F[layer].Iso
		if (geom.Segment{A: iso.Apply(h.P), B: iso.Apply(h.Q)}).Dist(mid) > weldMM {
			continue
		}
		if f.s.Assigned(h) != fold.Flat {
			return turns, int(g)
		}
		return goesOn, int(g)
	}
	return ends, -1
}

// pocket follows the gap between two neighbouring layers over all cells.
func (f *finder) pocket(cell, gap int) (p Pocket, ok bool) {
	type spot = [2]int
	queue := []spot{{cell, gap}}
	f.seen[queue[0]] = true
	var open []geom.Segment
	var closed, rim float64
	p.Cover, p.Beneath = math.MaxInt, math.MaxInt
	p.Upper = fold.FacetID(f.cells[cell].Stack[gap-1])
	p.Lower = fold.FacetID(f.cells[cell].Stack[gap])
	for ; len(queue) > 0; queue = queue[1:] {
		c, k := queue[0][0], queue[0][1]
		stack := f.cells[c].Stack
		p.Region = append(p.Region, f.cells[c].Poly)
		p.Cover, p.Beneath = min(p.Cover, k-1), min(p.Beneath, len(stack)-k-1)
		for _, sd := range f.sides[c] {
			seg := geom.Segment{A: f.m.at[sd.a], B: f.m.at[sd.b]}
			up, u := f.fate(stack[k-1], sd)
			low, l := f.fate(stack[k], sd)
			over := f.m.across(sd)
			if up == goesOn && low == goesOn && over >= 0 {
				next := f.cells[over].Stack
				i, j := slices.Index(next, u), slices.Index(next, l)
				if i >= 0 && j == i+1 { // the same gap on the other side
					if q := (spot{over, j}); !f.seen[q] {
						f.seen[q] = true
						queue = append(queue, q)
					}
					continue
				}
				if i >= 0 && j > i { // another layer begins in it: it divides
					rim += seg.Len()
					open = append(open, seg)
					continue
				}
			}
			rim += seg.Len()
			if f.held(c, k, sd, up, low, u) {
				closed += seg.Len()
			} else {
				open = append(open, seg)
			}
		}
	}
	if rim == 0 {
		return p, false
	}
	p.Closed = closed / rim
	p.Mouth = longestRun(open)
	l, straight := geom.LineThrough(p.Mouth.A, p.Mouth.B)
	if !straight || p.Mouth.Len() < minPocketMM || p.Closed < 0.25 {
		return p, false
	}
	for _, r := range p.Region {
		for _, v := range r {
			p.DepthMM = math.Max(p.DepthMM, math.Abs(l.Side(v)))
		}
	}
	return p, p.DepthMM >= minPocketMM
}

// held tells whether a gap is closed at a side: its two walls are the two sides
// of one fold, or a fold around it holds both.
func (f *finder) held(c, k int, sd side, up, low joint, partner int) bool {
	stack := f.cells[c].Stack
	if up == turns && low == turns && partner == stack[k] {
		return true
	}
	for i := range k { // a fold whose two sides lie above and below the gap
		if j, g := f.fate(stack[i], sd); j == turns && slices.Index(stack, g) >= k {
			return true
		}
	}
	return false
}

// longestRun joins pieces of an opening that lie on one line and touch.
func longestRun(open []geom.Segment) geom.Segment {
	var best geom.Segment
	used := make([]bool, len(open))
	for i := range open {
		if used[i] {
			continue
		}
		used[i] = true
		run := open[i]
		for grown := true; grown; {
			grown = false
			l, ok := geom.LineThrough(run.A, run.B)
			if !ok {
				break
			}
			for j, s := range open {
				if used[j] || math.Abs(l.Side(s.A)) > 10*weldMM || math.Abs(l.Side(s.B)) > 10*weldMM {
					continue
				}
				switch {
				case s.A.Dist(run.B) < 10*weldMM:
					run.B = s.B
				case s.B.Dist(run.A) < 10*weldMM:
					run.A = s.A
				default:
					continue
				}
				used[j], grown = true, true
			}
		}
		if run.Len() > best.Len() {
			best = run
		}
	}
	return best
}
