package store

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

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
	Version     int
	Touched     string
	At          int
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
	Tried     int
}

func (r buildRow) build() (*bench.Build, error) {
	b := &bench.Build{ID: r.ID, Pattern: r.Pattern, Name: r.Name, ParentID: r.ParentID, ParentTweak: r.ParentTweak,
		Step: r.Step, Version: r.Version, At: r.At, CreatedAt: moment(r.CreatedAt), UpdatedAt: moment(r.UpdatedAt), DeletedAt: optional(r.DeletedAt)}
	if r.Draft != nil {
		b.Draft = &bench.Setup{}
		if err := json.Unmarshal([]byte(*r.Draft), b.Draft); err != nil {
			return nil, fmt.Errorf("draft of build %d: %w", r.ID, err)
		}
	}
	if err := json.Unmarshal([]byte(r.Touched), &b.Touched); err != nil {
		return nil, fmt.Errorf("changes of build %d: %w", r.ID, err)
	}
	return b, nil
}

// draftText is a draft as it is kept.
func draftText(d *bench.Setup) *string {
	if d == nil {
		return nil
	}
	t := mustJSON(d)
	return &t
}

// CreateBuild adds a build whose set-up is still a draft. name is given all builds there
// are and chooses its name.
func (s *Store) CreateBuild(ctx context.Context, b bench.Build, name func(all []*bench.Build) string) (int64, error) {
	var id int64
	err := s.inTx(ctx, func(tx *sqlx.Tx) error {
		if name != nil {
			all, err := s.bare(ctx, tx, onTheBench)
			if err != nil {
				return err
			}
			b.Name = name(all)
		}
		var err error
		id, err = s.insertBuild(ctx, tx, b)
		return err
	})
	return id, s.tell(ctx, id, err)
}

func (s *Store) insertBuild(ctx context.Context, tx *sqlx.Tx, b bench.Build) (int64, error) {
	at := b.CreatedAt
	if at.IsZero() {
		at = s.now()
	}
	res, err := tx.ExecContext(ctx, `INSERT INTO builds (pattern, name, parent_id, parent_tweak, step, draft, at, version, touched, created_at, updated_at)
		VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`, b.Pattern, b.Name, b.ParentID, b.ParentTweak, b.Step, draftText(b.Draft), b.At, max(1, b.Version), mapText(b.Touched), text(at), text(at))
	if err != nil {
		return 0, err
	}
	return res.LastInsertId()
}

const onTheBench = `WHERE deleted_at IS NULL ORDER BY updated_at DESC, id DESC`

// Builds lists the builds that are not in the bin with all their trials, newest change
// first.
func (s *Store) Builds(ctx context.Context) ([]*bench.Build, error) {
	return s.builds(ctx, whole, onTheBench)
}

// BuildsCounted lists them with their tweaks and how many trials these have, without the
// trials.
func (s *Store) BuildsCounted(ctx context.Context) ([]*bench.Build, error) {
	return s.builds(ctx, counted, onTheBench)
}

// BinnedBuilds lists the builds in the bin, their trials counted.
func (s *Store) BinnedBuilds(ctx context.Context) ([]*bench.Build, error) {
	return s.builds(ctx, counted, `WHERE deleted_at IS NOT NULL ORDER BY deleted_at DESC`)
}

// Build is one build with its tweaks and trials; ErrNotFound when it is gone.
func (s *Store) Build(ctx context.Context, id int64) (*bench.Build, error) {
	return first(s.builds(ctx, whole, `WHERE deleted_at IS NULL AND id = ?`, id))
}

func first(list []*bench.Build, err error) (*bench.Build, error) {
	if err != nil {
		return nil, err
	}
	if len(list) == 0 {
		return nil, ErrNotFound
	}
	return list[0], nil
}

// Family are the builds made from a build, their trials counted, and the name of the one
// it was made from; empty when that is in the bin.
func (s *Store) Family(ctx context.Context, b *bench.Build) (children []*bench.Build, parent string, err error) {
	err = s.asking(ctx, func(tx *sqlx.Tx) error {
		if children, err = s.bare(ctx, tx, `WHERE deleted_at IS NULL AND parent_id = ? ORDER BY id`, b.ID); err != nil {
			return err
		}
		if b.ParentID == nil {
			return nil
		}
		var names []string
		if err := tx.SelectContext(ctx, &names, `SELECT name FROM builds WHERE deleted_at IS NULL AND id = ?`, *b.ParentID); err != nil {
			return err
		}
		if len(names) == 1 {
			parent = names[0]
		}
		return nil
	})
	return children, parent, err
}

// IsBuild tells whether there is a build that is not in the bin.
func (s *Store) IsBuild(ctx context.Context, id int64) (bool, error) {
	var n int
	err := s.read.GetContext(ctx, &n, `SELECT count(*) FROM builds WHERE deleted_at IS NULL AND id = ?`, id)
	return n > 0, err
}

// How much of builds is read.
type depth int

const (
	counted depth = iota // tweaks, and how many trials they have
	whole                // and the trials
)

