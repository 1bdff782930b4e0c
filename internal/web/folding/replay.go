package folding

import (
	"encoding/json"
	"maps"

	"tussock/internal/bench"
	"tussock/internal/body"
	"tussock/internal/draw"
	"tussock/internal/fold"
	"tussock/internal/fold/layermap"
	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/sequence"
	"tussock/internal/sequence/remarks"
	"tussock/internal/sequence/spread"
	"tussock/internal/sheet"
	"tussock/internal/store"
	"tussock/internal/ways"
	"tussock/internal/web/answer"

	"github.com/danielgtaylor/huma/v2"
)

// What is kept, bytes. A replay takes twice what it takes as JSON, with the folded states
// that it was drawn from five times (measured over the shelf: 1.6 to 2 and 3 to 5).
const (
	replayBytes, perReplay = 32 << 20, 2
	foldBytes, perFold     = 24 << 20, 5
	cardBytes, studyBytes  = 8 << 20, 16 << 20
	reachBytes             = 1 << 20
)

// Routes answers what is asked of patterns and their folding.
type Routes struct {
	store   *store.Store
	cache   *answer.Kept[*ReplayView]
	folds   *answer.Kept[folded]
	cards   *answer.Kept[Card]
	studies *answer.Kept[*StudyView]
	reaches *answer.Kept[[]remarks.Reach]
}

// New makes the area. The store is asked for builds that are printed.
func New(s *store.Store) *Routes {
	return &Routes{s, answer.NewKept[*ReplayView](replayBytes, perReplay), answer.NewKept[folded](foldBytes, perFold), answer.NewKept[Card](cardBytes, perReplay),
		answer.NewKept[*StudyView](studyBytes, perReplay), answer.NewKept[[]remarks.Reach](reachBytes, perReplay)}
}

// Register adds its routes.
func (s *Routes) Register(api huma.API) {
	s.shelfRoutes(api)
	s.studyRoutes(api)
	s.printRoutes(api)
	s.placementRoutes(api)
	s.stepRoutes(api)
	s.classRoutes(api)
}

// folded is a replay with its pictures, for all last bends: these fold nothing.
type folded struct {
	replay   *sequence.Replay
	measured body.Flat
	view     *ReplayView
	toy      *ToyView // as it is folded, where last bends do not show; else nil
}

// Replay is the cached way from pattern, sheet and knobs to pictures and numbers. What
// is folded and how it is bent at last are kept apart: while an edge is bent, only the
// finished toy is drawn anew.
func (s *Routes) Replay(p *sequence.Pattern, setup bench.Setup) (*ReplayView, error) {
	setup.Knobs = p.FullKnobs(setup.Knobs)
	setup.Recipes = nil // they say how a length is found, not how long it is
	key, err := replayKey(p, setup)
	if err != nil {
		return nil, err
	}
	if v, ok := s.cache.Get(key); ok {
		return v, nil
	}
	base := setup
	base.Knobs = p.Unbent(setup.Knobs)
	baseKey, err := replayKey(p, base)
	if err != nil {
		return nil, err
	}
	f, found := s.folds.Get(baseKey)
	if !found {
		sh, err := sheet.New(setup.Sheet.WidthMM, setup.Sheet.HeightMM, setup.Sheet.GSM, setup.Sheet.ThicknessMM)
		if err != nil {
			return nil, err
		}
		f.replay = p.Run(sh, base.Knobs)
		ways.For(p).Write(f.replay, setup.Written)
		f.view, f.measured = viewReplay(f.replay, base)
		if f.view.OK && ways.For(p).Show == nil {
			f.toy = viewToy(f.replay, f.measured)
		}
		s.folds.Add(baseKey, f, f.view)
	}
	v := *f.view
	v.Knobs = setup.Knobs
	switch {
	case f.toy != nil:
		v.Toy = f.toy
	case v.OK:
		bent := *f.replay
		bent.Values = maps.Clone(bent.Values)
		maps.Copy(bent.Values, setup.Knobs)
		v.Toy = viewToy(&bent, f.measured)
	}
	s.cache.Add(key, &v, &v) // counted whole: it holds its steps when the fold is gone
	return &v, nil
}

func replayKey(p *sequence.Pattern, setup bench.Setup) (string, error) {
	key, err := json.Marshal(struct {
		Pattern string
		Setup   bench.Setup
	}{p.ID, setup}) // map keys are sorted
	return string(key), err
}

