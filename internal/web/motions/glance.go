package motions

import (
	"context"
	"fmt"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/bench"
	"tussock/internal/motion"
	"tussock/internal/sheet"
	"tussock/internal/ways"
	"tussock/internal/web/answer"
)

// What is seen of a toy's motion at a glance: on the shelf before it is folded, and of a
// build what to do next.

// PreviewView is a pattern's motion before it is folded, on its own sheet of ordinary
// paper, tried as offered.
type PreviewView struct {
	Mode    string          `json:"mode" doc:"empty where nothing is predicted of this way of moving"`
	Outcome *motion.Outcome `json:"outcome,omitempty" doc:"the one that counts, with its band"`
	Loop    []motion.Moment `json:"loop" doc:"the middle trial from the side; empty where it has no path"`
}

// NextView is what to do next with a build.
type NextView struct {
	Do    string `json:"do" doc:"empty where nothing is to be done yet"`
	Where string `json:"where"`
	Says  string `json:"says" doc:"what was found, or what is wanted first"`
}

// Room for what is kept of both, bytes, and how many an answer takes for each as JSON.
const glanceBytes, perGlance = 1 << 20, 3

func (s *Routes) glanceRoutes(api huma.API) {
	huma.Register(api, answer.Long(huma.Operation{OperationID: "preview", Method: http.MethodGet, Path: "/api/v1/patterns/{id}/preview", Summary: "How a pattern moves, before it is folded"}), s.preview)
	huma.Register(api, answer.Long(huma.Operation{OperationID: "next-tweak", Method: http.MethodGet, Path: "/api/v1/builds/{id}/next", Summary: "What to do next with a build, tried as offered"}), s.next)
}

type patternPath struct {
	ID string `path:"id" maxLength:"80"`
}

func (s *Routes) preview(ctx context.Context, in *patternPath) (*answer.Body[*PreviewView], error) {
	p, err := answer.FindPattern(in.ID)
	if err != nil {
		return nil, err
	}
	if !ways.For(p).Predicts {
		return answer.OK(&PreviewView{Loop: []motion.Moment{}})
	}
	// What trials have taught changes what is predicted.
	key := fmt.Sprint("preview ", p.ID, " ", s.version(ways.For(p).Name))
	if v, known := s.glances.Get(key); known {
		return answer.OK(v.preview)
	}
	v, err := ask(ctx, s.once, key, func(ctx context.Context) (*PreviewView, error) {
		sh, err := sheet.New(p.WidthMM, p.HeightMM, sheet.PlainGSM, sheet.PlainThicknessMM)
		if err != nil {
			return nil, err
		}
		t, err := s.under(ctx, p, sh, nil, nil)
		if err != nil {
			return nil, err
		}
		out, err := t.Predict(ctx, p.FullKnobs(nil), nil)
		if err != nil {
			return nil, err
		}
		v := &PreviewView{Mode: out.Mode, Loop: out.Loop}
		if len(out.Outcomes) > 0 {
			v.Outcome = &out.Outcomes[0]
		}
		return v, nil
	})
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	s.glances.Add(key, glance{preview: v}, v)
	return answer.OK(v)
}

func (s *Routes) next(ctx context.Context, in *answer.PathID) (*answer.Body[NextView], error) {
	b, err := s.store.Build(ctx, in.ID)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	p, err := answer.FindPattern(b.Pattern)
	if err != nil {
		return nil, err
	}
	words := ways.For(p).Words
	switch trials := b.Trials(); {
	case b.Step < len(p.Steps) && trials == 0:
		return answer.OK(NextView{Says: fmt.Sprintf("fold on from step %d of %d", b.Step+1, len(p.Steps))})
	case trials < motion.Enough:
		return answer.OK(NextView{Says: fmt.Sprintf("log %d more %s", motion.Enough-trials, map[bool]string{true: words.One, false: words.Many}[motion.Enough-trials == 1])})
	}
	key := fmt.Sprint("next ", b.ID, b.UpdatedAt, s.versionOf(b))
	if v, known := s.glances.Get(key); known {
		return answer.OK(v.next)
	}
	v, err := ask(ctx, s.once, key, func(ctx context.Context) (NextView, error) { return s.nextOf(ctx, b) })
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	s.glances.Add(key, glance{next: v}, v)
	return answer.OK(v)
}

func (s *Routes) nextOf(ctx context.Context, b *bench.Build) (NextView, error) {
	v, err := s.examined(ctx, b, nil)
	if err != nil {
		return NextView{}, err
	}
	f := v.Finding
	out := NextView{Says: f.Title}
	if f.Remedy != nil {
		out.Do, out.Where = f.Remedy.Do, f.Remedy.Where
	}
	return out, nil
}

// glance is one of the two.
type glance struct {
	preview *PreviewView
	next    NextView
}
