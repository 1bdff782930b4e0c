package rings

import (
	"fmt"

	"tussock/internal/draw"
	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/reveal/ring"
	"tussock/internal/motion/toys"
	"tussock/internal/prints"
	"tussock/internal/sequence"
)

// Writing is how rings are drawn on.
func Writing() *toys.Writing {
	return &toys.Writing{
		Zones: []toys.Zone{
			{Name: "face", Label: "Faces", Says: "A colour or a picture over all six triangles. It is whole as the face is first seen; flexed to it another way, its triangles are turned.", Colours: true, Pictures: true, Own: true},
			{Name: "sector", Label: "Triangles", Says: "A word or a number in one triangle. Empty ones carry the number of their face, small, to fold by.", Texts: true, Colours: true, Free: true},
		},
		Places: func(r *sequence.Replay) ([]toys.Place, error) {
			g, err := Of(r)
			if err != nil {
				return nil, err
			}
			return g.places(), nil
		},
		Views: views,
		Outline: func(r *sequence.Replay) geom.Polygon {
			g, err := Of(r)
			if err != nil {
				return nil
			}
			return g.outline()
		},
		Marks: func(r *sequence.Replay, w motion.Written) []draw.Ink {
			g, err := Of(r)
			if err != nil {
				return nil
			}
			return g.numbers(w)
		},
	}
}

// outline is the strip without what is cut off.
func (g *Geometry) outline() geom.Polygon {
	n := len(g.corners)
	first, last := g.corners[0], g.corners[n-1]
	lower := geom.Polygon{first[0], last[1], last[2], first[1]}
	if n%2 == 1 { // it ends on the edge that it began on
		lower = geom.Polygon{first[0], last[2], last[1], first[1]}
	}
	return lower
}

// numberPart is how large the number of a face is printed, of a triangle's side: to fold by,
// and small where there is a picture.
const numberPart, smallPart, gluePart = 0.34, 0.13, 0.14

// glueWord marks the two triangles that are glued on each other.
const glueWord = "glue"

// numbers are the numbers of faces, on every triangle that nothing is written in. They are
// worked out from how the ring is folded.
func (g *Geometry) numbers(w motion.Written) (out []draw.Ink) {
	for f, h := range g.homes {
		s := g.Graph.States[h.state]
		drawn := w[fmt.Sprintf("face %d", f+1)] != motion.Mark{}
		for i, leaf := range h.front {
			if w[fmt.Sprintf("sector %d", f*ring.Pats+i+1)].Text != "" {
				continue
			}
			back := g.onHexagon(s, i, leaf.No).Inverse()
			on := g.seen(leaf)
			rim := g.corner(i, ring.Before).Add(g.corner(i, ring.After)).Scale(0.5)
			at, size := rim.Scale(0.62), numberPart*g.SideMM
			if drawn {
				at, size = rim.Scale(0.88), smallPart*g.SideMM
			}
			text := fmt.Sprint(f + 1)
			out = append(out, draw.Ink{At: back.Apply(at), Text: text, SizeMM: size, WideMM: prints.Printed(text) * size, TurnDeg: turnOf(back.Turn(geom.Vec{X: 1}), on.Back), Back: on.Back})
		}
	}
	// The two sides that are glued on each other carry no number.
	other := ring.Leaf{No: g.instead.No, Back: !g.instead.Back}
	for _, l := range []ring.Leaf{g.hidden, other} {
		c := triangle(g.corners[l.No-1])
		size := gluePart * g.SideMM
		out = append(out, draw.Ink{At: c.Centroid(), Text: glueWord, SizeMM: size, WideMM: prints.Printed(glueWord) * size, Back: l.Back})
	}
	return out
}

// views are all faces as they are first seen, and both sides of the strip.
func views(r *sequence.Replay, inks []draw.Ink) []toys.View {
	g, err := Of(r)
	if err != nil {
		return nil
	}
	var out []toys.View
	for f, h := range g.homes {
		out = append(out, toys.View{Name: fmt.Sprintf("face%d", f+1), Title: fmt.Sprintf("Face %d", f+1), Says: "As it is first seen.", Picture: g.pictured(g.Graph.States[h.state], inks)})
	}
	for _, back := range []bool{false, true} {
		v := toys.View{Name: "front", Title: "Strip, front", Says: "As it is printed, before the first fold."}
		s := r.Steps[g.glued-1].Before
		flat := unfolded(s)
		c := draw.Slanted(0, 90)
		if back {
			v.Name, v.Title = "back", "Strip, back"
			c = draw.From(geom.Vec3{X: -1}, geom.Vec3{Y: 1})
		}
		v.Picture = draw.InSpace(flat, c)
		v.Picture.InkRound(flat, c, inks)
		out = append(out, v)
	}
	return out
}
