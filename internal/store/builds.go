package store

import (
	"context"
	"encoding/json"
	"fmt"

	"github.com/jmoiron/sqlx"

	"tussock/internal/bench"
)

type buildRow struct {
	ID          int64
	Pattern     string
	Name        string
	ParentID    *int64 `db:"parent_id"`
	ParentTweak *int   `db:"parent_tweak"`
	Step        int
	Draft       *string
	CreatedAt   string  `db:"created_at"`
	UpdatedAt   string  `db:"updated_at"`
	DeletedAt   *string `db:"deleted_at"`
}

type tweakRow struct {
	ID        int64
	BuildID   int64 `db:"build_id"`
	No        int
	Setup     string
	Why       string
	CreatedAt string `db:"created_at"`
}

func (r buildRow) build() (*bench.Build, error) {
	b := &bench.Build{ID: r.ID, Pattern: r.Pattern, Name: r.Name, ParentID: r.ParentID, ParentTweak: r.ParentTweak,
		Step: r.Step, CreatedAt: moment(r.CreatedAt), UpdatedAt: moment(r.UpdatedAt), DeletedAt: optional(r.DeletedAt)}
	if r.Draft != nil {
		b.Draft = &bench.Setup{}
		if err := json.Unmarshal([]byte(*r.Draft), b.Draft); err != nil {
			return nil, fmt.Errorf("draft of build %d: %w", r.ID, err)
		}
	}
	return b, nil
}

// CreateBuild adds a build whose set-up is still a draft.
func (s *Store) CreateBuild(ctx context.Context, b bench.Build) (int64, error) {
	var id int64
	err := s.inTx(ctx, func(tx *sqlx.Tx) (err error) {
		id, err = s.insertBuild(ctx, tx, b)
		return err
	})
	return id, err
}

func (s *Store) insertBuild(ctx context.Context, tx *sqlx.Tx, b bench.Build) (int64, error) {
	at := b.CreatedAt
	if at.IsZero() {
		at = s.now()
	}
	var draft *string
	if b.Draft != nil {
		d := mustJSON(b.Draft)
		draft = &d
	}
	res, err := tx.ExecContext(ctx, `INSERT INTO builds (pattern, name, parent_id, parent_tweak, step, draft, created_at, updated_at)
		VALUES (?, ?, ?, ?, ?, ?, ?, ?)`, b.Pattern, b.Name, b.ParentID, b.ParentTweak, b.Step, draft, text(at), text(at))
	if err != nil {
		return 0, err
	}
	return res.LastInsertId()
}

// Builds lists the builds that are not in the bin, newest change first.
func (s *Store) Builds(ctx context.Context) ([]*bench.Build, error) {
	return s.builds(ctx, `WHERE deleted_at IS NULL ORDER BY updated_at DESC, id DESC`)
}

// BinnedBuilds lists the builds in the bin.
func (s *Store) BinnedBuilds(ctx context.Context) ([]*bench.Build, error) {
	return s.builds(ctx, `WHERE deleted_at IS NOT NULL ORDER BY deleted_at DESC`)
}

// Build is one build with its tweaks and trials; ErrNotFound when it is gone.
func (s *Store) Build(ctx context.Context, id int64) (*bench.Build, error) {
	list, err := s.builds(ctx, `WHERE deleted_at IS NULL AND id = ?`, id)
	if err != nil {
		return nil, err
	}
	if len(list) == 0 {
		return nil, ErrNotFound
	}
	return list[0], nil
}

// Children are the builds made from a build.
func (s *Store) Children(ctx context.Context, id int64) ([]*bench.Build, error) {
	return s.builds(ctx, `WHERE deleted_at IS NULL AND parent_id = ? ORDER BY id`, id)
}

func (s *Store) builds(ctx context.Context, where string, args ...any) ([]*bench.Build, error) {
	var rows []buildRow
	if err := s.db.SelectContext(ctx, &rows, `SELECT * FROM builds `+where, args...); err != nil {
		return nil, err
	}
	out := make([]*bench.Build, 0, len(rows))
	byID := map[int64]*bench.Build{}
	ids := make([]int64, 0, len(rows))
	for _, r := range rows {
		b, err := r.build()
		if err != nil {
			return nil, err
		}
		out, byID[b.ID], ids = append(out, b), b, append(ids, b.ID)
	}
	return out, s.fillTweaks(ctx, ids, byID)
}

func (s *Store) fillTweaks(ctx context.Context, ids []int64, builds map[int64]*bench.Build) error {
	if len(ids) == 0 {
		return nil
	}
	q, args, err := sqlx.In(`SELECT * FROM tweaks WHERE build_id IN (?) ORDER BY build_id, no`, ids)
	if err != nil {
		return err
	}
	var rows []tweakRow
	if err := s.db.SelectContext(ctx, &rows, q, args...); err != nil {
		return err
	}
	trials, err := s.trialsOf(ctx, ids)
	if err != nil {
		return err
	}
	for _, r := range rows {
		t := bench.Tweak{ID: r.ID, BuildID: r.BuildID, No: r.No, Why: r.Why, CreatedAt: moment(r.CreatedAt), Trials: trials[r.ID]}
		if err := json.Unmarshal([]byte(r.Setup), &t.Setup); err != nil {
			return fmt.Errorf("set-up of tweak %d: %w", r.ID, err)
		}
		b := builds[r.BuildID]
		b.Tweaks = append(b.Tweaks, t)
	}
	return nil
}

