package exchange

import (
	"fmt"
	"math"
	"slices"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sheet"
)

// meshed is a state's flat sheet as shared corners, edges and faces.
type meshed struct {
	at    []geom.Vec
	of    []fold.FacetID // a piece that each corner belongs to
	rings [][]int
	edges []meshedEdge
}

type meshedEdge struct {
	a, b     int
	assigned string
}

const weld = geom.Overlap

// corners are those of a piece, each once.
func corners(p geom.Polygon) geom.Polygon {
	var out geom.Polygon
	for i, v := range p {
		if v.Dist(p[(i+len(p)-1)%len(p)]) >= weld {
			out = append(out, v)
		}
	}
	return out
}

// meshOf welds the corners of all pieces and the ends of all hinges, and cuts
// every side at the corners that lie on it.
func meshOf(s *fold.State) meshed {
	var m meshed
	find := func(p geom.Vec, f fold.FacetID) int {
		for i, q := range m.at {
			if q.Dist(p) < weld {
				return i
			}
		}
		m.at, m.of = append(m.at, p), append(m.of, f)
		return len(m.at) - 1
	}
	for i, f := range s.F {
		for _, v := range corners(f.Poly) {
			find(v, fold.FacetID(i))
		}
	}
	for _, h := range s.H {
		if h.Kind != fold.Glue {
			find(h.P, h.A)
			find(h.Q, h.A)
		}
	}
	m.sort()
	seen := map[[2]int]bool{}
	for i, f := range s.F {
		var ring []int
		poly := corners(f.Poly)
		for k, v := range poly {
			w := poly[(k+1)%len(poly)]
			ring = append(ring, m.along(find(v, fold.FacetID(i)), find(w, fold.FacetID(i)))...)
		}
		low := slices.Index(ring, slices.Min(ring)) // begin at the first corner
		ring = append(ring[low:len(ring):len(ring)], ring[:low]...)
		m.rings = append(m.rings, ring)
		for k, a := range ring {
			b := ring[(k+1)%len(ring)]
			key := [2]int{min(a, b), max(a, b)}
			if !seen[key] {
				seen[key] = true
				m.edges = append(m.edges, meshedEdge{key[0], key[1], assignedAt(s, fold.FacetID(i), geom.Mid(m.at[a], m.at[b]))})
			}
		}
	}
	slices.SortFunc(m.edges, func(x, y meshedEdge) int {
		if x.a != y.a {
			return x.a - y.a
		}
		return x.b - y.b
	})
	return m
}

// sort puts corners in order of place, from the bottom up and left to right, so
// that the same toy is always written the same way.
func (m *meshed) sort() {
	order := make([]int, len(m.at))
	for i := range order {
		order[i] = i
	}
	slices.SortFunc(order, func(i, j int) int {
		a, b := m.at[i], m.at[j]
		if math.Abs(a.Y-b.Y) > weld && a.Y < b.Y || math.Abs(a.Y-b.Y) <= weld && a.X < b.X {
			return -1
		}
		return 1
	})
	at, of := make([]geom.Vec, len(order)), make([]fold.FacetID, len(order))
	for n, i := range order {
		at[n], of[n] = m.at[i], m.of[i]
	}
	m.at, m.of = at, of
}

// along are the corners from a up to, but without, b.
func (m *meshed) along(a, b int) []int {
	p, q := m.at[a], m.at[b]
	d := q.Sub(p).Unit()
	n := p.Dist(q)
	type stop struct {
		t float64
		i int
	}
	stops := []stop{{0, a}}
	for i, v := range m.at {
		if i == a || i == b {
			continue
		}
		w := v.Sub(p)
		if t := d.Dot(w); t > weld && t < n-weld && math.Abs(d.Cross(w)) < weld {
			stops = append(stops, stop{t, i})
		}
	}
	slices.SortFunc(stops, func(x, y stop) int {
		if x.t < y.t {
			return -1
		}
		return 1
	})
	out := make([]int, len(stops))
	for i, s := range stops {
		out[i] = s.i
	}
	return out
}

