package remarks

import (
	"math"

	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// Measured is a place that a pattern takes with a ruler: so many mm, as a knob says,
// along an edge of the sheet.
type Measured struct {
	Knob     string
	Point    string   // the landmark, by name
	At       geom.Vec // where it lies, on the sheet
	Along    geom.Vec // the way in which the knob counts, a unit vector along the edge
	From, To int      // ends of the edge: corners of the outline
	Fraction float64  // of the edge, from From
	LengthMM float64  // of the edge
}

// MeasuredIn lists the measured places of a replay on a rectangle that lie on one of its
// edges, in the order of the pattern.
func MeasuredIn(r *sequence.Replay) []Measured {
	outline := r.Sheet.Outline()
	if r.Sheet.Shape != nil {
		return nil
	}
	var out []Measured
	for _, st := range r.Pattern.Stmts {
		p, isPoint := st.(sequence.PointStmt)
		if !isPoint {
			continue
		}
		part, isPart := p.P.(sequence.PointPart)
		if !isPart || !part.Mm {
			continue
		}
		knob, isKnob := part.K.(sequence.NumName)
		a, okA := named(r, part.A)
		b, okB := named(r, part.B)
		at, known := r.Landmarks[p.Name]
		if !isKnob || !okA || !okB || !known || a.Dist(b) < geom.Distinct {
			continue
		}
		for i, from := range outline {
			to := outline[(i+1)%len(outline)]
			l, _ := geom.LineThrough(from, to)
			if math.Abs(l.Side(a)) > geom.OnPaper || math.Abs(l.Side(b)) > geom.OnPaper {
				continue
			}
			long := from.Dist(to)
			out = append(out, Measured{Knob: string(knob), Point: p.Name, At: at, Along: b.Sub(a).Unit(),
				From: i, To: (i + 1) % len(outline), Fraction: from.Dist(at) / long, LengthMM: long})
			break
		}
	}
	return out
}

// named is where a landmark given by its name lies on the sheet.
func named(r *sequence.Replay, e sequence.PointExpr) (geom.Vec, bool) {
	n, ok := e.(sequence.PointName)
	if !ok {
		return geom.Vec{}, false
	}
	v, ok := r.Landmarks[string(n)]
	return v, ok
}
