package hop

import (
	"context"
	"fmt"
	"math"
	"slices"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/blame"
	"tussock/internal/motion/toys"
	"tussock/internal/order"
	"tussock/internal/say"
)

// The clinic: from what was seen of hops to the smallest change that should help.

// symptoms call for a cure, the one that must go first where several were seen as often.
var symptoms = []string{caught, footUnder, shut, hardly, straightUp, tooMany, tired}

// Examine finds what to change after hops at knob values.
func (w *Workbench) Examine(ctx context.Context, knobs map[string]float64, log []motion.Noted) (motion.Finding, error) {
	out, count, sick := motion.Look(log, symptoms, "hop", "hops")
	w = w.asked(ctx)
	t, g, set, err := w.toyAt(knobs)
	if err != nil {
		return out, err
	}
	e := &examination{w: w, knobs: knobs, toy: t, g: g, set: set, log: log, out: &out}
	if against := e.wrongWay(count); against != "" {
		e.wrong(against, count[against])
		out.Weigh()
		return out, nil
	}
	if out.Wants > 0 || !sick && len(motion.Values(log, Length)) < motion.Enough {
		return out, nil
	}
	if err := e.weigh(); err != nil {
		return out, err
	}
	if !sick {
		_, s, err := w.outlook(knobs)
		if err != nil {
			return out, err
		}
		said, read := s.length.Unsided(), motion.Values(log, Length)
		d := order.Median(read)
		expected := slices.ContainsFunc(e.verdicts, func(v blame.Verdict) bool { return v.Cause == asSet && v.Share >= asExpected })
		// Nobody wants cured what goes farther; that log and prediction part is said elsewhere.
		if d >= said.Middle || said.Holds(d) && expected {
			return out, nil
		}
		out.Unlike(read, said)
		// All as it is set is what the log speaks against.
		e.verdicts = slices.DeleteFunc(e.verdicts, func(v blame.Verdict) bool { return v.Cause == asSet })
	}
	e.treat()
	if e.verdicts[0].Cause == asSet && slices.Contains([]string{footUnder, tooMany, tired}, out.Symptom) {
		out.Confidence = motion.Possible // the model knows nothing nearer
		out.Weigh()
		return out, ctx.Err()
	}
	e.told()
	return out, ctx.Err()
}

// asExpected is the share of the belief that all is as it is set from which, with no fault
// noted, there is nothing to cure.
const asExpected = 0.5

// treat finds what to do about the likeliest cause, for the toy as it then is.
func (e *examination) treat() {
	first := e.verdicts[0]
	all := faults()
	best := -1
	for i, f := range all {
		if f.cause == first.Cause && (best < 0 || e.shares[i] > e.shares[best]) {
			best = i
		}
	}
	if f := all[best]; f.cause != asSet {
		if f.overMM > 0 {
			f.overMM = first.Size
		}
		w := e.w.with(f)
		if t, g, set, err := w.toyAt(e.knobs); err == nil {
			e.w, e.toy, e.g, e.set = w, t, g, set
		}
	}
	switch first.Cause {
	case pressed:
		e.low()
		return
	case overhangs, pulls:
		e.caughtFinger()
		return
	case slick:
		e.onTable(slick)
		e.noDistance()
		return
	case soft:
		e.onTable(soft)
		e.low()
		return
	case weary:
		e.fading()
		return
	}
	switch e.out.Symptom {
	case caught:
		e.caughtFinger()
	case footUnder:
		e.footFolded()
	case straightUp:
		e.onTable(slick)
		e.noDistance()
	case tooMany:
		e.somersaults()
	case tired:
		e.fading()
	default:
		e.low()
	}
}

