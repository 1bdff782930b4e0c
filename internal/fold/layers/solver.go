package layers

import (
	"context"
	"math"
	"math/bits"
	"slices"

	"tussock/internal/geom"
)

// maxTries bounds the search for a step; a hand-folded toy needs a handful.
const maxTries = 200_000

// literal is a pair's order as a multiple of another's: sign times variable.
type literal struct {
	v    int32
	sign int8
}

// solver holds the pairs that overlap as variables. Variable 0 is the constant
// "+1"; pairs known beforehand hang on it.
type solver struct {
	p       *Problem
	n       int
	index   []int32        // n*n: variable of a pair i<j and of j,i; -1 without common area
	pairs   [][2]int32     // by variable, i<j; entry 0 unused
	parent  []literal      // union-find, with the sign relative to the parent
	members lists[literal] // by root, the pairs that hang on it
	value   []int8         // by variable, 0 while open
	above   []uint64
	below   []uint64
	words   int
	parity  [][4]literal
	watch   lists[int32] // by variable, indices into parity
	queue   []int32
	trail   []int32
	inter   []geom.Polygon // by variable, what its two pieces share, once it was asked for
	clipped []bool
	alike   []int32 // pieces that lie on the very same place have the same number
	tries   int
	ctx     context.Context // of a count; nil for a step, which is bounded by its tries
	fail    *Conflict
	centre  []geom.Vec
}

func newSolver(p *Problem) *solver {
	n := len(p.Polys)
	s := &solver{p: p, n: n, index: make([]int32, n*n), pairs: make([][2]int32, 1), words: (n + 63) / 64,
		alike: placesOf(p.Polys)}
	s.above, s.below = make([]uint64, n*s.words), make([]uint64, n*s.words)
	boxes := make([]geom.Box, n)
	for i := range boxes {
		boxes[i] = geom.EmptyBox().Grow(p.Polys[i]...)
		s.centre = append(s.centre, p.Polys[i].Centroid())
	}
	for i := range n {
		s.index[i*n+i] = -1
		for j := i + 1; j < n; j++ {
			v := int32(-1)
			if p.Known[i*n+j] != 0 || boxes[i].Touches(boxes[j]) && geom.Overlaps(p.Polys[i], p.Polys[j]) {
				v = int32(len(s.pairs))
				s.pairs = append(s.pairs, [2]int32{int32(i), int32(j)})
			}
			s.index[i*n+j], s.index[j*n+i] = v, v
		}
	}
	m := len(s.pairs)
	s.parent, s.value = make([]literal, m), make([]int8, m)
	s.inter, s.clipped = make([]geom.Polygon, m), make([]bool, m)
	for v := range s.parent {
		s.parent[v] = literal{int32(v), 1}
	}
	s.value[0] = 1
	for v := int32(1); v < int32(m); v++ {
		if k := p.Known[int(s.pairs[v][0])*n+int(s.pairs[v][1])]; k != 0 {
			s.parent[v] = literal{0, k}
			s.value[v] = k
			s.note(v)
		}
	}
	return s
}

// lit is "i above j" as a literal; ok is false when they share no area.
func (s *solver) lit(i, j int) (literal, bool) {
	v := s.index[i*s.n+j]
	if v < 0 {
		return literal{}, false
	}
	if i < j {
		return literal{v, 1}, true
	}
	return literal{v, -1}, true
}

func (s *solver) find(l literal) literal {
	for s.parent[l.v].v != l.v {
		up := s.parent[l.v]
		if g := s.parent[up.v]; g.v != up.v { // halve the path
			s.parent[l.v] = literal{g.v, up.sign * g.sign}
			up = s.parent[l.v]
		}
		l = literal{up.v, l.sign * up.sign}
	}
	return l
}

// equal demands that two literals agree.
func (s *solver) equal(a, b literal, kind Kind, why string, pieces ...int) bool {
	a, b = s.find(a), s.find(b)
	if a.v == b.v {
		if a.sign != b.sign {
			s.conflict(kind, why, pieces...)
			return false
		}
		return true
	}
	if a.v == 0 {
		a, b = b, a
	}
	s.parent[a.v] = literal{b.v, a.sign * b.sign}
	return true
}

