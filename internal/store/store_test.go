package store

import (
	"context"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"reflect"
	"sync"
	"testing"
	"time"

	"tussock/internal/bench"
	"tussock/internal/motion"
)

func openAt(t *testing.T, path string) *Store {
	t.Helper()
	s, err := Open(t.Context(), path)
	if err != nil {
		t.Fatal(err)
	}
	return s
}

func closed(t *testing.T, s *Store) {
	t.Helper()
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
}

var someSetup = bench.Setup{Sheet: bench.SheetSpec{WidthMM: 210, HeightMM: 297, GSM: 80, ThicknessMM: 0.1, Paper: "Leaflet ☂"}, Knobs: map[string]float64{"wing": 81.25}}

// sample is a build with everything in it.
func sample() bench.Build {
	at := time.Date(2026, 11, 3, 14, 5, 6, 789e6, time.UTC)
	return bench.Build{Pattern: "curlew", Name: "Pier's \"first\"", Step: 4, CreatedAt: at, Draft: &someSetup, Tweaks: []bench.Tweak{
		{No: 1, Setup: someSetup, Why: "why; DROP TABLE builds", CreatedAt: at.Add(time.Minute), Trials: []bench.Trial{
			{Kind: "throw", Read: map[string]float64{"distance": 7.125, "time": 1.5, "from": 1.6}, Under: map[string]string{"surface": "wood"}, Seen: []string{"glided"}, Thrower: "Ilse", Place: "hall", Air: "still", Note: "n", At: at.Add(2 * time.Minute)},
			{Read: map[string]float64{"distance": 0}, Under: map[string]string{}, Seen: []string{}, At: at.Add(3 * time.Minute)},
		}},
		{No: 2, Setup: someSetup, CreatedAt: at.Add(time.Hour)},
	}}
}

// stocked is a store with the sample in it.
func stocked(t *testing.T) (s *Store, id int64) {
	t.Helper()
	s = openAt(t, filepath.Join(t.TempDir(), "t.db"))
	t.Cleanup(func() { closed(t, s) })
	id, err := s.AddWhole(t.Context(), sample())
	if err != nil {
		t.Fatal(err)
	}
	return s, id
}

// Everything that was acknowledged is there after closing and opening again.
func TestRestart(t *testing.T) {
	path := filepath.Join(t.TempDir(), "folder", "t.db")
	s := openAt(t, path)
	ctx := t.Context()
	id, err := s.AddWhole(ctx, sample())
	if err != nil {
		t.Fatal(err)
	}
	if _, err := s.AddPapers(ctx, bench.Paper{Name: "Leaflet", Sheet: someSetup.Sheet}); err != nil {
		t.Fatal(err)
	}
	want := bench.Settings{Units: "in", Hand: "left", Theme: "dark", Page: "letter", FingerMM: 57.5}
	if err := s.SetSettings(ctx, want); err != nil {
		t.Fatal(err)
	}
	before, err := s.Build(ctx, id)
	if err != nil {
		t.Fatal(err)
	}
	closed(t, s)
	s = openAt(t, path)
	defer closed(t, s)
	after, err := s.Build(ctx, id)
	if err != nil {
		t.Fatal(err)
	}
	if !reflect.DeepEqual(before, after) {
		t.Errorf("after the restart\n%+v\nbefore\n%+v", after, before)
	}
	sent := sample()
	if got := after.Tweaks[0].Trials[0]; got.Read["distance"] != 7.125 || !got.At.Equal(sent.Tweaks[0].Trials[0].At) || after.Name != sent.Name || after.Tweaks[0].Why != sent.Tweaks[0].Why {
		t.Errorf("kept %+v", got)
	}
	if got, err := s.Settings(ctx); err != nil || got != want {
		t.Errorf("settings %+v %v", got, err)
	}
	if papers, err := s.Papers(ctx, false); err != nil || len(papers) != 1 || !reflect.DeepEqual(papers[0].Sheet, someSetup.Sheet) {
		t.Errorf("papers %+v %v", papers, err)
	}
}

