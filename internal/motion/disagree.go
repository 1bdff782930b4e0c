package motion

import (
	"fmt"
	"slices"

	"tussock/internal/order"
	"tussock/internal/say"
)

// A fault that was noted in half of the trials, and is predicted in less than a tenth, is
// not what was predicted.
const notedShare, foretoldShare = 0.5, 0.1

// Disagrees says in words where a log lies elsewhere than its prediction: a middle outside
// of where nineteen of twenty trials were predicted, or another mode than any predicted
// one. It is "" when both agree, or too little was logged.
func (w *Way) Disagrees(p Prediction, log []Noted) string {
	if w.About != nil {
		log = slices.DeleteFunc(slices.Clone(log), func(n Noted) bool { return !w.About(p, n) })
	}
	var out string
	add := func(s string) {
		if out != "" {
			out += " "
		}
		out += s
	}
	for _, o := range p.Outcomes {
		r, known := w.Record(o.ID)
		v := Values(log, o.ID)
		if !known || len(v) < Enough || o.Most > 0 && o.Middle > o.Most { // what is not to be trusted is not held against it
			continue
		}
		said := Range{o.Lo, o.Middle, o.Hi, o.Lo95, o.Hi95}
		if len(r.Sides) == 0 && len(o.Sides) > 0 { // logged without a side
			said = said.Unsided()
		}
		if d := order.Median(v); !said.Holds(d) {
			add(fmt.Sprintf("%s: %s in the middle of %d %s; predicted were %s, and %s to %s in nineteen of twenty.", r.Label, say.Value(d, r.Unit, o.Decimals), len(v), w.Words.Many,
				say.Value(said.Middle, r.Unit, o.Decimals), say.Value(said.Lo95, r.Unit, o.Decimals), say.Value(said.Hi95, r.Unit, o.Decimals)))
		}
	}
	noted := 0
	for _, n := range log {
		if len(n.Chips) > 0 {
			noted++
		}
	}
	for _, c := range w.Chips {
		if len(c.Modes) == 0 || noted < Enough {
			continue
		}
		seen, share := 0, 0.0
		for _, n := range log {
			if slices.Contains(n.Chips, c.Name) {
				seen++
			}
		}
		for _, m := range p.Modes {
			if slices.Contains(c.Modes, m.Mode) {
				share += m.Share
			}
		}
		if float64(seen) >= notedShare*float64(noted) && share < foretoldShare {
			add(fmt.Sprintf("You noted %s in %d of %d; it is predicted in %.0f of 100.", c.Name, seen, noted, 100*share))
		}
	}
	return out
}
