package store

import (
	"context"
	"errors"
	"fmt"
	"time"
)

// OwnPack is a pack of one's own as it is kept.
type OwnPack struct {
	ID        int64
	Body      string // JSON
	Approved  bool
	CreatedAt string  `db:"created_at"`
	DeletedAt *string `db:"deleted_at"`
}

// MostPacks and MostImages bound what is kept; packs in the bin are not counted. When as many
// pictures are there, those go that no set-up names any more and that came before imageRest.
const (
	MostPacks  = 500
	MostImages = 200
	imageRest  = 24 * time.Hour
)

// ErrFull is the error of one more than are kept.
var ErrFull = errors.New("as many are kept as can be")

// OwnPacks lists the packs of one's own, the newest last; binned chooses those in the bin.
func (s *Store) OwnPacks(ctx context.Context, binned bool) (out []OwnPack, err error) {
	err = s.read.SelectContext(ctx, &out, `SELECT * FROM packs WHERE (deleted_at IS NOT NULL) = ? ORDER BY id`, binned)
	return out, err
}

// OwnPack is one of them; ErrNotFound when it is gone.
func (s *Store) OwnPack(ctx context.Context, id int64) (out OwnPack, err error) {
	err = s.read.GetContext(ctx, &out, `SELECT * FROM packs WHERE id = ? AND deleted_at IS NULL`, id)
	return out, notFound(err)
}

// AddPack keeps a pack.
func (s *Store) AddPack(ctx context.Context, body string) (int64, error) {
	res, err := s.write.ExecContext(ctx, `INSERT INTO packs (body, created_at) SELECT ?, ? WHERE (SELECT count(*) FROM packs WHERE deleted_at IS NULL) < ?`, body, text(s.now()), MostPacks)
	if err != nil {
		return 0, err
	}
	if n, err := res.RowsAffected(); err != nil || n == 0 {
		return 0, errors.Join(err, fmt.Errorf("%w: %d packs. Put one into the bin first", ErrFull, MostPacks))
	}
	return res.LastInsertId()
}

// ChangePack keeps what a pack is now, and whether a leader approves of it.
func (s *Store) ChangePack(ctx context.Context, id int64, body string, approved bool) error {
	return s.exec(ctx, `UPDATE packs SET body = ?, approved = ? WHERE id = ? AND deleted_at IS NULL`, body, approved, id)
}

// BinPack moves a pack to the bin.
func (s *Store) BinPack(ctx context.Context, id int64) error {
	return s.exec(ctx, `UPDATE packs SET deleted_at = ? WHERE id = ? AND deleted_at IS NULL`, text(s.now()), id)
}

// RestorePack takes a pack out of the bin.
func (s *Store) RestorePack(ctx context.Context, id int64) error {
	return s.exec(ctx, `UPDATE packs SET deleted_at = NULL WHERE id = ? AND deleted_at IS NOT NULL`, id)
}

// AddImage keeps a picture by its name; one of that name stays as it is.
func (s *Store) AddImage(ctx context.Context, name string, body []byte) error {
	res, err := s.write.ExecContext(ctx, `INSERT INTO images (name, body, created_at) SELECT ?, ?, ? WHERE (SELECT count(*) FROM images) < ? ON CONFLICT (name) DO NOTHING`, name, body, text(s.now()), MostImages)
	if err != nil {
		return err
	}
	if n, err := res.RowsAffected(); err != nil || n > 0 {
		return err
	}
	if _, err := s.Image(ctx, name); err == nil {
		return nil
	}
	gone, err := s.dropImages(ctx)
	if err != nil {
		return err
	}
	if gone == 0 {
		return fmt.Errorf("%w: %d pictures, all of them on builds or sent today. Take one that ships", ErrFull, MostImages)
	}
	return s.AddImage(ctx, name, body)
}

// dropImages lets pictures go that nothing names any more, neither on the bench nor in the
// bin, and tells how many. What came lately stays: it may be about to be written, and to be
// undone.
func (s *Store) dropImages(ctx context.Context) (int64, error) {
	res, err := s.write.ExecContext(ctx, `DELETE FROM images WHERE created_at < ?
		AND NOT EXISTS (SELECT 1 FROM builds WHERE instr(draft, images.name) > 0)
		AND NOT EXISTS (SELECT 1 FROM tweaks WHERE instr(setup, images.name) > 0)
		AND NOT EXISTS (SELECT 1 FROM set_aside WHERE instr(row, images.name) > 0)`, text(s.now().Add(-imageRest)))
	if err != nil {
		return 0, err
	}
	return res.RowsAffected()
}

// Image is a picture by its name; ErrNotFound when there is none.
func (s *Store) Image(ctx context.Context, name string) (body []byte, err error) {
	err = s.read.GetContext(ctx, &body, `SELECT body FROM images WHERE name = ?`, name)
	return body, notFound(err)
}
