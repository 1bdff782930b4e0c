package store

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"
)

// tables in an order that respects their references.
var tables = []string{"papers", "builds", "tweaks", "trials", "settings"}

// Backup writes a consistent copy of everything to a new file. An existing file
// is not overwritten.
func (s *Store) Backup(ctx context.Context, path string) error {
	if _, err := os.Stat(path); err == nil {
		return fmt.Errorf("%s exists already; name a new file", path)
	}
	if _, err := s.db.ExecContext(ctx, `VACUUM INTO ?`, path); err != nil {
		return fmt.Errorf("backup to %s: %w", path, err)
	}
	return Verify(ctx, path)
}

// Verify checks that a file is a sound Tussock data file.
func Verify(ctx context.Context, path string) error {
	head := make([]byte, 16)
	f, err := os.Open(path)
	if err != nil {
		return err
	}
	_, err = io.ReadFull(f, head)
	if cerr := f.Close(); cerr != nil {
		return cerr
	}
	if err != nil || !strings.HasPrefix(string(head), "SQLite format 3") {
		return fmt.Errorf("%s is not a Tussock backup", filepath.Base(path))
	}
	s, err := Open(ctx, path) // brings an older backup up to date as well
	if err != nil {
		return fmt.Errorf("%s is not a sound Tussock backup: %w", filepath.Base(path), err)
	}
	return errors.Join(s.check(ctx), s.Close())
}

func (s *Store) check(ctx context.Context) error {
	var verdict string
	if err := s.db.GetContext(ctx, &verdict, `PRAGMA integrity_check`); err != nil {
		return err
	}
	if verdict != "ok" {
		return fmt.Errorf("%s is damaged: %s", filepath.Base(s.Path), verdict)
	}
	for _, t := range tables {
		var n int
		if err := s.db.GetContext(ctx, &n, `SELECT count(*) FROM `+t); err != nil {
			return fmt.Errorf("%s is not a Tussock backup: %w", filepath.Base(s.Path), err)
		}
	}
	return nil
}

// Restore replaces everything by the contents of a backup, all or nothing. The
// backup is copied and checked first and is not changed. What was there before
// is kept beside the data file; its path is returned.
func (s *Store) Restore(ctx context.Context, path string) (kept string, err error) {
	work := s.Path + ".incoming"
	if err := copyFile(path, work); err != nil {
		return "", err
	}
	defer func() {
		for _, end := range []string{"", "-wal", "-shm"} {
			if e := os.Remove(work + end); e != nil && !errors.Is(e, os.ErrNotExist) {
				err = errors.Join(err, e)
			}
		}
	}()
	if err := Verify(ctx, work); err != nil {
		return "", err
	}
	kept = s.Path + ".before-restore-" + s.now().UTC().Format("20060102-150405.000")
	if err := s.Backup(ctx, kept); err != nil {
		return "", err
	}
	conn, err := s.db.Connx(ctx)
	if err != nil {
		return kept, err
	}
	defer func() { err = errors.Join(err, conn.Close()) }()
	if _, err := conn.ExecContext(ctx, `ATTACH DATABASE ? AS incoming`, work); err != nil {
		return kept, err
	}
	defer func() {
		_, e := conn.ExecContext(context.WithoutCancel(ctx), `DETACH DATABASE incoming`)
		err = errors.Join(err, e)
	}()
	tx, err := conn.BeginTxx(ctx, nil)
	if err != nil {
		return kept, err
	}
	statements := []string{`PRAGMA defer_foreign_keys = ON`}
	for i := range tables {
		statements = append(statements, `DELETE FROM main.`+tables[len(tables)-1-i])
	}
	for _, t := range tables {
		statements = append(statements, `INSERT INTO main.`+t+` SELECT * FROM incoming.`+t)
	}
	for _, q := range statements {
		if _, err := tx.ExecContext(ctx, q); err != nil {
			return kept, errors.Join(err, tx.Rollback())
		}
	}
	return kept, tx.Commit()
}

func copyFile(from, to string) (err error) {
	src, err := os.Open(from)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, src.Close()) }()
	dst, err := os.OpenFile(to, os.O_CREATE|os.O_TRUNC|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	_, err = io.Copy(dst, src)
	return errors.Join(err, dst.Close())
}
