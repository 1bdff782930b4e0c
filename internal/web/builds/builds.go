package builds

import (
	"context"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/bench"
	"tussock/internal/store"
	"tussock/internal/ways"
	"tussock/internal/web/answer"
	"tussock/internal/web/folding"
	"tussock/internal/web/papers"
)

// Routes answers for builds, tweaks, trials and the bin.
type Routes struct {
	store   *store.Store
	folding *folding.Routes
	papers  *papers.Routes
	forget  func() // what trials have taught: they have changed
}

// New makes the area. forget is told when trials have changed.
func New(s *store.Store, f *folding.Routes, p *papers.Routes, forget func()) *Routes {
	return &Routes{s, f, p, forget}
}

// Register adds its routes.
func (s *Routes) Register(api huma.API) {
	s.buildRoutes(api)
	s.trialRoutes(api)
	s.binRoutes(api)
}

func (s *Routes) buildRoutes(api huma.API) {
	op := func(id, method, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: method, Path: "/api/v1/builds" + path, Summary: summary, MaxBodyBytes: answer.SmallBody}
	}
	huma.Register(api, op("list-builds", http.MethodGet, "", "Builds on the bench, newest change first"), s.listBuilds)
	huma.Register(api, op("create-build", http.MethodPost, "", "Start a build"), s.createBuild)
	huma.Register(api, op("get-build", http.MethodGet, "/{id}", "A build with its tweaks and trials"),
		func(ctx context.Context, in *answer.PathID) (*answer.Body[*BuildView], error) {
			return s.BuildView(ctx, in.ID)
		})
	huma.Register(api, op("change-build", http.MethodPatch, "/{id}", "Rename a build, or keep how far it is folded"), s.changeBuild)
	huma.Register(api, op("bin-build", http.MethodDelete, "/{id}", "Move a build to the bin"),
		func(ctx context.Context, in *answer.PathID) (*struct{}, error) {
			defer s.forget()
			return nil, answer.AsProblem(s.store.BinBuild(ctx, in.ID), "")
		})
	huma.Register(api, op("restore-build", http.MethodPost, "/{id}/restore", "Take a build out of the bin"),
		func(ctx context.Context, in *answer.PathID) (*answer.Body[*BuildView], error) {
			defer s.forget()
			if err := s.store.RestoreBuild(ctx, in.ID); err != nil {
				return nil, answer.AsProblem(err, "")
			}
			return s.BuildView(ctx, in.ID)
		})
	huma.Register(api, op("duplicate-build", http.MethodPost, "/{id}/duplicate", "Copy a build's set-up, without its trials"), s.duplicateBuild)
	huma.Register(api, op("set-draft", http.MethodPut, "/{id}/draft", "Keep knob moves as a draft"), s.setDraft)
	huma.Register(api, op("discard-draft", http.MethodDelete, "/{id}/draft", "Put everything back to the newest tweak"), s.discardDraft)
	huma.Register(api, op("make-tweak", http.MethodPost, "/{id}/tweaks", "Make the draft a tweak"), s.makeTweak)
	huma.Register(api, op("change-tweak", http.MethodPatch, "/{id}/tweaks/{no}", "Note why a tweak was made"), s.changeTweak)
	huma.Register(api, op("make-child", http.MethodPost, "/{id}/children", "Make the draft a child build"), s.makeChild)
}

func (s *Routes) listBuilds(ctx context.Context, _ *struct{}) (*answer.Body[[]BuildCard], error) {
	builds, err := s.store.Builds(ctx)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	out := []BuildCard{}
	for _, b := range builds {
		c := viewCard(b)
		if p, err := answer.FindPattern(b.Pattern); err == nil {
			// A build whose set-up cannot be drawn is listed without a picture.
			if card, err := s.folding.Card(p, b.Current()); err == nil {
				c.Picture = card.Picture
			}
		}
		out = append(out, c)
	}
	return answer.OK(out)
}

type createInput struct {
	Body struct {
		Pattern string `json:"pattern" maxLength:"80"`
		Name    string `json:"name,omitempty" doc:"1 to 80 characters; made up when absent"`
		answer.SetupInput
	}
}

func (s *Routes) createBuild(ctx context.Context, in *createInput) (*answer.Body[*BuildView], error) {
	p, err := answer.FindPattern(in.Body.Pattern)
	if err != nil {
		return nil, err
	}
	setup, err := in.Body.Setup(p.ID)
	if err != nil {
		return nil, err
	}
	if err := s.mustFold(p.ID, setup); err != nil {
		return nil, err
	}
	if in.Body.Name == "" {
		if in.Body.Name, err = s.freshName(ctx, p.Title); err != nil {
			return nil, answer.AsProblem(err, "")
		}
	}
	name, err := bench.CleanName("name", in.Body.Name)
	if err != nil {
		return nil, answer.AsProblem(err, "body.")
	}
	id, err := s.store.CreateBuild(ctx, bench.Build{Pattern: p.ID, Name: name, Draft: &setup})
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return s.BuildView(ctx, id)
}

// freshName is a title with the first free number.
func (s *Routes) freshName(ctx context.Context, title string) (string, error) {
	builds, err := s.store.Builds(ctx)
	return bench.FreshName(title, builds), err
}

