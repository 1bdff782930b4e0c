package craft

import (
	"math"
	"slices"

	"golang.org/x/sync/errgroup"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/motion/glide/air"
	"tussock/internal/sequence"
)

// How finely a toy is covered: panels from front to back, strips on each half of the
// wing, on the keel and on each fin.
const (
	ChordwisePanels = 6
	stripsPerHalf   = 8
	stripsUpright   = 3
	// frontMM is how far behind the front edge its layers are counted.
	frontMM = 4
	// hair is how far inside of root and tip a chord is taken, as a part of the span:
	// at the very point there is no chord.
	hair = 1e-4
)

// Toy is a folded toy as the model sees it: its shape and its weight.
type Toy struct {
	Shape  *air.Shape
	Weight air.Weight
	// Glider tells that the pattern declares nose, keel and wings. Other toys are taken
	// as the flat plate that they are folded flat, top ahead.
	Glider bool
	// Frame is that of the glider; x of the model runs along its Chord.
	Frame Frame
	// Sprung is the same toy after its wings have sprung up by SprungDeg each; nil for what
	// is no glider, and where it would be none.
	Sprung *Toy
}

// SprungDeg is by how much the wings of a sprung toy stand higher.
const SprungDeg = 6

// Of measures a replayed toy with its wings set. ok is false when there is nothing
// that air could carry.
func Of(r *sequence.Replay) (t Toy, ok bool) {
	p := Stand(r)
	// Both lattices are solved side by side.
	var sprung Toy
	var springs bool
	var g errgroup.Group
	g.Go(func() error {
		o := slices.Clone(r.Openings)
		for i := range o {
			if o[i].Op == OpWing {
				o[i].AngleDeg = math.Max(0, o[i].AngleDeg-SprungDeg)
			}
		}
		sprung, springs = glider(r, standAt(r, o))
		return nil
	})
	t, ok = glider(r, p)
	_ = g.Wait() // it does not fail
	if !ok {
		return plate(r)
	}
	if springs {
		t.Sprung = &sprung
	}
	return t, true
}

// glider measures a toy that stands so; ok is false when it has no wings that carry.
func glider(r *sequence.Replay, p body.Pose) (t Toy, ok bool) {
	g, ok := Measure(r, p)
	if !ok {
		return t, false
	}
	f := g.Frame
	// Where the wing crease slopes against the keel the glider flies along the crease.
	up := f.Up.Sub(f.Chord.Scale(f.Up.Dot(f.Chord))).Unit()
	a := axes{f.Nose, f.Chord.Scale(-1), f.Right, up}
	strips, ok := gliderStrips(r, p, a, LastBendsOf(r.Values).LipMM*air.Metres)
	if !ok {
		return t, false
	}
	s, ok := air.NewSurface(strips, ChordwisePanels)
	if !ok {
		return t, false
	}
	return Toy{Shape: air.NewShape(s, corners(p, a)), Weight: a.weigh(p), Glider: true, Frame: f}, true
}

// BendsOf are the last bends of a set-up.
func BendsOf(b LastBends) air.Bends {
	return air.Bends{CurlRight: geom.Rad(b.CurlRightDeg), CurlLeft: geom.Rad(b.CurlLeftDeg), Rudder: geom.Rad(b.RudderDeg), Nose: geom.Rad(b.NoseDeg),
		Twist: geom.Rad(b.TwistDeg)}
}

// axes are x aft, y right, z up from an origin, in the space of a pose.
type axes struct{ origin, aft, right, up geom.Vec3 }

// at gives a place in m.
func (a axes) at(v geom.Vec3) geom.Vec3 {
	d := v.Sub(a.origin).Scale(air.Metres)
	return geom.Vec3{X: d.Dot(a.aft), Y: d.Dot(a.right), Z: d.Dot(a.up)}
}

