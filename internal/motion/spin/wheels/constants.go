package wheels

import "tussock/internal/motion"

// What hands miss from one wheel or trial to the next, and what the model does not know:
// standard deviations. Estimates, but for those that name a law.
const (
	missDeg      = 3.0  // of a blade's angle, by a protractor
	breathDoubt  = 0.30 // of the breath, its logarithm, before anything was learnt
	breathSteady = 0.12 // of one breath to the next
	dragDoubt    = 0.18 // of what holds a falling wheel up, its logarithm
	dropSteady   = 0.04 // of one fall to the next
	gustDoubt    = 0.15 // of a wind that is told
	plateDoubt   = 0.05 // of the speed that plates of this shape are driven to
	learntFloor  = 0.05 // what stays uncertain however much is learnt
)

// constants are the numbers the model rests on that are no exact laws.
func constants() []motion.Constant {
	return []motion.Constant{
		{Name: "Speed of a strong breath at the mouth", Value: breaths[1].speed, Lo: 5, Hi: 15, Unit: "m/s", Confidence: motion.Low, Source: "a usual figure; people differ by a factor of two", Effect: "rate in proportion; one rate of your own narrows it"},
		{Name: "Width of the mouth", Value: 10, Lo: 8, Hi: 12, Unit: "mm", Confidence: motion.Low, Source: "lips as for a candle", Effect: "rate by a fifth"},
		{Name: "How a breath slows with distance", Value: 4.1, Lo: 3.7, Hi: 4.5, Unit: "", Confidence: motion.Medium, Source: "round jet: two thirds of 6.2, the mean over its width", Effect: "rate by a twentieth: what it loses in speed it gains in width"},
		{Name: "Part of a breath that blades catch", Value: 0.7, Lo: 0.6, Hi: 0.8, Unit: "", Confidence: motion.Low, Source: "a blade element model with induction", Effect: "rate by a tenth"},
		{Name: "Part of the still air that holds back", Value: 0.5, Lo: 0.25, Hi: 0.8, Unit: "", Confidence: motion.Low, Source: "a blade element model with induction", Effect: "rate a third faster to a quarter slower"},
		{Name: "Force of a plate across the flow", Value: 1.98, Lo: 1.4, Hi: 2.3, Unit: "", Confidence: motion.Medium, Source: "handbook of drag, long flat plates, by their angle", Effect: "rate in a wind by a twentieth, torque of the start by a third"},
		{Name: "Friction of a blade's faces", Value: 0.03, Lo: 0.02, Hi: 0.05, Unit: "", Confidence: motion.Medium, Source: "laminar plate: 2.66 over the root of the Reynolds number", Effect: "only blades flatter than 15°: a third of the rate"},
		{Name: "Drag of a wheel that takes all of the wind", Value: 1.3, Lo: 1.2, Hi: 2, Unit: "", Confidence: motion.Low, Source: "momentum theory with the usual line for heavy loads", Effect: "speed of a fall by a hundredth"},
		{Name: "Drag of the hub", Value: 1.1, Lo: 1.0, Hi: 1.2, Unit: "", Confidence: motion.Medium, Source: "disc across the flow", Effect: "speed of a fall by a twentieth"},
		{Name: "Speed of the tips at which paper gives way", Value: mostTip, Lo: 12, Hi: 20, Unit: "m/s", Confidence: motion.Low, Source: "bending stiffness of one layer of 80 g/m²; guess, as for gliders", Effect: "no wheel is told to turn faster"},
		{Name: "Friction of a pin in paper", Value: 0.3, Lo: 0.2, Hi: 0.5, Unit: "", Confidence: motion.Medium, Source: "handbooks of friction", Effect: "whether it starts in a whisper"},
		{Name: "What a curl adds, of chord over radius", Value: 0.25, Lo: 0.1, Hi: 0.4, Unit: "rad", Confidence: motion.Low, Source: "mean slope of an arc", Effect: "blades work some degrees flatter"},
	}
}

func limits() []string {
	return []string{
		"Blown rates are good to between 0.6 and 1.5 times until one of your own was logged, speeds of a fall to a fifth; which of two set-ups turns faster or falls slower is right.",
		"Blades are flat plates that all lie over to one angle; pressing and twisting is that angle alone, and the picture bends them like a screw.",
		"Nothing here was measured on paper: all of it is computed.",
		"Tumbling is told by where the weight lies against the blades, not followed.",
		"A fall out of the hand begins without a turn. In two metres it has not settled yet.",
		"What lies inside of the hub, where blades lie on one another, only holds up a fall.",
	}
}
