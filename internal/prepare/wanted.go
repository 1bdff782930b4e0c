package prepare

import (
	"fmt"
	"math"

	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sequence/remarks"
	"tussock/internal/sheet"
)

// For is a sheet that would do for a pattern, with words.
type For struct {
	Words string
	Want  Want
}

// Proportions is the stretch of height over width in which a pattern can be folded at a
// sheet's width: what was found by folding, within what the pattern asks for. Both are 0
// when none was found.
func Proportions(p *sequence.Pattern, f remarks.Fit) (lo, hi float64) {
	if f.Ratio != nil {
		lo, hi = f.Ratio.Min, f.Ratio.Max
	}
	if hi > 0 && p.MinRatio > 0 {
		lo, hi = math.Max(lo, p.MinRatio), math.Min(hi, p.MaxRatio)
	}
	if hi < lo || hi == 0 {
		return 0, 0
	}
	return lo, hi
}

// Turned tells whether a pattern can be folded from a sheet turned a quarter.
func Turned(p *sequence.Pattern, have sheet.Sheet, knobs map[string]float64) bool {
	if have.Shape != nil || have.WidthMM == have.HeightMM {
		return false
	}
	have.WidthMM, have.HeightMM = have.HeightMM, have.WidthMM
	return p.Run(have, knobs).Err == nil
}

// leastToCutMM and mostToTrimMM bound what scissors take off an edge: less is not cut
// straight, more is a strip that is got by folding.
const leastToCutMM, mostToTrimMM = 0.3, 12.0

// trimmed is the sheet that is right with one cut along an edge, where that is all.
func trimmed(p *sequence.Pattern, have sheet.Sheet) (For, bool) {
	t := sheet.SameRatio(have.WidthMM, have.HeightMM, p.WidthMM*1e3, p.HeightMM*1e3)
	w, h := have.WidthMM-t.WidthMM, have.HeightMM-t.HeightMM
	off, edge := h, "upper edge"
	if w > h {
		off, edge = w, "right edge"
	}
	if off < leastToCutMM || off > mostToTrimMM || math.Min(w, h) > 1e-6 {
		return For{}, false
	}
	return For{fmt.Sprintf("Trim %s off its %s", say.MM(off, 1), edge), Want{Kind: Size, WidthMM: t.WidthMM, HeightMM: t.HeightMM}}, true
}

// Sheets are those that would do for a pattern and can be had from a sheet, those that
// lose least first; lo and hi are the proportions that fold.
func Sheets(p *sequence.Pattern, have sheet.Sheet, lo, hi float64) []For {
	var out []For
	own := p.HeightMM / p.WidthMM
	if f, one := trimmed(p, have); one && !p.Takes(p.AsFolded(have).Ratio()) {
		out = append(out, f)
	}
	if math.Abs(own-1) < 1e-6 {
		return append(out, For{"The largest square", Want{Kind: Square}})
	}
	// The nearest proportions that fold, when these do not.
	if q := have.Ratio(); lo > 0 && (q < lo || q > hi) {
		if lying := 1 / q; lying >= lo && lying <= hi {
			out = append(out, For{"The same sheet, the other way round", Want{Kind: Size, WidthMM: have.HeightMM, HeightMM: have.WidthMM}})
		}
		near := math.Min(math.Max(q, lo), hi)
		out = append(out, For{"The largest sheet that folds, " + sheet.Number(math.Round(near*1000)/1000) + " times as high as wide", Want{Kind: Ratio, Ratio: near}})
	}
	if math.Abs(have.Ratio()-own) > 1e-3 {
		out = append(out, For{"The pattern's own proportions, as large as this sheet gives", Want{Kind: Ratio, Ratio: own}})
	}
	return out
}

// Fixed is a length of a pattern in mm that does not grow with the sheet by itself.
type Fixed struct {
	Knob     string
	Label    string
	NowMM    float64
	ScaledMM float64
}

// Scale is a sheet against the one that a pattern was written for.
func Scale(p *sequence.Pattern, have sheet.Sheet) float64 {
	return math.Min(have.WidthMM/p.WidthMM, have.HeightMM/p.HeightMM)
}

// FixedLengths are the lengths of a pattern that would be others if they grew with the
// sheet. What is 0 stays 0, and a tenth of a millimetre is what can be set.
func FixedLengths(p *sequence.Pattern, knobs map[string]float64, scale float64) []Fixed {
	var out []Fixed
	for _, k := range p.Knobs {
		if k.Unit != "mm" || k.Plain || k.Implied {
			continue
		}
		now := k.Default
		if x, given := knobs[k.Name]; given {
			now = x
		}
		if scaled := math.Min(k.Max, math.Max(k.Min, math.Round(now*scale*10)/10)); now != 0 && scaled != now {
			out = append(out, Fixed{k.Name, k.Label, now, scaled})
		}
	}
	return out
}
