package tune

import "math"

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
