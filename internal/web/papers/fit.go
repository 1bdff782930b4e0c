package papers

import (
	"context"
	"math"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/bench"
	"tussock/internal/body"
	"tussock/internal/draw"
	"tussock/internal/prepare"
	"tussock/internal/sequence/remarks"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/ways"
	"tussock/internal/web/answer"
)

// MissView is a landmark that does not come to lie where it should.
type MissView struct {
	Step     int     `json:"step"`
	Landmark string  `json:"landmark"`
	MM       float64 `json:"mm"`
	Detail   string  `json:"detail"`
}

// WantView is a sheet that would do, with words.
type WantView struct {
	Words string          `json:"words"`
	Want  bench.SheetWant `json:"want"`
}

// FixedLength is a length of the pattern in mm, kept or scaled with the sheet.
type FixedLength struct {
	Knob     string  `json:"knob"`
	Label    string  `json:"label"`
	NowMM    float64 `json:"now_mm"`
	ScaledMM float64 `json:"scaled_mm"`
}

// FitView is whether a pattern does on a sheet, and what would.
type FitView struct {
	Does     bool          `json:"does"`
	Step     int           `json:"step" doc:"the first step affected; 0 when none or when the sheet is refused at once"`
	Why      string        `json:"why"`
	StepWhy  string        `json:"step_why" doc:"what cannot be folded where it is folded all the same; empty when why tells it"`
	WhyStep  int           `json:"why_step" doc:"the step that cannot"`
	Misses   []MissView    `json:"misses" doc:"landmarks that miss, by step, seen against the pattern's own sheet"`
	MinRatio float64       `json:"min_ratio" doc:"height over width that folds at this width, found by folding; 0 when none was found"`
	MaxRatio float64       `json:"max_ratio"`
	MinHMM   float64       `json:"min_h_mm" doc:"heights that fold at this width; 0 when none was found"`
	MaxHMM   float64       `json:"max_h_mm"`
	LeastWMM float64       `json:"least_w_mm" doc:"least sheet of these proportions that fingers can fold, a rule of thumb; 0 when it cannot be folded at all"`
	LeastHMM float64       `json:"least_h_mm"`
	Small    bool          `json:"small" doc:"this sheet is smaller than that"`
	SmallAt  int           `json:"small_at" doc:"the step that asks for it"`
	Turned   bool          `json:"turned" doc:"it does when it is turned a quarter"`
	Wants    []WantView    `json:"wants" doc:"sheets that would do, the nearest first"`
	Own      OtherSize     `json:"own" doc:"the size that the pattern was written for, seen from this sheet"`
	Fixed    []FixedLength `json:"fixed" doc:"lengths that do not grow with the sheet by themselves"`
	Scale    float64       `json:"scale" doc:"this sheet against the pattern's own"`
}

func (s *Routes) fitRoutes(api huma.API) {
	huma.Register(api, huma.Operation{OperationID: "sheet-fit", Method: http.MethodPost, Path: "/api/v1/patterns/{id}/fit", Summary: "Whether a pattern does on a sheet, and which sheet would", MaxBodyBytes: answer.SmallBody}, s.sheetFit)
	huma.Register(api, huma.Operation{OperationID: "sheet-uses", Method: http.MethodPost, Path: "/api/v1/sheet-uses", Summary: "What of the shelf can be made from a piece of paper", MaxBodyBytes: answer.SmallBody}, s.sheetUses)
}

