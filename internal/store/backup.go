package store

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"

	"github.com/jmoiron/sqlx"
)

// tables in an order that respects their references. What is of this machine, its devices
// and the rows set aside, does not travel.
var tables = []string{"marks", "papers", "builds", "tweaks", "trials", "packs", "images", "settings"}

// Backup writes a consistent copy of everything to a new file, for its owner alone. An
// existing file is not overwritten.
func (s *Store) Backup(ctx context.Context, path string) (err error) {
	db, err := sqlx.Open("sqlite", dsn(s.Path, "deferred", "busy_timeout(5000)"))
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, db.Close()) }()
	if err := copyInto(ctx, db, path); err != nil {
		return err
	}
	return Verify(ctx, path)
}

// copyInto writes everything to a new file, or leaves none.
func copyInto(ctx context.Context, on sqlx.ExecerContext, path string) error {
	f, err := os.OpenFile(path, os.O_CREATE|os.O_EXCL|os.O_WRONLY, private)
	if errors.Is(err, os.ErrExist) {
		return fmt.Errorf("%s exists already; name a new file", path)
	}
	if err != nil {
		return err
	}
	if err := f.Close(); err != nil {
		return err
	}
	if _, err := on.ExecContext(ctx, `VACUUM main INTO ?`, path); err != nil {
		return errors.Join(fmt.Errorf("writing %s: %w", filepath.Base(path), err), os.Remove(path))
	}
	return nil
}

// Verify checks that a file is a sound Tussock data file, of this schema or an older one,
// and that every row can be read. The file is not changed.
func Verify(ctx context.Context, path string) error {
	_, clean, err := opened(ctx, path)
	return errors.Join(err, clean())
}

// opened copies a data file to a private place, brings it up to date there and reads every
// row. clean takes the copy away again and can always be called.
func opened(ctx context.Context, path string) (work string, clean func() error, err error) {
	clean = func() error { return nil }
	dir, err := os.MkdirTemp("", "tussock-work-") // 0700
	if err != nil {
		return "", clean, err
	}
	clean = func() error { return os.RemoveAll(dir) }
	work = filepath.Join(dir, "work.db")
	if err := copyFile(path, work); err != nil {
		return "", clean, err
	}
	damaged := func(why string) error { return &Refused{filepath.Base(path), why, true} }
	if info, err := os.Stat(work); err != nil || info.Size() == 0 {
		return "", clean, errors.Join(err, damaged("is empty"))
	}
	s, err := Open(ctx, work)
	var no *Refused
	switch {
	case errors.As(err, &no):
		return "", clean, &Refused{filepath.Base(path), no.Why, no.Damaged}
	case err != nil:
		return "", clean, damaged("is damaged")
	}
	defer func() { err = errors.Join(err, s.Close()) }()
	if err := s.whole(ctx, "integrity_check"); err != nil {
		return "", clean, damaged("is damaged: " + err.Error())
	}
	bad, err := s.unreadable(ctx)
	if err != nil {
		return "", clean, damaged("is damaged")
	}
	if len(bad) > 0 {
		return "", clean, damaged(fmt.Sprintf("holds %d rows that cannot be read, the first a %s: %s", len(bad), bad[0].What, bad[0].Why))
	}
	return work, clean, nil
}

// whole asks SQLite whether the file is in order, by quick_check or integrity_check.
func (s *Store) whole(ctx context.Context, by string) error {
	var verdict []string
	if err := s.read.SelectContext(ctx, &verdict, `PRAGMA `+by); err != nil {
		return err
	}
	if len(verdict) != 1 || verdict[0] != "ok" {
		return errors.New(verdict[0])
	}
	return nil
}

// ErrRestoring is the error of who would restore while another does.
var ErrRestoring = errors.New("another backup is being restored; wait for it")

// Restore replaces everything by the contents of a backup, all or nothing. The backup is
// copied to a private place, checked and read row by row first, and is not changed. What
// was there until then is kept beside the data file, every change that was acknowledged in
// it or in the restored data; its path is returned.
func (s *Store) Restore(ctx context.Context, path string) (kept string, err error) {
	if !s.restoring.TryLock() {
		return "", ErrRestoring
	}
	defer s.restoring.Unlock()
	work, clean, err := opened(ctx, path)
	defer func() { err = errors.Join(err, clean()) }()
	if err != nil {
		return "", err
	}
	// The one connection that writes: while it is held here nobody else changes anything.
	conn, err := s.write.Connx(ctx)
	if err != nil {
		return "", err
	}
	defer func() { err = errors.Join(err, conn.Close()) }()
	if _, err := conn.ExecContext(ctx, `ATTACH DATABASE ? AS incoming`, work); err != nil {
		return "", err
	}
	defer func() {
		_, e := conn.ExecContext(context.WithoutCancel(ctx), `DETACH DATABASE incoming`)
		err = errors.Join(err, e)
	}()
	kept = s.Path + ".before-restore-" + s.now().UTC().Format("20060102-150405.000")
	if err := copyInto(ctx, conn, kept); err != nil {
		return "", err
	}
	if err := replace(ctx, conn); err != nil {
		return "", errors.Join(err, os.Remove(kept))
	}
	return kept, s.tell(ctx, 0, nil)
}

// replace puts what is incoming in the place of what is there, all or nothing.
func replace(ctx context.Context, conn *sqlx.Conn) error {
	tx, err := conn.BeginTxx(ctx, nil)
	if err != nil {
		return err
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
			return errors.Join(err, ignoreDone(tx.Rollback()))
		}
	}
	return tx.Commit()
}

func copyFile(from, to string) (err error) {
	src, err := os.Open(from)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, src.Close()) }()
	dst, err := os.OpenFile(to, os.O_CREATE|os.O_TRUNC|os.O_WRONLY, private)
	if err != nil {
		return err
	}
	_, err = io.Copy(dst, src)
	return errors.Join(err, dst.Close())
}
