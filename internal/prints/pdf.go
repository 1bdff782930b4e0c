package prints

import (
	"bytes"
	"io"
	"math"
	"time"

	"codeberg.org/go-pdf/fpdf"
	"golang.org/x/image/font/gofont/goregular"

	"tussock/internal/geom"
	"tussock/internal/say"
)

// pen is how a kind of line is drawn: width and dashes in mm.
type pen struct {
	width float64
	dash  []float64
	grey  int
}

var pens = map[Kind]pen{
	Cut:      {0.3, nil, 0},
	Valley:   {0.2, []float64{3, 2}, 0},
	Mountain: {0.2, []float64{4.5, 1.5, 0.8, 1.5}, 0},
	Crease:   {0.15, []float64{0.4, 1.4}, 0},
	Seam:     {0.15, []float64{1, 1}, 120},
	Mark:     {0.15, nil, 0},
	Meet:     {0.35, nil, 0},
	Thin:     {0.12, nil, 90},
	Hatch:    {0.1, nil, 120},
	Band:     {0.1, []float64{0.6, 0.6}, 150},
}

// rimMM is how wide the rim of an area is drawn.
const rimMM = 0.18

// capPart is how high capitals are, as a part of a letter's size.
const capPart = 0.72

// pdf draws a picture of one's own.
func (m Image) pdf(pdf *fpdf.Fpdf) {
	if len(m.PNG) == 0 {
		return
	}
	how := fpdf.ImageOptions{ImageType: "PNG"}
	pdf.RegisterImageOptionsReader(m.Name, how, bytes.NewReader(m.PNG))
	points := make([]fpdf.PointType, len(m.Clip))
	for i, v := range m.Clip {
		points[i] = fpdf.PointType{X: v.X, Y: v.Y}
	}
	pdf.ClipPolygon(points, false)
	pdf.TransformBegin()
	pdf.TransformRotate(-geom.Deg(math.Atan2(m.Along.Y, m.Along.X)), m.Corner.X, m.Corner.Y)
	pdf.ImageOptions(m.Name, m.Corner.X, m.Corner.Y, m.Along.Len(), m.Along.Len(), false, how, 0, "")
	pdf.TransformEnd()
	pdf.ClipEnd()
}

// PDF writes leaves at true size. The same leaves give the same bytes.
func PDF(w io.Writer, title string, leaves []Leaf) error {
	pdf := fpdf.New("P", "mm", "A4", "")
	pdf.SetCreationDate(time.Unix(0, 0).UTC())
	pdf.SetModificationDate(time.Unix(0, 0).UTC())
	pdf.SetCatalogSort(true)
	pdf.SetTitle(title, true)
	pdf.SetCreator("Tussock", true)
	pdf.SetAutoPageBreak(false, 0)
	pdf.SetMargins(0, 0, 0)
	pdf.AddUTF8FontFromBytes(family, "", goregular.TTF)
	for _, l := range leaves {
		// The library turns a lying page itself; the size is given as it is.
		pdf.AddPageFormat("P", fpdf.SizeType{Wd: l.Page.WidthMM, Ht: l.Page.HeightMM})
		areas := func(fills []Fill) {
			pdf.SetDashPattern([]float64{}, 0)
			pdf.SetLineWidth(rimMM)
			pdf.SetDrawColor(0, 0, 0)
			for _, f := range fills {
				r, g, b, rim := f.rgb()
				pdf.SetFillColor(r, g, b)
				points := make([]fpdf.PointType, len(f.Points))
				for i, v := range f.Points {
					points[i] = fpdf.PointType{X: v.X, Y: v.Y}
				}
				style := "F"
				if rim {
					style = "FD"
				}
				pdf.Polygon(points, style)
			}
		}
		areas(l.Fills)
		for _, m := range l.Images {
			m.pdf(pdf)
		}
		for _, s := range l.Strokes {
			p := pens[s.Kind]
			pdf.SetLineWidth(p.width)
			pdf.SetDrawColor(p.grey, p.grey, p.grey)
			if p.dash == nil {
				pdf.SetDashPattern([]float64{}, 0)
			} else {
				pdf.SetDashPattern(p.dash, 0)
			}
			pdf.Line(s.A.X, s.A.Y, s.B.X, s.B.Y)
		}
		areas(l.Tops)
		for _, t := range l.Words {
			pdf.SetFont(family, "", t.SizeMM/25.4*72)
			pdf.SetTextColor(parts(t.Colour))
			text := say.OneLine(t.Text)
			x, y := t.At.X, t.At.Y
			if t.Centred {
				x -= pdf.GetStringWidth(text) / 2
			}
			if t.Middle {
				y += capPart * t.SizeMM / 2
			}
			if t.TurnDeg != 0 {
				pdf.TransformBegin()
				pdf.TransformRotate(t.TurnDeg, t.At.X, t.At.Y)
			}
			pdf.Text(x, y, text)
			if t.TurnDeg != 0 {
				pdf.TransformEnd()
			}
		}
	}
	var buf bytes.Buffer
	if err := pdf.Output(&buf); err != nil {
		return err
	}
	_, err := w.Write(buf.Bytes())
	return err
}
