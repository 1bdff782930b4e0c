package folding

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/bench"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/ways"
	"tussock/internal/web/answer"
)

// HealthView says that the program answers.
type HealthView struct {
	OK bool `json:"ok"`
}

func (s *Routes) shelfRoutes(api huma.API) {
	huma.Register(api, huma.Operation{OperationID: "health", Method: http.MethodGet, Path: "/api/v1/health", Summary: "Whether Tussock is up"},
		func(context.Context, *struct{}) (*answer.Body[HealthView], error) { return answer.OK(HealthView{true}) })
	huma.Register(api, huma.Operation{OperationID: "list-sizes", Method: http.MethodGet, Path: "/api/v1/sizes", Summary: "Sheet sizes by name"},
		func(context.Context, *struct{}) (*answer.Body[[]SizeView], error) {
			out := []SizeView{}
			for _, z := range sheet.Sizes {
				out = append(out, SizeView(z))
			}
			return answer.OK(out)
		})
	huma.Register(api, huma.Operation{OperationID: "list-patterns", Method: http.MethodGet, Path: "/api/v1/patterns", Summary: "The shelf"}, s.listPatterns)
	huma.Register(api, huma.Operation{OperationID: "sift-patterns", Method: http.MethodPost, Path: "/api/v1/shelf", Summary: "What of the shelf does for what lies on the table, and what each filter leaves out", MaxBodyBytes: answer.SmallBody}, s.sift)
	huma.Register(api, huma.Operation{OperationID: "replay", Method: http.MethodPost, Path: "/api/v1/patterns/{id}/replay",
		Summary: "Fold a pattern on a sheet", MaxBodyBytes: 16 << 10}, s.replayPattern)
}

// Warm draws the shelf before anybody asks for it.
func (s *Routes) Warm() error {
	_, err := s.listPatterns(context.Background(), nil)
	return err
}

func (s *Routes) listPatterns(context.Context, *struct{}) (*answer.Body[[]PatternView], error) {
	all, err := shelf.All()
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	out := []PatternView{}
	for _, p := range all {
		v := PatternView{ID: p.ID, Title: p.Title, Moves: p.Moves, Way: ways.For(p).Name, Good: p.Good, Show: p.Show, Minutes: p.Minutes,
			WidthMM: p.WidthMM, HeightMM: p.HeightMM, Size: sheet.NameOf(p.WidthMM, p.HeightMM),
			MinRatio: p.MinRatio, MaxRatio: p.MaxRatio, Corners: regular(p.Shape), Steps: len(p.Steps), Knobs: viewKnobs(p)}
		c, err := s.Card(p, bench.Setup{Sheet: bench.PlainPaper(p.WidthMM, p.HeightMM)})
		if err != nil {
			return nil, answer.AsProblem(err, "")
		}
		v.Thickest, v.Picture = c.Thickest, c.Picture
		if err := tell(&v, p); err != nil {
			return nil, answer.AsProblem(err, "")
		}
		out = append(out, v)
	}
	return answer.OK(out)
}

func (s *Routes) replayPattern(_ context.Context, in *answer.ReplayInput) (*answer.Body[*ReplayView], error) {
	p, err := answer.FindPattern(in.ID)
	if err != nil {
		return nil, err
	}
	setup, err := in.Body.Setup(p.ID)
	if err != nil {
		return nil, err
	}
	v, err := s.Replay(p, setup)
	if err != nil {
		return nil, answer.AsProblem(err, "body.sheet.")
	}
	return answer.OK(v)
}
