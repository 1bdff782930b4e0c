package store

import (
	"bytes"
	"context"
	"encoding/binary"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"

	"github.com/jmoiron/sqlx"
)

// Refused is the error of a file that is not opened, because it is not Tussock's or not
// for this one.
type Refused struct {
	File    string // without its folder
	Why     string
	Damaged bool // it is Tussock's, but cannot be read
}

func (e *Refused) Error() string { return e.File + " " + e.Why }

// applicationID is "Tuss", in the head of every data file since the fifth schema.
const applicationID = 0x54757373

const headBytes = 100

// recognise refuses a file of another program, or of a newer Tussock, and changes neither
// it nor what lies beside it. A file that is not there, or empty, is as good as ours.
func recognise(ctx context.Context, path string) (err error) {
	refuse := func(why string) error { return &Refused{File: filepath.Base(path), Why: why} }
	unread := func(ours bool) error {
		if ours {
			return &Refused{filepath.Base(path), "is damaged", true}
		}
		return refuse("is not a Tussock data file, or damaged")
	}
	f, err := os.Open(path)
	if errors.Is(err, os.ErrNotExist) {
		return nil
	}
	if err != nil {
		return err
	}
	head := make([]byte, headBytes)
	n, err := io.ReadFull(f, head)
	if cerr := f.Close(); cerr != nil {
		return cerr
	}
	if n == 0 {
		return nil
	}
	if err != nil || !bytes.HasPrefix(head, []byte("SQLite format 3\x00")) {
		return refuse("is not a Tussock data file")
	}
	id := binary.BigEndian.Uint32(head[68:])
	if id != 0 && id != applicationID {
		return refuse("belongs to another program")
	}
	// Looked at as a copy: opening a file may already write beside it.
	dir, err := os.MkdirTemp("", "tussock-look-")
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, os.RemoveAll(dir)) }()
	look := filepath.Join(dir, "look.db")
	for _, end := range []string{"", "-wal"} {
		if err := copyFile(path+end, look+end); err != nil && !(end != "" && errors.Is(err, os.ErrNotExist)) {
			return err
		}
	}
	db, err := sqlx.Open("sqlite", dsn(look, "deferred", "busy_timeout(1000)"))
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, db.Close()) }()
	// Killed when it was made, a file may hold nothing yet.
	var tables int
	if err := db.GetContext(ctx, &tables, `SELECT count(*) FROM sqlite_master`); err == nil && tables == 0 {
		return nil
	}
	var version int64
	if err := db.GetContext(ctx, &version, `SELECT coalesce(max(version_id), 0) FROM goose_db_version`); err != nil {
		return unread(id == applicationID)
	}
	var builds int
	if err := db.GetContext(ctx, &builds, `SELECT count(*) FROM sqlite_master WHERE name IN ('builds', 'tweaks', 'trials')`); err != nil || builds < 3 && version > 0 {
		return unread(id == applicationID)
	}
	p, err := provider(db)
	if err != nil {
		return err
	}
	sources := p.ListSources()
	if newest := sources[len(sources)-1].Version; version > newest {
		return refuse(fmt.Sprintf("was written by a newer Tussock (its data are of version %d, this one knows up to %d): use that one, or restore a backup made before", version, newest))
	}
	return nil
}
