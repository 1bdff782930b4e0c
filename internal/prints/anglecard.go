package prints

import (
	"fmt"
	"math"

	"tussock/internal/geom"
)

// The angle card: stood behind a glider it shows the V of each wing, and held against
// the tail edge how far it is bent.

const (
	cardArmMM = 85.0
	cardStep  = 5  // degrees between lines with numbers
	cardMost  = 40 // degrees up
	cardLeast = -10
	cardKeel  = 70.0 // depth of the slot for the keel
)

// AngleCard lays the card out on a page: rays every 5° for both wings about the spot
// where the wings meet the keel, and heights of a tail edge of a given depth.
func AngleCard(page Page, lipMM float64, inches bool) Leaf {
	l := Leaf{Page: page}
	c := geom.Vec{X: page.WidthMM / 2, Y: 95}
	for d := cardLeast; d <= cardMost; d++ {
		long := cardArmMM
		from := 30.0
		switch {
		case d%cardStep != 0:
			from = cardArmMM - 5
		case d == 0:
			from = 4
		}
		for _, side := range []float64{-1, 1} {
			sin, cos := math.Sincos(geom.Rad(float64(d)))
			l.line(Mark, c.X+side*from*cos, c.Y-from*sin, c.X+side*long*cos, c.Y-long*sin)
			if d%cardStep == 0 {
				l.Words = append(l.Words, Word{geom.Vec{X: c.X + side*(long+5)*cos, Y: c.Y - (long+5)*sin + 1}, 3.2, fmt.Sprintf("%d°", d), true})
			}
		}
	}
	// The keel stands in the slot, its wing crease at the centre.
	l.line(Cut, c.X, c.Y, c.X, c.Y+cardKeel)
	l.line(Mark, c.X-4, c.Y, c.X+4, c.Y)
	words := []string{
		"Angle card. Cut along the middle line, slip it over the keel from behind, the wing crease at the cross.",
		"Read where each wing lies. Left and right are those of somebody who looks the way it flies.",
		fmt.Sprintf("Below: a tail edge %.0f mm deep. Lay the hinge on the dot; where its end points is the curl.", lipMM),
	}
	for i, w := range words {
		l.Words = append(l.Words, Word{geom.Vec{X: marginMM + 2, Y: c.Y + cardKeel + 10 + 5*float64(i)}, 3.2, w, false})
	}
	// The lip at true size.
	h := geom.Vec{X: 30, Y: c.Y + cardKeel + 50}
	l.line(Mark, h.X-20, h.Y, h.X, h.Y)
	for _, d := range []float64{0, 2, 4, 6, 8, 10, 15, 20} {
		sin, cos := math.Sincos(geom.Rad(d))
		l.line(Mark, h.X, h.Y, h.X+lipMM*cos, h.Y-lipMM*sin)
		// Longer thin rays carry the numbers: at the true depth they would lie on each other.
		l.line(Thin, h.X+lipMM*cos, h.Y-lipMM*sin, h.X+60*cos, h.Y-60*sin)
		l.Words = append(l.Words, Word{geom.Vec{X: h.X + 62*cos, Y: h.Y - 62*sin + 1}, 2.8, fmt.Sprintf("%.0f° = %.1f mm", d, lipMM*sin), false})
	}
	l.foot(Order{Inches: inches}, "Tussock angle card")
	return l
}
