package tellers

import (
	"context"
	"math"

	"gonum.org/v1/gonum/stat/distuv"

	"tussock/internal/motion"
	"tussock/internal/motion/reveal/teller"
	"tussock/internal/motion/toys"
	"tussock/internal/order"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// knobGap is the knob by which patterns leave a hair in the middle.
const knobGap = "gap"

// Shapes are the tellers of one pattern on one sheet. They may be shared.
type Shapes struct {
	toys.Toys[shape]
	way *motion.Way
}

// shape is a teller with what opens it.
type shape struct {
	Geometry
	opener
}

func newShapes(p *sequence.Pattern, s sheet.Sheet, w *motion.Way) *Shapes {
	of := func(r *sequence.Replay) (shape, error) {
		g, err := Of(r)
		return shape{g, newOpener(r)}, err
	}
	return &Shapes{toys.Toys[shape]{Pattern: p, Sheet: s, Of: of}, w}
}

// Workbench folds, opens and plays one pattern on one sheet. It may be used by several at once.
type Workbench struct {
	*Shapes
	fingerMM   float64 // across
	hands      int
	rounds     int
	written    motion.Written
	conditions motion.Conditions
}

// Under gives it conditions. Nothing is learnt from plays.
func (s *Shapes) Under(c motion.Conditions, _ motion.Calibration) motion.Trying {
	return &Workbench{Shapes: s, fingerMM: c["finger"] / math.Pi, hands: int(c["hands"]), rounds: int(c["rounds"]), conditions: c}
}

// With is the same toy with what is written on it.
func (w *Workbench) With(written motion.Written) motion.Trying {
	out := *w
	out.written = written
	return &out
}

// set is a teller at knob values.
type set struct {
	shape
	content
	odds   [teller.Halves]float64
	roomMM float64 // that is left in the middle; what is below nought overlaps
	trimMM float64
	inside float64 // mm of a stiff finger in its pocket
	soft   float64 // of one that gives, as fingers and paper do
	values map[string]float64
}

func (w *Workbench) at(ctx context.Context, knobs map[string]float64) (set, error) {
	g, values, err := w.At(ctx, knobs)
	if err != nil {
		return set{}, err
	}
	s := set{shape: g, content: contentOf(w.written, w.rounds), values: values}
	s.odds = s.game.Odds()
	over, trim := teller.OverlapMM(g.SideMM, g.OtherMM, g.GapMM)
	s.roomMM, s.trimMM = -over-thickMM(g.ThickMM), trim
	side := math.Min(g.SideMM, g.OtherMM)
	s.inside, s.soft = teller.InsideMM(side, w.fingerMM), teller.InsideMM(side, teller.Soft(w.fingerMM))
	return s, nil
}

// layersInside are in the second folds.
const layersInside = 2

// thickMM is the room that the layers inside of the second folds take.
func thickMM(thickness float64) float64 { return math.Pi / 2 * thickness * layersInside }

// The numbers that a trial is drawn from.
const (
	nAcross = iota
	nAlong
	numbers
)

// freely is the chance that one opening goes freely with so much room in the middle: paper gives
// by about givesMM, more or less.
func freely(roomMM float64) float64 {
	return distuv.Normal{Mu: -givesMM, Sigma: givesMM / 2}.CDF(roomMM)
}

// scatter tells how folded ones open, and how many of ten openings go freely: the worse of the
// two directions counts.
func (w *Workbench) scatter(s set, by motion.Sample) (modes map[string]int, room, free []float64) {
	modes = map[string]int{}
	for i := range by.N {
		u := motion.Numbers(by.From+i, numbers)
		left := math.Inf(1)
		for _, k := range []int{nAcross, nAlong} { // two corners meet in each
			left = math.Min(left, s.roomMM+math.Sqrt2*missMM[w.hands]*motion.Normal(u[k]))
		}
		room = append(room, left)
		ten := 10 * freely(left)
		if !teller.Holds(s.soft) {
			ten *= fumbled
		}
		free = append(free, ten)
		switch {
		case !teller.Holds(s.soft):
			modes[modeNoHold]++
		case left < -givesMM:
			modes[modeBinds]++
		case left > gapesMM:
			modes[modeGapes]++
		default:
			modes[modeOpens]++
		}
	}
	return modes, room, free
}

// fumbled is the share of openings that succeed with fingers that are hardly held: a guess.
const fumbled = 0.5

// What a teller is measured by.
const (
	byRarest = "chance of the rarest message"
	byOpens  = "opens both ways"
	byRoom   = "finger inside"
	byHole   = "hole in the middle"
)

// Measure folds and plays at lever positions.
func (w *Workbench) Measure(levers []motion.Lever) motion.Measure {
	return func(ctx context.Context, at []float64, by motion.Sample) (motion.Measures, error) {
		knobs, _ := motion.Split(levers, at)
		s, err := w.at(ctx, knobs)
		if err != nil {
			return nil, err
		}
		modes, room, _ := w.scatter(s, by)
		least, _ := teller.Rarest(s.odds)
		return motion.Measures{byRarest: 100 * least, byOpens: 100 * float64(modes[modeOpens]) / float64(by.N), byRoom: s.inside, byHole: math.Max(0, order.Median(room))}, nil
	}
}

// Levers are the knobs.
func (w *Workbench) Levers(knobs map[string]float64) []motion.Lever {
	return append(w.Toys.Levers(knobs, nil), w.way.Levers(w.conditions)...)
}

// Goal scores measures for an aim.
func (w *Workbench) Goal(aim string, _ float64) motion.Goal {
	return func(m motion.Measures) float64 {
		if aim == "closed" {
			return m[byOpens]/100 - m[byHole]
		}
		return m[byOpens] - 0.1*m[byHole]
	}
}

// Take has nothing to take: nothing is measured of a finished teller.
func (w *Workbench) Take(map[string]float64, map[string]float64) error { return nil }
