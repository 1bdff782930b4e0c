package tellers

import (
	"tussock/internal/motion"
	"tussock/internal/sequence"
)

// aids help to put the fingers in, at the first step that opens the toy.
func aids(r *sequence.Replay) map[int]motion.Aid {
	at := pressed(r) + 1
	if at > len(r.Steps) || !Is(r.Pattern) {
		return nil
	}
	return map[int]motion.Aid{at: motion.Aid{Kind: "list", Title: "Loosen it, and put the fingers in", Done: "done", Says: "A flap that sticks is loosened in a moment. Pockets are on the side away from the numbers.",
		Items: []motion.AidItem{
			{Label: "Fold it in half one way and the other, and open it", Says: "Both half lines must bend both ways, or it opens one way only."},
			{Label: "Left hand: thumb into the lower left pocket, forefinger into the upper left one", Says: "Right hand the same on its side. Left-handed folders begin with the right hand."},
			{Label: "Push all four points together in front", Says: "The middle goes away from you, and the numbers are hidden."},
			{Label: "Pull the hands apart; shut it; pull forefingers from thumbs", Says: "It opens one way and the other. Where it binds, two flaps overlap in the middle."},
		}}.Whole()}
}
