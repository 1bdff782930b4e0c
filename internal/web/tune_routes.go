package web

import (
	"context"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/sse"

	"tussock/internal/bench"
	"tussock/internal/body"
	"tussock/internal/fit"
	"tussock/internal/motion"
	"tussock/internal/motion/glide"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/tune"
)

func (s *server) tuneRoutes(api huma.API) {
	op := func(id, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: http.MethodPost, Path: "/api/v1" + path, Summary: summary, MaxBodyBytes: 2 * smallBody}
	}
	huma.Register(api, op("list-levers", "/patterns/{id}/levers", "What can be tuned"), func(_ context.Context, in *flightInput) (*answer[[]LeverView], error) {
		w, knobs, err := s.benchOf(in.ID, in.Body)
		if err != nil {
			return nil, err
		}
		out := []LeverView{}
		for _, l := range w.Levers(knobs) {
			out = append(out, viewLever(l))
		}
		return ok(out)
	})
	huma.Register(api, op("sensitivity", "/patterns/{id}/sensitivity", "What one step of each knob does"), s.sensitivity)
	huma.Register(api, op("sweep", "/patterns/{id}/sweep", "One knob over its range, or two together"), s.sweep)
	huma.Register(api, op("clinic", "/builds/{id}/clinic", "What the throws of the newest tweak say, and what to change"), s.clinic)
	sse.Register(api, op("optimise", "/patterns/{id}/optimise", "Search the best set-up for an aim; progress and the result are streamed"),
		map[string]any{"progress": tune.Progress{}, "done": OptimumView{}, "failed": FailedView{}}, s.optimise)
}

func viewLever(l motion.Lever) LeverView {
	return LeverView{l.Name, l.Label, l.Unit, l.Min, l.Max, l.Value, l.Step, l.Hard, l.Even}
}

// measuresShown are what the page shows of a position, the most asked for first.
var measuresShown = []MeasureView{{glide.ByDistance, "m"}, {glide.ByTime, "s"}, {glide.BySpeed, "m/s"}, {glide.ByRatio, ""}, {glide.ByDrift, "m"}, {glide.ByMargin, "%"}}

func (s *server) sensitivity(ctx context.Context, in *flightInput) (*answer[*SensitivityView], error) {
	w, knobs, err := s.benchOf(in.ID, in.Body)
	if err != nil {
		return nil, err
	}
	levers := w.Levers(knobs)
	f := w.Measure(levers)
	now, err := f(ctx, motion.Positions(levers))
	if err != nil {
		return nil, refuse("body.knobs", nil, err.Error())
	}
	effects, err := tune.Sensitivity(ctx, levers, f, glide.ByDistance)
	if err != nil {
		return nil, asProblem(err, "")
	}
	v := &SensitivityView{Measures: measuresShown, Now: now, Effects: []LeverEffectView{}, Throws: glide.Throws}
	for _, e := range effects {
		v.Effects = append(v.Effects, LeverEffectView{viewLever(e.Lever), e.Up, e.Down})
	}
	return ok(v)
}

type sweepInput struct {
	ID   string `path:"id" maxLength:"80"`
	Body SweepInput
}

const sweepPoints, pairPoints = 33, 11

