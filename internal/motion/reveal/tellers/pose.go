package tellers

import (
	"math"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/motion/reveal/teller"
	"tussock/internal/sequence"
)

// pressed is the teller pressed flat, number side up, before it is first opened: the number
// of its last step.
func pressed(r *sequence.Replay) int {
	for i, d := range r.Steps {
		if d.InTheRound() {
			return i
		}
	}
	return len(r.Steps)
}

// opener places every piece of a teller that is opened.
type opener struct {
	flat   *fold.State
	middle geom.Vec
	half   float64 // of the finished square's side
	outer  []bool  // by piece: of an outer panel, which turns about the rims
}

func newOpener(r *sequence.Replay) opener {
	s := r.Start
	if at := pressed(r); at > 0 {
		s = r.Steps[at-1].After
	}
	box := s.Box()
	o := opener{flat: s, middle: geom.Vec{X: (box.MinX + box.MaxX) / 2, Y: (box.MinY + box.MaxY) / 2}, half: (box.Width() + box.Height()) / 4, outer: make([]bool, len(s.F))}
	w, h := r.Sheet.WidthMM, r.Sheet.HeightMM
	for i, f := range s.F {
		c := f.Poly.Centroid()
		// Outer panels are the squares in the corners of the sheet beyond the second folds.
		o.outer[i] = math.Abs(c.X-w/2) > o.half && math.Abs(c.Y-h/2) > o.half
	}
	return o
}

// at is the pose opened one way by γ, radians: points upward, the number side inside.
func (o opener) at(side teller.Side, gamma float64) body.Pose {
	c := teller.Open(gamma).Corners(4 * o.half)
	if side == teller.B { // the same a quarter turn on
		c = quarter(c)
	}
	p := body.Pose{State: o.flat, At: make([]geom.Iso3, len(o.flat.F))}
	for i, f := range o.flat.F {
		p.At[i] = o.panel(c, f.Folded().Centroid().Sub(o.middle), o.outer[i]).After(geom.Lift(f.Iso))
	}
	return p
}

func quarter(c teller.Corners) (out teller.Corners) {
	turn := func(v geom.Vec3) geom.Vec3 { return geom.Vec3{X: -v.Y, Y: v.X, Z: v.Z} }
	for i := range c.Tip {
		k := (i + 1) % 4
		out.Tip[k], out.Mid[k], out.Flap[k] = turn(c.Tip[i]), turn(c.Mid[i]), turn(c.Flap[i])
	}
	return out
}

// panel is the motion of the eighth of the finished square that a spot, measured from its
// middle, lies in.
func (o opener) panel(c teller.Corners, at geom.Vec, outer bool) geom.Iso3 {
	quarterNo := int(math.Floor(geom.Deg(math.Atan2(at.Y, at.X))/90+4)) % 4
	tip := [4]geom.Vec{{X: 1, Y: 1}, {X: -1, Y: 1}, {X: -1, Y: -1}, {X: 1, Y: -1}}[quarterNo].Scale(o.half)
	k := quarterNo // the middle before the point, else the one after it
	mid := [4]geom.Vec{{X: 1}, {Y: 1}, {X: -1}, {Y: -1}}
	if at.Dot(mid[(quarterNo+1)%4]) > at.Dot(mid[quarterNo]) {
		k = (quarterNo + 1) % 4
	}
	apex := geom.Vec3{} // the middle of the number side
	if outer {
		apex = c.Flap[quarterNo]
	}
	flat := [3]geom.Vec3{o.middle.InSpace(), o.middle.Add(tip).InSpace(), o.middle.Add(mid[k].Scale(o.half)).InSpace()}
	return geom.Onto(flat, [3]geom.Vec3{apex, c.Tip[quarterNo], c.Mid[k]})
}
