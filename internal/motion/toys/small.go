package toys

import (
	"context"
	"fmt"
	"math"
	"sync"

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
	for _, c := range w.Conditions {
		if c.Name == warnBelow {
			return
		}
	}
	w.Conditions = append(w.Conditions[:len(w.Conditions):len(w.Conditions)], motion.Condition{Name: warnBelow, Label: "Warn of toys smaller than", Unit: "cm", Group: "Safety",
		Default: smallMM / 1000, Min: 0.005, Max: 0.2, Options: []motion.Option{}})
	on := w.On
	w.On = func(p *sequence.Pattern, s sheet.Sheet) motion.Bench {
		return &watched{Bench: on(p, s), pattern: p, sheet: s, kept: map[string]float64{}}
	}
}

// watched is a bench whose predictions warn of small toys.
type watched struct {
	motion.Bench
	pattern *sequence.Pattern
	sheet   sheet.Sheet

	mu   sync.Mutex
	kept map[string]float64 // longest sides by the knobs that fold
	last *sequence.Replay
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

func (t watchedTrying) Predict(ctx context.Context, knobs map[string]float64, ghosts []motion.Ghost) (motion.Prediction, error) {
	v, err := t.Trying.Predict(ctx, knobs, ghosts)
	if err != nil {
		return v, err
	}
	if long, ok := t.on.longestMM(knobs); ok && long < t.belowMM {
		v.Checks = append(v.Checks, motion.Check{ID: "SF06", Title: "Small toy", Fix: []motion.Change{},
			Says: fmt.Sprintf("its longest side is %s. Anything under %s can choke small children and pets: keep it from them.", say.MM(long, 0), say.MM(t.belowMM, 0))})
	}
	return v, nil
}

// longestMM is the longer side of the finished toy pressed flat; ok is false when it
// cannot be folded.
func (b *watched) longestMM(knobs map[string]float64) (long float64, ok bool) {
	folds := map[string]float64{}
	for _, k := range b.pattern.Knobs {
		if v, given := knobs[k.Name]; given && k.Kind == sequence.HardFold {
			folds[k.Name] = v
		}
	}
	key := fmt.Sprint(folds) // maps are printed in order
	b.mu.Lock()
	defer b.mu.Unlock()
	if long, ok = b.kept[key]; ok {
		return long, true
	}
	r := b.pattern.Rerun(b.last, b.sheet, folds)
	if r.Err != nil {
		return 0, false
	}
	b.last = r
	box := r.Final().Box()
	long = math.Max(box.Width(), box.Height())
	if len(b.kept) >= mostKept {
		clear(b.kept)
	}
	b.kept[key] = long
	return long, true
}
