package prints

import (
	"fmt"
	"math"

	"tussock/internal/geom"
)

// Fan is rays about a spot of a page, to the right and to the left of it, from which an
// angle is read.
type Fan struct {
	At          geom.Vec // mm from the page's top left
	ArmMM       float64
	Least, Most int // degrees above level
}

// fanStep is the degrees between rays with numbers.
const fanStep = 5

// Draw puts the fan on a page.
func (f Fan) Draw(l *Leaf) {
	for d := f.Least; d <= f.Most; d++ {
		from := 30.0
		switch {
		case d%fanStep != 0:
			from = f.ArmMM - 5
		case d == 0:
			from = 4
		}
		for _, side := range []float64{-1, 1} {
			sin, cos := math.Sincos(geom.Rad(float64(d)))
			l.Line(Mark, f.At.X+side*from*cos, f.At.Y-from*sin, f.At.X+side*f.ArmMM*cos, f.At.Y-f.ArmMM*sin)
			if d%fanStep == 0 {
				l.Words = append(l.Words, Word{At: geom.Vec{X: f.At.X + side*(f.ArmMM+5)*cos, Y: f.At.Y - (f.ArmMM+5)*sin + 1}, SizeMM: 3.2, Text: fmt.Sprintf("%d°", d), Centred: true})
			}
		}
	}
}

// Sentences are lines of words from a spot downwards.
func (l *Leaf) Sentences(at geom.Vec, words ...string) {
	for i, w := range words {
		l.Words = append(l.Words, Word{At: geom.Vec{X: at.X, Y: at.Y + 5*float64(i)}, SizeMM: 3.2, Text: w})
	}
}
