package bench_test

import (
	"errors"
	"math"
	"slices"
	"strings"
	"testing"
	"unicode/utf8"

	"tussock/internal/bench"
	"tussock/internal/given"
	"tussock/internal/motion"
)

// gliding is a way of moving as trials know it.
var gliding = motion.Way{
	Kinds:   []motion.Kind{{Name: "throw", Record: "distance", Others: []string{"time", "from"}}, {Name: "target", Record: "miss"}},
	Records: []motion.Record{{ID: "distance", Label: "Distance", Unit: "m", Max: 200}, {ID: "time", Label: "Time", Unit: "s", Max: 120}, {ID: "from", Label: "From", Unit: "m", Max: 20, Kept: true}, {ID: "miss", Label: "Miss", Unit: "m", Max: 5, Less: true}},
	Chips:   []motion.Chip{{Name: "glided"}, {Name: "dived", Bad: true}},
}

func read(id string, v float64) map[string]float64 { return map[string]float64{id: v} }

// A trial that no throw can have given is refused by the name of its field; one
// at the very limits is taken.
func TestTrialsThatCannotBe(t *testing.T) {
	good := bench.Trial{Read: read("distance", 7), Seen: []string{"glided"}}
	for _, c := range []struct {
		field string
		spoil func(*bench.Trial)
	}{
		{"distance", func(t *bench.Trial) { t.Read = read("distance", -0.1) }},
		{"distance", func(t *bench.Trial) { t.Read = read("distance", math.NaN()) }},
		{"distance", func(t *bench.Trial) { t.Read = read("distance", math.Inf(1)) }},
		{"time", func(t *bench.Trial) { t.Read = read("time", 121) }},
		{"from", func(t *bench.Trial) { t.Read = read("from", 20.5) }},
		{"beak", func(t *bench.Trial) { t.Read = read("beak", 1) }},
		{"kind", func(t *bench.Trial) { t.Kind = "sung" }},
		{"distance", func(t *bench.Trial) { *t = bench.Trial{Read: read("from", 1.6)} }},
		{"seen", func(t *bench.Trial) { t.Seen = []string{"glided", "sang"} }},
		{"thrower", func(t *bench.Trial) { t.Thrower = strings.Repeat("é", bench.MaxName+1) }},
		{"place", func(t *bench.Trial) { t.Place = strings.Repeat("x", bench.MaxName+1) }},
		{"air", func(t *bench.Trial) { t.Air = strings.Repeat("x", bench.MaxName+1) }},
		{"note", func(t *bench.Trial) { t.Note = strings.Repeat("x", bench.MaxNote+1) }},
		{"distance", func(t *bench.Trial) { *t = bench.Trial{Note: " \n", Thrower: "Ilse"} }},
	} {
		bad := good
		c.spoil(&bad)
		var p *given.Error
		if err := bad.Check(&gliding); !errors.As(err, &p) || p.Field != c.field {
			t.Errorf("%+v: got %v, want a problem with %s", bad, err, c.field)
		} else if !strings.HasPrefix(strings.ToLower(p.Error()), c.field+" is ") || !strings.Contains(p.Error(), "it must be ") {
			t.Errorf("%q does not name the field, the value and the fix", p.Error())
		}
	}
	for _, ok := range []bench.Trial{
		good, {Read: read("distance", 0)}, {Read: read("time", 120)}, {Note: "sat in a tree"}, {Seen: []string{"glided", "dived"}}, {Kind: "target", Read: read("miss", 1)},
		{Read: map[string]float64{"distance": 200, "from": 20}, Thrower: strings.Repeat("é", bench.MaxName), Note: strings.Repeat("x", bench.MaxNote)},
	} {
		if err := ok.Check(&gliding); err != nil {
			t.Errorf("%+v is refused: %v", ok, err)
		}
	}
}

