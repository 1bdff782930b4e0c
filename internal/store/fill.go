package store

import (
	"context"
	"errors"

	"github.com/jmoiron/sqlx"

	"tussock/internal/bench"
)

// ErrNotEmpty is the error of filling a store that holds something already.
var ErrNotEmpty = errors.New("there are data in it already")

// Demo marks data that may be thrown away and made anew.
const Demo = "demo"

// Fill puts everything into an empty store and marks what it is, in one transaction. The
// ParentID of a build counts the builds of the list, from 1.
func (s *Store) Fill(ctx context.Context, mark string, papers []bench.Paper, builds []bench.Build) error {
	err := s.inTx(ctx, func(tx *sqlx.Tx) error {
		var n int
		if err := tx.GetContext(ctx, &n, `SELECT (SELECT count(*) FROM builds) + (SELECT count(*) FROM papers) + (SELECT count(*) FROM marks)`); err != nil {
			return err
		}
		if n > 0 {
			return ErrNotEmpty
		}
		for _, p := range papers {
			if _, err := insertPaper(ctx, tx, p); err != nil {
				return err
			}
		}
		ids := make([]int64, len(builds))
		for i, b := range builds {
			if b.ParentID != nil {
				b.ParentID = &ids[*b.ParentID-1]
			}
			var err error
			if ids[i], err = s.insertWhole(ctx, tx, b); err != nil {
				return err
			}
		}
		_, err := tx.ExecContext(ctx, `INSERT INTO marks (name, value) VALUES (?, 'yes')`, mark)
		return err
	})
	return s.tell(ctx, 0, err)
}

// Marked tells whether the data are marked so.
func (s *Store) Marked(ctx context.Context, mark string) (bool, error) {
	var n int
	err := s.read.GetContext(ctx, &n, `SELECT count(*) FROM marks WHERE name = ?`, mark)
	return n > 0, err
}
