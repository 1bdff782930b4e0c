package sheet

import (
	"fmt"
	"math"

	"tussock/internal/geom"
	"tussock/internal/given"
	"tussock/internal/say"
)

// Shape is the outline of a sheet that is not the whole rectangle. The corners
// run counter-clockwise, within the rectangle WidthMM by HeightMM at the origin.
type Shape struct {
	Kind    string     // "ngon", "polygon", "leftover" or "skewed"
	Corners []geom.Vec // named P1, P2 … in patterns
	pieces  []geom.Polygon
	joins   []Join
}

// Join is a seam between two convex pieces of an outline that is not convex.
type Join struct {
	A, B int
	Seam geom.Segment
}

// MinCornerMM is the least distance of two corners of a free outline.
const MinCornerMM = 1.0

// MaxCorners bounds a free outline.
const MaxCorners = 64

// NGon is a regular sheet with n corners (3 to 8) and the given side, its lowest
// side level. Errors are *given.Error with the fields n and side_mm.
func NGon(n int, sideMM, gsm, thicknessMM float64) (Sheet, error) {
	if n < 3 || n > 8 {
		return Sheet{}, &given.Error{Field: "n", Value: fmt.Sprint(n), Want: "3 to 8 corners"}
	}
	if !SideRange.Holds(sideMM) {
		return Sheet{}, &given.Error{Field: "side_mm", Value: Number(sideMM), Want: SideRange.String()}
	}
	r := sideMM / 2 / math.Sin(math.Pi/float64(n))
	var pts []geom.Vec
	for k := range n {
		a := -math.Pi/2 - math.Pi/float64(n) + 2*math.Pi*float64(k)/float64(n)
		pts = append(pts, geom.Vec{X: r * math.Cos(a), Y: r * math.Sin(a)})
	}
	return shaped("ngon", pts, gsm, thicknessMM)
}

// Polygon is a sheet with a free outline, counter-clockwise or not, convex or
// not, moved so that its box starts at the origin. Errors are *given.Error.
func Polygon(corners []geom.Vec, gsm, thicknessMM float64) (Sheet, error) {
	return shaped("polygon", corners, gsm, thicknessMM)
}

// Leftover is a piece cut from another sheet, as a sheet of its own.
func Leftover(piece geom.Polygon, gsm, thicknessMM float64) (Sheet, error) {
	return shaped("leftover", piece, gsm, thicknessMM)
}

// Skewed is a sheet that should be a rectangle and is not square-cornered: opposite
// sides are parallel, and the lower left corner has 90° less offDeg. Its corners are
// those of the rectangle, from the lower left one counter-clockwise.
func Skewed(widthMM, heightMM, offDeg, gsm, thicknessMM float64) (Sheet, error) {
	a := offDeg * math.Pi / 180
	lean := geom.Vec{X: heightMM * math.Sin(a), Y: heightMM * math.Cos(a)}
	return shaped("skewed", []geom.Vec{{}, {X: widthMM}, geom.Vec{X: widthMM}.Add(lean), lean}, gsm, thicknessMM)
}

func shaped(kind string, corners []geom.Vec, gsm, thicknessMM float64) (Sheet, error) {
	bad := func(value, want string) (Sheet, error) {
		return Sheet{}, &given.Error{Field: "outline", Value: value, Want: want}
	}
	if len(corners) < 3 || len(corners) > MaxCorners {
		return bad(fmt.Sprintf("%d corners", len(corners)), fmt.Sprintf("3 to %d corners", MaxCorners))
	}
	for i, p := range corners {
		if !p.Finite() {
			return bad(fmt.Sprintf("corner %d at %v", i+1, p), "made of ordinary numbers")
		}
		if q := corners[(i+1)%len(corners)]; p.Dist(q) < MinCornerMM {
			return bad(fmt.Sprintf("corner %d and the next on one spot", i+1), "made of distinct corners")
		}
	}
	poly := append(geom.Polygon(nil), corners...)
	if poly.Area() < 0 {
		for i, j := 0, len(poly)-1; i < j; i, j = i+1, j-1 {
			poly[i], poly[j] = poly[j], poly[i]
		}
	}
	if !poly.Simple() {
		return bad("crossing itself", "a simple closed line")
	}
	box := geom.EmptyBox().Grow(poly...)
	for i := range poly {
		poly[i] = poly[i].Sub(geom.Vec{X: box.MinX, Y: box.MinY})
	}
	s, err := New(box.Width(), box.Height(), gsm, thicknessMM)
	if err != nil {
		return s, err
	}
	s.Shape = &Shape{Kind: kind, Corners: poly}
	s.Shape.pieces = poly.Convex()
	for i, p := range s.Shape.pieces {
		for j := range i {
			if seam, ok := p.Shared(s.Shape.pieces[j]); ok {
				s.Shape.joins = append(s.Shape.joins, Join{j, i, seam})
			}
		}
	}
	return s, nil
}

// Fitted is the same outline scaled evenly to lie within a rectangle, for the
// sheet that a person cuts from the paper at hand.
func (s Sheet) Fitted(widthMM, heightMM, gsm, thicknessMM float64) (Sheet, error) {
	if s.Shape == nil {
		return New(widthMM, heightMM, gsm, thicknessMM)
	}
	k := math.Min(widthMM/s.WidthMM, heightMM/s.HeightMM)
	pts := make([]geom.Vec, len(s.Shape.Corners))
	for i, p := range s.Shape.Corners {
		pts[i] = p.Scale(k)
	}
	return shaped(s.Shape.Kind, pts, gsm, thicknessMM)
}

// Margin is the sheet with strips taken off its edges, such as a perforated
// margin. Widths in mm; the error is a *given.Error.
func (s Sheet) Margin(left, right, bottom, top float64) (Sheet, error) {
	if s.Shape != nil {
		return s, &given.Error{Field: "margin", Value: "given for a shaped sheet", Want: "taken off a rectangle"}
	}
	for _, v := range []float64{left, right, bottom, top} {
		if !(v >= 0) {
			return s, &given.Error{Field: "margin", Value: Number(v), Want: say.MM(0, 0) + " or more"}
		}
	}
	return New(s.WidthMM-left-right, s.HeightMM-bottom-top, s.GSM, s.ThicknessMM)
}

// Pieces are the convex pieces of the outline.
func (s Sheet) Pieces() []geom.Polygon {
	if s.Shape == nil {
		return []geom.Polygon{s.Outline()}
	}
	return s.Shape.pieces
}

// Joins are the seams between the pieces.
func (s Sheet) Joins() []Join {
	if s.Shape == nil {
		return nil
	}
	return s.Shape.joins
}
