package tokens

import (
	"errors"
	"math"

	"gonum.org/v1/gonum/mat"

	"tussock/internal/body"
	"tussock/internal/draw"
	"tussock/internal/fold"
	"tussock/internal/fold/layermap"
	"tussock/internal/geom"
	"tussock/internal/motion/spin/token"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Geometry is a token as it rests, mm and g, seen from above: x to the right and y up on the
// picture, from the spot that it rests on.
type Geometry struct {
	Sheet   sheet.Sheet
	Hangs   bool // from a pin, instead of standing on a point of its own
	MassG   float64
	CoM     geom.Vec // beside the point
	DepthMM float64  // of the centre of mass below it; above is negative
	// Moments of inertia about the centre of mass, g mm²: about the upright axis, and the mean
	// of those across it.
	UprightGMM2, AcrossGMM2 float64
	RadiusMM                float64 // how far out it reaches
	Layers                  float64 // in the mean
	PointMM                 float64 // how far the point stands out of the plane of the body
	Rim                     []Spot  // what could touch the table, all round
	OpenMM                  float64 // length of edges at its rim
	Steep                   []upright
	Trace                   []Step
	Mark                    *geom.Vec        // the balance that was marked on the way, where it is now
	after                   map[int]geom.Vec // where the centre of mass lay after each step, as the toy is now
	restsOn                 geom.Vec         // the spot that it rests on, on the sheet
	effects                 *effects
	frame                   frame
	replay                  *sequence.Replay
	pose                    body.Pose
}

// Spot is a spot of the rim: where, how high over the plane of the body, and its own knob.
type Spot struct {
	At   geom.Vec
	UpMM float64
	Name string // in words; "" where it has none
	Knob string // that bends it; "" for none
}

// upright is paper that stands up, mm² and mm from the axis.
type upright struct{ area, r float64 }

// Step is where the centre of mass lay after a step, as the toy is now.
type Step struct {
	No int
	At geom.Vec
}

// frame turns space into the picture from above.
type frame struct {
	origin, right, up, normal geom.Vec3 // normal points up from the table
}

func (f frame) plan(p geom.Vec3) geom.Vec {
	d := p.Sub(f.origin)
	return geom.Vec{X: d.Dot(f.right), Y: d.Dot(f.up)}
}

func (f frame) height(p geom.Vec3) float64 { return p.Sub(f.origin).Dot(f.normal) }

func (f frame) camera() draw.Camera { return draw.From(f.right, f.up) }

// ErrNoPoint means that the pattern rests on nothing.
var ErrNoPoint = errors.New("the pattern names no point that it rests on")

// Of reads a token off a replay that went to its end.
func Of(r *sequence.Replay) (Geometry, error) {
	g := Geometry{Sheet: r.Sheet, replay: r, pose: body.Standing(r), effects: &effects{}}
	name := r.Pattern.Head(headStands)
	if g.Hangs = name == ""; g.Hangs {
		name = r.Pattern.Head(headHangs)
	}
	rests, ok := g.pose.Spot(r.Landmarks[name])
	if name == "" || !ok {
		return g, ErrNoPoint
	}
	g.restsOn = r.Landmarks[name]
	m := g.pose.Weigh()
	g.frame = g.faces(rests, m.CoM)
	g.MassG = m.G
	g.CoM, g.DepthMM = g.frame.plan(m.CoM), -g.frame.height(m.CoM)
	g.UprightGMM2 = about(m, g.frame.normal)
	g.AcrossGMM2 = (m.Ixx + m.Iyy + m.Izz - g.UprightGMM2) / 2
	if !g.Hangs {
		g.PointMM = math.Abs(rests.Z)
	}
	g.around()
	g.trace()
	if mark, ok := g.pose.Spot(r.Landmarks[r.Pattern.Head(headMark)]); ok && r.Pattern.Head(headMark) != "" {
		at := g.frame.plan(mark)
		g.Mark = &at
	}
	return g, nil
}

// faces is the frame of a token. One that stands on a point has its plane, up on the side
// away from the point; one that hangs is level where its halves hang alike: up is square to
// the plate that it is on the whole, away from its weight.
func (g *Geometry) faces(rests, com geom.Vec3) frame {
	n, right := geom.Vec3{Z: 1}, geom.Vec3{X: 1}
	if g.Hangs {
		right, n = g.plate()
		if com.Sub(rests).Dot(n) > 0 {
			n = n.Scale(-1)
		}
	} else if rests.Z > 0 {
		n.Z = -1
	}
	if n.Z < 0 && !g.Hangs {
		right.X = -1 // turned over from side to side
	}
	// One that hangs is seen with the first spot of its rim to the left.
	if first := g.replay.Pattern.Head(headRim); g.Hangs && first != "" {
		if at, ok := g.pose.Spot(g.replay.Landmarks[first]); ok && at.Sub(rests).Dot(right) > 0 {
			right = right.Scale(-1)
		}
	}
	right = right.Sub(n.Scale(right.Dot(n))).Unit()
	return frame{rests, right, n.Cross(right), n}
}

// plate is how the plate lies that the paper of a toy is on the whole: the axes of its
// smallest and its largest moment of inertia, along it and square to it. What is fixed to it
// does not count.
func (g *Geometry) plate() (along, upright geom.Vec3) {
	bare := g.pose
	bare.Loads = nil
	m := bare.Weigh()
	var eig mat.EigenSym
	if !eig.Factorize(mat.NewSymDense(3, []float64{m.Ixx, m.Ixy, m.Ixz, m.Ixy, m.Iyy, m.Iyz, m.Ixz, m.Iyz, m.Izz}), true) {
		return geom.Vec3{X: 1}, geom.Vec3{Z: 1}
	}
	var v mat.Dense
	eig.VectorsTo(&v)
	axis := func(i int) geom.Vec3 { return geom.Vec3{X: v.At(0, i), Y: v.At(1, i), Z: v.At(2, i)}.Unit() }
	along, upright = axis(0), axis(2)
	return along, upright
}

// about is the moment of inertia about an axis through the centre of mass.
func about(m body.Mass, n geom.Vec3) float64 {
	return n.X*n.X*m.Ixx + n.Y*n.Y*m.Iyy + n.Z*n.Z*m.Izz + 2*(n.X*n.Y*m.Ixy+n.X*n.Z*m.Ixz+n.Y*n.Z*m.Iyz)
}

// around finds what lies at the rim, and what stands up and beats the air.
func (g *Geometry) around() {
	var all []geom.Vec
	lowest := map[geom.Vec]float64{}
	flat := body.Measure(g.pose.State)
	whole := 0.0
	for _, f := range g.pose.State.F {
		whole += f.Poly.Area()
	}
	g.Layers = math.Max(1, whole/flat.AreaMM2)
	for i, f := range g.pose.State.F {
		for _, c := range g.pose.Corners(fold.FacetID(i)) {
			at := g.frame.plan(c)
			h := g.frame.height(c) - g.PointMM
			if was, known := lowest[at]; !known || h < was {
				lowest[at] = h
			}
			all = append(all, at)
			g.RadiusMM = math.Max(g.RadiusMM, at.Len())
		}
		n := g.pose.At[i].Turn(geom.Vec3{Z: 1}).Dot(g.frame.normal)
		if steep := math.Sqrt(math.Max(0, 1-n*n)); steep > 0.1 {
			mid := g.frame.plan(g.pose.At[i].Apply(lift(f.Poly.Centroid())))
			g.Steep = append(g.Steep, upright{f.Poly.Area() * steep / g.Layers, mid.Len()})
		}
	}
	hull := geom.Hull(all)
	for i, v := range hull {
		before, after := hull[(i+len(hull)-1)%len(hull)], hull[(i+1)%len(hull)]
		if math.Abs(v.Sub(before).Unit().Cross(after.Sub(v).Unit())) > leastBend {
			g.Rim = append(g.Rim, Spot{At: v, UpMM: lowest[v]})
		}
	}
	for _, p := range layermap.Silhouette(flat.Cells) {
		for k, v := range p {
			g.OpenMM += v.Dist(p[(k+1)%len(p)])
		}
	}
	for i, name := range g.replay.Pattern.Heads(headRim) {
		at, ok := g.pose.Spot(g.replay.Landmarks[name])
		if !ok {
			continue
		}
		s := Spot{g.frame.plan(at), g.frame.height(at) - g.PointMM, g.replay.Pattern.Called(name), bendKnob(i)}
		// The corner of the outline that it is at, or one more.
		near, d := -1, sameRimMM
		for k, v := range g.Rim {
			if v.Name == "" && v.At.Dist(s.At) < d {
				near, d = k, v.At.Dist(s.At)
			}
		}
		if near < 0 {
			g.Rim = append(g.Rim, s)
			continue
		}
		s.At, s.UpMM = g.Rim[near].At, math.Min(s.UpMM, g.Rim[near].UpMM)
		g.Rim[near] = s
	}
}

// leastBend is the sine of the least turn of the outline that makes a corner.
const leastBend = 0.02

// sameRimMM is how near to a corner of the outline a named spot of the rim lies that is
// that corner.
const sameRimMM = 3.0

func lift(v geom.Vec) geom.Vec3 { return geom.Vec3{X: v.X, Y: v.Y} }

// trace follows the centre of mass through the steps, as the toy is now: each is carried
// along with the largest piece of the body.
func (g *Geometry) trace() {
	s := g.pose.State
	best := 0
	for i, f := range s.F {
		if f.Poly.Area() > s.F[best].Poly.Area() {
			best = i
		}
	}
	spot := s.F[best].Poly.Centroid()
	reports := body.Steps(g.replay)
	g.after = map[int]geom.Vec{}
	for i, rep := range reports {
		d := g.replay.Steps[i]
		at := d.After.FacetsAtSheet(spot)
		if len(at) == 0 {
			continue
		}
		on := d.After.F[at[0]].Iso.Inverse().Apply(geom.Vec{X: rep.CoM[0], Y: rep.CoM[1]})
		now := g.frame.plan(g.pose.At[best].Apply(lift(on)))
		g.after[d.No] = now
		if n := len(g.Trace); n > 0 && g.Trace[n-1].At.Dist(now) < 1e-6 {
			g.Trace[n-1].No = d.No
			continue
		}
		g.Trace = append(g.Trace, Step{d.No, now})
	}
}

// airMM is the radius of the even disc that the air slows as much: its faces have the same
// second moment about the axis.
func (g Geometry) airMM() float64 {
	about := (g.UprightGMM2 + g.MassG*g.CoM.Dot(g.CoM)) / (g.Sheet.GSM * 1e-6 * g.Layers)
	return math.Pow(2/math.Pi*about, 0.25)
}

// body is the token for its laws, SI.
func (g Geometry) body() token.Body {
	return token.Body{MassKg: g.MassG * 1e-3, Upright: g.UprightGMM2 * 1e-9, Across: g.AcrossGMM2 * 1e-9, R: g.airMM() * 1e-3, H: -g.DepthMM * 1e-3}
}
