package builds

import (
	"context"
	"errors"

	"tussock/internal/bench"
	"tussock/internal/motion"
	"tussock/internal/prints"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/store"
	"tussock/internal/ways"
	"tussock/internal/web/answer"
)

// BuildView answers with a build as it stands.
func (s *Routes) BuildView(ctx context.Context, id int64) (*answer.Body[*BuildView], error) {
	b, p, err := s.build(ctx, id)
	if err != nil {
		return nil, err
	}
	v := &BuildView{ID: b.ID, Version: b.Version, Name: b.Name, Unprinted: prints.Unprinted(b.Name), Pattern: b.Pattern, Title: p.Title, Step: b.Step, Setup: b.Current(),
		Changes: []answer.ChangeView{}, Tweaks: []TweakView{}, Children: []answer.BuildRef{}, Trials: b.Trials(), UpdatedAt: b.UpdatedAt}
	before := bench.Setup{Sheet: v.Setup.Sheet, Knobs: p.FullKnobs(nil)}
	for _, t := range b.Tweaks {
		if t.No == 1 {
			before.Sheet = t.Setup.Sheet
		}
		v.Tweaks = append(v.Tweaks, viewTweak(t, &ways.For(p).Way, answer.ViewChanges(p, before, t.Setup)))
		before = t.Setup
	}
	if now := b.OnTable(); now != nil {
		v.At, before = now.No, now.Setup
	}
	if b.Draft != nil {
		v.Draft = true
		v.Changes = answer.ViewChanges(p, before, *b.Draft)
		_, err := b.Settle(p.IsHard, &ways.For(p).Way)
		var child *bench.NeedsChild
		v.NeedsChild = errors.As(err, &child)
	}
	if err := s.addFamily(ctx, b, v); err != nil {
		return nil, answer.AsProblem(err, "")
	}
	v.Conditions, err = s.again(ctx, b, &ways.For(p).Way)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	return answer.OK(v)
}

func viewTweak(t bench.Tweak, w *motion.Way, changes []answer.ChangeView) TweakView {
	v := TweakView{No: t.No, Why: t.Why, Setup: t.Setup, Changes: changes, CreatedAt: t.CreatedAt,
		Stats: bench.Summaries(t.Trials, w), Trials: []TrialView{}}
	for _, x := range t.Trials {
		v.Trials = append(v.Trials, ViewTrial(x))
	}
	return v
}

// ViewTrial is one trial.
func ViewTrial(t bench.Trial) TrialView {
	return TrialView{ID: t.ID, At: t.At, TrialInput: TrialInput{t.Kind, t.Read, t.Under, t.Seen, t.Thrower, t.Place, t.Air, t.Note}}
}

func (s *Routes) addFamily(ctx context.Context, b *bench.Build, v *BuildView) error {
	children, parent, err := s.store.Family(ctx, b)
	if b.ParentID != nil && b.ParentTweak != nil {
		// A parent in the bin is still named by its number alone.
		v.Parent = &answer.BuildRef{ID: *b.ParentID, Name: parent, Tweak: *b.ParentTweak}
	}
	for _, c := range children {
		v.Children = append(v.Children, answer.BuildRef{ID: c.ID, Name: c.Name, Tweak: *c.ParentTweak})
	}
	return err
}

// again is a trial to begin with.
func (s *Routes) again(ctx context.Context, b *bench.Build, w *motion.Way) (TrialInput, error) {
	var elsewhere bench.Trial
	if b.Trials() == 0 {
		last, err := s.store.LastTrial(ctx)
		if err != nil && !errors.Is(err, store.ErrNotFound) {
			return TrialInput{}, err
		}
		elsewhere = last
	}
	return ViewTrial(bench.Again(b, elsewhere, w)).TrialInput, nil
}

func viewCard(b *bench.Build) BuildCard {
	setup := b.Current()
	c := BuildCard{ID: b.ID, Name: b.Name, Pattern: b.Pattern, Title: b.Pattern, Sheet: setup.Sheet,
		Size: sheet.NameOf(setup.Sheet.WidthMM, setup.Sheet.HeightMM), Tweaks: len(b.Tweaks), Trials: b.Trials(),
		Step: b.Step, ParentID: b.ParentID, LastSeen: []string{}, UpdatedAt: b.UpdatedAt}
	if p, found := shelf.Find(b.Pattern); found {
		c.Title, c.Steps, c.Moves = p.Title, len(p.Steps), ways.For(p).Name
		w := &ways.For(p).Way
		c.Record, c.Stats = b.Result(w)
		if last, tried := b.Newest(); tried {
			c.LastSeen = append(c.LastSeen, last.Seen...)
			if v, read := last.Read[c.Record]; read {
				c.Last = &v
			}
		}
	}
	return c
}
