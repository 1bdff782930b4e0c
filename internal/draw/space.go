package draw

import (
	"math"
	"slices"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/geom"
)

// Slanted looks at any toy from in front, to its right and above: azimuth degrees
// round the upright axis of the folded plane, elevation degrees above the table.
func Slanted(azimuthDeg, elevationDeg float64) Camera {
	a, e := geom.Rad(azimuthDeg), geom.Rad(elevationDeg)
	toward := geom.Vec3{X: math.Sin(a) * math.Cos(e), Y: -math.Cos(a) * math.Cos(e), Z: math.Sin(e)}
	right := geom.Vec3{Z: 1}.Cross(toward).Unit()
	return Camera{right, toward.Cross(right), toward}
}

// InSpace draws any pose: what lies nearer to the camera is painted later. Where
// two pieces lie in one plane, as layers do, the order of the layers decides.
func InSpace(p body.Pose, c Camera) Picture { return inSpace(p, c, nil) }

// inSpace shades those pieces that move, where it is told.
func inSpace(p body.Pose, c Camera, moves func(fold.FacetID) bool) Picture {
	n := len(p.State.F)
	polys, planes := c.seen(p)
	box := geom.EmptyBox()
	for _, q := range polys {
		box = box.Grow(q...)
	}
	over := make([][]bool, n) // over[i][j]: i hides j
	for i := range over {
		over[i] = make([]bool, n)
	}
	for i := range n {
		for j := range i {
			if s := c.before(p, polys, planes, i, j); s > 0 {
				over[i][j] = true
			} else if s < 0 {
				over[j][i] = true
			}
		}
	}
	seams := constructions(p.State)
	var pic Picture
	for _, i := range painted(over) {
		id := fold.FacetID(i)
		f := Face{Points: flatPoints(polys[i]...), Front: c.toward.Dot(planes[i].n) > 0, Moves: moves != nil && moves(id)}
		if hidden := rimSeams(p, c, id, seams[id]); len(hidden) > 0 {
			f.Plain, f.Edges = true, edges(polys[i], hidden, asItLies)
		}
		pic.Faces = append(pic.Faces, f)
	}
	pic.written(p, c, polys, planes)
	pic.View = view(box)
	pic.Balance(c.project(p.Weigh().CoM))
	return pic
}

// seen are the pieces of a pose as the camera sees them, and their planes.
func (c Camera) seen(p body.Pose) ([]geom.Polygon, []plane) {
	polys, planes := make([]geom.Polygon, len(p.State.F)), make([]plane, len(p.State.F))
	for i := range polys {
		normal := p.At[i].Turn(geom.Vec3{Z: 1})
		corners := p.Corners(fold.FacetID(i))
		planes[i] = plane{normal, normal.Dot(corners[0])}
		for _, v := range corners {
			polys[i] = append(polys[i], c.project(v))
		}
		if polys[i].Area() < 0 {
			slices.Reverse(polys[i])
		}
	}
	return polys, planes
}

type plane struct {
	n geom.Vec3
	d float64
}

// rimSeams are the lines of a piece that are no edges: constructions, and the
// strips of a bend, where the same paper goes on.
func rimSeams(p body.Pose, c Camera, f fold.FacetID, flat []fold.Hinge) []geom.Segment {
	var out []geom.Segment
	add := func(h fold.Hinge) {
		a := p.At[f].Apply(geom.Vec3{X: h.P.X, Y: h.P.Y})
		b := p.At[f].Apply(geom.Vec3{X: h.Q.X, Y: h.Q.Y})
		out = append(out, geom.Segment{A: c.project(a), B: c.project(b)})
	}
	for _, h := range flat {
		add(h)
	}
	for _, h := range p.State.H {
		if h.Crease < 0 && (h.A == f || h.B == f) {
			add(h)
		}
	}
	return out
}

// before tells which of two pieces hides the other: +1 when i lies nearer to the
// camera where they overlap in the picture, -1 when j does, 0 when neither.
func (c Camera) before(p body.Pose, polys []geom.Polygon, planes []plane, i, j int) int {
	if len(polys[i]) < 3 || len(polys[j]) < 3 || !geom.Overlaps(polys[i], polys[j]) {
		return 0
	}
	common := geom.ClipConvex(polys[i], polys[j])
	if common == nil {
		return 0
	}
	q := common.Centroid()
	zi, ok1 := c.depth(planes[i], q)
	zj, ok2 := c.depth(planes[j], q)
	if !ok1 || !ok2 {
		return 0
	}
	switch d := zi - zj; {
	case d > 1e-3:
		return 1
	case d < -1e-3:
		return -1
	}
	// In one plane: the layers as somebody sees them who looks at i's front or back.
	v := int(p.State.Above(fold.FacetID(i), fold.FacetID(j)))
	if facing := c.toward.Dot(planes[i].n) > 0; facing != p.State.F[i].Iso.FaceUp() {
		v = -v
	}
	return v
}

// depth is how near to the camera a plane is behind a spot of the picture.
func (c Camera) depth(p plane, q geom.Vec) (float64, bool) {
	k := p.n.Dot(c.toward)
	if math.Abs(k) < 1e-6 {
		return 0, false
	}
	return (p.d - p.n.Dot(c.right.Scale(q.X)) - p.n.Dot(c.up.Scale(q.Y))) / k, true
}

// painted orders pieces so that what is hidden comes first. Where they hide each
// other in a ring the lowest number goes next.
func painted(over [][]bool) []int {
	n := len(over)
	under := make([]int, n) // unpainted pieces that i hides
	for i := range n {
		for j := range n {
			if over[i][j] {
				under[i]++
			}
		}
	}
	done := make([]bool, n)
	out := make([]int, 0, n)
	for len(out) < n {
		next := -1
		for i := range n {
			if !done[i] && (next < 0 || under[i] < under[next]) {
				next = i
			}
		}
		done[next] = true
		out = append(out, next)
		for i := range n {
			if over[i][next] {
				under[i]--
			}
		}
	}
	return out
}

// Shaped tells whether a replay ends in the round: something is opened, bent,
// parted or slid.
func Shaped(p body.Pose, openings int) bool {
	if openings > 0 {
		return true
	}
	for i, f := range p.State.F {
		z := p.At[i].Turn(geom.Vec3{Z: 1}).Z
		if f.Iso.FaceUp() && z < 1-1e-9 || !f.Iso.FaceUp() && z > -1+1e-9 {
			return true
		}
	}
	return false
}
