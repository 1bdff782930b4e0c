package store

import (
	"context"
	"encoding/json"
	"fmt"

	"github.com/jmoiron/sqlx"

	"tussock/internal/bench"
)

type trialRow struct {
	ID        int64
	TweakID   int64 `db:"tweak_id"`
	Kind      string
	Readings  string
	Under     string
	Seen      string
	Thrower   string
	Place     string
	Air       string
	Note      string
	At        string
	DeletedAt *string `db:"deleted_at"`
	Key       *string
}

func (r trialRow) trial() (bench.Trial, error) {
	t := bench.Trial{ID: r.ID, TweakID: r.TweakID, Kind: r.Kind, Thrower: r.Thrower, Place: r.Place, Air: r.Air, Note: r.Note, At: moment(r.At), DeletedAt: optional(r.DeletedAt)}
	if r.Key != nil {
		t.Key = *r.Key
	}
	for _, q := range []struct {
		text string
		into any
	}{{r.Seen, &t.Seen}, {r.Readings, &t.Read}, {r.Under, &t.Under}} {
		if err := json.Unmarshal([]byte(q.text), q.into); err != nil {
			return t, fmt.Errorf("what was noted of trial %d: %w", r.ID, err)
		}
	}
	return t, nil
}

func (s *Store) trialsOf(ctx context.Context, tx *sqlx.Tx, builds []int64) (map[int64][]bench.Trial, error) {
	q, args, err := sqlx.In(`SELECT trials.* FROM trials JOIN tweaks ON tweaks.id = trials.tweak_id
		WHERE tweaks.build_id IN (?) AND trials.deleted_at IS NULL ORDER BY trials.at, trials.id`, builds)
	if err != nil {
		return nil, err
	}
	var rows []trialRow
	if err := tx.SelectContext(ctx, &rows, q, args...); err != nil {
		return nil, err
	}
	out := map[int64][]bench.Trial{}
	for _, r := range rows {
		t, err := r.trial()
		if err != nil {
			return nil, err
		}
		out[t.TweakID] = append(out[t.TweakID], t)
	}
	return out, nil
}

func (s *Store) insertTrial(ctx context.Context, tx *sqlx.Tx, t bench.Trial) (int64, error) {
	at := t.At
	if at.IsZero() {
		at = s.now()
	}
	res, err := tx.ExecContext(ctx, `INSERT INTO trials (tweak_id, kind, readings, under, seen, thrower, place, air, note, at, key)
		VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, nullif(?, ''))`, t.TweakID, t.Kind, mapText(t.Read), mapText(t.Under), seenText(t.Seen), t.Thrower, t.Place, t.Air, t.Note, text(at), t.Key)
	if err != nil {
		return 0, err
	}
	return res.LastInsertId()
}

func seenText(seen []string) string {
	if seen == nil {
		seen = []string{}
	}
	return mustJSON(seen)
}

func mapText[V any](m map[string]V) string {
	if m == nil {
		m = map[string]V{}
	}
	return mustJSON(m)
}

// TrialByKey is the trial that was kept under a key, in the bin or not, with its build and
// the number of its tweak; ErrNotFound when there is none.
func (s *Store) TrialByKey(ctx context.Context, key string) (id, build int64, tweak int, err error) {
	var r struct {
		ID      int64
		BuildID int64 `db:"build_id"`
		No      int
	}
	err = s.read.GetContext(ctx, &r, `SELECT trials.id, tweaks.build_id, tweaks.no FROM trials JOIN tweaks ON tweaks.id = trials.tweak_id WHERE trials.key = ?`, key)
	return r.ID, r.BuildID, r.No, notFound(err)
}

// LastTrial is the newest trial of any build; ErrNotFound when there is none.
func (s *Store) LastTrial(ctx context.Context) (bench.Trial, error) {
	var r trialRow
	err := s.read.GetContext(ctx, &r, `SELECT trials.* FROM trials JOIN tweaks ON tweaks.id = trials.tweak_id JOIN builds ON builds.id = tweaks.build_id
		WHERE trials.deleted_at IS NULL AND builds.deleted_at IS NULL ORDER BY trials.at DESC, trials.id DESC LIMIT 1`)
	if err != nil {
		return bench.Trial{}, notFound(err)
	}
	return r.trial()
}

