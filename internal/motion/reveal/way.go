// Package reveal is toys that open and show what is written on them: fortune tellers (tellers),
// rings that flex (rings), and others, which are played with and for fun thrown.
package reveal

import (
	"tussock/internal/motion"
	"tussock/internal/motion/play"
	"tussock/internal/motion/reveal/rings"
	"tussock/internal/motion/reveal/tellers"
	"tussock/internal/motion/toys"
)

// Ways are all that revealing brings. What is neither a teller nor a ring comes last.
func Ways() []*toys.Way {
	w := play.Way("reveal", "Reveal", tellers.Paper)
	w.Chips = []motion.Chip{{Name: "opened both ways"}, {Name: "opened one way", Bad: true}, {Name: "bound", Bad: true}, {Name: "gaped in the middle", Bad: true}, {Name: "tore", Bad: true}}
	w.Language = language
	return []*toys.Way{tellers.Way(), rings.Way(), w}
}
