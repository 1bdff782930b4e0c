// Package motiontest reads patterns of the shelf for tests of single ways of moving. The
// shelf itself knows all ways, also the one that is tested, so those tests cannot ask it.
package motiontest

import (
	"os"
	"path/filepath"
	"runtime"
	"testing"

	"tussock/internal/sequence"
	"tussock/internal/sequence/operations"
)

// Pattern is one of the shelf by its id, read with the words of some ways of moving.
func Pattern(t testing.TB, id string, words ...sequence.Vocabulary) *sequence.Pattern {
	t.Helper()
	_, here, _, _ := runtime.Caller(0)
	text, err := os.ReadFile(filepath.Join(filepath.Dir(here), "..", "..", "shelf", id+".pattern"))
	if err != nil {
		t.Fatal(err)
	}
	p, err := operations.Language(words...).Parse(id, string(text))
	if err != nil {
		t.Fatal(err)
	}
	return p
}
