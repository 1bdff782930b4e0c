package puppet

import (
	"context"
	"math"
	"math/rand/v2"
	"strconv"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/flap/snap"
	"tussock/internal/motion/toys"
	"tussock/internal/order"
	"tussock/internal/prints"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Readings of a press.
const (
	Swing = "swing"
	Tip   = "tip"
	Beats = "beats"
	Rate  = "rate"
)

// Way is all that flappers for a finger bring.
func Way() *toys.Way {
	return &toys.Way{Way: way, Is: isPuppet, Language: language, Learn: learn, Invent: invent, Card: &toys.Card{Name: "ring gauge", Lay: ringGauge},
		On:   func(p *sequence.Pattern, s sheet.Sheet) motion.Bench { return newShapes(p, s) },
		Data: []any{SnapDrawing{}},
		Paper: sheet.Bands{
			Weight:    sheet.Band{GoodMin: 50, GoodMax: 75, FairMin: 35, FairMax: 90, Low: "so light a paper goes slack at once", High: "so heavy a paper does not snap by a finger"},
			Stiffness: sheet.Band{GoodMin: 0.6, GoodMax: 2.5, FairMin: 0.4, FairMax: 4.5, Low: "so limp a wing hangs", High: "so stiff a root does not fold by a finger"},
		}}
}

// invent makes up a press for demo data.
func invent(r *rand.Rand, m toys.Meant) (motion.Noted, string) {
	n := motion.Noted{Kind: way.Kinds[0].Name, Read: map[string]float64{Swing: math.Max(1, math.Round(m.Mean+m.SD*r.NormFloat64()))}, Under: map[string]string{}}
	note := ""
	if r.Float64() < 0.06 {
		note = "Finger was damp"
	}
	n.Chips = m.Chip(r)
	return n, note
}

// ringGauge is a strip to cut out and wrap round a finger, with its girth on it in mm, and
// rays every 5° to read a swing on.
func ringGauge(page prints.Page, _ float64, inches bool) prints.Leaf {
	l := prints.Leaf{Page: page}
	x0, y0 := prints.MarginMM+8, 40.0
	const from, to, wide = 35, 90, 14
	l.Line(prints.Mark, x0, y0, x0+to+22, y0)
	l.Line(prints.Mark, x0, y0+wide, x0+to+22, y0+wide)
	l.Line(prints.Mark, x0, y0, x0, y0+wide)
	l.Line(prints.Mark, x0+to+22, y0, x0+to+22, y0+wide)
	for v := from; v <= to; v++ {
		long := 3.0
		if v%5 == 0 {
			long = 6
			l.Words = append(l.Words, prints.Word{At: geom.Vec{X: x0 + float64(v), Y: y0 + 11}, SizeMM: 2.8, Text: strconv.Itoa(v), Centred: true})
		}
		l.Line(prints.Mark, x0+float64(v), y0, x0+float64(v), y0+long)
	}
	l.Sentences(geom.Vec{X: prints.MarginMM + 2, Y: y0 + wide + 8},
		"Ring gauge. Cut the strip out and lay it round the middle of your finger, numbers outside.",
		"Pull it snug: the number that the left end comes to is the girth of the finger in mm.")
	c := geom.Vec{X: page.WidthMM / 2, Y: 165}
	prints.Fan{At: c, ArmMM: 80, Least: -30, Most: 85}.Draw(&l)
	l.Sentences(geom.Vec{X: prints.MarginMM + 2, Y: c.Y + 55}, "Fan. Hold the flapper in front of it, its middle on the cross: the swing is what the tip moves by.")
	l.Foot(prints.Order{Inches: inches}, "Tussock ring gauge")
	return l
}

var way = motion.Way{
	Name: "snap", Moves: "flap", Predicts: true, Headline: "swing",
	Words: motion.Words{One: "press", Many: "presses", Do: "Let it flap", Log: "Log the press", Who: "Whose finger", Motion: "Beat", Busy: "Pressing it…",
		None:       "No presses yet. Wrap it, push the short crease in, press both ends and let go.",
		Conditions: "The finger and the press", Last: "The short crease and the tube",
		Noting: "Tap what it did when you log it: flapped, only opened, slipped off…",
		Better: "To make it swing wider or last longer, search for an aim on the mat.",
		Unlike: "It names no tube, so nothing can be said of how it flaps.",
		Title:  "Flap", Made: "Made to flap on a finger.", ForShow: "Made to be looked at; its beat is predicted all the same.", Untried: "folded, has not flapped yet", Tried: "has flapped already"},
	Conditions: []motion.Condition{
		{Name: "finger", Label: "Girth of the finger", Unit: "mm", Group: "The finger", Default: 55, Min: 25, Max: 85, Setting: "finger", Says: "Measured with the printed ring gauge or a strip of paper. It is kept for all toys."},
		{Name: "hand", Label: "Whose finger", Group: "The finger", Max: 1, Options: []motion.Option{{Value: 0, Label: "an adult's"}, {Value: 1, Label: "a child's"}}},
		{Name: "own", Label: "Use what my own presses have taught", Group: "The finger", Default: 1, Max: 1, Check: true},
	},
	Records: []motion.Record{
		{ID: Swing, Label: "Swing of a wing", Unit: "deg", Max: 120, Usual: []int{5, 10, 15, 20, 25, 30}},
		{ID: Tip, Label: "Tip travels", Unit: "mm", Max: 300, Usual: []int{10, 20, 30, 40}},
		{ID: Beats, Label: "Beats before it is slack", Max: 500, Usual: []int{10, 20, 30, 40, 50}},
		{ID: Rate, Label: "Beats a minute", Max: 600, Usual: []int{20, 40, 60, 80}},
	},
	Kinds: []motion.Kind{
		{Name: "swing", Label: "Swing", Asks: "How far does a wing swing?", Record: Swing, Others: []string{Tip}, Rules: "Against the fan on the ring gauge: before the press, and after."},
		{Name: "beats", Label: "How often", Asks: "How many beats before it goes slack?", Record: Beats, Others: []string{Swing, Rate}, Rules: "Wrap and press again for each; stop when it only opens."},
		{Name: "rate", Label: "Beats a minute", Asks: "How many beats in a minute?", Record: Rate, Others: []string{Swing}},
	},
	Chips: []motion.Chip{{Name: flaps, Modes: []string{modeFlaps}}, {Name: opens, Bad: true, Modes: []string{modeNoSnap}}, {Name: stiff, Bad: true, Modes: []string{modeNoSnap}}, {Name: back, Bad: true, Modes: []string{modeBack}}, {Name: oneWing, Bad: true}, {Name: slack, Bad: true}, {Name: slips, Bad: true, Modes: []string{modeSlips}}, {Name: tore, Bad: true, Modes: []string{modeTears}}},
	Measures: []motion.Gauge{{Name: bySwing, Unit: "deg", Shown: true}, {Name: byTip, Unit: "mm", Shown: true}, {Name: byBeats, Shown: true}, {Name: byTakes, Unit: "mJ", Firm: true, Shown: true, Less: true},
		{Name: bySnaps, Unit: "%"}, {Name: byPulls, Unit: "%", Firm: true, Less: true}},
	Aims: []motion.Aim{{Name: "widest", Label: "widest swing", Gain: bySwing}, {Name: "easy", Label: "easiest press", Gain: byTakes}, {Name: "beats", Label: "most beats", Gain: byBeats}, {Name: "gentle", Label: "gentlest on the paper", Gain: byPulls}},
	Free: []string{KnobPush, KnobSense}, Sweep: []string{KnobPush},
	Asked: &motion.Asked{Title: "how far the short crease is in", CardName: "ring gauge", How: "Look along the tube from one end: the angle that the crease is folded by, against the fan.",
		Fields: []motion.Field{{Name: "push", Label: "Short crease pushed in by", Unit: "deg", Min: 10, Max: 120}}},
	Schools: []motion.School{
		{ID: "D11", Question: "Do the edges in the middle touch?", A: "leave a hair: the fold over it does not tear", B: "meet exactly: it looks neater",
			KnobsA: map[string]float64{"gap": 0.8}, KnobsB: map[string]float64{"gap": 0.2}, Order: "Two sheets: a gap cannot be changed later."},
	},
	Cautions:  []motion.Caution{},
	Accuracy:  "to a factor of three in force and energy, to a third in swing, until your own presses have been learnt from; which of two set-ups snaps harder is right",
	Constants: constants(),
	Limits: []string{
		"The cone is that of a sheet that does not stretch and stays nearly flat; folds of more than 60° are beyond where it was checked.",
		"The way from one shape to the other is not in that law: the barrier is taken from rolled strips, whose measured peaks differ by a factor of three.",
		"Layers slide on each other; glued or damp ones are stiffer.",
		"The wings are drawn stiff, turned about the short crease. Which way they go depends on how the crease is pushed: look at your own.",
		"Fingers differ more than papers: what they give is a usual figure.",
	},
}

const onePress, onePuppet, mostFactor = 0.3, 0.15, 3.0

// learn calibrates from trials: by how much swings differ from what the cone says.
func learn(all []motion.Observation) motion.Calibration {
	return motion.LearnFactor("the swing that a pushed-in crease gives", motion.Doubt{Before: doubt, Trial: onePress, Toy: onePuppet, Floor: learntFloor}, all, func(o motion.Observation) (float64, int) {
		w, ok := motion.Inner(o.Trying).(*Workbench)
		if !ok {
			return 1, 0
		}
		s, err := w.at(context.Background(), o.Knobs)
		v := motion.Values(o.Log, Swing)
		if err != nil || len(v) == 0 || s.swing(s.push) <= 0 || s.takes(peaked) > w.gives() {
			return 1, 0
		}
		return math.Max(1/mostFactor, math.Min(mostFactor, order.Median(v)/geom.Deg(s.swing(s.push)))), len(v)
	})
}

func constants() []motion.Constant {
	return []motion.Constant{
		{Name: "Swing of a wing over the fold of the crease", Value: snap.Swing(1), Lo: 0.33, Hi: 0.45, Unit: "", Confidence: motion.Medium, Source: "shapes of a creased cone that does not stretch, small slopes", Effect: "swing in proportion"},
		{Name: "Peak over steady moment of a rolled strip", Value: peaked, Lo: snap.PeakLeast, Hi: snap.PeakMost, Unit: "", Confidence: motion.Low, Source: "measured tape springs", Effect: "whether it snaps: energy times 2.7 over the range"},
		{Name: "What fingers give", Value: fingersGive * 1e3, Lo: 8, Hi: 30, Unit: "mJ", Confidence: motion.Low, Source: "a usual press: 2 N over 8 mm", Effect: "which papers snap"},
		{Name: "What each beat takes of the fold", Value: 100 * slackens, Lo: 1, Hi: 3, Unit: "%", Confidence: motion.Low, Source: "creases tire by one to three in a hundred", Effect: "beats before it is slack, from twice to two thirds"},
		{Name: "Layers hold together", Value: joined, Lo: 0, Hi: 0.06, Unit: "", Confidence: motion.Low, Source: "between sliding (n) and bonded (n³) layers", Effect: "stiffness of two layers by a tenth"},
		{Name: "Strain at which paper tears along its grain", Value: 100 * snap.TearsAlong, Lo: 1.5, Hi: 2.5, Unit: "%", Confidence: motion.Medium, Source: "paper physics; across the grain 3 to 5", Effect: "whether it tears over the gap"},
	}
}
