package rings

import (
	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/geom"
)

// unfolded is the paper of a state as the flat sheet.
func unfolded(s *fold.State) body.Pose {
	p := body.Pose{State: s, At: make([]geom.Iso3, len(s.F))}
	for i := range p.At {
		p.At[i] = geom.Lift(geom.Identity)
	}
	return p
}
