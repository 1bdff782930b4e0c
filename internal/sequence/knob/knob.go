// Package knob is what can be adjusted in a pattern.
package knob

import (
	"fmt"
	"math"

	"tussock/internal/say"
)

// Kind tells what changing a knob costs.
type Kind string

const (
	// HardFold knobs move a crease: another value is another toy.
	HardFold Kind = "fold"
	// SetUp knobs are last bends: they can be changed on the finished toy.
	SetUp Kind = "set"
)

// Knob is one adjustable value.
type Knob struct {
	Name     string
	Label    string
	Unit     string // "mm", "deg", "g" or "" for a fraction
	Default  float64
	Min, Max float64
	Kind     Kind
	Changes  string  // what it does, in a folder's words
	Steps    []int   // the steps that use it, from 1
	Plain    bool    // a param without range, not shown as a knob
	Implied  bool    // no line of the pattern writes it and no fold uses it: its way of moving does
	Step     float64 // a step that a hand can make; 0 for the usual one of its unit
	Whole    bool    // it counts something
	Either   bool    // its two ends, which have names, are the only values
	Named    []Named // values that have a name
	Read     bool    // read off the finished toy: it has no dial
	Line     int
}

// Part is the unit that a fraction is told in: it is a part of a way along the paper, in
// per cent.
const Part = "part"

// Told is the unit that people are told a knob in.
func (k Knob) Told() string {
	if k.Unit == "" && !k.Whole && !k.Either && k.Max <= 1 {
		return Part
	}
	return k.Unit
}

// Refuses says why a knob cannot stand at a value; "" when it can.
func (k Knob) Refuses(v float64) string {
	switch {
	case math.IsNaN(v) || v < k.Min || v > k.Max:
		return fmt.Sprintf("%s is %s; it must be %s", k.Label, say.Value(v, k.Told(), 3), say.Between(k.Min, k.Max, k.Told(), 3))
	case k.Either && v != k.Min && v != k.Max:
		return fmt.Sprintf("%s is %s; it must be %s (%s) or %s (%s)", k.Label, say.Decimal(v, 3), say.Decimal(k.Named[0].Value, 3), k.Named[0].Label, say.Decimal(k.Named[1].Value, 3), k.Named[1].Label)
	case k.Whole && v != math.Trunc(v):
		return fmt.Sprintf("%s is %s; it must be a whole number", k.Label, say.Decimal(v, 3))
	}
	return ""
}

// Named is a value of a knob that people call by a name.
type Named struct {
	Value float64 `json:"value"`
	Label string  `json:"label"`
}

// Full are all knobs that are shown, those not given at their defaults.
func Full(all []Knob, given map[string]float64) map[string]float64 {
	out := map[string]float64{}
	for _, k := range all {
		if k.Plain {
			continue
		}
		out[k.Name] = k.Default
		if v, ok := given[k.Name]; ok {
			out[k.Name] = v
		}
	}
	return out
}

// Unbent are knob values with those at their defaults that fold nothing.
func Unbent(all []Knob, given map[string]float64) map[string]float64 {
	out := Full(all, given)
	for _, k := range all {
		if k.Implied {
			out[k.Name] = k.Default
		}
	}
	return out
}
