package rings

import (
	"context"
	"fmt"
	"math"

	"tussock/internal/motion"
	"tussock/internal/motion/reveal/ring"
	"tussock/internal/motion/toys"
	"tussock/internal/order"
	"tussock/internal/say"
)

// symptoms call for a cure, the one that must go first where several were seen as often.
var symptoms = []string{tore, opened, mixed, cracked, stuck, gapped, puffed, few}

// cure is what a symptom comes from, and what is done about it.
type cure struct {
	title, confidence string
	causes            []motion.Cause
	do, where, why    string
	then, against     string
}

// Examine finds what to change after trials.
func (w *Workbench) Examine(ctx context.Context, knobs map[string]float64, log []motion.Noted) (motion.Finding, error) {
	out, _, sick := motion.Look(log, symptoms, w.way.Words.One, w.way.Words.Many)
	g, _, err := w.At(ctx, knobs)
	if err != nil || !sick {
		return out, err
	}
	e := &toys.Examination{Try: w, Knobs: knobs, Log: log, Out: &out}
	for _, c := range w.cures(g, out.Symptom) {
		if out.Title == "" {
			out.Title, out.Confidence = c.title, c.confidence
		}
		for _, q := range c.causes {
			e.Cause(q.Words, q.Law, q.Weight)
		}
		e.Propose(motion.Remedy{Changes: []motion.Change{}, Do: c.do, Where: c.where, Why: c.why, Then: c.then, Against: c.against})
	}
	out.Weigh()
	return out, ctx.Err()
}

// cures of a symptom, the smallest first.
func (w *Workbench) cures(g made, symptom string) []cure {
	thick := float64(g.thickest()) * g.ThickMM
	wide := thick / stiffPart * math.Sqrt(3) / 2
	next := cure{"A corner that is solid", motion.Likely, []motion.Cause{{Words: "It was pinched at a solid corner", Law: "In each state three corners or all six open; a solid one never does.", Weight: 1}, {Words: "The end was not tucked before gluing", Law: "Then a place has no slit on top.", Weight: 0.3}},
		"Move on to the next corner, 60°", "feel for a place with a slit on top, and pinch beside it.", "The joint picture on the mat shows which open, state by state.", "It opens.", "If no corner opens in any state, open the glue and compare with the check before gluing."}
	thinner := cure{"Joints too stiff", motion.Likely, []motion.Cause{{Words: "The paper is thick for this strip", Law: fmt.Sprintf("%d layers of %s are %s at sides of %s.", g.thickest(), say.MM(g.ThickMM, 2), say.MM(thick, 2), say.MM(g.SideMM, 0)), Weight: thick / (stiffPart * g.SideMM)}, {Words: "Joints were folded one way only", Law: "Every joint is a valley in one state and a mountain in another.", Weight: 0.6}},
		fmt.Sprintf("Take a strip at least %s wide, or paper of 60 to 80 g/m²", say.MM(math.Max(wide, g.WidthMM+2), 0)), "a new strip.", "A joint gives when it is thin against the side of a triangle.", "It flexes without cracking.", "If it still cracks, trim the end that is glued by 1 mm."}
	both := cure{"Joints too stiff", motion.Likely, nil, "Fold every joint of the strip both ways and press it with a nail", "all of them, before the ring is folded.", "A crease that was bent both ways has no side it prefers.", "It opens with less push.", "If a joint still resists, take thinner paper."}
	exact := cure{"Triangles that are not alike", motion.Likely, []motion.Cause{{Words: "Angles are not 60°, or the width varies", Law: fmt.Sprintf("Side error 1.155 δw; %d folds of %s each come to %s.", g.folds(), say.MM(w.missMM, 1), say.MM(ring.SideErrorMM(w.missMM)*math.Sqrt(float64(g.folds())), 1)), Weight: 1}},
		"Keep every fold within 0.3 mm: print the strip, and fold on the lines", "a new strip.", "Errors of all folds add up in the middle.", "No hole and no bulge.", "If it still gapes, the first angle was off: halve it once or twice more before counting."}
	zigzag := cure{"A rolled strip", motion.Likely, nil, "Fold the strip to and fro, and press it", "before the ring is made.", "Rolled, every turn goes round all those inside.", "Edges lie on one another.", "If they do not, the strip is not of one width."}
	roll, flat := ring.CreepMM(g.ThickMM, g.Leaves/2)
	zigzag.causes = []motion.Cause{{Words: "The strip was rolled up", Law: fmt.Sprintf("Creep %s rolled, %s zigzagged.", say.MM(roll, 1), say.MM(flat, 2)), Weight: 1}}
	walk := cure{"Faces not met yet", motion.Likely, []motion.Cause{{Words: "It was flexed round the same three", Law: fmt.Sprintf("Moving on a corner after every flex goes round three faces for ever; at the same corner as long as it opens, a walk of %d flexes shows all %d.", len(g.Graph.Tour(0)), g.Graph.Faces), Weight: 1}},
		"Flex at the same corner as long as it opens, then move on to the next", "follow the walk on the mat.", "Rare faces lie one flex beside the common ones.", fmt.Sprintf("All %d faces.", g.Graph.Faces), "If a corner opens nowhere, compare its numbers with the labels: one fold may be off."}
	refold := cure{"A fold off by one triangle", motion.Likely, []motion.Cause{{Words: "One fold was a triangle early or late, or the strip was turned over", Law: "Each face must have six triangles of one number.", Weight: 1}},
		"Open it, and fold again by the numbers", "like numbers on like numbers first; then the ring.", "The check before gluing shows what should stand up.", "One number on each side.", "If numbers still mix, compare the strip with the printed one: labels may be wrong."}
	glue := cure{"Glue that came off", motion.Likely, []motion.Cause{{Words: "Too little glue, or flexed before it was dry", Law: "All the pull of a flex goes through the two triangles that are glued.", Weight: 1}},
		"Glue the whole of both triangles, and let it dry under a book", "the two without a number.", "Edges that are not glued catch.", "It holds.", "If it comes off again, take tape over the joint inside."}
	torn := cure{"A joint tore", motion.Possible, []motion.Cause{{Words: "Many flexes", Law: "Fibres of a crease break a few at a time.", Weight: 0.7}, {Words: "It was forced at a solid corner", Law: "A solid corner opens by tearing alone.", Weight: 0.6}},
		"Put tape on the joint, on both sides", "flat, before it is flexed again.", "Tape carries what the crease no longer does.", "It flexes on, a little stiffer.", "If others follow, fold a new one of tougher paper."}
	return map[string][]cure{stuck: {next, both, thinner}, cracked: {thinner, both}, gapped: {exact, zigzag}, puffed: {zigzag, exact}, few: {walk, next}, mixed: {refold}, opened: {glue}, tore: {torn, both}}[symptom]
}

