package glide

import (
	"math"
	"math/rand/v2"
	"slices"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/glide/air"
)

// Scatter is how much a person's throws and last bends differ from what was meant, one
// standard deviation each.
type Scatter struct {
	SpeedPart, AngleDeg, BankDeg, YawDeg float64 // of the throw
	CurlDeg                              float64 // of each tail edge
	TwistDeg, RudderDeg, NoseDeg         float64
	CoMMM                                float64 // along the toy, from folds that lie a little off
	// Constants lets the uncertain constants of the model vary over their range too.
	Constants bool
}

// ScatterOf is the scatter of a hand: "adult", or "child" with about twice of everything.
func ScatterOf(hand string) Scatter {
	s := Scatter{SpeedPart: 0.05, AngleDeg: 4, BankDeg: 5, YawDeg: 2, CurlDeg: 1, TwistDeg: 0.35, RudderDeg: 1, NoseDeg: 1, CoMMM: 0.5, Constants: true}
	if hand == "child" {
		s = Scatter{SpeedPart: 0.12, AngleDeg: 8, BankDeg: 9, YawDeg: 4, CurlDeg: 2.5, TwistDeg: 0.9, RudderDeg: 2.5, NoseDeg: 2, CoMMM: 1, Constants: true}
	}
	return s
}

// Doubt multiplies the least certain constants; the zero value leaves them alone.
type Doubt struct{ Friction, Curl, Suction float64 }

// scattered is one toy and throw out of a scatter. Each is drawn with its opposite, so that
// even toys stay even on average.
type scattered struct {
	throw Throw
	bends air.Bends
	aftM  float64
	doubt Doubt
}

func (s Scatter) draws(n int, seed uint64, t Throw, b air.Bends) []scattered {
	r := rand.New(rand.NewPCG(seed, 77))
	out := make([]scattered, 0, n)
	var z [9]float64
	var u [3]float64
	for i := range n {
		if i%2 == 0 {
			for k := range z {
				z[k] = r.NormFloat64()
			}
			for k := range u {
				u[k] = r.Float64()
			}
		} else {
			for k := range z {
				z[k] = -z[k]
			}
			for k := range u {
				u[k] = 1 - u[k]
			}
		}
		d := scattered{throw: t, bends: b}
		d.throw.SpeedMS *= 1 + clamp(s.SpeedPart*z[0], -0.5, 0.5)
		d.throw.AngleDeg += s.AngleDeg * z[1]
		d.throw.BankDeg += s.BankDeg * z[2]
		d.throw.YawDeg += s.YawDeg * z[3]
		d.bends.CurlRight += geom.Rad(s.CurlDeg) * z[4]
		d.bends.CurlLeft += geom.Rad(s.CurlDeg) * z[5]
		d.bends.Twist += geom.Rad(s.TwistDeg) * z[6]
		d.bends.Rudder += geom.Rad(s.RudderDeg) * z[7]
		d.bends.Nose += geom.Rad(s.NoseDeg) * z[8]
		d.aftM = s.CoMMM * air.Metres * (z[0] + z[4]) / math.Sqrt2
		if s.Constants {
			// Uniform over the ranges of the list of constants.
			d.doubt = Doubt{Friction: (1.0 + 0.5*u[0]) / air.FrictionFactor, Curl: (0.5 + 0.4*u[1]) / air.CurlEfficiency, Suction: 0.4 * u[2] / air.SuctionKept}
		}
		out = append(out, d)
	}
	return out
}

// variant is the toy of a draw.
func (m *Model) variant(d scattered) *Model {
	w := m.Weight
	w.CoM.X += d.aftM
	return newModel(m.Shape, w, d.bends, d.doubt)
}

// BandPoint is where eight of ten flights pass at a distance ahead.
type BandPoint struct {
	X   float64 `json:"x"`
	LoZ float64 `json:"lo_z"`
	HiZ float64 `json:"hi_z"`
	LoY float64 `json:"lo_y"`
	HiY float64 `json:"hi_y"`
}

// Spread is what many throws of one toy come to.
type Spread struct {
	N                              int
	Distance, Time, Highest, Drift motion.Range
	Modes                          map[Mode]int
	Band                           []BandPoint
}

// BandThrows is how many scattered throws a band rests on, always the same ones
// everywhere, so that one set-up has one band.
const (
	BandThrows = 24
	bandSeed   = 3
	bandPoints = 40
)

// Spread throws n toys out of a scatter. The same seed gives the same throws. With a
// band it also tells where eight of ten of them pass.
func (m *Model) Spread(t Throw, room Room, s Scatter, n int, seed uint64, band bool) Spread {
	out := Spread{N: n, Modes: map[Mode]int{}}
	var dist, time, high, drift []float64
	var paths [][]Sample
	far := 0.0
	buf := make([]Sample, 0, 1024)
	for _, d := range s.draws(n, seed, t, m.Bends) {
		v := m.variant(d)
		var f Flight
		if band {
			buf = buf[:0]
			f = v.Fly(d.throw, room, &buf)
			paths = append(paths, slices.Clone(buf))
		} else {
			f = v.Fly(d.throw, room, nil)
		}
		out.Modes[f.Mode]++
		dist, time, high, drift = append(dist, f.DistanceM), append(time, f.TimeS), append(high, f.HighestM), append(drift, f.DriftM)
		far = math.Max(far, f.AheadM)
	}
	out.Distance, out.Time, out.Highest, out.Drift = motion.RangeOf(dist), motion.RangeOf(time), motion.RangeOf(high), motion.RangeOf(drift)
	if band {
		out.Band = bandOf(paths, far)
	}
	return out
}

func bandOf(paths [][]Sample, far float64) []BandPoint {
	var out []BandPoint
	z, y := make([]float64, len(paths)), make([]float64, len(paths))
	for k := range bandPoints {
		x := far * float64(k) / (bandPoints - 1)
		for i, p := range paths {
			z[i], y[i] = passes(p, x)
		}
		rz, ry := motion.RangeOf(z), motion.RangeOf(y)
		out = append(out, BandPoint{X: x, LoZ: rz.Lo, HiZ: rz.Hi, LoY: ry.Lo, HiY: ry.Hi})
		if rz.Hi <= 0 {
			break
		}
	}
	return out
}

// passes is height and side where a path first comes by a distance ahead; on the floor
// when it does not come so far.
func passes(p []Sample, x float64) (z, y float64) {
	for i := 1; i < len(p); i++ {
		if p[i].X >= x && p[i].X > p[i-1].X {
			k := clamp((x-p[i-1].X)/(p[i].X-p[i-1].X), 0, 1)
			return p[i-1].Z + k*(p[i].Z-p[i-1].Z), p[i-1].Y + k*(p[i].Y-p[i-1].Y)
		}
	}
	return 0, p[len(p)-1].Y
}
