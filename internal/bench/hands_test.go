package bench_test

import (
	"errors"
	"maps"
	"math/rand/v2"
	"testing"

	"tussock/internal/bench"
	"tussock/internal/motion"
)

type folds struct{}

func (folds) IsHard(knob string) bool                           { return knob == "nose" }
func (folds) FullKnobs(k map[string]float64) map[string]float64 { return maps.Clone(k) }

var way = &motion.Way{}

// crosses are the names of what two hands have moved differently.
func crosses(t *testing.T, err error) []string {
	t.Helper()
	var c *bench.Crossed
	if !errors.As(err, &c) {
		t.Fatalf("%v is not two hands on one build", err)
	}
	var out []string
	for _, x := range c.Crosses {
		out = append(out, x.What)
	}
	return out
}

// Two pages that start from the same version: other knobs are merged, the same knob only
// when both mean the same.
func TestTwoHands(t *testing.T) {
	b := &bench.Build{Version: 1, Tweaks: []bench.Tweak{{No: 1, Setup: setup(0, 90)}}}
	put := func(m bench.Moves) error { return b.Put(m, folds{}) }
	if err := put(bench.Moves{Version: 1, Knobs: map[string]float64{"wing": 80}}); err != nil {
		t.Fatal(err)
	}
	if err := put(bench.Moves{Version: 1, Knobs: map[string]float64{"nose": 4}}); err != nil || b.Draft.Knobs["wing"] != 80 || b.Draft.Knobs["nose"] != 4 {
		t.Errorf("another knob is not merged: %+v, %v", b.Draft, err)
	}
	if err := put(bench.Moves{Version: 1, Knobs: map[string]float64{"wing": 80}}); err != nil {
		t.Errorf("both moved it to the same place: %v", err)
	}
	before := b.Draft.Clone()
	got := crosses(t, put(bench.Moves{Version: 1, Knobs: map[string]float64{"wing": 70, "nose": 4}}))
	if len(got) != 1 || got[0] != "wing" || !maps.Equal(before.Knobs, b.Draft.Knobs) {
		t.Errorf("crossed %v, leaving %+v", got, b.Draft)
	}
	if err := put(bench.Moves{Version: b.Version, Knobs: map[string]float64{"wing": 70}}); err != nil {
		t.Errorf("seen and moved again: %v", err)
	}
	other := setup(0, 90).Sheet
	other.Paper = "Ferry bill"
	if err := put(bench.Moves{Version: b.Version, Sheet: &other}); err != nil {
		t.Fatal(err)
	}
	third := other
	third.Paper = "Tide table"
	if got := crosses(t, put(bench.Moves{Version: b.Version - 1, Sheet: &third})); len(got) != 1 || got[0] != "sheet" {
		t.Errorf("another sheet: %v", got)
	}
}

// Putting back and settling never take along what the page has not seen.
func TestDraftsUnseen(t *testing.T) {
	b := &bench.Build{Version: 1, Tweaks: []bench.Tweak{{No: 1, Setup: setup(0, 90)}}}
	if err := b.Put(bench.Moves{Version: 1, Knobs: map[string]float64{"wing": 80}}, folds{}); err != nil {
		t.Fatal(err)
	}
	crosses(t, b.Discard(1, nil))
	crosses(t, b.SettleAs(1, "", folds{}, way))
	if b.Draft == nil || b.Draft.Knobs["wing"] != 80 {
		t.Fatalf("the draft is %+v", b.Draft)
	}
	v := b.Version
	if err := b.SettleAs(v, "why", folds{}, way); err != nil || b.Latest().No != 2 || b.Latest().Setup.Knobs["wing"] != 80 || b.Draft != nil {
		t.Errorf("%v, %+v", err, b.Latest())
	}
	if b.Version != v {
		t.Error("settling what lies there moves nothing")
	}
	if err := b.Put(bench.Moves{Version: v, Knobs: map[string]float64{"wing": 85}}, folds{}); err != nil {
		t.Fatal(err)
	}
	if err := b.Discard(b.Version, nil); err != nil || b.Draft != nil || b.Current().Knobs["wing"] != 80 {
		t.Errorf("%v, %+v", err, b.Current())
	}
}

