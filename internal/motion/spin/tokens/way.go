package tokens

import (
	"math"
	"math/rand/v2"

	"tussock/internal/motion"
	"tussock/internal/motion/toys"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Readings of a token.
const (
	Seconds = "spin"
	Turns   = "turns"
	Lean    = "lean"
	Towards = "towards"
)

// paper is what suits tokens.
var paper = sheet.Bands{
	Weight:    sheet.Band{GoodMin: 55, GoodMax: 160, FairMin: 40, FairMax: 220, Low: "so light a token has no swing to keep", High: "so heavy a token is thick and hard to fold exactly"},
	Stiffness: sheet.Band{GoodMin: 1, GoodMax: 15, FairMin: 0.5, FairMax: 30, Low: "so limp a rim hangs and rubs", High: "so stiff a stack fans open"},
}

// Ways are both: tokens that spin on a point of their own, and tokens that hang from a pin.
func Ways() []*toys.Way {
	return []*toys.Way{made(spinning(), headStands, true), made(hanging(), headHangs, false)}
}

// made is one of them. Only one brings the words to the language.
func made(w motion.Way, head string, speaks bool) *toys.Way {
	out := &toys.Way{Way: w, Paper: paper, Learn: learn, Invent: invent(w), Is: func(p *sequence.Pattern) bool { return p.Head(head) != "" }}
	out.On = func(p *sequence.Pattern, s sheet.Sheet) motion.Bench { return newShapes(p, s, &out.Way) }
	if speaks {
		out.Language, out.Data = language, []any{TokenDrawing{}, AimDrawing{}}
	} else {
		out.Language = sequence.Vocabulary{Moves: language.Moves}
	}
	return out
}

// invent makes up a trial for demo data.
func invent(w motion.Way) func(*rand.Rand, toys.Meant) (motion.Noted, string) {
	return func(r *rand.Rand, m toys.Meant) (motion.Noted, string) {
		k := w.Kinds[0]
		first := starts[0]
		for _, c := range w.Conditions {
			if c.Name == "start" {
				first = starts[int(c.Default)]
			}
		}
		n := motion.Noted{Kind: k.Name, Read: map[string]float64{}, Under: map[string]string{"support": supports[0].label, "start": first.label}}
		note := ""
		v := math.Max(0.2*m.Mean, m.Mean+m.SD*r.NormFloat64())
		if k.Record == Seconds && r.Float64() < 0.05 {
			v, note = 0.4*v, "Let go crooked"
		}
		n.Read[k.Record] = math.Round(10*v) / 10
		if t, there := m.More[Towards]; there && t > 0 {
			h := math.Mod(math.Round(t+0.4*r.NormFloat64())+12, 12)
			if h == 0 {
				h = 12
			}
			n.Read[Towards] = h
		}
		n.Chips = m.Chip(r)
		return n, note
	}
}

func supportOptions() []motion.Option {
	var out []motion.Option
	for i, s := range supports {
		out = append(out, motion.Option{Value: float64(i), Label: s.label, Says: s.says})
	}
	return out
}

func startOptions() []motion.Option {
	var out []motion.Option
	for i, s := range starts {
		out = append(out, motion.Option{Value: float64(i), Label: s.label, Says: s.says})
	}
	return out
}

// pointed keeps a pencil and a pin from being held into a face.
func pointed(at string) motion.Caution {
	return motion.Caution{ID: "SF03", At: at, Title: "Pencils and pins", Text: "Hold them still and upright, the point away from faces; a pin stands in a cork."}
}

// both is what both ways have alike.
func both(w motion.Way) motion.Way {
	w.Moves, w.Predicts, w.Headline = "spin", true, "offset"
	w.Conditions = []motion.Condition{
		{Name: "support", Label: "Rests on", Group: "The support", Max: float64(len(supports) - 1), Options: supportOptions(), Logged: true},
		{Name: "start", Label: "Started", Group: "The start", Max: float64(len(starts) - 1), Options: startOptions(), Logged: true},
		{Name: "hand", Label: "Whose hand", Group: "The start", Max: 1, Options: []motion.Option{{Value: 0, Label: "an adult's"}, {Value: 1, Label: "a child's"}}},
		{Name: "own", Label: "Use what my own spins have taught", Group: "The start", Default: 1, Max: 1, Check: true},
	}
	w.Records = []motion.Record{
		{ID: Seconds, Label: "Spin", Unit: "s", Max: 300, Watch: true},
		{ID: Turns, Label: "Turns", Max: 3000},
		{ID: Lean, Label: "Leans by", Unit: "deg", Max: 80, Less: true, Usual: []int{0, 2, 5, 10, 15, 20}},
		{ID: Towards, Label: "Leans or rubs towards", Unit: "o'clock", Min: 0, Max: 12, Clock: true},
	}
	w.Measures = []motion.Gauge{{Name: byOffset, Unit: "mm", Firm: true, Shown: true, Less: true}, {Name: byTime, Unit: "s", Shown: true}, {Name: byLean, Unit: "deg", Firm: true, Shown: true, Less: true},
		{Name: byClear, Unit: "mm", Firm: true, Shown: true}, {Name: byTurns}}
	w.Asked = &motion.Asked{Title: "where it really balances",
		How: "Lay it on the blunt end of a pencil, as it spins, and slide it until it lies level. Measure from the point to that place: to the right on the picture from above, and up; left and down are negative.",
		Fields: []motion.Field{{Name: "right", Label: "Balance, right of the point", Unit: "mm", Min: -30, Max: 30},
			{Name: "up", Label: "Balance, up from the point", Unit: "mm", Min: -30, Max: 30}}}
	w.Schools = []motion.School{
		{ID: "D21", Question: "It leans. What is moved?", A: "the point: bend it to where the weight is", B: "the weight: bend up or trim what is heavy",
			KnobsA: map[string]float64{KnobRight: 0, KnobUp: 0}, KnobsB: map[string]float64{KnobEdges: 0.1},
			Order: "The point first: it can be bent back."},
	}
	w.Accuracy = "for the balance to a tenth of a millimetre of a toy as it is folded; spin times are good to a half until your own spins have been learnt from"
	w.Constants, w.Limits = constants(), limits()
	return w
}

func spinning() motion.Way {
	w := both(motion.Way{
		Name: "spin",
		Words: motion.Words{One: "spin", Many: "spins", Do: "Spin it", Log: "Log the spin", Who: "Whose hand", Motion: "Spin", Busy: "Spinning it…",
			None:       "No spins yet. Twist it between finger and thumb, and time it until it falls.",
			Conditions: "The start and what it spins on", Last: "The point and the rim",
			Noting: "Tap what it did when you log it, and on the clock which way it leaned.",
			Better: "To make it spin longer or steadier, search for an aim on the mat.",
			Unlike: "It has no point to spin on, so nothing can be said of how it spins.",
			Title:  "Spin", Made: "Made to spin.", ForShow: "Made to be looked at; its spin is predicted all the same.", Untried: "folded, has not spun yet", Tried: "has spun already"},
		Kinds: []motion.Kind{
			{Name: "spin", Label: "Spin", Asks: "How long did it spin?", Record: Seconds, Others: []string{Turns, Lean, Towards}, Rules: "From letting go until the rim touches the table and stays there."},
			{Name: "lean", Label: "Which way it leans", Asks: "Which way does it lean, and by how much?", Record: Lean, Others: []string{Towards}, Rules: "Soon after letting go, from the side; 12 o'clock is up on the picture from above."},
			{Name: "turns", Label: "Turns", Asks: "How often did it turn?", Record: Turns, Others: []string{Seconds, Towards}, Rules: "Film it slowly, or mark its rim and count."},
		},
		Chips: []motion.Chip{{Name: steady, Modes: []string{modeSpins}}, {Name: leaned, Bad: true}, {Name: fell, Bad: true, Modes: []string{modeFalls}}, {Name: rubbed, Bad: true, Modes: []string{modeRubs}}, {Name: wobbled, Bad: true}, {Name: short, Bad: true}, {Name: missed}},
		Aims:  []motion.Aim{{Name: "longest", Label: "spins longest", Gain: byTime}, {Name: "steady", Label: "steadiest", Gain: byLean}, {Name: "level", Label: "best balanced", Gain: byOffset}, {Name: "clear", Label: "rim clears the table by most", Gain: byClear}},
		Free:  []string{KnobRight, KnobUp, KnobEdges}, Sweep: []string{KnobRight, KnobUp},
	})
	w.Cautions = []motion.Caution{pointed("first")}
	return w
}

func hanging() motion.Way {
	w := both(motion.Way{
		Name: "hang",
		Words: motion.Words{One: "trial", Many: "trials", Do: "Hang it on a pin", Log: "Log how it hangs", Who: "Who", Motion: "Balance", Busy: "Hanging it up…",
			None:       "Not tried yet. Set its notch on a pin or a pencil and look which way it leans.",
			Conditions: "The pin and the start", Last: "The pin and the rim",
			Noting: "Tap what it did, and on the clock which way it leaned.",
			Better: "To make it hang more level, search for an aim on the mat.",
			Unlike: "It has no spot to hang from, so nothing can be said of how it hangs.",
			Title:  "Spin", Made: "Made to hang level and turn.", ForShow: "Made to be looked at; how it hangs is predicted all the same.", Untried: "folded, has not hung yet", Tried: "has hung already"},
		Kinds: []motion.Kind{
			{Name: "lean", Label: "Level or not", Asks: "By how much does it lean, and which way?", Record: Lean, Others: []string{Towards}, Rules: "Let it come to rest; 12 o'clock is up on the picture from above."},
			{Name: "spin", Label: "Turned", Asks: "How long does it turn?", Record: Seconds, Others: []string{Turns, Towards}, Rules: "From a push at the rim until it stands still."},
		},
		Chips: []motion.Chip{{Name: level, Modes: []string{modeLevel}}, {Name: steady}, {Name: leaned, Bad: true, Modes: []string{modeLeans}}, {Name: off, Bad: true, Modes: []string{modeTopple}}, {Name: wobbled, Bad: true}, {Name: short, Bad: true}},
		Aims:  []motion.Aim{{Name: "level", Label: "hangs most level", Gain: byLean}, {Name: "longest", Label: "turns longest", Gain: byTime}},
		Free:  []string{KnobRight, KnobUp}, Sweep: []string{KnobRight, KnobUp},
	})
	w.Cautions = []motion.Caution{pointed("set"), pointed("first")}
	for i := range w.Conditions {
		if w.Conditions[i].Name == "start" {
			w.Conditions[i].Default = pushed
		}
	}
	return w
}
