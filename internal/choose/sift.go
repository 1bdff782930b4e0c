package choose

import (
	"cmp"
	"fmt"
	"slices"

	"tussock/internal/given"
)

// Wish is what lies on the table and who is to fold; what is zero leaves nothing out.
type Wish struct {
	Paper    func(id string) bool // whether the paper at hand gives a sheet for a pattern; nil: any paper
	Have     []Tool               // what lies there besides
	Bare     bool                 // only that: what asks for more is left out
	Minutes  int                  // that there are
	Layers   int                  // that the fingers fold at once
	Audience Audience
	Moves    string
	Show     *bool // made to be looked at, or to be played with
}

// Left is what one filter leaves out, whatever the others do.
type Left struct {
	Filter string   // paper, tools, minutes, layers, audience, moves, purpose
	Says   string   // why, in words that a list of names follows
	Toys   []string // ids
}

// tooMuch is what is said of toys that are nothing for an audience.
var tooMuch = map[Audience]string{Adult: "Too much", Learner: "Too hard for a learner", Child: "Too much for a young child", Class: "Too much for a class"}

// Check refuses what no table has, with a *given.Error.
func (w Wish) Check() error {
	for _, t := range w.Have {
		if !slices.Contains(Tools, t) {
			return &given.Error{Field: "have", Value: fmt.Sprintf("%q", t), Want: "one of scissors, glue, tape, skewer"}
		}
	}
	if w.Minutes < 0 || w.Minutes > 600 {
		return &given.Error{Field: "minutes", Value: w.Minutes, Want: "1 to 600, or nothing"}
	}
	if w.Layers < 0 || w.Layers > 100 {
		return &given.Error{Field: "layers", Value: w.Layers, Want: "1 to 100, or nothing"}
	}
	if w.Audience != "" && !slices.Contains(Audiences, w.Audience) {
		return &given.Error{Field: "audience", Value: fmt.Sprintf("%q", w.Audience), Want: "adult, learner, young child or class"}
	}
	return nil
}

// Sift gives the toys that a wish leaves, the easiest first, and for each filter what it
// leaves out.
func Sift(all []Toy, w Wish) (kept []Toy, out []Left) {
	gone := map[string]bool{}
	filter := func(name, says string, asked bool, keep func(Toy) bool) {
		if !asked {
			return
		}
		l := Left{Filter: name, Says: says}
		for _, t := range all {
			if !keep(t) {
				l.Toys, gone[t.ID] = append(l.Toys, t.ID), true
			}
		}
		out = append(out, l)
	}
	filter("paper", "Not to be had from this paper", w.Paper != nil, func(t Toy) bool { return w.Paper(t.ID) })
	filter("tools", "Ask for more than lies there", w.Bare, func(t Toy) bool {
		return !slices.ContainsFunc(t.Needs, func(n Tool) bool { return !slices.Contains(w.Have, n) })
	})
	filter("minutes", fmt.Sprintf("Longer than %s", counted(w.Minutes, "minute", "minutes")), w.Minutes > 0, func(t Toy) bool { return t.Minutes <= w.Minutes })
	filter("layers", fmt.Sprintf("More than %s in one fold", counted(w.Layers, "layer", "layers")), w.Layers > 0, func(t Toy) bool { return t.Layers <= w.Layers })
	filter("audience", tooMuch[w.Audience], w.Audience != "", func(t Toy) bool { return slices.Contains(t.For, w.Audience) })
	filter("moves", "Move in another way", w.Moves != "", func(t Toy) bool { return t.Moves == w.Moves })
	filter("purpose", "Made for something else", w.Show != nil, func(t Toy) bool { return t.Show == *w.Show })
	for _, t := range all {
		if !gone[t.ID] {
			kept = append(kept, t)
		}
	}
	slices.SortStableFunc(kept, func(a, b Toy) int { return cmp.Compare(a.Score, b.Score) })
	return kept, out
}

// Siblings are the others of a toy's family: the next easier one and the next harder one;
// either may be missing.
func Siblings(t Toy, all []Toy) (easier, harder *Toy) {
	for i := range all {
		o := &all[i]
		if o.ID == t.ID || o.Family == "" || o.Family != t.Family {
			continue
		}
		if o.Score < t.Score && (easier == nil || o.Score > easier.Score) {
			easier = o
		}
		if o.Score > t.Score && (harder == nil || o.Score < harder.Score) {
			harder = o
		}
	}
	return easier, harder
}
