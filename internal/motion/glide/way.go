package glide

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"math/rand/v2"

	"tussock/internal/draw"
	"tussock/internal/geom"
	"tussock/internal/given"
	"tussock/internal/motion"
	"tussock/internal/motion/glide/craft"
	"tussock/internal/motion/toys"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sheet"

	"tussock/internal/motion/glide/flight"
)

// Readings of a throw.
const (
	Distance = "distance"
	Time     = "time"
	Aside    = "aside"
)

// Conditions that can be tuned with the knobs.
const (
	SpeedOfThrow = "throw.speed"
	AngleOfThrow = "throw.angle"
)

// Way is all that gliding brings.
func Way() *toys.Way {
	return &toys.Way{Way: way, Language: craft.Language, Show: show, Watch: fromBehind, Card: &toys.Card{Name: "angle card", Lay: craft.AngleCard},
		On:   func(p *sequence.Pattern, s sheet.Sheet) motion.Bench { return NewShapes(p, s) },
		Data: []any{FlightDrawing{}, TurnTold{}}, Invent: invent,
		Paper: sheet.Bands{
			Weight:    sheet.Band{GoodMin: 55, GoodMax: 100, FairMin: 40, FairMax: 130, Low: "so light a wing is bent by its own wind", High: "so heavy a glider sinks fast and needs a hard throw"},
			Stiffness: sheet.Band{GoodMin: 1.2, GoodMax: 9, FairMin: 0.6, FairMax: 20, Low: "wings so limp flutter", High: "so stiff a paper cracks along its creases"},
		}}
}

// show is a glider from behind, right and above, and straight from behind.
func show(r *sequence.Replay) (toys.Shown, bool) {
	pose := craft.Stand(r)
	g, ok := craft.Measure(r, pose)
	if !ok {
		return toys.Shown{}, false
	}
	s := toys.Shown{Pose: pose, LengthMM: g.LengthMM, SpanMM: g.SpanMM,
		Sizes:       []toys.Size{{Label: "Length", Value: g.LengthMM, Unit: "mm"}, {Label: "Keel depth", Value: g.KeelDepthMM, Unit: "mm"}, {Label: "Balance above keel", Value: g.CoMUpMM, Unit: "mm"}},
		Round:       draw.Behind(g.Frame.Chord, g.Frame.Right, 35, 30),
		Second:      draw.Behind(g.Frame.Chord, g.Frame.Right, 0, 0),
		SecondTitle: "Straight from behind", SecondSays: "both wings level"}
	switch v := math.Round(10*g.VDeg) / 10; {
	case v > 0:
		s.SecondSays = fmt.Sprintf("each wing %s° up", sheet.Number(v))
	case v < 0:
		s.SecondSays = fmt.Sprintf("each wing %s° down", sheet.Number(-v))
	}
	return s, true
}

// fromBehind looks at steps in the round from behind and a little above: there one sees by how
// much each wing leaves the keel.
func fromBehind(s draw.Shown) (draw.Camera, bool) {
	g, ok := craft.Measure(s.Replay, craft.Stand(s.Replay))
	if !ok {
		return draw.Camera{}, false
	}
	return draw.Behind(g.Frame.Chord, g.Frame.Right, 14, 18), true
}

// invent makes up a throw for demo data: distances scatter, now and then one goes badly
// wrong, and the time in the air follows from how fast it goes.
func invent(r *rand.Rand, m toys.Meant) (motion.Noted, string) {
	d, note := m.Mean+m.SD*r.NormFloat64(), ""
	if r.Float64() < 0.06 {
		d, note = d*0.45, "Slipped out of the hand"
	}
	d = math.Round(math.Max(d, 0.8)*10) / 10
	n := motion.Noted{Read: map[string]float64{Distance: d, "from": m.More["from"]}, Chips: m.Chip(r)}
	if m.More["scatter aside"] > 0 && r.Float64() < 0.5 {
		n.Read[Aside] = math.Round((m.More[Aside]+m.More["scatter aside"]*r.NormFloat64())*10) / 10
	}
	if r.Float64() < 0.4 {
		n.Read[Time] = math.Round(d/(cmp.Or(m.More["pace"], 4)*(0.95+0.1*r.Float64()))*10) / 10
	}
	return n, note
}

