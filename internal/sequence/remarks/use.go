package remarks

import (
	"math"

	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Use is what a pattern makes of a piece of paper, such as a leftover.
type Use struct {
	WidthMM, HeightMM float64 // of the sheet to cut from it
	Count             int     // how many such sheets it gives, side by side
	Turned            bool    // its height lies along the piece's width
	Small             bool    // smaller than fingers fold with ease
	Replay            *sequence.Replay
}

// UseOf finds the largest sheet that the pattern can be folded from out of a piece:
// the whole piece where its proportions do, either way round, else the pattern's
// own proportions. ok is false when none can be folded.
func UseOf(p *sequence.Pattern, piece sheet.Sheet) (best Use, ok bool) {
	own := p.HeightMM / p.WidthMM
	for _, turned := range []bool{false, true} {
		a, b := piece.WidthMM, piece.HeightMM
		if turned {
			a, b = b, a
		}
		fit := sheet.SameRatio(a, b, p.WidthMM*1e3, p.HeightMM*1e3)
		sizes := [][2]float64{{a, b}, {fit.WidthMM, fit.HeightMM}}
		if p.MaxRatio-p.MinRatio > 0.01 { // as much of the piece as its proportions allow
			sizes = append(sizes, [2]float64{math.Min(a, b/p.MinRatio), math.Min(b, a*p.MaxRatio)})
		}
		for _, size := range sizes {
			q := size[1] / size[0]
			if !p.Takes(q) || p.MinRatio == 0 && math.Abs(q-own) > 1e-9 {
				continue
			}
			s, err := sheet.New(size[0], size[1], piece.GSM, piece.ThicknessMM)
			if err != nil || size[0]*size[1] <= best.WidthMM*best.HeightMM+1e-6 {
				continue
			}
			r := p.Run(s, nil)
			if r.Err != nil {
				continue
			}
			n := int(a/size[0]+1e-9) * int(b/size[1]+1e-9)
			best, ok = Use{size[0], size[1], n, turned, false, r}, true
		}
	}
	if ok {
		least, _ := leastScale(best.Replay)
		best.Small = least > 1
	}
	return best, ok
}
