package glide

import (
	"math"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// How finely a wing is covered: panels from front to back, strips on each half.
const (
	chordwisePanels = 6
	stripsPerHalf   = 8
)

const (
	metres  = 1e-3
	gravity = 9.81 // m/s²
	// neutralBy is how far the neutral point may be out, as a part of the mean chord:
	// the lattice is better, soft wings are not.
	neutralBy = 0.03
)

// Balance is where a glider's lift acts and what that means for it.
type Balance struct {
	CNa          float64 // normal force per radian of angle of attack, over q S
	NeutralAftMM float64 // neutral point behind the nose
	ChordMM      float64 // mean aerodynamic chord
	AspectRatio  float64
	LoadingNM2   float64 // weight over wing area
	// Margin is how far the centre of mass lies ahead of the neutral point, as a part
	// of the mean chord: above 0 the glider puts itself right. MarginBy is how far that
	// may be out.
	Margin, MarginBy float64
}

// Steadiness is what a margin means.
type Steadiness string

// The glider puts itself right, does not, or nobody can tell within the band.
const (
	Steady    Steadiness = "steady"
	Unsure    Steadiness = "unsure"
	TailHeavy Steadiness = "tail-heavy"
)

// Steadiness judges the margin by its band.
func (b Balance) Steadiness() Steadiness {
	switch {
	case b.Margin > b.MarginBy:
		return Steady
	case b.Margin < -b.MarginBy:
		return TailHeavy
	}
	return Unsure
}

// BalanceOf finds it for a replayed glider with its wings set. ok is false for other
// toys.
func BalanceOf(r *sequence.Replay, p body.Pose) (b Balance, ok bool) {
	g, ok := body.MeasureGlider(r, p)
	if !ok {
		return b, false
	}
	var strips []Strip
	var area, chord2 float64
	for w := 1; w <= len(r.Wings); w++ {
		half, found := halfWing(p, g.Frame, w)
		if !found {
			return b, false
		}
		strips = append(strips, half...)
	}
	for _, s := range strips {
		area += s.Chord() * s.Width()
		chord2 += s.Chord() * s.Chord() * s.Width()
	}
	l, ok := LiftOf(strips, chordwisePanels, area)
	if !ok {
		return b, false
	}
	mac := chord2 / area
	m := p.Weigh()
	f := g.Frame
	ahead := l.NeutralM + m.CoM.Sub(f.Nose).Dot(f.Chord)*metres // of the neutral point, along the wing
	span := g.SpanMM * metres
	return Balance{CNa: l.CNa, NeutralAftMM: g.CoMAftMM + ahead/metres*f.Chord.Dot(f.Forward), ChordMM: mac / metres, AspectRatio: span * span / area,
		LoadingNM2: m.G * 1e-3 * gravity / area, Margin: ahead / mac, MarginBy: neutralBy}, true
}

// halfWing cuts the pieces of one wing into strips along the flow: of each strip the
// foremost and the hindmost paper.
func halfWing(p body.Pose, f body.Frame, wing int) ([]Strip, bool) {
	// In the frame of the wings: x aft along the wing crease, y right, z up, in m from
	// the nose. Where the crease slopes against the keel the wings fly along the crease.
	up := f.Up.Sub(f.Chord.Scale(f.Up.Dot(f.Chord))).Unit()
	local := func(v geom.Vec3) geom.Vec3 {
		d := v.Sub(f.Nose)
		return geom.Vec3{X: -d.Dot(f.Chord) * metres, Y: d.Dot(f.Right) * metres, Z: d.Dot(up) * metres}
	}
	var pieces [][]geom.Vec3
	root, tip := geom.Vec3{Y: math.Inf(1)}, geom.Vec3{}
	for i := range p.State.F {
		id := fold.FacetID(i)
		if p.WingOf(id) != wing {
			continue
		}
		var piece []geom.Vec3
		for _, c := range p.Corners(id) {
			v := local(c)
			piece = append(piece, v)
			if math.Abs(v.Y) < math.Abs(root.Y) {
				root = v
			}
			if math.Abs(v.Y) > math.Abs(tip.Y) {
				tip = v
			}
		}
		pieces = append(pieces, piece)
	}
	dy, dz := tip.Y-root.Y, tip.Z-root.Z
	long := math.Hypot(dy, dz)
	if len(pieces) == 0 || long < 1e-3 || math.Abs(dy) < 0.05*long {
		return nil, false // no wing, or one that hangs straight down: it carries nothing
	}
	ey, ez := dy/long, dz/long
	along := func(v geom.Vec3) float64 { return (v.Y-root.Y)*ey + (v.Z-root.Z)*ez }
	edge := func(s float64) (Edge, bool) {
		lo, hi := math.Inf(1), math.Inf(-1)
		for _, piece := range pieces {
			for i, a := range piece {
				b := piece[(i+1)%len(piece)]
				sa, sb := along(a), along(b)
				if (sa-s)*(sb-s) > 0 || sa == sb {
					continue
				}
				x := a.X + (b.X-a.X)*(s-sa)/(sb-sa)
				lo, hi = math.Min(lo, x), math.Max(hi, x)
			}
		}
		y, z := root.Y+ey*s, root.Z+ez*s
		return Edge{geom.Vec3{X: lo, Y: y, Z: z}, geom.Vec3{X: hi, Y: y, Z: z}}, hi > lo
	}
	// A hair inside of root and tip, where the paper has a chord.
	const hair = 1e-4
	var out []Strip
	for k := range stripsPerHalf {
		s0, s1 := long*float64(k)/stripsPerHalf, long*float64(k+1)/stripsPerHalf
		a, ok1 := edge(math.Max(s0, long*hair))
		b, ok2 := edge(math.Min(s1, long*(1-hair)))
		if !ok1 || !ok2 {
			return nil, false
		}
		s := Strip{Left: a, Right: b, FreeRight: k == stripsPerHalf-1}
		if dy < 0 { // the left wing: its tip is on the left
			s = Strip{Left: b, Right: a, FreeLeft: k == stripsPerHalf-1}
		}
		out = append(out, s)
	}
	return out, true
}
