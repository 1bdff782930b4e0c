package tokens

import (
	"fmt"
	"math"
	"strconv"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/sequence"
)

// The words of the language.
const (
	headStands = "stands"
	headHangs  = "hangs"
	headMark   = "marked"
	headRim    = "rim"
)

// The names of the knobs that no fold uses.
const (
	KnobRight      = "pivot_right"
	KnobUp         = "pivot_up"
	KnobFoundRight = "found_right"
	KnobFoundUp    = "found_up"
	KnobTip        = "tip_radius"
	KnobEdges      = "edges_up"
	KnobWhere      = "rim_bent"
)

// mostRim is how many spots of the rim may have a bend of their own.
const mostRim = 6

// bendKnob is the knob that bends spot i of the rim, from 0.
func bendKnob(i int) string { return KnobWhere + strconv.Itoa(i+1) }

// knobs are what every token may be given without writing it.
func knobs() []sequence.Knob {
	out := []sequence.Knob{
		{Name: KnobRight, Label: "Point moved to the right", Unit: "mm", Min: -10, Max: 10, Step: 0.5, Named: []sequence.Named{{Value: 0, Label: "as folded"}},
			Changes: "Where it rests, against where it was folded to rest, seen from above as it spins: bend the point over, or set the pin elsewhere."},
		{Name: KnobUp, Label: "Point moved up on the picture", Unit: "mm", Min: -10, Max: 10, Step: 0.5, Named: []sequence.Named{{Value: 0, Label: "as folded"}},
			Changes: "The same, up on the picture from above."},
		{Name: KnobFoundRight, Label: "Balance found to the right", Unit: "mm", Min: -15, Max: 15, Step: 0.5, Named: []sequence.Named{{Value: 0, Label: "as computed"}},
			Changes: "How far the real balance lies from where it is computed, measured. 0: it is where it is computed."},
		{Name: KnobFoundUp, Label: "Balance found up on the picture", Unit: "mm", Min: -15, Max: 15, Step: 0.5, Named: []sequence.Named{{Value: 0, Label: "as computed"}},
			Changes: "The same, up on the picture from above."},
		{Name: KnobTip, Label: "Point blunt to a radius of", Unit: "mm", Default: 0.3, Min: 0.1, Max: 1.5, Step: 0.1, Named: []sequence.Named{{Value: 0.1, Label: "sharp"}, {Value: 0.3, Label: "as folded"}, {Value: 1, Label: "blunt"}},
			Changes: "How round the end is that it rests on. Blunter rubs more and stands more easily in a dimple."},
		{Name: KnobEdges, Label: "Loose edges stand up by", Unit: "mm", Default: 0.3, Max: 3, Step: 0.1, Named: []sequence.Named{{Value: 0.1, Label: "pressed flat"}, {Value: 0.3, Label: "as folded"}, {Value: 2, Label: "fanned"}},
			Changes: "How high open edges stand up from the rest. Each of them beats the air: pressed flat it spins longer."},
	}
	for i := range mostRim {
		out = append(out, sequence.Knob{Name: bendKnob(i), Label: "Rim bent up", Unit: "mm", Max: 10, Step: 0.5,
			Changes: "How high this spot of the rim is bent up from the table. It clears the table by so much more."})
	}
	return out
}

// implies gives a token its set-up knobs; a bend only where the pattern names that spot of
// the rim.
func implies(p *sequence.Pattern, k sequence.Knob) (sequence.Knob, int, bool) {
	if !poised(p) || len(p.Steps) == 0 {
		return k, 0, false
	}
	rim := p.Heads(headRim)
	for i := range mostRim {
		if k.Name != bendKnob(i) {
			continue
		}
		if i >= len(rim) {
			return k, 0, false
		}
		k.Label = fmt.Sprintf("Rim bent up at %s", p.Called(rim[i]))
	}
	return k, len(p.Steps), true
}

// poised tells whether a pattern rests on a point.
func poised(p *sequence.Pattern) bool { return p.Head(headStands) != "" || p.Head(headHangs) != "" }

var language = sequence.Vocabulary{
	Moves: "spin",
	Heads: []sequence.Head{
		{Word: headStands, Kind: sequence.APoint, Least: 1, Most: 1, What: "the point it spins on", Fix: "stands TR", Check: point},
		{Word: headHangs, Kind: sequence.APoint, Least: 1, Most: 1, What: "the spot that rests on the pin", Fix: "hangs K", Check: there},
		{Word: headMark, Kind: sequence.APoint, Least: 1, Most: 1, What: "the balance that was marked on the way", Fix: "marked P", Check: there},
		{Word: headRim, Kind: sequence.APoint, Least: 1, Most: mostRim, What: "the rim", Fix: "rim T L B", Check: there},
	},
	Knobs:   knobs(),
	Implies: implies,
	Entries: []sequence.Entry{
		{Group: "head", Word: headStands, Syntax: "P", Meaning: "The point on which a token spins: a corner that is set up from the rest, and reaches further down than all else. A toy that rests on a point has further set-up knobs without writing them.",
			Example: "sheet square 100\nmoves spin\nstands TL\nvalley bring TL to C as tip\nopen along tip moving TL angle 90\nexpect TL at C within 0.001"},
		{Group: "head", Word: headHangs, Syntax: "P", Meaning: "The spot of the paper that rests on a pin or a pencil: the toy hangs from it, level when its weight lies below.",
			Example: "sheet square 100\nmoves spin\nhangs C\nvalley bring left to right as f\nopen along f moving L angle 60\nexpect facets 2"},
		{Group: "head", Word: "marked, rim", Syntax: "marked P   rim P P…", Meaning: "The balance that was marked on the way, which later folds leave behind; and spots of the rim that can be bent up one by one, at most six.",
			Example: "sheet square 100\nmoves spin\nstands TL\nmarked C\nrim TR BL BR\nvalley bring TL to C as tip\nopen along tip moving TL angle 90\nexpect facets 2"},
	},
}

// leastPointMM is how far a point must stand out to be stood on.
const leastPointMM = 1.0

// point looks whether the landmark reaches further out of the plane of the body than all
// else, on its side.
func point(r *sequence.Replay, names []string) string {
	p := body.Standing(r)
	at, ok := p.Spot(r.Landmarks[names[0]])
	if !ok {
		return fmt.Sprintf("%s is not on the paper any more, so the toy cannot stand on it", r.Pattern.Called(names[0]))
	}
	z := at.Z
	if math.Abs(z) < leastPointMM {
		return fmt.Sprintf("%s lies in the plane of the toy, so it cannot stand on it: set it up by a step such as open along tip moving %s angle 90", r.Pattern.Called(names[0]), names[0])
	}
	for i := range p.State.F {
		for _, c := range p.Corners(fold.FacetID(i)) {
			if c.Z*math.Copysign(1, z) > math.Abs(z)+1e-6 {
				return fmt.Sprintf("%s is not the lowest point of the toy: something reaches %.1f mm further; bend it back, or name what does", r.Pattern.Called(names[0]), c.Z*math.Copysign(1, z)-math.Abs(z))
			}
		}
	}
	return ""
}

// there looks whether what is named is still on the paper.
func there(r *sequence.Replay, names []string) string {
	for _, n := range names {
		if len(r.Final().FacetsAtSheet(r.Landmarks[n])) == 0 {
			return fmt.Sprintf("%s is not on the paper any more: name a spot that is", r.Pattern.Called(n))
		}
	}
	return ""
}
