package remarks_test

import (
	"testing"

	"tussock/internal/geom"
	"tussock/internal/sequence/remarks"
	"tussock/internal/sheet"
	"tussock/internal/ways"
)

// A crease that squaring has left is not asked for again; the other diagonal is,
// and so is a crease of which only a part is there.
func TestCreasesAlreadyMade(t *testing.T) {
	p, err := ways.Parse("t", "pattern \"T\"\nmoves reveal\nsheet square 100\ncrease through BL TR\n  say \"a\"\nturn lr\n  say \"t\"\ncrease through BR TL\n  say \"b\"\nvalley bring TL to C\n  say \"c\"\n")
	if err != nil {
		t.Fatal(err)
	}
	r := p.Run(sheet.Sheet{WidthMM: 100, HeightMM: 100, GSM: 80, ThicknessMM: 0.1}, nil)
	if r.Err != nil {
		t.Fatal(r.Err)
	}
	at := func(x, y float64) geom.Vec { return geom.Vec{X: x, Y: y} }
	rising, falling := geom.Segment{A: at(0, 0), B: at(100, 100)}, geom.Segment{A: at(0, 100), B: at(100, 0)}
	for _, c := range []struct {
		have []geom.Segment
		want [4]bool
	}{
		{nil, [4]bool{}},
		{[]geom.Segment{rising}, [4]bool{true, false, false, false}},
		{[]geom.Segment{rising, falling}, [4]bool{true, false, true, false}},
		{[]geom.Segment{{A: at(0, 0), B: at(50, 50)}, {A: at(50, 50), B: at(0, 100)}}, [4]bool{}},
		{[]geom.Segment{{A: at(60, 60), B: at(100, 100)}, {A: at(60, 60), B: at(0, 0)}}, [4]bool{true, false, false, false}},
		{[]geom.Segment{{A: at(0, 1), B: at(100, 101)}}, [4]bool{}},
	} {
		for i, d := range r.Steps {
			if got := remarks.Made(d, c.have); got != c.want[i] {
				t.Errorf("with %v, step %d is made: %v", c.have, d.No, got)
			}
		}
	}
}
