package flight

import (
	"math"

	"tussock/internal/geom"
	"tussock/internal/motion/glide/air"
	"tussock/internal/motion/glide/craft"
)

// vec is a vector in body axes: x forward, y right, z down.
type vec struct{ x, y, z float64 }

// Model is a glider ready to fly: three elements (right wing, left wing, keel with
// fins), tables over the full angle of attack, and what the elements miss of the
// lattice's derivatives at small angles. It is never changed by a flight.
type Model struct {
	Shape   *air.Shape
	Weight  air.Weight
	Bends   air.Bends
	D       air.Derivatives
	FloorM  [2]float64 // lowest and highest corner, body axes z
	corners []vec
	polar   polar
	table   *table

	s, b, c        float64
	m              vec // mass with the air carried along, kg
	inertia        [3][3]float64
	inverse        [3][3]float64 // of inertia with the air carried along
	armR, armL     float64       // of the wings, m to the right
	dihedral, skew float64       // G and k of the elements
	keelSlope      float64       // K'
	keelX, keelZ   float64       // forward and down
	keelAreaX      float64
	keelPlate      float64 // S_k / S times the plate's coefficient
	rest           [3][4]float64
	cy0, cl0, cn0  float64
	curved         float64 // J3, m^5
	rate           float64 // fastest own rate per m/s
	flat           bool    // as if no edge were curled, to compare with the lattice
	sprung         *craft.Toy
	plain          air.Derivatives // without what is not known of the neutral point
	doubt          Doubt
}

// NewModel joins shape, weight and bends. The lattice is not solved anew.
func NewModel(h *air.Shape, w air.Weight, bends air.Bends) *Model {
	return newModel(h, w, h.Derivatives(w.CoM), bends, certain)
}

// ModelOf is the model of a toy, which also knows how the toy is once its wings have sprung
// up.
func ModelOf(t craft.Toy, bends air.Bends) *Model {
	m := NewModel(t.Shape, t.Weight, bends)
	m.sprung = t.Sprung
	return m
}

func newModel(h *air.Shape, w air.Weight, d air.Derivatives, bends air.Bends, doubt Doubt) *Model {
	m := &Model{Shape: h, Weight: w, Bends: bends, D: d, plain: d, doubt: doubt, s: h.AreaM2, b: h.SpanM, c: h.ChordM}
	m.D.NeutralM += doubt.Neutral * m.c
	m.D.Cma -= doubt.Neutral * d.CNa
	d = m.D
	m.polar = polarOf(h, d, w.CoM.X, w.CoM.Z, (bends.CurlRight+bends.CurlLeft)/2)
	lips := doubt.Curl
	m.polar.cd0 *= doubt.Friction
	m.polar.curl *= lips
	m.polar.kept *= doubt.Suction
	m.polar.stall += doubt.Stall
	m.polar.travel *= doubt.Travel
	m.table = m.polar.table()
	m.FloorM = [2]float64{math.Inf(-1), math.Inf(1)}
	for _, q := range h.Corners {
		v := m.body(q)
		m.corners = append(m.corners, v)
		m.FloorM[0], m.FloorM[1] = math.Max(m.FloorM[0], v.z), math.Min(m.FloorM[1], v.z)
	}
	m.weigh()
	if d.CNa > 0 && d.Clp < 0 {
		// Equal arms for speed and force: rolling never gains energy.
		arm := m.b * math.Sqrt(-d.Clp/(2*d.CNa))
		m.armR, m.armL = arm-w.CoM.Y, -arm-w.CoM.Y
		m.dihedral = -(d.Clb - d.KeelLb) * m.b / (d.CNa * arm)
		m.skew = -d.Clba * m.b / (d.CNa * arm)
	}
	m.keelSlope = -d.KeelYb
	if m.keelSlope > 1e-9 {
		m.keelX = d.KeelNb * m.b / d.KeelYb
		m.keelZ = -d.KeelLb * m.b / d.KeelYb
		m.keelAreaX = -(h.KeelX - w.CoM.X)
		m.keelPlate = air.PlateNormal * h.KeelM2 / m.s
	}
	apart := lips * air.CurlEfficiency * air.CurlSpan * math.Tanh((bends.CurlRight-bends.CurlLeft)/2/air.CurlSpan)
	lip := lips * air.CurlEfficiency * air.CurlSpan * math.Tanh(bends.Rudder/air.CurlSpan)
	m.cl0 = d.Clda*apart + d.ClTw*bends.Twist + d.ClRud*lip + d.ClNos*bends.Nose
	m.cn0 = d.Cnda*apart + d.CnTw*bends.Twist + d.CnRud*lip + d.CnNos*bends.Nose
	m.cy0 = d.CYrud*lip + d.CYnos*bends.Nose
	for _, q := range h.Strips {
		if q.Part.Wing() {
			m.curved += cubed(q, w.CoM.X)
		}
	}
	m.calibrate()
	roll := -d.Clp * air.AirDensity * m.s * m.b * m.b / (4 / m.inverse[0][0])
	pitch := math.Sqrt(math.Abs(d.Cma)*air.AirDensity*m.s*m.c/2*m.inverse[1][1]) - d.Cmq*air.AirDensity*m.s*m.c*m.c/4*m.inverse[1][1]
	// The keel in a slip: it slows the drift, and rolls and turns about the centre of mass.
	slip := air.AirDensity * m.s / 2 * m.keelSlope * (1/m.m.y + m.keelZ*m.keelZ*m.inverse[0][0] + m.keelX*m.keelX*m.inverse[2][2])
	m.rate = math.Max(math.Max(roll, pitch), slip)
	return m
}

