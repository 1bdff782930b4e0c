package glide

import (
	"context"
	"fmt"
	"math"
	"slices"

	"tussock/internal/motion"
	"tussock/internal/motion/blame"
	"tussock/internal/motion/glide/flight"
	"tussock/internal/order"
	"tussock/internal/say"
)

// The clinic: from what was read and seen of throws to the likeliest cause, and to the
// smallest change that should help.

// symptoms are the chips that call for a cure, the worst first where several were seen
// as often.
var symptoms = []string{"rolled", "looped", "dived", "stalled", "turned left", "turned right"}

// chips are what is looked for in a log.
var chips = append(slices.Clone(symptoms), "glided")

// asExpected is the share of the belief that all is as it is set from which, with no fault
// noted, there is nothing to cure.
const asExpected = 0.42

// Examine finds what to change after throws at knob values.
func (w *Workbench) Examine(ctx context.Context, knobs map[string]float64, log []motion.Noted) (motion.Finding, error) {
	out, count, sick := motion.Look(log, symptoms, "throw", "throws")
	w = w.asked(ctx)
	m, err := w.Model(knobs)
	if err != nil || out.Wants > 0 {
		return out, err
	}
	trials := noted(log)
	if !slices.ContainsFunc(trials, func(t blame.Trial) bool { return t.Noted || !math.IsNaN(t.Read[0]) }) {
		return out, nil
	}
	e := &examination{w: w, knobs: knobs, m: m, log: log, throw: w.throw(m), out: &out}
	if err := e.weigh(trials); err != nil {
		return out, err
	}
	if !sick && e.expected() {
		if out.Clear && count["dived"] > 0 && count["stalled"] > 0 {
			out.Title, out.Clear = "It dives and it stalls: throw more evenly first", false
		}
		return out, nil
	}
	e.conclude()
	return out, ctx.Err()
}

// expected tells whether a log without a fault lies as predicted; if not, what its readings
// tell is the symptom.
func (e *examination) expected() bool {
	read := e.readings(Distance)
	if len(read) < motion.Enough {
		return true
	}
	said := e.m.Spread(e.throw, e.w.Room, e.w.Scatter, motion.Draws).Distance
	d := order.Median(read)
	// Nobody wants cured what lies at the upper end of what is predicted.
	if said.Holds(d) && (e.share(asSet) >= asExpected || d >= said.Middle) {
		return true
	}
	e.out.Unlike(read, said)
	// All as it is set is what the log speaks against.
	e.verdicts = slices.DeleteFunc(e.verdicts, func(v blame.Verdict) bool { return v.Cause == asSet })
	return false
}

type examination struct {
	w        *Workbench
	knobs    map[string]float64
	m        *flight.Model
	log      []motion.Noted
	throw    flight.Throw
	out      *motion.Finding
	faults   []fault
	models   []*flight.Model // with each
	cases    []blame.Case
	shares   []float64
	verdicts []blame.Verdict
	believed []believed
}

func (e *examination) value(knob string) float64 { return e.w.Value(e.knobs, knob) }

// readings of a log.
func (e *examination) readings(id string) []float64 { return motion.Values(e.log, id) }

// share of a cause.
func (e *examination) share(cause string) float64 {
	for _, v := range e.verdicts {
		if v.Cause == cause {
			return v.Share
		}
	}
	return 0
}

// beginnings of titles, by what was seen.
var beginnings = map[string]string{"rolled": "It rolls over.", "looped": "It loops.", "dived": "It dives.", "stalled": "It stalls.", "turned left": "It turns left.", "turned right": "It turns right.",
	motion.Shorter: "It comes shorter than predicted.", motion.Farther: "It comes farther than predicted."}

// outstanding is the share from which a cause stands out.
const outstanding = 0.2

// mostTied is how many causes are named that cannot be told apart: more say nothing.
const mostTied = 6

