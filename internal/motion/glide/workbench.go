package glide

import (
	"context"
	"fmt"
	"math"
	"strings"
	"sync"

	"tussock/internal/motion"
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
	Softening bool
}

// Shapes are the toys of one pattern on one sheet, kept by the knobs that their shape
// depends on. They may be shared.
type Shapes struct {
	Pattern *sequence.Pattern
	Sheet   sheet.Sheet

	mu   sync.Mutex
	toys map[string]kept
}

type kept struct {
	toy Toy
	err error
}

// mostKept bounds the shapes kept; they are all dropped when it comes there.
const mostKept = 400

// bendOnly are the knobs that the shape does not depend on: bent edges are flows of the
// same lattice.
var bendOnly = map[string]bool{"curl": true, "curl_uneven": true, "twist": true, "rudder": true, "nose_side": true}

// Model is the toy at knob values. The error says which step cannot be folded.
func (w *Workbench) Model(knobs map[string]float64) (*Model, error) {
	t, err := w.Toy(knobs)
	if err != nil {
		return nil, err
	}
	return t.Model(w.bends(knobs)), nil
}

// Toy is the folded toy at knob values.
func (w *Shapes) Toy(knobs map[string]float64) (Toy, error) {
	var key strings.Builder
	shape := map[string]float64{}
	for _, k := range w.Pattern.Knobs {
		if v, given := knobs[k.Name]; given && !bendOnly[k.Name] {
			fmt.Fprintf(&key, "%s=%g;", k.Name, v)
			shape[k.Name] = v
		}
	}
	w.mu.Lock()
	k, found := w.toys[key.String()]
	w.mu.Unlock()
	if !found {
		k = w.fold(shape)
		w.mu.Lock()
		if w.toys == nil || len(w.toys) >= mostKept {
			w.toys = map[string]kept{}
		}
		w.toys[key.String()] = k
		w.mu.Unlock()
	}
	return k.toy, k.err
}

func (w *Shapes) fold(knobs map[string]float64) kept {
	r := w.Pattern.Run(w.Sheet, knobs)
	if r.Err != nil {
		return kept{err: fmt.Errorf("step %d cannot be folded: %s", r.Err.Step, r.Err.Detail)}
	}
	t, ok := Of(r)
	if !ok {
		return kept{err: fmt.Errorf("%s has nothing that air could carry", w.Pattern.Title)}
	}
	return kept{toy: t}
}

// bends are the last bends at knob values, the pattern's own where none is given.
func (w *Workbench) bends(knobs map[string]float64) Bends {
	r := sequence.Replay{Values: map[string]float64{}}
	for _, k := range w.Pattern.Knobs {
		r.Values[k.Name] = k.Default
		if v, ok := knobs[k.Name]; ok {
			r.Values[k.Name] = v
		}
	}
	b := BendsOf(r.LastBends())
	b.Softening = w.Softening
	return b
}

// Levers of the throw beside the knobs of the pattern.
const (
	LeverSpeed = "throw.speed"
	LeverAngle = "throw.angle"
)

// Levers are all that can be set: the knobs at their values, and the throw. Knobs keep
// to the range in which a hand can move them from where they stand.
func (w *Workbench) Levers(knobs map[string]float64) []motion.Lever {
	var out []motion.Lever
	for _, k := range w.Pattern.Knobs {
		if k.Plain || k.Min == k.Max {
			continue
		}
		v, given := knobs[k.Name]
		if !given {
			v = k.Default
		}
		l := motion.Lever{Name: k.Name, Label: k.Label, Unit: k.Unit, Min: k.Min, Max: k.Max, Value: v, Step: 1, Even: uneven[k.Name], Hard: k.Kind == sequence.HardFold}
		if k.Unit == "g" {
			l.Step = 0.1
		}
		if k.Unit == "" {
			l.Step = (k.Max - k.Min) / 50
		}
		if k.Name == "wing" {
			// Wings that hang far down or stand on end are no glider any more.
			l.Min, l.Max = math.Max(l.Min, math.Min(v, 50)), math.Min(l.Max, math.Max(v, 100))
		}
		if k.Name == "clip_aft" {
			l.Step = 10
		}
		out = append(out, l)
	}
	return append(out,
		motion.Lever{Name: LeverSpeed, Label: "Speed of the throw", Unit: "m/s", Min: 2, Max: 14, Value: w.Throw.SpeedMS, Step: 0.5},
		motion.Lever{Name: LeverAngle, Label: "Angle of the throw", Unit: "deg", Min: -20, Max: 40, Value: w.Throw.AngleDeg, Step: 5})
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
		knobs := map[string]float64{}
		t := w.Throw
		for i, l := range levers {
			switch l.Name {
			case LeverSpeed:
				t.SpeedMS = at[i]
			case LeverAngle:
				t.AngleDeg = at[i]
			default:
				knobs[l.Name] = at[i]
			}
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

// Aim is what a toy is tuned for.
type Aim struct {
	Kind  string  // farthest, longest, straightest, forgiving, ring
	RingM float64 // how far away the ring lies
}

// Aims are the kinds of aim.
var Aims = []string{"farthest", "longest", "straightest", "forgiving", "ring"}

// Goal scores measures for an aim. Where two are as good, the one whose throws differ
// less wins.
func (a Aim) Goal() motion.Goal {
	const steady = 0.1
	return func(m motion.Measures) float64 {
		switch a.Kind {
		case "longest":
			return m[ByTime] - steady*m[BySpread]/4
		case "straightest":
			// Metres aside for each metre ahead, and it must still fly.
			return m[ByDistance]/4 - 10*m[ByDrift]/math.Max(m[ByDistance], 1)
		case "forgiving":
			return m[ByWorst] + 0.2*m[ByDistance]
		case "ring":
			return -math.Abs(m[ByDistance]-a.RingM) - m[BySpread]
		}
		return m[ByDistance] - steady*m[BySpread]
	}
}
