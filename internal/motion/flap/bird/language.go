package bird

import (
	"fmt"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// The words of the language.
const (
	headHump  = "hump"
	headNeck  = "neck"
	headTail  = "tail"
	headRoots = "roots"
)

// The names of the knobs that no fold uses.
const (
	KnobRest  = "hump_rest"
	KnobNeck  = "neck_open"
	KnobTail  = "tail_open"
	KnobCurve = "wing_curve"
	KnobHold  = "hold_at"
	KnobPull  = "pull_at"
)

func knobs() []sequence.Knob {
	return []sequence.Knob{
		{Name: KnobRest, Label: "Hump open at rest", Unit: "deg", Default: 14, Min: 2, Max: 60, Step: 2, Named: []sequence.Named{{Value: 6, Label: "pressed flat"}, {Value: 14, Label: "as folded"}, {Value: 30, Label: "loosened"}},
			Changes: "The angle between the ridges of neck and tail when nobody pulls. The nearer to shut, the further the wings go for the same pull, and the harder the start."},
		{Name: KnobNeck, Label: "Neck lets the hump open to", Unit: "deg", Default: 44, Min: 6, Max: 90, Step: 2, Named: []sequence.Named{{Value: 20, Label: "tight"}, {Value: 44, Label: "as folded"}, {Value: 64, Label: "loose"}},
			Changes: "How far the fold of the neck lets both ridges part before it holds them. Open it and close it a few times, and it gives more."},
		{Name: KnobTail, Label: "Tail lets the hump open to", Unit: "deg", Default: 44, Min: 6, Max: 90, Step: 2, Named: []sequence.Named{{Value: 20, Label: "tight"}, {Value: 44, Label: "as folded"}, {Value: 64, Label: "loose"}},
			Changes: "The same for the fold of the tail."},
		{Name: KnobCurve, Label: "Curve stroked into the wings", Unit: "mm", Default: 3, Max: 10, Step: 0.5, Named: []sequence.Named{{Value: 0, Label: "flat"}, {Value: 3, Label: "soft"}, {Value: 6, Label: "strong"}},
			Changes: "How deep the root of each wing is curved. A straight root that crosses the ridge locks; a curve lets it follow."},
		{Name: KnobHold, Label: "Held below the hump", Unit: "mm", Default: 25, Min: 5, Max: 80, Step: 1,
			Changes: "How far along the ridge of the neck the fingers hold, from the hump. Nearer to the hump a pull opens it further, and needs more force."},
		{Name: KnobPull, Label: "Pulled before the tip of the tail", Unit: "mm", Default: 8, Max: 60, Step: 1,
			Changes: "How far before its tip the tail is held. Nearer to the body the same pull opens the hump further."},
	}
}

// implies gives a bird its set-up knobs.
func implies(p *sequence.Pattern, k sequence.Knob) (sequence.Knob, int, bool) {
	if !isBird(p) || len(p.Steps) == 0 {
		return k, 0, false
	}
	return k, len(p.Steps), true
}

// isBird tells whether a pattern names all that a tail pulls.
func isBird(p *sequence.Pattern) bool {
	for _, h := range []string{headHump, headNeck, headTail, headRoots} {
		if p.Head(h) == "" {
			return false
		}
	}
	return true
}

// What birds add to the pattern language: the hump at which neck, tail and the roots of the
// wings meet, by the names that they have in the pattern. The folded toy is looked at for
// each.
var language = sequence.Vocabulary{
	Moves: "flap",
	Heads: []sequence.Head{
		{Word: headHump, Kind: sequence.APoint, Least: 1, Most: 1, What: "the hump", Fix: "hump C", Check: meets},
		{Word: headNeck, Kind: sequence.APoint, Least: 1, Most: 1, What: "the tip of the neck", Fix: "neck TL", Check: ridged},
		{Word: headTail, Kind: sequence.APoint, Least: 1, Most: 1, What: "the tip of the tail", Fix: "tail BR", Check: ridged},
		{Word: headRoots, Kind: sequence.ALine, Least: 2, Most: 2, What: "the roots of the wings", Fix: "roots wingA wingB", Check: opened},
	},
	Knobs:   knobs(),
	Implies: implies,
	Entries: []sequence.Entry{
		{Group: "head", Word: "hump, neck, tail", Syntax: "hump P   neck P   tail P", Meaning: "What a tail-pulled flapper moves with: the spot at which its folds meet, and the tips of neck and tail, whose ridges run to it. With the roots of its wings such a pattern has further set-up knobs without writing them.",
			Example: "sheet square 150\nmoves flap\nhump C\nneck TL\ntail BR\nuse bird\nexpect facets 20"},
		{Word: "roots", Group: "head", Syntax: "LINE LINE", Meaning: "The creases about which the two wings swing.",
			Example: "sheet square 100\nmoves flap\nroots a b\nvalley along par(left,30,C) moving L as a\nvalley along par(right,30,C) moving R as b\nopen along a and b moving L and R angle 100\nexpect facets 3"},
	},
}

// leastFolds is how many folds meet at a hump that moves: two ridges and a root on each
// side of both.
const leastFolds = 6

// meets looks for the spot at which folds meet, with paper all round.
func meets(r *sequence.Replay, names []string) string {
	n := foldsAt(r.Final(), r.Landmarks[names[0]])
	if n >= leastFolds {
		return ""
	}
	return fmt.Sprintf("the hump is to lie at %s, but %s folds meet there inside the paper, and a hump needs %d: name the spot at which neck, tail and the roots of the wings meet", r.Pattern.Called(names[0]), count(n), leastFolds)
}

func count(n int) string {
	if n == 0 {
		return "no"
	}
	return fmt.Sprintf("only %d", n)
}

// foldsAt are the folds that end at a spot with paper all round it.
func foldsAt(s *fold.State, at geom.Vec) int {
	var round float64
	for _, f := range s.FacetsAtSheet(at) {
		round += s.F[f].Poly.AngleAt(at)
	}
	if geom.Deg(round) < 360-1e-3 {
		return 0
	}
	n := 0
	for _, h := range s.H {
		if s.Assigned(h) != fold.Flat && (h.P.Dist(at) < geom.Distinct || h.Q.Dist(at) < geom.Distinct) {
			n++
		}
	}
	return n
}

// ridged looks for the fold that runs from the hump towards a tip.
func ridged(r *sequence.Replay, names []string) string {
	top := r.Pattern.Head(headHump)
	if top == "" {
		return fmt.Sprintf("the ridge to %s starts at the hump, and no hump is named; write for example: hump C", r.Pattern.Called(names[0]))
	}
	from, tip := r.Landmarks[top], r.Landmarks[names[0]]
	s := r.Final()
	for _, h := range s.H {
		if s.Assigned(h) != fold.Flat && h.Along(geom.Segment{A: from, B: tip}) && (h.P.Dist(from) < geom.Distinct || h.Q.Dist(from) < geom.Distinct) {
			return ""
		}
	}
	return fmt.Sprintf("no fold runs from %s towards %s, so nothing pulls there: name the tip of a point whose ridge starts at the hump", r.Pattern.Called(top), r.Pattern.Called(names[0]))
}

// opened looks whether both wings are set by a step in the round.
func opened(r *sequence.Replay, names []string) string {
	if names[0] == names[1] {
		return fmt.Sprintf("both roots are %s: name one crease for each wing", r.Pattern.Called(names[0]))
	}
	for _, n := range names {
		found := false
		for _, o := range r.Openings {
			for _, p := range o.Pieces {
				for _, q := range r.Lines[n] {
					found = found || p.A.Dist(q.A) < geom.Distinct && p.B.Dist(q.B) < geom.Distinct
				}
			}
		}
		if !found {
			return fmt.Sprintf("the wing at %s is never opened, so it cannot swing: add a step such as open along %s moving P angle 100", r.Pattern.Called(n), n)
		}
	}
	return ""
}
