package draw_test

import (
	"encoding/xml"
	"errors"
	"io"
	"math"
	"strings"
	"testing"

	"tussock/internal/draw"
	"tussock/internal/fold"
	"tussock/internal/fold/layermap"
	"tussock/internal/foldtest"
	"tussock/internal/sequence"
	"tussock/internal/shelf"
)

// elements counts the elements of an SVG by name, and fails when it is not
// well-formed.
func elements(t *testing.T, text string) map[string]int {
	t.Helper()
	n := map[string]int{}
	d := xml.NewDecoder(strings.NewReader(text))
	for {
		tok, err := d.Token()
		if errors.Is(err, io.EOF) {
			return n
		}
		if err != nil {
			t.Fatalf("not well-formed: %v\n%.300s", err, text)
		}
		if e, ok := tok.(xml.StartElement); ok {
			n[e.Name.Local]++
		}
	}
}

// Every step of every pattern and study has a picture that says something: paper
// before it, and for what moves a line, an arrow or a sign.
func TestEveryStepIsDrawn(t *testing.T) {
	all, err := shelf.All()
	if err != nil {
		t.Fatal(err)
	}
	studies, err := shelf.Studies()
	if err != nil {
		t.Fatal(err)
	}
	for _, p := range append(all, studies...) {
		r := foldtest.On(t, p, p.WidthMM, p.HeightMM, nil)
		for _, d := range r.Steps {
			o := draw.Next(d)
			if len(o.Strokes)+len(o.Arrows)+len(o.Signs) == 0 {
				t.Errorf("%s step %d (%s) shows nothing to do", p.ID, d.No, d.Op)
			}
			for _, s := range o.Strokes {
				for _, v := range s.Points {
					if math.IsNaN(v) || math.Abs(v) > 2000 {
						t.Errorf("%s step %d: a line runs to %v", p.ID, d.No, v)
					}
				}
			}
			n := elements(t, draw.SVG(draw.Flat(d.Before), &o, draw.Plain))
			if n["polygon"] < len(d.Before.F) && !ringed(d.Before) {
				t.Errorf("%s step %d: %d pieces are drawn of %d", p.ID, d.No, n["polygon"], len(d.Before.F))
			}
		}
		n := elements(t, draw.Contact(r, draw.Plain, draw.Watching, draw.Flat(r.Final())))
		if n["svg"] < len(r.Steps)+2 {
			t.Errorf("%s: the contact sheet has %d pictures of %d steps", p.ID, n["svg"], len(r.Steps))
		}
	}
}

func ringed(s *fold.State) bool {
	_, ok := s.Ranked()
	return !ok
}

// The crease map has every folded crease at its own length, by sense.
func TestMapShowsEveryFold(t *testing.T) {
	p := foldtest.Reference(t, "bird")
	s := foldtest.On(t, p, 150, 150, nil).Final()
	_, o := draw.Map(s)
	length := map[string]float64{}
	for _, k := range o.Strokes {
		length[k.Kind] += math.Hypot(k.Points[2]-k.Points[0], k.Points[3]-k.Points[1])
	}
	want := map[fold.Assignment]float64{}
	for _, h := range s.H {
		want[s.Assigned(h)] += h.P.Dist(h.Q)
	}
	if math.Abs(length["mountain"]-want[fold.Mountain]) > 0.5 || math.Abs(length["valley"]-want[fold.Valley]) > 0.5 {
		t.Errorf("drawn %v, folded %v", length, want)
	}
}

// A twist has layers in a ring; drawn by cells it still covers its outline once.
func TestRingsAreDrawnByCells(t *testing.T) {
	r := foldtest.Fold(t, "sheet square 150\ntwist 4 about C radius 20 slant 50 fixed C")
	s := r.Final()
	if _, ok := s.Ranked(); ok {
		t.Skip("this twist has no ring")
	}
	var area float64
	for _, f := range draw.Flat(s).Faces {
		var a float64
		n := len(f.Points) / 2
		for i := range n {
			j := (i + 1) % n
			a += f.Points[2*i]*f.Points[2*j+1] - f.Points[2*j]*f.Points[2*i+1]
		}
		area += math.Abs(a) / 2
		if !f.Plain {
			t.Error("a cell is drawn with all its sides as edges")
		}
	}
	if want := layermap.Area(layermap.Cells(s)); math.Abs(area-want) > 2 {
		t.Errorf("drawn %v mm², covered %v", area, want)
	}
}

// X-ray and pockets of a toy with a known tuck; the fault of a replay that stops.
func TestOverlays(t *testing.T) {
	r := foldtest.Fold(t, "sheet square 100\nvalley bring TL to C\nturn lr")
	s := r.Final()
	cells := layermap.Cells(s)
	var hidden float64
	for _, k := range draw.XRay(s, cells).Strokes {
		hidden += math.Hypot(k.Points[2]-k.Points[0], k.Points[3]-k.Points[1])
	}
	if math.Abs(hidden-100) > 0.1 {
		t.Errorf("%v mm are hidden, want 100", hidden)
	}
	p := foldtest.Parse(t, "sheet square 150\ncrease through BL TR as d1\ncrease through BR TL as d2\ncollapse fixed B V BL TR V BR TL M L R")
	q := p.Run(foldtest.Fold(t, "sheet rect 100 200\ncrease bring left to right").Sheet, nil)
	if q.Err == nil {
		t.Fatal("a long sheet collapses along its diagonals")
	}
	if o := draw.Fault(q); o == nil || len(o.Moving) < 2 {
		t.Errorf("the fault marks %+v", o)
	}
	if n := elements(t, draw.Failure(q)); n["polygon"] < 3 {
		t.Errorf("the picture of the fault has %v", n)
	}
	if draw.Fault(&sequence.Replay{Start: s, Err: fold.Errorf(fold.CodeNoLine, "x")}) != nil {
		t.Error("a fault about nothing marks something")
	}
	for _, size := range []string{`width="`, `mm"`} {
		if svg := draw.SVG(draw.Flat(s), nil, draw.Plain); !strings.Contains(svg, size) {
			t.Errorf("the picture does not say its size: %.120s", svg)
		}
	}
}
