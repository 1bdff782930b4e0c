package closure

import (
	"math"
	"slices"

	"tussock/internal/fold"
)

const (
	rounds     = 12   // of the corrector
	mostMove   = 0.35 // rad that a crease may go in one step
	offGuess   = 0.05 // rad that a crease may lie off the guess, and the part of its move that is added
	offPart    = 0.3
	warmTo     = 0.05 // rad: beyond it the way out of the pose is plain
	warmUp     = 1.6
	leastStep  = 1e-7
	stopFine   = 1e-5
	homeRounds = 4

	// yieldMM is by how much paper gapes rather than turn a hinge by one radian out of its
	// straight way, where it may yield.
	yieldMM     = 0.25
	yieldRounds = 12
)

// homePulls are the weights of home against closure, before closure alone is asked.
var homePulls = []float64{0.03, 0.005}

// course is a way being gone.
type course struct {
	m       *Mechanism
	a       Ask
	y       *system
	rho0    []float64
	x0, x   []float64
	before  []float64 // at tBefore
	t       float64
	tBefore float64
	drive   []driven
	apart   []float64 // distances at the start, parts of the size
	wants   []float64 // and at the end
	home    []float64 // at the end, nil when nothing draws there
	held    []bool    // driven, or pinned
	pinned  []bool

	rho, c, jac, na, nb, step []float64
	weights                   []float64 // of loops, nil for 1
}

// driven is an unknown whose angle is given all along.
type driven struct {
	o        int32
	from, to float64
}

// Follow goes the way from its start to where the drives want it, in so many frames
// besides the start. It stops where it finds nothing that closes.
func (m *Mechanism) Follow(a Ask, w Way, frames int) Motion {
	k := m.course(a, w)
	out := Motion{Frames: []Found{m.found(a, k.y, k.rho0, nil)}, State: Sound}
	step := 1 / float64(frames)
	if !k.warm(w, 1/float64(frames)) {
		out.State = Stuck
	}
	for f := 1; f <= frames && out.State == Sound; f++ {
		to := float64(f) / float64(frames)
		for k.t < to-1e-12 {
			if step < leastStep {
				out.State = Stuck
				break
			}
			dt := math.Min(step, to-k.t)
			if k.go1(dt) {
				step = math.Max(step, 2*dt)
			} else {
				step = dt / 3
			}
		}
		if out.State == Sound {
			out.Frames = append(out.Frames, k.report(to))
		}
	}
	out.Part = k.t
	if out.State == Stuck {
		k.a.Ranks = true
		last := k.report(k.t)
		if last.Freedoms == 0 {
			out.State = Locked
		}
		last.State = out.State
		out.Frames = append(out.Frames, last)
	}
	for _, f := range out.Frames {
		if out.State == Sound && f.State == Crosses {
			out.State = Crosses
		}
	}
	return out
}

// Move finds a way and goes it: the best way out, and where that comes to a halt an even
// one, and then a new way from where it halted.
func (m *Mechanism) Move(a Ask, frames int) Motion {
	ways := m.Ways(a)
	if len(ways) == 0 {
		f := m.found(a, m.system(make([]int32, len(m.s.H)), 0, nil), m.from(a), nil)
		f.State = Locked
		return Motion{Frames: []Found{f}, State: Locked}
	}
	best := m.Follow(a, ways[0], frames)
	if best.State != Stuck && best.State != Locked {
		return best
	}
	if a.Home == Least {
		even := a
		even.Home = Evenly
		if w := m.Ways(even); len(w) > 0 {
			if q := m.Follow(even, w[0], frames); q.Part > best.Part {
				best = q
			}
		}
	}
	if best.State == Sound || best.State == Crosses {
		return best
	}
	on := a
	on.From = best.Last().Rho
	if w := m.Ways(on); len(w) > 0 {
		left := max(1, int(math.Ceil(float64(frames)*(1-best.Part))))
		q := m.Follow(on, w[0], left)
		if q.Part > 0 {
			q.Frames = append(slices.Clone(best.Frames), q.Frames[1:]...)
			q.Part = best.Part + q.Part*(1-best.Part)
			return q
		}
	}
	return best
}

