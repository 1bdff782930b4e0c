package answer

import (
	"tussock/internal/bench"
	"tussock/internal/sequence"
	"tussock/internal/sequence/remarks"
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

// ViewChanges are the differences between two set-ups of a pattern, with words.
func ViewChanges(p *sequence.Pattern, from, to bench.Setup) []ChangeView {
	out := []ChangeView{}
	for _, c := range bench.Changes(from, to, p.IsHard) {
		v := ChangeView{Knob: c.Knob, Label: c.Knob, From: c.From, To: c.To, Hard: c.Hard}
		if i := p.KnobIndex(c.Knob); i >= 0 {
			v.Label, v.Unit = p.Knobs[i].Label, p.Knobs[i].Told()
		}
		if c.Knob == bench.WrittenTouched {
			v.Label = "what is written, places changed"
		}
		out = append(out, v)
	}
	return out
}

// CautionView is a caution at the step that needs it.
type CautionView struct {
	ID    string `json:"id"`
	Title string `json:"title"`
	Text  string `json:"text"`
}

// ViewCautions are the cautions of a step.
func ViewCautions(all []remarks.Caution) []CautionView {
	out := []CautionView{}
	for _, c := range all {
		out = append(out, CautionView(c))
	}
	return out
}

// BuildRef names another build.
type BuildRef struct {
	ID    int64  `json:"id"`
	Name  string `json:"name"`
	Tweak int    `json:"tweak" doc:"the parent's tweak it was made from"`
}
