package motion_test

import (
	"errors"
	"math"
	"slices"
	"strings"
	"testing"

	"tussock/internal/given"
	"tussock/internal/motion"
)

var swimming = motion.Way{
	Conditions: []motion.Condition{
		{Name: "speed", Label: "Speed", Unit: "m/s", Default: 2, Min: 0.5, Max: 9, Step: 0.5, Least: 1, Most: 5},
		{Name: "weir", Label: "Weir", Unit: "m", Min: 0.1, Max: 2, None: true},
		{Name: "water", Label: "Water", Max: 2, Options: []motion.Option{{Value: 0, Label: "salt"}, {Value: 2, Label: "fresh"}}, Logged: true},
	},
	Chips: []motion.Chip{{Name: "floated"}, {Name: "sank", Bad: true}, {Name: "rolled", Bad: true}},
}

// Conditions that are not given stand at their defaults; what is out of range, no choice or
// unknown is refused by name, value and fix; none of a thing is always possible.
func TestConditions(t *testing.T) {
	c, err := swimming.Full(motion.Conditions{"weir": 0, "water": 2})
	if err != nil || c["speed"] != 2 || c["weir"] != 0 || c["water"] != 2 || len(c) != 3 {
		t.Errorf("%v, %v", c, err)
	}
	for name, bad := range map[string]motion.Conditions{
		"speed": {"speed": 10}, "weir": {"weir": 0.05}, "water": {"water": 1}, "tide": {"tide": 1},
	} {
		_, err := swimming.Full(bad)
		var f *given.Error
		if !errors.As(err, &f) || f.Field != name || !strings.Contains(err.Error(), "it must be") {
			t.Errorf("%v: %v", bad, err)
		}
	}
	if _, err := swimming.Full(motion.Conditions{"speed": math.NaN()}); err == nil {
		t.Error("no number is taken for a speed")
	}
	fits := swimming
	fits.Fits = func(c motion.Conditions) error {
		return &given.Error{Field: "speed", Value: c["speed"], Want: "slower at a weir"}
	}
	if _, err := fits.Full(nil); err == nil {
		t.Error("conditions that do not go together are taken")
	}
	if n := swimming.Named(map[string]string{"water": "fresh", "speed": "fast", "moon": "full"}); len(n) != 1 || n["water"] != 2 {
		t.Errorf("%v", n)
	}
	l := swimming.Levers(c)
	if len(l) != 1 || !l[0].Trial || l[0].Min != 1 || l[0].Value != 2 {
		t.Errorf("%+v", l)
	}
	knobs, conditions := motion.Split(append(l, motion.Lever{Name: "fin"}), []float64{3, 4})
	if knobs["fin"] != 4 || conditions["speed"] != 3 || len(knobs)+len(conditions) != 2 {
		t.Errorf("%v and %v", knobs, conditions)
	}
}

// The symptom is the fault seen most, in at least half of what was noted and twice at
// least; who has not looked is told to look.
func TestLook(t *testing.T) {
	log := func(chips ...string) []motion.Noted {
		var out []motion.Noted
		for _, c := range chips {
			n := motion.Noted{}
			if c != "" {
				n.Chips = strings.Split(c, "+")
			}
			out = append(out, n)
		}
		return out
	}
	for name, q := range map[string]struct {
		log     []motion.Noted
		symptom string
		clear   bool
		wants   int
	}{
		"nothing":          {nil, "", false, 3},
		"two":              {log("sank", "sank"), "", false, 1},
		"not looked":       {log("", "", ""), "", false, 0},
		"once":             {log("sank", "floated", "floated"), "", true, 0},
		"mostly":           {log("sank", "sank", "floated"), "sank", false, 0},
		"unnoted left out": {log("sank", "sank", "", "", ""), "sank", false, 0},
		"two faults":       {log("sank+rolled", "sank+rolled", "rolled"), "rolled", false, 0},
		"as often":         {log("sank+rolled", "sank+rolled", ""), "sank", false, 0},
	} {
		f, _, ok := motion.Look(q.log, swimming.Bad(), "swim", "swims")
		if f.Symptom != q.symptom || f.Clear != q.clear || f.Wants != q.wants || ok != (q.symptom != "") || f.Title == "" && !ok {
			t.Errorf("%s: %+v", name, f)
		}
	}
}

// What is read without a side is as far as the same trials are, whichever way they went.
func TestUnsidedRange(t *testing.T) {
	for _, v := range [][]float64{{1, 2, 3, 4, 5}, {-5, -4, -3, -2, -1}, {-1, 0, 2, 3, 8}, {-8, -3, -2, 0, 1}} {
		r, abs := motion.RangeOf(slices.Clone(v)).Unsided(), slices.Clone(v)
		for i := range abs {
			abs[i] = math.Abs(abs[i])
		}
		all := motion.RangeOf(abs)
		if r.Middle < 0 || r.Lo < 0 || r.Lo > r.Hi || r.Lo95 < 0 || r.Middle > r.Hi || math.Abs(r.Hi95-all.Hi95) > 1e-9 || r.Lo95 > all.Lo95+1e-9 || r.Hi < all.Middle {
			t.Errorf("%v: %+v", v, r)
		}
	}
}

