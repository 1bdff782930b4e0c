package draw_test

import (
	"math"
	"strings"
	"testing"

	"tussock/internal/body"
	"tussock/internal/draw"
	"tussock/internal/foldtest"
)

// What is written shows where its face is on top, and nowhere else; it lies where the paper
// lies and is turned as the paper is.
func TestWritingGoesWithThePaper(t *testing.T) {
	r := foldtest.Fold(t, `sheet square 100
label sheet(20,30) "front" size 8 turn 30
label sheet(80,40) "behind" back size 5
crease bring left to right as m
valley along m moving R as f
turn lr
rotate 90
`)
	names := func(step int) string {
		var out []string
		for _, w := range draw.At(r, step).Written {
			out = append(out, w.Text)
		}
		return strings.Join(out, " ")
	}
	// Before the fold the front shows; the right half comes over it, its back up.
	for step, want := range map[int]string{1: "front", 2: "front", 3: "front", 4: "behind", 5: "", 6: ""} {
		if got := names(step); got != want {
			t.Errorf("after step %d: %q, not %q", step, got, want)
		}
	}
	flat := draw.At(r, 1).Written[0]
	sin, cos := math.Sincos(math.Pi / 6)
	for i, want := range []float64{cos, -sin, sin, cos, 20, -30} {
		if math.Abs(flat.Place[i]-want) > 1e-3 {
			t.Errorf("the text lies at %v", flat.Place)
			break
		}
	}
	if flat.SizeMM != 8 {
		t.Errorf("%v mm high", flat.SizeMM)
	}
	// Folded over, what is written on the back reads from left to right again.
	over := draw.At(r, 4).Written[0]
	if math.Abs(over.Place[0]-1) > 1e-3 || math.Abs(over.Place[3]-1) > 1e-3 || math.Abs(over.Place[4]-20) > 1 || math.Abs(over.Place[5]+40) > 1 {
		t.Errorf("the text on the back lies at %v", over.Place)
	}
	// Never stretched, never mirrored, where it shows.
	for step := range 7 {
		for _, w := range draw.At(r, step).Written {
			m := w.Place
			if det := m[0]*m[3] - m[1]*m[2]; math.Abs(det-1) > 1e-3 {
				t.Errorf("after step %d %q is drawn with %v", step, w.Text, m)
			}
		}
	}
}

// In the round it shows from the side its face is on, as long as no paper is before it.
func TestWritingInTheRound(t *testing.T) {
	r := foldtest.Fold(t, "sheet square 100\nlabel sheet(75,50) \"here\"\nlabel sheet(20,50) \"wing\" back\nvalley bring left to right as f\nopen along f moving L angle 60\n")
	p := body.Standing(r)
	seen := func(elevation float64) string {
		var out []string
		for _, w := range draw.InSpace(p, draw.Slanted(0, elevation)).Written {
			out = append(out, w.Text)
		}
		return strings.Join(out, " ")
	}
	if got := seen(89); got != "here" {
		t.Errorf("from above: %q", got)
	}
	if got := seen(-89); got != "wing" {
		t.Errorf("from underneath: %q", got)
	}
	shut := body.StandingAt(r, nil)
	if w := draw.InSpace(shut, draw.Slanted(0, 80)).Written; len(w) != 1 || w[0].Text != "wing" {
		t.Errorf("shut: %+v", w)
	}
}

// A crease that ends inside the paper is kept with its ends and its angle, drawn, and
// opens nothing.
func TestCreaseThatEndsInside(t *testing.T) {
	r := foldtest.Fold(t, "sheet square 100\npinch bring T to B near C length 30 angle -40\npinch bring L to R near T length 20\n")
	n := r.Notes[0]
	if n.FoldDeg != -40 || math.Abs(n.At.Dist(n.To)-30) > 1e-9 || math.Abs(n.At.Y-50) > 1e-9 {
		t.Errorf("%+v", n)
	}
	if r.Notes[1].FoldDeg != 0 || math.Abs(r.Notes[1].At.Dist(r.Notes[1].To)-10) > 1e-6 {
		t.Errorf("a mark at the rim reaches %v, as far as the paper does", r.Notes[1].At.Dist(r.Notes[1].To))
	}
	pic := draw.At(r, 2)
	if len(pic.Written) != 1 || len(pic.Written[0].Line) != 4 {
		t.Errorf("%+v", pic.Written)
	}
	if p := body.Standing(r); len(p.State.F) != 1 || !p.Sound() {
		t.Error("the sheet is divided or bent")
	}
	if svg := draw.SVG(pic, nil, draw.Plain); !strings.Contains(svg, "<polyline") {
		t.Error("the crease is not drawn")
	}
}
