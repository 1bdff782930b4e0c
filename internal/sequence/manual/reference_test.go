package manual_test

import (
	"fmt"
	"math"
	"os"
	"slices"
	"strings"
	"testing"

	"tussock/internal/body"
	"tussock/internal/sequence"
	"tussock/internal/sequence/manual"
	"tussock/internal/sheet"
	"tussock/internal/ways"
)

func example(t *testing.T, e sequence.Entry) *sequence.Replay {
	t.Helper()
	p, err := ways.Parse(e.Word, e.Example)
	if err != nil {
		t.Errorf("%s: %v", e.Word, err)
		return nil
	}
	s, err := sheet.New(p.WidthMM, p.HeightMM, 80, 0.1)
	if err != nil {
		t.Fatal(err)
	}
	return p.Run(s, nil)
}

// Every example folds, passes its own checks, stays sound and keeps every gram
// that is not cut off; every word of the language is in the reference.
func TestEveryExampleFolds(t *testing.T) {
	said := map[string]bool{}
	for _, e := range manual.Reference(ways.Language()) {
		r := example(t, e)
		if r == nil {
			continue
		}
		if r.Err != nil {
			t.Errorf("%s: %v", e.Word, r.Err)
			continue
		}
		f := r.Final()
		if faults := f.Faults(); len(faults) > 0 && !strings.Contains(e.Word, "slit") {
			t.Errorf("%s: %v", e.Word, faults)
		}
		area := f.PaperMM2()
		for _, p := range f.Removed {
			area += math.Abs(p.Area())
		}
		if math.Abs(area-r.Sheet.AreaMM2()) > 1e-6*area {
			t.Errorf("%s: %v of %v mm² are left", e.Word, area, r.Sheet.AreaMM2())
		}
		if w := body.Standing(r).Weigh(); math.IsNaN(w.G) || w.G <= 0 {
			t.Errorf("%s weighs %v g", e.Word, w.G)
		}
		for _, s := range r.Pattern.Steps {
			said[string(s.Op)] = true
		}
	}
	for _, w := range ways.Language().StepWords() {
		if !said[w] {
			t.Errorf("no example has the step %q", w)
		}
	}
}

// All alignments and operations of the needs have a word and a folded example.
func TestEveryNeedHasAWord(t *testing.T) {
	have := map[string][]string{}
	for _, e := range manual.Reference(ways.Language()) {
		for _, id := range e.IDs {
			have[id] = append(have[id], e.Word)
		}
	}
	for _, k := range []struct {
		letter string
		n      int
	}{{"A", 26}, {"K", 46}} {
		for i := 1; i <= k.n; i++ {
			id := fmt.Sprintf("%s%02d", k.letter, i)
			if len(have[id]) == 0 {
				t.Errorf("no example is for %s", id)
			}
			delete(have, id)
		}
	}
	for id, w := range have {
		t.Errorf("%v name %s, which does not exist", slices.Compact(w), id)
	}
}

// The reference in docs is the one the program prints.
func TestManualIsUpToDate(t *testing.T) {
	b, err := os.ReadFile("../../../docs/pattern-language.md")
	if err != nil {
		t.Fatal(err)
	}
	_, written, ok := strings.Cut(string(b), "<!-- words -->\n")
	if !ok || written != manual.Text(ways.Language()) {
		t.Error("docs/pattern-language.md is not what the program prints: run make words")
	}
}
