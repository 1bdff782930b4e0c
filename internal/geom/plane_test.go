package geom

import (
	"math"
	"math/rand/v2"
	"testing"
)

func anyVec(r *rand.Rand) Vec { return Vec{r.NormFloat64() * 100, r.NormFloat64() * 100} }

func anyIso(r *rand.Rand) Iso2 {
	m := Rotation(r.Float64()*2*math.Pi, anyVec(r))
	if r.IntN(2) == 0 {
		m = Reflection(LineAt(anyVec(r), anyVec(r))).After(m)
	}
	return m
}

// Laws of lines, for any of them: the foot is nearest, the mirror image is as far
// on the other side, an offset line is parallel, and all go with a motion.
func TestLawsOfLines(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 9))
	for range 2000 {
		l, p, m := LineAt(anyVec(r), anyVec(r)), anyVec(r), anyIso(r)
		foot, image := l.Foot(p), l.Mirror(p)
		if math.Abs(l.Side(foot)) > 1e-9 || foot.Sub(p).Dot(l.Dir()) > 1e-9 {
			t.Fatalf("the foot of %v on %v is %v", p, l, foot)
		}
		if math.Abs(l.Side(image)+l.Side(p)) > 1e-9 || Mid(p, image).Dist(foot) > 1e-9 || Reflection(l).Apply(p).Dist(image) > 1e-9 {
			t.Fatalf("the image of %v in %v is %v", p, l, image)
		}
		if other := l.Flip(); math.Abs(other.Side(p)+l.Side(p)) > 1e-9 || other.Mirror(p).Dist(image) > 1e-9 {
			t.Fatalf("%v flipped is %v", l, other)
		}
		d := r.NormFloat64() * 50
		if off := l.Offset(d); !Parallel(l, off) || math.Abs(off.Side(p)-(l.Side(p)-d)) > 1e-9 {
			t.Fatalf("%v by %v is %v", l, d, off)
		}
		// A reflection exchanges left and right but not which side a normal shows.
		if moved := l.Moved(m); math.Abs(moved.Side(m.Apply(p))-l.Side(p)) > 1e-8 {
			t.Fatalf("%v moved by %v is %v", l, m, moved)
		}
		a := (r.Float64() - 0.5) * 3
		turned := l.TurnedBy(math.Abs(a), p, l.SenseToward(p, image.Add(l.Dir().Scale(10))))
		if got := math.Abs(turned.Dir().Cross(l.Dir())); math.Abs(got-math.Abs(math.Sin(a))) > 1e-9 || math.Abs(turned.Side(foot)) > 1e-8 {
			t.Fatalf("%v turned by %v about %v is %v", l, a, foot, turned)
		}
	}
	if _, ok := LineThrough(Vec{1, 1}, Vec{1, 1 + Distinct/2}); ok {
		t.Error("two points in one place fix a line")
	}
	if _, ok := Meet(LineAt(Vec{}, Vec{1, 0}), LineAt(Vec{0, 5}, Vec{-2, 0})); ok {
		t.Error("parallel lines meet")
	}
}

// Motions form a group: composing agrees with doing one after the other, and
// two reflections in lines at an angle turn by twice that angle.
func TestMotionsCompose(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 1))
	for range 2000 {
		a, b, p := anyIso(r), anyIso(r), anyVec(r)
		if a.After(b).Apply(p).Dist(a.Apply(b.Apply(p))) > 1e-8 || !a.Inverse().After(a).Near(Identity, 1e-8) {
			t.Fatalf("%v and %v do not compose", a, b)
		}
		if a.After(b).FaceUp() != (a.FaceUp() == b.FaceUp()) {
			t.Fatalf("the face after %v and %v", b, a)
		}
		angle, c := r.Float64()*math.Pi, anyVec(r)
		l := LineAt(c, anyVec(r))
		if two := Reflection(l.Turned(angle, c)).After(Reflection(l)); !two.Near(Rotation(2*angle, c), 1e-8) {
			t.Fatalf("two reflections at %v make %v", angle, two)
		}
	}
	if math.Abs(Deg(Rad(77))-77) > 1e-12 || math.Abs(Rad(180)-math.Pi) > 1e-15 {
		t.Error("degrees and radians do not agree")
	}
	if (Vec{math.NaN(), 0}).Finite() || (Vec{0, math.Inf(-1)}).Finite() || !(Vec{1e300, 0}).Finite() {
		t.Error("what is finite")
	}
}

