package layers_test

import (
	"slices"
	"testing"

	"tussock/internal/fold/layers"
	"tussock/internal/geom"
)

func square(x, y, size float64) geom.Polygon {
	return geom.Polygon{{X: x, Y: y}, {X: x + size, Y: y}, {X: x + size, Y: y + size}, {X: x, Y: y + size}}
}

func blank(polys ...geom.Polygon) *layers.Problem {
	return &layers.Problem{Polys: polys, Known: make([]int8, len(polys)*len(polys))}
}

// n free sheets on one spot have n! orders; those that do not touch have one.
func TestFreeSheets(t *testing.T) {
	want := 1
	for n := 1; n <= 5; n++ {
		want *= n
		var polys []geom.Polygon
		for range n {
			polys = append(polys, square(0, 0, 10))
		}
		if got, done := layers.Count(t.Context(), blank(polys...), 1e6); !done || got != want {
			t.Errorf("%d sheets have %d orders, want %d", n, got, want)
		}
	}
	if got, _ := layers.Count(t.Context(), blank(square(0, 0, 10), square(20, 0, 10), square(40, 0, 10)), 10); got != 1 {
		t.Errorf("sheets apart have %d orders", got)
	}
	// Three sheets that overlap two by two without a common spot may lie in a ring:
	// 2³ orders, where a common spot would leave 3! = 6.
	ring := blank(
		geom.Polygon{{X: 0, Y: 0}, {X: 30, Y: 0}, {X: 30, Y: 6}, {X: 0, Y: 6}},
		geom.Polygon{{X: 24, Y: 0}, {X: 30, Y: 0}, {X: 30, Y: 30}, {X: 24, Y: 30}},
		geom.Polygon{{X: 0, Y: 2}, {X: 3, Y: 0}, {X: 30, Y: 27}, {X: 27, Y: 30}})
	if got, _ := layers.Count(t.Context(), ring, 100); got != 8 {
		t.Errorf("three sheets without a common spot have %d orders, want 8", got)
	}
}

// A fold holds a layer on one side of both its leaves; two folds on one line nest
// or lie apart.
func TestHingeRules(t *testing.T) {
	// Leaves 0 and 1 hinged at x = 10 (both to its left); sheet 2 crosses that line.
	p := blank(square(0, 0, 10), square(0, 0, 10), square(5, 2, 10))
	p.Hinges = []layers.Hinge{{A: 0, B: 1, P: geom.Vec{X: 10}, Q: geom.Vec{X: 10, Y: 10}, Folded: true}}
	if n, _ := layers.Count(t.Context(), p, 100); n != 4 { // above or below both, leaves either way
		t.Errorf("a sheet across a fold: %d orders, want 4", n)
	}
	p.Hints = []layers.Hint{{I: 2, J: 0, Sign: 1, Hard: true, Why: "over"}, {I: 2, J: 1, Sign: -1, Hard: true, Why: "under"}}
	if _, c := layers.Solve(p); c == nil || c.Kind != layers.Pierce && c.Kind != layers.Against {
		t.Errorf("a sheet between two leaves of a fold gives %v", c)
	}
	// Two folds on one line: of 4! orders the interleaved eight fall away.
	q := blank(square(0, 0, 10), square(0, 0, 10), square(0, 0, 10), square(0, 0, 10))
	q.Hinges = []layers.Hinge{
		{A: 0, B: 1, P: geom.Vec{X: 10}, Q: geom.Vec{X: 10, Y: 10}, Folded: true},
		{A: 2, B: 3, P: geom.Vec{X: 10, Y: 1}, Q: geom.Vec{X: 10, Y: 9}, Folded: true},
	}
	if n, _ := layers.Count(t.Context(), q, 100); n != 16 {
		t.Errorf("two folds on one line: %d orders, want 16", n)
	}
	// Two layers that run across one line keep their order over it.
	r := blank(square(0, 0, 10), square(10, 0, 10), square(0, 0, 10), square(10, 0, 10))
	r.Hinges = []layers.Hinge{
		{A: 0, B: 1, P: geom.Vec{X: 10}, Q: geom.Vec{X: 10, Y: 10}},
		{A: 2, B: 3, P: geom.Vec{X: 10}, Q: geom.Vec{X: 10, Y: 10}},
	}
	if n, _ := layers.Count(t.Context(), r, 100); n != 2 {
		t.Errorf("two layers across a line: %d orders, want 2", n)
	}
	r.Hints = []layers.Hint{{I: 0, J: 2, Sign: 1, Hard: true}, {I: 1, J: 3, Sign: -1, Hard: true}}
	if _, c := layers.Solve(r); c == nil {
		t.Error("two layers change places at a line")
	}
}

// Soft hints choose among orders and never forbid; the second order is told.
func TestHintsAndAmbiguity(t *testing.T) {
	p := blank(square(0, 0, 10), square(0, 0, 10), square(0, 0, 10))
	p.Hints = []layers.Hint{{I: 2, J: 0, Sign: 1}, {I: 2, J: 1, Sign: 1}, {I: 0, J: 1, Sign: 1}}
	s, c := layers.Solve(p)
	if c != nil || s.Order[2*3+0] != 1 || s.Order[2*3+1] != 1 || s.Order[0*3+1] != 1 {
		t.Errorf("the hints are not followed: %v %v", s.Order, c)
	}
	if !s.Ambiguous || s.Differs[0] == s.Differs[1] {
		t.Errorf("free sheets leave a choice, yet: %+v", s)
	}
	for i := range p.Hints {
		p.Hints[i].Hard = true
	}
	if s, c = layers.Solve(p); c != nil || s.Ambiguous {
		t.Errorf("with all said there is no choice: %+v %v", s, c)
	}
	p.Hints = append(p.Hints, layers.Hint{I: 1, J: 2, Sign: 1, Hard: true, Why: "round"})
	if _, c = layers.Solve(p); c == nil || c.Why == "" {
		t.Errorf("a ring of hard hints gives %v", c)
	}
	// What is known stays, and is never asked for.
	q := blank(square(0, 0, 10), square(0, 0, 10))
	q.Known = []int8{0, -1, 1, 0}
	if s, c := layers.Solve(q); c != nil || s.Ambiguous || !slices.Equal(s.Order, q.Known) {
		t.Errorf("what is known changes: %v %v", s.Order, c)
	}
}

func TestLimitOfCount(t *testing.T) {
	if n, done := layers.Count(t.Context(), blank(square(0, 0, 9), square(0, 0, 9), square(0, 0, 9), square(0, 0, 9)), 5); n != 5 || done {
		t.Errorf("a count limited to 5 gives %d, done %v", n, done)
	}
}
