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
	"time"

	"github.com/jmoiron/sqlx"
	"github.com/pressly/goose/v3"
	_ "modernc.org/sqlite" // registers the driver "sqlite"
)

//go:embed migrations/*.sql
var migrations embed.FS

// ErrNotFound is returned for ids that do not exist or lie in the bin.
var ErrNotFound = errors.New("not found")

// Store is an open data file. It is safe for concurrent use.
type Store struct {
	db   *sqlx.DB
	Path string
	now  func() time.Time
}

// Open opens or makes the data file and brings its schema up to date.
func Open(ctx context.Context, path string) (*Store, error) {
	if err := os.MkdirAll(filepath.Dir(path), 0o700); err != nil {
		return nil, fmt.Errorf("data folder: %w", err)
	}
	db, err := sqlx.Open("sqlite", dsn(path))
	if err != nil {
		return nil, err
	}
	db.SetMaxOpenConns(4)
	s := &Store{db: db, Path: path, now: time.Now}
	if err := s.migrate(ctx); err != nil {
		return nil, errors.Join(fmt.Errorf("opening %s: %w", path, err), db.Close())
	}
	return s, nil
}

func dsn(path string) string {
	q := url.Values{}
	for _, p := range []string{"busy_timeout(5000)", "journal_mode(WAL)", "foreign_keys(1)", "synchronous(FULL)"} {
		q.Add("_pragma", p)
	}
	q.Set("_txlock", "immediate")
	return (&url.URL{Scheme: "file", Opaque: (&url.URL{Path: path}).EscapedPath(), RawQuery: q.Encode()}).String()
}

func (s *Store) migrate(ctx context.Context) error {
	sub, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	p, err := goose.NewProvider(goose.DialectSQLite3, s.db.DB, sub)
	if err != nil {
		return err
	}
	_, err = p.Up(ctx)
	return err
}

// Close closes the file.
func (s *Store) Close() error { return s.db.Close() }

// inTx runs f in one write transaction.
func (s *Store) inTx(ctx context.Context, f func(*sqlx.Tx) error) error {
	tx, err := s.db.BeginTxx(ctx, nil)
	if err != nil {
		return err
	}
	if err := f(tx); err != nil {
		return errors.Join(err, ignoreDone(tx.Rollback()))
	}
	return tx.Commit()
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
