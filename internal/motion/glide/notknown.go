package glide

import (
	"tussock/internal/motion"
	"tussock/internal/motion/glide/air"
)

// Constants lists what is uncertain, for the page that says what is not known.
func Constants() []motion.Constant {
	return []motion.Constant{
		{Name: "Effect of a curled edge, of theory", Value: air.CurlEfficiency, Lo: 0.5, Hi: 0.9, Unit: "", Confidence: motion.Low, Source: "thick boundary layers at small Reynolds numbers, soft crease; guess", Effect: "trim speed 16 % faster to 6 % slower"},
		{Name: "Angle at which a curl's effect levels off", Value: air.CurlSpan, Lo: 0.3, Hi: 0.5, Unit: "rad", Confidence: motion.Low, Source: "guess", Effect: "only curls over 10°"},
		{Name: "Suction kept by the folded front edge", Value: air.SuctionKept, Lo: 0, Hi: 0.4, Unit: "", Confidence: motion.Low, Source: "0 for a sharp single layer, 0.4 for a round fold", Effect: "glide ratio 8 % worse to 10 % better"},
		{Name: "Friction over that of a smooth plate", Value: air.FrictionFactor, Lo: 1.0, Hi: 1.5, Unit: "", Confidence: motion.Low, Source: "layer edges and pockets; plate friction by Blasius with the small-Reynolds term", Effect: "glide ratio 9 % better to 10 % worse"},
		{Name: "Drag of the blunt front edge", Value: air.BluntEdge, Lo: 0.2, Hi: 0.7, Unit: "", Confidence: motion.Low, Source: "bluff edges in the tunnel", Effect: "glide ratio 3 %"},
		{Name: "Travel of the centre of pressure", Value: air.AreaTravel, Lo: 0.6, Hi: 1.0, Unit: "", Confidence: motion.Medium, Source: "rectangular plates: Joessel's rule", Effect: "trim speed up to 11 % slower; a steep mush instead of a glide when it is small"},
		{Name: "Normal force of a plate across the wind", Value: air.PlateNormal, Lo: 1.1, Hi: 1.2, Unit: "", Confidence: motion.High, Source: "wind tunnel, square plates", Effect: "steep dives and tumbling only"},
		{Name: "Angle of the stall", Value: 0, Lo: -4, Hi: 4, Unit: "deg", Confidence: motion.Low, Source: "small plates in the tunnel, by aspect ratio and sweep", Effect: "fast throws with much curl"},
		{Name: "Pitch damping across the wind", Value: air.DampingLeft, Lo: 0, Hi: 0.5, Unit: "", Confidence: motion.Low, Source: "falling plates in experiments", Effect: "whether it flutters or tumbles"},
		{Name: "Angle at which the keel lets go sideways", Value: 25, Lo: 15, Hi: 35, Unit: "deg", Confidence: motion.Low, Source: "plates", Effect: "large sideslip only"},
		{Name: "Speed at which bent edges give way", Value: air.SofteningSpeed, Lo: 12, Hi: 20, Unit: "m/s", Confidence: motion.Low, Source: "bending stiffness of one layer of 80 g/m²; guess", Effect: "hard throws, when it is switched on"},
		{Name: "Wings spring up in flight over the V that is set, by", Value: 0, Lo: -2, Hi: 6, Unit: "deg", Confidence: motion.Low, Source: "creases open by 5 to 10° after release, keels open too; what is left when you set the V that you see", Effect: "a little slower; more turn from unlike edges"},
		{Name: "Neutral point, of the mean chord", Value: 0, Lo: -0.03, Hi: 0.03, Unit: "", Confidence: motion.Medium, Source: "the lattice is better, soft wings are not", Effect: "trim speed 10 to 20 % either way"},
		{Name: "Air that the keel carries along sideways", Value: 0.36, Lo: 0.2, Hi: 0.5, Unit: "", Confidence: motion.Low, Source: "plates that are pushed sideways", Effect: "wobble only"},
	}
}

// Limits say in a folder's words where the model ends.
func Limits() []string {
	return []string{
		"Still air: no draught, no warm air over a radiator, nothing near the floor.",
		"Rigid wings. Single layers bend over about 10 m/s; the switch for edges that give way is a guess.",
		"Paper springs back: after release a V opens by 5 to 10°, and so does the keel. Set the V that you see in flight.",
		"Good to: mass and balance, lift and neutral point (3 % of the chord), whether it dives, glides or stalls.",
		"Rough: trim speed within 15 %, glide ratio and distance within 25 %. Bands hold eight of ten throws with all of this drawn anew for each.",
		"Unsure: which way a difference of the tail edges turns a glider with a deep keel; wobble with tall fins; everything after the stall.",
		"Tumbling and fluttering are right in kind only.",
	}
}
