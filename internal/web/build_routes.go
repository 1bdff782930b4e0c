package web

import (
	"context"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/bench"
	"tussock/internal/store"
	"tussock/internal/ways"
)

// benchArea answers for builds, tweaks, trials and the bin.
type benchArea struct {
	store   *store.Store
	folding *foldingArea
	papers  *papersArea
	forget  func() // what trials have taught: they have changed
}

func newBench(s *store.Store, f *foldingArea, p *papersArea, forget func()) *benchArea {
	return &benchArea{s, f, p, forget}
}

// register adds its routes.
func (s *benchArea) register(api huma.API) {
	s.buildRoutes(api)
	s.trialRoutes(api)
	s.binRoutes(api)
}

const smallBody = 16 << 10

func (s *benchArea) buildRoutes(api huma.API) {
	op := func(id, method, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: method, Path: "/api/v1/builds" + path, Summary: summary, MaxBodyBytes: smallBody}
	}
	huma.Register(api, op("list-builds", http.MethodGet, "", "Builds on the bench, newest change first"), s.listBuilds)
	huma.Register(api, op("create-build", http.MethodPost, "", "Start a build"), s.createBuild)
	huma.Register(api, op("get-build", http.MethodGet, "/{id}", "A build with its tweaks and trials"),
		func(ctx context.Context, in *PathID) (*answer[*BuildView], error) { return s.buildView(ctx, in.ID) })
	huma.Register(api, op("change-build", http.MethodPatch, "/{id}", "Rename a build, or keep how far it is folded"), s.changeBuild)
	huma.Register(api, op("bin-build", http.MethodDelete, "/{id}", "Move a build to the bin"),
		func(ctx context.Context, in *PathID) (*struct{}, error) {
			defer s.forget()
			return nil, asProblem(s.store.BinBuild(ctx, in.ID), "")
		})
	huma.Register(api, op("restore-build", http.MethodPost, "/{id}/restore", "Take a build out of the bin"),
		func(ctx context.Context, in *PathID) (*answer[*BuildView], error) {
			defer s.forget()
			if err := s.store.RestoreBuild(ctx, in.ID); err != nil {
				return nil, asProblem(err, "")
			}
			return s.buildView(ctx, in.ID)
		})
	huma.Register(api, op("duplicate-build", http.MethodPost, "/{id}/duplicate", "Copy a build's set-up, without its trials"), s.duplicateBuild)
	huma.Register(api, op("set-draft", http.MethodPut, "/{id}/draft", "Keep knob moves as a draft"), s.setDraft)
	huma.Register(api, op("discard-draft", http.MethodDelete, "/{id}/draft", "Put everything back to the newest tweak"), s.discardDraft)
	huma.Register(api, op("make-tweak", http.MethodPost, "/{id}/tweaks", "Make the draft a tweak"), s.makeTweak)
	huma.Register(api, op("change-tweak", http.MethodPatch, "/{id}/tweaks/{no}", "Note why a tweak was made"), s.changeTweak)
	huma.Register(api, op("make-child", http.MethodPost, "/{id}/children", "Make the draft a child build"), s.makeChild)
}

func (s *benchArea) listBuilds(ctx context.Context, _ *struct{}) (*answer[[]BuildCard], error) {
	builds, err := s.store.Builds(ctx)
	if err != nil {
		return nil, asProblem(err, "")
	}
	out := []BuildCard{}
	for _, b := range builds {
		c := viewCard(b)
		if p, err := findPattern(b.Pattern); err == nil {
			// A build whose set-up cannot be drawn is listed without a picture.
			if r, err := s.folding.replay(p, b.Current()); err == nil && r.Toy != nil {
				c.Picture = r.finished()
			}
		}
		out = append(out, c)
	}
	return ok(out)
}

type createInput struct {
	Body struct {
		Pattern string `json:"pattern" maxLength:"80"`
		Name    string `json:"name,omitempty" doc:"1 to 80 characters; made up when absent"`
		SetupInput
	}
}

func (s *benchArea) createBuild(ctx context.Context, in *createInput) (*answer[*BuildView], error) {
	p, err := findPattern(in.Body.Pattern)
	if err != nil {
		return nil, err
	}
	setup, err := in.Body.setup(p.ID)
	if err != nil {
		return nil, err
	}
	if err := s.mustFold(p.ID, setup); err != nil {
		return nil, err
	}
	if in.Body.Name == "" {
		if in.Body.Name, err = s.freshName(ctx, p.Title); err != nil {
			return nil, asProblem(err, "")
		}
	}
	name, err := bench.CleanName("name", in.Body.Name)
	if err != nil {
		return nil, asProblem(err, "body.")
	}
	id, err := s.store.CreateBuild(ctx, bench.Build{Pattern: p.ID, Name: name, Draft: &setup})
	if err != nil {
		return nil, asProblem(err, "")
	}
	return s.buildView(ctx, id)
}

// freshName is a title with the first free number.
func (s *benchArea) freshName(ctx context.Context, title string) (string, error) {
	builds, err := s.store.Builds(ctx)
	return bench.FreshName(title, builds), err
}

// mustFold refuses a set-up that cannot be folded, with the step and the reason.
func (s *benchArea) mustFold(pattern string, setup bench.Setup) error {
	p, err := findPattern(pattern)
	if err != nil {
		return err
	}
	r, err := s.folding.replay(p, setup)
	if err != nil {
		return asProblem(err, "body.sheet.")
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
		return refuse(where, nil, why)
	}
	return nil
}

