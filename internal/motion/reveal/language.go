package reveal

import (
	"fmt"
	"slices"
	"strings"

	"tussock/internal/sequence"
)

// What revealers add to the pattern language: the zones that are written on, and the steps
// after which the toy shows one of its states. The pattern is looked at for each.
var language = sequence.Vocabulary{
	Moves: "reveal",
	Heads: []sequence.Head{
		{Word: "zones", Kind: sequence.AWord, Least: 1, What: "the zones", Fix: "zones outer number message", Check: zones},
		{Word: "states", Kind: sequence.ALine, Least: 1, What: "the states", Fix: "states shut one other", Check: states},
	},
	Entries: []sequence.Entry{
		{Group: "head", Word: "zones", Syntax: "NAME…", Meaning: "The places that are written on, by the names that labels give them.",
			Example: "sheet square 100\nmoves reveal\nzones front\nlabel sheet(20,20) \"7\" zone front\nvalley bring left to right\nexpect BL at BR within 0.001"},
		{Group: "head", Word: "states", Syntax: "NAME…", Meaning: "The names of the steps after which the toy shows one of its states: shut, opened one way, a face of a ring.",
			Example: "sheet square 100\nmoves reveal\nstates shut ajar\nvalley bring left to right as shut\nopen along shut moving L angle 60 as ajar\nexpect facets 2"},
	},
}

// zones looks whether something is written in each.
func zones(r *sequence.Replay, names []string) string {
	for _, n := range names {
		if !slices.ContainsFunc(r.Notes, func(q sequence.Note) bool { return q.Zone == n }) {
			return fmt.Sprintf("nothing is written in the zone %s: add a step such as label P \"text\" zone %s", n, n)
		}
	}
	var stray []string
	for _, q := range r.Notes {
		if q.Zone != "" && !slices.Contains(names, q.Zone) && !slices.Contains(stray, q.Zone) {
			stray = append(stray, q.Zone)
		}
	}
	if len(stray) > 0 {
		return fmt.Sprintf("labels name the zone %s, which is not among the zones: add it to the line, or write another", strings.Join(stray, ", "))
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
