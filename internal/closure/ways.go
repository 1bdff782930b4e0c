package closure

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"

	"gonum.org/v1/gonum/mat"
)

const (
	small       = 1e-3 // how far out of the pose the second-order condition is asked, rad
	ranked      = 1e-6 // singular values below this part of the largest are none
	homeWeight  = 1e-3
	leastOpen   = 0.2 // rate of what must open
	leastSpread = 0.1 // of the square of a distance that is pulled, by the square of the opening
	startsAtAll = 24
	cameUp      = 3    // times that the best way comes up before the search stops
	idle        = 1e-4 // of the largest rate: what moves less at the start stays
	solved      = 1e-5
)

// search is the second-order condition at a pose: rates x at which, a little out of the
// pose, the loops still close; to first order where the linear equations say anything, to
// second order where they are silent.
type search struct {
	y        *system
	a        Ask
	rho0, x0 []float64
	scaled   *mat.Dense // closure errors to equations of the condition
	rates    []want
	dirs     []int8 // by unknown: +1 may only grow, -1 only shrink, 0 either
	must     []bool
	home     []float64
	order    [][]float64
	span     float64 // drive in rad for rate 1
	apart0   []float64
	grow     []float64 // sense in which each distance is driven

	rho, c, jac []float64
	c0          []float64 // by how much the loops are open at the pose itself
}

type want struct {
	o    int32
	rate float64
}

// Ways looks for the ways out of a pose, the best first: those that keep the order of the
// layers, then those that go the least from home. The search starts from even rates and
// then from random ones, always the same.
func (m *Mechanism) Ways(a Ask) []Way {
	s := m.search(a)
	if s == nil {
		return nil
	}
	r := rand.New(rand.NewPCG(20, 26))
	var ways []Way
	count := map[int]int{}
	for k := range startsAtAll {
		w, ok := s.try(s.start(k, r))
		if !ok {
			continue
		}
		at := slices.IndexFunc(ways, func(v Way) bool { return alike(v.Rates, w.Rates) })
		if at < 0 {
			at = len(ways)
			ways = append(ways, w)
		}
		count[at]++
		best := 0
		for i := range ways {
			if better(ways[i], ways[best]) {
				best = i
			}
		}
		if count[best] >= cameUp || s.least(ways[best]) {
			break
		}
	}
	slices.SortStableFunc(ways, func(a, b Way) int {
		switch {
		case better(a, b):
			return -1
		case better(b, a):
			return 1
		}
		return 0
	})
	for i := range ways {
		ways[i].Why = s.why(len(ways))
	}
	return ways
}

// least tells that a way moves nothing but what is driven, and keeps the order: there is
// none better.
func (s *search) least(w Way) bool {
	var driven float64
	for _, r := range s.rates {
		driven += r.rate * r.rate
	}
	return s.a.Home == Least && driven > 0 && w.AgainstOrder < solved && w.Distance <= driven*(1+1e-6)
}

func (s *search) why(found int) string {
	switch {
	case found == 1:
		return "the only way found"
	case len(s.a.Sense) > 0:
		return fmt.Sprintf("as named, of %d ways", found)
	case s.a.Home == Evenly:
		return fmt.Sprintf("the most even of %d ways", found)
	}
	return fmt.Sprintf("the least opening of %d ways", found)
}

func better(a, b Way) bool {
	keptA, keptB := a.AgainstOrder < solved, b.AgainstOrder < solved
	if keptA != keptB {
		return keptA
	}
	return a.Distance < b.Distance*(1-1e-6)-1e-12
}

func alike(a, b []float64) bool {
	var most, off float64
	for i := range a {
		most = math.Max(most, math.Abs(a[i]))
		off = math.Max(off, math.Abs(a[i]-b[i]))
	}
	return off <= 0.01*most
}

