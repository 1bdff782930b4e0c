package tokens

import (
	"context"
	"fmt"
	"math"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/say"
)

// clock is a direction as on the face of a clock that lies on the picture: 12 is up.
func clock(v geom.Vec) float64 {
	h := math.Mod(geom.Deg(math.Atan2(v.X, v.Y))/30+12, 12)
	if h == 0 {
		return 12
	}
	return h
}

// oClock is a direction in words.
func oClock(h float64) string {
	n := int(math.Round(h))
	if n <= 0 {
		n += 12
	}
	return fmt.Sprintf("%d o'clock", n)
}

// fromClock is the direction of an hour.
func fromClock(h float64) geom.Vec {
	s, c := math.Sincos(geom.Rad(30 * h))
	return geom.Vec{X: s, Y: c}
}

// spins is what many spins come to.
type spins struct {
	seconds, turns, leanDeg, clear motion.Range
	modes                          map[string]int
	middle                         spun
	all                            []spun
}

func (w *Workbench) spread(s set) spins {
	out := spins{modes: map[string]int{}, all: w.scatter(s, motion.Whole)}
	n := len(out.all)
	sec, turns, lean, clear := make([]float64, n), make([]float64, n), make([]float64, n), make([]float64, n)
	for i, q := range out.all {
		sec[i], turns[i], lean[i], clear[i] = q.seconds, q.turns, geom.Deg(q.lean), q.clear
		out.modes[q.mode]++
	}
	out.seconds, out.turns = motion.RangeOf(append([]float64{}, sec...)), motion.RangeOf(turns)
	out.leanDeg, out.clear = motion.RangeOf(lean), motion.RangeOf(clear)
	near := math.Inf(1)
	for i, q := range out.all {
		if d := math.Abs(sec[i] - out.seconds.Middle); d < near {
			near, out.middle = d, q
		}
	}
	return out
}

func (s spins) usual() string { return motion.Shares(s.modes, 1)[0].Mode }

// first is the outcome that counts most.
func (s spins) first(hangs bool) motion.Outcome {
	if hangs {
		return s.leanDeg.Outcome(Lean, "Lean", "deg", 1)
	}
	return s.seconds.Outcome(Seconds, "Spin", "s", 1)
}

// Predict spins a set-up.
func (w *Workbench) Predict(ctx context.Context, knobs map[string]float64, ghosts []motion.Ghost) (motion.Prediction, error) {
	out := motion.Prediction{Readings: []motion.Reading{}, Checks: []motion.Check{}, Modes: []motion.Share{}, Outcomes: []motion.Outcome{}, Tries: motion.Draws}
	s, err := w.at(ctx, knobs)
	if err == ErrNoPoint { //nolint:errorlint // Of returns it bare
		out.Mode, out.ModeWords = "no point", w.way.Words.Unlike
		return out, nil
	}
	if err != nil {
		return out, err
	}
	out.Works = true
	all := w.spread(s)
	out.Mode, out.Modes = all.usual(), motion.Shares(all.modes, motion.Draws)
	out.ModeWords = w.modeWords(s, all)
	out.Outcomes = append(out.Outcomes, all.first(s.Hangs))
	if s.Hangs {
		out.Outcomes = append(out.Outcomes, all.seconds.Outcome(Seconds, "Spin", "s", 1), all.turns.Outcome(Turns, "Turns", "", 0))
	} else {
		out.Outcomes = append(out.Outcomes, all.turns.Outcome(Turns, "Turns", "", 0), all.leanDeg.Outcome(Lean, "Lean while it turns", "deg", 1))
	}
	d := w.drawing(s, all)
	for _, h := range ghosts {
		was, err := w.at(ctx, h.Knobs)
		if ctx.Err() != nil {
			return out, ctx.Err()
		}
		if err != nil {
			continue // it cannot be folded on this sheet: no ghost
		}
		m := w.spread(was).middle
		d.Ghosts = append(d.Ghosts, TokenGhost{h.Name, m.curve(ghostPoints)})
	}
	out.Drawing = &motion.Drawing{Kind: "token", Data: d}
	out.Readings = w.readings(s, all)
	out.Checks = w.checks(s, all)
	return out, nil
}

const ghostPoints = 24

// Outlook is the first outcome alone.
func (w *Workbench) Outlook(ctx context.Context, knobs map[string]float64) (motion.Outlook, error) {
	s, err := w.at(ctx, knobs)
	if err != nil {
		return motion.Outlook{}, err
	}
	all := w.spread(s)
	return motion.Outlook{Outcome: all.first(s.Hangs), Mode: all.usual()}, nil
}

// modeWords say what is to be expected.
func (w *Workbench) modeWords(s set, all spins) string {
	off := s.Off.Len()
	beside := fmt.Sprintf("Its weight lies %s beside the point, towards %s.", say.MM(off, 1), oClock(clock(s.Off)))
	if off < foundMM {
		beside = fmt.Sprintf("Its weight lies over the point, to %s.", say.MM(foundMM, 2))
	}
	switch all.usual() {
	case modeFalls:
		return beside + fmt.Sprintf(" So started it falls: it needs %s turns a second to stand.", say.Decimal(perTurn(s.body().Stands()), 1))
	case modeRubs:
		return beside + fmt.Sprintf(" It leans until its rim rubs at %s.", w.spotName(s, all.middle))
	case modeTopple:
		return beside + " It does not stay on: the weight must lie lower, or nearer to the pin."
	case modeLeans:
		return beside + fmt.Sprintf(" It hangs %s low.", oClock(clock(s.Off)))
	case modeLevel:
		return beside + " An eye takes that for level."
	}
	return beside + fmt.Sprintf(" It stands as long as it makes %s turns a second, and falls towards %s.", say.Decimal(perTurn(all.middle.to), 1), oClock(clock(s.Off)))
}

