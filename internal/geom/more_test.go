package geom

import (
	"math"
	"math/rand/v2"
	"testing"
)

// Creases that bring two points to two lines do both; Beloch's case that gives
// the cube root of two is among them.
func TestFoldPointsToLines(t *testing.T) {
	r := rand.New(rand.NewPCG(20, 21))
	found := 0
	for range 200 {
		p, q := Vec{r.Float64() * 100, r.Float64() * 100}, Vec{r.Float64() * 100, r.Float64() * 100}
		l := LineAt(Vec{r.Float64() * 100, r.Float64() * 100}, Vec{r.NormFloat64(), r.NormFloat64()})
		m := LineAt(Vec{r.Float64() * 100, r.Float64() * 100}, Vec{r.NormFloat64(), r.NormFloat64()})
		folds, lands := FoldPointsToLines(p, l, q, m, 500)
		if len(folds) > 3 {
			t.Fatalf("%d creases", len(folds))
		}
		for i, f := range folds {
			found++
			if math.Abs(l.Side(f.Mirror(p))) > 1e-6 || math.Abs(m.Side(f.Mirror(q))) > 1e-5 || f.Mirror(p).Dist(lands[i]) > 1e-6 {
				t.Fatalf("crease %v misses: %g, %g", f, l.Side(f.Mirror(p)), m.Side(f.Mirror(q)))
			}
		}
	}
	if found < 150 {
		t.Errorf("only %d creases are found", found)
	}
	// Points (-1, 0) to x = 1 and (0, -2) to y = 2 (scaled by 30): the crease meets
	// the axes at distances in the ratio of the cube root of two.
	folds, _ := FoldPointsToLines(Vec{-30, 0}, Line{Vec{1, 0}, 30}, Vec{0, -60}, Line{Vec{0, 1}, 60}, 400)
	ok := false
	for _, f := range folds {
		slope := -f.N.X / f.N.Y
		ok = ok || math.Abs(math.Abs(slope)-math.Cbrt(2)) < 1e-6 || math.Abs(math.Abs(slope)-1/math.Cbrt(2)) < 1e-6
	}
	if !ok {
		t.Errorf("no crease of %v has the slope of the cube root of two", folds)
	}
}

// Pieces of a random star-shaped outline are convex, do not overlap, and add up.
func TestConvexPieces(t *testing.T) {
	r := rand.New(rand.NewPCG(22, 23))
	for range 200 {
		n := 4 + r.IntN(9)
		var p Polygon
		for k := range n {
			a := 2 * math.Pi * float64(k) / float64(n)
			d := 20 + 80*r.Float64()
			p = append(p, Vec{200 + d*math.Cos(a), 200 + d*math.Sin(a)})
		}
		if !p.Simple() {
			t.Fatal("a star crosses itself")
		}
		pieces := p.Convex()
		var area float64
		for i, q := range pieces {
			if !q.IsConvex() {
				t.Fatalf("a piece is not convex: %v", q)
			}
			area += q.Area()
			for j := range i {
				if Overlaps(q, pieces[j]) {
					t.Fatal("two pieces overlap")
				}
			}
		}
		if math.Abs(area-p.Area()) > 1e-6 {
			t.Fatalf("pieces hold %v of %v mm²", area, p.Area())
		}
	}
	bow := Polygon{{0, 0}, {10, 10}, {10, 0}, {0, 10}}
	if bow.Simple() {
		t.Error("a bow tie is simple")
	}
}

// Overlap against brute force: convex pieces overlap when their common part has
// area.
func TestOverlapsAgreesWithClipping(t *testing.T) {
	r := rand.New(rand.NewPCG(24, 25))
	poly := func() Polygon {
		var pts []Vec
		for range 6 {
			pts = append(pts, Vec{r.Float64() * 60, r.Float64() * 60})
		}
		return Hull(pts)
	}
	for range 2000 {
		p, q := poly(), poly()
		c := ClipConvex(p, q)
		var area float64
		if c != nil {
			area = c.Area()
		}
		if area > 1e-3 && !Overlaps(p, q) || area == 0 && Overlaps(p, q) {
			t.Fatalf("common area %v, overlaps %v", area, Overlaps(p, q))
		}
	}
	a := Polygon{{0, 0}, {10, 0}, {10, 10}, {0, 10}}
	if b := (Polygon{{10, 0}, {20, 0}, {20, 10}, {10, 10}}); Overlaps(a, b) {
		t.Error("pieces that share a side overlap")
	}
	if s, ok := a.Shared(Polygon{{10, 2}, {20, 2}, {20, 7}, {10, 7}}); !ok || math.Abs(s.Len()-5) > 1e-9 {
		t.Errorf("the shared side is %v", s)
	}
}

func TestAnglesAndExits(t *testing.T) {
	p := Polygon{{0, 0}, {100, 0}, {100, 50}, {0, 50}}
	for _, c := range []struct {
		at   Vec
		want float64
	}{{Vec{0, 0}, math.Pi / 2}, {Vec{50, 0}, math.Pi}, {Vec{50, 20}, 2 * math.Pi}, {Vec{200, 0}, 0}} {
		if a := p.AngleAt(c.at); math.Abs(a-c.want) > 1e-9 {
			t.Errorf("the angle at %v is %v, want %v", c.at, a, c.want)
		}
	}
	if e, ok := p.Exit(Vec{10, 10}, Vec{1, 0}); !ok || e.Dist(Vec{100, 10}) > 1e-9 {
		t.Errorf("the ray leaves at %v", e)
	}
	if _, ok := p.Exit(Vec{-10, 10}, Vec{1, 0}); ok {
		t.Error("a ray from outside has an exit")
	}
	q := Polygon{{0, 0}, {50, 0}, {100, 0}, {100, 50}, {0, 50}}
	if s := q.Straightened(); len(s) != 4 {
		t.Errorf("straightened it has %d corners", len(s))
	}
	l := Line{Vec{0, 1}, 0} // y = 0, turned by 30° about the origin towards (1, 1)
	if m := l.TurnedBy(math.Pi/6, Vec{}, l.SenseToward(Vec{}, Vec{1, 1})); math.Abs(m.Side(Vec{math.Cos(math.Pi / 6), 0.5})) > 1e-9 {
		t.Errorf("turned it is %v", m)
	}
	if m := l.TurnedBy(math.Pi/6, Vec{}, l.SenseToward(Vec{}, Vec{1, -1})); math.Abs(m.Side(Vec{math.Cos(math.Pi / 6), -0.5})) > 1e-9 {
		t.Errorf("turned the other way it is %v", m)
	}
}
