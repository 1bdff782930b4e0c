// Package store keeps builds, tweaks, trials, papers and settings in one SQLite
// file. Every change that returns without error is on disk.
package store

import (
	"context"
	"database/sql"
	"embed"
	"encoding/json"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"
	"path/filepath"
	"sync"
	"time"

	"github.com/jmoiron/sqlx"
	"github.com/pressly/goose/v3"
	"modernc.org/sqlite" // registers the driver "sqlite"
	sqlite3 "modernc.org/sqlite/lib"
)

//go:embed migrations/*.sql
var migrations embed.FS

// ErrNotFound is returned for ids that do not exist or lie in the bin.
var ErrNotFound = errors.New("not found")

// Store is an open data file. It is safe for concurrent use.
type Store struct {
	// All changes go through one connection, one after the other: nobody waits for a lock
	// that is polled. Questions have connections of their own, which cannot change anything.
	write *sqlx.DB
	read  *sqlx.DB
	Path  string
	now   func() time.Time
	// told is told of every build that was changed, after it is on disk; 0 is all of them.
	told func(ctx context.Context, build int64)
	// restoring is held by whoever replaces everything.
	restoring sync.Mutex
}

// readers bounds the questions that are asked of the file at once.
const readers = 8

// Open opens or makes the data file and brings its schema up to date. A file of another
// program or of a newer Tussock is refused and not touched.
func Open(ctx context.Context, path string) (*Store, error) {
	if err := os.MkdirAll(filepath.Dir(path), 0o700); err != nil {
		return nil, fmt.Errorf("data folder: %w", err)
	}
	if err := recognise(ctx, path); err != nil {
		return nil, err
	}
	if err := makePrivate(path); err != nil {
		return nil, err
	}
	write, err := sqlx.Open("sqlite", dsn(path, "immediate", "busy_timeout(5000)", "journal_mode(WAL)", "foreign_keys(1)", "synchronous(FULL)"))
	if err != nil {
		return nil, err
	}
	write.SetMaxOpenConns(1)
	read, err := sqlx.Open("sqlite", dsn(path, "deferred", "busy_timeout(5000)", "query_only(1)"))
	if err != nil {
		return nil, errors.Join(err, write.Close())
	}
	read.SetMaxOpenConns(readers)
	read.SetMaxIdleConns(readers)
	s := &Store{write: write, read: read, Path: path, now: time.Now}
	if err := s.migrate(ctx); err != nil {
		return nil, errors.Join(fmt.Errorf("opening %s: %w", path, s.orDamaged(err)), s.Close())
	}
	return s, nil
}

// makePrivate makes the file, if it is not there, for its owner alone. What is written
// beside it takes its rights after it.
func makePrivate(path string) error {
	f, err := os.OpenFile(path, os.O_CREATE|os.O_RDONLY, private)
	if err != nil {
		return fmt.Errorf("data file: %w", err)
	}
	return errors.Join(f.Chmod(private), f.Close())
}

// private is for the owner alone.
const private = 0o600

func dsn(path, lock string, pragmas ...string) string {
	q := url.Values{"_pragma": pragmas, "_txlock": {lock}}
	return (&url.URL{Scheme: "file", Opaque: (&url.URL{Path: path}).EscapedPath(), RawQuery: q.Encode()}).String()
}

func provider(db *sqlx.DB) (*goose.Provider, error) {
	sub, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, err
	}
	return goose.NewProvider(goose.DialectSQLite3, db.DB, sub)
}

func (s *Store) migrate(ctx context.Context) error {
	p, err := provider(s.write)
	if err != nil {
		return err
	}
	_, err = p.Up(ctx)
	return err
}

// BringDown takes the schema of a file back to an earlier version, as it was before that
// was brought up to date. It is for tests of upgrades; what the earlier one had no place
// for is lost.
func BringDown(ctx context.Context, path string, version int64) (err error) {
	s, err := Open(ctx, path)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, s.Close()) }()
	p, err := provider(s.write)
	if err != nil {
		return err
	}
	_, err = p.DownTo(ctx, version)
	return err
}

// Tell has f called after every change of a build, with its number; 0 says that all may
// have changed.
func (s *Store) Tell(f func(ctx context.Context, build int64)) { s.told = f }

func (s *Store) tell(ctx context.Context, build int64, err error) error {
	if err == nil && s.told != nil {
		s.told(ctx, build)
	}
	return err
}

// Close closes the file.
func (s *Store) Close() error { return errors.Join(s.read.Close(), s.write.Close()) }

// Busy tells whether an error says that the file was locked for too long by another
// program: it can be tried again.
func Busy(err error) bool {
	var e *sqlite.Error
	return errors.As(err, &e) && (e.Code()&0xff == sqlite3.SQLITE_BUSY || e.Code()&0xff == sqlite3.SQLITE_LOCKED)
}

// inTx runs f in one write transaction.
func (s *Store) inTx(ctx context.Context, f func(*sqlx.Tx) error) error {
	tx, err := s.write.BeginTxx(ctx, nil)
	if err != nil {
		return err
	}
	if err := f(tx); err != nil {
		return errors.Join(err, ignoreDone(tx.Rollback()))
	}
	return tx.Commit()
}

// asking runs f in one read transaction: all that it is told is of one moment.
func (s *Store) asking(ctx context.Context, f func(*sqlx.Tx) error) error {
	tx, err := s.read.BeginTxx(ctx, &sql.TxOptions{ReadOnly: true})
	if err != nil {
		return err
	}
	return errors.Join(f(tx), ignoreDone(tx.Rollback()))
}

// exec changes one row, or says that it is not there.
func (s *Store) exec(ctx context.Context, q string, args ...any) error {
	return one(s.write.ExecContext(ctx, q, args...))
}

func ignoreDone(err error) error {
	if errors.Is(err, sql.ErrTxDone) {
		return nil
	}
	return err
}

func notFound(err error) error {
	if errors.Is(err, sql.ErrNoRows) {
		return ErrNotFound
	}
	return err
}

// one checks that a statement changed a row.
func one(r sql.Result, err error) error {
	if err != nil {
		return err
	}
	if n, err := r.RowsAffected(); err != nil || n == 0 {
		return errors.Join(err, ErrNotFound)
	}
	return nil
}

const stamp = "2006-01-02T15:04:05.000Z07:00"

func text(t time.Time) string { return t.UTC().Format(stamp) }

func moment(s string) time.Time {
	t, _ := time.Parse(stamp, s) // written by text only
	return t
}

func optional(s *string) *time.Time {
	if s == nil {
		return nil
	}
	t := moment(*s)
	return &t
}

// mustJSON encodes values that always can be: maps, slices and plain structs.
func mustJSON(v any) string {
	b, err := json.Marshal(v)
	if err != nil {
		panic(err)
	}
	return string(b)
}
