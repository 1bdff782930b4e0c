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
	f := finder{s: s, m: m, cells: stacked, sides: bySide, seen: map[[2]int]bool{}, hinges: make([][]folded, len(s.F)),
		place: make([]map[int]int, len(cells)), rims: make([][]rim, len(cells))}
	for _, h := range s.H {
		if h.Kind == fold.Glue {
			continue
		}
		iso := s.F[h.A].Iso
		q := folded{geom.Segment{A: iso.Apply(h.P), B: iso.Apply(h.Q)}, s.Assigned(h) != fold.Flat, int(h.B)}
		f.hinges[h.A] = append(f.hinges[h.A], q)
		q.other = int(h.A)
		f.hinges[h.B] = append(f.hinges[h.B], q)
	}
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
	s      *fold.State
	m      *mesh
	cells  []Cell
	sides  [][]side
	seen   map[[2]int]bool // cell and gap: gap k lies under layer k-1 of the stack
	hinges [][]folded      // by piece
	place  []map[int]int   // by cell: where in its stack a piece lies
	rims   [][]rim         // by cell and side
}

// folded is a hinge where it lies, as seen from one of its pieces.
type folded struct {
	at    geom.Segment
	turns bool
	other int
}

// rim is what becomes of every layer of a cell at one of its sides, and which gaps between
// them a fold closes there: gap k lies over layer k of the stack.
type rim struct {
	fate    []joint
	partner []int
	held    []bool
}

// at is where in the stack of a cell a piece lies, -1 when it is not there.
func (f *finder) at(cell, piece int) int {
	if f.place[cell] == nil {
		f.place[cell] = make(map[int]int, len(f.cells[cell].Stack))
		for k, p := range f.cells[cell].Stack {
			f.place[cell][p] = k
		}
	}
	if k, ok := f.place[cell][piece]; ok {
		return k
	}
	return -1
}

// rim looks at a side of a cell once, for all its layers.
func (f *finder) rim(c, n int) *rim {
	if f.rims[c] == nil {
		f.rims[c] = make([]rim, len(f.sides[c]))
	}
	r := &f.rims[c][n]
	if r.fate != nil {
		return r
	}
	stack := f.cells[c].Stack
	r.fate, r.partner, r.held = make([]joint, len(stack)), make([]int, len(stack)), make([]bool, len(stack)+1)
	shut := make([]int, len(stack)+1) // by how many more folds each gap is closed than the one above
	for i, layer := range stack {
		r.fate[i], r.partner[i] = f.fate(layer, f.sides[c][n])
		if r.fate[i] != turns {
			continue
		}
		if j := f.at(c, r.partner[i]); j > i {
			shut[i+1]++
			shut[j+1]--
		}
	}
	folds := 0
	for k := range shut {
		folds += shut[k]
		r.held[k] = folds > 0
	}
	return r
}

// fate tells what becomes of a layer of a cell at one of its sides, and with whom.
func (f *finder) fate(layer int, sd side) (joint, int) {
	mid := geom.Mid(f.m.at[sd.a], f.m.at[sd.b])
	over := f.m.across(sd)
	if over >= 0 && f.at(over, layer) >= 0 {
		return goesOn, layer
	}
	for _, h := range f.hinges[layer] {
		if h.at.Dist(mid) > weldMM {
			continue
		}
		if h.turns {
			return turns, h.other
		}
		return goesOn, h.other
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
		for n, sd := range f.sides[c] {
			seg := geom.Segment{A: f.m.at[sd.a], B: f.m.at[sd.b]}
			r := f.rim(c, n)
			over := f.m.across(sd)
			if r.fate[k-1] == goesOn && r.fate[k] == goesOn && over >= 0 {
				i, j := f.at(over, r.partner[k-1]), f.at(over, r.partner[k])
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
			if r.held[k] {
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
