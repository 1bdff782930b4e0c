// Package spin is toys that spin: tokens that rest on a point (tokens), and wheels, which
// have no model yet; they are played with and looked at, and for fun thrown.
package spin

import (
	"tussock/internal/motion/play"
	"tussock/internal/motion/spin/tokens"
	"tussock/internal/motion/toys"
	"tussock/internal/sheet"
)

// Ways are all that spinning brings. Wheels come last: whatever rests on no point is one.
func Ways() []*toys.Way {
	w := play.Way("spin", "Spin", sheet.Bands{
		Weight:    sheet.Band{GoodMin: 55, GoodMax: 160, FairMin: 40, FairMax: 220, Low: "so light a spinner has no swing to keep", High: "so heavy a blade needs a storm"},
		Stiffness: sheet.Band{GoodMin: 1, GoodMax: 15, FairMin: 0.5, FairMax: 30, Low: "so limp a blade gives way to the wind", High: "so stiff a blade does not curl"},
	})
	w.Name, w.Moves = "wheel", "spin"
	w.Language = language
	return append(tokens.Ways(), w)
}
