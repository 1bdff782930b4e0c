package body_test

import (
	"math"
	"testing"

	"tussock/internal/body"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
	"tussock/internal/ways"
)

// A square 1 mm out, its corners brought to the middle: one pair of sides overlaps by
// about 1 mm, the other gapes by as much. An exact sheet has no misfit.
func TestMisfitOfAnInexactSquare(t *testing.T) {
	p, err := ways.Parse("t", "sheet square 150\nrequire ratio between 0.999 and 1.001\nuse blintz")
	if err != nil {
		t.Fatal(err)
	}
	make := func(w, h, off float64) *sequence.Replay {
		s, err := sheet.Skewed(w, h, off, 80, 0.1)
		if err != nil {
			t.Fatal(err)
		}
		r := p.Despite(s, nil)
		if r.Err != nil {
			t.Fatal(r.Err)
		}
		return r
	}
	exact := p.Run(sheet.Sheet{WidthMM: 150, HeightMM: 150, GSM: 80, ThicknessMM: 0.1}, nil)
	if m := body.Misfits(exact, make(150, 150, 0)); len(m) != 0 {
		t.Errorf("an exact sheet: %v", m)
	}
	for _, off := range []float64{0.5, 1, 2} {
		m := body.Misfits(exact, make(150+off, 150, 0))
		if len(m) != 4 {
			t.Fatalf("%v", m)
		}
		// Of the long edges, lower and upper, about 1 mm stays between the flaps.
		for i, want := range []body.MisfitKind{body.Gape, body.Overlap, body.Gape, body.Overlap} {
			if m[i].Edges != [2]int{i, i} || m[i].Kind != want || math.Abs(m[i].MM-off) > 0.1*off+0.05 {
				t.Errorf("%v mm out, edge %d: %+v", off, i, m[i])
			}
		}
	}
	// Mirrored and turned errors do the same to mirrored edges.
	wide, high := body.Misfits(exact, make(151, 150, 0)), body.Misfits(exact, make(150, 151, 0))
	if wide[0].Kind != high[1].Kind || math.Abs(wide[0].MM-high[1].MM) > 0.01 {
		t.Errorf("%v and %v", wide, high)
	}
	// The corners of a rhombus meet in its middle as those of a square do: |C|² / (2 C·e)
	// is half of every side. Folded edge to edge it is out by what a half is skewed.
	if m := body.Misfits(exact, make(150, 150, 0.5)); len(m) != 0 {
		t.Errorf("a rhombus: %v", m)
	}
	book, err := ways.Parse("t", "sheet square 150\nvalley bring left to right")
	if err != nil {
		t.Fatal(err)
	}
	skewed, err := sheet.Skewed(150, 150, 0.5, 80, 0.1)
	if err != nil {
		t.Fatal(err)
	}
	half := book.Run(sheet.Sheet{WidthMM: 150, HeightMM: 150, GSM: 80, ThicknessMM: 0.1}, nil)
	m := body.Misfits(half, book.Despite(skewed, nil))
	if len(m) != 2 || m[0].Kind != body.Beside || math.Abs(m[0].MM-150*math.Sin(0.5*math.Pi/180)) > 0.1 {
		t.Errorf("half of a skewed sheet: %v", m)
	}
}
