package fold

import (
	"math"

	"tussock/internal/geom"
	"tussock/internal/sheet"
)

// MaxFacets bounds the work of one replay; a hand-folded toy has under a hundred.
const MaxFacets = 1024

// FacetID numbers the pieces of one state, from 0. Numbers never reach a person.
type FacetID int32

// CreaseID numbers the creases of a replay in the order they are made; 0 is none.
type CreaseID int32

// Facet is one flat piece of paper between creases.
type Facet struct {
	Poly   geom.Polygon // sheet coordinates, counter-clockwise, convex
	Iso    geom.Iso2    // sheet to folded plane; a reflection shows the back
	Parent FacetID      // the piece it was cut from in the state before
}

// Folded is the piece where it lies now.
func (f Facet) Folded() geom.Polygon { return f.Poly.Moved(f.Iso) }

// Hinge is one straight contact between two pieces.
type Hinge struct {
	A, B   FacetID
	P, Q   geom.Vec // ends, sheet coordinates
	Crease CreaseID // the step that made it
}

// Assignment is how a hinge is folded, seen from the front of the flat sheet.
type Assignment int8

const (
	Flat     Assignment = 0  // creased and opened again, or never pressed
	Mountain Assignment = 1  // ridge towards the viewer
	Valley   Assignment = -1 // ridge away from the viewer
)

// State is the folded sheet after some steps. It is never changed once made.
type State struct {
	Sheet  sheet.Sheet
	F      []Facet
	H      []Hinge
	order  []int8 // n*n, row i: +1 i above j, -1 i below j, 0 no common area
	folded []geom.Polygon
}

// Start is the unfolded sheet.
func Start(s sheet.Sheet) *State {
	st := &State{Sheet: s, F: []Facet{{Poly: s.Outline(), Iso: geom.Identity}}, order: make([]int8, 1)}
	st.refresh()
	return st
}

func (s *State) refresh() {
	s.folded = make([]geom.Polygon, len(s.F))
	for i := range s.F {
		s.folded[i] = s.F[i].Folded()
	}
}

// Folded is where piece i lies, counter-clockwise in the folded plane.
func (s *State) Folded(i FacetID) geom.Polygon { return s.folded[i] }

// Above tells the order of two pieces: +1 i lies above j, -1 below, 0 when they
// share no area.
func (s *State) Above(i, j FacetID) int8 { return s.order[int(i)*len(s.F)+int(j)] }

// Assigned is the sense in which hinge h is folded.
func (s *State) Assigned(h Hinge) Assignment {
	a, b := s.F[h.A].Iso, s.F[h.B].Iso
	if a.FaceUp() == b.FaceUp() {
		return Flat
	}
	v := -s.Above(h.B, h.A)
	if !a.FaceUp() {
		v = -v
	}
	return Assignment(v)
}

// Counts are the hinges of a state: all, folded, and by sense.
type Counts struct{ Hinges, Folded, Mountain, Valley int }

// Count the hinges.
func (s *State) Count() Counts {
	c := Counts{Hinges: len(s.H)}
	for _, h := range s.H {
		switch s.Assigned(h) {
		case Mountain:
			c.Mountain++
		case Valley:
			c.Valley++
		}
	}
	c.Folded = c.Mountain + c.Valley
	return c
}

// Box is the extent of the folded toy in mm.
func (s *State) Box() geom.Box {
	b := geom.EmptyBox()
	for _, p := range s.folded {
		b = b.Grow(p...)
	}
	return b
}

// FacetsAtSheet are the pieces that contain a point of the sheet, in order of
// number; several when it lies on a crease.
func (s *State) FacetsAtSheet(p geom.Vec) []FacetID {
	var out []FacetID
	for i := range s.F {
		if s.F[i].Poly.Contains(p, geom.OnPaper) {
			out = append(out, FacetID(i))
		}
	}
	return out
}

// TopAt is the uppermost piece at a point of the folded plane; ok is false off
// the paper.
func (s *State) TopAt(p geom.Vec) (id FacetID, ok bool) {
	for i := range s.F {
		if !s.folded[i].Contains(p, geom.OnPaper) {
			continue
		}
		if !ok || s.Above(FacetID(i), id) > 0 {
			id, ok = FacetID(i), true
		}
	}
	return id, ok
}

// Ranked are all pieces from the lowest to the uppermost, so that painting them
// in turn shows the toy. Where the order leaves a choice the lower number comes
// first. ok is false if layers lie in a ring, each on the next.
func (s *State) Ranked() (order []FacetID, ok bool) {
	n := len(s.F)
	below := make([]int, n) // pieces still to be painted under i
	for i := range n {
		for j := range n {
			if s.order[i*n+j] > 0 {
				below[i]++
			}
		}
	}
	done := make([]bool, n)
	for len(order) < n {
		next := -1
		for i := range n {
			if !done[i] && below[i] == 0 {
				next = i
				break
			}
		}
		if next < 0 {
			return order, false
		}
		done[next] = true
		order = append(order, FacetID(next))
		for i := range n {
			if s.order[i*n+next] > 0 {
				below[i]--
			}
		}
	}
	return order, true
}

// Depths is for each piece the length of the longest chain of layers beneath
// it: 0 for what lies on the table.
func (s *State) Depths() []int {
	ranked, _ := s.Ranked()
	d := make([]int, len(s.F))
	for _, i := range ranked {
		for j := range s.F {
			if s.Above(i, FacetID(j)) > 0 && d[j]+1 > d[i] {
				d[i] = d[j] + 1
			}
		}
	}
	return d
}

// WorstGap is the largest opening at any hinge in mm; 0 for a sound state.
func (s *State) WorstGap() float64 {
	var worst float64
	for _, h := range s.H {
		worst = math.Max(worst, s.gap(h))
	}
	return worst
}

func (s *State) gap(h Hinge) float64 {
	a, b := s.F[h.A].Iso, s.F[h.B].Iso
	return math.Max(a.Apply(h.P).Dist(b.Apply(h.P)), a.Apply(h.Q).Dist(b.Apply(h.Q)))
}
