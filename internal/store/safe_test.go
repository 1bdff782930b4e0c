package store

import (
	"context"
	"crypto/sha256"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"
	"reflect"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/jmoiron/sqlx"

	"tussock/internal/bench"
)

// contents are the hashes of all files below a folder.
func contents(t *testing.T, folder string) map[string][32]byte {
	t.Helper()
	out := map[string][32]byte{}
	err := filepath.WalkDir(folder, func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() {
			return err
		}
		b, err := os.ReadFile(path)
		out[path] = sha256.Sum256(b)
		return err
	})
	if err != nil {
		t.Fatal(err)
	}
	return out
}

// A file of another program, or of a newer Tussock, is refused by name and stays as it is,
// with nothing written beside it.
func TestFilesOfOthers(t *testing.T) {
	make := func(name string, statements ...string) string {
		path := filepath.Join(t.TempDir(), name)
		db, err := sqlx.Open("sqlite", dsn(path, "immediate", "journal_mode(WAL)"))
		if err != nil {
			t.Fatal(err)
		}
		for _, q := range statements {
			db.MustExec(q)
		}
		if err := db.Close(); err != nil {
			t.Fatal(err)
		}
		return path
	}
	newer := filepath.Join(t.TempDir(), "newer.db")
	s := openAt(t, newer)
	if _, err := s.write.Exec(`INSERT INTO goose_db_version (version_id, is_applied) VALUES (99, 1)`); err != nil {
		t.Fatal(err)
	}
	closed(t, s)
	text := filepath.Join(t.TempDir(), "text.db")
	if err := os.WriteFile(text, []byte(strings.Repeat("Dear diary. ", 40)), 0o644); err != nil {
		t.Fatal(err)
	}
	for path, want := range map[string]string{
		make("foreign.db", `CREATE TABLE songs (id INTEGER)`, `INSERT INTO songs VALUES (1)`): "is not a Tussock",
		make("named.db", `PRAGMA application_id = 42`, `CREATE TABLE builds (id INTEGER)`):    "another program",
		newer: "newer Tussock",
		text:  "is not a Tussock",
	} {
		before := contents(t, filepath.Dir(path))
		s, err := Open(t.Context(), path)
		var no *Refused
		if !errors.As(err, &no) || !strings.Contains(err.Error(), want) || strings.Contains(err.Error(), filepath.Dir(path)) {
			t.Errorf("%s: %v", path, err)
		}
		if err == nil {
			closed(t, s)
		}
		if after := contents(t, filepath.Dir(path)); !reflect.DeepEqual(after, before) {
			t.Errorf("%s is touched", path)
		}
	}
}

// Files are for their owner alone, also those that were not before.
func TestFilesArePrivate(t *testing.T) {
	dir := t.TempDir()
	path := filepath.Join(dir, "t.db")
	if err := os.WriteFile(path, nil, 0o644); err != nil {
		t.Fatal(err)
	}
	s := openAt(t, path)
	defer closed(t, s)
	if _, err := s.AddWhole(t.Context(), sample()); err != nil {
		t.Fatal(err)
	}
	if err := s.KeepCopy(t.Context()); err != nil {
		t.Fatal(err)
	}
	if err := s.Backup(t.Context(), filepath.Join(dir, "b.tussock")); err != nil {
		t.Fatal(err)
	}
	n := 0
	for path := range contents(t, dir) {
		info, err := os.Stat(path)
		if err != nil {
			t.Fatal(err)
		}
		if n++; info.Mode().Perm() != private {
			t.Errorf("%s has rights %v", path, info.Mode().Perm())
		}
	}
	if n < 4 { // data, its log, a copy, a backup
		t.Errorf("%d files", n)
	}
}

// Restoring while others write: every acknowledged change is in the kept copy or in what
// is there afterwards, and only one restores at a time.
func TestRestoreWhileOthersWrite(t *testing.T) {
	s, id := stocked(t)
	ctx := t.Context()
	file := filepath.Join(t.TempDir(), "b.tussock")
	if err := s.Backup(ctx, file); err != nil {
		t.Fatal(err)
	}
	w := writers{s: s, id: id, acknowledged: map[string]bool{}, stop: make(chan struct{})}
	w.begin(4)
	var kept []string
	others := 0
	for range 5 {
		var pair sync.WaitGroup
		for range 2 {
			pair.Go(func() {
				k, err := s.Restore(context.WithoutCancel(ctx), file)
				w.mu.Lock()
				defer w.mu.Unlock()
				switch {
				case err == nil:
					kept = append(kept, k)
				case errors.Is(err, ErrRestoring):
					others++
				default:
					t.Error(err)
				}
			})
		}
		pair.Wait()
	}
	close(w.stop)
	w.wg.Wait()
	if len(kept) < 5 {
		t.Errorf("%d restored, %d waited", len(kept), others)
	}
	found := map[string]bool{}
	note := func(s *Store) {
		list, err := s.Builds(ctx)
		if err != nil {
			t.Fatal(err)
		}
		for _, b := range list {
			for _, tw := range b.Tweaks {
				for _, x := range tw.Trials {
					found[x.Key] = true
				}
			}
		}
	}
	note(s)
	for _, k := range kept {
		old := openAt(t, k)
		note(old)
		closed(t, old)
	}
	lost := 0
	for k := range w.acknowledged {
		if !found[k] {
			lost++
		}
	}
	if lost > 0 || len(w.acknowledged) < 20 {
		t.Errorf("%d of %d acknowledged trials are lost", lost, len(w.acknowledged))
	}
}

