package draw

import (
	"math"

	"tussock/internal/geom"
)

// What arrows and signs look like is decided here, once, in the picture's own mm: the page,
// SVG files and prints only paint it.

// Head is the head of an arrow.
type Head struct {
	Points []float64 `json:"points"` // its corners
	Hollow bool      `json:"hollow"` // paper shows in it; else it is ink
}

// Shape is a part of a sign.
type Shape struct {
	Points []float64 `json:"points"` // its corners
	Fill   string    `json:"fill"`   // mark, the colour of what is to be done, paper, or ink
}

// Sizes of arrows and signs as parts of the toy's longer side.
const (
	headLong  = 0.042
	headWide  = 0.046
	headNotch = 0.0105 // how far the back of a head goes in
	signTall  = 0.021
)

// loopReach is how far the loop of a turn over swings past its ends.
const loopReach = 0.9

// longer is the longer side of a box.
func longer(b geom.Box) float64 { return math.Max(b.Width(), b.Height()) }

// arrowOf is an arrow along a curve with one control point, shaped for its kind.
func arrowOf(kind string, from, control, to geom.Vec, size float64) Arrow {
	a := Arrow{Kind: kind, Broken: kind == "behind"}
	c1, c2 := from.Lerp(control, 2.0/3), to.Lerp(control, 2.0/3)
	if kind == "turn" { // the curve crosses itself between its ends
		loop := control.Scale(2).Sub(geom.Mid(from, to))
		along := to.Sub(from).Scale(loopReach)
		c1, c2 = loop.Add(along), loop.Sub(along)
	}
	a.Shaft = flatPoints(from, c1, c2, to)
	way := to.Sub(c2)
	switch kind {
	case "behind", "open":
		a.Heads = append(a.Heads, headAt(to, way, size, true))
	case "unfold":
		a.Heads = append(a.Heads, headAt(to, way, size, false), headAt(from, from.Sub(c1), size, true))
	case "push": // broad, as the finger that does it
		a.Heads = append(a.Heads, broadHead(to, way, size))
	case "pull": // the broad end is held and drawn
		a.Heads = append(a.Heads, broadHead(from, c1.Sub(from), size), headAt(to, way, size, false))
	case "repeat": // as an earlier step: a bar across the shaft
		a.Heads = append(a.Heads, headAt(to, way, size, false), barAt(middle(from, c1, c2, to), to.Sub(from), size))
	case "squash": // opened and pressed down
		a.Heads = append(a.Heads, headAt(to, way, size, true), barAt(to, way, size))
	default:
		a.Heads = append(a.Heads, headAt(to, way, size, false))
	}
	return a
}

// middle is the place half-way along a curve.
func middle(a, b, c, d geom.Vec) geom.Vec {
	return geom.Mid(geom.Mid(geom.Mid(a, b), geom.Mid(b, c)), geom.Mid(geom.Mid(b, c), geom.Mid(c, d)))
}

// broadHead is a head of twice the width, in which paper shows.
func broadHead(tip, dir geom.Vec, size float64) Head {
	d := dir.Unit()
	back, side := tip.Sub(d.Scale(headLong*size)), d.Left().Scale(headWide*size)
	return Head{Points: flatPoints(tip, back.Sub(side), back.Add(side)), Hollow: true}
}

// barAt is a bar across the end of an arrow: as far as there, and flat.
func barAt(tip, dir geom.Vec, size float64) Head {
	d := dir.Unit()
	side, thick := d.Left().Scale(0.7*headWide*size), d.Scale(0.006*size)
	return Head{Points: flatPoints(tip.Add(side), tip.Add(side).Add(thick), tip.Sub(side).Add(thick), tip.Sub(side))}
}

// headAt is a head with its tip at a place, that points along dir.
func headAt(tip, dir geom.Vec, size float64, hollow bool) Head {
	d := dir.Unit()
	back, side := tip.Sub(d.Scale(headLong*size)), d.Left().Scale(headWide/2*size)
	return Head{Points: flatPoints(tip, back.Sub(side), back.Add(d.Scale(headNotch*size)), back.Add(side)), Hollow: hollow}
}

// signAt is the sign on a place: on what is to meet another, on what a fold is placed by, on
// what is held.
func signAt(kind string, at geom.Vec, size float64) Sign {
	r := signTall * size
	diamond := func(w, h float64) []float64 {
		return flatPoints(at.Add(geom.Vec{Y: h}), at.Add(geom.Vec{X: w}), at.Sub(geom.Vec{Y: h}), at.Sub(geom.Vec{X: w}))
	}
	ring := func(r float64) []float64 {
		var out []geom.Vec
		for i := range 12 {
			sin, cos := math.Sincos(float64(i) * math.Pi / 6)
			out = append(out, at.Add(geom.Vec{X: r * cos, Y: r * sin}))
		}
		return flatPoints(out...)
	}
	shapes := []Shape{{diamond(0.9*r, r), "mark"}, {diamond(0.24*r, 0.24*r), "ink"}}
	switch kind {
	case "place":
		shapes = []Shape{{ring(0.72 * r), "paper"}, {ring(0.26 * r), "ink"}}
	case "press": // a finger's tip from above
		shapes = []Shape{{flatPoints(at, at.Add(geom.Vec{X: r, Y: 1.6 * r}), at.Add(geom.Vec{X: -r, Y: 1.6 * r})), "mark"}}
	case "hold":
		shapes = []Shape{{ring(1.2 * r), "paper"}, {ring(0.9 * r), "ink"}}
	}
	return Sign{Kind: kind, At: xy(at), Shapes: shapes}
}

// nothing is an overlay on which nothing is drawn yet.
func nothing(b geom.Box) Overlay {
	return Overlay{View: view(b), Strokes: []Stroke{}, Arrows: []Arrow{}, Signs: []Sign{}, Moving: []Region{}}
}
