// Package writing answers what is written on toys: places, packs, plays that were written
// down.
package writing

import (
	"context"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/draw"
	"tussock/internal/fold"
	"tussock/internal/motion"
	"tussock/internal/motion/toys"
	"tussock/internal/sequence"
	"tussock/internal/store"
	"tussock/internal/ways"
	"tussock/internal/web/answer"
)

// Routes answers for what is written on toys.
type Routes struct{ store *store.Store }

// New makes the area.
func New(s *store.Store) *Routes { return &Routes{s} }

// Register adds its routes.
func (s *Routes) Register(api huma.API) {
	op := func(id, method, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: method, Path: "/api/v1" + path, Summary: summary, MaxBodyBytes: 2 * answer.SmallBody}
	}
	huma.Register(api, op("written-toy", http.MethodPost, "/patterns/{id}/written", "A toy with what is written on it: places, views, what to look at before it is printed"), s.written)
	huma.Register(api, op("fill-toy", http.MethodPost, "/patterns/{id}/filled", "What is written on a toy when it is filled from a pack"), s.fill)
	huma.Register(api, op("follow-play", http.MethodPost, "/patterns/{id}/followed", "A written-down play, move by move"), s.follow)
	huma.Register(api, op("between-states", http.MethodPost, "/patterns/{id}/between", "The way from one state of a toy to another, in pictures"), s.between)
	s.packRoutes(api)
	s.imageRoutes(api)
}

// PlaceView is a place that can be written in.
type PlaceView struct {
	Name   string  `json:"name"`
	Zone   string  `json:"zone"`
	Label  string  `json:"label"`
	Shown  string  `json:"shown" doc:"when it shows"`
	Under  string  `json:"under" doc:"the place that hides it, or empty"`
	TypeMM float64 `json:"type_mm" doc:"size of the type that its text is set in; 0 without a text"`
}

// ShapeView is a picture that ships.
type ShapeView struct {
	Name  string           `json:"name"`
	Parts []toys.ShapePart `json:"parts"`
}

// WrittenView is a toy with what is written on it.
type WrittenView struct {
	Zones  []toys.Zone  `json:"zones"`
	Places []PlaceView  `json:"places"`
	Views  []toys.View  `json:"views"`
	Faults []toys.Fault `json:"faults"`
	Shapes []ShapeView  `json:"shapes" doc:"pictures that ship"`
	Tints  []toys.Tint  `json:"tints" doc:"colours that are offered, by the names that are spelled"`
}

// toy is a set-up ready to be written on.
type toy struct {
	replay  *sequence.Replay
	way     *ways.Way
	places  []toys.Place
	written motion.Written
}

// of folds a set-up that is written on.
func of(id string, in answer.SetupInput) (toy, error) {
	p, setup, sh, err := in.Planned(id)
	if err != nil {
		return toy{}, err
	}
	w := ways.For(p)
	if w.Writing == nil {
		return toy{}, answer.Refuse("path.id", id, p.Title+" is not written on: it is neither a fortune teller nor a ring")
	}
	r := p.Run(sh, setup.Knobs)
	if r.Err != nil {
		return toy{}, answer.Refuse("body.sheet", nil, fold.As(r.Err).Where())
	}
	places, err := w.Writing.Places(r)
	if err != nil {
		return toy{}, answer.Refuse("body.sheet", nil, err.Error())
	}
	return toy{r, w, places, setup.Written}, nil
}

func (s *Routes) written(_ context.Context, in *answer.ReplayInput) (*answer.Body[WrittenView], error) {
	t, err := of(in.ID, in.Body)
	if err != nil {
		return nil, err
	}
	q := t.way.Writing
	inks, faults := q.All(t.replay, t.places, t.written)
	v := WrittenView{Zones: q.Zones, Places: []PlaceView{}, Faults: append(q.Check(t.places, t.written), faults...), Shapes: []ShapeView{}, Tints: toys.Tints()}
	v.Views = q.Views(t.replay, append(inks, toys.Zoned(t.places)...))
	if v.Faults == nil {
		v.Faults = []toys.Fault{}
	}
	for _, p := range t.places {
		v.Places = append(v.Places, PlaceView{p.Name, p.Zone, p.Label, p.Shown, p.Under, toys.TypeMM(p, t.written[p.Name])})
	}
	for _, n := range toys.Shapes() {
		v.Shapes = append(v.Shapes, ShapeView{n, toys.ShapeParts(n)})
	}
	return answer.OK(v)
}

type fillInput struct {
	ID   string `path:"id" maxLength:"80"`
	Body struct {
		answer.SetupInput
		Pack string `json:"pack" maxLength:"60"`
		Seed int64  `json:"seed,omitempty" minimum:"0" maximum:"1000000" doc:"another one draws other messages"`
	}
}

func (s *Routes) fill(ctx context.Context, in *fillInput) (*answer.Body[motion.Written], error) {
	t, err := of(in.ID, in.Body.SetupInput)
	if err != nil {
		return nil, err
	}
	p, err := answer.FindPack(ctx, s.store, "body.pack", in.Body.Pack)
	if err != nil {
		return nil, err
	}
	w, _ := t.way.Writing.FillFrom(t.places, t.written, p, uint64(in.Body.Seed))
	return answer.OK(w)
}

type followInput struct {
	ID   string `path:"id" maxLength:"80"`
	Body struct {
		answer.SetupInput
		Play string `json:"play" maxLength:"400" doc:"the word that was spelled, the numbers that were counted, and the one that was opened, in order"`
	}
}

func (s *Routes) follow(_ context.Context, in *followInput) (*answer.Body[toys.Followed], error) {
	t, err := of(in.ID, in.Body.SetupInput)
	if err != nil {
		return nil, err
	}
	if t.way.Writing.Follow == nil {
		return nil, answer.Refuse("path.id", in.ID, t.replay.Pattern.Title+" is not played by words and numbers")
	}
	v, err := t.way.Writing.Follow(t.written, in.Body.Play)
	if err != nil {
		return nil, answer.Refuse("body.play", in.Body.Play, err.Error())
	}
	return answer.OK(v)
}

type betweenInput struct {
	ID   string `path:"id" maxLength:"80"`
	Body struct {
		answer.SetupInput
		From int `json:"from" minimum:"0" maximum:"1000"`
		To   int `json:"to" minimum:"0" maximum:"1000"`
	}
}

// BetweenView is the way from one state to another.
type BetweenView struct {
	Pictures []draw.Picture `json:"pictures"`
}

func (s *Routes) between(_ context.Context, in *betweenInput) (*answer.Body[BetweenView], error) {
	t, err := of(in.ID, in.Body.SetupInput)
	if err != nil {
		return nil, err
	}
	if t.way.Between == nil {
		return nil, answer.Refuse("path.id", in.ID, fmt.Sprintf("%s has no states to go between", t.replay.Pattern.Title))
	}
	all, err := t.way.Between(t.replay, t.written, in.Body.From, in.Body.To)
	if err != nil {
		return nil, answer.Refuse("body.to", in.Body.To, err.Error())
	}
	return answer.OK(BetweenView{all})
}
