package store

import (
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
	child, err := s.MakeChild(ctx, parent, bench.Build{Pattern: "curlew", Name: "Pier's second", ParentID: &parent, Draft: &someSetup})
	if err != nil {
		t.Fatal(err)
	}
	kids, err := s.Children(ctx, parent)
	if err != nil || len(kids) != 1 || kids[0].ID != child || kids[0].Draft == nil || !reflect.DeepEqual(*kids[0].Draft, someSetup) || len(kids[0].Tweaks) != 0 {
		t.Fatalf("the children are %+v, %v", kids, err)
	}
	old, err := s.Build(ctx, parent)
	if err != nil || old.Draft != nil || len(old.Tweaks) != 2 || old.Trials() != 2 {
		t.Errorf("the parent is %+v, %v", old, err)
	}
	if err := s.BinBuild(ctx, child); err != nil {
		t.Fatal(err)
	}
	if kids, err = s.Children(ctx, parent); err != nil || len(kids) != 0 {
		t.Errorf("a child in the bin is still shown: %+v, %v", kids, err)
	}
	// A child of nothing is refused whole.
	all, _ := s.Builds(ctx)
	if _, err := s.MakeChild(ctx, 4711, bench.Build{Pattern: "curlew", Name: "orphan"}); !errors.Is(err, ErrNotFound) {
		t.Errorf("a child of nothing: %v", err)
	}
	if after, _ := s.Builds(ctx); len(after) != len(all) {
		t.Error("half of a refused child is kept")
	}
}

// The draft, its reason and a settled tweak are kept; what is gone says so.
func TestDraftsAndReasons(t *testing.T) {
	s, id := stocked(t)
	ctx := t.Context()
	moved := someSetup.Clone()
	moved.Knobs["wing"] = 77.5
	if err := s.SetDraft(ctx, id, &moved); err != nil {
		t.Fatal(err)
	}
	if b, _ := s.Build(ctx, id); b.Draft == nil || b.Draft.Knobs["wing"] != 77.5 {
		t.Errorf("the draft is %+v", b.Draft)
	}
	if _, err := s.MakeTweak(ctx, id, 3, moved, "less wing"); err != nil {
		t.Fatal(err)
	}
	b, _ := s.Build(ctx, id)
	if b.Draft != nil || b.Latest().No != 3 || b.Latest().Why != "less wing" || b.Latest().Setup.Knobs["wing"] != 77.5 {
		t.Errorf("settled: %+v, draft %+v", b.Latest(), b.Draft)
	}
	if err := s.SetWhy(ctx, id, 3, "more nose"); err != nil {
		t.Fatal(err)
	}
	if err := s.SetDraft(ctx, id, nil); err != nil {
		t.Fatal(err)
	}
	if b, _ = s.Build(ctx, id); b.Latest().Why != "more nose" || b.Tweaks[0].Why != sample().Tweaks[0].Why {
		t.Errorf("the reasons are %q and %q", b.Latest().Why, b.Tweaks[0].Why)
	}
	for name, err := range map[string]error{
		"reason": s.SetWhy(ctx, id, 9, "x"), "draft": s.SetDraft(ctx, 4711, &moved), "step": s.SetStep(ctx, 4711, 1),
		"name": s.Rename(ctx, 4711, "x"), "bin": s.BinBuild(ctx, 4711), "restore": s.RestoreBuild(ctx, id),
	} {
		if !errors.Is(err, ErrNotFound) {
			t.Errorf("%s of what is not there: %v", name, err)
		}
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
