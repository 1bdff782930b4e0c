// Package flap is toys that flap: birds whose tail is pulled (bird), flappers for a finger
// (puppet), and others, which have no model; they are played with and looked at, and for fun
// thrown.
package flap

import (
	"tussock/internal/motion/flap/bird"
	"tussock/internal/motion/flap/puppet"
	"tussock/internal/motion/play"
	"tussock/internal/motion/toys"
)

// Ways are all that flapping brings. What is neither bird nor puppet comes last.
func Ways() []*toys.Way {
	birds := bird.Way()
	w := play.Way("flap", "Flap", birds.Paper)
	w.Name, w.Moves = "flap by hand", "flap"
	return []*toys.Way{birds, puppet.Way(), w}
}
