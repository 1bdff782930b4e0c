package files

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"os"
	"path/filepath"
	"slices"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/store"
	"tussock/internal/web/answer"
)

// maxBackupBytes bounds a backup that is sent.
const maxBackupBytes = 64 << 20

func (s *Routes) backupRoutes(api huma.API) {
	op := func(id, method, path, summary string) huma.Operation {
		return answer.HereOnly(huma.Operation{OperationID: id, Method: method, Path: "/api/v1" + path, Summary: summary, MaxBodyBytes: maxBackupBytes})
	}
	huma.Register(api, op("get-backup", http.MethodGet, "/backup", "Everything in one file"), s.getBackup)
	huma.Register(api, op("restore-backup", http.MethodPost, "/backup", "Replace everything by a backup"), s.restoreBackup)
	huma.Register(api, op("list-copies", http.MethodGet, "/copies", "The daily copies, and what could not be read"), s.listCopies)
	huma.Register(api, op("restore-copy", http.MethodPost, "/copies/{day}/restore", "Replace everything by the copy of a day"), s.restoreCopy)
}

func (s *Routes) getBackup(ctx context.Context, _ *struct{}) (out *answer.File, err error) {
	dir, err := os.MkdirTemp("", "tussock-backup-")
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	defer func() { err = errors.Join(err, os.RemoveAll(dir)) }()
	path := filepath.Join(dir, "backup.tussock")
	if err := s.store.Backup(ctx, path); err != nil {
		return nil, answer.AsProblem(err, "")
	}
	data, err := os.ReadFile(path)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	name := "tussock-" + time.Now().Format("2006-01-02") + ".tussock"
	return &answer.File{Type: "application/octet-stream", Disposition: `attachment; filename="` + name + `"`, Body: data}, nil
}

type backupInput struct {
	RawBody []byte `contentType:"application/octet-stream"`
}

// RestoredView says where what was there before is kept.
type RestoredView struct {
	Kept string `json:"kept" doc:"file with everything as it was before"`
}

func (s *Routes) restoreBackup(ctx context.Context, in *backupInput) (out *answer.Body[RestoredView], err error) {
	if len(in.RawBody) < 100 || !slices.Equal(in.RawBody[:15], []byte("SQLite format 3")) {
		return nil, answer.Refuse("body", fmt.Sprintf("%d bytes", len(in.RawBody)), "this file is not a Tussock backup; nothing has been changed")
	}
	dir, err := os.MkdirTemp("", "tussock-restore-")
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	defer func() { err = errors.Join(err, os.RemoveAll(dir)) }()
	path := filepath.Join(dir, "this file")
	if err := os.WriteFile(path, in.RawBody, 0o600); err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return s.restored(ctx, path)
}

// restored restores from a file. A file that will not do is told why.
func (s *Routes) restored(ctx context.Context, path string) (*answer.Body[RestoredView], error) {
	defer s.forget("")
	kept, err := s.store.Restore(ctx, path)
	var no *store.Refused
	if errors.As(err, &no) {
		return nil, answer.Refuse("body", nil, "the backup cannot be read, and nothing has been changed: "+no.Error())
	}
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return answer.OK(RestoredView{kept})
}

// CopiesView are the daily copies, and the rows that could not be read.
type CopiesView struct {
	Folder string      `json:"folder" doc:"beside the data file"`
	Copies []CopyView  `json:"copies" doc:"newest first"`
	Asides []AsideView `json:"asides" doc:"rows that could not be read and were set aside, newest first"`
}

// CopyView is the copy of a day.
type CopyView struct {
	Day   string `json:"day" doc:"2026-11-29"`
	Bytes int64  `json:"bytes"`
}

// AsideView is a row that could not be read.
type AsideView struct {
	What string    `json:"what"`
	Why  string    `json:"why"`
	At   time.Time `json:"at"`
}

func (s *Routes) listCopies(ctx context.Context, _ *struct{}) (*answer.Body[CopiesView], error) {
	all, err := store.Copies(s.store.Path)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	v := CopiesView{filepath.Base(s.store.Path) + ".copies", []CopyView{}, []AsideView{}}
	for _, c := range all {
		v.Copies = append(v.Copies, CopyView(c))
	}
	asides, err := s.store.Asides(ctx)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	for _, a := range asides {
		v.Asides = append(v.Asides, AsideView(a))
	}
	return answer.OK(v)
}

type dayInput struct {
	Day string `path:"day" pattern:"^[0-9]{4}-[0-9]{2}-[0-9]{2}$"`
}

func (s *Routes) restoreCopy(ctx context.Context, in *dayInput) (*answer.Body[RestoredView], error) {
	path, err := s.store.CopyPath(in.Day)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return s.restored(ctx, path)
}
