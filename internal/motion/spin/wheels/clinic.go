package wheels

import (
	"context"
	"fmt"
	"math"
	"math/cmplx"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/glide/air"
	"tussock/internal/motion/spin/wheel"
	"tussock/internal/motion/toys"
	"tussock/internal/say"
)

// The clinic: from how it turned and fell to the smallest change that should help.

// symptoms call for a cure, the one that must go first where several were seen as often.
var symptoms = []string{wrong, cameOff, stuck, stopped, tumbled, unevenly, wobbled, rattled, slow, fast}

// Examine finds what to change after trials at knob values.
func (w *Workbench) Examine(ctx context.Context, knobs map[string]float64, log []motion.Noted) (motion.Finding, error) {
	out, _, sick := motion.Look(log, symptoms, w.way.Words.One, w.way.Words.Many)
	s, err := w.at(ctx, knobs)
	if err != nil {
		return out, err
	}
	if len(log) < motion.Enough {
		return out, nil
	}
	e := &examination{toys.Examination{Try: w, Knobs: knobs, Log: log, Out: &out}, w, s}
	if !sick && !e.readings() {
		return out, ctx.Err()
	}
	switch out.Symptom {
	case wrong:
		e.wrongWay()
	case cameOff:
		e.off()
	case stuck:
		e.stuck()
	case stopped, unevenly, wobbled, rattled:
		e.uneven()
	case tumbled:
		e.tumbles()
	case fast:
		e.fallsFast()
	default:
		e.slow()
	}
	out.Weigh()
	return out, ctx.Err()
}

type examination struct {
	toys.Examination
	w *Workbench
	s set
}

// readings makes a symptom of rates that lie below what is predicted.
func (e *examination) readings() bool {
	if e.w.drive == byFall {
		return false
	}
	said := e.w.spread(e.s, e.w.drive, motion.Whole).rate
	if !toys.Less(e.Out, e.w.rates(e.Log, len(e.s.Leaves)), said) {
		return false
	}
	e.Out.Symptom = slow
	return true
}

// to is a change of a knob to a value.
func (e *examination) to(name string, v float64) motion.Change {
	return e.w.Change(e.Knobs, name, v-e.w.Value(e.Knobs, name))
}

// remedy proposes the change of one knob.
func (e *examination) remedy(c motion.Change, decimals int, where, why, then, against string) {
	if c.From == c.To {
		return
	}
	e.Propose(motion.Remedy{Changes: []motion.Change{c}, Do: fmt.Sprintf("%s: from %s to %s", c.Label, say.Value(c.From, c.Unit, decimals), say.Value(c.To, c.Unit, decimals)), Where: where, Why: why, Then: then, Against: against})
}

// hint proposes something that no knob stands for.
func (e *examination) hint(do, where, why, then, against string) {
	e.Propose(motion.Remedy{Changes: []motion.Change{}, Do: do, Where: where, Why: why, Then: then, Against: against})
}

func (e *examination) wrongWay() {
	breath, above := senseFrom(e.s.Sense)
	e.Out.Confidence = motion.Likely
	e.Out.Title = "It turns as its blades lie. Turn them over, or look from the other side."
	e.Cause("The blades lie the other way", fmt.Sprintf("Each blade goes toward its edge that is nearer to the breath: by its folds %s seen from the breath, %s from the other side.", breath, above), 2)
	e.Cause("It was looked at from the other side", "What turns clockwise from one side turns counter-clockwise from the other.", 1)
	e.hint("Look from where you blow", "from behind it every sense is the other one.", "The sense is told from the breath.", fmt.Sprintf("It should turn %s.", breath), "If it turns the other way from there too, its blades lie otherwise than folded.")
	e.hint("Lay all blades over to the other side and curl them again", "all of them: one alone makes it unequal.", "Mirrored blades turn the other way.", fmt.Sprintf("It should turn %s seen from the breath.", above), "If it hardly turns, one of them lies as before: each costs two of as many as there are.")
}

func (e *examination) off() {
	e.Out.Confidence = motion.Possible
	e.Out.Title = "It leaves its axle. Give it a stop, and less play."
	thrust := e.s.wheel.Polar().Thrust(e.w.breath.Speed*0.3, 0) * 1e3
	e.Cause("Nothing holds it from behind", fmt.Sprintf("The breath pushes along the axle by up to %s mN; the wheel weighs %s mN.", say.Decimal(thrust, 0), say.Decimal(e.s.wheel.MassKg*air.Gravity*1e3, 0)), 2)
	e.Cause("It rattles in its play", fmt.Sprintf("Play of %s lets it climb.", say.MM(e.s.play*1e3, 1)), 0.5+e.s.play*1e3)
	e.hint("Put a bead or a roll of tape behind it", "on the axle, so that it turns against it.", "What pushes it off then presses it against the bead.", "It should stay.", "If it starts less easily, the bead is rough: a smaller one.")
	e.remedy(e.to(KnobPlay, 0.2), 1, "a thinner hole, or tape round the axle.", "Less play, less climbing.", "It should stay and hum less.", "If it sticks, the hole is too narrow.")
}

