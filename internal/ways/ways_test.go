package ways_test

import (
	"math"
	"slices"
	"testing"

	"tussock/internal/motion"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/ways"
)

// patterns of the shelf that move so, on their own sheets.
func patterns(t *testing.T, way string) []*sequence.Pattern {
	t.Helper()
	all, err := shelf.All()
	if err != nil {
		t.Fatal(err)
	}
	var out []*sequence.Pattern
	for _, p := range all {
		if ways.For(p).Name == way {
			out = append(out, p)
		}
	}
	return out
}

// What every way of moving must hold to, so that the screens need to know nothing else of
// it: names that are mentioned exist, defaults lie in their ranges, and what is promised
// comes back from the bench.
func TestEveryWayHoldsToItsDescription(t *testing.T) {
	for _, w := range ways.All() {
		has := func(id string) bool { _, ok := w.Record(id); return ok }
		for _, k := range w.Kinds {
			for _, id := range append([]string{k.Record}, k.Others...) {
				if id != "" && !has(id) {
					t.Errorf("%s: trials for %s ask for %q", w.Name, k.Name, id)
				}
			}
		}
		for _, c := range w.Conditions {
			inside := c.Default >= c.Min && c.Default <= c.Max || (c.None || c.Own != "") && c.Default == 0
			if !inside || c.Step > 0 && (c.Least < c.Min || c.Most > c.Max || c.Least >= c.Most) || c.Group == "" || c.Label == "" {
				t.Errorf("%s: condition %+v", w.Name, c)
			}
		}
		for _, q := range w.Cautions {
			if _, ok := w.Kind(q.Kind); !ok || q.Text == "" {
				t.Errorf("%s: caution %+v", w.Name, q)
			}
		}
		words := w.Words
		for _, s := range []string{words.One, words.Many, words.Do, words.Log, words.None, words.Who, words.Motion, words.Busy, words.Conditions, words.Last, words.Noting, words.Unlike} {
			if s == "" {
				t.Errorf("%s lacks a word: %+v", w.Name, words)
			}
		}
		c, err := w.Full(nil)
		if err != nil {
			t.Fatalf("%s: %v", w.Name, err)
		}
		for _, p := range patterns(t, w.Name) {
			tries(t, w, p, c)
		}
	}
}

func tries(t *testing.T, w *ways.Way, p *sequence.Pattern, c motion.Conditions) {
	t.Helper()
	on := w.On(p, sheet.Sheet{WidthMM: p.WidthMM, HeightMM: p.HeightMM, GSM: 75, ThicknessMM: 0.095}).Under(c, motion.Calibration{})
	v, err := on.Predict(t.Context(), nil, []motion.Ghost{{Name: "before"}})
	if err != nil || v.Works != w.Predicts || v.Drawing == nil || len(v.Outcomes) == 0 || v.Mode == "" || v.ModeWords == "" {
		t.Errorf("%s %s: %+v, %v", w.Name, p.ID, v, err)
		return
	}
	total := 0.0
	for _, m := range v.Modes {
		total += m.Share
	}
	if total < 0.999 || total > 1.001 {
		t.Errorf("%s: shares of modes sum to %v", p.ID, total)
	}
	for _, o := range v.Outcomes {
		if o.Lo > o.Middle || o.Middle > o.Hi {
			t.Errorf("%s: %+v", p.ID, o)
		}
	}
	look, err := on.Outlook(t.Context(), nil)
	if err != nil || look.ID != v.Outcomes[0].ID {
		t.Errorf("%s: outlook %+v, %v", p.ID, look, err)
	}
	if !w.Predicts {
		return
	}
	if k, _ := w.Kind(""); k.Record != v.Outcomes[0].ID {
		t.Errorf("%s is tried for %q and predicted by %q first", w.Name, k.Record, v.Outcomes[0].ID)
	}
	if !slices.ContainsFunc(v.Readings, func(r motion.Reading) bool { return r.ID == w.Headline && r.Brief != "" }) {
		t.Errorf("%s: nothing called %q to head the slip", p.ID, w.Headline)
	}
	levers := on.Levers(nil)
	named := func(name string) bool {
		return slices.ContainsFunc(levers, func(l motion.Lever) bool { return l.Name == name })
	}
	for _, name := range append(slices.Clone(w.Free), w.Sweep...) {
		if !named(name) {
			t.Errorf("%s has no lever called %q", p.ID, name)
		}
	}
	m, err := on.Measure(levers)(t.Context(), motion.Positions(levers), motion.Rough)
	if err != nil {
		t.Fatalf("%s: %v", p.ID, err)
	}
	for _, g := range w.Measures {
		if _, there := m[g.Name]; !there && g.Shown {
			t.Errorf("%s is not measured by %q", p.ID, g.Name)
		}
	}
	for _, a := range w.Aims {
		if s := on.Goal(a.Name, a.First)(m); math.IsNaN(s) {
			t.Errorf("%s: the score for %q is no number", p.ID, a.Name)
		}
	}
	for _, f := range w.Bad() {
		found, err := on.Examine(t.Context(), nil, []motion.Noted{{Chips: []string{f}}, {Chips: []string{f}}, {Chips: []string{f}}})
		if err != nil || found.Symptom != f || found.Remedy == nil || len(found.Causes) == 0 {
			t.Errorf("%s: no cure for %q: %+v, %v", p.ID, f, found, err)
		}
	}
}

// A way that nobody has written is taken for the first one, and toys without what a way
// needs are told so instead of being predicted.
func TestUnlikeToys(t *testing.T) {
	if ways.Of("swim").Name != "fly" || ways.Of("hop").Name != "hop" {
		t.Error("ways by name")
	}
	p, err := ways.Parse("flat", "pattern \"Flat\"\nmoves hop\nsheet square 100\nvalley bring left to right as k\n")
	if err != nil {
		t.Fatal(err)
	}
	w := ways.Of("hop")
	c, err := w.Full(nil)
	if err != nil {
		t.Fatal(err)
	}
	v, err := w.On(p, sheet.Sheet{WidthMM: 100, HeightMM: 100, GSM: 80, ThicknessMM: 0.1}).Under(c, motion.Calibration{}).Predict(t.Context(), nil, nil)
	if err != nil || v.Works || v.Mode != "no pleat" {
		t.Errorf("%+v, %v", v, err)
	}
}
