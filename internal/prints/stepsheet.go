package prints

import (
	"fmt"
	"math"
	"slices"

	"tussock/internal/draw"
	"tussock/internal/geom"
)

// Panel is one step on a printed sheet.
type Panel struct {
	Picture draw.Picture
	Over    *draw.Overlay
	View    [4]float64    // what the picture is drawn in, so that all have one scale; zero for its own
	Second  *draw.Picture // half-way, or after it, beside the first; nil for none
	Head    string        // its number and name
	Text    string        // what to do
	Notes   []string      // when it looks right, why not later: each a paragraph
}

// Fill is an area on a leaf.
type Fill struct {
	Points []geom.Vec // its corners
	Tone   Tone
	Colour string // #rrggbb, for what people coloured: it has no rim; "" for the tone
}

// rgb are the parts of a colour, and whether it has a rim.
func (f Fill) rgb() (r, g, b int, rim bool) {
	if f.Colour == "" {
		return int(f.Tone), int(f.Tone), int(f.Tone), true
	}
	r, g, b = parts(f.Colour)
	return r, g, b, false
}

// parts of a colour #rrggbb; black for what is none.
func parts(colour string) (r, g, b int) {
	if _, err := fmt.Sscanf(colour, "#%02x%02x%02x", &r, &g, &b); err != nil {
		return 0, 0, 0
	}
	return r, g, b
}

// Tone is how dark an area is, 0 for black to 255 for white: good on any printer.
type Tone int

// The front of the paper, its other face, signs, and ink.
const (
	Ink   Tone = 0
	Shade Tone = 150
	Back  Tone = 205
	Front Tone = 255
)

// Layout is how many steps go on a page, and how large the type is.
type Layout struct {
	Cols, Rows int
	TypeMM     float64
}

// The layouts: usual, in large type, and all on as few pages as can be read.
var (
	Usual   = Layout{2, 3, 3.6}
	Large   = Layout{1, 2, 6.5}
	Summary = Layout{4, 5, 2.6}
)

// Steps lays steps out in the order of reading.
func Steps(title string, panels []Panel, page Page, l Layout) []Leaf {
	per := l.Cols * l.Rows
	pages := (len(panels) + per - 1) / per
	const head = 8.0
	w := (page.WidthMM - 2*MarginMM) / float64(l.Cols)
	h := (page.HeightMM - 2*MarginMM - head) / float64(l.Rows)
	var out []Leaf
	for p := range pages {
		leaf := Leaf{Page: page}
		leaf.Words = append(leaf.Words, Word{At: geom.Vec{X: MarginMM, Y: MarginMM + 4}, SizeMM: 4, Text: atMost(1, title, page.WidthMM-2*MarginMM-20, 4)[0]},
			Word{At: geom.Vec{X: page.WidthMM - MarginMM - 16, Y: MarginMM + 4}, SizeMM: 3, Text: fmt.Sprintf("%d of %d", p+1, pages)})
		for i, panel := range panels[p*per : min(len(panels), (p+1)*per)] {
			x, y := MarginMM+float64(i%l.Cols)*w, MarginMM+head+float64(i/l.Cols)*h
			leaf.panel(panel, x, y, w, h, l.TypeMM)
		}
		out = append(out, leaf)
	}
	return out
}

// panel draws one step into a box: words below, the picture as large as fits above.
func (l *Leaf) panel(p Panel, x, y, w, h, size float64) {
	line := size * 1.25
	words := paragraph(p.Text, w-4, size)
	var notes []string
	for _, n := range p.Notes {
		notes = append(notes, paragraph(n, w-4, size)...)
	}
	text := line * float64(1+len(words)+len(notes))
	l.Words = append(l.Words, Word{At: geom.Vec{X: x + 2, Y: y + size}, SizeMM: size * 1.15, Text: atMost(1, p.Head, w-4, size*1.15)[0]})
	at := y + h - text + line - 1
	for _, t := range append(words, notes...) {
		l.Words = append(l.Words, Word{At: geom.Vec{X: x + 2, Y: at}, SizeMM: size, Text: t})
		at += line
	}
	x, y, h, wide := x+3, y+line+1, h-text-line-3, w-6
	if p.Second != nil {
		second := secondPart * wide
		wide -= second + 2
		l.picture(Panel{Picture: *p.Second}, x+wide+2, y+h/4, second, 0.6*h, 0)
	}
	l.picture(p, x, y, wide, h, 0.8*size)
	x, y, h = x-3, y-line-1, h+text+line+3
	l.Line(Seam, x, y+h-0.5, x+w, y+h-0.5)
}

// secondPart is the part of a panel's width that its second picture takes.
const secondPart = 0.36

