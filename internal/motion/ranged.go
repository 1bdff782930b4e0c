package motion

import (
	"math"
	"slices"

	"tussock/internal/order"
)

// Range is the middle of many trials, where eight of ten lie, and where nineteen of twenty.
type Range struct {
	Lo     float64 `json:"lo"`
	Middle float64 `json:"middle"`
	Hi     float64 `json:"hi"`
	Lo95   float64 `json:"-"`
	Hi95   float64 `json:"-"`
}

// RangeOf sorts values and gives their range, linear between order statistics: value i of n
// stands for the part (i - 1/2)/n, so that another one falls into the band as often as the
// band says.
func RangeOf(v []float64) Range {
	if len(v) == 0 {
		return Range{}
	}
	slices.Sort(v)
	n := float64(len(v))
	at := func(part float64) float64 {
		return order.Quantile(v, max(0, min(1, (part*n-0.5)/max(n-1, 1))))
	}
	return Range{at(0.1), at(0.5), at(0.9), at(0.025), at(0.975)}
}

// Holds tells whether nineteen of twenty trials are predicted about a value.
func (r Range) Holds(v float64) bool { return v >= r.Lo95 && v <= r.Hi95 }

// Unsided is the range of what is read without a side: how far, whichever way.
func (r Range) Unsided() Range {
	fold := func(lo, hi float64) (float64, float64) {
		switch {
		case lo >= 0:
			return lo, hi
		case hi <= 0:
			return -hi, -lo
		}
		return 0, math.Max(-lo, hi)
	}
	out := Range{Middle: math.Abs(r.Middle)}
	out.Lo, out.Hi = fold(r.Lo, r.Hi)
	out.Lo95, out.Hi95 = fold(r.Lo95, r.Hi95)
	return out
}

// Outcome of a range.
func (r Range) Outcome(id, label, unit string, decimals int, sides ...string) Outcome {
	if sides == nil {
		sides = []string{}
	}
	return Outcome{ID: id, Label: label, Unit: unit, Lo: r.Lo, Middle: r.Middle, Hi: r.Hi, Lo95: r.Lo95, Hi95: r.Hi95, Decimals: decimals, Sides: sides}
}