func (s *solver) conflict(kind Kind, why string, pieces ...int) {
	if s.fail == nil {
		s.fail = &Conflict{kind, pieces, why}
	}
}

// note enters a decided pair into the bit rows.
func (s *solver) note(v int32) {
	i, j := int(s.pairs[v][0]), int(s.pairs[v][1])
	if s.value[v] < 0 {
		i, j = j, i
	}
	s.above[i*s.words+j/64] |= 1 << (j % 64) // above[i]: what i lies above
	s.below[j*s.words+i/64] |= 1 << (i % 64)
}

func (s *solver) forget(v int32) {
	i, j := int(s.pairs[v][0]), int(s.pairs[v][1])
	for _, q := range [][2]int{{i, j}, {j, i}} {
		s.above[q[0]*s.words+q[1]/64] &^= 1 << (q[1] % 64)
		s.below[q[1]*s.words+q[0]/64] &^= 1 << (q[0] % 64)
	}
	s.value[v] = 0
}

// common tells whether three pieces share a spot.
func (s *solver) common(i, j, k int) bool {
	if a := s.alike; a[i] == a[j] || a[j] == a[k] || a[i] == a[k] {
		return true // all three overlap two by two, and two of them are one place
	}
	v := s.index[i*s.n+j]
	if !s.clipped[v] {
		s.clipped[v], s.inter[v] = true, geom.ClipConvex(s.p.Polys[i], s.p.Polys[j])
	}
	c := s.inter[v]
	return c != nil && geom.Overlaps(c, s.p.Polys[k])
}

// placesOf numbers pieces so that those with the same corners, to a millionth of a
// millimetre, have the same number.
func placesOf(polys []geom.Polygon) []int32 {
	out := make([]int32, len(polys))
	known := map[[3]int64]int32{}
	grid := func(v float64) int64 { return int64(math.Round(v / geom.OnLine)) }
	for i, p := range polys {
		out[i] = int32(i)
		low := slices.MinFunc(p, func(a, b geom.Vec) int {
			if x := grid(a.X) - grid(b.X); x != 0 {
				return int(max(-1, min(1, x)))
			}
			return int(max(-1, min(1, grid(a.Y)-grid(b.Y))))
		})
		key := [3]int64{grid(low.X), grid(low.Y), int64(len(p))}
		j, seen := known[key]
		if !seen {
			known[key] = int32(i)
			continue
		}
		if samePlace(p, polys[j]) {
			out[i] = j
		}
	}
	return out
}

// samePlace tells whether two polygons have the same corners, wherever they begin.
func samePlace(p, q geom.Polygon) bool {
	if len(p) != len(q) {
		return false
	}
	for _, a := range p {
		if !slices.ContainsFunc(q, func(b geom.Vec) bool { return a.Dist(b) < geom.OnLine }) {
			return false
		}
	}
	return true
}

// decide gives a literal the value +1, with all that is equal to it.
func (s *solver) decide(l literal) bool {
	l = s.find(l)
	if s.value[l.v] != 0 {
		return s.value[l.v] == l.sign
	}
	s.value[l.v] = l.sign
	for _, m := range s.members.of(l.v) {
		s.value[m.v] = l.sign * m.sign
		s.note(m.v)
		s.queue = append(s.queue, m.v)
		s.trail = append(s.trail, m.v)
	}
	return true
}

// propagate draws every conclusion of what is in the queue.
func (s *solver) propagate() bool {
	for len(s.queue) > 0 {
		v := s.queue[len(s.queue)-1]
		s.queue = s.queue[:len(s.queue)-1]
		if !s.transitive(v) || !s.parities(v) {
			s.queue = s.queue[:0]
			return false
		}
	}
	return true
}

