package motion

import "context"

// Lever is something that can be set: a knob of the pattern, or the throw.
type Lever struct {
	Name  string
	Label string
	Unit  string
	Min   float64
	Max   float64
	Value float64 // where it stands
	Step  float64 // one step that a hand can make: a millimetre, a degree
	// Even levers tell left from right: 0 is alike, and preferred when it costs nothing.
	Even bool
	// Hard levers move a fold, so that another value needs another sheet.
	Hard bool
}

// Measures are what a position comes to, by name.
type Measures map[string]float64

// Measure evaluates a toy with all levers at given positions, in order of the levers. An
// error means that it cannot be made or flown so.
type Measure func(ctx context.Context, at []float64) (Measures, error)

// Positions are where levers stand.
func Positions(levers []Lever) []float64 {
	out := make([]float64, len(levers))
	for i, l := range levers {
		out[i] = l.Value
	}
	return out
}

// Goal scores measures: more is better.
type Goal func(Measures) float64
