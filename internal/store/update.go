package store

import (
	"context"
	"reflect"
	"slices"
	"time"

	"github.com/jmoiron/sqlx"

	"tussock/internal/bench"
)

// Update changes a build in one write transaction: f is given the build as it is now, its
// trials counted, and changes it; what is new or different is written. Nothing is when f
// gives an error. Two who change at once come one after the other, and the second is given
// what the first has made of it.
//
// Name, step, draft and version are written as f leaves them, and the reasons of tweaks.
// Tweaks and trials without an id are added; tweaks that f takes out are withdrawn,
// and come back when one of their trials is taken out of the bin. The build comes back with the new ids.
func (s *Store) Update(ctx context.Context, id int64, f func(*bench.Build) error) (*bench.Build, error) {
	var b *bench.Build
	err := s.inTx(ctx, func(tx *sqlx.Tx) (err error) {
		b, err = s.updateIn(ctx, tx, id, f)
		return err
	})
	return b, s.tell(ctx, id, err)
}

func (s *Store) updateIn(ctx context.Context, tx *sqlx.Tx, id int64, f func(*bench.Build) error) (*bench.Build, error) {
	b, err := first(s.buildsIn(ctx, tx, counted, `WHERE deleted_at IS NULL AND id = ?`, id))
	if err != nil {
		return nil, err
	}
	was := *b
	there := slices.Clone(b.Tweaks)
	reasons := make([]string, len(b.Tweaks))
	for i, t := range b.Tweaks {
		reasons[i] = t.Why
	}
	touched := mustJSON(b.Touched)
	if err := f(b); err != nil {
		return nil, err
	}
	fresh := false
	for i := range b.Tweaks {
		t := &b.Tweaks[i]
		if t.ID == 0 {
			t.BuildID, fresh = id, true
			if t.ID, err = s.insertTweak(ctx, tx, *t); err != nil {
				return nil, err
			}
		} else if t.Why != reasons[i] {
			if err := one(tx.ExecContext(ctx, `UPDATE tweaks SET why = ? WHERE id = ?`, t.Why, t.ID)); err != nil {
				return nil, err
			}
		}
		for k := range t.Trials {
			if x := &t.Trials[k]; x.ID == 0 {
				x.TweakID, fresh = t.ID, true
				if x.ID, err = s.insertTrial(ctx, tx, *x); err != nil {
					return nil, err
				}
			}
		}
	}
	for _, t := range there {
		if slices.ContainsFunc(b.Tweaks, func(u bench.Tweak) bool { return u.ID == t.ID }) {
			continue
		}
		fresh = true
		if err := one(tx.ExecContext(ctx, `UPDATE tweaks SET no = -id WHERE id = ?`, t.ID)); err != nil {
			return nil, err
		}
	}
	if fresh || b.At != was.At || b.Name != was.Name || b.Version != was.Version || !reflect.DeepEqual(b.Draft, was.Draft) || mustJSON(b.Touched) != touched {
		b.UpdatedAt = s.after(b.UpdatedAt)
	}
	return b, one(tx.ExecContext(ctx, `UPDATE builds SET name = ?, step = ?, draft = ?, at = ?, version = ?, touched = ?, updated_at = ? WHERE id = ?`,
		b.Name, b.Step, draftText(b.Draft), b.At, b.Version, mapText(b.Touched), text(b.UpdatedAt), id))
}

// MakeChild changes a build and adds one that f makes of it, both or neither.
func (s *Store) MakeChild(ctx context.Context, parent int64, f func(parent *bench.Build, all []*bench.Build) (bench.Build, error)) (int64, error) {
	var id int64
	err := s.inTx(ctx, func(tx *sqlx.Tx) error {
		all, err := s.bare(ctx, tx, onTheBench)
		if err != nil {
			return err
		}
		var child bench.Build
		if _, err = s.updateIn(ctx, tx, parent, func(b *bench.Build) error {
			child, err = f(b, all)
			return err
		}); err != nil {
			return err
		}
		id, err = s.insertBuild(ctx, tx, child)
		return err
	})
	return id, s.tell(ctx, parent, s.tell(ctx, id, err))
}

// after is now, or a little later than a moment that is not before it: what was changed
// twice within a millisecond is told apart.
func (s *Store) after(was time.Time) time.Time {
	now := s.now().Truncate(time.Millisecond)
	if !now.After(was) {
		now = was.Add(time.Millisecond)
	}
	return now
}
