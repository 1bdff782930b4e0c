package snap_test

import (
	"math"
	"testing"

	"tussock/internal/motion/flap/snap"
	"tussock/internal/sheet"
)

// The two shapes of the cone, to the digits that are known, and by summing their bending up
// round the cone instead of by the closed form.
func TestTwoShapesOfTheCone(t *testing.T) {
	for _, c := range []struct {
		s                           snap.Shape
		mode, energy, wings, ridges float64
	}{{snap.Rest, 0.91622, 0.1626, 0.275, 0.072}, {snap.Snapped, 1.02120, 0.5017, -0.103, -0.531}} {
		if math.Abs(c.s.Mode-c.mode) > 6e-6 || math.Abs(c.s.Energy-c.energy) > 2e-4 || math.Abs(c.s.Wings-c.wings) > 6e-4 || math.Abs(c.s.Ridge-c.ridges) > 6e-4 {
			t.Errorf("%+v, want %+v", c.s, c)
		}
		// Energy: half the square of z + z'' round the cone; length: z'² and z² alike; the
		// crease folds it by 1.
		const n = 20000
		h := 2 * math.Pi / n
		energy, stretch := 0.0, 0.0
		for i := range n {
			a := -math.Pi + (float64(i)+0.5)*h
			z := c.s.At(a)
			d := (c.s.At(a+1e-4) - c.s.At(a-1e-4)) / 2e-4
			dd := (c.s.At(a+1e-4) - 2*z + c.s.At(a-1e-4)) / 1e-8
			energy += (z + dd) * (z + dd) / 2 * h
			stretch += (d*d - z*z) * h
		}
		if math.Abs(energy-c.s.Energy) > 1e-4 {
			t.Errorf("energy %v, summed up %v", c.s.Energy, energy)
		}
		if math.Abs(stretch) > 1e-3 {
			t.Errorf("mode %v: the way round the cone changes by %v", c.s.Mode, stretch)
		}
		if kink := (c.s.At(math.Pi) - c.s.At(math.Pi-1e-5)) / 1e-5; math.Abs(math.Abs(2*kink)-1) > 1e-4 {
			t.Errorf("the crease folds by %v", 2*kink)
		}
	}
	if s := snap.Swing(1); math.Abs(s-0.378) > 6e-4 {
		t.Errorf("swing %v", s)
	}
	if r := snap.Snapped.Energy / snap.Rest.Energy; math.Abs(r-3.09) > 0.01 {
		t.Errorf("ratio %v", r)
	}
	// Twice the fold stores four times, a larger sheet a little more, and never less than
	// nothing.
	b := sheet.Bending(sheet.Ordinary, 0.1)
	if u, v := snap.Rest.Joules(b, 0.3, 0.07), snap.Rest.Joules(b, 0.6, 0.07); math.Abs(v/u-4) > 1e-12 || snap.Rest.Joules(b, 0.3, 0.14) <= u || snap.Rest.Joules(b, 0.3, 0.001) != 0 {
		t.Errorf("stored %v and %v", u, v)
	}
}

// The moment that folds a rolled root, by paper, and the force at a tip of 70 mm.
func TestRolledRoots(t *testing.T) {
	root := snap.Root{WidthM: 1.2 * 9e-3, RadiusM: 9e-3}
	for mm, want := range map[float64]float64{0.08: 2.1e-4, 0.104: 4.7e-4, 0.15: 1.4e-3, 0.195: 3.1e-3} {
		m := root.Moment(sheet.Bending(sheet.Ordinary, mm), true)
		if math.Abs(m-want) > 0.03*want {
			t.Errorf("%v mm: %v N m, want %v", mm, m, want)
		}
		if with := root.Moment(sheet.Bending(sheet.Ordinary, mm), false); math.Abs(with/m-0.7/1.3) > 1e-12 {
			t.Errorf("%v mm: with its roll %v", mm, with)
		}
	}
	// A tube tighter by a fifth is a quarter stiffer, and a flat root has one rest.
	tight := snap.Root{WidthM: root.WidthM, RadiusM: 0.8 * root.RadiusM}
	if k := tight.Moment(1, true) / root.Moment(1, true); math.Abs(k-1.25) > 1e-12 {
		t.Errorf("a tighter tube is %v times as stiff", k)
	}
	if !root.TwoRests() || (snap.Root{WidthM: 3e-3, RadiusM: 9e-3}).TwoRests() {
		t.Error("rests")
	}
}

// What must be left free for the layers, what happens where it is not, and the way round a
// finger.
func TestGapsAndTubes(t *testing.T) {
	if g := 1e3 * snap.Gap(4, 0.1e-3); math.Abs(g-0.628) > 6e-4 {
		t.Errorf("gap %v mm", g)
	}
	if s := snap.Strain(4, 0.1e-3, 0.7e-3, 0.025); s != 0 {
		t.Errorf("strain with room %v", s)
	}
	if s := snap.Strain(4, 0.1e-3, 0, 0.025); s < snap.TearsAlong || s > snap.TearsAcross {
		t.Errorf("without a gap it is strained by %v", s)
	}
	from, to, err := snap.Tube(17e-3, 2, 0.08e-3)
	if err != nil || math.Abs(from-math.Pi*17.32e-3) > 1e-9 || to-from < 1e-3 || to-from > 3e-3 {
		t.Errorf("%v to %v, %v", from, to, err)
	}
	for _, d := range []float64{0, 0.005, 0.2, math.NaN()} {
		if _, _, err := snap.Tube(d, 2, 1e-4); err == nil {
			t.Errorf("a finger of %v m was taken", d)
		}
	}
}
