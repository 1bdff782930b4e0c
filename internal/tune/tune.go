// Package tune finds out which knob matters and what to change next, for any way of
// moving. It knows knobs as levers with a range and a step, and the toy as a function
// from lever positions to measures; it moves levers and compares.
package tune

import (
	"cmp"
	"context"
	"errors"
	"math"
	"math/rand/v2"
	"runtime"
	"slices"

	"golang.org/x/sync/errgroup"
	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/optimize"
	"gonum.org/v1/gonum/stat/distmv"
	"gonum.org/v1/gonum/stat/samplemv"

	"tussock/internal/motion"
)

// Effect is what a step of one lever does to each measure, up and down.
type Effect struct {
	Lever    motion.Lever
	Up, Down motion.Measures // differences to where it stands; nil where the range ends or it cannot be made
}

// Size is the larger of both effects on a measure.
func (e Effect) Size(measure string) float64 {
	return math.Max(math.Abs(e.Up[measure]), math.Abs(e.Down[measure]))
}

// Sensitivity moves each lever by one step up and down. Effects are sorted by what they
// do to the first measure named.
func Sensitivity(ctx context.Context, levers []motion.Lever, f motion.Measure, by string) ([]Effect, error) {
	base := motion.Positions(levers)
	zero, err := f(ctx, base)
	if err != nil {
		return nil, err
	}
	var out []Effect
	for i, l := range levers {
		at := func(d float64) motion.Measures {
			v := l.Value + d
			if v > l.Max+1e-9 || v < l.Min-1e-9 {
				return nil
			}
			x := slices.Clone(base)
			x[i] = v
			m, err := f(ctx, x)
			if err != nil {
				return nil
			}
			diff := motion.Measures{}
			for k, v := range m {
				diff[k] = v - zero[k]
			}
			return diff
		}
		out = append(out, Effect{l, at(l.Step), at(-l.Step)})
		if err := ctx.Err(); err != nil {
			return nil, err
		}
	}
	slices.SortStableFunc(out, func(a, b Effect) int { return cmp.Compare(b.Size(by), a.Size(by)) })
	return out, nil
}

// Point is a position of a sweep; Measures is nil where the toy cannot be made.
type Point struct {
	At       float64
	Measures motion.Measures
}

// Sweep moves one lever over its range, or over part of it.
func Sweep(ctx context.Context, levers []motion.Lever, which int, lo, hi float64, n int, f motion.Measure) ([]Point, error) {
	var out []Point
	for k := range n {
		x := motion.Positions(levers)
		x[which] = lo + (hi-lo)*float64(k)/float64(n-1)
		m, err := f(ctx, x)
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		if err != nil {
			m = nil
		}
		out = append(out, Point{x[which], m})
	}
	return out, nil
}

// Most is where a measure is most over a sweep, or least where less is better.
func Most(points []Point, g motion.Gauge) (at float64, ok bool) {
	best := math.Inf(-1)
	for _, p := range points {
		v, measured := p.Measures[g.Name]
		if g.Less {
			v = -v
		}
		if measured && v > best {
			at, best, ok = p.At, v, true
		}
	}
	return at, ok
}

// Pair moves two levers together: n by n points, the second lever outermost. Rows are
// worked out side by side, as many as there are processors.
func Pair(ctx context.Context, levers []motion.Lever, first, second, n int, f motion.Measure) ([]PairPoint, error) {
	l, m := levers[first], levers[second]
	rows := make([][]PairPoint, n)
	var g errgroup.Group
	g.SetLimit(runtime.GOMAXPROCS(0))
	for k := range n {
		g.Go(func() error {
			moved := slices.Clone(levers)
			moved[second].Value = m.Min + (m.Max-m.Min)*float64(k)/float64(n-1)
			points, err := Sweep(ctx, moved, first, l.Min, l.Max, n, f)
			for _, p := range points {
				rows[k] = append(rows[k], PairPoint{p, moved[second].Value})
			}
			return err
		})
	}
	if err := g.Wait(); err != nil {
		return nil, err
	}
	return slices.Concat(rows...), nil
}

// PairPoint is a position of two levers.
type PairPoint struct {
	Point
	Second float64
}

// Progress tells how far a search has come.
type Progress struct {
	Done int     `json:"done"`
	Of   int     `json:"of"`
	Best float64 `json:"best"`
}

// Found is the best that a search came to.
type Found struct {
	At            []float64
	Before, After motion.Measures
	Score, Was    float64
	Reasons       []Reason // what each changed lever is worth, the most first
	Tried         int
	NothingToGain bool // no position is better than where it stands
}

// Reason is what one change of a result is worth: the score without it.
type Reason struct {
	Lever    motion.Lever
	To       float64
	Without  float64 // score when this change alone is left out
	Measures motion.Measures
}

// tie is the part of the gain that a simpler answer may cost.
const tie = 0.03

