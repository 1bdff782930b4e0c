// Package draw makes pictures of folded paper: the same picture model is drawn by
// the page and written to files.
//
// In words: pieces of paper painted from the lowest to the highest, each with the
// face it shows, fanned out a little so that one sees what lies on what; over
// them the crease to be made, an arrow, and the same sign on the two things that
// are to meet.
//
// Picture coordinates are mm with y downward, ready for SVG.
package draw

import (
	"cmp"
	"math"
	"slices"

	"tussock/internal/fold"
	"tussock/internal/fold/layermap"
	"tussock/internal/geom"
)

// Face is one piece of paper in paint order.
type Face struct {
	Points []float64 `json:"points"` // corners, x and y in turn, mm
	Front  bool      `json:"front"`  // the sheet's front shows
	// Creases are opened creases along this piece's rim, four numbers each.
	Creases []float64 `json:"creases,omitempty"` // opened creases, x1 y1 x2 y2 in turn
	// Edges are given where only part of the rim is an edge of paper: elsewhere the
	// same layer goes on.
	Edges []float64 `json:"edges,omitempty"` // the parts of the rim that are edges, x1 y1 x2 y2 in turn; all of it when absent
	Plain bool      `json:"plain,omitempty"` // no part of the rim is an edge but edges
	Moves bool      `json:"moves,omitempty"` // it is on its way
}

// Stroke is a line drawn over the paper.
type Stroke struct {
	Kind   string    `json:"kind"` // how it is dashed
	Points []float64 `json:"points"`
}

// Arrow shows a motion.
type Arrow struct {
	Kind   string    `json:"kind"`  // which habit of the field it follows
	Shaft  []float64 `json:"shaft"` // the curve to draw: start, two control points, end
	Heads  []Head    `json:"heads"`
	Broken bool      `json:"broken"` // drawn broken: it goes behind the paper
}

// Sign marks a place: one that is to meet another with the same sign, one that a fold is
// placed by, one that is held.
type Sign struct {
	Kind   string     `json:"kind"`
	At     [2]float64 `json:"at"`
	Shapes []Shape    `json:"shapes"`
}

// Size is a length or an angle that is to be measured, with its figure.
type Size struct {
	Lines   []float64  `json:"lines"` // what it is drawn by, x1 y1 x2 y2 in turn
	Text    string     `json:"text"`
	Part    string     `json:"part,omitempty"` // the same as a part of the sheet, where it is a simple one
	At      [2]float64 `json:"at"`             // the middle of the figure
	TurnDeg float64    `json:"turn_deg"`       // of the figure, clockwise
	TallMM  float64    `json:"tall_mm"`
}

// Region is part of the paper, such as what moves or what has n layers.
type Region struct {
	Points []float64 `json:"points"`
	Layers int       `json:"layers"`
	// Label is where the count is written: in the largest region of that count.
	Label *[2]float64 `json:"label,omitempty"`
}

// Picture is folded paper as one looks at it.
type Picture struct {
	View  [4]float64  `json:"view"` // left, top, width and height of the paper, mm
	Faces []Face      `json:"faces"`
	CoM   *[2]float64 `json:"com,omitempty"` // centre of mass
	// Written is what is written on the paper, where it shows.
	Written []Written `json:"written,omitempty"` // what is written on the paper, where it shows
}

// Overlay is what is drawn over a picture to show the next step.
type Overlay struct {
	View    [4]float64 `json:"view"` // what paper and signs take up together, mm
	Strokes []Stroke   `json:"strokes"`
	Arrows  []Arrow    `json:"arrows"`
	Signs   []Sign     `json:"signs"`
	Sizes   []Size     `json:"sizes,omitempty"` // what is to be measured
	Moving  []Region   `json:"moving"`          // layers that move, before the step
}

// round keeps pictures small: a hundredth of a millimetre is finer than print.
func round(v float64) float64 { return math.Round(v*100) / 100 }

func xy(p geom.Vec) [2]float64 { return [2]float64{round(p.X), round(-p.Y)} }

func flatPoints(ps ...geom.Vec) []float64 {
	out := make([]float64, 0, 2*len(ps))
	for _, p := range ps {
		out = append(out, round(p.X), round(-p.Y))
	}
	return out
}

func view(b geom.Box) [4]float64 {
	return [4]float64{round(b.MinX), round(-b.MaxY), round(b.Width()), round(b.Height())}
}

