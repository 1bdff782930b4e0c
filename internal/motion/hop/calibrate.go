package hop

import (
	"math"

	"tussock/internal/motion"
)

// Learning one number from a person's own hops: by how much the energy that comes back
// differs from what the model takes. Papers, fingers and creases are in it.

const (
	// oneHop is by how much, as a part, single hops of one toy differ in what the energy
	// would have to be; oneToy by how much toys differ once the person's number is known.
	oneHop, oneToy = 0.45, 0.20
	mostFactor     = 16.0
)

// Learn calibrates from trials. Each set-up with at least three measured distances or
// heights counts; what was tried off a table, or leapt the wrong way, does not.
func Learn(all []motion.Observation) motion.Calibration {
	return motion.LearnFactor("the energy that comes back from the pleat", motion.Doubt{Before: doubt, Trial: oneHop, Toy: oneToy, Floor: learntFloor}, all, func(o motion.Observation) (float64, int) {
		w, ok := motion.Inner(o.Trying).(*Workbench)
		if !ok {
			return 1, 0
		}
		return w.factor(o)
	})
}

// factor is what the energy must be multiplied by for the middle of the trials, and how
// many there were.
func (w *Workbench) factor(o motion.Observation) (float64, int) {
	t, _, set, err := w.toyAt(o.Knobs)
	if err != nil {
		return 1, 0
	}
	of := func(a Arc) float64 { return math.Abs(a.LengthM) }
	v := motion.Values(o.Log, Length)
	if h := motion.Values(o.Log, Height); len(h) > len(v) {
		v, of = h, func(a Arc) float64 { return a.HeightM }
	}
	n := len(v)
	if n < motion.Enough {
		return 1, 0
	}
	want := motion.RangeOf(v).Middle
	lo, hi := -math.Log(mostFactor), math.Log(mostFactor)
	for range 20 {
		mid := (lo + hi) / 2
		tr := w.trial(set)
		tr.Energy = math.Exp(mid)
		if of(t.Leap(tr)) < want {
			lo = mid
		} else {
			hi = mid
		}
	}
	return math.Exp((lo + hi) / 2), n
}
