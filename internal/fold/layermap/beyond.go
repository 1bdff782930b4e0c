package layermap

import (
	"tussock/internal/fold"
	"tussock/internal/geom"
)

// Beyond are the parts of pieces, as they lie, on one side of a line of the folded plane:
// what a fold about that line takes along.
func Beyond(s *fold.State, pieces []fold.FacetID, line geom.Line, side int8) []geom.Polygon {
	var polys []geom.Polygon
	for _, f := range pieces {
		pos, neg := s.Folded(f).Split(line)
		if side < 0 {
			pos = neg
		}
		if pos != nil {
			polys = append(polys, pos)
		}
	}
	return polys
}

// LayersFolded is the thickest stack that a fold about a line takes along: how many
// sheets of paper the fingers bend at most.
func LayersFolded(s *fold.State, pieces []fold.FacetID, line geom.Line, side int8) int {
	return Thickest(Overlay(Beyond(s, pieces, line, side)))
}
