package craft

import (
	"fmt"
	"math"

	"tussock/internal/geom"
	"tussock/internal/prints"
	"tussock/internal/say"
)

// The angle card: stood behind a glider it shows the V of each wing, and held against
// the tail edge how far it is bent.

const (
	cardArmMM = 85.0
	cardMost  = 40 // degrees up
	cardLeast = -10
	cardKeel  = 70.0 // depth of the slot for the keel
)

// AngleCard lays the card out on a page: rays every 5° for both wings about the spot
// where the wings meet the keel, and heights of a tail edge of a given depth.
func AngleCard(page prints.Page, lipMM float64, inches bool) prints.Leaf {
	l := prints.Leaf{Page: page}
	u := say.Metric
	if inches {
		u = say.Inch
	}
	c := geom.Vec{X: page.WidthMM / 2, Y: 95}
	prints.Fan{At: c, ArmMM: cardArmMM, Least: cardLeast, Most: cardMost}.Draw(&l)
	// The keel stands in the slot, its wing crease at the centre.
	l.Line(prints.Cut, c.X, c.Y, c.X, c.Y+cardKeel)
	l.Line(prints.Mark, c.X-4, c.Y, c.X+4, c.Y)
	l.Sentences(geom.Vec{X: prints.MarginMM + 2, Y: c.Y + cardKeel + 10},
		"Angle card. Cut along the middle line, slip it over the keel from behind, the wing crease at the cross.",
		"Read where each wing lies. Left and right are those of somebody who looks the way it flies.",
		fmt.Sprintf("Below: a tail edge %s deep. Lay the hinge on the dot; where its end points is the curl.", say.Length(u, lipMM, 1)))
	// The lip at true size.
	h := geom.Vec{X: 30, Y: c.Y + cardKeel + 50}
	l.Line(prints.Mark, h.X-20, h.Y, h.X, h.Y)
	for _, d := range []float64{0, 2, 4, 6, 8, 10, 15, 20} {
		sin, cos := math.Sincos(geom.Rad(d))
		l.Line(prints.Mark, h.X, h.Y, h.X+lipMM*cos, h.Y-lipMM*sin)
		// Longer thin rays carry the numbers: at the true depth they would lie on each other.
		l.Line(prints.Thin, h.X+lipMM*cos, h.Y-lipMM*sin, h.X+60*cos, h.Y-60*sin)
		l.Words = append(l.Words, prints.Word{At: geom.Vec{X: h.X + 62*cos, Y: h.Y - 62*sin + 1}, SizeMM: 2.8, Text: fmt.Sprintf("%.0f° = %s", d, say.Length(u, lipMM*sin, 1))})
	}
	l.Foot(prints.Order{Inches: inches}, "Tussock angle card")
	return l
}
