package rings

import (
	"tussock/internal/body"
	"tussock/internal/geom"
	"tussock/internal/motion/reveal/ring"
	"tussock/internal/motion/toys"
)

// OnHexagon is how the sheet comes to lie in a state, at a leaf.
func (g Geometry) OnHexagon(s ring.State, place, no int) geom.Iso2 { return g.onHexagon(s, place, no) }

// Flexed is the pose of a state on its way through a flex.
func (g Geometry) Flexed(s ring.State, shuts int, part float64) body.Pose {
	return g.pose(s, g.flexing(shuts, part))
}

// Corners are those of a leaf on the sheet.
func (g Geometry) Corners(no int) [3]geom.Vec { return g.corners[no-1] }

// Facet is the piece of paper of a leaf.
func (g Geometry) Facet(no int) int { return int(g.facets[no-1][0]) }

// Instead is the leaf side that is seen for the one that is glued over.
func (g Geometry) Instead() (hidden, instead ring.Leaf) { return g.hidden, g.instead }

// Places are where it is drawn on.
func (g Geometry) Places() []toys.Place { return g.places() }

// LayerMM is how far leaves are drawn apart.
const LayerMM = layerMM
