package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/bench"
	"tussock/internal/store"
)

// papersArea answers what is asked of papers and sheets.
type papersArea struct{ store *store.Store }

func newPapers(s *store.Store) *papersArea { return &papersArea{s} }

// register adds its routes.
func (s *papersArea) register(api huma.API) {
	s.paperRoutes(api)
	s.waysRoutes(api)
	s.fitRoutes(api)
	s.drawerRoutes(api)
}

// PaperView is a paper in the drawer.
type PaperView struct {
	ID        int64           `json:"id"`
	Name      string          `json:"name"`
	Sheet     bench.SheetSpec `json:"sheet"`
	Size      string          `json:"size" doc:"name of its size, empty for one's own"`
	Grain     string          `json:"grain" enum:",width,height" doc:"along which side the fibres run; empty when not known"`
	Stiffness string          `json:"stiffness" enum:"soft,ordinary,crisp"`
	Left      *int            `json:"left,omitempty" doc:"sheets left; absent when nobody counts"`
	Origin    string          `json:"origin" doc:"what it was cut from; empty for bought paper"`
	Suits     []SuitView      `json:"suits" doc:"by way of moving; rules of thumb"`
}

// SuitView is how well a paper serves for a way of moving.
type SuitView struct {
	Moves   string `json:"moves"`
	Verdict string `json:"verdict" enum:"good,fair,poor"`
	Why     string `json:"why"`
}

func (s *papersArea) drawerRoutes(api huma.API) {
	op := func(id, method, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: method, Path: "/api/v1" + path, Summary: summary, MaxBodyBytes: smallBody}
	}
	huma.Register(api, op("list-papers", http.MethodGet, "/papers", "Papers in the drawer"),
		func(ctx context.Context, _ *struct{}) (*answer[[]PaperView], error) { return s.papers(ctx, false) })
	huma.Register(api, op("add-paper", http.MethodPost, "/papers", "Put a paper into the drawer"), s.addPaper)
	huma.Register(api, op("change-paper", http.MethodPut, "/papers/{id}", "Keep what is known of a paper"), s.changePaper)
	huma.Register(api, op("add-leftovers", http.MethodPost, "/leftovers", "Put what was cut off into the drawer"), s.addLeftovers)
	huma.Register(api, op("measure-paper", http.MethodPost, "/paper-measures", "Weight and thickness from a scale and a ruler"), s.measurePaper)
	huma.Register(api, op("bin-paper", http.MethodDelete, "/papers/{id}", "Move a paper to the bin"),
		func(ctx context.Context, in *PathID) (*struct{}, error) {
			return nil, asProblem(s.store.BinPaper(ctx, in.ID), "")
		})
	huma.Register(api, op("restore-paper", http.MethodPost, "/papers/{id}/restore", "Take a paper out of the bin"),
		func(ctx context.Context, in *PathID) (*struct{}, error) {
			return nil, asProblem(s.store.RestorePaper(ctx, in.ID), "")
		})
}

func (s *papersArea) papers(ctx context.Context, binned bool) (*answer[[]PaperView], error) {
	list, err := s.store.Papers(ctx, binned)
	if err != nil {
		return nil, asProblem(err, "")
	}
	out := []PaperView{}
	for _, p := range list {
		v, err := s.viewPaper(p)
		if err != nil {
			return nil, asProblem(err, "")
		}
		out = append(out, v)
	}
	return ok(out)
}
