package draw

import (
	"math"

	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// AwayDeg is by how much the picture of a step is turned, clockwise, so that the flap
// moves straight away from the body; 0 for steps that fold nothing over.
func AwayDeg(d sequence.Done) float64 {
	if !d.HasLine() || d.Side == 0 {
		return 0
	}
	// What moves lies on one side of the line and goes to the other.
	to := d.Line.N.Scale(-float64(d.Side))
	return math.Round(geom.Deg(math.Atan2(-to.X, to.Y))*100) / 100
}