func (m *Mechanism) course(a Ask, w Way) *course {
	// What does not start stays: its unknowns are left out.
	renumber := map[int32]int32{}
	orbit := make([]int32, len(m.s.H))
	for i := range orbit {
		orbit[i] = -1
		if o := w.orbit[i]; o >= 0 && w.Rates[i] != 0 {
			if _, known := renumber[o]; !known {
				renumber[o] = int32(len(renumber))
			}
			orbit[i] = renumber[o]
		}
	}
	k := &course{m: m, a: a, rho0: m.from(a)}
	k.y = m.system(orbit, len(renumber), spotsOf(a))
	n := k.y.n
	k.x0 = k.y.gather(k.rho0)
	k.x, k.before = slices.Clone(k.x0), slices.Clone(k.x0)
	k.held, k.pinned = make([]bool, n), make([]bool, n)
	k.rho = slices.Clone(k.rho0)
	rows := k.y.rows + len(k.y.pulls)
	k.c, k.jac = make([]float64, rows), make([]float64, rows*n)
	k.na, k.nb, k.step = make([]float64, n*n), make([]float64, n), make([]float64, n)
	k.y.eval(k.rho, k.c, nil)
	for _, d := range a.Drives {
		switch {
		case d.Spots != nil:
			k.apart = append(k.apart, k.c[k.y.rows+len(k.apart)])
			k.wants = append(k.wants, d.Want/m.size)
		case orbit[d.Hinge] >= 0 && !k.held[orbit[d.Hinge]]:
			k.held[orbit[d.Hinge]] = true
			k.drive = append(k.drive, driven{orbit[d.Hinge], k.rho0[d.Hinge], d.Want})
		}
	}
	if a.Home != Least {
		k.home = make([]float64, n)
		for i, o := range orbit {
			if o >= 0 && a.Home == Towards {
				k.home[o] = a.Target[i]
			}
		}
	}
	return k
}

func spotsOf(a Ask) []*[2]Spot {
	var out []*[2]Spot
	for _, d := range a.Drives {
		if d.Spots != nil {
			out = append(out, d.Spots)
		}
	}
	return out
}

// set puts driven angles where they belong at t.
func (k *course) set(x []float64, t float64) {
	for _, d := range k.drive {
		x[d.o] = d.from + t*(d.to-d.from)
	}
	for o, p := range k.pinned {
		if p {
			x[o] = math.Copysign(math.Pi, k.x[o])
		}
	}
}

// warm goes the first stretch, where the equations are nearly singular, in small growing
// steps: along the drives, or where only distances are driven along the unknown that
// moves most.
func (k *course) warm(w Way, first float64) bool {
	rate := make([]float64, k.y.n)
	span := 0.0
	for _, d := range k.drive {
		span = math.Max(span, math.Abs(d.to-d.from))
	}
	for i, o := range k.y.orbit {
		if o >= 0 {
			rate[o] = w.Rates[i]
		}
	}
	lead := 0
	for o := range rate {
		if math.Abs(rate[o]) > math.Abs(rate[lead]) {
			lead = o
		}
	}
	if k.y.n == 0 {
		return false
	}
	if len(k.drive) > 0 || len(k.apart) == 0 {
		if span == 0 {
			span = 1
		}
		most := math.Abs(rate[lead]) * span
		for t := small / most; ; t *= warmUp {
			t = math.Min(t, first)
			x := slices.Clone(k.x)
			for o := range x {
				if k.t == 0 {
					x[o] = k.x0[o] + rate[o]*span*t
				} else {
					x[o] += (k.x[o] - k.before[o]) * (t - k.t) / (k.t - k.tBefore)
				}
			}
			k.set(x, t)
			if !k.correct(x, k.held, t, false) {
				return false
			}
			k.advance(x, t)
			if t >= first || most*t > warmTo {
				return true
			}
		}
	}
	// Distances alone: the unknown that moves most leads until the first frame is reached.
	held := slices.Clone(k.held)
	held[lead] = true
	s, sBefore := 0.0, 0.0
	for next := small; ; next *= warmUp {
		x := slices.Clone(k.x)
		for o := range x {
			if s == 0 {
				x[o] = k.x0[o] + rate[o]*next
			} else {
				x[o] += (k.x[o] - k.before[o]) * (next - s) / (s - sBefore)
			}
		}
		x[lead] = k.x0[lead] + rate[lead]*next
		if !k.correct(x, held, 0, true) {
			return false
		}
		t := (k.c[k.y.rows] - k.apart[0]) / (k.wants[0] - k.apart[0])
		if t >= first { // beyond: from here the distance leads
			return s > 0
		}
		s, sBefore = next, s
		if t <= k.t {
			k.before, k.x = k.x, x
			continue
		}
		k.advance(x, t)
		if math.Abs(rate[lead])*next > warmTo {
			return true
		}
	}
}

