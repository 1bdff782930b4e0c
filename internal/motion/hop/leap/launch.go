package leap

import "math"

// Toy is what the leap depends on. Lengths m, masses kg, angles rad.
type Toy struct {
	MassKg    float64
	BodyShare float64 // of the mass that lies ahead of the hip
	BodyM     float64 // from hip to nose
	CoMAhead  float64 // of the body, ahead of the hip
	CoMUp     float64 // of the body, over its line
	Gyration  float64 // radius of the body about its own centre of mass
	MiddleM   float64 // hip to catch
	FootM     float64 // catch to the rear edge
	WidthM    float64 // length of the crease at the hip
	PlanM2    float64 // area of the toy seen from above
	NoseUpM   float64 // front legs hold the nose so high
	Layers    float64 // at the hip
	ThickM    float64 // of one layer
	Hip       Crease
	Catch     Crease
	Backward  bool // the catch lies behind the hip
}

// Crease is one of both as a spring.
type Crease struct {
	Stiffness float64 // N·m/rad, the whole crease, with the panel beside it
	Rest      float64 // opens by itself to this angle
	Most      float64 // N·m, the most it bears
	Return    float64 // share of its energy that comes back
}

// moment at an opening; it only pushes as far as it bears.
func (c Crease) moment(open float64) float64 {
	m := c.Stiffness * (c.Rest - open)
	return math.Max(-c.Most, math.Min(c.Most, m))
}

// stored is the energy of a crease pressed, or pulled, to an opening, J.
func (c Crease) stored(open float64) float64 {
	gap := math.Abs(c.Rest - open)
	if c.Stiffness*gap <= c.Most || c.Stiffness == 0 {
		return c.Stiffness * gap * gap / 2
	}
	// Beyond what it bears it gives way and stores no more.
	return c.Most*c.Most/(2*c.Stiffness) + c.Most*(gap-c.Most/c.Stiffness)
}

// Overhang is how far the rear edge passes the hip, m.
func (t Toy) Overhang() float64 { return t.FootM - t.MiddleM }

// Pressed is the least opening that a finger presses the pleat to: layers have
// thickness.
func (t Toy) Pressed() float64 {
	return math.Max(0.02, t.Layers*t.ThickM/math.Max(t.MiddleM, 1e-6))
}

// Stored is the energy of both creases pressed to an opening, J.
func (t Toy) Stored(open float64) float64 { return t.Hip.stored(open) + t.Catch.stored(open) }

// Caught is the share of the energy left by a finger that catches the foot.
func (t Toy) Caught() float64 {
	over := math.Max(0, t.Overhang()*1e3)
	return 1 - CatchLoss*math.Min(1, over/CatchMM)
}

// Trial is how a leap is set off.
type Trial struct {
	Friction float64 // of foot on table, with the push by the finger
	Pressed  float64 // opening that it is pressed to, rad; 0 for as far as it goes
	Energy   float64 // factor on what comes back: calibration and scatter; 0 counts as 1
	Finger   float64 // share of the energy that the finger leaves; 0 for the usual one
	NoNose   bool    // the nose never touches the table
	Vacuum   bool    // no drag
	DropM    float64 // the floor lies so far below the table
	RopeAtM  float64 // a rope hangs so far ahead, 0 for none
}

// Moment is a moment of the push.
type Moment struct {
	T, X, Theta, Alpha float64
}

// Launch is how a toy leaves the table.
type Launch struct {
	Vx, Vy   float64 // of its centre of mass, m/s
	Spin     float64 // rad/s, nose up positive
	Up, Far  float64 // where its centre of mass is then
	Alpha    float64 // pitch of the body then
	Theta    float64 // opening of the pleat then
	Inertia  float64 // of the whole toy about its centre of mass then, kg m²
	T        float64 // how long the push takes
	StoredJ  float64
	LostPart float64 // drift of energy plus work of friction, over what was released
	Left     bool    // it leaves the table at all
}

type state struct{ x, th, al, vx, wth, wal float64 }

type bodies struct {
	t          Toy
	tr         Trial
	mb, mm, mf float64
	ib, im     float64
	hip, catch Crease
}

func (t Toy) bodies(tr Trial) bodies {
	b := bodies{t: t, tr: tr, mb: t.BodyShare * t.MassKg}
	b.mm = (1 - t.BodyShare) * t.MassKg / 2
	b.mf = b.mm
	b.ib = b.mb * t.Gyration * t.Gyration
	b.im = b.mm * t.MiddleM * t.MiddleM / 12
	e := tr.Energy
	if e == 0 {
		e = 1
	}
	if e *= FingerShare; tr.Finger > 0 {
		e *= tr.Finger / FingerShare
	}
	b.hip, b.catch = t.Hip, t.Catch
	b.hip.Stiffness *= e * t.Hip.Return * t.Caught()
	b.catch.Stiffness *= e * t.Catch.Return * t.Caught()
	// What own hops have taught of the energy is taught of all of it: a spring that gives
	// more also bears more before it gives way.
	if tr.Energy > 1 {
		b.hip.Most *= tr.Energy
		b.catch.Most *= tr.Energy
	}
	return b
}

