package closure

import (
	"math"
	"slices"

	"tussock/internal/fold"
	"tussock/internal/geom"
)

// Mechanism is folded paper as pieces that turn about their hinges.
type Mechanism struct {
	s    *fold.State
	size float64   // longer side of the sheet's extent, mm: lengths are compared with it
	flat []float64 // angle of every hinge in the flat-folded state, rad
	axis []axis
	// touching are the hinges of each piece.
	touching [][]int32
	loops    []loop
	looked   bool    // for loops
	slack    float64 // by how much the worst loop is open in the flat-folded toy
	stack    []lying // pairs of pieces that lie on each other, found when first asked for
}

// axis is the line of a hinge on the sheet: a spot of it and its direction. A glued pair
// moves as one: its axis has the fixed motion from piece A to piece B instead.
type axis struct {
	p     geom.Vec
	d     geom.Vec
	glued *[2]geom.Iso3 // from A to B, and back
}

// turn is one hinge crossed on a way round a loop: sigma +1 if the piece one comes from
// lies left of the way from P to Q, -1 if right.
type turn struct {
	hinge int32
	sigma float64
}

// loop is a way round that must close: round a vertex turns alone, else shifts as well.
type loop struct {
	turns  []turn
	vertex bool
	// off is by how much it fails to close in the flat-folded toy: what measures and
	// landmarks leave, far below what tears. A motion keeps it.
	off [6]float64
}

func (l loop) rows() int {
	if l.vertex {
		return 3
	}
	return 6
}

// Of sets a folded state up as a mechanism.
func Of(s *fold.State) *Mechanism {
	m := &Mechanism{s: s, flat: make([]float64, len(s.H)), axis: make([]axis, len(s.H)), touching: make([][]int32, len(s.F))}
	box := geom.EmptyBox()
	for _, f := range s.F {
		box = box.Grow(f.Poly...)
	}
	m.size = math.Max(box.Width(), box.Height())
	for i, h := range s.H {
		m.flat[i] = math.Pi * float64(s.Assigned(h))
		m.axis[i] = axis{p: h.P, d: h.Q.Sub(h.P).Unit()}
		if h.Kind == fold.Glue {
			a, b := geom.Lift(s.F[h.A].Iso), geom.Lift(s.F[h.B].Iso)
			m.axis[i].glued = &[2]geom.Iso3{a.Inverse().After(b), b.Inverse().After(a)}
		}
		m.touching[h.A] = append(m.touching[h.A], int32(i))
		m.touching[h.B] = append(m.touching[h.B], int32(i))
	}
	return m
}

// Flat are the angles of the flat-folded state, one for each hinge.
func (m *Mechanism) Flat() []float64 { return slices.Clone(m.flat) }

// cross is the turn that leads out of piece f over hinge i, and the piece it leads to.
func (m *Mechanism) cross(f fold.FacetID, i int32) (turn, fold.FacetID) {
	h := m.s.H[i]
	g, _ := h.Other(f)
	if h.Kind == fold.Glue {
		if f == h.A {
			return turn{i, 1}, g
		}
		return turn{i, -1}, g
	}
	sigma := 1.0
	if m.axis[i].d.Cross(m.s.F[f].Poly.Centroid().Sub(h.P)) < 0 {
		sigma = -1
	}
	return turn{i, sigma}, g
}

// look finds the loops, once they are needed.
func (m *Mechanism) look() {
	if !m.looked {
		m.looked = true
		m.vertexLoops()
		m.otherLoops()
		for i := range m.loops {
			m.loops[i].off = m.open(&m.loops[i])
			for _, v := range m.loops[i].off {
				m.slack = math.Max(m.slack, math.Abs(v))
			}
		}
	}
}

