package spread

import (
	"math"

	"tussock/internal/fold"
	"tussock/internal/fold/shadow"
	"tussock/internal/sequence"
)

// Clearance is how exactly a fold can meet its target, for the thickness of what
// lies inside it.
type Clearance struct {
	Inside   int     // layers inside the fold
	NeedMM   float64 // what they push out at most, π/2·n·t
	LeavesMM float64 // what the pattern leaves; below 0 it goes past
	Verdict  Meeting
	MM       float64 // to leave, or overlapped
}

// Meeting is what to do where two things are brought together.
type Meeting string

// They touch, a gap is left, or one lies over the other.
const (
	Touch   Meeting = "touch"
	Leave   Meeting = "leave"
	Overlap Meeting = "overlap"
)

// touchMM is the gap below which nobody sees or folds one.
const touchMM = 0.15

// ClearanceOf judges a step that brings something to something. ok is false for
// others.
func ClearanceOf(d sequence.Done) (c Clearance, ok bool) {
	if d.Meets[0].Name == "" || d.Op != sequence.OpValley && d.Op != sequence.OpMountain {
		return c, false
	}
	for _, h := range d.After.H {
		if h.Kind == fold.Crease && h.Crease == fold.CreaseID(d.No) && d.After.Assigned(h) != fold.Flat {
			c.Inside = max(c.Inside, inside(d.After, h))
		}
	}
	c.NeedMM, c.LeavesMM = shadow.CreepMM(c.Inside, d.After.Sheet.ThicknessMM), d.GapMM
	switch {
	case c.LeavesMM < -1e-9:
		c.Verdict, c.MM = Overlap, -c.LeavesMM
	case math.Max(c.NeedMM, c.LeavesMM) > touchMM:
		c.Verdict, c.MM = Leave, math.Max(c.NeedMM, c.LeavesMM)
	default:
		c.Verdict = Touch
	}
	return c, true
}
