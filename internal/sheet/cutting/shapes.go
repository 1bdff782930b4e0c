package cutting

import (
	"math"

	"tussock/internal/geom"
	"tussock/internal/sheet"
)

// Pieces that are no rectangles are cut from the rectangle that holds them: straight
// cuts right across give the rectangle, and the outline is cut last.

// Triangles makes an order of rectangles out of one of triangles, each half of the
// rectangle: two are cut from one along its diagonal. An odd count leaves half a
// rectangle over.
func Triangles(p Piece) (Piece, error) {
	half := geom.Polygon{{}, {X: p.WidthMM}, {Y: p.HeightMM}}
	p.Shapes = []geom.Polygon{half}
	area := half.Area()
	if p.Count > 1 {
		p.Shapes = append(p.Shapes, geom.Polygon{{X: p.WidthMM}, {X: p.WidthMM, Y: p.HeightMM}, {Y: p.HeightMM}})
		area *= float64(p.Count) / math.Ceil(float64(p.Count)/2)
	}
	p.AreaMM2, p.Count = area, (p.Count+1)/2
	return p, nil
}

// Regular makes an order of the rectangles that hold regular pieces with n corners,
// whose side is the width given. The error is a *given.Error.
func Regular(p Piece, n int) (Piece, error) {
	s, err := sheet.NGon(n, p.WidthMM, 80, 0.1)
	if err != nil {
		return p, err
	}
	p.Shapes = []geom.Polygon{s.Outline()}
	p.WidthMM, p.HeightMM, p.AreaMM2 = s.WidthMM, s.HeightMM, s.AreaMM2()
	return p, nil
}

// Placed are the shapes of a piece where it lies on a sheet.
func (p Piece) Placed(at Placed) []geom.Polygon {
	var out []geom.Polygon
	for _, shape := range p.Shapes {
		q := make(geom.Polygon, len(shape))
		for i, v := range shape {
			if at.Turned { // a quarter turn to the left
				v = geom.Vec{X: p.HeightMM - v.Y, Y: v.X}
			}
			q[i] = v.Add(geom.Vec{X: at.X, Y: at.Y})
		}
		out = append(out, q)
	}
	return out
}