// weigh gives mass, place and inertia in these axes.
func (a axes) weigh(p body.Pose) air.Weight {
	m := p.Weigh()
	t := [3][3]float64{{m.Ixx, m.Ixy, m.Ixz}, {m.Ixy, m.Iyy, m.Iyz}, {m.Ixz, m.Iyz, m.Izz}}
	entry := func(u, v geom.Vec3) float64 {
		x, y := [3]float64{u.X, u.Y, u.Z}, [3]float64{v.X, v.Y, v.Z}
		out := 0.0
		for i := range 3 {
			for j := range 3 {
				out += x[i] * t[i][j] * y[j]
			}
		}
		return out * 1e-9 // g mm² to kg m²
	}
	return air.Weight{MassKg: m.G * 1e-3, CoM: a.at(m.CoM), Ixx: entry(a.aft, a.aft), Iyy: entry(a.right, a.right), Izz: entry(a.up, a.up),
		Ixy: entry(a.aft, a.right), Ixz: entry(a.aft, a.up), Iyz: entry(a.right, a.up)}
}

// corners are those of the toy that reach farthest in a number of directions.
func corners(p body.Pose, a axes) []geom.Vec3 {
	var all []geom.Vec3
	for i := range p.State.F {
		for _, c := range p.Corners(fold.FacetID(i)) {
			all = append(all, a.at(c))
		}
	}
	var out []geom.Vec3
	seen := map[int]bool{}
	for i := -1.0; i <= 1; i++ {
		for j := -1.0; j <= 1; j++ {
			for k := -1.0; k <= 1; k++ {
				best := -1
				for n, v := range all {
					if d := (geom.Vec3{X: i, Y: j, Z: k}); best < 0 || d.Dot(v) > d.Dot(all[best])+1e-9 {
						best = n
					}
				}
				if best >= 0 && !seen[best] {
					seen[best] = true
					out = append(out, all[best])
				}
			}
		}
	}
	return out
}

func gliderStrips(r *sequence.Replay, p body.Pose, a axes, lip float64) (out []air.Strip, ok bool) {
	pieces := make([][][]geom.Vec3, len(r.Openings)+1)
	for i := range p.State.F {
		id := fold.FacetID(i)
		var piece []geom.Vec3
		for _, c := range p.Corners(id) {
			piece = append(piece, a.at(c))
		}
		w := p.PartOf(id)
		pieces[w] = append(pieces[w], piece)
	}
	wings, hinge := 0, 0.0 // and the mean height of their creases
	var fins []fin
	for w, wing := range r.Openings {
		root, found := rootOf(p, wing, a)
		if !found {
			return nil, false
		}
		s, found := cut(pieces[w+1], root, stripsPerHalf, lip)
		switch {
		case wing.Op == OpFin:
			s, found = cut(pieces[w+1], root, stripsUpright, 0)
			if !found {
				continue // a fin too small to carry anything
			}
			for i := range s {
				s[i].Part = air.Fin
			}
			fins = append(fins, fin{root, s})
			continue
		case !found:
			return nil, false
		default:
			wings++
			hinge += root.Z
			for i := range s {
				if s[i].Part = air.RightWing; s[i].Left.Lead.Y+s[i].Right.Lead.Y < 0 {
					s[i].Part = air.LeftWing
				}
			}
		}
		out = append(out, s...)
	}
	if wings == 0 {
		return nil, false
	}
	out = append(out, joined(out, fins)...)
	// Nothing hangs below wings that are folded from the very edge of the keel.
	if keel, found := cut(pieces[0], geom.Vec3{Z: hinge / float64(wings)}, stripsUpright, lip); found {
		for i := range keel {
			keel[i].Part = air.Keel
		}
		out = append(out, keel...)
	}
	return out, true
}

// footPart is how near a fin stands to a tip, as a part of the strip there, to stand on it.
const footPart = 0.25

// joined tells wing tips on which a fin stands that they are no free ends: the air does not
// go round them, the less the higher the fin is. A fin that leans in over its wing counts by
// how high it stands: what lies flat against the wing shuts the air out between.
func joined(strips []air.Strip, fins []fin) (out []air.Strip) {
	for _, f := range fins {
		high := f.high(geom.Vec3{})
		for i := range strips {
			s := &strips[i]
			for _, e := range [2]struct {
				root, tip geom.Vec3
				free      *float64
			}{{s.Right.Lead, s.Left.Lead, &s.FreeLeft}, {s.Left.Lead, s.Right.Lead, &s.FreeRight}} {
				if *e.free == 0 || math.Hypot(e.tip.Y-f.root.Y, e.tip.Z-f.root.Z) > footPart*s.Width() {
					continue
				}
				out := geom.Vec3{Y: e.tip.Y - e.root.Y, Z: e.tip.Z - e.root.Z}.Unit()
				high = f.high(out)
				*e.free = math.Max(0, 1-high/s.Width())
			}
		}
		if high > leastM {
			out = append(out, f.strips...)
		}
	}
	return out
}

