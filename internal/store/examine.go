package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"time"

	"github.com/jmoiron/sqlx"
	"modernc.org/sqlite"
	sqlite3 "modernc.org/sqlite/lib"
)

// Aside is a row that could not be read when the file was opened. It is kept as it was.
type Aside struct {
	What string // table and number
	Why  string
	At   time.Time
}

// bad is a row that cannot be read.
type bad struct {
	table string
	id    int64
	Aside
}

// mostChecked bounds the files that are checked to the last index when they are opened,
// bytes: it takes about 5 ms for each megabyte.
const mostChecked = 32 << 20

// Examine looks a file through that has just been opened: an error says that it is damaged.
// Rows that cannot be read are set aside, so that all others can be; those set aside now
// are returned.
func (s *Store) Examine(ctx context.Context) ([]Aside, error) {
	by := "integrity_check" // finds damaged indexes as well
	if info, err := os.Stat(s.Path); err == nil && info.Size() > mostChecked {
		by = "quick_check"
	}
	if err := s.whole(ctx, by); err != nil {
		return nil, &Refused{filepath.Base(s.Path), "is damaged: " + err.Error(), true}
	}
	if err := s.sameSchema(ctx); err != nil {
		return nil, err
	}
	found, err := s.unreadable(ctx)
	if err != nil || len(found) == 0 {
		return nil, s.orDamaged(err)
	}
	var out []Aside
	err = s.inTx(ctx, func(tx *sqlx.Tx) error {
		for _, b := range found {
			if err := s.setAside(ctx, tx, b); err != nil {
				return err
			}
			out = append(out, b.Aside)
		}
		return nil
	})
	return out, s.orDamaged(err)
}

// sameSchema refuses a file whose tables are not as a new one has them: bytes of their
// description have changed.
func (s *Store) sameSchema(ctx context.Context) (err error) {
	dir, err := os.MkdirTemp("", "tussock-schema-")
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, os.RemoveAll(dir)) }()
	fresh, err := Open(ctx, filepath.Join(dir, "fresh.db"))
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, fresh.Close()) }()
	columns := func(db *sqlx.DB) (out []string, err error) {
		err = db.SelectContext(ctx, &out, `SELECT m.name || '.' || c.name || ' ' || c.type || ' ' || c."notnull" || ' ' || ifnull(c.dflt_value, '') || ' ' || c.pk
			FROM sqlite_master m, pragma_table_info(m.name) c WHERE m.type = 'table' ORDER BY 1`)
		return out, err
	}
	want, err := columns(fresh.read)
	if err != nil {
		return err
	}
	got, err := columns(s.read)
	if err != nil {
		return s.orDamaged(err)
	}
	if !slices.Equal(want, got) {
		return &Refused{filepath.Base(s.Path), "is damaged: its tables are not as they should be", true}
	}
	return nil
}

// orDamaged is an error as it is, or says that pages of the file are damaged.
func (s *Store) orDamaged(err error) error {
	var e *sqlite.Error
	if errors.As(err, &e) {
		switch e.Code() & 0xff {
		case sqlite3.SQLITE_CORRUPT, sqlite3.SQLITE_NOTADB, sqlite3.SQLITE_ERROR, sqlite3.SQLITE_IOERR:
			return &Refused{filepath.Base(s.Path), "is damaged: " + e.Error(), true}
		}
	}
	return err
}

