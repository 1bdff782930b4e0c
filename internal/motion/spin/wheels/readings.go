package wheels

import (
	"fmt"
	"math"
	"math/cmplx"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/spin/wheel"
	"tussock/internal/say"
)

// readings are the numbers of a wheel, each with its band, what it means and what moves it.
func (w *Workbench) readings(s set, blown, dropped trials) []motion.Reading {
	var out []motion.Reading
	exact := func(id, label, unit string, v float64, decimals int, lo, hi float64, meaning, moved, says string) {
		out = append(out, motion.Reading{ID: id, Label: label, Unit: unit, Value: v, Lo: v, Hi: v, Decimals: decimals, UsualLo: lo, UsualHi: hi, Meaning: meaning, MovedBy: moved, Says: says})
	}
	predicted := func(id, label, unit string, r motion.Range, decimals int, lo, hi float64, meaning, moved, says string) {
		out = append(out, motion.Reading{ID: id, Label: label, Unit: unit, Value: r.Middle, Lo: r.Lo, Hi: r.Hi, Decimals: decimals, UsualLo: lo, UsualHi: hi, Predicted: true, Meaning: meaning, MovedBy: moved, Says: says})
	}
	per := func(r motion.Range, k float64) motion.Range {
		return motion.Range{Lo: r.Lo * k, Middle: r.Middle * k, Hi: r.Hi * k}
	}
	air := "Blown"
	if w.drive == byFan || w.drive == byWind {
		air = "In that wind"
	}
	predicted("blown", "Turns a second, "+firstLower(air), "", blown.rate, 1, 2, 15, "How fast it turns when it has stopped getting faster.", "angle of the blades, breath, pin", blown.says())
	out[0].Brief = "turns a second"
	predicted("metre", "Seconds to fall a metre", "s", per(dropped.fall, 1/w.heightM), 2, 0.4, 1, fmt.Sprintf("In the mean of a fall from %s, out of the hand.", say.M(w.heightM, 1)), "weight, size, angle of the blades", "")
	predicted("falls", "Speed at the floor", "m/s", dropped.speed, 2, 1, 3, "As weight over the swept area has it: heavy and small falls fast.", "weight, size", "")
	predicted("turnsfalling", "Turns a second at the floor", "", dropped.rate, 1, 5, 25, "In so short a fall it has not settled.", "angle of the blades", "")
	predicted("starts", "Torque of the start", "mN mm", blown.start, 1, 5, 100, "What drives it while it stands, less what its pin holds back.", "angle of the blades, where the breath meets it, pin", "")
	tips, thrust := s.wheel.Free()
	predicted("tips", "Tips over wind", "", motion.Range{Lo: 0.9 * tips, Middle: tips, Hi: 1.1 * tips}, 1, 0.5, 4, "How many times as fast as the wind its tips go when nothing holds it.", "angle of the blades", "")
	predicted("thrust", "Thrust coefficient", "", motion.Range{Lo: 0.9 * thrust, Middle: thrust, Hi: 1.1 * thrust}, 2, 0.3, 1.14, "Push of the air over that on its area; a closed disc has about 1.1.", "angle and number of the blades", "")
	exact("works", "Blades work at", "deg", geom.Deg(s.wheel.Angle), 0, 15, 60, "From the plane of the wheel, as they were set and curled: β.", "twist, curl", "")
	mean, spread := wheel.Gaps(s.gaps)
	exact("gaps", "Gaps between blades scatter by", "folds", spread, 1, 0, 0.5, fmt.Sprintf("About a mean of %s folds, as they were counted.", say.Decimal(mean, 1)), "turning single blades about the axle", "")
	u := cmplx.Abs(s.uneven)
	exact("uneven", "Imbalance", "g mm", u, 2, 0, 0.3, "Mass times how far off the axle it lies, by how its blades stand: u = Σ m r.", "spacing, weight of blades", "")
	exact("offset", "Centre of mass beside the axle", "mm", u/math.Max(s.MassG+s.tapeG, 1e-9), 2, 0, 0.2, "The imbalance over the whole mass. In a free fall it circles so far.", "the same", "")
	if u > 1e-3 {
		rattles := perTurn(wheel.Rattles(u*1e-6, s.wheel.MassKg))
		exact("rattles", "Rattles from", "turns/s", rattles, 1, 0, 0, "Above it the heavy side is thrown about in the play: ω = √(g/e).", "the same", "")
	}
	predicted("lean", "Leans as it falls by", "deg", dropped.lean, 1, 0, 5, "Imbalance, and one blade that lies otherwise, against the spin that holds it upright. An upper estimate.", "evenness, one odd blade", "")
	exact("reach", "Blades reach out", "mm", s.ReachMM, 1, 0, 0, "From the axle, as they stand.", "sheet, curl", "")
	exact("hub", "Hub", "mm", s.wheel.Inner*1e3, 1, 0, 0, "So far out the blades lie on one another and leave the air no way.", "number and angle of the blades", "")
	exact("chord", "Blades are broad", "mm", s.wheel.Chord*1e3, 1, 0, 0, "In the mean, outside of the hub.", "sheet", "")
	exact("com", "Centre of mass over the foot", "mm", s.comMM(), 1, 0, 0, fmt.Sprintf("Along the axle, %s tall in all; the air takes hold %s over the foot.", say.MM(s.TallMM, 0), say.MM(s.AirMM, 1)), "folds, tape at the tip", "")
	exact("inertia", "Moment of inertia about the axle", "g cm²", s.UprightGMM2/100, 2, 0, 0, "More of it spins up more slowly, and keeps turning longer.", "weight far out", "")
	exact("mass", "Mass", "g", s.MassG+s.tapeG, 2, 0, 0, "Paper and all that is fixed to it.", "sheet and paper", "")
	return out
}

func firstLower(s string) string {
	if s == "" {
		return s
	}
	return string(s[0]|0x20) + s[1:]
}

// says is rpm, as others tell it.
func (t trials) says() string {
	if t.rate.Middle <= 0 {
		return "It does not turn so."
	}
	return fmt.Sprintf("That is %s turns a minute.", say.Decimal(60*t.rate.Middle, 0))
}
