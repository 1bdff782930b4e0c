package bench_test

import (
	"testing"

	"tussock/internal/bench"
)

// Pieces of one size add up, in one go and over several; sheets that are cut are counted
// off, and piles that cannot be are refused.
func TestDrawer(t *testing.T) {
	five := 5
	cut := func() *bench.Drawer {
		return &bench.Drawer{Papers: []bench.Paper{{ID: 7, Name: "Leaflet", Grain: "height", Stiffness: "crisp", Left: &five}}}
	}
	d := cut()
	from := d.Take(7, 2)
	strip := setup(0, 0).Sheet
	strip.HeightMM = 87
	d.Keep("Leaflet", strip, from, 2)
	d.Keep("Leaflet", strip, from, 3)
	strip.HeightMM = 40
	d.Keep("Leaflet", strip, from, 1)
	got := d.Changed()
	if len(got) != 3 || *got[0].Left != 3 || *got[1].Left != 5 || *got[2].Left != 1 || got[1].Grain != "height" || got[1].Stiffness != "crisp" || got[1].ID != 0 {
		t.Errorf("%+v", got)
	}
	if five != 5 {
		t.Error("what lay there before is changed")
	}
	if err := d.Check(); err != nil {
		t.Error(err)
	}
	d.Keep("Leaflet", strip, from, bench.MaxLeft)
	if d.Check() == nil {
		t.Error("a pile without end")
	}
	// More cut than there were, and paper from elsewhere.
	d = cut()
	d.Take(7, 9)
	if got := d.Changed(); len(got) != 1 || *got[0].Left != 0 {
		t.Errorf("%+v", got)
	}
	d = cut()
	if p := d.Take(0, 3); p.Stiffness != "ordinary" || len(d.Changed()) != 0 {
		t.Errorf("%+v, %+v", p, d.Changed())
	}
}
