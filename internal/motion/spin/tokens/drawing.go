package tokens

import (
	"math"

	"tussock/internal/draw"
	"tussock/internal/geom"
	"tussock/internal/motion"
)

// TokenDrawing is a token as it balances and spins. Places are mm on the picture from above,
// y downward.
type TokenDrawing struct {
	Picture  draw.Picture  `json:"picture"` // from above, as it spins
	Hangs    bool          `json:"hangs"`   // from a pin
	Support  TokenPlace    `json:"support"` // the spot that it rests on, as it is set
	CoM      TokenPlace    `json:"com"`     // computed
	Real     TokenPlace    `json:"real"`    // as it was found; the computed one when nothing was measured
	Measured bool          `json:"measured"`
	Mark     *TokenPlace   `json:"mark,omitempty"` // the balance marked on the way, where it is now
	StaleMM  float64       `json:"stale_mm"`       // how far that mark is from the balance now
	OffsetMM float64       `json:"offset_mm"`      // from the support to the centre of mass
	Towards  float64       `json:"towards"`        // o'clock, 12 is up on the picture
	DepthMM  float64       `json:"depth_mm"`       // of the centre of mass below the support; above is negative
	LeanDeg  float64       `json:"lean_deg"`
	PointMM  float64       `json:"point_mm"` // how far the point stands out
	RadiusMM float64       `json:"radius_mm"`
	Rim      []RimSpot     `json:"rim"`
	Trace    []TraceSpot   `json:"trace"` // the centre of mass step by step, where it lies on the toy as it is now
	Curve    []SpinSpot    `json:"curve"` // the middle one of many spins
	Band     []SpinBand    `json:"band"`  // eight of ten
	StandsAt float64       `json:"stands_at"`
	Ends     string        `json:"ends"` // what ends it
	Ghosts   []TokenGhost  `json:"ghosts"`
	Options  []OptionShift `json:"options"` // what optional folds do to the balance
}

// TokenPlace is a place on the picture, mm.
type TokenPlace struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
}

// RimSpot is a spot of the rim.
type RimSpot struct {
	At      TokenPlace `json:"at"`
	ClearMM float64    `json:"clear_mm"` // above the table as it leans
	First   bool       `json:"first"`    // touches first
	Name    string     `json:"name"`
	BentMM  float64    `json:"bent_mm"`
}

// TraceSpot is where the centre of mass lay after a step.
type TraceSpot struct {
	Step  int        `json:"step"`
	At    TokenPlace `json:"at"`
	OffMM float64    `json:"off_mm"` // from where it lies in the end
}

// SpinSpot is a moment of a spin.
type SpinSpot struct {
	T     float64 `json:"t"`     // s
	Rate  float64 `json:"rate"`  // turns a second
	Turns float64 `json:"turns"` // since the start
	Lean  float64 `json:"lean"`  // degrees
}

// SpinBand is the rate of eight of ten spins at a time.
type SpinBand struct {
	T  float64 `json:"t"`
	Lo float64 `json:"lo"`
	Hi float64 `json:"hi"`
}

// TokenGhost is the spin of an earlier set-up.
type TokenGhost struct {
	Name  string     `json:"name"`
	Curve []SpinSpot `json:"curve"`
}

// OptionShift is what an optional fold does to the balance.
type OptionShift struct {
	Step  int     `json:"step"`
	Words string  `json:"words"`
	OffMM float64 `json:"off_mm"` // how far the centre of mass moves
	To    float64 `json:"to"`     // o'clock
}

const curvePoints, bandPoints = 120, 40