// fin is one fin and the spot at which it stands.
type fin struct {
	root   geom.Vec3
	strips []air.Strip
}

// high is how high a fin stands over a wing that runs outwards so. What leans inwards is
// set upright.
func (f fin) high(outwards geom.Vec3) (high float64) {
	upright := func(v *geom.Vec3) {
		d := geom.Vec3{Y: v.Y - f.root.Y, Z: v.Z - f.root.Z}
		if in := d.Dot(outwards); in < 0 {
			d = d.Sub(outwards.Scale(in))
		}
		v.Y, v.Z = f.root.Y+d.Y, f.root.Z+d.Z
		high = math.Max(high, d.Len())
	}
	for i := range f.strips {
		for _, e := range [2]*air.Edge{&f.strips[i].Left, &f.strips[i].Right} {
			upright(&e.Lead)
			upright(&e.Trail)
		}
	}
	return high
}

// rootOf is a spot of the crease that a wing swings about.
func rootOf(p body.Pose, w sequence.Opening, a axes) (geom.Vec3, bool) {
	for _, h := range p.State.H {
		if h.Along(w.Pieces...) {
			return a.at(p.At[h.A].Apply(geom.Vec3{X: h.P.X, Y: h.P.Y})), true
		}
	}
	return geom.Vec3{}, false
}

// leastM is the width, m, under which a surface carries nothing.
const leastM = 1e-3

// cut cuts the pieces of a surface into strips along the flow: of each strip the
// foremost and the hindmost paper. ok is false for one that carries nothing: too small.
func cut(pieces [][]geom.Vec3, root geom.Vec3, n int, lip float64) ([]air.Strip, bool) {
	// Across the flow the surface runs from its root to what lies farthest from it.
	long, tip := 0.0, geom.Vec3{}
	for _, piece := range pieces {
		for _, v := range piece {
			if d := math.Hypot(v.Y-root.Y, v.Z-root.Z); d > long {
				long, tip = d, v
			}
		}
	}
	if long < leastM {
		return nil, false
	}
	ey, ez := (tip.Y-root.Y)/long, (tip.Z-root.Z)/long
	along := func(v geom.Vec3) float64 { return (v.Y-root.Y)*ey + (v.Z-root.Z)*ez }
	edge := func(s float64) (air.Edge, bool) {
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
		return air.Edge{Lead: geom.Vec3{X: lo, Y: y, Z: z}, Trail: geom.Vec3{X: hi, Y: y, Z: z}}, hi > lo
	}
	within := func(t float64) float64 { return math.Min(math.Max(t, long*hair), long*(1-hair)) }
	var out []air.Strip
	for k := range n {
		s0, s1 := long*float64(k)/float64(n), long*float64(k+1)/float64(n)
		a, ok1 := edge(within(s0))
		b, ok2 := edge(within(s1))
		if !ok1 || !ok2 {
			return nil, false
		}
		s := averaged(air.Strip{Left: a, Right: b, LipM: lip}, func(part float64) (air.Edge, bool) { return edge(within(s0 + part*(s1-s0))) })
		if k == n-1 {
			s.FreeRight = 1
		}
		// Left is the left or, of what stands upright, the lower.
		if ey < -0.05 || math.Abs(ey) <= 0.05 && ez < 0 {
			s.Left, s.Right, s.FreeLeft, s.FreeRight = s.Right, s.Left, s.FreeRight, s.FreeLeft
		}
		s.Layers = layersAt(pieces, along, (s0+s1)/2, (a.Lead.X+b.Lead.X)/2+frontMM*air.Metres)
		out = append(out, s)
	}
	return out, true
}

// probes is how many chords of a strip are looked at to find what paper there is on average.
const probes = 16

