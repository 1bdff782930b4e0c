package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/bench"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
)

func (s *foldingArea) shelfRoutes(api huma.API) {
	huma.Register(api, huma.Operation{OperationID: "health", Method: http.MethodGet, Path: "/api/v1/health", Summary: "Whether Tussock is up"},
		func(context.Context, *struct{}) (*answer[struct {
			OK bool `json:"ok"`
		}], error) {
			return ok(struct {
				OK bool `json:"ok"`
			}{true})
		})
	huma.Register(api, huma.Operation{OperationID: "list-sizes", Method: http.MethodGet, Path: "/api/v1/sizes", Summary: "Sheet sizes by name"},
		func(context.Context, *struct{}) (*answer[[]SizeView], error) {
			out := []SizeView{}
			for _, z := range sheet.Sizes {
				out = append(out, SizeView(z))
			}
			return ok(out)
		})
	huma.Register(api, huma.Operation{OperationID: "list-patterns", Method: http.MethodGet, Path: "/api/v1/patterns", Summary: "The shelf"}, s.listPatterns)
	huma.Register(api, huma.Operation{OperationID: "replay", Method: http.MethodPost, Path: "/api/v1/patterns/{id}/replay",
		Summary: "Fold a pattern on a sheet", MaxBodyBytes: 16 << 10}, s.replayPattern)
}

func (s *foldingArea) listPatterns(context.Context, *struct{}) (*answer[[]PatternView], error) {
	all, err := shelf.All()
	if err != nil {
		return nil, asProblem(err, "")
	}
	out := []PatternView{}
	for _, p := range all {
		v := PatternView{ID: p.ID, Title: p.Title, Moves: p.Moves, Good: p.Good, Show: p.Show, Minutes: p.Minutes,
			WidthMM: p.WidthMM, HeightMM: p.HeightMM, Size: sheet.NameOf(p.WidthMM, p.HeightMM),
			MinRatio: p.MinRatio, MaxRatio: p.MaxRatio, Steps: len(p.Steps), Knobs: viewKnobs(p)}
		r, err := s.replay(p, bench.Setup{Sheet: bench.PlainPaper(p.WidthMM, p.HeightMM)})
		if err != nil {
			return nil, asProblem(err, "")
		}
		if r.Toy != nil {
			v.Thickest, v.Picture = r.Toy.MaxLayers, r.finished()
		}
		out = append(out, v)
	}
	return ok(out)
}

type replayInput struct {
	ID   string `path:"id" maxLength:"80"`
	Body SetupInput
}

func (s *foldingArea) replayPattern(_ context.Context, in *replayInput) (*answer[*ReplayView], error) {
	p, err := findPattern(in.ID)
	if err != nil {
		return nil, err
	}
	setup, err := in.Body.setup(p.ID)
	if err != nil {
		return nil, err
	}
	v, err := s.replay(p, setup)
	if err != nil {
		return nil, asProblem(err, "body.sheet.")
	}
	return ok(v)
}
