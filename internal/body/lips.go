package body

import (
	"math"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// NoseBendMM is the length of the nose that a nose bend turns.
const NoseBendMM = 20

// Lip is an edge of the finished toy that is bent: all of one wing (or of the keel)
// beyond a hinge. For pictures; the model of the air takes bent edges as flows.
type Lip struct {
	Wing int       // as WingOf tells, 0 for the keel
	At   geom.Vec3 // a spot of the hinge
	Axis geom.Vec3
	Out  geom.Vec3 // square to the hinge, towards what is bent
	Rad  float64   // by the right hand about Axis
}

// Lips are the bent edges of a glider: curled tail edges, the keel's tail and the nose.
func Lips(r *sequence.Replay, p Pose) []Lip {
	f, ok := FrameOf(r, p)
	if !ok {
		return nil
	}
	b := r.LastBends()
	var out []Lip
	for w := range r.Wings {
		if r.Wings[w].Fin {
			continue
		}
		lip, ok := p.tail(w+1, f, b.LipMM)
		if !ok {
			continue
		}
		angle := b.CurlLeftDeg
		if lip.At.Sub(f.Nose).Dot(f.Right) > 0 {
			angle = b.CurlRightDeg
		}
		if angle != 0 {
			out = append(out, lip.turned(angle, f.Up))
		}
	}
	if b.RudderDeg != 0 {
		if lip, ok := p.tail(0, f, b.LipMM); ok {
			out = append(out, lip.turned(b.RudderDeg, f.Right))
		}
	}
	if b.NoseDeg != 0 {
		out = append(out, Lip{Wing: 0, At: f.Nose.Sub(f.Forward.Scale(NoseBendMM)), Axis: f.Up, Out: f.Forward}.turned(b.NoseDeg, f.Right))
	}
	return out
}

// turned sets the angle of a lip, so that it moves towards a direction.
func (l Lip) turned(deg float64, towards geom.Vec3) Lip {
	l.Rad = geom.Rad(deg)
	if l.Axis.Cross(l.Out).Dot(towards) < 0 {
		l.Rad = -l.Rad
	}
	return l
}

// tail is the tail edge of a wing, or of the keel, as a hinge so deep in front of it.
func (p Pose) tail(wing int, f Frame, depth float64) (Lip, bool) {
	var pieces [][]geom.Vec3
	for i := range p.State.F {
		if p.wingOf[i] == wing {
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
		return Lip{}, false
	}
	axis := b.Sub(a).Unit()
	out := ahead.Scale(-1)
	out = out.Sub(axis.Scale(out.Dot(axis))).Unit()
	return Lip{Wing: wing, At: a.Sub(out.Scale(depth)), Axis: axis, Out: out}, true
}

// Cut divides a piece at the hinge: what stays, and what is bent, where it then lies.
// Either may be empty.
func (l Lip) Cut(piece []geom.Vec3) (rest, bent []geom.Vec3) {
	beyond := func(v geom.Vec3) float64 { return v.Sub(l.At).Dot(l.Out) }
	swing := geom.Swing(l.At, l.Axis, l.Rad)
	for i, a := range piece {
		b := piece[(i+1)%len(piece)]
		da, db := beyond(a), beyond(b)
		if da <= 0 {
			rest = append(rest, a)
		} else {
			bent = append(bent, swing.Apply(a))
		}
		if (da > 0) != (db > 0) {
			m := a.Add(b.Sub(a).Scale(da / (da - db)))
			rest, bent = append(rest, m), append(bent, m)
		}
	}
	if len(rest) < 3 {
		rest = nil
	}
	if len(bent) < 3 {
		bent = nil
	}
	return rest, bent
}