func (s *server) sweep(ctx context.Context, in *sweepInput) (*answer[*SweepView], error) {
	w, knobs, err := s.benchOf(in.ID, in.Body.FlightInput)
	if err != nil {
		return nil, err
	}
	levers := w.Levers(knobs)
	find := func(field, name string) (int, error) {
		for i, l := range levers {
			if l.Name == name {
				return i, nil
			}
		}
		return 0, refuse("body."+field, name, "there is no knob called "+name)
	}
	i, err := find("lever", in.Body.Lever)
	if err != nil {
		return nil, err
	}
	f := w.Measure(levers)
	v := &SweepView{Lever: viewLever(levers[i]), Measures: measuresShown, Points: []SweepPoint{}}
	if in.Body.Second == "" {
		points, err := tune.Sweep(ctx, levers, i, levers[i].Min, levers[i].Max, sweepPoints, f)
		if err != nil {
			return nil, asProblem(err, "")
		}
		for _, p := range points {
			v.Points = append(v.Points, SweepPoint{At: p.At, Measures: p.Measures})
		}
		return ok(v)
	}
	j, err := find("second", in.Body.Second)
	if err != nil {
		return nil, err
	}
	if i == j {
		return nil, refuse("body.second", in.Body.Second, "a pair needs two different knobs")
	}
	second := viewLever(levers[j])
	v.Second = &second
	for k := range pairPoints {
		at := levers[j].Min + (levers[j].Max-levers[j].Min)*float64(k)/(pairPoints-1)
		moved := append([]motion.Lever(nil), levers...)
		moved[j].Value = at
		points, err := tune.Sweep(ctx, moved, i, levers[i].Min, levers[i].Max, pairPoints, f)
		if err != nil {
			return nil, asProblem(err, "")
		}
		for _, p := range points {
			v.Points = append(v.Points, SweepPoint{At: p.At, Second: at, Measures: p.Measures})
		}
	}
	return ok(v)
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
func (s *server) optimise(ctx context.Context, in *optimiseInput, send sse.Sender) {
	run, err := s.search(in.ID, in.Body)
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
func (s *server) search(id string, in OptimiseInput) (func(context.Context, func(tune.Progress)) (*OptimumView, error), error) {
	w, knobs, err := s.benchOf(id, in.FlightInput)
	if err != nil {
		return nil, err
	}
	levers := w.Levers(knobs)
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
				return nil, refuse("body.levers", want.Name, fmt.Sprintf("%s may go from %s to %s; bounds of %s to %s do not lie in that", l.Label, sheet.Number(l.Min), sheet.Number(l.Max), sheet.Number(lo), sheet.Number(hi)))
			}
			l.Min, l.Max = lo, hi
		}
		if !found {
			return nil, refuse("body.levers", want.Name, "there is no knob called "+want.Name)
		}
	}
	return func(ctx context.Context, tell func(tune.Progress)) (*OptimumView, error) {
		f, err := tune.Optimise(ctx, levers, free, w.Measure(levers), glide.Aim{Kind: in.Aim, RingM: in.RingM}.Goal(), searchTries, tell)
		if err != nil {
			return nil, err
		}
		v := &OptimumView{Knobs: map[string]float64{}, Throw: in.Throw, Changes: []ReasonView{}, Before: f.Before, After: f.After, NothingToGain: f.NothingToGain, Tried: f.Tried}
		for i, l := range levers {
			switch l.Name {
			case glide.LeverSpeed:
				v.Throw.SpeedMS = f.At[i]
			case glide.LeverAngle:
				v.Throw.AngleDeg = f.At[i]
			default:
				v.Knobs[l.Name] = f.At[i]
			}
		}
		for _, r := range f.Reasons {
			v.Changes = append(v.Changes, ReasonView{viewLever(r.Lever), r.Lever.Value, r.To, r.Measures})
			v.NeedsSheet = v.NeedsSheet || r.Lever.Hard
		}
		return v, nil
	}, nil
}

type clinicInput struct {
	PathID
	Body ClinicInput
}

