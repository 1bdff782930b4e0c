package motion

import (
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

type blockKey struct{ no, normal, even int }

var blocks sync.Map // of [][]float64

// Numbers are the random numbers that trial i is drawn from: so many by the normal law,
// then so many anywhere from 0 to 1. Trials are drawn in blocks, each of which covers the
// range of every number evenly (Latin hypercube). They are always the same and must not be
// changed.
func Numbers(i, normal, even int) []float64 {
	key := blockKey{i / Draws, normal, even}
	b, found := blocks.Load(key)
	if !found {
		b, _ = blocks.LoadOrStore(key, block(key))
	}
	return b.([][]float64)[i%Draws]
}

func block(key blockKey) [][]float64 {
	n := key.normal + key.even
	unit := mat.NewDense(Draws, n, nil)
	samplemv.LatinHypercube{Q: distmv.NewUnitUniform(n, nil), Src: rand.NewPCG(uint64(key.no)+1, 77)}.Sample(unit)
	out := make([][]float64, Draws)
	for i := range out {
		out[i] = unit.RawRowView(i)
		for k := range key.normal {
			out[i][k] = distuv.UnitNormal.Quantile(out[i][k])
		}
	}
	return out
}