// conclude names the causes with what each foretells, and what to do or to test.
func (e *examination) conclude() {
	f := e.out
	e.lead()
	tied := blame.Tied(e.verdicts, kindOf)
	e.verdicts = first(e.verdicts, tied)
	f.Confidence = motion.Possible
	switch {
	case len(tied) > 1 && tied[0].Cause != asSet:
		f.Confidence, f.Tied, f.Test = motion.Unsure, min(len(tied), mostTied), e.test(tied)
	case e.verdicts[0].Share > 0.5:
		f.Confidence = motion.Likely
	}
	const shown = 5
	for i, v := range e.verdicts[:min(max(shown, len(tied)), len(e.verdicts))] {
		if v.Share > 0.02 || i < max(2, len(tied)) {
			f.Causes = append(f.Causes, motion.Cause{Words: say.Capital(v.Cause), Law: law(v.Cause, e.m, e.throw), Log: e.foretold(v.Cause), Weight: v.Share})
		}
	}
	// Where readings alone are off, and no cause stands out, nothing is bent.
	standsOut := slices.Contains(symptoms, f.Symptom) || e.verdicts[0].Share >= outstanding
	f.Title = beginnings[f.Symptom] + " "
	if standsOut {
		f.Title += e.treat()
	}
	if f.Remedy == nil {
		f.Title += map[bool]string{true: "No change is predicted to help: try a throw.", false: "No cause stands out: try a throw."}[standsOut]
		f.Remedy = &motion.Remedy{Changes: []motion.Change{}, Do: fmt.Sprintf("Throw it at about %.1f m/s", e.w.ownSpeed(e.m)), Where: "a little down, and leave it as it is. Then three throws more.", School: "test throw",
			Why: "Bending what may be right makes it worse.", Then: "What three gentle throws do tells more than a bend.", Against: "If they go as before, measure the toy against the card."}
	}
}

// lead puts first that all is as it is set, where that itself foretells what was seen and is
// believed nearly as much as any fault: nothing else is needed then.
func (e *examination) lead() {
	at := slices.IndexFunc(e.verdicts, func(v blame.Verdict) bool { return v.Cause == asSet })
	k := slices.Index(chips, e.out.Symptom)
	if at < 0 || k < 0 || e.verdicts[at].Share < e.verdicts[0].Share/4 {
		return
	}
	n, seen := 0.0, 0.0
	for _, c := range e.cases {
		if c.Cause != asSet {
			continue
		}
		for _, w := range c.Worlds {
			for _, t := range w {
				n++
				if t.Seen[k] {
					seen++
				}
			}
		}
	}
	if seen < n/2 {
		return
	}
	v := e.verdicts[at]
	e.verdicts = slices.Insert(slices.Delete(e.verdicts, at, at+1), 0, v)
}

// first puts the causes that cannot be told apart before all others.
func first(of, tied []blame.Verdict) []blame.Verdict {
	out := slices.Clone(tied)
	for _, v := range of {
		if !slices.Contains(tied, v) {
			out = append(out, v)
		}
	}
	return out
}

// foretold is what a cause lets expect, beside what was seen.
func (e *examination) foretold(cause string) string {
	var d []float64
	share := make([]float64, len(chips))
	n := 0.0
	for i, c := range e.cases {
		if c.Cause != cause || e.shares[i] < 0.2*e.share(cause) {
			continue
		}
		for _, w := range c.Worlds {
			for _, t := range w {
				d = append(d, math.Exp(t.Read[0]))
				for k, s := range t.Seen {
					if s {
						share[k]++
					}
				}
				n++
			}
		}
	}
	if n == 0 {
		return "it foretells nothing that was read"
	}
	at := 0
	for k := range share {
		if share[k] > share[at] {
			at = k
		}
	}
	out := fmt.Sprintf("it foretells about %s, and %s in %.0f of 100 throws", say.M(order.Median(d), 1), chips[at], 100*share[at]/n)
	if v := e.readings(Distance); len(v) > 0 {
		out += fmt.Sprintf("; the log has %s", say.M(order.Median(v), 1))
	}
	if slices.Contains(symptoms, e.out.Symptom) {
		out += fmt.Sprintf(", %s in %d of %d", e.out.Symptom, e.out.Seen, e.out.Of)
	}
	return out
}
