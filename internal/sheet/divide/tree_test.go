package divide_test

import (
	"math"
	"testing"

	"tussock/internal/sheet/divide"
)

// Every mark comes about from marks made before it, by halving or folding over, and
// with exact folds all marks are exact.
func TestTreeMakesEveryMark(t *testing.T) {
	for n := 2; n <= 33; n++ {
		power := n&(n-1) == 0
		tree := divide.Tree(n, 297, !power, 0, 0.3)
		if len(tree) != n-1 {
			t.Fatalf("1/%d: %d marks", n, len(tree))
		}
		at := map[int]bool{0: true, n: true}
		for i, m := range tree {
			if i == 0 && !power {
				if m.K != 1 || m.Words != "" {
					t.Errorf("1/%d begins with %+v", n, m)
				}
				at[1] = true
				continue
			}
			a, b := m.From[0], m.From[1]
			if !at[a] || !at[b] || (2*m.K != a+b && m.K != 2*b-a && m.K != 2*a-b) || m.Words == "" {
				t.Errorf("1/%d: %+v", n, m)
			}
			if m.ErrorMM < 0.3-1e-12 {
				t.Errorf("1/%d: mark %d is surer than a fold", n, m.K)
			}
			at[m.K] = true
		}
	}
	if divide.Tree(3, 297, false, 0, 0.3) != nil {
		t.Error("thirds without a first mark")
	}
	// Eighths, halved: the middle is as sure as a fold, quarters and eighths by the law
	// e² = (a² + b²)/4 + σ².
	for _, m := range divide.Tree(8, 297, false, 0, 0.3) {
		want := map[int]float64{4: 0.3, 2: math.Hypot(0.15, 0.3)}[m.K]
		if want > 0 && math.Abs(m.ErrorMM-want) > 1e-9 {
			t.Errorf("mark %d errs by %v, not %v", m.K, m.ErrorMM, want)
		}
	}
	// A first mark that is off makes all the others worse, none better.
	sure, off := divide.Tree(7, 297, true, 0, 0.3), divide.Tree(7, 297, true, 2, 0.3)
	worst := func(all []divide.Mark) (w float64) {
		for _, m := range all {
			w = math.Max(w, m.ErrorMM)
		}
		return w
	}
	if worst(off) <= worst(sure) {
		t.Errorf("%v and %v", worst(off), worst(sure))
	}
}

// Any edge, from either end: by symmetry the recipes are those of the left edge, and
// the mark lies on the edge asked for.
func TestEveryEdge(t *testing.T) {
	left := divide.Along(150, 150, divide.LeftEdge, 0.37)
	for _, e := range []divide.Edge{{0, 1}, {1, 0}, {1, 2}, {2, 1}, {2, 3}, {3, 2}, {3, 0}} {
		got := divide.Along(150, 150, e, 0.37)
		if len(got) != len(left) {
			t.Fatalf("%v: %d recipes", e, len(got))
		}
		for i, r := range got {
			if math.Abs(r.ErrorMM-left[i].ErrorMM) > 1e-6 {
				t.Errorf("%v: off by %v, the left edge by %v", e, r.ErrorMM, left[i].ErrorMM)
			}
			on := map[string]float64{"the lower edge": r.Mark.Y, "the upper edge": 150 - r.Mark.Y, "the left edge": r.Mark.X, "the right edge": 150 - r.Mark.X}[e.Words()]
			if math.Abs(on) > 1e-6 {
				t.Errorf("%v: the mark lies at %v", e, r.Mark)
			}
			// The angle is that of the error, from a side's length away.
			if far := math.Abs(150 * math.Tan(r.ErrorDeg*math.Pi/180)); far > 1.5*r.ErrorMM+1e-9 || far < 0.5*r.ErrorMM-1e-9 {
				t.Errorf("%v: %v° for %v mm", e, r.ErrorDeg, r.ErrorMM)
			}
		}
	}
}
