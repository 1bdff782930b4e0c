package leap

import "math"

// Arc is the flight from take-off to landing.
type Arc struct {
	Launch
	LengthM   float64 // from where its centre of mass took off to where it comes down; backward negative
	HeightM   float64 // of its centre of mass over the table, at the top
	TimeS     float64
	HalfFlips float64
	FeetShare float64 // chance to land on its feet
	AtRopeM   float64 // height of its centre of mass where the rope hangs; NaN when it does not get there
	Path      []LeapSpot
}

// LeapSpot is a moment of the flight: where the centre of mass is, and the pitch of the body.
type LeapSpot struct {
	T     float64 `json:"t"`
	X     float64 `json:"x"`     // m ahead of where it stood
	Y     float64 `json:"y"`     // m over the table
	Pitch float64 `json:"pitch"` // degrees, nose up
}

// dragLength is over which length drag would use up the speed: 2 M / (rho C_D A).
func (t Toy) dragLength() float64 {
	return 2 * t.MassKg / (airDensity * DragShape * ShownArea * t.PlanM2)
}

const arcStep = 0.5e-3 // s

// Fly follows a launch through the air: drag with the square of speed and of spin. spots
// is how many moments of it are kept at most.
func (t Toy) Fly(l Launch, tr Trial, spots int) Arc {
	out := Arc{Launch: l, AtRopeM: math.NaN()}
	if !l.Left || l.Vy <= 0 {
		out.FeetShare = 1
		return out
	}
	ld := t.dragLength()
	kSpin := airDensity * spinDrag * t.WidthM * math.Pow(t.BodyM/2, 4) / 4 / math.Max(l.Inertia, 1e-15)
	if tr.Vacuum {
		ld, kSpin = math.Inf(1), 0
	}
	type air struct{ x, y, vx, vy, w, turn float64 }
	rate := func(a air) air {
		v := math.Hypot(a.vx, a.vy)
		return air{a.vx, a.vy, -v * a.vx / ld, -Gravity - v*a.vy/ld, -kSpin * a.w * math.Abs(a.w), a.w}
	}
	step := func(a, r air, h float64) air {
		return air{a.x + h*r.x, a.y + h*r.y, a.vx + h*r.vx, a.vy + h*r.vy, a.w + h*r.w, a.turn + h*r.turn}
	}
	a := air{vx: l.Vx, vy: l.Vy, w: l.Spin}
	// The time it takes without air bounds what must be kept.
	whole := (l.Vy + math.Sqrt(l.Vy*l.Vy+2*Gravity*tr.DropM)) / Gravity
	side := math.Copysign(1, l.Vx) // the way it leaps
	every := 1
	if spots > 0 {
		every = max(1, int(whole/arcStep)/spots)
	}
	note := func() {
		if spots > 0 {
			out.Path = append(out.Path, LeapSpot{out.TimeS, l.Far + a.x, l.Up + a.y, (l.Alpha + a.turn) * 180 / math.Pi})
		}
	}
	for k := 0; out.TimeS < 10; k++ {
		if k%every == 0 {
			note()
		}
		mid := step(a, rate(a), arcStep/2)
		next := step(a, rate(mid), arcStep)
		out.HeightM = math.Max(out.HeightM, l.Up+next.y)
		if was, is := side*(l.Far+a.x), side*(l.Far+next.x); tr.RopeAtM > 0 && was < tr.RopeAtM && is >= tr.RopeAtM {
			part := (tr.RopeAtM - was) / (is - was)
			out.AtRopeM = l.Up + a.y + part*(next.y-a.y)
		}
		if next.y < -tr.DropM && next.vy < 0 {
			part := (a.y + tr.DropM) / (a.y - next.y)
			a = step(a, rate(mid), arcStep*part)
			out.TimeS += arcStep * part
			break
		}
		a = next
		out.TimeS += arcStep
	}
	note()
	out.LengthM = a.x
	out.HalfFlips = math.Abs(a.turn) / math.Pi
	out.FeetShare = FeetShare(out.HalfFlips)
	return out
}

// Along is how far a leap goes the way that the pleat says; the other way is negative.
func (t Toy) Along(a Arc) float64 {
	if t.Backward {
		return -a.LengthM
	}
	return a.LengthM
}

// Leap is launch and flight of a toy.
func (t Toy) Leap(tr Trial) Arc { return t.Fly(t.Launch(tr, nil), tr, 0) }

// FeetShare is the chance to land on the feet after so many half flips: the spin is
// uncertain by a tenth and a quarter of itself, and only whole turns end on the feet.
func FeetShare(half float64) float64 {
	s := 0.1 + 0.25*half
	return (1 + math.Exp(-math.Pi*math.Pi*s*s/2)*math.Cos(math.Pi*half)) / 2
}
