package air

import (
	"math"

	"tussock/internal/geom"
)

// Surface is the lattice of a glider with all flows solved that do not depend on where
// its weight lies. It is never changed.
type Surface struct {
	Strips []Strip
	lat    *lattice
	flow   [flows][]float64
	AreaM2 float64 // of both wings
	SpanM  float64
	ChordM float64 // mean aerodynamic chord
	ki     float64 // dCDi / dCN²
	noseM  float64 // depth of the nose that can be bent
}

// The flows: air from below, from the right, turning about the axes through x = 0, and
// along bent edges.
const (
	fromBelow = iota
	fromRight
	rolling
	pitching
	yawing
	curlBoth
	curlApart
	twistApart
	rudder
	noseSide
	flows
)

// NewSurface solves a lattice. ok is false when there is no wing, or the panels do not
// determine the flow.
func NewSurface(strips []Strip, chordwise int) (s *Surface, ok bool) {
	s = &Surface{Strips: strips, noseM: NoseBendMM * Metres}
	lo, hi := math.Inf(1), math.Inf(-1)
	chord2 := 0.0
	for _, q := range strips {
		if !q.Part.Wing() {
			continue
		}
		s.AreaM2 += q.Area()
		chord2 += q.Area() * q.Chord()
		lo, hi = math.Min(lo, q.Left.Lead.Y), math.Max(hi, q.Right.Lead.Y)
	}
	if !(s.AreaM2 > 0) {
		return nil, false
	}
	s.SpanM, s.ChordM = hi-lo, chord2/s.AreaM2
	if s.lat, ok = newLattice(strips, chordwise); !ok {
		return nil, false
	}
	// The body's axes are x forward and z down: a roll to the right, a pitch up, a yaw
	// to the right are turns about -x, +y and -z here.
	turning := func(w geom.Vec3) func(panel) float64 {
		return func(p panel) float64 { return -w.Cross(p.control).Dot(p.normal) }
	}
	bent := func(slope func(p panel) geom.Vec3) func(panel) float64 {
		return func(p panel) float64 { return -slope(p).Dot(p.normal) }
	}
	up := geom.Vec3{Z: 1}
	side := func(p panel) float64 {
		switch p.part {
		case RightWing:
			return 1
		case LeftWing:
			return -1
		}
		return 0
	}
	all, ok := s.lat.solve(
		func(p panel) float64 { return p.normal.Z },
		func(p panel) float64 { return -p.normal.Y },
		turning(geom.Vec3{X: -1}), turning(geom.Vec3{Y: 1}), turning(geom.Vec3{Z: -1}),
		bent(func(p panel) geom.Vec3 { return up.Scale(when(p.lip) * math.Abs(side(p))) }),
		bent(func(p panel) geom.Vec3 { return up.Scale(when(p.lip) * side(p)) }),
		bent(func(p panel) geom.Vec3 { return up.Scale(-side(p)) }),
		bent(func(p panel) geom.Vec3 { return geom.Vec3{Y: when(p.lip && p.part == Keel)} }),
		bent(func(p panel) geom.Vec3 {
			return geom.Vec3{Y: -when(p.part == Keel) * p.ahead(s.noseM)} // towards the right
		}),
	)
	if !ok {
		return nil, false
	}
	copy(s.flow[:], all)
	s.ki = s.induced()
	return s, true
}

func when(b bool) float64 {
	if b {
		return 1
	}
	return 0
}

