package web

import (
	"context"

	"tussock/internal/bench"
	"tussock/internal/motion"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/ways"
)

// isHard tells for a pattern's knob whether it moves a hard fold. A knob that the
// pattern no longer has counts as hard.
func isHard(p *sequence.Pattern) func(string) bool {
	return func(name string) bool {
		i := p.KnobIndex(name)
		return i < 0 || p.Knobs[i].Kind == sequence.HardFold
	}
}

// defaults is the set-up that the pattern itself describes, on a given sheet.
func defaults(p *sequence.Pattern, s bench.SheetSpec) bench.Setup {
	return bench.Setup{Sheet: s, Knobs: fullKnobs(p, nil)}
}

func viewChanges(p *sequence.Pattern, from, to bench.Setup) []ChangeView {
	out := []ChangeView{}
	for _, c := range bench.Changes(from, to, isHard(p)) {
		v := ChangeView{Knob: c.Knob, Label: c.Knob, From: c.From, To: c.To, Hard: c.Hard}
		if i := p.KnobIndex(c.Knob); i >= 0 {
			v.Label, v.Unit = p.Knobs[i].Label, p.Knobs[i].Unit
		}
		out = append(out, v)
	}
	return out
}

func (s *server) buildView(ctx context.Context, id int64) (*answer[*BuildView], error) {
	b, err := s.store.Build(ctx, id)
	if err != nil {
		return nil, asProblem(err, "")
	}
	p, err := findPattern(b.Pattern)
	if err != nil {
		return nil, err
	}
	v := &BuildView{ID: b.ID, Name: b.Name, Pattern: b.Pattern, Title: p.Title, Step: b.Step, Setup: b.Current(),
		Changes: []ChangeView{}, Tweaks: []TweakView{}, Children: []BuildRef{}, Trials: b.Trials(), UpdatedAt: b.UpdatedAt}
	v.Setup.Knobs = fullKnobs(p, v.Setup.Knobs)
	before := defaults(p, v.Setup.Sheet)
	for _, t := range b.Tweaks {
		if t.No == 1 {
			before.Sheet = t.Setup.Sheet
		}
		v.Tweaks = append(v.Tweaks, viewTweak(t, &ways.Of(p.Moves).Way, viewChanges(p, before, t.Setup)))
		before = t.Setup
	}
	if b.Draft != nil {
		v.Draft = true
		v.Changes = viewChanges(p, before, *b.Draft)
		_, err := b.Settle(isHard(p))
		v.NeedsChild = err == bench.ErrNeedsChild //nolint:errorlint // Settle returns it bare
	}
	if err := s.addFamily(ctx, b, v); err != nil {
		return nil, asProblem(err, "")
	}
	v.Conditions, err = s.conditions(ctx, b, &ways.Of(p.Moves).Way)
	if err != nil {
		return nil, asProblem(err, "")
	}
	return ok(v)
}

func viewTweak(t bench.Tweak, w *motion.Way, changes []ChangeView) TweakView {
	v := TweakView{No: t.No, Why: t.Why, Setup: t.Setup, Changes: changes, CreatedAt: t.CreatedAt,
		Stats: bench.Summaries(t.Trials, w), Trials: []TrialView{}}
	for _, x := range t.Trials {
		v.Trials = append(v.Trials, viewTrial(x))
	}
	return v
}

func viewTrial(t bench.Trial) TrialView {
	return TrialView{ID: t.ID, At: t.At, TrialInput: TrialInput{t.Kind, t.Read, t.Under, t.Seen, t.Thrower, t.Place, t.Air, t.Note}}
}

func (s *server) addFamily(ctx context.Context, b *bench.Build, v *BuildView) error {
	if b.ParentID != nil && b.ParentTweak != nil {
		// A parent in the bin is still named by its number alone.
		ref := BuildRef{ID: *b.ParentID, Tweak: *b.ParentTweak}
		if parent, err := s.store.Build(ctx, *b.ParentID); err == nil {
			ref.Name = parent.Name
		}
		v.Parent = &ref
	}
	children, err := s.store.Children(ctx, b.ID)
	for _, c := range children {
		v.Children = append(v.Children, BuildRef{ID: c.ID, Name: c.Name, Tweak: *c.ParentTweak})
	}
	return err
}

// conditions are those of the throw before: of this build, else of any other.
func (s *server) conditions(ctx context.Context, b *bench.Build, w *motion.Way) (TrialInput, error) {
	builds := []*bench.Build{b}
	if b.Trials() == 0 {
		all, err := s.store.Builds(ctx)
		if err != nil {
			return TrialInput{}, err
		}
		builds = all
	}
	var last bench.Trial
	for _, b := range builds {
		for _, t := range b.Tweaks {
			for _, x := range t.Trials {
				if !x.At.Before(last.At) {
					last = x
				}
			}
		}
	}
	out := TrialInput{Thrower: last.Thrower, Place: last.Place, Air: last.Air, Read: map[string]float64{}}
	if b.Trials() > 0 {
		out.Kind = last.Kind
	}
	for _, r := range w.Records {
		if v, ok := last.Read[r.ID]; ok && r.Kept {
			out.Read[r.ID] = v
		}
	}
	return out, nil
}

func viewCard(b *bench.Build) BuildCard {
	setup := b.Current()
	c := BuildCard{ID: b.ID, Name: b.Name, Pattern: b.Pattern, Title: b.Pattern, Sheet: setup.Sheet,
		Size: sheet.NameOf(setup.Sheet.WidthMM, setup.Sheet.HeightMM), Tweaks: len(b.Tweaks), Trials: b.Trials(),
		Step: b.Step, ParentID: b.ParentID, UpdatedAt: b.UpdatedAt}
	if p, found := shelf.Find(b.Pattern); found {
		c.Title, c.Steps, c.Moves = p.Title, len(p.Steps), p.Moves
		w := &ways.Of(p.Moves).Way
		k, _ := w.Kind("")
		c.Record = k.Record
		for _, t := range b.Tweaks {
			if s, ok := bench.Summaries(t.Trials, w)[c.Record]; ok {
				c.Stats = s
			}
		}
	}
	return c
}
