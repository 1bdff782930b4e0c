package rings_test

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"tussock/internal/body"
	"tussock/internal/foldtest"
	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/reveal/ring"
	"tussock/internal/motion/reveal/rings"
	"tussock/internal/prints"
	"tussock/internal/sequence"
)

func folded(t *testing.T, name string, n int) (*sequence.Replay, rings.Geometry) {
	t.Helper()
	var names []string
	for i := range n {
		names = append(names, fmt.Sprint("t", i+1))
	}
	p := foldtest.Toy(t, name)
	text := strings.Replace(p.Text, "moves reveal\n", "moves reveal\nringparts "+strings.Join(names, " ")+"\n", 1)
	r := foldtest.On(t, foldtest.Parse(t, text), p.WidthMM, p.HeightMM, nil)
	if r.Err != nil {
		t.Fatal(r.Err)
	}
	g, err := rings.Of(r)
	if err != nil {
		t.Fatal(err)
	}
	return r, g
}

var both = []struct {
	name   string
	leaves int
}{{"three-faces", 10}, {"six-faces", 19}}

// The label maps come out of what the engine folded: the numbers that the pattern writes.
func TestLabelsAreThoseOfTheFolding(t *testing.T) {
	for _, c := range both {
		r, g := folded(t, c.name, c.leaves)
		for _, n := range r.Notes {
			no := 0
			for k := range g.Leaves {
				corners := g.Corners(k + 1)
				c := corners[0].Add(corners[1]).Add(corners[2]).Scale(1.0 / 3)
				if c.Dist(n.At) < g.SideMM/4 {
					no = k + 1
				}
			}
			if no == 0 {
				continue
			}
			side := 0
			if n.OnBack {
				side = 1
			}
			if got := fmt.Sprint(g.Graph.Labels[no-1][side]); got != n.Text {
				t.Errorf("%s: triangle %d, back %v is of face %s, the pattern says %s", c.name, no, n.OnBack, got, n.Text)
			}
		}
	}
}

// The engine flexes the ring of three faces step by step: after each, its layers are those of a
// state that the turn-over rule leads to.
func TestStatesAreTheEnginesOwn(t *testing.T) {
	r, g := folded(t, "three-faces", 10)
	was, last := map[int]bool{}, 0
	for _, d := range r.Steps {
		if d.Op != sequence.OpFlex {
			continue
		}
		s := d.After
		found := -1
		for i, st := range g.Graph.States {
			same := true
			for _, pat := range st {
				for k := 0; k+1 < len(pat); k++ { // who lies over whom
					a, b := s.FacetsAtSheet(spot(g, pat[k].No))[0], s.FacetsAtSheet(spot(g, pat[k+1].No))[0]
					same = same && s.Folded(a).Centroid().Dist(s.Folded(b).Centroid()) < 0.1 && s.Above(a, b) > 0
				}
				up := s.F[s.FacetsAtSheet(spot(g, pat[0].No))[0]].Iso.FaceUp()
				same = same && up != pat[0].Back
			}
			if same {
				found = i
			}
		}
		if found < 0 {
			t.Errorf("step %d leads to no state of the graph", d.No)
			continue
		}
		// The engine keeps one leaf where it is, so a side that was in front may be behind.
		was[g.Graph.Front[found]], was[g.Graph.Behind[found]] = true, true
		linked := false
		for _, f := range g.Graph.Flexes {
			for _, a := range []int{last, g.Graph.Over[last]} {
				linked = linked || f.From == a && (f.To == found || f.To == g.Graph.Over[found])
			}
		}
		if !linked {
			t.Errorf("step %d: no flex leads from state %d to %d", d.No, last, found)
		}
		last = found
	}
	if len(was) != 3 || last != 0 {
		t.Errorf("the engine shows faces %v and ends in state %d", was, last)
	}
}

func spot(g rings.Geometry, no int) geom.Vec {
	c := g.Corners(no)
	return c[0].Add(c[1]).Add(c[2]).Scale(1.0 / 3)
}

// gap is how far the joint between two leaves is torn, with leaves drawn apart taken back.
func gap(g rings.Geometry, p body.Pose, k int) float64 {
	a, b := g.Corners(k), g.Corners(k%g.Leaves+1)
	worst := 0.0
	for _, pair := range [][2]geom.Vec{{a[1], b[0]}, {a[2], b[1]}} {
		u, v := p.At[g.Facet(k)].Apply(pair[0].InSpace()), p.At[g.Facet(k%g.Leaves+1)].Apply(pair[1].InSpace())
		worst = math.Max(worst, u.Dist(v))
	}
	return worst
}

