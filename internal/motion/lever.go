package motion

import (
	"context"
	"math"
)

// Lever is something that can be set: a knob of the pattern, or the throw.
type Lever struct {
	Name  string  `json:"name"`
	Label string  `json:"label"`
	Unit  string  `json:"unit"`
	Min   float64 `json:"min"`
	Max   float64 `json:"max"`
	Value float64 `json:"value"` // where it stands
	Step  float64 `json:"step"`  // one step that a hand can make: a millimetre, a degree
	// Even levers tell left from right: 0 is alike, and preferred when it costs nothing.
	Even bool `json:"even"` // tells left from right
	// Hard levers move a fold, so that another value needs another sheet.
	Hard bool `json:"hard"` // moves a fold: needs a new sheet
	// Whole levers count, or are switches: they go in whole steps from the lowest.
	Whole bool `json:"whole"` // goes in whole steps only
	// Trial levers are conditions of the trial, not knobs of the toy.
	Trial bool    `json:"trial"` // a condition of the trial, not a knob of the toy
	Named []Named `json:"named"` // values that people call by a name
}

// Snap is the nearest value that a lever can stand at.
func (l Lever) Snap(v float64) float64 {
	if !l.Whole {
		return v
	}
	return math.Max(l.Min, math.Min(l.Max, l.Min+l.Step*math.Round((v-l.Min)/l.Step)))
}

// Named is a value that people call by a name.
type Named struct {
	Value float64 `json:"value"`
	Label string  `json:"label"`
}

// Measures are what a position comes to, by name.
type Measures map[string]float64

// Measure evaluates a toy with all levers at given positions, in order of the levers, by a
// sample of trials: middles of what they come to. An error means that it cannot be made or
// flown so.
type Measure func(ctx context.Context, at []float64, by Sample) (Measures, error)

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

// Split parts lever positions into knobs and conditions.
func Split(levers []Lever, at []float64) (knobs map[string]float64, c Conditions) {
	knobs, c = map[string]float64{}, Conditions{}
	for i, l := range levers {
		if l.Trial {
			c[l.Name] = at[i]
		} else {
			knobs[l.Name] = at[i]
		}
	}
	return knobs, c
}

// Levers of the conditions that can be tuned, where they stand.
func (w *Way) Levers(c Conditions) []Lever {
	var out []Lever
	for _, q := range w.Conditions {
		if q.Step > 0 {
			out = append(out, Lever{Name: q.Name, Label: q.Label, Unit: q.Unit, Min: q.Least, Max: q.Most, Value: c[q.Name], Step: q.Step, Trial: true, Named: []Named{}})
		}
	}
	return out
}
