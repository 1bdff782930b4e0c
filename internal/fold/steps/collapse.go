package steps

import (
	"fmt"
	"math"
	"slices"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/say"
)

// Sense is what a collapse does with a crease.
type Sense int8

const (
	Mountain Sense = iota // ridge towards the viewer of the flat sheet's front
	Valley
	Either // folded, in whichever sense works
	Open   // laid flat
)

// Line is one crease of a collapse, on the sheet. Unnamed lines serve only to
// complete the pattern.
type Line struct {
	Seg   geom.Segment
	Sense Sense
}

// Pair says that the layer at one spot of the sheet ends above that at another.
type Pair struct{ Above, Below geom.Vec }

// Collapse folds several creases at once while the piece at spot fixed stays: the
// named creases are folded in the sense given or opened, all others keep being
// folded or open. Creases that are not there yet are made. Any set of creases is
// taken, if the paper closes up and its layers have an order.
func Collapse(s *fold.State, fixed geom.Vec, lines []Line, over []Pair, id fold.CreaseID) (fold.Plan, error) {
	at := s.FacetsAtSheet(fixed)
	if len(at) == 0 {
		return fold.Plan{}, fold.Errorf(fold.CodeOffPaper, "what should stay in place is not on the paper, at (%.2f, %.2f) mm", fixed.X, fixed.Y)
	}
	splits, err := sheetSplits(s, lines)
	if err != nil {
		return fold.Plan{}, err
	}
	d := s
	if len(splits) > 0 {
		if d, err = s.Divide(splits, id); err != nil {
			return fold.Plan{}, err
		}
	}
	sense := make([]Sense, len(d.H)) // Open is kept apart from "not named" by named
	named := make([]bool, len(d.H))
	for i, h := range d.H {
		for _, c := range lines {
			if h.Along(c.Seg) {
				sense[i], named[i] = c.Sense, true
			}
		}
	}
	isos, err := d.Walk(d.FacetsAtSheet(fixed)[0], func(i int, h fold.Hinge) bool {
		if named[i] {
			return sense[i] != Open
		}
		return d.F[h.A].Iso.FaceUp() != d.F[h.B].Iso.FaceUp()
	})
	if err != nil {
		return fold.Plan{}, err
	}
	if err := counted(d, isos, sense, named); err != nil {
		return fold.Plan{}, err
	}
	p := fold.Plan{Splits: splits, Solve: true, Crease: id}
	moved := map[fold.FacetID]bool{}
	for i := range d.F {
		t := isos[i].After(d.F[i].Iso.Inverse())
		if t.Near(geom.Identity, geom.Still) {
			continue
		}
		moved[fold.FacetID(i)] = true
		k := slices.IndexFunc(p.Bodies, func(b fold.Body) bool { return b.T.Near(t, geom.Still) })
		if k < 0 {
			k = len(p.Bodies)
			p.Bodies = append(p.Bodies, fold.Body{T: t})
		}
		p.Bodies[k].Facets = append(p.Bodies[k].Facets, fold.FacetID(i))
	}
	for i, h := range d.H {
		if !named[i] || sense[i] > Valley {
			continue
		}
		sign := int8(-1) // mountain: B below A where A shows its front
		if sense[i] == Valley {
			sign = 1
		}
		if !isos[h.A].FaceUp() {
			sign = -sign
		}
		p.Hints = append(p.Hints, fold.Hint{I: h.B, J: h.A, Sign: sign, Hard: true, Why: "a crease cannot be folded in the sense given"})
	}
	for _, q := range over {
		for _, a := range d.FacetsAtSheet(q.Above) {
			for _, b := range d.FacetsAtSheet(q.Below) {
				p.Hints = append(p.Hints, fold.Hint{I: a, J: b, Sign: 1, Hard: true, Why: "a layer cannot lie over another as it should"})
			}
		}
	}
	for _, i := range sorted(moved) {
		for j := range d.F {
			if !moved[fold.FacetID(j)] {
				p.Hints = append(p.Hints, fold.Hint{I: i, J: fold.FacetID(j), Sign: 1})
			}
		}
	}
	return p, nil
}

