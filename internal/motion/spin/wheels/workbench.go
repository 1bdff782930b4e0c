package wheels

import (
	"context"
	"math"
	"math/cmplx"
	"slices"

	"tussock/internal/geom"
	"tussock/internal/given"
	"tussock/internal/motion"
	"tussock/internal/motion/glide/air"
	"tussock/internal/motion/spin/wheel"
	"tussock/internal/motion/toys"
	"tussock/internal/order"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Shapes are the wheels of one pattern on one sheet. They may be shared.
type Shapes struct {
	toys.Toys[Geometry]
	way *motion.Way
}

func newShapes(p *sequence.Pattern, s sheet.Sheet, w *motion.Way) *Shapes {
	return &Shapes{toys.Toys[Geometry]{Pattern: p, Sheet: s, Bent: toys.Bent(knobs()), Of: Of}, w}
}

// Workbench sets and turns one pattern on one sheet. It may be used by several at once.
type Workbench struct {
	*Shapes
	drive      int
	breath     wheel.Breath // Aim is left to the toy where it is 0
	wind       float64
	up         int
	heightM    float64
	Own        motion.Calibration
	conditions motion.Conditions
}

// Under gives it conditions and what was learnt.
func (s *Shapes) Under(c motion.Conditions, own motion.Calibration) motion.Trying {
	return &Workbench{Shapes: s, drive: int(c["drive"]), up: int(c["up"]), wind: c["wind"], heightM: c["height"], Own: own, conditions: c,
		breath: wheel.Breath{Mouth: c["mouth"] * 1e-3, Speed: breaths[int(c["breath"])].speed, Away: c["away"], Aim: c["aim"] * 1e-3}}
}

// set is a wheel at knob values.
type set struct {
	Geometry
	wheel  wheel.Wheel
	angle  float64 // that blades are set to, degrees
	odd    int     // the blade that lies otherwise, from 0
	oddBy  float64 // degrees
	pin    float64 // m
	play   float64 // m
	tapeG  float64
	gaps   []float64
	uneven complex128 // g mm
	values map[string]float64
}

// at is the wheel at knob values; the error says what cannot be folded.
func (w *Workbench) at(ctx context.Context, knobs map[string]float64) (set, error) {
	g, values, err := w.At(ctx, knobs)
	if err != nil {
		return set{}, err
	}
	return w.setOf(g, values), nil
}

func (w *Workbench) setOf(g Geometry, v map[string]float64) set {
	s := set{Geometry: g, angle: v[KnobAngle], odd: int(v[KnobOdd]) - 1, oddBy: v[KnobOddBy], pin: v[KnobPin] * 1e-3, play: v[KnobPlay] * 1e-3, tapeG: v[KnobTape], values: v}
	n := len(g.Leaves)
	for i := range n {
		gap := evenGap
		if i < mostBlades {
			gap = v[KnobGap(i)]
		}
		s.gaps = append(s.gaps, gap)
	}
	if s.odd >= n {
		s.oddBy = 0
	}
	s.wheel = w.model(g, s.angle+s.oddBy/float64(n), s.tapeG)
	s.uneven = wheel.Uneven(g.Leaves[0].G, g.Leaves[0].OutMM, wheel.Angles(s.gaps))
	return s
}

// model is the wheel for its laws: a curl lays its blades flatter to air that meets the open
// side, and steeper to air that meets the tip.
func (w *Workbench) model(g Geometry, angleDeg, tapeG float64) wheel.Wheel {
	q := g.Wheel(angleDeg, tapeG)
	radius := g.CurlMM * 1e-3
	if w.up == tipFirst {
		radius = -radius
	}
	q.Angle = math.Max(leastRad, math.Min(mostRad, wheel.Curled(q.Angle, q.Chord, radius)))
	return q
}

// leastRad and mostRad bound the angle that blades work at: the laws end there.
var leastRad, mostRad = geom.Rad(3), geom.Rad(87)

// evenly tells whether anybody has counted gaps that differ.
func (s set) evenly() bool { _, spread := wheel.Gaps(s.gaps); return spread < 1e-9 }

// inertia about the axle, kg m².
func (s set) inertia() float64 { return s.UprightGMM2 * 1e-9 }

// lean is the moment, N m, by which one odd blade leans the wheel in air of a speed, as mass
// times radius that would do the same under its weight, g mm: what that blade alone holds
// more or less, two thirds out, while the air is as the others leave it. An upper estimate.
func (s set) lean(speed, rate float64) float64 {
	if s.oddBy == 0 || speed <= 0 {
		return 0
	}
	in := speed * s.wheel.Inflow()
	plain, odd := s.wheel, s.wheel
	odd.Angle += geom.Rad(s.oddBy)
	more := odd.Blade(in, rate) - plain.Blade(in, rate)
	return math.Abs(more) * (s.wheel.Inner + 2*s.wheel.Outer) / 3 / air.Gravity * 1e6
}

// The numbers that a trial is drawn from, those that matter most first.
const (
	nDrive = iota
	nPlates
	nAngle
	nSteady
	nRub
	nUneven
	numbers
)

// tried is one trial out of a scatter.
type tried struct {
	mode    string
	rate    float64 // rad/s, steady; of a fall: at the floor
	start   float64 // N m, what starts it, less friction
	seconds float64 // to 63 % of its rate
	fall    float64 // s to the floor
	speed   float64 // m/s at the floor
	lean    float64 // degrees, of a fall
}

// breathSpread is what was learnt of how hard somebody blows, and how uncertain it is.
func (w *Workbench) breathSpread() (factor, doubt float64) {
	factor, doubt = 1, breathDoubt
	if w.Own.Factor > 0 {
		factor = w.Own.Factor
	}
	if w.Own.Spread > 0 {
		doubt = w.Own.Spread
	}
	return factor, doubt
}

// dragSpread is what was learnt of what holds a fall up.
func (w *Workbench) dragSpread() (factor, doubt float64) {
	factor, doubt = 1, dragDoubt
	for _, l := range w.Own.Also {
		if l.Factor > 0 {
			factor, doubt = l.Factor, l.Spread
		}
	}
	return factor, doubt
}

// aim is where a breath meets the wheel, m from the axle.
func (w *Workbench) aim(q wheel.Wheel) float64 {
	if w.breath.Aim > 0 {
		return w.breath.Aim
	}
	return (q.Inner + 2*q.Outer) / 3
}

// scatter draws trials: what hands miss, and what the model does not know.
func (w *Workbench) scatter(s set, by motion.Sample, drive int) []tried {
	out := make([]tried, 0, by.N)
	for i := range by.N {
		u := motion.Numbers(by.From+i, numbers)
		z := func(k int) float64 { return motion.Normal(u[k]) }
		q := w.model(s.Geometry, s.angle+s.oddBy/float64(len(s.Leaves))+missDeg*z(nAngle)/math.Sqrt(float64(len(s.Leaves))), s.tapeG)
		uneven := cmplx.Abs(s.uneven) + s.MassG*unevenMM*math.Abs(z(nUneven))
		pin := s.pin * math.Exp(rubDoubt*z(nRub))
		out = append(out, w.trial(s, q, drive, pin, uneven, z(nDrive), z(nPlates), z(nSteady)))
	}
	return out
}

// How far even paper is uneven, mm of the centre of mass; friction from place to place, of its
// logarithm.
const unevenMM, rubDoubt = 0.1, 0.25

// trial carries one out; the last three are normal numbers.
func (w *Workbench) trial(s set, q wheel.Wheel, drive int, pin, unevenGMM, zDrive, zPlates, zSteady float64) tried {
	t := tried{mode: modeTurns}
	plates := math.Exp(plateDoubt * zPlates)
	switch drive {
	case byBreath:
		factor, doubt := w.breathSpread()
		b := w.breath
		b.Aim = w.aim(q)
		b.Speed *= factor * math.Exp(doubt*zDrive+breathSteady*zSteady)
		t.start = q.Blown(b, pin, 0)
		rate, ok := q.Turns(b, pin)
		t.rate = rate
		if !ok {
			t.mode = modeStuck
		}
	case byFan, byWind:
		wind := w.wind
		if drive == byWind {
			wind *= math.Exp(gustDoubt*zDrive + gustDoubt*zSteady)
		} else {
			wind *= math.Exp(breathSteady * zDrive)
		}
		p := q.Polar()
		t.start = q.Starts(wind) - q.Rub(pin, p.Thrust(wind, 0))
		rate, ok := p.Turns(wind, pin)
		t.rate = rate * plates
		if !ok {
			t.mode = modeStuck
		}
	case byFall:
		factor, doubt := w.dragSpread()
		path := q.Polar().Drop(w.heightM, s.inertia(), factor*math.Exp(doubt*zDrive+dropSteady*zSteady))
		end := path[len(path)-1]
		t.mode, t.fall, t.speed, t.rate = modeFalls, end.T, end.Speed, math.Min(end.Rate*plates, mostTip/q.Outer)
		t.lean = geom.Deg(wheel.Wobbles((unevenGMM+s.lean(t.speed, t.rate))*1e-6, math.Max(t.rate, 1), s.inertia(), s.AcrossGMM2*1e-9))
		if s.topHeavy(w.up) && t.lean > steadyDeg || t.lean > tumbleDeg {
			t.mode = modeTumbles
		}
		return t
	}
	t.rate = math.Max(0, math.Min(t.rate, mostTip/q.Outer))
	switch {
	case t.mode == modeStuck:
	case wheel.Stalls(unevenGMM*1e-6, t.start):
		t.mode, t.rate = modeStalls, 0
	case s.play > 0 && t.rate > wheel.Rattles(unevenGMM*1e-6, q.MassKg) && unevenGMM > felt*s.MassG:
		t.mode = modeRattles
	}
	t.seconds = q.SpinUp(s.inertia(), t.rate, t.start)
	return t
}

// mostTip is the speed of the tips, m/s, at which single layers of paper give way, as at the
// bent edges of gliders: a guess, 12 to 20. No wheel is told to turn faster.
const mostTip = 16.0

// What leans so far tumbles: whatever its weight does, and when that lies above its blades.
// Estimates. felt is the offset, mm, from which a rattle is felt.
const tumbleDeg, steadyDeg, felt = 25.0, 2.0, 0.15

// comMM is the centre of mass over the foot, with what is stuck to the tip.
func (s set) comMM() float64 {
	return (s.CoMMM*s.MassG + s.TallMM*s.tapeG) / (s.MassG + s.tapeG)
}

// topHeavy tells whether a falling wheel has its weight above where the air holds it.
func (s set) topHeavy(up int) bool {
	over := s.comMM() - s.AirMM
	if up == tipFirst {
		over = -over
	}
	return over > 0.5
}

// What a wheel is measured by.
const (
	byBlown   = "turns blown"
	byStart   = "torque of the start"
	byMetre   = "seconds a metre"
	byWobble  = "unevenness"
	byDropped = "turns dropped"
)

// Measure folds, sets and tries at lever positions: middles over scattered trials.
func (w *Workbench) Measure(levers []motion.Lever) motion.Measure {
	return func(ctx context.Context, at []float64, by motion.Sample) (motion.Measures, error) {
		knobs, _ := motion.Split(levers, at)
		s, err := w.at(ctx, knobs)
		if err != nil {
			return nil, err
		}
		few := motion.Sample{From: by.From, N: max(8, by.N/4)} // the middle alone is asked for
		driven := w.drive
		if driven == byFall {
			driven = byBreath
		}
		blown, dropped := w.scatter(s, few, driven), w.scatter(s, few, byFall)
		of := func(all []tried, f func(tried) float64) float64 {
			out := make([]float64, len(all))
			for i, q := range all {
				out[i] = f(q)
			}
			return order.Median(out)
		}
		end := of(dropped, func(t tried) float64 { return t.rate })
		speed := of(dropped, func(t tried) float64 { return t.speed })
		return motion.Measures{byBlown: perTurn(of(blown, func(t tried) float64 { return t.rate })), byStart: of(blown, func(t tried) float64 { return t.start }) * 1e6,
			byMetre: of(dropped, func(t tried) float64 { return t.fall }) / w.heightM, byDropped: perTurn(end), byWobble: cmplx.Abs(s.uneven) + s.lean(speed, end)}, nil
	}
}

// perTurn makes rad/s turns a second.
func perTurn(rate float64) float64 { return rate / (2 * math.Pi) }

// Levers are the knobs; what was counted is not for a search to choose.
func (w *Workbench) Levers(knobs map[string]float64) []motion.Lever {
	out := w.Toys.Levers(knobs, map[string]bool{KnobOddBy: true})
	out = slices.DeleteFunc(out, func(l motion.Lever) bool { return l.Name == KnobOdd })
	return append(out, w.way.Levers(w.conditions)...)
}

// Goal scores measures for an aim.
func (w *Workbench) Goal(aim string, _ float64) motion.Goal {
	return func(m motion.Measures) float64 {
		switch aim {
		case "start":
			return m[byStart]
		case "slowest":
			return m[byMetre]
		case "steadiest":
			return -m[byWobble] + 1e-3*m[byBlown]
		}
		return m[byBlown]
	}
}

// Take puts counted gaps into the knobs.
func (w *Workbench) Take(knobs, measured map[string]float64) error {
	g, err := w.Toy(knobs)
	if err != nil {
		return err
	}
	sum := 0.0
	for i := range min(len(g.Leaves), mostBlades) {
		name := KnobGap(i)
		v, there := measured[name]
		if !there {
			return &given.Error{Field: name, Want: "counted too: there is a gap behind each of the blades"}
		}
		sum += v
	}
	if sum <= 0 {
		return &given.Error{Field: KnobGap(0), Value: sum, Want: "more than 0 folds, all together"}
	}
	for i := range min(len(g.Leaves), mostBlades) {
		knobs[KnobGap(i)] = measured[KnobGap(i)]
	}
	return nil
}
