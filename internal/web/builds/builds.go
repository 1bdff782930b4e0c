package builds

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"
	"golang.org/x/sync/singleflight"

	"tussock/internal/bench"
	"tussock/internal/motion"
	"tussock/internal/sequence"
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
	forget  func(moves string) // what trials of a way of moving have taught: they have changed
	cards   *answer.Kept[keptCard]
	drawing singleflight.Group // of cards
}

// New makes the area. forget is told when trials of a way of moving have changed, "" for
// all of them.
func New(s *store.Store, f *folding.Routes, p *papers.Routes, forget func(moves string)) *Routes {
	return &Routes{store: s, folding: f, papers: p, forget: forget, cards: answer.NewKept[keptCard](cardBytes, perCard)}
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
			defer s.forget("")
			return nil, answer.AsProblem(s.store.BinBuild(ctx, in.ID), "")
		})
	huma.Register(api, op("restore-build", http.MethodPost, "/{id}/restore", "Take a build out of the bin"),
		func(ctx context.Context, in *answer.PathID) (*answer.Body[*BuildView], error) {
			defer s.forget("")
			if err := s.store.RestoreBuild(ctx, in.ID); err != nil {
				return nil, answer.AsProblem(err, "")
			}
			return s.BuildView(ctx, in.ID)
		})
	huma.Register(api, op("duplicate-build", http.MethodPost, "/{id}/duplicate", "Copy a build's set-up, without its trials"), s.duplicateBuild)
	huma.Register(api, op("move-draft", http.MethodPatch, "/{id}/draft", "Keep what was moved as a draft"), s.moveDraft)
	huma.Register(api, op("discard-draft", http.MethodDelete, "/{id}/draft", "Put everything back to the tweak on the table"), s.discardDraft)
	huma.Register(api, op("make-tweak", http.MethodPost, "/{id}/tweaks", "Make the draft a tweak"), s.makeTweak)
	huma.Register(api, op("change-tweak", http.MethodPatch, "/{id}/tweaks/{no}", "Note why a tweak was made"), s.changeTweak)
	huma.Register(api, op("withdraw-tweak", http.MethodDelete, "/{id}/tweaks/{no}", "Make the newest tweak a draft again, while nothing is logged at it"), s.withdrawTweak)
	huma.Register(api, op("make-child", http.MethodPost, "/{id}/children", "Make the draft a child build"), s.makeChild)
}

func (s *Routes) listBuilds(ctx context.Context, _ *struct{}) (*answer.Body[[]BuildCard], error) {
	builds, err := s.store.BuildsCounted(ctx)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	out := []BuildCard{}
	for _, b := range builds {
		c, err := s.card(ctx, b)
		if err != nil {
			return nil, answer.AsProblem(err, "")
		}
		out = append(out, c)
	}
	return answer.OK(out)
}

// Warm draws the cards of the list before anybody asks for it.
func (s *Routes) Warm(ctx context.Context) error {
	_, err := s.listBuilds(ctx, nil)
	return err
}

// What cards may take, bytes, and how many a card takes for each that it has as JSON.
const cardBytes, perCard = 8 << 20, 3

// keptCard is a card with what it was drawn from.
type keptCard struct {
	of   bench.Build // as it was then, trials counted
	card BuildCard
}

// card is the card of a build whose trials are counted. It is kept until the build changes:
// then its picture is drawn anew and its trials are read.
func (s *Routes) card(ctx context.Context, b *bench.Build) (BuildCard, error) {
	was, known := s.cards.Get(fmt.Sprint(b.ID))
	if known && was.of.UpdatedAt.Equal(b.UpdatedAt) && was.of.Version == b.Version && was.of.Trials() == b.Trials() && len(was.of.Tweaks) == len(b.Tweaks) {
		was.card.Name, was.card.Step = b.Name, b.Step
		return was.card, nil
	}
	// Thirty people who look at the list at once have each card drawn once.
	drawn, err, _ := s.drawing.Do(fmt.Sprint(b.ID, b.UpdatedAt), func() (any, error) { return s.drawCard(context.WithoutCancel(ctx), b) })
	if err != nil {
		return BuildCard{}, err
	}
	return drawn.(BuildCard), nil //nolint:forcetypeassert // drawCard gives a card
}

