package store

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"

	"github.com/jmoiron/sqlx"

	"tussock/internal/bench"
)

type paperRow struct {
	ID        int64
	Name      string
	Sheet     string
	Grain     string
	Stiffness string
	Left      *int `db:"sheets_left"`
	Origin    string
	DeletedAt *string `db:"deleted_at"`
}

func (r paperRow) paper() (bench.Paper, error) {
	p := bench.Paper{ID: r.ID, Name: r.Name, Grain: r.Grain, Stiffness: r.Stiffness, Left: r.Left, Origin: r.Origin, DeletedAt: optional(r.DeletedAt)}
	if err := json.Unmarshal([]byte(r.Sheet), &p.Sheet); err != nil {
		return p, fmt.Errorf("sheet of paper %d: %w", r.ID, err)
	}
	return p, nil
}

// Papers lists the drawer; binned chooses those in the bin instead.
func (s *Store) Papers(ctx context.Context, binned bool) ([]bench.Paper, error) {
	return papers(ctx, s.read, binned)
}

func papers(ctx context.Context, q sqlx.QueryerContext, binned bool) ([]bench.Paper, error) {
	var rows []paperRow
	if err := sqlx.SelectContext(ctx, q, &rows, `SELECT * FROM papers WHERE (deleted_at IS NOT NULL) = ? ORDER BY name, id`, binned); err != nil {
		return nil, err
	}
	out := make([]bench.Paper, 0, len(rows))
	for _, r := range rows {
		p, err := r.paper()
		if err != nil {
			return nil, err
		}
		out = append(out, p)
	}
	return out, nil
}

// UpdatePapers changes the drawer in one write transaction: f is given what lies in it and
// returns papers that have changed (with their id) or are new (without). Nothing changes
// when f gives an error. The papers come back with their ids.
func (s *Store) UpdatePapers(ctx context.Context, f func(have []bench.Paper) ([]bench.Paper, error)) (out []bench.Paper, err error) {
	err = s.inTx(ctx, func(tx *sqlx.Tx) error {
		have, err := papers(ctx, tx, false)
		if err != nil {
			return err
		}
		if out, err = f(have); err != nil {
			return err
		}
		for i := range out {
			if out[i].ID > 0 {
				p := out[i]
				err = one(tx.ExecContext(ctx, `UPDATE papers SET name = ?, sheet = ?, grain = ?, stiffness = ?, sheets_left = ? WHERE id = ? AND deleted_at IS NULL`,
					p.Name, mustJSON(p.Sheet), p.Grain, p.Stiffness, p.Left, p.ID))
			} else {
				out[i].ID, err = insertPaper(ctx, tx, out[i])
			}
			if err != nil {
				return err
			}
		}
		return nil
	})
	return out, err
}

func insertPaper(ctx context.Context, tx *sqlx.Tx, p bench.Paper) (int64, error) {
	res, err := tx.ExecContext(ctx, `INSERT INTO papers (name, sheet, grain, stiffness, sheets_left, origin) VALUES (?, ?, ?, ?, ?, ?)`,
		p.Name, mustJSON(p.Sheet), p.Grain, cmp.Or(p.Stiffness, "ordinary"), p.Left, p.Origin)
	if err != nil {
		return 0, err
	}
	return res.LastInsertId()
}

// AddPapers puts papers into the drawer, all or none, and gives the id of the first.
func (s *Store) AddPapers(ctx context.Context, papers ...bench.Paper) (first int64, err error) {
	out, err := s.UpdatePapers(ctx, func([]bench.Paper) ([]bench.Paper, error) { return papers, nil })
	if err != nil || len(out) == 0 {
		return 0, err
	}
	return out[0].ID, nil
}

// ChangePaper keeps what is now known of a paper.
func (s *Store) ChangePaper(ctx context.Context, p bench.Paper) error {
	_, err := s.UpdatePapers(ctx, func([]bench.Paper) ([]bench.Paper, error) { return []bench.Paper{p}, nil })
	return err
}

// BinPaper moves a paper to the bin.
func (s *Store) BinPaper(ctx context.Context, id int64) error {
	return s.exec(ctx, `UPDATE papers SET deleted_at = ? WHERE id = ? AND deleted_at IS NULL`, text(s.now()), id)
}

// RestorePaper takes a paper out of the bin.
func (s *Store) RestorePaper(ctx context.Context, id int64) error {
	return s.exec(ctx, `UPDATE papers SET deleted_at = NULL WHERE id = ? AND deleted_at IS NOT NULL`, id)
}

// Settings are the person's choices.
func (s *Store) Settings(ctx context.Context) (bench.Settings, error) {
	var out bench.Settings
	err := s.read.GetContext(ctx, &out, `SELECT units, hand, theme, page, finger_mm FROM settings WHERE id = 1`)
	return out, err
}

// SetSettings keeps them.
func (s *Store) SetSettings(ctx context.Context, v bench.Settings) error {
	if err := v.Check(); err != nil {
		return err
	}
	return s.exec(ctx, `UPDATE settings SET units = ?, hand = ?, theme = ?, page = ?, finger_mm = ? WHERE id = 1`, v.Units, v.Hand, v.Theme, cmp.Or(v.Page, "auto"), v.FingerMM)
}