// onTable asks for another table before the toy is touched.
func (e *examination) onTable(cause string) {
	r := motion.Remedy{Changes: []motion.Change{}, Do: "Hop from a bare wooden table", Where: "and leave the toy as it is.", School: "the table", Then: "It should leap as predicted.", Against: "If not, it is not the table."}
	better := *e.w
	better.fault = nil
	better.Table = tables[wood].mu
	e.out.Title = "The table gives. Hop from a hard one."
	r.Why = "What lies under it takes the push: a cushion, a cloth, a pad of paper."
	if cause == slick {
		if e.w.Trigger.palm || tables[int(e.w.conditions["surface"])].mu >= tables[cloth].mu {
			return // nothing grips better
		}
		e.out.Title = "It goes straight up. Try a table that grips."
		r.Do = "Hop from a cloth or from paper"
		r.Why = fmt.Sprintf("The foot slips back while it pushes: friction with the finger's push is about %.1f, and the leap leans by no more than that.", e.w.trial(e.set).Friction)
		better.Table = tables[cloth].mu
	}
	r.Now = e.outlook(e.knobs, Length)
	o := examination{w: &better, knobs: e.knobs}
	r.After = o.outlook(e.knobs, Length)
	e.out.Remedy = &r
}

type examination struct {
	w        *Workbench
	knobs    map[string]float64
	toy      Toy
	g        Geometry
	set      SpringSet
	log      []motion.Noted
	out      *motion.Finding
	cases    []blame.Case
	shares   []float64
	verdicts []blame.Verdict
}

// titled gives a title where there is none yet.
func (e *examination) titled(s string) {
	if e.out.Remedy == nil {
		e.out.Title = s
	}
}

func (e *examination) seen() string {
	return fmt.Sprintf("%s in %d of %d hops", e.out.Symptom, e.out.Seen, e.out.Of)
}

func (e *examination) overhangMM() float64 { return e.g.FootMM - e.g.MiddleMM }

// outlook of knobs by height or distance.
func (e *examination) outlook(knobs map[string]float64, by string) *motion.Outlook {
	o, s, err := e.w.outlook(knobs)
	if err != nil {
		return nil
	}
	if by == Height {
		o.Outcome = outcomes(s)[1]
	}
	return &o
}

func (e *examination) remedy(r motion.Remedy, by string) motion.Remedy {
	r.Now, r.After = e.outlook(e.knobs, by), e.outlook(toys.With(e.knobs, r.Changes...), by)
	return r
}

// middle of a measure at knobs, over scattered hops without the doubt of the constants.
func (e *examination) middle(knobs map[string]float64, of func(Arc) float64) float64 {
	_, g, set, err := e.w.toyAt(knobs)
	if err != nil {
		return 0
	}
	hops := e.w.scatter(g, set, motion.Sample{N: judged}, false)
	sum := 0.0
	for _, a := range leaps(hops, 0) {
		sum += of(a) / judged
	}
	return sum
}

// judged is how many hops a change is judged by.
const judged = 16

func high(a Arc) float64 { return a.HeightM }
func far(a Arc) float64  { return math.Abs(a.LengthM) }

// softer is the least step of both radii after which it goes half as high again.
func (e *examination) softer() (changes []motion.Change, gain float64) {
	now := e.middle(e.knobs, high)
	for by := 0.1; by < 2.45; by += 0.1 {
		c := []motion.Change{e.w.Change(e.knobs, KnobHipRadius, by), e.w.Change(e.knobs, KnobCatchRadius, by)}
		v := e.middle(toys.With(e.knobs, c...), high)
		if v >= 1.5*now || by > 2.3 {
			return c, v / math.Max(now, 1e-6)
		}
	}
	return nil, 1
}

// fold is the change of the last fold by two parts in a hundred of the body that helps
// more.
func (e *examination) fold(of func(Arc) float64) (motion.Change, float64, bool) {
	k, found := e.w.knobOf(1)
	if !found {
		return motion.Change{}, 1, false
	}
	now := e.middle(e.knobs, of)
	best, gain, ok := motion.Change{}, 1.0, false
	for _, sign := range []float64{-1, 1} {
		by := sign * 0.02 * e.g.BodyMM
		if k.Unit != "mm" { // a fraction of the flap
			by = sign * 0.02 * e.g.BodyMM / math.Max(1, e.g.FootMM+e.g.MiddleMM)
		}
		c := e.w.Change(e.knobs, k.Name, by)
		g, err := e.w.Toy(toys.With(e.knobs, c))
		if err != nil || g.FootMM > g.MiddleMM+0.05 {
			continue // it would be caught, or cannot be folded
		}
		if v := e.middle(toys.With(e.knobs, c), of) / math.Max(now, 1e-6); v > gain {
			best, gain, ok = c, v, true
		}
	}
	return best, gain, ok
}

