package glide

import (
	"context"
	"fmt"
	"math"

	"tussock/internal/motion"
	"tussock/internal/motion/glide/craft"
	"tussock/internal/motion/toys"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Workbench folds, sets and throws one pattern on one sheet, again and again with other
// knobs. It may be used by several at once.
type Workbench struct {
	*Shapes
	Throw   Throw
	Room    Room
	Scatter Scatter
	// Softening lets bent edges give way at speed.
	Softening  bool
	conditions motion.Conditions
	ctx        context.Context //nolint:containedctx // that of the one question a copy answers
}

// asked is the workbench while somebody waits for an answer: it makes no more models
// when the asker has gone.
func (w *Workbench) asked(ctx context.Context) *Workbench {
	q := *w
	q.ctx = ctx
	return &q
}

// Shapes are the toys of one pattern on one sheet, kept by the knobs that their shape
// depends on. They may be shared.
type Shapes struct{ toys.Toys[craft.Toy] }

// NewShapes is for one pattern on one sheet.
func NewShapes(p *sequence.Pattern, s sheet.Sheet) *Shapes {
	return &Shapes{toys.Toys[craft.Toy]{Pattern: p, Sheet: s, Bent: bendOnly, Of: func(r *sequence.Replay) (craft.Toy, error) {
		t, ok := craft.Of(r)
		if !ok {
			return t, fmt.Errorf("%s has nothing that air could carry", p.Title)
		}
		return t, nil
	}}}
}

// bendOnly are the knobs that the shape does not depend on: bent edges are flows of the
// same lattice.
var bendOnly = map[string]bool{"curl": true, "curl_uneven": true, "twist": true, "rudder": true, "nose_side": true}

// Model is the toy at knob values. The error says which step cannot be folded.
func (w *Workbench) Model(knobs map[string]float64) (*Model, error) {
	if w.ctx != nil && w.ctx.Err() != nil {
		return nil, w.ctx.Err()
	}
	t, err := w.Toy(knobs)
	if err != nil {
		return nil, err
	}
	b := craft.BendsOf(craft.LastBendsOf(w.Values(knobs)))
	b.Softening = w.Softening
	return NewModel(t.Shape, t.Weight, b), nil
}

// Levers are all that can be set: the knobs at their values, and the throw. Knobs keep
// to the range in which a hand can move them from where they stand.
func (w *Workbench) Levers(knobs map[string]float64) []motion.Lever {
	out := w.Toys.Levers(knobs, uneven)
	for i := range out {
		l := &out[i]
		switch l.Name {
		case "wing":
			// Wings that hang far down or stand on end are no glider any more.
			l.Min, l.Max = math.Max(l.Min, math.Min(l.Value, 50)), math.Min(l.Max, math.Max(l.Value, 100))
		case "clip_aft":
			l.Step = 10
		}
	}
	return append(out, way.Levers(w.conditions)...)
}

// uneven are the knobs that tell left from right.
var uneven = map[string]bool{"curl_uneven": true, "wing_uneven": true, "twist": true, "rudder": true, "nose_side": true}

// What a glider is measured by.
const (
	ByDistance = "distance"
	ByTime     = "time"
	BySpeed    = "trim speed"
	ByRatio    = "glide ratio"
	ByDrift    = "drift"
	ByMargin   = "static margin"
)

// Throws is how many throws out of the scatter a position is judged by.
const Throws = 8

// Measure folds, sets and throws it at lever positions: averages over throws out of the
// scatter, always the same ones, so that positions can be compared. In the way of
// distance it also counts what the worst throws reach.
func (w *Workbench) Measure(levers []motion.Lever) motion.Measure {
	return func(ctx context.Context, at []float64) (motion.Measures, error) {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		knobs, c := motion.Split(levers, at)
		t := w.Throw
		if v, ok := c[SpeedOfThrow]; ok {
			t.SpeedMS = v
		}
		if v, ok := c[AngleOfThrow]; ok {
			t.AngleDeg = v
		}
		m, err := w.Model(knobs)
		if err != nil {
			return nil, err
		}
		out := motion.Measures{ByMargin: 100 * m.Margin()}
		if tr := m.Trims(); len(tr) > 0 {
			out[BySpeed], out[ByRatio] = tr[0].SpeedMS, tr[0].Ratio
		}
		s := w.Scatter
		s.Constants = false
		worst := math.Inf(1)
		var dist, time, drift, square float64
		for _, d := range s.draws(Throws, 1, t, m.Bends) {
			f := m.variant(d).Fly(d.throw, w.Room, nil)
			dist += f.AheadM / Throws
			time += f.TimeS / Throws
			drift += math.Abs(f.DriftM) / Throws
			square += f.AheadM * f.AheadM / Throws
			worst = math.Min(worst, f.AheadM)
		}
		out[ByDistance], out[ByTime], out[ByDrift] = dist, time, drift
		out[ByWorst], out[BySpread] = worst, math.Sqrt(math.Max(0, square-dist*dist))
		return out, nil
	}
}

const (
	ByWorst  = "worst distance"
	BySpread = "spread of distance"
)

// Goal scores measures for an aim. Where two are as good, the one whose throws differ
// less wins. ring is how far away a ring lies, m.
func (w *Workbench) Goal(aim string, ring float64) motion.Goal {
	const steady = 0.1
	return func(m motion.Measures) float64 {
		switch aim {
		case "longest":
			return m[ByTime] - steady*m[BySpread]/4
		case "straightest":
			// Metres aside for each metre ahead, and it must still fly.
			return m[ByDistance]/4 - 10*m[ByDrift]/math.Max(m[ByDistance], 1)
		case "forgiving":
			return m[ByWorst] + 0.2*m[ByDistance]
		case "ring":
			return -math.Abs(m[ByDistance]-ring) - m[BySpread]
		}
		return m[ByDistance] - steady*m[BySpread]
	}
}
