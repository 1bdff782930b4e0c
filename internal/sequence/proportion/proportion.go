// Package proportion says which sheets a pattern takes, by how many times they are as high
// as wide, and what becomes of those that are nearly right.
package proportion

import (
	"fmt"
	"math"

	"tussock/internal/say"
	"tussock/internal/sheet"
)

// Need is what a pattern asks of its sheet: height over width, from Min to Max, and its
// own. Min is 0 when nothing is required.
type Need struct {
	Title         string
	Min, Max, Own float64
}

const (
	// NearMM is how far the height of a sheet may be from the pattern's own proportions and
	// be folded as if it had them: two standard deviations of a torn edge, the least exact
	// that a sheet is got by (prepare.Route.ErrorMM).
	NearMM = 1.5
	// narrow is a range that is one proportion, with what rounding needs.
	narrow = 0.015
	// same is how much two proportions may differ by rounding.
	same = 1e-9
	// leastOffMM is less than anybody sees of a sheet.
	leastOffMM = 0.25
)

// Takes tells whether a sheet so many times as high as wide will do.
func (n Need) Takes(ratio float64) bool {
	return n.Min == 0 || ratio >= n.Min-same && ratio <= n.Max+same
}

// Height is the height that a sheet is folded as: its own, or, where only the pattern's
// own proportions do and it is no more than NearMM off, the one that has them. Of a toy
// that needs a square nobody throws away a sheet that is a millimetre off.
func (n Need) Height(widthMM, heightMM float64) float64 {
	h := widthMM * n.Own
	if n.Min > 0 && math.Abs(h-heightMM) <= NearMM && (n.Max-n.Min < narrow || !n.Takes(heightMM/widthMM)) {
		return h
	}
	return heightMM
}

// Nearly says of a sheet so many mm higher than the one it is folded as what that does;
// empty where nobody sees it. own is height over width.
func Nearly(off, own float64) string {
	if math.Abs(off) < leastOffMM {
		return ""
	}
	words, trim := "too high", "Trim that off its upper edge"
	if off < 0 {
		words, trim = "too low", "Trim "+say.MM(-off/own, 1)+" off its right edge"
	}
	return fmt.Sprintf("This sheet is %s %s for its width, and is folded all the same: what should meet at the end may miss by as much. %s first if you want it exact.", say.MM(math.Abs(off), 1), words, trim)
}

// Unlike says how a sheet that will not do differs from what is needed.
func (n Need) Unlike(widthMM, heightMM float64) string {
	if n.Max-n.Min >= narrow {
		return fmt.Sprintf("%s needs a sheet between %s and %s times as high as wide; this one is %s times", n.Title, sheet.Number(n.Min), sheet.Number(n.Max), sheet.Number(heightMM/widthMM))
	}
	needs, than := "from a square", "wide"
	if math.Abs(n.Own-1) > narrow {
		needs, than = fmt.Sprintf("from a sheet %s times as high as wide", sheet.Number(n.Own)), "that"
	}
	off, more := heightMM-widthMM*n.Own, "higher"
	if off < 0 {
		more = "lower"
	}
	return fmt.Sprintf("%s is folded %s; this sheet is %s %s than %s", n.Title, needs, say.MM(math.Abs(off), 1), more, than)
}