// cubed is ∫ |x - x_com|³ dS of a strip.
func cubed(q air.Strip, com float64) float64 {
	lead := (q.Left.Lead.X + q.Right.Lead.X) / 2
	to4 := func(x float64) float64 { d := x - com; return d * d * d * math.Abs(d) / 4 }
	return (to4(lead+q.Chord()) - to4(lead)) * q.Width()
}

// body turns geometry axes about the centre of mass into body axes.
func (m *Model) body(q geom.Vec3) vec {
	d := q.Sub(m.Weight.CoM)
	return vec{-d.X, d.Y, -d.Z}
}

// weigh adds the air that the wings carry along when they are pushed: of the same
// order as the paper's own mass. Only its inertia counts; what it does to moments in
// steady flow is in the lattice already.
func (m *Model) weigh() {
	h, w := m.Shape, m.Weight
	long, short := math.Max(m.s/m.b, m.b), math.Min(m.s/m.b, m.b)
	part := (long / short) / (long/short + 0.73)
	mz := air.AirDensity * math.Pi / 4 * part * short * short * long
	my := 0.36 * air.AirDensity * math.Pi / 4 * math.Pow(h.KeelM2, 1.5)
	m.m = vec{w.MassKg + 0.02*mz, w.MassKg + my, w.MassKg + mz}
	width := m.s / m.b
	iy := air.AirDensity * math.Pi / 128 * width * width * width * width * m.b * part
	ix := air.AirDensity * math.Pi / 8 * part * h.HalfWidthFourth
	// Products of inertia: x and z change sign from geometry to body axes.
	m.inertia = [3][3]float64{{w.Ixx, -w.Ixy, w.Ixz}, {-w.Ixy, w.Iyy, -w.Iyz}, {w.Ixz, -w.Iyz, w.Izz}}
	with := m.inertia
	with[0][0] += ix
	with[1][1] += iy
	m.inverse = inverted(with)
}

func inverted(a [3][3]float64) [3][3]float64 {
	c := func(i, j, k, l int) float64 { return a[i][j]*a[k][l] - a[i][l]*a[k][j] }
	adj := [3][3]float64{
		{c(1, 1, 2, 2), -c(0, 1, 2, 2), c(0, 1, 1, 2)},
		{-c(1, 0, 2, 2), c(0, 0, 2, 2), -c(0, 0, 1, 2)},
		{c(1, 0, 2, 1), -c(0, 0, 2, 1), c(0, 0, 1, 1)},
	}
	det := a[0][0]*adj[0][0] + a[0][1]*adj[1][0] + a[0][2]*adj[2][0]
	for i := range adj {
		for j := range adj[i] {
			adj[i][j] /= det
		}
	}
	return adj
}

// steepest sideslip, rad, and fastest rates p b/2V and r b/2V for which what the
// elements miss of the lattice is still added in full.
const steepest, fastest = 0.5, 0.3

// slip is the arc sine, by its series: within 1e-4 up to the steepest sideslip.
func slip(x float64) float64 {
	q := x * x
	return x * (1 + q*(1.0/6+q*(3.0/40+q*5.0/112)))
}

