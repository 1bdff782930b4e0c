package craft

import (
	"math"
	"slices"

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
}

// Of measures a replayed toy with its wings set. ok is false when there is nothing
// that air could carry.
func Of(r *sequence.Replay) (t Toy, ok bool) {
	p := Stand(r)
	g, isGlider := Measure(r, p)
	if !isGlider {
		return plate(r)
	}
	f := g.Frame
	// Where the wing crease slopes against the keel the glider flies along the crease.
	up := f.Up.Sub(f.Chord.Scale(f.Up.Dot(f.Chord))).Unit()
	a := axes{f.Nose, f.Chord.Scale(-1), f.Right, up}
	lip := LastBendsOf(r.Values).LipMM * air.Metres
	strips, ok := gliderStrips(r, p, a, lip)
	if !ok {
		return plate(r)
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
	var feet []geom.Vec3   // of fins
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
			feet = append(feet, root)
			for i := range s {
				s[i].Part = air.Fin
			}
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
	joined(out, feet)
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
// go round them.
func joined(strips []air.Strip, feet []geom.Vec3) {
	for i := range strips {
		s := &strips[i]
		if !s.Part.Wing() {
			continue
		}
		for _, f := range feet {
			near := func(e air.Edge) bool { return math.Hypot(e.Lead.Y-f.Y, e.Lead.Z-f.Z) < footPart*s.Width() }
			s.FreeLeft, s.FreeRight = s.FreeLeft && !near(s.Left), s.FreeRight && !near(s.Right)
		}
	}
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
	if long < 1e-3 {
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
	var out []air.Strip
	at := boundaries(pieces, along, edge, long, n, n < stripsPerHalf)
	for k := range n {
		s0, s1 := at[k], at[k+1]
		a, ok1 := edge(math.Max(s0, long*hair))
		b, ok2 := edge(math.Min(s1, long*(1-hair)))
		if !ok1 || !ok2 {
			return nil, false
		}
		s := air.Strip{Left: a, Right: b, FreeRight: k == n-1, LipM: lip}
		// Left is the left or, of what stands upright, the lower.
		if ey < -0.05 || math.Abs(ey) <= 0.05 && ez < 0 {
			s = air.Strip{Left: b, Right: a, FreeLeft: k == n-1, LipM: lip}
		}
		s.Layers = layersAt(pieces, along, (s0+s1)/2, (a.Lead.X+b.Lead.X)/2+frontMM*air.Metres)
		out = append(out, s)
	}
	return out, true
}

// A corner of the outline where the chord's slope turns by more than this, and which is
// farther from a boundary than a part of the strips' width, is a boundary itself.
const (
	turnedSlope = 0.05
	probePart   = 0.004
)

// boundaries are where a surface is cut into strips, from its root to its tip: evenly; few
// strips at the corners of the outline, so that those between straight edges have its area.
// Many strips have it anyhow, and a lattice wants them of a size.
func boundaries(pieces [][]geom.Vec3, along func(geom.Vec3) float64, edge func(float64) (air.Edge, bool), long float64, n int, few bool) []float64 {
	at := make([]float64, n+1)
	for k := range at {
		at[k] = long * float64(k) / float64(n)
	}
	if !few {
		return at
	}
	var corners []float64
	for _, piece := range pieces {
		for _, v := range piece {
			s := along(v)
			if s < 2*probePart*long || s > (1-2*probePart)*long || slices.ContainsFunc(corners, func(c float64) bool { return math.Abs(c-s) < probePart*long }) {
				continue
			}
			d := probePart * long
			before, ok1 := edge(s - d)
			here, ok2 := edge(s)
			after, ok3 := edge(s + d)
			bend := math.Abs(after.Lead.X-2*here.Lead.X+before.Lead.X) + math.Abs(after.Trail.X-2*here.Trail.X+before.Trail.X)
			if ok1 && ok2 && ok3 && bend > turnedSlope*d {
				corners = append(corners, s)
			}
		}
	}
	slices.Sort(corners)
	taken := make([]bool, n+1)
	taken[0], taken[n] = true, true
	for _, c := range corners {
		best := -1
		for k := 1; k < n; k++ {
			// Boundaries keep their order.
			if !taken[k] && (best < 0 || math.Abs(at[k]-c) < math.Abs(at[best]-c)) && c > lastTaken(at, taken, k) && c < nextTaken(at, taken, k) {
				best = k
			}
		}
		if best > 0 {
			at[best], taken[best] = c, true
		}
	}
	// What lies between is spread evenly again.
	for k := 0; k < n; {
		to := k + 1
		for !taken[to] {
			to++
		}
		for j := k + 1; j < to; j++ {
			at[j] = at[k] + (at[to]-at[k])*float64(j-k)/float64(to-k)
		}
		k = to
	}
	return at
}

func lastTaken(at []float64, taken []bool, k int) float64 {
	for k--; !taken[k]; k-- {
	}
	return at[k]
}

func nextTaken(at []float64, taken []bool, k int) float64 {
	for k++; !taken[k]; k++ {
	}
	return at[k]
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
