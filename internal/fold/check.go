package fold

import (
	"fmt"
	"math"
	"slices"

	"tussock/internal/geom"
)

// Faults is the full check of a state, for tests and for the end of a replay:
// every hinge closed, area conserved (cut-off parts included), the order table antisymmetric and present
// for exactly the overlapping pairs, no layer passing through a hinge, and the
// angle and count rules at every interior vertex. It returns one sentence per
// fault; none for a sound state.
func (s *State) Faults() []string {
	var out []string
	say := func(format string, a ...any) { out = append(out, fmt.Sprintf(format, a...)) }
	if g := s.WorstGap(); g > geom.Tear {
		say("a hinge is open by %g mm", g)
	}
	var area float64
	for _, f := range s.F {
		a := f.Poly.Area()
		if a <= 0 {
			say("a piece has area %g", a)
		}
		area += a
	}
	for _, p := range s.Removed {
		area += math.Abs(p.Area())
	}
	if want := s.Sheet.AreaMM2(); math.Abs(area-want) > 1e-6*want {
		say("area is %g of %g mm²", area, want)
	}
	for i := range s.F {
		for j := range i {
			a, b := s.Above(FacetID(i), FacetID(j)), s.Above(FacetID(j), FacetID(i))
			if a != -b {
				say("order of %d and %d is %d and %d", i, j, a, b)
			}
			if over := geom.Overlaps(s.folded[i], s.folded[j]); over != (a != 0) {
				say("pieces %d and %d: overlap %v, order %d", i, j, over, a)
			}
		}
	}
	out = append(out, s.rings()...)
	out = append(out, s.pierced()...)
	return append(out, s.vertexFaults()...)
}

// rings finds three layers with a common spot that lie each on the next. Rings
// without a common spot are sound (a twist has one).
func (s *State) rings() []string {
	if _, ok := s.Ranked(); ok {
		return nil // one order of all pieces: no ring at all
	}
	n := len(s.F)
	for i := range n {
		for j := range n {
			if s.order[i*n+j] <= 0 {
				continue
			}
			for k := range i {
				if s.order[j*n+k] > 0 && s.order[k*n+i] > 0 {
					if c := geom.ClipConvex(s.folded[i], s.folded[j]); c != nil && geom.Overlaps(c, s.folded[k]) {
						return []string{fmt.Sprintf("layers %d, %d and %d lie in a ring", i, j, k)}
					}
				}
			}
		}
	}
	return nil
}

// pierced finds layers that pass through a hinge: a piece crossed in its
// interior by a hinge lies above both its pieces or below both (the
// taco-tortilla condition of flat folding).
func (s *State) pierced() []string {
	var out []string
	for _, h := range s.H {
		if h.Kind == Glue {
			continue
		}
		iso := s.F[h.A].Iso
		p, q := iso.Apply(h.P), iso.Apply(h.Q)
		l, ok := geom.LineThrough(p, q)
		if !ok {
			continue
		}
		for c := range s.F {
			id := FacetID(c)
			if id == h.A || id == h.B {
				continue
			}
			if a, b := s.Above(h.A, id), s.Above(h.B, id); a != 0 && b != 0 && a != b && geom.Crosses(s.folded[c], l, p, q) {
				out = append(out, fmt.Sprintf("piece %d passes through the hinge of %d and %d", c, h.A, h.B))
			}
		}
	}
	return out
}

// vertexFaults checks Maekawa's rule (mountains and valleys differ by two) and
// Kawasaki's (alternate angles add up to 180°) at every interior vertex.
func (s *State) vertexFaults() []string {
	var out []string
	var seen []geom.Vec
	for _, h := range s.H {
		for _, v := range []geom.Vec{h.P, h.Q} {
			known := false
			for _, w := range seen {
				known = known || v.Dist(w) < geom.OnPaper
			}
			if known || s.onEdge(v) {
				continue
			}
			seen = append(seen, v)
			out = append(out, s.vertexAt(v)...)
		}
	}
	return out
}

// onEdge tells whether a spot lies on the rim of the paper: on the sheet's own, or
// where the pieces around it leave part of the full turn free.
func (s *State) onEdge(v geom.Vec) bool {
	rim := s.Sheet.Outline()
	for i, a := range rim {
		if (geom.Segment{A: a, B: rim[(i+1)%len(rim)]}).Dist(v) < geom.OnPaper {
			return true
		}
	}
	var turn float64
	for _, f := range s.F {
		turn += f.Poly.AngleAt(v)
	}
	return turn < 2*math.Pi-1e-4
}

func (s *State) vertexAt(v geom.Vec) []string {
	var angles []float64
	m := 0
	for _, h := range s.H {
		a := s.Assigned(h)
		if a == Flat {
			continue
		}
		if h.P.Dist(h.Q) < geom.Overlap {
			continue
		}
		if l := geom.LineAt(h.P, h.Q.Sub(h.P)); math.Abs(l.Side(v)) > geom.OnPaper {
			continue
		}
		for _, end := range [][2]geom.Vec{{h.P, h.Q}, {h.Q, h.P}} {
			if end[0].Dist(v) < geom.OnPaper {
				d := end[1].Sub(v)
				angles = append(angles, math.Atan2(d.Y, d.X))
				m += int(a)
			}
		}
	}
	if len(angles) == 0 {
		return nil
	}
	var out []string
	if m != 2 && m != -2 {
		out = append(out, fmt.Sprintf("mountains less valleys is %d at %.3f", m, v))
	}
	slices.Sort(angles)
	var alt float64
	for i := 0; i+1 < len(angles); i += 2 {
		alt += angles[i+1] - angles[i]
	}
	if len(angles)%2 == 1 || math.Abs(alt-math.Pi) > 1e-6 {
		out = append(out, fmt.Sprintf("alternate angles add up to %.4f° at %.3f", geom.Deg(alt), v))
	}
	return out
}
