package tokens

import (
	"fmt"
	"math"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/say"
)

// readings are the numbers of a token, each with its band, what is usual, what it means and
// what moves it.
func (w *Workbench) readings(s set, all spins) []motion.Reading {
	var out []motion.Reading
	exact := func(id, label, unit string, v float64, decimals int, lo, hi float64, meaning, moved, says string) {
		out = append(out, motion.Reading{ID: id, Label: label, Unit: unit, Value: v, Lo: v, Hi: v, Decimals: decimals, UsualLo: lo, UsualHi: hi, Meaning: meaning, MovedBy: moved, Says: says})
	}
	predicted := func(id, label, unit string, r motion.Range, decimals int, lo, hi float64, meaning, moved, says string) {
		out = append(out, motion.Reading{ID: id, Label: label, Unit: unit, Value: r.Middle, Lo: r.Lo, Hi: r.Hi, Decimals: decimals, UsualLo: lo, UsualHi: hi, Predicted: true, Meaning: meaning, MovedBy: moved, Says: says})
	}
	off := s.Off.Len()
	exact("offset", "Point off the centre of mass", "mm", off, 2, 0, goodMM, "How far the weight lies beside the spot that it rests on, as it is set and was found.", "the fold of the point; any flap; the point itself", w.offsetSays(s))
	out[0].Brief = "off the balance"
	exact("towards", "Weight lies towards", "o'clock", clock(s.Off), 1, 0, 0, "On the face of a clock that lies on the picture from above, 12 is up.", "the same", "")
	exact("mass", "Mass", "g", s.MassG, 2, 0, 0, "Paper and all that is fixed to it.", "sheet and paper", "")
	if s.Hangs {
		exact("depth", "Weight below the pin", "mm", s.DepthMM, 1, 2, 20, "The deeper it hangs, the less it leans for the same offset.", "how far its halves droop; the notch", depthSays(s.DepthMM))
	} else {
		exact("height", "Weight above the tip", "mm", -s.DepthMM, 1, 2, 10, "Only spin holds up what stands on its point. Lower stands more slowly.", "height of the point", "")
		exact("point", "Point reaches down", "mm", s.PointMM, 1, 3, 10, "Below the plane of the body.", "height and steepness of the point", "")
	}
	predicted("lean", "Leans by", "deg", all.leanDeg, 1, 0, levelDeg, w.leanMeaning(s), "offset and depth", "")
	if !s.Hangs {
		predicted("clear", "Rim above the table", "mm", all.clear, 1, 1, 8, fmt.Sprintf("Where it is least, %s, as it leans while it turns. Under %s it rubs.", w.spotName(s, all.middle), say.MM(rubClearMM, 1)), "point, bends of the rim, offset", "")
		need := perTurn(s.body().Stands())
		predicted("stands", "Stands from", "turns/s", motion.Range{Lo: 0.9 * need, Middle: need, Hi: 1.2 * need}, 1, 0, 4, "The least rate at which spin holds it up: 2 √(I m g h) / I of the upright axis.", "height of the weight, weight far out", "")
	}
	predicted("air", "Air slows it like a disc of", "mm", motion.Range{Lo: 0.9 * s.airMM(), Middle: s.airMM(), Hi: 1.1 * s.airMM()}, 0, 0, 0, "The radius of an even disc that the air slows as much.", "the outline", "")
	exact("inertia", "Moment of inertia, upright", "g cm²", s.UprightGMM2/100, 2, 0, 0, "About the axis that it turns on. More of it turns longer and stands more slowly.", "weight far out", "")
	exact("reach", "Rim reaches out", "mm", s.RadiusMM, 1, 0, 0, "From the point to the farthest spot.", "the outline", "")
	exact("layers", "Layers in the mean", "", s.Layers, 1, 0, 0, "All paper over what it covers.", "the folds", "")
	return out
}

func (w *Workbench) leanMeaning(s set) string {
	if s.Hangs {
		return "At rest: tan τ = offset / depth."
	}
	return "Soon after its start, weight and centrifugal force in balance; no more than its rim allows."
}

func depthSays(mm float64) string {
	if mm < 1 {
		return "So little below the pin it leans for a hair."
	}
	return ""
}

// offsetSays names the direction, and what a measured difference is like.
func (w *Workbench) offsetSays(s set) string {
	if s.Off.Len() < foundMM {
		return "The point lies on the balance."
	}
	says := fmt.Sprintf("The weight lies towards %s.", oClock(clock(s.Off)))
	if (s.measured != geom.Vec{}) {
		says += " " + w.explained(s)
	}
	return says
}

// explained says which fold would account for a balance that was found elsewhere than it is
// computed: the one that needs the least error for most of it.
func (w *Workbench) explained(s set) string {
	found := s.measured
	f, ok := w.nearestFold(s, found)
	if !ok {
		grams := s.MassG * found.Len() / math.Max(1, s.RadiusMM)
		return fmt.Sprintf("Found %s from where it is computed: no fold explains it; it is like %s g more at the rim there.", vector(found), say.Decimal(grams, 3))
	}
	return fmt.Sprintf("Found %s from where it is computed: as if %s had been made %s of its mark.", vector(found), w.stepWords(s, f.step), told(f.mm))
}