// mustFold refuses a set-up that cannot be folded, with the step and the reason.
func (s *Routes) mustFold(pattern string, setup bench.Setup) error {
	p, err := answer.FindPattern(pattern)
	if err != nil {
		return err
	}
	r, err := s.folding.Replay(p, setup)
	if err != nil {
		return answer.AsProblem(err, "body.sheet.")
	}
	if r.Error != nil {
		where := "body.sheet"
		if len(r.Advice) > 0 && r.Advice[0].Knob != "" {
			where = "body.knobs." + r.Advice[0].Knob
		}
		why := r.Error.Detail
		if r.Error.Step > 0 {
			why = fmt.Sprintf("step %d cannot be folded: %s", r.Error.Step, why)
		}
		return answer.Refuse(where, nil, why)
	}
	return nil
}

type changeInput struct {
	answer.PathID
	Body struct {
		Name *string `json:"name,omitempty"`
		Step *int    `json:"step,omitempty" minimum:"0" maximum:"400"`
	}
}

func (s *Routes) changeBuild(ctx context.Context, in *changeInput) (*answer.Body[*BuildView], error) {
	if in.Body.Name == nil && in.Body.Step == nil {
		return nil, answer.Refuse("body", nil, "nothing to change is given: send a name or a step")
	}
	if in.Body.Name != nil {
		name, err := bench.CleanName("name", *in.Body.Name)
		if err != nil {
			return nil, answer.AsProblem(err, "body.")
		}
		if err := s.store.Rename(ctx, in.ID, name); err != nil {
			return nil, answer.AsProblem(err, "")
		}
	}
	if in.Body.Step != nil {
		if err := s.store.SetStep(ctx, in.ID, *in.Body.Step); err != nil {
			return nil, answer.AsProblem(err, "")
		}
	}
	return s.BuildView(ctx, in.ID)
}

func (s *Routes) duplicateBuild(ctx context.Context, in *answer.PathID) (*answer.Body[*BuildView], error) {
	b, err := s.store.Build(ctx, in.ID)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	setup := b.Current()
	id, err := s.store.CreateBuild(ctx, bench.Build{Pattern: b.Pattern, Name: bench.CopyName(b.Name), Draft: &setup})
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return s.BuildView(ctx, id)
}

type draftInput struct {
	answer.PathID
	Body answer.SetupInput
}

func (s *Routes) setDraft(ctx context.Context, in *draftInput) (*answer.Body[*BuildView], error) {
	b, err := s.store.Build(ctx, in.ID)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	setup, err := in.Body.Setup(b.Pattern)
	if err != nil {
		return nil, err
	}
	if err := s.mustFold(b.Pattern, setup); err != nil {
		return nil, err
	}
	if err := s.store.SetDraft(ctx, in.ID, b.Drafted(setup)); err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return s.BuildView(ctx, in.ID)
}

func (s *Routes) discardDraft(ctx context.Context, in *answer.PathID) (*answer.Body[*BuildView], error) {
	b, err := s.store.Build(ctx, in.ID)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	p, err := answer.FindPattern(b.Pattern)
	if err != nil {
		return nil, err
	}
	if err := s.store.SetDraft(ctx, in.ID, b.Undrafted(p.FullKnobs(nil))); err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return s.BuildView(ctx, in.ID)
}

// WhyInput is a reason in words.
type WhyInput struct {
	answer.PathID
	Body struct {
		Why string `json:"why,omitempty" maxLength:"500"`
	}
}

func (s *Routes) makeTweak(ctx context.Context, in *WhyInput) (*answer.Body[*BuildView], error) {
	b, err := s.store.Build(ctx, in.ID)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	t, err := s.settle(b, in.Body.Why)
	if err != nil {
		return nil, err
	}
	if _, err := s.store.MakeTweak(ctx, t.BuildID, t.No, t.Setup, t.Why); err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return s.BuildView(ctx, in.ID)
}

// settle is the tweak that the draft becomes, by the rules of package bench.
func (s *Routes) settle(b *bench.Build, why string) (*bench.Tweak, error) {
	p, err := answer.FindPattern(b.Pattern)
	if err != nil {
		return nil, err
	}
	no, err := b.Settle(p.IsHard, &ways.Of(p.Moves).Way)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return &bench.Tweak{BuildID: b.ID, No: no, Setup: b.Current(), Why: why}, nil
}

type tweakWhyInput struct {
	WhyInput
	No int `path:"no" minimum:"1"`
}

func (s *Routes) changeTweak(ctx context.Context, in *tweakWhyInput) (*answer.Body[*BuildView], error) {
	if err := s.store.SetWhy(ctx, in.ID, in.No, in.Body.Why); err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return s.BuildView(ctx, in.ID)
}

type childInput struct {
	answer.PathID
	Body struct {
		Name string `json:"name,omitempty" doc:"1 to 80 characters; made up when absent"`
	}
}

func (s *Routes) makeChild(ctx context.Context, in *childInput) (*answer.Body[*BuildView], error) {
	b, err := s.store.Build(ctx, in.ID)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	last := b.Latest()
	if b.Draft == nil || last == nil {
		return nil, huma.Error409Conflict("a child build is made from a draft that differs from a tweak; move a knob or change the sheet first")
	}
	if in.Body.Name == "" {
		if in.Body.Name, err = s.freshName(ctx, b.Name+", child"); err != nil {
			return nil, answer.AsProblem(err, "")
		}
	}
	name, err := bench.CleanName("name", in.Body.Name)
	if err != nil {
		return nil, answer.AsProblem(err, "body.")
	}
	id, err := s.store.MakeChild(ctx, b.ID, bench.Build{Pattern: b.Pattern, Name: name, ParentID: &b.ID, ParentTweak: &last.No, Draft: b.Draft})
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return s.BuildView(ctx, id)
}
