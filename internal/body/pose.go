package body

import (
	"math"
	"slices"

	"tussock/internal/closure"
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
	// MissDeg is the worst difference between the angle that is asked of a joint and the
	// one it has, and Missed that joint.
	MissDeg float64
	Missed  int
	// Crossing are pieces that pass through each other.
	Crossing []closure.Pair
	// Loads are tape, clips and the like, where they are in space.
	Loads []Load
	// Notes are what is written on the paper.
	Notes []sequence.Note
	// Lips are edges that are bent at last, for pictures.
	Lips   []Lip
	partOf []int // 1+index of the opening a facet swings with, 0 for none
	shut   int   // 1+hinge that should have opened as well and did not, 0 for none
	slid   bool  // layers were slid in their plane: not strictly flat
}

// Load is a weight fixed to the paper.
type Load struct {
	At geom.Vec3
	G  float64
}

// Spot is where a spot of the sheet is in space; false where it is not on the paper any more.
func (p Pose) Spot(at geom.Vec) (geom.Vec3, bool) {
	for _, f := range p.State.FacetsAtSheet(at) {
		return p.At[f].Apply(geom.Vec3{X: at.X, Y: at.Y}), true
	}
	return geom.Vec3{}, false
}

// Standing evaluates a replay's last good state in the round: creases opened, leaves
// parted, paper bent and curled, layers slid, with all that is fixed to it.
func Standing(r *sequence.Replay) Pose { return StandingAt(r, r.Openings) }

// StandingAt is Standing with other angles at the creases that are opened.
func StandingAt(r *sequence.Replay, openings []sequence.Opening) Pose {
	return standing(r, openings, 0)[0]
}

// standing is the toy as it stands; with frames, on the way there in its last step: that
// many poses, the last one where it stands.
func standing(r *sequence.Replay, openings []sequence.Opening, frames int) []Pose {
	openings = slices.DeleteFunc(slices.Clone(openings), func(o sequence.Opening) bool { return o.Until > 0 && o.Until <= len(r.Steps) })
	s, bends, away := bent(r.Final(), r.Bends)
	stages := stagesOf(r, s, openings, bends)
	out := placed(s, openings, stages, away, frames)
	for i := range out {
		for _, v := range r.Pivots {
			out[i].slide(v)
		}
		for _, m := range r.Masses {
			out[i].load(m)
		}
		out[i].Notes = r.Notes
	}
	return out
}

// stage is what is asked of every hinge after one of the steps that open, part or bend.
type stage struct {
	rho  []float64 // rad, positive for a mountain, π flat-folded
	part []int     // 1+index of the opening about it, 0 for none
	must []int32   // hinges that must open as well
}

// stagesOf are what is asked of the hinges step by step: each adds to those before it. The
// last one is as all of them leave it. There is always one.
func stagesOf(r *sequence.Replay, s *fold.State, openings []sequence.Opening, bends map[fold.CreaseID]strip) []stage {
	var steps []int
	for _, o := range openings {
		steps = append(steps, o.Step)
	}
	for _, q := range r.Parts {
		steps = append(steps, q.Step)
	}
	for _, b := range r.Bends {
		steps = append(steps, b.Step)
	}
	slices.Sort(steps)
	steps = slices.Compact(steps)
	if len(steps) == 0 {
		steps = []int{0}
	}
	out := make([]stage, len(steps))
	for k, step := range steps {
		g := opened(s, openings, step)
		for i, h := range s.H {
			if b, ok := bends[h.Crease]; ok && h.Crease < 0 && r.Bends[-h.Crease-1].Step <= step {
				g.rho[i] = b.fold(h, s.F[h.A].Iso.FaceUp())
			}
			for _, q := range r.Parts {
				if rho, ok := parted(q, h, s.Assigned(h)); ok && q.Step <= step {
					g.rho[i] = rho
				}
			}
		}
		out[k] = g
	}
	return out
}

// parted is the angle of a hinge when leaves are spread: joints between leaves open to
// their share of the whole turn, the leaves' own ridges stay shut, all in one sense.
func parted(q sequence.Parting, h fold.Hinge, now fold.Assignment) (rho float64, ok bool) {
	open := math.Pi - 2*math.Pi/float64(q.Leaves)
	switch {
	case q.Turn != 0 && h.Along(q.Pieces...):
		return -float64(q.Turn) * open, true
	case q.Turn != 0 && h.Along(q.Shut...):
		return -float64(q.Turn) * math.Pi, true
	case q.Turn != 0 && h.Along(q.Ridges...):
		return float64(q.Turn) * math.Pi, true
	case q.Turn == 0 && now != fold.Flat && h.Along(q.Pieces...):
		return float64(now) * open, true
	}
	return 0, false
}

// stripDeg is what a flat strip stands for of a bend, in degrees: the weight's place is
// then right to better than 0.1 % of the bend's radius. A bend has at least leastStrips
// and at most mostStrips.
const (
	stripDeg    = 7.5
	leastStrips = 4
	mostStrips  = 96
)

// strip is what the strips of a bend add, in degrees, by the number of the strip's line.
type strip []float64

