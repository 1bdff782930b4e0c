// Package blame weighs causes by what was seen: the model is run with each fault that
// there may be, for many people and toys, and the one under which the log is least
// surprising is the likeliest. It knows nothing of how toys move.
package blame

import (
	"cmp"
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/stat"
)

// Trial is what is read and seen of one trial: readings in an order of the caller's, NaN
// for what was not read, and what was seen by number. Noted tells that somebody looked;
// what was then not seen did not happen.
type Trial struct {
	Read  []float64
	Seen  []bool
	Noted bool
}

// World is one person with one toy: trials of theirs, run by the model.
type World []Trial

// Case is one fault of one size, with worlds that have it. Prior is how usual it is,
// against the others.
type Case struct {
	Cause  string
	Size   float64
	Prior  float64
	Worlds []World
}

// What people note beside what happens: seldom what did not happen, and not always what
// did; seenBy is how far one person's share of it differs from another's.
const noteFalse, noteTrue, seenBy = 0.04, 0.85, 0.10

// freedom of the Student law that the surprise follows: the tails of what people do are
// thick.
const freedom = 6

// shrunk is how far covariances of few worlds are drawn in to what each number has alone.
const shrunk = 0.4

// Weigh gives each case its share of the belief after a log; floors are the errors of
// reading, of the middle of a log, in the unit of the readings. With nothing read or seen
// the shares are the priors.
func Weigh(cases []Case, log []Trial, floors []float64) []float64 {
	out := make([]float64, len(cases))
	seen := features(log)
	most := math.Inf(-1)
	for i, c := range cases {
		out[i] = math.Log(c.Prior) + c.fit(seen, log, floors)
		most = math.Max(most, out[i])
	}
	sum := 0.0
	for i := range out {
		out[i] = math.Exp(out[i] - most)
		sum += out[i]
	}
	for i := range out {
		out[i] /= sum
	}
	return out
}

// feature is the mean of something over a log: NaN when it was never told. within is the
// variance of single trials.
type feature struct {
	mean, within float64
	n            int
}

// features are means of readings, then shares of what was seen.
func features(log []Trial) []feature {
	if len(log) == 0 {
		return nil
	}
	read, seen := len(log[0].Read), len(log[0].Seen)
	out := make([]feature, read+seen)
	for k := range out {
		var v []float64
		for _, t := range log {
			switch {
			case k < read && !math.IsNaN(t.Read[k]):
				v = append(v, t.Read[k])
			case k >= read && t.Noted && t.Seen[k-read]:
				v = append(v, 1)
			case k >= read && t.Noted:
				v = append(v, 0)
			}
		}
		out[k] = feature{mean: math.NaN(), n: len(v)}
		if len(v) > 0 {
			out[k].mean = stat.Mean(v, nil)
		}
		if len(v) > 1 {
			out[k].within = stat.Variance(v, nil)
		}
	}
	return out
}

// fit is the logarithm of how well a case foretells what a log came to.
func (c Case) fit(log []feature, trials []Trial, floors []float64) float64 {
	if len(trials) == 0 || len(c.Worlds) < 3 {
		return 0
	}
	read := len(trials[0].Read)
	worlds := make([][]feature, len(c.Worlds))
	for j, w := range c.Worlds {
		worlds[j] = features(w)
	}
	// Features that the log has, and every world.
	var use []int
	for k, f := range log {
		there := !math.IsNaN(f.mean)
		for _, w := range worlds {
			there = there && !math.IsNaN(w[k].mean)
		}
		if there {
			use = append(use, k)
		}
	}
	if len(use) == 0 {
		return 0
	}
	data := mat.NewDense(len(worlds), len(use), nil)
	miss := make([]float64, len(use))
	extra := make([]float64, len(use))
	for i, k := range use {
		within, each := 0.0, 0
		for j, w := range worlds {
			v := w[k].mean
			if k >= read {
				v = noteFalse + (noteTrue-noteFalse)*v
			}
			data.Set(j, i, v)
			within += w[k].within / float64(len(worlds))
			each = w[k].n
		}
		mean := stat.Mean(mat.Col(nil, i, data), nil)
		miss[i] = log[k].mean - mean
		if k >= read {
			// Shares of few trials: of those foretold, not of those of the worlds alone.
			extra[i] = seenBy*seenBy + math.Max(0.02, mean*(1-mean))/float64(log[k].n)
			continue
		}
		extra[i] = floors[k]*floors[k] + within*(1/float64(log[k].n)-1/float64(each))
		extra[i] = math.Max(extra[i], floors[k]*floors[k]/4)
	}
	var cov mat.SymDense
	stat.CovarianceMatrix(&cov, data, nil)
	for i := range use {
		for j := range i {
			cov.SetSym(i, j, (1-shrunk)*cov.At(i, j))
		}
	}
	for i := range use {
		cov.SetSym(i, i, cov.At(i, i)+extra[i])
	}
	return student(miss, &cov)
}

// student is the logarithm of the density of the multivariate Student law, but for what is
// the same for all cases of as many numbers.
func student(miss []float64, cov *mat.SymDense) float64 {
	var chol mat.Cholesky
	if !chol.Factorize(cov) {
		return math.Inf(-1)
	}
	x := mat.NewVecDense(len(miss), slices.Clone(miss))
	var solved mat.VecDense
	if err := chol.SolveVecTo(&solved, x); err != nil {
		return math.Inf(-1)
	}
	d := mat.Dot(x, &solved)
	return -chol.LogDet()/2 - (freedom+float64(len(miss)))/2*math.Log1p(d/freedom)
}

// Verdict is one cause after all cases of it.
type Verdict struct {
	Cause string
	Share float64
	Size  float64 // of the fault, in the mean of its cases
}

// Verdicts adds the shares of cases up by cause, the likeliest first.
func Verdicts(cases []Case, shares []float64) []Verdict {
	var out []Verdict
	for i, c := range cases {
		k := slices.IndexFunc(out, func(v Verdict) bool { return v.Cause == c.Cause })
		if k < 0 {
			k = len(out)
			out = append(out, Verdict{Cause: c.Cause})
		}
		out[k].Share += shares[i]
		out[k].Size += shares[i] * c.Size
	}
	for i := range out {
		if out[i].Share > 0 {
			out[i].Size /= out[i].Share
		}
	}
	slices.SortStableFunc(out, func(a, b Verdict) int { return cmp.Compare(b.Share, a.Share) })
	return out
}

// tied is the part of the first one's share from which another cause cannot be told from it,
// and alike that of one which is known to look the same.
const tied, alike = 1.0 / 4, 1.0 / 100

// Tied are the causes that cannot be told from the first one, itself first: those believed
// nearly as much, and those of its kind, which do the same to a trial, unless the log
// speaks clearly against them. kind is "" for a cause that is of none.
func Tied(of []Verdict, kind func(cause string) string) []Verdict {
	var out []Verdict
	for i, v := range of {
		same := kind(v.Cause) != "" && kind(v.Cause) == kind(of[0].Cause)
		if i == 0 || v.Share >= tied*of[0].Share || same && v.Share >= alike*of[0].Share {
			out = append(out, v)
		}
	}
	return out
}