// Readings are those that were taken, in the order of the trials; a trial with
// none does not count as nought.
func TestReadings(t *testing.T) {
	trials := []bench.Trial{{Read: read("distance", 7)}, {Read: read("time", 2)}, {Read: map[string]float64{"distance": 0, "time": 0}}, {Note: "lost"}, {Read: read("distance", 9)}}
	if got := bench.Readings(trials, "distance"); !slices.Equal(got, []float64{7, 0, 9}) {
		t.Errorf("distances %v", got)
	}
	if got := bench.Readings(trials, "time"); !slices.Equal(got, []float64{2, 0}) {
		t.Errorf("times %v", got)
	}
	if s := bench.Summarise(bench.Readings(trials[:2], "distance")); s.N != 1 || s.Best != 7 || s.Q1 != 7 || s.Q3 != 7 {
		t.Errorf("one reading sums up to %+v", s)
	}
	if bench.Readings(nil, "distance") != nil || bench.Summarise(nil) != (bench.Stats{}) {
		t.Error("no trials give readings")
	}
	all := append(trials, bench.Trial{Read: read("miss", 0.4)}, bench.Trial{Read: read("miss", 0.1)})
	sums := bench.Summaries(all, &gliding)
	if len(sums) != 3 || sums["miss"].Best != 0.1 || sums["distance"].Best != 9 {
		t.Errorf("summaries %+v: less is better for a miss", sums)
	}
}

// Names are trimmed, kept whatever their script, and refused when nothing or too
// much is left.
func TestNames(t *testing.T) {
	for _, c := range []struct{ in, out string }{
		{"  Pier first ", "Pier first"}, {"☂", "☂"}, {strings.Repeat("é", bench.MaxName), strings.Repeat("é", bench.MaxName)},
		{"", ""}, {" \t\n", ""}, {strings.Repeat("é", bench.MaxName+1), ""},
	} {
		got, err := bench.CleanName("name", c.in)
		if got != c.out || (err == nil) != (c.out != "") {
			t.Errorf("%q becomes %q, %v", c.in, got, err)
		}
		if err != nil && !strings.Contains(err.Error(), "name is ") {
			t.Errorf("%q does not name the field", err)
		}
		if utf8.RuneCountInString(got) > bench.MaxName {
			t.Errorf("%q is too long", got)
		}
	}
}

func TestColours(t *testing.T) {
	for c, ok := range map[string]bool{bench.DefaultFront: true, bench.DefaultBack: true, "#000000": true,
		"": false, "#fff": false, "#FDF8EA": false, "fdf8ea": false, "#fdf8ea ": false, "#fdf8ea\n": false, "red": false, "url(x)": false, "#00000g": false} {
		if err := bench.CheckColour("front", c); (err == nil) != ok {
			t.Errorf("%q: %v", c, err)
		}
	}
}

// What lies on the table is the draft, else the newest tweak, and changing it
// changes neither.
func TestWhatLiesOnTheTable(t *testing.T) {
	draft := setup(3, 80)
	b := bench.Build{Tweaks: []bench.Tweak{{No: 1, Setup: setup(0, 90)}, {No: 2, Setup: setup(1, 85)}}}
	if got := b.Current(); got.Knobs["nose"] != 1 {
		t.Errorf("without a draft %v lies there", got.Knobs)
	}
	b.Draft = &draft
	got := b.Current()
	if got.Knobs["nose"] != 3 {
		t.Errorf("with a draft %v lies there", got.Knobs)
	}
	got.Knobs["nose"] = 99
	if draft.Knobs["nose"] != 3 {
		t.Error("the draft was changed through its copy")
	}
	b.Draft = nil
	b.Current().Knobs["nose"] = 99
	if b.Latest().Setup.Knobs["nose"] != 1 {
		t.Error("the tweak was changed through its copy")
	}
	if empty := (&bench.Build{}).Current(); empty.Knobs == nil || len(empty.Knobs) != 0 {
		t.Errorf("nothing yet is %+v", empty)
	}
}
