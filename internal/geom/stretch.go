package geom

import "math"

// Within tells whether a point lies on a segment of a line.
func (s Segment) Within(l Line, p Vec) bool {
	t := s.B.Sub(s.A).Unit().Dot(p.Sub(s.A))
	return math.Abs(l.Side(p)) < OnPaper && t > -OnPaper && t < s.Len()+OnPaper
}

// Stretch is the part of a segment of line l that lies on a polygon, its rim included.
func (p Polygon) Stretch(l Line, s Segment) (Segment, bool) {
	part, ok := p.ClipLine(l)
	if !ok {
		return part, false
	}
	d := s.B.Sub(s.A).Unit()
	t := func(v Vec) float64 { return d.Dot(v.Sub(s.A)) }
	lo := math.Max(0, math.Min(t(part.A), t(part.B)))
	hi := math.Min(s.Len(), math.Max(t(part.A), t(part.B)))
	if hi-lo <= Overlap {
		return part, false
	}
	return Segment{A: s.A.Add(d.Scale(lo)), B: s.A.Add(d.Scale(hi))}, true
}

// Extended is a segment that runs along d made longer, so that it reaches a point.
func (s Segment) Extended(p, d Vec) Segment {
	if d.Dot(s.A) > d.Dot(s.B) {
		s.A, s.B = s.B, s.A
	}
	switch t := d.Dot(p); {
	case t < d.Dot(s.A):
		s.A = p
	case t > d.Dot(s.B):
		s.B = p
	}
	return s
}