// writers log trials at one build, all at once, until they are stopped.
type writers struct {
	s            *Store
	id           int64
	mu           sync.Mutex
	acknowledged map[string]bool // by key
	stop         chan struct{}
	wg           sync.WaitGroup
}

func (w *writers) begin(hands int) {
	for hand := range hands {
		w.wg.Go(func() {
			for i := 0; ; i++ {
				select {
				case <-w.stop:
					return
				default:
				}
				key := fmt.Sprintf("h%d-%d", hand, i)
				_, err := w.s.Update(context.Background(), w.id, func(b *bench.Build) error {
					tw := b.Latest()
					tw.Trials = append(tw.Trials, bench.Trial{Read: map[string]float64{"distance": 1}, Key: key})
					return nil
				})
				if err == nil {
					w.mu.Lock()
					w.acknowledged[key] = true
					w.mu.Unlock()
				}
			}
		})
	}
}

// A backup with a row that cannot be read, or that is damaged, changes nothing and leaves
// nothing behind.
func TestRestoreOfBadBackups(t *testing.T) {
	s, id := stocked(t)
	ctx := t.Context()
	file := filepath.Join(t.TempDir(), "b.tussock")
	spoil := func(q string) {
		t.Helper()
		if err := os.Remove(file); err != nil && !errors.Is(err, os.ErrNotExist) {
			t.Fatal(err)
		}
		if err := s.Backup(ctx, file); err != nil {
			t.Fatal(err)
		}
		db := sqlx.MustOpen("sqlite", dsn(file, "immediate"))
		db.MustExec(q)
		if err := db.Close(); err != nil {
			t.Fatal(err)
		}
	}
	whole, err := s.Build(ctx, id)
	if err != nil {
		t.Fatal(err)
	}
	for q, want := range map[string]string{
		`UPDATE tweaks SET setup = '{"sheet":' WHERE no = 1`:                   "tweak",
		`UPDATE trials SET readings = '[1, 2]'`:                                "trial",
		`UPDATE builds SET touched = '[]'`:                                     "build",
		`UPDATE papers SET sheet = 'torn'`:                                     "",
		`INSERT INTO goose_db_version (version_id, is_applied) VALUES (99, 1)`: "newer",
		`PRAGMA application_id = 7`:                                            "another program",
		`DROP TABLE trials`:                                                    "damaged",
	} {
		spoil(q)
		if want == "" {
			continue // no paper in it to spoil
		}
		before := contents(t, filepath.Dir(s.Path))
		if _, err := s.Restore(ctx, file); err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%s: %v, wants %q", q, err, want)
		}
		after := contents(t, filepath.Dir(s.Path))
		if len(after) != len(before) {
			t.Errorf("%s leaves %d files where there were %d", q, len(after), len(before))
		}
		if now, err := s.Build(ctx, id); err != nil || !reflect.DeepEqual(now, whole) {
			t.Errorf("%s changes the build: %v", q, err)
		}
	}
}

// Rows that cannot be read are set aside by name when the file is opened; all others are
// there. A file whose pages are damaged says so.
func TestBadRowsAreSetAside(t *testing.T) {
	s, id := stocked(t)
	ctx := t.Context()
	other, err := s.AddWhole(ctx, sample())
	if err != nil {
		t.Fatal(err)
	}
	orphan, err := s.CreateBuild(ctx, bench.Build{Pattern: "curlew", Name: "bare", Draft: &someSetup, ParentID: &id}, nil)
	if err != nil {
		t.Fatal(err)
	}
	if found, err := s.Examine(ctx); err != nil || len(found) != 0 {
		t.Fatalf("a sound file: %v, %v", found, err)
	}
	s.write.MustExec(`UPDATE tweaks SET setup = 'torn' WHERE build_id = ? AND no = 1`, id)
	s.write.MustExec(`UPDATE trials SET seen = '{}' WHERE id = (SELECT min(trials.id) FROM trials JOIN tweaks ON tweaks.id = tweak_id WHERE build_id = ?)`, other)
	s.write.MustExec(`UPDATE builds SET draft = '{' WHERE id = ?`, orphan)
	found, err := s.Examine(ctx)
	if err != nil || len(found) != 3 {
		t.Fatalf("found %+v, %v", found, err)
	}
	list, err := s.Builds(ctx)
	if err != nil || len(list) != 2 {
		t.Fatalf("%d builds are left, %v", len(list), err)
	}
	a, _ := s.Build(ctx, id)
	b, _ := s.Build(ctx, other)
	if len(a.Tweaks) != 1 || a.Tweaks[0].No != 2 || b.Trials() != 1 {
		t.Errorf("left are %+v and %d trials", a.Tweaks, b.Trials())
	}
	// The two trials of the torn tweak are kept as well.
	if kept, err := s.Asides(ctx); err != nil || len(kept) != 5 || kept[0].Why == "" {
		t.Errorf("set aside %+v, %v", kept, err)
	}
	if found, err := s.Examine(ctx); err != nil || len(found) != 0 {
		t.Errorf("and again: %v, %v", found, err)
	}
}