// induced is the drag that lift costs, by the wake far behind (Trefftz): dCDi / dCL².
func (s *Surface) induced() float64 {
	// The panels of a strip leave their wake in the same two lines.
	n := s.lat.chordwise
	sums := make([]float64, len(s.lat.panels)/n)
	for i, g := range s.flow[fromBelow] {
		sums[i/n] += g
	}
	drag, lift := 0.0, 0.0
	for i, g := range sums {
		p := &s.lat.panels[i*n]
		lift += g * (p.b.Y - p.a.Y)
		mid := p.a.Add(p.b).Scale(0.5)
		w := geom.Vec3{}
		for j := range sums {
			q := &s.lat.panels[j*n]
			for _, e := range [2]struct {
				at geom.Vec3
				g  float64
			}{{q.b, sums[j]}, {q.a, -sums[j]}} {
				dy, dz := mid.Y-e.at.Y, mid.Z-e.at.Z
				core := p.core(e.at)
				w = w.Add(geom.Vec3{Y: -dz, Z: dy}.Scale(e.g / (2 * math.Pi * math.Max(dy*dy+dz*dz, core*core))))
			}
		}
		// In the far wake a leg is whole: half of its speed is felt at the wing.
		span := p.b.Sub(p.a)
		drag -= g * w.Dot(geom.Vec3{Y: -span.Z, Z: span.Y}) / 2
	}
	cl, cd := 2*lift/s.AreaM2, 2*drag/s.AreaM2
	if cl == 0 {
		return 0
	}
	return cd / (cl * cl)
}

// load is force and moment of a flow over density and speed squared, about a point.
type load struct{ force, moment geom.Vec3 }

// Kutta and Joukowski: rho Γ V × l. The air flows straight aft, so only bound whirls
// count.
func (s *Surface) load(g []float64, about geom.Vec3, of func(Part) bool) load {
	var out load
	for i, p := range s.lat.panels {
		if !of(p.part) {
			continue
		}
		l := p.b.Sub(p.a)
		f := geom.Vec3{Y: -g[i] * l.Z, Z: g[i] * l.Y}
		out.force = out.force.Add(f)
		out.moment = out.moment.Add(p.a.Add(p.b).Scale(0.5).Sub(about).Cross(f))
	}
	return out
}

// Derivatives of the coefficients about the centre of mass, for small angles. Angles
// in rad; rates as p b/2V, q c/2V, r b/2V. CN up, CY right; Cl right wing down, Cm nose
// up, Cn nose right.
type Derivatives struct {
	CNa, Cma, Cmq       float64
	CYa, Cla, Cna       float64 // 0 for an even toy
	CNd, Cmd            float64 // both tail edges up
	CYb, Clb, Cnb       float64
	CYp, Clp, Cnp       float64
	CYr, Clr, Cnr       float64
	Clba                float64 // of Clb with the angle of attack
	Clda, Cnda          float64 // half the difference of the edges, right up
	ClTw, CnTw          float64 // half the difference of the twist, right nose up
	CYrud, ClRud, CnRud float64 // keel tail to the right
	CYnos, ClNos, CnNos float64 // nose to the right
	KeelYb, KeelLb      float64 // shares of keel and fins
	KeelNb              float64
	Ki                  float64
	NeutralM            float64 // neutral point, along x
}