func (s *Routes) drawCard(ctx context.Context, b *bench.Build) (BuildCard, error) {
	whole, err := s.store.Build(ctx, b.ID)
	if errors.Is(err, store.ErrNotFound) {
		return viewCard(b), nil // binned meanwhile
	}
	if err != nil {
		return BuildCard{}, err
	}
	c := viewCard(whole)
	if p, err := answer.FindPattern(b.Pattern); err == nil {
		// A build whose set-up cannot be drawn is listed without a picture.
		if card, err := s.folding.Card(p, whole.Current()); err == nil {
			c.Picture = card.Picture
		}
	}
	s.cards.Add(fmt.Sprint(b.ID), keptCard{*b, c}, c)
	return c, nil
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
	name, err := named(in.Body.Name, p.Title)
	if err != nil {
		return nil, err
	}
	id, err := s.store.CreateBuild(ctx, bench.Build{Pattern: p.ID, Draft: &setup}, name)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return s.BuildView(ctx, id)
}

// named is how a build gets its name: the one given, or the first free number of a title.
func named(given, title string) (func([]*bench.Build) string, error) {
	if given == "" {
		return func(all []*bench.Build) string { return bench.FreshName(title, all) }, nil
	}
	name, err := bench.CleanName("name", given)
	return func([]*bench.Build) string { return name }, answer.AsProblem(err, "body.")
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
	name := ""
	if in.Body.Name != nil {
		var err error
		if name, err = bench.CleanName("name", *in.Body.Name); err != nil {
			return nil, answer.AsProblem(err, "body.")
		}
	}
	return s.changed(ctx, in.ID, func(b *bench.Build, _ *sequence.Pattern) error {
		b.Name = cmp.Or(name, b.Name)
		if in.Body.Step != nil {
			b.Step = *in.Body.Step
		}
		return nil
	})
}

// changed changes a build and answers with it as it is then. Its set-ups know all knobs of
// its pattern.
func (s *Routes) changed(ctx context.Context, id int64, f func(*bench.Build, *sequence.Pattern) error) (*answer.Body[*BuildView], error) {
	var p *sequence.Pattern
	_, err := s.store.Update(ctx, id, func(b *bench.Build) (err error) {
		if p, err = answer.FindPattern(b.Pattern); err != nil {
			return err
		}
		b.Fill(p)
		return f(b, p)
	})
	if err != nil {
		return nil, answer.Crossed(p, err)
	}
	return s.BuildView(ctx, id)
}

func (s *Routes) duplicateBuild(ctx context.Context, in *answer.PathID) (*answer.Body[*BuildView], error) {
	b, err := s.store.Build(ctx, in.ID)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	setup := b.Current()
	id, err := s.store.CreateBuild(ctx, bench.Build{Pattern: b.Pattern, Name: bench.CopyName(b.Name), Draft: &setup}, nil)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return s.BuildView(ctx, id)
}

// VersionInput says what the page showed.
type VersionInput struct {
	Version int `json:"version" minimum:"1" doc:"of the build that the page shows: what another has moved since is not lost"`
}

type draftInput struct {
	answer.PathID
	Body struct {
		VersionInput
		Knobs   map[string]float64 `json:"knobs,omitempty" doc:"those that were moved"`
		Sheet   *answer.SheetInput `json:"sheet,omitempty" doc:"when it is another one"`
		Recipes map[string]int     `json:"recipes,omitempty" doc:"all of them, when they are others"`
		Written motion.Written     `json:"written,omitempty" doc:"places that were written in; an empty mark where nothing stands any more"`
	}
}

