package prints

import (
	"fmt"
	"math"
	"slices"

	"tussock/internal/draw"
	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/given"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Page is the paper in the printer, upright.
type Page struct {
	Name              string
	WidthMM, HeightMM float64
}

// Pages are those that printers hold.
var Pages = []Page{{"A4", 210, 297}, {"Letter", 8.5 * sheet.MMPerInch, 11 * sheet.MMPerInch}}

// FindPage looks a page up by its name in small letters.
func FindPage(name string) (Page, bool) {
	for _, p := range Pages {
		if map[string]string{"A4": "a4", "Letter": "letter"}[p.Name] == name {
			return p, true
		}
	}
	return Page{}, false
}

// PageFor is the paper that a printer most likely holds for a sheet: letter where the sheet
// has a side of that, else A4.
func PageFor(widthMM, heightMM float64) Page {
	letter := Pages[1]
	for _, side := range []float64{widthMM, heightMM} {
		if math.Abs(side-letter.WidthMM) < sameMM || math.Abs(side-letter.HeightMM) < sameMM {
			return letter
		}
	}
	return Pages[0]
}

// Printer is the paper to print on: the one asked for, else the one that is set, else the
// one that goes with a sheet of that size.
func Printer(asked, set string, widthMM, heightMM float64) Page {
	if asked == "own" {
		return OwnPage(widthMM, heightMM)
	}
	for _, name := range []string{asked, set} {
		if p, found := FindPage(name); found {
			return p
		}
	}
	return PageFor(widthMM, heightMM)
}

// OwnPage is the sheet to fold as the page itself: it goes through the printer.
func OwnPage(widthMM, heightMM float64) Page { return Page{"the sheet itself", widthMM, heightMM} }

// sameMM is how far a sheet's side may be from that of a size to be of it.
const sameMM = 0.6

// Kind is how a line is drawn.
type Kind string

// The kinds of lines.
const (
	Cut      Kind = "cut"
	Valley   Kind = "valley"
	Mountain Kind = "mountain"
	Crease   Kind = "crease" // folded and opened
	Seam     Kind = "seam"   // where two pages are joined
	Mark     Kind = "mark"   // ticks, crosses and signs
	Meet     Kind = "meet"   // what is brought together, and arrows
	Thin     Kind = "thin"   // creases that are there already
	Band     Kind = "band"   // the edges of a tolerance
	Hatch    Kind = "hatch"  // what moves, shaded
)

// Within are the guides that lie inside of a convex outline; those along its edges are left out:
// they are cut.
func Within(all []Guide, outline geom.Polygon) []Guide {
	return slices.DeleteFunc(slices.Clone(all), func(g Guide) bool { return !outline.Contains(geom.Mid(g.A, g.B), -0.1) })
}

// InsetGuides are guides that stop short of the paper's edge, so that no printer's margin and no cut
// touches them.
func InsetGuides(all []Guide, outline geom.Polygon, by float64) []Guide {
	onEdge := func(v geom.Vec) bool {
		for i, a := range outline {
			b := outline[(i+1)%len(outline)]
			u := b.Sub(a).Unit()
			d := v.Sub(a)
			if t := u.Dot(d); math.Abs(u.Cross(d)) < 0.01 && t > -0.01 && t < a.Dist(b)+0.01 {
				return true
			}
		}
		return false
	}
	var out []Guide
	for _, g := range all {
		u := g.B.Sub(g.A).Unit().Scale(by)
		if onEdge(g.A) {
			g.A = g.A.Add(u)
		}
		if onEdge(g.B) {
			g.B = g.B.Sub(u)
		}
		if g.B.Sub(g.A).Dot(u) > 0 {
			out = append(out, g)
		}
	}
	return out
}

// Guide is a fold on the sheet, as it is seen from the front.
type Guide struct {
	geom.Segment
	Kind Kind
}

// Order is what is to be printed.
type Order struct {
	Title       string
	Outline     geom.Polygon // its box at the origin
	Guides      []Guide
	Notes       []draw.Ink        // what is written on the sheet
	Images      map[string][]byte // pictures of one's own by name, PNG
	Front, Back bool              // faces that carry guides; the outline is on the front, or on the back when that is alone
	Down        string            // the face that lies down at the start: "front", "back", or "" for no mark
	BandMM      float64           // half the width of the band within which a fold is good, for young folders; 0 for none
	Inches      bool
	Page        Page
}

// Notes are the labels of a replay.
func Notes(all []sequence.Note) []draw.Ink {
	return slices.DeleteFunc(draw.Inks(all), func(k draw.Ink) bool { return k.Line })
}

// inks puts what is on the face of a leaf where it belongs, within a window of the sheet.
func (l *Leaf) inks(all []draw.Ink, images map[string][]byte, window geom.Box, place placing) {
	in := func(v geom.Vec) bool {
		return v.X >= window.MinX && v.X <= window.MaxX && v.Y >= window.MinY && v.Y <= window.MaxY
	}
	for _, k := range all {
		switch {
		case k.Back != place.back || k.Zone != "":
		case len(k.Area) > 2 && slices.ContainsFunc(k.Area, in):
			area := make([]geom.Vec, len(k.Area))
			for i, v := range k.Area {
				area[i] = place.at(v)
			}
			if k.Image != "" {
				corner := place.at(k.Corner)
				l.Images = append(l.Images, Image{k.Image, images[k.Image], area, corner, place.at(k.Corner.Add(k.Along)).Sub(corner)})
				continue
			}
			l.Fills = append(l.Fills, Fill{Points: area, Colour: k.Colour})
		case k.Text != "" && in(k.At):
			l.Words = append(l.Words, Word{At: place.at(k.At), SizeMM: k.SizeMM, Text: k.Text, Centred: true, TurnDeg: k.TurnDeg, Middle: true, Colour: k.Colour})
		}
	}
}

// Stroke is a straight line on a leaf.
type Stroke struct {
	Kind Kind
	A, B geom.Vec
}

// Word is a text on a leaf; At is its left end, or its middle when Centred.
type Word struct {
	At      geom.Vec
	SizeMM  float64
	Text    string
	Centred bool
	TurnDeg float64 // about At, against the clock
	Middle  bool    // At is the middle of its height as well
	Colour  string  // #rrggbb; "" for black
}

// Leaf is one side of one page.
type Leaf struct {
	Page    Page
	Back    bool
	Fills   []Fill // below the strokes, in paint order
	Tops    []Fill // above them
	Images  []Image
	Strokes []Stroke
	Words   []Word
}

// Image is a square picture on a leaf, that shows within an area: where its upper left corner
// lies and its upper edge leads to from there.
type Image struct {
	Name          string
	PNG           []byte
	Clip          []geom.Vec
	Corner, Along geom.Vec
}

const (
	MarginMM  = 8.0  // that printers leave white
	footMM    = 24.0 // for the ruler, the check length and the words
	overlapMM = 12.0 // of neighbouring pages
	// MaxLeaves bounds the pages of one print.
	MaxLeaves = 60
)

// Guides are the folds of a state, on its sheet.
func Guides(s *fold.State) []Guide {
	var out []Guide
	for _, h := range s.H {
		if h.Kind != fold.Crease {
			continue
		}
		kind := map[fold.Assignment]Kind{fold.Valley: Valley, fold.Mountain: Mountain, fold.Flat: Crease}[s.Assigned(h)]
		out = append(out, Guide{geom.Segment{A: h.P, B: h.Q}, kind})
	}
	return out
}

// Lay lays an order out. Errors are *given.Error.
func Lay(o Order) ([]Leaf, error) {
	box := geom.EmptyBox().Grow(o.Outline...)
	if len(o.Outline) < 3 || !(box.Width() > 0 && box.Height() > 0) {
		return nil, &given.Error{Field: "outline", Value: "empty", Want: "a sheet with an area"}
	}
	if !o.Front && !o.Back {
		o.Front = true
	}
	if lying := (Page{o.Page.Name, o.Page.HeightMM, o.Page.WidthMM}); !o.sameAsPage(box) && (Order{Outline: o.Outline, Page: lying}).sameAsPage(box) {
		o.Page = lying
	}
	if o.sameAsPage(box) {
		return o.onItself(box), nil
	}
	if o.acrossPage(box) {
		return o.across(box), nil
	}
	grid := o.grid(box)
	if n := grid.cols * grid.rows; n > MaxLeaves {
		return nil, &given.Error{Field: "sheet", Value: say.By(box.Width(), box.Height(), 1),
			Want: fmt.Sprintf("small enough for %d pages; it would take %d", MaxLeaves, n)}
	}
	var out []Leaf
	for r := range grid.rows {
		for c := range grid.cols {
			for _, back := range []bool{false, true} {
				if back && o.Back || !back && o.Front {
					out = append(out, grid.leaf(c, r, back))
				}
			}
		}
	}
	return out, nil
}

// sameAsPage tells whether the sheet to fold is the printer's page itself.
func (o Order) sameAsPage(b geom.Box) bool {
	return len(o.Outline) == 4 && math.Abs(b.Width()-o.Page.WidthMM) < sameMM && math.Abs(b.Height()-o.Page.HeightMM) < sameMM
}

// onItself prints guides on the very sheet that is folded, one page for a face, and says
// how far the crosses in its corners must be apart.
func (o Order) onItself(b geom.Box) []Leaf {
	var out []Leaf
	for _, back := range []bool{false, true} {
		if back && !o.Back || !back && !o.Front {
			continue
		}
		l := Leaf{Page: o.Page, Back: back}
		place := placing{o.Page.HeightMM, 0, 0, back, o.Page.WidthMM}
		window := geom.Box{MinX: 4, MinY: 4, MaxX: b.Width() - 4, MaxY: b.Height() - 4}
		l.guides(o.Guides, o.BandMM, window, place)
		l.inks(o.Notes, o.Images, window, place)
		l.crosses(o.Page)
		l.apart(o)
		if o.Down != "" && back == (o.Down == "back") {
			l.down(geom.Vec{X: o.Page.WidthMM / 2, Y: o.Page.HeightMM / 2})
		}
		out = append(out, l)
	}
	return out
}

// acrossPage tells whether the sheet takes a whole page across and leaves room for the foot, as
// a square does that is cut from an office sheet.
func (o Order) acrossPage(b geom.Box) bool {
	return len(o.Outline) == 4 && math.Abs(b.Width()-o.Page.WidthMM) < sameMM && b.Height() <= o.Page.HeightMM-MarginMM-footMM
}

// across prints the sheet at the top of the page, from edge to edge: one cut makes it.
func (o Order) across(b geom.Box) []Leaf {
	var out []Leaf
	for _, back := range []bool{false, true} {
		if back && !o.Back || !back && !o.Front {
			continue
		}
		l := Leaf{Page: o.Page, Back: back}
		place := placing{b.Height(), 0, 0, back, o.Page.WidthMM}
		window := geom.Box{MinX: 4, MinY: 4, MaxX: b.Width() - 4, MaxY: b.Height() - 4}
		l.Line(Cut, 0, b.Height(), o.Page.WidthMM, b.Height())
		l.guides(o.Guides, o.BandMM, window, place)
		l.inks(o.Notes, o.Images, window, place)
		l.crosses(o.Page)
		if o.Down != "" && back == (o.Down == "back") {
			l.down(place.at(geom.Vec{X: b.Width() / 2, Y: b.Height() / 2}))
		}
		name := o.Title + ". Cut along the line: the rest is a square sheet"
		if math.Abs(b.Width()-b.Height()) > sameMM {
			name = o.Title + ". Cut along the line"
		}
		if back {
			name += ". BACK: print it on the same page, turned over its long edge"
		}
		l.Foot(o, name)
		out = append(out, l)
	}
	return out
}

// placing brings the sheet onto a leaf: y turned over, the back mirrored.
type placing struct {
	bottom float64 // of the page, where y = 0 of the sheet lies when dy is 0
	dx, dy float64
	back   bool
	wide   float64 // of the page
}

func (p placing) at(v geom.Vec) geom.Vec {
	q := geom.Vec{X: v.X + p.dx, Y: p.bottom - (v.Y + p.dy)}
	if p.back {
		q.X = p.wide - q.X
	}
	return q
}

// grid divides a sheet over pages.
type grid struct {
	o            Order
	page         Page // upright or lying
	cols, rows   int
	tileW, tileH float64 // what a page shows
	box          geom.Box
}

// grid takes the fewest pages, upright or lying.
func (o Order) grid(b geom.Box) grid {
	count := func(size, tile float64) int {
		if size <= tile {
			return 1
		}
		return int(math.Ceil((size - overlapMM) / (tile - overlapMM)))
	}
	var best grid
	for _, lying := range []bool{false, true} {
		p := o.Page
		if lying {
			p.WidthMM, p.HeightMM = p.HeightMM, p.WidthMM
		}
		g := grid{o: o, page: p, tileW: p.WidthMM - 2*MarginMM, tileH: p.HeightMM - 2*MarginMM - footMM, box: b}
		g.cols, g.rows = count(b.Width(), g.tileW), count(b.Height(), g.tileH)
		if best.cols == 0 || g.cols*g.rows < best.cols*best.rows {
			best = g
		}
	}
	return best
}

// leaf is the page at a column from the left and a row from below.
func (g grid) leaf(c, r int, back bool) Leaf {
	l := Leaf{Page: g.page, Back: back}
	x0, y0 := float64(c)*(g.tileW-overlapMM), float64(r)*(g.tileH-overlapMM)
	window := geom.Box{MinX: x0, MinY: y0, MaxX: x0 + g.tileW, MaxY: y0 + g.tileH}
	place := placing{g.page.HeightMM - MarginMM - footMM, MarginMM - x0, -y0, back, g.page.WidthMM}
	for i, a := range g.o.Outline {
		l.clipped(Cut, geom.Segment{A: a, B: g.o.Outline[(i+1)%len(g.o.Outline)]}, window, place)
	}
	l.guides(g.o.Guides, g.o.BandMM, window, place)
	l.inks(g.o.Notes, g.o.Images, window, place)
	l.crosses(g.page)
	if g.o.Down != "" && back == (g.o.Down == "back") && (g.o.Front && g.o.Back || c == 0 && r == 0) {
		mid := geom.Vec{X: (math.Max(window.MinX, 0) + math.Min(window.MaxX, g.box.Width())) / 2, Y: (math.Max(window.MinY, 0) + math.Min(window.MaxY, g.box.Height())) / 2}
		l.down(place.at(mid))
	}
	g.seams(&l, c, r, place)
	name := g.o.Title
	if g.cols*g.rows > 1 {
		name = fmt.Sprintf("%s: page %d of %d, column %d from the left, row %d from below. Cut one page at the seam and lay equal signs on one another", name, r*g.cols+c+1, g.cols*g.rows, c+1, r+1)
	}
	if back {
		name += ". BACK: print it on the same page, turned over its long edge"
		if g.page.WidthMM > g.page.HeightMM {
			name = name[:len(name)-len("turned over its long edge")] + "turned over its short edge"
		}
	}
	l.Foot(g.o, name)
	return l
}

// seams are the lines in the middle of the overlaps, with signs on them that both
// pages carry.
func (g grid) seams(l *Leaf, c, r int, place placing) {
	seam := func(upright bool, k int, name string) {
		at := float64(k)*(g.tileW-overlapMM) + overlapMM/2
		lo, hi := float64(r)*(g.tileH-overlapMM), float64(r)*(g.tileH-overlapMM)+g.tileH
		if !upright {
			at = float64(k)*(g.tileH-overlapMM) + overlapMM/2
			lo, hi = float64(c)*(g.tileW-overlapMM), float64(c)*(g.tileW-overlapMM)+g.tileW
		}
		point := func(t float64) geom.Vec {
			if upright {
				return geom.Vec{X: at, Y: t}
			}
			return geom.Vec{X: t, Y: at}
		}
		l.Strokes = append(l.Strokes, Stroke{Seam, place.at(point(lo)), place.at(point(hi))})
		for i, part := range []float64{0.25, 0.75} {
			m := place.at(point(lo + (hi-lo)*part))
			l.diamond(m, 3)
			l.Words = append(l.Words, Word{At: geom.Vec{X: m.X, Y: m.Y + 1}, SizeMM: 2.4, Text: fmt.Sprintf("%s%d", name, i+1), Centred: true})
		}
	}
	if c > 0 {
		seam(true, c, fmt.Sprintf("%c%d", 'A'+c-1, r+1))
	}
	if c < g.cols-1 {
		seam(true, c+1, fmt.Sprintf("%c%d", 'A'+c, r+1))
	}
	if r > 0 {
		seam(false, r, fmt.Sprintf("%c%d", 'a'+r-1, c+1))
	}
	if r < g.rows-1 {
		seam(false, r+1, fmt.Sprintf("%c%d", 'a'+r, c+1))
	}
}
