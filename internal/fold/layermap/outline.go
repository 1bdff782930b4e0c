package layermap

import (
	"math"

	"tussock/internal/geom"
)

// mesh is the cells' sides cut at every corner that lies on them, with corners
// that coincide made one. Neighbouring cells then share whole sides.
type mesh struct {
	at    []geom.Vec
	sides []side
	owner map[[2]int32]int // side from a to b: index in sides
}

type side struct {
	a, b int32
	cell int
}

// weldMM is the distance within which corners of cells are one.
const weldMM = 1e-4

func newMesh(cells []Cell) *mesh {
	m := &mesh{owner: map[[2]int32]int{}}
	grid := map[[2]int64][]int32{}
	weld := func(p geom.Vec) int32 {
		gx, gy := int64(math.Floor(p.X/weldMM)), int64(math.Floor(p.Y/weldMM))
		for dx := int64(-1); dx <= 1; dx++ {
			for dy := int64(-1); dy <= 1; dy++ {
				for _, i := range grid[[2]int64{gx + dx, gy + dy}] {
					if m.at[i].Dist(p) < weldMM {
						return i
					}
				}
			}
		}
		i := int32(len(m.at))
		m.at = append(m.at, p)
		grid[[2]int64{gx, gy}] = append(grid[[2]int64{gx, gy}], i)
		return i
	}
	rings := make([][]int32, len(cells))
	for c, cell := range cells {
		for _, p := range cell.Poly {
			rings[c] = append(rings[c], weld(p))
		}
	}
	for c, ring := range rings {
		for k, a := range ring {
			b := ring[(k+1)%len(ring)]
			if a == b {
				continue
			}
			chain := m.between(a, b)
			for i := 0; i+1 < len(chain); i++ {
				m.owner[[2]int32{chain[i], chain[i+1]}] = len(m.sides)
				m.sides = append(m.sides, side{chain[i], chain[i+1], c})
			}
		}
	}
	return m
}

// between are the corners on the way from a to b, both included.
func (m *mesh) between(a, b int32) []int32 {
	p, q := m.at[a], m.at[b]
	d := q.Sub(p)
	n := d.Len()
	d = d.Scale(1 / n)
	type stop struct {
		t float64
		i int32
	}
	stops := []stop{{0, a}}
	box := geom.EmptyBox().Grow(p, q)
	for i, v := range m.at {
		if int32(i) == a || int32(i) == b || v.X < box.MinX-weldMM || v.X > box.MaxX+weldMM || v.Y < box.MinY-weldMM || v.Y > box.MaxY+weldMM {
			continue
		}
		w := v.Sub(p)
		if t := d.Dot(w); t > weldMM && t < n-weldMM && math.Abs(d.Cross(w)) < weldMM {
			stops = append(stops, stop{t, int32(i)})
		}
	}
	for i := 1; i < len(stops); i++ { // few: insertion sort
		for j := i; j > 1 && stops[j].t < stops[j-1].t; j-- {
			stops[j], stops[j-1] = stops[j-1], stops[j]
		}
	}
	out := make([]int32, 0, len(stops)+1)
	for _, s := range stops {
		out = append(out, s.i)
	}
	return append(out, b)
}

// across is the cell on the other side of a side; -1 outside the toy.
func (m *mesh) across(s side) int {
	if k, ok := m.owner[[2]int32{s.b, s.a}]; ok {
		return m.sides[k].cell
	}
	return -1
}

// Silhouette is the exact outline of what the cells cover: rims run
// counter-clockwise, holes clockwise, the largest rim first.
func Silhouette(cells []Cell) []geom.Polygon {
	m := newMesh(cells)
	next := map[int32][]int32{}
	for _, s := range m.sides {
		if m.across(s) < 0 {
			next[s.a] = append(next[s.a], s.b)
		}
	}
	var out []geom.Polygon
	for _, s := range m.sides { // in order, so that the result is always the same
		if len(next[s.a]) == 0 || m.across(s) >= 0 {
			continue
		}
		var ring geom.Polygon
		from, at := int32(-1), s.a
		for len(next[at]) > 0 {
			ring = append(ring, m.at[at])
			k := m.turn(from, at, next[at])
			to := next[at][k]
			next[at] = append(next[at][:k:k], next[at][k+1:]...)
			from, at = at, to
		}
		if r := ring.Straightened(); len(r) > 2 {
			out = append(out, r)
		}
	}
	for i := range out {
		if math.Abs(out[i].Area()) > math.Abs(out[0].Area()) {
			out[0], out[i] = out[i], out[0]
		}
	}
	return out
}

// turn picks the way on at a corner where rims touch: the one most to the left,
// so that rims that touch in a spot stay apart.
func (m *mesh) turn(from, at int32, to []int32) int {
	if from < 0 || len(to) == 1 {
		return 0
	}
	in := m.at[at].Sub(m.at[from])
	best, k := math.Inf(-1), 0
	for i, t := range to {
		d := m.at[t].Sub(m.at[at])
		if a := math.Atan2(in.Cross(d), in.Dot(d)); a > best {
			best, k = a, i
		}
	}
	return k
}