// accelerations of slip, opening and pitch, and the table's push on the foot: Lagrange's
// equations for three bodies, solved with the push as a fourth unknown.
func (b *bodies) accelerations(s state) (ax, ath, aal, n float64) {
	t := &b.t
	st, ct := math.Sincos(s.th)
	sa, ca := math.Sincos(s.al)
	d, e := t.CoMAhead, t.CoMUp
	// Derivatives of the body's centre by opening and pitch.
	gx, gy := t.MiddleM*st, t.MiddleM*ct
	px, py := -d*sa-e*ca, d*ca-e*sa
	// The middle's centre lies half way.
	hx, hy := gx/2, gy/2
	m11 := t.MassKg
	m12 := b.mb*gx + b.mm*hx
	m13 := b.mb * px
	m22 := b.mb*(gx*gx+gy*gy) + b.mm*(hx*hx+hy*hy) + b.im
	m23 := b.mb * (gx*px + gy*py)
	m33 := b.mb*(px*px+py*py) + b.ib
	// Accelerations that are there without any of the second derivatives.
	w2, a2 := s.wth*s.wth, s.wal*s.wal
	hipX, hipY := t.MiddleM*ct*w2, -t.MiddleM*st*w2
	bodyX, bodyY := hipX-(d*ca-e*sa)*a2, hipY-(d*sa+e*ca)*a2
	midX, midY := hipX/2, hipY/2
	m2 := b.catch.moment(s.th)
	m1 := b.hip.moment(s.th + s.al)
	q1 := -(b.mb*bodyX + b.mm*midX)
	q2 := m1 + m2 - b.mb*(gx*bodyX+gy*(bodyY+Gravity)) - b.mm*(hx*midX+hy*(midY+Gravity))
	q3 := m1 - b.mb*(px*bodyX+py*(bodyY+Gravity))
	nose := 0.0
	if !b.tr.NoNose {
		// The underside at the nose, held up by the front legs.
		y := t.MiddleM*st + t.BodyM*sa - t.NoseUpM
		vy := t.MiddleM*ct*s.wth + t.BodyM*ca*s.wal
		if y < 0 {
			nose = math.Max(0, -noseStiffness*y-noseDamping*vy)
		}
		if nose > 0 {
			vx := s.vx + t.MiddleM*st*s.wth - t.BodyM*sa*s.wal
			f := -b.tr.Friction * nose * math.Tanh(vx/0.02)
			q1 += f
			q2 += f*t.MiddleM*st + nose*t.MiddleM*ct
			q3 += -f*t.BodyM*sa + nose*t.BodyM*ca
		}
	}
	// Friction of the foot is -mu N tanh(vx/0.02), and N = M g - nose + Σ m a_y.
	k := b.tr.Friction * math.Tanh(s.vx/0.02)
	n0 := t.MassKg*Gravity - nose + b.mb*bodyY + b.mm*midY
	nth, nal := b.mb*gy+b.mm*hy, b.mb*py
	// Rows: [m11 m12 m13; m12 m22 m23; m13 m23 m33] a = q, with q1 less k N.
	a11, a12, a13, r1 := m11, m12+k*nth, m13+k*nal, q1-k*n0
	f2, f3 := m12/a11, m13/a11
	a22, a23, r2 := m22-f2*a12, m23-f2*a13, q2-f2*r1
	a32, a33, r3 := m23-f3*a12, m33-f3*a13, q3-f3*r1
	g := a32 / a22
	aal = (r3 - g*r2) / (a33 - g*a23)
	ath = (r2 - a23*aal) / a22
	ax = (r1 - a12*ath - a13*aal) / a11
	return ax, ath, aal, n0 + nth*ath + nal*aal
}

const (
	launchStep = 20e-6 // s, explicit midpoint
	longestS   = 0.08  // a push that takes longer lifts nothing
)

// start is the toy pressed flat, its nose on the table.
func (t Toy) start(tr Trial) state {
	open := tr.Pressed
	if least := t.Pressed(); open < least {
		open = least
	}
	y := t.MiddleM * math.Sin(open)
	al := 0.0
	if !tr.NoNose && t.BodyM > 0 {
		al = math.Asin(math.Max(-0.9, math.Min(0.9, (t.NoseUpM-y)/t.BodyM)))
	}
	return state{th: open, al: al}
}

func (s state) plus(h, vx, wth, wal, ax, ath, aal float64) state {
	return state{s.x + h*vx, s.th + h*wth, s.al + h*wal, s.vx + h*ax, s.wth + h*ath, s.wal + h*aal}
}

