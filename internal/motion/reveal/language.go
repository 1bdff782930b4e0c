package reveal

import (
	"fmt"
	"slices"
	"strings"

	"tussock/internal/motion/reveal/rings"
	"tussock/internal/motion/reveal/tellers"
	"tussock/internal/sequence"
)

// What revealers add to the pattern language: the zones that are written on, and the steps
// after which the toy shows one of its states. The pattern is looked at for each.
var language = sequence.Vocabulary{
	Moves: "reveal",
	Heads: []sequence.Head{
		{Word: "zones", Kind: sequence.AWord, Least: 1, What: "the zones", Fix: "zones outer number message", Check: zones},
		{Word: "ringparts", Kind: sequence.APoint, Least: 10, Most: 19, What: "the leaves of a ring", Fix: "ringparts t1 t2 t3 t4 t5 t6 t7 t8 t9 t10", Check: leaves},
		{Word: "states", Kind: sequence.ALine, Least: 1, What: "the states", Fix: "states shut one other", Check: states},
	},
	Entries: []sequence.Entry{
		{Group: "head", Word: "zones", Syntax: "NAME…", Meaning: "The places that are written on, by the names that labels give them.",
			Example: "sheet square 100\nmoves reveal\nzones front\nlabel sheet(20,20) \"7\" zone front\nvalley bring left to right\nexpect BL at BR within 0.001"},
		{Group: "head", Word: "ringparts", Syntax: "P P…", Meaning: "A landmark on each triangle of a strip that becomes a ring, from one end to the other; the last one is glued to the first. Ten for three faces, nineteen for six. What its faces are is worked out from how it is folded.",
			Example: "moves reveal\nringparts t1 t2 t3 t4 t5 t6 t7 t8 t9 t10\nsheet polygon 0 0 200 0 220 34.641016151377546 20 34.641016151377546\nparam side = 40\nparam up = 20*sqrt(3)\npoint Q1 = sheet(40, 0)\npoint Q2 = sheet(80, 0)\npoint Q3 = sheet(120, 0)\npoint Q4 = sheet(160, 0)\npoint U1 = sheet(60, up)\npoint U2 = sheet(100, up)\npoint U3 = sheet(140, up)\npoint U4 = sheet(180, up)\npoint t1 = sheet(20, up/3)\npoint t2 = sheet(40, 2*up/3)\npoint t3 = sheet(60, up/3)\npoint t4 = sheet(80, 2*up/3)\npoint t5 = sheet(100, up/3)\npoint t6 = sheet(120, 2*up/3)\npoint t7 = sheet(140, up/3)\npoint t8 = sheet(160, 2*up/3)\npoint t9 = sheet(180, up/3)\npoint t10 = sheet(200, 2*up/3)\ncrease through Q1 P4 conditioning both ways as z1\ncrease through Q1 U1 conditioning both ways as z2\ncrease through Q2 U1 conditioning both ways as z3\ncrease through Q2 U2 conditioning both ways as z4\ncrease through Q3 U2 conditioning both ways as z5\ncrease through Q3 U3 conditioning both ways as z6\ncrease through Q4 U3 conditioning both ways as z7\ncrease through Q4 U4 conditioning both ways as z8\ncrease through P2 U4 conditioning both ways as z9\ncollapse fixed t1 M z3 V z6 M z9\nglue t10 to t1\nexpect facets 10"},
		{Group: "head", Word: "states", Syntax: "NAME…", Meaning: "The names of the steps after which the toy shows one of its states: shut, opened one way, a face of a ring.",
			Example: "sheet square 100\nmoves reveal\nstates shut ajar\nvalley bring left to right as shut\nopen along shut moving L angle 60 as ajar\nexpect facets 2"},
	},
}

// zones looks whether something is written in each. Those of a fortune teller have places of
// their own.
func zones(r *sequence.Replay, names []string) string {
	if tellers.Is(r.Pattern) {
		if _, err := tellers.Of(r); err != nil {
			return err.Error()
		}
		names = slices.DeleteFunc(slices.Clone(names), tellers.IsZone)
	}
	for _, n := range names {
		if !slices.ContainsFunc(r.Notes, func(q sequence.Note) bool { return q.Zone == n }) {
			return fmt.Sprintf("nothing is written in the zone %s: add a step such as label P \"text\" zone %s", n, n)
		}
	}
	var stray []string
	for _, q := range r.Notes {
		if q.Zone != "" && !slices.Contains(r.Pattern.Heads("zones"), q.Zone) && !slices.Contains(stray, q.Zone) {
			stray = append(stray, q.Zone)
		}
	}
	if len(stray) > 0 {
		return fmt.Sprintf("labels name the zone %s, which is not among the zones: add it to the line, or write another", strings.Join(stray, ", "))
	}
	return ""
}

// leaves looks whether they make a ring that flexes.
func leaves(r *sequence.Replay, _ []string) string {
	if _, err := rings.Of(r); err != nil {
		return err.Error()
	}
	return ""
}

// states looks whether a step makes each.
func states(r *sequence.Replay, names []string) string {
	for i, n := range names {
		if slices.Contains(names[:i], n) {
			return fmt.Sprintf("the state %s is named twice", n)
		}
		if r.Pattern.StepNamed(n) == 0 {
			return fmt.Sprintf("no step is called %s, so it shows no state: write as %s at the end of the step that does", n, n)
		}
	}
	return ""
}
