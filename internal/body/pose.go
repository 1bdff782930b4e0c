package body

import (
	"math"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// Pose is the toy in the round. Axes: x and y of the folded plane of the piece
// that stays (for a glider its keel), z out of that plane towards the viewer.
// Layers have no thickness in a pose.
type Pose struct {
	State *fold.State
	At    []geom.Iso3 // sheet (z = 0) to space, one for each facet
	// Residual is the worst mismatch of a hinge in mm: 0 when the opened creases
	// are compatible with flat, stiff pieces.
	Residual float64
	wingOf   []int // 1+index of the wing a facet swings with, 0 for none
}

// Standing evaluates a replay's last good state with its wings opened.
func Standing(r *sequence.Replay) Pose { return Open(r.Final(), r.Wings) }

// Open swings each wing about its crease to its angle (180 flat-folded, 0 flat
// open) and leaves every other crease as folded. Pieces are placed by walking
// from hinge to hinge; where hinges form loops Residual tells whether the result
// closes.
func Open(s *fold.State, wings []sequence.Wing) Pose {
	p := Pose{State: s, At: make([]geom.Iso3, len(s.F)), wingOf: make([]int, len(s.F))}
	angle := make([]float64, len(s.H))
	wingHinge := make([]int, len(s.H))
	for i, h := range s.H {
		angle[i] = 180
		if s.Assigned(h) == fold.Flat {
			angle[i] = 0
		}
		for w, wing := range wings {
			if onPieces(h, wing.Pieces) {
				angle[i], wingHinge[i] = wing.AngleDeg, w+1
			}
		}
	}
	p.markWings(wings, wingHinge)
	root := p.root()
	p.At[root] = geom.Lift(s.F[root].Iso)
	seen := make([]bool, len(s.F))
	seen[root] = true
	for queue := []fold.FacetID{root}; len(queue) > 0; queue = queue[1:] {
		f := queue[0]
		for i, h := range s.H {
			g := h.B
			if h.B == f {
				g = h.A
			} else if h.A != f {
				continue
			}
			if seen[g] {
				continue
			}
			p.At[g] = p.At[f].After(bend(s, h, f, angle[i]))
			seen[g] = true
			queue = append(queue, g)
		}
	}
	for _, h := range s.H {
		for _, q := range []geom.Vec{h.P, h.Q} {
			v := geom.Vec3{X: q.X, Y: q.Y}
			p.Residual = math.Max(p.Residual, p.At[h.A].Apply(v).Dist(p.At[h.B].Apply(v)))
		}
	}
	return p
}

// bend is the motion, on the sheet, of the neighbour of facet f across hinge h
// folded by deg: up (towards the sheet's front) for a valley, down for a mountain.
func bend(s *fold.State, h fold.Hinge, f fold.FacetID, deg float64) geom.Iso3 {
	d := h.Q.Sub(h.P)
	// With f on the left of the way from P to Q, a turn by the right hand about
	// that way takes the right side down.
	rad := geom.Rad(deg)
	if d.Cross(s.F[f].Poly.Centroid().Sub(h.P)) < 0 {
		rad = -rad
	}
	if s.Assigned(h) == fold.Valley {
		rad = -rad
	}
	return geom.Swing(geom.Vec3{X: h.P.X, Y: h.P.Y}, geom.Vec3{X: d.X, Y: d.Y}, rad)
}

func onPieces(h fold.Hinge, pieces []geom.Segment) bool {
	for _, s := range pieces {
		l, ok := geom.LineThrough(s.A, s.B)
		if !ok || math.Abs(l.Side(h.P)) > geom.OnPaper || math.Abs(l.Side(h.Q)) > geom.OnPaper {
			continue
		}
		d := s.B.Sub(s.A).Unit()
		m := d.Dot(geom.Mid(h.P, h.Q).Sub(s.A))
		if m > 0 && m < s.Len() {
			return true
		}
	}
	return false
}

// markWings finds the pieces that swing with each wing. What is joined by any
// other hinge swings alike; across a wing's own hinges swinging and resting
// pieces alternate, also for layers that hang on the wing by nothing but them.
func (p *Pose) markWings(wings []sequence.Wing, wingHinge []int) {
	const unknown = -1
	for i := range p.wingOf {
		p.wingOf[i] = unknown
	}
	var queue []fold.FacetID
	label := func(f fold.FacetID, w int) {
		if p.wingOf[f] == unknown {
			p.wingOf[f] = w
			queue = append(queue, f)
		}
	}
	for w, wing := range wings {
		for _, f := range p.State.FacetsAtSheet(wing.Moving) {
			label(f, w+1)
		}
	}
	for len(queue) > 0 {
		f := queue[0]
		queue = queue[1:]
		for i, h := range p.State.H {
			g := h.B
			if h.B == f {
				g = h.A
			} else if h.A != f {
				continue
			}
			switch w := wingHinge[i]; {
			case w == 0:
				label(g, p.wingOf[f])
			case p.wingOf[f] == 0:
				label(g, w)
			default:
				label(g, 0)
			}
		}
	}
	for i, w := range p.wingOf {
		p.wingOf[i] = max(w, 0)
	}
}

// root is the first piece that swings with no wing.
func (p *Pose) root() fold.FacetID {
	for i, w := range p.wingOf {
		if w == 0 {
			return fold.FacetID(i)
		}
	}
	return 0
}

// WingOf is 1 or 2 … for a piece that swings with that wing, 0 for the rest.
func (p Pose) WingOf(f fold.FacetID) int { return p.wingOf[f] }

// Corners are the corners of a piece in space.
func (p Pose) Corners(f fold.FacetID) []geom.Vec3 {
	poly := p.State.F[f].Poly
	out := make([]geom.Vec3, len(poly))
	for i, v := range poly {
		out[i] = p.At[f].Apply(geom.Vec3{X: v.X, Y: v.Y})
	}
	return out
}

// Mass are the mass properties of a pose.
type Mass struct {
	G   float64
	CoM geom.Vec3
	// Inertia about the centre of mass in g mm²; off-diagonal entries are those
	// of the tensor, so Ixy = -Σ m x y.
	Ixx, Iyy, Izz, Ixy, Ixz, Iyz float64
}

// Weigh integrates even paper over every layer. Each piece is cut into
// triangles; the rule of the three edge midpoints is exact for second moments.
func (p Pose) Weigh() Mass {
	type sample struct {
		at geom.Vec3
		m  float64
	}
	var samples []sample
	var m Mass
	gPerMM2 := p.State.Sheet.GSM * 1e-6
	for i := range p.State.F {
		c := p.Corners(fold.FacetID(i))
		for k := 1; k+1 < len(c); k++ {
			a, b, d := c[0], c[k], c[k+1]
			mass := b.Sub(a).Cross(d.Sub(a)).Len() / 2 * gPerMM2
			for _, q := range []geom.Vec3{a.Add(b), b.Add(d), d.Add(a)} {
				samples = append(samples, sample{q.Scale(0.5), mass / 3})
			}
		}
	}
	for _, s := range samples {
		m.G += s.m
		m.CoM = m.CoM.Add(s.at.Scale(s.m))
	}
	m.CoM = m.CoM.Scale(1 / m.G)
	for _, s := range samples {
		r := s.at.Sub(m.CoM)
		m.Ixx += s.m * (r.Y*r.Y + r.Z*r.Z)
		m.Iyy += s.m * (r.X*r.X + r.Z*r.Z)
		m.Izz += s.m * (r.X*r.X + r.Y*r.Y)
		m.Ixy -= s.m * r.X * r.Y
		m.Ixz -= s.m * r.X * r.Z
		m.Iyz -= s.m * r.Y * r.Z
	}
	return m
}
