// Package basis is what a step of a fold sequence is placed by: landmarks, lines, and the
// lengths and angles that are measured.
package basis

import (
	"math"

	"tussock/internal/geom"
)

// Kind is what a step is placed by.
type Kind int8

// A place, a stretch of a line, a length to be measured, and an angle.
const (
	Point Kind = iota
	Line
	Length
	AnAngle
)

// Ref is something that a step is placed by, in the folded plane before the step.
type Ref struct {
	Kind  Kind
	Name  string       // of a landmark or line; "" for what has none
	At    geom.Vec     // the place; the vertex of an angle
	Along geom.Segment // of a line; a length from where it is measured; the two ends of an angle's arc
	Value float64      // of a length mm, of an angle degrees
}

// Add keeps a ref once.
func Add(all []Ref, q Ref) []Ref {
	near := func(a, b geom.Vec) bool { return a.Dist(b) < geom.Distinct }
	for _, p := range all {
		if p.Kind == q.Kind && near(p.At, q.At) && near(p.Along.A, q.Along.A) && near(p.Along.B, q.Along.B) {
			return all
		}
	}
	return append(all, q)
}

// folded are the parts of a way that folding finds without a ruler.
var folded = []float64{0, 0.25, 1.0 / 3, 0.5, 2.0 / 3, 0.75, 1}

// Folded tells whether a part of a way is one that folding finds without a ruler.
func Folded(part float64) bool {
	for _, p := range folded {
		if math.Abs(part-p) < 1e-3 {
			return true
		}
	}
	return false
}

const (
	leastDeg = 0.05 // an angle that is seen
	armPart  = 0.22 // of the toy's size, that the arms of an angle are long
)

// Angle is the angle between two lines through a place, on the side of a landmark; ok is
// false where there is none to see. size is how large the toy is, mm.
func Angle(about geom.Vec, from, to geom.Line, deg float64, toward geom.Vec, size float64) (q Ref, ok bool) {
	if math.Abs(deg) < leastDeg {
		return q, false
	}
	u, v := from.Dir(), to.Dir()
	// Of the two ends of the new line the one that lies towards the landmark; of the old
	// one that which makes the angle with it.
	if w := toward.Sub(about); v.Dot(w) < 0 {
		v = v.Scale(-1)
	}
	if u.Dot(v)*math.Cos(geom.Rad(deg)) < 0 {
		u = u.Scale(-1)
	}
	return Ref{Kind: AnAngle, At: about, Along: geom.Segment{A: about.Add(u.Scale(armPart * size)), B: about.Add(v.Scale(armPart * size))}, Value: math.Abs(deg)}, true
}
