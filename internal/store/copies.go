package store

import (
	"context"
	"errors"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"time"
)

// A copy of everything is kept for each day on which Tussock ran, the last seven of them.

// CopiesKept is how many daily copies stay.
const CopiesKept = 7

// Copy is the daily copy of a day.
type Copy struct {
	Day   string // 2026-11-29
	Bytes int64
}

var aDay = regexp.MustCompile(`^\d{4}-\d{2}-\d{2}$`)

const copyEnd = ".tussock"

func copiesFolder(path string) string { return path + ".copies" }

// CopyPath is where the copy of a day lies; ErrNotFound for what is no day.
func (s *Store) CopyPath(day string) (string, error) { return copyPath(s.Path, day) }

func copyPath(path, day string) (string, error) {
	if !aDay.MatchString(day) {
		return "", ErrNotFound
	}
	at := filepath.Join(copiesFolder(path), day+copyEnd)
	if _, err := os.Stat(at); err != nil {
		return "", ErrNotFound
	}
	return at, nil
}

// KeepCopy writes the copy of today, unless there is one, and takes away the oldest when
// there are too many.
func (s *Store) KeepCopy(ctx context.Context) error {
	folder := copiesFolder(s.Path)
	if err := os.MkdirAll(folder, 0o700); err != nil {
		return err
	}
	to := filepath.Join(folder, s.now().Format(time.DateOnly)+copyEnd)
	if _, err := os.Stat(to); errors.Is(err, os.ErrNotExist) {
		// Under another name until it is whole.
		part := to + ".part"
		if err := os.Remove(part); err != nil && !errors.Is(err, os.ErrNotExist) {
			return err
		}
		if err := s.Backup(ctx, part); err != nil {
			return err
		}
		if err := os.Rename(part, to); err != nil {
			return err
		}
	}
	all, err := Copies(s.Path)
	if err != nil || len(all) <= CopiesKept {
		return err
	}
	for _, c := range all[CopiesKept:] {
		if err := os.Remove(filepath.Join(folder, c.Day+copyEnd)); err != nil {
			return err
		}
	}
	return nil
}

// Copies are the daily copies of a data file, newest first. The file itself may be damaged.
func Copies(path string) ([]Copy, error) {
	entries, err := os.ReadDir(copiesFolder(path))
	if errors.Is(err, os.ErrNotExist) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	var out []Copy
	for _, e := range entries {
		day, is := strings.CutSuffix(e.Name(), copyEnd)
		if !is || !aDay.MatchString(day) {
			continue
		}
		info, err := e.Info()
		if err != nil {
			return nil, err
		}
		out = append(out, Copy{day, info.Size()})
	}
	slices.SortFunc(out, func(a, b Copy) int { return strings.Compare(b.Day, a.Day) })
	return out, nil
}

// PutInPlace puts a sound backup in the place of a data file that may be damaged, while
// nobody has that open. What lay there is kept beside it under a name that is returned.
func PutInPlace(ctx context.Context, backup, path string) (kept string, err error) {
	work, clean, err := opened(ctx, backup)
	defer func() { err = errors.Join(err, clean()) }()
	if err != nil {
		return "", err
	}
	stamp := ".before-restore-" + time.Now().UTC().Format("20060102-150405.000")
	fresh := path + ".incoming"
	if err := copyFile(work, fresh); err != nil {
		return "", err
	}
	for _, end := range []string{"-wal", "-shm", ""} {
		switch err := os.Rename(path+end, path+stamp+end); {
		case err == nil:
			kept = path + stamp
		case !errors.Is(err, os.ErrNotExist):
			return kept, err
		}
	}
	return kept, os.Rename(fresh, path)
}
