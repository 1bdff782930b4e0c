package body_test

import (
	"fmt"
	"math"
	"strconv"
	"strings"
	"testing"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/foldtest"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// toy is a construction to come, the sheets it is tried on, its own first, and knobs that
// go with the sheet.
type toy struct {
	name   string
	sheets [][2]float64
	knobs  func(w float64) map[string]float64
}

var toysToCome = []toy{
	{"finger-flapper", [][2]float64{{150, 150}, {120, 120}, {180, 180}}, func(w float64) map[string]float64 { return map[string]float64{"girth": 55 * w / 150} }},
	{"bird", [][2]float64{{150, 150}, {100, 100}, {200, 200}}, nil},
	{"hanging-token", [][2]float64{{215.9, 279.4}, {210, 297}, {150, 200}}, func(w float64) map[string]float64 {
		return map[string]float64{"notch": w / 7.2, "pin": w / 5.4, "book": 30}
	}},
	{"turbine", [][2]float64{{100, 100}, {150, 150}, {80, 80}}, func(w float64) map[string]float64 { return map[string]float64{"rim": 0.08 * w} }},
	{"pinwheel", [][2]float64{{113.262, 107.719}, {200, 200}, {90, 90}}, func(w float64) map[string]float64 { return map[string]float64{"bow": w / 4.5} }},
	{"teller", [][2]float64{{160, 160}, {120, 120}, {210, 210}}, nil},
	{"teller-written", [][2]float64{{160, 160}, {120, 120}, {210, 210}}, nil},
	{"spinning-token", [][2]float64{{152.4, 152.4}, {120, 120}, {200, 200}}, nil},
}

func (c toy) on(t *testing.T, w, h float64) *sequence.Replay {
	t.Helper()
	var knobs map[string]float64
	if c.knobs != nil {
		knobs = c.knobs(w)
	}
	return foldtest.On(t, foldtest.Toy(t, c.name), w, h, knobs)
}

// Every construction folds on its sheet and two others, stands soundly, and goes soundly
// through every step in the round, in 40 steps.
func TestToysToComeStandAllTheWay(t *testing.T) {
	for _, c := range toysToCome {
		for _, size := range c.sheets {
			r := c.on(t, size[0], size[1])
			if p := body.Standing(r); !p.Sound() || p.Residual > 1e-6 && len(r.Pivots) == 0 {
				t.Errorf("%s on %v: %s, gap %g mm", c.name, size, p.Unsound(), p.Residual)
			}
			for _, d := range r.Steps {
				if !d.InTheRound() {
					continue
				}
				m, ok := body.MotionOf(r, d.No, 41)
				if !ok || len(m.Poses) != 41 {
					t.Errorf("%s on %v, step %d: %d poses, torn by %v mm", c.name, size, d.No, len(m.Poses), m.Residual)
					continue
				}
				mass := m.Poses[0].Weigh().G
				for k, p := range m.Poses {
					if !p.Sound() || p.Residual > 1e-6 && d.Op != sequence.OpPivot || math.Abs(p.Weigh().G-mass) > 1e-9 {
						t.Errorf("%s on %v, step %d, pose %d: %s, gap %g mm", c.name, size, d.No, k, p.Unsound(), p.Residual)
						break
					}
				}
			}
		}
	}
}

// Leaves of a pack, parted: each half leaf is a triangle with a corner at the middle and
// its plane through the axis, so the centre of mass is known by hand.
func TestPartedPacksBalanceByHand(t *testing.T) {
	r := toysToCome[3].on(t, 100, 100)
	m := body.Standing(r.UpTo(2)).Weigh()
	// Half leaves by the axis rays of a square of side 100: to an edge's middle, to a corner.
	half := 50 * math.Tan(math.Pi/8)
	edge, corner := 50*half/2, 1250-50*half/2
	along := (edge*100/3 + corner*((50+half)/math.Sqrt2+50*math.Sqrt2)/3) / 1250
	near(t, "turbine, by hand", along, 37.377345, 1e-6)
	near(t, "turbine, along the axis", m.CoM.X-50, along, 1e-9)
	near(t, "turbine, off the axis", math.Hypot(m.CoM.Y-50, m.CoM.Z), 0, 1e-6)

	for n := 3; n <= 8; n++ {
		text := "sheet ngon " + itoa(n) + " 70\ncollapse fixed part(C,mid(P1,M1),1/2)"
		for k := 1; k <= n; k++ {
			sense := " M"
			if k == 1 {
				sense = " A"
			}
			text += " V C M" + itoa(k) + sense + " C P" + itoa(k)
		}
		r := foldtest.Fold(t, text+"\npart [C M1] into "+itoa(n))
		p := body.Standing(r)
		if !p.Sound() {
			t.Errorf("%d leaves: %s", n, p.Unsound())
		}
		m := p.Weigh()
		c, apothem := r.Landmarks["C"], 35/math.Tan(math.Pi/float64(n))
		near(t, "CoM from the middle", math.Hypot(m.CoM.X-c.X, m.CoM.Y-c.Y), 2*apothem/3, 1e-6)
		near(t, "CoM out of the plane", m.CoM.Z, 0, 1e-9)
		if n == 5 {
			near(t, "five leaves", 2*apothem/3, 32.115578, 1e-6)
			// The axis lies in the plane, from the middle to M1: across the side P1P2.
			near(t, "inertia about the axis", m.Iyy, m.G*35*35/6, 1e-6)
			near(t, "as printed", m.Iyy, 137.7, 0.05)
		}
		// A different number of leaves is refused, and told.
		p2 := foldtest.Parse(t, text+"\npart [C M1] into "+itoa(n+1))
		if r := p2.Run(r.Sheet, nil); r.Err == nil || !strings.Contains(r.Err.Error(), itoa(n)+" leaves") {
			t.Errorf("%d leaves parted into %d: %v", n, n+1, r.Err)
		}
	}
}

// A squashed pack has leaves that hang on lines without a fold: they are parted as well,
// and the toy is not lopsided.
func TestUnfoldedJointsPartToo(t *testing.T) {
	r := foldtest.Fold(t, "sheet square 100\nuse preliminary\npart [C BL] into 4")
	p := body.Standing(r)
	if !p.Sound() {
		t.Fatal(p.Unsound())
	}
	m := p.Weigh()
	axis := r.Landmarks["BL"].Sub(r.Landmarks["C"])
	at, _ := sequence.Place(r.Final(), r.Landmarks["BL"])
	dir := at.Sub(r.Landmarks["C"]).Unit()
	d := geom.Vec{X: m.CoM.X, Y: m.CoM.Y}.Sub(r.Landmarks["C"])
	near(t, "off the axis", math.Hypot(d.Cross(dir), m.CoM.Z), 0, 1e-6)
	if axis.Len() < 1 || d.Dot(dir) < 10 {
		t.Errorf("CoM %v from the middle along %v", d, dir)
	}
}

func itoa(n int) string { return strconv.Itoa(n) }

// A pack that lies all to one side: its outer leaf goes over, then the next, as it falls by
// nature; parted it is the same wheel. Gathered from a pentagon cut from a square as well.
func TestLeavesOfAPackGoOver(t *testing.T) {
	pack := "sheet ngon 5 70\ncollapse fixed part(C,mid(P1,M1),1/2) V C M1 M C P2 V C M2 M C P3 V C M3 M C P4 V C M4 M C P5 V C M5 A C P1\n"
	over := "leaf along [C M1] moving P1 layers top 1 at P1 as o1\n"
	for _, c := range []struct {
		text       string
		here, over int
	}{
		{pack, 10, 0},
		{pack + over, 8, 2},
		{pack + over + "leaf along [C M1] moving P2 layers top 1 at P2 as o2\n", 6, 4},
	} {
		r := foldtest.Fold(t, c.text)
		s := r.Final()
		axis := geom.Line{}
		cm, m1 := r.Landmarks["C"], r.Landmarks["M1"]
		at, _ := sequence.Place(s, m1)
		axis, _ = geom.LineThrough(cm, at)
		here, over := 0, 0
		p3, _ := sequence.Place(s, r.Landmarks["P3"])
		side := axis.Side(p3)
		for i := range s.F {
			if axis.Side(s.Folded(fold.FacetID(i)).Centroid())*side > 0 {
				here++
			} else {
				over++
			}
		}
		if here != c.here || over != c.over {
			t.Errorf("%d pieces stay and %d lie over, not %d and %d", here, over, c.here, c.over)
		}
		if faults := s.Faults(); len(faults) > 0 {
			t.Errorf("%v", faults)
		}
		parted := body.Standing(foldtest.Fold(t, c.text+"part [C M1] into 5"))
		if !parted.Sound() {
			t.Error(parted.Unsound())
		}
		m := parted.Weigh()
		near(t, "parted, the same wheel", math.Hypot(m.CoM.X-cm.X, m.CoM.Y-cm.Y), 32.115578, 1e-6)
	}
	r := foldtest.Fold(t, "sheet square 150\nuse pentagon\ngather about C as rays")
	if c := r.Final().Count(); c.Folded != 10 || len(r.Final().F) != 10 {
		t.Errorf("a pentagon as cut gathers in %d folds and %d pieces", c.Folded, len(r.Final().F))
	}
	twisted := foldtest.Fold(t, "sheet square 150\nuse pentagon\ntwist 5 about C radius 12 slant 50 fixed C")
	if n := twisted.Final().Count().Folded; n < 15 {
		t.Errorf("a twist on the pentagon has %d folds", n)
	}
}

// faces are the labels that show from above and from underneath, one of each kind.
func faces(r *sequence.Replay) (above, beneath map[string]int) {
	above, beneath = map[string]int{}, map[string]int{}
	s := r.Final()
	for _, n := range r.Notes {
		f := s.FacetsAtSheet(n.At)[0]
		at := s.F[f].Iso.Apply(n.At)
		stack := s.StackAt(at)
		if stack[0] == f && s.F[f].Iso.FaceUp() != n.OnBack {
			above[n.Text]++
		}
		if stack[len(stack)-1] == f && s.F[f].Iso.FaceUp() == n.OnBack {
			beneath[n.Text]++
		}
	}
	return above, beneath
}

// A ring of three faces flexes: every state shows one face above and another beneath, all
// six triangles alike, and the third flex comes back to where it began. No hand writes which
// layer lies over which.
func TestRingOfThreeFaces(t *testing.T) {
	p := foldtest.Toy(t, "three-faces")
	r := foldtest.On(t, p, p.WidthMM, p.HeightMM, nil)
	n := len(r.Steps)
	var states [][2]string
	for step := n - 3; step <= n; step++ {
		above, beneath := faces(r.UpTo(step))
		if len(above) != 1 || len(beneath) != 1 {
			t.Fatalf("after step %d: above %v, beneath %v", step, above, beneath)
		}
		var q [2]string
		for k, v := range above {
			q[0] = k
			if v < 5 { // the triangle that is glued over another bears no label
				t.Errorf("after step %d only %d triangles show %s", step, v, k)
			}
		}
		for k := range beneath {
			q[1] = k
		}
		states = append(states, q)
		if q[0] == q[1] {
			t.Errorf("after step %d %s is on both sides", step, q[0])
		}
	}
	if states[0] != states[3] || states[0] == states[1] || states[1] == states[2] {
		t.Errorf("states %v", states)
	}
	seen := map[string]bool{}
	for _, q := range states {
		seen[q[0]], seen[q[1]] = true, true
	}
	if len(seen) != 3 {
		t.Errorf("faces %v", seen)
	}
	for step := n - 2; step <= n; step++ {
		m, ok := body.MotionOf(r, step, 41)
		if !ok {
			t.Errorf("the motion of step %d is not shown: %v mm", step, m.Residual)
			continue
		}
		for k, q := range m.Poses {
			if q.Residual > 1e-4 || !q.Sound() {
				t.Errorf("step %d, pose %d: %s, gap %g", step, k, q.Unsound(), q.Residual)
				break
			}
		}
	}
	// One pat the other way round: that ring does not flex.
	text := strings.Replace(p.Text, "M z3 V z6 M z9", "M z3 z6 z9", 1)
	if q := foldtest.Parse(t, text).Run(r.Sheet, nil); q.Err == nil || !strings.Contains(q.Err.Error(), "does not flex") {
		t.Errorf("a ring with one pat reversed flexes: %v", q.Err)
	}
}

// A ring of six faces: from the main face two corners open two others, and a corner of the
// spiral a hidden one; the fourth face is not among those that a three-face ring has.
func TestRingOfSixFaces(t *testing.T) {
	p := foldtest.Toy(t, "six-faces")
	for flex, want := range map[string]string{
		"": "2", "flex fixed t1 F z4 z10 z16 A z6 z12 z18\n": "3", "flex fixed t1 F z1 z7 z13 A z2 z8 z14\n": "4",
	} {
		q := foldtest.Parse(t, p.Text+flex)
		r := foldtest.On(t, q, p.WidthMM, p.HeightMM, nil)
		above, beneath := faces(r)
		if len(above) != 1 || above[want] < 5 || len(beneath) != 1 {
			t.Errorf("%q: above %v, beneath %v", flex, above, beneath)
		}
		if s := body.Standing(r); !s.Sound() {
			t.Error(s.Unsound())
		}
	}
	q := foldtest.Parse(t, p.Text+"flex fixed t1 F z3 z9 z15 A z2 z8 z14\n")
	r := foldtest.On(t, p, p.WidthMM, p.HeightMM, nil)
	if r := q.Run(r.Sheet, nil); r.Err == nil {
		t.Error("a corner that is solid opens")
	}
}

// What is written on a fortune teller: numbers on one side, all upright, four words on the
// other, messages inside, which show when it opens; all on one face of the sheet.
func TestZonesOfATeller(t *testing.T) {
	p := foldtest.Toy(t, "teller-written")
	r := foldtest.On(t, p, 160, 160, nil)
	flat := 0
	for flat = range r.Steps {
		if r.Steps[flat].InTheRound() {
			break
		}
	}
	study := body.StudyOf(r.UpTo(flat))
	zones := map[string]int{}
	for _, l := range study.Labels {
		if !l.Back {
			t.Errorf("%s is on the front", l.Text)
		}
		if l.Visible {
			zones[l.Zone]++
			if off := math.Mod(math.Abs(l.TurnDeg), 360); off > 1e-6 && off < 360-1e-6 {
				t.Errorf("%s %s stands at %v°", l.Zone, l.Text, l.TurnDeg)
			}
		}
	}
	if zones["number"] != 8 || zones["outer"]+zones["message"] != 0 {
		t.Errorf("from above %v", zones)
	}
	// Turned over: the four words, upright.
	over := foldtest.On(t, foldtest.Parse(t, strings.Replace(strings.Split(p.Text, "param lo")[0], "states shut ajar\n", "", 1)+"turn lr\n"), 160, 160, nil)
	zones = map[string]int{}
	for _, l := range body.StudyOf(over).Labels {
		if l.Visible {
			zones[l.Zone]++
			if off := math.Mod(math.Abs(l.TurnDeg), 360); off > 1e-6 && off < 360-1e-6 {
				t.Errorf("%s %s stands at %v°", l.Zone, l.Text, l.TurnDeg)
			}
		}
	}
	if zones["outer"] != 4 || zones["number"]+zones["message"] != 0 {
		t.Errorf("from behind %v", zones)
	}
}

// The point of a spinning token is brought to the centre of mass that the file has which is
// handed on: corners and faces alone, weighed here a second way.
func TestTokenStandsOnItsBalance(t *testing.T) {
	r := foldtest.On(t, foldtest.Toy(t, "spinning-token"), 152.4, 152.4, nil)
	var tip int
	for i, d := range r.Steps {
		if d.Name == "tip" {
			tip = i + 1
		}
	}
	s := r.UpTo(tip).Final()
	at, _ := sequence.Place(s, r.Landmarks["TR"])
	var sum geom.Vec
	var area float64
	for i := range s.F {
		poly := s.Folded(fold.FacetID(i))
		for k := 1; k+1 < len(poly); k++ { // by triangles from the first corner
			a, b, c := poly[0], poly[k], poly[k+1]
			w := b.Sub(a).Cross(c.Sub(a)) / 2
			sum, area = sum.Add(a.Add(b).Add(c).Scale(w/3)), area+w
		}
	}
	near(t, "the point's distance from the centre of mass", at.Dist(sum.Scale(1/area)), 0, 1e-6)
	if n := len(s.F); n < 16 {
		t.Errorf("%d pieces", n)
	}
}

// The flapper round a finger: what lies how deep when it is flat, and how high it balances
// when it is wrapped. A second half on its own, wider radius lifts it by less than a tenth.
func TestFlapperRoundAFinger(t *testing.T) {
	r := foldtest.On(t, foldtest.Toy(t, "finger-flapper"), 150, 150, nil)
	deep := map[int]float64{}
	for _, c := range body.Measure(r.Final()).Cells {
		deep[len(c.Stack)] += c.Poly.Area()
	}
	for layers, mm2 := range map[int]float64{1: 205, 2: 5590, 3: 35, 4: 2753} {
		near(t, fmt.Sprint("area of ", layers, " layers"), deep[layers], mm2, 0.5)
	}
	near(t, "width", r.Final().Box().Width(), 75.8, 1e-6)
	near(t, "radius", r.Bends[0].RadiusMM, 8.754, 0.0005)
	near(t, "height of the CoM", body.Standing(r).Weigh().CoM.Z, 9.2, 0.1)
	if a, b := r.Bends[0].AngleDeg, r.Bends[1].AngleDeg; math.Abs(a-248) > 0.1 || b >= a || b < 235 {
		t.Errorf("the halves wrap %.1f° and %.1f°", a, b)
	}
}
