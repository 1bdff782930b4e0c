package hop

import (
	"tussock/internal/geom"
	"tussock/internal/prints"
)

// angleCard is rays every 5° from the table up, to hold a hopper sideways against.
func angleCard(page prints.Page, _ float64, inches bool) prints.Leaf {
	l := prints.Leaf{Page: page}
	c := geom.Vec{X: page.WidthMM / 2, Y: 115}
	prints.Fan{At: c, ArmMM: 85, Least: 0, Most: 85}.Draw(&l)
	l.Line(prints.Mark, c.X-4, c.Y, c.X+4, c.Y)
	l.Sentences(geom.Vec{X: prints.MarginMM + 2, Y: c.Y + 15},
		"Angle card. Let the pleat lie a minute, then hold the toy sideways: the second fold on the cross,",
		"the foot along 0° on the left. Read where the middle part points on the right, and take it from 180°,",
		"or lay the foot along 0° on the right and read the opening itself when it is under 85°.")
	l.Foot(prints.Order{Inches: inches}, "Tussock angle card")
	return l
}
