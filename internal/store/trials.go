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
}

func (r trialRow) trial() (bench.Trial, error) {
	t := bench.Trial{ID: r.ID, TweakID: r.TweakID, Kind: r.Kind, Thrower: r.Thrower, Place: r.Place, Air: r.Air, Note: r.Note, At: moment(r.At), DeletedAt: optional(r.DeletedAt)}
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

func (s *Store) trialsOf(ctx context.Context, builds []int64) (map[int64][]bench.Trial, error) {
	q, args, err := sqlx.In(`SELECT trials.* FROM trials JOIN tweaks ON tweaks.id = trials.tweak_id
		WHERE tweaks.build_id IN (?) AND trials.deleted_at IS NULL ORDER BY trials.at, trials.id`, builds)
	if err != nil {
		return nil, err
	}
	var rows []trialRow
	if err := s.db.SelectContext(ctx, &rows, q, args...); err != nil {
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
	res, err := tx.ExecContext(ctx, `INSERT INTO trials (tweak_id, kind, readings, under, seen, thrower, place, air, note, at)
		VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`, t.TweakID, t.Kind, mapText(t.Read), mapText(t.Under), seenText(t.Seen), t.Thrower, t.Place, t.Air, t.Note, text(at))
	if err != nil {
		return 0, err
	}
	if _, err := tx.ExecContext(ctx, `UPDATE builds SET updated_at = ? WHERE id = (SELECT build_id FROM tweaks WHERE id = ?)`, text(at), t.TweakID); err != nil {
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

// LogTrial adds a trial to a build. settle, when not nil, is the tweak that the
// draft becomes with it; both are written or neither.
func (s *Store) LogTrial(ctx context.Context, settle *bench.Tweak, tweak int64, t bench.Trial) (id int64, err error) {
	err = s.inTx(ctx, func(tx *sqlx.Tx) (err error) {
		if settle != nil {
			if tweak, err = s.insertTweak(ctx, tx, *settle); err != nil {
				return err
			}
		}
		t.TweakID = tweak
		id, err = s.insertTrial(ctx, tx, t)
		return err
	})
	return id, err
}

// Trial is one trial that is not in the bin.
func (s *Store) Trial(ctx context.Context, id int64) (bench.Trial, error) {
	var r trialRow
	if err := s.db.GetContext(ctx, &r, `SELECT * FROM trials WHERE id = ? AND deleted_at IS NULL`, id); err != nil {
		return bench.Trial{}, notFound(err)
	}
	return r.trial()
}

// BuildOfTrial is the build that a trial, in the bin or not, belongs to.
func (s *Store) BuildOfTrial(ctx context.Context, id int64) (int64, error) {
	var b int64
	err := s.db.GetContext(ctx, &b, `SELECT build_id FROM tweaks JOIN trials ON trials.tweak_id = tweaks.id WHERE trials.id = ?`, id)
	return b, notFound(err)
}

// UpdateTrial replaces the readings of a trial; it stays at its tweak and time.
func (s *Store) UpdateTrial(ctx context.Context, t bench.Trial) error {
	return one(s.db.ExecContext(ctx, `UPDATE trials SET kind = ?, readings = ?, under = ?, seen = ?, thrower = ?, place = ?, air = ?, note = ?
		WHERE id = ? AND deleted_at IS NULL`, t.Kind, mapText(t.Read), mapText(t.Under), seenText(t.Seen), t.Thrower, t.Place, t.Air, t.Note, t.ID))
}

// BinTrial moves a trial to the bin.
func (s *Store) BinTrial(ctx context.Context, id int64) error {
	return one(s.db.ExecContext(ctx, `UPDATE trials SET deleted_at = ? WHERE id = ? AND deleted_at IS NULL`, text(s.now()), id))
}

// RestoreTrial takes a trial out of the bin.
func (s *Store) RestoreTrial(ctx context.Context, id int64) error {
	return one(s.db.ExecContext(ctx, `UPDATE trials SET deleted_at = NULL WHERE id = ? AND deleted_at IS NOT NULL`, id))
}

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
	err := s.db.SelectContext(ctx, &rows, `SELECT trials.*, builds.id AS build_id, builds.name AS build_name, builds.pattern, tweaks.no
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