// calibrate finds what the elements miss of the lattice's lateral derivatives: from
// then on both agree at small angles.
func (m *Model) calibrate() {
	d := m.D
	const v, h = air.FrictionSpeed, 1e-4
	want := [3][4]float64{{d.CYb, d.CYp, d.CYr, d.CYa}, {d.Clb, d.Clp, d.Clr, d.Cla}, {d.Cnb, d.Cnp, d.Cnr, d.Cna}}
	// Without curl, and level: what the load on the wings does is left to the elements.
	bare := *m
	bare.flat = true
	bare.cy0, bare.cl0, bare.cn0 = 0, 0, 0
	q := air.AirDensity * v * v / 2 * m.s
	for j := range 4 {
		state := [4]float64{}
		state[j] = h
		hi := bare.lateral(v, state)
		state[j] = -h
		lo := bare.lateral(v, state)
		for i := range 3 {
			per := q
			if i > 0 {
				per *= m.b
			}
			m.rest[i][j] = want[i][j] - (hi[i]-lo[i])/(2*h*per)
		}
	}
}

// lateral is side force, rolling and yawing moment at sideslip, rates p b/2V and
// r b/2V, and angle of attack.
func (m *Model) lateral(v float64, s [4]float64) [3]float64 {
	f, t := m.Air(v*math.Cos(s[0])*math.Cos(s[3]), v*math.Sin(s[0]), v*math.Sin(s[3])*math.Cos(s[0]), s[1]*2*v/m.b, 0, s[2]*2*v/m.b)
	return [3]float64{f.y, t.x, t.z}
}

// Air is the force (N) and moment (N m) of the air on a glider that moves with u, v, w
// (m/s) and turns with p, q, r (rad/s), in body axes about the centre of mass.
func (m *Model) Air(u, v, w, p, q, r float64) (f, t vec) {
	v2 := u*u + v*v + w*w
	if v2 < 1e-12 {
		return f, t
	}
	speed := math.Sqrt(v2)
	axial := math.Sqrt(air.FrictionSpeed / max(speed, 0.1))
	soft := 1.0
	if m.Bends.Softening {
		soft = 1 / (1 + v2/(air.SofteningSpeed*air.SofteningSpeed))
	}
	if m.flat {
		soft = 0
	}
	lean := clamp(m.skew*v/speed, -0.6, 0.6)
	for side := range 2 {
		s, y, size := 1.0, m.armR, 1+m.Bends.AreaMore
		if side == 1 {
			s, y, size = -1, m.armL, 1-m.Bends.AreaMore
		}
		uh := u - r*y
		wh := w + p*y + s*m.dihedral*v
		press := air.AirDensity * m.s / 4 * (uh*uh + wh*wh) * size
		c := m.table.look(uh, wh)
		n := press * (c.cn + soft*c.cnCurl) * (1 + s*lean)
		ax := press * c.ca * axial
		f.x -= ax
		f.z -= n
		t.x -= n * y
		t.z += ax * y
		t.y += press * m.c * (c.cm + soft*c.cmCurl)
	}
	if m.keelSlope > 1e-9 {
		vk := v + r*m.keelX - p*m.keelZ
		k2 := u*u + vk*vk
		if k2 > 1e-12 {
			k := math.Sqrt(k2)
			sin, cos := vk/k, math.Abs(u)/k
			abs := math.Abs(sin)
			gone := smooth(0.342, 0.5, abs) // sines of 20° and 30°
			coef := (1-gone)*m.keelSlope*sin*cos + gone*m.keelPlate*sin
			y := -air.AirDensity * m.s / 2 * k2 * coef
			f.y += y
			t.z += y * (m.keelX + (m.keelAreaX-m.keelX)*abs)
			t.x -= m.keelZ * y
		}
	}
	press := air.AirDensity * v2 / 2 * m.s
	if fade := clamp((u/speed-0.6)/0.3, 0, 1); fade > 0 {
		// Straight lines hold for small angles and rates only; further on the elements,
		// which never give energy, have it to themselves.
		x := [4]float64{clamp(slip(v/speed), -steepest, steepest), clamp(p*m.b/(2*speed), -fastest, fastest), clamp(r*m.b/(2*speed), -fastest, fastest), w / speed}
		row := func(i int, c0 float64) float64 {
			a := &m.rest[i]
			return press * fade * (a[0]*x[0] + a[1]*x[1] + a[2]*x[2] + a[3]*x[3] + soft*c0)
		}
		f.y += row(0, m.cy0)
		t.x += m.b * row(1, m.cl0)
		t.z += m.b * row(2, m.cn0)
	}
	across := air.DampingLeft + (1-air.DampingLeft)*clamp((math.Abs(u)/speed-0.5)/0.4, 0, 1)
	t.y += air.AirDensity*speed*m.s*m.c*m.c/4*m.D.Cmq*across*q - 0.5*air.AirDensity*m.curved*math.Abs(q)*q
	return f, t
}
