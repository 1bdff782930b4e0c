package draw

import (
	"math"
	"sort"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/geom"
)

// Camera looks at a toy in the round from far away (parallel projection).
type Camera struct{ right, up, toward geom.Vec3 }

// AtAngle looks at a glider from its right and behind, azimuth degrees off its
// tail and elevation degrees above its wings. 0, 0 is straight from behind.
func AtAngle(f body.Frame, azimuthDeg, elevationDeg float64) Camera {
	a, e := geom.Rad(azimuthDeg), geom.Rad(elevationDeg)
	// Level is the plane of the wing crease, in which the glider flies.
	level := f.Right.Cross(f.Chord).Unit()
	back := f.Chord.Scale(-math.Cos(a)).Add(f.Right.Scale(math.Sin(a)))
	toward := back.Scale(math.Cos(e)).Add(level.Scale(math.Sin(e))).Unit()
	right := level.Cross(toward).Unit()
	return Camera{right, toward.Cross(right), toward}
}

func (c Camera) project(p geom.Vec3) geom.Vec { return geom.Vec{X: c.right.Dot(p), Y: c.up.Dot(p)} }

// Round draws a pose seen by a camera, with its centre of mass. Pieces are
// painted from the farthest wing or keel to the nearest, and within each in the
// order of its layers.
func Round(p body.Pose, c Camera) Picture {
	groups := wingGroups(p)
	rank := make([]int, len(p.State.F))
	ranked, _ := p.State.Ranked()
	for i, f := range ranked {
		rank[f] = i
	}
	for _, g := range groups {
		// The layer order holds for somebody who looks at the folded plane; from
		// behind it is the other way round.
		f := g.faces[0]
		facing := c.toward.Dot(p.At[f].Turn(geom.Vec3{Z: 1})) > 0
		reversed := facing != p.State.F[f].Iso.FaceUp()
		sort.Slice(g.faces, func(i, j int) bool { return (rank[g.faces[i]] < rank[g.faces[j]]) != reversed })
	}
	var pic Picture
	box := geom.EmptyBox()
	for _, g := range farToNear(groups, c) {
		for _, f := range g.faces {
			var pts []geom.Vec
			for _, v := range p.Corners(f) {
				pts = append(pts, c.project(v))
			}
			box = box.Grow(pts...)
			front := c.toward.Dot(p.At[f].Turn(geom.Vec3{Z: 1})) > 0
			pic.Faces = append(pic.Faces, Face{Points: flatPoints(pts...), Front: front})
		}
	}
	pic.View = view(box)
	pic.Balance(c.project(p.Weigh().CoM))
	return pic
}

// group is the pieces that swing together: they lie in one plane.
type group struct {
	faces   []fold.FacetID
	corners []geom.Vec3
	normal  geom.Vec3
}

func wingGroups(p body.Pose) []*group {
	var groups []*group
	byWing := map[int]*group{}
	for i := range p.State.F {
		f := fold.FacetID(i)
		g := byWing[p.WingOf(f)]
		if g == nil {
			g = &group{normal: p.At[f].Turn(geom.Vec3{Z: 1})}
			byWing[p.WingOf(f)] = g
			groups = append(groups, g)
		}
		g.faces = append(g.faces, f)
		g.corners = append(g.corners, p.Corners(f)...)
	}
	return groups
}

// farToNear orders flat groups for painting: a group goes before another when
// that one lies wholly on the camera's side of its plane.
func farToNear(groups []*group, c Camera) []*group {
	left := append([]*group(nil), groups...)
	var out []*group
	for len(left) > 0 {
		pick := 0
		for i, g := range left {
			hidden := false // something still to paint lies behind g
			for j, h := range left {
				hidden = hidden || i != j && behind(h, g, c)
			}
			if !hidden {
				pick = i
				break
			}
		}
		out = append(out, left[pick])
		left = append(left[:pick:pick], left[pick+1:]...)
	}
	return out
}

// behind tells whether group a lies behind group b.
func behind(a, b *group, c Camera) bool {
	if s := side(a, b, c); s != 0 {
		return s < 0
	}
	return side(b, a, c) > 0
}

// side is +1 when all of a lies on the camera's side of b's plane, -1 when on
// the far side, 0 when it lies on both or in the plane.
func side(a, b *group, c Camera) int {
	n := b.normal
	if n.Dot(c.toward) < 0 {
		n = n.Scale(-1)
	}
	var near, far bool
	for _, v := range a.corners {
		d := n.Dot(v.Sub(b.corners[0]))
		near, far = near || d > geom.OnPaper, far || d < -geom.OnPaper
	}
	switch {
	case near && !far:
		return 1
	case far && !near:
		return -1
	}
	return 0
}