// viewReplay draws all steps; the finished toy is drawn by viewToy.
func viewReplay(r *sequence.Replay, setup bench.Setup) (*ReplayView, body.Flat) {
	v := &ReplayView{Pattern: r.Pattern.ID, Title: r.Pattern.Title, Sheet: setup.Sheet, Size: sheet.NameOf(setup.Sheet.WidthMM, setup.Sheet.HeightMM),
		Knobs: setup.Knobs, OK: r.Err == nil, Sound: r.Err == nil, Advice: []AdviceView{}, Start: draw.At(r, 0), Steps: []StepView{}}
	v.Start.Balance(body.Measure(r.Start).CoM)
	v.Corners = regular(r.Sheet.Shape)
	if s, err := setup.Sheet.Plain(); err == nil {
		v.Nearly = r.Pattern.Nearly(s)
	}
	var measured body.Flat
	var last *fold.State
	made := creases(setup.Sheet.Made)
	cautions := remarks.Cautions(r.Steps)
	draw.Creased(&v.Start, made)
	look := ways.For(r.Pattern).Look
	stages := draw.Stages(r, look)
	for i, d := range r.Steps {
		if d.After != last {
			measured, last = body.Measure(d.After), d.After
		}
		st := stages[i]
		step := viewStep(r, d, st, measured)
		step.Made, step.Cautions = remarks.Made(d, made), answer.ViewCautions(cautions[i])
		if d.InTheRound() {
			if why := st.Pose.Unsound(); why != "" {
				v.Sound = false
				step.Cautions = append(step.Cautions, answer.CautionView{ID: "torn", Title: "Cannot stand", Text: body.TearWords(why)})
			}
		}
		v.Steps = append(v.Steps, step)
	}
	if aids := ways.For(r.Pattern).Aids; aids != nil && r.Err == nil {
		for no, a := range aids(r) {
			v.Steps[no-1].Aid = &a
		}
	}
	for i, f := range draw.Frames(stages) {
		q := &v.Steps[i]
		q.Frame, q.AfterFrame = f, f.Like(q.After)
		if q.Round != nil {
			q.AfterFrame = q.Round.View
		}
	}
	if e := fold.As(r.Err); e != nil {
		v.Error = &FoldErrorView{e.Step, e.Line, string(e.Code), e.Told(), draw.Fault(r)}
		for _, a := range remarks.Advise(r.Pattern, r.Sheet, setup.Knobs) {
			v.Advice = append(v.Advice, AdviceView(a))
		}
	}
	return v, measured
}

// regular is how many corners an outline with equal sides has, 0 for any other.
func regular(s *sheet.Shape) int {
	if s == nil || s.Kind != "ngon" {
		return 0
	}
	return len(s.Corners)
}

// creases are those that a sheet brings along.
func creases(made [][4]float64) []geom.Segment {
	var out []geom.Segment
	for _, m := range made {
		out = append(out, geom.Segment{A: geom.Vec{X: m[0], Y: m[1]}, B: geom.Vec{X: m[2], Y: m[3]}})
	}
	return out
}

func viewStep(r *sequence.Replay, d sequence.Done, st draw.Stage, m body.Flat) StepView {
	v := StepView{
		No: d.No, Op: string(d.Op), Title: d.Title(), Sets: d.Sets != nil, Character: string(d.Character), Class: d.Class, Optional: d.Optional, GapMM: d.GapMM, Guards: []string{}, Text: d.Text, Say: d.Say, Looks: d.Looks,
		ShiftMM: d.ShiftMM, TiltDeg: d.TiltDeg, AngleDeg: d.AngleDeg,
		LayersFolded: d.LayersFolded(), MaxLayers: m.MaxLayers,
		WidthMM: m.Box.Width(), HeightMM: m.Box.Height(), AreaMM2: m.AreaMM2,
		Next: st.Over, Round: st.After, Halved: draw.Halved(d.Op), After: draw.At(r, d.No), Layers: draw.Layers(m.Cells),
	}
	if box := d.Before.Box(); remarks.Agrees(d.Meets[0], box) && remarks.Agrees(d.Meets[1], box) {
		v.From, v.To = d.Meets[0].Name, d.Meets[1].Name
	}
	for _, g := range d.Guards {
		v.Guards = append(v.Guards, g.Reason)
	}
	if set := d.Sets; set != nil {
		v.SetsFrom = set.From
		if set.Says != nil {
			v.SetsSays = set.Says(d.AngleDeg)
		}
	}
	v.AwayDeg = draw.AwayDeg(d)
	if st.Round {
		v.Before = &st.Picture
	}
	if f, small := draw.Focus(st.Picture, v.Next); small {
		v.Focus = &f
	}
	v.FoldedMM = float64(v.LayersFolded) * d.Before.Sheet.ThicknessMM
	if c, ok := spread.ClearanceOf(d); ok {
		g := GapView{Verdict: string(c.Verdict), MM: c.MM, NeedMM: c.NeedMM, LeavesMM: c.LeavesMM, Inside: c.Inside}
		g.Picture, g.Over, g.Times = draw.Gap(c, d.Before.Sheet.ThicknessMM)
		v.Gap = &g
	}
	v.After.Balance(m.CoM)
	v.Describe = draw.Describe(d, v.WidthMM, v.HeightMM, v.MaxLayers)
	return v
}

func viewToy(r *sequence.Replay, m body.Flat) *ToyView {
	f := ways.For(r.Pattern).Finish(r, m)
	above, behind := layermap.Visible(r.Final(), m.Cells)
	t := &ToyView{MassG: f.MassG, MaxLayers: m.MaxLayers, ThickestMM: float64(m.MaxLayers) * r.Sheet.ThicknessMM, LengthMM: f.LengthMM, SpanMM: f.SpanMM, Measures: []SizeLineView{},
		FacesAbove: FacesView(above), FacesBehind: FacesView(behind), Round: f.Round, Second: f.Second, SecondTitle: f.SecondTitle, SecondSays: f.SecondSays}
	for _, q := range f.Sizes {
		t.Measures = append(t.Measures, SizeLineView(q))
	}
	return t
}

func viewKnobs(p *sequence.Pattern) []KnobView {
	out := []KnobView{}
	for _, k := range p.Knobs {
		if k.Plain {
			continue
		}
		steps := k.Steps
		if steps == nil {
			steps = []int{}
		}
		out = append(out, KnobView{k.Name, k.Label, k.Told(), k.Default, k.Min, k.Max, string(k.Kind), k.Changes, steps, k.Implied, k.Step, named(k.Named), k.Read, k.Either})
	}
	return out
}

func named(all []sequence.Named) []motion.Named {
	out := []motion.Named{}
	for _, n := range all {
		out = append(out, motion.Named(n))
	}
	return out
}
