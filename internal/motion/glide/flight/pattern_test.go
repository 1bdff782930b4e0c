package flight

import (
	"testing"

	"tussock/internal/motion/glide/craft"
	"tussock/internal/motion/motiontest"
	"tussock/internal/sequence"
)

func pattern(t testing.TB, id string) *sequence.Pattern {
	t.Helper()
	return motiontest.Pattern(t, id, craft.Language, sequence.Vocabulary{Moves: "reveal", Heads: []sequence.Head{{Word: "zones", Kind: sequence.AWord, Least: 1}}})
}
