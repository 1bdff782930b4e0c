// Package reveal is toys that open and show what is written on them. It has no model yet: its toys are played with and looked at, and
// for fun thrown.
package reveal

import (
	"tussock/internal/motion"
	"tussock/internal/motion/play"
	"tussock/internal/motion/toys"
	"tussock/internal/sheet"
)

// Way is all that revealing brings so far.
func Way() *toys.Way {
	w := play.Way("reveal", "Reveal", sheet.Bands{
		Weight:    sheet.Band{GoodMin: 50, GoodMax: 110, FairMin: 35, FairMax: 160, Low: "so light a paper does not spring open", High: "so heavy a paper does not fold back on itself"},
		Stiffness: sheet.Band{GoodMin: 0.8, GoodMax: 9, FairMin: 0.4, FairMax: 20, Low: "so limp a flap does not stand", High: "so stiff a paper does not fold back on itself"},
	})
	w.Chips = []motion.Chip{{Name: "opened both ways"}, {Name: "opened one way", Bad: true}, {Name: "bound", Bad: true}, {Name: "gaped in the middle", Bad: true}, {Name: "tore", Bad: true}}
	w.Language = language
	return w
}
