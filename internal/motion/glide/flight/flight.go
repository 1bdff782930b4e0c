package flight

import (
	"math"

	"tussock/internal/geom"
	"tussock/internal/motion/glide/air"
)

// Throw is how a glider leaves the hand.
type Throw struct {
	SpeedMS  float64
	AngleDeg float64 // of the path, up positive
	HeightM  float64 // of the centre of mass
	BankDeg  float64 // right wing down positive
	NoseDeg  float64 // nose above the path
	YawDeg   float64 // nose right of the path
	RollDeg  float64 // per second
	PitchDeg float64
	TurnDeg  float64
}

// Room is where it is thrown: a hall with walls ahead and at both sides, a ceiling and
// perhaps a rope across. 0 means that there is none.
type Room struct {
	LengthM, WidthM, CeilingM float64
	RopeAtM, RopeM            float64 // how far ahead, how high
	Airless                   bool    // for tests: no air at all
}

// Sample is a moment of a flight. X ahead, Y to the right, Z up, from the floor under
// the hand, m; angles in degrees.
type Sample struct {
	T, X, Y, Z                                float64
	Speed, Attack, Pitch, Bank, Heading, Slip float64
}

// End says how a flight ended.
type End string

// How a flight ends.
const (
	Landed    End = "landed"
	HitWall   End = "wall"
	HitSide   End = "side wall"
	HitRoof   End = "ceiling"
	StillUp   End = "still in the air"
	LostSense End = "out of range" // the numbers ran away: nothing can be said
)

// Flight is what came of a throw.
type Flight struct {
	DistanceM  float64 // along the floor, from the hand to where it came down
	AheadM     float64
	DriftM     float64 // to the right
	TimeS      float64
	HighestM   float64
	HeadingDeg float64 // turned to the right
	EndSpeed   float64
	End        End
	Mode       Mode
	RopeOverM  float64 // by how much it passed over the rope, negative under; NaN when not reached
	Steps      int
	track
}

// track is what a flight is classified by.
type track struct {
	pitchTurns, rollTurns float64 // whole turns, with their sign
	reversals             int     // of u
	dips                  int     // lowest points between two climbs
	endSlope              float64 // rad, down positive
	steepest              float64 // the most of that
	drop                  float64
	slowest               float64
	banks                 int // changes of the bank's sign
	level                 bool
}

// state of a flight: place (north, east, down), speed in body axes, attitude
// (quaternion), rates in body axes.
type state [13]float64

const (
	maxSeconds = 60
	// mostTurning, rad/s, is more than any toy turns: beyond it the numbers have run away.
	mostTurning = 1000
)

// Fly throws it. Samples are appended to path when it is not nil, up to its capacity;
// nothing else is allocated.
func (m *Model) Fly(t Throw, room Room, path *[]Sample) Flight { return m.fly(t, room, path, 0) }

