package hop

import (
	"math"

	"tussock/internal/body"
	"tussock/internal/draw"
	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/motion/toys"
	"tussock/internal/sequence"
)

// From where a hopper is looked at that stands on its feet: from its right, a little
// behind and above, so that the pleat is seen from its side.
const lookFromBack, lookAbove = 62, 20

// show is a hopper as it stands by itself: its pleat sprung open as far as the weight lets
// it, on its legs and on the fold that pushes, that side up which is up on the table.
func show(r *sequence.Replay) (toys.Shown, bool) {
	g, err := Of(r)
	if err != nil {
		return toys.Shown{}, false
	}
	set := SpringSetOf(r.Values)
	t := g.toy(set)
	open, pitch := t.Rest()
	plain := *r
	plain.Bends = nil // what is bent is given by the model
	openings := append([]sequence.Opening{}, r.Openings...)
	for i, deg := range []float64{geom.Deg(open + pitch), geom.Deg(open)} {
		d := r.Steps[springStep(r.Pattern, i)-1]
		moving, ok := swings(d)
		if !ok {
			return toys.Shown{}, false
		}
		o := sequence.Opening{Pieces: r.Lines[spring(r.Pattern, i)], Moving: moving, AngleDeg: 180 - clamp(deg, 2, 175), Step: len(r.Steps), Op: sequence.OpOpen, Rides: i == 1}
		if i == 0 && g.Backward { // a bend that is never folded flat, down from the body
			o.AngleDeg, o.Fresh = clamp(geom.Deg(open-pitch), 2, 175), -1
		}
		openings = append(openings, o)
	}
	pose := body.StandingAt(&plain, openings)
	if pose.Unsound() != "" {
		return toys.Shown{}, false
	}
	forward, ok := ahead(r, pose)
	if !ok {
		return toys.Shown{}, false
	}
	up := geom.Vec3{Z: -1}
	if below(pose) {
		up.Z = 1
	}
	// The body slopes down to the nose; the table is level.
	sin, cos := math.Sincos(pitch)
	forward, up = forward.Scale(cos).Sub(up.Scale(sin)), forward.Scale(sin).Add(up.Scale(cos))
	st := g.stance(t, 0)
	return toys.Shown{Pose: pose, LengthMM: g.Box.Width(), SpanMM: g.Box.Height(),
		Sizes: []toys.Size{{Label: "Length, pressed flat", Value: g.Box.Width(), Unit: "mm"}, {Label: "Hip over the table", Value: st.HipMM, Unit: "mm"}},
		Round: draw.Behind(forward, forward.Cross(up), lookFromBack, lookAbove), Second: draw.Behind(forward, forward.Cross(up), 90, 2),
		SecondTitle: "Straight from its right", SecondSays: "the pleat sprung open as the model has it"}, true
}

// swings is a spot of the sheet in the part that a fold carries over.
func swings(d sequence.Done) (geom.Vec, bool) {
	for _, f := range d.Moving {
		pos, neg := d.Before.Folded(f).Split(d.Line)
		if d.Side < 0 {
			pos = neg
		}
		if pos != nil {
			return d.Before.F[f].Iso.Inverse().Apply(pos.Centroid()), true
		}
	}
	return geom.Vec{}, false
}

// ahead is the way from the hip to the nose, as the toy stands.
func ahead(r *sequence.Replay, p body.Pose) (geom.Vec3, bool) {
	nose, ok := p.Spot(r.Landmarks[r.Pattern.Head(headNose)])
	long := longest(r.Lines[spring(r.Pattern, 0)])
	a, fine := p.Spot(long.A)
	b, also := p.Spot(long.B)
	if !ok || !fine || !also || a.Dist(b) < geom.Distinct {
		return nose, false
	}
	along := b.Sub(a).Unit()
	d := nose.Sub(a)
	d = d.Sub(along.Scale(d.Dot(along)))
	d.Z = 0
	return d.Unit(), d.Len() > geom.Distinct
}

// below tells whether the pleat hangs below the plane of the body.
func below(p body.Pose) bool {
	var sum float64
	for i := range p.State.F {
		for _, v := range p.Corners(fold.FacetID(i)) {
			sum += v.Z
		}
	}
	return sum < 0
}
