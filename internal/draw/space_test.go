package draw_test

import (
	"math"
	"testing"

	"tussock/internal/body"
	"tussock/internal/draw"
	"tussock/internal/foldtest"
)

// top is the face painted last over a spot of the picture.
func top(p draw.Picture, x, y float64) (front, found bool) {
	for _, f := range p.Faces {
		in := true
		n := len(f.Points) / 2
		var sign float64
		for i := range n {
			j := (i + 1) % n
			c := (f.Points[2*j]-f.Points[2*i])*(y-f.Points[2*i+1]) - (f.Points[2*j+1]-f.Points[2*i+1])*(x-f.Points[2*i])
			if sign*c < 0 {
				in = false
			}
			if c != 0 {
				sign = c
			}
		}
		if in {
			front, found = f.Front, true
		}
	}
	return front, found
}

// From straight above, a toy in the round that is flat looks like the flat toy.
func TestFromAboveIsFlat(t *testing.T) {
	for _, text := range []string{"sheet square 150\nuse bird", "sheet square 100\nvalley bring TL to C\nturn lr", "sheet square 120\nuse blintz"} {
		r := foldtest.Fold(t, text)
		p := draw.InSpace(body.Standing(r), draw.Slanted(0, 89.999))
		s := r.Final()
		for i := range s.F {
			c := s.F[i].Iso.Apply(s.F[i].Poly.Centroid())
			id, _ := s.TopAt(c)
			// The camera's up is the plane's up when it looks straight down.
			front, found := top(p, c.X, -c.Y)
			if !found {
				t.Fatalf("nothing is drawn at %v", c)
			}
			if want := s.F[id].Iso.FaceUp(); front != want {
				t.Errorf("at %v the wrong face shows", c)
			}
		}
	}
}

// A strip bent into a half ring: seen from the side it is as high as the ring's
// diameter, and its strips are drawn without lines between them.
func TestBentPaperIsDrawnBent(t *testing.T) {
	r := foldtest.Fold(t, "sheet strip 200 30\ncrease through B T\nbend par(left,50,C) moving R angle 180 radius 20")
	p := draw.InSpace(body.Standing(r), draw.Slanted(0, 0))
	if h := p.View[3]; math.Abs(h-40) > 0.5 {
		t.Errorf("the ring is %v mm high, want 40", h)
	}
	plain := 0
	for _, f := range p.Faces {
		if f.Plain {
			plain++
		}
	}
	if plain < 20 {
		t.Errorf("only %d pieces are drawn as one bent surface", plain)
	}
	if !draw.Shaped(body.Standing(r), 0) {
		t.Error("bent paper counts as flat")
	}
	if flat := foldtest.Fold(t, "sheet square 100\nvalley bring TL to C"); draw.Shaped(body.Standing(flat), 0) {
		t.Error("flat paper counts as shaped")
	}
}
