// Package knob is what can be adjusted in a pattern.
package knob

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
	Named    []Named // values that have a name
	Line     int
}

// Part is the unit that a fraction is told in: it is a part of a way along the paper, in
// per cent.
const Part = "part"

// Told is the unit that people are told a knob in.
func (k Knob) Told() string {
	if k.Unit == "" && !k.Whole && k.Max <= 1 {
		return Part
	}
	return k.Unit
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