// vertexLoops finds the ways round spots of the sheet at which hinges meet and pieces
// form a closed fan.
func (m *Mechanism) vertexLoops() {
	type end struct {
		at    geom.Vec
		hinge int32
	}
	var ends []end
	for i, h := range m.s.H {
		if h.Kind != fold.Glue {
			ends = append(ends, end{h.P, int32(i)}, end{h.Q, int32(i)})
		}
	}
	slices.SortFunc(ends, func(a, b end) int {
		if a.at.X != b.at.X {
			if a.at.X < b.at.X {
				return -1
			}
			return 1
		}
		return 0
	})
	used := make([]bool, len(ends))
	for i := range ends {
		if used[i] {
			continue
		}
		spot := []int32{ends[i].hinge}
		used[i] = true
		for j := i + 1; j < len(ends) && ends[j].at.X-ends[i].at.X < geom.Tear; j++ {
			if !used[j] && math.Abs(ends[j].at.Y-ends[i].at.Y) < geom.Tear {
				used[j] = true
				spot = append(spot, ends[j].hinge)
			}
		}
		m.fans(spot)
	}
}

// fans adds the closed ones of the fans of pieces round a spot where hinges end.
func (m *Mechanism) fans(spot []int32) {
	slices.Sort(spot)
	left := slices.Clone(spot)
	for len(left) > 0 {
		first := left[0]
		at := m.s.H[first].A
		var l loop
		l.vertex = true
		i, closed := first, false
		for {
			left = slices.DeleteFunc(left, func(j int32) bool { return j == i })
			t, g := m.cross(at, i)
			l.turns = append(l.turns, t)
			at = g
			next := int32(-1)
			for _, j := range m.touching[at] {
				if j != i && slices.Contains(spot, j) {
					next = j
				}
			}
			if next == first && len(l.turns) > 1 {
				closed = true
			}
			if next < 0 || next == first || !slices.Contains(left, next) {
				break
			}
			i = next
		}
		if closed && at == m.s.H[first].A {
			m.loops = append(m.loops, l)
		}
	}
}

// otherLoops adds ways round holes, slits and glued places: as many as the loops round
// vertices leave independent of themselves.
func (m *Mechanism) otherLoops() {
	n := len(m.s.F)
	parent, depth := make([]int32, n), make([]int, n)
	for i := range parent {
		parent[i], depth[i] = -1, -1
	}
	inTree := make([]bool, len(m.s.H))
	trees := 0
	for r := range n {
		if depth[r] >= 0 {
			continue
		}
		trees++
		depth[r] = 0
		for queue := []fold.FacetID{fold.FacetID(r)}; len(queue) > 0; queue = queue[1:] {
			f := queue[0]
			for _, i := range m.touching[f] {
				g, _ := m.s.H[i].Other(f)
				if depth[g] < 0 {
					depth[g], parent[g], inTree[i] = depth[f]+1, i, true
					queue = append(queue, g)
				}
			}
		}
	}
	if len(m.loops) == len(m.s.H)-n+trees {
		return // the paper has no hole: loops round vertices are all there are
	}
	var rank elimination
	for _, l := range m.loops {
		rank.add(l.set(len(m.s.H)))
	}
	for i, h := range m.s.H {
		if inTree[i] {
			continue
		}
		l := m.roundTrip(h, int32(i), parent, depth)
		if rank.add(l.set(len(m.s.H))) {
			m.loops = append(m.loops, l)
		}
	}
}

// roundTrip goes over hinge i and back through the tree.
func (m *Mechanism) roundTrip(h fold.Hinge, i int32, parent []int32, depth []int) loop {
	up := func(f fold.FacetID) fold.FacetID { g, _ := m.s.H[parent[f]].Other(f); return g }
	var l loop
	t, at := m.cross(h.A, i)
	l.turns = append(l.turns, t)
	var down []int32 // hinges from the meeting point to A, the last first
	a := h.A
	b := at
	for a != b {
		if depth[b] >= depth[a] {
			t, _ := m.cross(b, parent[b])
			l.turns = append(l.turns, t)
			b = up(b)
		} else {
			down = append(down, parent[a])
			a = up(a)
		}
	}
	for _, j := range slices.Backward(down) {
		t, g := m.cross(b, j)
		l.turns = append(l.turns, t)
		b = g
	}
	return l
}

func (l loop) set(hinges int) []uint64 {
	out := make([]uint64, (hinges+63)/64)
	for _, t := range l.turns {
		out[t.hinge/64] ^= 1 << (t.hinge % 64)
	}
	return out
}