// A log of readings alone is told by the side of the prediction that its middle lies on.
func TestReadingsAlone(t *testing.T) {
	said := motion.Range{Lo: 4, Middle: 5, Hi: 6, Lo95: 3, Hi95: 7}
	for symptom, read := range map[string][]float64{motion.Shorter: {2, 4.5, 1, 6}, motion.Farther: {8, 9, 5.5, 4}} {
		f := motion.Finding{Clear: true, Of: 9}
		f.Unlike(read, said)
		if f.Symptom != symptom || f.Seen != 3 || f.Of != 4 || f.Clear {
			t.Errorf("%s: %+v", symptom, f)
		}
	}
	if said.Holds(2.9) || !said.Holds(3) || !said.Holds(7) || said.Holds(7.1) {
		t.Error("what nineteen of twenty hold")
	}
}

func TestRangeAndWeights(t *testing.T) {
	r := motion.RangeOf([]float64{5, 1, 3, 2, 4, 0, 10, 9, 8, 7, 6})
	if r != (motion.Range{Lo: r.Lo, Middle: 5, Hi: 9.4, Lo95: 0, Hi95: 10}) || math.Abs(r.Lo-0.6) > 1e-12 || motion.RangeOf(nil) != (motion.Range{}) || motion.RangeOf([]float64{7}) != (motion.Range{Lo: 7, Middle: 7, Hi: 7, Lo95: 7, Hi95: 7}) {
		t.Errorf("%+v", r)
	}
	f := motion.Finding{Causes: []motion.Cause{{Words: "b", Weight: 1}, {Words: "a", Weight: 3}, {Words: "c", Weight: 1}}}
	f.Weigh()
	if f.Causes[0].Words != "a" || f.Causes[0].Weight != 0.6 || f.Causes[1].Words != "b" {
		t.Errorf("%+v", f.Causes)
	}
	if v := motion.Values([]motion.Noted{{Read: map[string]float64{"x": 1}}, {}, {Read: map[string]float64{"x": 0}}}, "x"); len(v) != 2 || v[1] != 0 {
		t.Errorf("%v", v)
	}
	if w := (motion.Way{Conditions: []motion.Condition{{}}, Records: []motion.Record{{}}}).Filled(); w.Chips == nil || w.Conditions[0].Options == nil || w.Records[0].Sides == nil {
		t.Error("lists are missing")
	}
}

// One number is learnt by Bayes' rule with normal logarithms: nothing from too few trials,
// between belief and log from some, what the log says from many; and never surer than the
// floor.
func TestLearnFactor(t *testing.T) {
	d := motion.Doubt{Before: 0.5, Trial: 0.4, Toy: 0.1, Floor: 0.05}
	learn := func(f float64, n, toys int) motion.Calibration {
		var all []motion.Observation
		for i := range toys {
			all = append(all, motion.Observation{Build: int64(i)})
		}
		return motion.LearnFactor("it", d, all, func(motion.Observation) (float64, int) { return f, n })
	}
	if c := learn(2, 2, 5); c.Trials != 0 || c.Factor != 0 || c.What != "it" {
		t.Errorf("from two trials each: %+v", c)
	}
	if c := learn(math.NaN(), 9, 5); c.Trials != 0 {
		t.Errorf("from no number: %+v", c)
	}
	// By hand: weights 1/0.25 and 1/(0.01 + 0.16/4).
	one := learn(2, 4, 1)
	w := 1 / (0.01 + 0.16/4)
	if want := math.Exp(w * math.Log(2) / (4 + w)); math.Abs(one.Factor-want) > 1e-12 || math.Abs(one.Spread-math.Sqrt(1/(4+w)+0.0025)) > 1e-12 || one.Trials != 4 || one.Builds != 1 {
		t.Errorf("%+v, want %v", one, want)
	}
	many := learn(2, 50, 200)
	if math.Abs(many.Factor-2) > 0.01 || many.Spread < d.Floor || many.Spread > 1.3*d.Floor || many.Builds != 200 {
		t.Errorf("%+v", many)
	}
}

// The first remedy that is put forward is the one to try, the others are other ways.
func TestPropose(t *testing.T) {
	f := motion.Finding{Others: []motion.Remedy{}}
	f.Propose(motion.Remedy{Do: "this"})
	f.Propose(motion.Remedy{Do: "that"})
	if f.Remedy == nil || f.Remedy.Do != "this" || f.Remedy.Changes == nil || len(f.Others) != 1 || f.Others[0].Do != "that" {
		t.Errorf("%+v", f)
	}
}
