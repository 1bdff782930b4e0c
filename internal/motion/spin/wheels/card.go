package wheels

import (
	"fmt"
	"math"

	"tussock/internal/geom"
	"tussock/internal/prints"
)

// mainsFlashes are how often lamps on the mains flicker a second: twice the frequency.
const mainsFlashes = 100

// strobeDisc is rings of dark and light sectors: under a lamp that flickers a hundred times a
// second the ring of a rate seems to stand still at that rate.
func strobeDisc(page prints.Page, _ float64, inches bool) prints.Leaf {
	l := prints.Leaf{Page: page}
	c := geom.Vec{X: page.WidthMM / 2, Y: 100}
	rings := []int{50, 25, 20, 10, 5} // sectors: turns a second are flashes over sectors
	const outer, wide = 62.0, 10.0
	for i, n := range rings {
		r1 := outer - wide*float64(i)
		r0 := r1 - wide + 1.5
		for k := range n {
			a0 := 2 * math.Pi * float64(k) / float64(n)
			fillSector(&l, c, r0, r1, a0, a0+math.Pi/float64(n))
		}
		l.Words = append(l.Words, prints.Word{At: geom.Vec{X: c.X + outer + 12, Y: c.Y - outer + 8*float64(i) + 4}, SizeMM: 2.8,
			Text: fmt.Sprintf("ring %d: %d turns a second", i+1, mainsFlashes/n)})
	}
	l.Line(prints.Mark, c.X-3, c.Y, c.X+3, c.Y)
	l.Line(prints.Mark, c.X, c.Y-3, c.X, c.Y+3)
	l.Sentences(geom.Vec{X: prints.MarginMM + 2, Y: c.Y + outer + 14},
		"Strobe disc. Cut it out, put it on the axle behind the wheel, so that it turns along with it. Rings count from",
		"the rim. Under a lamp that flickers on mains of 50 Hz the ring of the rate seems to stand still; on 60 Hz all",
		"rates are a fifth higher. Some lamps do not flicker: a telephone's slow film does as well. It weighs the wheel",
		"down: the rate stays, the start takes longer.")
	l.Foot(prints.Order{Inches: inches}, "Tussock strobe disc")
	return l
}

// fillSector darkens a piece of a ring.
func fillSector(l *prints.Leaf, c geom.Vec, r0, r1, a0, a1 float64) {
	const steps = 6
	var shape geom.Polygon
	for k := range steps + 1 {
		sin, cos := math.Sincos(a0 + (a1-a0)*float64(k)/steps)
		shape = append(shape, geom.Vec{X: c.X + r1*cos, Y: c.Y + r1*sin})
	}
	for k := steps; k >= 0; k-- {
		sin, cos := math.Sincos(a0 + (a1-a0)*float64(k)/steps)
		shape = append(shape, geom.Vec{X: c.X + r0*cos, Y: c.Y + r0*sin})
	}
	l.Fills = append(l.Fills, prints.Fill{Points: shape, Tone: prints.Ink})
}
