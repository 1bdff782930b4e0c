package tellers

import (
	"math"
	"math/rand/v2"

	"tussock/internal/motion"
	"tussock/internal/motion/reveal/teller"
	"tussock/internal/motion/toys"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Ids of what is read off a trial.
const (
	Opens    = "opens"
	Openings = "openings"
	Came     = "came"
	Rounds   = "rounds"
)

// Kinds of trial.
const (
	opening = "open"
	play    = "play"
	endures = "endures"
)

// What can be noted.
const (
	bothWays = "opened both ways"
	oneWay   = "opened one way"
	bound    = "bound"
	gaped    = "gaped in the middle"
	tore     = "tore"
	fingers  = "fingers did not fit"
	again    = "same answers again"
	wrong    = "showed wrong numbers"
)

// How it opens.
const (
	modeOpens  = "opens both ways"
	modeBinds  = "binds"
	modeGapes  = "gapes"
	modeNoHold = "cannot be held"
)

// Hands that fold it.
const (
	byAdult = iota
	byChild
)

// missMM is how far a corner is set beside where it should be, one standard deviation: a
// usual figure for hands that fold to a printed line, and for small ones.
var missMM = []float64{0.5, 1.2}

// Paper is what suits revealers.
var Paper = sheet.Bands{
	Weight:    sheet.Band{GoodMin: 50, GoodMax: 110, FairMin: 35, FairMax: 160, Low: "so light a paper does not spring open", High: "so heavy a paper does not fold back on itself"},
	Stiffness: sheet.Band{GoodMin: 0.8, GoodMax: 9, FairMin: 0.4, FairMax: 20, Low: "so limp a flap does not stand", High: "so stiff a paper does not fold back on itself"},
}

// Way is fortune tellers.
func Way() *toys.Way {
	w := &toys.Way{Way: way(), Is: Is, Paper: Paper, Data: []any{TellerDrawing{}, TellerTold{}}, Writing: Writing(), Invent: invent, Aids: aids}
	w.On = func(p *sequence.Pattern, s sheet.Sheet) motion.Bench { return newShapes(p, s, &w.Way) }
	return w
}

func way() motion.Way {
	return motion.Way{
		Name: "tell", Moves: "reveal", Predicts: true, Plays: true, Headline: "rarest",
		Words: motion.Words{One: "play", Many: "plays", Do: "Play it", Log: "Log the play", Who: "Who", Motion: "Opening", Busy: "Opening it…",
			None: "Not played yet. Put thumbs and forefingers in, spell a word, count a number, and lift a flap.", Conditions: "The hands and the game", Last: "How it is opened",
			Noting: "Tap what it did when you log it.", Better: "To make it open more surely or to make its messages come up more evenly, search for an aim on the mat.",
			Unlike: "Its zones are not those of a fortune teller, so nothing can be said of how it opens.",
			Title:  "Reveal", Made: "Made to be played with.", ForShow: "Made to be looked at.", Untried: "folded, not played yet", Tried: "has been played already"},
		Conditions: []motion.Condition{
			{Name: "finger", Label: "Girth of the finger", Unit: "mm", Group: "The hands", Default: 55, Min: 25, Max: 85, Setting: "finger", Says: "Measured with the printed ring gauge or a strip of paper. It is kept for all toys."},
			{Name: "hands", Label: "Folded by", Group: "The hands", Max: byChild, Options: []motion.Option{{Value: byAdult, Label: "steady hands", Says: "Corners land half a millimetre from where they should."}, {Value: byChild, Label: "small hands", Says: "Corners land more than a millimetre from where they should."}}, Logged: true},
			{Name: "rounds", Label: "Numbers counted before one is opened", Group: "The game", Default: 2, Min: 0, Max: 6, Options: rounds()},
		},
		Records: []motion.Record{
			{ID: Opens, Label: "Opened freely, of ten", Max: 10, Usual: []int{4, 6, 8, 9, 10}},
			{ID: Openings, Label: "Openings", Max: 10000, Usual: []int{50, 100, 200}},
			{ID: Came, Label: "Message that came up", Min: 1, Max: teller.Halves, Tally: true, Usual: []int{1, 2, 3, 4, 5, 6, 7, 8}},
			{ID: Rounds, Label: "Numbers counted", Max: 20, Kept: true, Usual: []int{0, 1, 2, 3}},
		},
		Kinds: []motion.Kind{
			{Name: opening, Label: "Ten openings", Asks: "How many of ten went freely?", Record: Opens, Rules: "Open it five times each way. What binds, sticks or has to be helped does not count."},
			{Name: play, Label: "Play", Asks: "What came up?", Others: []string{Came, Rounds}, Rules: "Spell a word, count numbers, open one. Messages are counted by the numbers they lie under, from the right half of the upper flap, clockwise."},
			{Name: endures, Label: "How long it lasts", Asks: "How many openings until it tears or goes slack?", Record: Openings},
		},
		Chips: []motion.Chip{{Name: bothWays, Modes: []string{modeOpens}}, {Name: oneWay, Bad: true}, {Name: bound, Bad: true, Modes: []string{modeBinds}}, {Name: gaped, Bad: true, Modes: []string{modeGapes}},
			{Name: fingers, Bad: true, Modes: []string{modeNoHold}}, {Name: again, Bad: true}, {Name: wrong, Bad: true}, {Name: tore, Bad: true}},
		Measures: []motion.Gauge{{Name: byRarest, Unit: "%", Shown: true}, {Name: byOpens, Unit: "%", Shown: true}, {Name: byRoom, Unit: "mm", Firm: true, Shown: true}, {Name: byHole, Unit: "mm", Firm: true, Less: true}},
		Aims:     []motion.Aim{{Name: "opens", Label: "opens most surely", Gain: byOpens}, {Name: "closed", Label: "least hole in the middle", Gain: byHole}},
		Free:     []string{knobGap}, Sweep: []string{knobGap},
		Schools: []motion.School{
			{ID: "D11", Question: "Do the corners in the middle touch?", A: "leave a hair: it opens without binding", B: "meet exactly: it looks neater", KnobsA: map[string]float64{knobGap: 0.8}, KnobsB: map[string]float64{knobGap: 0.2}, Order: "Two sheets: a gap cannot be changed later."},
		},
		Cautions: []motion.Caution{
			{ID: "SF12", At: "set", Title: "What is written", Text: "Be kind, and write nothing about real people: no names, no looks, no addresses. A leader reads it before others do."},
			{ID: "SF11", At: "first", Title: "Things to do", Text: "Look that there is floor to do them on, and that everybody can. Anybody may skip one."},
		},
		Accuracy:  "exact for chances and openings of stiff panels; whether it binds to about a millimetre of the folds",
		Constants: constants(), Limits: limits(),
		About: func(_ motion.Prediction, n motion.Noted) bool { return n.Kind == opening || n.Kind == "" },
	}
}

func rounds() []motion.Option {
	names := []string{"none", "one", "two", "three", "four", "five", "six"}
	var out []motion.Option
	for i, n := range names {
		out = append(out, motion.Option{Value: float64(i), Label: n})
	}
	return out
}

func constants() []motion.Constant {
	return []motion.Constant{
		{Name: "Corners miss by, steady hands", Value: missMM[byAdult], Lo: 0.3, Hi: 0.8, Unit: "mm", Confidence: motion.Medium, Source: "Folds to a printed line come out to a third or half of a millimetre.", Effect: "how often it binds"},
		{Name: "Corners miss by, small hands", Value: missMM[byChild], Lo: 0.8, Hi: 2, Unit: "mm", Confidence: motion.Low, Source: "A usual figure for young folders.", Effect: "how often it binds"},
		{Name: "Paper gives in the middle", Value: givesMM, Lo: 0.3, Hi: 1, Unit: "mm", Confidence: motion.Low, Source: "Flaps that overlap by less still pass.", Effect: "how often it binds"},
		{Name: "Hole that gapes", Value: gapesMM, Lo: 3, Hi: 6, Unit: "mm", Confidence: motion.Low, Source: "What people call a hole.", Effect: "when it is said to gape"},
		{Name: "Soft fingers and paper give a pocket", Value: teller.BulgePart, Lo: 0.1, Hi: 0.2, Unit: "of a finger's width", Confidence: motion.Medium, Source: "Pockets bulge, skin gives way: 10 to 20 % more than a stiff pyramid.", Effect: "how deep a finger goes, and the sheet that fits it"},
	}
}

// Flaps that overlap by so much still pass, and a hole in the middle from which it gapes, mm.
const givesMM, gapesMM = 0.6, 4.0

func limits() []string {
	return []string{
		"Panels are stiff, and points are held together in pairs; soft fingers and paper that bulges give a pocket 10 to 15 % more.",
		"Everybody is taken to choose among four words and four open numbers without a preference. People prefer some numbers: then chances differ.",
		"Paper has thickness for the room in the middle alone; openings are those of panels without it.",
		"How many openings it lasts is not predicted: log it.",
		"Letters alone are spelled: spaces, hyphens and signs are no moves.",
	}
}

// invent makes up a trial for demo data.
func invent(r *rand.Rand, m toys.Meant) (motion.Noted, string) {
	n := motion.Noted{Kind: opening, Read: map[string]float64{Opens: math.Max(0, math.Min(10, math.Round(m.Mean+m.SD*r.NormFloat64())))}, Under: map[string]string{"hands": "steady hands"}}
	if r.IntN(2) == 0 {
		n.Kind, n.Read = play, map[string]float64{Came: float64(1 + r.IntN(teller.Halves)), Rounds: 2}
	}
	n.Chips = m.Chip(r)
	return n, ""
}
