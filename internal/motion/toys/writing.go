package toys

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"tussock/internal/draw"
	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/prints"
	"tussock/internal/sequence"
)

// Writing is how toys are written on.
type Writing struct {
	Zones []Zone
	// Places are where something can stand. The error says what keeps the toy from being one
	// that is written on.
	Places func(*sequence.Replay) ([]Place, error)
	// Views are from where it is looked at, each with all that shows there.
	Views func(*sequence.Replay, []draw.Ink) []View
	// Outline is the part of the sheet that is printed, from its lower left corner; nil for all of
	// it, with a mark on the face that lies down at the start.
	Outline func(*sequence.Replay) geom.Polygon
	// Marks are what is printed besides, such as numbers to fold by; nil for nothing.
	Marks func(*sequence.Replay, motion.Written) []draw.Ink
	// Faults are what only this way of moving can find wrong in it; nil for none.
	Faults func([]Place, motion.Written) []Fault
	// Colour is the colour that a word names, "" for none; nil where words name none.
	Colour func(word string) string
	// Follow tells a written-down play move by move; nil where nothing is played so.
	Follow func(w motion.Written, play string) (Followed, error)
}

// Zone is a kind of places.
type Zone struct {
	Name     string `json:"name"`
	Label    string `json:"label"`
	Says     string `json:"says"`
	Texts    bool   `json:"texts"`
	Numbers  bool   `json:"numbers"` // a text must be a whole number
	Colours  bool   `json:"colours"`
	Pictures bool   `json:"pictures"`
	Own      bool   `json:"own"`   // pictures of one's own may be put in
	Free     bool   `json:"free"`  // may be left empty
	Takes    string `json:"takes"` // from a pack: words, numbers, messages, or nothing
	Read     bool   `json:"read"`  // texts are to be read by a leader before others see them
}

// Place is where something can stand, on the sheet, mm.
type Place struct {
	Name    string // zone and number
	Zone    string
	Label   string
	Text    geom.Polygon   // that holds a text
	Areas   []geom.Polygon // all of it, for a colour, in pieces that stay flat
	Picture []Frame        // that show a picture together
	Back    bool
	TurnDeg float64 // of what stands in it, against the clock, as one looks at that face
	Under   string  // the place that hides it, "" for none
	Shown   string  // when it shows, in words
}

// Frame is a piece of paper that shows a part of a picture: its corners on the sheet, and
// where the upper left corner of the picture would lie and its edges lead to.
type Frame struct {
	Area                geom.Polygon
	Corner, Along, Down geom.Vec
	Back                bool
}

// View is a look at the toy.
type View struct {
	Name    string       `json:"name"`
	Title   string       `json:"title"`
	Says    string       `json:"says"`
	Picture draw.Picture `json:"picture"`
}

// Fault is something to look at before it is printed.
type Fault struct {
	Place string `json:"place"` // "" for all of it
	Kind  string `json:"kind"`
	Says  string `json:"says"`
}

// Kinds of faults.
const (
	FaultEmpty  = "empty"
	FaultTwice  = "twice"
	FaultLong   = "long"
	FaultUnread = "unread"
	FaultNumber = "number"
)

// Followed is a play as it was followed.
type Followed struct {
	OK    bool           `json:"ok"`
	Moves []FollowedMove `json:"moves"`
	Says  string         `json:"says"` // the slip, or what came up
	Fix   string         `json:"fix"`  // what it could have been
}

// FollowedMove is one line of it.
type FollowedMove struct {
	Says string `json:"says"`
	OK   bool   `json:"ok"`
}

// Margins of what stands in a place, mm: of texts from folds and edges, as one prints and
// folds; of pictures and colours.
const (
	TextMarginMM = 1.5
	fillMarginMM = 0.8
)

// back tells on which face the i-th of its areas lies: where pieces of a picture are on both,
// they say so.
func (p Place) back(i int) bool {
	if len(p.Picture) == len(p.Areas) && len(p.Areas) > 1 {
		return p.Picture[i].Back
	}
	return p.Back
}

// textFrame is the text's own frame at a spot: x as it runs, y as it stands, as one looks at
// its face; it tells where a spot of the sheet lies in it and the other way round.
type textFrame struct{ at, along, up geom.Vec }

func (p Place) frame() textFrame {
	k := draw.Ink{TurnDeg: p.TurnDeg, Back: p.Back}
	along, up := k.Upright()
	return textFrame{p.Text.Centroid(), along, up}
}

func (f textFrame) in(v geom.Vec) geom.Vec {
	d := v.Sub(f.at)
	return geom.Vec{X: d.Dot(f.along), Y: d.Dot(f.up)}
}

