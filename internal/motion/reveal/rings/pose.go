package rings

import (
	"math"

	"tussock/internal/body"
	"tussock/internal/draw"
	"tussock/internal/geom"
	"tussock/internal/motion/reveal/ring"
)

// layerMM is how far leaves are drawn apart, so that one knows which lies on which.
const layerMM = 0.04

// plates are where the corners of the six places of a state are: the middle and the six rays.
type plates struct {
	middle geom.Vec3
	ray    [ring.Pats]geom.Vec3
	below  bool // leaves are counted from the tops of the places, which face each other
}

// flexing is where the places of a ring are on its way through a flex: first pinched, up to
// half of the way, then opened below.
func (g *Geometry) flexing(shuts int, part float64) plates {
	var p plates
	turned := 1.0
	pinch := 2 * part
	if part > 0.5 {
		pinch, turned, p.below = 2-2*part, -1, true
		p.middle.Z = -g.SideMM
	}
	q := ring.Pinch(pinch)
	for i := range p.ray {
		polar := q.Axis
		if i%2 == shuts {
			polar = q.Shut
		}
		s, c := math.Sincos(g.sense*geom.Rad(60*float64(i)) + math.Pi/2)
		sin, cos := math.Sincos(polar)
		p.ray[i] = p.middle.Add(geom.Vec3{X: c * sin, Y: s * sin, Z: turned * cos}.Scale(g.SideMM))
	}
	return p
}

// pose puts the leaves of a state onto the plates.
func (g *Geometry) pose(s ring.State, p plates) body.Pose {
	out := body.Pose{State: g.flat, At: make([]geom.Iso3, len(g.flat.F))}
	for i := range out.At { // what is no leaf goes with the first
		out.At[i] = geom.Iso3{R: [3]geom.Vec3{{X: 1}, {Y: 1}, {Z: 1}}}
	}
	for i, pat := range s {
		placed, _ := s.Placed(i)
		corner := map[ring.Corner]geom.Vec3{ring.Middle: p.middle, ring.Before: p.ray[i], ring.After: p.ray[(i+1)%ring.Pats]}
		up := corner[ring.Before].Sub(p.middle).Cross(corner[ring.After].Sub(p.middle)).Unit().Scale(g.sense)
		for k, leaf := range pat {
			height := float64(len(pat)-k) - 0.5
			if p.below {
				height = -float64(k) - 0.5
			}
			lies := placed[leaf.No]
			put := func(no int, height float64) {
				a := g.corners[no-1]
				m := geom.Onto([3]geom.Vec3{a[0].InSpace(), a[1].InSpace(), a[2].InSpace()}, [3]geom.Vec3{corner[lies[0]], corner[lies[1]], corner[lies[2]]})
				m.T = m.T.Add(up.Scale(height * layerMM))
				for _, f := range g.facets[no-1] {
					out.At[f] = m
				}
			}
			put(leaf.No, height)
			if leaf.No == g.hidden.No { // the glued leaf lies on the side it covers
				side := 0.3
				if leaf.Back == g.hidden.Back {
					side = -0.3
				}
				put(g.instead.No, height-side)
			}
		}
	}
	return out
}

// seenFrom is from where a ring is looked at: straight on, and a little from the side while it
// flexes.
func seenFrom(part float64) draw.Camera {
	return draw.Slanted(0, 90-32*math.Sin(math.Pi*part))
}

// pictured is a state as it lies flat, front up.
func (g *Geometry) pictured(s ring.State, inks []draw.Ink) draw.Picture {
	return g.at(s, g.flexing(0, 0), seenFrom(0), inks)
}

func (g *Geometry) at(s ring.State, p plates, c draw.Camera, inks []draw.Ink) draw.Picture {
	pose := g.pose(s, p)
	pic := draw.InSpace(pose, c)
	pic.InkRound(pose, c, inks)
	return pic
}

// flexFrames of a flex that are drawn.
const flexFrames = 17

// between are pictures of a flex.
func (g *Geometry) between(f ring.Flex, inks []draw.Ink) (out []draw.Picture) {
	from := g.Graph.States[f.From]
	to, _ := from.Flex(f.Corners)
	shuts := from.Shuts(f.Corners)
	for i := range flexFrames {
		part := float64(i) / (flexFrames - 1)
		s := from
		if part > 0.5 {
			s = to
		}
		out = append(out, g.at(s, g.flexing(shuts, part), seenFrom(part), inks))
	}
	return out
}
