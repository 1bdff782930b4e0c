package hop

import (
	"math"
	"math/rand/v2"

	"tussock/internal/given"
	"tussock/internal/motion"
	"tussock/internal/motion/toys"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Readings of a hop.
const (
	Length    = "distance"
	Height    = "height"
	HalfFlips = "flips"
	Miss      = "miss"
	Bar       = "bar"
	Dropped   = "dropped"
	Aside     = "aside"
)

// What can be noted.
const (
	onFeet     = "landed on its feet"
	onBack     = "landed on its back"
	onSide     = "landed on its side"
	forward    = "leapt forward"
	backward   = "leapt backward"
	cleared    = "cleared it"
	knocked    = "knocked it"
	hitRing    = "in the ring"
	hardly     = "hardly hopped"
	shut       = "stayed shut"
	caught     = "caught the finger"
	straightUp = "straight up"
	tooMany    = "too many flips"
	footUnder  = "foot folded under"
	tired      = "getting weaker"
)

// Way is all that hopping brings.
func Way() *toys.Way {
	return &toys.Way{Way: way, Language: language, Show: show, Learn: Learn, Card: &toys.Card{Name: "angle card", Lay: angleCard},
		On:   func(p *sequence.Pattern, s sheet.Sheet) motion.Bench { return NewShapes(p, s) },
		Data: []any{LeapDrawing{}}, Invent: invent,
		Paper: sheet.Bands{
			Weight:    sheet.Band{GoodMin: 55, GoodMax: 130, FairMin: 40, FairMax: 180, Low: "so light a toy has little spring behind it", High: "so heavy a toy is more than its spring lifts"},
			Stiffness: sheet.Band{GoodMin: 1.5, GoodMax: 12, FairMin: 1, FairMax: 25, Low: "so limp a pleat hardly springs", High: "a pleat so stiff is not pressed down by a finger"},
		}}
}

// invent makes up a hop for demo data: lengths scatter, and now and then the finger
// slips too soon.
func invent(r *rand.Rand, m toys.Meant) (motion.Noted, string) {
	part, note := math.Max(0.3, 1+m.SD/m.Mean*r.NormFloat64()), ""
	if r.Float64() < 0.06 {
		part, note = part*0.4, "Finger slipped too soon"
	}
	n := motion.Noted{Kind: way.Kinds[0].Name, Read: map[string]float64{Length: math.Round(m.Mean*part*200) / 200, Height: math.Round(m.More[Height]*part*200) / 200},
		Under: map[string]string{"trigger": triggers[0].label, "surface": tables[0].label}}
	if r.Float64() < 0.5 {
		n.Read[HalfFlips] = math.Max(0, math.Round(m.More[HalfFlips]+0.7*r.NormFloat64()))
	}
	n.Chips = m.Chip(r)
	return n, note
}

var way = motion.Way{
	Name: "hop", Predicts: true, Headline: "overhang",
	Words: motion.Words{One: "hop", Many: "hops", Do: "Let it hop", Log: "Log the hop", Who: "Whose finger", Motion: "Hop", Busy: "Pressing it down…",
		None:       "No hops yet. Press the rear down, slide off, and measure where it lands.",
		Conditions: "The hop and the table", Last: "The pleat and the stance",
		Noting: "Tap what the hop did when you log it: landed on its feet, caught the finger, straight up…",
		Better: "To make it go farther or higher, search for an aim on the mat.",
		Unlike: "It has no pleat to spring from, so nothing can be said of how it hops.",
		Title:  "Hop", Made: "Made to hop.", ForShow: "Made to be looked at; its hop is predicted all the same.", Untried: "folded, has not hopped yet", Tried: "has hopped already"},
	Conditions: []motion.Condition{
		{Name: "trigger", Label: "Set off", Group: "The hop", Max: float64(len(triggers) - 1), Options: triggerOptions(), Logged: true},
		{Name: "surface", Label: "Table", Group: "The hop", Max: float64(len(tables) - 1), Options: tableOptions(), Logged: true},
		{Name: "hand", Label: "Whose hand", Group: "The hop", Max: 1, Options: []motion.Option{{Value: 0, Label: "an adult's"}, {Value: 1, Label: "a child's"}}},
		{Name: "own", Label: "Use what my own hops have taught", Group: "The hop", Default: 1, Max: 1, Check: true},
		{Name: "rope_at", Label: "Rope ahead", Unit: "cm", Group: "What is in the way", Min: 0.01, Max: 2, None: true},
		{Name: "rope", Label: "Height of the rope", Unit: "cm", Group: "What is in the way", Min: 0.005, Max: 1, None: true},
		{Name: "gap", Label: "Gap to leap over", Unit: "cm", Group: "What is in the way", Min: 0.01, Max: 2, None: true},
		{Name: "ring_at", Label: "Ring, to its middle", Unit: "cm", Group: "What is in the way", Min: 0.01, Max: 2, None: true},
		{Name: "ring", Label: "Ring, from middle to rim", Unit: "cm", Group: "What is in the way", Min: 0.005, Max: 0.5, None: true},
		{Name: "drop", Label: "Off a table so high", Unit: "cm", Group: "What is in the way", Min: 0.05, Max: 1.5, None: true},
	},
	Records: []motion.Record{
		{ID: Length, Label: "Distance", Unit: "cm", Max: 5},
		{ID: Height, Label: "Height", Unit: "cm", Max: 3},
		{ID: HalfFlips, Label: "Half flips", Max: 40, Usual: []int{0, 1, 2, 3, 4, 5}},
		{ID: Miss, Label: "From the middle of the ring", Unit: "cm", Max: 5, Less: true},
		{ID: Bar, Label: "Height of the obstacle", Unit: "cm", Max: 3},
		{ID: Dropped, Label: "Distance from the table's foot", Unit: "cm", Max: 5},
		{ID: Aside, Label: "Landed aside of the line aimed at", Unit: "cm", Min: -5, Max: 5, Sides: []string{"left", "right"}},
	},
	Kinds: []motion.Kind{
		{Name: "distance", Label: "Distance", Asks: "How far did it leap?", Record: Length, Others: []string{Height, HalfFlips, Aside}, Rules: "From where its nose stood to where its nose lies."},
		{Name: "height", Label: "Height", Asks: "How high did it leap?", Record: Height, Others: []string{Length, HalfFlips}, Rules: "The top of its path against a ruler, eye at that height."},
		{Name: "flips", Label: "Somersaults", Asks: "How often did it turn?", Record: HalfFlips, Others: []string{Height, Length}, Rules: "Count half turns; film it slowly if you can."},
		{Name: "target", Label: "Onto a target", Asks: "How near did it land?", Record: Miss, Others: []string{Length}, Rules: "From the middle of the ring to its nearest edge."},
		{Name: "obstacle", Label: "Over an obstacle", Asks: "How high was it?", Record: Bar, Others: []string{}, Rules: "Log the height tried, and whether it cleared it."},
		{Name: "table", Label: "Off a table", Asks: "How far from the table?", Record: Dropped, Others: []string{HalfFlips}, Rules: "On the floor, from below the table's edge."},
	},
	Chips: []motion.Chip{{Name: onFeet}, {Name: onBack}, {Name: onSide}, {Name: forward, Modes: []string{modeForward}}, {Name: backward, Modes: []string{modeBackward}}, {Name: cleared}, {Name: knocked}, {Name: hitRing},
		{Name: hardly, Bad: true, Modes: []string{modeStays, modeCaught}}, {Name: shut, Bad: true, Modes: []string{modeStays}}, {Name: caught, Bad: true, Modes: []string{modeCaught}}, {Name: straightUp, Bad: true, Modes: []string{modeUp}}, {Name: tooMany, Bad: true}, {Name: footUnder, Bad: true}, {Name: tired, Bad: true}},
	Measures: []motion.Gauge{{Name: ByLength, Unit: "cm", Firm: true, Shown: true}, {Name: ByHeight, Unit: "cm", Firm: true, Shown: true}, {Name: ByFlips, Shown: true},
		{Name: ByFeet, Unit: "%", Shown: true}, {Name: BySpeed, Unit: "m/s", Firm: true}, {Name: ByRope, Unit: "cm"}},
	Aims: []motion.Aim{{Name: "farthest", Label: "farthest", Gain: ByLength}, {Name: "highest", Label: "highest", Gain: ByHeight}, {Name: "feet", Label: "lands on its feet", Gain: ByFeet}, {Name: "flips", Label: "most flips", Gain: ByFlips},
		{Name: "rope", Label: "clears the rope by most", Gain: ByRope, Needs: "rope"}, {Name: "forgiving", Label: "most forgiving of a child's hand", Gain: ByLength, Child: true},
		{Name: "ring", Label: "lands in a ring", Gain: ByLength, At: "The ring lies", Unit: "cm", First: 0.2}},
	Free:  []string{"hip_radius", "catch_radius", "last"},
	Sweep: []string{"last", "hip_radius"},
	Asked: &motion.Asked{Title: "the pleat's opening, its overhang, the nose",
		How: "Let the pleat lie a minute, then hold the toy sideways against an angle card. The overhang is how far the rear edge passes the hip fold; short of it is negative.",

		Fields: []motion.Field{{Name: "opening", Label: "Pleat opens to", Unit: "deg", Min: 0, Max: 170}, {Name: "overhang", Label: "Overhang", Unit: "mm", Min: -20, Max: 20}, {Name: "nose_up", Label: "Nose over the table", Unit: "mm", Min: 0, Max: 30}}},
	Schools: []motion.School{
		{ID: "D01", Question: "How should the last two folds be pressed?", A: "soft: a hard crease loses height", B: "firm: a firm crease gives the power",
			KnobsA: map[string]float64{"hip_radius": 1, "catch_radius": 1}, KnobsB: map[string]float64{"hip_radius": 0.3, "catch_radius": 0.3},
			Order: "Soft first: a crease that was pressed hard does not get soft again."},
		{ID: "D16", Question: "Where does the last fold go?", A: "a little off the middle of the rear flap", B: "back exactly to the former fold",
			KnobsA: map[string]float64{"last": 0.53}, KnobsB: map[string]float64{"last": 0.5},
			Order: "Either first; a fold that is only bent can be moved."},
	},
	Cautions: []motion.Caution{
		{ID: "SF04", At: "first", Title: "Before the first hop", Text: "Hop down a clear lane, and never at faces. Eyes well above the table, not at its edge."},
		{ID: "SF08", At: "kind", Kind: "table", Title: "At a table", Text: "Nobody climbs on chairs or tables, and nobody crowds round the landing place."},
		{ID: "SF08", At: "kind", Kind: "target", Title: "Contests at a table", Text: "Keep room round the table: no climbing, no crowding."},
		{ID: "SF08", At: "kind", Kind: "obstacle", Title: "Contests at a table", Text: "Keep room round the table: no climbing, no crowding."},
	},
	Accuracy:  "for a flat table and a straight body; sizes good to a factor of two until your own hops have been learnt from",
	Constants: Constants(),
	Limits:    Limits(),
	Fits: func(c motion.Conditions) error {
		if (c["rope_at"] > 0) != (c["rope"] > 0) {
			field := "rope"
			if c["rope_at"] == 0 {
				field = "rope_at"
			}
			return &given.Error{Field: field, Want: "given too: a rope has a place and a height"}
		}
		if (c["ring_at"] > 0) != (c["ring"] > 0) {
			field := "ring"
			if c["ring_at"] == 0 {
				field = "ring_at"
			}
			return &given.Error{Field: field, Want: "given too: a ring has a place and a size"}
		}
		return nil
	},
}

func triggerOptions() []motion.Option {
	var out []motion.Option
	for i, t := range triggers {
		out = append(out, motion.Option{Value: float64(i), Label: t.label, Says: t.says})
	}
	return out
}

func tableOptions() []motion.Option {
	var out []motion.Option
	for i, t := range tables {
		out = append(out, motion.Option{Value: float64(i), Label: t.label})
	}
	return out
}
