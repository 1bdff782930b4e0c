// Package care says for every step how exactly it must be made, what to press with,
// where to hold, and what is normal.
//
// In words: this corner fold decides where the wings lie, so take your time; that
// crease goes through eight layers, so use the back of a spoon; it springs open a
// little, and that is right.
//
// Lengths mm, angles degrees. Tools, holds and strain are rules of thumb; the cost of
// a millimetre is computed by package shadow, the rest opening by package sheet.
package care

import (
	"fmt"
	"math"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sequence"
	"tussock/internal/sequence/spread"
	"tussock/internal/sheet"
)

// Step is the care that one step needs.
type Step struct {
	No       int
	Made     bool         // lines are creased by hand in it
	PerMM    float64      // how far the worst landmark moves at the end for 1 mm here
	Worst    string       // that landmark
	Class    spread.Class // computed
	Author   string       // what the author says of it, or ""
	Share    float64      // of all scatter at the end
	Layers   int          // folded at most
	StackMM  float64      // thickness of those layers
	Tool     string
	Hold     *geom.Vec // where to hold the paper, in the folded plane before; nil when nothing slides
	SlideMM  float64   // how far the outermost layers then slide against each other: normal
	DriftMM  float64   // how far off the crease lies in the outermost layer, at most, once the pack is opened
	OpensDeg float64   // the crease opens by itself so far: normal; 0 when nothing stays folded
	Strain   string    // where the paper may tear, and what to do; "" when it will not
	Soft     bool      // not to be pressed hard
	Cuts     bool
	Fixes    bool // glue, tape, clip
}

// Thresholds of the stack, in mm, for what to press with.
const (
	fingerMM = 0.25
	nailMM   = 0.7
	toolMM   = 1.6
)

// tool is what presses a stack flat.
func tool(stackMM float64, soft bool) string {
	switch {
	case soft:
		return "a fingertip, lightly"
	case stackMM <= fingerMM:
		return "a finger"
	case stackMM <= nailMM:
		return "a fingernail"
	case stackMM <= toolMM:
		return "a bone folder or the back of a spoon"
	}
	return "a bone folder, then a weight for a while"
}

const (
	// slidesFrom is from how many layers on a pack slides when it is folded.
	slidesFrom = 4
	// tearsFromMM is from how thick a stack on the paper of a sharp fold is strained,
	// and crackGSM from what weight on one layer cracks along a sharp crease.
	tearsFromMM = 0.8
	crackGSM    = 120
)

// Of studies all steps of a successful replay. layers tells how many layers a step
// folds at most.
func Of(r *sequence.Replay, hand spread.Hand) ([]Step, error) {
	// The cost of a slip needs no samples.
	sp, err := spread.Of(r, hand.MM, 1, 1)
	if err != nil {
		return nil, err
	}
	var out []Step
	for i, d := range r.Steps {
		s := Step{No: d.No, Author: d.Class, Layers: d.LayersFolded()}
		q := sp.Steps[i]
		s.Made, s.PerMM, s.Worst, s.Class, s.Share = q.Lines > 0, q.PerMM, q.Worst, q.Class, q.Share
		t := r.Sheet.ThicknessMM
		s.StackMM = float64(s.Layers) * t
		s.Soft = d.Character == sequence.Soft || d.Character == sequence.Bend
		switch d.Op {
		case sequence.OpCut, sequence.OpTear, sequence.OpSlit:
			s.Cuts = true
		case sequence.OpGlue, sequence.OpTape, sequence.OpClip:
			s.Fixes = true
		}
		if s.Made && !s.Cuts && s.Layers > 0 {
			s.Tool = tool(s.StackMM, s.Soft)
			radius := sheet.CreaseRadius(string(d.Character))
			if d.Op != sequence.OpCrease && d.Op != sequence.OpPinch {
				s.OpensDeg = math.Min(180, sheet.RestOpening(s.Layers, t, radius))
			}
			if s.Layers >= slidesFrom {
				s.Hold, s.SlideMM = hold(d), sheet.CreepRound(s.Layers, t)
				s.DriftMM = sheet.CreaseDrift(s.Layers, t)
			}
			switch {
			case s.Soft:
			case s.StackMM >= tearsFromMM:
				s.Strain = fmt.Sprintf("%d layers bend round one another here: press from the middle outwards, a little at a time, or the outer ones tear at the ends of the crease", s.Layers)
			case r.Sheet.GSM > crackGSM:
				s.Strain = "paper so heavy cracks along a sharp crease: score it first, or fold across a rounded edge"
			}
		}
		out = append(out, s)
	}
	return out, nil
}

// hold is the middle of what stays, near the crease: the spot to press down while the
// rest is folded over.
func hold(d sequence.Done) *geom.Vec {
	if !d.HasLine() || d.Side == 0 {
		return nil
	}
	var sum geom.Vec
	area := 0.0
	for i := range d.Before.F {
		for _, part := range fixedParts(d, d.Before.Folded(fold.FacetID(i))) {
			a := part.Area()
			sum, area = sum.Add(part.Centroid().Scale(a)), area+a
		}
	}
	if area < 1 {
		return nil
	}
	c := sum.Scale(1 / area)
	// A third of the way from there back to the crease, so that the hand is near it.
	h := c.Lerp(d.Line.Foot(c), 1.0/3)
	return &h
}

func fixedParts(d sequence.Done, p geom.Polygon) []geom.Polygon {
	pos, neg := p.Split(d.Line)
	if d.Side > 0 {
		pos = neg
	}
	if len(pos) < 3 {
		return nil
	}
	return []geom.Polygon{pos}
}
