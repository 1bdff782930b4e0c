package sequence

import "tussock/internal/sequence/knob"

// FullKnobs are all knobs that are shown, those not given at their defaults.
func (p *Pattern) FullKnobs(given map[string]float64) map[string]float64 {
	return knob.Full(p.Knobs, given)
}

// Unbent are knob values with those at their defaults that fold nothing.
func (p *Pattern) Unbent(given map[string]float64) map[string]float64 {
	return knob.Unbent(p.Knobs, given)
}

// IsHard tells whether a knob moves a hard fold: another value is another toy. A knob
// that the pattern no longer has counts as hard.
func (p *Pattern) IsHard(name string) bool {
	i := p.KnobIndex(name)
	return i < 0 || p.Knobs[i].Kind == HardFold
}
