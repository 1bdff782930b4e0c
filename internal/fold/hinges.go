package fold

import (
	"math"

	"tussock/internal/geom"
)

// Creased are the hinges along which a step has folded: new ones, or earlier ones that lie
// on the same line of the folded plane and are folded by it.
func (s *State) Creased(l geom.Line, made CreaseID) []int32 {
	var out []int32
	for i, h := range s.H {
		if h.Crease == made && h.Kind == Crease {
			out = append(out, int32(i))
		}
	}
	if len(out) > 0 {
		return out
	}
	for i, h := range s.H {
		iso := s.F[h.A].Iso
		if h.Kind != Glue && math.Abs(l.Side(iso.Apply(h.P))) < geom.OnPaper && math.Abs(l.Side(iso.Apply(h.Q))) < geom.OnPaper {
			out = append(out, int32(i))
		}
	}
	return out
}

// Segments are hinges where they lie on the sheet.
func (s *State) Segments(hinges []int32) []geom.Segment {
	out := make([]geom.Segment, len(hinges))
	for i, h := range hinges {
		out[i] = geom.Segment{A: s.H[h].P, B: s.H[h].Q}
	}
	return out
}
