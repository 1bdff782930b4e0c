package cutting

import (
	"math"
	"testing"

	"tussock/internal/geom"
)

// Pieces of other shapes lie within the rectangle cut for them, do not overlap, and
// their areas make the yield.
func TestShapesLieInTheirRectangles(t *testing.T) {
	tri, err := Triangles(Piece{Name: "sail", WidthMM: 100, HeightMM: 60, Count: 5})
	if err != nil || tri.Count != 3 {
		t.Fatalf("%+v %v", tri, err)
	}
	hex, err := Regular(Piece{Name: "hexagon", WidthMM: 40, Count: 2}, 6)
	if err != nil {
		t.Fatal(err)
	}
	if math.Abs(hex.WidthMM-80) > 1e-9 || math.Abs(hex.HeightMM-40*math.Sqrt(3)) > 1e-9 {
		t.Errorf("a hexagon of side 40 is held by %v × %v", hex.WidthMM, hex.HeightMM)
	}
	if _, err := Regular(Piece{WidthMM: 40, Count: 1}, 2); err == nil {
		t.Error("two corners")
	}
	plan, err := Make(Order{Pieces: []Piece{tri, hex}, Papers: []Paper{{WidthMM: 210, HeightMM: 297, Count: 2}}})
	if err != nil {
		t.Fatal(err)
	}
	want := 5*100*60/2 + 2*1.5*math.Sqrt(3)*40*40
	if math.Abs(plan.PieceMM2-want) > 1e-6 {
		t.Errorf("the pieces have %v mm², not %v", plan.PieceMM2, want)
	}
	for _, s := range plan.Sheets {
		var all []geom.Polygon
		for _, p := range s.Pieces {
			rect := geom.Polygon{{X: p.X, Y: p.Y}, {X: p.X + p.WidthMM, Y: p.Y}, {X: p.X + p.WidthMM, Y: p.Y + p.HeightMM}, {X: p.X, Y: p.Y + p.HeightMM}}
			for _, shape := range []Piece{tri, hex}[p.Piece].Placed(p) {
				for _, v := range shape {
					if !rect.Contains(v, 1e-6) {
						t.Errorf("a corner at %v lies outside %v", v, rect)
					}
				}
				if shape.Area() <= 0 {
					t.Error("a shape runs clockwise")
				}
				for _, other := range all {
					if geom.Overlaps(shape, other) {
						t.Error("shapes overlap")
					}
				}
				all = append(all, shape)
			}
		}
	}
}
