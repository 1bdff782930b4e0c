package hop

import (
	"fmt"
	"math"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/hop/leap"
)

// Readings are the numbers of a hopper, each with its band, what is usual, what it means
// and what moves it.
func (w *Workbench) readings(t Toy, g Geometry, set SpringSet, s spread) []motion.Reading {
	var out []motion.Reading
	exact := func(id, label, unit string, v float64, decimals int, lo, hi float64, meaning, moved, says string) {
		out = append(out, motion.Reading{ID: id, Label: label, Unit: unit, Value: v, Lo: v, Hi: v, Decimals: decimals, UsualLo: lo, UsualHi: hi, Meaning: meaning, MovedBy: moved, Says: says})
	}
	predicted := func(id, label, unit string, v, lo, hi float64, decimals int, uLo, uHi float64, meaning, moved, says string) {
		out = append(out, motion.Reading{ID: id, Label: label, Unit: unit, Value: v, Lo: math.Min(v, lo), Hi: math.Max(v, hi), Decimals: decimals, UsualLo: uLo, UsualHi: uHi,
			Predicted: true, Meaning: meaning, MovedBy: moved, Says: says})
	}
	over := g.FootMM - g.MiddleMM
	exact("overhang", "Overhang of the rear edge", "mm", over, 1, -2, 0, "How far the rear edge passes the hip fold. Below 0 it ends short of it, as it should: a finger slides off freely.", "place of the last fold", overhangSays(over))
	out[0].Brief = "overhang"
	exact("mass", "Mass", "g", g.MassG, 2, 0.3, 3, "All paper.", "sheet and paper", "")
	exact("layers", "Layers at the pleat", "", g.LayersMean, 1, 4, 10, fmt.Sprintf("At the hip fold, over its whole width; %d where it is thickest.", g.LayersMost), "the folds before", "")
	exact("width", "Width at the pleat", "mm", g.WidthMM, 1, 15, 60, "Length of the hip fold.", "the folds before", "")
	exact("hip", "Hip fold behind the nose", "mm", g.BodyMM, 1, 0, 0, "Length of the body.", "place of the hip fold", "")
	exact("middle", "Hip fold to second fold", "mm", g.MiddleMM, 1, 0, 0, fmt.Sprintf("%.0f %% of the body.", 100*g.MiddleMM/g.BodyMM), "place of the last fold", middleSays(g.MiddleMM/g.BodyMM))
	exact("foot", "Second fold to rear edge", "mm", g.FootMM, 1, 0, 0, fmt.Sprintf("%.0f %% of the rear flap.", 100*g.FootMM/(g.FootMM+g.MiddleMM)), "place of the last fold", "")
	exact("com", "Centre of mass ahead of the hip", "mm", g.CoMMM, 1, 0, 0, fmt.Sprintf("Of the body: %.0f %% of its length.", 100*g.CoMMM/g.BodyMM), "weight at nose or rear", "")
	predicted("opening", "Pleat opens by itself to", "deg", geom.Deg(t.Hip.Rest), geom.Deg(t.Hip.Rest)-12, math.Min(175, geom.Deg(t.Hip.Rest)+12), 0, 60, 150,
		"Of the hip fold. Under 45° it is pressed too hard and stays shut; beyond 100° more opening pays less and less.", "how hard it is pressed", openingSays(geom.Deg(t.Hip.Rest)))
	slide, _ := g.springs(set, 0)
	bonded, _ := g.springs(set, 1)
	k := 1e3 * geom.Rad(1)
	predicted("stiffness", "Stiffness of the hip fold", "N·mm/°", t.Hip.Stiffness*k, slide.Stiffness*k, bonded.Stiffness*k, 4, 0, 0,
		"The lower end is for layers that slide freely, the upper for layers glued together; dry layers lie near the lower.", "layers, width, paper, grain", "")
	e := t.Stored(t.Pressed()) * 1e3
	predicted("stored", "Energy stored", "mJ", e, e/1.8, e*1.8, 1, 0.5, 15, "In both folds, pressed flat. About a sixth of it becomes speed.", "opening most of all; layers, width, paper", "")
	st := g.stance(t, w.Trigger.aheadMM)
	predicted("stand", "Hip over the table, at rest", "mm", st.HipMM, st.HipMM*0.7, st.HipMM*1.3, 1, 0, 0, "How high the rear stands by itself.", "opening, place of the last fold", "")
	predicted("pitch", "Body slopes down to the nose by", "deg", st.PitchDeg, st.PitchDeg-4, st.PitchDeg+4, 0, 0, 0, "At rest. A nose that stands higher makes it leap farther.", "front legs; opening", "")
	exact("press", "Finger inside of the feet", "mm", st.PressMM, 1, 0, 0, "How far the finger's place lies inside of what touches the table. Below 0 it tips under the finger.", "place of the last fold, trigger", pressSays(st.PressMM))
	exact("tip", "Balance inside of the feet", "mm", st.TipMM, 1, 0, 0, "How far the centre of mass lies inside of what touches the table.", "legs and toes", "")
	predicted("speed", "Take-off speed", "m/s", s.speed.Middle, s.speed.Lo, s.speed.Hi, 2, 0.6, 3.8, "Of the centre of mass.", "energy stored; mass", "")
	predicted("angle", "Take-off angle", "deg", s.angle.Middle, s.angle.Lo, s.angle.Hi, 0, 60, 85, "Over the table. A rougher table leans it forward.", "table, trigger, front legs", "")
	predicted("push", "The push lasts", "ms", 1e3*s.push.Middle, 1e3*s.push.Lo, 1e3*s.push.Hi, 1, 1, 10, "From letting go to leaving the table.", "opening; mass", "")
	return out
}

func overhangSays(mm float64) string {
	switch {
	case mm > unpredictableMM:
		return "The finger catches the foot: the leap is weak, and which way it goes cannot be told."
	case mm > 0.05:
		return fmt.Sprintf("The finger catches the foot: it costs about %.0f %% of the height.", 100*leap.CatchLoss*math.Min(1, mm/leap.CatchMM))
	}
	return ""
}

// middleSays tells where the model was not checked.
func middleSays(part float64) string {
	if part < checkedMiddleLo || part > checkedMiddleHi {
		return "The model was checked from 12 to 30 %; beyond, trust it less."
	}
	return ""
}

func openingSays(deg float64) string {
	switch {
	case deg < overPressedDeg:
		return "Pressed too hard: open it and roll it over a pencil."
	case deg > 110:
		return "Opened well: hardly creased at all."
	}
	return ""
}

func pressSays(mm float64) string {
	if mm < 0 {
		return "It may tip under the finger: press nearer to the nose, or move the last fold."
	}
	return ""
}