func (k *course) advance(x []float64, t float64) {
	k.before, k.tBefore = k.x, k.t
	k.x, k.t = slices.Clone(x), t
}

// go1 tries one step on.
func (k *course) go1(dt float64) bool {
	x, ok := k.reach(dt)
	if !ok {
		return false
	}
	if k.past(x) < 0 {
		k.advance(x, k.t+dt)
		return true
	}
	// A crease comes flat against its paper on the way: go there, and let it stay.
	lo, hi := 0.0, dt
	at, beyond := slices.Clone(k.x), x
	for hi-lo > stopFine*math.Max(dt, 1e-3) {
		mid := (lo + hi) / 2
		x, ok := k.reach(mid)
		if !ok {
			return false
		}
		if k.past(x) >= 0 {
			hi, beyond = mid, x
		} else {
			lo, at = mid, x
		}
	}
	stopped := false
	for o, v := range beyond {
		if math.Abs(v) > math.Pi+1e-9 && !k.held[o] {
			at[o] = math.Copysign(math.Pi, v)
			k.pinned[o], k.held[o], stopped = true, true, true
		}
	}
	if !stopped {
		return false
	}
	if lo > 0 {
		k.advance(at, k.t+lo)
	} else {
		k.x = at
	}
	return true
}

// past is an unknown that would fold through its own paper, -1 for none.
func (k *course) past(x []float64) int {
	return slices.IndexFunc(x, func(v float64) bool { return math.Abs(v) > math.Pi+1e-9 })
}

// reach looks for the pose at a step on; ok is false when it does not close or is another
// branch.
func (k *course) reach(dt float64) ([]float64, bool) {
	x := slices.Clone(k.x)
	if k.t > k.tBefore {
		for o := range x {
			x[o] += (k.x[o] - k.before[o]) * dt / (k.t - k.tBefore)
		}
	}
	guess := slices.Clone(x)
	k.set(x, k.t+dt)
	if !k.correct(x, k.held, k.t+dt, false) {
		return nil, false
	}
	var move, off float64
	for o := range x {
		move = math.Max(move, math.Abs(x[o]-k.x[o]))
		off = math.Max(off, math.Abs(x[o]-guess[o]))
	}
	return x, move <= mostMove && off <= offGuess+offPart*move
}

// correct brings x to where the loops close, and distances are what they should be at t
// unless these are left free.
func (k *course) correct(x []float64, held []bool, t float64, free bool) bool {
	if k.home != nil {
		k.drawn(x, held, t, free)
	}
	mu := 1e-6
	k.measure(x, nil)
	for range rounds {
		if k.err(t, free) <= aimed {
			return true
		}
		was := k.err(t, free)
		old := slices.Clone(x)
		if !k.newton(x, held, t, free, mu, nil, 0) {
			mu *= 100
			continue
		}
		k.measure(x, nil)
		if now := k.err(t, free); now < was {
			mu = math.Max(mu*0.05, 1e-14)
			if now > 0.5*was && now <= k.m.closed() {
				return true
			}
		} else {
			if was <= k.m.closed() {
				copy(x, old)
				k.measure(x, nil)
				return true
			}
			mu = math.Max(mu*10, 1e-10)
		}
	}
	return k.err(t, free) <= k.m.closed()
}

// drawn brings x near to where the loops close, drawn towards home.
func (k *course) drawn(x []float64, held []bool, t float64, free bool) {
	goal := slices.Clone(x)
	for o := range goal {
		goal[o] = k.x0[o] + t*(k.home[o]-k.x0[o])
	}
	for _, pull := range homePulls {
		for range homeRounds {
			k.newton(x, held, t, free, 1e-6, goal, pull)
		}
	}
}

// yield brings x near to where the loops close, as paper does that gives a little: a turn
// that is left over counts by how far it gapes.
func (k *course) yield(x []float64, t float64) {
	goal := slices.Clone(x)
	for o := range goal {
		goal[o] = k.x0[o] + t*(k.home[o]-k.x0[o])
	}
	copy(x, goal) // from the straight way, not from where the paper was held up before
	for range yieldRounds {
		k.newton(x, k.held, t, false, 1e-8, goal, yieldMM/k.m.size)
	}
}

