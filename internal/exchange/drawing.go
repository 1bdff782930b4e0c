package exchange

import (
	"encoding/xml"
	"fmt"
	"strconv"
	"strings"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// Kind is a kind of line of a drawing: a layer of its own in SVG and DXF.
type Kind string

// The kinds, in the order in which they are drawn.
const (
	EdgeKind     Kind = "EDGE"
	CreaseKind   Kind = "CREASE" // folded and opened again
	MountainKind Kind = "MOUNTAIN"
	ValleyKind   Kind = "VALLEY"
	OutlineKind  Kind = "OUTLINE" // of the folded toy
	LabelKind    Kind = "LABEL"   // what is written on the sheet, and creases that end inside it
)

var kinds = []Kind{EdgeKind, CreaseKind, MountainKind, ValleyKind, OutlineKind, LabelKind}

// DrawnLine is one line of a drawing, mm, y up.
type DrawnLine struct {
	Kind Kind
	geom.Segment
}

// Drawing is a crease map at true size, and beside it the outline of the folded
// toy.
type Drawing struct {
	Lines []DrawnLine
	Texts []DrawnText
	Box   geom.Box
}

// DrawnText is what is written on the sheet: At its middle, turned against the clock. What
// is on the back reads rightly from there.
type DrawnText struct {
	At              geom.Vec
	SizeMM, TurnDeg float64
	Text            string
	Back            bool
}

// besideMM is the room between the crease map and the outline.
const besideMM = 20.0

// CreaseMap draws the flat sheet with every crease; rims are the outline of the
// folded toy (none leaves it out), drawn to the right. notes are written on the map.
func CreaseMap(s *fold.State, rims []geom.Polygon, notes []sequence.Note) Drawing {
	var d Drawing
	put := func(k Kind, a, b geom.Vec) {
		d.Lines = append(d.Lines, DrawnLine{k, geom.Segment{A: a, B: b}})
		d.Box = d.Box.Grow(a, b)
	}
	d.Box = geom.EmptyBox()
	m := meshOf(s)
	for _, e := range m.edges {
		switch e.assigned {
		case "B":
			put(EdgeKind, m.at[e.a], m.at[e.b])
		case "F":
			put(CreaseKind, m.at[e.a], m.at[e.b])
		case "M":
			put(MountainKind, m.at[e.a], m.at[e.b])
		case "V":
			put(ValleyKind, m.at[e.a], m.at[e.b])
		}
	}
	for _, n := range notes {
		switch {
		case n.Kind == sequence.OpLabel && n.Text != "":
			d.Texts = append(d.Texts, DrawnText{n.At, n.SizeMM, n.TurnDeg, n.Text, n.OnBack})
		case n.Kind == sequence.OpInk || n.Kind == sequence.OpPinch && n.FoldDeg != 0:
			put(LabelKind, n.At, n.To)
		}
	}
	if len(rims) == 0 {
		return d
	}
	box := geom.EmptyBox()
	for _, r := range rims {
		box = box.Grow(r...)
	}
	shift := geom.Vec{X: d.Box.MaxX + besideMM - box.MinX, Y: d.Box.MinY - box.MinY}
	for _, r := range rims {
		for i, v := range r {
			put(OutlineKind, v.Add(shift), r[(i+1)%len(r)].Add(shift))
		}
	}
	return d
}

func mm(v float64) string { return strconv.FormatFloat(tidy(v), 'f', -1, 64) }

// dash patterns in mm; valley dashes, mountain dash-dots, as is the field's habit.
var drawnDashes = map[Kind]string{ValleyKind: "3 2", MountainKind: "5 1.5 0.5 1.5", CreaseKind: "0.5 1"}

// SVG is the drawing at true size, one group a kind.
func (d Drawing) SVG() string {
	const pad = 2.0
	var b strings.Builder
	w, h := d.Box.Width()+2*pad, d.Box.Height()+2*pad
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" width="%smm" height="%smm" viewBox="%s %s %s %s" fill="none" stroke="#10302f" stroke-width="0.25">`+"\n",
		mm(w), mm(h), mm(d.Box.MinX-pad), mm(-d.Box.MaxY-pad), mm(w), mm(h))
	for _, k := range kinds {
		dash := ""
		if p := drawnDashes[k]; p != "" {
			dash = fmt.Sprintf(` stroke-dasharray="%s"`, p)
		}
		open := false
		for _, l := range d.Lines {
			if l.Kind != k {
				continue
			}
			if !open {
				fmt.Fprintf(&b, `<g id="%s"%s>`+"\n", strings.ToLower(string(k)), dash)
				open = true
			}
			fmt.Fprintf(&b, `<path d="M%s %sL%s %s"/>`+"\n", mm(l.A.X), mm(-l.A.Y), mm(l.B.X), mm(-l.B.Y))
		}
		if open {
			b.WriteString("</g>\n")
		}
	}
	for _, t := range d.Texts {
		mirror := ""
		if t.Back {
			mirror = " scale(-1 1)"
		}
		var text strings.Builder
		if err := xml.EscapeText(&text, []byte(t.Text)); err != nil {
			continue
		}
		fmt.Fprintf(&b, `<text transform="translate(%s %s)%s rotate(%s)" font-size="%s" font-family="sans-serif" text-anchor="middle" dominant-baseline="central" fill="#10302f" stroke="none">%s</text>`+"\n",
			mm(t.At.X), mm(-t.At.Y), mirror, mm(-t.TurnDeg), mm(t.SizeMM), text.String())
	}
	b.WriteString("</svg>\n")
	return b.String()
}

