package prints

import (
	"fmt"
	"math"

	"tussock/internal/geom"
	"tussock/internal/say"
	"tussock/internal/sheet"
)

// CheckMM and CheckIn are the lengths of the line that a printer is checked by.
const (
	CheckMM = 100.0
	CheckIn = 4.0
)

// clipped adds the part of a line of the sheet that a page shows.
func (l *Leaf) clipped(k Kind, s geom.Segment, w geom.Box, p placing) {
	window := geom.Polygon{{X: w.MinX, Y: w.MinY}, {X: w.MaxX, Y: w.MinY}, {X: w.MaxX, Y: w.MaxY}, {X: w.MinX, Y: w.MaxY}}
	line, ok := geom.LineThrough(s.A, s.B)
	if !ok {
		return
	}
	in, ok := window.ClipLine(line)
	if !ok {
		return
	}
	d := s.B.Sub(s.A).Unit()
	t := func(v geom.Vec) float64 { return d.Dot(v.Sub(s.A)) }
	lo, hi := max(0, min(t(in.A), t(in.B))), min(s.Len(), max(t(in.A), t(in.B)))
	if hi-lo > geom.OnPaper {
		l.Strokes = append(l.Strokes, Stroke{k, p.at(s.A.Add(d.Scale(lo))), p.at(s.A.Add(d.Scale(hi)))})
	}
}

// guides adds the folds. A valley of the front is a mountain of the back.
func (l *Leaf) guides(all []Guide, band float64, w geom.Box, p placing) {
	for _, g := range all {
		k := g.Kind
		if p.back && k == Valley {
			k = Mountain
		} else if p.back && k == Mountain {
			k = Valley
		}
		l.clipped(k, g.Segment, w, p)
		if band > 0 {
			off := g.B.Sub(g.A).Unit().Left().Scale(band)
			l.clipped(Band, geom.Segment{A: g.A.Add(off), B: g.B.Add(off)}, w, p)
			l.clipped(Band, geom.Segment{A: g.A.Sub(off), B: g.B.Sub(off)}, w, p)
		}
	}
}

// Line draws from a spot to another, mm from the top left of the page.
func (l *Leaf) Line(k Kind, x1, y1, x2, y2 float64) {
	l.Strokes = append(l.Strokes, Stroke{k, geom.Vec{X: x1, Y: y1}, geom.Vec{X: x2, Y: y2}})
}

// How far the crosses stand from the edges, and how long their arms are.
const crossIn, crossArm = 6.0, 2.5

// apart says how far the lower crosses are from each other, in the person's unit: the check
// of a print that has no room for a line of its own.
func (l *Leaf) apart(o Order) {
	words := sheet.Number(math.Round(10*(o.Page.WidthMM-2*crossIn))/10) + " mm from cross to cross"
	if o.Inches {
		words = say.Sixteenths(o.Page.WidthMM-2*crossIn) + " in from cross to cross"
	}
	l.Words = append(l.Words, Word{At: geom.Vec{X: o.Page.WidthMM / 2, Y: o.Page.HeightMM - crossIn + 0.8}, SizeMM: 2.2, Text: words, Centred: true})
}

// crosses stand at the same places of front and back, seen through the paper.
func (l *Leaf) crosses(p Page) {
	const in, arm = crossIn, crossArm
	for _, x := range []float64{in, p.WidthMM - in} {
		for _, y := range []float64{in, p.HeightMM - in} {
			l.Line(Mark, x-arm, y, x+arm, y)
			l.Line(Mark, x, y-arm, x, y+arm)
		}
	}
}

func (l *Leaf) diamond(c geom.Vec, r float64) {
	corners := []geom.Vec{{X: c.X - r, Y: c.Y}, {X: c.X, Y: c.Y - r}, {X: c.X + r, Y: c.Y}, {X: c.X, Y: c.Y + r}}
	for i, a := range corners {
		l.Strokes = append(l.Strokes, Stroke{Mark, a, corners[(i+1)%4]})
	}
}

// down marks the face that lies on the table when folding begins.
func (l *Leaf) down(c geom.Vec) {
	l.Line(Mark, c.X, c.Y-9, c.X, c.Y-1)
	l.Line(Mark, c.X, c.Y-1, c.X-2, c.Y-3.5)
	l.Line(Mark, c.X, c.Y-1, c.X+2, c.Y-3.5)
	l.Line(Mark, c.X-7, c.Y, c.X+7, c.Y)
	l.Words = append(l.Words, Word{At: geom.Vec{X: c.X, Y: c.Y + 5}, SizeMM: 3.5, Text: "this side down at the start", Centred: true})
}

// Foot holds the words, the check length and a ruler to cut off.
func (l *Leaf) Foot(o Order, title string) {
	h := l.Page.HeightMM - MarginMM
	x := MarginMM + 2.0
	wide := l.Page.WidthMM - 2*MarginMM - 4
	const size, lines = 2.9, 2
	for i, part := range atMost(lines, title, wide, size) {
		l.Words = append(l.Words, Word{At: geom.Vec{X: x, Y: h - footMM + 6 + 3.6*float64(i)}, SizeMM: size, Text: part})
	}
	length, words := CheckMM, "This line is 100 mm long. If it is not, print at 100 %, without fitting to the page."
	if o.Inches {
		length, words = CheckIn*sheet.MMPerInch, "This line is 4 in long. If it is not, print at 100 %, without fitting to the page."
	}
	y := h - 8.5
	l.Line(Mark, x, y, x+length, y)
	for _, e := range []float64{x, x + length} {
		l.Line(Mark, e, y-1.5, e, y+1.5)
	}
	l.Words = append(l.Words, Word{At: geom.Vec{X: x + length + 2, Y: y + 1}, SizeMM: 2.2, Text: words})
	l.ruler(x, h-1, o.Inches, wide)
}

// ruler runs along the lower rim: mm with numbers in cm, or inches to 1/16.
func (l *Leaf) ruler(x, y float64, inches bool, wide float64) {
	step, unit, every := 1.0, 10.0, 10
	if inches {
		step, unit, every = sheet.MMPerInch/16, sheet.MMPerInch, 16
	}
	units := int(wide / unit)
	for i := range units*every + 1 {
		long := 1.5
		switch {
		case i%every == 0:
			long = 4.5
		case i%(every/2) == 0:
			long = 3
		}
		at := x + float64(i)*step
		l.Line(Mark, at, y, at, y-long)
		if i%every == 0 {
			l.Words = append(l.Words, Word{At: geom.Vec{X: at + 0.6, Y: y - 3}, SizeMM: 2, Text: fmt.Sprint(i / every)})
		}
	}
	l.Line(Mark, x, y, x+float64(units)*unit, y)
}
