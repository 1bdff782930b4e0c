package wheels

import (
	"fmt"
	"math"
	"math/cmplx"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/spin/wheel"
	"tussock/internal/say"
)

// WheelDrawing is a wheel along its axle and from the side, and how it turns. Lengths are
// mm, y downward.
type WheelDrawing struct {
	Blades    []WheelBlade  `json:"blades"`
	Side      []WheelShape  `json:"side"` // from the side, the farthest first; x from the axle, y from the tip down
	SideUp    bool          `json:"side_up"`
	RadiusMM  float64       `json:"radius_mm"`
	TallMM    float64       `json:"tall_mm"`
	HubMM     float64       `json:"hub_mm"`
	SeenFrom  string        `json:"seen_from"` // from where the picture along the axle is seen
	Sense     string        `json:"sense"`     // clockwise or counter-clockwise, seen from there; "" where blades lie neither way
	Breath    string        `json:"breath"`    // the sense seen from the breath
	Above     string        `json:"above"`     // and from the other side
	Turning   float64       `json:"turning"`   // turns a second, clockwise on the picture
	BetaDeg   float64       `json:"beta_deg"`  // that blades work at
	Gaps      []float64     `json:"gaps"`      // folds behind each blade
	Mean      float64       `json:"mean"`
	Spread    float64       `json:"spread"`
	Moves     []WheelMove   `json:"moves"`
	UnevenGMM float64       `json:"uneven_gmm"`
	HeavyDeg  float64       `json:"heavy_deg"` // where the heavy side is, degrees on the picture
	Jet       *WheelJet     `json:"jet,omitempty"`
	Driven    string        `json:"driven"`
	Falls     bool          `json:"falls"`
	Curve     []WheelSpot   `json:"curve"` // of the middle one of many trials
	Band      []WheelBand   `json:"band"`  // eight of ten
	Strobes   []WheelStrobe `json:"strobes"`
	Ghosts    []WheelGhost  `json:"ghosts"`
}

// WheelBlade is one blade along the axle.
type WheelBlade struct {
	Points []float64 `json:"points"`
	At     []float64 `json:"at"` // where its number stands
	Off    float64   `json:"off"`
	First  bool      `json:"first"` // to be moved first
	Odd    bool      `json:"odd"`   // lies otherwise
}

// WheelShape is an outline.
type WheelShape struct {
	Points []float64 `json:"points"`
	Front  bool      `json:"front"`
}

// WheelMove is one blade to be turned about the axle, and what follows.
type WheelMove struct {
	Blade     int       `json:"blade"` // from 1
	By        float64   `json:"by"`    // folds, forward
	Says      string    `json:"says"`
	Gaps      []float64 `json:"gaps"` // then
	Spread    float64   `json:"spread"`
	UnevenGMM float64   `json:"uneven_gmm"`
}

// WheelJet is where a breath meets the wheel.
type WheelJet struct {
	X        float64 `json:"x"`
	Y        float64 `json:"y"`
	RadiusMM float64 `json:"radius_mm"`
}

// WheelSpot is a moment: of a wheel that starts, or falls.
type WheelSpot struct {
	T      float64 `json:"t"`
	Rate   float64 `json:"rate"`   // turns a second
	Turns  float64 `json:"turns"`  // since the start
	Speed  float64 `json:"speed"`  // m/s, of a fall
	Fallen float64 `json:"fallen"` // m
}

// WheelBand is the rate of eight of ten at a time.
type WheelBand struct {
	T  float64 `json:"t"`
	Lo float64 `json:"lo"`
	Hi float64 `json:"hi"`
}

// WheelStrobe are flashes at which the blades seem to stand still.
type WheelStrobe struct {
	PerSecond float64 `json:"per_second"`
	Says      string  `json:"says"`
}

// WheelGhost is how an earlier set-up went.
type WheelGhost struct {
	Name  string      `json:"name"`
	Curve []WheelSpot `json:"curve"`
}

func round2(v float64) float64 { return math.Round(100*v) / 100 }
func round3(v float64) float64 { return math.Round(1000*v) / 1000 }

// fromFoot tells whether the picture along the axle is seen from the foot: blown, it is seen
// from the breath, falling from above.
func (w *Workbench) fromFoot() bool { return (w.drive == byFall) == (w.up == tipFirst) }

