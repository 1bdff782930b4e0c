package wheels

import (
	"context"
	"math"

	"tussock/internal/motion"
	"tussock/internal/motion/glide/air"
	"tussock/internal/order"
)

// Learning two numbers from a person's own trials: how hard they blow against what is usual,
// and what holds their wheels up as they fall against what the laws say.

// By how much single trials of one wheel differ in those numbers, as a part, and wheels once
// the person's number is known. Estimates.
const (
	oneBlow, oneWheel = 0.15, 0.10
	oneDrop           = 0.08
)

// learn calibrates from trials. Each set-up with at least three of a kind counts.
func learn(all []motion.Observation) motion.Calibration {
	by := func(kind string) func(motion.Observation) (float64, int) {
		return func(o motion.Observation) (float64, int) {
			w, ok := motion.Inner(o.Trying).(*Workbench)
			if !ok {
				return 1, 0
			}
			return w.factor(o, kind)
		}
	}
	out := motion.LearnFactor("how hard you blow", motion.Doubt{Before: breathDoubt, Trial: oneBlow, Toy: oneWheel, Floor: learntFloor}, all, by(blow))
	drag := motion.LearnFactor("what holds it up as it falls", motion.Doubt{Before: dragDoubt, Trial: oneDrop, Toy: oneWheel, Floor: learntFloor}, all, by(drop))
	if drag.Trials > 0 {
		out.Also = []motion.Learnt{drag.Learnt()}
	}
	return out
}

// rateOf is the rate that was noted, turns a second: read, or by the fastest flashes at which
// the blades stand still, or counted.
func (w *Workbench) rateOf(n motion.Noted, blades int) (float64, bool) {
	if v, ok := n.Value(Rate); ok {
		return v, true
	}
	if v, ok := n.Value(Flashes); ok && blades > 0 {
		return v / float64(blades), true
	}
	turns, ok1 := n.Value(Turns)
	seconds, ok2 := n.Value(Seconds)
	if ok1 && ok2 && seconds > 0 {
		return turns / seconds, true
	}
	return 0, false
}

// rates are all that were noted of blowing.
func (w *Workbench) rates(log []motion.Noted, blades int) []float64 {
	var out []float64
	for _, n := range log {
		if n.Kind != blow {
			continue
		}
		if v, ok := w.rateOf(n, blades); ok && v > 0 {
			out = append(out, v)
		}
	}
	return out
}

// factor is what a number must be multiplied by for the middle of the trials of a kind, and
// how many there were.
func (w *Workbench) factor(o motion.Observation, kind string) (float64, int) {
	s, err := w.at(context.Background(), o.Knobs)
	if err != nil {
		return 1, 0
	}
	plain := *w
	plain.Own = motion.Calibration{}
	if kind == blow {
		v := plain.rates(o.Log, len(s.Leaves))
		if len(v) < motion.Enough || plain.drive != byBreath {
			return 1, 0
		}
		b := plain.breath
		b.Aim = plain.aim(s.wheel)
		want, hard := order.Median(v), b.Speed
		// The breath that turns it so fast.
		lo, hi := -math.Log(mostFactor), math.Log(mostFactor)
		for range 24 {
			mid := (lo + hi) / 2
			b.Speed = hard * math.Exp(mid)
			if rate, _ := s.wheel.Turns(b, s.pin); perTurn(rate) < want {
				lo = mid
			} else {
				hi = mid
			}
		}
		return math.Exp((lo + hi) / 2), len(v)
	}
	var logs []float64
	for _, n := range o.Log {
		t, ok := n.Value(Fall)
		h, known := n.Value(Height)
		if !known {
			h = plain.heightM
		}
		if n.Kind != drop || !ok || t <= math.Sqrt(2*h/air.Gravity) {
			continue // nothing falls faster than a stone
		}
		lo, hi := -math.Log(mostFactor), math.Log(mostFactor)
		p := s.wheel.Polar()
		for range 20 {
			mid := (lo + hi) / 2
			path := p.Drop(h, s.inertia(), math.Exp(mid))
			if path[len(path)-1].T < t {
				lo = mid
			} else {
				hi = mid
			}
		}
		logs = append(logs, (lo+hi)/2)
	}
	if len(logs) < motion.Enough {
		return 1, 0
	}
	return math.Exp(order.Median(logs)), len(logs)
}

// mostFactor bounds what is learnt.
const mostFactor = 4.0