// DXF is the drawing as ASCII DXF R12 in mm, one layer a kind.
func (d Drawing) DXF() string {
	var b strings.Builder
	pair := func(code int, v string) { fmt.Fprintf(&b, "%3d\n%s\n", code, v) }
	section := func(name string) { pair(0, "SECTION"); pair(2, name) }
	section("HEADER")
	pair(9, "$ACADVER")
	pair(1, "AC1009")
	for _, e := range []struct {
		name string
		x, y float64
	}{{"$EXTMIN", d.Box.MinX, d.Box.MinY}, {"$EXTMAX", d.Box.MaxX, d.Box.MaxY}} {
		pair(9, e.name)
		pair(10, mm(e.x))
		pair(20, mm(e.y))
	}
	pair(0, "ENDSEC")
	section("TABLES")
	dxfTables(pair)
	pair(0, "ENDSEC")
	section("ENTITIES")
	for _, l := range d.Lines {
		pair(0, "LINE")
		pair(8, string(l.Kind))
		pair(10, mm(l.A.X))
		pair(20, mm(l.A.Y))
		pair(11, mm(l.B.X))
		pair(21, mm(l.B.Y))
	}
	for _, t := range d.Texts {
		pair(0, "TEXT")
		pair(8, string(LabelKind))
		for _, code := range []int{10, 11} { // 11: the middle, which is what is meant
			pair(code, mm(t.At.X))
			pair(code+10, mm(t.At.Y))
		}
		pair(40, mm(t.SizeMM))
		pair(1, t.Text)
		turn := t.TurnDeg
		if t.Back {
			turn = -turn
			pair(71, "2") // mirrored: it is written on the back
		}
		pair(50, mm(turn))
		pair(72, "4")
	}
	pair(0, "ENDSEC")
	pair(0, "EOF")
	return b.String()
}

func dxfTables(pair func(int, string)) {
	types := []struct {
		name, about string
		dashes      []float64
	}{
		{"CONTINUOUS", "Solid line", nil},
		{"DASHED", "Dashes", []float64{3, -2}},
		{"DASHDOT", "Dash dot", []float64{5, -1.5, 0.5, -1.5}},
		{"DOTTED", "Dots", []float64{0.5, -1}},
	}
	pair(0, "TABLE")
	pair(2, "LTYPE")
	pair(70, strconv.Itoa(len(types)))
	for _, t := range types {
		pair(0, "LTYPE")
		pair(2, t.name)
		pair(70, "0")
		pair(3, t.about)
		pair(72, "65")
		pair(73, strconv.Itoa(len(t.dashes)))
		total := 0.0
		for _, d := range t.dashes {
			total += max(d, -d)
		}
		pair(40, mm(total))
		for _, d := range t.dashes {
			pair(49, mm(d))
		}
	}
	pair(0, "ENDTAB")
	pair(0, "TABLE")
	pair(2, "LAYER")
	pair(70, strconv.Itoa(len(kinds)))
	for _, k := range kinds {
		line := map[Kind]string{ValleyKind: "DASHED", MountainKind: "DASHDOT", CreaseKind: "DOTTED"}[k]
		if line == "" {
			line = "CONTINUOUS"
		}
		pair(0, "LAYER")
		pair(2, string(k))
		pair(70, "0")
		pair(62, "7")
		pair(6, line)
	}
	pair(0, "ENDTAB")
}
