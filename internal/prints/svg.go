package prints

import (
	"cmp"
	"encoding/base64"
	"fmt"
	"slices"
	"strings"

	"tussock/internal/geom"
	"tussock/internal/say"
)

// Whole lays an order out on one page that is as large as it must be, for a plotter
// or a drawing program. Errors are those of Lay.
func Whole(o Order) (Leaf, error) {
	b := geom.EmptyBox().Grow(o.Outline...)
	// The foot's words need some width.
	o.Page = Page{"whole", max(b.Width(), 160) + 2*MarginMM + 1, b.Height() + 2*MarginMM + footMM + 1}
	o.Front = !o.Back
	leaves, err := Lay(o)
	if err != nil {
		return Leaf{}, err
	}
	return leaves[0], nil
}

// Stacked puts leaves below one another on one.
func Stacked(leaves []Leaf) Leaf {
	var out Leaf
	for _, l := range leaves {
		down := geom.Vec{Y: out.Page.HeightMM}
		moved := func(fills []Fill) (out []Fill) {
			for _, f := range fills {
				points := make([]geom.Vec, len(f.Points))
				for i, v := range f.Points {
					points[i] = v.Add(down)
				}
				out = append(out, Fill{points, f.Tone, f.Colour})
			}
			return out
		}
		out.Fills, out.Tops = append(out.Fills, moved(l.Fills)...), append(out.Tops, moved(l.Tops)...)
		for _, s := range l.Strokes {
			out.Strokes = append(out.Strokes, Stroke{s.Kind, s.A.Add(down), s.B.Add(down)})
		}
		for _, m := range l.Images {
			m.Corner = m.Corner.Add(down)
			m.Clip = slices.Clone(m.Clip)
			for i := range m.Clip {
				m.Clip[i] = m.Clip[i].Add(down)
			}
			out.Images = append(out.Images, m)
		}
		for _, w := range l.Words {
			w.At = w.At.Add(down)
			out.Words = append(out.Words, w)
		}
		out.Page = Page{"stacked", max(out.Page.WidthMM, l.Page.WidthMM), out.Page.HeightMM + l.Page.HeightMM}
	}
	return out
}

// svg draws the i-th picture of one's own.
func (m Image) svg(b *strings.Builder, i int) {
	if len(m.PNG) == 0 {
		return
	}
	points := make([]string, len(m.Clip))
	for i, v := range m.Clip {
		points[i] = fmt.Sprintf("%.3f,%.3f", v.X, v.Y)
	}
	fmt.Fprintf(b, `<clipPath id="c%d"><polygon points="%s"/></clipPath>`+"\n", i, strings.Join(points, " "))
	fmt.Fprintf(b, `<g clip-path="url(#c%d)"><image width="1" height="1" preserveAspectRatio="none" transform="matrix(%.4f %.4f %.4f %.4f %.3f %.3f)" href="data:image/png;base64,%s"/></g>`+"\n",
		i, m.Along.X, m.Along.Y, -m.Along.Y, m.Along.X, m.Corner.X, m.Corner.Y, base64.StdEncoding.EncodeToString(m.PNG))
}

// SVG writes one leaf at true size, in mm.
func SVG(l Leaf) string {
	var b strings.Builder
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" width="%gmm" height="%gmm" viewBox="0 0 %g %g" fill="none" stroke="#000">`+"\n",
		l.Page.WidthMM, l.Page.HeightMM, l.Page.WidthMM, l.Page.HeightMM)
	areas := func(fills []Fill) {
		for _, f := range fills {
			points := make([]string, len(f.Points))
			for i, v := range f.Points {
				points[i] = fmt.Sprintf("%.3f,%.3f", v.X, v.Y)
			}
			red, green, blue, rim := f.rgb()
			wide := rimMM
			if !rim {
				wide = 0
			}
			fmt.Fprintf(&b, `<polygon fill="#%02x%02x%02x" stroke-width="%g" points="%s"/>`+"\n", red, green, blue, wide, strings.Join(points, " "))
		}
	}
	areas(l.Fills)
	for i, m := range l.Images {
		m.svg(&b, i)
	}
	for _, s := range l.Strokes {
		p := pens[s.Kind]
		dash := ""
		if p.dash != nil {
			dash = ` stroke-dasharray="` + strings.Trim(strings.ReplaceAll(fmt.Sprint(p.dash), " ", ","), "[]") + `"`
		}
		fmt.Fprintf(&b, `<path class="%s" stroke-width="%g"%s d="M%.3f %.3fL%.3f %.3f"/>`+"\n", s.Kind, p.width, dash, s.A.X, s.A.Y, s.B.X, s.B.Y)
	}
	areas(l.Tops)
	escape := strings.NewReplacer("&", "&amp;", "<", "&lt;", ">", "&gt;")
	for _, t := range l.Words {
		anchor := ""
		if t.Centred {
			anchor = ` text-anchor="middle"`
		}
		if t.Middle {
			anchor += ` dominant-baseline="central"`
		}
		if t.TurnDeg != 0 {
			anchor += fmt.Sprintf(` transform="rotate(%g %.3f %.3f)"`, -t.TurnDeg, t.At.X, t.At.Y)
		}
		fmt.Fprintf(&b, `<text x="%.3f" y="%.3f" font-size="%g" font-family="sans-serif" fill="%s" stroke="none"%s>%s</text>`+"\n", t.At.X, t.At.Y, t.SizeMM, cmp.Or(t.Colour, "#000"), anchor, escape.Replace(say.OneLine(t.Text)))
	}
	b.WriteString("</svg>\n")
	return b.String()
}