// unreadable finds the rows whose contents cannot be decoded.
func (s *Store) unreadable(ctx context.Context) (out []bad, err error) {
	note := func(table, name string, id int64, err error) {
		if err != nil {
			out = append(out, bad{table, id, Aside{What: fmt.Sprintf("%s %d", name, id), Why: err.Error()}})
		}
	}
	err = s.asking(ctx, func(tx *sqlx.Tx) error {
		var trials []trialRow
		if err := tx.SelectContext(ctx, &trials, `SELECT * FROM trials`); err != nil {
			return err
		}
		for _, r := range trials {
			_, err := r.trial()
			note("trials", "trial", r.ID, err)
		}
		var tweaks []tweakRow
		if err := tx.SelectContext(ctx, &tweaks, `SELECT *, 0 AS tried FROM tweaks`); err != nil {
			return err
		}
		for _, r := range tweaks {
			_, err := r.tweak()
			note("tweaks", "tweak", r.ID, err)
		}
		var builds []buildRow
		if err := tx.SelectContext(ctx, &builds, `SELECT * FROM builds`); err != nil {
			return err
		}
		for _, r := range builds {
			_, err := r.build()
			note("builds", "build", r.ID, err)
		}
		var papers []paperRow
		if err := tx.SelectContext(ctx, &papers, `SELECT * FROM papers`); err != nil {
			return err
		}
		for _, r := range papers {
			_, err := r.paper()
			note("papers", "paper", r.ID, err)
		}
		return nil
	})
	return out, err
}

// setAside keeps a row as it was, and takes it out of the way with what hangs on it. Of a
// build only the draft goes, unless nothing else says how it is set up.
func (s *Store) setAside(ctx context.Context, tx *sqlx.Tx, b bad) error {
	at := text(s.now())
	keep := func(table, what, where string, arg int64) error {
		rows, err := tx.QueryxContext(ctx, `SELECT * FROM `+table+` WHERE `+where, arg)
		if err != nil {
			return err
		}
		var all []map[string]any
		for rows.Next() {
			m := map[string]any{}
			if err := rows.MapScan(m); err != nil {
				return err
			}
			all = append(all, m)
		}
		if err := rows.Err(); err != nil {
			return err
		}
		for _, m := range all {
			row, err := json.Marshal(m)
			if err != nil {
				return err
			}
			if _, err := tx.ExecContext(ctx, `INSERT INTO set_aside (what, row, why, at) VALUES (?, ?, ?, ?)`, what, string(row), b.Why, at); err != nil {
				return err
			}
		}
		return nil
	}
	run := func(q string, args ...any) error {
		_, err := tx.ExecContext(ctx, q, args...)
		return err
	}
	if err := keep(b.table, b.What, `id = ?`, b.id); err != nil {
		return err
	}
	switch b.table {
	case "trials", "papers":
		return run(`DELETE FROM `+b.table+` WHERE id = ?`, b.id)
	case "tweaks":
		if err := keep("trials", "a trial of "+b.What, `tweak_id = ?`, b.id); err != nil {
			return err
		}
		if err := run(`DELETE FROM trials WHERE tweak_id = ?`, b.id); err != nil {
			return err
		}
		var build int64
		if err := tx.GetContext(ctx, &build, `SELECT build_id FROM tweaks WHERE id = ?`, b.id); err != nil {
			return err
		}
		if err := run(`DELETE FROM tweaks WHERE id = ?`, b.id); err != nil {
			return err
		}
		return dropEmpty(run, build)
	}
	if err := run(`UPDATE builds SET draft = NULL, touched = '{}' WHERE id = ?`, b.id); err != nil {
		return err
	}
	return dropEmpty(run, b.id)
}

// dropEmpty takes a build away that nothing is left of but its name.
func dropEmpty(run func(string, ...any) error, build int64) error {
	const empty = `id = ? AND draft IS NULL AND NOT EXISTS (SELECT 1 FROM tweaks WHERE build_id = builds.id)`
	if err := run(`UPDATE builds SET parent_id = NULL, parent_tweak = NULL WHERE parent_id IN (SELECT id FROM builds WHERE `+empty+`)`, build); err != nil {
		return err
	}
	return run(`DELETE FROM builds WHERE `+empty, build)
}

// Asides are the rows that were set aside, newest first.
func (s *Store) Asides(ctx context.Context) ([]Aside, error) {
	var rows []struct{ What, Why, At string }
	if err := s.read.SelectContext(ctx, &rows, `SELECT what, why, at FROM set_aside ORDER BY id DESC`); err != nil {
		return nil, err
	}
	out := make([]Aside, 0, len(rows))
	for _, r := range rows {
		out = append(out, Aside{r.What, r.Why, moment(r.At)})
	}
	return out, nil
}
