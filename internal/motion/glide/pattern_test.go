package glide

import (
	"testing"

	"tussock/internal/motion/glide/craft"
	"tussock/internal/motion/glide/flight"
	"tussock/internal/motion/motiontest"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

var a4 = sheet.Sheet{WidthMM: 210, HeightMM: 297, GSM: 80, ThicknessMM: 0.1}

func pattern(t testing.TB, id string) *sequence.Pattern {
	t.Helper()
	return motiontest.Pattern(t, id, craft.Language, sequence.Vocabulary{Moves: "reveal", Heads: []sequence.Head{{Word: "zones", Kind: sequence.AWord, Least: 1}}})
}

// shelfGlider is the model of a replay, without the workbench.
func shelfGlider(t testing.TB, id string, knobs map[string]float64) *flight.Model {
	t.Helper()
	r := pattern(t, id).Run(a4, knobs)
	g, ok := craft.Of(r)
	if r.Err != nil || !ok {
		t.Fatal(id, r.Err)
	}
	return flight.ModelOf(g, craft.BendsOf(craft.LastBendsOf(r.Values)))
}
