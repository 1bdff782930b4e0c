package fold

import (
	"math"
	"slices"

	"tussock/internal/geom"
	"tussock/internal/sheet"
)

// MaxFacets bounds the work of one replay; a hand-folded toy has under three hundred, bent in strips some thousand.
const MaxFacets = 2048

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

// HingeKind tells how two pieces hang together.
type HingeKind int8

const (
	// Crease was pressed.
	Crease HingeKind = iota
	// Construction divides the paper for the engine only and was never pressed,
	// such as the part of a line beyond the end of a partial crease.
	Construction
	// Glue holds two pieces together face to face.
	Glue
)

// Hinge is one straight contact between two pieces. For Glue, P and Q are two
// spots of A and OnB the spots of B that they are stuck to.
type Hinge struct {
	A, B   FacetID
	P, Q   geom.Vec // ends, sheet coordinates
	Crease CreaseID // the step that made it
	Kind   HingeKind
	Line   int8        // which of the step's lines made it
	Parent int32       // the hinge it was cut from in the state before; -1 when new
	OnB    [2]geom.Vec // Glue only
}

// Ends are the two ends of a hinge on the sheet, as seen from piece f: for glue
// they differ from piece to piece.
func (h Hinge) Ends(f FacetID) (p, q geom.Vec) {
	if h.Kind == Glue && f == h.B {
		return h.OnB[0], h.OnB[1]
	}
	return h.P, h.Q
}

// Along tells whether h runs along one of the stretches of the sheet.
func (h Hinge) Along(stretches ...geom.Segment) bool {
	for _, s := range stretches {
		l, ok := geom.LineThrough(s.A, s.B)
		if !ok || math.Abs(l.Side(h.P)) > geom.OnPaper || math.Abs(l.Side(h.Q)) > geom.OnPaper {
			continue
		}
		if t := s.B.Sub(s.A).Unit().Dot(geom.Mid(h.P, h.Q).Sub(s.A)); t > 0 && t < s.Len() {
			return true
		}
	}
	return false
}

// Other is the piece that h joins to f; ok is false when it does not touch f.
func (h Hinge) Other(f FacetID) (g FacetID, ok bool) {
	switch f {
	case h.A:
		return h.B, true
	case h.B:
		return h.A, true
	}
	return 0, false
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
	Sheet   sheet.Sheet
	F       []Facet
	H       []Hinge
	Removed []geom.Polygon // cut off, sheet coordinates
	Choice  *Choice        // set when the order made here was not the only one
	order   []int8         // n*n, row i: +1 i above j, -1 i below j, 0 no common area
	folded  []geom.Polygon
}

// Choice says that a step leaves the order of two pieces open: another order is
// as valid as the one taken.
type Choice struct{ I, J FacetID }

// Start is the unfolded sheet: one piece, or several joined by construction
// lines where its outline is not convex.
func Start(s sheet.Sheet) *State {
	st := &State{Sheet: s}
	for _, p := range s.Pieces() {
		st.F = append(st.F, Facet{Poly: p, Iso: geom.Identity})
	}
	for _, j := range s.Joins() {
		st.H = append(st.H, Hinge{A: FacetID(j.A), B: FacetID(j.B), P: j.Seam.A, Q: j.Seam.B, Kind: Construction, Parent: -1})
	}
	st.order = make([]int8, len(st.F)*len(st.F))
	st.refresh()
	return st
}

// Refreshed is a state made from pieces and hinges alone, all flat and side by
// side.
func (s *State) Refreshed() *State {
	out := *s
	out.order = make([]int8, len(s.F)*len(s.F))
	out.refresh()
	return &out
}

// Displaced is the same state with its pieces lying a little elsewhere, in the same
// order: for pictures of paper folded with small errors.
func (s *State) Displaced(iso []geom.Iso2) *State {
	out := *s
	out.F = slices.Clone(s.F)
	for i := range out.F {
		out.F[i].Iso = iso[i]
	}
	out.refresh()
	return &out
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
	if h.Kind == Glue {
		return Flat
	}
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
	var c Counts
	for _, h := range s.H {
		if h.Kind != Glue {
			c.Hinges++
		}
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

// PaperMM2 is the area of the paper that is still there, in mm².
func (s *State) PaperMM2() float64 {
	var a float64
	for _, f := range s.F {
		a += f.Poly.Area()
	}
	return a
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

// BesideMM is how far a place of the folded plane lies from the paper, 0 on it.
func (s *State) BesideMM(p geom.Vec) float64 {
	if _, on := s.TopAt(p); on {
		return 0
	}
	near := math.Inf(1)
	for _, f := range s.folded {
		for i, a := range f {
			near = math.Min(near, geom.Segment{A: a, B: f[(i+1)%len(f)]}.Dist(p))
		}
	}
	return near
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
	p, q := h.Ends(h.B)
	return math.Max(a.Apply(h.P).Dist(b.Apply(p)), a.Apply(h.Q).Dist(b.Apply(q)))
}

// StackAt are the pieces at a place of the folded plane, the uppermost first.
func (s *State) StackAt(p geom.Vec) []FacetID {
	var out []FacetID
	for i := range s.F {
		if s.folded[i].Contains(p, 0) {
			out = append(out, FacetID(i))
		}
	}
	slices.SortStableFunc(out, func(a, b FacetID) int { return -int(s.Above(a, b)) })
	return out
}
