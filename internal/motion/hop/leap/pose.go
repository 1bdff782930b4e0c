package leap

import (
	"math"

	"tussock/internal/geom"
)

// LeapPose is the toy in profile, m: x ahead of where its second fold stood, y over the
// table.
type LeapPose struct {
	Rear  LeapPlace `json:"rear"`
	Catch LeapPlace `json:"catch"`
	Hip   LeapPlace `json:"hip"`
	Nose  LeapPlace `json:"nose"`
	CoM   LeapPlace `json:"com"` // of the body
}

// LeapPlace is ahead and over the table, m.
type LeapPlace struct {
	X float64 `json:"x"`
	Y float64 `json:"y"`
}

// LeapFrame is a moment of a hop to be drawn. Pressing and the push last milliseconds;
// they are given as much room as the flight.
type LeapFrame struct {
	At      float64  `json:"at"`    // place on the way from 0 to 1
	Phase   string   `json:"phase"` // press, push or air
	T       float64  `json:"t"`     // s since it was let go, or since it left the table
	OpenDeg float64  `json:"open_deg"`
	Pose    LeapPose `json:"pose"`
}

// Shares of the way that pressing and the push take, and in how many frames a press is
// shown.
const (
	pressUntil  = 0.12
	pushUntil   = 0.4
	pressFrames = 8
)

// onTable is the toy on the table, its foot slipped by x, its pleat open so far and its
// body pitched so; degrees.
func (t Toy) onTable(x, openDeg, pitchDeg float64) LeapPose {
	side := 1.0
	if t.Backward {
		side = -1
	}
	x *= side
	sin, cos := math.Sincos(geom.Rad(openDeg))
	hip := LeapPlace{x - side*t.MiddleM*cos, t.MiddleM * sin}
	sin, cos = math.Sincos(geom.Rad(pitchDeg))
	along := func(m float64) LeapPlace { return LeapPlace{hip.X + m*cos, hip.Y + m*sin} }
	return LeapPose{Rear: LeapPlace{x - side*t.FootM, 0}, Catch: LeapPlace{x, 0}, Hip: hip, Nose: along(t.BodyM), CoM: along(t.CoMAhead)}
}

// moved is a pose turned about its centre of mass, which comes to lie at a place.
func (p LeapPose) moved(to LeapPlace, deg float64) LeapPose {
	sin, cos := math.Sincos(geom.Rad(deg))
	at := func(q LeapPlace) LeapPlace {
		dx, dy := q.X-p.CoM.X, q.Y-p.CoM.Y
		return LeapPlace{to.X + dx*cos - dy*sin, to.Y + dx*sin + dy*cos}
	}
	return LeapPose{at(p.Rear), at(p.Catch), at(p.Hip), at(p.Nose), to}
}

func (p LeapPose) rounded() LeapPose {
	for _, q := range []*LeapPlace{&p.Rear, &p.Catch, &p.Hip, &p.Nose, &p.CoM} {
		q.X, q.Y = Round5(q.X), Round5(q.Y)
	}
	return p
}

// Frames are all moments of a hop: from rest pressed down, pushing, and in the air with
// the pleat as far open as it was when it left the table.
func (t Toy) Frames(rest PushFrame, push []PushFrame, path []LeapSpot) []LeapFrame {
	first, last := rest, rest
	if len(push) > 0 {
		first, last = push[0], push[len(push)-1]
	}
	var out []LeapFrame
	add := func(at float64, phase string, s, open float64, p LeapPose) {
		out = append(out, LeapFrame{Round5(at), phase, Round5(s), Round3(open), p.rounded()})
	}
	for i := range pressFrames {
		k := float64(i) / (pressFrames - 1)
		open := rest.Open + k*(first.Open-rest.Open)
		add(k*pressUntil, "press", 0, open, t.onTable(0, open, rest.Pitch+k*(first.Pitch-rest.Pitch)))
	}
	for i, f := range push {
		add(pressUntil+(pushUntil-pressUntil)*float64(i+1)/float64(len(push)), "push", f.T, f.Open, t.onTable(f.X, f.Open, f.Pitch))
	}
	up := t.onTable(0, last.Open, last.Pitch)
	for i, p := range path {
		add(pushUntil+(1-pushUntil)*float64(i+1)/float64(len(path)), "air", p.T, last.Open, up.moved(LeapPlace{p.X, p.Y}, p.Pitch-last.Pitch))
	}
	return out
}

// PushFrame is a moment of the push: opening of the pleat and pitch of the body, degrees.
type PushFrame struct {
	T     float64 `json:"t"`
	X     float64 `json:"x"` // slip of the foot, m
	Open  float64 `json:"open"`
	Pitch float64 `json:"pitch"`
}

// Round3 and Round5: what is drawn is kept to a thousandth of a millimetre or degree, and to a hundredth of
// a millimetre where it is in metres.
func Round3(v float64) float64 { return math.Round(v*1e3) / 1e3 }
func Round5(v float64) float64 { return math.Round(v*1e5) / 1e5 }
