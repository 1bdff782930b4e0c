package glide

import (
	"os"
	"path/filepath"
	"testing"

	"tussock/internal/motion/glide/craft"
	"tussock/internal/sequence"
	"tussock/internal/sequence/operations"
)

// pattern reads a pattern of the shelf by its id. The shelf itself knows all ways of
// moving, this one too, so tests of it cannot ask it.
func pattern(t testing.TB, id string) *sequence.Pattern {
	t.Helper()
	text, err := os.ReadFile(filepath.Join("..", "..", "shelf", id+".pattern"))
	if err != nil {
		t.Fatal(err)
	}
	p, err := operations.Language(craft.Language, sequence.Vocabulary{Moves: "reveal"}).Parse(id, string(text))
	if err != nil {
		t.Fatal(err)
	}
	return p
}
