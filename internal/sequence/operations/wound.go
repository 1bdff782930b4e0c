package operations

import (
	"math"

	"tussock/internal/fold/layermap"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// mostTurns is how often a bend goes round at most.
const mostTurns = 4

// bending is a bend that is being written.
type bending struct{ sequence.Bending }

// wound lays paper that goes round a gauge over itself: each time it comes to where paper
// lies already, its own or that of a wrap about the same line from the other side, its
// radius grows by the thickness of its layers.
func (b *bending) wound(r *sequence.Course, line geom.Line, side, far float64) {
	layers := 0
	for _, c := range layermap.Cells(r.State) {
		if side*line.Side(c.Poly.Centroid()) > 0 {
			layers = max(layers, len(c.Stack))
		}
	}
	grows := float64(layers) * r.State.Sheet.ThicknessMM
	bare := 2 * math.Pi // of the gauge
	for _, o := range r.Out.Bends {
		if o.Kind == sequence.OpWrap && math.Abs(o.RadiusMM-b.RadiusMM) < geom.OnPaper && b.sameLine(r, o, line, side) {
			bare = math.Max(0, bare-math.Abs(geom.Rad(o.AngleDeg)))
		}
	}
	var turned float64
	radius, room := b.RadiusMM, bare
	for left := far; left > geom.OnPaper; radius, room = radius+grows, 2*math.Pi {
		arc := math.Min(left, math.Min(room, mostTurns*2*math.Pi-turned)*radius)
		if arc <= geom.OnPaper && turned > 0 {
			break // wound as often as is reckoned with
		}
		b.Arcs = append(b.Arcs, sequence.Arc{MM: arc, Deg: geom.Deg(arc / radius)})
		left -= arc
		turned += arc / radius
		if up := grows * math.Sqrt2; left > up && up > 0 { // it climbs onto what lies there
			along := grows / (radius + grows)
			b.Arcs = append(b.Arcs, sequence.Arc{Deg: -climbDeg}, sequence.Arc{MM: up}, sequence.Arc{Deg: climbDeg + geom.Deg(along)})
			left -= up
			turned += along
			room -= along
		}
	}
	b.AngleDeg = geom.Deg(turned)
}

// climbDeg is how steeply wound paper climbs onto the edge of what lies under it.
const climbDeg = 45

// sameLine tells whether an earlier bend goes about a line from its other side.
func (b *bending) sameLine(r *sequence.Course, o sequence.Bending, line geom.Line, side float64) bool {
	at := r.State.FacetsAtSheet(o.Moving)
	if len(at) == 0 {
		return false
	}
	iso := r.State.F[at[0]].Iso
	return math.Abs(line.Side(iso.Apply(o.A))) < geom.OnPaper && math.Abs(line.Side(iso.Apply(o.B))) < geom.OnPaper && side*line.Side(iso.Apply(o.Moving)) < 0
}
