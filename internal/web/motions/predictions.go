package motions

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	lru "github.com/hashicorp/golang-lru/v2"

	"tussock/internal/bench"
	"tussock/internal/motion"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/store"
	"tussock/internal/turn"
	"tussock/internal/ways"
	"tussock/internal/web/answer"
)

// Routes answers how toys move and how to tune them.
type Routes struct {
	store   *store.Store
	benches *lru.Cache[string, motion.Bench]
	mu      sync.Mutex
	taught  map[string]motion.Calibration // by way of moving; what trials have taught
	changes map[string]int                // of trials, counted, by way of moving
	seen    map[int64]taught              // by build: its trials as they are learnt from
	once    *once
	glances *answer.Kept[glance]
}

// New makes the area. The store is asked for trials to learn from.
func New(s *store.Store) (*Routes, error) {
	benches, err := lru.New[string, motion.Bench](cachedBenches)
	return &Routes{store: s, benches: benches, taught: map[string]motion.Calibration{}, changes: map[string]int{}, seen: map[int64]taught{}, once: newOnce(), glances: answer.NewKept[glance](glanceBytes, perGlance)}, err
}

// Register adds its routes.
func (s *Routes) Register(api huma.API) {
	s.motionRoutes(api)
	s.tuneRoutes(api)
	s.compareRoutes(api)
	s.glanceRoutes(api)
}

func (s *Routes) motionRoutes(api huma.API) {
	op := func(id, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: http.MethodPost, Path: "/api/v1" + path, Summary: summary, MaxBodyBytes: 2 * answer.SmallBody}
	}
	huma.Register(api, op("predict", "/patterns/{id}/prediction", "Try a set-up: its numbers and how it moves, predicted"), s.predict)
	huma.Register(api, op("take-measured", "/patterns/{id}/measured", "Knobs from what was measured of the finished toy"), s.takeMeasured)
	huma.Register(api, huma.Operation{OperationID: "list-ways-of-moving", Method: http.MethodGet, Path: "/api/v1/moves", Summary: "The ways of moving: how they are tried, noted and tuned"},
		func(context.Context, *struct{}) (*answer.Body[[]motion.Way], error) {
			var out []motion.Way
			for _, w := range ways.All() {
				out = append(out, w.Way)
			}
			return answer.OK(out)
		})
}

// cachedBenches bounds the patterns on sheets whose folded toys are kept.
const cachedBenches = 24

// benchOf is where a pattern is tried on a sheet. Folded toys are shared by all that try
// the same.
func (s *Routes) benchOf(p *sequence.Pattern, sh sheet.Sheet) (*ways.Way, motion.Bench) {
	w := ways.For(p)
	key := fmt.Sprintf("%s %g %g %g %g", p.ID, sh.WidthMM, sh.HeightMM, sh.GSM, sh.ThicknessMM)
	b, found := s.benches.Get(key)
	if !found {
		b = w.On(p, sh)
		s.benches.Add(key, b)
	}
	return w, b
}

// tried is a set-up ready to be tried.
type tried struct {
	motion.Trying
	way        *ways.Way
	pattern    *sequence.Pattern
	sheet      sheet.Sheet
	conditions motion.Conditions
	knobs      map[string]float64
	written    motion.Written
	own        motion.Calibration
}

// under makes a pattern on a sheet, with what is written on it, ready to be tried under
// conditions.
func (s *Routes) under(ctx context.Context, p *sequence.Pattern, sh sheet.Sheet, written motion.Written, given map[string]float64) (tried, error) {
	w, b := s.benchOf(p, sh)
	c, err := w.Full(given)
	if err != nil {
		return tried{}, answer.AsProblem(err, "body.conditions.")
	}
	t := tried{way: w, pattern: p, sheet: sh, conditions: c}
	if t.own, err = s.learnt(ctx, w, c); err != nil {
		return t, answer.AsProblem(err, "")
	}
	t.written = written
	t.Trying = motion.WithWritten(b.Under(c, t.own), written)
	return t, nil
}

