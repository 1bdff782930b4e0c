package rings

import (
	"math/rand/v2"

	"tussock/internal/motion"
	"tussock/internal/motion/toys"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Ids of what is read off a trial.
const (
	Flexes = "flexes"
	Faces  = "faces"
)

// Kinds of trial.
const (
	find    = "find"
	endures = "endures"
)

// What can be noted.
const (
	smooth  = "flexed smoothly"
	stuck   = "would not open"
	mixed   = "a face mixed numbers"
	few     = "faces could not be found"
	cracked = "cracked at a joint"
	gapped  = "gaped or bulged in the middle"
	puffed  = "puffed, blurred edges"
	opened  = "glue came off"
	tore    = "tore"
)

// How it goes.
const (
	modeFlexes = "flexes"
	modeStiff  = "too stiff to flex"
	modeBulges = "gapes or bulges in the middle"
)

// condMiss is the condition that says how exactly it is folded.
const condMiss = "miss"

// Ways that a strip is folded up.
const (
	zigzagged = iota
	rolled
)

// Paper is what suits rings.
var Paper = sheet.Bands{
	Weight:    sheet.Band{GoodMin: 60, GoodMax: 100, FairMin: 45, FairMax: 130, Low: "so light a joint tears after some flexes", High: "so heavy five layers crack at a joint"},
	Stiffness: sheet.Band{GoodMin: 0.8, GoodMax: 8, FairMin: 0.4, FairMax: 16, Low: "so limp places do not stand when it is pinched", High: "so stiff a joint cracks or does not open"},
}

// Way is rings that flex.
func Way() *toys.Way {
	w := &toys.Way{Way: way(), Is: Is, Paper: Paper, Data: []any{RingDrawing{}, RingTold{}}, Writing: Writing(), Invent: invent, Between: between, Aids: aids}
	w.On = func(p *sequence.Pattern, s sheet.Sheet) motion.Bench { return newShapes(p, s, &w.Way) }
	return w
}

func way() motion.Way {
	return motion.Way{
		Name: "hexaflex", Moves: "reveal", Predicts: true, Plays: true, Headline: "faces",
		Words: motion.Words{One: "trial", Many: "trials", Do: "Flex it", Log: "Log the trial", Who: "Who", Motion: "Flexing", Busy: "Flexing it…",
			None: "Not flexed yet. Pinch three places together, push the joint across from them in, and open it from the middle.", Conditions: "How it is folded", Last: "How it is folded",
			Noting: "Tap what it did when you log it.", Better: "To make it flex more easily, search for an aim on the mat.",
			Unlike: "It is no ring of ten or nineteen triangles, so nothing can be said of its faces.",
			Title:  "Reveal", Made: "Made to be flexed.", ForShow: "Made to be looked at.", Untried: "folded, not flexed yet", Tried: "has been flexed already"},
		Conditions: []motion.Condition{
			{Name: "up", Label: "The strip is", Group: "How it is folded", Max: rolled, Options: []motion.Option{{Value: zigzagged, Label: "zigzagged", Says: "To and fro: every triangle lies on the one before."}, {Value: rolled, Label: "rolled", Says: "Always over the same way: every turn goes round all those inside."}}, Logged: true},
			{Name: condMiss, Label: "Folds miss their line by", Unit: "mm", Group: "How it is folded", Default: 0.3, Min: 0.05, Max: 3, Step: 0.05, Least: 0.1, Most: 1.5, Says: "One standard deviation. Under 0.3 mm nine folds still add up to less than one."},
			{Name: "start", Label: "First angle guessed", Unit: "deg", Group: "How it is folded", Default: 60, Min: 40, Max: 80, Says: "Each fold of edge to crease halves what it is off by."},
			{Name: "longest", Label: "Longest paper at hand", Unit: "cm", Group: "How it is folded", Default: 0.297, Min: 0.1, Max: 3, Says: "Longer strips are joined; where is worked out."},
		},
		Records: []motion.Record{
			{ID: Faces, Label: "Faces found", Min: 1, Max: 6, Usual: []int{2, 3, 4, 5, 6}},
			{ID: Flexes, Label: "Flexes", Max: 10000, Usual: []int{20, 50, 100}},
		},
		Kinds: []motion.Kind{
			{Name: find, Label: "Find the faces", Asks: "How many faces did you find?", Record: Faces, Others: []string{Flexes}, Rules: "Flex as long as you like, and count the faces that you have seen in front."},
			{Name: endures, Label: "How long it lasts", Asks: "How many flexes until it tears or comes apart?", Record: Flexes},
		},
		Chips: []motion.Chip{{Name: smooth, Modes: []string{modeFlexes}}, {Name: stuck, Bad: true, Modes: []string{modeStiff}}, {Name: few, Bad: true}, {Name: mixed, Bad: true}, {Name: gapped, Bad: true, Modes: []string{modeBulges}},
			{Name: puffed, Bad: true}, {Name: cracked, Bad: true, Modes: []string{modeStiff}}, {Name: opened, Bad: true}, {Name: tore, Bad: true}},
		Measures:  []motion.Gauge{{Name: byFlexes, Unit: "%", Shown: true}, {Name: byOff, Unit: "mm", Firm: true, Shown: true, Less: true}, {Name: byThick, Unit: "mm", Firm: true, Less: true}},
		Aims:      []motion.Aim{{Name: "flexes", Label: "flexes most surely", Gain: byFlexes}},
		Free:      []string{condMiss},
		Sweep:     []string{condMiss},
		Schools:   []motion.School{},
		Cautions:  []motion.Caution{{ID: "SF07", At: "set", Title: "Glue and tape", Text: "Take little, let it dry, and keep it out of mouths. A stick on one triangle is enough."}},
		Accuracy:  "exact for faces and for what opens where; whether it flexes easily only in order of papers",
		Constants: constants(), Limits: limits(),
		// How many faces people find says nothing against how many there are.
		About: func(motion.Prediction, motion.Noted) bool { return false },
	}
}

// Estimates of when a ring is hard to flex.
const (
	// stiffPart is how thick a joint may be, of a triangle's side.
	stiffPart = 1.0 / 28
	// bulgeMM is what the folds may be off together before the middle gapes or bulges.
	bulgeMM = 1.6
	// doubt of both, standard deviation of the logarithm.
	doubt = 0.35
)

func constants() []motion.Constant {
	return []motion.Constant{
		{Name: "A joint is stiff from", Value: stiffPart, Lo: 1.0 / 40, Hi: 1.0 / 18, Unit: "of a side", Confidence: motion.Low, Source: "Five layers of 100 g/m² are what people can still flex at sides of 30 mm.", Effect: "when it is said to be stiff"},
		{Name: "The middle gives", Value: bulgeMM, Lo: 0.8, Hi: 3, Unit: "mm", Confidence: motion.Low, Source: "What a ring hides without a hole.", Effect: "when it is said to gape"},
		{Name: "Room that thickness takes", Value: 1.5707963, Lo: 1, Hi: 2, Unit: "t a layer", Confidence: motion.Medium, Source: "Half a turn about the layers inside.", Effect: "creep of a rolled strip"},
		{Name: "Folds miss their line by", Value: 0.3, Lo: 0.1, Hi: 1, Unit: "mm", Confidence: motion.Medium, Source: "Careful folds of edge to crease; it can be set.", Effect: "what the folds are off together"},
		{Name: "Doubt of what is stiff and what gapes", Value: doubt, Lo: 0.2, Hi: 0.6, Unit: "", Confidence: motion.Low, Source: "Papers and hands differ by a third.", Effect: "how sharply the shares of stiff and gaping ones change"},
	}
}

func limits() []string {
	return []string{
		"The pinch flex alone: a ring of six faces can do more than that.",
		"Places are stiff plates; paper that bends lets a ring open a little where it should not.",
		"Paper has thickness for creep and stiff joints alone; pictures are of leaves without it.",
		"How many flexes it lasts is not predicted: log it.",
		"How stiff is too stiff was not measured: compare papers by it, do not count on the number.",
	}
}

// invent makes up a trial for demo data.
func invent(r *rand.Rand, m toys.Meant) (motion.Noted, string) {
	n := motion.Noted{Kind: find, Read: map[string]float64{}, Under: map[string]string{"up": "zigzagged"}}
	n.Read[Faces] = max(1, min(6, float64(int(m.Mean+m.SD*r.NormFloat64()+0.5))))
	n.Chips = m.Chip(r)
	return n, ""
}
