package hop

import (
	"math"
	"testing"

	"tussock/internal/sheet"
)

// A finished hopper is shown as the model has it at rest: sound, its pleat sprung open, the
// hip as high over the second fold as the middle of the pleat lifts it.
func TestHoppersStand(t *testing.T) {
	seen := 0
	for _, p := range hoppers(t) {
		seen++
		s, err := sheet.New(p.WidthMM, p.HeightMM, 80, 0.1)
		if err != nil {
			t.Fatal(err)
		}
		r := p.Run(s, nil)
		stands, ok := show(r)
		if !ok {
			t.Errorf("%s does not stand", p.ID)
			continue
		}
		g, err := Of(r)
		if err != nil {
			t.Fatal(err)
		}
		open, pitch := g.toy(SpringSetOf(r.Values)).Rest()
		forward, _ := ahead(r, stands.Pose)
		place := func(which int) float64 { // of a crease of the pleat, out of the plane of the body
			c := longest(r.Lines[spring(p, which)])
			v, ok := stands.Pose.Spot(c.Mid())
			if !ok {
				t.Fatalf("%s: the pleat is not on the paper", p.ID)
			}
			return v.Z
		}
		// Square to the body, the catch lies under the hip by the middle's part there.
		want := g.MiddleMM * math.Sin(open+pitch)
		if g.Backward {
			want = g.MiddleMM * math.Sin(open-pitch)
		}
		if got := math.Abs(place(1) - place(0)); math.Abs(got-want) > 1 {
			t.Errorf("%s: the second fold lies %.1f mm off the body's plane, the model has %.1f", p.ID, got, want)
		}
		if math.Abs(forward.Len()-1) > 1e-9 {
			t.Errorf("%s: no way ahead", p.ID)
		}
		if stands.LengthMM < 20 || stands.LengthMM > 200 {
			t.Errorf("%s is %.0f mm long", p.ID, stands.LengthMM)
		}
	}
	if seen < 5 {
		t.Errorf("only %d hoppers", seen)
	}
}