// Uneven is a spot at which mountains and valleys do not differ by two, as they must
// wherever paper folds flat (Maekawa's theorem).
type Uneven struct {
	At               geom.Vec // on the sheet
	Mountain, Valley int
}

func (u *Uneven) Error() string {
	return fmt.Sprintf("%d mountains and %d valleys meet at %s, %s of the sheet", u.Mountain, u.Valley, say.MM(u.At.X, 1), say.MM(u.At.Y, 1))
}

// counted looks at every spot inside the paper at which folds meet and all their senses are
// given or kept. The error is an *Uneven.
func counted(s *fold.State, isos []geom.Iso2, sense []Sense, named []bool) error {
	type count struct {
		m, v int
		open bool // a sense is left free
	}
	var spots []geom.Vec
	counts := map[int]*count{}
	at := func(v geom.Vec) *count {
		for i, w := range spots {
			if w.Dist(v) < geom.OnPaper {
				return counts[i]
			}
		}
		spots = append(spots, v)
		counts[len(spots)-1] = &count{}
		return counts[len(spots)-1]
	}
	for i, h := range s.H {
		if h.Kind == fold.Glue || isos[h.A].FaceUp() == isos[h.B].FaceUp() {
			continue
		}
		for _, v := range [2]geom.Vec{h.P, h.Q} {
			switch c := at(v); {
			case named[i] && sense[i] == Either:
				c.open = true
			case named[i] && sense[i] == Mountain, !named[i] && s.Assigned(h) == fold.Mountain:
				c.m++
			default:
				c.v++
			}
		}
	}
	for i, v := range spots {
		c := counts[i]
		if c.open || c.m-c.v == 2 || c.v-c.m == 2 {
			continue
		}
		var round float64
		for _, f := range s.FacetsAtSheet(v) {
			round += s.F[f].Poly.AngleAt(v)
		}
		if round > 2*math.Pi-1e-6 {
			return &Uneven{v, c.m, c.v}
		}
	}
	return nil
}

// sheetSplits divides the pieces that a line runs through. A piece is always cut
// right across; what lies beyond the line's ends is not pressed.
func sheetSplits(s *fold.State, lines []Line) ([]fold.Split, error) {
	var out []fold.Split
	for k, c := range lines {
		l, ok := geom.LineThrough(c.Seg.A, c.Seg.B)
		if !ok {
			return nil, fold.Errorf(fold.CodeNoLine, "the two landmarks of a crease lie on the same spot on this sheet")
		}
		var set []fold.FacetID
		for i := range s.F {
			if geom.Crosses(s.F[i].Poly, l, c.Seg.A, c.Seg.B) {
				set = append(set, fold.FacetID(i))
			}
		}
		if len(set) > 0 {
			seg := c.Seg
			out = append(out, fold.Split{Line: l, OnSheet: true, Facets: set, Pressed: &seg, From: int8(min(k, math.MaxInt8))})
		}
	}
	return out, nil
}

// RabbitEar are the creases of a rabbit ear on the triangle a b c: the three
// lines that halve its angles, and the square from their crossing onto side ab,
// out of which the ear rises.
func RabbitEar(a, b, c geom.Vec) ([]Line, error) {
	la, lb, lc := b.Dist(c), c.Dist(a), a.Dist(b)
	if math.Abs(b.Sub(a).Cross(c.Sub(a))) < geom.OnPaper {
		return nil, fold.Errorf(fold.CodeNoLine, "the three corners of the ear lie on one line")
	}
	in := a.Scale(la).Add(b.Scale(lb)).Add(c.Scale(lc)).Scale(1 / (la + lb + lc))
	ab, _ := geom.LineThrough(a, b)
	return []Line{
		{geom.Segment{A: a, B: in}, Valley}, {geom.Segment{A: b, B: in}, Valley}, {geom.Segment{A: c, B: in}, Valley},
		{geom.Segment{A: in, B: ab.Foot(in)}, Mountain},
	}, nil
}

