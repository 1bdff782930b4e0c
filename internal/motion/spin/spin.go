// Package spin is toys that spin: tokens that rest on a point (tokens), and wheels that air
// turns (wheels).
package spin

import (
	"tussock/internal/motion/spin/tokens"
	"tussock/internal/motion/spin/wheels"
	"tussock/internal/motion/toys"
)

// Ways are all that spinning brings. Wheels come last: whatever rests on no point is one.
func Ways() []*toys.Way { return append(tokens.Ways(), wheels.Way()) }