func assignedAt(s *fold.State, f fold.FacetID, mid geom.Vec) string {
	for _, h := range s.H {
		if h.A != f && h.B != f || h.Kind == fold.Glue || (geom.Segment{A: h.P, B: h.Q}).Dist(mid) > weld {
			continue
		}
		switch s.Assigned(h) {
		case fold.Mountain:
			return "M"
		case fold.Valley:
			return "V"
		}
		if h.Kind == fold.Construction {
			return "J"
		}
		return "F"
	}
	return "B"
}

// enclosed finds the faces of a plane drawing: from every edge, always turning
// most to the right, round to where it began; what runs counter-clockwise is a
// face.
func enclosed(at []geom.Vec, edges [][]int) [][]int {
	out := make([][]int, len(at))
	for _, e := range edges {
		out[e[0]], out[e[1]] = append(out[e[0]], e[1]), append(out[e[1]], e[0])
	}
	for v := range out {
		angle := func(w int) float64 { d := at[w].Sub(at[v]); return math.Atan2(d.Y, d.X) }
		slices.SortFunc(out[v], func(a, b int) int {
			if angle(a) < angle(b) {
				return -1
			}
			return 1
		})
	}
	used := map[[2]int]bool{}
	var faces [][]int
	for _, e := range edges {
		for _, start := range [][2]int{{e[0], e[1]}, {e[1], e[0]}} {
			if used[start] {
				continue
			}
			var ring []int
			a, b := start[0], start[1]
			for !used[[2]int{a, b}] {
				used[[2]int{a, b}] = true
				ring = append(ring, a)
				k := slices.Index(out[b], a)
				n := len(out[b])
				a, b = b, out[b][(k+n-1)%n]
			}
			var p geom.Polygon
			for _, v := range ring {
				p = append(p, at[v])
			}
			if len(ring) > 2 && p.Area() > 1e-9 {
				faces = append(faces, ring)
			}
		}
	}
	return faces
}

// outlineOf is the rim of all faces together. Sheets with holes or in several
// pieces are refused.
func outlineOf(at []geom.Vec, rings [][]int) (geom.Polygon, error) {
	has := map[[2]int]bool{}
	for _, r := range rings {
		for k, a := range r {
			has[[2]int{a, r[(k+1)%len(r)]}] = true
		}
	}
	next := map[int]int{}
	first := -1
	for _, r := range rings {
		for k, a := range r {
			b := r[(k+1)%len(r)]
			if has[[2]int{b, a}] {
				continue
			}
			if _, twice := next[a]; twice {
				return nil, bad("faces_vertices", fmt.Sprintf("faces that touch in vertex %d only", a), "one sheet without holes")
			}
			next[a] = b
			if first < 0 {
				first = a
			}
		}
	}
	var p geom.Polygon
	for v, n := first, 0; n == 0 || v != first; n++ {
		if n > len(next) {
			return nil, bad("faces_vertices", "faces with an open rim", "one sheet without holes")
		}
		p = append(p, at[v])
		w, ok := next[v]
		if !ok {
			return nil, bad("faces_vertices", "faces with an open rim", "one sheet without holes")
		}
		v = w
	}
	if len(p) < len(next) {
		return nil, bad("faces_vertices", "faces in several pieces, or with a hole", "one sheet without holes")
	}
	return p.Straightened(), nil
}

// sheetOf makes the sheet of an outline.
func sheetOf(outline geom.Polygon) (sheet.Sheet, error) {
	box := geom.EmptyBox().Grow(outline...)
	if len(outline) == 4 && math.Abs(outline.Area()-box.Width()*box.Height()) < 1e-6*outline.Area() {
		return sheet.New(box.Width(), box.Height(), 80, 0.1)
	}
	if len(outline) > sheet.MaxCorners {
		return sheet.Sheet{}, bad("edges_vertices", fmt.Sprintf("an outline with %d corners", len(outline)), fmt.Sprintf("at most %d", sheet.MaxCorners))
	}
	return sheet.Polygon(outline, 80, 0.1)
}