// Rename gives a build another name.
func (s *Store) Rename(ctx context.Context, id int64, name string) error {
	return one(s.db.ExecContext(ctx, `UPDATE builds SET name = ?, updated_at = ? WHERE id = ? AND deleted_at IS NULL`, name, text(s.now()), id))
}

// SetStep keeps how far a build is folded.
func (s *Store) SetStep(ctx context.Context, id int64, step int) error {
	return one(s.db.ExecContext(ctx, `UPDATE builds SET step = ? WHERE id = ? AND deleted_at IS NULL`, step, id))
}

// SetDraft keeps a draft, or discards it (nil).
func (s *Store) SetDraft(ctx context.Context, id int64, draft *bench.Setup) error {
	var d *string
	if draft != nil {
		j := mustJSON(draft)
		d = &j
	}
	return one(s.db.ExecContext(ctx, `UPDATE builds SET draft = ?, updated_at = ? WHERE id = ? AND deleted_at IS NULL`, d, text(s.now()), id))
}

// BinBuild moves a build to the bin; RestoreBuild takes it out again.
func (s *Store) BinBuild(ctx context.Context, id int64) error {
	return one(s.db.ExecContext(ctx, `UPDATE builds SET deleted_at = ? WHERE id = ? AND deleted_at IS NULL`, text(s.now()), id))
}

// RestoreBuild takes a build out of the bin.
func (s *Store) RestoreBuild(ctx context.Context, id int64) error {
	return one(s.db.ExecContext(ctx, `UPDATE builds SET deleted_at = NULL WHERE id = ? AND deleted_at IS NOT NULL`, id))
}

// MakeTweak settles a set-up as the tweak of the given number and clears the
// draft. Two people settling at once get a uniqueness error, not two tweaks.
func (s *Store) MakeTweak(ctx context.Context, build int64, no int, setup bench.Setup, why string) (int64, error) {
	var id int64
	err := s.inTx(ctx, func(tx *sqlx.Tx) (err error) {
		id, err = s.insertTweak(ctx, tx, bench.Tweak{BuildID: build, No: no, Setup: setup, Why: why})
		return err
	})
	return id, err
}

func (s *Store) insertTweak(ctx context.Context, tx *sqlx.Tx, t bench.Tweak) (int64, error) {
	at := t.CreatedAt
	if at.IsZero() {
		at = s.now()
	}
	res, err := tx.ExecContext(ctx, `INSERT INTO tweaks (build_id, no, setup, why, created_at) VALUES (?, ?, ?, ?, ?)`,
		t.BuildID, t.No, mustJSON(t.Setup), t.Why, text(at))
	if err != nil {
		return 0, err
	}
	if err := one(tx.ExecContext(ctx, `UPDATE builds SET draft = NULL, updated_at = ? WHERE id = ?`, text(at), t.BuildID)); err != nil {
		return 0, err
	}
	return res.LastInsertId()
}

// SetWhy changes the reason noted with a tweak.
func (s *Store) SetWhy(ctx context.Context, build int64, no int, why string) error {
	return one(s.db.ExecContext(ctx, `UPDATE tweaks SET why = ? WHERE build_id = ? AND no = ?`, why, build, no))
}

// AddWhole adds a build with tweaks and trials, as read from a bundle or made
// for the demo, all or nothing. Dates are kept.
func (s *Store) AddWhole(ctx context.Context, b bench.Build) (int64, error) {
	var id int64
	err := s.inTx(ctx, func(tx *sqlx.Tx) (err error) {
		if id, err = s.insertBuild(ctx, tx, b); err != nil {
			return err
		}
		for _, t := range b.Tweaks {
			t.BuildID = id
			tweak, err := s.insertTweak(ctx, tx, t)
			if err != nil {
				return err
			}
			for _, trial := range t.Trials {
				trial.TweakID = tweak
				if _, err := s.insertTrial(ctx, tx, trial); err != nil {
					return err
				}
			}
		}
		if b.Draft != nil { // settling the tweaks has cleared it
			return one(tx.ExecContext(ctx, `UPDATE builds SET draft = ? WHERE id = ?`, mustJSON(b.Draft), id))
		}
		return nil
	})
	return id, err
}

// MakeChild adds a build made from a parent's draft and clears that draft.
func (s *Store) MakeChild(ctx context.Context, parent int64, child bench.Build) (int64, error) {
	var id int64
	err := s.inTx(ctx, func(tx *sqlx.Tx) (err error) {
		if id, err = s.insertBuild(ctx, tx, child); err != nil {
			return err
		}
		return one(tx.ExecContext(ctx, `UPDATE builds SET draft = NULL WHERE id = ?`, parent))
	})
	return id, err
}
