package remarks

import (
	"math"
	"slices"

	"tussock/internal/fold"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Fit tells whether a pattern does on a sheet as it is, and how small a sheet of
// the same proportions fingers can still fold.
type Fit struct {
	Survey
	Why string // the first fault, in words; "" when it does
	// FirstWhy is what cannot be folded, at step WhyStep, where the sheet is folded all the
	// same, when Why tells only of what is required.
	FirstWhy string
	WhyStep  int
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
	if r.Err != nil {
		f.Why = fold.As(r.Err).Told()
		f.seen(p, s, knobs)
	}
	if e := fold.As(f.Err); e != nil && e.Step > 0 && e.Told() != f.Why {
		f.FirstWhy, f.WhyStep = e.Told(), e.Step
	}
	if r.Err != nil {
		return f
	}
	f.LeastScale, f.LeastStep = leastScale(r)
	return f
}

// seen adds what misses when it is folded all the same, seen against the pattern's own
// sheet, and drops what Why tells already.
func (f *Fit) seen(p *sequence.Pattern, s sheet.Sheet, knobs map[string]float64) {
	own := p.Run(sheet.Sheet{WidthMM: p.WidthMM, HeightMM: p.HeightMM, Shape: p.Shape, GSM: s.GSM, ThicknessMM: s.ThicknessMM}, nil)
	if own.Err == nil {
		f.Misses = append(f.Misses, Missing(own, p.Despite(s, knobs))...)
	}
	f.Misses = slices.DeleteFunc(f.Misses, func(m sequence.Miss) bool { return m.Detail == f.Why })
	for _, m := range f.Misses {
		if f.First == 0 || m.Step < f.First {
			f.First = m.Step
		}
	}
}

// SmallestFlap is the narrowest part that a simple fold of a replay moves, mm, and its
// step; 0 where there is no such fold.
func SmallestFlap(r *sequence.Replay) (mm float64, step int) {
	for _, d := range r.Steps {
		if w := flapWidth(d); w > 0 && (step == 0 || w < mm) {
			mm, step = w, d.No
		}
	}
	return mm, step
}

// TooSmall tells whether a toy is smaller than fingers fold.
func TooSmall(r *sequence.Replay) bool {
	k, _ := leastScale(r)
	return k > 1
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
