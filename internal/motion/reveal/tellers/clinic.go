package tellers

import (
	"context"
	"fmt"
	"math"

	"tussock/internal/motion"
	"tussock/internal/motion/reveal/teller"
	"tussock/internal/motion/toys"
	"tussock/internal/say"
)

// symptoms call for a cure, the one that must go first where several were seen as often.
var symptoms = []string{tore, fingers, bound, oneWay, gaped, wrong, again}

// Examine finds what to change after plays.
func (w *Workbench) Examine(ctx context.Context, knobs map[string]float64, log []motion.Noted) (motion.Finding, error) {
	out, _, sick := motion.Look(log, symptoms, w.way.Words.One, w.way.Words.Many)
	s, err := w.at(ctx, knobs)
	if err != nil || !sick {
		return out, err
	}
	e := &toys.Examination{Try: w, Knobs: knobs, Log: log, Out: &out}
	switch out.Symptom {
	case fingers:
		w.tooSmall(e, s)
	case bound:
		w.overlaps(e, s)
	case oneWay:
		w.halfCreased(e)
	case gaped:
		w.hole(e, s)
	case wrong:
		w.misnumbered(e, s)
	case again:
		w.unfair(e, s)
	case tore:
		w.torn(e, s)
	}
	out.Weigh()
	return out, ctx.Err()
}

// hint proposes something that no knob stands for.
func hint(e *toys.Examination, do, where, why, then, against string) {
	e.Propose(motion.Remedy{Changes: []motion.Change{}, Do: do, Where: where, Why: why, Then: then, Against: against})
}

func (w *Workbench) tooSmall(e *toys.Examination, s set) {
	want := teller.SideFor(w.fingerMM)
	e.Out.Title, e.Out.Confidence = "Pockets too small for the fingers", motion.Likely
	e.Cause("The sheet is small for these fingers", fmt.Sprintf("S = 46.2 + 5.164 d: a finger %s across wants %s, the sheet has %s.", say.MM(w.fingerMM, 1), say.MM(want, 0), say.MM(s.SideMM, 0)), math.Max(0.3, (want-s.SideMM)/20))
	e.Cause("Fingers go in the wrong way", "Thumb and forefinger of each hand go into the four pockets from behind, points upward.", 0.3)
	hint(e, fmt.Sprintf("Fold it from a square of %s", say.MM(teller.ProposedMM(w.fingerMM, teller.MostSideMM), 0)), "a new sheet.", "Pockets grow with the sheet: 0.217 of its side deep.", "A finger goes in by 10 mm.", "If it still slips off, look at the fingers card: thumbs in front, forefingers behind.")
	hint(e, "Put two fingers into each half", "both forefingers and middle fingers, thumbs outside.", "Then no pocket has to hold a whole finger.", "It opens and shuts.", "If it creases where it should not, take the larger sheet.")
}

func (w *Workbench) overlaps(e *toys.Examination, s set) {
	e.Out.Title, e.Out.Confidence = "Flaps overlap in the middle", motion.Likely
	want := math.Min(2, s.GapMM+math.Max(0.5, givesMM-s.roomMM))
	e.Cause("Corners were folded past the middle", fmt.Sprintf("%s are left by the folds, π/2 · t · %d = %s are wanted by the layers, and hands miss by %s.", say.MM(math.Sqrt2*s.GapMM, 1), layersInside, say.MM(thickMM(s.ThickMM), 2), say.MM(missMM[w.hands], 1)), 1)
	e.Cause("The sheet is not square", fmt.Sprintf("Its sides differ by %s; flaps overlap by about as much.", say.MM(s.trimMM, 1)), s.trimMM)
	c := w.Change(e.Knobs, knobGap, want-s.GapMM)
	e.Propose(motion.Remedy{Changes: []motion.Change{c}, Do: fmt.Sprintf("Stop every corner %s short of the middle, not %s", say.MM(c.To, 1), say.MM(c.From, 1)), Where: "all eight folds to the middle, the second four by 0.7 of it.", School: "leave a hair",
		Why: "Overlap jams, a gap does not.", Then: "It opens both ways.", Against: "If it still binds, crease both half lines firmly both ways."})
	if s.trimMM > 0.3 {
		hint(e, fmt.Sprintf("Trim %s off the longer side", say.MM(s.trimMM, 1)), "before the next one is folded.", "An exact square meets in its middle.", "Corners meet evenly.", "If it binds all the same, leave more.")
	}
}

