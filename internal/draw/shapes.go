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
	Fill   string    `json:"fill"`   // mark, the colour of what is to be done, or ink
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
	a.Heads = append(a.Heads, headAt(to, to.Sub(c2), size, kind == "behind" || kind == "push" || kind == "pull"))
	if kind == "unfold" || kind == "open" {
		a.Heads = append(a.Heads, headAt(from, from.Sub(c1), size, true))
	}
	return a
}

// headAt is a head with its tip at a place, that points along dir.
func headAt(tip, dir geom.Vec, size float64, hollow bool) Head {
	d := dir.Unit()
	back, side := tip.Sub(d.Scale(headLong*size)), d.Left().Scale(headWide/2*size)
	return Head{Points: flatPoints(tip, back.Sub(side), back.Add(d.Scale(headNotch*size)), back.Add(side)), Hollow: hollow}
}

// signAt is the sign on a thing that is to meet another.
func signAt(at geom.Vec, size float64) Sign {
	r := signTall * size
	diamond := func(w, h float64) []float64 {
		return flatPoints(at.Add(geom.Vec{Y: h}), at.Add(geom.Vec{X: w}), at.Sub(geom.Vec{Y: h}), at.Sub(geom.Vec{X: w}))
	}
	return Sign{At: xy(at), Shapes: []Shape{{diamond(0.9*r, r), "mark"}, {diamond(0.24*r, 0.24*r), "ink"}}}
}

// nothing is an overlay on which nothing is drawn yet.
func nothing(b geom.Box) Overlay {
	return Overlay{View: view(b), Strokes: []Stroke{}, Arrows: []Arrow{}, Signs: []Sign{}, Moving: []Region{}}
}