// Derivatives about a centre of mass: geometry axes, m.
func (s *Surface) Derivatives(com geom.Vec3) Derivatives {
	all := func(Part) bool { return true }
	n := 2 / s.AreaM2
	nb, nc := n/s.SpanM, n/s.ChordM
	// About another point a turn is a turn about x = 0 and a steady wind.
	about := func(k int, w geom.Vec3) []float64 {
		wind := w.Cross(com) // added to the air
		out := make([]float64, len(s.flow[k]))
		for i := range out {
			out[i] = s.flow[k][i] + wind.Z*s.flow[fromBelow][i] - wind.Y*s.flow[fromRight][i]
		}
		return out
	}
	a, b := s.load(s.flow[fromBelow], com, all), s.load(s.flow[fromRight], com, all)
	p := s.load(about(rolling, geom.Vec3{X: -1}), com, all)
	q := s.load(about(pitching, geom.Vec3{Y: 1}), com, all)
	r := s.load(about(yawing, geom.Vec3{Z: -1}), com, all)
	d, da := s.load(s.flow[curlBoth], com, all), s.load(s.flow[curlApart], com, all)
	tw, ru, no := s.load(s.flow[twistApart], com, all), s.load(s.flow[rudder], com, all), s.load(s.flow[noseSide], com, all)
	keel := s.load(s.flow[fromRight], com, func(p Part) bool { return !p.Wing() })
	kb, kc := 2/s.SpanM, 2/s.ChordM
	out := Derivatives{
		CYa: n * a.force.Y, Cla: -nb * a.moment.X, Cna: -nb * a.moment.Z,
		CNa: n * a.force.Z, Cma: nc * a.moment.Y, Cmq: nc * kc * q.moment.Y,
		CNd: n * d.force.Z, Cmd: nc * d.moment.Y,
		CYb: n * b.force.Y, Clb: -nb * b.moment.X, Cnb: -nb * b.moment.Z,
		CYp: n * kb * p.force.Y, Clp: -nb * kb * p.moment.X, Cnp: -nb * kb * p.moment.Z,
		CYr: n * kb * r.force.Y, Clr: -nb * kb * r.moment.X, Cnr: -nb * kb * r.moment.Z,
		Clda: -nb * da.moment.X, Cnda: -nb * da.moment.Z,
		ClTw: -nb * tw.moment.X, CnTw: -nb * tw.moment.Z,
		CYrud: n * ru.force.Y, ClRud: -nb * ru.moment.X, CnRud: -nb * ru.moment.Z,
		CYnos: n * no.force.Y, ClNos: -nb * no.moment.X, CnNos: -nb * no.moment.Z,
		KeelYb: n * keel.force.Y, KeelLb: -nb * keel.moment.X, KeelNb: -nb * keel.moment.Z,
		Ki: s.ki, Clba: s.rollFromBoth(com) * -nb,
	}
	out.NeutralM = com.X
	if out.CNa != 0 {
		out.NeutralM -= s.ChordM * out.Cma / out.CNa
	}
	return out
}

// rollFromBoth is the moment about x that air from below and from the right give
// together, beyond what each gives alone: the whirls of one in the wind of the other,
// on bound whirls and on the legs over the wing. It is bilinear, so this is exact.
func (s *Surface) rollFromBoth(com geom.Vec3) float64 {
	out := 0.0
	up, left := geom.Vec3{Z: 1}, geom.Vec3{Y: -1}
	for i, p := range s.lat.panels {
		ga, gb := s.flow[fromBelow][i], s.flow[fromRight][i]
		wind := left.Scale(ga).Add(up.Scale(gb))
		for _, part := range [3]struct{ at, l geom.Vec3 }{
			{p.a.Add(p.b).Scale(0.5), p.b.Sub(p.a)},
			{p.b.Add(geom.Vec3{X: p.legB / 2}), geom.Vec3{X: p.legB}},
			{p.a.Add(geom.Vec3{X: p.legA / 2}), geom.Vec3{X: -p.legA}},
		} {
			out += part.at.Sub(com).Cross(wind.Cross(part.l)).X
		}
	}
	return out
}

// each are all its numbers.
func (d *Derivatives) each() [33]*float64 {
	return [33]*float64{&d.CNa, &d.Cma, &d.Cmq, &d.CYa, &d.Cla, &d.Cna, &d.CNd, &d.Cmd, &d.CYb, &d.Clb, &d.Cnb, &d.CYp, &d.Clp, &d.Cnp, &d.CYr, &d.Clr, &d.Cnr,
		&d.Clba, &d.Clda, &d.Cnda, &d.ClTw, &d.CnTw, &d.CYrud, &d.ClRud, &d.CnRud, &d.CYnos, &d.ClNos, &d.CnNos, &d.Ki,
		&d.KeelYb, &d.KeelLb, &d.KeelNb, &d.NeutralM}
}

// Moved adds a part of what lies between two others: straight, as derivatives of toys that
// differ little do.
func (d Derivatives) Moved(from, to Derivatives, part float64) Derivatives {
	a, b := from.each(), to.each()
	for i, v := range d.each() {
		*v += part * (*b[i] - *a[i])
	}
	return d
}
