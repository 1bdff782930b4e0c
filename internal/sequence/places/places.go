// Package places finds words for places on the paper: a flap, a layer, a spot, by the
// landmarks that lie there.
package places

import (
	"fmt"
	"math"
	"strings"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/say"
)

// Places are the landmarks at hand, on the flat sheet (mm), and what people call them.
type Places struct {
	Marks  map[string]geom.Vec
	Called func(name string) string
}

// Explain says with landmarks what an error says of pieces of paper. crease are words for
// the crease that it names, "" where there are none.
func (w Places) Explain(e *fold.Error, s *fold.State, crease string) {
	if len(e.Pieces) == 0 {
		return
	}
	switch {
	case e.Code == fold.CodeLayers && e.Rule == "pierce" && len(e.Pieces) > 2:
		a, b := w.Pair(s, e.Pieces[1], e.Pieces[2])
		e.Detail = fmt.Sprintf("%s would have to pass through the fold between %s and %s", w.Piece(s, e.Pieces[0]), a, b)
	case e.Code == fold.CodeLayers:
		names := make([]string, 0, len(e.Pieces))
		for _, f := range e.Pieces {
			if name := w.Piece(s, f); !strings.Contains(strings.Join(names, "\n"), name) {
				names = append(names, name)
			}
		}
		e.Detail = fmt.Sprintf("layers would have to pass through each other (%s): it is about %s", e.Detail, listAnd(names))
	case e.Code == fold.CodeTear:
		if crease != "" {
			e.Detail += ", " + crease
		}
		a, b := w.Pair(s, e.Pieces[0], e.Pieces[1])
		e.Detail += ", between " + a + " and " + b
	}
}

func listAnd(w []string) string {
	if len(w) == 1 {
		return w[0]
	}
	return strings.Join(w[:len(w)-1], ", ") + " and " + w[len(w)-1]
}

// Piece names a piece of paper by the landmark nearest to its middle that
// lies on it: "the flap at the top left corner". Landmarks of the pattern come
// before those of every sheet only where they are corners of the piece.
func (w Places) Piece(s *fold.State, f fold.FacetID) string {
	poly := s.F[f].Poly
	c := poly.Centroid()
	best, dist := "", math.Inf(1)
	for name, p := range w.Marks {
		if !poly.Contains(p, geom.OnPaper) {
			continue
		}
		d := p.Dist(c)
		corner := name == "TL" || name == "TR" || name == "BL" || name == "BR"
		if corner {
			d -= 1e6 // a corner of the sheet says most
		}
		if d < dist-geom.OnLine || d < dist+geom.OnLine && name < best {
			best, dist = name, d
		}
	}
	if best == "" {
		return spotWords(c)
	}
	return "the flap at " + w.Called(best)
}

// Spot names a spot of the sheet: a landmark that lies there, or where it is.
func (w Places) Spot(at geom.Vec) string {
	best := ""
	for name, p := range w.Marks {
		if p.Dist(at) < geom.OnPaper && (best == "" || name < best) {
			best = name
		}
	}
	if best != "" {
		return w.Called(best)
	}
	return fmt.Sprintf("the spot %s from the left and %s from below on the flat sheet", say.MM(at.X, 0), say.MM(at.Y, 0))
}

func spotWords(c geom.Vec) string {
	return fmt.Sprintf("the layer that was %s from the left and %s from below on the flat sheet", say.MM(c.X, 0), say.MM(c.Y, 0))
}

// Pair names two pieces apart: by landmarks where these differ, else by where
// they were on the flat sheet.
func (w Places) Pair(s *fold.State, a, b fold.FacetID) (string, string) {
	u, v := w.Piece(s, a), w.Piece(s, b)
	if u == v {
		return spotWords(s.F[a].Poly.Centroid()), spotWords(s.F[b].Poly.Centroid())
	}
	return u, v
}
