package wheels

import (
	"context"
	"errors"
	"fmt"
	"math"
	"math/cmplx"

	"tussock/internal/motion"
	"tussock/internal/motion/spin/wheel"
	"tussock/internal/say"
)

// trials is what many trials come to.
type trials struct {
	drive                    int
	rate, fall, speed, start motion.Range
	lean                     motion.Range
	modes                    map[string]int
	all                      []tried
	middle                   tried
}

func (w *Workbench) spread(s set, drive int, by motion.Sample) trials {
	out := trials{drive: drive, modes: map[string]int{}, all: w.scatter(s, by, drive)}
	of := func(f func(tried) float64) motion.Range {
		v := make([]float64, len(out.all))
		for i, t := range out.all {
			v[i] = f(t)
		}
		return motion.RangeOf(v)
	}
	for _, t := range out.all {
		out.modes[t.mode]++
	}
	out.rate = of(func(t tried) float64 { return perTurn(t.rate) })
	out.fall = of(func(t tried) float64 { return t.fall })
	out.speed = of(func(t tried) float64 { return t.speed })
	out.start = of(func(t tried) float64 { return t.start * 1e6 })
	out.lean = of(func(t tried) float64 { return t.lean })
	near, key := math.Inf(1), func(t tried) float64 { return math.Abs(perTurn(t.rate) - out.rate.Middle) }
	if drive == byFall {
		key = func(t tried) float64 { return math.Abs(t.fall - out.fall.Middle) }
	}
	for _, t := range out.all {
		if d := key(t); d < near {
			near, out.middle = d, t
		}
	}
	return out
}

func (t trials) usual() string { return motion.Shares(t.modes, 1)[0].Mode }

// first is the outcome that counts most.
func (t trials) first() motion.Outcome {
	if t.drive == byFall {
		return t.fall.Outcome(Fall, "Time to the floor", "s", 2)
	}
	return t.rate.Outcome(Rate, "Turns a second", "", 1)
}

func (t trials) outcomes() []motion.Outcome {
	if t.drive == byFall {
		return []motion.Outcome{t.first(), t.speed.Outcome("speed", "Speed at the floor", "m/s", 2), t.rate.Outcome(Rate, "Turns a second at the floor", "", 1)}
	}
	up := motion.Range{}
	v := make([]float64, 0, len(t.all))
	for _, q := range t.all {
		if !math.IsInf(q.seconds, 0) && q.rate > 0 {
			v = append(v, q.seconds)
		}
	}
	up = motion.RangeOf(v)
	return []motion.Outcome{t.first(), t.start.Outcome("start", "Torque of the start", "mN mm", 1), up.Outcome("spinup", "To two thirds of that", "s", 2)}
}

// other is the drive that the number beside the main one is about.
func (w *Workbench) other() int {
	if w.drive == byFall {
		return byBreath
	}
	return byFall
}

// otherTries is how many trials the number beside rests on.
const otherTries = 40

// Predict turns a set-up.
func (w *Workbench) Predict(ctx context.Context, knobs map[string]float64, ghosts []motion.Ghost) (motion.Prediction, error) {
	out := motion.Prediction{Readings: []motion.Reading{}, Checks: []motion.Check{}, Modes: []motion.Share{}, Outcomes: []motion.Outcome{}, Tries: motion.Draws}
	s, err := w.at(ctx, knobs)
	if errors.Is(err, ErrNoWheel) {
		out.Mode, out.ModeWords = "no blades", w.way.Words.Unlike
		return out, nil
	}
	if err != nil {
		return out, err
	}
	out.Works = true
	all := w.spread(s, w.drive, motion.Whole)
	other := w.spread(s, w.other(), motion.Sample{N: otherTries})
	blown, dropped := all, other
	if w.drive == byFall {
		blown, dropped = other, all
	}
	out.Mode, out.Modes = all.usual(), motion.Shares(all.modes, motion.Draws)
	out.Outcomes = all.outcomes()
	out.ModeWords = w.modeWords(s, all)
	if w.breath.Aim == 0 && w.drive == byBreath {
		out.Offered = map[string]float64{"aim": math.Round(w.aim(s.wheel) * 1e3)}
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
		m := w.spread(was, w.drive, motion.Sample{N: otherTries}).middle
		d.Ghosts = append(d.Ghosts, WheelGhost{h.Name, w.curve(was, m)})
	}
	out.Drawing = &motion.Drawing{Kind: "wheel", Data: d}
	out.Readings = w.readings(s, blown, dropped)
	out.Checks = w.checks(s, blown, dropped)
	return out, nil
}

// Outlook is the first outcome alone.
func (w *Workbench) Outlook(ctx context.Context, knobs map[string]float64) (motion.Outlook, error) {
	s, err := w.at(ctx, knobs)
	if err != nil {
		return motion.Outlook{}, err
	}
	all := w.spread(s, w.drive, motion.Whole)
	return motion.Outlook{Outcome: all.first(), Mode: all.usual()}, nil
}

// senseFrom is the sense in words, seen from where the air comes, and from the other side.
func senseFrom(sense int) (breath, above string) {
	switch {
	case sense > 0:
		return "clockwise", "counter-clockwise"
	case sense < 0:
		return "counter-clockwise", "clockwise"
	}
	return "", ""
}