// RingTold is how many faces were found, by trial.
type RingTold struct {
	Faces  int       `json:"faces"`
	Trials int       `json:"trials"`
	Middle float64   `json:"middle"` // faces found
	Papers []RingRow `json:"papers"` // the same ring from other papers
}

// RingRow is a ring from a paper.
type RingRow struct {
	Paper   string  `json:"paper"`
	ThickMM float64 `json:"thick_mm"`
	Here    bool    `json:"here"`
	PlaceMM float64 `json:"place_mm"` // the thickest place
	Zigzag  float64 `json:"zigzag_mm"`
	Rolled  float64 `json:"rolled_mm"`
	Flexes  float64 `json:"flexes"` // per cent that flex easily
}

// papers that are compared, by thickness, mm.
var papers = []struct {
	name  string
	thick float64
}{{"thin two-faced, 60 g/m²", 0.07}, {"copying, 80 g/m²", 0.1}, {"firm, 100 g/m²", 0.125}, {"wrapping, 120 g/m²", 0.15}, {"thin card, 160 g/m²", 0.2}}

// Told compares papers, and counts faces that were found.
func (w *Workbench) Told(ctx context.Context, knobs map[string]float64, log []motion.Noted) (*motion.Drawing, error) {
	g, _, err := w.At(ctx, knobs)
	if err != nil {
		return nil, nil //nolint:nilerr,nilnil // what is no ring has nothing to tell
	}
	out := &RingTold{Faces: g.Graph.Faces, Papers: []RingRow{}}
	found := motion.Values(log, Faces)
	if out.Trials = len(found); out.Trials > 0 {
		out.Middle = order.Median(found)
	}
	row := func(name string, thick float64, here bool) {
		q := g
		q.ThickMM = thick
		modes, _ := w.scatter(q, motion.Whole)
		roll, zigzag := ring.CreepMM(thick, g.Leaves/2)
		out.Papers = append(out.Papers, RingRow{name, thick, here, round2(float64(g.thickest()) * thick), round2(zigzag), round2(roll), 100 * float64(modes[modeFlexes]) / motion.Draws})
	}
	row("this paper", g.ThickMM, true)
	for _, p := range papers {
		row(p.name, p.thick, false)
	}
	return &motion.Drawing{Kind: "rings", Data: out}, ctx.Err()
}
