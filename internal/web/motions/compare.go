package motions

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/bench"
	"tussock/internal/body"
	"tussock/internal/fit"
	"tussock/internal/motion"
	"tussock/internal/motion/toys"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/tune"
	"tussock/internal/turn"
	"tussock/internal/ways"
	"tussock/internal/web/answer"
)

func (s *Routes) compareRoutes(api huma.API) {
	op := func(id, path, summary string) huma.Operation {
		return huma.Operation{OperationID: id, Method: http.MethodPost, Path: "/api/v1/builds/{id}" + path, Summary: summary, MaxBodyBytes: answer.SmallBody}
	}
	huma.Register(api, answer.Long(op("compare-sizes", "/sizes", "The same pattern at several sizes, predicted, against what was logged of builds of it")), s.sizes)
	huma.Register(api, answer.Long(op("compare-schools", "/schools", "Where folders disagree: both ways predicted, how many trials settle it, and what was logged")), s.schools)
}

// SizesView compares sizes of one pattern.
type SizesView struct {
	Sizes  []SizeRow `json:"sizes" doc:"smallest first"`
	Advice string    `json:"advice"`
}

// SizeRow is one size: of a build that there is, or one to think of.
type SizeRow struct {
	WidthMM  float64          `json:"width_mm"`
	HeightMM float64          `json:"height_mm"`
	Scale    float64          `json:"scale" doc:"against the sheet of this build"`
	Here     bool             `json:"here" doc:"this build"`
	Build    *answer.BuildRef `json:"build,omitempty" doc:"absent for a size to think of"`
	LengthMM float64          `json:"length_mm" doc:"of the finished toy, as its numbers have it"`
	Outcomes []motion.Outcome `json:"outcomes" doc:"predicted: the first two; none when it cannot be folded"`
	Warns    []string         `json:"warns" doc:"checks that fail at this size"`
	Measured *bench.Stats     `json:"measured,omitempty" doc:"of the reading of the first outcome"`
}

func (s *Routes) sizes(ctx context.Context, in *clinicInput) (*answer.Body[*SizesView], error) {
	b, err := s.store.Build(ctx, in.ID)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	all, err := s.store.Builds(ctx)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	key := fmt.Sprint("sizes ", b.ID, b.UpdatedAt, s.versionOf(b), in.Body.Conditions)
	v, err := ask(ctx, s.once, key, func(ctx context.Context) (*SizesView, error) { return s.sized(ctx, b, all, in.Body.Conditions) })
	if err != nil {
		return nil, answer.AsProblem(err, "body.")
	}
	return answer.OK(v)
}

// sized compares a build with others of its pattern, and with sizes to think of.
func (s *Routes) sized(ctx context.Context, b *bench.Build, all []*bench.Build, conditions map[string]float64) (*SizesView, error) {
	p, err := answer.FindPattern(b.Pattern)
	if err != nil {
		return nil, err
	}
	setup := b.Current()
	v := &SizesView{Sizes: []SizeRow{}}
	logs := map[int][]float64{}
	for _, other := range all {
		if other.Pattern != b.Pattern {
			continue
		}
		set, trials := other.Tried()
		r, err := s.sizeRow(ctx, p, set.Sheet, p.FullKnobs(set.Knobs), conditions)
		if err != nil {
			return nil, err
		}
		r.Scale, r.Here, r.Build = set.Sheet.WidthMM/setup.Sheet.WidthMM, other.ID == b.ID, &answer.BuildRef{ID: other.ID, Name: other.Name}
		if len(r.Outcomes) > 0 {
			if x := bench.Readings(trials, r.Outcomes[0].ID); len(x) > 0 {
				st := bench.Summarise(x)
				r.Measured = &st
				logs[len(v.Sizes)] = x
			}
		}
		v.Sizes = append(v.Sizes, r)
	}
	for _, k := range fit.OtherSizes {
		spec := setup.Sheet
		spec.WidthMM, spec.HeightMM = spec.WidthMM*k, spec.HeightMM*k
		there := slices.ContainsFunc(v.Sizes, func(r SizeRow) bool { return math.Abs(r.WidthMM-spec.WidthMM) < 1 })
		if there || !sheet.SideRange.Holds(spec.WidthMM) || !sheet.SideRange.Holds(spec.HeightMM) {
			continue
		}
		r, err := s.sizeRow(ctx, p, spec, toys.Scaled(p, p.FullKnobs(setup.Knobs), k), conditions)
		if err != nil {
			return nil, err
		}
		r.Scale = k
		v.Sizes = append(v.Sizes, r)
	}
	v.Advice = fit.SizesSay(v.told(logs))
	slices.SortStableFunc(v.Sizes, func(a, b SizeRow) int { return cmp.Compare(a.WidthMM, b.WidthMM) })
	return v, nil
}