// modeWords say what is to be expected.
func (w *Workbench) modeWords(s set, t trials) string {
	breath, away := senseFrom(s.Sense)
	says := "Its blades lie neither way: nothing says which way it turns. Lay them all over to one side."
	if breath != "" {
		says = fmt.Sprintf("Seen from the breath it turns %s: each blade goes toward its edge that lies nearer to the breath.", breath)
		if w.drive == byFall {
			says = fmt.Sprintf("Seen from above it turns %s, from below %s: the edge of each blade that lies lower leads.", away, breath)
		}
	}
	if t.middle.rate >= 0.999*mostTip/s.wheel.Outer {
		says += fmt.Sprintf(" Its tips would go faster than %s m/s: paper gives way there, and what it does then is not known.", say.Decimal(mostTip, 0))
	}
	switch t.usual() {
	case modeStuck:
		return says + " So it does not start: what drives it is less than what its pin holds back."
	case modeStalls:
		return says + fmt.Sprintf(" Its heavy side holds it: even it out first, %s g mm are too much for this breath.", say.Decimal(cmplx.Abs(s.uneven), 1))
	case modeRattles:
		return says + fmt.Sprintf(" It is thrown about in its play of %s.", say.MM(s.play*1e3, 1))
	case modeTumbles:
		return says + " It is likely to tumble: its weight lies above its blades, or it is too uneven. Drop it the other way up, or put tape at its tip."
	}
	return says
}

// checks are what to look at before it is tried.
func (w *Workbench) checks(s set, blown, dropped trials) []motion.Check {
	var out []motion.Check
	add := func(id, title string, ok bool, good, bad string, fix []motion.Change, do string) {
		c := motion.Check{ID: id, Title: title, OK: ok, Says: good, Fix: []motion.Change{}}
		if !ok {
			c.Says, c.Do = bad, do
			if fix != nil {
				c.Fix = fix
			}
		}
		out = append(out, c)
	}
	mean, spread := wheel.Gaps(s.gaps)
	moves := wheel.Even(s.gaps, leastMove)
	bad := ""
	if len(moves) > 0 {
		bad = fmt.Sprintf("the gaps scatter by %s folds about %s. Move blade %d first: %s.", say.Decimal(spread, 1), say.Decimal(mean, 1), moves[0].Blade+1, movedWords(moves[0].By))
	}
	add("even", "Blades stand evenly", len(moves) == 0, "as far as they were counted, no gap is off by half a fold.", bad, w.evened(s, moves), "I have moved them")
	add("alike", "Blades lie over alike", s.oddBy == 0, "none is set otherwise.",
		fmt.Sprintf("blade %d lies %s° otherwise. Falling, that is like %s g mm at most: the angle counts for more than weight.", s.odd+1, say.Decimal(math.Abs(s.oddBy), 0), say.Decimal(s.lean(dropped.speed.Middle, dropped.middle.rate), 0)),
		[]motion.Change{w.Change(s.values, KnobOddBy, -s.oddBy)}, "Bend it like the others")
	steep := geomDeg(s.wheel.Angle)
	add("angle", "Angle of the blades", steep >= leastDeg && steep <= mostDeg, fmt.Sprintf("with their curl they work at %s° from the plane of the wheel.", say.Decimal(steep, 0)),
		fmt.Sprintf("with their curl they work at %s°. Under %d° they hardly start, over %d° they hardly turn.", say.Decimal(steep, 0), int(leastDeg), int(mostDeg)), w.toAngle(s), "Lay them over so")
	add("start", "Start", blown.usual() != modeStuck && blown.usual() != modeStalls, fmt.Sprintf("what drives it is %s mN mm more than what its pin and its heavy side hold back.", say.Decimal(blown.start.Middle, 1)),
		"it does not start so. A thinner pin, steeper blades or a harder breath help; a wider hole does not.", []motion.Change{w.Change(s.values, KnobPin, -s.pin*1e3/2)}, "Take a thinner pin")
	if w.drive == byFall {
		add("weight", "Weight below the blades, as it falls", !s.topHeavy(w.up), fmt.Sprintf("the centre of mass lies %s below where the air holds it.", say.MM(math.Abs(s.comMM()-s.AirMM), 1)),
			"the centre of mass lies above where the air holds it: it may turn over as it falls. Drop it the other way up.", nil, "")
	}
	return out
}

// leastMove is the least that a blade is moved by, in folds: what can be counted.
const leastMove = 0.5

// Angles that blades of a wheel work well between, degrees.
const leastDeg, mostDeg = 8.0, 70.0

func geomDeg(rad float64) float64 { return rad * 180 / math.Pi }

// movedWords say how far a blade goes.
func movedWords(by float64) string {
	way := "forward, on to the next blade"
	if by < 0 {
		way = "back, to the blade before it"
	}
	n := "folds"
	if math.Abs(math.Abs(by)-1) < 1e-9 {
		n = "fold"
	}
	return fmt.Sprintf("%s %s %s", say.Decimal(math.Abs(by), 1), n, way)
}

// evened are the gaps after all moves.
func (w *Workbench) evened(s set, moves []wheel.Move) []motion.Change {
	if len(moves) == 0 {
		return nil
	}
	var out []motion.Change
	for i, to := range moves[len(moves)-1].Gaps {
		if i < mostBlades && math.Abs(to-s.gaps[i]) > 1e-9 {
			out = append(out, w.Change(s.values, KnobGap(i), math.Round(100*(to-s.gaps[i]))/100))
		}
	}
	return out
}

// toAngle brings the blades to where they start well.
func (w *Workbench) toAngle(s set) []motion.Change {
	return []motion.Change{w.Change(s.values, KnobAngle, goodDeg-geomDeg(s.wheel.Angle))}
}

// goodDeg is an angle at which wheels both start and turn.
const goodDeg = 30.0
