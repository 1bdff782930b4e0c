package builds

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/bench"
	"tussock/internal/shelf"
	"tussock/internal/ways"
	"tussock/internal/web/answer"
	"tussock/internal/web/papers"
)

// BinView is all that can be taken out of the bin.
type BinView struct {
	Builds []BuildCard        `json:"builds"`
	Trials []BinnedTrial      `json:"trials"`
	Papers []papers.PaperView `json:"papers"`
	Packs  []BinnedPack       `json:"packs"`
}

// BinnedPack is a pack of one's own in the bin.
type BinnedPack struct {
	ID    string `json:"id"`
	Title string `json:"title"`
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

func (s *Routes) listBin(ctx context.Context, _ *struct{}) (*answer.Body[BinView], error) {
	builds, err := s.store.BinnedBuilds(ctx)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	trials, err := s.store.BinnedTrials(ctx)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	papers, err := s.papers.List(ctx, true)
	if err != nil {
		return nil, err
	}
	out := BinView{Builds: []BuildCard{}, Trials: []BinnedTrial{}, Papers: papers.Body, Packs: []BinnedPack{}}
	packs, err := s.store.OwnPacks(ctx, true)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	for _, row := range packs {
		if p, err := answer.OwnPack(row); err == nil { // what cannot be read cannot be taken out
			out.Packs = append(out.Packs, BinnedPack{p.ID, p.Title})
		}
	}
	for _, b := range builds {
		out.Builds = append(out.Builds, viewCard(b))
	}
	for _, t := range trials {
		moves := ""
		if p, found := shelf.Find(t.Pattern); found {
			moves = ways.For(p).Name
		}
		out.Trials = append(out.Trials, BinnedTrial{t.Trial.ID, t.BuildID, t.BuildName, t.TweakNo, moves, ViewTrial(t.Trial)})
	}
	return answer.OK(out)
}

func (s *Routes) binRoutes(api huma.API) {
	op := func(id, method, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: method, Path: "/api/v1" + path, Summary: summary, MaxBodyBytes: answer.SmallBody}
	}
	huma.Register(api, op("get-settings", http.MethodGet, "/settings", "A person's choices"),
		func(ctx context.Context, _ *struct{}) (*answer.Body[bench.Settings], error) {
			v, err := s.store.Settings(ctx)
			return &answer.Body[bench.Settings]{Body: v}, answer.AsProblem(err, "")
		})
	huma.Register(api, answer.HereOnly(op("set-settings", http.MethodPut, "/settings", "Keep a person's choices")),
		func(ctx context.Context, in *answer.Body[bench.Settings]) (*answer.Body[bench.Settings], error) {
			return in, answer.AsProblem(s.store.SetSettings(ctx, in.Body), "")
		})
	huma.Register(api, op("list-bin", http.MethodGet, "/bin", "What has been thrown away"), s.listBin)
}
