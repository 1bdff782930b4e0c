package draw

import (
	"tussock/internal/body"
	"tussock/internal/fold"
)

// What tests from outside look at: they use the shelf, which knows this package.
const (
	FanCap    = fanCap
	SmallPart = smallPart
)

// FirstPainted is a piece of the part that is painted first.
func FirstPainted(p body.Pose, c Camera) fold.FacetID { return farToNear(partGroups(p), c)[0].faces[0] }
