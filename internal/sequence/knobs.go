package sequence

// FullKnobs are all knobs that are shown, those not given at their defaults.
func (p *Pattern) FullKnobs(given map[string]float64) map[string]float64 {
	out := map[string]float64{}
	for _, k := range p.Knobs {
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
func (p *Pattern) Unbent(given map[string]float64) map[string]float64 {
	out := p.FullKnobs(given)
	for _, k := range p.Knobs {
		if k.Implied {
			out[k.Name] = k.Default
		}
	}
	return out
}

// IsHard tells whether a knob moves a hard fold: another value is another toy. A knob
// that the pattern no longer has counts as hard.
func (p *Pattern) IsHard(name string) bool {
	i := p.KnobIndex(name)
	return i < 0 || p.Knobs[i].Kind == HardFold
}
