package bench_test

import (
	"strings"
	"testing"
	"time"

	"tussock/internal/bench"
	"tussock/internal/motion"
)

// What lies on the table is a draft only while it differs from the tweak: as it
// folds, or in how its sheet is got.
func TestDrafts(t *testing.T) {
	b := &bench.Build{Tweaks: []bench.Tweak{{No: 1, Setup: setup(0, 90)}}}
	if d := drafted(b, setup(0, 90)); d != nil {
		t.Errorf("moved back it is still a draft: %+v", d)
	}
	if d := drafted(b, setup(0, 80)); d == nil || d.Knobs["wing"] != 80 {
		t.Errorf("a moved knob is kept as %+v", d)
	}
	other := setup(0, 90)
	other.Recipes = map[string]int{"nose": 2}
	if drafted(b, other) == nil {
		t.Error("another way to get the sheet is forgotten")
	}
	if d := b.Undrafted(map[string]float64{"wing": 1}); d != nil {
		t.Errorf("thrown away there is the tweak, not %+v", d)
	}
	fresh := &bench.Build{Draft: ref(setup(3, 70))}
	if d := fresh.Undrafted(map[string]float64{"wing": 1}); d == nil || d.Knobs["wing"] != 1 || d.Sheet.HeightMM != 297 {
		t.Errorf("without a tweak there is the pattern on the sheet, not %+v", d)
	}
}

func ref(s bench.Setup) *bench.Setup { return &s }

// Names: the first number that is free, and copies that are not too long.
func TestNamesOfBuilds(t *testing.T) {
	all := []*bench.Build{{Name: "Plover 1"}, {Name: "Plover 3"}}
	if n := bench.FreshName("Plover", all); n != "Plover 2" {
		t.Errorf("%q", n)
	}
	long := bench.CopyName(strings.Repeat("é", bench.MaxName))
	if n := len([]rune(long)); n != bench.MaxName || !strings.HasPrefix(long, "Copy of é") {
		t.Errorf("%d characters: %q", n, long)
	}
}

// A trial begins as the last one of this build did, by the clock and not by the order of
// tweaks; where there is none, as the last of any other build, but with a kind of its own.
// Only readings that are conditions are carried over.
func TestTrialBeginsAsTheLast(t *testing.T) {
	w := &motion.Way{Records: []motion.Record{{ID: "far", Unit: "m", Max: 9}, {ID: "from", Unit: "m", Max: 9, Kept: true}},
		Kinds: []motion.Kind{{Name: "plain", Record: "far"}, {Name: "odd", Record: "far"}}}
	at := func(minute int) time.Time { return time.Date(2026, 3, 1, 10, minute, 0, 0, time.UTC) }
	early := bench.Trial{At: at(1), Thrower: "Ilse", Place: "quay", Kind: "odd", Read: map[string]float64{"far": 3, "from": 1.2}}
	late := bench.Trial{At: at(9), Thrower: "Tova", Air: "still", Kind: "plain", Read: map[string]float64{"far": 5, "from": 1.7}}
	tried := &bench.Build{Tweaks: []bench.Tweak{{No: 1, Trials: []bench.Trial{late}}, {No: 2, Setup: setup(0, 80), Trials: []bench.Trial{early}}, {No: 3, Setup: setup(0, 70)}}}
	got := bench.Again(tried, bench.Trial{Thrower: "Nobody"}, w)
	if got.Thrower != "Tova" || got.Air != "still" || got.Kind != "plain" || len(got.Read) != 1 || got.Read["from"] != 1.7 {
		t.Errorf("%+v", got)
	}
	other := &bench.Build{Tweaks: []bench.Tweak{{No: 1, Trials: []bench.Trial{early}}}}
	if last, found := other.Newest(); !found || last.Thrower != early.Thrower {
		t.Errorf("the newest is %+v", last)
	}
	last, _ := tried.Newest()
	got = bench.Again(&bench.Build{}, last, w)
	if got.Thrower != "Tova" || got.Kind != "" || got.Read["from"] != 1.7 {
		t.Errorf("with others' conditions: %+v", got)
	}
	if got = bench.Again(&bench.Build{}, bench.Trial{}, w); got.Thrower != "" || len(got.Read) != 0 {
		t.Errorf("with nobody's: %+v", got)
	}

	// The set-up tried last is the last tweak that has trials.
	s, trials := tried.Tried()
	if s.Knobs["wing"] != 80 || len(trials) != 1 || trials[0].Thrower != "Ilse" {
		t.Errorf("%+v, %+v", s, trials)
	}
	if s, trials = (&bench.Build{Draft: ref(setup(1, 2))}).Tried(); s.Knobs["wing"] != 2 || len(trials) != 0 {
		t.Errorf("%+v, %+v", s, trials)
	}
}

// What counts for a way of moving is told of the newest tweak that has such a reading.
func TestResult(t *testing.T) {
	w := &motion.Way{Records: []motion.Record{{ID: "far", Unit: "m", Max: 9}, {ID: "time", Unit: "s", Max: 9}}, Kinds: []motion.Kind{{Name: "plain", Record: "far", Others: []string{"time"}}}}
	trial := func(id string, v float64) bench.Trial { return bench.Trial{Read: read(id, v)} }
	b := &bench.Build{Tweaks: []bench.Tweak{{No: 1, Trials: []bench.Trial{trial("far", 2), trial("far", 4)}}, {No: 2, Trials: []bench.Trial{trial("time", 3)}}}}
	if id, s := b.Result(w); id != "far" || s.N != 2 || s.Median != 3 || s.Best != 4 {
		t.Errorf("%s %+v", id, s)
	}
	if id, s := (&bench.Build{}).Result(w); id != "far" || s.N != 0 {
		t.Errorf("%s %+v", id, s)
	}
}

