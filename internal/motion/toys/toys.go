// Package toys folds one pattern on one sheet again and again with other knobs, and
// keeps what a way of moving needs to know of the result.
package toys

import (
	"context"
	"errors"
	"fmt"
	"math"
	"strings"
	"sync"

	"tussock/internal/fold"
	"tussock/internal/motion"
	"tussock/internal/sequence"
	"tussock/internal/sequence/knob"
	"tussock/internal/sheet"
)

// Toys of one pattern on one sheet, kept by the knobs that their shape depends on. They
// may be shared.
type Toys[T any] struct {
	Pattern *sequence.Pattern
	Sheet   sheet.Sheet
	// Of reads the toy off a successful replay.
	Of func(*sequence.Replay) (T, error)
	// Bent knobs leave the shape alone: the way of moving reckons with them itself.
	Bent map[string]bool

	mu   sync.Mutex
	kept map[string]kept[T]
	last *sequence.Replay // the newest that could be folded: the next one takes over its first steps
}

type kept[T any] struct {
	toy T
	err error
}

// mostKept bounds the toys kept; they are all dropped when it comes there.
const mostKept = 400

// Toy at knob values. The error says which step cannot be folded.
func (t *Toys[T]) Toy(knobs map[string]float64) (T, error) {
	var key strings.Builder
	shape := map[string]float64{}
	for _, k := range t.Pattern.Knobs {
		if v, given := knobs[k.Name]; given && !t.Bent[k.Name] {
			fmt.Fprintf(&key, "%s=%g;", k.Name, v)
			shape[k.Name] = v
		}
	}
	t.mu.Lock()
	k, found := t.kept[key.String()]
	t.mu.Unlock()
	if !found {
		k = t.fold(shape)
		t.mu.Lock()
		if t.kept == nil || len(t.kept) >= mostKept {
			t.kept = map[string]kept[T]{}
		}
		t.kept[key.String()] = k
		t.mu.Unlock()
	}
	return k.toy, k.err
}

// At is the toy at knob values, with all of these; the context's error when the asker has
// gone.
func (t *Toys[T]) At(ctx context.Context, knobs map[string]float64) (toy T, values map[string]float64, err error) {
	if err = ctx.Err(); err != nil {
		return toy, nil, err
	}
	toy, err = t.Toy(knobs)
	return toy, t.Values(knobs), err
}

func (t *Toys[T]) fold(knobs map[string]float64) (out kept[T]) {
	t.mu.Lock()
	last := t.last
	t.mu.Unlock()
	r := t.Pattern.Rerun(last, t.Sheet, knobs)
	if r.Err != nil {
		out.err = errors.New(fold.As(r.Err).Where())
		return out
	}
	t.mu.Lock()
	t.last = r
	t.mu.Unlock()
	out.toy, out.err = t.Of(r)
	return out
}

// Values are all knobs, those not given at the pattern's own values.
func (t *Toys[T]) Values(knobs map[string]float64) map[string]float64 {
	out := map[string]float64{}
	for _, k := range t.Pattern.Knobs {
		out[k.Name] = k.Default
		if v, ok := knobs[k.Name]; ok {
			out[k.Name] = v
		}
	}
	return out
}

// Value of one knob.
func (t *Toys[T]) Value(knobs map[string]float64, name string) float64 {
	if v, ok := knobs[name]; ok {
		return v
	}
	if i := t.Pattern.KnobIndex(name); i >= 0 {
		return t.Pattern.Knobs[i].Default
	}
	return 0
}

// Change of a knob by an amount, as far as it goes.
func (t *Toys[T]) Change(knobs map[string]float64, name string, by float64) motion.Change {
	i := t.Pattern.KnobIndex(name)
	if i < 0 {
		return motion.Change{Knob: name}
	}
	k, from := t.Pattern.Knobs[i], t.Value(knobs, name)
	return motion.Change{Knob: name, Label: k.Label, Unit: k.Unit, From: from, To: math.Max(k.Min, math.Min(k.Max, from+by))}
}

// With are knobs after changes.
func With(knobs map[string]float64, changes ...motion.Change) map[string]float64 {
	out := map[string]float64{}
	for k, v := range knobs {
		out[k] = v
	}
	for _, c := range changes {
		out[c.Knob] = c.To
	}
	return out
}

// PaperG is what a folded toy weighs, g: its paper and all that is fixed to it, however it
// stands.
func PaperG(r *sequence.Replay) float64 {
	g := r.Final().PaperMM2() * r.Sheet.GSM * 1e-6
	for _, m := range r.Masses {
		g += m.G
	}
	return g
}

// partStep is the least of a way along the paper that a fold can be moved by: half a
// millimetre on the five centimetres that such a way usually has.
const partStep = 0.01

// Levers are the knobs of the pattern, each with the step that a hand can make. Even
// knobs tell left from right.
func (t *Toys[T]) Levers(knobs map[string]float64, even map[string]bool) []motion.Lever {
	var out []motion.Lever
	for _, k := range t.Pattern.Knobs {
		if k.Plain || k.Read || k.Min == k.Max {
			continue
		}
		l := motion.Lever{Name: k.Name, Label: k.Label, Unit: k.Told(), Min: k.Min, Max: k.Max, Value: t.Value(knobs, k.Name), Step: 1, Even: even[k.Name], Hard: k.Kind == sequence.HardFold, Whole: k.Whole || k.Either}
		switch k.Unit {
		case "g":
			l.Step = 0.1
		case "":
			l.Step = (k.Max - k.Min) / 50
			if k.Told() == knob.Part {
				l.Step = partStep
			}
		}
		if k.Step > 0 {
			l.Step = k.Step
		}
		l.Named = []motion.Named{}
		for _, n := range k.Named {
			l.Named = append(l.Named, motion.Named(n))
		}
		out = append(out, l)
	}
	return out
}

// Scaled are knobs of a pattern for a sheet k times as large: places of folds that are
// lengths go along, as far as they may.
func Scaled(p *sequence.Pattern, knobs map[string]float64, k float64) map[string]float64 {
	out := With(knobs)
	for _, q := range p.Knobs {
		if v, given := knobs[q.Name]; given && q.Unit == "mm" && q.Kind == sequence.HardFold && !q.Plain {
			out[q.Name] = math.Max(q.Min, math.Min(q.Max, v*k))
		}
	}
	return out
}
