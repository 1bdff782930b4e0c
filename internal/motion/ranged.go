package motion

import "slices"

// Range is the middle of many trials and where eight of ten lie.
type Range struct {
	Lo     float64 `json:"lo"`
	Middle float64 `json:"middle"`
	Hi     float64 `json:"hi"`
}

// RangeOf sorts values and gives their range, linear between order statistics.
func RangeOf(v []float64) Range {
	if len(v) == 0 {
		return Range{}
	}
	slices.Sort(v)
	return Range{Quantile(v, 0.1), Quantile(v, 0.5), Quantile(v, 0.9)}
}

// Quantile of sorted values, at least one: q from 0, the least, to 1, the most; linear
// between order statistics.
func Quantile(sorted []float64, q float64) float64 {
	at := q * float64(len(sorted)-1)
	i := int(at)
	if i+1 >= len(sorted) {
		return sorted[len(sorted)-1]
	}
	return sorted[i] + (at-float64(i))*(sorted[i+1]-sorted[i])
}

// Outcome of a range.
func (r Range) Outcome(id, label, unit string, decimals int, sides ...string) Outcome {
	if sides == nil {
		sides = []string{}
	}
	return Outcome{ID: id, Label: label, Unit: unit, Lo: r.Lo, Middle: r.Middle, Hi: r.Hi, Decimals: decimals, Sides: sides}
}