func (s *Routes) sheetFit(_ context.Context, in *answer.ReplayInput) (*answer.Body[FitView], error) {
	p, setup, have, err := in.Body.Planned(in.ID)
	if err != nil {
		return nil, err
	}
	f := remarks.FitOf(p, have, setup.Knobs)
	v := FitView{Does: f.Works, Step: f.First, Why: f.Why, StepWhy: f.FirstWhy, WhyStep: f.WhyStep, Misses: []MissView{}, Wants: []WantView{}, Fixed: []FixedLength{},
		Own:   otherSize(have, sheet.NameOf(p.WidthMM, p.HeightMM), p.WidthMM, p.HeightMM),
		Scale: prepare.Scale(p, have), SmallAt: f.LeastStep}
	for _, m := range f.Misses {
		v.Misses = append(v.Misses, MissView{m.Step, p.Called(m.Landmark), m.MM, m.Detail})
	}
	v.MinRatio, v.MaxRatio = prepare.Proportions(p, f)
	v.MinHMM, v.MaxHMM = v.MinRatio*have.WidthMM, v.MaxRatio*have.WidthMM
	if f.LeastScale > 0 {
		v.LeastWMM, v.LeastHMM, v.Small = have.WidthMM*f.LeastScale, have.HeightMM*f.LeastScale, f.LeastScale > 1
	}
	if !f.Works {
		v.Turned = prepare.Turned(p, have, setup.Knobs)
	}
	for _, q := range prepare.Sheets(p, have, v.MinRatio, v.MaxRatio) {
		v.Wants = append(v.Wants, WantView{q.Words, bench.SheetWant{Kind: string(q.Want.Kind), WidthMM: q.Want.WidthMM, HeightMM: q.Want.HeightMM, Ratio: q.Want.Ratio}})
	}
	for _, k := range prepare.FixedLengths(p, setup.Knobs, v.Scale) {
		v.Fixed = append(v.Fixed, FixedLength(k))
	}
	return answer.OK(v)
}

func otherSize(have sheet.Sheet, name string, w, h float64) OtherSize {
	t := sheet.SameRatio(have.WidthMM, have.HeightMM, w, h)
	return OtherSize{name, t.Possible, t.WidthMM, t.HeightMM, t.Scale, sheet.MMPerInch * t.Scale, math.Max(t.OffWidthMM, t.OffHeightMM), t.OffWidthMM > t.OffHeightMM}
}

// UseView is a pattern that can be made from a piece of paper.
type UseView struct {
	Pattern  string        `json:"pattern"`
	Title    string        `json:"title"`
	Moves    string        `json:"moves"`
	WidthMM  float64       `json:"width_mm" doc:"of the sheet to cut"`
	HeightMM float64       `json:"height_mm"`
	Count    int           `json:"count" doc:"so many sheets of this size"`
	Turned   bool          `json:"turned" doc:"the sheet's height lies along the piece's width"`
	LengthMM float64       `json:"length_mm" doc:"of the finished toy, as its numbers have it"`
	Scale    float64       `json:"scale" doc:"against the pattern's own sheet"`
	Small    bool          `json:"small" doc:"smaller than fingers fold with ease, a rule of thumb"`
	Picture  *draw.Picture `json:"picture,omitempty"`
}

type usesInput struct {
	Body struct {
		Size        answer.SizeInput `json:"size"`
		GSM         float64          `json:"gsm"`
		ThicknessMM float64          `json:"thickness_mm"`
	}
}

func (s *Routes) sheetUses(_ context.Context, in *usesInput) (*answer.Body[[]UseView], error) {
	w, h, err := in.Body.Size.Mm(sheet.SideRange.Min)
	if err != nil {
		return nil, answer.AsProblem(err, "body.size.")
	}
	piece, err := sheet.New(w, h, in.Body.GSM, in.Body.ThicknessMM)
	if err != nil {
		return nil, answer.AsProblem(err, "body.")
	}
	all, err := shelf.All()
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	out := []UseView{}
	for _, p := range all {
		u, found := remarks.UseOf(p, piece)
		if !found {
			continue
		}
		pic := draw.Flat(u.Replay.Final())
		long := ways.For(p).Finish(u.Replay, body.Measure(u.Replay.Final())).LengthMM
		out = append(out, UseView{p.ID, p.Title, p.Moves, u.WidthMM, u.HeightMM, u.Count, u.Turned, long, u.WidthMM / p.WidthMM, u.Small, &pic})
	}
	return answer.OK(out)
}
