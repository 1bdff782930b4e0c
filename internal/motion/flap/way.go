// Package flap is toys that flap. It has no model yet: its toys are played with and looked at, and
// for fun thrown.
package flap

import (
	"tussock/internal/motion/play"
	"tussock/internal/motion/toys"
	"tussock/internal/sheet"
)

// Way is all that flapping brings so far.
func Way() *toys.Way {
	w := play.Way("flap", "Flap", sheet.Bands{
		Weight:    sheet.Band{GoodMin: 35, GoodMax: 90, FairMin: 25, FairMax: 110, Low: "so light a paper tears at the tail", High: "so heavy a wing hardly follows the tail"},
		Stiffness: sheet.Band{GoodMin: 0.3, GoodMax: 4, FairMin: 0.2, FairMax: 8, Low: "so limp a wing hangs", High: "so stiff a wing does not swing"},
	})
	w.Language = language
	return w
}