// Flat draws a flat-folded state. Where layers lie in a ring, as in a twist, no
// order of whole pieces is right; then what shows is drawn cell by cell.
func Flat(s *fold.State) Picture {
	ranked, ok := s.Ranked()
	if !ok {
		return byCells(s)
	}
	lay := fanned(s)
	rank := make([]int, len(s.F))
	for i, f := range ranked {
		rank[f] = i
	}
	creases := make([][]float64, len(s.F))
	for _, h := range s.H {
		if h.Kind != fold.Crease || s.Assigned(h) != fold.Flat {
			continue
		}
		f := h.A
		if rank[h.B] > rank[f] {
			f = h.B
		}
		iso := s.F[f].Iso
		creases[f] = append(creases[f], flatPoints(lay.put(f, iso.Apply(h.P)), lay.put(f, iso.Apply(h.Q)))...)
	}
	seams := constructions(s)
	pic := Picture{View: view(s.Box())}
	for _, f := range ranked {
		poly := s.Folded(f)
		face := Face{Points: flatPoints(lay.poly(f, poly)...), Front: s.F[f].Iso.FaceUp(), Creases: creases[f]}
		if len(seams[f]) > 0 {
			face.Plain, face.Edges = true, edges(poly, seamsOn(s, f, seams[f]), func(v geom.Vec) geom.Vec { return lay.put(f, v) })
		}
		pic.Faces = append(pic.Faces, face)
	}
	return pic
}

// constructions are the lines by piece that divide the paper for the engine only.
func constructions(s *fold.State) map[fold.FacetID][]fold.Hinge {
	out := map[fold.FacetID][]fold.Hinge{}
	for _, h := range s.H {
		if h.Kind == fold.Construction && s.Assigned(h) == fold.Flat {
			out[h.A] = append(out[h.A], h)
			out[h.B] = append(out[h.B], h)
		}
	}
	return out
}

// seamsOn are the stretches of a piece's rim that are no edge, where it lies.
func seamsOn(s *fold.State, f fold.FacetID, hs []fold.Hinge) []geom.Segment {
	var out []geom.Segment
	for _, h := range hs {
		iso := s.F[f].Iso
		out = append(out, geom.Segment{A: iso.Apply(h.P), B: iso.Apply(h.Q)})
	}
	return out
}

// edges are the sides of a piece less the seams, drawn where put says.
func edges(p geom.Polygon, seams []geom.Segment, put func(geom.Vec) geom.Vec) []float64 {
	out := []float64{}
	for i, a := range p {
		b := p[(i+1)%len(p)]
		l, ok := geom.LineThrough(a, b)
		if !ok {
			continue
		}
		dir, n := b.Sub(a).Unit(), a.Dist(b)
		type gap struct{ lo, hi float64 }
		var gaps []gap
		for _, s := range seams {
			if math.Abs(l.Side(s.A)) > geom.OnPaper || math.Abs(l.Side(s.B)) > geom.OnPaper {
				continue
			}
			u, v := dir.Dot(s.A.Sub(a)), dir.Dot(s.B.Sub(a))
			gaps = append(gaps, gap{math.Min(u, v), math.Max(u, v)})
		}
		slices.SortFunc(gaps, func(x, y gap) int { return cmp.Compare(x.lo, y.lo) })
		at := 0.0
		put := func(lo, hi float64) {
			if hi-lo > 0.01 {
				out = append(out, flatPoints(put(a.Add(dir.Scale(lo))), put(a.Add(dir.Scale(hi))))...)
			}
		}
		for _, g := range gaps {
			put(at, math.Min(g.lo, n))
			at = math.Max(at, g.hi)
		}
		put(at, n)
	}
	return out
}

// byCells draws only what shows: the top piece of every cell.
func byCells(s *fold.State) Picture {
	pic := Picture{View: view(s.Box())}
	cells := layermap.Stacked(s, layermap.Cells(s))
	for i, c := range cells {
		var seams []geom.Segment // where the same layer is on top on both sides
		for j, e := range cells {
			if i == j || e.Stack[0] != c.Stack[0] && !joined(s, c.Stack[0], e.Stack[0]) {
				continue
			}
			if seam, ok := c.Poly.Shared(e.Poly); ok {
				seams = append(seams, seam)
			}
		}
		pic.Faces = append(pic.Faces, Face{Points: flatPoints(c.Poly...), Front: s.F[c.Stack[0]].Iso.FaceUp(),
			Plain: true, Edges: edges(c.Poly, seams, asItLies)})
	}
	return pic
}

// joined tells whether two pieces are one layer divided by a construction line.
func joined(s *fold.State, a, b int) bool {
	for _, h := range s.H {
		if h.Kind == fold.Construction && s.Assigned(h) == fold.Flat &&
			(int(h.A) == a && int(h.B) == b || int(h.A) == b && int(h.B) == a) {
			return true
		}
	}
	return false
}

// Holding is the view that holds two; one without width holds nothing.
func Holding(a, b [4]float64) [4]float64 {
	if a[2] == 0 {
		return b
	}
	x, y := math.Min(a[0], b[0]), math.Min(a[1], b[1])
	return [4]float64{x, y, math.Max(a[0]+a[2], b[0]+b[2]) - x, math.Max(a[1]+a[3], b[1]+b[3]) - y}
}
