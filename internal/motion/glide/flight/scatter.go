package flight

import (
	"math"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/glide/air"
	"tussock/internal/motion/glide/craft"
)

// Scatter is how much a person's throws and last bends differ from what was meant, one
// standard deviation each.
type Scatter struct {
	SpeedPart, AngleDeg, BankDeg, YawDeg float64 // of the throw
	CurlDeg                              float64 // of each tail edge
	TwistDeg, RudderDeg, NoseDeg         float64
	CoMMM                                float64 // along the toy, from folds that lie a little off
	AreaPart                             float64 // by which one wing is larger than the mean
	// Constants lets what the model does not know vary over its range too.
	Constants bool
}

// ScatterOf is the scatter of a hand: "adult", or "child" with about twice of everything.
func ScatterOf(hand string) Scatter {
	s := Scatter{SpeedPart: 0.05, AngleDeg: 4, BankDeg: 5, YawDeg: 2, CurlDeg: 1, TwistDeg: 0.35, RudderDeg: 1, NoseDeg: 1, CoMMM: 0.5, AreaPart: 0.005, Constants: true}
	if hand == "child" {
		s = Scatter{SpeedPart: 0.12, AngleDeg: 8, BankDeg: 9, YawDeg: 4, CurlDeg: 2.5, TwistDeg: 0.9, RudderDeg: 2.5, NoseDeg: 2, CoMMM: 1, AreaPart: 0.01, Constants: true}
	}
	return s
}

// Careful is the scatter of somebody of whose slips in folding and bending a part is left;
// they throw like everybody.
func (s Scatter) Careful(part float64) Scatter {
	for _, v := range []*float64{&s.CurlDeg, &s.TwistDeg, &s.RudderDeg, &s.NoseDeg, &s.CoMMM, &s.AreaPart} {
		*v *= part
	}
	return s
}

// Doubt is what the model does not know of one toy.
type Doubt struct {
	Friction, Curl, Suction, Travel float64 // factors on what is taken
	Neutral                         float64 // how far the neutral point lies further aft, over the mean chord
	Stall                           float64 // rad by which it stalls later
	Up                              float64 // degrees by which the wings spring up
	Weight                          float64 // factor on the paper's
}

// certain is no doubt at all.
var certain = Doubt{Friction: 1, Curl: 1, Suction: 1, Travel: 1, Weight: 1}

// Ranges of what is not known, as the list of constants has them: each is taken to be
// anywhere in it.
const (
	frictionLo, frictionHi = 1.0, 1.5
	curlLo, curlHi         = 0.5, 0.9
	suctionLo, suctionHi   = 0.0, 0.4
	travelLo, travelHi     = 0.6, 1.0
	NeutralBy              = 0.03 // either way, as a part of the mean chord: the lattice is better, soft wings are not
	stallBy                = 4.0  // degrees either way
	upLo, upHi             = -2.0, 6.0
	weightSD               = 0.02 // of paper against what is printed on its ream
)

// The numbers that a throw is drawn from, those that matter most for its distance first.
const (
	nSpeed = iota
	nAngle
	nCurl // of both edges
	nCurlEffect
	nTravel
	nNeutral
	nCoM
	nFriction
	nUp
	nSuction
	nWeight
	nStall
	nTwist
	nCurlApart
	nRudder
	nBank
	nYaw
	nNose
	nArea
	numbers
)

// scattered is one toy and throw out of a scatter.
type Drawn struct {
	Throw Throw
	Bends air.Bends
	AftM  float64 // by which its weight lies further back
	Doubt Doubt
}

// draw is throw number i out of a scatter.
func (s Scatter) Draw(i int, t Throw, b air.Bends) Drawn {
	u := motion.Numbers(i, numbers)
	z := func(k int) float64 { return motion.Normal(u[k]) }
	d := Drawn{Throw: t, Bends: b, AftM: s.CoMMM * air.Metres * z(nCoM), Doubt: certain}
	d.Throw.SpeedMS *= 1 + clamp(s.SpeedPart*z(nSpeed), -0.5, 0.5)
	d.Throw.AngleDeg += s.AngleDeg * z(nAngle)
	d.Throw.BankDeg += s.BankDeg * z(nBank)
	d.Throw.YawDeg += s.YawDeg * z(nYaw)
	// Two edges that are bent each by itself: their mean and their difference are apart too.
	mean, apart := geom.Rad(s.CurlDeg)*z(nCurl)/math.Sqrt2, geom.Rad(s.CurlDeg)*z(nCurlApart)/math.Sqrt2
	d.Bends.CurlRight += mean + apart
	d.Bends.CurlLeft += mean - apart
	d.Bends.Twist += geom.Rad(s.TwistDeg) * z(nTwist)
	d.Bends.Rudder += geom.Rad(s.RudderDeg) * z(nRudder)
	d.Bends.Nose += geom.Rad(s.NoseDeg) * z(nNose)
	d.Bends.AreaMore += s.AreaPart * z(nArea)
	if s.Constants {
		in := func(k int, lo, hi float64) float64 { return lo + (hi-lo)*u[k] }
		d.Doubt = Doubt{Friction: in(nFriction, frictionLo, frictionHi) / air.FrictionFactor, Curl: in(nCurlEffect, curlLo, curlHi) / air.CurlEfficiency,
			Suction: in(nSuction, suctionLo, suctionHi) / air.SuctionKept, Travel: in(nTravel, travelLo, travelHi) / air.AreaTravel,
			Neutral: in(nNeutral, -NeutralBy, NeutralBy), Stall: geom.Rad(in(nStall, -stallBy, stallBy)), Up: in(nUp, upLo, upHi), Weight: 1 + weightSD*z(nWeight)}
	}
	return d
}

// many makes models of toys that differ little from one, without solving the air anew.
type Many struct {
	m      *Model
	aft    air.Derivatives // with the weight aftM further back
	sprung air.Derivatives
}

// aftM is how far the weight is moved to see what that does.
const aftM = 1e-3

func (m *Model) Many() Many {
	q := Many{m: m}
	w := m.Weight
	w.CoM.X += aftM
	q.aft = m.Shape.Derivatives(w.CoM)
	if m.sprung != nil {
		q.sprung = m.sprung.Shape.Derivatives(m.sprung.Weight.CoM)
	}
	return q
}

// of is the toy of a draw.
func (q Many) Of(s Drawn) *Model {
	m := q.m
	h, w, d := m.Shape, m.Weight, m.D
	if m.sprung != nil && s.Doubt.Up != 0 {
		part := s.Doubt.Up / craft.SprungDeg
		h, w, d = h.Toward(m.sprung.Shape, part), w.Toward(m.sprung.Weight, part), d.Moved(m.D, q.sprung, part)
	}
	d = d.Moved(m.D, q.aft, s.AftM/aftM)
	w.CoM.X += s.AftM
	return newModel(h, w.Heavier(s.Doubt.Weight), d, s.Bends, s.Doubt)
}
