package folding

import (
	"context"
	"fmt"
	"math"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/draw"
	"tussock/internal/sequence/remarks"
	"tussock/internal/sheet/divide"
	"tussock/internal/web/answer"
)

// PlacementView is a place that a step takes with a ruler, and the ways to find it by
// folding.
type PlacementView struct {
	Knob     string            `json:"knob"`
	Label    string            `json:"label"`
	Edge     string            `json:"edge" doc:"on which edge it lies"`
	From     string            `json:"from" doc:"the corner that it is told from"`
	MM       float64           `json:"mm" doc:"from that corner"`
	Fraction float64           `json:"fraction" doc:"of the edge"`
	Sheet    draw.Picture      `json:"sheet"`
	Recipes  []PlacementRecipe `json:"recipes" doc:"fewest creases first"`
}

// PlacementRecipe is a recipe and what the knob then is.
type PlacementRecipe struct {
	answer.RecipeView
	Creases int     `json:"creases"`
	ValueMM float64 `json:"value_mm" doc:"the knob, when the recipe is folded exactly"`
}

type placementInput struct {
	ID   string `path:"id" maxLength:"80"`
	Step int    `path:"step" minimum:"1" maximum:"400"`
	Body answer.SetupInput
}

func (s *Routes) placementRoutes(api huma.API) {
	huma.Register(api, huma.Operation{OperationID: "placements", Method: http.MethodPost, Path: "/api/v1/patterns/{id}/steps/{step}/placements", Summary: "Measured places of a step, and how to find them by folding", MaxBodyBytes: answer.SmallBody}, s.placements)
}

var cornerWords = []string{"the lower left corner", "the lower right corner", "the upper right corner", "the upper left corner"}

func (s *Routes) placements(_ context.Context, in *placementInput) (*answer.Body[[]PlacementView], error) {
	p, setup, sh, err := in.Body.Planned(in.ID)
	if err != nil {
		return nil, err
	}
	if in.Step > len(p.Steps) {
		return nil, answer.Refuse("path.step", in.Step, fmt.Sprintf("%s has %d steps", p.Title, len(p.Steps)))
	}
	w, h := sh.WidthMM, sh.HeightMM
	out := []PlacementView{}
	told := map[string]bool{}
	for _, m := range remarks.MeasuredIn(p.Run(sh, setup.Knobs)) {
		k := p.Knobs[p.KnobIndex(m.Knob)]
		// Several places may hang on one knob: the first is told, the others mirror it.
		if told[m.Knob] || k.Plain || k.Implied || !slices.Contains(k.Steps, in.Step) {
			continue
		}
		told[m.Knob] = true
		// Told from the nearer corner.
		e, f := divide.Edge{From: m.From, To: m.To}, m.Fraction
		if f > 0.5 {
			e, f = divide.Edge{From: m.To, To: m.From}, 1-f
		}
		v := PlacementView{Knob: m.Knob, Label: k.Label, Edge: e.Words(), From: cornerWords[e.From], MM: f * m.LengthMM, Fraction: f,
			Sheet: draw.Blank(w, h), Recipes: []PlacementRecipe{}}
		for _, r := range divide.Along(w, h, e, f) {
			// What the knob becomes when the mark lies where the recipe puts it.
			value := setup.Knobs[m.Knob] + m.Along.Dot(r.Mark.Sub(m.At))
			if value < k.Min-1e-9 || value > k.Max+1e-9 {
				continue
			}
			v.Recipes = append(v.Recipes, PlacementRecipe{answer.ViewRecipe(w, h, r), len(r.Creases), math.Min(k.Max, math.Max(k.Min, value))})
		}
		out = append(out, v)
	}
	return answer.OK(out)
}
