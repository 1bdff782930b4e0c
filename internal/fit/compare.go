// Package fit learns from trials: whether a change was better, on statistics and not on
// the last throw.
package fit

import (
	"math"
	"math/rand/v2"
	"slices"

	"gonum.org/v1/gonum/stat/combin"
)

// Verdict is what trials say of a change.
type Verdict string

// The verdicts.
const (
	TooFew Verdict = "too few"
	Better Verdict = "better"
	Worse  Verdict = "worse"
	Level  Verdict = "no difference seen"
)

// Fewest is how many trials each side needs before anything is said.
const Fewest = 3

// Comparison is one reading before and after a change.
type Comparison struct {
	Before, After int     // how many
	Shift         float64 // by how much it is more now: the median of all differences (Hodges and Lehmann)
	Lo, Hi        float64 // where eight of ten such shifts lie (bootstrap)
	// Chance that mere scatter gives a shift as large as this, to either side: the rank
	// test of Mann and Whitney, over all ways to exchange trials, or many at random where
	// there are too many ways.
	Chance  float64
	Verdict Verdict
	More    int // trials still wanted before it can be told, 0 for none
}

// sure is the chance below which a shift is taken for real.
const sure = 0.10

// Compare tells whether a reading is more after a change than before.
func Compare(before, after []float64) Comparison {
	c := Comparison{Before: len(before), After: len(after), Chance: 1}
	if c.Before < Fewest || c.After < Fewest {
		c.Verdict, c.More = TooFew, max(Fewest-c.After, 0)
		return c
	}
	c.Shift = shift(before, after)
	r := rand.New(rand.NewPCG(11, 13))
	shifts := make([]float64, 0, rounds)
	pick := func(from, to []float64) {
		for i := range to {
			to[i] = from[r.IntN(len(from))]
		}
	}
	a, b := make([]float64, len(before)), make([]float64, len(after))
	for range rounds / 4 {
		pick(before, a)
		pick(after, b)
		shifts = append(shifts, shift(a, b))
	}
	slices.Sort(shifts)
	c.Lo, c.Hi = shifts[len(shifts)/10], shifts[len(shifts)-1-len(shifts)/10]
	c.Chance = chance(before, after, r)
	switch {
	case c.Chance < sure && c.Shift > 0:
		c.Verdict = Better
	case c.Chance < sure && c.Shift < 0:
		c.Verdict = Worse
	default:
		c.Verdict = Level
		// Scatter shrinks with the root of the number: about so many would settle a shift
		// of this size.
		if c.After < 10 {
			c.More = min(10-c.After, 5)
		}
	}
	return c
}

// rounds are how often something is drawn at random, mostWays how many ways to exchange
// trials are gone through one by one.
const rounds, mostWays = 2000, 20_000

// chance that trials exchanged between both sides differ as much as they do.
func chance(before, after []float64, r *rand.Rand) float64 {
	seen := math.Abs(rankGap(before, after)) - 1e-12
	all := slices.Concat(before, after)
	k := len(before)
	if combin.LogGeneralizedBinomial(float64(len(all)), float64(k)) <= math.Log(mostWays) {
		n, of := 0, 0
		a, b := make([]float64, 0, k), make([]float64, 0, len(after))
		for ways := combin.NewCombinationGenerator(len(all), k); ways.Next(); of++ {
			chosen := ways.Combination(nil)
			a, b = a[:0], b[:0]
			for i, v := range all {
				if slices.Contains(chosen, i) {
					a = append(a, v)
				} else {
					b = append(b, v)
				}
			}
			if math.Abs(rankGap(a, b)) >= seen {
				n++
			}
		}
		return float64(n) / float64(of)
	}
	n := 0
	for range rounds {
		r.Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })
		if math.Abs(rankGap(all[:k], all[k:])) >= seen {
			n++
		}
	}
	return (float64(n) + 1) / (rounds + 1)
}

// shift is the median of all differences between after and before.
func shift(before, after []float64) float64 {
	var d []float64
	for _, a := range after {
		for _, b := range before {
			d = append(d, a-b)
		}
	}
	slices.Sort(d)
	n := len(d)
	return (d[(n-1)/2] + d[n/2]) / 2
}

// rankGap is how often a trial after beats one before, less one half.
func rankGap(before, after []float64) float64 {
	u := 0.0
	for _, a := range after {
		for _, b := range before {
			switch {
			case a > b:
				u++
			case a == b:
				u += 0.5
			}
		}
	}
	return u/float64(len(before)*len(after)) - 0.5
}

// Share compares how often something was seen, k of n before and after: the chance that
// mere luck gives as large a difference (Fisher's exact test, to either side).
func Share(k1, n1, k2, n2 int) float64 {
	if n1 == 0 || n2 == 0 {
		return 1
	}
	choose := func(n, k int) float64 { return combin.LogGeneralizedBinomial(float64(n), float64(k)) }
	p := func(k int) float64 {
		return math.Exp(choose(n1, k) + choose(n2, k1+k2-k) - choose(n1+n2, k1+k2))
	}
	seen, sum := p(k1), 0.0
	for k := max(0, k1+k2-n2); k <= min(n1, k1+k2); k++ {
		if q := p(k); q <= seen*(1+1e-9) {
			sum += q
		}
	}
	return math.Min(1, sum)
}
