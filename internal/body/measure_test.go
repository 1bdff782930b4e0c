package body_test

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/fold/layermap"
	"tussock/internal/foldtest"
	"tussock/internal/geom"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/ways"
)

// A flat rectangle has textbook moments: m h²/12, m w²/12 and their sum.
func TestFlatSheetByTextbook(t *testing.T) {
	s, err := sheet.New(200, 300, 80, 0.1)
	if err != nil {
		t.Fatal(err)
	}
	m := body.Open(fold.Start(s), nil).Weigh()
	mass := 200 * 300 * 80e-6
	near(t, "mass", m.G, mass, 1e-12)
	near(t, "CoM x", m.CoM.X, 100, 1e-9)
	near(t, "CoM y", m.CoM.Y, 150, 1e-9)
	near(t, "Ixx", m.Ixx, mass*300*300/12, 1e-6)
	near(t, "Iyy", m.Iyy, mass*200*200/12, 1e-6)
	near(t, "Izz", m.Izz, m.Ixx+m.Iyy, 1e-6)
	near(t, "Ixy", m.Ixy, 0, 1e-6)
}

// A sheet folded like a book by an angle: the halves' centres are known by hand.
func TestBookByHand(t *testing.T) {
	p, err := ways.Parse("book", "sheet square 100\nvalley bring right to left as spine\nwing along spine moving TR angle 60")
	if err != nil {
		t.Fatal(err)
	}
	r := on(t, p, 100, 100, nil)
	pose := body.Standing(r)
	m := pose.Weigh()
	// Fixed half: centre 25 mm left of the spine. Swung half: 25 mm from it, 60°
	// up from flat open, on the viewer's side.
	near(t, "CoM x", m.CoM.X, (25+50+25*math.Cos(math.Pi/3))/2, 1e-9)
	near(t, "CoM z", m.CoM.Z, 25*math.Sin(math.Pi/3)/2, 1e-9)
	near(t, "residual", pose.Residual, 0, 1e-12)
}

// Poses are rigid: within every piece all distances are those on the sheet, and
// no angle changes the mass.
func TestPosesAreRigid(t *testing.T) {
	p, _ := shelf.Find("shelduck")
	for _, angle := range []float64{0, 37, 90, 151, 180} {
		r := on(t, p, 210, 297, map[string]float64{"wing": angle})
		pose := body.Standing(r)
		near(t, "residual", pose.Residual, 0, 1e-9)
		near(t, "mass", pose.Weigh().G, r.Sheet.MassG(), 1e-9)
		for i, f := range r.Final().F {
			c := pose.Corners(fold.FacetID(i))
			for a := range c {
				for b := range a {
					if d := c[a].Dist(c[b]) - f.Poly[a].Dist(f.Poly[b]); math.Abs(d) > 1e-9 {
						t.Fatalf("angle %v: piece %d is stretched by %g mm", angle, i, d)
					}
				}
			}
		}
	}
}

// At 180 degrees the pose is the flat toy.
func TestClosedPoseIsTheFlatToy(t *testing.T) {
	p, _ := shelf.Find("curlew")
	r := on(t, p, 210, 297, map[string]float64{"wing": 180})
	pose := body.Standing(r)
	for i := range r.Final().F {
		flat := r.Final().F[i]
		for k, v := range flat.Poly {
			at := pose.Corners(fold.FacetID(i))[k]
			want := flat.Iso.Apply(v)
			if math.Hypot(at.X-want.X, at.Y-want.Y) > 1e-9 || math.Abs(at.Z) > 1e-9 {
				t.Fatalf("piece %d lies at %v, flat at %v", i, at, want)
			}
		}
	}
}

