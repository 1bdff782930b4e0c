package glide

import "tussock/internal/motion"

// The air, as in a hall at about 20 °C.
const (
	AirDensity = 1.20   // kg/m³
	Viscosity  = 1.5e-5 // kinematic, m²/s
	Gravity    = 9.81   // m/s²
)

const metres = 1e-3

// What the model takes, with what is known of each. None is fitted to a test.
const (
	// curlEfficiency: a lip of soft paper in a thick boundary layer turns the air less
	// than thin-aerofoil theory says.
	curlEfficiency = 0.75
	// curlSpan is the angle, rad, at which a lip's effect levels off.
	curlSpan = 0.40
	// suctionKept is the part of leading-edge suction that a folded edge keeps.
	suctionKept = 0.2
	// frictionFactor is for layer edges, pockets and pleats on top of a smooth plate.
	frictionFactor = 1.2
	// bluntEdge is the drag coefficient of the folded front edge over its front area.
	bluntEdge = 0.4
	// layerFrontM is the height of one layer at the front edge with the air between.
	layerFrontM = 0.15e-3
	// areaTravel is how far the centre of pressure goes from the neutral point to the
	// centre of the area, over |sin a|.
	areaTravel = 1.0
	// plateNormal is the normal force coefficient of a square plate across the wind.
	plateNormal = 1.17
	// dampingLeft is what is left of pitch damping when the air comes across.
	dampingLeft = 0.2
	// softeningSpeed is the speed at which bent edges have lost half of their effect.
	softeningSpeed = 16.0
	// tipInset is the part of its width by which the outermost strip of a free edge is
	// shortened: the whirl leaves the paper a little inside of the tip.
	tipInset = 0.25
	// frictionSpeed is the speed, m/s, for which friction is told; it scales with the
	// root of its inverse.
	frictionSpeed = 6.0
)

// Constants lists what is uncertain, for the page that says what is not known.
func Constants() []motion.Constant {
	return []motion.Constant{
		{"Effect of a curled edge, of theory", curlEfficiency, 0.5, 0.9, "", motion.Low, "thick boundary layers at small Reynolds numbers, soft crease; guess", "trim speed 16 % faster to 6 % slower"},
		{"Angle at which a curl's effect levels off", curlSpan, 0.3, 0.5, "rad", motion.Low, "guess", "only curls over 10°"},
		{"Suction kept by the folded front edge", suctionKept, 0, 0.4, "", motion.Low, "0 for a sharp single layer, 0.4 for a round fold", "glide ratio 8 % worse to 10 % better"},
		{"Friction over that of a smooth plate", frictionFactor, 1.0, 1.5, "", motion.Low, "layer edges and pockets; plate friction by Blasius with the small-Reynolds term", "glide ratio 9 % better to 10 % worse"},
		{"Drag of the blunt front edge", bluntEdge, 0.2, 0.7, "", motion.Low, "bluff edges in the tunnel", "glide ratio 3 %"},
		{"Travel of the centre of pressure", areaTravel, 0.6, 1.0, "", motion.Medium, "rectangular plates: Joessel's rule", "trim speed up to 11 % slower; a steep mush instead of a glide when it is small"},
		{"Normal force of a plate across the wind", plateNormal, 1.1, 1.2, "", motion.High, "wind tunnel, square plates", "steep dives and tumbling only"},
		{"Angle of the stall", 0, -4, 4, "deg", motion.Low, "small plates in the tunnel, by aspect ratio and sweep", "fast throws with much curl"},
		{"Pitch damping across the wind", dampingLeft, 0, 0.5, "", motion.Low, "falling plates in experiments", "whether it flutters or tumbles"},
		{"Angle at which the keel lets go sideways", 25, 15, 35, "deg", motion.Low, "plates", "large sideslip only"},
		{"Speed at which bent edges give way", softeningSpeed, 12, 20, "m/s", motion.Low, "bending stiffness of one layer of 80 g/m²; guess", "hard throws, when it is switched on"},
		{"Air that the keel carries along sideways", 0.36, 0.2, 0.5, "", motion.Low, "plates that are pushed sideways", "wobble only"},
	}
}

// Limits say in a folder's words where the model ends.
func Limits() []string {
	return []string{
		"Still air: no draught, no warm air over a radiator, nothing near the floor.",
		"Rigid wings. Single layers bend over about 10 m/s; the switch for edges that give way is a guess.",
		"Paper springs back: after release a V opens by 5 to 10°, and so does the keel. Set the V that you see in flight.",
		"Good to: mass and balance, lift and neutral point (3 % of the chord), whether it dives, glides or stalls.",
		"Rough: trim speed within 15 %, glide ratio and distance within 25 %. Distance jumps with the phase of the swing in which it meets the floor.",
		"Unsure: which way a difference of the tail edges turns a glider with a deep keel; wobble with tall fins; everything after the stall.",
		"Tumbling and fluttering are right in kind only.",
	}
}