// averaged makes a strip's paper that between both of its ends, wherever the outline has a
// kink: as much of it, and as far back, as the chords between are long and lie back.
func averaged(s air.Strip, edge func(part float64) (air.Edge, bool)) air.Strip {
	chord, mid := 0.0, 0.0
	for k := range probes {
		if e, ok := edge((float64(k) + 0.5) / probes); ok {
			c := e.Trail.X - e.Lead.X
			chord += c / probes
			mid += c * (e.Lead.X + e.Trail.X) / 2 / probes
		}
	}
	have, at := s.Chord(), 0.0
	for _, e := range [2]air.Edge{s.Left, s.Right} {
		at += (e.Trail.X - e.Lead.X) * (e.Lead.X + e.Trail.X) / 4
	}
	if chord <= 0 || have <= 0 {
		return s
	}
	k, by := chord/have, mid/chord-at/have
	for _, e := range [2]*air.Edge{&s.Left, &s.Right} {
		m, half := (e.Lead.X+e.Trail.X)/2+by, k*(e.Trail.X-e.Lead.X)/2
		e.Lead.X, e.Trail.X = m-half, m+half
	}
	return s
}

// layersAt counts the pieces that lie at a place of a surface.
func layersAt(pieces [][]geom.Vec3, along func(geom.Vec3) float64, s, x float64) float64 {
	n := 0.0
	for _, piece := range pieces {
		poly := make(geom.Polygon, len(piece))
		for i, v := range piece {
			poly[i] = geom.Vec{X: v.X, Y: along(v)}
		}
		if poly.Area() < 0 {
			for i, j := 0, len(poly)-1; i < j; i, j = i+1, j-1 {
				poly[i], poly[j] = poly[j], poly[i]
			}
		}
		if poly.Contains(geom.Vec{X: x, Y: s}, 0) {
			n++
		}
	}
	return n
}

// plate takes a toy as it is folded flat, its top ahead.
func plate(r *sequence.Replay) (t Toy, ok bool) {
	p := body.Open(r.Final(), nil)
	m := p.Weigh()
	top := math.Inf(-1)
	for i := range p.State.F {
		for _, c := range p.Corners(fold.FacetID(i)) {
			top = math.Max(top, c.Y)
		}
	}
	a := axes{geom.Vec3{X: m.CoM.X, Y: top, Z: m.CoM.Z}, geom.Vec3{Y: -1}, geom.Vec3{X: 1}, geom.Vec3{Z: 1}}
	// Two halves, each from the line through the centre of mass.
	var halves [2][][]geom.Vec3
	for i := range p.State.F {
		var flat geom.Polygon
		for _, c := range p.Corners(fold.FacetID(i)) {
			v := a.at(c)
			flat = append(flat, geom.Vec{X: v.X, Y: v.Y})
		}
		if flat.Area() < 0 {
			for i, j := 0, len(flat)-1; i < j; i, j = i+1, j-1 {
				flat[i], flat[j] = flat[j], flat[i]
			}
		}
		right, left := flat.Split(geom.Line{N: geom.Vec{Y: 1}})
		for k, half := range []geom.Polygon{right, left} {
			var piece []geom.Vec3
			for _, v := range half {
				piece = append(piece, geom.Vec3{X: v.X, Y: v.Y})
			}
			if len(piece) > 2 {
				halves[k] = append(halves[k], piece)
			}
		}
	}
	var strips []air.Strip
	for k, part := range []air.Part{air.RightWing, air.LeftWing} {
		s, found := cut(level(halves[k]), geom.Vec3{}, stripsPerHalf, 0)
		if !found {
			return t, false
		}
		for i := range s {
			s[i].Part = part
		}
		strips = append(strips, s...)
	}
	s, ok := air.NewSurface(strips, ChordwisePanels)
	if !ok {
		return t, false
	}
	w := a.weigh(p)
	return Toy{Shape: air.NewShape(s, corners(p, a)), Weight: w}, true
}

// level is for a half whose farthest corner must not tilt the cut: all of it lies in
// one plane, and strips run straight ahead.
func level(pieces [][]geom.Vec3) [][]geom.Vec3 {
	for _, piece := range pieces {
		for i := range piece {
			piece[i].Z = 0
		}
	}
	return pieces
}
