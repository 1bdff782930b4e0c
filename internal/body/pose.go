package body

import (
	"math"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// Pose is the toy in the round. Axes: x and y of the folded plane of the piece
// that stays, z out of that plane towards the viewer.
// Layers have no thickness in a pose.
type Pose struct {
	State *fold.State
	At    []geom.Iso3 // sheet (z = 0) to space, one for each facet
	// Residual is the worst mismatch of a hinge in mm: 0 when the opened creases
	// are compatible with flat, stiff pieces.
	Residual float64
	// Loads are tape, clips and the like, where they are in space.
	Loads []Load
	// Lips are edges that are bent at last, for pictures.
	Lips   []Lip
	partOf []int // 1+index of the opening a facet swings with, 0 for none
}

// Load is a weight fixed to the paper.
type Load struct {
	At geom.Vec3
	G  float64
}

// opening is how far each hinge of a state is folded: 180 flat-folded, 0 flat
// open, and in which sense.
type opening struct {
	deg   []float64
	sense []fold.Assignment
	part  []int     // 1+index of the opening about it, 0 for none
	away  []float64 // by piece, how far it lies beyond the lines of bends, mm
}

// Standing evaluates a replay's last good state in the round: creases opened, leaves
// parted, paper bent and curled, layers slid, with all that is fixed to it.
func Standing(r *sequence.Replay) Pose { return StandingAt(r, r.Openings) }

// StandingAt is Standing with other angles at the creases that are opened.
func StandingAt(r *sequence.Replay, openings []sequence.Opening) Pose {
	s, bends, away := bent(r.Final(), r.Bends)
	o := opened(s, openings)
	o.away = away
	for i, h := range s.H {
		if b, ok := bends[h.Crease]; ok && h.Crease < 0 {
			o.deg[i], o.sense[i] = b.deg, b.sense(s.F[h.A].Iso.FaceUp())
		}
		for _, q := range r.Parts {
			if s.Assigned(h) != fold.Flat && h.Along(q.Pieces...) {
				o.deg[i] = 180 - 360/float64(q.Leaves)
			}
		}
	}
	p := placed(s, openings, o)
	for _, v := range r.Pivots {
		p.slide(v)
	}
	for _, m := range r.Masses {
		p.load(m)
	}
	return p
}

// strips is how many flat strips stand for a bend of so many degrees: one for
// each 7.5°, at least 4. The weight's place is then right to better than 0.1 % of
// the bend's radius.
func strips(deg float64) int { return min(max(4, int(math.Ceil(math.Abs(deg)/7.5))), 96) }

// strip is what each strip of a bend adds, in degrees.
type strip struct{ deg float64 }

// sense is up or down as seen from the piece's own front.
func (b strip) sense(faceUp bool) fold.Assignment {
	if (b.deg > 0) == faceUp {
		return fold.Valley
	}
	return fold.Mountain
}

// bent divides a flat toy into the strips that its bends need. Each bend gets a
// crease number of its own below zero. away is how far each piece lies beyond the
// bends' lines: the one that lies least far stays where it is.
func bent(s *fold.State, bends []sequence.Bending) (_ *fold.State, out map[fold.CreaseID]strip, away []float64) {
	out = map[fold.CreaseID]strip{}
	var lines []geom.Line
	for i, b := range bends {
		at := s.FacetsAtSheet(b.Moving)
		if len(at) == 0 || b.AngleDeg == 0 {
			continue
		}
		iso := s.F[at[0]].Iso
		l, ok := geom.LineThrough(iso.Apply(b.A), iso.Apply(b.B))
		if !ok {
			continue
		}
		side := int8(1)
		if l.Side(iso.Apply(b.Moving)) < 0 {
			side = -1
		}
		set := s.Closure(fold.Selection{Line: l, Side: side, Seeds: at, Sense: fold.ValleySense, Free: true})
		if side > 0 {
			lines = append(lines, l)
		} else {
			lines = append(lines, l.Flip())
		}
		id := fold.CreaseID(-i - 1)
		n := strips(b.AngleDeg)
		arc := b.RadiusMM * math.Abs(geom.Rad(b.AngleDeg))
		var splits []fold.Split
		for k := range n {
			off := arc * (float64(k) + 0.5) / float64(n)
			splits = append(splits, fold.Split{Line: l.Offset(float64(side) * off), Facets: set})
		}
		d, err := s.Divide(splits, id)
		if err != nil {
			continue // more pieces than the engine takes: drawn without this bend
		}
		out[id] = strip{b.AngleDeg / float64(n)}
		s = d
	}
	away = make([]float64, len(s.F))
	for i := range s.F {
		for _, l := range lines {
			away[i] += math.Max(0, l.Side(s.Folded(fold.FacetID(i)).Centroid()))
		}
	}
	return s, out, away
}

// slide turns what lies flat with a spot by a few degrees in its own plane.
func (p *Pose) slide(v sequence.Pivoting) {
	at := p.State.FacetsAtSheet(v.Moving)
	about := p.State.FacetsAtSheet(v.At)
	if len(at) == 0 || len(about) == 0 {
		return
	}
	c := p.At[about[0]].Apply(geom.Vec3{X: v.At.X, Y: v.At.Y})
	m := geom.Swing(c, geom.Vec3{Z: 1}, geom.Rad(v.AngleDeg))
	for _, f := range p.State.Flood(at[0], func(h fold.Hinge) bool { return p.State.Assigned(h) != fold.Flat }) {
		p.At[f] = m.After(p.At[f])
	}
	p.Residual = p.worst()
}

// load puts a weight where it is. A tape of some size is four weights at the
// spots that give its second moments exactly.
func (p *Pose) load(m sequence.Mass) {
	at := p.State.FacetsAtSheet(m.At)
	if len(at) == 0 || m.G == 0 {
		return
	}
	dx, dy := m.Width/(2*math.Sqrt(3)), m.Height/(2*math.Sqrt(3))
	for _, d := range [4][2]float64{{dx, dy}, {-dx, dy}, {dx, -dy}, {-dx, -dy}} {
		p.Loads = append(p.Loads, Load{p.At[at[0]].Apply(geom.Vec3{X: m.At.X + d[0], Y: m.At.Y + d[1]}), m.G / 4})
	}
}

// Open swings each part about its crease to its angle (180 flat-folded, 0 flat
// open) and leaves every other crease as folded. Pieces are placed by walking
// from hinge to hinge; where hinges form loops Residual tells whether the result
// closes.
func Open(s *fold.State, openings []sequence.Opening) Pose {
	return placed(s, openings, opened(s, openings))
}

func opened(s *fold.State, openings []sequence.Opening) opening {
	o := opening{make([]float64, len(s.H)), make([]fold.Assignment, len(s.H)), make([]int, len(s.H)), nil}
	for i, h := range s.H {
		o.sense[i] = s.Assigned(h)
		if o.sense[i] != fold.Flat {
			o.deg[i] = 180
		}
		for w, part := range openings {
			if h.Kind != fold.Glue && h.Along(part.Pieces...) {
				o.deg[i], o.part[i] = part.AngleDeg, w+1
			}
		}
	}
	return o
}

func placed(s *fold.State, openings []sequence.Opening, o opening) Pose {
	p := Pose{State: s, At: make([]geom.Iso3, len(s.F)), partOf: make([]int, len(s.F))}
	p.markParts(openings, o.part)
	root := p.root(o.away)
	p.At[root] = geom.Lift(s.F[root].Iso)
	seen := make([]bool, len(s.F))
	seen[root] = true
	for queue := []fold.FacetID{root}; len(queue) > 0; queue = queue[1:] {
		f := queue[0]
		for i, h := range s.H {
			g, ok := h.Other(f)
			if !ok || seen[g] || h.Kind == fold.Glue {
				continue
			}
			p.At[g] = p.At[f].After(turned(s, h, f, o.deg[i], o.sense[i]))
			seen[g] = true
			queue = append(queue, g)
		}
	}
	for i := range seen {
		if !seen[i] { // cut free: it lies as in the flat toy
			p.At[i] = geom.Lift(s.F[i].Iso)
		}
	}
	p.Residual = p.worst()
	return p
}

// worst is the largest mismatch at a hinge, in mm.
func (p *Pose) worst() float64 {
	var out float64
	for _, h := range p.State.H {
		pb, qb := h.Ends(h.B)
		for _, v := range [2][2]geom.Vec{{h.P, pb}, {h.Q, qb}} {
			a := p.At[h.A].Apply(geom.Vec3{X: v[0].X, Y: v[0].Y})
			out = math.Max(out, a.Dist(p.At[h.B].Apply(geom.Vec3{X: v[1].X, Y: v[1].Y})))
		}
	}
	return out
}

// turned is the motion, on the sheet, of the neighbour of facet f across hinge h
// folded by deg: up (towards the sheet's front) for a valley, down for a mountain.
func turned(s *fold.State, h fold.Hinge, f fold.FacetID, deg float64, sense fold.Assignment) geom.Iso3 {
	d := h.Q.Sub(h.P)
	// With f on the left of the way from P to Q, a turn by the right hand about
	// that way takes the right side down.
	rad := geom.Rad(math.Abs(deg))
	if d.Cross(s.F[f].Poly.Centroid().Sub(h.P)) < 0 {
		rad = -rad
	}
	if sense == fold.Valley {
		rad = -rad
	}
	return geom.Swing(geom.Vec3{X: h.P.X, Y: h.P.Y}, geom.Vec3{X: d.X, Y: d.Y}, rad)
}

// markParts finds the pieces that swing with each opening. What is joined by any
// other hinge swings alike; across its own hinges swinging and resting
// pieces alternate, also for layers that hang on it by nothing but them.
func (p *Pose) markParts(openings []sequence.Opening, partHinge []int) {
	const unknown = -1
	for i := range p.partOf {
		p.partOf[i] = unknown
	}
	var queue []fold.FacetID
	label := func(f fold.FacetID, w int) {
		if p.partOf[f] == unknown {
			p.partOf[f] = w
			queue = append(queue, f)
		}
	}
	for w, part := range openings {
		for _, f := range p.State.FacetsAtSheet(part.Moving) {
			label(f, w+1)
		}
	}
	rides := func(w int) bool { return w > 0 && openings[w-1].Rides }
	stands := map[int]int{} // by part that rides, what it stands on
	for round := 0; round < 2; round++ {
		for len(queue) > 0 {
			f := queue[0]
			queue = queue[1:]
			for i, h := range p.State.H {
				g, ok := h.Other(f)
				if !ok || h.Kind == fold.Glue {
					continue
				}
				switch w := partHinge[i]; {
				case w == 0:
					label(g, p.partOf[f])
				case rides(w) && p.partOf[f] != w:
					stands[w] = p.partOf[f]
					label(g, w)
				case rides(w):
					// Back from such a part to what it stands on: known once that was reached.
				case p.partOf[f] == 0:
					label(g, w)
				default:
					label(g, 0)
				}
			}
		}
		for i, h := range p.State.H {
			if w := partHinge[i]; rides(w) && h.Kind != fold.Glue {
				label(h.A, stands[w])
				label(h.B, stands[w])
			}
		}
	}
	for i, w := range p.partOf {
		p.partOf[i] = max(w, 0)
	}
}

// root is the first piece that swings with nothing; where the paper is bent, the
// one that lies least far beyond the bends.
func (p *Pose) root(away []float64) fold.FacetID {
	best, found := fold.FacetID(0), false
	for i, w := range p.partOf {
		if w == 0 && (!found || away != nil && away[i] < away[best]-geom.OnLine) {
			best, found = fold.FacetID(i), true
		}
	}
	return best
}

// PartOf is 1 or 2 … for a piece that swings with that opening, 0 for the rest.
func (p Pose) PartOf(f fold.FacetID) int { return p.partOf[f] }

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

// Weigh integrates even paper over every layer, and adds what is fixed to it. Each piece is cut into
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
	for _, l := range p.Loads {
		samples = append(samples, sample{l.At, l.G})
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