// fly with a fixed step when step > 0.
func (m *Model) fly(t Throw, room Room, path *[]Sample, fixed float64) (out Flight) {
	s := m.start(t)
	out.RopeOverM = math.NaN()
	out.HighestM = t.HeightM
	out.slowest = t.SpeedMS
	out.level = math.Abs(t.AngleDeg) <= 15
	limit := 5000.0
	if room.LengthM == 0 {
		room.LengthM = limit
	}
	seen := watch{u: s[3], down: -math.Sin(geom.Rad(t.AngleDeg)) * t.SpeedMS, heading: geom.Rad(t.YawDeg)}
	var now float64
	if path != nil {
		*path = append(*path, m.sample(now, &s, out.HeadingDeg))
	}
	every := 0.02
	nextSample := every
	for out.Steps = 1; ; out.Steps++ {
		speed := math.Sqrt(s[3]*s[3] + s[4]*s[4] + s[5]*s[5])
		dt := math.Min(0.02, 1.2/(m.rate*math.Max(speed, 0.1)))
		if turn := math.Sqrt(s[10]*s[10] + s[11]*s[11] + s[12]*s[12]); turn > 15 {
			dt = math.Min(dt, 0.2/turn)
		}
		if fixed > 0 {
			dt = fixed
		}
		before := s
		m.step(&s, dt, room.Airless)
		now += dt
		if !(math.Abs(s[0])+math.Abs(s[1])+math.Abs(s[2]) < limit && math.Abs(s[10])+math.Abs(s[11])+math.Abs(s[12]) < mostTurning) {
			s, out.End = before, LostSense
			now -= dt
			break
		}
		out.note(m, &s, &seen, speed, dt)
		if room.RopeAtM > 0 && before[0] < room.RopeAtM && s[0] >= room.RopeAtM {
			k := (room.RopeAtM - before[0]) / (s[0] - before[0])
			out.RopeOverM = -(before[2] + k*(s[2]-before[2])) - m.lowest(&s) - room.RopeM
		}
		end, part := m.touches(&before, &s, room)
		if end != "" {
			s, part = m.meet(&before, &s, room, dt, part)
			now += dt * (part - 1)
			out.End = end
			break
		}
		if now >= maxSeconds {
			out.End = StillUp
			break
		}
		if path != nil && now >= nextSample && len(*path) < cap(*path)-1 {
			nextSample += every
			*path = append(*path, m.sample(now, &s, out.HeadingDeg))
		}
	}
	out.TimeS = now
	out.AheadM, out.DriftM = s[0], s[1]
	out.DistanceM = math.Hypot(s[0], s[1])
	out.drop = t.HeightM + s[2]
	out.EndSpeed = math.Sqrt(s[3]*s[3] + s[4]*s[4] + s[5]*s[5])
	if path != nil {
		*path = append(*path, m.sample(now, &s, out.HeadingDeg))
	}
	trim := 0.0
	if out.dips > 0 {
		if t := m.Trims(); len(t) > 0 {
			trim = t[0].SpeedMS
		}
	}
	out.Mode = out.classify(trim)
	return out
}

// watch is what of a flight is compared with the moment before.
type watch struct{ u, down, bank, heading float64 }

// note accumulates what tells the modes apart: turns, dips, how slow and how steep. The
// speed is that at the beginning of the step.
func (out *Flight) note(m *Model, s *state, last *watch, speed, dt float64) {
	out.pitchTurns += s[11] * dt / (2 * math.Pi)
	out.rollTurns += s[10] * dt / (2 * math.Pi)
	if s[3]*last.u < 0 {
		out.reversals++
	}
	last.u = s[3]
	north, east, down := m.ground(s)
	if last.down > 0.05 && down <= 0 {
		out.dips++
		last.down = down
	} else if down > 0.05 || down < 0 {
		last.down = down
	}
	out.slowest = math.Min(out.slowest, speed)
	flat := math.Hypot(north, east)
	upright := 1-2*(s[7]*s[7]+s[8]*s[8]) > 0.2
	if flat > 0.5*speed && upright {
		h := math.Atan2(east, north)
		turn := math.Remainder(h-last.heading, 2*math.Pi)
		if math.Abs(turn) < 0.5 {
			out.HeadingDeg += geom.Deg(turn)
		}
		last.heading = h
	}
	if b := m.bank(s); math.Abs(b) > geom.Rad(2) {
		if b*last.bank < 0 {
			out.banks++
		}
		last.bank = b
	}
	out.HighestM = math.Max(out.HighestM, -s[2])
	out.endSlope = math.Atan2(down, flat)
	out.steepest = math.Max(out.steepest, out.endSlope)
}

// meet finds the moment of a step in which something is touched: the step is made
// again up to where a straight way would touch, until that changes nothing.
func (m *Model) meet(before, after *state, room Room, dt, part float64) (state, float64) {
	lo, at := 0.0, part
	from, s := *before, *after
	for range 8 {
		s = *before
		m.step(&s, at*dt, room.Airless)
		if end, k := m.touches(&from, &s, room); end != "" {
			at = lo + k*(at-lo)
			continue
		}
		from, lo = s, at
		_, k := m.touches(&from, after, room)
		at += k * (1 - at)
	}
	s = *before
	m.step(&s, at*dt, room.Airless)
	return s, at
}