// Optimise searches the free levers for the best score: points spread evenly over the
// box, then downhill from the best of them (Nelder and Mead), then back as far as it
// costs next to nothing: fewer changes, left and right alike, whole steps.
func Optimise(ctx context.Context, levers []motion.Lever, free []int, f motion.Measure, goal motion.Goal, evals int, tell func(Progress)) (Found, error) {
	if len(free) == 0 {
		return Found{}, errors.New("no lever is free to move")
	}
	s := &search{ctx: ctx, levers: levers, free: free, f: f, goal: goal, of: evals, tell: tell, best: math.Inf(-1)}
	base := motion.Positions(levers)
	before, err := f(ctx, base)
	if err != nil {
		return Found{}, err
	}
	s.took(base, before)
	was := s.best
	for _, x := range s.spread(evals / 2) {
		s.score(x)
		if ctx.Err() != nil {
			return Found{}, ctx.Err()
		}
	}
	s.downhill()
	if ctx.Err() != nil {
		return Found{}, ctx.Err()
	}
	s.simplify(base, was)
	out := Found{At: s.at, Before: before, After: s.measures, Score: s.best, Was: was, Tried: s.done}
	for _, i := range free {
		if s.at[i] == base[i] {
			continue
		}
		x := slices.Clone(s.at)
		x[i] = base[i]
		score, m := s.value(x)
		out.Reasons = append(out.Reasons, Reason{levers[i], s.at[i], score, m})
	}
	slices.SortStableFunc(out.Reasons, func(a, b Reason) int { return cmp.Compare(a.Without, b.Without) })
	out.NothingToGain = len(out.Reasons) == 0
	return out, ctx.Err()
}

type search struct {
	ctx      context.Context
	levers   []motion.Lever
	free     []int
	f        motion.Measure
	goal     motion.Goal
	done, of int
	tell     func(Progress)
	best     float64
	at       []float64
	measures motion.Measures
}

// value scores a position without taking note of it.
func (s *search) value(x []float64) (float64, motion.Measures) {
	m, err := s.f(s.ctx, x)
	if err != nil {
		return math.Inf(-1), nil
	}
	return s.goal(m), m
}

func (s *search) took(x []float64, m motion.Measures) {
	if v := s.goal(m); v > s.best || s.at == nil {
		s.best, s.at, s.measures = v, slices.Clone(x), m
	}
}

func (s *search) score(x []float64) float64 {
	v, m := s.value(x)
	if m != nil {
		s.took(x, m)
	}
	s.done++
	if s.tell != nil && s.done%8 == 0 {
		s.tell(Progress{min(s.done, s.of), s.of, s.best})
	}
	return v
}

// spread are n points that fill the box evenly (Halton, in prime bases), always the same.
func (s *search) spread(n int) [][]float64 {
	unit := mat.NewDense(n, len(s.free), nil)
	samplemv.Halton{Kind: samplemv.Owen, Q: distmv.NewUnitUniform(len(s.free), nil), Src: rand.NewPCG(5, 7)}.Sample(unit)
	out := make([][]float64, n)
	for k := range out {
		x := motion.Positions(s.levers)
		for d, i := range s.free {
			l := s.levers[i]
			x[i] = l.Min + unit.At(k, d)*(l.Max-l.Min)
		}
		out[k] = x
	}
	return out
}

func (s *search) downhill() {
	scale := func(i int) float64 { return math.Max(s.levers[i].Max-s.levers[i].Min, 1e-9) }
	x0 := make([]float64, len(s.free))
	for n, i := range s.free {
		x0[n] = (s.at[i] - s.levers[i].Min) / scale(i)
	}
	problem := optimize.Problem{
		Func: func(z []float64) float64 {
			x := motion.Positions(s.levers)
			out := 0.0
			for n, i := range s.free {
				v := math.Max(0, math.Min(1, z[n]))
				out += 1e3 * math.Abs(z[n]-v) // back into the box
				x[i] = s.levers[i].Min + v*scale(i)
			}
			v := s.score(x)
			if math.IsInf(v, -1) {
				return 1e12
			}
			return out - v
		},
		Status: func() (optimize.Status, error) {
			if s.ctx.Err() != nil || s.done >= s.of {
				return optimize.FunctionEvaluationLimit, nil
			}
			return optimize.NotTerminated, nil
		},
	}
	// It ends by itself, by the count of tries, or by being called off; the best of all
	// tries is kept in any case.
	_, _ = optimize.Minimize(problem, x0, &optimize.Settings{FuncEvaluations: max(1, s.of-s.done), Concurrent: 1}, &optimize.NelderMead{SimplexSize: 0.12})
}

// simplify takes changes back that bring next to nothing, and rounds the rest to half
// steps.
func (s *search) simplify(base []float64, was float64) {
	gain := s.best - was
	if !(gain > 0) {
		s.at = slices.Clone(base)
		s.best = was
		if m, err := s.f(s.ctx, base); err == nil {
			s.measures = m
		}
		return
	}
	floor := s.best - tie*gain
	try := func(i int, v float64) bool {
		if v == s.at[i] || v < s.levers[i].Min || v > s.levers[i].Max {
			return false
		}
		x := slices.Clone(s.at)
		x[i] = v
		score, m := s.value(x)
		if m == nil || score < floor {
			return false
		}
		s.at, s.best, s.measures = x, score, m
		return true
	}
	for _, i := range s.free {
		l := s.levers[i]
		if try(i, base[i]) || l.Even && try(i, 0) {
			continue
		}
		for _, unit := range []float64{l.Step, l.Step / 2, l.Step / 10} {
			if unit > 0 && try(i, math.Round(s.at[i]/unit)*unit) {
				break
			}
		}
	}
}
