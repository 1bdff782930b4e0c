package motions

import (
	"context"
	"fmt"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/sse"

	"tussock/internal/bench"
	"tussock/internal/body"
	"tussock/internal/fit"
	"tussock/internal/motion"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/tune"
	"tussock/internal/ways"
	"tussock/internal/web/answer"
)

func (s *Routes) tuneRoutes(api huma.API) {
	op := func(id, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: http.MethodPost, Path: "/api/v1" + path, Summary: summary, MaxBodyBytes: 2 * answer.SmallBody}
	}
	huma.Register(api, op("list-levers", "/patterns/{id}/levers", "What can be tuned"), func(ctx context.Context, in *motionInput) (*answer.Body[[]motion.Lever], error) {
		t, err := s.trying(ctx, in.ID, in.Body)
		if err != nil {
			return nil, err
		}
		return answer.OK(t.Levers(t.knobs))
	})
	huma.Register(api, answer.Long(op("sensitivity", "/patterns/{id}/sensitivity", "What one step of each knob does")), s.sensitivity)
	huma.Register(api, answer.Long(op("sweep", "/patterns/{id}/sweep", "One knob over its range, or two together")), s.sweep)
	huma.Register(api, answer.Long(op("clinic", "/builds/{id}/clinic", "What the trials of the newest tweak say, and what to change")), s.clinic)
	sse.Register(api, answer.Long(op("optimise", "/patterns/{id}/optimise", "Search the best set-up for an aim; progress and the result are streamed")),
		map[string]any{"progress": tune.Progress{}, "done": OptimumView{}, "failed": FailedView{}}, s.optimise)
}

func (s *Routes) sensitivity(ctx context.Context, in *motionInput) (*answer.Body[*SensitivityView], error) {
	t, err := s.trying(ctx, in.ID, in.Body)
	if err != nil {
		return nil, err
	}
	levers := t.Levers(t.knobs)
	f := t.Measure(levers)
	now, err := f(ctx, motion.Positions(levers), motion.Whole)
	if err != nil {
		return nil, answer.Refuse("body.knobs", nil, err.Error())
	}
	by := ""
	if len(t.way.Measures) > 0 {
		by = t.way.Measures[0].Name
	}
	effects, err := tune.Sensitivity(ctx, levers, f, by)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	v := &SensitivityView{Now: now, Effects: []LeverEffectView{}}
	for _, e := range effects {
		v.Effects = append(v.Effects, LeverEffectView{e.Lever, e.Up, e.Down})
	}
	return answer.OK(v)
}

type sweepInput struct {
	ID   string `path:"id" maxLength:"80"`
	Body SweepInput
}

const sweepPoints, pairPoints = 33, 11

func (s *Routes) sweep(ctx context.Context, in *sweepInput) (*answer.Body[*SweepView], error) {
	t, err := s.trying(ctx, in.ID, in.Body.MotionInput)
	if err != nil {
		return nil, err
	}
	levers := t.Levers(t.knobs)
	find := func(field, name string) (int, error) {
		for i, l := range levers {
			if l.Name == name {
				return i, nil
			}
		}
		return 0, answer.Refuse("body."+field, name, "there is no knob called "+name)
	}
	i, err := find("lever", in.Body.Lever)
	if err != nil {
		return nil, err
	}
	f := t.Measure(levers)
	v := &SweepView{Lever: levers[i], Points: []SweepPoint{}, Most: map[string]float64{}}
	if in.Body.Second == "" {
		points, err := tune.Sweep(ctx, levers, i, levers[i].Min, levers[i].Max, sweepPoints, f, motion.Whole)
		if err != nil {
			return nil, answer.AsProblem(err, "")
		}
		for _, p := range points {
			v.Points = append(v.Points, SweepPoint{At: p.At, Measures: p.Measures})
		}
		for _, g := range t.way.Measures {
			if at, ok := tune.Most(points, g); ok {
				v.Most[g.Name] = at
			}
		}
		return answer.OK(v)
	}
	j, err := find("second", in.Body.Second)
	if err != nil {
		return nil, err
	}
	if i == j {
		return nil, answer.Refuse("body.second", in.Body.Second, "a pair needs two different knobs")
	}
	v.Second = &levers[j]
	points, err := tune.Pair(ctx, levers, i, j, pairPoints, f)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	for _, p := range points {
		v.Points = append(v.Points, SweepPoint{p.At, p.Second, p.Measures})
	}
	return answer.OK(v)
}

