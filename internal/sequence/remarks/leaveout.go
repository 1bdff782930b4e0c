package remarks

import (
	"fmt"
	"math"

	"tussock/internal/fold"
	"tussock/internal/say"
	"tussock/internal/sequence"
)

// WithoutOptional says what changes when the optional steps of a pattern are left out; ""
// when it has none.
func WithoutOptional(r *sequence.Replay, weigh func(*fold.State) (gram float64, com [2]float64)) string {
	optional := 0
	for _, d := range r.Steps {
		if d.Optional {
			optional++
		}
	}
	if optional == 0 || r.Err != nil {
		return ""
	}
	less := r.Pattern.RunEssential(r.Sheet, r.Given)
	if less.Err != nil {
		return "Later steps need it: do not leave it out."
	}
	without := "Without it"
	if optional > 1 {
		without = "Without all that may be left out"
	}
	a, b := r.Final().Box(), less.Final().Box()
	ga, ca := weigh(r.Final())
	gb, cb := weigh(less.Final())
	dw, dh := b.Width()-a.Width(), b.Height()-a.Height()
	moved := math.Hypot(cb[0]-ca[0], cb[1]-ca[1])
	if math.Abs(dw) < seenMM && math.Abs(dh) < seenMM && moved < seenMM && math.Abs(ga-gb) < 0.005 {
		return without + " nothing else changes."
	}
	return fmt.Sprintf("%s the toy is %s, and balances %s from where it does now.", without, say.By(b.Width(), b.Height(), 0), say.MM(moved, 1))
}

// seenMM is a change that a folder sees.
const seenMM = 0.2