// Trial is one trial that is not in the bin.
func (s *Store) Trial(ctx context.Context, id int64) (bench.Trial, error) {
	var r trialRow
	if err := s.read.GetContext(ctx, &r, `SELECT * FROM trials WHERE id = ? AND deleted_at IS NULL`, id); err != nil {
		return bench.Trial{}, notFound(err)
	}
	return r.trial()
}

// BuildOfTrial is the build that a trial, in the bin or not, belongs to.
func (s *Store) BuildOfTrial(ctx context.Context, id int64) (int64, error) {
	var b int64
	err := s.read.GetContext(ctx, &b, buildOfTrial, id)
	return b, notFound(err)
}

// UpdateTrial replaces the readings of a trial; it stays at its tweak and time.
func (s *Store) UpdateTrial(ctx context.Context, t bench.Trial) error {
	return s.changeTrial(ctx, t.ID, `UPDATE trials SET kind = ?, readings = ?, under = ?, seen = ?, thrower = ?, place = ?, air = ?, note = ?
		WHERE id = ? AND deleted_at IS NULL`, t.Kind, mapText(t.Read), mapText(t.Under), seenText(t.Seen), t.Thrower, t.Place, t.Air, t.Note, t.ID)
}

// BinTrial moves a trial to the bin.
func (s *Store) BinTrial(ctx context.Context, id int64) error {
	return s.changeTrial(ctx, id, `UPDATE trials SET deleted_at = ? WHERE id = ? AND deleted_at IS NULL`, text(s.now()), id)
}

// RestoreTrial takes a trial out of the bin. A tweak that was withdrawn meanwhile comes
// back with it, as the newest.
func (s *Store) RestoreTrial(ctx context.Context, id int64) error {
	return s.changeTrial(ctx, id, `UPDATE trials SET deleted_at = NULL WHERE id = ? AND deleted_at IS NOT NULL`, id)
}

const bringTweakBack = `UPDATE tweaks SET no = 1 + (SELECT max(0, max(no)) FROM tweaks AS all_of WHERE all_of.build_id = tweaks.build_id)
	WHERE no < 0 AND id = (SELECT tweak_id FROM trials WHERE id = ? AND deleted_at IS NULL)`

// changeTrial changes one trial, and so its build.
func (s *Store) changeTrial(ctx context.Context, id int64, q string, args ...any) error {
	var build int64
	err := s.inTx(ctx, func(tx *sqlx.Tx) error {
		if err := one(tx.ExecContext(ctx, q, args...)); err != nil {
			return err
		}
		if err := tx.GetContext(ctx, &build, buildOfTrial, id); err != nil {
			return err
		}
		if _, err := tx.ExecContext(ctx, bringTweakBack, id); err != nil {
			return err
		}
		var was string
		if err := tx.GetContext(ctx, &was, `SELECT updated_at FROM builds WHERE id = ?`, build); err != nil {
			return err
		}
		return one(tx.ExecContext(ctx, `UPDATE builds SET updated_at = ? WHERE id = ?`, text(s.after(moment(was))), build))
	})
	return s.tell(ctx, build, err)
}

const buildOfTrial = `SELECT build_id FROM tweaks JOIN trials ON trials.tweak_id = tweaks.id WHERE trials.id = ?`

// BinnedTrial is a trial in the bin with the build it belongs to.
type BinnedTrial struct {
	Trial     bench.Trial
	BuildID   int64
	BuildName string
	Pattern   string
	TweakNo   int
}

// BinnedTrials lists trials in the bin whose build is not.
func (s *Store) BinnedTrials(ctx context.Context) ([]BinnedTrial, error) {
	var rows []struct {
		trialRow
		BuildID   int64  `db:"build_id"`
		BuildName string `db:"build_name"`
		Pattern   string
		No        int
	}
	err := s.read.SelectContext(ctx, &rows, `SELECT trials.*, builds.id AS build_id, builds.name AS build_name, builds.pattern, tweaks.no
		FROM trials JOIN tweaks ON tweaks.id = trials.tweak_id JOIN builds ON builds.id = tweaks.build_id
		WHERE trials.deleted_at IS NOT NULL AND builds.deleted_at IS NULL ORDER BY trials.deleted_at DESC`)
	if err != nil {
		return nil, err
	}
	out := make([]BinnedTrial, 0, len(rows))
	for _, r := range rows {
		t, err := r.trial()
		if err != nil {
			return nil, err
		}
		out = append(out, BinnedTrial{t, r.BuildID, r.BuildName, r.Pattern, r.No})
	}
	return out, nil
}
