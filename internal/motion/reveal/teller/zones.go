package teller

import (
	"math"

	"tussock/internal/geom"
)

// Zone is a place on the sheet that is written on. All zones lie on the face that is down at
// the first fold; points are mm as one looks at that face, y upward. TurnDeg is how a text
// must be turned there, against the clock, to stand upright in the folded toy.
type Zone struct {
	Kind    string
	No      int            // from 1: panels from the upper right, halves clockwise from the right half of the upper flap
	Text    geom.Polygon   // between folds: where a text has room
	Areas   []geom.Polygon // all of it, piece by piece between folds
	TurnDeg float64
}

// Kinds of zones.
const (
	Outer   = "outer"
	Number  = "number"
	Message = "message"
)

// turned turns points of a square of a side by quarter turns against the clock.
func turned(p geom.Polygon, quarters int, side float64) geom.Polygon {
	out := make(geom.Polygon, len(p))
	for i, v := range p {
		for range (quarters%4 + 4) % 4 {
			v = geom.Vec{X: side - v.Y, Y: v.X}
		}
		out[i] = v
	}
	return out
}

// mirrored is the mirror image, left to right.
func mirrored(p geom.Polygon, side float64) geom.Polygon {
	out := make(geom.Polygon, len(p))
	for i, v := range p {
		out[len(p)-1-i] = geom.Vec{X: side - v.X, Y: v.Y}
	}
	return out
}

// Zones of a square of a side whose corners stopped a gap short of the middle, both times. The
// second folds lie at lo and side - lo, the first ones run slanting between the middles of the
// sides.
func Zones(side, gap float64) []Zone {
	lo := side/4 - gap/math.Sqrt(8)
	hi, mid, top := side-lo, side/2, side
	edge := mid + gap/math.Sqrt2 // where the first fold of the upper right corner meets the upper side
	number := geom.Polygon{{X: edge, Y: top}, {X: hi, Y: hi}, {X: hi, Y: top}}
	message := geom.Polygon{{X: mid, Y: hi}, {X: hi, Y: hi}, {X: edge, Y: top}, {X: mid, Y: top}}
	if gap < geom.OnPaper {
		message = message[:3]
	}
	panel := []geom.Polygon{{{X: hi, Y: hi}, {X: top, Y: top}, {X: hi, Y: top}}, {{X: hi, Y: hi}, {X: top, Y: hi}, {X: top, Y: top}}}
	var out []Zone
	add := func(kind string, no int, deg float64, areas ...geom.Polygon) {
		out = append(out, Zone{kind, no, areas[0], areas, math.Mod(deg+360, 360)})
	}
	// Panels from the upper right, against the clock on the sheet: folded, seen from the
	// pockets, they lie with left and right swapped.
	for q := range 4 {
		a, b := turned(panel[0], q, side), turned(panel[1], q, side)
		if q%2 == 1 { // the upper half of each holds its text, as it is read
			a, b = b, a
		}
		add(Outer, q+1, []float64{90, 270, 90, 270}[q], a, b)
	}
	// Halves, clockwise: each flap has its left and its right half, as one looks at the toy.
	for h := range Halves {
		flap := (h + 1) / 2 % 4 // N, E, S, W
		left := h%2 == 1        // 7 is the left half of the upper flap, 1 the first of the right one
		poly := number
		if left {
			poly = mirrored(number, side)
		}
		deg := 270.0
		if left {
			deg = 90
		}
		add(Number, h+1, deg, turned(poly, -flap, side)) // all stand upright while flaps lie shut
	}
	for h := range Halves {
		flap := (h + 1) / 2 % 4
		poly := message
		if h%2 == 1 {
			poly = mirrored(message, side)
		}
		add(Message, h+1, float64(-90*flap), turned(poly, -flap, side))
	}
	return out
}
