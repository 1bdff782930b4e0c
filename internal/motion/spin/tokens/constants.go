package tokens

import "tussock/internal/motion"

// constants are the numbers the model rests on that are no exact laws.
func constants() []motion.Constant {
	return []motion.Constant{
		{Name: "Turns a second of a hand's start", Value: starts[0].turns, Lo: 6, Hi: 15, Unit: "", Confidence: motion.Low, Source: "a usual figure for a twist between finger and thumb", Effect: "spin time by a fifth over the range: the air takes the fast turns first"},
		{Name: "Drag of a turning disc, both faces", Value: 1.935, Lo: 1.9, Hi: 2.0, Unit: "", Confidence: motion.High, Source: "von Kármán's flow at a rotating disc, laminar", Effect: "spin time in proportion"},
		{Name: "Drag of edges that stand up", Value: 1.2, Lo: 1.0, Hi: 1.3, Unit: "", Confidence: motion.Medium, Source: "flat plate across the flow", Effect: "little when edges are pressed flat, half of the time when they fan"},
		{Name: "How far the air may be out", Value: doubt, Lo: 0.2, Hi: 0.6, Unit: "", Confidence: motion.Low, Source: "corners are no disc: between a third less and a half more", Effect: "spin time; three spins of your own narrow it"},
		{Name: "Friction of the point", Value: 0.3, Lo: 0.15, Hi: 0.5, Unit: "", Confidence: motion.Medium, Source: "paper on wood, handbooks of friction", Effect: "the last second of a spin"},
		{Name: "Radius of contact of the point", Value: 0.2, Lo: 0.1, Hi: 0.3, Unit: "mm", Confidence: motion.Low, Source: "a paper tip under a gram or two", Effect: "the last second of a spin"},
		{Name: "Sag of the rim that ribs leave", Value: ribbed / 2, Lo: 0, Hi: ribbed, Unit: "", Confidence: motion.Low, Source: "a guess: a flat strip would hang by all of it", Effect: "clearance by tenths of a millimetre"},
		{Name: "Unevenness of paper, of the centre of mass", Value: unevenMM, Lo: 0.05, Hi: 0.2, Unit: "mm", Confidence: motion.Low, Source: "formation of office paper, a few per cent over centimetres", Effect: "the offset that is left after all else is right"},
	}
}

func limits() []string {
	return []string{
		"The centre of mass and the offset are computed from every layer, with all that is fixed to it; thickness lifts nothing.",
		"Nodding and circling of the axis are not followed: under the least rate a token wobbles for a while before it falls.",
		"Spin times are good to a half until three spins of your own were learnt from; which of two set-ups spins longer is right.",
		"Air is still, tables are level. A breath or a slope moves the whole toy.",
		"What a fold made off its place does is told to first order: good to a tenth for a millimetre.",
	}
}