// A process that is killed, not closed, loses nothing acknowledged: the file is
// copied while it is open, as a crash would leave it.
func TestCrash(t *testing.T) {
	dir := t.TempDir()
	path := filepath.Join(dir, "t.db")
	s := openAt(t, path)
	defer closed(t, s)
	for i := range 20 {
		if _, err := s.CreateBuild(t.Context(), bench.Build{Pattern: "curlew", Name: fmt.Sprint("b", i), Draft: &someSetup}, nil); err != nil {
			t.Fatal(err)
		}
	}
	crash := filepath.Join(dir, "crash.db")
	for _, end := range []string{"", "-wal"} {
		b, err := os.ReadFile(path + end)
		if err != nil {
			t.Fatal(err)
		}
		if err := os.WriteFile(crash+end, b, 0o600); err != nil {
			t.Fatal(err)
		}
	}
	again := openAt(t, crash)
	defer closed(t, again)
	if list, err := again.Builds(t.Context()); err != nil || len(list) != 20 {
		t.Errorf("%d of 20 builds survive the crash (%v)", len(list), err)
	}
}

func TestBinAndRestore(t *testing.T) {
	s, id := stocked(t)
	ctx := t.Context()
	must := func(err error) {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
	}
	must(s.BinBuild(ctx, id))
	if _, err := s.Build(ctx, id); !errors.Is(err, ErrNotFound) {
		t.Errorf("a binned build gives %v", err)
	}
	for name, err := range map[string]error{"again": s.BinBuild(ctx, id), "change": changed(s.Update(ctx, id, func(*bench.Build) error { return nil })), "restore another": s.RestoreBuild(ctx, id+1)} {
		if !errors.Is(err, ErrNotFound) {
			t.Errorf("%s in the bin gives %v", name, err)
		}
	}
	must(s.RestoreBuild(ctx, id))
	b, err := s.Build(ctx, id)
	must(err)
	if b.Trials() != 2 {
		t.Errorf("%d throws came back", b.Trials())
	}
	trial := b.Tweaks[0].Trials[0].ID
	must(s.BinTrial(ctx, trial))
	if list, err := s.BinnedTrials(ctx); err != nil || len(list) != 1 || list[0].TweakNo != 1 {
		t.Errorf("bin %+v %v", list, err)
	}
	if _, err := s.Trial(ctx, trial); !errors.Is(err, ErrNotFound) {
		t.Errorf("a binned throw gives %v", err)
	}
	must(s.RestoreTrial(ctx, trial))
	if _, err := s.Trial(ctx, trial); err != nil {
		t.Error(err)
	}
}

func changed(_ *bench.Build, err error) error { return err }

// Many at once on one build: each comes after the one before, and none is lost.
func TestManyAtOnce(t *testing.T) {
	s := openAt(t, filepath.Join(t.TempDir(), "t.db"))
	defer closed(t, s)
	ctx := t.Context()
	id, err := s.CreateBuild(ctx, bench.Build{Pattern: "curlew", Name: "b", Version: 1, Draft: &someSetup}, nil)
	if err != nil {
		t.Fatal(err)
	}
	const hands, each = 8, 25
	var wg sync.WaitGroup
	for range hands {
		wg.Go(func() {
			for range each {
				_, err := s.Update(context.WithoutCancel(ctx), id, func(b *bench.Build) error {
					if b.Latest() == nil {
						b.Tweaks = append(b.Tweaks, bench.Tweak{No: 1, Setup: *b.Draft})
						b.Draft = nil
					}
					tw := b.Latest()
					tw.Trials = append(tw.Trials, bench.Trial{Read: map[string]float64{"distance": float64(b.Version)}})
					b.Version++
					return nil
				})
				if err != nil {
					t.Error(err)
				}
				if _, err := s.BuildsCounted(context.WithoutCancel(ctx)); err != nil {
					t.Error(err)
				}
			}
		})
	}
	wg.Wait()
	b, err := s.Build(ctx, id)
	if err != nil {
		t.Fatal(err)
	}
	if len(b.Tweaks) != 1 || b.Trials() != hands*each || b.Draft != nil || b.Version != 1+hands*each {
		t.Errorf("%d tweaks, %d trials, version %d", len(b.Tweaks), b.Trials(), b.Version)
	}
	seen := map[float64]bool{}
	for _, x := range b.Tweaks[0].Trials {
		seen[x.Read["distance"]] = true
	}
	if len(seen) != hands*each {
		t.Errorf("%d versions were seen, of %d", len(seen), hands*each)
	}
}