// trying makes the set-up of a request ready.
func (s *Routes) trying(ctx context.Context, id string, in MotionInput) (tried, error) {
	p, setup, sh, err := in.Planned(id)
	if err != nil {
		return tried{}, err
	}
	t, err := s.under(ctx, p, sh, setup.Written, in.Conditions)
	t.knobs = p.FullKnobs(setup.Knobs)
	return t, err
}

type motionInput struct {
	ID   string `path:"id" maxLength:"80"`
	Body MotionInput
}

// mostWarmed bounds the builds whose motion is worked out before anybody asks.
const mostWarmed = 24

// Warm works the motion of what lies on the bench out once, the newest first: the first
// prediction of a toy takes several times as long as those that follow.
func (s *Routes) Warm(ctx context.Context) error {
	builds, err := s.store.BuildsCounted(ctx)
	if err != nil {
		return err
	}
	for _, b := range builds[:min(len(builds), mostWarmed)] {
		p, err := answer.FindPattern(b.Pattern)
		if err != nil {
			continue
		}
		setup := b.Current()
		sh, err := setup.Sheet.Plain()
		if err != nil {
			continue
		}
		turned, done, err := turn.Take(ctx)
		if err != nil {
			return err
		}
		t, err := s.under(turned, p, sh, setup.Written, nil)
		if err == nil && t.way.Predicts {
			_, err = t.Predict(turned, p.FullKnobs(setup.Knobs), nil)
		}
		done()
		if ctx.Err() != nil {
			return ctx.Err()
		}
		if err != nil {
			continue // whoever looks at it is told why
		}
	}
	return nil
}

func (s *Routes) predict(ctx context.Context, in *motionInput) (*answer.Body[*PredictionView], error) {
	t, err := s.trying(ctx, in.ID, in.Body)
	if err != nil {
		return nil, err
	}
	var ghosts []motion.Ghost
	for _, g := range in.Body.Ghosts {
		if err := answer.CheckKnobs(t.pattern, g.Knobs); err != nil {
			return nil, err
		}
		ghosts = append(ghosts, motion.Ghost{Name: g.Name, Knobs: t.pattern.FullKnobs(g.Knobs)})
	}
	key, err := json.Marshal([]any{in.ID, t.sheet, t.knobs, t.conditions, t.own, ghosts, t.written}) // map keys are sorted
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	p, err := ask(ctx, s.once, string(key), func(ctx context.Context) (motion.Prediction, error) { return t.Predict(ctx, t.knobs, ghosts) })
	if err != nil {
		return nil, answer.Refuse("body.knobs", nil, err.Error())
	}
	if p.Offered == nil {
		p.Offered = map[string]float64{}
	}
	return answer.OK(&PredictionView{p, viewDrawing(p.Drawing), t.own})
}

type measuredToyInput struct {
	ID   string `path:"id" maxLength:"80"`
	Body MeasuredInput
}

// takeMeasured replaces what was meant by what was measured.
func (s *Routes) takeMeasured(ctx context.Context, in *measuredToyInput) (*answer.Body[map[string]float64], error) {
	t, err := s.trying(ctx, in.ID, in.Body.MotionInput)
	if err != nil {
		return nil, err
	}
	asked := t.way.Asked
	for name, v := range in.Body.Measured {
		var field *motion.Field
		for i := range asked.Of() {
			if asked.Fields[i].Name == name {
				field = &asked.Fields[i]
			}
		}
		if field == nil {
			return nil, answer.Refuse("body.measured."+name, v, "this is not measured of a toy that moves so")
		}
		if !(v >= field.Min && v <= field.Max) {
			return nil, answer.Refuse("body.measured."+name, v, fmt.Sprintf("%s must be %s", field.Label, say.Between(field.Min, field.Max, field.Unit, 1)))
		}
	}
	if err := t.Take(t.knobs, in.Body.Measured); err != nil {
		return nil, answer.AsProblem(err, "body.measured.")
	}
	if err := answer.CheckKnobs(t.pattern, t.knobs); err != nil {
		return nil, err
	}
	return answer.OK(t.knobs)
}

