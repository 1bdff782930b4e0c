package hop

import (
	"testing"

	"tussock/internal/motion/motiontest"
	"tussock/internal/sequence"
)

func pattern(t testing.TB, id string) *sequence.Pattern {
	t.Helper()
	return motiontest.Pattern(t, id, language)
}