// What was moved to where an older tweak has it is that tweak again: its trials count on.
// A tweak with other hard folds is another toy once anything was tried.
func TestSetSoAgain(t *testing.T) {
	fresh := func(tried int) *bench.Build {
		return &bench.Build{Version: 1, Tweaks: []bench.Tweak{{No: 1, Setup: setup(0, 70), Tried: tried}, {No: 2, Setup: setup(4, 80), Tried: tried}, {No: 3, Setup: setup(0, 90), Tried: tried}}}
	}
	b := fresh(2)
	if err := b.Put(bench.Moves{Version: 1, Knobs: map[string]float64{"wing": 70}}, folds{}); err != nil {
		t.Fatal(err)
	}
	if b.Draft != nil || b.OnTable().No != 1 || b.Current().Knobs["wing"] != 70 || b.Version != 2 {
		t.Errorf("%+v at %d", b.Draft, b.At)
	}
	if tw, err := b.Book(setup(0, 70), 2, folds{}, way); err != nil || tw.No != 1 || len(b.Tweaks) != 3 {
		t.Errorf("booked at %+v, %v", tw, err)
	}
	// From there on: a draft of tweak 1, and what is settled is the newest of all.
	if err := b.Put(bench.Moves{Version: 2, Knobs: map[string]float64{"wing": 72}}, folds{}); err != nil || b.Draft == nil || b.OnTable().No != 1 {
		t.Errorf("%v, %+v at %d", err, b.Draft, b.At)
	}
	if err := b.Discard(b.Version, nil); err != nil || b.Current().Knobs["wing"] != 70 {
		t.Errorf("put back to %+v", b.Current())
	}
	if err := b.Put(bench.Moves{Version: b.Version, Knobs: map[string]float64{"wing": 72}}, folds{}); err != nil {
		t.Fatal(err)
	}
	if err := b.SettleAs(b.Version, "", folds{}, way); err != nil || b.OnTable().No != 4 || b.Current().Knobs["wing"] != 72 {
		t.Errorf("%v, %+v", err, b.OnTable())
	}
	for tried, want := range map[int]int{0: 2, 2: 3} {
		b := fresh(tried)
		if err := b.Put(bench.Moves{Version: 1, Knobs: map[string]float64{"wing": 80, "nose": 4}}, folds{}); err != nil || b.OnTable().No != want || (b.Draft == nil) != (want == 2) {
			t.Errorf("with %d trials: %v, at %d with draft %+v", tried, err, b.OnTable().No, b.Draft)
		}
	}
}

// A tweak is taken back into the draft that it was, with whatever was moved since, and
// only the newest, while nothing is logged at it.
func TestWithdraw(t *testing.T) {
	b := &bench.Build{Version: 1, Tweaks: []bench.Tweak{{No: 1, Setup: setup(0, 70), Tried: 1}, {No: 2, Setup: setup(0, 80)}}}
	for _, no := range []int{1, 3} {
		if err := b.Withdraw(no, folds{}); err == nil {
			t.Errorf("tweak %d was taken back", no)
		}
	}
	if err := b.Withdraw(2, folds{}); err != nil || len(b.Tweaks) != 1 || b.Draft == nil || b.Current().Knobs["wing"] != 80 || b.Version != 1 {
		t.Errorf("%v, %+v", err, b)
	}
	if err := b.Withdraw(1, folds{}); err == nil {
		t.Error("a tweak with a trial was taken back")
	}
	moved := &bench.Build{Version: 1, Draft: ref(setup(0, 75)), Tweaks: []bench.Tweak{{No: 1, Setup: setup(0, 70)}}}
	if err := moved.Withdraw(1, folds{}); err != nil || moved.OnTable() != nil || moved.Current().Knobs["wing"] != 75 {
		t.Errorf("%v, %+v", err, moved)
	}
}

// A reading far off all others is asked for once more: a slip of the point or of a key,
// not a bad throw.
func TestOddReadings(t *testing.T) {
	w := &motion.Way{Records: []motion.Record{{ID: "distance", Label: "Distance", Unit: "m", Max: 100}, {ID: "aside", Unit: "m", Sides: []string{"left", "right"}}}}
	log := func(v ...float64) *bench.Build {
		b := &bench.Build{Tweaks: []bench.Tweak{{No: 1}}}
		for _, x := range v {
			b.Tweaks[0].Trials = append(b.Tweaks[0].Trials, bench.Trial{Read: map[string]float64{"distance": x, "aside": x}})
		}
		return b
	}
	for _, c := range []struct {
		v     float64
		other []float64
		odd   bool
	}{
		{55, []float64{4.9, 5.5, 6.1}, true}, {0.55, []float64{4.9, 5.5, 6.1}, true}, {9, []float64{4.9, 5.5, 6.1}, false},
		{1.2, []float64{4.9, 5.5, 6.1}, false}, {55, []float64{4.9, 6.1}, false}, {0, []float64{0, 0, 0}, false}, {3, []float64{0, 0, 0}, false},
	} {
		err := log(c.other...).Odd(bench.Trial{Read: map[string]float64{"distance": c.v, "aside": c.v}}, w)
		if (err != nil) != c.odd {
			t.Errorf("%v among %v: %v", c.v, c.other, err)
		}
		if c.v == 55 && err != nil && !strings.Contains(err.Error(), "55 m? The others are 4.9 to 6.1 m") {
			t.Error(err)
		}
	}
}

func drafted(b *bench.Build, s bench.Setup) *bench.Setup {
	d, _ := b.Drafted(s, folds{}.IsHard)
	return d
}
