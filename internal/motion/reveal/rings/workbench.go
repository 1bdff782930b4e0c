package rings

import (
	"context"
	"fmt"
	"math"

	"tussock/internal/draw"
	"tussock/internal/motion"
	"tussock/internal/motion/reveal/ring"
	"tussock/internal/motion/toys"
	"tussock/internal/order"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Shapes are the rings of one pattern on one sheet. They may be shared.
type Shapes struct {
	toys.Toys[made]
	way *motion.Way
}

// made is a ring with the replay that it was read off.
type made struct {
	Geometry
	replay *sequence.Replay
}

func newShapes(p *sequence.Pattern, s sheet.Sheet, w *motion.Way) *Shapes {
	of := func(r *sequence.Replay) (made, error) {
		g, err := Of(r)
		return made{g, r}, err
	}
	return &Shapes{toys.Toys[made]{Pattern: p, Sheet: s, Of: of}, w}
}

// Workbench folds and flexes one pattern on one sheet. It may be used by several at once.
type Workbench struct {
	*Shapes
	up         int
	missMM     float64
	startDeg   float64
	longestMM  float64
	written    motion.Written
	conditions motion.Conditions
}

// Under gives it conditions. Nothing is learnt from trials.
func (s *Shapes) Under(c motion.Conditions, _ motion.Calibration) motion.Trying {
	return &Workbench{Shapes: s, up: int(c["up"]), missMM: c[condMiss], startDeg: c["start"], longestMM: 1000 * c["longest"], conditions: c}
}

// With is the same toy with what is drawn on it.
func (w *Workbench) With(written motion.Written) motion.Trying {
	out := *w
	out.written = written
	return &out
}

// thickest is the most leaves in one place, over all states.
func (g *Geometry) thickest() (n int) {
	for _, s := range g.Graph.States {
		for _, k := range s.Thick() {
			n = max(n, k)
		}
	}
	return n
}

// folds are the creases of the strip.
func (g *Geometry) folds() int { return g.Leaves }

// offMM is what the folds are off together, of one trial: misses of all, and what thickness
// pushes a rolled strip out.
func (w *Workbench) offMM(g made, z float64) float64 {
	roll, zigzag := ring.CreepMM(g.ThickMM, g.Leaves/2)
	creep := zigzag
	if w.up == rolled {
		creep = roll
	}
	return math.Abs(ring.SideErrorMM(w.missMM)*math.Sqrt(float64(g.folds()))*z) + creep
}

// The numbers that a trial is drawn from.
const (
	nMiss = iota
	nStiff
	nBulge
	numbers
)

func (w *Workbench) scatter(g made, by motion.Sample) (modes map[string]int, off []float64) {
	modes = map[string]int{}
	thick := float64(g.thickest()) * g.ThickMM
	for i := range by.N {
		u := motion.Numbers(by.From+i, numbers)
		v := w.offMM(g, motion.Normal(u[nMiss]))
		off = append(off, v)
		switch {
		case thick > stiffPart*g.SideMM*math.Exp(doubt*motion.Normal(u[nStiff])):
			modes[modeStiff]++
		case v > bulgeMM*math.Exp(doubt*motion.Normal(u[nBulge])):
			modes[modeBulges]++
		default:
			modes[modeFlexes]++
		}
	}
	return modes, off
}

// What a ring is measured by.
const (
	byFlexes = "flexes easily"
	byOff    = "folds off together"
	byThick  = "thickest place"
)

// Measure folds and flexes at lever positions.
func (w *Workbench) Measure(levers []motion.Lever) motion.Measure {
	return func(ctx context.Context, at []float64, by motion.Sample) (motion.Measures, error) {
		knobs, c := motion.Split(levers, at)
		g, _, err := w.At(ctx, knobs)
		if err != nil {
			return nil, err
		}
		q := *w
		if v, tuned := c[condMiss]; tuned {
			q.missMM = v
		}
		modes, off := q.scatter(g, by)
		return motion.Measures{byFlexes: 100 * float64(modes[modeFlexes]) / float64(by.N), byOff: order.Median(off), byThick: float64(g.thickest()) * g.ThickMM}, nil
	}
}

// Levers are the knobs.
func (w *Workbench) Levers(knobs map[string]float64) []motion.Lever {
	return append(w.Toys.Levers(knobs, nil), w.way.Levers(w.conditions)...)
}

// Goal scores measures for an aim.
func (w *Workbench) Goal(string, float64) motion.Goal {
	return func(m motion.Measures) float64 { return m[byFlexes] - m[byOff] }
}

// Take has nothing to take: nothing is measured of a finished ring.
func (w *Workbench) Take(map[string]float64, map[string]float64) error { return nil }

// between are pictures of the flex from one state to another, or of turning it over.
func between(r *sequence.Replay, w motion.Written, from, to int) ([]draw.Picture, error) {
	g, err := Of(r)
	if err != nil {
		return nil, err
	}
	if from < 0 || from >= len(g.Graph.States) || to < 0 || to >= len(g.Graph.States) {
		return nil, fmt.Errorf("there is no state %d or %d of this ring: it has %d", from, to, len(g.Graph.States))
	}
	inks, _ := Writing().All(r, g.places(), w)
	for _, f := range g.Graph.From(from) {
		if f.To == to {
			return g.between(f, inks), nil
		}
	}
	if g.Graph.Over[from] == to {
		return []draw.Picture{g.pictured(g.Graph.States[from], inks), g.pictured(g.Graph.States[to], inks)}, nil
	}
	return nil, fmt.Errorf("no flex leads from state %d to state %d: go by those that it offers", from, to)
}
