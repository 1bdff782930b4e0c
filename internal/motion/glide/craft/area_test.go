package craft

import (
	"math"
	"testing"

	"tussock/internal/geom"
)

// Strips have the area of the surface that they stand for, within a hundredth part, however
// few: of rectangles, triangles, and what has a kink in its edge anywhere.
func TestStripsKeepTheArea(t *testing.T) {
	flat := func(points ...float64) [][]geom.Vec3 {
		var piece []geom.Vec3
		for i := 0; i < len(points); i += 2 {
			piece = append(piece, geom.Vec3{X: points[i], Y: points[i+1]})
		}
		return [][]geom.Vec3{piece}
	}
	for name, pieces := range map[string][][]geom.Vec3{
		"a rectangle":          flat(0, 0, 0.1, 0, 0.1, 0.2, 0, 0.2),
		"a triangle":           flat(0, 0, 0.2, 0, 0.2, 0.1),
		"a kink near the root": flat(0, 0, 0.2, 0, 0.2, 0.1, 0.1, 0.1, 0.02, 0.013),
		"a kink near the tip":  flat(0, 0, 0.2, 0, 0.2, 0.1, 0.19, 0.1, 0.02, 0.083),
		"a fin with a slant":   flat(0.08, 0, 0.2, 0, 0.2, 0.016, 0.11, 0.016, 0.1, 0.004),
		"a fin with a notch":   flat(0, 0, 0.1, 0, 0.1, 0.012, 0.07, 0.012, 0.06, 0.005, 0.01, 0.004),
	} {
		var shoelace float64
		p := pieces[0]
		for i, a := range p {
			b := p[(i+1)%len(p)]
			shoelace += (a.X*b.Y - b.X*a.Y) / 2
		}
		want := math.Abs(shoelace)
		for _, n := range []int{stripsPerHalf, stripsUpright} {
			strips, ok := cut(pieces, geom.Vec3{}, n, 0)
			if !ok {
				t.Fatal(name)
			}
			var got float64
			for _, s := range strips {
				got += s.Area()
			}
			if math.Abs(got/want-1) > 0.01 || len(strips) != n {
				t.Errorf("%s in %d strips (%d): %.5f m², want %.5f", name, n, len(strips), got, want)
			}
		}
	}
}
