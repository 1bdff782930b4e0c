package remarks_test

import (
	"strings"
	"testing"

	"tussock/internal/body"
	"tussock/internal/fold"
	. "tussock/internal/sequence/remarks" //nolint:revive // the package under test
	"tussock/internal/sheet"
	"tussock/internal/ways"
)

// What an optional step changes is told from folding without it.
func TestWithoutOptional(t *testing.T) {
	weigh := func(s *fold.State) (float64, [2]float64) {
		m := body.Measure(s)
		return m.MassG, [2]float64{m.CoM.X, m.CoM.Y}
	}
	const head = "sheet square 100\nvalley bring left to right as a\n"
	for text, want := range map[string]string{
		head: "",
		head + "ink BL C \"eye line\" optional\n":                                                               "nothing else changes",
		head + "valley along par(bottom, 20, T) moving B layers all optional\n":                                 "⟨50x100|mm|0⟩, and balances ⟨",
		head + "crease along par(bottom, 20, T) layers all optional as m\nvalley along m moving B layers all\n": "do not leave it out",
	} {
		p, err := ways.Parse("t", text)
		if err != nil {
			t.Fatal(err)
		}
		s, err := sheet.New(100, 100, 80, 0.1)
		if err != nil {
			t.Fatal(err)
		}
		r := p.Run(s, nil)
		if r.Err != nil {
			t.Fatal(r.Err)
		}
		got := WithoutOptional(r, weigh)
		if (want == "") != (got == "") || !strings.Contains(got, want) {
			t.Errorf("%q: %q, want %q", text, got, want)
		}
	}
}