// Every flex of both rings: no joint opens farther than leaves are drawn apart, the way is one
// motion without a jump, and plates never pass through each other.
func TestFlexesClose(t *testing.T) {
	for _, c := range both {
		_, g := folded(t, c.name, c.leaves)
		for _, f := range g.Graph.Flexes {
			from := g.Graph.States[f.From]
			to, _ := from.Flex(f.Corners)
			shuts := from.Shuts(f.Corners)
			for part := 0.0; part <= 1.0001; part += 0.0625 {
				s := from
				if part > 0.5 {
					s = to
				}
				p := g.Flexed(s, shuts, math.Min(1, part))
				for k := 1; k <= g.Leaves; k++ {
					if d := gap(g, p, k); d > 14*rings.LayerMM+1e-9 {
						t.Fatalf("%s, flex %d to %d at %.2f: joint %d gapes by %.3f mm", c.name, f.From, f.To, part, k, d)
					}
				}
				if part != 0.5 {
					plates(t, g, p, s, fmt.Sprintf("%s, flex %d to %d at %.2f", c.name, f.From, f.To, part))
				}
			}
			// In the star both states are the same toy, leaf by leaf.
			a, b := g.Flexed(from, shuts, 0.5), g.Flexed(to, shuts, 0.5+1e-9)
			for k := 1; k <= g.Leaves; k++ {
				for _, v := range g.Corners(k) {
					if d := a.At[g.Facet(k)].Apply(v.InSpace()).Dist(b.At[g.Facet(k)].Apply(v.InSpace())); d > 12*rings.LayerMM+1e-3 {
						t.Fatalf("%s, flex %d to %d: leaf %d jumps by %.3f mm in the star", c.name, f.From, f.To, k, d)
					}
				}
			}
		}
	}
}

// plates looks that leaves of two places never cut into each other: an edge of one does not run
// through the inside of another.
func plates(t *testing.T, g rings.Geometry, p body.Pose, s ring.State, where string) {
	t.Helper()
	at := func(no int) [3]geom.Vec3 {
		c := g.Corners(no)
		m := p.At[g.Facet(no)]
		return [3]geom.Vec3{m.Apply(c[0].InSpace()), m.Apply(c[1].InSpace()), m.Apply(c[2].InSpace())}
	}
	for i := range s {
		for j := range s {
			if i == j {
				continue
			}
			a, b := at(s[i][0].No), at(s[j][len(s[j])-1].No)
			n := b[1].Sub(b[0]).Cross(b[2].Sub(b[0])).Unit()
			for k := range a {
				u, v := a[k], a[(k+1)%3]
				du, dv := n.Dot(u.Sub(b[0])), n.Dot(v.Sub(b[0]))
				if du*dv >= 0 || math.Min(math.Abs(du), math.Abs(dv)) < 10*rings.LayerMM {
					continue
				}
				x := u.Add(v.Sub(u).Scale(du / (du - dv)))
				inside := true
				for q := range b {
					e := b[(q+1)%3].Sub(b[q])
					inside = inside && e.Cross(x.Sub(b[q])).Dot(n)/e.Len() > 10*rings.LayerMM
				}
				if inside {
					t.Fatalf("%s: places %d and %d pass through each other", where, i, j)
				}
			}
		}
	}
}

// The pinch by the closed law against the table of the closure solver.
func TestPinchIsTheTable(t *testing.T) {
	for _, c := range [][2]float64{{30, 8.081354}, {60, 16.426421}, {90, 25.332939}, {120, 35.175908}, {150, 46.473475}} {
		lo, hi := 0.0, 1.0
		for range 60 {
			mid := (lo + hi) / 2
			if shut, _ := ring.Pinch(mid).Folds(); shut < c[0] {
				lo = mid
			} else {
				hi = mid
			}
		}
		if _, axis := ring.Pinch(lo).Folds(); math.Abs(axis-c[1]) > 1e-5 {
			t.Errorf("shut to %g° the others are at %.6f°, want %g°", c[0], axis, c[1])
		}
	}
	if shut, axis := ring.Pinch(1 - 1e-9).Folds(); math.Abs(shut-180) > 0.01 || math.Abs(axis-60) > 0.01 {
		t.Errorf("the star: %g° and %g°", shut, axis)
	}
}

