package tellers

import (
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"

	"tussock/internal/geom"
	"tussock/internal/motion/reveal/teller"
	"tussock/internal/motion/toys"
	"tussock/internal/sequence"
)

// ErrNoTeller means that the toy has no zones as a fortune teller has them.
var ErrNoTeller = errors.New("its zones are not those of a fortune teller: outer panels, numbers and messages on one face of a square, folded to the middle twice")

// zoneNames are those of a fortune teller, as patterns name them.
var zoneNames = []string{teller.Outer, teller.Number, teller.Message}

// IsZone tells whether a zone is one of a fortune teller.
func IsZone(name string) bool { return slices.Contains(zoneNames, name) }

// Is tells a fortune teller by the zones that its pattern names.
func Is(p *sequence.Pattern) bool {
	names := p.Heads("zones")
	return len(names) > 0 && !slices.ContainsFunc(zoneNames, func(n string) bool { return !slices.Contains(names, n) })
}

// Geometry is a fortune teller as it was folded, mm and g.
type Geometry struct {
	SideMM, OtherMM float64 // of the sheet, across and up
	GapMM           float64 // that corners stop short of the middle by
	ThickMM         float64
	MassG           float64
	Places          []toys.Place
	states          []string
}

// Of reads a fortune teller off a replay that went to its end.
func Of(r *sequence.Replay) (Geometry, error) {
	g := Geometry{SideMM: r.Sheet.WidthMM, OtherMM: r.Sheet.HeightMM, ThickMM: r.Sheet.ThicknessMM, states: r.Pattern.Heads("states")}
	if !Is(r.Pattern) {
		return g, ErrNoTeller
	}
	for _, d := range r.Steps {
		if d.GapMM > 0 {
			g.GapMM = d.GapMM
			break
		}
	}
	g.MassG = toys.PaperG(r)
	g.Places = places(math.Min(g.SideMM, g.OtherMM), g.GapMM)
	for _, p := range g.Places {
		for _, a := range p.Areas {
			if !wholePiece(r, a) {
				return g, fmt.Errorf("%w; a fold runs through the place %s", ErrNoTeller, strings.ToLower(p.Label))
			}
		}
	}
	return g, nil
}

// wholePiece tells whether an area lies within one piece of the folded paper. Corners that a
// sheet which is not square moves a little do not count.
func wholePiece(r *sequence.Replay, a geom.Polygon) bool {
	s := r.Final()
	c := a.Centroid()
	for _, f := range s.FacetsAtSheet(c) {
		inside := true
		for _, v := range a {
			inside = inside && s.F[f].Poly.Contains(geom.Mid(c, v), geom.OnPaper)
		}
		if inside {
			return true
		}
	}
	return false
}

// places are the zones as places of the sheet: all on its back, which is mirrored as one looks
// at the front.
func places(side, gap float64) []toys.Place {
	var out []toys.Place
	on := func(p geom.Polygon) geom.Polygon {
		q := make(geom.Polygon, len(p))
		for i, v := range p {
			q[len(p)-1-i] = geom.Vec{X: side - v.X, Y: v.Y}
		}
		return q
	}
	for _, z := range teller.Zones(side, gap) {
		p := toys.Place{Name: fmt.Sprintf("%s %d", z.Kind, z.No), Zone: z.Kind, Back: true, TurnDeg: z.TurnDeg, Text: on(z.Text)}
		for _, a := range z.Areas {
			p.Areas = append(p.Areas, on(a))
		}
		switch z.Kind {
		case teller.Outer:
			p.Label, p.Shown = fmt.Sprintf("Outer panel %d", z.No), "outside, over the pockets"
			p.Picture = pictureIn(p.Areas[1], z.TurnDeg)
		case teller.Number:
			p.Label, p.Shown = fmt.Sprintf("Number %d", z.No), "inside, when it opens "+teller.Shown(z.No-1).String()
		case teller.Message:
			p.Label, p.Shown = fmt.Sprintf("Message %d", z.No), fmt.Sprintf("under number %d, when its flap is raised", z.No)
			p.Under = fmt.Sprintf("%s %d", teller.Number, z.No)
		}
		out = append(out, p)
	}
	return out
}

// pictureMM is how far a picture keeps from folds.
const pictureMM = 1.2

// pictureIn sets a picture into a right triangle: the largest upright square.
func pictureIn(a geom.Polygon, turnDeg float64) []toys.Frame {
	sin, cos := math.Sincos(geom.Rad(turnDeg))
	along, up := geom.Vec{X: -cos, Y: sin}, geom.Vec{X: sin, Y: cos} // on the back
	c := a.Centroid()
	// Half the side of the square about a spot that still lies inside, by bisection.
	fits := func(at geom.Vec, h float64) bool {
		for _, k := range [][2]float64{{-1, -1}, {1, -1}, {1, 1}, {-1, 1}} {
			if !a.Contains(at.Add(along.Scale(k[0]*h)).Add(up.Scale(k[1]*h)), -pictureMM) {
				return false
			}
		}
		return true
	}
	best, at := 0.0, c
	for i := range 21 {
		for j := range 21 {
			q := c.Add(along.Scale(float64(i-10) * 0.02 * a[0].Dist(c))).Add(up.Scale(float64(j-10) * 0.02 * a[0].Dist(c)))
			lo, hi := 0.0, a[0].Dist(c)
			for range 18 {
				if mid := (lo + hi) / 2; fits(q, mid) {
					lo = mid
				} else {
					hi = mid
				}
			}
			if lo > best {
				best, at = lo, q
			}
		}
	}
	return []toys.Frame{{Area: a, Corner: at.Sub(along.Scale(best)).Add(up.Scale(best)), Along: along.Scale(2 * best), Down: up.Scale(-2 * best), Back: true}}
}