func (s *server) clinic(ctx context.Context, in *clinicInput) (*answer[*ClinicView], error) {
	b, err := s.store.Build(ctx, in.ID)
	if err != nil {
		return nil, asProblem(err, "")
	}
	p, err := findPattern(b.Pattern)
	if err != nil {
		return nil, err
	}
	v := &ClinicView{Turn: []glide.TurnCause{}, Residual: []ResidualView{}, Finding: motion.Finding{Causes: []motion.Cause{}, Others: []motion.Remedy{}, Title: "Not thrown yet", Wants: 3}}
	last := b.Latest()
	if last == nil {
		return ok(v)
	}
	q := last.Setup.Sheet
	sh, err := sheet.New(q.WidthMM, q.HeightMM, q.GSM, q.ThicknessMM)
	if err != nil {
		return nil, asProblem(err, "")
	}
	w := s.workbench(p, sh, in.Body.Throw, in.Body.Room, in.Body.Hand, in.Body.Softening)
	knobs := fullKnobs(p, last.Setup.Knobs)
	log := noted(last.Trials)
	v.Tweak = last.No
	if v.Finding, err = w.Examine(knobs, log); err != nil {
		return nil, refuse("knobs", nil, err.Error())
	}
	v.TurnDeg, v.TurnN = glide.SeenTurn(log)
	if v.TurnDeg != 0 {
		if v.Turn, err = w.TurnCauses(knobs, v.TurnDeg); err != nil {
			return nil, refuse("knobs", nil, err.Error())
		}
	}
	v.Residual = residuals(p.Run(sh, last.Setup.Knobs))
	if n := len(b.Tweaks); n > 1 {
		v.Kept = keepOrRevert(p, b.Tweaks[n-2], *last)
	}
	return ok(v)
}

// residuals are how far landmarks of the left are from the mirror image of the right.
func residuals(r *sequence.Replay) []ResidualView {
	out := []ResidualView{}
	if r.Err != nil {
		return out
	}
	for _, q := range body.StudyOf(r).Symmetry {
		out = append(out, ResidualView{landmarkWords(r.Pattern, q.Left), landmarkWords(r.Pattern, q.Right), q.MM})
	}
	return out
}

// keepOrRevert compares two tweaks by their distances, or times where these are more.
func keepOrRevert(p *sequence.Pattern, before, after bench.Tweak) *KeepView {
	v := &KeepView{Against: before.No, Changes: viewChanges(p, before.Setup, after.Setup), Reading: "distance"}
	a, b := bench.Distances(before.Trials), bench.Distances(after.Trials)
	if ta, tb := bench.Times(before.Trials), bench.Times(after.Trials); min(len(ta), len(tb)) > min(len(a), len(b)) {
		a, b, v.Reading = ta, tb, "time"
	}
	v.Before, v.After = bench.Summarise(a), bench.Summarise(b)
	c := fit.Compare(a, b)
	v.Shift, v.Lo, v.Hi, v.Chance, v.Verdict, v.More = c.Shift, c.Lo, c.Hi, c.Chance, string(c.Verdict), c.More
	v.Symptom = symptomChange(before.Trials, after.Trials)
	// A symptom that is gone counts where distances cannot tell.
	cured := v.Symptom != nil && v.Symptom.Chance < 0.1 && v.Symptom.After*v.Symptom.BeforeN < v.Symptom.Before*v.Symptom.AfterN
	switch {
	case c.Verdict == fit.Better || cured && c.Verdict == fit.Level:
		v.Advice, v.More = "keep", 0
	case c.Verdict == fit.Worse:
		v.Advice, v.More = "revert", 0
	default:
		v.Advice = "throw more"
		if c.Verdict == fit.Level && c.More == 0 {
			// Enough throws, and nothing seen: the simpler set-up is as good.
			v.Advice = "revert"
		}
	}
	return v
}

// symptomChange is about the bad thing that was noted most before.
func symptomChange(before, after []bench.Trial) *SymptomChange {
	count := func(trials []bench.Trial, chip string) (k, n int) {
		for _, t := range trials {
			if len(t.Seen) > 0 {
				n++
			}
			for _, s := range t.Seen {
				if s == chip {
					k++
				}
			}
		}
		return k, n
	}
	best := SymptomChange{}
	for _, chip := range []string{"dived", "stalled", "turned left", "turned right", "rolled", "looped"} {
		if k, n := count(before, chip); k > best.Before {
			best.Name, best.Before, best.BeforeN = chip, k, n
		}
	}
	if best.Before < 2 {
		return nil
	}
	best.After, best.AfterN = count(after, best.Name)
	best.Chance = fit.Share(best.Before, best.BeforeN, best.After, best.AfterN)
	return &best
}
