// Package tune finds out which knob matters and what to change next, for any way of
// moving. It knows knobs as levers with a range and a step, and the toy as a function
// from lever positions to measures; it moves levers and compares.
package tune

import (
	"cmp"
	"context"
	"math"
	"runtime"
	"slices"

	"golang.org/x/sync/errgroup"

	"tussock/internal/motion"
	"tussock/internal/turn"
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

// inTurn gives way to others before each measuring.
func inTurn(f motion.Measure) motion.Measure {
	return func(ctx context.Context, at []float64, by motion.Sample) (motion.Measures, error) {
		ctx, done, err := turn.Take(ctx)
		if err != nil {
			return nil, err
		}
		defer done()
		return f(ctx, at, by)
	}
}

// Sensitivity moves each lever by one step up and down. Effects are sorted by what they
// do to the first measure named.
func Sensitivity(ctx context.Context, levers []motion.Lever, f motion.Measure, by string) ([]Effect, error) {
	f = inTurn(f)
	base := motion.Positions(levers)
	zero, err := f(ctx, base, motion.Whole)
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
			m, err := f(ctx, x, motion.Whole)
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

// Sweep moves one lever over its range, or over part of it, and measures by a sample.
func Sweep(ctx context.Context, levers []motion.Lever, which int, lo, hi float64, n int, f motion.Measure, by motion.Sample) ([]Point, error) {
	f = inTurn(f)
	var out []Point
	for k := range n {
		x := motion.Positions(levers)
		x[which] = levers[which].Snap(lo + (hi-lo)*float64(k)/float64(n-1))
		if len(out) > 0 && out[len(out)-1].At == x[which] {
			continue
		}
		m, err := f(ctx, x, by)
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
			moved[second].Value = m.Snap(m.Min + (m.Max-m.Min)*float64(k)/float64(n-1))
			points, err := Sweep(ctx, moved, first, l.Min, l.Max, n, f, motion.Rough)
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
