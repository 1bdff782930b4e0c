package craft

import (
	"math"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/motion/glide/air"
	"tussock/internal/sequence"
)

// Lips are the bent edges of a glider: curled tail edges, the keel's tail and the nose.
func Lips(r *sequence.Replay, p body.Pose) []body.Lip {
	f, ok := FrameOf(r, p)
	if !ok {
		return nil
	}
	b := LastBendsOf(r.Values)
	var out []body.Lip
	for w := range r.Openings {
		if r.Openings[w].Op != OpWing {
			continue
		}
		lip, ok := tail(p, w+1, f, b.LipMM)
		if !ok {
			continue
		}
		angle := b.CurlLeftDeg
		if lip.At.Sub(f.Nose).Dot(f.Right) > 0 {
			angle = b.CurlRightDeg
		}
		if angle != 0 {
			out = append(out, lip.Turned(angle, f.Up))
		}
	}
	if b.RudderDeg != 0 {
		if lip, ok := tail(p, 0, f, b.LipMM); ok {
			out = append(out, lip.Turned(b.RudderDeg, f.Right))
		}
	}
	if b.NoseDeg != 0 {
		out = append(out, body.Lip{At: f.Nose.Sub(f.Forward.Scale(air.NoseBendMM)), Axis: f.Up, Out: f.Forward}.Turned(b.NoseDeg, f.Right))
	}
	return out
}

// leastWidthMM is the width across the flight below which a part has no tail edge.
const leastWidthMM = 1.0

// tail is the tail edge of a wing, or of the keel, as a hinge so deep in front of it.
func tail(p body.Pose, wing int, f Frame, depth float64) (body.Lip, bool) {
	var pieces [][]geom.Vec3
	for i := range p.State.F {
		if p.PartOf(fold.FacetID(i)) == wing {
			pieces = append(pieces, p.Corners(fold.FacetID(i)))
		}
	}
	// Across the flight the part runs from lo to hi; its hindmost paper at two spots gives
	// the line of the edge.
	// A wing flies along its crease, which may slope against the keel.
	across, ahead := f.Up, f.Forward
	if wing > 0 {
		across, ahead = f.Right, f.Chord
	}
	lo, hi := math.Inf(1), math.Inf(-1)
	for _, q := range pieces {
		for _, v := range q {
			d := v.Sub(f.Nose).Dot(across)
			lo, hi = math.Min(lo, d), math.Max(hi, d)
		}
	}
	// A wing that stands upright has no tail edge that could lift: it has no width.
	if hi-lo < leastWidthMM {
		return body.Lip{}, false
	}
	hindmost := func(at float64) (geom.Vec3, bool) {
		var best geom.Vec3
		found := false
		for _, q := range pieces {
			for i, a := range q {
				b := q[(i+1)%len(q)]
				da, db := a.Sub(f.Nose).Dot(across)-at, b.Sub(f.Nose).Dot(across)-at
				if da*db > 0 || da == db {
					continue
				}
				v := a.Add(b.Sub(a).Scale(da / (da - db)))
				if !found || v.Dot(ahead) < best.Dot(ahead) {
					best, found = v, true
				}
			}
		}
		return best, found
	}
	// From the middle outwards a wing may be cut off aslant: its tail edge is the inner
	// part, next to the keel.
	near, far := 0.1, 0.9
	if wing > 0 {
		near, far = 0.1, 0.5
		if math.Abs(lo) > math.Abs(hi) {
			near, far = 0.9, 0.5
		}
	}
	a, ok1 := hindmost(lo + near*(hi-lo))
	b, ok2 := hindmost(lo + far*(hi-lo))
	if !ok1 || !ok2 || a.Dist(b) < geom.Distinct {
		return body.Lip{}, false
	}
	axis := b.Sub(a).Unit()
	out := ahead.Scale(-1)
	out = out.Sub(axis.Scale(out.Dot(axis))).Unit()
	return body.Lip{Part: wing, At: a.Sub(out.Scale(depth)), Axis: axis, Out: out}, true
}
