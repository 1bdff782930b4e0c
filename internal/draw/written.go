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
	// Place is how a text that stands upright at the origin comes to lie on the paper: the
	// six numbers of an SVG matrix.
	Place  []float64 `json:"place,omitempty"`
	SizeMM float64   `json:"size_mm,omitempty"`
	Line   []float64 `json:"line,omitempty"`   // of ink, or a crease that ends inside the paper
	Behind bool      `json:"behind,omitempty"` // it is on the other face, and seen through the paper
}

// upright are the directions on the sheet in which a note runs and stands, as one looks at
// the face it is written on.
func upright(n sequence.Note) (along, up geom.Vec) {
	sin, cos := math.Sincos(geom.Rad(n.TurnDeg))
	if n.OnBack {
		return geom.Vec{X: -cos, Y: sin}, geom.Vec{X: sin, Y: cos}
	}
	return geom.Vec{X: cos, Y: sin}, geom.Vec{X: -sin, Y: cos}
}

// matrix is that of a text that runs along u, with v upwards, at p; of the plane with y up.
func matrix(u, v, p geom.Vec) []float64 {
	fine := func(x float64) float64 { return math.Round(x*1e4) / 1e4 }
	return []float64{fine(u.X), fine(-u.Y), fine(-v.X), fine(v.Y), round(p.X), round(-p.Y)}
}

// shown are the notes that are for the eye.
func shown(n sequence.Note) bool {
	return n.Kind == sequence.OpLabel && n.Text != "" || n.Kind == sequence.OpInk || n.Kind == sequence.OpPinch && n.FoldDeg != 0
}

// Write adds to a picture of a flat-folded state what is written on the faces that show.
func (p *Picture) Write(s *fold.State, notes []sequence.Note) {
	var lay fan
	for _, n := range notes {
		if !shown(n) {
			continue
		}
		if lay.in == nil {
			lay = fanned(s)
		}
		for _, f := range s.FacetsAtSheet(geom.Mid(n.At, n.To)) {
			iso := s.F[f].Iso
			top, ok := s.TopAt(iso.Apply(geom.Mid(n.At, n.To)))
			if !ok || top != f || iso.FaceUp() == n.OnBack {
				continue
			}
			if n.Kind != sequence.OpLabel {
				p.Written = append(p.Written, Written{Line: flatPoints(lay.put(f, iso.Apply(n.At)), lay.put(f, iso.Apply(n.To)))})
				break
			}
			u, v := upright(n)
			p.Written = append(p.Written, Written{Text: n.Text, SizeMM: n.SizeMM, Place: matrix(iso.Turn(u), iso.Turn(v), lay.put(f, iso.Apply(n.At)))})
			break
		}
	}
}

// WriteFlat adds all that is written on the sheet, as it lies flat with its front up.
func (p *Picture) WriteFlat(notes []sequence.Note) {
	for _, n := range notes {
		switch {
		case !shown(n):
		case n.Kind != sequence.OpLabel:
			p.Written = append(p.Written, Written{Line: flatPoints(n.At, n.To), Behind: n.OnBack})
		default:
			u, v := upright(n)
			p.Written = append(p.Written, Written{Text: n.Text, SizeMM: n.SizeMM, Place: matrix(u, v, n.At), Behind: n.OnBack})
		}
	}
}

// written adds what is written on a pose, where the camera sees it.
func (p *Picture) written(pose body.Pose, c Camera, polys []geom.Polygon, planes []plane) {
	for _, n := range pose.Notes {
		if !shown(n) {
			continue
		}
		mid := geom.Mid(n.At, n.To)
		for _, f := range pose.State.FacetsAtSheet(mid) {
			at := pose.At[f]
			if c.toward.Dot(planes[f].n) > 0 == n.OnBack || c.hides(pose, polys, planes, f, c.project(at.Apply(lift(mid)))) {
				continue
			}
			if n.Kind != sequence.OpLabel {
				p.Written = append(p.Written, Written{Line: flatPoints(c.project(at.Apply(lift(n.At))), c.project(at.Apply(lift(n.To))))})
				break
			}
			u, v := upright(n)
			p.Written = append(p.Written, Written{Text: n.Text, SizeMM: n.SizeMM,
				Place: matrix(c.project(at.Turn(lift(u))), c.project(at.Turn(lift(v))), c.project(at.Apply(lift(n.At))))})
			break
		}
	}
}

func lift(v geom.Vec) geom.Vec3 { return geom.Vec3{X: v.X, Y: v.Y} }

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
