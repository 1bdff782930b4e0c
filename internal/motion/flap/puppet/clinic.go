package puppet

import (
	"context"
	"fmt"
	"math"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/toys"
	"tussock/internal/order"
	"tussock/internal/say"
)

// The clinic: from what was seen of presses to the smallest change that should help.

// What can be noted.
const (
	flaps   = "flapped"
	opens   = "only opened"
	back    = "fluttered back"
	oneWing = "one wing only"
	slack   = "went slack"
	slips   = "slipped off the finger"
	tore    = "tore"
	stiff   = "would not snap"
)

// symptoms call for a cure, the one that must go first where several were seen as often.
var symptoms = []string{tore, slips, stiff, opens, back, oneWing, slack}

// Examine finds what to change after presses at knob values.
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
	case slips:
		e.slips()
	case stiff, opens:
		e.stiff()
	case back:
		e.back()
	case oneWing:
		e.uneven()
	default:
		e.slack()
	}
	out.Weigh()
	return out, ctx.Err()
}

type examination struct {
	toys.Examination
	w *Workbench
	s set
}

func (e *examination) push(by float64, do, why, then string) {
	c := e.w.Change(e.Knobs, KnobPush, by)
	if c.From == c.To {
		return
	}
	e.Propose(motion.Remedy{Changes: []motion.Change{c}, Do: fmt.Sprintf("%s, from %s° to %s°", do, say.Decimal(c.From, 0), say.Decimal(c.To, 0)), Where: "the short crease in the middle, with a fingertip.", School: "the short crease",
		Why: why, Then: then, Against: "If it is as before, look at the tube."})
}

// tube rolls it to a girth.
func (e *examination) tube(want float64, do, why, then string) bool {
	c, ok := e.w.toGirth(e.Knobs, want)
	if !ok {
		return false
	}
	e.Propose(motion.Remedy{Changes: []motion.Change{c}, Do: fmt.Sprintf("%s, from %s to %s round", do, say.MM(e.s.GirthMM, 1), say.MM(want, 1)), Where: "roll both halves again on your finger.", School: "the tube",
		Why: why, Then: then, Against: "If it slides off or does not go on, measure your finger again."})
	return true
}

func (e *examination) stiff() {
	s := e.s
	e.Out.Title = "It does not snap. Take thinner paper, or push the crease in."
	takes, gives := 1e3*s.takes(peaked), 1e3*e.w.gives()
	if takes > gives {
		e.Out.Confidence = motion.Likely
	}
	e.Cause("The paper is too stiff for fingers", fmt.Sprintf("B goes with thickness cubed: a snap takes %s mJ, fingers give %s.", say.Decimal(takes, 1), say.Decimal(gives, 0)), 2*takes/gives)
	e.Cause("The short crease is not in", fmt.Sprintf("Each wing swings by 0.378 of its fold: %s° at %s°.", say.Decimal(geom.Deg(s.swing(s.push)), 0), say.Decimal(geom.Deg(s.push), 0)), 1.2-geom.Deg(s.push)/90)
	e.Cause("The tube is loose", fmt.Sprintf("M = (1 ± ν) B a: a root rolled over %s°.", say.Decimal(geom.Deg(s.root.Arc()), 0)), 1/(1+s.root.Arc()))
	if takes > gives {
		thin := e.w.thinner(gives / takes)
		e.Propose(motion.Remedy{Do: fmt.Sprintf("Fold it from paper of about %s g/m²", say.Decimal(thin, 0)), Where: "the same folds on a new sheet, thin and crisp.", School: "the paper", Why: fmt.Sprintf("At %s it takes %s times what fingers give.", say.MM(s.Sheet.ThicknessMM, 3), say.Decimal(takes/gives, 1)),
			Then: "It should snap by a light press.", Against: "If it only opens then, the crease is not in."})
		e.push(-20, "Push the crease in less", "Less swing takes less.", "It should snap, by less.")
	} else {
		e.push(20, "Push the crease in further", "The root must be flattened before it folds: further in it is past its peak.", "It should jump instead of opening.")
	}
	e.tube(0.9*s.GirthMM, "Roll it tighter", "A tighter roll holds its two shapes better.", "A sharper snap.")
}

// thinner is the weight in g/m² of a paper like this of which a snap takes so much of what
// this one does.
func (w *Workbench) thinner(part float64) float64 {
	return math.Max(40, 5*math.Round(w.Sheet.GSM*math.Cbrt(part)/5))
}

func (e *examination) back() {
	s := e.s
	e.Out.Title = "It flutters back. Roll it tighter."
	e.Cause("The root is rolled too little", fmt.Sprintf("Two rests from half a radian on; it has %s.", say.Decimal(s.root.Arc(), 1)), 1.5/(0.5+s.root.Arc()))
	e.Cause("The short crease is too short", fmt.Sprintf("%s of %s across.", say.MM(s.CreaseMM, 0), say.MM(s.AroundMM, 0)), 2*(1-s.reach())+0.3)
	e.Cause("The crease is not in far enough", fmt.Sprintf("Pushed in by %s°.", say.Decimal(geom.Deg(s.push), 0)), 1-geom.Deg(s.push)/120)
	e.tube(0.85*s.GirthMM, "Roll it tighter", "A fifth less radius is a quarter more moment.", "It should stay where it snaps to.")
	e.push(20, "Push the crease in further", "A sharper fold has deeper rests.", "It should stay where it snaps to.")
}

