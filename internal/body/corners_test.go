package body_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/foldtest"
	"tussock/internal/ways"
)

// A wheel with as many leaves as a knob says: one text for three to eight, whole steps
// only, and a corner that is not there is said.
func TestCornersAsAKnob(t *testing.T) {
	text := "moves spin\nknob n \"Leaves\" = 5 from 3 to 8 fold changes \"How many blades.\"\nsheet ngon n 70\ngather about C as rays\npart [C M1] into n\n"
	p := foldtest.Parse(t, text)
	for n := 3; n <= 8; n++ {
		r := foldtest.On(t, p, 200, 200, map[string]float64{"n": float64(n)})
		if got := len(r.Sheet.Outline()); got != n || len(r.Final().F) != 2*n {
			t.Errorf("n = %d: %d corners, %d pieces", n, got, len(r.Final().F))
		}
		pose := body.Standing(r)
		if !pose.Sound() {
			t.Errorf("n = %d: %s", n, pose.Unsound())
		}
		m, c := pose.Weigh(), r.Landmarks["C"]
		side := r.Sheet.Outline()[0].Dist(r.Sheet.Outline()[1])
		apothem := side / 2 / math.Tan(math.Pi/float64(n))
		near(t, fmt.Sprint("CoM along the axis, n = ", n), math.Sqrt((m.CoM.X-c.X)*(m.CoM.X-c.X)+(m.CoM.Y-c.Y)*(m.CoM.Y-c.Y)+m.CoM.Z*m.CoM.Z), 2*apothem/3, 1e-6)
	}
	for knob, want := range map[float64]string{5.5: "whole number", 9: "3 to 8", 2: "3 to 8"} {
		start := foldtest.On(t, p, 200, 200, nil)
		r := p.Run(start.Sheet, map[string]float64{"n": knob})
		if e := fold.As(r.Err); e == nil || !strings.Contains(e.Error(), want) {
			t.Errorf("n = %v: %v", knob, r.Err)
		}
	}
	q := foldtest.Parse(t, strings.Replace(text, "gather", "crease through P7 C\ngather", 1))
	if r := q.Run(foldtest.On(t, p, 200, 200, nil).Sheet, nil); r.Err == nil || !strings.Contains(r.Err.Error(), "no P7 on a sheet with 5 corners") {
		t.Errorf("a corner that is not there: %v", r.Err)
	}
	for _, bad := range []string{"= 5 from 3 to 9", "= 5.5 from 3 to 8", "= 5 from 2 to 8"} {
		if _, err := ways.Parse("t", strings.Replace(text, "= 5 from 3 to 8", bad, 1)); err == nil || !strings.Contains(err.Error(), "3 to 8 corners") {
			t.Errorf("%s: %v", bad, err)
		}
	}
}