func (w *Workbench) drawing(s set, t trials) *WheelDrawing {
	breath, above := senseFrom(s.Sense)
	d := &WheelDrawing{Side: []WheelShape{}, SideUp: w.up == tipAway, RadiusMM: s.ReachMM, TallMM: s.TallMM, HubMM: s.wheel.Inner * 1e3, SeenFrom: "the breath", Sense: breath, Breath: breath, Above: above,
		BetaDeg: geom.Deg(s.wheel.Angle), Gaps: s.gaps, Moves: []WheelMove{}, Driven: drives[w.drive].Label, Falls: w.drive == byFall, Curve: w.curve(s, t.middle), Band: w.band(s, t), Strobes: []WheelStrobe{}, Ghosts: []WheelGhost{}}
	clockwise := float64(s.Sense)
	if w.drive == byFall {
		d.SeenFrom, d.Sense, clockwise = "above", above, -clockwise
	}
	d.Turning = round3(clockwise * perTurn(t.middle.rate))
	d.Mean, d.Spread = wheel.Gaps(s.gaps)
	moves := wheel.Even(s.gaps, leastMove)
	for _, m := range moves {
		_, spread := wheel.Gaps(m.Gaps)
		u := cmplx.Abs(wheel.Uneven(s.Leaves[0].G, s.Leaves[0].OutMM, wheel.Angles(m.Gaps)))
		d.Moves = append(d.Moves, WheelMove{m.Blade + 1, m.By, fmt.Sprintf("Move blade %d %s.", m.Blade+1, movedWords(m.By)), m.Gaps, round2(spread), round2(u)})
	}
	at := wheel.Angles(s.gaps)
	side := 1.0 // as seen from the tip, angles go against the clock
	if w.fromFoot() {
		side = -1
	}
	for i, a := range at {
		b := WheelBlade{First: len(moves) > 0 && moves[0].Blade == i, Odd: i == s.odd && s.oddBy != 0}
		turn := s.angle
		if b.Odd {
			turn += s.oddBy
		}
		for _, p := range s.bent(turn, a) {
			b.Points = append(b.Points, round2(side*p.X), round2(-p.Y))
		}
		out := cmplx.Rect(1.12*s.ReachMM, a+float64(s.Sense)*s.twisted(turn)/2)
		b.At = []float64{round2(side * real(out)), round2(-imag(out))}
		d.Blades = append(d.Blades, b)
	}
	d.Side = s.fromSide(at)
	d.UnevenGMM = round2(cmplx.Abs(s.uneven))
	heavy := cmplx.Phase(s.uneven)
	d.HeavyDeg = round2(geom.Deg(math.Atan2(-math.Sin(heavy), side*math.Cos(heavy))))
	if w.drive == byBreath {
		aim := w.aim(s.wheel)
		_, wide := w.breath.There()
		d.Jet = &WheelJet{Y: round2(-aim * 1e3), RadiusMM: round2(wide * 1e3)}
	}
	d.Strobes = strobes(perTurn(t.middle.rate), len(s.Leaves))
	return d
}

// twisted is by how much foot and tip of a blade are turned against each other, radians: two
// thirds out the blade is as long as it was, and lies over to its angle.
func (s set) twisted(angleDeg float64) float64 {
	return s.TallMM * math.Cos(geom.Rad(angleDeg)) / math.Max(1e-9, s.ReachMM*2/3)
}

// bent is the outline of a leaf seen from the tip, twisted like a screw: mm about the axle.
func (s set) bent(angleDeg, at float64) []geom.Vec {
	var out []geom.Vec
	for _, p := range s.solid(angleDeg, at) {
		out = append(out, geom.Vec{X: p.X, Y: p.Y})
	}
	return out
}

// edgeSteps is into how many pieces an edge of a leaf is divided.
const edgeSteps = 8

// solid is that in space, z over the foot.
func (s set) solid(angleDeg, at float64) []geom.Vec3 {
	turn := s.twisted(angleDeg) * float64(s.Sense)
	k := s.ReachMM / math.Max(s.FlatMM, 1e-9)
	var out []geom.Vec3
	for i, a := range s.outline {
		b := s.outline[(i+1)%len(s.outline)]
		for j := range edgeSteps {
			p := a.Lerp(b, float64(j)/edgeSteps)
			sin, cos := math.Sincos(at + turn*(1-p.Y/math.Max(s.TallMM, 1e-9)))
			out = append(out, geom.Vec3{X: k * p.X * cos, Y: k * p.X * sin, Z: p.Y * math.Sin(geom.Rad(angleDeg))})
		}
	}
	return out
}

