package folding

import (
	"context"
	"fmt"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/bench"
	"tussock/internal/body"
	"tussock/internal/draw"
	"tussock/internal/fold/layermap"
	"tussock/internal/sequence"
	"tussock/internal/sequence/remarks"
	"tussock/internal/sequence/spread"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/web/answer"
)

// StudyCard is one study in the list.
type StudyCard struct {
	ID      string        `json:"id"`
	Title   string        `json:"title"`
	Good    string        `json:"good"`
	Steps   int           `json:"steps"`
	GoesTo  []PatternRef  `json:"goes_to" doc:"the toys that it goes with, where it is an add-on"`
	Picture *draw.Picture `json:"picture,omitempty"`
}

// DrawnOver is a picture with lines over it.
type DrawnOver struct {
	Picture draw.Picture `json:"picture"`
	Over    draw.Overlay `json:"over"`
}

// PocketView is a pocket of the finished toy.
type PocketView struct {
	Over    draw.Overlay `json:"over"`
	WidthMM float64      `json:"width_mm"`
	DepthMM float64      `json:"depth_mm"`
	Cover   int          `json:"cover" doc:"layers over it"`
	Beneath int          `json:"beneath" doc:"layers under it"`
}

// StepError is what an error at one step does at the end.
type StepError struct {
	Step  int     `json:"step"`
	Share float64 `json:"share" doc:"of the spread at the end, 0 to 1"`
	PerMM float64 `json:"per_mm" doc:"how far the worst landmark moves for 1 mm here, mm"`
	Worst string  `json:"worst" doc:"that landmark"`
	Class string  `json:"class" enum:"critical,normal,free"`
	GapMM float64 `json:"gap_mm" doc:"to leave for the thickness of the layers inside"`
}

// SpreadView is the study of small errors.
type SpreadView struct {
	Hand       string      `json:"hand"`
	SigmaMM    float64     `json:"sigma_mm"`
	Samples    int         `json:"samples"`
	CoMMM      [2]float64  `json:"com_mm" doc:"standard deviation of the centre of mass"`
	LopsidedMM float64     `json:"lopsided_mm" doc:"how far left and right come to differ"`
	Pairs      int         `json:"pairs" doc:"pairs of landmarks that mirror each other"`
	StretchMM  float64     `json:"stretch_mm" doc:"what the paper must give"`
	TightMM    float64     `json:"tight_mm" doc:"the same from thickness alone"`
	Tight      bool        `json:"tight"`
	Steps      []StepError `json:"steps"`
}

// FacesView is how much of each face shows.
type FacesView struct {
	FrontMM2 float64 `json:"front_mm2"`
	BackMM2  float64 `json:"back_mm2"`
}

// StudyView is a pattern looked at closely, on its own sheet.
type StudyView struct {
	Replay   *ReplayView       `json:"replay"`
	Map      DrawnOver         `json:"map" doc:"crease map on the flat sheet"`
	XRay     draw.Overlay      `json:"xray" doc:"hidden folds and edges of the finished toy"`
	Pockets  []PocketView      `json:"pockets"`
	Above    FacesView         `json:"above" doc:"seen from the viewer's side, started front up"`
	Behind   FacesView         `json:"behind"`
	Outline  [][]float64       `json:"outline" doc:"rims of the toy, holes among them"`
	Spread   *SpreadView       `json:"spread,omitempty"`
	Warnings []remarks.Warning `json:"warnings"`
	Ratio    []float64         `json:"ratio" doc:"least and greatest height over width that folds, found by search; empty for shaped sheets"`
}

func (s *Routes) studyRoutes(api huma.API) {
	huma.Register(api, huma.Operation{OperationID: "list-studies", Method: http.MethodGet, Path: "/api/v1/studies", Summary: "Bases and single operations to look at"}, s.listStudies)
	huma.Register(api, huma.Operation{OperationID: "study", Method: http.MethodGet, Path: "/api/v1/studies/{id}", Summary: "A pattern looked at closely"}, s.study)
}

