package papers

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"
	"sync"

	"tussock/internal/bench"
	"tussock/internal/body"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/ways"
	"tussock/internal/web/answer"
)

// stack is a pattern and its thickest stack.
type stack struct {
	title  string
	layers int
}

// stacks are, for each way of moving, the patterns of the shelf with their thickest
// stacks, the thinnest first; a way that the shelf does not have yet is judged by the
// studies.
var stacks = sync.OnceValues(func() (map[string][]stack, error) {
	out := map[string][]stack{}
	for _, list := range []func() ([]*sequence.Pattern, error){shelf.All, shelf.Studies} {
		all, err := list()
		if err != nil {
			return nil, err
		}
		found := map[string][]stack{}
		for _, p := range all {
			sh := sheet.Sheet{WidthMM: p.WidthMM, HeightMM: p.HeightMM, GSM: 80, ThicknessMM: 0.1}
			found[p.Moves] = append(found[p.Moves], stack{p.Title, body.Measure(p.Run(sh, nil).Final()).MaxLayers})
		}
		for m, k := range found {
			if _, known := out[m]; !known {
				slices.SortStableFunc(k, func(a, b stack) int { return cmp.Compare(a.layers, b.layers) })
				out[m] = k
			}
		}
	}
	return out, nil
})

// Warm folds what papers are judged by before anybody asks.
func (s *Routes) Warm() error {
	_, err := stacks()
	return err
}

func (s *Routes) viewPaper(p bench.Paper) (PaperView, error) {
	v := PaperView{p.ID, p.Name, p.Sheet, sheet.NameOf(p.Sheet.WidthMM, p.Sheet.HeightMM), p.Grain, p.Stiffness, p.Left, p.Origin, []SuitView{}}
	known, err := stacks()
	if err != nil {
		return v, err
	}
	for _, w := range ways.All() {
		k := known[w.Moves]
		told := slices.ContainsFunc(v.Suits, func(s SuitView) bool { return s.Moves == w.Moves })
		if len(k) == 0 || told {
			continue
		}
		suits := func(k stack) sheet.Suits {
			return sheet.SuitsFor(w.Paper, p.Sheet.GSM, p.Sheet.ThicknessMM, sheet.Class(p.Stiffness), k.title, k.layers)
		}
		q, thick := suits(k[0]), suits(k[len(k)-1])
		if thick.Verdict != q.Verdict {
			q.Why += fmt.Sprintf(". For %s it is only %s: %s", k[len(k)-1].title, thick.Verdict, thick.Why)
		}
		v.Suits = append(v.Suits, SuitView{w.Moves, string(q.Verdict), q.Why})
	}
	return v, nil
}

// PaperInput is a paper as a person describes it.
type PaperInput struct {
	Name      string            `json:"name"`
	Sheet     answer.SheetInput `json:"sheet"`
	Grain     string            `json:"grain,omitempty"`
	Stiffness string            `json:"stiffness,omitempty"`
	Left      *int              `json:"left,omitempty"`
}

func (in PaperInput) paper() (bench.Paper, error) {
	name, err := bench.CleanName("name", in.Name)
	if err != nil {
		return bench.Paper{}, answer.AsProblem(err, "body.")
	}
	in.Sheet.Paper = name
	spec, err := in.Sheet.Spec()
	if err != nil {
		return bench.Paper{}, answer.AsProblem(err, "body.sheet.")
	}
	p := bench.Paper{Name: name, Sheet: spec, Grain: in.Grain, Stiffness: cmp.Or(in.Stiffness, string(sheet.Ordinary)), Left: in.Left}
	return p, answer.AsProblem(p.Check(), "body.")
}

func (s *Routes) addPaper(ctx context.Context, in *answer.Body[PaperInput]) (*answer.Body[PaperView], error) {
	p, err := in.Body.paper()
	if err != nil {
		return nil, err
	}
	if p.ID, err = s.store.AddPapers(ctx, p); err != nil {
		return nil, answer.AsProblem(err, "")
	}
	v, err := s.viewPaper(p)
	return &answer.Body[PaperView]{Body: v}, answer.AsProblem(err, "")
}

type changePaperInput struct {
	answer.PathID
	Body PaperInput
}

func (s *Routes) changePaper(ctx context.Context, in *changePaperInput) (*answer.Body[PaperView], error) {
	p, err := in.Body.paper()
	if err != nil {
		return nil, err
	}
	p.ID = in.ID
	if err := s.store.ChangePaper(ctx, p); err != nil {
		return nil, answer.AsProblem(err, "")
	}
	v, err := s.viewPaper(p)
	return &answer.Body[PaperView]{Body: v}, answer.AsProblem(err, "")
}

// LeftoverInput is so many pieces of one size.
type LeftoverInput struct {
	WidthMM  float64 `json:"width_mm"`
	HeightMM float64 `json:"height_mm"`
	Count    int     `json:"count" minimum:"1" maximum:"60"`
}