// foundMM is as near to the point as anything counts.
const foundMM = 0.05

// perTurn makes rad/s turns a second.
func perTurn(rate float64) float64 { return rate / (2 * math.Pi) }

// spotName is a spot of the rim in words.
func (w *Workbench) spotName(s set, q spun) string {
	if q.first < 0 || q.first >= len(s.Rim) {
		return "no spot"
	}
	r := s.Rim[q.first]
	if r.Name != "" {
		return r.Name
	}
	return oClock(clock(r.At))
}

// checks are what to look at before it is spun.
func (w *Workbench) checks(s set, all spins) []motion.Check {
	off := s.Off.Len()
	o := motion.Check{ID: "offset", Title: "Balance", OK: off <= goodMM, Fix: []motion.Change{}}
	if o.OK {
		o.Says = fmt.Sprintf("the point lies %s from the centre of mass.", small(off))
	} else {
		o.Says = fmt.Sprintf("the point lies %s off the centre of mass. Bring it %s.", say.MM(off, 1), vector(s.Off))
		if all := s.answers(s.Off.Scale(-1)); len(all) > 0 {
			o.Says += fmt.Sprintf(" Or bring the weight to the point: %s again, %s of its mark.", w.stepWords(s, all[0].step), told(all[0].mm))
		}
		o.Do = "Move the point there"
		o.Fix = w.moveSupport(s)
	}
	out := []motion.Check{o}
	if !s.Hangs {
		c := motion.Check{ID: "clearance", Title: "Clearance", OK: all.middle.clear >= rubClearMM, Fix: []motion.Change{}}
		c.Says = fmt.Sprintf("the rim stays %s above the table at its lowest spot, %s.", say.MM(all.middle.clear, 1), w.spotName(s, all.middle))
		if !c.OK {
			c.Says = fmt.Sprintf("the rim comes within %s of the table at %s: bend it up there, or make the point higher.", say.MM(math.Max(0, all.middle.clear), 1), w.spotName(s, all.middle))
		}
		r := motion.Check{ID: "start", Title: "Start", OK: w.start.turns > 1.5*perTurn(s.body().Stands()), Fix: []motion.Change{}}
		r.Says = fmt.Sprintf("it stands from %s turns a second on; so started it makes about %s.", say.Decimal(perTurn(s.body().Stands()), 1), say.Decimal(w.start.turns, 0))
		out = append(out, c, r)
	} else {
		d := motion.Check{ID: "depth", Title: "Weight below the pin", OK: s.DepthMM > 1, Fix: []motion.Change{}}
		d.Says = fmt.Sprintf("the centre of mass hangs %s below the pin.", say.MM(s.DepthMM, 1))
		if !d.OK {
			d.Says = fmt.Sprintf("the centre of mass lies only %s below the pin: droop its halves more, or set the notch higher.", say.MM(s.DepthMM, 1))
			if s.DepthMM < 0 {
				d.Says = fmt.Sprintf("the centre of mass lies %s above the pin: it stays on only because the fold is round. Droop its halves, or set the notch higher.", say.MM(-s.DepthMM, 1))
			}
		}
		l := motion.Check{ID: "lobes", Title: "Both halves alike", OK: math.Abs(s.CoM.X) < alikeMM, Fix: []motion.Change{}, Says: "left and right weigh the same."}
		if !l.OK {
			l.Says = fmt.Sprintf("the %s half weighs more: the balance lies %s to that side. Tuck more of it away, or less of the other.", side(s.CoM), say.MM(math.Abs(s.CoM.X), 1))
		}
		out = append(out, d, l)
	}
	if s.Mark != nil {
		stale := s.Mark.Sub(s.CoM).Len()
		c := motion.Check{ID: "mark", Title: "The mark made on the way", OK: stale < staleMM, Fix: []motion.Change{}}
		c.Says = fmt.Sprintf("it still lies on the balance, to %s.", small(stale))
		if !c.OK {
			c.Says = fmt.Sprintf("it is stale: the folds after it have moved the balance by %s, towards %s of it. Do not aim at the old mark.", say.MM(stale, 1), oClock(clock(s.CoM.Sub(*s.Mark))))
		}
		out = append(out, c)
	}
	return out
}

// alikeMM is how far from the middle the balance of a toy with two like halves may lie.
const alikeMM = 0.2

// What is near enough to the point, and by how much a mark is stale, mm.
const goodMM, staleMM = 0.5, 0.15

// vector says how far to go and where to.
func vector(v geom.Vec) string {
	return fmt.Sprintf("%s towards %s", say.MM(v.Len(), 1), oClock(clock(v)))
}

// moveSupport are the knobs that bring the point under the weight, to half a tenth.
func (w *Workbench) moveSupport(s set) []motion.Change {
	var out []motion.Change
	for _, q := range []struct {
		knob string
		by   float64
	}{{KnobRight, s.Off.X}, {KnobUp, s.Off.Y}} {
		i := w.Pattern.KnobIndex(q.knob)
		if i < 0 || math.Abs(q.by) < 0.05 {
			continue
		}
		k := w.Pattern.Knobs[i]
		from := s.values[q.knob]
		out = append(out, motion.Change{Knob: q.knob, Label: k.Label, Unit: k.Unit, From: from, To: math.Max(k.Min, math.Min(k.Max, math.Round(10*(from+q.by))/10))})
	}
	return out
}
