package layermap

import (
	"math"
	"slices"

	"tussock/internal/fold"
	"tussock/internal/geom"
)

// Stacked sorts the pieces of every cell, the uppermost first.
func Stacked(s *fold.State, cells []Cell) []Cell {
	out := make([]Cell, len(cells))
	for i, c := range cells {
		c.Stack = slices.Clone(c.Stack)
		slices.SortStableFunc(c.Stack, func(a, b int) int { return -int(s.Above(fold.FacetID(a), fold.FacetID(b))) })
		out[i] = c
	}
	return out
}

// Seen is how much of each face of the sheet shows on one side of the toy, mm².
type Seen struct{ FrontMM2, BackMM2 float64 }

// Visible is what shows from the viewer's side and from behind when the sheet is
// started front up. Started back up, front and back change places in both.
func Visible(s *fold.State, cells []Cell) (top, bottom Seen) {
	for _, c := range Stacked(s, cells) {
		a := c.Poly.Area()
		add := func(v *Seen, f int, fromBehind bool) {
			if s.F[f].Iso.FaceUp() != fromBehind {
				v.FrontMM2 += a
			} else {
				v.BackMM2 += a
			}
		}
		add(&top, c.Stack[0], false)
		add(&bottom, c.Stack[len(c.Stack)-1], true)
	}
	return top, bottom
}

// Hidden are the stretches of folds and edges that lie under other layers as seen
// by the viewer: what an x-ray would show.
func Hidden(s *fold.State, cells []Cell) []geom.Segment {
	stacked := Stacked(s, cells)
	m := newMesh(cells)
	var out []geom.Segment
	done := map[[2]int32]bool{}
	for _, sd := range m.sides {
		key := [2]int32{min(sd.a, sd.b), max(sd.a, sd.b)}
		if done[key] {
			continue
		}
		p, q := m.at[sd.a], m.at[sd.b]
		mid := geom.Mid(p, q)
		stack := stacked[sd.cell].Stack
		for _, f := range stack[1:] { // the top layer's rims are seen
			if onRim(s.Folded(fold.FacetID(f)), mid) && !onRim(s.Folded(fold.FacetID(stack[0])), mid) {
				out, done[key] = append(out, geom.Segment{A: p, B: q}), true
				break
			}
		}
	}
	return out
}

func onRim(p geom.Polygon, v geom.Vec) bool {
	for i := range p {
		if (geom.Segment{A: p[i], B: p[(i+1)%len(p)]}).Dist(v) < weldMM {
			return true
		}
	}
	return false
}

// Residual is how far a landmark lies from where its mirror image on the sheet
// says it should.
type Residual struct {
	Left, Right string // two landmarks that mirror each other on the sheet
	MM          float64
}

// Mirror compares the two halves of a toy folded from a sheet that is alike left
// and right. Landmarks that mirror each other about the sheet's upright middle
// line are paired; the plane motion (a mirror image, or none for a toy folded in
// half) that fits all pairs best is taken off; what is left over is the residual
// of each pair. ok is false with fewer than two pairs.
func Mirror(widthMM float64, sheet, folded map[string]geom.Vec) (out []Residual, ok bool) {
	names := make([]string, 0, len(sheet))
	for n := range sheet {
		names = append(names, n)
	}
	slices.Sort(names)
	var from, to []geom.Vec
	for _, a := range names {
		want := geom.Vec{X: widthMM - sheet[a].X, Y: sheet[a].Y}
		for _, b := range names {
			if sheet[a].X < widthMM/2-1e-6 && sheet[b].Dist(want) < 1e-6 {
				p, okP := folded[a]
				q, okQ := folded[b]
				if okP && okQ {
					from, to = append(from, p), append(to, q)
					out = append(out, Residual{Left: a, Right: b})
				}
				break
			}
		}
	}
	if len(out) < 2 {
		return nil, false
	}
	best := math.Inf(1)
	for _, flip := range []bool{false, true} {
		m := fit(from, to, flip)
		var sum float64
		r := make([]float64, len(from))
		for i := range from {
			r[i] = m.Apply(from[i]).Dist(to[i])
			sum += r[i] * r[i]
		}
		if sum < best {
			best = sum
			for i := range out {
				out[i].MM = r[i]
			}
		}
	}
	return out, true
}

// fit is the motion, turning over or not, that carries one set of points nearest
// to another (least squares).
func fit(from, to []geom.Vec, flip bool) geom.Iso2 {
	n := 1 / float64(len(from))
	var a, b geom.Vec
	for i := range from {
		a, b = a.Add(from[i].Scale(n)), b.Add(to[i].Scale(n))
	}
	var c, s float64
	for i := range from {
		p, q := from[i].Sub(a), to[i].Sub(b)
		if flip {
			p.X = -p.X
		}
		c, s = c+p.Dot(q), s+p.Cross(q)
	}
	m := geom.Rotation(math.Atan2(s, c), geom.Vec{})
	if flip {
		m = m.After(geom.Iso2{A: -1, D: 1})
	}
	shift := b.Sub(m.Turn(a))
	m.TX, m.TY = shift.X, shift.Y
	return m
}
