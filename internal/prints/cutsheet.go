package prints

import (
	"fmt"
	"math"

	"tussock/internal/geom"
	"tussock/internal/say"
)

// CutPart is a piece, or what is left over, on a sheet that is cut; mm from its lower left
// corner.
type CutPart struct {
	Name                    string
	X, Y, WidthMM, HeightMM float64
	Leftover                bool
	Outlines                []geom.Polygon // of the pieces in it that are no rectangles
}

// CutSheet is a sheet with its cuts in order, and how many are cut alike.
type CutSheet struct {
	Name              string
	Count             int
	WidthMM, HeightMM float64
	Parts             []CutPart
	Cuts              []geom.Segment
	Words             []string // of the cuts
}

// CutPlan lays a plan out, one page for all sheets that are cut alike, with their count on
// it. A sheet that has room on the page is drawn at true size.
func CutPlan(sheets []CutSheet, page Page, u say.Units) []Leaf {
	var out []Leaf
	for _, s := range sheets {
		out = append(out, s.leaf(page, u))
	}
	return out
}

const cutHeadMM, cutLineMM, cutTypeMM = 16.0, 4.4, 3.2

func (s CutSheet) leaf(page Page, u say.Units) Leaf {
	l := Leaf{Page: page}
	room := geom.Vec{X: page.WidthMM - 2*MarginMM, Y: page.HeightMM - 2*MarginMM - cutHeadMM - cutLineMM*float64(len(s.Words)+1)}
	scale := math.Min(1, math.Min(room.X/s.WidthMM, math.Max(60, room.Y)/s.HeightMM))
	times := fmt.Sprintf("Cut %d sheets like this", s.Count)
	if s.Count == 1 {
		times = "Cut one sheet like this"
	}
	size := say.In(u, say.By(s.WidthMM, s.HeightMM, 1))
	drawn := "Drawn at true size."
	if scale < 1 {
		drawn = fmt.Sprintf("Drawn at %.0f %% of its size; the lengths are those of the sheet.", 100*scale)
	}
	word := func(x, y, size float64, text string) {
		l.Words = append(l.Words, Word{At: geom.Vec{X: x, Y: y}, SizeMM: size, Text: text})
	}
	word(MarginMM, MarginMM+6, 6, times)
	name := size
	if s.Name != "" {
		name = s.Name + ", " + size
	}
	word(MarginMM, MarginMM+11.5, 3.6, name+". "+drawn)
	at := func(v geom.Vec) geom.Vec {
		return geom.Vec{X: MarginMM + v.X*scale, Y: MarginMM + cutHeadMM + (s.HeightMM-v.Y)*scale}
	}
	line := func(k Kind, a, b geom.Vec) { l.Strokes = append(l.Strokes, Stroke{k, at(a), at(b)}) }
	round := func(k Kind, p geom.Polygon) {
		for i, a := range p {
			line(k, a, p[(i+1)%len(p)])
		}
	}
	box := func(x, y, w, h float64) geom.Polygon {
		return geom.Polygon{{X: x, Y: y}, {X: x + w, Y: y}, {X: x + w, Y: y + h}, {X: x, Y: y + h}}
	}
	round(Cut, box(0, 0, s.WidthMM, s.HeightMM))
	for _, p := range s.Parts {
		kind, label := Thin, p.Name
		if p.Leftover {
			kind, label = Seam, "left over"
		}
		round(kind, box(p.X, p.Y, p.WidthMM, p.HeightMM))
		for _, o := range p.Outlines {
			round(Meet, o)
		}
		mid := at(geom.Vec{X: p.X + p.WidthMM/2, Y: p.Y + p.HeightMM/2})
		size := say.In(u, say.By(p.WidthMM, p.HeightMM, 1))
		high := math.Min(cutTypeMM, math.Min(p.WidthMM*scale/(0.55*float64(max(len(size), len(label), 1))), p.HeightMM*scale/3))
		if high < 1.2 {
			continue
		}
		l.Words = append(l.Words, Word{At: geom.Vec{X: mid.X, Y: mid.Y - 0.3*high}, SizeMM: high, Text: label, Centred: true},
			Word{At: geom.Vec{X: mid.X, Y: mid.Y + high}, SizeMM: high, Text: size, Centred: true})
	}
	for i, c := range s.Cuts {
		line(Cut, c.A, c.B)
		d := c.B.Sub(c.A)
		spot := at(c.A.Add(d.Scale(math.Min(0.5, 8/math.Max(1, d.Len())))))
		l.Words = append(l.Words, Word{At: geom.Vec{X: spot.X + 1, Y: spot.Y - 1}, SizeMM: cutTypeMM, Text: fmt.Sprint(i + 1)})
	}
	y := MarginMM + cutHeadMM + s.HeightMM*scale + 2*cutLineMM
	for i, w := range s.Words {
		word(MarginMM, y+cutLineMM*float64(i), cutTypeMM, fmt.Sprintf("%d  %s", i+1, say.In(u, w)))
	}
	return l
}