// transitive: with i above j, what lies below j lies below i, and what lies
// above i lies above j, wherever the three share a spot.
func (s *solver) transitive(v int32) bool {
	i, j := int(s.pairs[v][0]), int(s.pairs[v][1])
	if s.value[v] < 0 {
		i, j = j, i
	}
	ri, rj := i*s.words, j*s.words
	for w := range s.words {
		for m := s.above[rj+w] &^ s.above[ri+w]; m != 0; m &= m - 1 {
			if k := w*64 + bits.TrailingZeros64(m); k != i && !s.imply(i, k, j) {
				return false
			}
		}
		for m := s.below[ri+w] &^ s.below[rj+w]; m != 0; m &= m - 1 {
			if k := w*64 + bits.TrailingZeros64(m); k != j && !s.imply(k, j, i) {
				return false
			}
		}
	}
	return true
}

// imply that i lies above k, since both lie so to piece via.
func (s *solver) imply(i, k, via int) bool {
	l, ok := s.lit(i, k)
	if !ok || !s.common(i, k, via) {
		return true
	}
	if !s.decide(l) {
		s.conflict(Ring, "three layers would lie in a ring, each on the next", i, via, k)
		return false
	}
	return true
}

func (s *solver) parities(v int32) bool {
	for _, c := range s.watch.of(v) {
		q := &s.parity[c]
		open, sign := -1, int8(1)
		for k, l := range q {
			switch x := s.value[l.v] * l.sign; {
			case x != 0:
				sign *= x
			case open >= 0:
				open = -2
			default:
				open = k
			}
			if open == -2 {
				break
			}
		}
		switch {
		case open == -1 && sign < 0:
			s.conflict(Cross, "two folded edges on one line would cross each other", s.touched(q)...)
			return false
		case open >= 0 && !s.decide(literal{q[open].v, q[open].sign * sign}):
			s.conflict(Cross, "two folded edges on one line would cross each other", s.touched(q)...)
			return false
		}
	}
	return true
}

