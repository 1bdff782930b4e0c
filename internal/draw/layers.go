package draw

import (
	"math"

	"tussock/internal/body"
	"tussock/internal/geom"
)

// Layers is the layer map of a state: one region a cell.
func Layers(cells []body.Cell) []Region {
	out := make([]Region, 0, len(cells))
	largest := map[int]int{} // by count of layers, index of the cell
	box := geom.EmptyBox()
	for _, c := range cells {
		box = box.Grow(c.Poly...)
	}
	size := math.Max(box.Width(), box.Height())
	for i, c := range cells {
		n := len(c.Stack)
		out = append(out, Region{Points: flatPoints(c.Poly...), Layers: n})
		if broad(c.Poly) < 0.02*size {
			continue // no room for a number
		}
		if best, seen := largest[n]; !seen || c.Poly.Area() > cells[best].Poly.Area() {
			largest[n] = i
		}
	}
	for _, i := range largest {
		at := xy(cells[i].Poly.Centroid())
		out[i].Label = &at
	}
	return out
}

// broad is about half the width of a region: area over half the perimeter.
func broad(p geom.Polygon) float64 {
	var rim float64
	for i := range p {
		rim += p[i].Dist(p[(i+1)%len(p)])
	}
	return 2 * p.Area() / rim
}

// Balance puts the centre of mass on a picture of a flat state.
func (p *Picture) Balance(com geom.Vec) {
	at := xy(com)
	p.CoM = &at
}
