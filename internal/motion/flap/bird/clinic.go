package bird

import (
	"context"
	"fmt"
	"math"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/flap/hump"
	"tussock/internal/motion/toys"
	"tussock/internal/say"
)

// The clinic: from what was seen of pulls to the smallest change that should help.

// What can be noted.
const (
	flapped = "flapped"
	opens   = "only opened"
	locked  = "locked"
	stuck   = "tail would not pull"
	oneWing = "one wing only"
	limp    = "wings hung limp"
	tore    = "tore"
	other   = "wings went up"
)

// symptoms call for a cure, the one that must go first where several were seen as often.
var symptoms = []string{tore, stuck, locked, opens, oneWing, limp}

// Examine finds what to change after pulls at knob values.
func (w *Workbench) Examine(ctx context.Context, knobs map[string]float64, log []motion.Noted) (motion.Finding, error) {
	out, _, sick := motion.Look(log, symptoms, way.Words.One, way.Words.Many)
	s, err := w.at(ctx, knobs)
	if err != nil {
		return out, err
	}
	e := &examination{toys.Examination{Try: w, Knobs: knobs, Log: log, Out: &out}, w, s}
	if len(log) < motion.Enough || !sick && !toys.Less(&out, motion.Values(log, Swing), w.spread(s).swing) {
		return out, ctx.Err()
	}
	out.Confidence = motion.Possible
	switch out.Symptom {
	case tore:
		e.tears()
	case stuck:
		e.stuck()
	case locked:
		e.locks()
	case oneWing:
		e.uneven()
	case limp:
		e.limp()
	default:
		e.opens()
	}
	out.Weigh()
	return out, ctx.Err()
}

type examination struct {
	toys.Examination
	w *Workbench
	s set
}

func (e *examination) flatten() {
	s := e.s
	to := math.Max(2*geom.Deg(s.shut)+2, geom.Deg(s.rest)) // half of what it is
	if 2*geom.Deg(s.rest)-to < 1 {
		return
	}
	c := e.w.Change(e.Knobs, KnobRest, to-s.values[KnobRest])
	e.Propose(motion.Remedy{Changes: []motion.Change{c}, Do: fmt.Sprintf("Flatten the hump from %s° to %s°", say.Decimal(c.From, 0), say.Decimal(c.To, 0)), Where: "press neck and tail together once, at the hump.", School: "the hump",
		Why:  fmt.Sprintf("The wings turn %s° for each degree of the hump there, and more the nearer it is to shut.", say.Decimal(e.w.slope(s), 2)),
		Then: "The same pull should swing the wings further.", Against: "If the start gets too hard, halve the change."})
}

func (e *examination) curve() {
	c := e.w.Change(e.Knobs, KnobCurve, math.Max(2, 4-e.s.values[KnobCurve]))
	e.Propose(motion.Remedy{Changes: []motion.Change{c}, Do: fmt.Sprintf("Stroke the curve of both wings from %s to %s", say.MM(c.From, 1), say.MM(c.To, 1)), Where: "over a finger, at the root; do not crease.", School: "soft wings",
		Why:  "A straight fold across the ridge is locked; a curve lets the root follow the hump.",
		Then: "It should go on beating where it locked.", Against: "If it locks at the same pull, neck or tail hold it."})
}

func (e *examination) loosen() {
	var c []motion.Change
	for _, k := range []string{KnobNeck, KnobTail} {
		c = append(c, e.w.Change(e.Knobs, k, looserDeg))
	}
	e.Propose(motion.Remedy{Changes: c, Do: fmt.Sprintf("Loosen neck and tail by %s° each", say.Decimal(looserDeg, 0)), Where: "open each at its base a few times, and close it again.", School: "the points",
		Why:  fmt.Sprintf("They hold the hump at %s°.", say.Decimal(2*geom.Deg(e.s.ceiling), 0)),
		Then: "The tail should come further.", Against: say.Prose("If not, set its fold 2 to 4 mm lower on the next one.")})
}

