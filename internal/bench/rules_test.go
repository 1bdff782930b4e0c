package bench_test

import (
	"strings"
	"testing"
	"time"

	"tussock/internal/bench"
	"tussock/internal/motion"
)

// What lies on the table is a draft only while it differs from the newest tweak: as it
// folds, or in how its sheet is got.
func TestDrafts(t *testing.T) {
	b := &bench.Build{Tweaks: []bench.Tweak{{No: 1, Setup: setup(0, 90)}}}
	if d := b.Drafted(setup(0, 90)); d != nil {
		t.Errorf("moved back it is still a draft: %+v", d)
	}
	if d := b.Drafted(setup(0, 80)); d == nil || d.Knobs["wing"] != 80 {
		t.Errorf("a moved knob is kept as %+v", d)
	}
	other := setup(0, 90)
	other.Recipes = map[string]int{"nose": 2}
	if b.Drafted(other) == nil {
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