var way = motion.Way{
	Name: "fly", Predicts: true, Headline: "com",
	Words: motion.Words{One: "throw", Many: "throws", Do: "Throw it", Log: "Log the throw", Who: "Thrower", Motion: "Flight", Busy: "Throwing it…",
		None:       "No throws yet. Throw it, pace out how far it went, and log the distance.",
		Conditions: "The throw and the hall", Last: "Last bends",
		Noting: "Tap what the throw did when you log it: dived, stalled, turned left…",
		Better: "To make it go farther or stay up longer, search for an aim on the mat.",
		Unlike: "It has no wings that are set, so it is taken as the flat plate that it is folded.",
		Title:  "Fly", Made: "Made to fly.", ForShow: "Made to be looked at; its flight is predicted all the same.", Untried: "folded, not thrown yet", Tried: "has been thrown already"},
	Conditions: []motion.Condition{
		{Name: SpeedOfThrow, Label: "Speed of the throw", Unit: "m/s", Group: "The throw", Min: 0.5, Max: 30, Step: 0.5, Least: 2, Most: 14, Own: "as fast as it glides, and a little more", Says: "A gentle throw is 4 to 6 m/s, a hard one 10 to 15."},
		{Name: AngleOfThrow, Label: "Angle of the throw", Unit: "deg", Group: "The throw", Default: -5, Min: -60, Max: 85, Step: 5, Least: -20, Most: 40, Says: "Up is positive. A little down is the way it glides."},
		{Name: "throw.height", Label: "Height of the hand", Unit: "m", Group: "The throw", Default: 1.6, Min: 0.1, Max: 20},
		{Name: "throw.bank", Label: "Bank, right", Unit: "deg", Group: "The throw", Min: -90, Max: 90},
		{Name: "hand", Label: "Whose hand", Group: "The throw", Max: 1, Options: []motion.Option{{Value: 0, Label: "an adult's"}, {Value: 1, Label: "a child's"}}},
		{Name: "hall.length", Label: "Wall ahead", Unit: "m", Group: "The hall", Min: 0, Max: 500, None: true},
		{Name: "hall.width", Label: "Width of the hall", Unit: "m", Group: "The hall", Min: 0, Max: 200, None: true},
		{Name: "hall.ceiling", Label: "Ceiling", Unit: "m", Group: "The hall", Min: 0, Max: 60, None: true},
		{Name: "hall.rope_at", Label: "Rope ahead", Unit: "m", Group: "The hall", Min: 0, Max: 200, None: true},
		{Name: "hall.rope", Label: "Height of the rope", Unit: "m", Group: "The hall", Min: 0, Max: 20, None: true},
		{Name: "softening", Label: "Bent edges give way at speed (a guess)", Group: "The hall", Max: 1, Check: true},
	},
	Records: []motion.Record{
		{ID: Distance, Label: "Distance", Unit: "m", Max: 200},
		{ID: Time, Label: "Time in the air", Unit: "s", Max: 120, Watch: true},
		{ID: Aside, Label: "Landed aside of the line aimed at", Unit: "m", Min: -100, Max: 100, Sides: []string{"left", "right"}},
		{ID: "from", Label: "Throw height", Unit: "m", Max: 20, Kept: true},
	},
	Kinds: []motion.Kind{{Name: "throw", Label: "Throw", Asks: "How far did it go?", Record: Distance, Others: []string{Time, Aside, "from"}}},
	Chips: []motion.Chip{{Name: "glided", Modes: []string{string(flight.Glide), string(flight.Swing)}}, {Name: "dived", Bad: true, Modes: []string{string(flight.Dive)}}, {Name: "stalled", Bad: true, Modes: []string{string(flight.Stalling), string(flight.Swing)}}, {Name: "turned left", Bad: true}, {Name: "turned right", Bad: true},
		{Name: "rolled", Bad: true, Modes: []string{string(flight.Roll)}}, {Name: "looped", Bad: true, Modes: []string{string(flight.Loop), string(flight.Tumble)}}, {Name: "hit something"}},
	Measures: []motion.Gauge{{Name: ByDistance, Unit: "m", Shown: true}, {Name: ByTime, Unit: "s", Shown: true}, {Name: BySpeed, Unit: "m/s", Firm: true}, {Name: ByRatio, Firm: true},
		{Name: ByDrift, Unit: "m", Shown: true, Less: true}, {Name: ByMargin, Unit: "%", Firm: true}},
	Aims: []motion.Aim{{Name: "farthest", Label: "farthest", Gain: ByDistance}, {Name: "longest", Label: "longest in the air", Gain: ByTime}, {Name: "straightest", Label: "straightest", Gain: ByDrift},
		{Name: "forgiving", Label: "most forgiving of a child's folding", Gain: ByDistance, Child: true}, {Name: "ring", Label: "lands in a ring", Gain: ByDistance, At: "The ring lies", Unit: "m", First: 6}},
	Free:  []string{"curl", "wing", AngleOfThrow},
	Sweep: []string{"curl"},
	Asked: &motion.Asked{Title: "the V and the tail edges, left and right",
		How:      "Hold the toy level by its keel and look at it from behind, against the card. Left and right are those of somebody who looks the way it flies.",
		CardName: "angle card",
		Fields: []motion.Field{{Name: "left_v", Label: "Left wing up", Unit: "deg", Min: -60, Max: 80}, {Name: "right_v", Label: "Right wing up", Unit: "deg", Min: -60, Max: 80},
			{Name: "left_lip", Label: "Left tail edge up", Unit: "mm", Min: -10, Max: 15}, {Name: "right_lip", Label: "Right tail edge up", Unit: "mm", Min: -10, Max: 15}}},
	Schools: []motion.School{},
	Cautions: []motion.Caution{
		{ID: "SF03", At: "set", Title: "Curling round a pencil", Text: "Hold it still, its point away from faces."},
		{ID: "SF04", At: "first", Title: "Before the first throw", Text: "Throw down a clear lane, and never at faces. Children wait behind the thrower."},
	},
	Fits: func(c motion.Conditions) error {
		if top := c["hall.ceiling"]; top > 0 && c["throw.height"] >= top {
			return &given.Error{Field: "throw.height", Value: c["throw.height"], Want: "below the ceiling, which is at " + say.M(top, 1)}
		}
		return nil
	},
	Accuracy:  "for rigid wings in still air",
	Constants: Constants(),
	Limits:    Limits(),
}

