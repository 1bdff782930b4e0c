package ways_test

import (
	"os"
	"strings"
	"testing"

	"tussock/internal/ways"
)

// What is written of the models is what the program reckons with.
func TestModelsDocument(t *testing.T) {
	b, err := os.ReadFile("../../docs/models.md")
	if err != nil {
		t.Fatal(err)
	}
	if _, written, ok := strings.Cut(string(b), "<!-- models -->\n"); !ok || written != ways.ModelsText() {
		t.Error("docs/models.md is not what the program prints: run make words")
	}
	for _, w := range ways.All() {
		for _, c := range w.Constants {
			if c.Source == "" || c.Effect == "" || c.Confidence == "" || c.Value < c.Lo || c.Value > c.Hi {
				t.Errorf("%s: %+v lacks a source or lies outside its range", w.Name, c)
			}
		}
	}
}
