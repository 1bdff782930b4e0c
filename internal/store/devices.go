package store

import (
	"context"
	"time"

	"github.com/jmoiron/sqlx"
)

// Device is a device of the hall that was let in.
type Device struct {
	ID       int64
	Name     string
	Address  string
	JoinedAt time.Time
	SeenAt   time.Time
}

type deviceRow struct {
	ID       int64
	Name     string
	Token    string
	Address  string
	JoinedAt string `db:"joined_at"`
	SeenAt   string `db:"seen_at"`
}

func (r deviceRow) device() Device {
	return Device{r.ID, r.Name, r.Address, moment(r.JoinedAt), moment(r.SeenAt)}
}

// AddDevice lets a device in: token is the hash of what it brings from now on.
func (s *Store) AddDevice(ctx context.Context, name, token, address string) (Device, error) {
	at := s.now()
	d := Device{Name: name, Address: address, JoinedAt: at, SeenAt: at}
	res, err := s.write.ExecContext(ctx, `INSERT INTO devices (name, token, address, joined_at, seen_at) VALUES (?, ?, ?, ?, ?)`, name, token, address, text(at), text(at))
	if err != nil {
		return d, err
	}
	d.ID, err = res.LastInsertId()
	return d, err
}

// Devices are those let in, first come first, by the hashes of their tokens.
func (s *Store) Devices(ctx context.Context) (list []Device, tokens []string, err error) {
	var rows []deviceRow
	if err := s.read.SelectContext(ctx, &rows, `SELECT * FROM devices ORDER BY id`); err != nil {
		return nil, nil, err
	}
	for _, r := range rows {
		list, tokens = append(list, r.device()), append(tokens, r.Token)
	}
	return list, tokens, nil
}

// RenameDevice gives a device another name.
func (s *Store) RenameDevice(ctx context.Context, id int64, name string) error {
	return s.exec(ctx, `UPDATE devices SET name = ? WHERE id = ?`, name, id)
}

// SeenDevices keeps when devices were last seen.
func (s *Store) SeenDevices(ctx context.Context, at map[int64]time.Time) error {
	return s.inTx(ctx, func(tx *sqlx.Tx) error {
		for id, t := range at {
			if _, err := tx.ExecContext(ctx, `UPDATE devices SET seen_at = ? WHERE id = ?`, text(t), id); err != nil {
				return err
			}
		}
		return nil
	})
}

// PutOut takes a device away: its token opens nothing any more.
func (s *Store) PutOut(ctx context.Context, id int64) error {
	return s.exec(ctx, `DELETE FROM devices WHERE id = ?`, id)
}
