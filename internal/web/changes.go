package web

import (
	"tussock/internal/bench"
	"tussock/internal/sequence"
)

// ChangeView is one difference between set-ups, with words.
type ChangeView struct {
	Knob  string  `json:"knob"`
	Label string  `json:"label"`
	Unit  string  `json:"unit"`
	From  float64 `json:"from"`
	To    float64 `json:"to"`
	Hard  bool    `json:"hard"`
}

func viewChanges(p *sequence.Pattern, from, to bench.Setup) []ChangeView {
	out := []ChangeView{}
	for _, c := range bench.Changes(from, to, p.IsHard) {
		v := ChangeView{Knob: c.Knob, Label: c.Knob, From: c.From, To: c.To, Hard: c.Hard}
		if i := p.KnobIndex(c.Knob); i >= 0 {
			v.Label, v.Unit = p.Knobs[i].Label, p.Knobs[i].Unit
		}
		out = append(out, v)
	}
	return out
}

// landmarkWords is what people call a landmark; one without words keeps its name.
func landmarkWords(p *sequence.Pattern, name string) string {
	if w := p.Called(name); w != name || name == "" {
		return w
	}
	return "the point " + name
}
