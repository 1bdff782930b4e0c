package layermap

import (
	"tussock/internal/fold"
	"tussock/internal/geom"
)

// Cell is a region with the same pieces everywhere.
type Cell struct {
	Poly  geom.Polygon
	Stack []int // which pieces, in order of number, not of height
}

// Cells divides the outline of a folded state into cells by layers.
func Cells(s *fold.State) []Cell {
	polys := make([]geom.Polygon, len(s.F))
	for i := range polys {
		polys[i] = s.Folded(fold.FacetID(i))
	}
	return Overlay(polys)
}

// Overlay lays convex pieces down one after the other and splits what is there
// along their sides. Exact but for rounding: the sum of layers × area over the
// cells is the sum of the pieces' areas.
func Overlay(polys []geom.Polygon) []Cell {
	var cells []Cell
	for id, poly := range polys {
		rest := []geom.Polygon{poly} // of the new piece, not yet over any cell
		next := make([]Cell, 0, len(cells)+4)
		for _, c := range cells {
			if !geom.Overlaps(c.Poly, poly) {
				next = append(next, c)
				continue
			}
			inside, outside := carve(c.Poly, poly)
			for _, p := range outside {
				next = append(next, Cell{p, c.Stack})
			}
			if inside != nil {
				next = append(next, Cell{inside, append(append([]int(nil), c.Stack...), id)})
			}
			var left []geom.Polygon
			for _, p := range rest {
				if !geom.Overlaps(p, c.Poly) {
					left = append(left, p)
					continue
				}
				_, out := carve(p, c.Poly)
				left = append(left, out...)
			}
			rest = left
		}
		for _, p := range rest {
			next = append(next, Cell{p, []int{id}})
		}
		cells = next
	}
	return cells
}

// sliverMM is the width below which layers that lie on one another are no stack:
// neighbouring flaps overlap by a hair where a gap was left elsewhere.
const sliverMM = 1.0

// Thickest is the largest number of pieces on one spot, slivers left out unless there
// is nothing else.
func Thickest(cells []Cell) int {
	n, any := 0, 0
	for _, c := range cells {
		any = max(any, len(c.Stack))
		if len(c.Stack) > n && wide(c.Poly) {
			n = len(c.Stack)
		}
	}
	if n == 0 {
		return any
	}
	return n
}

// wide tells whether a cell is no sliver: twice its area over its rim is its mean width.
func wide(p geom.Polygon) bool {
	rim := 0.0
	for i, a := range p {
		rim += a.Dist(p[(i+1)%len(p)])
	}
	return 2*p.Area() > sliverMM*rim
}

// Area is the total of the cells, each spot counted once, in mm².
func Area(cells []Cell) float64 {
	var a float64
	for _, c := range cells {
		a += c.Poly.Area()
	}
	return a
}

// carve cuts p by the sides of q into the part inside q and convex parts outside.
func carve(p, q geom.Polygon) (inside geom.Polygon, outside []geom.Polygon) {
	inside = p
	for i := range q {
		e := q[(i+1)%len(q)].Sub(q[i])
		if e.Len() < geom.OnLine {
			continue
		}
		in, out := inside.Split(geom.LineAt(q[i], e))
		if out != nil {
			outside = append(outside, out)
		}
		if in == nil {
			return nil, outside
		}
		inside = in
	}
	return inside, outside
}
