package ways_test

import (
	"strings"
	"testing"

	"tussock/internal/fold"
	"tussock/internal/foldtest"
)

// What moves is named at the head and looked for in the folded toy: where it is not there
// the line says what is missing and what to write.
func TestPartsAreLookedFor(t *testing.T) {
	for _, c := range []struct{ toy, from, to, says string }{
		{"bird", "hump C", "hump N1", "folds meet there inside the paper, and a hump needs 6"},
		{"bird", "hump C", "hump T", "no folds meet there"},
		{"bird", "neck TL", "neck WA", "no fold runs from"},
		{"bird", "hump C\n", "", "no hump is named"},
		{"bird", "roots wingA wingB", "roots wingA neck", "is never opened"},
		{"bird", "roots wingA wingB", "roots wingA wingA", "name one crease for each wing"},
		{"finger-flapper", "tube m", "tube g1", "nothing is wrapped about"},
		{"turbine", "blades R1 R2 R3 R4 R5 R6 R7 R8", "blades R1 R2 R3 R4 R5 R6 R7", "apart, not 51°"},
		{"turbine", "blades R1 R2", "blades C R2", "lies on the axle"},
		{"pinwheel", "part [C M1] into 5\n", "", "no leaves are parted"},
		{"spinning-token", "stands TR", "stands BR", "in the plane of the toy"},
		{"teller-written", "zones outer number message", "zones outer number message centre", "nothing is written in the zone centre"},
		{"teller-written", "zones outer number message", "zones outer number", "the zone message, which is not among the zones"},
		{"three-faces", "states one two three", "states one two two", "is named twice"},
	} {
		p := foldtest.Toy(t, c.toy)
		if r := foldtest.On(t, p, p.WidthMM, p.HeightMM, nil); r.Err != nil {
			t.Fatal(r.Err)
		}
		text := strings.Replace(p.Text, c.from, c.to, 1)
		if text == p.Text {
			t.Fatalf("%s: %q is not there", c.toy, c.from)
		}
		q := foldtest.Parse(t, text)
		start := foldtest.On(t, p, p.WidthMM, p.HeightMM, nil).Sheet
		r := q.Run(start, nil)
		e := fold.As(r.Err)
		if e == nil || !strings.Contains(e.Detail, c.says) {
			t.Errorf("%s, %s: %v", c.toy, c.to, r.Err)
			continue
		}
		if e.Line < 1 || e.Line > 8 {
			t.Errorf("%s: line %d is blamed", c.toy, e.Line)
		}
	}
}
