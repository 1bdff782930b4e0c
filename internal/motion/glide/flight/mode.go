package flight

import "math"

// Mode is what a flight was, in plain words.
type Mode string

// The modes, in the order in which they are asked for.
const (
	Flutter     Mode = "flutter"
	Tumble      Mode = "tumble"
	Loop        Mode = "loop"
	Roll        Mode = "roll"
	SpiralRight Mode = "spiral to the right"
	SpiralLeft  Mode = "spiral to the left"
	Stalling    Mode = "stalling"
	Swing       Mode = "mild swing"
	Dive        Mode = "dive"
	Glide       Mode = "glide"
	Unknown     Mode = "cannot be told"
)

// modes are all of them, the best one first.
var modes = []Mode{Glide, Swing, Stalling, Dive, SpiralLeft, SpiralRight, Roll, Loop, Tumble, Flutter, Unknown}

// flattening is by how much, rad, a steep path must have flattened again to be no dive: what
// pulls out of a throw that was aimed down does not dive.
const flattening = math.Pi / 180

// slowStall is the part of its trim speed under which a rise ends in a stall.
const slowStall = 0.6

// Words say what a mode looks like.
func (m Mode) Words() string {
	return map[Mode]string{
		Flutter:     "It swings to and fro like a falling leaf.",
		Tumble:      "It turns over and over about its wings.",
		Loop:        "It climbs over backwards into a loop.",
		Roll:        "It rolls over about its length.",
		SpiralRight: "It winds down in a turn to the right.",
		SpiralLeft:  "It winds down in a turn to the left.",
		Stalling:    "It rises, slows down, drops its nose and rises again.",
		Swing:       "It rises a little and falls a little, and goes on.",
		Unknown:     "The numbers run away: nothing can be said of so strange a toy.",
		Dive:        "It goes down nose first, ever faster.",
		Glide:       "It glides down evenly.",
	}[m]
}

// classify tells what a flight was, of a toy that settles to a speed, m/s; 0 when to none.
func (f Flight) classify(trim float64) Mode {
	steep := math.Atan2(f.drop, math.Max(f.DistanceM, 1e-9))
	switch {
	case f.End == LostSense:
		return Unknown
	case f.reversals >= 4 && math.Abs(f.pitchTurns) < 1.5:
		return Flutter
	case math.Abs(f.pitchTurns) > 2.5:
		return Tumble
	case math.Abs(f.pitchTurns) > 0.8:
		return Loop
	case math.Abs(f.rollTurns) > 0.8:
		return Roll
	case f.HeadingDeg > 90:
		return SpiralRight
	case f.HeadingDeg < -90:
		return SpiralLeft
	case f.dips >= 2 || f.dips >= 1 && f.level:
		if f.slowest >= slowStall*trim && trim > 0 {
			return Swing
		}
		return Stalling
	case steep > 40*math.Pi/180 || f.End == Landed && f.endSlope > 28*math.Pi/180 && f.dips == 0 && f.endSlope > f.steepest-flattening:
		return Dive
	}
	return Glide
}
