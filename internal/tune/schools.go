package tune

import (
	"fmt"
	"math"

	"tussock/internal/fit"
	"tussock/internal/motion"
)

// Applied are knobs with those of a school put in; ok is false when the toy lacks one of
// them.
func Applied(has func(string) bool, knobs, school map[string]float64) (out map[string]float64, ok bool) {
	out = map[string]float64{}
	for k, v := range knobs {
		out[k] = v
	}
	for k, v := range school {
		if !has(k) {
			return nil, false
		}
		out[k] = v
	}
	return out, true
}

// alike is how far a knob may be off the school's value, as a part.
const alike = 0.05

// Matches tells whether knobs are set as a school has them.
func Matches(knobs, school map[string]float64) bool {
	for k, v := range school {
		if math.Abs(knobs[k]-v) > alike*math.Max(math.Abs(v), 0.1) {
			return false
		}
	}
	return true
}

// Verdict is what trials say of A against B; each is how many trials of either are wanted.
func Verdict(q motion.School, a, b []float64, each int) string {
	c := fit.Compare(b, a)
	times := fmt.Sprintf("(n = %d, %d)", c.After, c.Before)
	switch c.Verdict {
	case fit.Better:
		return fmt.Sprintf("Your trials say: %s %s.", q.A, times)
	case fit.Worse:
		return fmt.Sprintf("Your trials say: %s %s.", q.B, times)
	case fit.TooFew:
		return fmt.Sprintf("Too few trials yet %s: %d of each are wanted.", times, each)
	}
	return fmt.Sprintf("Your trials do not tell them apart %s.", times)
}
