package body

import (
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// StepReport is one step in numbers, the form that scripts read.
type StepReport struct {
	Step      int        `json:"step"`
	Text      string     `json:"text"`
	Moved     int        `json:"moved"`
	Facets    int        `json:"facets"`
	MaxLayers int        `json:"max_layers"`
	Box       [2]float64 `json:"box"`
	Area      float64    `json:"area"`
	CoM       [2]float64 `json:"com"`
}

// FinalReport is the finished toy in numbers.
type FinalReport struct {
	StepReport
	Mountain  int                   `json:"mountain"`
	Valley    int                   `json:"valley"`
	MassG     float64               `json:"mass_g"`
	Landmarks map[string][2]float64 `json:"landmarks"`
}

// Steps measures every step of a replay. Lengths mm, areas mm², folded plane.
func Steps(r *sequence.Replay) []StepReport {
	out := make([]StepReport, 0, len(r.Steps))
	for i, d := range r.Steps {
		if d.Before == d.After && i > 0 && len(r.Masses) == 0 { // a wing leaves the flat state as it is
			same := out[i-1]
			same.Step, same.Text, same.Moved = d.No, d.Text, 0
			out = append(out, same)
			continue
		}
		rep := report(Measure(d.After).Loaded(d.After, upTo(r.Masses, d.No)))
		rep.Step, rep.Text, rep.Moved, rep.Facets = d.No, d.Text, d.Moved, len(d.After.F)
		out = append(out, rep)
	}
	return out
}

func report(m Flat) StepReport {
	return StepReport{MaxLayers: m.MaxLayers, Box: [2]float64{m.Box.Width(), m.Box.Height()},
		Area: m.AreaMM2, CoM: [2]float64{m.CoM.X, m.CoM.Y}}
}

// Final measures the last good state of a replay.
func Final(r *sequence.Replay) FinalReport {
	f := r.Final()
	m := Measure(f).Loaded(f, r.Masses)
	out := FinalReport{StepReport: report(m), MassG: m.MassG, Landmarks: map[string][2]float64{}}
	out.Facets = len(f.F)
	if n := len(r.Steps); n > 0 {
		last := r.Steps[n-1]
		out.Step, out.Text, out.Moved = last.No, last.Text, last.Moved
	}
	c := f.Count()
	out.Mountain, out.Valley = c.Mountain, c.Valley
	for name, p := range r.Landmarks {
		if at, ok := sequence.Place(f, p); ok {
			out.Landmarks[name] = pair(at)
		}
	}
	return out
}

func pair(v geom.Vec) [2]float64 { return [2]float64{v.X, v.Y} }