// Twist are the creases of a flat twist: a regular n-gon of the given radius
// about a spot of the sheet turns while n pleats close around it. The pleats run
// to the rim of the outline, each slanted by rad from the square to its side.
func Twist(outline geom.Polygon, c geom.Vec, n int, radius, start, rad float64) ([]Line, error) {
	corner := func(k int) geom.Vec {
		a := start + 2*math.Pi*float64(k)/float64(n)
		return c.Add(geom.Vec{X: radius * math.Cos(a), Y: radius * math.Sin(a)})
	}
	if a := math.Abs(rad); a < math.Pi/float64(n)-1e-9 || a > geom.Rad(80) {
		return nil, fold.Errorf(fold.CodeKnob, "a twist with %d sides needs a slant of %.0f° to 80°: with less, its pleats would meet in the middle and cross", n, math.Ceil(180/float64(n)))
	}
	var out []Line
	for k := range n {
		u, v := corner(k), corner(k+1)
		dir := geom.Rotation(rad, geom.Vec{}).Apply(v.Sub(u).Unit().Left().Scale(-1))
		out = append(out, Line{geom.Segment{A: u, B: v}, Either})
		for i, p := range []geom.Vec{u, v} {
			end, ok := outline.Exit(p, dir)
			if !ok {
				return nil, fold.Errorf(fold.CodeOffPaper, "the middle of the twist is larger than the paper")
			}
			sense := Mountain
			if (i == 1) == (rad < 0) {
				sense = Valley
			}
			out = append(out, Line{geom.Segment{A: p, B: end}, sense})
		}
	}
	return out, nil
}

// Gather are the creases of a base about a spot: a line to each corner of the
// outline and to each middle of a side, in whichever sense works. For a square it
// gives the preliminary or the waterbomb base, for an n-gon its pack of n leaves.
func Gather(outline geom.Polygon, c geom.Vec) []Line {
	var out []Line
	for i, p := range outline {
		out = append(out, Line{geom.Segment{A: c, B: p}, Either},
			Line{geom.Segment{A: c, B: geom.Mid(p, outline[(i+1)%len(outline)])}, Either})
	}
	return out
}

// InTwo are the creases of a base about a spot as its leaves fall by themselves: corners are
// ridges, middles of sides valleys, and two middles stay flat, so that the leaves lie to both
// sides of them, the odd one to the side that goes on from the first corner.
func InTwo(outline geom.Polygon, c geom.Vec) []Line {
	out := Gather(outline, c)
	n := len(outline)
	for i := range n {
		out[2*i].Sense, out[2*i+1].Sense = Mountain, Valley
	}
	out[1].Sense, out[2*((n+1)/2)+1].Sense = Open, Open
	return out
}

// Creased plans creases along lines of the sheet that are opened again.
func Creased(s *fold.State, lines []Line, id fold.CreaseID) (fold.Plan, error) {
	splits, err := sheetSplits(s, lines)
	if err == nil && len(splits) == 0 {
		err = fold.Errorf(fold.CodeMissesLine, "all of these creases are there already")
	}
	return fold.Plan{Splits: splits, Crease: id}, err
}

// Pop turns the point at a spot of the sheet inside out: every fold that meets
// there changes its sense, the pieces stay where they lie.
func Pop(s *fold.State, v geom.Vec) (fold.Plan, error) {
	p := fold.Plan{Solve: true}
	for i, f := range s.F {
		if f.Poly.Contains(v, geom.OnPaper) {
			p.Free = append(p.Free, fold.FacetID(i))
		}
	}
	n := 0
	for _, h := range s.H {
		a := s.Assigned(h)
		if a == fold.Flat || h.P.Dist(v) > geom.OnPaper && h.Q.Dist(v) > geom.OnPaper {
			continue
		}
		n++
		hint := s.Sensed(h, -a)
		hint.Why = "the point cannot be turned inside out here"
		p.Hints = append(p.Hints, hint)
	}
	if n < 4 {
		return p, fold.Errorf(fold.CodeMissesLine, "no folds meet at the point to be turned inside out")
	}
	return p, nil
}