func (s *Routes) listStudies(context.Context, *struct{}) (*answer.Body[[]StudyCard], error) {
	all, err := shelf.Studies()
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	more, err := shelf.AddOns()
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	out := []StudyCard{}
	for _, p := range slices.Concat(more, all) {
		c, err := s.Card(p, bench.Setup{Sheet: bench.PlainPaper(p.WidthMM, p.HeightMM)})
		if err != nil {
			return nil, answer.AsProblem(err, "")
		}
		v := StudyCard{ID: p.ID, Title: p.Title, Good: p.Good, Steps: len(p.Steps), GoesTo: []PatternRef{}, Picture: c.Flat}
		for _, id := range p.AddsTo {
			if of, found := shelf.Find(id); found {
				v.GoesTo, v.Picture = append(v.GoesTo, PatternRef{of.ID, of.Title}), c.Picture
			}
		}
		out = append(out, v)
	}
	return answer.OK(out)
}

type studyInput struct {
	ID   string `path:"id" maxLength:"80"`
	Hand string `query:"hand" default:"adult" enum:"adult,child"`
}

func (s *Routes) study(_ context.Context, in *studyInput) (*answer.Body[*StudyView], error) {
	p, found := shelf.FindStudy(in.ID)
	if !found {
		p, found = shelf.Find(in.ID)
	}
	if !found {
		return nil, answer.Refuse("study", in.ID, fmt.Sprintf("there is no study %q; there are %v", in.ID, shelf.StudyNames()))
	}
	key := in.Hand + " " + p.ID
	if v, ok := s.studies.Get(key); ok {
		return &answer.Body[*StudyView]{Body: v}, nil
	}
	setup := bench.Setup{Sheet: bench.PlainPaper(p.WidthMM, p.HeightMM)}
	view, err := s.Replay(p, setup)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	sh, err := sheet.New(p.WidthMM, p.HeightMM, setup.Sheet.GSM, setup.Sheet.ThicknessMM)
	if err != nil {
		return nil, answer.AsProblem(err, "")
	}
	v := viewStudy(p.Run(sh, nil), view, in.Hand)
	s.studies.Add(key, v, v)
	return answer.OK(v)
}

// samplesShown is how many toys the page's study of errors folds.
const samplesShown = 1000

func viewStudy(r *sequence.Replay, view *ReplayView, hand string) *StudyView {
	f := r.Final()
	cells := layermap.Cells(f)
	v := &StudyView{Replay: view, XRay: draw.XRay(f, cells), Pockets: []PocketView{}, Outline: [][]float64{}, Warnings: append(remarks.Warnings(r), body.Tears(r)...), Ratio: []float64{}}
	if v.Warnings == nil {
		v.Warnings = []remarks.Warning{}
	}
	v.Map.Picture, v.Map.Over = draw.Map(f)
	v.Map.Picture.WriteFlat(r.Notes)
	for _, p := range layermap.Pockets(f, cells) {
		v.Pockets = append(v.Pockets, PocketView{draw.Pocket(f, p), p.Mouth.Len(), p.DepthMM, p.Cover, p.Beneath})
		if len(v.Pockets) == 4 {
			break
		}
	}
	top, bottom := layermap.Visible(f, cells)
	v.Above, v.Behind = FacesView(top), FacesView(bottom)
	for _, rim := range layermap.Silhouette(cells) {
		var flat []float64
		for _, q := range rim {
			flat = append(flat, q.X, -q.Y)
		}
		v.Outline = append(v.Outline, flat)
	}
	if r.Err != nil {
		return v
	}
	if q := remarks.SurveyOf(r.Pattern, r.Sheet, nil).Ratio; q != nil {
		v.Ratio = []float64{q.Min, q.Max}
	}
	if h, found := spread.FindHand(hand); found {
		if sp, err := spread.Of(r, h.MM, samplesShown, 1); err == nil {
			v.Spread = viewSpread(r.Pattern, sp, hand)
		}
	}
	return v
}

func viewSpread(p *sequence.Pattern, s *spread.Spread, hand string) *SpreadView {
	v := &SpreadView{Hand: hand, SigmaMM: s.SigmaMM, Samples: s.Samples, CoMMM: [2]float64{s.CoM.SX, s.CoM.SY}, LopsidedMM: s.LopsidedMM, Pairs: s.Pairs,
		StretchMM: s.StretchMM, TightMM: s.TightMM, Tight: s.Tight, Steps: []StepError{}}
	for _, st := range s.Steps {
		v.Steps = append(v.Steps, StepError{st.No, st.Share, st.PerMM, p.Called(st.Worst), string(st.Class), st.GapMM})
	}
	return v
}