// moveDraft moves what was moved on a page. Folding takes longer than a change may: it is
// tried before, and again only when somebody else has moved something in between.
func (s *Routes) moveDraft(ctx context.Context, in *draftInput) (*answer.Body[*BuildView], error) {
	b, p, err := s.build(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	moves := bench.Moves{Version: in.Body.Version, Knobs: in.Body.Knobs, Recipes: in.Body.Recipes}
	if err := answer.CheckKnobs(p, moves.Knobs); err != nil {
		return nil, err
	}
	if err := answer.CheckRecipes(p, moves.Recipes); err != nil {
		return nil, err
	}
	if moves.Written, err = in.Body.Written.Moved(); err != nil {
		return nil, answer.AsProblem(err, "body.written.")
	}
	if in.Body.Sheet != nil {
		spec, err := in.Body.Sheet.Spec()
		if err != nil {
			return nil, answer.AsProblem(err, "body.sheet.")
		}
		moves.Sheet = &spec
	}
	put := func(b *bench.Build, p *sequence.Pattern) error {
		if err := b.Put(moves, p); err != nil {
			return err
		}
		return s.mustFold(p.ID, b.Current())
	}
	if err := put(b, p); err != nil {
		return nil, answer.Crossed(p, err)
	}
	return s.changed(ctx, in.ID, put)
}

// build is a build, its set-ups with all knobs of its pattern.
func (s *Routes) build(ctx context.Context, id int64) (*bench.Build, *sequence.Pattern, error) {
	b, err := s.store.Build(ctx, id)
	if err != nil {
		return nil, nil, answer.AsProblem(err, "")
	}
	p, err := answer.FindPattern(b.Pattern)
	if err != nil {
		return nil, nil, err
	}
	b.Fill(p)
	return b, p, nil
}

type discardInput struct {
	answer.PathID
	Version int `query:"version" minimum:"1" required:"true" doc:"of the build that the page shows"`
}

func (s *Routes) discardDraft(ctx context.Context, in *discardInput) (*answer.Body[*BuildView], error) {
	return s.changed(ctx, in.ID, func(b *bench.Build, p *sequence.Pattern) error {
		return b.Discard(in.Version, p.FullKnobs(nil))
	})
}

type makeTweakInput struct {
	answer.PathID
	Body struct {
		VersionInput
		Why string `json:"why,omitempty" maxLength:"500"`
	}
}

func (s *Routes) makeTweak(ctx context.Context, in *makeTweakInput) (*answer.Body[*BuildView], error) {
	return s.changed(ctx, in.ID, func(b *bench.Build, p *sequence.Pattern) error {
		return b.SettleAs(in.Body.Version, in.Body.Why, p, &ways.For(p).Way)
	})
}

type tweakWhyInput struct {
	TweakPath
	Body struct {
		Why string `json:"why,omitempty" maxLength:"500"`
	}
}

func (s *Routes) changeTweak(ctx context.Context, in *tweakWhyInput) (*answer.Body[*BuildView], error) {
	return s.changed(ctx, in.ID, func(b *bench.Build, _ *sequence.Pattern) error {
		i := slices.IndexFunc(b.Tweaks, func(t bench.Tweak) bool { return t.No == in.No })
		if i < 0 {
			return store.ErrNotFound
		}
		b.Tweaks[i].Why = in.Body.Why
		return nil
	})
}

// TweakPath names a tweak of a build.
type TweakPath struct {
	answer.PathID
	No int `path:"no" minimum:"1"`
}

func (s *Routes) withdrawTweak(ctx context.Context, in *TweakPath) (*answer.Body[*BuildView], error) {
	return s.changed(ctx, in.ID, func(b *bench.Build, p *sequence.Pattern) error { return b.Withdraw(in.No, p) })
}

type childInput struct {
	answer.PathID
	Body struct {
		VersionInput
		Name string `json:"name,omitempty" doc:"1 to 80 characters; made up when absent"`
	}
}

func (s *Routes) makeChild(ctx context.Context, in *childInput) (*answer.Body[*BuildView], error) {
	b, p, err := s.build(ctx, in.ID)
	if err != nil {
		return nil, err
	}
	name, err := named(in.Body.Name, b.Name+", child")
	if err != nil {
		return nil, err
	}
	id, err := s.store.MakeChild(ctx, in.ID, func(b *bench.Build, all []*bench.Build) (bench.Build, error) {
		b.Fill(p)
		child, err := b.Child(in.Body.Version)
		child.Name = name(all)
		return child, err
	})
	if err != nil {
		return nil, answer.Crossed(p, err)
	}
	return s.BuildView(ctx, id)
}