// Opening one layer of two takes the other along; what cannot open together is said, with
// by how much it misses.
func TestIncompatiblePoseIsNoticed(t *testing.T) {
	text := "sheet square 150\nvalley bring left to right as a\nvalley bring bottom to top layers all as b\nopen along b moving BL angle 90"
	r := foldtest.Fold(t, text)
	whole := body.Standing(r)
	near(t, "the whole crease opens", whole.Residual, 0, 1e-9)
	if !whole.Sound() {
		t.Error(whole.Unsound())
	}
	half := r.Openings[0]
	half.Pieces = half.Pieces[:1]
	one := body.Open(r.Final(), []sequence.Opening{half})
	near(t, "one layer takes the other along", one.Residual, 0, 1e-6)
	if !one.Sound() {
		t.Error(one.Unsound())
	}
	// Two folds across each other cannot both stand open.
	both := body.Standing(foldtest.Fold(t, text+"\nopen along a moving L angle 90"))
	if both.Sound() || !strings.Contains(both.Unsound(), "cannot reach its angle") && !strings.Contains(both.Unsound(), "would tear") {
		t.Errorf("%q: gap %v mm, %v° missed", both.Unsound(), both.Residual, both.MissDeg)
	}
	if both.MissDeg < 5 && both.Residual < 5 {
		t.Errorf("a quarter turn that is impossible misses %v°, gap %v mm", both.MissDeg, both.Residual)
	}
	// Two flaps that are opened into the same room.
	through := body.Standing(foldtest.Fold(t, "sheet strip 200 50\nvalley along par(left,60,C) moving L as f\nvalley along par(right,60,C) moving R as g\nopen along f and g moving L and R angle 150"))
	if len(through.Crossing) != 1 || !strings.Contains(through.Unsound(), "passes through") {
		t.Errorf("%q, %v", through.Unsound(), through.Crossing)
	}
}

// The layer map against counting by hand: drop points on the toy and count the
// pieces under each.
func TestLayerMapAgainstCounting(t *testing.T) {
	r := rand.New(rand.NewPCG(11, 12))
	for _, id := range shelf.Names() {
		p, _ := shelf.Find(id)
		for _, d := range on(t, p, p.WidthMM, p.HeightMM, nil).Steps {
			s := d.After
			cells := layermap.Cells(s)
			box := s.Box()
			for range 60 {
				q := geom.Vec{X: box.MinX + r.Float64()*box.Width(), Y: box.MinY + r.Float64()*box.Height()}
				count, onRim := 0, false
				for i := range s.F {
					inside := s.Folded(fold.FacetID(i)).Contains(q, -1e-3)
					onRim = onRim || inside != s.Folded(fold.FacetID(i)).Contains(q, 1e-3)
					if inside {
						count++
					}
				}
				if onRim {
					continue
				}
				mapped := 0
				for _, c := range cells {
					if c.Poly.Contains(q, 0) {
						mapped = len(c.Stack)
					}
				}
				if mapped != count {
					t.Fatalf("%s step %d: %d layers at %v, counted %d", id, d.No, mapped, q, count)
				}
			}
		}
	}
}

// The centre of mass stays inside the toy's hull and moves only as far as the
// moved part allows: its share of the mass times the way it went.
func TestCentreMovesByTheMovedShare(t *testing.T) {
	for _, id := range shelf.Names() {
		p, _ := shelf.Find(id)
		for _, d := range on(t, p, p.WidthMM, p.HeightMM, nil).Steps {
			if d.Op != sequence.OpValley && d.Op != sequence.OpMountain {
				continue
			}
			a, b := body.Measure(d.Before).CoM, body.Measure(d.After).CoM
			var sum geom.Vec // Σ area × displacement over the moved parts
			for _, f := range d.Moving {
				pos, neg := d.Before.Folded(f).Split(d.Line)
				if d.Side < 0 {
					pos = neg
				}
				c := pos.Centroid()
				sum = sum.Add(d.Line.Mirror(c).Sub(c).Scale(pos.Area()))
			}
			want := a.Add(sum.Scale(1 / d.Before.PaperMM2()))
			if want.Dist(b) > 1e-9 {
				t.Errorf("%s step %d: the centre of mass goes to %v, by its parts to %v", id, d.No, b, want)
			}
		}
	}
}