func (f textFrame) out(v geom.Vec) geom.Vec { return f.at.Add(f.along.Scale(v.X)).Add(f.up.Scale(v.Y)) }

// Box is the shape that holds its text as the text sees it, with the margin off.
func (p Place) Box() geom.Polygon {
	f := p.frame()
	var poly geom.Polygon
	for _, v := range p.Text {
		poly = append(poly, f.in(v))
	}
	return prints.Inset(poly, TextMarginMM)
}

// Tint is a colour for places, with the name by which it is spelled.
type Tint struct {
	Name   string `json:"name"`
	Colour string `json:"colour"`
}

// Tints are the colours that are offered: light enough for ink to be read on them.
func Tints() []Tint {
	return []Tint{{"RED", "#e58b74"}, {"BLUE", "#7fb2d9"}, {"GREEN", "#8fbb6e"}, {"YELLOW", "#f2c230"}, {"PINK", "#eab0c0"}, {"ORANGE", "#ef9a4a"}, {"GREY", "#b9c2c0"}, {"BROWN", "#c79b76"}}
}

// dark tells whether white is read better on a colour than ink, by the contrast of relative
// luminances (WCAG 2).
func dark(colour string) bool {
	var r, g, b int
	if _, err := fmt.Sscanf(colour, "#%02x%02x%02x", &r, &g, &b); err != nil {
		return false
	}
	linear := func(v int) float64 {
		c := float64(v) / 255
		if c <= 0.03928 {
			return c / 12.92
		}
		return math.Pow((c+0.055)/1.055, 2.4)
	}
	lum := 0.2126*linear(r) + 0.7152*linear(g) + 0.0722*linear(b)
	const ink = 0.026 // of the ink, #10302f
	return 1.05/(lum+0.05) > (lum+0.05)/(ink+0.05)
}

// Inked is what is written as ink on the sheet, and what does not fit.
func Inked(places []Place, w motion.Written) (out []draw.Ink, faults []Fault) {
	for _, p := range places {
		m := w[p.Name]
		if m.Colour != "" {
			for i, a := range p.Areas {
				if in := prints.Inset(a, fillMarginMM); in != nil {
					out = append(out, draw.Ink{Area: in, Colour: m.Colour, Back: p.back(i)})
				}
			}
		}
		out = append(out, pictured(p, m)...)
		if m.Text == "" {
			continue
		}
		fitted, ok := prints.Fit(m.Text, p.Box(), prints.MostTypeMM, prints.Printed)
		if !ok {
			says := fmt.Sprintf("%s: “%s” is too long to be read there. Take fewer or shorter words, or a larger sheet.", p.Label, m.Text)
			faults = append(faults, Fault{p.Name, FaultLong, says})
		}
		f, colour := p.frame(), ""
		if dark(m.Colour) && len(p.Areas) > 0 {
			colour = "#ffffff"
		}
		for _, l := range fitted.Lines {
			out = append(out, draw.Ink{At: f.out(l.At), Text: l.Text, SizeMM: fitted.SizeMM, WideMM: prints.Printed(l.Text) * fitted.SizeMM, TurnDeg: p.TurnDeg, Back: p.Back, Colour: colour})
		}
	}
	return out, faults
}

// pictured is the picture of a place.
func pictured(p Place, m motion.Mark) (out []draw.Ink) {
	if m.Picture == "" {
		return nil
	}
	for _, f := range p.Picture {
		at := func(v geom.Vec) geom.Vec { return f.Corner.Add(f.Along.Scale(v.X)).Add(f.Down.Scale(v.Y)) }
		if _, own := strings.CutPrefix(m.Picture, "own:"); own {
			out = append(out, draw.Ink{Area: f.Area, Image: m.Picture, Corner: f.Corner, Along: f.Along, Down: f.Down, Back: f.Back})
			continue
		}
		for _, part := range shapes[m.Picture].parts {
			poly := make(geom.Polygon, len(part.points))
			for i, v := range part.points {
				poly[i] = at(v)
			}
			for _, piece := range clipped(poly, f.Area) {
				out = append(out, draw.Ink{Area: piece, Colour: part.colour, Back: f.Back})
			}
		}
	}
	return out
}

// All is everything that is printed on a toy, and what does not fit.
func (q *Writing) All(r *sequence.Replay, places []Place, w motion.Written) ([]draw.Ink, []Fault) {
	out, faults := Inked(places, w)
	if q.Marks != nil {
		out = append(out, q.Marks(r, w)...)
	}
	return out, faults
}

// Zoned are the places as areas that can be pressed.
func Zoned(places []Place) (out []draw.Ink) {
	for _, p := range places {
		for i, a := range p.Areas {
			out = append(out, draw.Ink{Area: a, Zone: p.Name, Back: p.back(i)})
		}
	}
	return out
}

