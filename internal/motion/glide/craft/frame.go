package craft

import (
	"math"
	"slices"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/fold/layermap"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// Frame is the axes of a glider: Forward along the keel towards the nose, Up
// from the keel's lower edge to the wings, Right for somebody who looks forward.
// Origin is the nose.
type Frame struct {
	Nose, Forward, Up, Right geom.Vec3
	// Chord runs along the wing crease towards the nose; it differs from Forward
	// when the wing line slopes against the keel.
	Chord geom.Vec3
}

// Measures are those of a glider with its wings set.
type Measures struct {
	LengthMM    float64 // along the keel
	SpanMM      float64 // from wing tip to wing tip, across the keel
	WingAreaMM2 float64 // both wings, each in its own plane, every spot once
	KeelDepthMM float64 // greatest height of the keel
	CoMAftMM    float64 // centre of mass behind the nose, along the keel
	CoMUpMM     float64 // centre of mass above the keel's lower edge
	VDeg        float64 // each wing above level: 0 is flat, positive a V
	Frame       Frame
}

// FrameOf finds a glider's axes from the landmarks its pattern names. ok is
// false for patterns without nose, keel and wings, or not folded that far.
func FrameOf(r *sequence.Replay, p body.Pose) (f Frame, ok bool) {
	nose, hasNose := r.Landmarks[r.Pattern.Head(headNose)]
	pieces := r.Lines[r.Pattern.Head(headKeel)]
	if !hasNose || len(pieces) == 0 || r.Pattern.Setting(OpWing) == 0 || len(r.Openings) == 0 {
		return f, false
	}
	at := func(q geom.Vec) (geom.Vec3, bool) {
		for _, id := range p.State.FacetsAtSheet(q) {
			if p.PartOf(id) == 0 {
				return p.At[id].Apply(geom.Vec3{X: q.X, Y: q.Y}), true
			}
		}
		return geom.Vec3{}, false
	}
	var keel geom.Segment
	for _, s := range pieces {
		if s.Len() > keel.Len() {
			keel = s
		}
	}
	a, ok1 := at(keel.A)
	b, ok2 := at(keel.B)
	n, ok3 := at(nose)
	if !ok1 || !ok2 || !ok3 || a.Dist(b) < geom.Distinct {
		return f, false
	}
	if a.Dist(n) > b.Dist(n) {
		a, b = b, a
	}
	f.Nose, f.Forward = n, a.Sub(b).Unit()
	// Up: away from the keel's edge, in the plane of the keel pieces.
	var up geom.Vec3
	for i := range p.State.F {
		if p.PartOf(fold.FacetID(i)) != 0 {
			continue
		}
		for _, c := range p.Corners(fold.FacetID(i)) {
			d := c.Sub(a)
			d = d.Sub(f.Forward.Scale(d.Dot(f.Forward)))
			if d.Len() > up.Len() {
				up = d
			}
		}
	}
	if up.Len() < geom.Distinct {
		return f, false
	}
	f.Up = up.Unit()
	f.Right = f.Forward.Cross(f.Up)
	f.Chord = f.chord(r, p)
	return f, true
}

func (f Frame) chord(r *sequence.Replay, p body.Pose) geom.Vec3 {
	var best geom.Vec3
	for _, h := range p.State.H {
		if !h.Along(r.Openings[0].Pieces...) {
			continue
		}
		a := p.At[h.A].Apply(geom.Vec3{X: h.P.X, Y: h.P.Y})
		if d := p.At[h.A].Apply(geom.Vec3{X: h.Q.X, Y: h.Q.Y}).Sub(a); d.Len() > best.Len() {
			best = d
		}
	}
	if best.Len() < geom.Distinct {
		return f.Forward
	}
	if best.Dot(f.Forward) < 0 {
		best = best.Scale(-1)
	}
	return best.Unit()
}

// Measure gives the measures of a replayed glider; ok is false for other
// toys or when the wings are not folded yet.
func Measure(r *sequence.Replay, p body.Pose) (g Measures, ok bool) {
	if g.Frame, ok = FrameOf(r, p); !ok {
		return g, false
	}
	type extent struct{ lo, hi float64 }
	grow := func(e *extent, v float64) { e.lo, e.hi = math.Min(e.lo, v), math.Max(e.hi, v) }
	empty := extent{math.Inf(1), math.Inf(-1)}
	along, across, keel := empty, empty, empty
	wings := map[int][]geom.Polygon{}
	for i := range p.State.F {
		id := fold.FacetID(i)
		w := p.PartOf(fold.FacetID(i))
		if w != 0 {
			wings[w] = append(wings[w], p.State.Folded(id))
		}
		for _, c := range p.Corners(id) {
			d := c.Sub(g.Frame.Nose)
			grow(&along, d.Dot(g.Frame.Forward))
			grow(&across, d.Dot(g.Frame.Right))
			if w == 0 {
				grow(&keel, d.Dot(g.Frame.Up))
			}
		}
	}
	for w := 1; w <= len(r.Openings); w++ {
		if r.Openings[w-1].Op != OpWing {
			continue
		}
		g.WingAreaMM2 += layermap.Area(layermap.Overlay(wings[w]))
	}
	m := p.Weigh()
	d := m.CoM.Sub(g.Frame.Nose)
	g.LengthMM, g.SpanMM, g.KeelDepthMM = along.hi-along.lo, across.hi-across.lo, keel.hi-keel.lo
	g.CoMAftMM = along.hi - d.Dot(g.Frame.Forward)
	g.CoMUpMM = d.Dot(g.Frame.Up) - keel.lo
	g.VDeg = 90 - r.Openings[0].AngleDeg
	return g, true
}

// Stand is how a finished glider stands: its wings as uneven as they are set, with the
// clip on its keel and its edges bent.
func Stand(r *sequence.Replay) body.Pose { return standAt(r, r.Openings) }

// standAt is how it stands with its wings and fins at other angles.
func standAt(r *sequence.Replay, openings []sequence.Opening) body.Pose {
	p := body.StandingAt(r, openings)
	bends := LastBendsOf(r.Values)
	f, ok := FrameOf(r, p)
	if !ok {
		return p
	}
	if bends.UnevenDeg != 0 {
		p = body.StandingAt(r, unevenly(p, openings, f, bends.UnevenDeg))
	}
	if bends.ClipG > 0 {
		p.Loads = append(p.Loads, body.Load{At: f.Nose.Sub(f.Forward.Scale(bends.ClipAftMM)), G: bends.ClipG})
	}
	p.Lips = Lips(r, p)
	return p
}

// unevenly raises the right wing and lowers the left one by half of an angle each.
func unevenly(p body.Pose, openings []sequence.Opening, f Frame, deg float64) []sequence.Opening {
	out := slices.Clone(openings)
	for w := range out {
		if out[w].Op != OpWing {
			continue
		}
		side := 0.0
		for i := range p.State.F {
			if id := fold.FacetID(i); p.PartOf(id) == w+1 {
				for _, c := range p.Corners(id) {
					side += c.Sub(f.Nose).Dot(f.Right)
				}
			}
		}
		// A wing that is folded less far from the keel stands higher.
		out[w].AngleDeg = math.Max(0, math.Min(180, out[w].AngleDeg-math.Copysign(1, side)*deg/2))
	}
	return out
}