// A copy for every day, the last seven; one for a day is enough.
func TestDailyCopies(t *testing.T) {
	s, id := stocked(t)
	ctx := t.Context()
	day := time.Date(2026, 11, 1, 9, 0, 0, 0, time.Local)
	s.now = func() time.Time { return day }
	for range 10 {
		for range 2 {
			if err := s.KeepCopy(ctx); err != nil {
				t.Fatal(err)
			}
		}
		day = day.AddDate(0, 0, 1)
		if _, err := s.Update(ctx, id, func(b *bench.Build) error { b.Step++; return nil }); err != nil {
			t.Fatal(err)
		}
	}
	all, err := Copies(s.Path)
	if err != nil || len(all) != CopiesKept || all[0].Day != "2026-11-10" || all[6].Day != "2026-11-04" {
		t.Fatalf("kept %+v, %v", all, err)
	}
	path, err := s.CopyPath("2026-11-05")
	if err != nil {
		t.Fatal(err)
	}
	if _, err := s.Restore(ctx, path); err != nil {
		t.Fatal(err)
	}
	if b, err := s.Build(ctx, id); err != nil || b.Step != 4+4 {
		t.Errorf("the copy of the fifth day is at step %d, %v", b.Step, err)
	}
	for _, bad := range []string{"", "2026-11-11", "../t", "2026-11-05/.."} {
		if _, err := s.CopyPath(bad); !errors.Is(err, ErrNotFound) {
			t.Errorf("%q: %v", bad, err)
		}
	}
}

// A damaged file is put aside for a sound copy, and says before that it is damaged.
func TestDamagedFile(t *testing.T) {
	path := filepath.Join(t.TempDir(), "t.db")
	s := openAt(t, path)
	ctx := t.Context()
	for range 40 {
		if _, err := s.AddWhole(ctx, sample()); err != nil {
			t.Fatal(err)
		}
	}
	if err := s.KeepCopy(ctx); err != nil {
		t.Fatal(err)
	}
	closed(t, s)
	b, err := os.ReadFile(path)
	if err != nil {
		t.Fatal(err)
	}
	for i := 5 * 4096; i < len(b)-4096; i += 3 {
		b[i] ^= 0x5a
	}
	if err := os.WriteFile(path, b, 0o600); err != nil {
		t.Fatal(err)
	}
	if s, err := Open(ctx, path); err == nil {
		if _, err := s.Examine(ctx); err == nil {
			t.Error("a damaged file is served")
		}
		closed(t, s)
	}
	all, err := Copies(path)
	if err != nil || len(all) != 1 {
		t.Fatalf("copies %v, %v", all, err)
	}
	from, err := copyPath(path, all[0].Day)
	if err != nil {
		t.Fatal(err)
	}
	kept, err := PutInPlace(ctx, from, path)
	if err != nil {
		t.Fatal(err)
	}
	if was, err := os.ReadFile(kept); err != nil || len(was) != len(b) {
		t.Errorf("the damaged file is not kept: %v", err)
	}
	s = openAt(t, path)
	defer closed(t, s)
	if list, err := s.Builds(ctx); err != nil || len(list) != 40 {
		t.Errorf("%d builds are back, %v", len(list), err)
	}
}

// Filling is one step: an empty store is filled whole and marked, another is left alone.
func TestFill(t *testing.T) {
	s := openAt(t, filepath.Join(t.TempDir(), "t.db"))
	defer closed(t, s)
	ctx := t.Context()
	one := int64(1)
	child := sample()
	child.ParentID = &one
	if err := s.Fill(ctx, Demo, []bench.Paper{{Name: "Leaflet", Sheet: someSetup.Sheet}}, []bench.Build{sample(), child}); err != nil {
		t.Fatal(err)
	}
	list, err := s.Builds(ctx)
	if err != nil || len(list) != 2 {
		t.Fatalf("%d builds, %v", len(list), err)
	}
	for _, b := range list {
		if b.ParentID != nil && *b.ParentID == b.ID {
			t.Error("a build is its own parent")
		}
	}
	if is, err := s.Marked(ctx, Demo); err != nil || !is {
		t.Errorf("marked %v, %v", is, err)
	}
	if err := s.Fill(ctx, Demo, nil, nil); !errors.Is(err, ErrNotEmpty) {
		t.Errorf("filled twice: %v", err)
	}
	real, _ := stocked(t)
	if err := real.Fill(ctx, Demo, nil, nil); !errors.Is(err, ErrNotEmpty) {
		t.Errorf("over somebody's data: %v", err)
	}
	if is, _ := real.Marked(ctx, Demo); is {
		t.Error("somebody's data are marked as a demo")
	}
}
