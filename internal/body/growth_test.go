package body_test

import (
	"context"
	"fmt"
	"math"
	"strings"
	"testing"
	"time"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/foldtest"
	"tussock/internal/geom"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// stacked is a sheet halved again and again.
func stacked(t testing.TB, halvings int) *sequence.Replay {
	t.Helper()
	var b strings.Builder
	b.WriteString("sheet square 200\nmoves reveal\n")
	b.WriteString("valley bring left to right as f0\nvalley bring bottom to top layers all as f1\n")
	for k := 2; k < halvings; k++ { // the corner at the top right stays where it is
		at := 200 - 100/float64(int(1)<<(k/2-1))
		spot := fmt.Sprintf("sheet(%v,200)", at)
		if k%2 == 1 {
			spot = fmt.Sprintf("sheet(200,%v)", at)
		}
		fmt.Fprintf(&b, "valley bring %s to TR layers all as f%d\n", spot, k)
	}
	return foldtest.Fold(t, b.String())
}

// pleats is a strip of n pieces, flat, with a crease between each two.
func pleats(t testing.TB, n int) *fold.State {
	t.Helper()
	sh, err := sheet.New(2000, 20, 80, 0.1)
	if err != nil {
		t.Fatal(err)
	}
	s := &fold.State{Sheet: sh}
	w := 2000 / float64(n)
	for i := range n {
		x := w * float64(i)
		s.F = append(s.F, fold.Facet{Poly: geom.Polygon{{X: x}, {X: x + w}, {X: x + w, Y: 20}, {X: x, Y: 20}}, Iso: geom.Identity})
		if i > 0 {
			s.H = append(s.H, fold.Hinge{A: fold.FacetID(i - 1), B: fold.FacetID(i), P: geom.Vec{X: x}, Q: geom.Vec{X: x, Y: 20}, Kind: fold.Crease, Parent: -1, Crease: fold.CreaseID(i)})
		}
	}
	return s.Refreshed()
}

// forth and back are the senses of pleats.
func forthAndBack(i int, _ fold.Hinge) (fold.Assignment, bool) {
	if i%2 == 0 {
		return fold.Mountain, false
	}
	return fold.Valley, false
}

// The study of a stack and the count of its orders grow no faster than the square of its
// pieces, as the table of who lies on whom does; 1,024 pieces take a second.
func TestStudyAndCountGrowAsTheSquare(t *testing.T) {
	type way struct {
		name string
		run  func(halvings int) func()
	}
	senses := func(s *fold.State) func(int, fold.Hinge) (fold.Assignment, bool) {
		return func(_ int, h fold.Hinge) (fold.Assignment, bool) { return s.Assigned(h), false }
	}
	for _, w := range []way{
		{"study", func(k int) func() { r := stacked(t, k); return func() { body.StudyOf(r) } }},
		{"orders of a stack", func(k int) func() {
			s := stacked(t, k).Final()
			return func() {
				if n, _, err := s.Orders(t.Context(), 1, senses(s)); err != nil || n != 1 {
					t.Error(n, err)
				}
			}
		}},
		{"orders of pleats", func(k int) func() {
			s := pleats(t, 1<<k)
			return func() {
				if n, done, err := s.Orders(t.Context(), 10, forthAndBack); err != nil || n != 1 || !done {
					t.Errorf("%d orders, %v, %v", n, done, err)
				}
			}
		}},
	} {
		few, many := w.run(7), w.run(10)
		took := func(f func()) float64 {
			start := time.Now()
			f()
			return time.Since(start).Seconds()
		}
		// Twice is the square; a cube would be 3. What no longer fits a cache, and other work on
		// the machine, add up to a half.
		const tries, most, bar = 4, 2.6, 1.0
		for try := 1; ; try++ {
			a, b := min(took(few), took(few), took(few)), took(many)
			power := math.Log(b/a) / math.Log(8)
			t.Logf("%s: 128 pieces %.0f ms, 1,024 pieces %.0f ms: power %.2f", w.name, 1e3*a, 1e3*b, power)
			if power <= most && b < 3*bar {
				break
			}
			if try == tries { // other work may slow one of them down, but not four times
				t.Errorf("%s: grows with the power %.2f, %.1f s for 1,024 pieces", w.name, power, b)
				break
			}
		}
	}
}

// Unassigned creases, a stack of 512 of them: the count answers, and stops when it is told.
func TestManyUnassignedCreasesAnswer(t *testing.T) {
	s := pleats(t, 512)
	either := func(int, fold.Hinge) (fold.Assignment, bool) { return fold.Flat, true }
	if n, done, err := s.Orders(t.Context(), 5, either); n != 5 || done || err != nil {
		t.Errorf("%d orders, %v, %v", n, done, err)
	}
	ctx, cancel := context.WithTimeout(t.Context(), 200*time.Millisecond)
	defer cancel()
	start := time.Now()
	small := pleats(t, 64)
	if n, done, err := small.Orders(ctx, math.MaxInt, either); done || err != nil || n < 1000 {
		t.Errorf("%d orders, %v, %v", n, done, err)
	}
	if d := time.Since(start); d > 5*time.Second {
		t.Errorf("told to stop after 0.2 s, the count went on for %v", d)
	}
}
