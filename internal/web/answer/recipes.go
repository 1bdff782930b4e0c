package answer

import (
	"tussock/internal/draw"
	"tussock/internal/sheet/divide"
)

// RecipeView is a way to divide a sheet by folding.
type RecipeView struct {
	Steps    []RecipeStep `json:"steps"`
	Value    float64      `json:"value" doc:"the fraction or the angle in degrees that comes about"`
	ErrorMM  float64      `json:"error_mm" doc:"on this sheet"`
	ErrorDeg float64      `json:"error_deg" doc:"of the angle; for a mark, seen from the corner across the sheet"`
	Exact    bool         `json:"exact"`
}

// RecipeStep is one crease of a recipe.
type RecipeStep struct {
	Words string       `json:"words"`
	Over  draw.Overlay `json:"over" doc:"drawn over the sheet: this crease, and those before it"`
}

// ViewRecipe is a recipe on a sheet, mm, crease by crease.
func ViewRecipe(w, h float64, r divide.Recipe) RecipeView {
	q := RecipeView{Steps: []RecipeStep{}, Value: r.Value, ErrorMM: r.ErrorMM, ErrorDeg: r.ErrorDeg, Exact: r.Exact}
	for i, c := range r.Creases {
		q.Steps = append(q.Steps, RecipeStep{c.Words, draw.Recipe(w, h, r, i)})
	}
	return q
}
