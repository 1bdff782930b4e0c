package rings

import (
	"errors"
	"fmt"
	"math"
	"slices"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/motion/reveal/ring"
	"tussock/internal/motion/toys"
	"tussock/internal/sequence"
)

const headLeaves = "ringparts"

// Is tells a ring by the leaves that its pattern names.
func Is(p *sequence.Pattern) bool { return len(p.Heads(headLeaves)) > 0 }

// ErrNoRing means that the folded toy is no ring that flexes.
var ErrNoRing = errors.New("it is no ring of triangles that flexes")

// Geometry is a ring as it was folded, mm and g.
type Geometry struct {
	WidthMM, SideMM, LengthMM float64 // of the strip, its triangles, and all of it
	ThickMM, GSM              float64
	MassG                     float64
	Leaves                    int // of the ring; the strip has one more, which is glued
	State                     ring.State
	Graph                     *ring.Graph
	corners                   [][3]geom.Vec // on the sheet, by leaf, the glued one last
	flat                      *fold.State   // the ring glued, lying flat
	facets                    [][]fold.FacetID
	sense                     float64 // +1 where places run counter-clockwise as one looks at the front, else -1
	glued                     int     // step that glues it
	homes                     []home  // by face
	// The last leaf is glued over one side of the first: that is seen on it instead.
	hidden, instead ring.Leaf
}

// home is where a face is first seen: the state, and how its hexagon lies.
type home struct {
	state int
	front [ring.Pats]ring.Leaf
}

// gluedAt is the step that closes the ring; 0 when none does.
func gluedAt(r *sequence.Replay) int {
	for _, d := range r.Steps {
		if d.Op == sequence.OpGlue {
			return d.No
		}
	}
	return 0
}

// Of reads a ring off a replay that went to its end.
func Of(r *sequence.Replay) (Geometry, error) {
	g := Geometry{ThickMM: r.Sheet.ThicknessMM, GSM: r.Sheet.GSM}
	names := r.Pattern.Heads(headLeaves)
	g.glued = gluedAt(r)
	if len(names) < 10 || g.glued == 0 {
		return g, fmt.Errorf("%w: it needs ten or nineteen leaves, the last one glued to the first", ErrNoRing)
	}
	g.Leaves = len(names) - 1
	g.flat = r.Steps[g.glued-1].After
	if err := g.strip(r, names); err != nil {
		return g, err
	}
	g.MassG = toys.PaperG(r)
	if err := g.read(); err != nil {
		return g, err
	}
	var err error
	if g.Graph, err = ring.GraphOf(g.State); err != nil {
		return g, fmt.Errorf("%w: %w", ErrNoRing, err)
	}
	g.findHomes()
	return g, nil
}

// strip finds the triangles on the sheet, and their corners in the order of the strip.
func (g *Geometry) strip(r *sequence.Replay, names []string) error {
	var triangles []geom.Polygon
	for _, n := range names {
		at, known := r.Landmarks[n]
		if !known {
			return fmt.Errorf("%w: no landmark is called %s", ErrNoRing, n)
		}
		facets := g.flat.FacetsAtSheet(at)
		if len(facets) == 0 {
			return fmt.Errorf("%w: %s lies on no paper", ErrNoRing, r.Pattern.Called(n))
		}
		t := g.flat.F[facets[0]].Poly.Straightened()
		if len(t) != 3 {
			return fmt.Errorf("%w: the leaf at %s is no triangle", ErrNoRing, r.Pattern.Called(n))
		}
		triangles = append(triangles, t)
		g.facets = append(g.facets, facets[:1])
	}
	has := func(t geom.Polygon, v geom.Vec) bool {
		return slices.ContainsFunc(t, func(q geom.Vec) bool { return q.Dist(v) < geom.Distinct })
	}
	// Leaf k has the corners k, k+1 and k+2; the first of them is not one of the next leaf.
	n := len(triangles)
	var line []geom.Vec
	for k := 0; k+1 < n; k++ {
		i := slices.IndexFunc(triangles[k], func(v geom.Vec) bool { return !has(triangles[k+1], v) })
		if i < 0 {
			return fmt.Errorf("%w: leaves %d and %d do not share one side", ErrNoRing, k+1, k+2)
		}
		line = append(line, triangles[k][i])
	}
	last := triangles[n-1]
	for _, in := range []bool{true, false} { // shared with the leaf before the last but one first
		for _, v := range last {
			before := has(triangles[n-3], v)
			shared := has(triangles[n-2], v)
			if shared && before == in {
				line = append(line, v)
			}
		}
	}
	for _, v := range last {
		if !has(triangles[n-2], v) {
			line = append(line, v)
		}
	}
	if len(line) != n+2 {
		return fmt.Errorf("%w: the leaves do not follow one another along a strip", ErrNoRing)
	}
	for k := range n {
		g.corners = append(g.corners, [3]geom.Vec{line[k], line[k+1], line[k+2]})
	}
	g.SideMM = line[0].Dist(line[2])
	g.WidthMM = ring.WidthMM(g.SideMM)
	g.LengthMM = ring.LengthMM(g.WidthMM, n)
	return nil
}