func (k *course) measure(x, jac []float64) {
	k.y.spread(x, k.rho)
	k.y.eval(k.rho, k.c, jac)
}

// err is the largest error of loops and of distances.
func (k *course) err(t float64, free bool) float64 {
	w := k.y.worst(k.c)
	if free {
		return w
	}
	for i := range k.apart {
		w = math.Max(w, math.Abs(k.c[k.y.rows+i]-k.apartAt(i, t)))
	}
	return w
}

func (k *course) apartAt(i int, t float64) float64 { return k.apart[i] + t*(k.wants[i]-k.apart[i]) }

// newton makes one damped Gauss-Newton step.
func (k *course) newton(x []float64, held []bool, t float64, free bool, mu float64, goal []float64, pull float64) bool {
	y := k.y
	k.measure(x, k.jac)
	clear(k.na)
	clear(k.nb)
	y.normal(k.c, k.jac, k.na, k.nb, k.weights)
	if !free {
		for i := range k.apart {
			r := y.rows + i
			y.addRow(k.jac[r*y.n:(r+1)*y.n], y.pulls[i].span, k.c[r]-k.apartAt(i, t), 1, k.na, k.nb)
		}
	}
	if goal != nil {
		for o := range x {
			k.na[o*y.n+o] += pull * pull
			k.nb[o] += pull * pull * (goal[o] - x[o])
		}
	}
	if !solve(y.n, k.na, k.nb, held, mu, k.step) {
		return false
	}
	for o := range x {
		x[o] += k.step[o]
	}
	return true
}

func (k *course) report(t float64) Found {
	k.measure(k.x, nil)
	var stops []int32
	for i, o := range k.y.orbit {
		if o >= 0 && k.pinned[o] {
			stops = append(stops, int32(i))
		}
	}
	a := k.a
	a.Drives = slices.Clone(a.Drives)
	at := 0
	for i, d := range a.Drives {
		if d.Spots != nil {
			a.Drives[i].Want = k.apartAt(at, t) * k.m.size
			at++
		} else {
			a.Drives[i].Want = k.rho0[d.Hinge] + t*(d.Want-k.rho0[d.Hinge])
		}
	}
	f := k.m.found(a, k.y, slices.Clone(k.rho), k.pinned)
	f.AtStop, f.Part = stops, t
	return f
}

// betweenSteps are made from one frame of Between to the next.
const betweenSteps = 4

// Between looks for poses on the way from some angles to others, at parts of that way: as
// near to the straight way as closing allows. Nothing leads; every mover is drawn along.
// A pose that does not close is the nearest found, and its gap says so. Yielding paper
// stays near the straight way and may gape a little for it: where stiff pieces would have
// to go a long way round, paper gives.
func (m *Mechanism) Between(from, to []float64, movers func(i int) bool, parts []float64, root fold.FacetID, yielding bool) []Found {
	a := Ask{From: from, Movers: movers, Home: Towards, Target: to, Tied: true, Root: root}
	orbit, n := m.unknowns(a, m.movable(a))
	w := Way{Rates: make([]float64, len(orbit)), orbit: orbit, n: n}
	for i, o := range orbit {
		if o >= 0 {
			w.Rates[i] = 1
		}
	}
	k := m.course(a, w)
	out := make([]Found, 0, len(parts))
	for _, t := range parts {
		for sub := range betweenSteps {
			at := k.t + (t-k.t)/float64(betweenSteps-sub)
			x := slices.Clone(k.x)
			for o := range x {
				x[o] += (at - k.t) * (k.home[o] - k.x0[o])
			}
			if yielding {
				k.weights = k.y.arms()
				k.yield(x, at)
			} else {
				for range 3 {
					if k.correct(x, k.held, at, false) {
						break
					}
				}
			}
			k.advance(x, at)
		}
		k.measure(k.x, nil)
		rho := slices.Clone(k.rho)
		for i, o := range orbit { // what is no mover goes straight
			if o < 0 {
				rho[i] = from[i] + t*(to[i]-from[i])
			}
		}
		f := Found{Rho: rho, At: m.Place(rho, root), Part: t, State: Sound}
		f.GapMM = m.Gap(f.At)
		out = append(out, f)
	}
	return out
}
