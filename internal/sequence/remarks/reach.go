package remarks

import (
	"context"
	"math"

	"tussock/internal/fold"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/turn"
)

// Reach is how far a knob goes on the sheet at hand, the other knobs as they are.
type Reach struct {
	Name string
	// Min and Max bound the stretch round the present value in which the pattern folds and
	// the same paper moves in every step.
	Min, Max float64
	// Below and Above are what ends the stretch; nil where the pattern's own range does.
	Below, Above *End
}

// End is what ends a knob's stretch.
type End struct {
	At   float64 // a value beyond the end
	Step int     // that goes wrong with it
	Why  string
	// Other is a knob that makes At possible, and To the nearest value of it that was found
	// to do so; "" when none alone does.
	Other string
	To    float64
}

// jumpShare is the share of the sheet by which the paper that a step moves jumps when
// other pieces move: a fold line that wanders takes along more paper little by little.
// jumpRounds halve the stretch in which it changes, to a millionth.
const (
	jumpShare  = 0.01
	jumpRounds = 20
)

// ReachOf searches the reach of every knob that folds something. It asks ctx before each
// value tried and returns its error.
func ReachOf(ctx context.Context, p *sequence.Pattern, s sheet.Sheet, knobs map[string]float64) ([]Reach, error) {
	var out []Reach
	for _, k := range p.Knobs {
		if k.Plain || k.Implied || k.Either || k.Min == k.Max {
			continue
		}
		now := valueOf(k, knobs)
		w := walk{p: p, s: s, knobs: knobs, knob: k, seen: map[float64]walked{}, ctx: ctx}
		if w.at(now).err != nil && ctx.Err() == nil {
			continue
		}
		r := Reach{Name: k.Name}
		r.Min, r.Below = w.end(now, k.Min)
		r.Max, r.Above = w.end(now, k.Max)
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		out = append(out, r)
	}
	return out, nil
}

// walk goes along one knob.
type walk struct {
	p     *sequence.Pattern
	s     sheet.Sheet
	knobs map[string]float64
	knob  sequence.Knob
	seen  map[float64]walked
	last  *sequence.Replay
	ctx   context.Context
}

// offHand is what is told of values that nobody waits for any more.
var offHand = &fold.Error{Code: fold.CodeExpect, Detail: "nobody waits for it"}

// run folds with other knobs; steps that come out as before are taken over.
func (w *walk) run(knobs map[string]float64) *sequence.Replay {
	w.last = w.p.Rerun(w.last, w.s, knobs)
	return w.last
}

// walked is what happens at a value.
type walked struct {
	err   *fold.Error
	moved []movedPaper
}

// movedPaper is the share of the sheet that one motion of a step moves.
type movedPaper struct {
	step  int
	share float64
}

func (w *walk) at(v float64) walked {
	if out, known := w.seen[v]; known {
		return out
	}
	_, done, err := turn.Take(w.ctx)
	if err != nil {
		return walked{err: offHand}
	}
	defer done()
	r := w.run(with(w.knobs, w.knob.Name, v))
	out := walked{moved: papersMoved(r)}
	if r.Err != nil {
		out.err = fold.As(r.Err)
	}
	w.seen[v] = out
	return out
}

// end walks from a value that works towards a bound.
func (w *walk) end(from, bound float64) (last float64, why *End) {
	steps := 24
	if w.knob.Whole {
		steps = int(math.Round(math.Abs(bound - from)))
	}
	good := from
	for i := 1; i <= steps; i++ {
		v := from + (bound-from)*float64(i)/float64(steps)
		if i == steps {
			v = bound
		}
		fault := w.between(good, v)
		if fault == nil {
			good = v
			continue
		}
		bad := v
		for range jumpRounds {
			m := (good + bad) / 2
			if w.knob.Whole {
				break
			}
			if w.between(good, m) == nil {
				good = m
			} else {
				bad = m
			}
		}
		e := End{At: v, Step: fault.Step, Why: fault.Told()}
		if w.at(v).err != nil {
			e.Other, e.To = w.helper(v)
		}
		return w.inward(good, from), &e
	}
	return bound, nil
}

// between is what goes wrong on the way from a value that works to another one; nil when
// nothing does.
func (w *walk) between(good, v float64) *fold.Error {
	there := w.at(v)
	if there.err != nil || w.knob.Whole {
		return there.err
	}
	lo, hi := good, v
	step := jump(w.at(lo).moved, there.moved)
	for round := 0; step > 0 && round < jumpRounds; round++ {
		m := (lo + hi) / 2
		mid := w.at(m)
		if mid.err != nil {
			return mid.err
		}
		if first := jump(w.at(lo).moved, mid.moved); first > 0 {
			hi, step = m, first
		} else {
			lo = m
			step = jump(mid.moved, w.at(hi).moved)
		}
	}
	if step == 0 {
		return nil
	}
	return &fold.Error{Code: fold.CodeExpect, Step: step, Detail: "other pieces of paper move from there on"}
}

// jump is the first step that moves other paper, 0 when none does.
func jump(a, b []movedPaper) int {
	for i := range a {
		if i >= len(b) || a[i].step != b[i].step || math.Abs(a[i].share-b[i].share) > jumpShare {
			return a[i].step
		}
	}
	if len(b) > len(a) {
		return b[len(a)].step
	}
	return 0
}

func papersMoved(r *sequence.Replay) []movedPaper {
	var out []movedPaper
	whole := r.Sheet.AreaMM2()
	for _, d := range r.Steps {
		for _, m := range d.Moves {
			area := 0.0
			for _, f := range m.After.F {
				was := m.Before.F[f.Parent].Iso
				for _, q := range f.Poly {
					if was.Apply(q).Dist(f.Iso.Apply(q)) > 1e-6 {
						area += f.Poly.Area()
						break
					}
				}
			}
			out = append(out, movedPaper{d.No, area / whole})
		}
	}
	return out
}

// helper looks for one other knob that lets this one have a value, and the nearest value
// of it found to do so, in steps that a hand can make.
func (w *walk) helper(v float64) (name string, to float64) {
	near := math.Inf(1)
	for _, k := range w.p.Knobs {
		if k.Plain || k.Implied || k.Min == k.Max || k.Name == w.knob.Name {
			continue
		}
		now := valueOf(k, w.knobs)
		for _, bound := range []float64{k.Min, k.Max} {
			for i := 1; i <= helperTries; i++ {
				x := now + (bound-now)*float64(i)/helperTries
				if g := grain(k); i < helperTries {
					x = math.Round(x*g) / g
				}
				away := math.Abs(x-now) / (k.Max - k.Min)
				if away == 0 || k.Whole && x != math.Trunc(x) {
					continue
				}
				if away >= near {
					break
				}
				if w.ctx.Err() == nil && w.run(with(with(w.knobs, w.knob.Name, v), k.Name, x)).Err == nil {
					name, to, near = k.Name, x, away
					break
				}
			}
		}
	}
	return name, to
}

// helperTries divide what another knob has to give on either side.
const helperTries = 12

func valueOf(k sequence.Knob, knobs map[string]float64) float64 {
	if v, set := knobs[k.Name]; set {
		return v
	}
	return k.Default
}

// inward takes an end inward to what a person can set, where that lies before the start.
func (w *walk) inward(end, from float64) float64 {
	works := func(v float64) bool { return w.at(v).err == nil }
	if end > from {
		return inward(end, from, grain(w.knob), works)
	}
	return -inward(-end, -from, grain(w.knob), func(v float64) bool { return works(-v) })
}