func TestBackupAndRestore(t *testing.T) {
	dir := t.TempDir()
	ctx := t.Context()
	s := openAt(t, filepath.Join(dir, "t.db"))
	defer closed(t, s)
	id, err := s.AddWhole(ctx, sample())
	if err != nil {
		t.Fatal(err)
	}
	whole, err := s.Build(ctx, id)
	if err != nil {
		t.Fatal(err)
	}
	file := filepath.Join(dir, "all.tussock")
	if err := s.Backup(ctx, file); err != nil {
		t.Fatal(err)
	}
	if err := s.Backup(ctx, file); err == nil {
		t.Error("a backup overwrites another")
	}
	if err := s.BinBuild(ctx, id); err != nil {
		t.Fatal(err)
	}
	if _, err := s.CreateBuild(ctx, bench.Build{Pattern: "curlew", Name: "later", Draft: &someSetup}, nil); err != nil {
		t.Fatal(err)
	}
	kept, err := s.Restore(ctx, file)
	if err != nil {
		t.Fatal(err)
	}
	back, err := s.Build(ctx, id)
	if err != nil {
		t.Fatal(err)
	}
	if !reflect.DeepEqual(whole, back) {
		t.Errorf("restored %+v, saved %+v", back, whole)
	}
	if list, err := s.Builds(ctx); err != nil || len(list) != 1 {
		t.Errorf("%d builds after restoring", len(list))
	}
	old := openAt(t, kept)
	defer closed(t, old)
	if list, err := old.Builds(ctx); err != nil || len(list) != 1 || list[0].Name != "later" {
		t.Errorf("what was there before is kept as %+v", list)
	}
	// What is no backup changes nothing.
	good, err := os.ReadFile(file)
	if err != nil {
		t.Fatal(err)
	}
	for name, bytes := range map[string][]byte{"empty": {}, "text": []byte("hello, this is not a database at all"), "cut": good[:len(good)/2]} {
		bad := filepath.Join(dir, name)
		if err := os.WriteFile(bad, bytes, 0o600); err != nil {
			t.Fatal(err)
		}
		if _, err := s.Restore(ctx, bad); err == nil {
			t.Errorf("%s is restored", name)
		}
	}
	if list, err := s.Builds(ctx); err != nil || len(list) != 1 {
		t.Errorf("refused files have left %d builds", len(list))
	}
}

func TestMostPacks(t *testing.T) {
	s := openAt(t, filepath.Join(t.TempDir(), "packs.db"))
	defer closed(t, s)
	var id int64
	for i := range MostPacks {
		var err error
		if id, err = s.AddPack(t.Context(), "{}"); err != nil {
			t.Fatalf("pack %d: %v", i+1, err)
		}
	}
	if _, err := s.AddPack(t.Context(), "{}"); !errors.Is(err, ErrFull) {
		t.Errorf("one more than %d: %v, want it refused", MostPacks, err)
	}
	if err := s.BinPack(t.Context(), id); err != nil {
		t.Fatal(err)
	}
	if _, err := s.AddPack(t.Context(), "{}"); err != nil {
		t.Errorf("after one went to the bin: %v", err)
	}
}

// When as many pictures are kept as can be, those go that no set-up names and that did not
// come today.
func TestMostImages(t *testing.T) {
	s := openAt(t, filepath.Join(t.TempDir(), "images.db"))
	defer closed(t, s)
	now := time.Date(2026, 5, 4, 9, 0, 0, 0, time.UTC)
	s.now = func() time.Time { return now }
	called := func(i int) string { return fmt.Sprintf("%032x", i) }
	for i := range MostImages {
		if err := s.AddImage(t.Context(), called(i), []byte{1}); err != nil {
			t.Fatalf("picture %d: %v", i+1, err)
		}
	}
	setup := bench.Setup{Written: motion.Written{"face 1": {Picture: motion.OwnPicture(called(7))}}}
	if _, err := s.AddWhole(t.Context(), bench.Build{Name: "ring", Pattern: "slackring", Tweaks: []bench.Tweak{{No: 1, Setup: setup}}}); err != nil {
		t.Fatal(err)
	}
	if err := s.AddImage(t.Context(), called(1000), []byte{2}); !errors.Is(err, ErrFull) {
		t.Errorf("one more than %d on the same day: %v, want it refused", MostImages, err)
	}
	if err := s.AddImage(t.Context(), called(3), []byte{1}); err != nil {
		t.Errorf("one that is kept already: %v", err)
	}
	now = now.Add(25 * time.Hour)
	if err := s.AddImage(t.Context(), called(1000), []byte{2}); err != nil {
		t.Errorf("a day later: %v", err)
	}
	for i, want := range map[int]bool{7: true, 1000: true, 3: false, 8: false} {
		if _, err := s.Image(t.Context(), called(i)); (err == nil) != want {
			t.Errorf("picture %d is kept: %v, want %v (%v)", i, err == nil, want, err)
		}
	}
}
