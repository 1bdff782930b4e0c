package folding

import (
	"context"

	"tussock/internal/sequence"
	"tussock/internal/sequence/remarks"
	"tussock/internal/web/answer"
)

// ReachView is how far a knob goes on the sheet at hand while the others stay.
type ReachView struct {
	Knob  string    `json:"knob"`
	Min   float64   `json:"min" doc:"from here to max the pattern folds and the same pieces move, found by folding"`
	Max   float64   `json:"max"`
	Below *ReachEnd `json:"below,omitempty" doc:"what ends it below; absent where the pattern's own range does"`
	Above *ReachEnd `json:"above,omitempty" doc:"what ends it above"`
}

// ReachEnd is what ends a knob's stretch.
type ReachEnd struct {
	At    float64 `json:"at" doc:"a value beyond the end"`
	Step  int     `json:"step" doc:"the step that goes wrong with it"`
	Why   string  `json:"why"`
	Other string  `json:"other" doc:"the label of a knob that makes this value possible; empty when none alone does"`
	To    float64 `json:"to" doc:"the nearest value of that knob found to do so"`
	Unit  string  `json:"unit" enum:"mm,deg,g," doc:"of that knob"`
}

func (s *Routes) reach(ctx context.Context, in *answer.ReplayInput) (*answer.Body[[]ReachView], error) {
	p, setup, sh, err := in.Body.Planned(in.ID)
	if err != nil {
		return nil, err
	}
	// Last bends fold nothing: while one moves, all reaches stay.
	setup.Knobs, setup.Recipes = p.Unbent(setup.Knobs), nil
	key, err := replayKey(p, setup)
	if err != nil {
		return nil, err
	}
	all, known := s.reaches.Get(key)
	if !known {
		if all, err = remarks.ReachOf(ctx, p, sh, setup.Knobs); err != nil {
			return nil, err
		}
		s.reaches.Add(key, all, all)
	}
	out := []ReachView{}
	for _, r := range all {
		out = append(out, ReachView{r.Name, r.Min, r.Max, viewEnd(p, r.Below), viewEnd(p, r.Above)})
	}
	return answer.OK(out)
}

func viewEnd(p *sequence.Pattern, e *remarks.End) *ReachEnd {
	if e == nil {
		return nil
	}
	v := &ReachEnd{At: e.At, Step: e.Step, Why: e.Why, To: e.To}
	if i := p.KnobIndex(e.Other); i >= 0 {
		v.Other, v.Unit = p.Knobs[i].Label, p.Knobs[i].Told()
	}
	return v
}