// searchTries is how many set-ups an optimisation tries.
const searchTries = 300

type optimiseInput struct {
	ID   string `path:"id" maxLength:"80"`
	Body OptimiseInput
}

// FailedView ends a search that came to nothing.
type FailedView struct {
	Detail string `json:"detail"`
}

// optimise streams server-sent events: progress, and at last the result. It ends when
// the page goes away.
func (s *Routes) optimise(ctx context.Context, in *optimiseInput, send sse.Sender) {
	run, err := s.search(ctx, in.ID, in.Body)
	var out *OptimumView
	if err == nil {
		// Whoever has gone away has called it off: the context says so.
		out, err = run(ctx, func(p tune.Progress) { _ = send.Data(p) })
	}
	if err != nil {
		_ = send.Data(FailedView{err.Error()})
		return
	}
	_ = send.Data(*out)
}

// search prepares an optimisation; what is refused is refused before it starts.
func (s *Routes) search(ctx context.Context, id string, in OptimiseInput) (func(context.Context, func(tune.Progress)) (*OptimumView, error), error) {
	t, err := s.trying(ctx, id, in.MotionInput)
	if err != nil {
		return nil, err
	}
	i := slices.IndexFunc(t.way.Aims, func(a motion.Aim) bool { return a.Name == in.Aim })
	if i < 0 {
		return nil, answer.Refuse("body.aim", in.Aim, "toys that move so are not tuned for "+in.Aim)
	}
	if q := t.way.Aims[i].Needs; q != "" && t.conditions[q] == 0 {
		return nil, answer.Refuse("body.conditions."+q, 0, fmt.Sprintf("there is no %s yet: set it up under %q first", q, t.way.Words.Conditions))
	}
	if a := t.way.Aims[i]; a.At != "" && !(in.At > 0) {
		return nil, answer.Refuse("body.at", in.At, a.At+": it must be more than 0")
	}
	levers := t.Levers(t.knobs)
	var free []int
	for _, want := range in.Levers {
		found := false
		for i := range levers {
			l := &levers[i]
			if l.Name != want.Name {
				continue
			}
			found = true
			free = append(free, i)
			lo, hi := l.Min, l.Max
			if want.Min != nil {
				lo = *want.Min
			}
			if want.Max != nil {
				hi = *want.Max
			}
			if lo < l.Min || hi > l.Max || lo > hi {
				return nil, answer.Refuse("body.levers", want.Name, fmt.Sprintf("%s may go from %s to %s; bounds of %s to %s do not lie in that", l.Label, sheet.Number(l.Min), sheet.Number(l.Max), sheet.Number(lo), sheet.Number(hi)))
			}
			l.Min, l.Max = lo, hi
		}
		if !found {
			return nil, answer.Refuse("body.levers", want.Name, "there is no knob called "+want.Name)
		}
	}
	return func(ctx context.Context, tell func(tune.Progress)) (*OptimumView, error) {
		gain := t.way.Gauge(t.way.Aims[i].Gain)
		f, err := tune.Optimise(ctx, levers, free, t.Measure(levers), t.Goal(in.Aim, in.At), gain, searchTries, tell)
		if err != nil {
			return nil, err
		}
		v := &OptimumView{Changes: []ReasonView{}, Before: f.Before, After: f.After, NothingToGain: f.NothingToGain, Tried: f.Tried, Gauge: gain, Gain: f.Gain}
		var c motion.Conditions
		v.Knobs, c = motion.Split(levers, f.At)
		for k, l := range levers {
			if l.Trial && f.At[k] == l.Value {
				c[l.Name] = t.conditions[l.Name] // what was left to the toy stays left to it
			}
		}
		v.Conditions = c
		for _, r := range f.Reasons {
			v.Changes = append(v.Changes, ReasonView{r.Lever, r.Lever.Value, r.To, r.Measures})
			v.NeedsSheet = v.NeedsSheet || r.Lever.Hard
		}
		return v, nil
	}, nil
}