// sizeRow predicts one size; where it cannot be folded the row says nothing.
func (s *Routes) sizeRow(ctx context.Context, p *sequence.Pattern, spec bench.SheetSpec, knobs, conditions map[string]float64) (SizeRow, error) {
	r := SizeRow{WidthMM: spec.WidthMM, HeightMM: spec.HeightMM, Outcomes: []motion.Outcome{}, Warns: []string{}}
	sh, err := spec.Plain()
	if err != nil {
		return r, err
	}
	t, err := s.under(ctx, p, sh, nil, conditions)
	if err != nil {
		return r, err
	}
	ctx, done, err := turn.Take(ctx)
	if err != nil {
		return r, err
	}
	defer done()
	q, err := t.Predict(ctx, knobs, nil)
	if ctx.Err() != nil {
		return r, ctx.Err()
	}
	if err != nil || !q.Works {
		return r, nil
	}
	r.Outcomes = q.Outcomes[:min(2, len(q.Outcomes))]
	for _, c := range q.Checks {
		if !c.OK {
			r.Warns = append(r.Warns, c.Title+": "+c.Says)
		}
	}
	whole := p.Run(sh, knobs)
	r.LengthMM = ways.For(p).Finish(whole, body.Measure(whole.Final())).LengthMM
	return r, nil
}

// told are the sizes, with the logs of the first of them, to be compared.
func (v *SizesView) told(logs map[int][]float64) []fit.Size {
	out := make([]fit.Size, len(v.Sizes))
	for i, r := range v.Sizes {
		out[i] = fit.Size{Here: r.Here, WidthMM: r.WidthMM, HeightMM: r.HeightMM, LengthMM: r.LengthMM, Log: logs[i]}
		if r.Build != nil {
			out[i].Name = r.Build.Name
		}
		if len(r.Outcomes) > 0 {
			out[i].Comes = r.Outcomes[0].Middle
		}
	}
	return out
}

// SchoolView is a question on which folders disagree, for one build.
type SchoolView struct {
	motion.School
	SideA   SchoolSide `json:"side_a"`
	SideB   SchoolSide `json:"side_b"`
	Each    int        `json:"each" doc:"trials each side needs to settle it"`
	Scatter float64    `json:"scatter" doc:"of single trials, as a part of their middle"`
	Verdict string     `json:"verdict" doc:"what was logged says; empty when one side has no trials"`
}

// SchoolSide is one of both ways.
type SchoolSide struct {
	Knobs   map[string]float64 `json:"knobs" doc:"the whole set-up"`
	Outlook motion.Outlook     `json:"outlook"`
	Tweak   int                `json:"tweak" doc:"the newest tweak that is set so; 0 for none"`
	Stats   *bench.Stats       `json:"stats,omitempty"`
}

func (s *Routes) schools(ctx context.Context, in *clinicInput) (*answer.Body[[]SchoolView], error) {
	b, err := s.store.Build(ctx, in.ID)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	key := fmt.Sprint("schools ", b.ID, b.UpdatedAt, s.versionOf(b), in.Body.Conditions)
	out, err := ask(ctx, s.once, key, func(ctx context.Context) ([]SchoolView, error) { return s.disputed(ctx, b, in.Body.Conditions) })
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return answer.OK(out)
}

// disputed sets a build both ways on which folders disagree.
func (s *Routes) disputed(ctx context.Context, b *bench.Build, conditions map[string]float64) ([]SchoolView, error) {
	p, err := answer.FindPattern(b.Pattern)
	if err != nil {
		return nil, err
	}
	setup := b.Current()
	sh, err := setup.Sheet.Plain()
	if err != nil {
		return nil, err
	}
	t, err := s.under(ctx, p, sh, setup.Written, conditions)
	if err != nil {
		return nil, err
	}
	out := []SchoolView{}
	has := func(knob string) bool { return p.KnobIndex(knob) >= 0 }
	for _, q := range t.way.Schools {
		a, okA := tune.Applied(has, p.FullKnobs(setup.Knobs), q.KnobsA)
		c, okB := tune.Applied(has, p.FullKnobs(setup.Knobs), q.KnobsB)
		if !okA || !okB {
			continue // this pattern does not have these folds
		}
		v := SchoolView{School: q}
		var logA, logB []float64
		if v.SideA, logA, err = schoolSide(ctx, t, b, a, q.KnobsA); err != nil {
			return nil, answer.Refuse("knobs", nil, err.Error())
		}
		if v.SideB, logB, err = schoolSide(ctx, t, b, c, q.KnobsB); err != nil {
			return nil, answer.Refuse("knobs", nil, err.Error())
		}
		v.Scatter = fit.ScatterOfBoth(logA, logB)
		v.Each = fit.Needed(v.SideA.Outlook.Middle, v.SideB.Outlook.Middle, v.Scatter)
		if len(logA) > 0 && len(logB) > 0 {
			v.Verdict = fit.Settled(q.A, q.B, logA, logB, v.Each)
		}
		out = append(out, v)
	}
	return out, nil
}

func schoolSide(ctx context.Context, t tried, b *bench.Build, knobs, own map[string]float64) (SchoolSide, []float64, error) {
	v := SchoolSide{Knobs: knobs}
	var err error
	if v.Outlook, err = t.Outlook(ctx, knobs); err != nil {
		return v, nil, err
	}
	var log []float64
	for _, w := range b.Tweaks {
		if tune.Matches(t.pattern.FullKnobs(w.Setup.Knobs), own) {
			v.Tweak = w.No
			if x := bench.Readings(w.Trials, v.Outlook.ID); len(x) > 0 {
				st := bench.Summarise(x)
				v.Stats, log = &st, x
			}
		}
	}
	return v, log, nil
}
