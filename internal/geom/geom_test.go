package geom

import (
	"math"
	"math/rand/v2"
	"testing"
)

func randomIso(r *rand.Rand) Iso2 {
	m := Rotation(r.Float64()*7, Vec{r.NormFloat64() * 100, r.NormFloat64() * 100})
	if r.IntN(2) == 0 {
		m = Reflection(LineAt(Vec{r.NormFloat64() * 50, 3}, Vec{1, r.NormFloat64()})).After(m)
	}
	return m
}

func TestIsometriesKeepLengthsAndInvert(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	for range 500 {
		m, n := randomIso(r), randomIso(r)
		a, b := Vec{r.Float64() * 300, r.Float64() * 300}, Vec{r.Float64() * 300, r.Float64() * 300}
		if d := m.Apply(a).Dist(m.Apply(b)) - a.Dist(b); math.Abs(d) > 1e-10 {
			t.Fatalf("length changes by %g", d)
		}
		if q := m.Inverse().Apply(m.Apply(a)); q.Dist(a) > 1e-9 {
			t.Fatalf("inverse is off by %g", q.Dist(a))
		}
		if q := m.After(n).Apply(a); q.Dist(m.Apply(n.Apply(a))) > 1e-9 {
			t.Fatal("composition differs from applying in turn")
		}
		l := LineAt(a, b.Sub(a))
		if d := l.Moved(m).Side(m.Apply(Vec{5, 7})) - l.Side(Vec{5, 7}); math.Abs(d) > 1e-9 {
			t.Fatalf("a moved line changes sides by %g", d)
		}
		// The lift into space agrees with the plane.
		p := Lift(m).Apply(Vec3{a.X, a.Y, 0})
		if q := m.Apply(a); math.Hypot(p.X-q.X, p.Y-q.Y) > 1e-10 || p.Z != 0 {
			t.Fatal("lifting moves the plane")
		}
	}
}

func TestSplitKeepsArea(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	for range 500 {
		var pts []Vec
		for range 8 {
			pts = append(pts, Vec{r.Float64() * 200, r.Float64() * 200})
		}
		p := Hull(pts)
		l := LineAt(Vec{r.Float64() * 200, r.Float64() * 200}, Vec{r.NormFloat64(), r.NormFloat64()})
		pos, neg := p.Split(l)
		if d := pos.Area() + neg.Area() - p.Area(); math.Abs(d) > 1e-8 {
			t.Fatalf("splitting loses %g mm²", d)
		}
		if pos != nil && neg != nil && Overlaps(pos, neg) {
			t.Fatal("the two parts overlap")
		}
	}
}

func TestLineThroughCornerMakesNoSliver(t *testing.T) {
	square := Polygon{{0, 0}, {10, 0}, {10, 10}, {0, 10}}
	l, _ := LineThrough(Vec{0, 0}, Vec{10, 10 + 1e-8})
	pos, neg := square.Split(l)
	if len(pos) != 3 || len(neg) != 3 {
		t.Errorf("a line through two corners gives %d and %d corners", len(pos), len(neg))
	}
	if pos, neg := square.Split(Line{Vec{1, 0}, 1e-9}); pos == nil || neg != nil {
		t.Error("a line along a side cuts off a sliver")
	}
}

// Corner of a 150 square to the middle of the top: the folded bottom edge meets
// the right edge at a third of the side (Haga's theorem).
func TestFoldPointToPointHaga(t *testing.T) {
	l, ok := FoldPointToPoint(Vec{0, 0}, Vec{75, 150})
	if !ok {
		t.Fatal("no crease")
	}
	bottom, _ := LineThrough(Vec{0, 0}, Vec{150, 0})
	right, _ := LineThrough(Vec{150, 0}, Vec{150, 150})
	p, ok := Meet(bottom.Moved(Reflection(l)), right)
	if !ok || math.Abs(p.Y-50) > 1e-9 {
		t.Errorf("the edge meets at %v, want y = 50", p)
	}
}

func TestFoldLineToLineAndPointToLine(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	for range 300 {
		a := LineAt(Vec{r.NormFloat64(), 2}, Vec{1, r.NormFloat64()})
		b := LineAt(Vec{3, r.NormFloat64()}, Vec{r.NormFloat64(), 1})
		for _, f := range FoldLineToLine(a, b) {
			for _, k := range []float64{-20, 50} {
				p := a.N.Scale(a.D).Add(a.Dir().Scale(k))
				if d := b.Side(f.Mirror(p)); math.Abs(d) > 1e-8 {
					t.Fatalf("bisector misses by %g", d)
				}
			}
		}
		p, pivot := Vec{r.NormFloat64() * 40, 9}, Vec{r.NormFloat64() * 10, 0}
		folds, lands := FoldPointToLine(p, a, pivot)
		for i, f := range folds {
			if math.Abs(f.Side(pivot)) > 1e-8 || math.Abs(a.Side(lands[i])) > 1e-8 || f.Mirror(p).Dist(lands[i]) > 1e-7 {
				t.Fatalf("crease %v does not lay %v on the line through %v", f, p, pivot)
			}
		}
		if far := math.Abs(a.Side(pivot)) > p.Dist(pivot)+1e-6; far != (len(folds) == 0) {
			t.Fatalf("%d creases, out of reach %v", len(folds), far)
		}
	}
	if FoldLineToLine(Line{Vec{1, 0}, 3}, Line{Vec{-1, 0}, -3}) != nil {
		t.Error("a line brought to itself gives a crease")
	}
}

func TestSwingIsARotation(t *testing.T) {
	p, dir := Vec3{1, 2, 3}, Vec3{1, 1, 0}
	m := Swing(p, dir, math.Pi/3)
	for _, k := range []float64{-2, 5} {
		q := p.Add(dir.Scale(k))
		if m.Apply(q).Dist(q) > 1e-12 {
			t.Error("the axis moves")
		}
	}
	six := Iso3{R: [3]Vec3{{1, 0, 0}, {0, 1, 0}, {0, 0, 1}}}
	for range 6 {
		six = m.After(six)
	}
	if q := (Vec3{9, -4, 2}); six.Apply(q).Dist(q) > 1e-10 {
		t.Error("six sixths of a turn are not a whole turn")
	}
	// By the right hand: a quarter about z takes x to y.
	if q := Swing(Vec3{}, Vec3{Z: 1}, math.Pi/2).Apply(Vec3{X: 1}); q.Dist(Vec3{Y: 1}) > 1e-12 {
		t.Errorf("x goes to %v", q)
	}
}

func TestCentroidFarFromOrigin(t *testing.T) {
	p := Polygon{{1e6, 1e6}, {1e6 + 3, 1e6}, {1e6, 1e6 + 3}}
	if c := p.Centroid(); c.Dist(Vec{1e6 + 1, 1e6 + 1}) > 1e-6 {
		t.Errorf("centroid %v", c)
	}
}