func (s *Store) builds(ctx context.Context, how depth, where string, args ...any) (out []*bench.Build, err error) {
	err = s.asking(ctx, func(tx *sqlx.Tx) error {
		out, err = s.buildsIn(ctx, tx, how, where, args...)
		return err
	})
	return out, err
}

// bare are builds without their tweaks.
func (s *Store) bare(ctx context.Context, tx *sqlx.Tx, where string, args ...any) ([]*bench.Build, error) {
	var rows []buildRow
	if err := tx.SelectContext(ctx, &rows, `SELECT * FROM builds `+where, args...); err != nil {
		return nil, err
	}
	out := make([]*bench.Build, 0, len(rows))
	for _, r := range rows {
		b, err := r.build()
		if err != nil {
			return nil, err
		}
		out = append(out, b)
	}
	return out, nil
}

func (s *Store) buildsIn(ctx context.Context, tx *sqlx.Tx, how depth, where string, args ...any) ([]*bench.Build, error) {
	out, err := s.bare(ctx, tx, where, args...)
	if err != nil || len(out) == 0 {
		return out, err
	}
	byID := map[int64]*bench.Build{}
	ids := make([]int64, 0, len(out))
	for _, b := range out {
		byID[b.ID], ids = b, append(ids, b.ID)
	}
	return out, s.fillTweaks(ctx, tx, how, ids, byID)
}

func (s *Store) fillTweaks(ctx context.Context, tx *sqlx.Tx, how depth, ids []int64, builds map[int64]*bench.Build) error {
	q, args, err := sqlx.In(`SELECT tweaks.*, (SELECT count(*) FROM trials WHERE tweak_id = tweaks.id AND deleted_at IS NULL) AS tried
		FROM tweaks WHERE build_id IN (?) AND no > 0 ORDER BY build_id, no`, ids)
	if err != nil {
		return err
	}
	var rows []tweakRow
	if err := tx.SelectContext(ctx, &rows, q, args...); err != nil {
		return err
	}
	trials := map[int64][]bench.Trial{}
	if how == whole {
		if trials, err = s.trialsOf(ctx, tx, ids); err != nil {
			return err
		}
	}
	for _, r := range rows {
		t, err := r.tweak()
		if err != nil {
			return err
		}
		t.Trials = trials[r.ID]
		b := builds[r.BuildID]
		b.Tweaks = append(b.Tweaks, t)
	}
	return nil
}

func (r tweakRow) tweak() (bench.Tweak, error) {
	t := bench.Tweak{ID: r.ID, BuildID: r.BuildID, No: r.No, Why: r.Why, CreatedAt: moment(r.CreatedAt), Tried: r.Tried}
	if err := json.Unmarshal([]byte(r.Setup), &t.Setup); err != nil {
		return t, fmt.Errorf("set-up of tweak %d: %w", r.ID, err)
	}
	return t, nil
}

// BinBuild moves a build to the bin; RestoreBuild takes it out again.
func (s *Store) BinBuild(ctx context.Context, id int64) error {
	return s.tell(ctx, id, s.exec(ctx, `UPDATE builds SET deleted_at = ? WHERE id = ? AND deleted_at IS NULL`, text(s.now()), id))
}

// RestoreBuild takes a build out of the bin.
func (s *Store) RestoreBuild(ctx context.Context, id int64) error {
	return s.tell(ctx, id, s.exec(ctx, `UPDATE builds SET deleted_at = NULL WHERE id = ? AND deleted_at IS NOT NULL`, id))
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
	return res.LastInsertId()
}

// AddWhole adds builds with tweaks and trials, as read from a bundle, all or nothing.
// Dates are kept. The id of the first is returned.
func (s *Store) AddWhole(ctx context.Context, builds ...bench.Build) (first int64, err error) {
	err = s.inTx(ctx, func(tx *sqlx.Tx) error {
		for i, b := range builds {
			id, err := s.insertWhole(ctx, tx, b)
			if err != nil {
				return err
			}
			if i == 0 {
				first = id
			}
		}
		return nil
	})
	return first, s.tell(ctx, first, err)
}

func (s *Store) insertWhole(ctx context.Context, tx *sqlx.Tx, b bench.Build) (int64, error) {
	id, err := s.insertBuild(ctx, tx, b)
	if err != nil {
		return 0, err
	}
	last := b.CreatedAt
	for _, t := range b.Tweaks {
		t.BuildID, last = id, later(last, t.CreatedAt)
		tweak, err := s.insertTweak(ctx, tx, t)
		if err != nil {
			return 0, err
		}
		for _, trial := range t.Trials {
			trial.TweakID, trial.Key, last = tweak, "", later(last, trial.At)
			if _, err := s.insertTrial(ctx, tx, trial); err != nil {
				return 0, err
			}
		}
	}
	if last.IsZero() {
		return id, nil
	}
	return id, one(tx.ExecContext(ctx, `UPDATE builds SET updated_at = ? WHERE id = ?`, text(last), id))
}

func later(a, b time.Time) time.Time {
	if b.After(a) {
		return b
	}
	return a
}