func (e *examination) low() {
	deg := geom.Deg(e.toy.Hip.Rest)
	hard := deg < overPressedDeg
	changes, gain := e.softer()
	e.titled("It hops too low. Soften both folds of the pleat.")
	if hard {
		e.out.Confidence = motion.Likely
		e.titled("The pleat is pressed too hard. Open it up.")
	}
	if len(changes) > 0 {
		after := math.Min(175, deg+40)
		if t, _, _, err := e.w.toyAt(toys.With(e.knobs, changes...)); err == nil {
			after = geom.Deg(t.Hip.Rest)
		}
		r := e.remedy(motion.Remedy{Changes: changes, Do: fmt.Sprintf("Open the pleat from %.0f° to about %.0f°", deg, after), Where: fmt.Sprintf("roll both folds over a pencil: bend, do not crease (radius %s).", say.Range(changes[0].From, changes[0].To, 1)),
			School: "soft creases", Why: fmt.Sprintf("Energy grows with the square of the opening; this should make it %.1f times as high.", gain),
			Then: "It should leap higher and farther, and turn more often.", Against: "If it does not, the folds are cracked: take a new sheet, and only bend them."}, Height)
		e.out.Propose(r)
	}
	if c, up, ok := e.fold(high); ok {
		o := e.remedy(motion.Remedy{Changes: []motion.Change{c}, Do: "Move the last fold by " + e.lastWords(c), Where: "2 % of the body. Nothing else this time.", School: "place of the last fold",
			Why: fmt.Sprintf("It changes how long the spring pushes: %.0f %% higher is predicted.", 100*(up-1)), Then: "A little higher.", Against: "If it catches the finger, move it back."}, Height)
		e.out.Others = append(e.out.Others, o)
	}
	if e.set.GrainDeg < 75 {
		c := e.w.Change(e.knobs, KnobGrain, 90-e.set.GrainDeg)
		o := e.remedy(motion.Remedy{Changes: []motion.Change{c}, Do: "Cut the next sheet with the grain across the pleat", Where: "a new sheet; the grain runs nose to tail.", School: "the paper",
			Why: "Paper bends 1.6 to 2.5 times as hard across its grain.", Then: "Higher by the same folds.", Against: "If not, the grain lay so already."}, Height)
		e.out.Others = append(e.out.Others, o)
	}
}

// lastWords tell a change of the last fold as a hand makes it.
func (e *examination) lastWords(c motion.Change) string {
	g, err := e.w.Toy(toys.With(e.knobs, c))
	if err != nil {
		return "a little"
	}
	by := g.MiddleMM - e.g.MiddleMM
	way := "away from the hip"
	if by < 0 {
		way = "towards the hip"
	}
	return fmt.Sprintf("%s %s", say.MM(math.Abs(by), 1), way)
}

func (e *examination) caughtFinger() {
	over := e.overhangMM()
	e.out.Title = "The foot catches the finger. Move the last fold away from the hip."
	want := wantedOverhangMM
	if over <= 0 {
		// As folded it does not: the hand folded otherwise, or the finger pulls.
		want = over - 1
		e.out.Title = "It catches the finger. Give the last fold another half millimetre."
	} else {
		e.out.Confidence = motion.Likely
	}
	if c, ok := e.w.toOverhang(e.knobs, want); ok {
		r := e.remedy(motion.Remedy{Changes: []motion.Change{c}, Do: moved(over, want) + " away from the hip", Where: "the last fold. The overhang shifts by twice as much.",
			School: "move the fold", Why: fmt.Sprintf("The rear edge ends %s %s the hip fold; at %s the finger slips off freely.", say.MM(math.Abs(over), 1), pastOrShort(over), say.MM(want, 1)),
			Then: "It should leap freely.", Against: "If it still catches, slide off to the back instead of pulling, and bend the tail edge down."}, Length)
		e.out.Propose(r)
	}
	if e.set.TailDeg < tailFullDeg {
		c := e.w.Change(e.knobs, KnobTail, tailFullDeg-e.set.TailDeg)
		o := e.remedy(motion.Remedy{Changes: []motion.Change{c}, Do: fmt.Sprintf("Bend the tail edge down to %.0f°", tailFullDeg), Where: "a small ramp for the finger.", School: "help the slip",
			Why: "The finger leaves the edge sooner.", Then: "A cleaner start.", Against: "If it scrapes the table, bend it less."}, Length)
		e.out.Others = append(e.out.Others, o)
		if e.out.Remedy == nil {
			e.out.Remedy, e.out.Others = &o, e.out.Others[:0]
		}
	}
}

