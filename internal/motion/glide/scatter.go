package glide

import (
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
	neutralBy              = 0.03 // either way, as a part of the mean chord: the lattice is better, soft wings are not
	stallBy                = 4.0  // degrees either way
	upLo, upHi             = -2.0, 6.0
	weightSD               = 0.02 // of paper against what is printed on its ream
)

// The numbers that a throw is drawn from: the first ones by the normal law, the others anywhere in
// a range.
const (
	zSpeed = iota
	zAngle
	zBank
	zYaw
	zCurlRight
	zCurlLeft
	zTwist
	zRudder
	zNose
	zCoM
	zArea
	zWeight
	uFriction
	uCurl
	uSuction
	uTravel
	uNeutral
	uStall
	uUp
	numbers
)

// scattered is one toy and throw out of a scatter.
type scattered struct {
	throw Throw
	bends air.Bends
	aftM  float64
	doubt Doubt
}

// draw is throw number i out of a scatter.
func (s Scatter) draw(i int, t Throw, b air.Bends) scattered {
	z := motion.Numbers(i, uFriction, numbers-uFriction)
	d := scattered{throw: t, bends: b, aftM: s.CoMMM * air.Metres * z[zCoM], doubt: certain}
	d.throw.SpeedMS *= 1 + clamp(s.SpeedPart*z[zSpeed], -0.5, 0.5)
	d.throw.AngleDeg += s.AngleDeg * z[zAngle]
	d.throw.BankDeg += s.BankDeg * z[zBank]
	d.throw.YawDeg += s.YawDeg * z[zYaw]
	d.bends.CurlRight += geom.Rad(s.CurlDeg) * z[zCurlRight]
	d.bends.CurlLeft += geom.Rad(s.CurlDeg) * z[zCurlLeft]
	d.bends.Twist += geom.Rad(s.TwistDeg) * z[zTwist]
	d.bends.Rudder += geom.Rad(s.RudderDeg) * z[zRudder]
	d.bends.Nose += geom.Rad(s.NoseDeg) * z[zNose]
	d.bends.AreaMore += s.AreaPart * z[zArea]
	if s.Constants {
		in := func(k int, lo, hi float64) float64 { return lo + (hi-lo)*z[k] }
		d.doubt = Doubt{Friction: in(uFriction, frictionLo, frictionHi) / air.FrictionFactor, Curl: in(uCurl, curlLo, curlHi) / air.CurlEfficiency,
			Suction: in(uSuction, suctionLo, suctionHi) / air.SuctionKept, Travel: in(uTravel, travelLo, travelHi) / air.AreaTravel,
			Neutral: in(uNeutral, -neutralBy, neutralBy), Stall: geom.Rad(in(uStall, -stallBy, stallBy)), Up: in(uUp, upLo, upHi), Weight: 1 + weightSD*z[zWeight]}
	}
	return d
}

// many makes models of toys that differ little from one, without solving the air anew.
type many struct {
	m      *Model
	aft    air.Derivatives // with the weight aftM further back
	sprung air.Derivatives
}

// aftM is how far the weight is moved to see what that does.
const aftM = 1e-3

func (m *Model) many() many {
	q := many{m: m}
	w := m.Weight
	w.CoM.X += aftM
	q.aft = m.Shape.Derivatives(w.CoM)
	if m.sprung != nil {
		q.sprung = m.sprung.Shape.Derivatives(m.sprung.Weight.CoM)
	}
	return q
}

// of is the toy of a draw.
func (q many) of(s scattered) *Model {
	m := q.m
	h, w, d := m.Shape, m.Weight, m.D
	if m.sprung != nil && s.doubt.Up != 0 {
		part := s.doubt.Up / craft.SprungDeg
		h, w, d = h.Toward(m.sprung.Shape, part), w.Toward(m.sprung.Weight, part), d.Moved(m.D, q.sprung, part)
	}
	d = d.Moved(m.D, q.aft, s.aftM/aftM)
	w.CoM.X += s.aftM
	return newModel(h, w.Heavier(s.doubt.Weight), d, s.bends, s.doubt)
}