// Whatever is drawn on a face comes whole in the state where it is first seen: its six frames are
// one square, turned with the leaves; and each triangle of the strip is drawn on once.
func TestFacesComeWhole(t *testing.T) {
	for _, c := range both {
		_, g := folded(t, c.name, c.leaves)
		used := map[string]int{}
		for _, p := range g.Places() {
			if p.Zone != "face" {
				continue
			}
			face := 0
			if _, err := fmt.Sscanf(p.Name, "face %d", &face); err != nil {
				t.Fatal(err)
			}
			state := slices.Index(g.Graph.Front, face)
			s := g.Graph.States[state]
			front := s.Front()
			for i, f := range p.Picture {
				iso := g.OnHexagon(s, i, front[i].No)
				corner, along, down := iso.Apply(f.Corner), iso.Turn(f.Along), iso.Turn(f.Down)
				want := geom.Vec{X: -g.SideMM, Y: g.SideMM}
				if corner.Dist(want) > 1e-6 || along.Dist(geom.Vec{X: 2 * g.SideMM}) > 1e-6 || down.Dist(geom.Vec{Y: -2 * g.SideMM}) > 1e-6 {
					t.Errorf("%s, %s, sector %d: the picture lies at %v along %v", c.name, p.Name, i, corner, along)
				}
				middle := iso.Apply(f.Area.Centroid())
				if math.Abs(middle.Len()-g.SideMM/math.Sqrt(3)) > 1e-6 {
					t.Errorf("%s, %s, sector %d lies %.2f mm from the middle", c.name, p.Name, i, middle.Len())
				}
				used[fmt.Sprintf("%.1f %.1f %v", f.Area.Centroid().X, f.Area.Centroid().Y, f.Back)]++
			}
		}
		for where, n := range used {
			if n != 1 {
				t.Errorf("%s: %s is drawn on %d times", c.name, where, n)
			}
		}
		if len(used) != 2*g.Leaves {
			t.Errorf("%s: %d triangle sides are drawn on", c.name, len(used))
		}
		// The two that are glued on each other stay blank.
		hidden, instead := g.Instead()
		at := spot(g, 1)
		if used[fmt.Sprintf("%.1f %.1f %v", at.X, at.Y, hidden.Back)] != 0 || instead.No != g.Leaves+1 {
			t.Errorf("%s: the glued side is drawn on", c.name)
		}
	}
}

// Numbers stand upright in the state where a face is first seen, and every triangle has its own.
func TestNumbersAreSeen(t *testing.T) {
	for _, c := range both {
		r, g := folded(t, c.name, c.leaves)
		r.Notes = nil
		places, err := rings.Writing().Places(r)
		if err != nil {
			t.Fatal(err)
		}
		inks, faults := rings.Writing().All(r, places, motion.Written{})
		if len(faults) > 0 || len(inks) != 2*g.Leaves+2 {
			t.Fatalf("%s: %d numbers, %v", c.name, len(inks), faults)
		}
		for _, v := range rings.Writing().Views(r, inks) {
			face, err := 0, error(nil)
			if _, err = fmt.Sscanf(v.Name, "face%d", &face); err != nil {
				continue
			}
			n := 0
			for _, q := range v.Picture.Written {
				if q.Text != fmt.Sprint(face) || math.Abs(q.Place[0]-1) > 1e-3 || math.Abs(q.Place[1]) > 1e-3 {
					t.Errorf("%s, %s: %q at %v", c.name, v.Title, q.Text, q.Place)
				}
				n++
			}
			if n != ring.Pats {
				t.Errorf("%s, %s shows %d numbers", c.name, v.Title, n)
			}
		}
	}
}

// The strip is printed without what is cut off, its numbers inside of their triangles.
func TestStripIsPrinted(t *testing.T) {
	r, g := folded(t, "six-faces", 19)
	outline := rings.Writing().Outline(r)
	box := geom.EmptyBox().Grow(outline...)
	if math.Abs(box.Width()-g.LengthMM) > 1e-6 || math.Abs(outline.Area()-19*g.SideMM*g.WidthMM/2) > 1e-6 {
		t.Errorf("the strip is %g mm long, its outline %g mm²", box.Width(), outline.Area())
	}
	places, _ := rings.Writing().Places(r)
	inks, _ := rings.Writing().All(r, places, motion.Written{"sector 3": {Text: "ebb"}, "face 2": {Picture: "fish"}})
	texts := 0
	for _, k := range inks {
		if k.Text != "" {
			texts++
			w, along := prints.Printed(k.Text)*k.SizeMM/2, geom.Vec{}
			along, _ = k.Upright()
			for _, v := range []geom.Vec{k.At.Add(along.Scale(w)), k.At.Sub(along.Scale(w))} {
				if !outline.Contains(v, 0) {
					t.Errorf("%q leaves the strip", k.Text)
				}
			}
		}
	}
	if texts != 38 {
		t.Errorf("%d texts", texts)
	}
}
