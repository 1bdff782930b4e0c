package fold_test

import (
	"math"
	"testing"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sheet"
)

// either folds every crease in whichever sense works.
func either(int, fold.Hinge) (fold.Assignment, bool) { return fold.Flat, true }

// creased is a sheet divided along lines, all flat.
func creased(t testing.TB, s sheet.Sheet, lines ...geom.Line) *fold.State {
	t.Helper()
	var splits []fold.Split
	for _, l := range lines {
		splits = append(splits, fold.Split{Line: l, OnSheet: true})
	}
	st, err := fold.Start(s).Divide(splits, 1)
	if err != nil {
		t.Fatal(err)
	}
	return st
}

func mapOf(t testing.TB, rows, cols int) *fold.State {
	t.Helper()
	s, err := sheet.New(float64(cols)*30, float64(rows)*30, 80, 0.1)
	if err != nil {
		t.Fatal(err)
	}
	var lines []geom.Line
	for i := 1; i < cols; i++ {
		lines = append(lines, upright(float64(i)*30))
	}
	for i := 1; i < rows; i++ {
		lines = append(lines, level(float64(i)*30))
	}
	return creased(t, s, lines...)
}

// The numbers of ways to fold maps and strips of stamps are published sequences.
func TestOrdersOfMapsAndStamps(t *testing.T) {
	for _, c := range []struct{ rows, cols, want int }{
		{1, 1, 1}, {1, 2, 2}, {1, 3, 6}, {1, 4, 16}, {1, 5, 50}, {1, 6, 144}, {1, 7, 462},
		{2, 2, 8}, {2, 3, 60}, {3, 2, 60}, {3, 3, 1368},
	} {
		n, done, err := mapOf(t, c.rows, c.cols).Orders(t.Context(), 1e6, either)
		if err != nil || !done || n != c.want {
			t.Errorf("%d x %d: %d orders (done %v, %v), want %d", c.rows, c.cols, n, done, err, c.want)
		}
	}
}

// star is a disc-like sheet with creases from its middle at the given sectors.
func star(t testing.TB, sectors ...float64) *fold.State {
	t.Helper()
	var pts []geom.Vec
	a := 0.0
	for _, d := range sectors {
		pts = append(pts, geom.Vec{X: 100 + 90*math.Cos(geom.Rad(a)), Y: 100 + 90*math.Sin(geom.Rad(a))})
		a += d
	}
	s, err := sheet.Polygon(pts, 80, 0.1)
	if err != nil {
		t.Fatal(err)
	}
	// The outline is moved to the origin: the middle moves with it.
	c := geom.Vec{X: 100, Y: 100}.Add(s.Outline()[0].Sub(pts[0]))
	for k := range pts {
		if s.Outline()[k].Sub(c).Sub(pts[k].Sub(geom.Vec{X: 100, Y: 100})).Len() > 1e-9 {
			t.Fatal("the corners are not where they should be")
		}
	}
	st := &fold.State{Sheet: s}
	n := len(pts)
	for k := range n {
		st.F = append(st.F, fold.Facet{Poly: geom.Polygon{c, s.Outline()[k], s.Outline()[(k+1)%n]}, Iso: geom.Identity})
		st.H = append(st.H, fold.Hinge{A: fold.FacetID(k), B: fold.FacetID((k + n - 1) % n), P: c, Q: s.Outline()[k], Parent: -1})
	}
	return st
}

// Single vertices with every crease folded: layer orders from the reference, and
// mountain-valley choices by the theorem 2·C(2n, n-1) for equal angles.
func TestOrdersOfSingleVertices(t *testing.T) {
	for _, c := range []struct {
		sectors       []float64
		orders, kinds int
	}{
		{[]float64{90, 90, 90, 90}, 8, 8},
		{[]float64{60, 60, 60, 60, 60, 60}, 48, 30},
		{[]float64{45, 45, 45, 45, 45, 45, 45, 45}, 336, 112},
		{[]float64{60, 90, 120, 90}, 4, 4},
		{[]float64{45, 67.5, 135, 112.5}, 4, 4},
	} {
		s := star(t, c.sectors...)
		n, done, err := s.Orders(t.Context(), 1e6, either)
		if err != nil || !done || n != c.orders {
			t.Errorf("%v: %d orders (%v), want %d", c.sectors, n, err, c.orders)
		}
		kinds := 0
		for mask := range 1 << len(c.sectors) {
			k, _, _ := s.Orders(t.Context(), 1, func(i int, _ fold.Hinge) (fold.Assignment, bool) {
				if mask>>i&1 == 1 {
					return fold.Mountain, false
				}
				return fold.Valley, false
			})
			kinds += min(k, 1)
		}
		if kinds != c.kinds {
			t.Errorf("%v: %d mountain-valley choices, want %d", c.sectors, kinds, c.kinds)
		}
	}
}

// An odd or uneven vertex does not fold flat at all.
func TestUnevenVertexTears(t *testing.T) {
	if _, _, err := star(t, 70, 90, 100, 100).Orders(t.Context(), 10, either); err == nil || fold.As(err).Code != fold.CodeTear {
		t.Errorf("a vertex that breaks the angle rule gives %v", err)
	}
}
