package store

import (
	"context"
	"errors"
	"path/filepath"
	"reflect"
	"testing"

	"tussock/internal/bench"
)

// A child takes the draft along and leaves its parent's tweaks alone.
func TestChildren(t *testing.T) {
	s, parent := stocked(t)
	ctx := t.Context()
	grow := func(b *bench.Build, all []*bench.Build) (bench.Build, error) {
		draft := b.Draft
		b.Draft = nil
		return bench.Build{Pattern: "curlew", Name: bench.FreshName("Pier", all), ParentID: &b.ID, Draft: draft}, nil
	}
	child, err := s.MakeChild(ctx, parent, grow)
	if err != nil {
		t.Fatal(err)
	}
	b, err := s.Build(ctx, parent)
	if err != nil {
		t.Fatal(err)
	}
	kids, _, err := s.Family(ctx, b)
	if err != nil || len(kids) != 1 || kids[0].ID != child || kids[0].Draft == nil || !reflect.DeepEqual(*kids[0].Draft, someSetup) {
		t.Fatalf("the children are %+v, %v", kids, err)
	}
	if _, name, err := s.Family(ctx, kids[0]); err != nil || name != b.Name {
		t.Errorf("the parent is called %q, %v", name, err)
	}
	if b.Draft != nil || len(b.Tweaks) != 2 || b.Trials() != 2 {
		t.Errorf("the parent is %+v", b)
	}
	if err := s.BinBuild(ctx, child); err != nil {
		t.Fatal(err)
	}
	if kids, _, err = s.Family(ctx, b); err != nil || len(kids) != 0 {
		t.Errorf("a child in the bin is still shown: %+v, %v", kids, err)
	}
	// A child of nothing, or that cannot be, is refused whole.
	all, _ := s.Builds(ctx)
	if _, err := s.MakeChild(ctx, 4711, grow); !errors.Is(err, ErrNotFound) {
		t.Errorf("a child of nothing: %v", err)
	}
	no := errors.New("no")
	if _, err := s.MakeChild(ctx, parent, func(b *bench.Build, _ []*bench.Build) (bench.Build, error) {
		b.Name = "changed"
		return bench.Build{}, no
	}); !errors.Is(err, no) {
		t.Errorf("a child that cannot be: %v", err)
	}
	if after, _ := s.Builds(ctx); !reflect.DeepEqual(after, all) {
		t.Error("half of a refused child is kept")
	}
}