// Faults of what is written: places without anything, the same twice in a zone, numbers that
// are none, texts nobody has read. Texts too long are told by Inked.
func (q *Writing) Check(places []Place, w motion.Written) (out []Fault) {
	zones := map[string]Zone{}
	for _, z := range q.Zones {
		zones[z.Name] = z
	}
	seen := map[string]string{}
	for _, p := range places {
		z, m := zones[p.Zone], w[p.Name]
		if m.Text == "" && m.Picture == "" && (m.Colour == "" || z.Texts && !z.Colours) {
			if z.Texts && !z.Free {
				out = append(out, Fault{p.Name, FaultEmpty, p.Label + " is empty."})
			}
			continue
		}
		if z.Numbers {
			if _, ok := NumberOf(m.Text); !ok {
				out = append(out, Fault{p.Name, FaultNumber, fmt.Sprintf("%s: “%s” is no whole number from 0 to %d, so nobody knows how often to move.", p.Label, m.Text, MostCount)})
			}
		}
		key := p.Zone + " " + strings.ToLower(m.Text)
		if was, there := seen[key]; there && m.Text != "" {
			out = append(out, Fault{p.Name, FaultTwice, fmt.Sprintf("%s says the same as %s: “%s”.", p.Label, strings.ToLower(was[:1])+was[1:], m.Text)})
		} else {
			seen[key] = p.Label
		}
		if z.Read && m.Text != "" && !m.Read {
			out = append(out, Fault{p.Name, FaultUnread, p.Label + " has not been read by a leader."})
		}
	}
	if q.Faults != nil {
		out = append(out, q.Faults(places, w)...)
	}
	return out
}

// MostCount is the highest number that is counted.
const MostCount = 99

// NumberOf is a text as a number that is counted.
func NumberOf(text string) (n int, ok bool) {
	if text == "" || len(text) > 2 {
		return 0, false
	}
	for _, r := range text {
		if r < '0' || r > '9' {
			return 0, false
		}
		n = 10*n + int(r-'0')
	}
	return n, true
}

// Write puts what is written on a replay, so that pictures of its steps show it; what cannot be
// written on stays as it is.
func (w *Way) Write(r *sequence.Replay, written motion.Written) {
	if w.Writing == nil || r.Err != nil || len(written) == 0 && w.Writing.Marks == nil {
		return
	}
	places, err := w.Writing.Places(r)
	if err != nil {
		return
	}
	inks, _ := w.Writing.All(r, places, written)
	r.Notes = append(Noted(inks, 0, WrittenZone), w.Writing.Besides(r.Notes, written)...)
}

// Besides are the notes of a pattern that stand beside what is written: those in zones that
// somebody has written in give way.
func (q *Writing) Besides(notes []sequence.Note, written motion.Written) []sequence.Note {
	return slices.DeleteFunc(slices.Clone(notes), func(n sequence.Note) bool {
		for place := range written {
			if n.Zone != "" && strings.HasPrefix(place, n.Zone+" ") {
				return true
			}
		}
		return false
	})
}

// WrittenZone is the zone of notes that Write adds.
const WrittenZone = "written"

// Noted are texts as notes of a replay, from a step on: pictures and prints of its steps show
// them.
func Noted(all []draw.Ink, step int, zone string) (out []sequence.Note) {
	for _, k := range all {
		if k.Text != "" {
			out = append(out, sequence.Note{Step: step, Kind: sequence.OpLabel, At: k.At, To: k.At, Text: k.Text, OnBack: k.Back, SizeMM: k.SizeMM, TurnDeg: k.TurnDeg, Zone: zone})
		}
	}
	return out
}

// clipped is the part of a shape inside of a convex one; the shape is cut into convex pieces
// first.
func clipped(shape, in geom.Polygon) (out []geom.Polygon) {
	for _, piece := range shape.Convex() {
		q := piece
		for i, a := range in {
			b := in[(i+1)%len(in)]
			line, ok := geom.LineThrough(a, b)
			if !ok || len(q) < 3 {
				continue
			}
			pos, neg := q.Split(line)
			// The inside is where the rest of the shape lies.
			inside := line.Side(in.Centroid()) > 0
			if inside {
				q = pos
			} else {
				q = neg
			}
		}
		if len(q) > 2 {
			out = append(out, q)
		}
	}
	return slices.Clip(out)
}

// TypeMM is the size that a text is set in there; 0 without one, or where it cannot be read.
func TypeMM(p Place, m motion.Mark) float64 {
	if m.Text == "" {
		return 0
	}
	f, ok := prints.Fit(m.Text, p.Box(), prints.MostTypeMM, prints.Printed)
	if !ok {
		return 0
	}
	return f.SizeMM
}