func (m *Model) start(t Throw) (s state) {
	bank, pitch, yaw := geom.Rad(t.BankDeg), geom.Rad(t.AngleDeg+t.NoseDeg), geom.Rad(t.YawDeg)
	sb, cb := math.Sincos(bank / 2)
	sp, cp := math.Sincos(pitch / 2)
	sy, cy := math.Sincos(yaw / 2)
	s[6] = cb*cp*cy + sb*sp*sy
	s[7] = sb*cp*cy - cb*sp*sy
	s[8] = cb*sp*cy + sb*cp*sy
	s[9] = cb*cp*sy - sb*sp*cy
	s[2] = -t.HeightM
	sin, cos := math.Sincos(geom.Rad(t.AngleDeg))
	v := turned(&s, vec{t.SpeedMS * cos, 0, -t.SpeedMS * sin}, true)
	s[3], s[4], s[5] = v.x, v.y, v.z
	s[10], s[11], s[12] = geom.Rad(t.RollDeg), geom.Rad(t.PitchDeg), geom.Rad(t.TurnDeg)
	return s
}

// attitude is the rotation from body to ground axes.
func (s *state) attitude() [3][3]float64 {
	w, x, y, z := s[6], s[7], s[8], s[9]
	return [3][3]float64{
		{1 - 2*(y*y+z*z), 2 * (x*y - w*z), 2 * (x*z + w*y)},
		{2 * (x*y + w*z), 1 - 2*(x*x+z*z), 2 * (y*z - w*x)},
		{2 * (x*z - w*y), 2 * (y*z + w*x), 1 - 2*(x*x+y*y)},
	}
}

// turned takes a vector from body to ground axes, or back.
func turned(s *state, v vec, back bool) vec {
	r := s.attitude()
	if back {
		return vec{r[0][0]*v.x + r[1][0]*v.y + r[2][0]*v.z, r[0][1]*v.x + r[1][1]*v.y + r[2][1]*v.z, r[0][2]*v.x + r[1][2]*v.y + r[2][2]*v.z}
	}
	return vec{r[0][0]*v.x + r[0][1]*v.y + r[0][2]*v.z, r[1][0]*v.x + r[1][1]*v.y + r[1][2]*v.z, r[2][0]*v.x + r[2][1]*v.y + r[2][2]*v.z}
}

func (m *Model) ground(s *state) (north, east, down float64) {
	g := turned(s, vec{s[3], s[4], s[5]}, false)
	return g.x, g.y, g.z
}

func (m *Model) bank(s *state) float64 {
	w, x, y, z := s[6], s[7], s[8], s[9]
	return math.Atan2(2*(w*x+y*z), 1-2*(x*x+y*y))
}

// change is the time derivative of a state. The air carried along adds to the mass and
// inertia of an acceleration only.
func (m *Model) change(s *state, airless bool) (d state) {
	u, v, w, p, q, r := s[3], s[4], s[5], s[10], s[11], s[12]
	a := s.attitude()
	d[0] = a[0][0]*u + a[0][1]*v + a[0][2]*w
	d[1] = a[1][0]*u + a[1][1]*v + a[1][2]*w
	d[2] = a[2][0]*u + a[2][1]*v + a[2][2]*w
	down := vec{a[2][0] * air.Gravity, a[2][1] * air.Gravity, a[2][2] * air.Gravity}
	var f, t vec
	mass, inverse := m.m, &m.inverse
	own := m.Weight.MassKg
	if airless {
		mass = vec{own, own, own}
		bare := inverted(m.inertia)
		inverse = &bare
	} else {
		f, t = m.Air(u, v, w, p, q, r)
	}
	d[3] = (f.x + own*(down.x-(q*w-r*v))) / mass.x
	d[4] = (f.y + own*(down.y-(r*u-p*w))) / mass.y
	d[5] = (f.z + own*(down.z-(p*v-q*u))) / mass.z
	d[6] = -0.5 * (s[7]*p + s[8]*q + s[9]*r)
	d[7] = 0.5 * (s[6]*p + s[8]*r - s[9]*q)
	d[8] = 0.5 * (s[6]*q + s[9]*p - s[7]*r)
	d[9] = 0.5 * (s[6]*r + s[7]*q - s[8]*p)
	i := &m.inertia
	hx, hy, hz := i[0][0]*p+i[0][1]*q+i[0][2]*r, i[1][0]*p+i[1][1]*q+i[1][2]*r, i[2][0]*p+i[2][1]*q+i[2][2]*r
	tx, ty, tz := t.x-(q*hz-r*hy), t.y-(r*hx-p*hz), t.z-(p*hy-q*hx)
	d[10] = inverse[0][0]*tx + inverse[0][1]*ty + inverse[0][2]*tz
	d[11] = inverse[1][0]*tx + inverse[1][1]*ty + inverse[1][2]*tz
	d[12] = inverse[2][0]*tx + inverse[2][1]*ty + inverse[2][2]*tz
	return d
}