// The distance from a stretch is the least over its points, sampled.
func TestDistanceFromAStretch(t *testing.T) {
	r := rand.New(rand.NewPCG(2, 2))
	for range 300 {
		s, p := Segment{anyVec(r), anyVec(r)}, anyVec(r)
		least := math.Inf(1)
		for k := range 1001 {
			least = math.Min(least, p.Dist(s.A.Lerp(s.B, float64(k)/1000)))
		}
		if d := s.Dist(p); d > least+1e-9 || d < least-s.Len()/1000 {
			t.Fatalf("%v from %v: %v, sampled %v", p, s, d, least)
		}
	}
	if d := (Segment{Vec{3, 4}, Vec{3, 4}}).Dist(Vec{}); math.Abs(d-5) > 1e-9 {
		t.Errorf("a stretch of no length is %v away", d)
	}
}

// A stretch crosses a piece when samples of it lie inside, deeper than an edge.
func TestCrossesAgreesWithSampling(t *testing.T) {
	r := rand.New(rand.NewPCG(6, 3))
	hits := 0
	for range 2000 {
		poly := Hull([]Vec{anyVec(r), anyVec(r), anyVec(r), anyVec(r)})
		p, q := anyVec(r), anyVec(r)
		l, _ := LineThrough(p, q)
		inside := 0
		for k := range 400 {
			if poly.Contains(p.Lerp(q, (float64(k)+0.5)/400), -0.5) {
				inside++
			}
		}
		got := Crosses(poly, l, p, q)
		if inside > 1 && !got {
			t.Fatalf("%v to %v runs through %v and is said not to", p, q, poly)
		}
		if got {
			hits++
		}
		if got && !Crosses(poly, l.Flip(), q, p) {
			t.Fatalf("%v to %v crosses %v one way only", p, q, poly)
		}
	}
	if hits == 0 {
		t.Error("nothing crossed anything")
	}
	unit := Polygon{{0, 0}, {1, 0}, {1, 1}, {0, 1}}
	for name, s := range map[string]Segment{"along an edge": {Vec{0, 0}, Vec{1, 0}}, "short of it": {Vec{-2, .5}, Vec{-1, .5}}, "beside it": {Vec{0, 2}, Vec{1, 2}}} {
		if l, _ := LineThrough(s.A, s.B); Crosses(unit, l, s.A, s.B) {
			t.Errorf("a stretch %s crosses", name)
		}
	}
}

// Boxes hold what they were grown by, and touch when they share area.
func TestBoxes(t *testing.T) {
	r := rand.New(rand.NewPCG(8, 8))
	for range 500 {
		a, b := EmptyBox().Grow(anyVec(r), anyVec(r)), EmptyBox().Grow(anyVec(r), anyVec(r))
		c := a.Centre()
		if math.Abs(c.X-a.MinX-a.Width()/2) > 1e-9 || math.Abs(c.Y-a.MinY-a.Height()/2) > 1e-9 || a.Touches(b) != b.Touches(a) || !a.Touches(a) {
			t.Fatalf("%v and %v", a, b)
		}
		if both := a.Grow(Vec{b.MinX, b.MinY}, Vec{b.MaxX, b.MaxY}); a.Touches(b) != (both.Width() < a.Width()+b.Width() && both.Height() < a.Height()+b.Height()) {
			t.Fatalf("%v and %v touch: %v", a, b, a.Touches(b))
		}
	}
	edge := Box{0, 0, 1, 1}
	if edge.Touches(Box{1, 0, 2, 1}) || edge.Touches(EmptyBox()) {
		t.Error("boxes that share an edge or nothing share area")
	}
}
