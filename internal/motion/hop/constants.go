package hop

import (
	"tussock/internal/motion"
	"tussock/internal/motion/hop/leap"
)

const (
	// joinedShare is how far dry layers hold together between sliding and bonded.
	joinedShare = 0.02
	// squirt is the push forward by the round finger that slips off, as friction.
	squirt = 0.4
	// A tail edge bent down saves tailSaves of the energy from the finger at tailFullDeg:
	// between the usual 0.85 and the most that is taken for possible.
	tailSaves, tailFullDeg = 0.08, 30.0
	// wantedOverhangMM is where the foot should end: a little short of the hip.
	wantedOverhangMM = -0.5
	// overPressedDeg is the rest opening below which a pleat stays shut.
	overPressedDeg = 45.0
	// unpredictableMM is the overhang from which the direction is not sure.
	unpredictableMM = 2.0
)

// Constants are the numbers the model rests on that are no exact laws.
func Constants() []motion.Constant {
	return []motion.Constant{
		{Name: "Length of paper that bends in a crease", Value: 18, Lo: 8, Hi: 30, Unit: "mm", Confidence: motion.Low, Source: "physics of creased sheets: stiffness of the panel over that of the crease; 10 mm soft to 25 mm sharp taken", Effect: "length of a hop times 2.2 from 30 to 8 mm"},
		{Name: "Bending modulus of paper", Value: 3.2, Lo: 2, Hi: 5, Unit: "GPa", Confidence: motion.Medium, Source: "paper physics, mean of along and across the grain", Effect: "length of a hop times 2.3 over the range"},
		{Name: "Slow opening of a sharp crease", Value: 15, Lo: 10, Hi: 30, Unit: "°", Confidence: motion.Low, Source: "creases creep open for minutes; a usual figure", Effect: "lifts the hop of hard creases most"},
		{Name: "Energy that comes back from the pleat", Value: 0.62, Lo: 0.5, Hi: 0.75, Unit: "", Confidence: motion.Low, Source: "loss in bent paper, 0.5 sharp to 0.75 soft", Effect: "height in proportion"},
		{Name: "Left by the finger", Value: leap.FingerShare, Lo: 0.7, Hi: 0.95, Unit: "", Confidence: motion.Low, Source: "a guess: how quickly it slips off", Effect: "height in proportion"},
		{Name: "Saved by a tail bent down", Value: tailSaves, Lo: 0, Hi: 0.1, Unit: "", Confidence: motion.Low, Source: "a guess: the finger slips off sooner", Effect: "height up to a tenth more"},
		{Name: "Lost when the foot is caught", Value: leap.CatchLoss, Lo: 0.6, Hi: 1, Unit: "at 3 mm", Confidence: motion.Low, Source: "a guess: energy the finger takes when the edge passes the fold", Effect: "1 mm costs about a quarter of the height"},
		{Name: "Layers hold together", Value: joinedShare, Lo: 0, Hi: 0.06, Unit: "", Confidence: motion.Low, Source: "between sliding (n) and bonded (n³) layers; dry stacks have n^1.0 to n^1.3", Effect: "stiffness of six layers 1.0 to 3.1 times"},
		{Name: "Push by the finger, as friction", Value: squirt, Lo: 0.3, Hi: 0.5, Unit: "", Confidence: motion.Low, Source: "a rounded finger drives the hip forward as it slips", Effect: "the angle of the leap"},
		{Name: "Drag of a tumbling toy", Value: leap.DragShape * leap.ShownArea, Lo: 0.5, Hi: 0.9, Unit: "", Confidence: motion.Medium, Source: "flat plate, averaged over all sides", Effect: "height less by a tenth at 1.3 m/s"},
	}
}

// Limits are where the model ends.
func Limits() []string {
	return []string{
		"It knows a flat table, rigid legs and a straight body: curled bodies and legs that give are not in it.",
		"The pleat is two straight creases across the toy; what slants is taken at its middle.",
		"Absolute lengths and heights are good to a factor of two until you log hops of your own. Comparisons between set-ups are good to about a quarter.",
		"Spin is good to a half. More than one and a half turns are never promised, and neither is the side it lands on.",
		"A toy that leaps backward is taken as the mirror image of one that leaps forward.",
		"Paper gets tired: each hop takes 1 to 3 % off the opening of the pleat. Predictions are for a fresh one.",
	}
}
