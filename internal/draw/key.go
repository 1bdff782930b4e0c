package draw

import "tussock/internal/geom"

// Key explains one habit of the pictures: a line, an arrow, a sign.
type Key struct {
	For  string  `json:"for"` // kind of element and its kind: "arrow fold"
	Says string  `json:"says"`
	Over Overlay `json:"over"` // a sample
}

// Sizes of a sample, mm.
const keyWide, keyTall = 30.0, 12.0

// Keys explain all that may stand on a picture, in the order in which people meet it.
func Keys() []Key {
	var out []Key
	add := func(of, says string, draw func(o *Overlay)) {
		o := nothing(geom.Box{MaxX: keyWide, MaxY: keyTall})
		draw(&o)
		out = append(out, Key{of, says, o})
	}
	left, right := geom.Vec{X: 3, Y: 4}, geom.Vec{X: 27, Y: 4}
	stroke := func(kind, says string) {
		add("stroke "+kind, says, func(o *Overlay) {
			o.Strokes = append(o.Strokes, Stroke{kind, flatPoints(geom.Vec{X: 2, Y: 6}, geom.Vec{X: 28, Y: 6})})
		})
	}
	// Arrows and signs are drawn for paper of this size.
	const size = 110.0
	arrow := func(kind, says string) {
		add("arrow "+kind, says, func(o *Overlay) {
			top := geom.Vec{X: 15, Y: 11}
			if kind == "turn" {
				top.Y = 7
			}
			o.Arrows = append(o.Arrows, arrowOf(kind, left, top, right, size))
		})
	}
	sign := func(kind, says string) {
		add("sign "+kind, says, func(o *Overlay) {
			o.Signs = append(o.Signs, signAt(kind, geom.Vec{X: 15, Y: 6}, 1.6*size))
		})
	}
	stroke("valley", "fold towards you")
	stroke("mountain", "fold behind")
	stroke("meet", "an edge or line to go by")
	stroke("axis", "a line to turn or bend about")
	stroke("cut", "cut")
	stroke("hidden", "hidden beneath")
	arrow("fold", "fold over")
	arrow("repeat", "as an earlier step")
	arrow("behind", "fold behind")
	arrow("unfold", "fold, crease, open again")
	arrow("open", "open")
	arrow("push", "push in")
	arrow("pull", "draw out")
	arrow("squash", "open and press flat")
	arrow("turn", "turn over")
	arrow("rotate", "turn round")
	sign("meet", "these two meet")
	sign("place", "a place to go by")
	sign("hold", "hold here")
	sign("press", "press here")
	add("size", "measure this", func(o *Overlay) {
		o.Sizes = append(o.Sizes, Size{Text: "12", TallMM: 5, At: [2]float64{15, -8.5},
			Lines: flatPoints(geom.Vec{X: 3, Y: 4}, geom.Vec{X: 27, Y: 4}, geom.Vec{X: 3, Y: 2}, geom.Vec{X: 3, Y: 6}, geom.Vec{X: 27, Y: 2}, geom.Vec{X: 27, Y: 6})})
	})
	add("moving", "this moves", func(o *Overlay) {
		o.Moving = append(o.Moving, Region{Points: flatPoints(geom.Vec{X: 4, Y: 2}, geom.Vec{X: 26, Y: 2}, geom.Vec{X: 26, Y: 10}, geom.Vec{X: 4, Y: 10}), Layers: 1})
	})
	return out
}
