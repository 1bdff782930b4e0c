package hop

import "tussock/internal/motion/hop/leap"

// What the leap itself is told in.
type (
	Toy       = leap.Toy
	Crease    = leap.Crease
	Trial     = leap.Trial
	Arc       = leap.Arc
	Moment    = leap.Moment
	LeapSpot  = leap.LeapSpot
	LeapFrame = leap.LeapFrame
	LeapPlace = leap.LeapPlace
	PushFrame = leap.PushFrame
)
