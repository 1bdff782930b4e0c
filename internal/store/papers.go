package store

import (
	"context"
	"encoding/json"

	"tussock/internal/bench"
)

// Papers lists the drawer; binned chooses those in the bin instead.
func (s *Store) Papers(ctx context.Context, binned bool) ([]bench.Paper, error) {
	var rows []struct {
		ID        int64
		Name      string
		Sheet     string
		DeletedAt *string `db:"deleted_at"`
	}
	if err := s.db.SelectContext(ctx, &rows, `SELECT * FROM papers WHERE (deleted_at IS NOT NULL) = ? ORDER BY name, id`, binned); err != nil {
		return nil, err
	}
	out := make([]bench.Paper, 0, len(rows))
	for _, r := range rows {
		p := bench.Paper{ID: r.ID, Name: r.Name, DeletedAt: optional(r.DeletedAt)}
		if err := json.Unmarshal([]byte(r.Sheet), &p.Sheet); err != nil {
			return nil, err
		}
		out = append(out, p)
	}
	return out, nil
}

// AddPaper puts a paper into the drawer.
func (s *Store) AddPaper(ctx context.Context, p bench.Paper) (int64, error) {
	res, err := s.db.ExecContext(ctx, `INSERT INTO papers (name, sheet) VALUES (?, ?)`, p.Name, mustJSON(p.Sheet))
	if err != nil {
		return 0, err
	}
	return res.LastInsertId()
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