// A trial is booked on the set-up that the page showed, and on no other.
func TestBookedWhereItWasThrown(t *testing.T) {
	fresh := func() *bench.Build {
		return &bench.Build{Version: 1, Tweaks: []bench.Tweak{{No: 1, Setup: setup(0, 70), Tried: 3}, {No: 2, Setup: setup(0, 90), Tried: 2}}}
	}
	// As it lies there.
	b := fresh()
	if tw, err := b.Book(setup(0, 90), 1, folds{}, way); err != nil || tw.No != 2 || len(b.Tweaks) != 2 {
		t.Errorf("%+v, %v", tw, err)
	}
	// Moved on the page while the server was away: it becomes a tweak of its own.
	if tw, err := b.Book(setup(0, 60), 1, folds{}, way); err != nil || tw.No != 3 || tw.Setup.Knobs["wing"] != 60 {
		t.Errorf("%+v, %v", tw, err)
	}
	// Settled and moved on elsewhere: at the tweak it was thrown with.
	b = fresh()
	if err := b.Put(bench.Moves{Version: 1, Knobs: map[string]float64{"wing": 60}}, folds{}); err != nil {
		t.Fatal(err)
	}
	draft := b.Draft
	if tw, err := b.Book(setup(0, 90), 1, folds{}, way); err != nil || tw.No != 2 || b.Draft != draft {
		t.Errorf("%+v, %v, draft %+v", tw, err, b.Draft)
	}
	// Moved here and elsewhere: nothing is booked.
	if got := crosses(t, func() error { _, err := b.Book(setup(0, 50), 1, folds{}, way); return err }()); len(got) != 1 || got[0] != "wing" || len(b.Tweaks) != 2 {
		t.Errorf("crossed %v", got)
	}
	// A hard fold is another toy, and no trial of this one.
	var child *bench.NeedsChild
	if _, err := fresh().Book(setup(4, 90), 1, folds{}, way); !errors.As(err, &child) {
		t.Errorf("a hard fold: %v", err)
	}
}

// Whatever two pages do, in any order: a move that was taken stands until somebody who
// has seen it moves it, and a trial lies at a tweak with just the set-up shown.
func TestHandsInAnyOrder(t *testing.T) {
	r := rand.New(rand.NewPCG(17, 1))
	for range 2000 {
		b := &bench.Build{Version: 1, Draft: ref(setup(0, 90))}
		type page struct {
			version int
			shown   bench.Setup
		}
		pages := []page{{1, setup(0, 90)}, {1, setup(0, 90)}}
		lastMove := map[string]float64{"nose": 0, "wing": 90}
		for range 12 {
			p := &pages[r.IntN(2)]
			switch r.IntN(4) {
			case 0:
				p.version, p.shown = b.Version, b.Current()
			case 1, 2:
				k := []string{"nose", "wing"}[r.IntN(2)]
				v := float64(r.IntN(3))
				err := b.Put(bench.Moves{Version: p.version, Knobs: map[string]float64{k: v}}, folds{})
				if err == nil {
					lastMove[k] = v
				} else if b.Touched[k] <= p.version {
					t.Fatalf("refused though nobody moved it: %v", err)
				}
			case 3:
				shown := p.shown.Clone()
				tw, err := b.Book(shown, p.version, folds{}, way)
				if err == nil && !maps.Equal(tw.Setup.Knobs, shown.Knobs) {
					t.Fatalf("thrown with %v, booked on %v", shown.Knobs, tw.Setup.Knobs)
				}
			}
			if now := b.Current().Knobs; !maps.Equal(now, lastMove) {
				t.Fatalf("on the table %v, moved to %v", now, lastMove)
			}
		}
	}
}