func (e *examination) locks() {
	s := e.s
	at := s.pullFor(s.ceiling, e.w.part()) * 1e3
	e.Out.Title = fmt.Sprintf("It locks after %s: %s.", say.MM(at, 0), holds(s.binds))
	if at < e.w.PullM*1e3 {
		e.Out.Confidence = motion.Likely
	}
	curved, folds := 0.6, 0.6
	if s.binds == byWing {
		curved = 2
	}
	if s.binds == byNeck || s.binds == byTail {
		folds = 2
	}
	e.Cause("The roots of the wings are too straight", fmt.Sprintf("A root with a curve of %s turns by 4 atan(2 c / w) at most.", say.MM(s.CurveM*1e3, 1)), curved)
	e.Cause("Neck or tail hold the hump", fmt.Sprintf("It opens to %s°, no further.", say.Decimal(2*geom.Deg(s.ceiling), 0)), folds)
	if s.binds == byNeck || s.binds == byTail {
		e.loosen()
		e.curve()
		return
	}
	e.curve()
	e.loosen()
}

func (e *examination) stuck() {
	e.Out.Title = "The tail will not pull. Loosen neck and tail at their base."
	e.Cause("The folds of neck and tail are tight", fmt.Sprintf("Set to let the hump open to %s° and %s°.", say.Decimal(e.s.values[KnobNeck], 0), say.Decimal(e.s.values[KnobTail], 0)), 2-math.Min(e.s.values[KnobNeck], e.s.values[KnobTail])/60)
	e.Cause("The hump is pressed shut", fmt.Sprintf("At %s° a wing turns %s° for each degree: much force at first.", say.Decimal(2*geom.Deg(e.s.rest), 0), say.Decimal(e.w.slope(e.s), 1)), 3/(1+geom.Deg(e.s.rest)))
	e.loosen()
	c := e.w.Change(e.Knobs, KnobRest, 8)
	e.Propose(motion.Remedy{Changes: []motion.Change{c}, Do: fmt.Sprintf("Open the hump to %s° before you pull", say.Decimal(c.To, 0)), Where: "spread neck and tail once by hand.", School: "the hump", Why: "Nearly shut it wants the most force.", Then: "It should start softly.", Against: "If the wings then hardly move, close it half the way."})
}

func (e *examination) opens() {
	s := e.s
	e.Out.Title = "It opens, and the wings hardly move. Flatten the hump."
	e.Cause("The hump stands open already", fmt.Sprintf("cos λ = tan(45° − φ/2): from %s° a wing turns only %s° for each degree.", say.Decimal(2*geom.Deg(s.rest), 0), say.Decimal(e.w.slope(s), 2)), geom.Deg(s.rest)/6)
	e.Cause("The wings are creased hard at their root", "A hard straight crease takes the turn up by bending.", 1)
	e.Cause("Held too far from the hump", fmt.Sprintf("The chord between the hands grows by less for each degree the nearer they are; held at %s.", say.MM(s.HoldM*1e3, 0)), s.HoldM/(s.RidgeMM*mm))
	e.flatten()
	e.curve()
	c := e.w.Change(e.Knobs, KnobHold, -6)
	e.Propose(motion.Remedy{Changes: []motion.Change{c}, Do: fmt.Sprintf("Hold it %s nearer to the hump", say.MM(c.From-c.To, 0)), Where: "on the breast, both layers.", School: "the hold", Why: "The same pull then opens it further.", Then: "More swing, more force.", Against: "If it tears there, hold lower again."})
}

func (e *examination) uneven() {
	e.Out.Title = "One wing beats. Make the other's root as soft."
	e.Cause("One root is creased harder, or straighter", "Both roots turn by the same angle only where both can bend.", 2)
	e.Cause("The pull goes to one side", "The law holds for a pull along the bird.", 0.7)
	e.curve()
	e.Propose(motion.Remedy{Changes: []motion.Change{}, Do: "Pull straight back, both hands in the plane of the bird", Where: "watch from the front while you pull.", School: "the pull", Why: "A pull to a side opens one half.", Then: "Both wings should beat alike.", Against: "If the same wing lags, its root is the cause."})
}

