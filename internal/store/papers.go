package store

import (
	"cmp"
	"context"
	"encoding/json"

	"github.com/jmoiron/sqlx"

	"tussock/internal/bench"
)

// Papers lists the drawer; binned chooses those in the bin instead.
func (s *Store) Papers(ctx context.Context, binned bool) ([]bench.Paper, error) {
	var rows []struct {
		ID        int64
		Name      string
		Sheet     string
		Grain     string
		Stiffness string
		Left      *int `db:"sheets_left"`
		Origin    string
		DeletedAt *string `db:"deleted_at"`
	}
	if err := s.db.SelectContext(ctx, &rows, `SELECT * FROM papers WHERE (deleted_at IS NOT NULL) = ? ORDER BY name, id`, binned); err != nil {
		return nil, err
	}
	out := make([]bench.Paper, 0, len(rows))
	for _, r := range rows {
		p := bench.Paper{ID: r.ID, Name: r.Name, Grain: r.Grain, Stiffness: r.Stiffness, Left: r.Left, Origin: r.Origin, DeletedAt: optional(r.DeletedAt)}
		if err := json.Unmarshal([]byte(r.Sheet), &p.Sheet); err != nil {
			return nil, err
		}
		out = append(out, p)
	}
	return out, nil
}

// AddPapers puts papers into the drawer, all or none, and gives the id of the first.
func (s *Store) AddPapers(ctx context.Context, papers ...bench.Paper) (first int64, err error) {
	err = s.inTx(ctx, func(tx *sqlx.Tx) error {
		for i, p := range papers {
			res, err := tx.ExecContext(ctx, `INSERT INTO papers (name, sheet, grain, stiffness, sheets_left, origin) VALUES (?, ?, ?, ?, ?, ?)`,
				p.Name, mustJSON(p.Sheet), p.Grain, cmp.Or(p.Stiffness, "ordinary"), p.Left, p.Origin)
			if err != nil {
				return err
			}
			if i == 0 {
				if first, err = res.LastInsertId(); err != nil {
					return err
				}
			}
		}
		return nil
	})
	return first, err
}

// ChangePaper keeps what is now known of a paper.
func (s *Store) ChangePaper(ctx context.Context, p bench.Paper) error {
	return one(s.db.ExecContext(ctx, `UPDATE papers SET name = ?, sheet = ?, grain = ?, stiffness = ?, sheets_left = ? WHERE id = ? AND deleted_at IS NULL`,
		p.Name, mustJSON(p.Sheet), p.Grain, p.Stiffness, p.Left, p.ID))
}

// BinPaper moves a paper to the bin.
func (s *Store) BinPaper(ctx context.Context, id int64) error {
	return one(s.db.ExecContext(ctx, `UPDATE papers SET deleted_at = ? WHERE id = ? AND deleted_at IS NULL`, text(s.now()), id))
}

// RestorePaper takes a paper out of the bin.
func (s *Store) RestorePaper(ctx context.Context, id int64) error {
	return one(s.db.ExecContext(ctx, `UPDATE papers SET deleted_at = NULL WHERE id = ? AND deleted_at IS NOT NULL`, id))
}

// Settings are the person's choices.
func (s *Store) Settings(ctx context.Context) (bench.Settings, error) {
	var out bench.Settings
	err := s.db.GetContext(ctx, &out, `SELECT units, hand, theme FROM settings WHERE id = 1`)
	return out, err
}

// SetSettings keeps them.
func (s *Store) SetSettings(ctx context.Context, v bench.Settings) error {
	return one(s.db.ExecContext(ctx, `UPDATE settings SET units = ?, hand = ?, theme = ? WHERE id = 1`, v.Units, v.Hand, v.Theme))
}