type leftoversInput struct {
	Body struct {
		PaperID int64              `json:"paper_id,omitempty" doc:"the paper in the drawer that was cut, if it came from there"`
		Used    int                `json:"used,omitempty" maximum:"60" doc:"sheets of it that were cut"`
		Of      string             `json:"of" maxLength:"80" doc:"what was cut"`
		Sheet   *answer.SheetInput `json:"sheet,omitempty" doc:"its qualities; ordinary paper when absent"`
		Pieces  []LeftoverInput    `json:"pieces" maxItems:"60"`
	}
}

// addLeftovers puts pieces into the drawer, more of the same onto the same pile, and
// takes the sheets that were cut out of it.
func (s *Routes) addLeftovers(ctx context.Context, in *leftoversInput) (*answer.Body[[]PaperView], error) {
	b := in.Body
	spec := bench.PlainPaper(sheet.Plain())
	if b.Sheet != nil {
		var err error
		if spec, err = b.Sheet.Spec(); err != nil {
			return nil, answer.AsProblem(err, "body.sheet.")
		}
	}
	spec.Way, spec.Made, spec.ErrorMM, spec.From = "", nil, 0, nil
	of := b.Of
	if of == "" {
		of = "a sheet"
	}
	for i, q := range b.Pieces {
		if !sheet.SideRange.Holds(q.WidthMM) || !sheet.SideRange.Holds(q.HeightMM) {
			return nil, answer.Refuse(fmt.Sprintf("body.pieces[%d]", i), q.WidthMM, fmt.Sprintf("%s is too small to keep: a sheet has %s", say.By(q.WidthMM, q.HeightMM, 1), sheet.SideRange))
		}
	}
	_, err := s.store.UpdatePapers(ctx, func(have []bench.Paper) ([]bench.Paper, error) {
		d := bench.Drawer{Papers: have}
		cut := d.Take(b.PaperID, b.Used)
		for _, q := range b.Pieces {
			spec.WidthMM, spec.HeightMM = hundredth(q.WidthMM), hundredth(q.HeightMM)
			d.Keep(of, spec, cut, q.Count)
		}
		return d.Changed(), d.Check()
	})
	if err != nil {
		return nil, answer.AsProblem(err, "body.")
	}
	return s.List(ctx, false)
}

// hundredth of a millimetre: finer than any cut.
func hundredth(v float64) float64 { return math.Round(v*100) / 100 }

type measurePaperInput struct {
	Body struct {
		Size       answer.SizeInput `json:"size"`
		Grams      float64          `json:"grams,omitempty" doc:"what the sheets weigh together; 0 when not weighed"`
		Sheets     int              `json:"sheets,omitempty"`
		PileMM     float64          `json:"pile_mm,omitempty" doc:"height of a pile pressed flat; 0 when not measured"`
		PileSheets int              `json:"pile_sheets,omitempty"`
	}
}

// PaperMeasures is what a scale and a ruler tell of a paper.
type PaperMeasures struct {
	GSM         float64 `json:"gsm,omitempty" doc:"g/m²"`
	GSMBy       float64 `json:"gsm_by,omitempty" doc:"how far that may be out, for a scale read to 1 g"`
	ThicknessMM float64 `json:"thickness_mm,omitempty"`
	ThicknessBy float64 `json:"thickness_by,omitempty" doc:"likewise, for a ruler"`
	UsualMM     float64 `json:"usual_mm,omitempty" doc:"the thickness that ordinary paper of this weight has"`
	Odd         bool    `json:"odd" doc:"weight and thickness can hardly belong to one paper"`
}

func (s *Routes) measurePaper(_ context.Context, in *measurePaperInput) (*answer.Body[PaperMeasures], error) {
	b := in.Body
	w, h, err := b.Size.Mm(sheet.SideRange.Min)
	if err != nil {
		return nil, answer.AsProblem(err, "body.size.")
	}
	var v PaperMeasures
	if b.Grams != 0 {
		r, err := sheet.Weighed(b.Grams, b.Sheets, w, h)
		if err != nil {
			return nil, answer.AsProblem(err, "body.")
		}
		v.GSM, v.GSMBy, v.UsualMM = r.Value, r.By, sheet.UsualThickness(r.Value)
	}
	if b.PileMM != 0 {
		r, err := sheet.Piled(b.PileMM, b.PileSheets)
		if err != nil {
			return nil, answer.AsProblem(err, "body.")
		}
		v.ThicknessMM, v.ThicknessBy = r.Value, r.By
	}
	v.Odd = v.GSM > 0 && v.ThicknessMM > 0 && sheet.DensityOdd(v.GSM, v.ThicknessMM)
	return answer.OK(v)
}