// What a change leaves is kept, whole; what is refused leaves no trace.
func TestUpdate(t *testing.T) {
	s, id := stocked(t)
	ctx := t.Context()
	var told []int64
	s.Tell(func(_ context.Context, build int64) { told = append(told, build) })
	moved := someSetup.Clone()
	moved.Knobs["wing"] = 77.5
	b, err := s.Update(ctx, id, func(b *bench.Build) error {
		if b.Trials() != 2 || b.Tweaks[0].Trials != nil {
			t.Errorf("given %d trials, read %v", b.Trials(), b.Tweaks[0].Trials)
		}
		b.Name, b.Step, b.Draft, b.Version, b.Touched = "Quay", 9, &moved, 4, map[string]int{"wing": 4}
		b.Tweaks[0].Why = "more nose"
		b.Tweaks = append(b.Tweaks, bench.Tweak{No: 3, Setup: moved, Why: "less wing", Trials: []bench.Trial{{Read: map[string]float64{"distance": 5}, Key: "k1"}}})
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	got, err := s.Build(ctx, id)
	if err != nil {
		t.Fatal(err)
	}
	if got.Name != "Quay" || got.Step != 9 || got.Draft.Knobs["wing"] != 77.5 || got.Version != 4 || got.Touched["wing"] != 4 || got.Tweaks[0].Why != "more nose" {
		t.Errorf("kept %+v", got)
	}
	if tw := got.Latest(); tw.No != 3 || tw.ID != b.Latest().ID || len(tw.Trials) != 1 || tw.Trials[0].ID != b.Latest().Trials[0].ID || tw.Trials[0].Key != "k1" {
		t.Errorf("kept tweak %+v", tw)
	}
	if trial, build, no, err := s.TrialByKey(ctx, "k1"); err != nil || trial != got.Latest().Trials[0].ID || build != id || no != 3 {
		t.Errorf("by its key: %d of %d, tweak %d, %v", trial, build, no, err)
	}
	no := errors.New("no")
	if _, err := s.Update(ctx, id, func(b *bench.Build) error {
		b.Name, b.Draft = "lost", nil
		b.Tweaks = append(b.Tweaks, bench.Tweak{No: 4, Setup: moved})
		return no
	}); !errors.Is(err, no) {
		t.Errorf("refused with %v", err)
	}
	if _, err := s.Update(ctx, id, func(b *bench.Build) error {
		b.Name = "lost"
		b.Latest().Trials = append(b.Latest().Trials, bench.Trial{Key: "k1"})
		return nil
	}); err == nil {
		t.Error("one key for two trials")
	}
	if after, _ := s.Build(ctx, id); !reflect.DeepEqual(after, got) {
		t.Errorf("a refused change leaves %+v", after)
	}
	if _, err := s.Update(ctx, 4711, func(*bench.Build) error { return nil }); !errors.Is(err, ErrNotFound) {
		t.Errorf("a build that is not there: %v", err)
	}
	if len(told) != 1 || told[0] != id {
		t.Errorf("told of %v", told)
	}
}

// A trial can be put right, keeps its place and time, and knows its build even
// in the bin.
func TestTrialsPutRight(t *testing.T) {
	s, id := stocked(t)
	ctx := t.Context()
	b, _ := s.Build(ctx, id)
	was := b.Tweaks[0].Trials[0]
	now := was
	now.Read, now.Seen, now.Note = map[string]float64{"distance": 8.5}, []string{"rolled", "dived"}, "x'); DROP TABLE trials; --"
	if err := s.UpdateTrial(ctx, now); err != nil {
		t.Fatal(err)
	}
	got, err := s.Trial(ctx, was.ID)
	if err != nil || !reflect.DeepEqual(got, now) {
		t.Errorf("put right\n%+v, %v, sent\n%+v", got, err, now)
	}
	if err := s.BinTrial(ctx, was.ID); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Trial(ctx, was.ID); !errors.Is(err, ErrNotFound) {
		t.Errorf("a trial in the bin is found: %v", err)
	}
	if err := s.UpdateTrial(ctx, was); !errors.Is(err, ErrNotFound) {
		t.Errorf("a trial in the bin is changed: %v", err)
	}
	if of, err := s.BuildOfTrial(ctx, was.ID); err != nil || of != id {
		t.Errorf("the binned trial belongs to %v, %v", of, err)
	}
	if _, err := s.BuildOfTrial(ctx, 4711); !errors.Is(err, ErrNotFound) {
		t.Errorf("no trial belongs to %v", err)
	}
}

// Papers go to the bin and come back as they were.
func TestPapersInTheBin(t *testing.T) {
	s := openAt(t, filepath.Join(t.TempDir(), "t.db"))
	defer closed(t, s)
	ctx := t.Context()
	id, err := s.AddPapers(ctx, bench.Paper{Name: "Leaflet ☂", Sheet: someSetup.Sheet})
	if err != nil {
		t.Fatal(err)
	}
	before, err := s.Papers(ctx, false)
	if err != nil {
		t.Fatal(err)
	}
	if err := s.BinPaper(ctx, id); err != nil {
		t.Fatal(err)
	}
	if list, _ := s.Papers(ctx, false); len(list) != len(before)-1 {
		t.Errorf("%d papers after one went, of %d", len(list), len(before))
	}
	if err := s.BinPaper(ctx, id); !errors.Is(err, ErrNotFound) {
		t.Errorf("binned twice: %v", err)
	}
	if err := s.RestorePaper(ctx, id); err != nil {
		t.Fatal(err)
	}
	if after, _ := s.Papers(ctx, false); !reflect.DeepEqual(after, before) {
		t.Errorf("%+v came back, %+v went", after, before)
	}
}
