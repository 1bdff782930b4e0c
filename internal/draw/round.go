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

// Behind looks at a toy that goes forward from its right and behind, azimuth degrees off
// its back and elevation degrees above it. 0, 0 is straight from behind.
func Behind(forward, onRight geom.Vec3, azimuthDeg, elevationDeg float64) Camera {
	a, e := geom.Rad(azimuthDeg), geom.Rad(elevationDeg)
	level := onRight.Cross(forward).Unit()
	back := forward.Scale(-math.Cos(a)).Add(onRight.Scale(math.Sin(a)))
	toward := back.Scale(math.Cos(e)).Add(level.Scale(math.Sin(e))).Unit()
	right := level.Cross(toward).Unit()
	return Camera{right, toward.Cross(right), toward}
}

// From looks at a toy so that one direction lies to the right and one up; both are square
// to each other.
func From(right, up geom.Vec3) Camera { return Camera{right, up, right.Cross(up)} }

// Sees is where a spot lies on a picture that the camera makes.
func (c Camera) Sees(at geom.Vec3) [2]float64 { return xy(c.project(at)) }

func (c Camera) project(p geom.Vec3) geom.Vec { return geom.Vec{X: c.right.Dot(p), Y: c.up.Dot(p)} }

// Round draws a pose of flat parts seen by a camera, with its centre of mass and its
// edges bent. Pieces are painted from the farthest part to the nearest, and within each
// in the order of its layers.
func Round(p body.Pose, c Camera) Picture {
	groups := partGroups(p)
	rank := make([]int, len(p.State.F))
	ranked, _ := p.State.Ranked()
	for i, f := range ranked {
		rank[f] = i
	}
	var all []*group
	for _, g := range groups {
		// The layer order holds for somebody who looks at the folded plane; from
		// behind it is the other way round.
		f := g.faces[0]
		facing := c.toward.Dot(p.At[f].Turn(geom.Vec3{Z: 1})) > 0
		reversed := facing != p.State.F[f].Iso.FaceUp()
		sort.Slice(g.faces, func(i, j int) bool { return (rank[g.faces[i]] < rank[g.faces[j]]) != reversed })
		all = append(all, g.bent(p, p.Lips)...)
	}
	var pic Picture
	box := geom.EmptyBox()
	for _, g := range farToNear(all, c) {
		for _, q := range g.pieces {
			var pts []geom.Vec
			for _, v := range q.corners {
				pts = append(pts, c.project(v))
			}
			box = box.Grow(pts...)
			pic.Faces = append(pic.Faces, Face{Points: flatPoints(pts...), Front: c.toward.Dot(q.normal) > 0})
		}
	}
	if len(p.Notes) > 0 {
		polys, planes := c.seen(p)
		pic.written(p, c, polys, planes)
	}
	pic.View = view(box)
	pic.Balance(c.project(p.Weigh().CoM))
	return pic
}

// facePiece is a piece of paper in space; normal points out of the paper's front.
type facePiece struct {
	corners []geom.Vec3
	normal  geom.Vec3
}

// bent divides a group at the hinges of its lips: each lip is a group of its own.
func (g *group) bent(p body.Pose, lips []body.Lip) []*group {
	flat := &group{normal: g.normal}
	for _, f := range g.faces {
		flat.pieces = append(flat.pieces, facePiece{p.Corners(f), p.At[f].Turn(geom.Vec3{Z: 1})})
	}
	out := []*group{flat}
	for _, l := range lips {
		if l.Part != p.PartOf(g.faces[0]) {
			continue
		}
		turn := geom.Swing(geom.Vec3{}, l.Axis, l.Rad)
		edge := &group{normal: turn.Turn(flat.normal)}
		whole := flat.pieces
		flat.pieces = nil
		for _, q := range whole {
			rest, bent := l.Cut(q.corners)
			if rest != nil {
				flat.pieces = append(flat.pieces, facePiece{rest, q.normal})
			}
			if bent != nil {
				edge.pieces = append(edge.pieces, facePiece{bent, turn.Turn(q.normal)})
			}
		}
		if len(edge.pieces) > 0 {
			out = append(out, edge)
		}
	}
	if len(flat.pieces) == 0 { // all of it is bent
		out = out[1:]
	}
	for _, h := range out {
		for _, q := range h.pieces {
			h.corners = append(h.corners, q.corners...)
		}
	}
	return out
}

// group is the pieces that swing together: they lie in one plane.
type group struct {
	faces   []fold.FacetID
	pieces  []facePiece
	corners []geom.Vec3
	normal  geom.Vec3
}

func partGroups(p body.Pose) []*group {
	var groups []*group
	byPart := map[int]*group{}
	for i := range p.State.F {
		f := fold.FacetID(i)
		g := byPart[p.PartOf(f)]
		if g == nil {
			g = &group{normal: p.At[f].Turn(geom.Vec3{Z: 1})}
			byPart[p.PartOf(f)] = g
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
