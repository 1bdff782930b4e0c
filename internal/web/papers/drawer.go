package papers

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/bench"
	"tussock/internal/store"
	"tussock/internal/web/answer"
)

// Routes answers what is asked of papers and sheets.
type Routes struct {
	store *store.Store
	hand  atHand
}

// New makes the area.
func New(s *store.Store) *Routes { return &Routes{store: s} }

// Register adds its routes.
func (s *Routes) Register(api huma.API) {
	s.paperRoutes(api)
	s.waysRoutes(api)
	s.fitRoutes(api)
	s.drawerRoutes(api)
	s.atHandRoutes(api)
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

func (s *Routes) drawerRoutes(api huma.API) {
	op := func(id, method, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: method, Path: "/api/v1" + path, Summary: summary, MaxBodyBytes: answer.SmallBody}
	}
	huma.Register(api, op("list-papers", http.MethodGet, "/papers", "Papers in the drawer"),
		func(ctx context.Context, _ *struct{}) (*answer.Body[[]PaperView], error) { return s.List(ctx, false) })
	huma.Register(api, op("add-paper", http.MethodPost, "/papers", "Put a paper into the drawer"), s.addPaper)
	huma.Register(api, op("change-paper", http.MethodPut, "/papers/{id}", "Keep what is known of a paper"), s.changePaper)
	huma.Register(api, op("add-leftovers", http.MethodPost, "/leftovers", "Put what was cut off into the drawer"), s.addLeftovers)
	huma.Register(api, op("measure-paper", http.MethodPost, "/paper-measures", "Weight and thickness from a scale and a ruler"), s.measurePaper)
	huma.Register(api, op("bin-paper", http.MethodDelete, "/papers/{id}", "Move a paper to the bin"),
		func(ctx context.Context, in *answer.PathID) (*struct{}, error) {
			return nil, answer.AsProblem(s.store.BinPaper(ctx, in.ID), "")
		})
	huma.Register(api, op("restore-paper", http.MethodPost, "/papers/{id}/restore", "Take a paper out of the bin"),
		func(ctx context.Context, in *answer.PathID) (*struct{}, error) {
			return nil, answer.AsProblem(s.store.RestorePaper(ctx, in.ID), "")
		})
}

// List answers with the papers of the drawer, or with those in the bin.
func (s *Routes) List(ctx context.Context, binned bool) (*answer.Body[[]PaperView], error) {
	list, err := s.store.Papers(ctx, binned)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	out := []PaperView{}
	for _, p := range list {
		v, err := s.viewPaper(p)
		if err != nil {
			return nil, answer.AsProblem(err, "")
		}
		out = append(out, v)
	}
	return answer.OK(out)
}