func (w *Workbench) halfCreased(e *toys.Examination) {
	e.Out.Title, e.Out.Confidence = "One half line does not give", motion.Likely
	e.Cause("A half line was creased one way only", "It is a valley in one opening and a mountain in the other: both lines must bend both ways.", 1)
	e.Cause("Flaps overlap along one line", "Overlap jams one opening before the other.", 0.4)
	hint(e, "Fold it in half both ways along each half line, firmly, and open it", "both half lines, through all layers.", "A crease that was bent both ways has no side it prefers.", "It opens as easily one way as the other.", "If it still sticks, look whether two flaps lie over one another there: fold those again, a hair shorter.")
}

func (w *Workbench) hole(e *toys.Examination, s set) {
	e.Out.Title, e.Out.Confidence = "A hole in the middle", motion.Likely
	want := math.Max(0, s.GapMM-math.Max(0.4, s.roomMM-1))
	e.Cause("Corners stop too far from the middle", fmt.Sprintf("A gap of %s leaves a hole of %s.", say.MM(s.GapMM, 1), say.MM(math.Max(0, s.roomMM), 1)), 1)
	e.Cause("Folds are rounded", "Thick paper goes round its folds: half a turn about the layers inside.", 0.4)
	c := w.Change(e.Knobs, knobGap, want-s.GapMM)
	if c.From != c.To {
		e.Propose(motion.Remedy{Changes: []motion.Change{c}, Do: fmt.Sprintf("Bring every corner to %s of the middle, not %s", say.MM(c.To, 1), say.MM(c.From, 1)), Where: "all eight folds to the middle.", School: "meet exactly", Why: "Half of a hole comes from each side.", Then: "The middle shuts.", Against: "If it binds then, go half way back."})
	}
	hint(e, "Press every fold with a nail", "on the table, from the middle of each outward.", "A sharp fold takes less room.", "The hole gets smaller by about a layer.", "If nothing changes, fold a new one closer.")
}

func (w *Workbench) misnumbered(e *toys.Examination, s set) {
	e.Out.Title, e.Out.Confidence = "Numbers that should not show", motion.Possible
	e.Cause("A move was miscounted", "After an odd count it is open left and right, after an even one up and down; each number toggles as often as it says.", 0.6)
	e.Cause("Numbers are not clockwise", fmt.Sprintf("%s show left and right, %s up and down.", s.listed(teller.A.Visible()), s.listed(teller.B.Visible())), 0.5)
	hint(e, "Write the play down and have it followed", "on the mat, Play: the word and the numbers in order.", "The slip is named move by move.", "You see where count and toy parted.", "If every move is right, compare the numbers on the toy with those on the mat.")
}

func (w *Workbench) unfair(e *toys.Examination, s set) {
	e.Out.Title, e.Out.Confidence = "The same answers come up", motion.Likely
	least, most := teller.Rarest(s.odds)
	e.Cause("Odd and even numbers are not mixed", fmt.Sprintf("Chances go from %s to %s %%; with two odd numbers on each opening all are 12.5 %%.", say.Decimal(100*least, 1), say.Decimal(100*most, 1)), 0.2+8*(most-least))
	e.Cause("Too few plays to tell", fmt.Sprintf("In %d plays of eight even messages some come up twice as often as others.", e.Out.Of), 0.4)
	var words string
	for _, c := range s.game.FairNumbers() {
		words += fmt.Sprintf(", %s to %d", s.number(c.Half), c.To)
	}
	if words != "" {
		hint(e, "Change"+words[1:], "numbers of the toy, in pencil.", "A side with two odd and two even numbers is left as often as it is kept.", "Every message comes up in one game of eight.", "If people always pick the same number, it is they who choose, not chance.")
		return
	}
	hint(e, "Count a number at least once before one is opened", "in every game.", "Without a count only the word decides which four show.", "All eight messages can come up.", "If they still repeat, log more plays.")
}

func (w *Workbench) torn(e *toys.Examination, s set) {
	e.Out.Title, e.Out.Confidence = "It tore", motion.Possible
	e.Cause("The points were creased too often", "All four points carry the pull of every opening, at the thickest place.", 0.6)
	e.Cause("It was forced while it bound", fmt.Sprintf("%s are left in the middle.", say.MM(s.roomMM, 1)), math.Max(0.1, 0.5-s.roomMM/2))
	hint(e, "Put tape over each point inside, before it is folded the second time", "a piece 10 mm wide over the corner of the first square.", "Tape carries the pull that paper cannot.", "It lasts several times as long.", "If it tears beside the tape, take paper of 80 to 100 g/m².")
}
