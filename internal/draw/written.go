package draw

import (
	"math"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// Written is something that is written or drawn on the paper, where it shows.
type Written struct {
	Text string `json:"text,omitempty"`
	// Place is how a text that stands upright at the origin comes to lie on the paper, or a
	// picture that is one by one with its upper left corner there: the six numbers of an SVG
	// matrix.
	Place  []float64 `json:"place,omitempty"`
	SizeMM float64   `json:"size_mm,omitempty"`
	WideMM float64   `json:"wide_mm,omitempty"` // how wide it prints; 0 where nobody measured
	Line   []float64 `json:"line,omitempty"`    // of ink, or a crease that ends inside the paper
	Behind bool      `json:"behind,omitempty"`  // it is on the other face, and seen through the paper
	Colour string    `json:"colour,omitempty"`  // of what is written, #rrggbb; ink where it is absent
	Area   []float64 `json:"area,omitempty"`    // that is filled with the colour, or that shows a picture
	Image  string    `json:"image,omitempty"`   // the picture, by the name that it is asked for
	Zone   string    `json:"zone,omitempty"`    // the place that an area is, to be pressed; it is not filled
}

// Ink is something on a face of the sheet: a text, a line, a patch, a picture or a place.
type Ink struct {
	At, To  geom.Vec // on the sheet: the middle of a text, the ends of a line
	Line    bool
	Text    string
	SizeMM  float64
	WideMM  float64 // as it prints; 0 where nobody measured
	TurnDeg float64 // against the clock, as one looks at the face it is on
	Colour  string  // #rrggbb; "" for ink
	Area    geom.Polygon
	// A picture shows in its area: its upper left corner, and where its upper and its left
	// edge lead to from there.
	Image         string
	Corner, Along geom.Vec
	Down          geom.Vec
	Zone          string
	Back          bool
}

// inkOf is a note as ink; ok is false for what is not for the eye.
func inkOf(n sequence.Note) (Ink, bool) {
	switch {
	case n.Kind == sequence.OpLabel && n.Text != "":
		return Ink{At: n.At, To: n.To, Text: n.Text, SizeMM: n.SizeMM, TurnDeg: n.TurnDeg, Back: n.OnBack}, true
	case n.Kind == sequence.OpInk || n.Kind == sequence.OpPinch && n.FoldDeg != 0:
		return Ink{At: n.At, To: n.To, Line: true, Back: n.OnBack}, true
	}
	return Ink{}, false
}

// Inks are the notes that are for the eye.
func Inks(notes []sequence.Note) []Ink {
	var out []Ink
	for _, n := range notes {
		if k, ok := inkOf(n); ok {
			out = append(out, k)
		}
	}
	return out
}

// spot is where one looks for the piece of paper that it is on.
func (k Ink) spot() geom.Vec {
	if len(k.Area) > 2 {
		return k.Area.Centroid()
	}
	if !k.Line {
		return k.At
	}
	return geom.Mid(k.At, k.To)
}

// Upright are the directions on the sheet in which it runs and stands, as one looks at the
// face it is on.
func (k Ink) Upright() (along, up geom.Vec) {
	sin, cos := math.Sincos(geom.Rad(k.TurnDeg))
	if k.Back {
		return geom.Vec{X: -cos, Y: sin}, geom.Vec{X: sin, Y: cos}
	}
	return geom.Vec{X: cos, Y: sin}, geom.Vec{X: -sin, Y: cos}
}

// matrix is that of a text that runs along u, with v upwards, at p; of the plane with y up.
func matrix(u, v, p geom.Vec) []float64 {
	fine := func(x float64) float64 { return math.Round(x*1e4) / 1e4 }
	return []float64{fine(u.X), fine(-u.Y), fine(-v.X), fine(v.Y), round(p.X), round(-p.Y)}
}

// shown is ink as it comes to lie where spots of the sheet are brought somewhere, and
// directions with them.
func (k Ink) shown(put, turn func(geom.Vec) geom.Vec) Written {
	w := Written{Text: k.Text, SizeMM: round(k.SizeMM), WideMM: round(k.WideMM), Colour: k.Colour, Image: k.Image, Zone: k.Zone}
	if k.Line {
		w.Line = flatPoints(put(k.At), put(k.To))
	}
	for _, v := range k.Area {
		w.Area = append(w.Area, flatPoints(put(v))...)
	}
	switch {
	case k.Image != "":
		w.Place = matrix(turn(k.Along), turn(k.Down).Scale(-1), put(k.Corner))
	case k.Text != "":
		u, v := k.Upright()
		w.Place = matrix(turn(u), turn(v), put(k.At))
	}
	return w
}

// Write adds to a picture of a flat-folded state what is written on the faces that show.
func (p *Picture) Write(s *fold.State, notes []sequence.Note) { p.Ink(s, Inks(notes)) }

// Ink adds to a picture of a flat-folded state the ink on the faces that show.
func (p *Picture) Ink(s *fold.State, all []Ink) {
	if len(all) == 0 {
		return
	}
	lay := fanned(s)
	for _, k := range all {
		for _, f := range s.FacetsAtSheet(k.spot()) {
			iso := s.F[f].Iso
			top, ok := s.TopAt(iso.Apply(k.spot()))
			if !ok || top != f || iso.FaceUp() == k.Back {
				continue
			}
			p.Written = append(p.Written, k.shown(func(v geom.Vec) geom.Vec { return lay.put(f, iso.Apply(v)) }, iso.Turn))
			break
		}
	}
}

// WriteFlat adds all that is written on the sheet, as it lies flat with its front up.
func (p *Picture) WriteFlat(notes []sequence.Note) {
	for _, k := range Inks(notes) {
		w := k.shown(asIs, asIs)
		w.Behind = k.Back
		p.Written = append(p.Written, w)
	}
}

func asIs(v geom.Vec) geom.Vec { return v }

// written adds what is written on a pose, where the camera sees it.
func (p *Picture) written(pose body.Pose, c Camera, polys []geom.Polygon, planes []plane) {
	p.inked(pose, c, polys, planes, Inks(pose.Notes))
}

// edgeOn is how far towards the camera a face must look for what is on it to be seen.
const edgeOn = 0.03

// InkRound adds ink to a picture of a pose, where the camera that made it sees it.
func (p *Picture) InkRound(pose body.Pose, c Camera, all []Ink) {
	polys, planes := c.seen(pose)
	p.inked(pose, c, polys, planes, all)
}

func (p *Picture) inked(pose body.Pose, c Camera, polys []geom.Polygon, planes []plane, all []Ink) {
	for _, k := range all {
		for _, f := range pose.State.FacetsAtSheet(k.spot()) {
			at := pose.At[f]
			if math.Abs(c.toward.Dot(planes[f].n)) < edgeOn {
				continue
			}
			if c.toward.Dot(planes[f].n) > 0 == k.Back || c.hides(pose, polys, planes, f, c.project(at.Apply(lift(k.spot())))) {
				continue
			}
			p.Written = append(p.Written, k.shown(func(v geom.Vec) geom.Vec { return c.project(at.Apply(lift(v))) }, func(v geom.Vec) geom.Vec { return c.project(at.Turn(lift(v))) }))
			break
		}
	}
}

func lift(v geom.Vec) geom.Vec3 { return v.InSpace() }

// hides tells whether another piece lies between the camera and a spot of a piece.
func (c Camera) hides(p body.Pose, polys []geom.Polygon, planes []plane, f fold.FacetID, q geom.Vec) bool {
	own, _ := c.depth(planes[f], q)
	for j := range polys {
		g := fold.FacetID(j)
		if g == f || len(polys[j]) < 3 || !polys[j].Contains(q, -1e-3) {
			continue
		}
		z, ok := c.depth(planes[j], q)
		if !ok {
			continue
		}
		if z > own+1e-3 || z > own-1e-3 && c.before(p, polys, planes, j, int(f)) > 0 {
			return true
		}
	}
	return false
}

// At is the toy as it lies after a step, 0 for the sheet before the first, with what is
// written on it by then.
func At(r *sequence.Replay, step int) Picture {
	s := r.Start
	if step > 0 {
		s = r.Steps[step-1].After
	}
	p := Flat(s)
	p.Write(s, r.UpTo(step).Notes)
	return p
}
