package sequence

import "tussock/internal/sequence/round"

// What is done in the round, once a toy lies folded flat.
type (
	Opening  = round.Opening
	Bending  = round.Bending
	Arc      = round.Arc
	Parting  = round.Parting
	Pivoting = round.Pivoting
)

// Miss is a landmark that does not come to lie where the pattern expects it.
type Miss struct {
	Step     int     `json:"step"` // after this step
	Line     int     `json:"line"`
	Landmark string  `json:"landmark"`
	MM       float64 `json:"mm"` // degrees for a line that should be parallel
	Detail   string  `json:"detail"`
}
