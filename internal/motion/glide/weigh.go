package glide

import (
	"math"
	"runtime"
	"slices"

	"golang.org/x/sync/errgroup"

	"tussock/internal/motion"
	"tussock/internal/motion/blame"
	"tussock/internal/motion/glide/flight"
	"tussock/internal/motion/toys"
	"tussock/internal/turn"
)

// How a log is weighed: the model is run with every fault by many people, and thrown as it
// is believed to be.

// Errors of reading, of the middle of a log: logarithms of distance and time, and the
// angle aside.
var floors = []float64{0.06, 0.09, 0.03}

// noted are throws as causes are weighed by: how far, how long, to which side, and what
// was seen.
func noted(log []motion.Noted) []blame.Trial {
	out := make([]blame.Trial, len(log))
	for i, n := range log {
		t := blame.Trial{Read: []float64{math.NaN(), math.NaN(), math.NaN()}, Seen: make([]bool, len(chips))}
		d, far := n.Value(Distance)
		if far {
			t.Read[0] = math.Log(math.Max(d, 0.3))
		}
		if s, timed := n.Value(Time); timed {
			t.Read[1] = math.Log(math.Max(s, 0.2))
		}
		if a, aside := n.Value(Aside); aside && far && d > 0.3 {
			t.Read[2] = math.Asin(min(max(a/d, -1), 1))
		}
		for k, c := range chips {
			t.Seen[k] = slices.Contains(n.Chips, c)
			t.Noted = t.Noted || t.Seen[k]
		}
		out[i] = t
	}
	return out
}

// turnSeen is the turn, degrees, from which somebody who watches calls it one.
const turnSeen = 20

// flown is a predicted throw as somebody would note it.
func flown(f flight.Flight) blame.Trial {
	t := blame.Trial{Noted: true, Seen: make([]bool, len(chips)),
		Read: []float64{math.Log(math.Max(f.DistanceM, 0.3)), math.Log(math.Max(f.TimeS, 0.2)), math.Atan2(f.DriftM, math.Max(f.AheadM, 0.05))}}
	seen := func(chip string) { t.Seen[slices.Index(chips, chip)] = true }
	switch f.Mode {
	case flight.Dive:
		seen("dived")
	case flight.Stalling:
		seen("stalled")
	case flight.Loop, flight.Tumble:
		seen("looped")
	case flight.Roll:
		seen("rolled")
	case flight.Glide, flight.Swing:
		if math.Abs(f.HeadingDeg) < turnSeen {
			seen("glided")
		}
	}
	if f.HeadingDeg >= turnSeen {
		seen("turned right")
	}
	if f.HeadingDeg <= -turnSeen {
		seen("turned left")
	}
	return t
}

// How many people with toys of their own each fault is run for, and how often each throws.
const worlds, each = 48, 4

// fewWorlds are enough to see what is out of the question: what has less than that share.
const fewWorlds, outOfQuestion = 16, 0.003

// How far one person's throws differ from what is told: standard deviations of the
// logarithm of speed, and of the angle, degrees. Estimates.
const personSpeed, personAngle = 0.12, 3.0

// leastCareful is the part of a hand's scatter that is left in the toys of those who fold
// most carefully.
const leastCareful = 0.25

// drawn is throw k of person j with a fault; their toy is that of its first throw.
func (e *examination) drawn(f fault, m *flight.Model, j, k int) flight.Drawn {
	t := e.throw
	if f.speed > 0 {
		t.SpeedMS *= f.speed
	}
	t.AngleDeg += f.angle
	person := motion.Numbers(j, 3)
	t.SpeedMS *= math.Exp(personSpeed * motion.Normal(person[0]))
	t.AngleDeg += personAngle * motion.Normal(person[1])
	d := e.w.Scatter.Careful(leastCareful+(1-leastCareful)*person[2]).Draw(j, t, m.Bends)
	d.AftM += f.aftMM * 1e-3
	d.Throw = e.w.Scatter.Draw(motion.Draws+j*each+k, t, m.Bends).Throw
	return d
}

// faulty is the toy with a fault, and after changes.
func (e *examination) faulty(f fault, changed map[string]float64) (*flight.Model, error) {
	if f.knob == "" {
		return e.w.Model(changed)
	}
	return e.w.Model(toys.With(changed, motion.Change{Knob: f.knob, To: e.w.Value(changed, f.knob) + f.by}))
}