func (e *examination) slips() {
	s, u := e.s, e.w.undersize(e.s)
	want := math.Min(e.w.girthFor(s), s.GirthMM-1) // what slides off is too wide, whatever was reckoned
	e.Out.Title = fmt.Sprintf("It slides off. Roll the tube to %s.", say.MM(want, 1))
	if u < 0 {
		e.Out.Confidence = motion.Likely
	}
	e.Cause("The tube is too wide", fmt.Sprintf("π (d + 2 n t): your finger wants %s, it has %s.", say.MM(want, 1), say.MM(s.GirthMM, 1)), 1+math.Max(0, -50*u))
	e.Cause("The roll opens by itself", "Paper creeps back; a soft roll loses a millimetre in minutes.", 0.7)
	if !e.tube(want, "Roll the tube tighter", "It grips when it is 1 to 3 % under what finger and paper need.", "It should hold on the finger.") {
		e.Propose(motion.Remedy{Do: "Measure your finger again", Where: "with the ring gauge; type its girth under the press.", School: "the finger", Why: "By its girth the tube should hold.", Then: "A tube that grips.", Against: "If it slides off all the same, breathe on the finger."})
	}
}

func (e *examination) tears() {
	s := e.s
	e.Out.Title = "It tears over the gap. Leave more of it."
	if s.strain() > 0 {
		e.Out.Confidence = motion.Likely
	}
	e.Cause("The gap is too small", fmt.Sprintf("π n t / 2 + %s: %s needed, %s left; %s %% of strain.", say.MM(0.3, 1), say.MM(s.needs(), 2), say.MM(s.GapMM, 2), say.Decimal(100*s.strain(), 1)), 0.5+100*s.strain())
	e.Cause("The grain lies along the tube", "Along its grain paper tears at 2 %, across it at 4.", map[bool]float64{true: 1, false: 0.2}[s.alongside])
	e.Cause("Pushed in too hard", fmt.Sprintf("To %s°.", say.Decimal(geom.Deg(s.push), 0)), geom.Deg(s.push)/120)
	if c, ok := e.w.toGap(e.Knobs, s); ok && s.GapMM < s.needs() {
		e.Propose(motion.Remedy{Changes: []motion.Change{c}, Do: fmt.Sprintf("Leave %s in the middle instead of %s", say.MM(s.needs(), 2), say.MM(s.GapMM, 2)), Where: "on the next one: all folds to the middle stop so far short.", School: "the gap", Why: "So much the layers need to go round.", Then: "The fold should not be stretched.", Against: "If it tears all the same, turn the grain."})
	}
	e.Propose(motion.Remedy{Changes: []motion.Change{e.w.Change(e.Knobs, KnobGrain, -1)}, Do: "Turn the sheet by a quarter, so that the grain runs across the tube", Where: "on the next one.", School: "the grain", Why: "Across its grain paper gives twice as much before it tears.", Then: "It should last longer.", Against: "If it tears on, tape the fold from inside."})
}

func (e *examination) uneven() {
	s := e.s
	e.Out.Title = "One wing beats. Press both halves of the crease alike."
	e.Cause("The short crease lies off the middle", "Both wings hang on the same cone.", 1.5)
	e.Cause("One half is rolled looser", fmt.Sprintf("The moment goes with the roll: %s rad in the mean.", say.Decimal(s.root.Arc(), 1)), 1)
	e.Propose(motion.Remedy{Do: "Press the short crease again, as far to both sides", Where: "bring both points together exactly, and press only there.", School: "the short crease", Why: "A crease that reaches further to one side moves that side alone.", Then: "Both wings should beat alike.", Against: "If the same wing lags, roll its half tighter."})
	e.tube(0.95*s.GirthMM, "Roll both halves again, a little tighter", "Alike rolls beat alike.", "Both wings should beat alike.")
}

func (e *examination) slack() {
	s := e.s
	e.Out.Title = "It goes slack. Push the crease in again, and wrap it anew."
	v := motion.Values(e.Log, Beats)
	law := fmt.Sprintf("Each beat takes about %s %% off the fold: %s beats from %s°.", say.Decimal(100*slackens, 0), say.Decimal(e.w.spread(s).beats.Middle, 0), say.Decimal(geom.Deg(s.push), 0))
	if len(v) > 0 {
		law += fmt.Sprintf(" Logged: %s.", say.Decimal(order.Median(v), 0))
	}
	e.Cause("The short crease has come out", law, 2)
	e.Cause("The paper is limp", fmt.Sprintf("Stiffness %s·10⁻⁴ N m; damp paper has a quarter less.", say.Decimal(s.b*1e4, 1)), 0.8)
	e.Cause("The tube has opened", "Rolls creep open in minutes.", 0.8)
	e.push(15, "Push the crease in again", "A fresh fold has all of its swing.", "As at first.")
	e.tube(0.95*s.GirthMM, "Wrap it again, a little tighter", "The roll is what snaps.", "A firmer beat.")
}