// search sets the condition up; nil when what is asked cannot move at all.
func (m *Mechanism) search(a Ask) *search {
	movable := m.movable(a)
	rho0 := m.from(a)
	var spots []*[2]Spot
	s := &search{a: a, rho0: rho0}
	for _, d := range a.Drives {
		if d.Spots != nil {
			spots = append(spots, d.Spots)
			continue
		}
		s.span = math.Max(s.span, math.Abs(d.Want-rho0[d.Hinge]))
	}
	for _, d := range a.Drives {
		if d.Spots == nil {
			movable[d.Hinge] = math.Abs(d.Want-rho0[d.Hinge]) > 1e-12 // else it is held
		}
	}
	orbit, n := m.unknowns(a, movable)
	if n == 0 {
		return nil
	}
	y := m.system(orbit, n, spots)
	s.y, s.x0 = y, y.gather(rho0)
	s.rho, s.c, s.jac = slices.Clone(rho0), make([]float64, y.rows+len(y.pulls)), make([]float64, (y.rows+len(y.pulls))*n)
	s.dirs, s.must, s.home = make([]int8, n), make([]bool, n), make([]float64, n)
	for i, o := range orbit {
		if o < 0 {
			continue
		}
		switch {
		case rho0[i] > math.Pi-1e-9:
			s.dirs[o] = -1
		case rho0[i] < -math.Pi+1e-9:
			s.dirs[o] = 1
		case a.Sense[int32(i)] != 0:
			s.dirs[o] = a.Sense[int32(i)]
		}
		switch {
		case a.Home == Evenly && rho0[i] != 0:
			s.home[o] = -rho0[i] / math.Pi
		case a.Home == Towards:
			s.home[o] = a.Target[i] - rho0[i]
			if s.span > 0 {
				s.home[o] /= s.span
			}
		}
	}
	for _, i := range a.Must {
		if o := orbit[i]; o >= 0 {
			s.must[o] = true
		}
	}
	seen := map[int32]bool{}
	for _, d := range a.Drives {
		if d.Spots == nil && orbit[d.Hinge] >= 0 && !seen[orbit[d.Hinge]] {
			seen[orbit[d.Hinge]] = true
			s.rates = append(s.rates, want{orbit[d.Hinge], (d.Want - rho0[d.Hinge]) / s.span})
		}
	}
	y.eval(s.rho, s.c, s.jac)
	for _, d := range a.Drives {
		if d.Spots != nil {
			s.apart0 = append(s.apart0, s.c[y.rows+len(s.apart0)])
			s.grow = append(s.grow, 1)
			if d.Want/m.size < s.apart0[len(s.apart0)-1] {
				s.grow[len(s.grow)-1] = -1
			}
		}
	}
	s.c0 = slices.Clone(s.c)
	s.equations()
	if !a.Loose && slices.Equal(rho0, m.flat) {
		s.order = m.orderRows(orbit, n)
	}
	return s
}

// equations splits the closure errors by the singular values of their derivative.
func (s *search) equations() {
	m, n := s.y.rows, s.y.n
	s.scaled = nil
	if m == 0 {
		return
	}
	var svd mat.SVD
	s.scaled = mat.NewDense(m, m, nil)
	if !svd.Factorize(mat.NewDense(m, n, slices.Clone(s.jac[:m*n])), mat.SVDFullU) {
		for i := range m {
			s.scaled.Set(i, i, 1/small)
		}
		return
	}
	var u mat.Dense
	svd.UTo(&u)
	values := svd.Values(nil)
	for k := range m {
		scale := 1 / (small * small)
		if k < len(values) && values[k] > ranked*math.Max(values[0], 1) {
			scale = 1 / small
		}
		for i := range m {
			s.scaled.Set(k, i, scale*u.At(i, k))
		}
	}
}

// start is the k-th set of rates to begin from.
func (s *search) start(k int, r *rand.Rand) []float64 {
	x := make([]float64, s.y.n)
	for o := range x {
		sign := float64(s.dirs[o])
		if s.dirs[o] == 0 {
			switch {
			case s.home[o] != 0:
				sign = math.Copysign(1, s.home[o])
			case k >= 2 && r.IntN(2) == 0:
				sign = 1
			case k >= 2:
				sign = -1
			}
		}
		switch {
		case k == 0:
			x[o] = sign
		case k == 1:
			x[o] = 0.3 * sign
		case r.Float64() < 0.2:
		default:
			x[o] = sign * 0.15 * math.Pow(4/0.15, r.Float64())
		}
	}
	for _, w := range s.rates {
		x[w.o] = w.rate
	}
	return x
}

// try goes from a start to rates that fulfil the condition, first drawn a little towards
// home and then not.
func (s *search) try(x []float64) (Way, bool) {
	s.descend(x, homeWeight, 60)
	s.descend(x, 0, 80)
	if s.miss(x) > solved+10*s.y.m.slack/small {
		return Way{}, false
	}
	w := Way{Rates: make([]float64, len(s.rho0)), orbit: s.y.orbit, n: s.y.n}
	var most float64
	for _, v := range x {
		most = math.Max(most, math.Abs(v))
	}
	if most < 1e-6 {
		return Way{}, false
	}
	if len(s.rates) == 0 {
		for o := range x {
			x[o] /= most
		}
		most = 1
	}
	for i, o := range s.y.orbit {
		if o >= 0 && math.Abs(x[o]) > idle*most {
			w.Rates[i] = x[o]
			w.Movers++
		}
	}
	for o := range x {
		w.Distance += (x[o] - s.home[o]) * (x[o] - s.home[o])
	}
	for _, row := range s.order {
		w.AgainstOrder = math.Max(w.AgainstOrder, -dot(row, x))
	}
	return w, true
}