func pastOrShort(over float64) string {
	if over > 0 {
		return "past"
	}
	return "short of"
}

func (e *examination) footFolded() {
	e.out.Title = "The foot folds under. Put the last fold farther back from the rear edge."
	if c, ok := e.w.toOverhang(e.knobs, wantedOverhangMM); ok {
		r := e.remedy(motion.Remedy{Changes: []motion.Change{c}, Do: "Move the last fold by " + e.lastWords(c), Where: "to half of the flap or a little more.", School: "move the fold",
			Why:  fmt.Sprintf("The foot is %s long, the part above it %s: under half of that it rolls instead of pushing.", say.MM(e.g.FootMM, 1), say.MM(e.g.MiddleMM, 1)),
			Then: "It should push off cleanly.", Against: "If it still folds under, the foot is limp: press its fold harder than the hip's."}, Length)
		e.out.Propose(r)
	}
	if e.g.FootMM < e.g.MiddleMM/2 {
		e.out.Confidence = motion.Likely
	}
	e.out.Causes = append(e.out.Causes,
		motion.Cause{Words: "Too short a foot", Law: "It needs half of the length from hip to second fold.", Log: e.seen(), Weight: clamp(2-2*e.g.FootMM/e.g.MiddleMM, 0.2, 2)},
		motion.Cause{Words: "A limp foot", Law: "Fewer layers lie in the foot than at the hip.", Log: e.seen(), Weight: 0.5})
}

func (e *examination) noDistance() {
	e.titled("It goes straight up. Lift the nose.")
	nose := e.toy.NoseUpM / mm
	c := e.w.Change(e.knobs, KnobNoseUp, math.Max(nose+3, 12)-e.set.NoseUpMM)
	now := e.middle(e.knobs, far)
	up := e.middle(toys.With(e.knobs, c), far)/math.Max(now, 1e-6) - 1
	r := e.remedy(motion.Remedy{Changes: []motion.Change{c}, Do: fmt.Sprintf("Stand the nose %s higher", say.MM(c.To-nose, 0)), Where: fmt.Sprintf("bend the front legs down, to %s. Nothing else this time.", say.MM(c.To, 0)), School: "the legs",
		Why: fmt.Sprintf("With its nose up it pushes more forward: %.0f %% farther is predicted.", 100*up), Then: "Farther, less high.", Against: "If it tips over backwards, half of it."}, Length)
	e.out.Propose(r)
}

func (e *examination) somersaults() {
	e.out.Title = "It turns too often. Press the pleat a little harder."
	now := e.middle(e.knobs, func(a Arc) float64 { return a.HalfFlips })
	var c []motion.Change
	for by := 0.1; by < 2; by += 0.1 {
		c = []motion.Change{e.w.Change(e.knobs, KnobHipRadius, -by), e.w.Change(e.knobs, KnobCatchRadius, -by)}
		if e.middle(toys.With(e.knobs, c...), func(a Arc) float64 { return a.HalfFlips }) < now-0.5 {
			break
		}
	}
	r := e.remedy(motion.Remedy{Changes: c, Do: fmt.Sprintf("Press both folds down to a radius of %s", say.MM(c[0].To, 1)), Where: "with a fingertip; half a flip less is predicted.", School: "less spring",
		Why: "Spin goes with take-off speed: less spring turns it less, and costs height.", Then: "Fewer flips, lower.", Against: "Spin is good to a half: if it turns as before, use a larger sheet."}, Height)
	e.out.Propose(r)
	e.out.Others = append(e.out.Others, motion.Remedy{Changes: []motion.Change{}, Do: "Fold it twice as large", Where: "the same pattern on a larger sheet.", School: "the size",
		Why: "Spin falls with size to the power of one and a half.", Then: "A slow, low leap with one turn or none.", Against: "If it hardly hops then, go back half the way."})
	e.out.Causes = append(e.out.Causes,
		motion.Cause{Words: "Much spring for its size", Law: fmt.Sprintf("|ω|·r ≈ 0.35 V: %.1f half flips predicted, good to a half.", now), Log: e.seen(), Weight: 1},
		motion.Cause{Words: "Mass far from its middle", Law: fmt.Sprintf("Gyration %.0f %% of the body; 20 instead of 29 %% would take a third of the spin.", 100*e.g.GyrationMM/e.g.BodyMM), Log: e.seen(), Weight: clamp(6*(e.g.GyrationMM/e.g.BodyMM-0.22), 0.1, 1)})
}