// Launch lets the pleat go. path, when not nil, gets moments of the push.
func (t Toy) Launch(tr Trial, path *[]Moment) Launch {
	b := t.bodies(tr)
	s := t.start(tr)
	out := Launch{StoredJ: t.Stored(s.th)}
	before := b.energy(s)
	for k := 0; ; k++ {
		if path != nil && k%10 == 0 {
			*path = append(*path, Moment{out.T, s.x, s.th, s.al})
		}
		ax, ath, aal, n := b.accelerations(s)
		if n <= 0 {
			out.Left = true
			break
		}
		if out.T > longestS || s.th > math.Pi {
			break
		}
		half := s.plus(launchStep/2, s.vx, s.wth, s.wal, ax, ath, aal)
		ax, ath, aal, _ = b.accelerations(half)
		s = s.plus(launchStep, half.vx, half.wth, half.wal, ax, ath, aal)
		out.T += launchStep
	}
	if path != nil {
		*path = append(*path, Moment{out.T, s.x, s.th, s.al})
	}
	if released := b.potential(t.start(tr)) - b.potential(s); released > 0 {
		out.LostPart = (b.energy(s) - before) / released
	}
	b.leave(s, &out)
	return out
}

// potential is the energy of springs, weight and the nose's contact.
func (b *bodies) potential(s state) float64 {
	st := math.Sin(s.th)
	sa, ca := math.Sincos(s.al)
	y := b.t.MiddleM * st
	out := b.catch.stored(s.th) + b.hip.stored(s.th+s.al)
	out += b.mb*Gravity*(y+b.t.CoMAhead*sa+b.t.CoMUp*ca) + b.mm*Gravity*y/2
	return out
}

// energy is that and the energy of motion.
func (b *bodies) energy(s state) float64 {
	m := b.moving(s)
	sum := b.potential(s) + (b.ib*s.wal*s.wal+b.im*s.wth*s.wth)/2
	for _, p := range m {
		sum += p.m * (p.vx*p.vx + p.vy*p.vy) / 2
	}
	return sum
}

type point struct{ m, x, y, vx, vy float64 }

// moving are the three centres: body, middle, foot.
func (b *bodies) moving(s state) [3]point {
	t := &b.t
	st, ct := math.Sincos(s.th)
	sa, ca := math.Sincos(s.al)
	hx, hy := s.x-t.MiddleM*ct, t.MiddleM*st
	hvx, hvy := s.vx+t.MiddleM*st*s.wth, t.MiddleM*ct*s.wth
	gx, gy := t.CoMAhead*ca-t.CoMUp*sa, t.CoMAhead*sa+t.CoMUp*ca
	return [3]point{
		{b.mb, hx + gx, hy + gy, hvx - gy*s.wal, hvy + gx*s.wal},
		{b.mm, (s.x + hx) / 2, hy / 2, (s.vx + hvx) / 2, hvy / 2},
		{b.mf, s.x - t.FootM/2, 0, s.vx, 0},
	}
}

// leave turns the motion of three bodies into that of one: momentum and angular
// momentum are kept, what is left in the springs is lost.
func (b *bodies) leave(s state, out *Launch) {
	all := b.moving(s)
	m := b.t.MassKg
	var x, y float64
	for _, p := range all {
		out.Vx, out.Vy = out.Vx+p.m*p.vx/m, out.Vy+p.m*p.vy/m
		x, y = x+p.m*p.x/m, y+p.m*p.y/m
	}
	spin := b.ib*s.wal - b.im*s.wth
	inertia := b.ib + b.im
	for _, p := range all {
		dx, dy := p.x-x, p.y-y
		spin += p.m * (dx*(p.vy-out.Vy) - dy*(p.vx-out.Vx))
		inertia += p.m * (dx*dx + dy*dy)
	}
	out.Spin, out.Far, out.Up, out.Alpha, out.Theta, out.Inertia = spin/inertia, x, y, s.al, s.th, inertia
	if b.t.Backward {
		// It leaps away from its nose and turns over the other way; its nose stays where it is.
		out.Vx, out.Far, out.Spin = -out.Vx, -out.Far, -out.Spin
	}
}

// Rest is how it stands by itself, the state of least energy: creases as far open as the
// weight lets them: how far the pleat is open then, and the pitch of the body, rad.
func (t Toy) Rest() (open, pitch float64) {
	best, at := math.Inf(1), state{}
	b := t.bodies(Trial{})
	b.hip, b.catch = t.Hip, t.Catch // slow: nothing is lost
	for k := range 180 {
		th := 0.02 + (t.Catch.Rest)*float64(k)/180
		y := t.MiddleM * math.Sin(th)
		s := state{th: th}
		if t.BodyM > 0 {
			s.al = math.Asin(min(max((t.NoseUpM-y)/t.BodyM, -0.95), 0.95))
		}
		if e := b.potential(s); e < best {
			best, at = e, s
		}
	}
	return at.th, at.al
}
