package toys

import (
	"context"
	"fmt"
	"math"
	"slices"
	"sync"

	"tussock/internal/body"
	"tussock/internal/motion"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// warnBelow is the condition that says of how small a toy one wants to be warned, m.
const warnBelow = "small"

// smallMM is what fits into the mouth of a small child, by the usual rule for toys.
const smallMM = 40.0

// Complete fills in what every way has alike: lists that are missing, and the caution of
// toys so small that they can be swallowed.
func (w *Way) Complete() {
	w.Way = w.Filled()
	w.Writes = w.Writing != nil
	for _, c := range w.Conditions {
		if c.Name == warnBelow {
			return
		}
	}
	w.Conditions = append(w.Conditions[:len(w.Conditions):len(w.Conditions)], motion.Condition{Name: warnBelow, Label: "Warn of toys smaller than", Unit: "cm", Group: "Safety",
		Default: smallMM / 1000, Min: 0.005, Max: 0.2, Options: []motion.Option{}})
	on := w.On
	w.On = func(p *sequence.Pattern, s sheet.Sheet) motion.Bench {
		return &watched{Bench: on(p, s), pattern: p, sheet: s, kept: map[string]look{}}
	}
}

// watched is a bench whose predictions warn of small toys.
type watched struct {
	motion.Bench
	pattern *sequence.Pattern
	sheet   sheet.Sheet

	mu   sync.Mutex
	kept map[string]look // by the knobs that the steps use
	last *sequence.Replay
}

// look is what is seen of a finished toy, however it moves.
type look struct {
	longMM  float64 // its longer side, pressed flat
	unsound string  // why it cannot stand as it is set; "" when it can
}

func (b *watched) Under(c motion.Conditions, own motion.Calibration) motion.Trying {
	return watchedTrying{b.Bench.Under(c, own), b, 1000 * c[warnBelow]}
}

type watchedTrying struct {
	motion.Trying
	on      *watched
	belowMM float64
}

func (t watchedTrying) Unwrap() motion.Trying { return t.Trying }

func (t watchedTrying) Rewrap(q motion.Trying) motion.Trying {
	t.Trying = q
	return t
}

func (t watchedTrying) Predict(ctx context.Context, knobs map[string]float64, ghosts []motion.Ghost) (motion.Prediction, error) {
	v, err := t.Trying.Predict(ctx, knobs, ghosts)
	if err != nil {
		return v, err
	}
	seen, ok := t.on.look(knobs)
	if ok && seen.longMM < t.belowMM {
		v.Checks = append(v.Checks, motion.Check{ID: "SF06", Title: "Small toy", Fix: []motion.Change{},
			Says: fmt.Sprintf("its longest side is %s. Anything under %s can choke small children and pets: keep it from them.", say.MM(seen.longMM, 0), say.MM(t.belowMM, 0))})
	}
	if seen.unsound != "" { // what cannot be is not predicted
		v.Works, v.Mode, v.ModeWords = false, "does not stand", "It cannot stand so: "+seen.unsound+"."
		v.Outcomes, v.Modes, v.Drawing = []motion.Outcome{}, []motion.Share{}, nil
	}
	return v, nil
}

// look folds the toy, or remembers it; ok is false when it cannot be folded.
func (b *watched) look(knobs map[string]float64) (seen look, ok bool) {
	used := map[string]float64{}
	for _, k := range b.pattern.Knobs {
		v, given := knobs[k.Name]
		derived := len(b.pattern.Derived) > 0 // and perhaps of this one
		if given && (derived || slices.ContainsFunc(b.pattern.Sources, func(s sequence.Source) bool { _, uses := s.Used[k.Name]; return uses })) {
			used[k.Name] = v
		}
	}
	key := fmt.Sprint(used) // maps are printed in order
	b.mu.Lock()
	defer b.mu.Unlock()
	if seen, ok = b.kept[key]; ok {
		return seen, true
	}
	r := b.pattern.Rerun(b.last, b.sheet, used)
	if r.Err != nil {
		return seen, false
	}
	b.last = r
	box := r.Final().Box()
	seen = look{math.Max(box.Width(), box.Height()), body.Standing(r).Unsound()}
	if len(b.kept) >= mostKept {
		clear(b.kept)
	}
	b.kept[key] = seen
	return seen, true
}
