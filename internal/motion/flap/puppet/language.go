// Package puppet is flappers that are wrapped round a finger and jump when they are pressed.
//
// In words: a short crease in the middle of the paper leaves a cone with two shapes; the
// rolled roots of both wings must be flattened before they fold, as the blade of a tape
// measure must (snap). What the fingers give, what the tube and the cone take, and how far
// the wings go is told from both. Magnitudes are good to a factor of three; which of two
// set-ups snaps harder is right.
package puppet

import (
	"fmt"
	"math"

	"tussock/internal/geom"
	"tussock/internal/sequence"
)

const headTube = "tube"

// The names of the knobs that no fold uses.
const (
	KnobPush  = "crease_in"
	KnobSense = "pushed_out"
	KnobGrain = "grain_along"
)

func knobs() []sequence.Knob {
	return []sequence.Knob{
		{Name: KnobPush, Label: "Short crease pushed in by", Unit: "deg", Default: 60, Min: 10, Max: 120, Step: 5, Named: []sequence.Named{{Value: 30, Label: "a little"}, {Value: 60, Label: "well in"}, {Value: 90, Label: "to the stop"}},
			Changes: "How far the crease in the middle is folded when it is pushed in. Further swings the wings further, and wants more of the fingers."},
		{Name: KnobSense, Label: "Pushed in or out", Default: 0, Max: 1, Step: 1, Whole: true, Named: []sequence.Named{{Value: 0, Label: "in, against the roll"}, {Value: 1, Label: "out, with the roll"}},
			Changes: "Against the roll it takes nearly twice as much to fold, and holds better."},
		{Name: KnobGrain, Label: "Grain along the tube", Default: 1, Max: 1, Step: 1, Whole: true, Named: []sequence.Named{{Value: 0, Label: "across it"}, {Value: 1, Label: "along it"}},
			Changes: "Paper tears at half the strain along its grain: turn the sheet if the fold at the gap tears."},
	}
}

func implies(p *sequence.Pattern, k sequence.Knob) (sequence.Knob, int, bool) {
	return k, len(p.Steps), isPuppet(p) && len(p.Steps) > 0
}

func isPuppet(p *sequence.Pattern) bool { return p.Head(headTube) != "" }

// What flappers for a finger add to the pattern language. The folded toy is looked at for
// the tube.
var language = sequence.Vocabulary{
	Moves:   "flap",
	Heads:   []sequence.Head{{Word: headTube, Kind: sequence.ALine, Least: 1, Most: 1, What: "the tube", Fix: "tube m", Check: wrapped}},
	Knobs:   knobs(),
	Implies: implies,
	Entries: []sequence.Entry{
		{Group: "head", Word: headTube, Syntax: "LINE", Meaning: "The line about which a flapper is wrapped round a finger. Such a pattern has further set-up knobs without writing them.",
			Example: "sheet strip 200 40\nmoves flap\ntube m\ncrease bring left to right as m\nwrap m moving L girth 55\nexpect facets 2"},
	},
}

// wrapped looks whether paper is wrapped about the line.
func wrapped(r *sequence.Replay, names []string) string {
	s := r.Final()
	for _, b := range r.Bends {
		f := s.FacetsAtSheet(b.Moving)
		if b.Kind != sequence.OpWrap || len(f) == 0 {
			continue
		}
		iso := s.F[f[0]].Iso
		l, ok := geom.LineThrough(iso.Apply(b.A), iso.Apply(b.B))
		for _, q := range r.Lines[names[0]] {
			u, on := sequence.Place(s, q.Mid())
			if ok && on && math.Abs(l.Side(u)) < geom.OnPaper {
				return ""
			}
		}
	}
	return fmt.Sprintf("nothing is wrapped about %s, so there is no tube: add a step such as wrap %s moving P girth 55", r.Pattern.Called(names[0]), names[0])
}