// step is one step of the classical Runge-Kutta method.
func (m *Model) step(s *state, dt float64, airless bool) {
	add := func(a *state, k float64, d *state) (out state) {
		for i := range out {
			out[i] = a[i] + k*d[i]
		}
		return out
	}
	k1 := m.change(s, airless)
	x := add(s, dt/2, &k1)
	k2 := m.change(&x, airless)
	x = add(s, dt/2, &k2)
	k3 := m.change(&x, airless)
	x = add(s, dt, &k3)
	k4 := m.change(&x, airless)
	for i := range s {
		s[i] += dt / 6 * (k1[i] + 2*k2[i] + 2*k3[i] + k4[i])
	}
	n := 1 / math.Sqrt(s[6]*s[6]+s[7]*s[7]+s[8]*s[8]+s[9]*s[9])
	for i := 6; i < 10; i++ {
		s[i] *= n
	}
}

// lowest is how far the lowest corner lies below the centre of mass, m.
func (m *Model) lowest(s *state) float64 {
	out := 0.0
	for _, c := range m.corners {
		out = math.Max(out, turned(s, c, false).z)
	}
	return out
}

// touches tells what a corner has come to in a step, and after which part of it.
func (m *Model) touches(a, b *state, room Room) (End, float64) {
	end, part := End(""), 1.0
	hit := func(e End, before, after, at float64) {
		if after < at {
			return
		}
		k := 1.0
		if after > before {
			k = clamp((at-before)/(after-before), 0, 1)
		}
		if end == "" || k < part {
			end, part = e, k
		}
	}
	check := func(ca, cb vec) {
		hit(Landed, a[2]+ca.z, b[2]+cb.z, 0)
		hit(HitWall, a[0]+ca.x, b[0]+cb.x, room.LengthM)
		if room.WidthM > 0 {
			hit(HitSide, a[1]+ca.y, b[1]+cb.y, room.WidthM/2)
			hit(HitSide, -a[1]-ca.y, -b[1]-cb.y, room.WidthM/2)
		}
		if room.CeilingM > 0 {
			hit(HitRoof, -a[2]-ca.z, -b[2]-cb.z, room.CeilingM)
		}
	}
	check(vec{}, vec{})
	// Far from everything no corner needs to be turned.
	const reach = 0.5
	near := b[2] > -reach || b[0] > room.LengthM-reach || room.WidthM > 0 && math.Abs(b[1]) > room.WidthM/2-reach || room.CeilingM > 0 && -b[2] > room.CeilingM-reach
	if near {
		for _, c := range m.corners {
			check(turned(a, c, false), turned(b, c, false))
		}
	}
	return end, part
}

func (m *Model) sample(t float64, s *state, heading float64) Sample {
	w, x, y, z := s[6], s[7], s[8], s[9]
	speed := math.Sqrt(s[3]*s[3] + s[4]*s[4] + s[5]*s[5])
	out := Sample{T: t, X: s[0], Y: s[1], Z: -s[2], Speed: speed, Attack: geom.Deg(math.Atan2(s[5], s[3])),
		Pitch: geom.Deg(math.Asin(clamp(2*(w*y-z*x), -1, 1))), Bank: geom.Deg(m.bank(s)),
		Heading: geom.Deg(math.Atan2(2*(w*z+x*y), 1-2*(y*y+z*z)))}
	if speed > 0 {
		out.Slip = geom.Deg(math.Asin(clamp(s[4]/speed, -1, 1)))
	}
	return out
}
