package draw

import (
	"math"

	"tussock/internal/fold"
	"tussock/internal/geom"
)

// fanStep is by how much each layer is drawn smaller than the one beneath it, and fanCap by
// how much the uppermost of a stack, both as parts of the toy's longer side and at every
// rim: a toy that is its own mirror image is drawn so. Display only: no measurement uses it.
const (
	fanStep = 0.006
	fanCap  = 0.035
	// fanLeast is the least extent about which layers are drawn smaller, as a part of the
	// longer side: narrow toys are not squeezed.
	fanLeast = 0.3
)

// fan is where the layers of a state are drawn: drawn in towards the middle, the more the
// higher a layer lies.
type fan struct {
	mid geom.Vec
	in  [][2]float64 // by piece, what is left of the distances from the middle across and up
}

func fanned(s *fold.State) fan {
	b, depths := s.Box(), s.Depths()
	deepest := 1
	for _, d := range depths {
		deepest = max(deepest, d)
	}
	size := longer(b)
	step := math.Min(fanStep, fanCap/float64(deepest)) * size
	least := fanLeast * size
	out := fan{mid: b.Centre(), in: make([][2]float64, len(s.F))}
	for i, d := range depths {
		shrunk := step * float64(d)
		out.in[i] = [2]float64{1 - 2*shrunk/math.Max(b.Width(), least), 1 - 2*shrunk/math.Max(b.Height(), least)}
	}
	return out
}

// put is where a spot of a piece is drawn, given where it lies.
func (n fan) put(f fold.FacetID, p geom.Vec) geom.Vec {
	if int(f) >= len(n.in) || f < 0 {
		return p
	}
	d, k := p.Sub(n.mid), n.in[f]
	return n.mid.Add(geom.Vec{X: d.X * k[0], Y: d.Y * k[1]})
}

func (n fan) poly(f fold.FacetID, p geom.Polygon) geom.Polygon {
	out := make(geom.Polygon, len(p))
	for i, v := range p {
		out[i] = n.put(f, v)
	}
	return out
}

// asItLies draws a spot where it lies.
func asItLies(p geom.Vec) geom.Vec { return p }