// learnt is what the trials of all builds that move so have taught, when they are to be
// heeded. It is worked out anew after a trial has changed; nobody waits for a lock while
// trials are read and learnt from.
func (s *Routes) learnt(ctx context.Context, w *ways.Way, c motion.Conditions) (motion.Calibration, error) {
	if w.Learn == nil || c["own"] == 0 || s.store == nil {
		return motion.Calibration{}, nil
	}
	s.mu.Lock()
	out, known := s.taught[w.Name]
	at := s.changes[w.Name]
	s.mu.Unlock()
	if known {
		return out, nil
	}
	return ask(ctx, s.once, fmt.Sprintf("learn %s %d", w.Name, at), func(ctx context.Context) (motion.Calibration, error) {
		all, err := s.observations(ctx, w)
		if err != nil {
			return motion.Calibration{}, err
		}
		out := w.Learn(all)
		s.mu.Lock()
		defer s.mu.Unlock()
		if s.changes[w.Name] == at { // else trials have changed meanwhile: it holds for this answer alone
			s.taught[w.Name] = out
		}
		return out, nil
	})
}

// version changes with every trial of a way of moving.
func (s *Routes) version(moves string) int {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.changes[moves]
}

// versionOf is the version of what a build's way of moving has been taught.
func (s *Routes) versionOf(b *bench.Build) int {
	p, err := answer.FindPattern(b.Pattern)
	if err != nil {
		return 0 // it is refused for that anyway
	}
	return s.version(ways.For(p).Name)
}

// taught are the trials of a build as they are learnt from, and when it was changed last.
type taught struct {
	at  time.Time
	all []motion.Observation
}

// observations are all trials of a way of moving. Only builds that have changed are read
// anew.
func (s *Routes) observations(ctx context.Context, w *ways.Way) ([]motion.Observation, error) {
	builds, err := s.store.BuildsCounted(ctx)
	if err != nil {
		return nil, err
	}
	var all []motion.Observation
	for _, b := range builds {
		p, err := answer.FindPattern(b.Pattern)
		if err != nil || ways.For(p).Name != w.Name || b.Trials() == 0 {
			continue
		}
		s.mu.Lock()
		was, known := s.seen[b.ID]
		s.mu.Unlock()
		if !known || !was.at.Equal(b.UpdatedAt) {
			if was, err = s.read(ctx, p, w, b.ID); err != nil {
				return nil, err
			}
		}
		all = append(all, was.all...)
	}
	return all, nil
}

// read reads the trials of a build, and keeps them as they are learnt from.
func (s *Routes) read(ctx context.Context, p *sequence.Pattern, w *ways.Way, id int64) (taught, error) {
	b, err := s.store.Build(ctx, id)
	if errors.Is(err, store.ErrNotFound) {
		return taught{}, nil // binned meanwhile
	}
	if err != nil {
		return taught{}, err
	}
	out := taught{at: b.UpdatedAt}
	for _, t := range b.Tweaks {
		o, err := s.observed(p, w, b.ID, t)
		if err != nil {
			continue // a set-up that cannot be folded any more teaches nothing
		}
		out.all = append(out.all, o...)
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	s.seen[id] = out
	return out, nil
}

// observed are the trials of a tweak, by the conditions that were noted with them.
func (s *Routes) observed(p *sequence.Pattern, w *ways.Way, build int64, t bench.Tweak) ([]motion.Observation, error) {
	sh, err := t.Setup.Sheet.Plain()
	if err != nil {
		return nil, err
	}
	_, on := s.benchOf(p, sh)
	var out []motion.Observation
	index := map[string]int{}
	for _, x := range t.Trials {
		c := w.Named(x.Under)
		key := fmt.Sprint(c)
		i, there := index[key]
		if !there {
			full, err := w.Full(c)
			if err != nil {
				continue
			}
			i = len(out)
			index[key] = i
			out = append(out, motion.Observation{Trying: on.Under(full, motion.Calibration{}), Knobs: p.FullKnobs(t.Setup.Knobs), Build: build})
		}
		out[i].Log = append(out[i].Log, x.Noted())
	}
	return out, nil
}

// Forget drops what was learnt of a way of moving, "" of all: trials have changed.
func (s *Routes) Forget(moves string) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if moves != "" {
		s.changes[moves]++
		delete(s.taught, moves)
		return
	}
	for _, w := range ways.All() {
		s.changes[w.Name]++
	}
	clear(s.taught)
	clear(s.seen)
}
