package builds

import (
	"context"
	"errors"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/bench"
	"tussock/internal/motion"
	"tussock/internal/store"
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
	Body struct {
		TrialInput
		VersionInput
		Setup answer.SetupInput `json:"setup" doc:"what the page showed when it was tried: it is booked on that, and on nothing else"`
		Sure  bool              `json:"sure,omitempty" doc:"a reading far off its neighbours is meant"`
		Key   string            `json:"key,omitempty" doc:"a trial that is sent again with the same key is logged once"`
	}
}

// LoggedView is the build after a throw was logged, and the throw's number so
// that it can be undone.
type LoggedView struct {
	Trial int64      `json:"trial"`
	Tweak int        `json:"tweak" doc:"the tweak it was logged at"`
	Made  bool       `json:"made" doc:"that tweak was made of the draft by it"`
	Build *BuildView `json:"build"`
}

func (s *Routes) logTrial(ctx context.Context, in *logInput) (*answer.Body[LoggedView], error) {
	if err := bench.CheckKey("key", in.Body.Key); err != nil {
		return nil, answer.AsProblem(err, "body.")
	}
	if v, err := s.loggedAs(ctx, in.Body.Key); v != nil || err != nil {
		return v, err
	}
	b, p, err := s.build(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	t, err := in.Body.Trial(&ways.For(p).Way)
	if err != nil {
		return nil, err
	}
	t.Key = in.Body.Key
	if !in.Body.Sure {
		if err := b.Odd(t, &ways.For(p).Way); err != nil {
			return nil, answer.AsProblem(err, "body.read.")
		}
	}
	shown, err := in.Body.Setup.Setup(p.ID)
	if err != nil {
		return nil, err
	}
	if len(bench.Changes(b.Current(), shown, p.IsHard)) > 0 {
		if err := s.mustFold(p.ID, shown); err != nil {
			return nil, err
		}
	}
	defer s.forget(ways.For(p).Name)
	var tweak *bench.Tweak
	made := false
	_, err = s.store.Update(ctx, in.ID, func(b *bench.Build) (err error) {
		b.Fill(p)
		if tweak, err = b.Book(shown, in.Body.Version, p, &ways.For(p).Way); err != nil {
			return err
		}
		made = tweak.ID == 0
		tweak.Trials = append(tweak.Trials, t)
		return nil
	})
	if err != nil {
		// Sent twice at once, the other one was first.
		if v, again := s.loggedAs(ctx, in.Body.Key); v != nil && again == nil {
			return v, nil
		}
		return nil, answer.Crossed(p, err)
	}
	return s.logged(ctx, in.ID, tweak.Trials[len(tweak.Trials)-1].ID, tweak.No, made)
}

// loggedAs is the answer to a trial that was logged under a key already, or nil.
func (s *Routes) loggedAs(ctx context.Context, key string) (*answer.Body[LoggedView], error) {
	if key == "" {
		return nil, nil
	}
	trial, build, tweak, err := s.store.TrialByKey(ctx, key)
	if errors.Is(err, store.ErrNotFound) {
		return nil, nil
	}
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return s.logged(ctx, build, trial, tweak, false)
}

func (s *Routes) logged(ctx context.Context, build, trial int64, tweak int, made bool) (*answer.Body[LoggedView], error) {
	v, err := s.BuildView(ctx, build)
	if err != nil {
		return nil, err
	}
	return answer.OK(LoggedView{trial, tweak, made, v.Body})
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
	_, p, err := s.build(ctx, id)
	if err != nil {
		return nil, err
	}
	t, err := in.Body.Trial(&ways.For(p).Way)
	if err != nil {
		return nil, err
	}
	t.ID = in.ID
	return s.afterTrial(ctx, in.ID, s.store.UpdateTrial(ctx, t))
}

// afterTrial answers with the build that a trial belongs to.
func (s *Routes) afterTrial(ctx context.Context, trial int64, err error) (*answer.Body[*BuildView], error) {
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	b, err := s.store.BuildOfTrial(ctx, trial)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	_, p, err := s.build(ctx, b)
	if err != nil {
		s.forget("")
		return nil, err
	}
	s.forget(ways.For(p).Name)
	return s.BuildView(ctx, b)
}