func (e *examination) stuck() {
	s := e.s
	t := e.w.trial(s, s.wheel, e.w.drive, s.pin, cmplx.Abs(s.uneven), 0, 0, 0)
	rub := s.wheel.Rub(s.pin, 0) * 1e6
	beta := geom.Deg(s.wheel.Angle)
	e.Out.Confidence = motion.Possible
	e.Out.Title = "It does not start. Thinner pin, blades at 30 to 45°."
	e.Cause("The pin holds it", fmt.Sprintf("Friction 0.3 (m g + push) r: %s mN mm of weight alone at a radius of %s. The width of the hole does not count.", say.Decimal(rub, 1), say.MM(s.pin*1e3, 1)), 1+math.Max(0, rub/math.Max(1, t.start*1e6)))
	if beta < 15 || beta > 65 {
		e.Cause("The blades lie at a poor angle", fmt.Sprintf("They work at %s°; the start is strongest at 45 to 60°.", say.Decimal(beta, 0)), 2)
	}
	e.Cause("The breath meets its middle", "Torque is push times radius: two thirds out it is strongest.", 0.8)
	e.remedy(e.to(KnobPin, math.Max(0.3, math.Round(5*s.pin*1e3)/10)), 1, "a needle instead of a skewer, its point blunted.", "What rubs further in holds back less.", "It should start in a softer breath.", "If it stands as before, it rubs elsewhere: look behind it.")
	e.remedy(e.to(KnobAngle, s.angle+40-beta), 0, "press less, or untwist it a little.", "Steeper blades start more easily.", "It should start.", "If it then turns slowly, lay them flatter again by half.")
	e.hint("Blow at it two thirds out", fmt.Sprintf("%s beside the axle.", say.MM((s.wheel.Inner+2*s.wheel.Outer)/3*1e3, 0)), "The middle has no lever.", "It should start.", "If it does not, it is not where you blow.")
}

// uneven finds what makes it wobble, rattle or stop: how the blades stand, how they lie.
func (e *examination) uneven() {
	s := e.s
	u := cmplx.Abs(s.uneven)
	moves := wheel.Even(s.gaps, leastMove)
	e.Out.Confidence = motion.Possible
	law := fmt.Sprintf("u = Σ m r: %s g mm as the gaps were counted; on a level axle the start of %s mN mm holds %s g mm.", say.Decimal(u, 2), say.Decimal(e.startMNMM(), 1), say.Decimal(e.startMNMM()/air.Gravity, 2))
	switch {
	case len(moves) > 0:
		_, spread := wheel.Gaps(s.gaps)
		e.Out.Confidence = motion.Likely
		e.Out.Title = fmt.Sprintf("Even it out: move blade %d %s first.", moves[0].Blade+1, movedWords(moves[0].By))
		e.Cause("Blades stand unevenly", law, 2+spread)
		var changes []motion.Change
		for i, to := range moves[0].Gaps {
			if i < mostBlades && math.Abs(to-s.gaps[i]) > 1e-9 {
				changes = append(changes, e.to(KnobGap(i), to))
			}
		}
		after := cmplx.Abs(wheel.Uneven(s.Leaves[0].G, s.Leaves[0].OutMM, wheel.Angles(moves[0].Gaps)))
		e.Propose(motion.Remedy{Changes: changes, Do: fmt.Sprintf("Move blade %d %s", moves[0].Blade+1, movedWords(moves[0].By)), Where: "turn it about the axle, and hold its neighbours.",
			Why: fmt.Sprintf("It stands off most. %d moves in all; this one leaves %s of %s g mm.", len(moves), say.Decimal(after, 2), say.Decimal(u, 2)), Then: "Count again: the gaps beside it are even.", Against: "If it wobbles as before, the blades lie unlike: see to their angles."})
	case s.evenly():
		e.Out.Title = "Count the folds between its blades."
		e.Out.Test = "Count the folds between each blade and the next, and type them on the mat."
		e.Cause("Blades stand unevenly", "Nobody has counted the gaps yet. "+law, 1)
		e.hint("Count the folds between the blades", "on the mat under Set, all the way round.", "What stands unevenly cannot be seen at a glance.", "Which blade to move first is told then.", "If all gaps are alike, their angles differ.")
	default:
		e.Out.Title = "The gaps are even. Look at the angles of the blades."
		e.Cause("Blades stand unevenly", law, 0.3)
	}
	odd := 5.0
	if s.oddBy != 0 {
		odd = math.Abs(s.oddBy)
	}
	like := s
	like.oddBy = odd
	t := e.w.trial(s, s.wheel, byFall, s.pin, u, 0, 0, 0)
	e.Cause("One blade lies otherwise", fmt.Sprintf("%s° are like %s g mm at most, in a fall: the angle counts for more than weight.", say.Decimal(odd, 0), say.Decimal(like.lean(t.speed, t.rate), 1)), 0.8+math.Abs(s.oddBy)/3)
	if s.oddBy != 0 {
		e.remedy(e.to(KnobOddBy, 0), 0, fmt.Sprintf("blade %d; hold it against a neighbour.", s.odd+1), "All blades at one angle.", "It should turn steadily.", "If it wobbles as before, count the gaps.")
	}
	e.Cause("Creases were only pressed in the pack", "In the outer layers of a pack a crease lies off by up to half of what they slide.", 0.6)
	e.hint("Press every crease again in its single layers", "the list stands under Fold, where the leaves are opened; tick them off.", "Then all blades bend alike.", "It should look and turn more evenly.", "If one blade still differs, bend it by hand.")
}

