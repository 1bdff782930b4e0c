package wheels

import (
	"math"
	"math/rand/v2"

	"tussock/internal/motion"
	"tussock/internal/motion/toys"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Readings of a wheel.
const (
	Rate    = "rate"
	Flashes = "flashes"
	Turns   = "turns"
	Seconds = "seconds"
	Fall    = "fall"
	Height  = "height"
)

// Kinds of trial.
const (
	blow = "blow"
	drop = "drop"
)

// What can be noted.
const (
	steady   = "turned steadily"
	stuck    = "did not start"
	wrong    = "turned the wrong way"
	wobbled  = "wobbled"
	rattled  = "rattled"
	slow     = "turned slowly"
	stopped  = "stopped heavy side down"
	cameOff  = "came off its axle"
	tumbled  = "tumbled"
	fast     = "fell fast"
	floated  = "floated down"
	unevenly = "blades stand unevenly"
)

// How it goes.
const (
	modeTurns   = "turns"
	modeStuck   = "does not start"
	modeStalls  = "stops heavy side down"
	modeRattles = "turns and rattles"
	modeFalls   = "comes down turning"
	modeTumbles = "tumbles"
)

// What drives it.
const (
	byBreath = iota
	byFan
	byWind
	byFall
)

var drives = []motion.Option{
	{Value: byBreath, Label: "blown", Says: "A breath that meets a part of the wheel."},
	{Value: byFan, Label: "in front of a fan", Says: "Air of one speed over the whole wheel."},
	{Value: byWind, Label: "in the wind outdoors", Says: "As from a fan, but it comes and goes."},
	{Value: byFall, Label: "dropped", Says: "Let go without a twist."},
}

// puff is how hard somebody blows.
type puff struct {
	label string
	speed float64 // m/s at the mouth
}

// breaths are usual figures.
var breaths = []puff{{"gently", 5}, {"strongly", 10}, {"as hard as can be", 15}}

// ways up.
const (
	tipAway = iota // the air meets the open side
	tipFirst
)

func breathOptions() []motion.Option {
	var out []motion.Option
	for i, b := range breaths {
		out = append(out, motion.Option{Value: float64(i), Label: b.label})
	}
	return out
}

// Way is wheels that air turns.
func Way() *toys.Way {
	w := &toys.Way{Way: way(), Paper: paper, Language: language, Learn: learn, Invent: invent, Card: &toys.Card{Name: "strobe disc", Lay: strobeDisc},
		Data: []any{WheelDrawing{}, WheelsDrawing{}}, Aids: aids}
	w.On = func(p *sequence.Pattern, s sheet.Sheet) motion.Bench { return newShapes(p, s, &w.Way) }
	return w
}

// paper is what suits wheels.
var paper = sheet.Bands{
	Weight:    sheet.Band{GoodMin: 55, GoodMax: 120, FairMin: 40, FairMax: 180, Low: "so light a blade gives way to the wind", High: "so heavy a pack is thick to crease, and falls fast"},
	Stiffness: sheet.Band{GoodMin: 1, GoodMax: 15, FairMin: 0.5, FairMax: 30, Low: "so limp a blade gives way to the wind", High: "so stiff a blade does not curl"},
}

func way() motion.Way {
	return motion.Way{
		Name: "wheel", Moves: "spin", Predicts: true, Headline: "blown",
		Words: motion.Words{One: "trial", Many: "trials", Do: "Blow at it or drop it", Log: "Log the trial", Who: "Who", Motion: "Turning", Busy: "Blowing at it…",
			None:       "Not tried yet. Put it on its axle and blow at it, or let it fall, both ways up.",
			Conditions: "The air and the axle", Last: "The blades and the axle",
			Noting: "Tap what it did when you log it.",
			Better: "To make it turn faster, start more easily or fall more slowly, search for an aim on the mat.",
			Unlike: "It has no blades about an axle, so nothing can be said of how air turns it.",
			Title:  "Spin", Made: "Made to be turned by the air.", ForShow: "Made to be looked at; how air turns it is predicted all the same.", Untried: "folded, has not turned yet", Tried: "has turned already"},
		Conditions: []motion.Condition{
			{Name: "drive", Label: "Driven", Group: "The air", Max: byFall, Options: drives, Logged: true},
			{Name: "breath", Label: "Blown", Group: "The air", Default: 1, Max: float64(len(breaths) - 1), Options: breathOptions(), Logged: true},
			{Name: "mouth", Label: "Width of the mouth or straw", Unit: "mm", Group: "The air", Default: 10, Min: 3, Max: 30, Says: "Lips as for a candle are 8 to 12 mm wide."},
			{Name: "away", Label: "Blown from", Unit: "cm", Group: "The air", Default: 0.08, Min: 0.01, Max: 0.5, Says: "It matters little: a breath gets wider as it slows."},
			{Name: "aim", Label: "Breath meets the wheel beside the axle", Unit: "mm", Group: "The air", Max: 200, Own: "two thirds out"},
			{Name: "wind", Label: "Speed of the fan or wind", Unit: "m/s", Group: "The air", Default: 3, Min: 0.3, Max: 20},
			{Name: "up", Label: "Air meets", Group: "The air", Max: tipFirst, Options: []motion.Option{{Value: tipAway, Label: "the open side", Says: "Tip away from the breath; dropped tip up."}, {Value: tipFirst, Label: "the tip", Says: "Tip towards the breath; dropped tip down."}}, Logged: true},
			{Name: "height", Label: "Dropped from", Unit: "m", Group: "The air", Default: 2, Min: 0.3, Max: 30},
			{Name: "own", Label: "Use what my own trials have taught", Group: "The air", Default: 1, Max: 1, Check: true},
		},
		Records: []motion.Record{
			{ID: Rate, Label: "Turns a second", Max: 100},
			{ID: Flashes, Label: "Stands still at flashes a second", Max: 500},
			{ID: Turns, Label: "Turns counted", Max: 5000},
			{ID: Seconds, Label: "In", Unit: "s", Max: 300, Watch: true},
			{ID: Fall, Label: "Time to the floor", Unit: "s", Max: 60, Watch: true},
			{ID: Height, Label: "Dropped from", Unit: "m", Min: 0.3, Max: 30, Kept: true},
		},
		Kinds: []motion.Kind{
			{Name: blow, Label: "Blow", Asks: "How many turns a second does it make?", Record: Rate, Others: []string{Flashes, Turns, Seconds}, Rules: "Blow as you set it, until it turns no faster. Read the strobe disc, film it slowly, or mark a blade and count."},
			{Name: drop, Label: "Drop", Asks: "How long does it fall?", Record: Fall, Others: []string{Height, Turns}, Rules: "Let go without a twist, from the height that is set; stop when it touches the floor."},
		},
		Chips: []motion.Chip{{Name: steady, Modes: []string{modeTurns}}, {Name: floated, Modes: []string{modeFalls}},
			{Name: stuck, Bad: true, Modes: []string{modeStuck}}, {Name: wrong, Bad: true}, {Name: wobbled, Bad: true}, {Name: rattled, Bad: true, Modes: []string{modeRattles}}, {Name: slow, Bad: true},
			{Name: stopped, Bad: true, Modes: []string{modeStalls}}, {Name: cameOff, Bad: true}, {Name: tumbled, Bad: true, Modes: []string{modeTumbles}}, {Name: fast, Bad: true}, {Name: unevenly, Bad: true}},
		Measures: []motion.Gauge{{Name: byBlown, Unit: "turns/s", Shown: true}, {Name: byStart, Unit: "mN mm", Shown: true}, {Name: byMetre, Unit: "s", Firm: true, Shown: true},
			{Name: byWobble, Unit: "g mm", Firm: true, Shown: true, Less: true}, {Name: byDropped, Unit: "turns/s"}},
		Aims: []motion.Aim{{Name: "fastest", Label: "turns fastest", Gain: byBlown}, {Name: "start", Label: "starts most easily", Gain: byStart}, {Name: "slowest", Label: "falls most slowly", Gain: byMetre}, {Name: "steadiest", Label: "turns most steadily", Gain: byWobble}},
		Free: []string{KnobAngle, KnobPin}, Sweep: []string{KnobAngle, KnobPin},
		Asked: &motion.Asked{Title: "how evenly the blades stand", OnMat: true,
			How:    "Count the folds, or strips of a ruler, between each blade and the next, all the way round.",
			Fields: gapFields()},
		Schools: []motion.School{
			{ID: "D19", Question: "Which way should it turn?", A: "clockwise", B: "counter-clockwise", KnobsA: map[string]float64{"hand": 1}, KnobsB: map[string]float64{"hand": -1},
				Order: "Either: one is the mirror image of the other. Right hands mostly lay the leaves to the left."},
		},
		Cautions: []motion.Caution{
			{ID: "SF02", At: "set", Title: "Skewers and pins", Text: "Blunt the point first. Keep it away from eyes and mouths, and never run with it."},
			{ID: "SF09", At: "first", Title: "Blowing", Text: "Take turns and rest: much blowing makes dizzy. Do not blow at anybody's face."},
			{ID: "SF14", At: "kind", Kind: blow, Title: "Flashing light", Text: "The flashing screen can harm people who are sensitive to flashes. It is off until you switch it on; the printed disc does without it."},
		},
		Accuracy:  "for a fall to a fifth, blown to between 0.6 and 1.5 times until rates of your own have been learnt from",
		Constants: constants(), Limits: limits(),
		About: func(p motion.Prediction, n motion.Noted) bool {
			return len(p.Outcomes) > 0 && (p.Outcomes[0].ID == Fall) == (n.Kind == drop)
		},
	}
}

func gapFields() []motion.Field {
	var out []motion.Field
	for i := range mostBlades {
		k := knobs()[6+i]
		out = append(out, motion.Field{Name: KnobGap(i), Label: k.Label, Min: k.Min, Max: k.Max})
	}
	return out
}

// invent makes up a trial for demo data.
func invent(r *rand.Rand, m toys.Meant) (motion.Noted, string) {
	n := motion.Noted{Kind: blow, Read: map[string]float64{}, Under: map[string]string{"drive": drives[byBreath].Label, "breath": breaths[1].label, "up": "the open side"}}
	v := math.Max(0.2*m.Mean, m.Mean+m.SD*r.NormFloat64())
	if h := m.More[Height]; h > 0 {
		n.Kind, n.Under["drive"] = drop, drives[byFall].Label
		n.Under["up"] = "the tip"
		n.Read[Fall], n.Read[Height] = math.Round(100*v)/100, h
	} else {
		n.Read[Rate] = math.Round(10*v) / 10
	}
	n.Chips = m.Chip(r)
	return n, ""
}
