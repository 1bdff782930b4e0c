package remarks

import (
	"math"

	"tussock/internal/fold"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Fit tells whether a pattern does on a sheet as it is, and how small a sheet of
// the same proportions fingers can still fold.
type Fit struct {
	Survey
	Why string // the first fault, in words; "" when it does
	// FirstWhy is what goes wrong at the first step affected where the sheet is folded all
	// the same, when Why tells only of what is required.
	FirstWhy string
	// LeastScale times the sheet is the least that can be folded in practice; 0 when
	// the pattern cannot be folded on it at all. LeastStep is the step that asks for it.
	LeastScale float64
	LeastStep  int
}

// What fingers fold: a flap reaches at least so far beyond its crease, and several
// times as far as the stack there is thick. Both are rules of thumb.
const (
	leastFlapMM   = 8.0
	flapPerStack  = 6.0
	smallestScale = 0.01
)

// FitOf surveys a sheet.
func FitOf(p *sequence.Pattern, s sheet.Sheet, knobs map[string]float64) Fit {
	f := Fit{Survey: SurveyOf(p, s, knobs)}
	r := p.Run(s, knobs)
	switch {
	case r.Err != nil:
		f.Why = fold.As(r.Err).Detail
	case len(f.Misses) > 0:
		f.Why = f.Misses[0].Detail
	}
	if f.Err != nil && f.First > 0 {
		if d := fold.As(f.Err).Detail; d != f.Why && fold.As(f.Err).Step == f.First {
			f.FirstWhy = d
		}
	}
	if r.Err != nil {
		return f
	}
	f.LeastScale, f.LeastStep = leastScale(r)
	return f
}

// leastScale is the least part of the sheet of a replay that fingers can fold, and
// the step that asks for it.
func leastScale(r *sequence.Replay) (scale float64, step int) {
	scale = smallestScale
	for _, d := range r.Steps {
		flap := flapWidth(d)
		if flap <= 0 {
			continue
		}
		need := math.Max(leastFlapMM, flapPerStack*float64(d.LayersFolded())*r.Sheet.ThicknessMM)
		if k := need / flap; k > scale {
			scale, step = k, d.No
		}
	}
	return scale, step
}
