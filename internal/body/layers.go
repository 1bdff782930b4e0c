package body

import (
	"tussock/internal/fold"
	"tussock/internal/geom"
)

// Cell is a region of the folded plane with the same layers everywhere.
type Cell struct {
	Poly  geom.Polygon
	Stack []fold.FacetID // in order of number, not of height
}

// LayerMap divides the toy's outline into cells, by laying down one piece after
// the other and splitting what is there along its sides. Exact but for rounding:
// the sum of layers × area is the area of the sheet.
func LayerMap(s *fold.State) []Cell {
	var cells []Cell
	for i := range s.F {
		id := fold.FacetID(i)
		poly := s.Folded(id)
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
				stack := append(append([]fold.FacetID(nil), c.Stack...), id)
				next = append(next, Cell{inside, stack})
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
			next = append(next, Cell{p, []fold.FacetID{id}})
		}
		cells = next
	}
	return cells
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

// Flat is what can be measured of a flat-folded state.
type Flat struct {
	AreaMM2   float64 // of the outline, each spot counted once
	MaxLayers int
	Box       geom.Box
	CoM       geom.Vec // folded plane; does not depend on paper weight
	LayerSum  float64  // Σ layers × area; equals the sheet's area
}

// Measure weighs a flat-folded state of even paper.
func Measure(s *fold.State) Flat {
	return measure(s, LayerMap(s))
}

func measure(s *fold.State, cells []Cell) Flat {
	m := Flat{Box: s.Box()}
	for _, c := range cells {
		a := c.Poly.Area()
		m.AreaMM2 += a
		m.LayerSum += a * float64(len(c.Stack))
		m.MaxLayers = max(m.MaxLayers, len(c.Stack))
	}
	var area float64
	for i := range s.F {
		p := s.Folded(fold.FacetID(i))
		a := p.Area()
		area += a
		m.CoM = m.CoM.Add(p.Centroid().Scale(a))
	}
	m.CoM = m.CoM.Scale(1 / area)
	return m
}