// picture scales a picture into a box. Figures on it are at least so tall.
func (l *Leaf) picture(p Panel, x, y, w, h, size float64) {
	v := p.Picture.View
	if p.Over != nil && p.Over.View[2] > 0 {
		v = p.Over.View
	}
	if p.View[2] > 0 {
		v = p.View
	}
	k := math.Min(w/v[2], h/v[3])
	ox, oy := x+(w-k*v[2])/2-k*v[0], y+(h-k*v[3])/2-k*v[1]
	at := func(px, py float64) geom.Vec { return geom.Vec{X: ox + k*px, Y: oy + k*py} }
	segments := func(kind Kind, pts []float64) {
		for i := 0; i+3 < len(pts); i += 4 {
			l.Strokes = append(l.Strokes, Stroke{kind, at(pts[i], pts[i+1]), at(pts[i+2], pts[i+3])})
		}
	}
	for _, f := range p.Picture.Faces {
		tone := Back
		if f.Front {
			tone = Front
		}
		if f.Moves { // what is on its way is a shade darker, hidden parts of it are not seen
			tone = Shade
		}
		l.Fills = append(l.Fills, Fill{Points: corners(f.Points, at), Tone: tone})
		segments(Thin, f.Creases)
	}
	for _, t := range p.Picture.Written {
		if len(t.Line) == 4 {
			segments(Mark, t.Line)
			continue
		}
		if t.Text == "" {
			continue
		}
		m := t.Place
		l.Words = append(l.Words, Word{At: at(m[4], m[5]), SizeMM: k * t.SizeMM * math.Hypot(m[2], m[3]), Text: t.Text, Centred: true, Middle: true,
			TurnDeg: geom.Deg(math.Atan2(-m[1], m[0]))})
	}
	if p.Over == nil {
		return
	}
	for _, m := range p.Over.Moving {
		l.hatch(corners(m.Points, at))
	}
	for _, s := range p.Over.Strokes {
		kind := map[string]Kind{"valley": Valley, "mountain": Mountain, "cut": Cut, "axis": Crease, "hidden": Crease}[s.Kind]
		if kind == "" {
			kind = Meet
		}
		for i := 0; i+3 < len(s.Points); i += 2 {
			l.Strokes = append(l.Strokes, Stroke{kind, at(s.Points[i], s.Points[i+1]), at(s.Points[i+2], s.Points[i+3])})
		}
	}
	for _, a := range p.Over.Arrows {
		l.arrow(a, at)
	}
	l.sizes(p.Over.Sizes, k, at, size)
	for _, s := range p.Over.Signs {
		for _, q := range s.Shapes {
			tone := map[string]Tone{"mark": Shade, "paper": Front, "ink": Ink}[q.Fill]
			l.Tops = append(l.Tops, Fill{Points: corners(q.Points, at), Tone: tone})
		}
	}
}

// sizes writes what is to be measured.
func (l *Leaf) sizes(all []draw.Size, k float64, at func(x, y float64) geom.Vec, least float64) {
	for _, s := range all {
		for i := 0; i+3 < len(s.Lines); i += 4 {
			l.Strokes = append(l.Strokes, Stroke{Thin, at(s.Lines[i], s.Lines[i+1]), at(s.Lines[i+2], s.Lines[i+3])})
		}
		l.Words = append(l.Words, Word{At: at(s.At[0], s.At[1]), SizeMM: math.Max(least, k*s.TallMM), Text: s.Text, Centred: true, Middle: true, TurnDeg: -s.TurnDeg})
	}
}

// corners are points of a picture where they lie on the leaf.
func corners(points []float64, at func(x, y float64) geom.Vec) []geom.Vec {
	out := make([]geom.Vec, 0, len(points)/2)
	for i := 0; i+1 < len(points); i += 2 {
		out = append(out, at(points[i], points[i+1]))
	}
	return out
}

// arrow draws its curve by short lines, and its heads.
func (l *Leaf) arrow(a draw.Arrow, at func(x, y float64) geom.Vec) {
	c := corners(a.Shaft, at)
	const parts = 16
	last := c[0]
	for i := 1; i <= parts; i++ {
		p, q, r := c[0].Lerp(c[1], float64(i)/parts), c[1].Lerp(c[2], float64(i)/parts), c[2].Lerp(c[3], float64(i)/parts)
		next := p.Lerp(q, float64(i)/parts).Lerp(q.Lerp(r, float64(i)/parts), float64(i)/parts)
		// What goes behind is drawn broken.
		if !a.Broken || i%3 != 0 {
			l.Strokes = append(l.Strokes, Stroke{Meet, last, next})
		}
		last = next
	}
	for _, h := range a.Heads {
		tone := Ink
		if h.Hollow {
			tone = Front
		}
		l.Tops = append(l.Tops, Fill{Points: corners(h.Points, at), Tone: tone})
	}
}

// hatchMM is how far the lines lie apart that shade what moves.
const hatchMM = 1.2

// hatch shades an area by slanted lines, which any printer shows.
func (l *Leaf) hatch(area geom.Polygon) {
	if area.Area() < 0 { // the leaf's heights run downwards
		slices.Reverse(area)
	}
	n := geom.Vec{X: 1, Y: 1}.Unit()
	lo, hi := math.Inf(1), math.Inf(-1)
	for _, v := range area {
		lo, hi = math.Min(lo, n.Dot(v)), math.Max(hi, n.Dot(v))
	}
	for k := math.Ceil(lo / hatchMM); k*hatchMM < hi; k++ {
		if s, ok := area.ClipLine(geom.Line{N: n, D: k * hatchMM}); ok {
			l.Strokes = append(l.Strokes, Stroke{Hatch, s.A, s.B})
		}
	}
}
