package fit

import (
	"math"
	"slices"

	"tussock/internal/order"
)

// Bounds of how many trials a side are ever asked for.
const fewestEach, mostEach = 3, 30

// Needed is how many trials each of two set-ups needs so that a difference as large as
// predicted is found in eight of ten tries, and scatter claims one in one of ten (rank
// test). scatter is the standard deviation of single trials, as a part of their middle.
func Needed(a, b, scatter float64) int {
	a, b = math.Abs(a), math.Abs(b)
	if a <= 0 || b <= 0 || scatter <= 0 {
		return mostEach
	}
	shift := math.Abs(math.Log(a / b))
	if shift < 1e-6 {
		return mostEach
	}
	const both, efficiency = 1.645 + 0.842, 0.955
	n := 2 * math.Pow(both*scatter/shift, 2) / efficiency
	return int(math.Ceil(math.Max(fewestEach, math.Min(mostEach, n))))
}

// usualScatter, a part, is taken where fewer trials than fewestScatter tell it: hops and
// throws of one set-up differ by about a third.
const usualScatter, fewestScatter = 0.3, 5

// Scatter is the standard deviation of readings as a part of their median, from the
// middle half; the usual one when there are too few.
func Scatter(values []float64) float64 {
	if len(values) < fewestScatter {
		return usualScatter
	}
	v := slices.Sorted(slices.Values(values))
	middle := math.Abs(order.Quantile(v, 0.5))
	if middle == 0 {
		return usualScatter
	}
	// The middle half of a normal distribution is 1.349 standard deviations wide.
	return math.Max(0.05, (order.Quantile(v, 0.75)-order.Quantile(v, 0.25))/1.349/middle)
}

// ScatterOfBoth is that of two set-ups: each one's own where both have trials enough, so
// that the difference between them does not count as scatter; else of all together.
func ScatterOfBoth(a, b []float64) float64 {
	if len(a) >= fewestScatter && len(b) >= fewestScatter {
		return (Scatter(a) + Scatter(b)) / 2
	}
	return Scatter(slices.Concat(a, b))
}