// fold is how far the hinge of a strip is folded, rad, positive for a mountain.
func (b strip) fold(h fold.Hinge, faceUp bool) float64 {
	deg := b[h.Line]
	if faceUp { // up as seen from the piece's own front is a valley
		deg = -deg
	}
	return geom.Rad(deg)
}

// divided are the places of the lines at which a bend is folded, as distances from its own
// line, and by how much each, degrees; with strips of so many degrees. None where these are
// too many.
func divided(b sequence.Bending, each float64) (offs []float64, deg strip) {
	arcs := b.Bent()
	from := 0.0
	for _, a := range arcs {
		n := int(math.Ceil(math.Abs(a.Deg) / each))
		switch {
		case a.MM == 0 && a.Deg != 0:
			n = 1
		case len(arcs) == 1:
			n = max(n, leastStrips)
		}
		for k := range n {
			offs = append(offs, from+a.MM*(float64(k)+0.5)/float64(n))
			deg = append(deg, a.Deg/float64(n)*math.Copysign(1, b.AngleDeg))
		}
		from += a.MM
	}
	if len(offs) > mostStrips {
		return nil, nil
	}
	return offs, deg
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
		if b.All {
			at = at[:0:0]
			for j := range s.F {
				at = append(at, fold.FacetID(j))
			}
		}
		set := s.Closure(fold.Selection{Line: l, Side: side, Seeds: at, Sense: fold.ValleySense, Free: true})
		if side > 0 {
			lines = append(lines, l)
		} else {
			lines = append(lines, l.Flip())
		}
		// Where that were more pieces than the engine takes, in coarser strips.
		for each := stripDeg; each < 180; each *= 1.25 {
			offs, deg := divided(b, each)
			if offs == nil {
				continue
			}
			var splits []fold.Split
			for k, off := range offs {
				splits = append(splits, fold.Split{Line: l.Offset(float64(side) * off), Facets: set, From: int8(k)})
			}
			if d, err := s.Divide(splits, fold.CreaseID(-i-1)); err == nil {
				out[fold.CreaseID(-i-1)], s = deg, d
				break
			}
		}
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
	p.slid, p.Residual = true, closure.Gap(p.State, p.At)
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
// open) and leaves every other crease as folded, unless the paper closes only when others
// open as well.
func Open(s *fold.State, openings []sequence.Opening) Pose {
	return placed(s, openings, []stage{opened(s, openings, math.MaxInt)}, nil, 0)[0]
}

// opened is what openings up to a step ask of the hinges.
func opened(s *fold.State, openings []sequence.Opening, upTo int) stage {
	g := stage{rho: make([]float64, len(s.H)), part: make([]int, len(s.H))}
	for i, h := range s.H {
		sense := float64(s.Assigned(h))
		g.rho[i] = math.Pi * sense
		if h.Kind == fold.Glue {
			continue
		}
		for w, part := range openings {
			if h.Along(part.Pieces...) {
				g.part[i] = w + 1
				if part.Step > upTo {
					continue
				}
				if s.Assigned(h) == fold.Flat && part.Fresh != 0 {
					sense = -float64(part.Fresh) // what comes up is a valley of the side that is up
					if !s.F[h.A].Iso.FaceUp() {
						sense = -sense
					}
				}
				g.rho[i] = geom.Rad(part.AngleDeg) * sense
			}
			if part.Step <= upTo && g.rho[i] != 0 && h.Along(part.With...) {
				g.must = append(g.must, int32(i))
			}
		}
	}
	return g
}

// mostSettled is how many pieces a toy has at most whose angles are looked for: the search
// takes time with the cube of that. What is bent in strips over a whole pack has more, and
// stands as it was asked to; what it misses is told.
const mostSettled = 100

// placed puts every piece where it is. Pieces are placed by walking from hinge to hinge;
// where that leaves loops open, the angles are found at which they close.
func placed(s *fold.State, openings []sequence.Opening, stages []stage, away []float64, frames int) []Pose {
	last := stages[len(stages)-1]
	p := Pose{State: s, partOf: make([]int, len(s.F))}
	p.markParts(openings, last.part)
	m := closure.Of(s)
	root := p.root(away)
	p.At = m.Place(last.rho, root)
	p.measure(last.rho)
	if (p.Residual > closure.SaidMM || p.MissDeg > MissedDeg || len(last.must) > 0) && len(s.F) <= mostSettled {
		return p.settle(m, stages, root, frames)
	}
	p.Crossing = closure.Crossing(s, p.At)
	if frames == 0 {
		return []Pose{p}
	}
	// Where nothing need be found, the hinges of the last step turn evenly.
	before := m.Flat()
	if n := len(stages); n > 1 {
		before = stages[n-2].rho
	}
	out := make([]Pose, frames)
	rho := make([]float64, len(before))
	for k := range out {
		t := float64(k) / float64(frames-1)
		for i := range rho {
			rho[i] = before[i] + t*(last.rho[i]-before[i])
		}
		out[k] = p
		out[k].At = m.Place(rho, root)
		out[k].measure(rho)
		out[k].Crossing = closure.Crossing(s, out[k].At)
	}
	return out
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