// read tells how the leaves lie in the hexagon.
func (g *Geometry) read() error {
	var centre geom.Vec
	spots := make([]geom.Vec, g.Leaves)
	for k := range spots {
		f := g.flat.F[g.facets[k][0]]
		spots[k] = f.Iso.Apply(f.Poly.Centroid())
		centre = centre.Add(spots[k].Scale(1 / float64(g.Leaves)))
	}
	sector := map[int]int{}
	var at [ring.Pats]geom.Vec
	zero := spots[0].Sub(centre)
	for k, v := range spots {
		d := v.Sub(centre)
		turn := geom.Deg(math.Atan2(zero.Cross(d), zero.Dot(d)))
		s := (int(math.Round(turn/60)) + ring.Pats) % ring.Pats
		sector[k+1], at[s] = s, v
	}
	var places [ring.Pats]ring.Pat
	for s, v := range at {
		for _, f := range g.flat.StackAt(v) {
			k := slices.IndexFunc(g.facets, func(all []fold.FacetID) bool { return all[0] == f })
			if k < 0 || k >= g.Leaves { // the glued one goes with the first
				continue
			}
			places[s] = append(places[s], ring.Leaf{No: k + 1, Back: !g.flat.F[f].Iso.FaceUp()})
		}
	}
	g.covered()
	// The strip runs round the one way or the other.
	g.sense = 1
	run := func(step int) (s ring.State) {
		for i := range s {
			s[i] = places[((i*step)%ring.Pats+ring.Pats)%ring.Pats]
		}
		return s
	}
	g.State = run(1)
	if !follows(g.State, g.Leaves) {
		g.sense, g.State = -1, run(-1)
	}
	if !follows(g.State, g.Leaves) {
		return fmt.Errorf("%w: its leaves do not lie in a ring of six places", ErrNoRing)
	}
	return nil
}

// covered finds which side of the first leaf the glued one covers, and what shows instead.
func (g *Geometry) covered() {
	first, last := g.facets[0][0], g.facets[g.Leaves][0]
	up := g.flat.Above(last, first) > 0
	g.hidden = ring.Leaf{No: 1, Back: g.flat.F[first].Iso.FaceUp() != up}
	g.instead = ring.Leaf{No: g.Leaves + 1, Back: g.flat.F[last].Iso.FaceUp() != up}
}

// seen is where on the strip a leaf side that shows is: that of the glued leaf for the one it
// covers.
func (g *Geometry) seen(l ring.Leaf) ring.Leaf {
	if l == g.hidden {
		return g.instead
	}
	return l
}

// follows tells whether each place begins where the one before ends.
func follows(s ring.State, n int) bool {
	for i, p := range s {
		if _, ok := p.Placed(n); !ok {
			return false
		}
		last, first := 0, 0
		next := s[(i+1)%ring.Pats]
		has := func(q ring.Pat, no int) bool {
			return slices.ContainsFunc(q, func(l ring.Leaf) bool { return l.No == no })
		}
		for _, l := range p {
			if !has(p, l.No%n+1) {
				last = l.No
			}
		}
		for _, l := range next {
			if !has(next, (l.No+n-2)%n+1) {
				first = l.No
			}
		}
		if last%n+1 != first {
			return false
		}
	}
	return true
}

// corner is where a corner of place i lies in the hexagon, mm about its middle.
func (g *Geometry) corner(i int, c ring.Corner) geom.Vec {
	if c == ring.Middle {
		return geom.Vec{}
	}
	if c == ring.After {
		i++
	}
	s, k := math.Sincos(g.sense*geom.Rad(60*float64(i)) + math.Pi/2)
	return geom.Vec{X: k, Y: s}.Scale(g.SideMM)
}

