// Package play describes ways of moving that have no model yet: their toys are played
// with and looked at, and for fun they are thrown as the flat plates that they are folded.
package play

import (
	"tussock/internal/motion"
	"tussock/internal/motion/glide"
	"tussock/internal/motion/toys"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Way is one that is played, by its word in patterns and its title on the shelf.
func Way(name, title string, paper sheet.Bands) *toys.Way {
	thrown := glide.Way()
	return &toys.Way{
		Way: motion.Way{Name: name, Headline: "mass", Conditions: thrown.Conditions, Constants: thrown.Constants, Limits: thrown.Limits, Accuracy: "for a flat plate in still air",
			Kinds: []motion.Kind{{Name: "play", Label: "Play", Asks: "What did it do?"}},
			Words: motion.Words{One: "trial", Many: "trials", Do: "Try it", Log: "Log it", Who: "Who", Motion: "Thrown", Busy: "Throwing it…",
				None: "Not tried yet. Play with it, and log what you saw.", Conditions: "The throw and the hall", Last: "Set-up knobs", Noting: "Tap what it did when you log it.",
				Unlike: "How this toy moves is not predicted yet; for fun it is thrown as the flat plate that it is folded.",
				Title:  title, Made: "Made to be played with.", ForShow: "Made to be looked at.", Untried: "folded, not tried yet", Tried: "has been tried already"}},
		Language: sequence.Vocabulary{Moves: name}, Paper: paper, On: thrown.On,
	}
}
