package tune

import (
	"cmp"
	"context"
	"errors"
	"math"
	"math/rand/v2"
	"slices"

	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/optimize"
	"gonum.org/v1/gonum/stat"
	"gonum.org/v1/gonum/stat/distmv"
	"gonum.org/v1/gonum/stat/samplemv"

	"tussock/internal/motion"
)

// Progress tells how far a search has come.
type Progress struct {
	Done int     `json:"done"`
	Of   int     `json:"of"`
	Best float64 `json:"best"`
}

// Found is the best that a search came to.
type Found struct {
	At            []float64
	Before, After motion.Measures // by fresh trials, that nothing was chosen by
	Score, Was    float64         // likewise
	// Gain is what of the gauge a fresh trial gains against the same trial before: in the
	// middle, and in eight of ten. Less is better counts as gain too.
	Gain          motion.Range
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

// tie is the part of the gain that a simpler answer may cost, and evenTie what left and
// right alike may: any sample of trials leans a little to one side.
const tie, evenTie = 0.03, 0.15

// The rounds of a race: a part of those that are left goes on, and is tried by more trials.
var rounds = []struct {
	by   motion.Sample
	left int // how many go on
}{{motion.Sample{N: 8}, 36}, {motion.Sample{N: 24}, 10}, {motion.Rough, 4}}

// Fresh trials by which the winner is judged, and by which what single trials gain.
const judgedBy, pairs = 600, 100

// noisy is how many standard errors of its mean a gain must be to be one.
const noisy = 3

// Optimise searches the free levers for the best score. Points spread evenly over the box
// race each other: most are tried by few trials, the best by more and more. From the
// winner it goes downhill (Nelder and Mead), then back as far as it costs next to nothing:
// fewer changes, left and right alike, whole steps. What it gains is told by fresh trials,
// since the best of many by the same few is luck in part; where they see no gain there is
// none. gain is the measure that its gain is told in, less whether less of it is better.
func Optimise(ctx context.Context, levers []motion.Lever, free []int, f motion.Measure, goal motion.Goal, gain motion.Gauge, evals int, tell func(Progress)) (Found, error) {
	if len(free) == 0 {
		return Found{}, errors.New("no lever is free to move")
	}
	s := &search{ctx: ctx, levers: levers, free: free, f: f, goal: goal, of: evals + rounds[0].left + rounds[1].left, tell: tell}
	base := motion.Positions(levers)
	f = inTurn(f)
	before, err := f(ctx, base, motion.Whole)
	if err != nil {
		return Found{}, err
	}
	was := goal(before)
	field := s.race(append([][]float64{base}, s.spread(evals/2)...))
	if len(field) > 0 {
		field = append(field, s.downhill(field[0]))
	}
	s.at, s.best = base, was
	for _, x := range field {
		if v := s.value(x, motion.Whole); v > s.best {
			s.at, s.best = x, v
		}
	}
	s.simplify(base, was)
	if ctx.Err() != nil {
		return Found{}, ctx.Err()
	}
	return s.found(base, gain)
}

// found judges the winner by fresh trials.
func (s *search) found(base []float64, gain motion.Gauge) (Found, error) {
	by := motion.Fresh(judgedBy)
	before, err := s.f(s.ctx, base, by)
	if err != nil {
		return Found{}, err
	}
	out := Found{At: base, Before: before, After: before, Was: s.goal(before), Score: s.goal(before), Tried: s.done, NothingToGain: true}
	after, err := s.f(s.ctx, s.at, by)
	if err != nil || s.goal(after) <= out.Was || slices.Equal(s.at, base) {
		return out, s.ctx.Err()
	}
	out.At, out.After, out.Score, out.NothingToGain = s.at, after, s.goal(after), false
	for _, i := range s.free {
		if s.at[i] == base[i] {
			continue
		}
		x := slices.Clone(s.at)
		x[i] = base[i]
		r := Reason{Lever: s.levers[i], To: s.at[i], Without: math.Inf(-1)}
		if m, err := s.f(s.ctx, x, by); err == nil {
			r.Without, r.Measures = s.goal(m), m
		}
		out.Reasons = append(out.Reasons, r)
	}
	slices.SortStableFunc(out.Reasons, func(a, b Reason) int { return cmp.Compare(a.Without, b.Without) })
	var gains []float64
	for i := range pairs {
		one := motion.Sample{From: by.From + i, N: 1}
		a, errA := s.f(s.ctx, base, one)
		b, errB := s.f(s.ctx, s.at, one)
		if errA != nil || errB != nil {
			continue
		}
		d := b[gain.Name] - a[gain.Name]
		if gain.Less {
			d = -d
		}
		gains = append(gains, d)
	}
	if noise := noisy * stat.StdDev(gains, nil) / math.Sqrt(judgedBy); len(gains) > 2 && math.Abs(stat.Mean(gains, nil)) < noise {
		return Found{At: base, Before: before, After: before, Was: out.Was, Score: out.Was, Tried: s.done, NothingToGain: true}, s.ctx.Err()
	}
	out.Gain = motion.RangeOf(gains)
	return out, s.ctx.Err()
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
}

// value scores a position by a sample.
func (s *search) value(x []float64, by motion.Sample) float64 {
	m, err := s.f(s.ctx, x, by)
	if err != nil {
		return math.Inf(-1)
	}
	return s.goal(m)
}

func (s *search) tried(best float64) {
	s.done++
	if s.tell != nil && s.done%8 == 0 {
		s.tell(Progress{min(s.done, s.of), s.of, best})
	}
}

// race tries positions by more and more trials; the best come first.
func (s *search) race(field [][]float64) [][]float64 {
	type runner struct {
		at    []float64
		score float64
	}
	left := make([]runner, len(field))
	for i, x := range field {
		left[i].at = x
	}
	for _, r := range rounds {
		best := math.Inf(-1)
		for i := range left {
			if s.ctx.Err() != nil {
				return nil
			}
			left[i].score = s.value(left[i].at, r.by)
			best = math.Max(best, left[i].score)
			s.tried(best)
		}
		slices.SortStableFunc(left, func(a, b runner) int { return cmp.Compare(b.score, a.score) })
		left = slices.DeleteFunc(left[:min(len(left), r.left)], func(q runner) bool { return math.IsInf(q.score, -1) })
	}
	field = field[:0]
	for _, r := range left {
		field = append(field, r.at)
	}
	return field
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
			if l.Even && k%4 != 0 {
				continue // what tells left from right seldom gains: most points leave it
			}
			x[i] = l.Snap(l.Min + unit.At(k, d)*(l.Max-l.Min))
		}
		out[k] = x
	}
	return out
}

