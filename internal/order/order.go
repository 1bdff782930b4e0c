// Package order is order statistics: the middle of many values, and where a part of them
// lies.
package order

import "slices"

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

// Median of values in any order, at least one.
func Median(values []float64) float64 {
	return Quantile(slices.Sorted(slices.Values(values)), 0.5)
}
