// Package bird is birds that flap when their tail is pulled.
//
// In words: a pull at the tail, the neck held, opens the hump of paper on the bird's back;
// spherical trigonometry says by how much both wing roots then lean out (hump). How far a
// pull opens it is the chord between the two hands; thickness, the folds of neck and tail,
// and straight wing roots hold it back. The finished bird as a rigid body does not open at
// all: all paper but the hump bends, and is not followed.
package bird

import (
	"errors"
	"math"

	"tussock/internal/body"
	"tussock/internal/draw"
	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/motion/flap/hump"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Geometry is a bird as it is folded; mm, radians.
type Geometry struct {
	Sheet   sheet.Sheet
	MassG   float64
	Vertex  hump.Vertex
	RidgeMM float64 // from the hump to the foot of the neck: what there is to hold
	TailMM  float64 // from the hump to the tip of the tail
	Lean    float64 // between the ridge of the neck and the line to the tip of the tail, with the hump shut
	WingMM  float64 // from its root to its tip
	RootMM  float64 // length of the root
	Layers  int     // at the root
	Ridges  float64 // length of folded ridges at the hump, over all layers
	Roots   float64 // length of folded wing roots at the hump, over all layers
	SpreadD float64 // degrees to which the wings are opened
	replay  *sequence.Replay
}

// ErrNoBird means that the pattern names no hump, neck, tail and roots.
var ErrNoBird = errors.New("the pattern names no hump, neck, tail and wing roots")

// Of reads a bird off a replay that went to its end.
func Of(r *sequence.Replay) (Geometry, error) {
	if !isBird(r.Pattern) {
		return Geometry{}, ErrNoBird
	}
	g := Geometry{Sheet: r.Sheet, replay: r, Vertex: hump.Square}
	s := r.Final()
	top, neck, tail := r.Landmarks[r.Pattern.Head(headHump)], r.Landmarks[r.Pattern.Head(headNeck)], r.Landmarks[r.Pattern.Head(headTail)]
	g.MassG = body.Standing(r).Weigh().G
	at := func(v geom.Vec) geom.Vec { u, _ := sequence.Place(s, v); return u }
	// The ridge of the neck goes on until its fold turns it.
	foot := ridgeEnd(s, top, neck)
	g.RidgeMM = foot.Dist(top)
	down := at(foot).Sub(at(top))
	to := at(tail).Sub(at(top))
	g.TailMM = to.Len()
	g.Lean = math.Abs(math.Atan2(down.Cross(to), down.Dot(to)))
	for _, h := range s.H {
		if s.Assigned(h) == fold.Flat {
			continue
		}
		near := math.Min(h.P.Dist(top), h.Q.Dist(top)) < geom.Distinct
		if !near {
			continue
		}
		l := h.P.Dist(h.Q)
		if h.Along(geom.Segment{A: top, B: neck}) || h.Along(geom.Segment{A: top, B: tail}) {
			g.Ridges += l
		} else {
			g.Roots += l
		}
	}
	for _, name := range r.Pattern.Heads(headRoots) {
		for _, o := range r.Openings {
			if !along(o.Pieces, r.Lines[name]) {
				continue
			}
			g.SpreadD = o.AngleDeg
			box := geom.EmptyBox()
			far, layers := 0.0, 0
			for _, p := range r.Lines[name] {
				box = box.Grow(at(p.A), at(p.B))
				layers++
				if l, ok := geom.LineThrough(p.A, p.B); ok {
					far = math.Max(far, math.Abs(l.Side(o.Moving)))
				}
			}
			g.RootMM = math.Max(g.RootMM, math.Hypot(box.Width(), box.Height()))
			g.WingMM = math.Max(g.WingMM, far)
			g.Layers = max(g.Layers, layers)
		}
	}
	if g.RidgeMM < 1 || g.TailMM < 1 || g.WingMM < 1 || g.RootMM < 1 {
		return g, ErrNoBird
	}
	return g, nil
}

// ridgeEnd is where the fold from the hump towards a tip ends.
func ridgeEnd(s *fold.State, top, tip geom.Vec) geom.Vec {
	end := top
	for _, h := range s.H {
		if s.Assigned(h) == fold.Flat || !h.Along(geom.Segment{A: top, B: tip}) {
			continue
		}
		if h.P.Dist(top) < geom.Distinct {
			end = h.Q
		} else if h.Q.Dist(top) < geom.Distinct {
			end = h.P
		}
	}
	return end
}

func along(a, b []geom.Segment) bool {
	for _, p := range a {
		for _, q := range b {
			if p.A.Dist(q.A) < geom.Distinct && p.B.Dist(q.B) < geom.Distinct {
				return true
			}
		}
	}
	return false
}

// pose is the bird with its wings at other angles, each by so many degrees more than it is
// set to.
func (g Geometry) pose(moreDeg float64) body.Pose {
	openings := append([]sequence.Opening{}, g.replay.Openings...)
	for i, o := range openings {
		for _, name := range g.replay.Pattern.Heads(headRoots) {
			if along(o.Pieces, g.replay.Lines[name]) {
				openings[i].AngleDeg = math.Max(0, math.Min(180, o.AngleDeg+moreDeg))
			}
		}
	}
	return body.StandingAt(g.replay, openings)
}

// views are the cameras that look at a bird from the front and from its side.
func (g Geometry) views(p body.Pose) (front, side draw.Camera) {
	top, ok1 := spot(p, g.replay.Landmarks[g.replay.Pattern.Head(headHump)])
	tail, ok2 := spot(p, g.replay.Landmarks[g.replay.Pattern.Head(headTail)])
	neck, ok3 := spot(p, g.replay.Landmarks[g.replay.Pattern.Head(headNeck)])
	foot, ok4 := spot(p, ridgeEnd(p.State, g.replay.Landmarks[g.replay.Pattern.Head(headHump)], g.replay.Landmarks[g.replay.Pattern.Head(headNeck)]))
	if !ok1 || !ok2 || !ok3 || !ok4 {
		return draw.Slanted(0, 20), draw.Slanted(90, 5)
	}
	ahead := neck.Sub(tail).Unit()
	up := top.Sub(foot)
	up = up.Sub(ahead.Scale(up.Dot(ahead))).Unit()
	right := ahead.Cross(up)
	return draw.From(right.Scale(-1), up), draw.From(ahead.Scale(-1), up)
}

func spot(p body.Pose, at geom.Vec) (geom.Vec3, bool) {
	for _, f := range p.State.FacetsAtSheet(at) {
		return p.At[f].Apply(geom.Vec3{X: at.X, Y: at.Y}), true
	}
	return geom.Vec3{}, false
}