// onHexagon is how the sheet comes to lie in a state, at a leaf: a motion of the plane, which
// turns it over where its back shows.
func (g *Geometry) onHexagon(s ring.State, place, no int) geom.Iso2 {
	all, _ := s.Placed(place)
	lies := all[no]
	a := g.corners[no-1]
	if on := g.seen(leafIn(s[place], no)); on.No != no {
		a = g.corners[on.No-1]
	}
	return planar([3]geom.Vec(a), [3]geom.Vec{g.corner(place, lies[0]), g.corner(place, lies[1]), g.corner(place, lies[2])})
}

// leafIn is a leaf of a pat as it lies there.
func leafIn(p ring.Pat, no int) ring.Leaf {
	return p[slices.IndexFunc(p, func(l ring.Leaf) bool { return l.No == no })]
}

// planar is the isometry of the plane that brings a triangle onto one of the same sides.
func planar(a, b [3]geom.Vec) geom.Iso2 {
	u, v := a[1].Sub(a[0]), a[2].Sub(a[0])
	p, q := b[1].Sub(b[0]), b[2].Sub(b[0])
	det := u.Cross(v)
	// The matrix that takes u to p and v to q.
	m := geom.Iso2{
		A: (p.X*v.Y - q.X*u.Y) / det, B: (q.X*u.X - p.X*v.X) / det,
		C: (p.Y*v.Y - q.Y*u.Y) / det, D: (q.Y*u.X - p.Y*v.X) / det,
	}
	t := b[0].Sub(m.Turn(a[0]))
	m.TX, m.TY = t.X, t.Y
	return m
}

// findHomes chooses for each face the state in which it is first seen in front.
func (g *Geometry) findHomes() {
	g.homes = make([]home, g.Graph.Faces)
	seen := map[int]bool{}
	for i, s := range g.Graph.States {
		f := g.Graph.Front[i]
		if !seen[f] {
			seen[f] = true
			g.homes[f-1] = home{i, s.Front()}
		}
	}
}

// places are the faces, and the six sectors of each, on the sheet.
func (g *Geometry) places() []toys.Place {
	var out []toys.Place
	for f, h := range g.homes {
		face := toys.Place{Name: fmt.Sprintf("face %d", f+1), Zone: "face", Label: fmt.Sprintf("Face %d", f+1), Shown: "in front when it is flexed there"}
		var sectors []toys.Place
		s := g.Graph.States[h.state]
		for i, leaf := range h.front {
			iso := g.onHexagon(s, i, leaf.No)
			back := iso.Inverse()
			leaf = g.seen(leaf)
			area := triangle(g.corners[leaf.No-1])
			along, down := back.Turn(geom.Vec{X: 1}), back.Turn(geom.Vec{Y: -1})
			r := g.SideMM
			face.Areas = append(face.Areas, area)
			face.Picture = append(face.Picture, toys.Frame{Area: area, Corner: back.Apply(geom.Vec{X: -r, Y: r}), Along: along.Scale(2 * r), Down: down.Scale(2 * r), Back: leaf.Back})
			p := toys.Place{Name: fmt.Sprintf("sector %d", f*ring.Pats+i+1), Zone: "sector", Label: fmt.Sprintf("Face %d, triangle %d", f+1, i+1), Shown: face.Label, Back: leaf.Back,
				Text: area, Areas: []geom.Polygon{area}, TurnDeg: turnOf(along, leaf.Back)}
			sectors = append(sectors, p)
		}
		out = append(append(out, face), sectors...)
	}
	return out
}

// turnOf is by how much what runs along a direction of the sheet is turned, as one looks at
// its face.
func turnOf(along geom.Vec, back bool) float64 {
	x := along.X
	if back {
		x = -x
	}
	return math.Round(geom.Deg(math.Atan2(along.Y, x))*1e6) / 1e6
}

// triangle runs counter-clockwise, as pieces of paper do.
func triangle(c [3]geom.Vec) geom.Polygon {
	p := geom.Polygon{c[0], c[1], c[2]}
	if p.Area() < 0 {
		p[1], p[2] = p[2], p[1]
	}
	return p
}
