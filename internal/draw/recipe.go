package draw

import (
	"math"

	"tussock/internal/geom"
	"tussock/internal/sheet"
	"tussock/internal/sheet/divide"
)

// Blank draws an unfolded sheet.
func Blank(widthMM, heightMM float64) Picture {
	return Piece(sheet.Sheet{WidthMM: widthMM, HeightMM: heightMM}, nil)
}

// Creased adds to the picture of an unfolded sheet the creases that are in it.
func Creased(p *Picture, creases []geom.Segment) {
	for i := range p.Faces {
		for _, c := range creases {
			p.Faces[i].Creases = append(p.Faces[i].Creases, flatPoints(c.A, c.B)...)
		}
	}
}

// Piece draws an unfolded sheet of any outline with the creases that are in it.
func Piece(s sheet.Sheet, creases []geom.Segment) Picture {
	o := s.Outline()
	p := Picture{View: view(geom.EmptyBox().Grow(o...)), Faces: []Face{{Points: flatPoints(o...), Front: true}}}
	Creased(&p, creases)
	return p
}

// Recipe draws one crease of a recipe over the sheet: those before it as opened
// creases, itself as a valley, and after the last the mark it makes.
func Recipe(widthMM, heightMM float64, r divide.Recipe, at int) Overlay {
	o := nothing(geom.Box{MaxX: widthMM, MaxY: heightMM})
	for i, c := range r.Creases[:at+1] {
		kind := "axis"
		if i == at {
			kind = "valley"
		}
		o.Strokes = append(o.Strokes, Stroke{kind, flatPoints(c.Line.A, c.Line.B)})
	}
	if at == len(r.Creases)-1 {
		o.Signs = append(o.Signs, signAt("meet", r.Mark, math.Max(widthMM, heightMM)))
	}
	return o
}

// Parts draws lines across the sheet that divide its left edge into n equal parts.
func Parts(widthMM, heightMM float64, n int) Overlay {
	o := nothing(geom.Box{MaxX: widthMM, MaxY: heightMM})
	for k := 1; k < n; k++ {
		y := heightMM * float64(k) / float64(n)
		o.Strokes = append(o.Strokes, Stroke{"axis", flatPoints(geom.Vec{Y: y}, geom.Vec{X: widthMM, Y: y})})
	}
	return o
}