func dot(a, b []float64) float64 {
	var s float64
	for i := range a {
		s += a[i] * b[i]
	}
	return s
}

// miss is by how much rates fail the condition.
func (s *search) miss(x []float64) float64 {
	_, r := s.residual(x, 0, nil)
	var w float64
	for _, v := range r {
		w = math.Max(w, math.Abs(v))
	}
	return w
}

// residual are all rows of the condition at x; add hears of each row with its derivative.
func (s *search) residual(x []float64, home float64, add func(row []float64, res float64)) (sum float64, out []float64) {
	y, n := s.y, s.y.n
	at := make([]float64, n)
	for o := range at {
		at[o] = s.x0[o] + small*x[o]
	}
	y.spread(at, s.rho)
	var jac []float64
	if add != nil {
		jac = s.jac
	}
	y.eval(s.rho, s.c, jac)
	put := func(row []float64, res float64) {
		sum += res * res
		out = append(out, res)
		if add != nil {
			add(row, res)
		}
	}
	if y.rows > 0 {
		for i := range y.rows {
			s.c[i] -= s.c0[i]
		}
		var r mat.VecDense
		r.MulVec(s.scaled, mat.NewVecDense(y.rows, s.c[:y.rows]))
		var j mat.Dense
		if add != nil {
			j.Mul(s.scaled, mat.NewDense(y.rows, n, s.jac[:y.rows*n]))
			j.Scale(small, &j)
		}
		for k := range y.rows {
			var row []float64
			if add != nil {
				row = j.RawRowView(k)
			}
			put(row, r.AtVec(k))
		}
	}
	unit := make([]float64, n)
	one := func(o int, v, res float64) {
		unit[o] = v
		put(unit, res)
		unit[o] = 0
	}
	for _, w := range s.rates {
		one(int(w.o), 1, x[w.o]-w.rate)
	}
	for o, d := range s.dirs {
		least := 0.0
		if s.must[o] {
			least = leastOpen
		}
		if v := float64(d) * x[o]; d != 0 && v < least {
			one(o, float64(d), v-least)
		} else if d == 0 && s.must[o] && math.Abs(x[o]) < leastOpen {
			one(o, 1, x[o]-math.Copysign(leastOpen, x[o]))
		}
		if home > 0 {
			one(o, home, home*(x[o]-s.home[o]))
		}
	}
	s.spread(put, add != nil)
	for _, row := range s.order {
		if v := dot(row, x); v < 0 {
			put(row, v)
		}
	}
	return sum, out
}

// spread puts the rows of distances that do not grow as they are pulled.
func (s *search) spread(put func(row []float64, res float64), derived bool) {
	y, n := s.y, s.y.n
	for k, d0 := range s.apart0 {
		v := s.grow[k] * (s.c[y.rows+k] - d0) / (small * small)
		if v >= leastSpread {
			continue
		}
		row := make([]float64, n)
		for o := range row {
			if derived {
				row[o] = s.grow[k] * s.jac[(y.rows+k)*n+o] / small
			}
		}
		put(row, v-leastSpread)
	}
}

// descend is a damped Gauss-Newton descent on the rows of the condition.
func (s *search) descend(x []float64, home float64, rounds int) {
	n := s.y.n
	a, b, step := make([]float64, n*n), make([]float64, n), make([]float64, n)
	span := make([]int32, n)
	for i := range span {
		span[i] = int32(i)
	}
	mu := 1e-2
	trial := make([]float64, n)
	for range rounds {
		clear(a)
		clear(b)
		cost, _ := s.residual(x, home, func(row []float64, res float64) { s.y.addRow(row, span, res, 1, a, b) })
		if cost < 1e-22 {
			return
		}
		better := false
		for range 8 {
			if solve(n, a, b, nil, mu, step) {
				for o := range x {
					trial[o] = x[o] + step[o]
				}
				if now, _ := s.residual(trial, home, nil); now < cost {
					better = true
					small := cost-now < 1e-9*cost
					copy(x, trial)
					mu = math.Max(mu*0.1, 1e-12)
					if small && home > 0 {
						return
					}
					break
				}
			}
			mu = math.Max(mu*10, 1e-10)
			if mu > 1e8 {
				return
			}
		}
		if !better {
			return
		}
	}
}
