package motion

import (
	"math"
	"math/rand/v2"
	"sync"

	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/stat/distmv"
	"gonum.org/v1/gonum/stat/distuv"
	"gonum.org/v1/gonum/stat/samplemv"
)

// Draws is how many scattered trials a band rests on, always the same ones, so that one
// set-up has one band and two set-ups differ by what was changed alone.
const Draws = 200

// Sample is which trials out of the scatter a position is measured by: N from number From
// on. The same numbers are the same trials at every position, so that positions can be
// compared; more of them cost more time.
type Sample struct{ From, N int }

// Whole are the trials that a prediction rests on, and Rough a part of them, where there
// are many positions to compare.
var (
	Whole = Sample{0, Draws}
	Rough = Sample{0, 64}
)

// fresh is the first trial that nothing is ever chosen by.
const fresh = 100 * Draws

// Fresh are n trials that nothing was chosen by.
func Fresh(n int) Sample { return Sample{fresh, n} }

type blockKey struct{ no, n int }

var blocks sync.Map // of [][]float64

// Numbers are the n random numbers, each anywhere between 0 and 1, that trial i is drawn
// from. Trials are drawn in blocks that fill the box of all numbers evenly (scrambled
// Halton points), the first numbers best: those that matter most come first. They are
// always the same and must not be changed.
func Numbers(i, n int) []float64 {
	key := blockKey{i / Draws, n}
	b, found := blocks.Load(key)
	if !found {
		b, _ = blocks.LoadOrStore(key, block(key))
	}
	return b.([][]float64)[i%Draws]
}

// scrambles is how many scrambles of a block are compared, and directions along how many
// sums of its numbers.
const scrambles, directions = 48, 32

// block is the scramble that covers sums of the first numbers best: along many directions
// its tenths and its middle lie nearest to those of the normal law. What a trial comes to
// is roughly such a sum, whatever the toy.
func block(key blockKey) [][]float64 {
	r := rand.New(rand.NewPCG(3, 5)) // the same directions for every block
	along := mat.NewDense(min(key.n, 10), directions, nil)
	for d := range directions {
		sum := 0.0
		for k := range along.RawMatrix().Rows {
			v := r.NormFloat64() / float64(k+1)
			along.Set(k, d, v)
			sum += v * v
		}
		for k := range along.RawMatrix().Rows {
			along.Set(k, d, along.At(k, d)/math.Sqrt(sum))
		}
	}
	var best *mat.Dense
	least := math.Inf(1)
	for try := range scrambles {
		unit := mat.NewDense(Draws, key.n, nil)
		samplemv.Halton{Kind: samplemv.Owen, Q: distmv.NewUnitUniform(key.n, nil), Src: rand.NewPCG(uint64(key.no)+1, uint64(try)+77)}.Sample(unit)
		if v := uneven(unit, along); v < least {
			best, least = unit, v
		}
	}
	out := make([][]float64, Draws)
	for i := range out {
		out[i] = best.RawRowView(i)
	}
	return out
}

// uneven is how far quantiles of sums of numbers are from where they should be.
func uneven(unit, along *mat.Dense) float64 {
	rows, used := Draws, along.RawMatrix().Rows
	z := mat.NewDense(rows, used, nil)
	for i := range rows {
		for k := range used {
			z.Set(i, k, Normal(unit.At(i, k)))
		}
	}
	var sums mat.Dense
	sums.Mul(z, along)
	out := 0.0
	for d := range directions {
		r := RangeOf(mat.Col(nil, d, &sums))
		for _, q := range [][2]float64{{r.Lo, 0.1}, {r.Middle, 0.5}, {r.Hi, 0.9}, {r.Lo95, 0.025}, {r.Hi95, 0.975}} {
			miss := distuv.UnitNormal.CDF(q[0]) - q[1]
			out += miss * miss
		}
	}
	return out
}

// Normal turns a number between 0 and 1 into one of the normal law, with mean 0 and
// standard deviation 1.
func Normal(number float64) float64 {
	const edge = 1e-6
	return distuv.UnitNormal.Quantile(min(max(number, edge), 1-edge))
}
