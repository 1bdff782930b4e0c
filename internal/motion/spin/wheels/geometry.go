package wheels

import (
	"errors"
	"math"
	"slices"
	"sync"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/motion/spin/wheel"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Geometry is a wheel as it was folded, mm and g: along its axle from the foot, where its
// leaves end, to the tip.
type Geometry struct {
	Sheet   sheet.Sheet
	MassG   float64
	ReachMM float64 // from the axle to the farthest spot, as it stands
	FlatMM  float64 // the same of a leaf laid flat
	TallMM  float64 // from foot to tip
	CoMMM   float64 // of the centre of mass over the foot
	OffMM   float64 // of the centre of mass beside the axle
	AirMM   float64 // where on the axle the air takes hold, over the foot: by the area and the square of the radius
	// Moments of inertia about the centre of mass, g mm²: about the axle, and the mean of those
	// across it.
	UprightGMM2, AcrossGMM2 float64
	CurlMM                  float64 // radius of the rims; 0 where nothing is curled
	Leaves                  []Leaf
	Sense                   int        // seen from where the air comes: 1 clockwise, -1 against the clock, 0 where blades lie neither way
	broad                   []float64  // how long a leaf is along the axle, evenly from the axle outward
	outline                 []geom.Vec // of one leaf: X from the axle, Y over the foot
	axis                    axis
	pose                    body.Pose
}

// Leaf is one blade as it stands.
type Leaf struct {
	G      float64
	OutMM  float64 // of its centre of mass from the axle
	At     float64 // angle about the axle, radians
	Lies   float64 // mm³: how much it turns the air, with its sense; area by radius by both slopes
	facets []fold.FacetID
}

// axis is the line that the wheel turns about, from its foot up.
type axis struct{ foot, up, right, ahead geom.Vec3 }

func (a axis) of(p geom.Vec3) (out, height, angle float64) {
	d := p.Sub(a.foot)
	height = d.Dot(a.up)
	x, y := d.Dot(a.right), d.Dot(a.ahead)
	return math.Hypot(x, y), height, math.Atan2(y, x)
}

// ErrNoWheel means that no leaves are parted about an axle.
var ErrNoWheel = errors.New("the pattern parts no leaves about an axle")

// profile is at how many distances from the axle the length of a leaf is kept.
const profile = 40

// newest is the wheel that was read last: what looks whether a pattern has blades reads it, and
// so does its bench right after.
var newest struct {
	sync.Mutex
	of  *sequence.Replay
	g   Geometry
	err error
}

// Of reads a wheel off a replay that went to its end.
func Of(r *sequence.Replay) (Geometry, error) {
	newest.Lock()
	if newest.of == r {
		defer newest.Unlock()
		return newest.g, newest.err
	}
	newest.Unlock()
	g, err := read(r)
	newest.Lock()
	defer newest.Unlock()
	newest.of, newest.g, newest.err = r, g, err
	return g, err
}

func read(r *sequence.Replay) (Geometry, error) {
	g := Geometry{Sheet: r.Sheet, pose: body.Standing(r)}
	if len(r.Parts) == 0 || r.Parts[0].Turn == 0 || !g.along(r.Parts[0]) {
		return g, ErrNoWheel
	}
	g.leaves(r.Parts[0])
	if len(g.Leaves) < 2 {
		return g, ErrNoWheel
	}
	m := g.pose.Weigh()
	g.MassG = m.G
	g.OffMM, g.CoMMM, _ = g.axis.of(m.CoM)
	u := g.axis.up
	g.UprightGMM2 = u.X*u.X*m.Ixx + u.Y*u.Y*m.Iyy + u.Z*u.Z*m.Izz + 2*(u.X*u.Y*m.Ixy+u.X*u.Z*m.Ixz+u.Y*u.Z*m.Iyz)
	g.AcrossGMM2 = (m.Ixx + m.Iyy + m.Izz - g.UprightGMM2) / 2
	for _, b := range r.Bends {
		g.CurlMM = b.RadiusMM
	}
	g.flat(r)
	return g, nil
}

// along finds the axle in space: the joint that leaves were parted about.
func (g *Geometry) along(q sequence.Parting) bool {
	joint := q.Pieces[0]
	tip, ok1 := g.pose.Spot(joint.A)
	foot, ok2 := g.pose.Spot(joint.B)
	if !ok1 || !ok2 || tip.Dist(foot) < geom.Distinct {
		return false
	}
	up := tip.Sub(foot).Unit()
	right := up.Cross(geom.Vec3{X: 0.36, Y: 0.48, Z: 0.8}).Unit()
	g.axis = axis{foot, up, right, up.Cross(right)}
	g.TallMM = tip.Dist(foot)
	return true
}

// leaves finds the pieces of each blade: those that hang together without crossing a joint
// that is open.
func (g *Geometry) leaves(q sequence.Parting) {
	s := g.pose.State
	done := make([]bool, len(s.F))
	neighbours := make([][]fold.FacetID, len(s.F))
	for _, h := range s.H {
		if !h.Along(q.Pieces...) {
			neighbours[h.A], neighbours[h.B] = append(neighbours[h.A], h.B), append(neighbours[h.B], h.A)
		}
	}
	for i := range s.F {
		if done[i] {
			continue
		}
		done[i] = true
		l := Leaf{facets: []fold.FacetID{fold.FacetID(i)}}
		for k := 0; k < len(l.facets); k++ {
			for _, o := range neighbours[l.facets[k]] {
				if !done[o] {
					done[o] = true
					l.facets = append(l.facets, o)
				}
			}
		}
		g.weigh(&l)
		g.Leaves = append(g.Leaves, l)
	}
	slices.SortFunc(g.Leaves, func(a, b Leaf) int {
		if a.At < b.At {
			return -1
		}
		return 1
	})
	for _, l := range g.Leaves {
		g.Sense += int(math.Copysign(1, l.Lies)) * lies(l.Lies)
	}
	switch {
	case g.Sense > 0:
		g.Sense = 1
	case g.Sense < 0:
		g.Sense = -1
	}
}

// leastLies is by how much a blade lies over at least that has a sense, mm³.
const leastLies = 20.0

func lies(v float64) int {
	if math.Abs(v) > leastLies {
		return 1
	}
	return 0
}

// weigh sums a leaf: its mass, where it is, and how it takes the air. Air along the axle
// presses square to the paper, by the slope that it meets; what turns the wheel of that is by
// the slope across.
func (g *Geometry) weigh(l *Leaf) {
	var x, y, area, hold, held float64
	for _, f := range l.facets {
		n := g.pose.At[f].Turn(geom.Vec3{Z: 1})
		c := g.pose.Corners(f)
		for k := 1; k+1 < len(c); k++ {
			a := c[k].Sub(c[0]).Cross(c[k+1].Sub(c[0])).Len() / 2
			mid := c[0].Add(c[k]).Add(c[k+1]).Scale(1.0 / 3)
			d := mid.Sub(g.axis.foot)
			px, py := d.Dot(g.axis.right), d.Dot(g.axis.ahead)
			area, x, y = area+a, x+a*px, y+a*py
			r := math.Hypot(px, py)
			round := g.axis.right.Scale(-py / math.Max(r, 1e-9)).Add(g.axis.ahead.Scale(px / math.Max(r, 1e-9)))
			l.Lies += a * r * n.Dot(g.axis.up) * n.Dot(round)
			hold, held = hold+a*r*r, held+a*r*r*d.Dot(g.axis.up)
		}
		for _, p := range c {
			out, _, _ := g.axis.of(p)
			g.ReachMM = math.Max(g.ReachMM, out)
		}
	}
	l.G = area * g.Sheet.GSM * 1e-6
	l.OutMM, l.At = math.Hypot(x, y)/math.Max(area, 1e-9), math.Atan2(y, x)
	g.AirMM = held / math.Max(hold, 1e-9)
}

// flat measures one leaf as it lies in the pack: how far out it goes, and how long it is
// along the axle at each distance.
func (g *Geometry) flat(r *sequence.Replay) {
	s := r.Final()
	var tip, foot geom.Vec
	joint := r.Parts[0].Pieces[0]
	for i, v := range []geom.Vec{joint.A, joint.B} {
		f := s.FacetsAtSheet(v)
		if len(f) == 0 {
			return
		}
		if i == 0 {
			tip = s.F[f[0]].Iso.Apply(v)
		} else {
			foot = s.F[f[0]].Iso.Apply(v)
		}
	}
	up := tip.Sub(foot).Unit()
	across := geom.Vec{X: up.Y, Y: -up.X}
	var all []geom.Vec
	for i := range s.F {
		for _, v := range s.Folded(fold.FacetID(i)) {
			d := v.Sub(foot)
			p := geom.Vec{X: math.Abs(d.Dot(across)), Y: d.Dot(up)}
			all = append(all, p)
			g.FlatMM = math.Max(g.FlatMM, p.X)
		}
	}
	g.outline = geom.Hull(all)
	g.broad = make([]float64, profile)
	for k := range g.broad {
		at := g.FlatMM * (float64(k) + 0.5) / profile
		lo, hi := math.Inf(1), math.Inf(-1)
		for i, a := range g.outline {
			b := g.outline[(i+1)%len(g.outline)]
			if (a.X-at)*(b.X-at) > 0 || a.X == b.X {
				continue
			}
			y := a.Y + (b.Y-a.Y)*(at-a.X)/(b.X-a.X)
			lo, hi = math.Min(lo, y), math.Max(hi, y)
		}
		g.broad[k] = math.Max(0, hi-lo)
	}
}

// Bounds of the hub, as a part of the reach.
const leastHub, mostHub = 0.1, 0.75

// Wheel is the wheel for its laws, its blades lying over to an angle from its plane, degrees,
// with some tape at its tip, g. Near the axle the blades lie on one another and leave no way
// for the air: that is its hub.
func (g Geometry) Wheel(angleDeg, tapeG float64) wheel.Wheel {
	n := float64(len(g.Leaves))
	beta := geom.Rad(angleDeg)
	k := g.ReachMM / math.Max(g.FlatMM, 1e-9)
	hub := leastHub * g.ReachMM
	for i, c := range g.broad {
		r := k * g.FlatMM * (float64(i) + 0.5) / profile
		if n*c*math.Cos(beta) > 2*math.Pi*r {
			hub = math.Max(hub, r)
		}
	}
	hub = math.Min(hub, mostHub*g.ReachMM)
	sum, count := 0.0, 0.0
	for i, c := range g.broad {
		if r := k * g.FlatMM * (float64(i) + 0.5) / profile; r >= hub {
			sum, count = sum+c, count+1
		}
	}
	return wheel.Wheel{Blades: len(g.Leaves), Inner: hub * 1e-3, Outer: g.ReachMM * 1e-3, Chord: sum / math.Max(count, 1) * 1e-3, Angle: beta, MassKg: (g.MassG + tapeG) * 1e-3}
}