type clinicInput struct {
	answer.PathID
	Body ClinicInput
}

func (s *Routes) clinic(ctx context.Context, in *clinicInput) (*answer.Body[*ClinicView], error) {
	b, err := s.store.Build(ctx, in.ID)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	key := fmt.Sprint("clinic ", b.ID, b.UpdatedAt, s.versionOf(b), in.Body.Conditions)
	v, err := ask(ctx, s.once, key, func(ctx context.Context) (*ClinicView, error) { return s.examined(ctx, b, in.Body.Conditions) })
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return answer.OK(v)
}

// examined looks the tweak on the table over.
func (s *Routes) examined(ctx context.Context, b *bench.Build, conditions map[string]float64) (*ClinicView, error) {
	p, err := answer.FindPattern(b.Pattern)
	if err != nil {
		return nil, err
	}
	v := &ClinicView{Residual: []ResidualView{}}
	last := b.OnTable()
	if last == nil { // not tried yet: what is set is looked at all the same
		v.Finding, _, _ = motion.Look(nil, nil, ways.For(p).Words.One, ways.For(p).Words.Many)
		last = &bench.Tweak{Setup: b.Current()}
	}
	sh, err := last.Setup.Sheet.Plain()
	if err != nil {
		return nil, err
	}
	t, err := s.under(ctx, p, sh, last.Setup.Written, conditions)
	if err != nil {
		return nil, err
	}
	knobs := p.FullKnobs(last.Setup.Knobs)
	log := bench.Noted(last.Trials)
	v.Tweak = last.No
	if last.No > 0 {
		if v.Finding, err = t.Examine(ctx, knobs, log); err != nil {
			return nil, answer.Refuse("knobs", nil, err.Error())
		}
	}
	if len(log) >= motion.Enough && t.way.Predicts {
		p, err := t.Predict(ctx, knobs, nil)
		if err != nil {
			return nil, answer.Refuse("knobs", nil, err.Error())
		}
		if p.Works {
			v.Disagrees = t.way.Disagrees(p, log)
		}
	}
	told, err := t.Told(ctx, knobs, log)
	if err != nil {
		return nil, answer.Refuse("knobs", nil, err.Error())
	}
	v.Told = viewDrawing(told)
	v.Residual = residuals(p.Run(sh, last.Setup.Knobs))
	if i := slices.IndexFunc(b.Tweaks, func(t bench.Tweak) bool { return t.No == last.No }); i > 0 {
		v.Kept = keepOrRevert(p, &t.way.Way, b.Tweaks[i-1], *last)
	}
	return v, nil
}

// residuals are how far landmarks of the left are from the mirror image of the right.
func residuals(r *sequence.Replay) []ResidualView {
	out := []ResidualView{}
	if r.Err != nil {
		return out
	}
	for _, q := range body.StudyOf(r).Symmetry {
		out = append(out, ResidualView{r.Pattern.Called(q.Left), r.Pattern.Called(q.Right), q.MM})
	}
	return out
}

// keepOrRevert compares two tweaks.
func keepOrRevert(p *sequence.Pattern, w *motion.Way, before, after bench.Tweak) *KeepView {
	var readings []fit.Reading
	for _, r := range w.Compared() {
		readings = append(readings, fit.Reading{ID: r.ID, Less: r.Less, Before: bench.Readings(before.Trials, r.ID), After: bench.Readings(after.Trials, r.ID)})
	}
	k := fit.KeepOrRevert(readings, bench.Seen(before.Trials), bench.Seen(after.Trials), w.Bad())
	return &KeepView{Against: before.No, Changes: answer.ViewChanges(p, before.Setup, after.Setup), Reading: k.Reading.ID, Before: bench.Summarise(k.Reading.Before), After: bench.Summarise(k.Reading.After),
		Shift: k.Shift, Lo: k.Lo, Hi: k.Hi, Chance: k.Chance, Verdict: string(k.Verdict), Advice: string(k.Advice), More: k.More, Symptom: (*SymptomChange)(k.Faults)}
}