// downhill goes from a position to the best one nearby.
func (s *search) downhill(from []float64) []float64 {
	scale := func(i int) float64 { return math.Max(s.levers[i].Max-s.levers[i].Min, 1e-9) }
	x0 := make([]float64, len(s.free))
	for n, i := range s.free {
		x0[n] = (from[i] - s.levers[i].Min) / scale(i)
	}
	at, best := from, math.Inf(-1)
	problem := optimize.Problem{
		Func: func(z []float64) float64 {
			x := motion.Positions(s.levers)
			out := 0.0
			for n, i := range s.free {
				v := math.Max(0, math.Min(1, z[n]))
				out += 1e3 * math.Abs(z[n]-v) // back into the box
				x[i] = s.levers[i].Snap(s.levers[i].Min + v*scale(i))
			}
			v := s.value(x, motion.Rough)
			if v > best {
				at, best = x, v
			}
			s.tried(best)
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
	return at
}

// simplify takes changes back that bring next to nothing, and rounds the rest to half
// steps.
func (s *search) simplify(base []float64, was float64) {
	gain := s.best - was
	floor, evenFloor := s.best-tie*gain, s.best-evenTie*gain
	take := func(x []float64, floor float64) bool {
		score := s.value(x, motion.Whole)
		if score < floor {
			return false
		}
		s.at, s.best = x, score
		return true
	}
	try := func(i int, v, floor float64) bool {
		if v == s.at[i] || v < s.levers[i].Min || v > s.levers[i].Max {
			return false
		}
		x := slices.Clone(s.at)
		x[i] = s.levers[i].Snap(v)
		return take(x, floor)
	}
	// One that leans may only hold another one up: all at once first.
	even := slices.Clone(s.at)
	for _, i := range s.free {
		if s.levers[i].Even {
			even[i] = base[i]
		}
	}
	take(even, evenFloor)
	for _, i := range s.free {
		l := s.levers[i]
		if s.at[i] == base[i] || try(i, base[i], floor) || l.Even && try(i, 0, evenFloor) || l.Whole {
			continue
		}
		for _, unit := range []float64{l.Step, l.Step / 2, l.Step / 10} {
			if unit > 0 && try(i, math.Round(s.at[i]/unit)*unit, floor) {
				break
			}
		}
	}
}
