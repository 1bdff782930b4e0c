package geom

import (
	"math"
	"math/rand/v2"
	"testing"
)

// A fold is drawn at random, and two lines through where it lays two points: the fold
// must be among those found for them. All that are found lay both points where they
// should, and there are at most three.
func TestFoldsOfTwoPointsAreFound(t *testing.T) {
	const reach = 600
	r := rand.New(rand.NewPCG(6, 1))
	spot := func() Vec { return Vec{400*r.Float64() - 100, 400*r.Float64() - 100} }
	tried, most := 0, 0
	for tried < 100_000 {
		p, q := spot(), spot()
		f := LineAt(spot(), Vec{math.Cos(2 * math.Pi * r.Float64()), math.Sin(2 * math.Pi * r.Float64())})
		through := func(v Vec) Line {
			sin, cos := math.Sincos(math.Pi * r.Float64())
			return LineAt(f.Mirror(v), Vec{cos, sin})
		}
		l, m := through(p), through(q)
		// What moves next to nothing gives no direction, and what lands too far off is
		// not on the paper; the same way asked for twice leaves the fold free.
		if math.Abs(f.Side(p)) < 0.1 || f.Mirror(p).Dist(l.Foot(p)) > reach || p.Dist(q) < 0.1 {
			continue
		}
		tried++
		folds, landings := FoldPointsToLines(p, l, q, m, reach)
		most = max(most, len(folds))
		found := false
		for i, g := range folds {
			if math.Abs(l.Side(g.Mirror(p))) > 1e-6 || math.Abs(m.Side(g.Mirror(q))) > 1e-6 || g.Mirror(p).Dist(landings[i]) > 1e-6 {
				t.Fatalf("%v does not lay %v on %v and %v on %v", g, p, l, q, m)
			}
			found = found || landings[i].Dist(f.Mirror(p)) < 1e-3
		}
		if !found {
			t.Fatalf("%v lays %v on %v and %v on %v, and is not among %v", f, p, l, q, m, folds)
		}
	}
	if most != 3 {
		t.Errorf("at most %d folds were found", most)
	}
}

// Roots that are given come back, double ones once, and none besides.
func TestRealRoots(t *testing.T) {
	for _, roots := range [][]float64{{-3, 1, 250}, {2}, {-7, 7}, {0, 1e-3, 5}, {}} {
		c := [4]float64{1}
		for i, x := range roots { // times (t - x)
			for k := i + 1; k > 0; k-- {
				c[k] = c[k-1] - x*c[k]
			}
			c[0] *= -x
		}
		got := realRoots(c, 500)
		if len(got) != len(roots) {
			t.Errorf("%v gives %v", roots, got)
			continue
		}
		for i, x := range roots {
			if math.Abs(got[i]-x) > 1e-9*math.Max(1, math.Abs(x)) {
				t.Errorf("%v gives %v", roots, got)
			}
		}
	}
	// (t-4)²(t+1): the double root touches and does not cross.
	if got := realRoots([4]float64{16, 8, -7, 1}, 100); len(got) != 2 || math.Abs(got[0]+1) > 1e-9 || math.Abs(got[1]-4) > 1e-6 {
		t.Errorf("a double root: %v", got)
	}
	if got := realRoots([4]float64{-16, 8, -7, 0}, 100); len(got) != 0 {
		t.Errorf("no root: %v", got)
	}
}

func BenchmarkFoldPointsToLines(b *testing.B) {
	l, m := LineAt(Vec{80, 20}, Vec{1, 2}), LineAt(Vec{10, 150}, Vec{3, -1})
	for b.Loop() {
		FoldPointsToLines(Vec{0, 10}, l, Vec{90, 5}, m, 600)
	}
}
