package web

import (
	"context"
	"errors"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/bench"
	"tussock/internal/motion"
	"tussock/internal/ways"
)

func (s *benchArea) trialRoutes(api huma.API) {
	op := func(id, method, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: method, Path: "/api/v1" + path, Summary: summary, MaxBodyBytes: smallBody}
	}
	huma.Register(api, op("log-trial", http.MethodPost, "/builds/{id}/trials", "Log a throw; a draft becomes a tweak with it"), s.logTrial)
	huma.Register(api, op("change-trial", http.MethodPut, "/trials/{id}", "Correct a throw"), s.changeTrial)
	huma.Register(api, op("bin-trial", http.MethodDelete, "/trials/{id}", "Move a throw to the bin"),
		func(ctx context.Context, in *PathID) (*answer[*BuildView], error) {
			return s.afterTrial(ctx, in.ID, s.store.BinTrial(ctx, in.ID))
		})
	huma.Register(api, op("restore-trial", http.MethodPost, "/trials/{id}/restore", "Take a throw out of the bin"),
		func(ctx context.Context, in *PathID) (*answer[*BuildView], error) {
			return s.afterTrial(ctx, in.ID, s.store.RestoreTrial(ctx, in.ID))
		})
}

func (in TrialInput) trial(w *motion.Way) (bench.Trial, error) {
	t := bench.Trial{Kind: in.Kind, Read: in.Read, Under: in.Under, Seen: in.Seen,
		Thrower: strings.TrimSpace(in.Thrower), Place: strings.TrimSpace(in.Place), Air: strings.TrimSpace(in.Air), Note: strings.TrimSpace(in.Note)}
	return t, asProblem(t.Check(w), "body.")
}

type logInput struct {
	PathID
	Body TrialInput
}

// LoggedView is the build after a throw was logged, and the throw's number so
// that it can be undone.
type LoggedView struct {
	Trial int64      `json:"trial"`
	Tweak int        `json:"tweak" doc:"the tweak it was logged at"`
	Build *BuildView `json:"build"`
}

func (s *benchArea) logTrial(ctx context.Context, in *logInput) (*answer[LoggedView], error) {
	b, err := s.store.Build(ctx, in.ID)
	if err != nil {
		return nil, asProblem(err, "")
	}
	p, err := findPattern(b.Pattern)
	if err != nil {
		return nil, err
	}
	t, err := in.Body.trial(&ways.Of(p.Moves).Way)
	if err != nil {
		return nil, err
	}
	var settle *bench.Tweak
	var tweak int64
	no, err := b.Settle(p.IsHard, &ways.Of(p.Moves).Way)
	switch {
	case errors.Is(err, bench.ErrNothingChanged):
		tweak, no = b.Latest().ID, b.Latest().No
	case err != nil:
		return nil, asProblem(err, "")
	default:
		settle = &bench.Tweak{BuildID: b.ID, No: no, Setup: b.Current()}
	}
	defer s.forget()
	id, err := s.store.LogTrial(ctx, settle, tweak, t)
	if err != nil {
		return nil, asProblem(err, "")
	}
	v, err := s.buildView(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	return ok(LoggedView{id, no, v.Body})
}

type changeTrialInput struct {
	PathID
	Body TrialInput
}

func (s *benchArea) changeTrial(ctx context.Context, in *changeTrialInput) (*answer[*BuildView], error) {
	id, err := s.store.BuildOfTrial(ctx, in.ID)
	if err != nil {
		return nil, asProblem(err, "")
	}
	b, err := s.store.Build(ctx, id)
	if err != nil {
		return nil, asProblem(err, "")
	}
	p, err := findPattern(b.Pattern)
	if err != nil {
		return nil, err
	}
	t, err := in.Body.trial(&ways.Of(p.Moves).Way)
	if err != nil {
		return nil, err
	}
	t.ID = in.ID
	return s.afterTrial(ctx, in.ID, s.store.UpdateTrial(ctx, t))
}

// afterTrial answers with the build that a trial belongs to.
func (s *benchArea) afterTrial(ctx context.Context, trial int64, err error) (*answer[*BuildView], error) {
	s.forget()
	if err != nil {
		return nil, asProblem(err, "")
	}
	b, err := s.store.BuildOfTrial(ctx, trial)
	if err != nil {
		return nil, asProblem(err, "")
	}
	return s.buildView(ctx, b)
}