func (e *examination) startMNMM() float64 {
	drive := e.w.drive
	if drive == byFall {
		drive = byBreath
	}
	return e.w.trial(e.s, e.s.wheel, drive, e.s.pin, 0, 0, 0, 0).start * 1e6
}

func (e *examination) tumbles() {
	s := e.s
	up := "tip down"
	if e.w.up == tipFirst {
		up = "tip up"
	}
	e.Out.Confidence = motion.Possible
	e.Out.Title = fmt.Sprintf("It tumbles. Drop it %s, or put weight below its blades.", up)
	over := 0.5
	if s.topHeavy(e.w.up) {
		over, e.Out.Confidence = 2, motion.Likely
	}
	e.Cause("Its weight lies above its blades", fmt.Sprintf("Centre of mass %s over the foot, the air takes hold %s over it.", say.MM(s.comMM(), 1), say.MM(s.AirMM, 1)), over)
	e.Cause("Blades lie unlike", "Unlike angles lean it: keep them within 3°.", 1)
	e.hint(fmt.Sprintf("Drop it %s", up), "without a twist.", "The weight then hangs below what the air holds.", "It should come down turning.", "If it turns over again, its blades lie unlike.")
	if s.topHeavy(e.w.up) && e.w.up == tipFirst || !s.topHeavy(tipFirst) {
		e.remedy(e.to(KnobTape, s.tapeG+0.05), 2, "wound round the tip; drop it tip down.", "Weight below the blades rights it.", "It should stay upright.", "If it falls too fast, take half of it.")
	}
}

func (e *examination) slow() {
	s := e.s
	beta := geom.Deg(s.wheel.Angle)
	e.Out.Confidence = motion.Possible
	e.Out.Title = "It turns slowly. Lay its blades flatter, on a thinner pin."
	tips, _ := s.wheel.Free()
	e.Cause("The blades lie steep", fmt.Sprintf("They work at %s°: its tips go %s times as fast as the wind. At 20° it would be three times.", say.Decimal(beta, 0), say.Decimal(tips, 1)), 0.5+beta/30)
	e.Cause("The pin holds it", fmt.Sprintf("It rubs at a radius of %s.", say.MM(s.pin*1e3, 1)), 0.4+s.pin*1e3/2)
	e.Cause("The breath is softer than was set", "The rate goes with the breath; three rates of your own teach it.", 0.8)
	if beta > 22 {
		e.remedy(e.to(KnobAngle, s.angle+20-beta), 0, "press and twist it further.", "Flatter blades turn faster.", "It should turn faster.", "If it hardly starts then, half of that.")
	}
	if s.pin*1e3 > 0.4 {
		e.remedy(e.to(KnobPin, 0.3), 1, "a needle, blunted.", "What rubs further in holds back less.", "It should turn a little faster.", "If nothing changes, air holds it, not the pin.")
	}
}

func (e *examination) fallsFast() {
	s := e.s
	t := e.w.trial(s, s.wheel, byFall, s.pin, cmplx.Abs(s.uneven), 0, 0, 0)
	e.Out.Confidence = motion.Possible
	e.Out.Title = "It falls fast. Lay its blades flatter, or take thinner paper."
	_, thrust := s.wheel.Free()
	e.Cause("The blades let the air through", fmt.Sprintf("U = √(2 m g / (ρ C A)): %s m/s with a thrust coefficient of %s. Flatter blades reach up to 1.1.", say.Decimal(t.speed, 1), say.Decimal(thrust, 2)), 1.5)
	e.Cause("It is heavy for its size", fmt.Sprintf("%s g on %s of reach; paper of half the weight falls slower by three tenths.", say.Decimal(s.MassG+s.tapeG, 2), say.MM(s.ReachMM, 0)), 1)
	e.Cause("It has not begun to turn", fmt.Sprintf("In %s it has not settled yet.", say.M(e.w.heightM, 1)), 0.7)
	e.remedy(e.to(KnobAngle, math.Max(10, s.angle-10)), 0, "press and twist it further.", "Flatter blades, faster turns, more to hold it up.", "It should fall more slowly.", "If it does not begin to turn, give it back half.")
	if s.tapeG > 0 {
		e.remedy(e.to(KnobTape, 0), 2, "take it off.", "Speed goes with the root of the weight.", "It should fall more slowly.", "If it tumbles then, put half of it back.")
	}
}