type changeInput struct {
	PathID
	Body struct {
		Name *string `json:"name,omitempty"`
		Step *int    `json:"step,omitempty" minimum:"0" maximum:"400"`
	}
}

func (s *benchArea) changeBuild(ctx context.Context, in *changeInput) (*answer[*BuildView], error) {
	if in.Body.Name == nil && in.Body.Step == nil {
		return nil, refuse("body", nil, "nothing to change is given: send a name or a step")
	}
	if in.Body.Name != nil {
		name, err := bench.CleanName("name", *in.Body.Name)
		if err != nil {
			return nil, asProblem(err, "body.")
		}
		if err := s.store.Rename(ctx, in.ID, name); err != nil {
			return nil, asProblem(err, "")
		}
	}
	if in.Body.Step != nil {
		if err := s.store.SetStep(ctx, in.ID, *in.Body.Step); err != nil {
			return nil, asProblem(err, "")
		}
	}
	return s.buildView(ctx, in.ID)
}

func (s *benchArea) duplicateBuild(ctx context.Context, in *PathID) (*answer[*BuildView], error) {
	b, err := s.store.Build(ctx, in.ID)
	if err != nil {
		return nil, asProblem(err, "")
	}
	setup := b.Current()
	id, err := s.store.CreateBuild(ctx, bench.Build{Pattern: b.Pattern, Name: bench.CopyName(b.Name), Draft: &setup})
	if err != nil {
		return nil, asProblem(err, "")
	}
	return s.buildView(ctx, id)
}

type draftInput struct {
	PathID
	Body SetupInput
}

func (s *benchArea) setDraft(ctx context.Context, in *draftInput) (*answer[*BuildView], error) {
	b, err := s.store.Build(ctx, in.ID)
	if err != nil {
		return nil, asProblem(err, "")
	}
	setup, err := in.Body.setup(b.Pattern)
	if err != nil {
		return nil, err
	}
	if err := s.mustFold(b.Pattern, setup); err != nil {
		return nil, err
	}
	if err := s.store.SetDraft(ctx, in.ID, b.Drafted(setup)); err != nil {
		return nil, asProblem(err, "")
	}
	return s.buildView(ctx, in.ID)
}

func (s *benchArea) discardDraft(ctx context.Context, in *PathID) (*answer[*BuildView], error) {
	b, err := s.store.Build(ctx, in.ID)
	if err != nil {
		return nil, asProblem(err, "")
	}
	p, err := findPattern(b.Pattern)
	if err != nil {
		return nil, err
	}
	if err := s.store.SetDraft(ctx, in.ID, b.Undrafted(p.FullKnobs(nil))); err != nil {
		return nil, asProblem(err, "")
	}
	return s.buildView(ctx, in.ID)
}

// WhyInput is a reason in words.
type WhyInput struct {
	PathID
	Body struct {
		Why string `json:"why,omitempty" maxLength:"500"`
	}
}

func (s *benchArea) makeTweak(ctx context.Context, in *WhyInput) (*answer[*BuildView], error) {
	b, err := s.store.Build(ctx, in.ID)
	if err != nil {
		return nil, asProblem(err, "")
	}
	t, err := s.settle(b, in.Body.Why)
	if err != nil {
		return nil, err
	}
	if _, err := s.store.MakeTweak(ctx, t.BuildID, t.No, t.Setup, t.Why); err != nil {
		return nil, asProblem(err, "")
	}
	return s.buildView(ctx, in.ID)
}

// settle is the tweak that the draft becomes, by the rules of package bench.
func (s *benchArea) settle(b *bench.Build, why string) (*bench.Tweak, error) {
	p, err := findPattern(b.Pattern)
	if err != nil {
		return nil, err
	}
	no, err := b.Settle(p.IsHard, &ways.Of(p.Moves).Way)
	if err != nil {
		return nil, asProblem(err, "")
	}
	return &bench.Tweak{BuildID: b.ID, No: no, Setup: b.Current(), Why: why}, nil
}

type tweakWhyInput struct {
	WhyInput
	No int `path:"no" minimum:"1"`
}

func (s *benchArea) changeTweak(ctx context.Context, in *tweakWhyInput) (*answer[*BuildView], error) {
	if err := s.store.SetWhy(ctx, in.ID, in.No, in.Body.Why); err != nil {
		return nil, asProblem(err, "")
	}
	return s.buildView(ctx, in.ID)
}

type childInput struct {
	PathID
	Body struct {
		Name string `json:"name,omitempty" doc:"1 to 80 characters; made up when absent"`
	}
}

func (s *benchArea) makeChild(ctx context.Context, in *childInput) (*answer[*BuildView], error) {
	b, err := s.store.Build(ctx, in.ID)
	if err != nil {
		return nil, asProblem(err, "")
	}
	last := b.Latest()
	if b.Draft == nil || last == nil {
		return nil, huma.Error409Conflict("a child build is made from a draft that differs from a tweak; move a knob or change the sheet first")
	}
	if in.Body.Name == "" {
		if in.Body.Name, err = s.freshName(ctx, b.Name+", child"); err != nil {
			return nil, asProblem(err, "")
		}
	}
	name, err := bench.CleanName("name", in.Body.Name)
	if err != nil {
		return nil, asProblem(err, "body.")
	}
	id, err := s.store.MakeChild(ctx, b.ID, bench.Build{Pattern: b.Pattern, Name: name, ParentID: &b.ID, ParentTweak: &last.No, Draft: b.Draft})
	if err != nil {
		return nil, asProblem(err, "")
	}
	return s.buildView(ctx, id)
}
