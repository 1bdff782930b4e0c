package body

import (
	"tussock/internal/fold"
	"tussock/internal/fold/layermap"
	"tussock/internal/geom"
)

// Cell is a region with the same pieces everywhere.
type Cell = layermap.Cell

// Flat is what can be measured of a flat-folded state.
type Flat struct {
	AreaMM2   float64 // of the outline, each spot counted once
	MaxLayers int
	Box       geom.Box
	CoM       geom.Vec // folded plane; does not depend on paper weight
	LayerSum  float64  // Σ layers × area; equals the sheet's area
	Cells     []Cell   // the layer map
}

// Measure weighs a flat-folded state of even paper.
func Measure(s *fold.State) Flat {
	cells := layermap.Cells(s)
	m := Flat{Box: s.Box(), AreaMM2: layermap.Area(cells), MaxLayers: layermap.Thickest(cells), Cells: cells}
	for _, c := range cells {
		m.LayerSum += c.Poly.Area() * float64(len(c.Stack))
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
