package bird

import (
	"context"
	"math"
	"math/rand/v2"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/flap/hump"
	"tussock/internal/motion/flap/papers"
	"tussock/internal/motion/toys"
	"tussock/internal/order"
	"tussock/internal/prints"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Readings of a pull.
const (
	Swing = "swing"
	Tip   = "tip"
	Pull  = "pull"
	Rate  = "rate"
)

// Way is all that birds bring.
func Way() *toys.Way {
	return &toys.Way{Way: way, Is: isBird, Language: language, Learn: learn, Invent: invent, Card: &toys.Card{Name: "fan card", Lay: fanCard},
		On:   func(p *sequence.Pattern, s sheet.Sheet) motion.Bench { return newShapes(p, s) },
		Data: []any{BirdDrawing{}, papers.PaperDrawing{}},
		Paper: sheet.Bands{
			Weight:    sheet.Band{GoodMin: 35, GoodMax: 90, FairMin: 25, FairMax: 110, Low: "so light a paper tears at the tail", High: "so heavy a wing hardly follows the tail"},
			Stiffness: sheet.Band{GoodMin: 0.3, GoodMax: 4, FairMin: 0.2, FairMax: 8, Low: "so limp a wing hangs", High: "so stiff a wing does not swing"},
		}}
}

// invent makes up a pull for demo data.
func invent(r *rand.Rand, m toys.Meant) (motion.Noted, string) {
	n := motion.Noted{Kind: way.Kinds[0].Name, Read: map[string]float64{Swing: math.Max(1, math.Round(m.Mean+m.SD*r.NormFloat64())), Pull: 10}, Under: map[string]string{}}
	note := ""
	if r.Float64() < 0.08 {
		note = "Pulled a little to the side"
	}
	n.Chips = m.Chip(r)
	return n, note
}

// fanCard is rays every 5° to both sides of level, to hold a bird against from the front.
func fanCard(page prints.Page, _ float64, inches bool) prints.Leaf {
	l := prints.Leaf{Page: page}
	c := geom.Vec{X: page.WidthMM / 2, Y: 120}
	prints.Fan{At: c, ArmMM: 85, Least: -30, Most: 85}.Draw(&l)
	l.Line(prints.Mark, c.X-4, c.Y, c.X+4, c.Y)
	l.Sentences(geom.Vec{X: prints.MarginMM + 2, Y: c.Y + 58},
		"Fan card. Hold the bird in front of it, seen from the front, the root of a wing on the cross.",
		"Read the ray that its tip points along, at rest and pulled: the swing is the difference.",
		"Or mark both places of the tip and measure between them.")
	l.Foot(prints.Order{Inches: inches}, "Tussock fan card")
	return l
}

var way = motion.Way{
	Name: "flap", Predicts: true, Headline: "swing",
	Words: motion.Words{One: "pull", Many: "pulls", Do: "Let it flap", Log: "Log the pull", Who: "Whose hands", Motion: "Beat", Busy: "Pulling its tail…",
		None:       "No pulls yet. Hold the breast, pull the tail, and read how far a wing swings.",
		Conditions: "The pull", Last: "The hump, the wings and the hands",
		Noting: "Tap what it did when you log it: flapped, only opened, locked…",
		Better: "To make it beat wider or easier, search for an aim on the mat.",
		Unlike: "It names no hump, neck and tail, so nothing can be said of how it flaps.",
		Title:  "Flap", Made: "Made to flap.", ForShow: "Made to be looked at; its beat is predicted all the same.", Untried: "folded, has not flapped yet", Tried: "has flapped already"},
	Conditions: []motion.Condition{
		{Name: "pull", Label: "Tail pulled by", Unit: "mm", Group: "The pull", Default: 10, Min: 1, Max: 60, Step: 1, Least: 3, Most: 30},
		{Name: "beats", Label: "Beats", Unit: "a second", Group: "The pull", Default: 1.5, Min: 0.2, Max: 6},
		{Name: "hand", Label: "Whose hands", Group: "The pull", Max: 1, Options: []motion.Option{{Value: 0, Label: "an adult's"}, {Value: 1, Label: "a child's"}}},
		{Name: "own", Label: "Use what my own pulls have taught", Group: "The pull", Default: 1, Max: 1, Check: true},
	},
	Records: []motion.Record{
		{ID: Swing, Label: "Swing of a wing", Unit: "deg", Max: 120, Usual: []int{5, 10, 15, 20, 25, 30}},
		{ID: Tip, Label: "Tip travels", Unit: "mm", Max: 300, Usual: []int{5, 10, 15, 20, 30}},
		{ID: Pull, Label: "Tail pulled by", Unit: "mm", Max: 100, Kept: true},
		{ID: Rate, Label: "Beats a minute", Max: 600, Usual: []int{30, 60, 90, 120}},
	},
	Kinds: []motion.Kind{
		{Name: "swing", Label: "Swing", Asks: "How far does a wing swing?", Record: Swing, Others: []string{Tip, Pull}, Rules: "Against the fan card, from the front: at rest, and at the end of the pull."},
		{Name: "tip", Label: "Travel of a tip", Asks: "How far does a tip travel?", Record: Tip, Others: []string{Pull}, Rules: "Between the two places of the tip, in a straight line."},
		{Name: "rate", Label: "Beats", Asks: "How many beats in a minute?", Record: Rate, Others: []string{Swing, Pull}},
	},
	Chips: []motion.Chip{{Name: flapped, Modes: []string{modeFree, modeBound}}, {Name: opens, Bad: true, Modes: []string{modeLittle}}, {Name: locked, Bad: true, Modes: []string{modeLocks, modeBound}}, {Name: stuck, Bad: true, Modes: []string{modeLocks}}, {Name: oneWing, Bad: true}, {Name: limp, Bad: true}, {Name: tore, Bad: true}, {Name: other}},
	Measures: []motion.Gauge{{Name: bySwing, Unit: "deg", Firm: true, Shown: true}, {Name: byTip, Unit: "mm", Firm: true, Shown: true}, {Name: byPull, Unit: "mm", Firm: true, Shown: true, Less: true},
		{Name: byForce, Unit: "N", Shown: true, Less: true}, {Name: byWork, Unit: "deg", Less: true}},
	Aims: []motion.Aim{{Name: "widest", Label: "widest swing", Gain: bySwing}, {Name: "easy", Label: "easiest pull", Gain: byPull}, {Name: "gentle", Label: "gentlest on the paper", Gain: byWork}},
	Free: []string{KnobRest, KnobCurve, KnobHold}, Sweep: []string{KnobRest, KnobHold},
	Asked: &motion.Asked{Title: "the hump, neck and tail, the curve of the wings", CardName: "fan card",
		How: "Let it lie a minute. Measure the angle between the ridges of neck and tail at rest; then open neck and tail as far as they go by themselves; and how deep the root of a wing is curved.",
		Fields: []motion.Field{{Name: "rest", Label: "Hump open at rest", Unit: "deg", Min: 2, Max: 60}, {Name: "neck", Label: "Neck lets it open to", Unit: "deg", Min: 6, Max: 90},
			{Name: "tail", Label: "Tail lets it open to", Unit: "deg", Min: 6, Max: 90}, {Name: "curve", Label: "Curve of a wing", Unit: "mm", Min: 0, Max: 10}}},
	Schools: []motion.School{
		{ID: "D02", Question: "How sharp are the wings set?", A: "curved: they follow the hump", B: "creased straight: they look crisp",
			KnobsA: map[string]float64{KnobCurve: 4}, KnobsB: map[string]float64{KnobCurve: 0},
			Order: "Curved first: a crease does not go away again."},
	},
	Accuracy:  "for a pull along the bird and rigid paper at its hump; the rest of it bends and is not followed, so swings are good to a third until your own pulls have been learnt from",
	Constants: constants(),
	Limits: []string{
		"The law of the hump is exact for four rigid sectors and a pull along the bird; a pull to a side splits between the wings.",
		"The finished bird as rigid paper does not open its hump without passing through itself: the hump is driven by its own law, the wings follow their roots, the rest of the paper bends and is drawn as it stood.",
		"Where a straight root locks is a geometric estimate; how much a pull loses on its way to the hump is a guess that your pulls replace.",
		"Forces are good to a factor of two, and leave out how stiffly the paper round the hump bends.",
		"Wings are flat strips for weight and beat; a curve makes them stiffer than told.",
	},
}

// Learning one number from a person's own pulls: which part of a pull opens the hump.

// onePull is by how much, as a part, single pulls differ in it, oneBird by how much birds do.
const onePull, oneBird, mostFactor = 0.25, 0.12, 2.5

func learn(all []motion.Observation) motion.Calibration {
	return motion.LearnFactor("the part of a pull that opens the hump", motion.Doubt{Before: doubt, Trial: onePull, Toy: oneBird, Floor: learntFloor}, all, func(o motion.Observation) (float64, int) {
		w, ok := motion.Inner(o.Trying).(*Workbench)
		if !ok {
			return 1, 0
		}
		return w.factor(o)
	})
}

// factor is what the part of the pull must be multiplied by for the middle of the trials, and
// how many there were. A bird that binds before teaches nothing.
func (w *Workbench) factor(o motion.Observation) (float64, int) {
	s, err := w.at(context.Background(), o.Knobs)
	v := motion.Values(o.Log, Swing)
	if err != nil || len(v) < motion.Enough {
		return 1, 0
	}
	pull := w.PullM
	if p := motion.Values(o.Log, Pull); len(p) > 0 {
		pull = order.Median(p) * mm
	}
	from, want := s.wing(s.rest), geom.Rad(order.Median(v))
	if s.wing(s.ceiling)-from <= want || pull <= 0 || pull >= s.pullFor(s.ceiling, comes) {
		return 1, 0
	}
	lo, hi := s.rest, s.ceiling
	for range 40 {
		if mid := (lo + hi) / 2; s.wing(mid)-from < want {
			lo = mid
		} else {
			hi = mid
		}
	}
	f := s.pullFor(lo, comes) / pull
	return math.Max(1/mostFactor, math.Min(mostFactor, f)), len(v)
}

func constants() []motion.Constant {
	return []motion.Constant{
		{Name: "Part of a pull that opens the hump", Value: comes, Lo: 0.4, Hi: 1, Unit: "", Confidence: motion.Low, Source: "a guess: the rest bends the paper round it", Effect: "swing nearly in proportion"},
		{Name: "What a straight soft root gives", Value: geom.Deg(slackRad), Lo: 2, Hi: 10, Unit: "°", Confidence: motion.Low, Source: "a guess: a fold across a ridge is locked as rigid paper, and gives a little as soft paper", Effect: "where flat wings lock"},
		{Name: "Turn of a curved root", Value: 4, Lo: 3, Hi: 5, Unit: "atan(2c/w)", Confidence: motion.Medium, Source: "arc of a circle of that sagitta", Effect: "where curved wings lock"},
		{Name: "Neck and tail give more or less than set, of the logarithm", Value: gives, Lo: 0.1, Hi: 0.35, Unit: "", Confidence: motion.Low, Source: "an estimate: by feel", Effect: "the band where it binds"},
		{Name: "First beat of a clamped strip", Value: hump.Frequency(1, 1, 1), Lo: 0.55, Hi: 0.57, Unit: "", Confidence: motion.High, Source: "Euler's beam, 3.516 over 2π", Effect: "how far tips whip, up to half more near it"},
	}
}
