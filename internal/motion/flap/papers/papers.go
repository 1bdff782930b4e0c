// Package papers is flappers compared on other papers: thin to heavy, with the grain along
// their line or across it.
package papers

import (
	"math"

	"tussock/internal/motion"
	"tussock/internal/sheet"
)

// Paper is one to compare with.
type Paper struct {
	GSM, ThicknessMM float64
	GrainDeg         float64 // between the grain and what bends: 90 across the fold, 45 not known
	Here             bool    // the one that it is folded from
}

// usual are papers by weight and thickness, of one density: thin folding paper to card.
var usual = [][2]float64{{50, 0.065}, {62, 0.075}, {80, 0.1}, {90, 0.115}, {120, 0.15}, {160, 0.195}}

// All are the papers to compare: the one at hand first, its grain along and across, then
// others by weight.
func All(s sheet.Sheet) []Paper {
	out := []Paper{{s.GSM, s.ThicknessMM, 45, true}, {s.GSM, s.ThicknessMM, 0, true}, {s.GSM, s.ThicknessMM, 90, true}}
	for _, u := range usual {
		if math.Abs(u[0]-s.GSM) > 4 {
			out = append(out, Paper{u[0], u[1], 45, false})
		}
	}
	return out
}

// On is the sheet made of that paper.
func (p Paper) On(s sheet.Sheet) sheet.Sheet {
	s.GSM, s.ThicknessMM = p.GSM, p.ThicknessMM
	return s
}

// Factor is the stiffness of its folds over that of paper of which the grain is not known.
func (p Paper) Factor() float64 { return sheet.GrainFactor(p.GrainDeg) }

// Row is a flapper on one paper.
type Row struct {
	GSM         float64        `json:"gsm"`
	ThicknessMM float64        `json:"thickness_mm"`
	Grain       string         `json:"grain"` // along its folds or across them; "" where it is not known
	Here        bool           `json:"here"`  // the one that it is folded from
	Stiffness   float64        `json:"stiffness"`
	Outcome     motion.Outcome `json:"outcome"`
	Effort      float64        `json:"effort"`
	Mode        string         `json:"mode"`
}

// PaperDrawing is a flapper on several papers.
type PaperDrawing struct {
	Rows   []Row  `json:"rows"`
	Effort string `json:"effort"` // what effort is, with its unit
}

// Told is one row.
func (p Paper) Told(o motion.Outlook, effort float64) Row {
	grain := ""
	switch p.GrainDeg {
	case 0:
		grain = "along"
	case 90:
		grain = "across"
	}
	return Row{p.GSM, p.ThicknessMM, grain, p.Here, math.Round(1e6*sheet.Bending(sheet.Ordinary, p.ThicknessMM)*p.Factor()) / 100, o.Outcome, effort, o.Mode}
}