// elimination keeps sets of hinges of which none is the sum of others (Gauss over GF(2)).
type elimination struct {
	rows  [][]uint64
	pivot []int
}

// add tells whether a set is independent of those before it.
func (e *elimination) add(row []uint64) bool {
	for k, p := range e.pivot {
		if row[p/64]>>(p%64)&1 == 1 {
			for w := range row {
				row[w] ^= e.rows[k][w]
			}
		}
	}
	for w, v := range row {
		for b := range 64 {
			if v>>b&1 == 1 {
				e.rows, e.pivot = append(e.rows, row), append(e.pivot, w*64+b)
				return true
			}
		}
	}
	return false
}

// swing is the motion over a hinge folded by rho, from the side that the turn comes from.
func (m *Mechanism) swing(t turn, rho float64) geom.Iso3 {
	a := &m.axis[t.hinge]
	if a.glued != nil {
		if t.sigma > 0 {
			return a.glued[0]
		}
		return a.glued[1]
	}
	return geom.Swing(geom.Vec3{X: a.p.X, Y: a.p.Y}, geom.Vec3{X: a.d.X, Y: a.d.Y}, t.sigma*rho)
}

// Place says where every piece lies in space when the hinges are folded so, with piece
// root where it lies in the flat-folded toy. Pieces that do not hang together with root
// stay there too.
func (m *Mechanism) Place(rho []float64, root fold.FacetID) []geom.Iso3 {
	at := make([]geom.Iso3, len(m.s.F))
	seen := make([]bool, len(at))
	m.walk(root, seen, func(f, g fold.FacetID, t turn) {
		if t.hinge < 0 {
			at[g] = geom.Lift(m.s.F[g].Iso)
			return
		}
		at[g] = at[f].After(m.swing(t, rho[t.hinge]))
	})
	for i := range seen {
		if !seen[i] {
			at[i] = geom.Lift(m.s.F[i].Iso)
		}
	}
	return at
}

// walk goes from piece to piece, over glue last of all: visit hears of the root with a
// turn of -1 and then of each step from f to g.
func (m *Mechanism) walk(root fold.FacetID, seen []bool, visit func(f, g fold.FacetID, t turn)) {
	visit(root, root, turn{-1, 0})
	seen[root] = true
	queue := []fold.FacetID{root}
	for k := 0; k < len(queue); k++ {
		f := queue[k]
		for _, i := range m.touching[f] {
			g, _ := m.s.H[i].Other(f)
			if seen[g] || m.axis[i].glued != nil {
				continue
			}
			seen[g] = true
			t, _ := m.cross(f, i)
			visit(f, g, t)
			queue = append(queue, g)
		}
	}
}

// Gap is the worst mismatch at any hinge of a pose, in mm: all of them are measured,
// whatever way the pieces were placed by.
func (m *Mechanism) Gap(at []geom.Iso3) float64 { return Gap(m.s, at) }

// Gap is the worst mismatch at any hinge of placed pieces, in mm.
func Gap(s *fold.State, at []geom.Iso3) float64 {
	var worst float64
	for _, h := range s.H {
		pb, qb := h.Ends(h.B)
		for _, v := range [2][2]geom.Vec{{h.P, pb}, {h.Q, qb}} {
			a := at[h.A].Apply(geom.Vec3{X: v[0].X, Y: v[0].Y})
			worst = math.Max(worst, a.Dist(at[h.B].Apply(geom.Vec3{X: v[1].X, Y: v[1].Y})))
		}
	}
	return worst
}

// On are the folded hinges that lie on a line of the folded plane.
func (m *Mechanism) On(l geom.Line) []int32 {
	var out []int32
	for i, h := range m.s.H {
		iso := m.s.F[h.A].Iso
		if m.flat[i] != 0 && math.Abs(l.Side(iso.Apply(h.P))) < geom.OnPaper && math.Abs(l.Side(iso.Apply(h.Q))) < geom.OnPaper {
			out = append(out, int32(i))
		}
	}
	return out
}