// weigh runs the model with every fault and weighs them by the log: a few people for each,
// then more for what is not out of the question.
func (e *examination) weigh(log []blame.Trial) error {
	for _, f := range faults() {
		if m, err := e.faulty(f, e.knobs); err == nil { // what cannot be so is no cause
			e.faults = append(e.faults, f)
			e.models = append(e.models, m)
			e.cases = append(e.cases, blame.Case{Cause: f.cause, Size: f.size(), Prior: f.prior})
		}
	}
	for _, upTo := range []int{fewWorlds, worlds} {
		var g errgroup.Group
		g.SetLimit(runtime.GOMAXPROCS(0))
		for i := range e.cases {
			if len(e.shares) > 0 && e.shares[i] < outOfQuestion {
				continue
			}
			g.Go(func() error {
				_, done, err := turn.Take(e.w.ctx)
				if err != nil {
					return err
				}
				defer done()
				many := e.models[i].Many()
				for j := len(e.cases[i].Worlds); j < upTo; j++ {
					toy := many.Of(e.drawn(e.faults[i], e.models[i], j, 0))
					var w blame.World
					for k := range each {
						w = append(w, flown(toy.Fly(e.drawn(e.faults[i], e.models[i], j, k).Throw, e.w.Room, nil)))
					}
					e.cases[i].Worlds = append(e.cases[i].Worlds, w)
				}
				return e.w.ctx.Err()
			})
		}
		if err := g.Wait(); err != nil {
			return err
		}
		e.shares = blame.Weigh(e.cases, log, floors)
	}
	e.verdicts = blame.Verdicts(e.cases, e.shares)
	e.believe()
	return nil
}

// believed is one of many throws as they are believed to be now: with a fault, by its share.
type believed struct {
	fault int
	world int
}

// believedThrows is how many of them predictions of the clinic rest on.
const believedThrows = 80

// believe picks faults by their shares, evenly.
func (e *examination) believe() {
	at, sum := 0, e.shares[0]
	for i := range believedThrows {
		for q := (float64(i) + 0.5) / believedThrows; sum < q && at+1 < len(e.shares); {
			at++
			sum += e.shares[at]
		}
		e.believed = append(e.believed, believed{at, (i * 7) % motion.Draws})
	}
}

// changed is what is done about it: knobs, and perhaps another throw.
type changed struct {
	knobs map[string]float64
	throw flight.Throw
	rid   string // the cause that another throw takes away
}

// fly throws what is believed after a change.
func (e *examination) fly(c changed, only string) []flight.Thrown {
	q := *e
	q.throw = c.throw
	many := map[int]flight.Many{}
	made := map[int]*flight.Model{}
	var who []believed
	for _, b := range e.believed {
		if only != "" && e.faults[b.fault].cause != only {
			continue
		}
		if _, there := made[b.fault]; !there {
			m, err := e.faulty(e.faults[b.fault], c.knobs)
			if err != nil {
				return nil
			}
			made[b.fault], many[b.fault] = m, m.Many()
		}
		who = append(who, b)
	}
	out := make([]flight.Thrown, len(who))
	var g errgroup.Group
	workers := runtime.GOMAXPROCS(0)
	for k := range workers {
		g.Go(func() error {
			for i := k; i < len(who); i += workers {
				f := e.faults[who[i].fault]
				if f.cause == c.rid {
					f.speed, f.angle = 0, 0
				}
				d := q.drawn(f, made[who[i].fault], who[i].world, 0)
				out[i] = flight.Thrown{Flight: many[who[i].fault].Of(d).Fly(d.Throw, e.w.Room, nil)}
			}
			return nil
		})
	}
	_ = g.Wait() // a throw does not fail
	return out
}

// worth is how good throws are: how far ahead, less what they go aside, and less a third for
// those that go wrong.
func worth(of []flight.Thrown) float64 {
	v := make([]float64, len(of))
	for i, f := range of {
		v[i] = f.AheadM - math.Abs(f.DriftM)
		if f.Mode != flight.Glide && f.Mode != flight.Swing {
			v[i] -= math.Abs(f.AheadM) / 3
		}
	}
	if len(v) == 0 {
		return math.Inf(-1)
	}
	sum := 0.0
	for _, x := range v {
		sum += x / float64(len(v))
	}
	return sum
}