func (w *Workbench) drawing(s set, all spins) *TokenDrawing {
	cam := s.frame.camera()
	origin := cam.Sees(s.frame.origin)
	at := func(v geom.Vec) TokenPlace { return TokenPlace{round2(origin[0] + v.X), round2(origin[1] - v.Y)} }
	pic := draw.InSpace(s.pose, cam)
	pic.CoM = nil
	support := s.CoM.Add(s.measured).Sub(s.Off) // what bends do to the weight is drawn at the support
	d := &TokenDrawing{Picture: pic, Hangs: s.Hangs, Support: at(support), CoM: at(s.CoM), Real: at(s.CoM.Add(s.measured)), Measured: s.measured != geom.Vec{},
		OffsetMM: s.Off.Len(), Towards: clock(s.Off), DepthMM: s.DepthMM, LeanDeg: round2(all.leanDeg.Middle), PointMM: s.PointMM, RadiusMM: s.RadiusMM,
		Rim: []RimSpot{}, Trace: []TraceSpot{}, Curve: all.middle.curve(curvePoints), Band: all.band(), StandsAt: perTurn(s.body().Stands()), Ends: all.middle.ends(s.Hangs),
		Ghosts: []TokenGhost{}, Options: w.options(s)}
	if s.Hangs {
		d.StandsAt = 0
	}
	q := all.middle
	towards := math.Atan2(s.Off.Y, s.Off.X)
	lean := geom.Rad(all.leanDeg.Middle)
	for i, r := range s.rim(0) {
		down := s.PointMM + w.on.heightM*1e3 + r.Z - r.R*math.Sin(lean)*math.Cos(r.Angle-towards)
		d.Rim = append(d.Rim, RimSpot{At: at(s.Rim[i].At), ClearMM: round2(down), First: i == q.first, Name: s.Rim[i].Name, BentMM: s.Bends[i]})
	}
	for _, t := range s.Trace {
		d.Trace = append(d.Trace, TraceSpot{t.No, at(t.At), round2(t.At.Sub(s.CoM).Len())})
	}
	if s.Mark != nil {
		m := at(*s.Mark)
		d.Mark, d.StaleMM = &m, s.Mark.Sub(s.CoM).Len()
	}
	return d
}

func round2(v float64) float64 { return math.Round(100*v) / 100 }

// curve is a spin moment by moment.
func (q spun) curve(n int) []SpinSpot {
	out := []SpinSpot{}
	if q.seconds == 0 {
		return out
	}
	// Even steps of the root of the rate are nearly even steps of time.
	for i := range n {
		u := float64(i) / float64(n-1)
		rate := math.Pow(math.Sqrt(q.from)+u*(math.Sqrt(q.to)-math.Sqrt(q.from)), 2)
		sec, turns := q.body.SpinDown(q.slowing, q.from, rate)
		lean := q.lean
		if tau, ok := q.body.Wobble(q.off.Len()*1e-3, rate); ok && q.mode == modeSpins {
			lean = math.Min(tau, math.Pi/4)
		}
		out = append(out, SpinSpot{round3(sec), round3(perTurn(rate)), round3(turns), round2(geom.Deg(lean))})
	}
	return out
}

func round3(v float64) float64 { return math.Round(1000*v) / 1000 }

// ends is what ends a spin.
func (q spun) ends(hangs bool) string {
	switch {
	case hangs:
		return "it comes to rest"
	case q.to > q.body.Stands()*1.01:
		return "its rim rubs"
	}
	return "it falls over"
}

// band is the rate of eight of ten spins at times.
func (s spins) band() []SpinBand {
	out := []SpinBand{}
	most := s.seconds.Hi
	if most == 0 {
		return out
	}
	// Some of them are enough for a band that is drawn.
	const some = 48
	type path struct{ t, rate []float64 }
	var paths []path
	for i := 0; i < len(s.all) && len(paths) < some; i += max(1, len(s.all)/some) {
		var p path
		for _, v := range s.all[i].curve(16) {
			p.t, p.rate = append(p.t, v.T), append(p.rate, v.Rate)
		}
		paths = append(paths, p)
	}
	for k := range bandPoints {
		t := most * float64(k) / (bandPoints - 1)
		var rates []float64
		for _, p := range paths {
			rates = append(rates, rateAt(p.t, p.rate, t))
		}
		r := motion.RangeOf(rates)
		out = append(out, SpinBand{round3(t), round3(r.Lo), round3(r.Hi)})
	}
	return out
}

// rateAt is a rate at a time, between moments; 0 after the last.
func rateAt(t, rate []float64, at float64) float64 {
	for i := 1; i < len(t); i++ {
		if t[i] >= at {
			return rate[i-1] + (rate[i]-rate[i-1])*(at-t[i-1])/math.Max(1e-9, t[i]-t[i-1])
		}
	}
	return 0
}

// options are what optional folds do to the balance, folded or not: each is weighed right
// before and after itself.
func (w *Workbench) options(s set) []OptionShift {
	out := []OptionShift{}
	for i, d := range s.replay.Steps {
		if !d.Optional || i == 0 {
			continue
		}
		before, ok1 := s.after[d.No-1]
		after, ok2 := s.after[d.No]
		if ok1 && ok2 {
			v := after.Sub(before)
			out = append(out, OptionShift{d.No, d.Say, round2(v.Len()), clock(v)})
		}
	}
	return out
}
