package hop

import (
	"context"
	"math"

	"tussock/internal/given"
	"tussock/internal/motion"
	"tussock/internal/motion/hop/leap"
	"tussock/internal/motion/toys"
	"tussock/internal/order"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Shapes are the hoppers of one pattern on one sheet. They may be shared.
type Shapes struct{ toys.Toys[Geometry] }

// NewShapes is for one pattern on one sheet.
func NewShapes(p *sequence.Pattern, s sheet.Sheet) *Shapes {
	return &Shapes{toys.Toys[Geometry]{Pattern: p, Sheet: s, Bent: pressOnly, Of: Of}}
}

// pressOnly are the knobs that the fold does not depend on.
var pressOnly = map[string]bool{KnobHipRadius: true, KnobCatchRadius: true, KnobOpening: true, KnobNoseUp: true, KnobTail: true, KnobGrain: true}

// Workbench sets and hops one pattern on one sheet. It may be used by several at once.
type Workbench struct {
	*Shapes
	Trigger    trigger
	Table      float64 // friction of the table
	Child      bool
	DropM      float64
	RopeAtM    float64
	RopeM      float64
	GapM       float64
	RingAtM    float64
	RingM      float64 // its radius
	Own        motion.Calibration
	conditions motion.Conditions
	fault      *fault          // in all that it does; nil for none
	ctx        context.Context //nolint:containedctx // that of the one question a copy answers
}

// asked is the workbench while somebody waits for an answer: it folds no more toys when
// the asker has gone.
func (w *Workbench) asked(ctx context.Context) *Workbench {
	q := *w
	q.ctx = ctx
	return &q
}

// trigger is how it is set off.
type trigger struct {
	label, says string
	push        float64 // of the finger, as friction
	palm        bool    // on the palm: its skin, not the table
	aheadMM     float64 // where the finger presses, ahead of the hip
}

// triggers are the ways to set it off. How much the finger pushes is a guess between 0.3
// and 0.5; sliding off is the usual one.
var triggers = []trigger{
	{"slide off the back", "Press the rear down, then draw the finger back over the edge until it slips off.", squirt, false, 4},
	{"press and rock", "Press the rear and roll the fingertip back; it comes free as the tip rolls over the edge.", 0.3, false, 3},
	{"thumb down and off", "Steady the nose with one hand, push the thumb down on the rear and off to the back.", 0.5, false, 5},
	{"on the palm", "Set it on the flat palm and press its rear with a finger of the other hand.", squirt, true, 4},
	{"tail to table", "Press the bent tail itself to the table and let it slip from under the nail.", 0.3, false, -1},
}

// tables are surfaces with their friction.
var tables = []struct {
	label string
	mu    float64
}{{"wood or laminate", 0.5}, {"glass, slick", 0.1}, {"cloth", 0.8}, {"paper or card", 0.35}}

// Tables that a remedy asks for.
const wood, cloth = 0, 2

// skin is the friction of paper on a palm.
const skin = 0.75

// Under gives it conditions and what was learnt.
func (s *Shapes) Under(c motion.Conditions, own motion.Calibration) motion.Trying {
	return &Workbench{Shapes: s, Trigger: triggers[int(c["trigger"])], Table: tables[int(c["surface"])].mu, Child: c["hand"] == 1, DropM: c["drop"],
		RopeAtM: c["rope_at"], RopeM: c["rope"], GapM: c["gap"], RingAtM: c["ring_at"], RingM: c["ring"], Own: own, conditions: c}
}

// toyAt is the toy at knob values, and its geometry. The error says what cannot be folded.
func (w *Workbench) toyAt(knobs map[string]float64) (Toy, Geometry, SpringSet, error) {
	set := SpringSetOf(w.Values(knobs))
	if w.ctx != nil && w.ctx.Err() != nil {
		return Toy{}, Geometry{}, set, w.ctx.Err()
	}
	g, err := w.Toy(knobs)
	if err != nil {
		return Toy{}, g, set, err
	}
	if w.fault != nil {
		w.fault.put(&g, &set)
	}
	return w.toyOf(g, set), g, set, nil
}

// toyOf is the toy of a geometry.
func (w *Workbench) toyOf(g Geometry, set SpringSet) Toy {
	t := g.toy(set)
	if w.fault != nil {
		w.fault.weaken(&t)
	}
	return t
}

// trial is a hop just as meant.
func (w *Workbench) trial(set SpringSet) Trial {
	mu := w.Table
	if w.Trigger.palm {
		mu = skin
	}
	t := Trial{Friction: mu + w.Trigger.push, Energy: 1, DropM: w.DropM, RopeAtM: w.RopeAtM}
	t.Finger = leap.FingerShare + tailSaves*math.Min(1, set.TailDeg/tailFullDeg)
	if w.Own.Factor > 0 {
		t.Energy = w.Own.Factor
	}
	if f := w.fault; f != nil {
		if f.energy > 0 {
			t.Energy *= f.energy
		}
		if f.finger > 0 {
			t.Finger = f.finger
		}
	}
	return t
}

// doubt is how far the energy may be out before anything was learnt: eight of ten within
// a factor of two. learntFloor is what stays uncertain however much was learnt.
const doubt, learntFloor = 0.54, 0.12

// hand is what a hand misses from one time to the next: standard deviations. The folds are
// those of the folding tolerances of all toys; the rest are estimates, which only widen
// or narrow the bands.
type hand struct {
	foldM      float64 // where a fold comes to lie, m
	press      float64 // how far it is pressed down, rad
	finger     float64 // share of the energy that the finger leaves, a part
	radius     float64 // radius of a crease, of its logarithm
	openingDeg float64 // opening told from feel, degrees
}

var (
	adult = hand{0.3 * mm, 0.04, 0.07, 0.15, 6}
	child = hand{0.8 * mm, 0.12, 0.15, 0.35, 12}
)

// tableScatter is how much friction differs from place to place: standard deviation of
// its logarithm, an estimate.
const tableScatter = 0.1

// hopped is one toy and trial out of a scatter.
type hopped struct {
	toy   Toy
	trial Trial
}

// The numbers that a hop is drawn from, all by the normal law, those that matter most first.
const (
	nEnergy = iota
	nRadius
	nFriction
	nFinger
	nPress
	nFold
	nRear
	numbers
)

// scatter draws hops: what hands miss in folding and pressing, and, with constants, what
// the model does not know. The same numbers are always the same hops, so that set-ups can
// be compared.
func (w *Workbench) scatter(g Geometry, set SpringSet, by motion.Sample, constants bool) []hopped {
	hand := adult
	if w.Child {
		hand = child
	}
	out := make([]hopped, 0, by.N)
	for i := range by.N {
		u := motion.Numbers(by.From+i, numbers)
		z := func(k int) float64 { return motion.Normal(u[k]) }
		// How hard the folds were pressed is known no better than by feel.
		felt := set
		felt.HipRadiusMM *= math.Exp(hand.radius * z(nRadius))
		felt.CatchRadiusMM *= math.Exp(hand.radius * z(nRadius))
		if felt.OpeningDeg > 0 {
			felt.OpeningDeg = math.Max(5, felt.OpeningDeg+hand.openingDeg*z(nRadius))
		}
		t := w.toyOf(g, felt)
		q := hopped{t, w.trial(set)}
		q.toy.MiddleM = math.Max(0.3*t.MiddleM, t.MiddleM+hand.foldM*z(nFold))
		q.toy.FootM = math.Max(0.3*t.FootM, t.FootM-hand.foldM*z(nFold)+hand.foldM*z(nRear))
		q.trial.Pressed = t.Pressed() + math.Abs(hand.press*z(nPress))
		q.trial.Friction *= math.Exp(tableScatter * z(nFriction))
		q.trial.Finger = clamp(q.trial.Finger*(1+hand.finger*z(nFinger)), 0.4, 0.97)
		if constants {
			sd := doubt
			if w.Own.Spread > 0 {
				sd = w.Own.Spread
			}
			q.trial.Energy *= math.Exp(sd * z(nEnergy))
		}
		out = append(out, q)
	}
	return out
}

// What a hopper is measured by.
const (
	ByLength = "length"
	ByHeight = "height"
	ByFlips  = "half flips"
	ByFeet   = "lands on its feet"
	BySpeed  = "take-off speed"
	ByRope   = "over the rope"
	bySpread = "spread of the length"
	byWorst  = "worst length"
)

// Measure folds, sets and hops at lever positions: middles over scattered hops.
func (w *Workbench) Measure(levers []motion.Lever) motion.Measure {
	return func(ctx context.Context, at []float64, by motion.Sample) (motion.Measures, error) {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		knobs, _ := motion.Split(levers, at)
		_, g, set, err := w.toyAt(knobs)
		if err != nil {
			return nil, err
		}
		hops := w.scatter(g, set, by, true)
		n := len(hops)
		long, high, flips, feet, speed, over := make([]float64, n), make([]float64, n), make([]float64, n), make([]float64, n), make([]float64, n), make([]float64, n)
		for i, a := range leaps(hops, 0) {
			long[i], high[i], flips[i], feet[i], speed[i] = hops[i].toy.Along(a), a.HeightM, a.HalfFlips, 100*a.FeetShare, math.Hypot(a.Vx, a.Vy)
			over[i] = -w.RopeM
			if !math.IsNaN(a.AtRopeM) {
				over[i] = a.AtRopeM - w.RopeM
			}
		}
		out := motion.Measures{ByHeight: order.Median(high), ByFlips: order.Median(flips), ByFeet: order.Median(feet), BySpeed: order.Median(speed)}
		if w.RopeAtM > 0 {
			out[ByRope] = order.Median(over)
		}
		r := motion.RangeOf(long)
		out[ByLength], out[byWorst], out[bySpread] = r.Middle, r.Lo, (r.Hi-r.Lo)/2.563
		return out, nil
	}
}

// Levers are the knobs; the trial is not tuned.
func (w *Workbench) Levers(knobs map[string]float64) []motion.Lever {
	out := w.Toys.Levers(knobs, nil)
	kept := out[:0]
	for _, l := range out {
		// What the paper is, and what was measured, is not for a search to choose.
		if l.Name != KnobOpening && l.Name != KnobGrain {
			kept = append(kept, l)
		}
	}
	return append(kept, way.Levers(w.conditions)...)
}

// Goal scores measures for an aim. at is how far away a ring lies, m; of two that come as
// near to it, the one that scatters less wins.
func (w *Workbench) Goal(aim string, at float64) motion.Goal {
	return func(m motion.Measures) float64 {
		switch aim {
		case "highest":
			return m[ByHeight]
		case "feet":
			// It must still leave the table by its own height or so.
			return m[ByFeet]/100 + math.Min(m[ByHeight], 0.05)
		case "flips":
			return m[ByFlips]
		case "rope":
			return m[ByRope]
		case "ring":
			return -math.Abs(m[ByLength]-at) - m[bySpread]/4
		case "forgiving":
			return m[byWorst] + 0.2*m[ByLength]
		}
		return m[ByLength]
	}
}

// knobOf is the knob of the pattern that moves a fold of the pleat: the one that this
// step alone uses, or the first that it uses.
func (w *Workbench) knobOf(which int) (sequence.Knob, bool) {
	step := springStep(w.Pattern, which)
	best, found := sequence.Knob{}, false
	for _, k := range w.Pattern.Knobs {
		if k.Plain || k.Implied || k.Kind != sequence.SetUp {
			continue
		}
		for _, s := range k.Steps {
			if s == step && (!found || len(k.Steps) < len(best.Steps)) {
				best, found = k, true
			}
		}
	}
	return best, found
}

// toOverhang is the change of the last fold after which the foot ends so far behind the
// hip, mm; ok is false when no knob reaches it.
func (w *Workbench) toOverhang(knobs map[string]float64, wantMM float64) (motion.Change, bool) {
	k, found := w.knobOf(1)
	if !found {
		return motion.Change{}, false
	}
	at := func(v float64) (float64, bool) {
		g, err := w.Toy(toys.With(knobs, motion.Change{Knob: k.Name, To: v}))
		if w.fault != nil {
			g.FootMM += w.fault.overMM
		}
		return g.FootMM - g.MiddleMM, err == nil
	}
	from := w.Value(knobs, k.Name)
	v := from
	o, ok := at(v)
	for range 6 {
		h := (k.Max - k.Min) / 40
		if v+h > k.Max {
			h = -h
		}
		p, can := at(v + h)
		if !ok || !can || p == o {
			return motion.Change{}, false
		}
		v = clamp(v+(wantMM-o)*h/(p-o), k.Min, k.Max)
		if o, ok = at(v); ok && math.Abs(o-wantMM) < 0.02 {
			break
		}
	}
	c := motion.Change{Knob: k.Name, Label: k.Label, Unit: k.Unit, From: from, To: v}
	return c, ok && math.Abs(o-wantMM) < 0.1
}

// moved says how far the last fold itself moves when the overhang changes: half as much.
func moved(overhangMM, wantMM float64) string {
	return say.MM(math.Abs(overhangMM-wantMM)/2, 1)
}

// Take puts what was measured of the pleat into the knobs.
func (w *Workbench) Take(knobs, measured map[string]float64) error {
	if v, ok := measured["opening"]; ok {
		knobs[KnobOpening] = v
	}
	if v, ok := measured["nose_up"]; ok {
		knobs[KnobNoseUp] = v
	}
	if v, ok := measured["overhang"]; ok {
		c, can := w.toOverhang(knobs, v)
		if !can {
			return &given.Error{Field: "overhang", Value: v, Want: "within the reach of the knob for the last fold"}
		}
		knobs[c.Knob] = c.To
	}
	return nil
}

// Told: hoppers tell nothing beside findings.
func (w *Workbench) Told(context.Context, map[string]float64, []motion.Noted) (*motion.Drawing, error) {
	return nil, nil
}
