package closure

import (
	"math"
	"slices"

	"tussock/internal/geom"
)

// unknowns makes one unknown of each set of hinges that symmetry ties together: hinges
// that a rotation or mirror image of the sheet maps onto each other, when it maps all
// others as well, with their angles, whether they may move and what is asked of them.
func (m *Mechanism) unknowns(a Ask, movable []bool) (orbit []int32, n int) {
	from := m.from(a)
	orbit = make([]int32, len(m.s.H))
	root := make([]int, len(orbit))
	for i := range root {
		root[i] = i
	}
	if a.Tied {
		m.tie(a, from, movable, root)
	}
	number := map[int]int32{}
	for i := range orbit {
		orbit[i] = -1
		if !movable[i] {
			continue
		}
		r := find(root, i)
		if _, known := number[r]; !known {
			number[r] = int32(len(number))
		}
		orbit[i] = number[r]
	}
	return orbit, len(number)
}

func find(root []int, i int) int {
	for root[i] != i {
		root[i] = root[root[i]]
		i = root[i]
	}
	return i
}

// label is all that must agree of two hinges that are tied.
type label struct {
	rho, target, want float64
	movable, driven   bool
	sense             int8
	must              bool
	far, long         float64
}

func (l label) like(k label) bool {
	return l.movable == k.movable && l.driven == k.driven && l.sense == k.sense && l.must == k.must &&
		math.Abs(l.rho-k.rho) < 1e-9 && math.Abs(l.target-k.target) < 1e-9 && math.Abs(l.want-k.want) < 1e-9 &&
		math.Abs(l.far-k.far) < 1e-4 && math.Abs(l.long-k.long) < 1e-4
}

// tie unites hinges under the symmetries of all that takes part.
func (m *Mechanism) tie(a Ask, from []float64, movable []bool, root []int) {
	part, glued := m.taking(movable)
	if glued {
		return // what is glued need not be where its mirror image is
	}
	labels := make([]label, len(m.s.H))
	var centre geom.Vec
	var weight float64
	for _, i := range part {
		h := m.s.H[i]
		l := h.P.Dist(h.Q)
		centre, weight = centre.Add(geom.Mid(h.P, h.Q).Scale(l)), weight+l
	}
	if weight == 0 {
		return
	}
	centre = centre.Scale(1 / weight)
	for _, i := range part {
		h := m.s.H[i]
		l := label{rho: from[i], movable: movable[i], sense: a.Sense[int32(i)], must: slices.Contains(a.Must, int32(i)),
			far: geom.Mid(h.P, h.Q).Dist(centre), long: h.P.Dist(h.Q)}
		if a.Home == Towards {
			l.target = a.Target[i]
		}
		for _, d := range a.Drives {
			if d.Spots == nil && d.Hinge == int32(i) {
				l.driven, l.want = true, d.Want
			}
		}
		labels[i] = l
	}
	ref := -1
	for _, i := range part { // any hinge whose middle is not the centre
		if labels[i].far > 1e-3 && (ref < 0 || labels[i].far > labels[ref].far) {
			ref = i
		}
	}
	if ref < 0 {
		return
	}
	at := func(i int) float64 {
		v := geom.Mid(m.s.H[i].P, m.s.H[i].Q).Sub(centre)
		return math.Atan2(v.Y, v.X)
	}
	for _, k := range part {
		if !labels[k].like(labels[ref]) {
			continue
		}
		turned := geom.Rotation(at(k)-at(ref), centre)
		half := (at(k) + at(ref)) / 2
		mirrored := geom.Reflection(geom.LineAt(centre, geom.Vec{X: math.Cos(half), Y: math.Sin(half)}))
		for _, iso := range []geom.Iso2{turned, mirrored} {
			if to, ok := m.maps(iso, part, labels); ok && keeps(iso, a.Drives) {
				for n, i := range part {
					if p, q := find(root, i), find(root, to[n]); p != q {
						root[q] = p
					}
				}
			}
		}
	}
}

// taking are the hinges of all loops in which anything may move; glued tells that some of
// these loops go over glue.
func (m *Mechanism) taking(movable []bool) (part []int, glued bool) {
	m.look()
	in := make([]bool, len(movable))
	copy(in, movable)
	for _, l := range m.loops {
		if slices.ContainsFunc(l.turns, func(t turn) bool { return movable[t.hinge] }) {
			for _, t := range l.turns {
				in[t.hinge] = true
			}
		}
	}
	for i, ok := range in {
		if ok {
			part, glued = append(part, i), glued || m.axis[i].glued != nil
		}
	}
	return part, glued
}

// maps tells onto which hinges those taking part are mapped.
func (m *Mechanism) maps(iso geom.Iso2, part []int, labels []label) ([]int, bool) {
	to := make([]int, len(part))
	for n, i := range part {
		h := m.s.H[i]
		p, q := iso.Apply(h.P), iso.Apply(h.Q)
		to[n] = -1
		for _, k := range part {
			g := m.s.H[k]
			near := p.Dist(g.P) < 1e-4 && q.Dist(g.Q) < 1e-4 || p.Dist(g.Q) < 1e-4 && q.Dist(g.P) < 1e-4
			if near && labels[k].like(labels[i]) {
				to[n] = k
				break
			}
		}
		if to[n] < 0 {
			return nil, false
		}
	}
	return to, true
}

// keeps tells whether spots that are pulled apart are mapped onto each other.
func keeps(iso geom.Iso2, drives []Drive) bool {
	for _, d := range drives {
		if d.Spots == nil {
			continue
		}
		p, q := iso.Apply(d.Spots[0].At), iso.Apply(d.Spots[1].At)
		a, b := d.Spots[0].At, d.Spots[1].At
		if !(p.Dist(a) < 1e-4 && q.Dist(b) < 1e-4 || p.Dist(b) < 1e-4 && q.Dist(a) < 1e-4) {
			return false
		}
	}
	return true
}

// Orbits numbers the hinges that may move: those tied by symmetry have the same number, -1
// is for hinges that stay.
func (m *Mechanism) Orbits(a Ask) []int32 {
	orbit, _ := m.unknowns(a, m.movable(a))
	return orbit
}
