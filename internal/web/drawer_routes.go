package web

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/bench"
	"tussock/internal/shelf"
)

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

// BinView is all that can be taken out of the bin.
type BinView struct {
	Builds []BuildCard   `json:"builds"`
	Trials []BinnedTrial `json:"trials"`
	Papers []PaperView   `json:"papers"`
}

// BinnedTrial is a throw in the bin.
type BinnedTrial struct {
	ID        int64     `json:"id"`
	BuildID   int64     `json:"build_id"`
	BuildName string    `json:"build_name"`
	Tweak     int       `json:"tweak"`
	Moves     string    `json:"moves"`
	Trial     TrialView `json:"trial"`
}

func (s *server) drawerRoutes(api huma.API) {
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
	huma.Register(api, op("get-settings", http.MethodGet, "/settings", "A person's choices"),
		func(ctx context.Context, _ *struct{}) (*answer[bench.Settings], error) {
			v, err := s.store.Settings(ctx)
			return &answer[bench.Settings]{v}, asProblem(err, "")
		})
	huma.Register(api, op("set-settings", http.MethodPut, "/settings", "Keep a person's choices"),
		func(ctx context.Context, in *answer[bench.Settings]) (*answer[bench.Settings], error) {
			return in, asProblem(s.store.SetSettings(ctx, in.Body), "")
		})
	huma.Register(api, op("list-bin", http.MethodGet, "/bin", "What has been thrown away"), s.listBin)
}

func (s *server) papers(ctx context.Context, binned bool) (*answer[[]PaperView], error) {
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

func (s *server) listBin(ctx context.Context, _ *struct{}) (*answer[BinView], error) {
	builds, err := s.store.BinnedBuilds(ctx)
	if err != nil {
		return nil, asProblem(err, "")
	}
	trials, err := s.store.BinnedTrials(ctx)
	if err != nil {
		return nil, asProblem(err, "")
	}
	papers, err := s.papers(ctx, true)
	if err != nil {
		return nil, err
	}
	out := BinView{Builds: []BuildCard{}, Trials: []BinnedTrial{}, Papers: papers.Body}
	for _, b := range builds {
		out.Builds = append(out.Builds, viewCard(b))
	}
	for _, t := range trials {
		moves := ""
		if p, found := shelf.Find(t.Pattern); found {
			moves = p.Moves
		}
		out.Trials = append(out.Trials, BinnedTrial{t.Trial.ID, t.BuildID, t.BuildName, t.TweakNo, moves, viewTrial(t.Trial)})
	}
	return ok(out)
}
