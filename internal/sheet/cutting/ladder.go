package cutting

import (
	"math"
	"slices"
)

// Rung is how large pieces may be when so many of them come from one sheet.
type Rung struct {
	Count             int
	WidthMM, HeightMM float64
}

// The least side of a piece that is worth a rung, and how many rungs are told.
const (
	leastRungMM = 40.0
	mostRungs   = 8
)

// Ladder are the sizes that a sheet gives pieces of one shape in rows and columns, the
// largest first: each rung gives more of them than the one before. high is their height
// over their width.
func Ladder(paper Paper, high, kerfMM float64) []Rung {
	var all []Rung
	add := func(w, h float64) {
		// So many across and so many up, as large as both allow.
		for cols := 1; ; cols++ {
			across := (w - float64(cols-1)*kerfMM) / float64(cols)
			if across < leastRungMM {
				return
			}
			for rows := 1; ; rows++ {
				up := (h - float64(rows-1)*kerfMM) / float64(rows)
				side := math.Min(across, up/high)
				if math.Min(side, side*high) < leastRungMM {
					break
				}
				all = append(all, Rung{cols * rows, side, side * high})
			}
		}
	}
	add(paper.WidthMM, paper.HeightMM)
	if high != 1 {
		add(paper.HeightMM, paper.WidthMM)
	}
	slices.SortFunc(all, func(a, b Rung) int {
		switch {
		case a.WidthMM > b.WidthMM+1e-9:
			return -1
		case a.WidthMM < b.WidthMM-1e-9:
			return 1
		}
		return b.Count - a.Count
	})
	var out []Rung
	for _, r := range all {
		if len(out) == 0 || r.Count > out[len(out)-1].Count {
			out = append(out, r)
		}
	}
	return out[:min(len(out), mostRungs)]
}