// fromSide are the blades from the side, the farthest first; y is from the tip down.
func (s set) fromSide(at []float64) []WheelShape {
	type shape struct {
		depth float64
		WheelShape
	}
	var all []shape
	for i, a := range at {
		turn := s.angle
		if i == s.odd {
			turn += s.oddBy
		}
		tall := s.TallMM * math.Sin(geom.Rad(turn))
		q := shape{}
		for _, p := range s.solid(turn, a) {
			q.Points = append(q.Points, round2(p.X), round2(tall-p.Z))
			q.depth += p.Y
		}
		all = append(all, q)
	}
	out := make([]WheelShape, 0, len(all))
	for range all {
		far := 0
		for i := range all {
			if all[i].depth > all[far].depth {
				far = i
			}
		}
		all[far].Front = len(out)%2 == 0
		out = append(out, all[far].WheelShape)
		all = append(all[:far], all[far+1:]...)
	}
	return out
}

// calmest and quickest are flashes a second that an eye still sees apart.
const calmest, quickest = 2.0, 30.0

// strobes are the flashes at which a wheel of n blades that turns at a rate seems to stand
// still, the fastest first.
func strobes(rate float64, n int) []WheelStrobe {
	out := []WheelStrobe{}
	for k := 1; k <= 12 && len(out) < 3; k++ {
		f := rate * float64(n) / float64(k)
		if f < calmest || f > quickest {
			continue
		}
		says := "each blade has come to the place of the next"
		if k > 1 {
			says = fmt.Sprintf("each blade has come %d places on", k)
		}
		out = append(out, WheelStrobe{round2(f), fmt.Sprintf("%s flashes a second: %s.", say.Decimal(f, 1), says)})
	}
	return out
}

const curvePoints, bandPoints = 60, 30

// curve is a trial moment by moment.
func (w *Workbench) curve(s set, t tried) []WheelSpot {
	out := []WheelSpot{}
	if w.drive == byFall {
		factor, _ := w.dragSpread()
		path := s.wheel.Polar().Drop(w.heightM, s.inertia(), factor)
		turns, was := 0.0, wheel.Moment{}
		every := max(1, len(path)/curvePoints)
		for i, m := range path {
			turns += perTurn((m.Rate + was.Rate) / 2 * (m.T - was.T))
			was = m
			if i%every == 0 || i == len(path)-1 {
				out = append(out, WheelSpot{round3(m.T), round3(perTurn(m.Rate)), round3(turns), round3(m.Speed), round3(m.Fallen)})
			}
		}
		return out
	}
	if t.rate <= 0 || math.IsInf(t.seconds, 0) {
		return out
	}
	end := 4 * t.seconds
	for i := range curvePoints {
		at := end * float64(i) / (curvePoints - 1)
		grown := 1 - math.Exp(-at/t.seconds)
		out = append(out, WheelSpot{T: round3(at), Rate: round3(perTurn(t.rate) * grown), Turns: round3(perTurn(t.rate) * (at - t.seconds*grown))})
	}
	return out
}

// band is the rate of eight of ten at times.
func (w *Workbench) band(s set, t trials) []WheelBand {
	out := []WheelBand{}
	curve := w.curve(s, t.middle)
	if len(curve) == 0 || t.rate.Middle <= 0 {
		return out
	}
	every := max(1, len(curve)/bandPoints)
	for i := 0; i < len(curve); i += every {
		k := curve[i].Rate / math.Max(1e-9, curve[len(curve)-1].Rate)
		out = append(out, WheelBand{curve[i].T, round3(k * t.rate.Lo), round3(k * t.rate.Hi)})
	}
	return out
}

// WheelsDrawing is what only trials and other wheels tell: the two ways to try it, either way
// up, and as many blades as there may be from the same sheet.
type WheelsDrawing struct {
	Grid []WheelCell  `json:"grid"`
	Of   []WheelOther `json:"of"`
}

// WheelCell is one way to try it.
type WheelCell struct {
	Kind     string         `json:"kind"`
	How      string         `json:"how"`
	Up       string         `json:"up"`
	Outcome  motion.Outcome `json:"outcome"`
	Mode     string         `json:"mode"`
	Tries    int            `json:"tries"`    // that were logged so
	Measured float64        `json:"measured"` // the middle of them
}

// WheelOther is a wheel with another number of blades.
type WheelOther struct {
	Blades  int            `json:"blades"`
	Here    bool           `json:"here"`
	Apart   float64        `json:"apart"` // degrees from one to the next
	Layers  int            `json:"layers"`
	ReachMM float64        `json:"reach_mm"`
	MassG   float64        `json:"mass_g"`
	Blown   motion.Outcome `json:"blown"`
	Fall    motion.Outcome `json:"fall"`
	Starts  float64        `json:"starts"` // mN mm
}