func (e *examination) fading() {
	e.out.Title = "It gets weaker. Let it rest, then soften the pleat."
	v := motion.Values(e.log, Length)
	log := e.seen()
	if len(v) >= 4 {
		log += fmt.Sprintf("; the first %s, the last %s", say.CM(v[0], 0), say.CM(v[len(v)-1], 0))
	}
	c := []motion.Change{e.w.Change(e.knobs, KnobHipRadius, 0.2), e.w.Change(e.knobs, KnobCatchRadius, 0.2)}
	r := e.remedy(motion.Remedy{Changes: c, Do: "Leave it open for ten minutes", Where: "then roll both folds over a pencil once.", School: "rest",
		Why: "Each hop takes 1 to 3 % off the opening; paper creeps back when it lies open.", Then: "As at first.", Against: "If it stays weak the layers have come apart: new sheet."}, Height)
	e.out.Propose(r)
	e.out.Causes = append(e.out.Causes, motion.Cause{Words: "Tired folds", Law: "Rest opening falls by 1 to 3 % a hop and by 3 to 5° for each tenfold of time pressed shut.", Log: log, Weight: 1})
}

// wrongWay is the direction that was seen against the prediction in most hops; "" when
// seen and predicted agree, or too little was noted.
func (e *examination) wrongWay(count map[string]int) string {
	against, with := backward, forward
	if e.w.modeOf(e.toy, e.toy.Leap(e.w.trial(e.set))) == modeBackward {
		against, with = with, against
	}
	if e.out.Of >= motion.Enough && count[against] >= 2 && count[against] > 2*count[with] {
		return against
	}
	return ""
}

// wrong turns a mismatch of seen and predicted direction into a finding.
func (e *examination) wrong(seen string, n int) {
	e.out.Symptom, e.out.Seen, e.out.Clear, e.out.Wants = seen, n, false, 0
	e.out.Confidence = motion.Unsure
	over := e.overhangMM()
	folded := "ahead of"
	if e.g.Backward {
		folded = "behind"
	}
	e.out.Title = "It leaps the other way than its pleat says."
	r := motion.Remedy{Changes: []motion.Change{}, Do: "Look which way the pleat is folded", Where: fmt.Sprintf("by the pattern the second fold lies %s the hip. If it does on your toy, press on the hip and slide off, do not pull.", folded), School: "test",
		Why: "The hip is thrown to the side of the second fold. A pleat folded to the other hand, or a finger that drags the foot, turns it round.", Then: "It should leap as the arrow on the mat shows.",
		Against: "If it still goes the other way, trust your hops, not the model."}
	if c, ok := e.w.toOverhang(e.knobs, wantedOverhangMM); ok && over > 0 {
		r.Changes = []motion.Change{c}
		r.Do, r.Where = "Move the last fold by "+moved(over, wantedOverhangMM), "away from the hip, so that the foot is free of the finger."
	}
	e.out.Propose(r)
	log := e.seen()
	e.out.Causes = append(e.out.Causes,
		motion.Cause{Words: "The pleat was folded to the other hand", Law: "H moves along bθ̇(sin θ, cos θ): up, and to the side of the second fold.", Log: log, Weight: 1},
		motion.Cause{Words: "The finger drags the foot", Law: say.Prose(fmt.Sprintf("Overhang %s; from 2 mm on the direction cannot be told.", say.MM(over, 1))), Log: log, Weight: clamp(0.3+over, 0.2, 2)})
}
