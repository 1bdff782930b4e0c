package tokens

import (
	"context"
	"math"

	"tussock/internal/motion"
	"tussock/internal/order"
)

// Learning one number from a person's own spins: by how much the air slows them more than
// the laws say. Corners, papers and how a person starts them are in it.

const (
	// oneSpin is by how much, as a part, single spins of one token differ in what the air
	// would have to do; oneToken by how much tokens differ once the person's number is known.
	oneSpin, oneToken = 0.35, 0.15
	mostFactor        = 8.0
)

// learn calibrates from trials. Each set-up with at least three timed spins counts.
func learn(all []motion.Observation) motion.Calibration {
	return motion.LearnFactor("how strongly the air slows it", motion.Doubt{Before: doubt, Trial: oneSpin, Toy: oneToken, Floor: learntFloor}, all, func(o motion.Observation) (float64, int) {
		w, ok := motion.Inner(o.Trying).(*Workbench)
		if !ok {
			return 1, 0
		}
		return w.factor(o)
	})
}

// factor is what the drag of the air must be multiplied by for the middle of the trials, and
// how many there were. A set-up that is predicted to fall teaches nothing.
func (w *Workbench) factor(o motion.Observation) (float64, int) {
	s, err := w.at(context.Background(), o.Knobs)
	v := motion.Values(o.Log, Seconds)
	if err != nil || len(v) < motion.Enough {
		return 1, 0
	}
	want := order.Median(v)
	slow := w.slowing(s)
	q := w.spin(s, s.Off, slow, 2*math.Pi*w.start.turns, 0)
	if q.seconds == 0 {
		return 1, 0
	}
	lo, hi := -math.Log(mostFactor), math.Log(mostFactor)
	for range 20 {
		mid := (lo + hi) / 2
		slow.Air = math.Exp(mid)
		if sec, _ := q.body.SpinDown(slow, q.from, q.to); sec > want {
			lo = mid
		} else {
			hi = mid
		}
	}
	return math.Exp((lo + hi) / 2), len(v)
}
