package sheet

import (
	"fmt"
	"math"

	"tussock/internal/given"
	"tussock/internal/say"
)

// Weight and thickness from a scale and a ruler, and what a paper's stiffness is.
// Figures of paper are those of ordinary wood-pulp papers.

// Class is how stiff a paper is for its thickness, by feel.
type Class string

// The classes: tissue-like and old papers are soft, hard-sized and tracing-like ones
// crisp.
const (
	Soft     Class = "soft"
	Ordinary Class = "ordinary"
	Crisp    Class = "crisp"
)

// modulus is the bending modulus in GPa, the mean of along and across the grain.
// 3.2 is usual for copying paper; soft and crisp bound the common range.
var modulus = map[Class]float64{Soft: 2.0, Ordinary: 3.2, Crisp: 4.2}

// Classes lists them, softest first.
var Classes = []Class{Soft, Ordinary, Crisp}

// Bending is the bending stiffness of a strip of paper per width, in N·m: E t³/12
// (beam theory). 80 g/m² copying paper has about 3e-4.
func Bending(c Class, thicknessMM float64) float64 {
	e, known := modulus[c]
	if !known {
		e = modulus[Ordinary]
	}
	t := thicknessMM / 1e3
	return e * 1e9 * t * t * t / 12
}

// Reading is a measured value and how far it may be out, one standard deviation.
type Reading struct{ Value, By float64 }

// What a kitchen scale and a ruler tell: a third of a mark of 1 g and of 1 mm.
const scaleG = 0.3

// Weighed is the weight in g/m² of sheets put on a scale together. Errors are
// *given.Error with the fields grams and sheets.
func Weighed(grams float64, sheets int, widthMM, heightMM float64) (Reading, error) {
	if sheets < 1 || sheets > 10000 {
		return Reading{}, &given.Error{Field: "sheets", Value: fmt.Sprint(sheets), Want: "1 to 10000 sheets"}
	}
	if !(grams > 0) || grams > 1e5 {
		return Reading{}, &given.Error{Field: "grams", Value: Number(grams) + " g", Want: "more than 0 g, up to 100 kg"}
	}
	area := widthMM * heightMM * 1e-6 * float64(sheets)
	r := Reading{grams / area, scaleG / area}
	if !GSMRange.Holds(r.Value) {
		return r, &given.Error{Field: "grams", Value: Number(grams) + " g", Want: fmt.Sprintf("the weight of %d such sheets: that would be %s g/m², and paper has %s", sheets, Number(math.Round(r.Value)), GSMRange)}
	}
	return r, nil
}

// Piled is the thickness in mm of one sheet in a pile pressed flat. Errors are
// *given.Error with the fields pile_mm and pile_sheets.
func Piled(pileMM float64, sheets int) (Reading, error) {
	if sheets < 1 || sheets > 10000 {
		return Reading{}, &given.Error{Field: "pile_sheets", Value: fmt.Sprint(sheets), Want: "1 to 10000 sheets"}
	}
	r := Reading{pileMM / float64(sheets), RulerMM / float64(sheets)}
	if !ThicknessRange.Holds(r.Value) {
		return r, &given.Error{Field: "pile_mm", Value: Number(pileMM) + " mm", Want: fmt.Sprintf("the height of %d sheets: one would be %s thick, and paper is %s", sheets, say.MM(r.Value, 3), ThicknessRange)}
	}
	return r, nil
}

// Density is the density in kg/m³; papers have 500 (bulky) to 1300 (glassine).
func Density(gsm, thicknessMM float64) float64 { return gsm / thicknessMM }

// densities within which weight and thickness can belong to one paper.
const leastDensity, mostDensity = 400, 1400

// DensityOdd tells whether weight and thickness can hardly belong to one paper.
func DensityOdd(gsm, thicknessMM float64) bool {
	d := Density(gsm, thicknessMM)
	return d < leastDensity || d > mostDensity
}

// UsualThickness is the thickness of ordinary paper of a weight: 800 kg/m³.
func UsualThickness(gsm float64) float64 { return gsm / 800 }
