package body

import (
	"tussock/internal/fold"
	"tussock/internal/fold/layermap"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// Cell is a region with the same pieces everywhere.
type Cell = layermap.Cell

// Flat is what can be measured of a flat-folded state.
type Flat struct {
	AreaMM2   float64 // of the outline, each spot counted once
	MaxLayers int
	Box       geom.Box
	CoM       geom.Vec // folded plane; does not depend on paper weight
	LayerSum  float64  // Σ layers × area; equals the paper's area
	MassG     float64  // of paper and all that is fixed to it
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
	m.MassG = area * 1e-6 * s.Sheet.GSM
	return m
}

// Loaded is a flat measure with what is fixed to the paper: its centre of mass is
// that of paper and loads together.
func (m Flat) Loaded(s *fold.State, masses []sequence.Mass) Flat {
	g := s.PaperMM2() * 1e-6 * s.Sheet.GSM
	sum := m.CoM.Scale(g)
	for _, l := range masses {
		if f := s.FacetsAtSheet(l.At); len(f) > 0 && l.G > 0 {
			sum, g = sum.Add(s.F[f[0]].Iso.Apply(l.At).Scale(l.G)), g+l.G
		}
	}
	m.CoM = sum.Scale(1 / g)
	m.MassG = g
	return m
}

// upTo are the loads that are there after a step.
func upTo(masses []sequence.Mass, step int) []sequence.Mass {
	n := 0
	for n < len(masses) && masses[n].Step <= step {
		n++
	}
	return masses[:n]
}
