package tellers

import (
	"tussock/internal/body"
	"tussock/internal/motion/reveal/teller"
	"tussock/internal/sequence"
)

// Opened is the pose of a teller opened one way by γ, radians.
func Opened(r *sequence.Replay, side teller.Side, gamma float64) body.Pose {
	return newOpener(r).at(side, gamma)
}
