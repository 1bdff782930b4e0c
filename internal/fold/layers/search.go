package layers

import (
	"context"
	"sort"
)

// Solve finds an order, the hinted one where there is a choice, and tells
// whether there is another. The error is a *Conflict, or nil with ok false when
// the search was given up.
func Solve(p *Problem) (Solution, *Conflict) {
	s := newSolver(p)
	if !s.build() || !s.hard() || !s.reduce() {
		return Solution{}, s.fail
	}
	order, soft := s.openRoots()
	var first []int8
	var sol Solution
	s.walk(order, soft, 0, func() bool {
		if first == nil {
			first = append([]int8(nil), s.value...)
			return true
		}
		sol.Ambiguous = true
		for v := 1; v < len(first); v++ {
			if first[v] != s.value[v] {
				sol.Differs = [2]int{int(s.pairs[v][0]), int(s.pairs[v][1])}
				break
			}
		}
		return false
	})
	if first == nil {
		if s.fail == nil {
			s.conflict(Against, "no order was found in the time allowed")
		}
		return sol, s.fail
	}
	sol.Order = s.table(first)
	return sol, nil
}

// Count is the number of valid orders, up to limit. done is false when there may be more:
// the limit was reached, or the context ended the search.
func Count(ctx context.Context, p *Problem, limit int) (n int, done bool) {
	s := newSolver(p)
	s.ctx = ctx
	if !s.build() || !s.hard() || !s.reduce() {
		return 0, true
	}
	order, soft := s.openRoots()
	done = s.walk(order, soft, 0, func() bool {
		n++
		return n < limit
	})
	return n, done
}

// hard enters what must hold.
func (s *solver) hard() bool {
	for _, h := range s.p.Hints {
		l, ok := s.lit(h.I, h.J)
		if !h.Hard || !ok {
			continue
		}
		if !s.equal(l, literal{0, h.Sign}, Against, h.Why, h.I, h.J) {
			return false
		}
	}
	return true
}

// openRoots are the independent choices left, those with hints first, each with
// the value to try first.
func (s *solver) openRoots() (order []int32, prefer []int8) {
	votes := make([]int, len(s.pairs))
	for _, h := range s.p.Hints {
		if l, ok := s.lit(h.I, h.J); ok && !h.Hard {
			r := s.find(l)
			votes[r.v] += int(r.sign * h.Sign)
		}
	}
	for v := int32(1); v < int32(len(s.pairs)); v++ {
		if s.find(literal{v, 1}).v == v && s.value[v] == 0 {
			order = append(order, v)
		}
	}
	size := func(x int) int { return max(x, -x) }
	sort.SliceStable(order, func(i, j int) bool { return size(votes[order[i]]) > size(votes[order[j]]) })
	prefer = make([]int8, len(order))
	for i, v := range order {
		prefer[i] = 1
		if votes[v] < 0 {
			prefer[i] = -1
		}
	}
	return order, prefer
}

// walk visits every complete order below the present choices until found says
// stop. It is false when the search ended early.
func (s *solver) walk(order []int32, prefer []int8, at int, found func() bool) bool {
	for at < len(order) && s.value[order[at]] != 0 {
		at++
	}
	if at == len(order) {
		return found()
	}
	for _, x := range [2]int8{prefer[at], -prefer[at]} {
		if s.tries++; s.givenUp() {
			return false
		}
		mark := len(s.trail)
		ok := s.decide(literal{order[at], x}) && s.propagate()
		more := true
		if ok {
			more = s.walk(order, prefer, at+1, found)
		}
		for _, v := range s.trail[mark:] {
			s.forget(v)
		}
		s.trail = s.trail[:mark]
		s.queue = s.queue[:0]
		if !more {
			return false
		}
	}
	return true
}

// askEvery is how many tries go by between two looks at the context.
const askEvery = 256

// givenUp tells whether the search ends before it is through: a step's after so many
// tries, a count's when its context does.
func (s *solver) givenUp() bool {
	if s.ctx == nil {
		return s.tries > maxTries
	}
	return s.tries%askEvery == 0 && s.ctx.Err() != nil
}

// table writes the values as rows of who lies above whom.
func (s *solver) table(value []int8) []int8 {
	out := make([]int8, s.n*s.n)
	for v := 1; v < len(s.pairs); v++ {
		i, j := int(s.pairs[v][0]), int(s.pairs[v][1])
		out[i*s.n+j], out[j*s.n+i] = value[v], -value[v]
	}
	return out
}