func (s *solver) touched(q *[4]literal) []int {
	var out []int
	for _, l := range q {
		out = append(out, int(s.pairs[l.v][0]), int(s.pairs[l.v][1]))
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// open tells whether the order of two pieces is yet to be found.
func (s *solver) open(i, j int) bool {
	v := s.index[i*s.n+j]
	return v >= 0 && s.value[v] == 0
}

// build states the hinge rules for every pair not known beforehand.
func (s *solver) build() bool {
	type placed struct {
		l      geom.Line
		lo, hi float64
		ok     bool
	}
	hs := s.p.Hinges
	at := make([]placed, len(hs))
	for k, h := range hs {
		l, ok := geom.LineThrough(h.P, h.Q)
		d := l.Dir()
		a, b := d.Dot(h.P), d.Dot(h.Q)
		at[k] = placed{l, math.Min(a, b), math.Max(a, b), ok}
	}
	hot := make([]bool, s.n)
	for _, q := range s.pairs[1:] {
		if s.open(int(q[0]), int(q[1])) {
			hot[q[0]], hot[q[1]] = true, true
		}
	}
	for k, h := range hs {
		if !at[k].ok {
			continue
		}
		for c := range s.n {
			if c == h.A || c == h.B || !s.open(h.A, c) && !s.open(h.B, c) {
				continue
			}
			la, ok1 := s.lit(h.A, c)
			lb, ok2 := s.lit(h.B, c)
			if !ok1 || !ok2 || !geom.Crosses(s.p.Polys[c], at[k].l, h.P, h.Q) {
				continue
			}
			if !s.equal(la, lb, Pierce, "a layer would have to pass through a fold", c, h.A, h.B) {
				return false
			}
		}
		if !hot[h.A] && !hot[h.B] {
			continue
		}
		for m, g := range hs {
			if m == k || !at[m].ok || hot[g.A] && m < k || hot[g.B] && m < k ||
				g.A == h.A || g.A == h.B || g.B == h.A || g.B == h.B {
				continue
			}
			if !s.collinear(at[k].l, at[k].lo, at[k].hi, g) {
				continue
			}
			if !s.pairRule(at[k].l, h, g) {
				return false
			}
		}
	}
	return true
}

func (s *solver) collinear(l geom.Line, lo, hi float64, g Hinge) bool {
	if math.Abs(l.Side(g.P)) > geom.OnPaper || math.Abs(l.Side(g.Q)) > geom.OnPaper {
		return false
	}
	d := l.Dir()
	a, b := d.Dot(g.P), d.Dot(g.Q)
	return math.Min(hi, math.Max(a, b))-math.Max(lo, math.Min(a, b)) > geom.Overlap
}

// pairRule states the rule for two hinges on one line.
func (s *solver) pairRule(l geom.Line, h, g Hinge) bool {
	left := func(f int) bool { return l.Side(s.centre[f]) > 0 }
	switch {
	case !h.Folded && !g.Folded:
		c, d := g.A, g.B
		if left(h.A) != left(c) {
			c, d = d, c
		}
		x, ok1 := s.lit(h.A, c)
		y, ok2 := s.lit(h.B, d)
		return !ok1 || !ok2 || s.equal(x, y, Cross, "two layers that run across one line would have to change places at it", h.A, h.B, c, d)
	case h.Folded && g.Folded:
		if left(h.A) != left(g.A) {
			return true
		}
		var q [4]literal
		for k, p := range [][2]int{{h.A, g.A}, {h.B, g.A}, {h.A, g.B}, {h.B, g.B}} {
			x, ok := s.lit(p[0], p[1])
			if !ok {
				return true
			}
			q[k] = x
		}
		s.parity = append(s.parity, q)
		return true
	}
	f, flat := h, g
	if g.Folded {
		f, flat = g, h
	}
	c := flat.A
	if left(c) != left(f.A) {
		c = flat.B
	}
	x, ok1 := s.lit(f.A, c)
	y, ok2 := s.lit(f.B, c)
	return !ok1 || !ok2 || s.equal(x, y, Pierce, "a layer would have to pass through a fold", c, f.A, f.B)
}

// reduce hangs every pair on its root and starts the conclusions: pairs known beforehand
// imply too, where a third pair is open.
func (s *solver) reduce() bool {
	m := len(s.pairs)
	s.members = listed(m, func(enter func(v int32, l literal)) {
		for v := int32(1); v < int32(m); v++ {
			if r := s.find(literal{v, 1}); r.v != 0 {
				enter(r.v, literal{v, r.sign})
			}
		}
	})
	s.watch = listed(m, func(enter func(v int32, c int32)) {
		for c, q := range s.parity {
			for k, l := range q {
				if !slices.ContainsFunc(q[:k], func(o literal) bool { return o.v == l.v }) {
					enter(l.v, int32(c))
				}
			}
		}
	})
	for v := int32(1); v < int32(m); v++ {
		if r := s.find(literal{v, 1}); r.v == 0 && s.value[v] == 0 {
			s.value[v] = r.sign
			s.note(v)
		}
	}
	for v := int32(1); v < int32(m); v++ {
		if s.value[v] != 0 {
			s.queue = append(s.queue, v)
		}
	}
	return s.propagate()
}

// lists are a list for each of many variables, end to end in one piece of memory.
type lists[T any] struct {
	from []int32
	all  []T
}

func (l lists[T]) of(v int32) []T { return l.all[l.from[v]:l.from[v+1]] }

// listed makes lists for so many variables. each enters what they hold and is run twice: to
// count, and to fill.
func listed[T any](variables int, each func(enter func(v int32, x T))) lists[T] {
	l := lists[T]{from: make([]int32, variables+1)}
	each(func(v int32, _ T) { l.from[v+1]++ })
	for v := range variables {
		l.from[v+1] += l.from[v]
	}
	next := slices.Clone(l.from)
	l.all = make([]T, l.from[variables])
	each(func(v int32, x T) {
		l.all[next[v]] = x
		next[v]++
	})
	return l
}
