package draw

import (
	"cmp"
	"encoding/xml"
	"fmt"
	"strconv"
	"strings"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Colours of the two faces of the sheet, as #rrggbb.
type Colours struct{ Front, Back string }

// Plain paper: the back a shade darker, so that the faces are told apart.
var Plain = Colours{sheet.PlainFront, sheet.PlainBack}

// Ink, the colour of what is to be done, and what shows in a hollow head.
const (
	ink    = "#10302f"
	mark   = "#ff6b2c"
	hollow = "#fdf8ea"
)

var dashes = map[string]string{"valley": "3 2", "mountain": "4.5 1.5 0.8 1.5", "axis": "0.7 2", "cut": "1 1", "hidden": "1.2 1.6"}

// svg collects a picture in user units.
type svg struct{ b strings.Builder }

func (w *svg) f(format string, a ...any) { fmt.Fprintf(&w.b, format, a...) }

func num(v float64) string { return strconv.FormatFloat(round(v), 'f', -1, 64) }

func pts(p []float64) string {
	out := make([]string, 0, len(p)/2)
	for i := 0; i+1 < len(p); i += 2 {
		out = append(out, num(p[i])+","+num(p[i+1]))
	}
	return strings.Join(out, " ")
}

func escaped(s string) string {
	var b strings.Builder
	if err := xml.EscapeText(&b, []byte(s)); err != nil {
		return ""
	}
	return b.String()
}

// paper draws pieces in paint order; size is the longer side of the view.
func (w *svg) paper(p Picture, c Colours, size float64) {
	thin := size * 0.0028
	for _, f := range p.Faces {
		fill := c.Back
		if f.Front {
			fill = c.Front
		}
		rim, width := ink, thin
		if f.Plain {
			rim, width = fill, thin*0.4
		}
		w.f(`<polygon points="%s" fill="%s" stroke="%s" stroke-width="%s" stroke-linejoin="round"/>`, pts(f.Points), fill, rim, num(width))
		if f.Moves {
			w.f(`<polygon points="%s" fill="%s" fill-opacity="0.22"/>`, pts(f.Points), mark)
		}
		for i := 0; i+3 < len(f.Edges); i += 4 {
			w.f(`<polyline points="%s" fill="none" stroke="%s" stroke-width="%s" stroke-linecap="round"/>`, pts(f.Edges[i:i+4]), ink, num(thin))
		}
		for i := 0; i+3 < len(f.Creases); i += 4 {
			w.f(`<polyline points="%s" fill="none" stroke="%s" stroke-width="%s" stroke-opacity="0.6"/>`, pts(f.Creases[i:i+4]), ink, num(thin*0.6))
		}
	}
}

// written draws what is written on the paper.
func (w *svg) written(p Picture, size float64) {
	for _, t := range p.Written {
		faint := ""
		if t.Behind {
			faint = ` opacity="0.4"`
		}
		if len(t.Line) == 4 {
			w.f(`<polyline points="%s" fill="none" stroke="%s" stroke-width="%s"%s/>`, pts(t.Line), ink, num(size*0.004), faint)
			continue
		}
		if t.Zone != "" || t.Image != "" {
			continue
		}
		tone := cmp.Or(t.Colour, ink)
		if len(t.Area) > 0 {
			w.f(`<polygon points="%s" fill="%s"%s/>`, pts(t.Area), tone, faint)
			continue
		}
		m := make([]string, len(t.Place))
		for i, v := range t.Place {
			m[i] = strconv.FormatFloat(v, 'f', -1, 64)
		}
		if t.WideMM > 0 { // as wide as it prints, whatever the font
			faint += fmt.Sprintf(` textLength="%s" lengthAdjust="spacingAndGlyphs"`, num(t.WideMM))
		}
		w.f(`<text transform="matrix(%s)" font-size="%s" font-family="sans-serif" font-weight="700" text-anchor="middle" dominant-baseline="central" fill="%s"%s>%s</text>`,
			strings.Join(m, " "), num(t.SizeMM), tone, faint, escaped(t.Text))
	}
}

// overlay draws what to do.
func (w *svg) overlay(o Overlay, size float64) {
	line := size * 0.005
	for _, m := range o.Moving {
		w.f(`<polygon points="%s" fill="%s" fill-opacity="0.22"/>`, pts(m.Points), mark)
	}
	for _, s := range o.Strokes {
		dash := ""
		if d, ok := dashes[s.Kind]; ok {
			parts := strings.Fields(d)
			for i, p := range parts {
				v, err := strconv.ParseFloat(p, 64)
				if err == nil {
					parts[i] = num(v * size * 0.006)
				}
			}
			dash = fmt.Sprintf(` stroke-dasharray="%s"`, strings.Join(parts, " "))
		}
		width := line
		if s.Kind == "meet" {
			width *= 1.7
		}
		w.f(`<polyline points="%s" fill="none" stroke="#fdf8ea" stroke-opacity="0.8" stroke-width="%s"/>`, pts(s.Points), num(width*2))
		w.f(`<polyline points="%s" fill="none" stroke="%s" stroke-width="%s"%s/>`, pts(s.Points), ink, num(width), dash)
	}
	for _, a := range o.Arrows {
		p := a.Shaft
		dash := ""
		if a.Broken {
			dash = fmt.Sprintf(` stroke-dasharray="%s %s"`, num(size*0.02), num(size*0.014))
		}
		w.f(`<path d="M%s %sC%s" fill="none" stroke="%s" stroke-width="%s"%s/>`, num(p[0]), num(p[1]), pts(p[2:]), ink, num(line*1.2), dash)
		for _, h := range a.Heads {
			fill := ink
			if h.Hollow {
				fill = hollow
			}
			w.f(`<polygon points="%s" fill="%s" stroke="%s" stroke-width="%s" stroke-linejoin="round"/>`, pts(h.Points), fill, ink, num(line*0.8))
		}
	}
	for _, s := range o.Signs {
		for _, q := range s.Shapes {
			w.f(`<polygon points="%s" fill="%s" stroke="%s" stroke-width="%s"/>`, pts(q.Points), fills[q.Fill], ink, num(line*0.6))
		}
	}
	for _, s := range o.Sizes {
		for i := 0; i+3 < len(s.Lines); i += 4 {
			w.f(`<polyline points="%s" fill="none" stroke="%s" stroke-width="%s"/>`, pts(s.Lines[i:i+4]), ink, num(line*0.6))
		}
		w.f(`<text transform="translate(%s %s) rotate(%s)" font-size="%s" font-family="sans-serif" font-weight="700" text-anchor="middle" dominant-baseline="central" fill="%s" stroke="%s" stroke-width="%s" paint-order="stroke">%s</text>`,
			num(s.At[0]), num(s.At[1]), num(s.TurnDeg), num(s.TallMM), ink, hollow, num(s.TallMM*0.25), escaped(s.Text))
	}
}

// fills are the colours that parts of signs have.
var fills = map[string]string{"mark": mark, "ink": ink, "paper": hollow}

// SVG is one picture at true size, with what to do over it if next is given.
func SVG(p Picture, next *Overlay, c Colours) string {
	v := p.View
	if next != nil {
		v = next.View
	}
	size := max(v[2], v[3])
	pad := size * 0.06
	var w svg
	w.f(`<svg xmlns="http://www.w3.org/2000/svg" width="%smm" height="%smm" viewBox="%s %s %s %s">`,
		num(v[2]+2*pad), num(v[3]+2*pad), num(v[0]-pad), num(v[1]-pad), num(v[2]+2*pad), num(v[3]+2*pad))
	w.paper(p, c, size)
	w.written(p, size)
	if next != nil {
		w.overlay(*next, size)
	}
	w.f(`</svg>`)
	return say.Plain(w.b.String()) + "\n"
}

// Fault marks, on the last good state of a replay that could not go on, the pieces
// that the fault is about; nil when it is about none.
func Fault(r *sequence.Replay) *Overlay {
	s := r.Final()
	drawn := nothing(s.Box())
	o := &drawn
	for _, f := range fold.As(r.Err).Pieces {
		if int(f) >= len(s.F) || f < 0 {
			continue
		}
		p := s.Folded(f)
		o.Moving = append(o.Moving, Region{Points: flatPoints(p...)})
		o.Strokes = append(o.Strokes, Stroke{"meet", flatPoints(append(append([]geom.Vec{}, p...), p[0])...)})
	}
	if len(o.Moving) == 0 {
		return nil
	}
	return o
}

// Failure is the last good state with what the fault is about, as SVG.
func Failure(r *sequence.Replay) string {
	return SVG(Flat(r.Final()), Fault(r), Plain)
}
