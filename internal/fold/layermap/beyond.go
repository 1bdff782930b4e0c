package layermap

import (
	"tussock/internal/fold"
	"tussock/internal/geom"
)

// Beyond are the parts of pieces, as they lie, on one side of a line of the folded plane:
// what a fold about that line takes along. of are the pieces that they are parts of.
func Beyond(s *fold.State, pieces []fold.FacetID, line geom.Line, side int8) (polys []geom.Polygon, of []fold.FacetID) {
	for _, f := range pieces {
		pos, neg := s.Folded(f).Split(line)
		if side < 0 {
			pos = neg
		}
		if pos != nil {
			polys, of = append(polys, pos), append(of, f)
		}
	}
	return polys, of
}

// LayersFolded is the thickest stack that a fold about a line takes along: how many
// sheets of paper the fingers bend at most.
func LayersFolded(s *fold.State, pieces []fold.FacetID, line geom.Line, side int8) int {
	polys, _ := Beyond(s, pieces, line, side)
	return Thickest(Overlay(polys))
}
