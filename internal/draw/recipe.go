package draw

import (
	"tussock/internal/geom"
	"tussock/internal/sheet/divide"
)

// Blank draws an unfolded sheet.
func Blank(widthMM, heightMM float64) Picture {
	b := geom.Box{MaxX: widthMM, MaxY: heightMM}
	return Picture{View: view(b), Faces: []Face{{Points: flatPoints(geom.Vec{}, geom.Vec{X: widthMM}, geom.Vec{X: widthMM, Y: heightMM}, geom.Vec{Y: heightMM}), Front: true}}}
}

// Recipe draws one crease of a recipe over the sheet: those before it as opened
// creases, itself as a valley, and after the last the mark it makes.
func Recipe(widthMM, heightMM float64, r divide.Recipe, at int) Overlay {
	o := Overlay{View: view(geom.Box{MaxX: widthMM, MaxY: heightMM}), Strokes: []Stroke{}, Arrows: []Arrow{}, Signs: []Sign{}, Moving: []Region{}}
	for i, c := range r.Creases[:at+1] {
		kind := "axis"
		if i == at {
			kind = "valley"
		}
		o.Strokes = append(o.Strokes, Stroke{kind, flatPoints(c.Line.A, c.Line.B)})
	}
	if at == len(r.Creases)-1 {
		o.Signs = append(o.Signs, Sign{xy(r.Mark)})
	}
	return o
}
