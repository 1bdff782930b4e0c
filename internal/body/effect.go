package body

import (
	"fmt"
	"math"

	"tussock/internal/fold"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Effect is what a sheet that is a little off does to a toy.
type Effect struct {
	Why     string   // it cannot be folded even from the sheet that it should be, and why
	Misfits []Misfit // of edges that should meet on the finished toy, folded flat
	Real    *sequence.Replay
	// Estimated: the folds cannot be carried out exactly on such a sheet, and the misfits are
	// told to first order.
	Estimated bool
	OffMM     float64 // how far corners or sides are off
	// The rectangle that makes it right, what it takes off the sides measured, and
	// whether scissors can take off so little.
	TrimWMM, TrimHMM float64
	OffWMM, OffHMM   float64
	Trim             bool
}

// PerMM is what the worst misfit comes to for each mm that the sheet is off; 0 when it is
// as it should be.
func (e Effect) PerMM() float64 {
	if e.OffMM < leastTrimMM {
		return 0
	}
	worst := 0.0
	for _, m := range e.Misfits {
		worst = math.Max(worst, m.MM)
	}
	return worst / e.OffMM
}

// leastTrimMM is the least that scissors can take off.
const leastTrimMM = 0.3

// EffectOf folds a pattern from a sheet as measured and compares it with the one from
// the sheet that it should be: of the same width, in the pattern's own proportions
// where those of the sheet do not fold exactly.
func EffectOf(p *sequence.Pattern, w, h, gsm, thicknessMM float64, q sheet.Squareness) (Effect, error) {
	var v Effect
	meant, err := sheet.New(w, h, gsm, thicknessMM)
	if err != nil {
		return v, err
	}
	exact := p.Run(meant, nil)
	if exact.Err != nil {
		if meant, err = sheet.New(w, w*p.HeightMM/p.WidthMM, gsm, thicknessMM); err != nil {
			return v, err
		}
		exact = p.Run(meant, nil)
	}
	if exact.Err != nil {
		v.Why = fold.As(exact.Err).Told()
		return v, nil
	}
	meant = exact.Sheet // folded as if it had the proportions that are needed
	off := meant.HeightMM - h
	if q.Square() {
		q.OffDeg = 0 // its corners miss by no more than a fold does
	}
	skewed, err := sheet.Skewed(w, h, q.OffDeg, gsm, thicknessMM)
	if err != nil {
		return v, err
	}
	if real := p.Despite(skewed, nil); real.Err == nil {
		v.Misfits, v.Real = Misfits(exact, real), real
	} else {
		v.Misfits, v.Real, v.Estimated = MisfitsAbout(exact, skewed), exact, true
	}
	v.OffMM = math.Max(math.Abs(off), math.Max(q.MissWideMM, q.MissHighMM))
	// Back to a rectangle, and to the pattern's proportions where it insists on them.
	v.TrimWMM, v.TrimHMM = q.TrimWidthMM, q.TrimHighMM
	if q.OffDeg == 0 {
		v.TrimWMM, v.TrimHMM = w, h
	}
	if !p.Takes(v.TrimHMM / v.TrimWMM) {
		t := sheet.SameRatio(v.TrimWMM, v.TrimHMM, meant.WidthMM*1e3, meant.HeightMM*1e3)
		v.TrimWMM, v.TrimHMM = t.WidthMM, t.HeightMM
	}
	v.OffWMM, v.OffHMM = w-v.TrimWMM, h-v.TrimHMM
	v.Trim = math.Max(v.OffWMM, v.OffHMM) > leastTrimMM
	return v, nil
}

var edgeWords = []string{"lower", "right", "upper", "left"}

// Words name the edges of a misfit.
func (m Misfit) Words() string {
	a, b := edgeWords[m.Edges[0]%4], edgeWords[m.Edges[1]%4]
	if a == b {
		return fmt.Sprintf("the two halves of the %s edge", a)
	}
	return fmt.Sprintf("the %s edge and the %s edge", a, b)
}
