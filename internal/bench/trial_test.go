package bench

import (
	"errors"
	"math"
	"slices"
	"strings"
	"testing"
	"unicode/utf8"
)

func reading(v float64) *float64 { return &v }

// A trial that no throw can have given is refused by the name of its field; one
// at the very limits is taken.
func TestTrialsThatCannotBe(t *testing.T) {
	good := Trial{DistanceM: reading(7), Seen: []string{"glided"}}
	for _, c := range []struct {
		field string
		spoil func(*Trial)
	}{
		{"distance_m", func(t *Trial) { t.DistanceM = reading(-0.1) }},
		{"distance_m", func(t *Trial) { t.DistanceM = reading(math.NaN()) }},
		{"distance_m", func(t *Trial) { t.DistanceM = reading(math.Inf(1)) }},
		{"time_s", func(t *Trial) { t.TimeS = reading(121) }},
		{"throw_height_m", func(t *Trial) { t.ThrowHeightM = reading(20.5) }},
		{"seen", func(t *Trial) { t.Seen = []string{"glided", "sang"} }},
		{"thrower", func(t *Trial) { t.Thrower = strings.Repeat("é", MaxName+1) }},
		{"place", func(t *Trial) { t.Place = strings.Repeat("x", MaxName+1) }},
		{"air", func(t *Trial) { t.Air = strings.Repeat("x", MaxName+1) }},
		{"note", func(t *Trial) { t.Note = strings.Repeat("x", MaxNote+1) }},
		{"distance_m", func(t *Trial) { *t = Trial{Note: " \n", Thrower: "Ilse"} }},
	} {
		bad := good
		c.spoil(&bad)
		var p *Problem
		if err := bad.Check(); !errors.As(err, &p) || p.Field != c.field {
			t.Errorf("%+v: got %v, want a problem with %s", bad, err, c.field)
		} else if !strings.HasPrefix(p.Error(), c.field+" is ") || !strings.Contains(p.Error(), "it must be ") {
			t.Errorf("%q does not name the field, the value and the fix", p.Error())
		}
	}
	for _, ok := range []Trial{
		good, {DistanceM: reading(0)}, {TimeS: reading(120)}, {Note: "sat in a tree"}, {Seen: SeenOf["fly"]}, {Seen: SeenOf["reveal"]},
		{DistanceM: reading(200), ThrowHeightM: reading(20), Thrower: strings.Repeat("é", MaxName), Note: strings.Repeat("x", MaxNote)},
	} {
		if err := ok.Check(); err != nil {
			t.Errorf("%+v is refused: %v", ok, err)
		}
	}
}

// Readings are those that were taken, in the order of the trials; a trial with
// none does not count as nought.
func TestReadings(t *testing.T) {
	trials := []Trial{{DistanceM: reading(7)}, {TimeS: reading(2)}, {DistanceM: reading(0), TimeS: reading(0)}, {Note: "lost"}, {DistanceM: reading(9)}}
	if got := Distances(trials); !slices.Equal(got, []float64{7, 0, 9}) {
		t.Errorf("distances %v", got)
	}
	if got := Times(trials); !slices.Equal(got, []float64{2, 0}) {
		t.Errorf("times %v", got)
	}
	if s := Summarise(Distances(trials[:2])); s.N != 1 || s.Best != 7 || s.Q1 != 7 || s.Q3 != 7 {
		t.Errorf("one reading sums up to %+v", s)
	}
	if Distances(nil) != nil || Summarise(nil) != (Stats{}) {
		t.Error("no trials give readings")
	}
}

// Names are trimmed, kept whatever their script, and refused when nothing or too
// much is left.
func TestNames(t *testing.T) {
	for _, c := range []struct{ in, out string }{
		{"  Pier first ", "Pier first"}, {"☂", "☂"}, {strings.Repeat("é", MaxName), strings.Repeat("é", MaxName)},
		{"", ""}, {" \t\n", ""}, {strings.Repeat("é", MaxName+1), ""},
	} {
		got, err := CleanName("name", c.in)
		if got != c.out || (err == nil) != (c.out != "") {
			t.Errorf("%q becomes %q, %v", c.in, got, err)
		}
		if err != nil && !strings.Contains(err.Error(), "name is ") {
			t.Errorf("%q does not name the field", err)
		}
		if utf8.RuneCountInString(got) > MaxName {
			t.Errorf("%q is too long", got)
		}
	}
}

func TestColours(t *testing.T) {
	for c, ok := range map[string]bool{DefaultFront: true, DefaultBack: true, "#000000": true,
		"": false, "#fff": false, "#FDF8EA": false, "fdf8ea": false, "#fdf8ea ": false, "#fdf8ea\n": false, "red": false, "url(x)": false, "#00000g": false} {
		if err := CheckColour("front", c); (err == nil) != ok {
			t.Errorf("%q: %v", c, err)
		}
	}
}

// What lies on the table is the draft, else the newest tweak, and changing it
// changes neither.
func TestWhatLiesOnTheTable(t *testing.T) {
	draft := setup(3, 80)
	b := Build{Tweaks: []Tweak{{No: 1, Setup: setup(0, 90)}, {No: 2, Setup: setup(1, 85)}}}
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
	if empty := (&Build{}).Current(); empty.Knobs == nil || len(empty.Knobs) != 0 {
		t.Errorf("nothing yet is %+v", empty)
	}
}
