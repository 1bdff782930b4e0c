package prepare

import (
	"math"

	"tussock/internal/sequence"
	"tussock/internal/sequence/spread"
)

// How far off the work of a careful adult is, in mm, one standard deviation. The
// fold is the hand's own figure; the others are estimates of the same kind: a
// trimmed edge adds about as much again, a torn one a good deal more.
const (
	cutMM  = 0.3
	tearMM = 0.7
	markMM = 0.3 // a length taken with a ruler at both ends
)

var handMM = spread.Adult.MM

// What an operation takes, in seconds: estimates.
var seconds = map[sequence.Op]float64{
	sequence.OpCrease: 15, sequence.OpValley: 12, sequence.OpMountain: 15, sequence.OpPinch: 8,
	sequence.OpUnfold: 4, sequence.OpCut: 25, sequence.OpTear: 50, sequence.OpTurn: 3,
}

const markSeconds = 20

// Off is one part of the error of a way.
type Off struct {
	What string
	MM   float64
}

func total(offs []Off) float64 {
	sum := 0.0
	for _, o := range offs {
		sum += o.MM * o.MM
	}
	return math.Sqrt(sum)
}
