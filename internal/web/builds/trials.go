package builds

import (
	"context"
	"errors"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/bench"
	"tussock/internal/motion"
	"tussock/internal/ways"
	"tussock/internal/web/answer"
)

func (s *Routes) trialRoutes(api huma.API) {
	op := func(id, method, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: method, Path: "/api/v1" + path, Summary: summary, MaxBodyBytes: answer.SmallBody}
	}
	huma.Register(api, op("log-trial", http.MethodPost, "/builds/{id}/trials", "Log a throw; a draft becomes a tweak with it"), s.logTrial)
	huma.Register(api, op("change-trial", http.MethodPut, "/trials/{id}", "Correct a throw"), s.changeTrial)
	huma.Register(api, op("bin-trial", http.MethodDelete, "/trials/{id}", "Move a throw to the bin"),
		func(ctx context.Context, in *answer.PathID) (*answer.Body[*BuildView], error) {
			return s.afterTrial(ctx, in.ID, s.store.BinTrial(ctx, in.ID))
		})
	huma.Register(api, op("restore-trial", http.MethodPost, "/trials/{id}/restore", "Take a throw out of the bin"),
		func(ctx context.Context, in *answer.PathID) (*answer.Body[*BuildView], error) {
			return s.afterTrial(ctx, in.ID, s.store.RestoreTrial(ctx, in.ID))
		})
}

// Trial is the trial as it is kept, checked by the rules of its way of moving.
func (in TrialInput) Trial(w *motion.Way) (bench.Trial, error) {
	t := bench.Trial{Kind: in.Kind, Read: in.Read, Under: in.Under, Seen: in.Seen,
		Thrower: strings.TrimSpace(in.Thrower), Place: strings.TrimSpace(in.Place), Air: strings.TrimSpace(in.Air), Note: strings.TrimSpace(in.Note)}
	return t, answer.AsProblem(t.Check(w), "body.")
}

type logInput struct {
	answer.PathID
	Body TrialInput
}

// LoggedView is the build after a throw was logged, and the throw's number so
// that it can be undone.
type LoggedView struct {
	Trial int64      `json:"trial"`
	Tweak int        `json:"tweak" doc:"the tweak it was logged at"`
	Build *BuildView `json:"build"`
}

func (s *Routes) logTrial(ctx context.Context, in *logInput) (*answer.Body[LoggedView], error) {
	b, err := s.store.Build(ctx, in.ID)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	p, err := answer.FindPattern(b.Pattern)
	if err != nil {
		return nil, err
	}
	t, err := in.Body.Trial(&ways.Of(p.Moves).Way)
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
		return nil, answer.AsProblem(err, "")
	default:
		settle = &bench.Tweak{BuildID: b.ID, No: no, Setup: b.Current()}
	}
	defer s.forget()
	id, err := s.store.LogTrial(ctx, settle, tweak, t)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	v, err := s.BuildView(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	return answer.OK(LoggedView{id, no, v.Body})
}

type changeTrialInput struct {
	answer.PathID
	Body TrialInput
}

func (s *Routes) changeTrial(ctx context.Context, in *changeTrialInput) (*answer.Body[*BuildView], error) {
	id, err := s.store.BuildOfTrial(ctx, in.ID)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	b, err := s.store.Build(ctx, id)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	p, err := answer.FindPattern(b.Pattern)
	if err != nil {
		return nil, err
	}
	t, err := in.Body.Trial(&ways.Of(p.Moves).Way)
	if err != nil {
		return nil, err
	}
	t.ID = in.ID
	return s.afterTrial(ctx, in.ID, s.store.UpdateTrial(ctx, t))
}

// afterTrial answers with the build that a trial belongs to.
func (s *Routes) afterTrial(ctx context.Context, trial int64, err error) (*answer.Body[*BuildView], error) {
	s.forget()
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	b, err := s.store.BuildOfTrial(ctx, trial)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return s.BuildView(ctx, b)
}
