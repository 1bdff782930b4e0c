package body

import (
	"math"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Misfit is what becomes of edges of the sheet that meet on the exact toy, when the
// sheet is not what it should be.
type Misfit struct {
	Edges [2]int // of the outline, from the lower one counter-clockwise
	Kind  MisfitKind
	MM    float64 // the most along the edges
}

// MisfitKind is how edges miss each other.
type MisfitKind string

// Edges that should meet side by side gape or overlap; edges that should lie on one
// another lie beside each other.
const (
	Gape    MisfitKind = "gap"
	Overlap MisfitKind = "overlap"
	Beside  MisfitKind = "beside"
)

const (
	samplesPerEdge = 48
	inwardMM       = 0.05
	// meetMM is how near edges of the exact toy must lie to be meant to meet: a gap
	// left for the thickness is no more.
	meetMM = 2.5
	// leastMisfitMM is not worth telling: no hand folds so exactly.
	leastMisfitMM = 0.1
)

// rim is a spot of the sheet's edge on the folded toy, and the way into the paper.
type rim struct {
	edge int
	at   geom.Vec
	in   geom.Vec
	ok   bool
}

// rims are the edges of a sheet on the toy that it folds into; real is where its edges are
// when they are not where the folds take them to be.
func rims(s *fold.State, outline, real geom.Polygon) []rim {
	var out []rim
	for e, a := range outline {
		b := outline[(e+1)%len(outline)]
		in := b.Sub(a).Unit().Left()
		for k := range samplesPerEdge {
			t := (float64(k) + 0.5) / samplesPerEdge
			p, q := a.Lerp(b, t), real[e].Lerp(real[(e+1)%len(real)], t)
			r := rim{edge: e}
			if f := s.FacetsAtSheet(p.Add(in.Scale(inwardMM))); len(f) == 1 {
				iso := s.F[f[0]].Iso
				r.at, r.ok = iso.Apply(q), true
				r.in = iso.Apply(p.Add(in)).Sub(iso.Apply(p))
			}
			out = append(out, r)
		}
	}
	return out
}

// Misfits compares a toy from an exact sheet with the same one from a sheet with as
// many corners that is a little off, both folded flat. The worst of each pair of
// edges is told.
func Misfits(exact, real *sequence.Replay) []Misfit {
	a, b := exact.Sheet.Outline(), real.Sheet.Outline()
	if len(a) != len(b) {
		return nil
	}
	return misfits(rims(exact.Final(), a, a), rims(real.Final(), b, b), len(a))
}

// MisfitsAbout are those of a sheet that is a little off when every fold lies where it
// does on the exact sheet, middle on middle: to first order what they come to, where the
// folds themselves cannot be carried out on such a sheet.
func MisfitsAbout(exact *sequence.Replay, off sheet.Sheet) []Misfit {
	a, b := exact.Sheet.Outline(), off.Outline()
	if len(a) != len(b) {
		return nil
	}
	by := a.Centroid().Sub(b.Centroid())
	laid := make(geom.Polygon, len(b))
	for i, p := range b {
		laid[i] = p.Add(by)
	}
	return misfits(rims(exact.Final(), a, a), rims(exact.Final(), a, laid), len(a))
}

func misfits(a, b []rim, edges int) []Misfit {
	worst := map[[2]int]Misfit{}
	for i := range a {
		for j := range i {
			if !a[i].ok || !a[j].ok || !b[i].ok || !b[j].ok || a[i].at.Dist(a[j].at) > meetMM {
				continue
			}
			facing := a[i].in.Dot(a[j].in)
			if math.Abs(facing) < 0.95 {
				continue
			}
			// How far j lies outside of i, across the edge: more than on the exact toy?
			out := func(p, q rim) float64 { return -p.in.Dot(q.at.Sub(p.at)) }
			off := out(b[i], b[j]) - out(a[i], a[j])
			m := Misfit{Edges: [2]int{a[j].edge, a[i].edge}, MM: math.Abs(off)}
			switch {
			case facing > 0:
				m.Kind = Beside
			case off > 0:
				m.Kind = Gape
			default:
				m.Kind = Overlap
			}
			if m.MM > leastMisfitMM && m.MM > worst[m.Edges].MM {
				worst[m.Edges] = m
			}
		}
	}
	var all []Misfit
	for e := range edges {
		for d := e; d < edges; d++ {
			if m, found := worst[[2]int{e, d}]; found {
				all = append(all, m)
			}
		}
	}
	return all
}