// Under gives it conditions. Gliders learn nothing from trials yet.
func (s *Shapes) Under(c motion.Conditions, _ motion.Calibration) motion.Trying {
	hand := "adult"
	if c["hand"] == 1 {
		hand = "child"
	}
	return &Workbench{Shapes: s, Scatter: flight.ScatterOf(hand), Softening: c["softening"] == 1, conditions: c,
		Throw: flight.Throw{SpeedMS: c[SpeedOfThrow], AngleDeg: c[AngleOfThrow], HeightM: c["throw.height"], BankDeg: c["throw.bank"]},
		Room:  flight.Room{LengthM: c["hall.length"], WidthM: c["hall.width"], CeilingM: c["hall.ceiling"], RopeAtM: c["hall.rope_at"], RopeM: c["hall.rope"]}}
}

// TurnTold is what the trials tell of left and right.
type TurnTold struct {
	Turn    []TurnCause `json:"turn"` // what would explain the turn that was seen, likeliest first
	TurnDeg float64     `json:"turn_deg"`
	TurnN   int         `json:"turn_n"` // throws whose offset was measured; 0: only the side was noted
}

// Told traces a turn that was seen back to its causes.
func (w *Workbench) Told(ctx context.Context, knobs map[string]float64, log []motion.Noted) (*motion.Drawing, error) {
	v := &TurnTold{Turn: []TurnCause{}}
	v.TurnDeg, v.TurnN = SeenTurn(log)
	var err error
	if v.TurnDeg != 0 {
		v.Turn, err = w.asked(ctx).TurnCauses(knobs, v.TurnDeg)
	}
	return &motion.Drawing{Kind: "turn", Data: v}, err
}

// Take replaces the nominal bends by what was measured, side by side.
func (w *Workbench) Take(knobs, measured map[string]float64) error {
	if err := w.takePair(knobs, measured, "left_v", "right_v", "wing", "wing_uneven", func(v float64) (float64, bool) { return v, true }, func(mean float64) float64 { return 90 - mean }); err != nil {
		return err
	}
	depth := w.Value(knobs, "curl_depth")
	angle := func(mm float64) (float64, bool) {
		return geom.Deg(math.Asin(min(max(mm/depth, -1), 1))), math.Abs(mm) < depth
	}
	return w.takePair(knobs, measured, "left_lip", "right_lip", "curl", "curl_uneven", angle, func(mean float64) float64 { return mean })
}

// takePair sets a knob to the mean of both sides and another to what the right has more.
func (w *Workbench) takePair(knobs, measured map[string]float64, left, right, mean, apart string, angle func(float64) (float64, bool), knob func(float64) float64) error {
	l, hasL := measured[left]
	r, hasR := measured[right]
	if !hasL && !hasR {
		return nil
	}
	for _, n := range []string{mean, apart} {
		if w.Pattern.KnobIndex(n) < 0 {
			return &given.Error{Field: left, Value: l, Want: "left out: " + w.Pattern.Title + " has no wings that are set so"}
		}
	}
	if !hasL {
		return &given.Error{Field: left, Want: "measured too: both sides are needed"}
	}
	if !hasR {
		return &given.Error{Field: right, Want: "measured too: both sides are needed"}
	}
	a, okA := angle(l)
	b, okB := angle(r)
	for _, q := range []struct {
		name string
		v    float64
		ok   bool
	}{{left, l, okA}, {right, r, okB}} {
		if !q.ok {
			return &given.Error{Field: q.name, Value: q.v, Want: fmt.Sprintf("under the depth of the edge, %s", say.MM(w.Value(knobs, "curl_depth"), 1))}
		}
	}
	knobs[mean], knobs[apart] = knob((a+b)/2), b-a
	return nil
}
