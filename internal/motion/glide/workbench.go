package glide

import (
	"context"
	"fmt"
	"math"

	lru "github.com/hashicorp/golang-lru/v2"

	"tussock/internal/motion"
	"tussock/internal/motion/glide/craft"
	"tussock/internal/motion/toys"
	"tussock/internal/order"
	"tussock/internal/sequence"
	"tussock/internal/sheet"

	"tussock/internal/motion/glide/flight"
)

// Workbench folds, sets and throws one pattern on one sheet, again and again with other
// knobs. It may be used by several at once.
type Workbench struct {
	*Shapes
	Throw   flight.Throw
	Room    flight.Room
	Scatter flight.Scatter
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
type Shapes struct {
	toys.Toys[craft.Toy]
	ghosts *lru.Cache[string, GhostPath]
}

// mostGhosts is how many paths of earlier set-ups are kept.
const mostGhosts = 32

// NewShapes is for one pattern on one sheet.
func NewShapes(p *sequence.Pattern, s sheet.Sheet) *Shapes {
	ghosts, err := lru.New[string, GhostPath](mostGhosts)
	if err != nil {
		panic(err) // for sizes under 1 only
	}
	return &Shapes{ghosts: ghosts, Toys: toys.Toys[craft.Toy]{Pattern: p, Sheet: s, Bent: bendOnly, Of: func(r *sequence.Replay) (craft.Toy, error) {
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
func (w *Workbench) Model(knobs map[string]float64) (*flight.Model, error) {
	if w.ctx != nil && w.ctx.Err() != nil {
		return nil, w.ctx.Err()
	}
	t, err := w.Toy(knobs)
	if err != nil {
		return nil, err
	}
	b := craft.BendsOf(craft.LastBendsOf(w.Values(knobs)))
	b.Softening = w.Softening
	return flight.ModelOf(t, b), nil
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
	trial := way.Levers(w.conditions)
	for i := range trial {
		if l := &trial[i]; l.Name == SpeedOfThrow && l.Value == 0 {
			if m, err := w.Model(knobs); err == nil {
				l.Value = w.throw(m).SpeedMS
			}
		}
	}
	return append(out, trial...)
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

// Measure folds, sets and throws it at lever positions: middles over throws out of the
// scatter. It also counts what the worst throws reach.
func (w *Workbench) Measure(levers []motion.Lever) motion.Measure {
	start := motion.Conditions{}
	for _, l := range levers {
		if l.Trial {
			start[l.Name] = l.Value
		}
	}
	return func(ctx context.Context, at []float64, by motion.Sample) (motion.Measures, error) {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		knobs, c := motion.Split(levers, at)
		q := *w
		// A speed that was left to the toy stays left to it.
		if v, ok := c[SpeedOfThrow]; ok && (w.Throw.SpeedMS > 0 || v != start[SpeedOfThrow]) {
			q.Throw.SpeedMS = v
		}
		if v, ok := c[AngleOfThrow]; ok {
			q.Throw.AngleDeg = v
		}
		m, err := q.asked(ctx).Model(knobs)
		if err != nil {
			return nil, err
		}
		out := motion.Measures{ByMargin: 100 * m.Margin()}
		if tr := m.Trims(); len(tr) > 0 {
			out[BySpeed], out[ByRatio] = tr[0].SpeedMS, tr[0].Ratio
		}
		throws := m.Throws(q.throw(m), w.Room, w.Scatter, by.From, by.N, false)
		s := flight.Told(throws)
		aside := make([]float64, len(throws))
		for i, f := range throws {
			aside[i] = math.Abs(f.DriftM)
		}
		out[ByDistance], out[ByTime], out[ByDrift] = s.Distance.Middle, s.Time.Middle, order.Median(aside)
		out[ByWorst], out[BySpread] = s.Distance.Lo, (s.Distance.Hi-s.Distance.Lo)/tenths
		return out, nil
	}
}

// tenths is how many standard deviations of the normal law lie between the first and the
// last tenth.
const tenths = 2.563

const (
	ByWorst  = "worst distance"
	BySpread = "spread of distance"
)

// noTrim is how much a set-up that settles to no glide is worth less than any that does.
const noTrim = 1000

// Goal scores measures for an aim. Where two are as good, the one whose throws differ
// less wins; one that has no steady glide never does. ring is how far away a ring lies, m.
func (w *Workbench) Goal(aim string, ring float64) motion.Goal {
	const steady = 0.1
	return func(m motion.Measures) float64 {
		less := 0.0
		if _, glides := m[BySpeed]; !glides {
			less = noTrim
		}
		switch aim {
		case "longest":
			return m[ByTime] - steady*m[BySpread]/4 - less
		case "straightest":
			// Metres aside for each metre ahead, and it must still fly.
			return m[ByDistance]/4 - 10*m[ByDrift]/math.Max(m[ByDistance], 1) - less
		case "forgiving":
			return m[ByWorst] + 0.2*m[ByDistance] - less
		case "ring":
			return -math.Abs(m[ByDistance]-ring) - m[BySpread] - less
		}
		return m[ByDistance] - steady*m[BySpread] - less
	}
}

// What is offered where the speed of the throw is left to the toy: so much more than it
// settles to, m/s, as far as a hand throws without force; what has no steady glide is thrown
// gently.
const (
	offeredOver             = 1.05
	leastThrown, mostThrown = 2.0, 7.5
	gently                  = 5.0
)

// throw is the throw of a toy: at its own speed when none was given.
func (w *Workbench) throw(m *flight.Model) flight.Throw {
	t := w.Throw
	if t.SpeedMS > 0 {
		return t
	}
	t.SpeedMS = gently
	if tr := m.Trims(); len(tr) > 0 {
		t.SpeedMS = min(max(math.Round(10*offeredOver*tr[0].SpeedMS)/10, leastThrown), mostThrown)
	}
	return t
}