func (e *examination) limp() {
	s := e.s
	droop := hump.Droop(s.stiffness, s.weight, s.WingMM*mm) * 1e3
	e.Out.Title = "The wings hang. Curve them, or make them shorter."
	e.Cause("Wings too long for the paper", fmt.Sprintf("m g l⁴ / 8 B: %s by their own weight.", say.MM(droop, 1)), droop/floppyMM)
	e.Cause("Flat wings", fmt.Sprintf("A curve across a strip stiffens it many times over; theirs is %s deep.", say.MM(s.CurveM*1e3, 1)), 1)
	deeper := e.w.Change(e.Knobs, KnobCurve, math.Max(2, 4-s.values[KnobCurve]))
	e.Propose(motion.Remedy{Changes: []motion.Change{deeper}, Do: fmt.Sprintf("Stroke the curve of both wings from %s to %s", say.MM(deeper.From, 1), say.MM(deeper.To, 1)), Where: "over a finger, from root to tip; do not crease.", School: "soft wings",
		Why: "A curved strip hangs far less than a flat one.", Then: "The wings should stand out.", Against: "If they hang as before, the paper is too limp: make them shorter."})
	if c, mm, ok := e.shorter(); ok {
		e.Propose(motion.Remedy{Changes: []motion.Change{c}, Do: fmt.Sprintf("Set the wing line so that the wing is %s shorter", say.MM(s.WingMM-mm, 0)), Where: "on the next sheet.", School: "the wings",
			Why: fmt.Sprintf("It then hangs by %s %% less.", say.Decimal(100*(1-math.Pow(mm/s.WingMM, 4)), 0)), Then: "Firmer wings, a smaller travel.", Against: "If they hang as before, take 80 g/m² paper."})
	}
}

// shorter is the knob of the pattern that makes a wing shorter by about a sixth.
func (e *examination) shorter() (motion.Change, float64, bool) {
	best, left := motion.Change{}, e.s.WingMM
	for _, l := range e.w.Toys.Levers(e.Knobs, nil) {
		if e.w.Bent[l.Name] || !l.Hard {
			continue
		}
		for _, sign := range []float64{-1, 1} {
			c := e.w.Change(e.Knobs, l.Name, sign*(l.Max-l.Min)/4)
			t, err := e.w.at(context.Background(), toys.With(e.Knobs, c))
			if err == nil && t.WingMM < left-0.5 {
				best, left = c, t.WingMM
			}
		}
	}
	return best, left, best.Knob != ""
}

func (e *examination) tears() {
	s := e.s
	e.Out.Title = "It tears. Hold it lower, and pull less."
	e.Cause("Held too near to the hump", fmt.Sprintf("Force × arm is the same: at %s it takes %s N.", say.MM(s.HoldM*1e3, 0), say.Decimal(s.force(math.Max(s.ceiling*0.9, s.rest+1e-3)), 2)), 2-s.HoldM/(s.RidgeMM*mm))
	e.Cause("Pulled past where it binds", fmt.Sprintf("It binds after %s; what comes on top stretches paper.", say.MM(s.pullFor(s.ceiling, e.w.part())*1e3, 0)), math.Max(0.2, e.w.PullM/s.pullFor(s.ceiling, e.w.part())))
	c := e.w.Change(e.Knobs, KnobHold, math.Min(8, s.RidgeMM-s.HoldM*1e3))
	if c.To-c.From > 0.5 {
		e.Propose(motion.Remedy{Changes: []motion.Change{c}, Do: fmt.Sprintf("Hold it %s from the hump", say.MM(c.To, 0)), Where: "with the whole fingertip, and the tail at its base.", School: "the hold", Why: "A longer arm needs less force.", Then: "Less swing for each millimetre, and no tear.", Against: "If it tears on, mend it from inside with a strip of tape."})
	}
	e.loosen()
}
