// Package foldtest folds patterns for the tests of other packages.
package foldtest

import (
	"os"
	"path/filepath"
	"runtime"
	"testing"

	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/ways"
)

// Fold folds a pattern's text on its own sheet, 80 g/m² and a tenth of a
// millimetre. The test ends if it cannot be folded.
func Fold(t testing.TB, text string) *sequence.Replay {
	t.Helper()
	p := Parse(t, text)
	return On(t, p, p.WidthMM, p.HeightMM, nil)
}

// Parse reads a pattern's text.
func Parse(t testing.TB, text string) *sequence.Pattern {
	t.Helper()
	p, err := ways.Parse("t", text)
	if err != nil {
		t.Fatal(err)
	}
	return p
}

// On folds a pattern on a sheet of a size.
func On(t testing.TB, p *sequence.Pattern, w, h float64, knobs map[string]float64) *sequence.Replay {
	t.Helper()
	s, err := sheet.New(w, h, 80, 0.1)
	if err != nil {
		t.Fatal(err)
	}
	r := p.Run(s, knobs)
	if r.Err != nil {
		t.Fatalf("%s on %v x %v: %v", p.ID, w, h, r.Err)
	}
	return r
}

// Reference reads one of the reference sequences.
func Reference(t testing.TB, name string) *sequence.Pattern {
	t.Helper()
	_, here, _, _ := runtime.Caller(0)
	text, err := os.ReadFile(filepath.Join(filepath.Dir(here), "..", "sequence", "testdata", name+".pattern"))
	if err != nil {
		t.Fatal(err)
	}
	p, err := ways.Parse(name, string(text))
	if err != nil {
		t.Fatal(err)
	}
	return p
}

// Toy reads one of the constructions of toys that move in other ways.
func Toy(t testing.TB, name string) *sequence.Pattern {
	t.Helper()
	_, here, _, _ := runtime.Caller(0)
	text, err := os.ReadFile(filepath.Join(filepath.Dir(here), "toys", name+".pattern"))
	if err != nil {
		t.Fatal(err)
	}
	p, err := ways.Parse(name, string(text))
	if err != nil {
		t.Fatal(err)
	}
	return p
}
