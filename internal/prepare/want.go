package prepare

import (
	"fmt"
	"math"

	"tussock/internal/given"
	"tussock/internal/sheet"
)

// Kind is what shape is wanted.
type Kind string

// The shapes.
const (
	Square Kind = "square" // of side WidthMM, or the largest
	Half   Kind = "half"   // a half of the sheet, across or along
	Strip  Kind = "strip"  // WidthMM wide, as long as the sheet
	NGon   Kind = "ngon"   // N equal sides, as large as the sheet gives
	Ratio  Kind = "ratio"  // Ratio times as high as wide, as large as the sheet gives
	Size   Kind = "size"   // WidthMM by HeightMM
	Margin Kind = "margin" // strips of the edges come off
)

// Kinds are all of them.
var Kinds = []Kind{Square, Half, Strip, NGon, Ratio, Size, Margin}

// Want is the sheet wanted.
type Want struct {
	Kind              Kind
	WidthMM, HeightMM float64
	Ratio             float64 // of height to width
	N                 int
	LeftMM, RightMM   float64 // margins
	BottomMM, TopMM   float64
}

// leastMM is the least side of what can be cut and folded.
var leastMM = sheet.SideRange.Min

// Impossible says why a sheet cannot give what is wanted, and what it can give.
type Impossible struct {
	Why     string
	Instead Want // Kind "" when there is nothing near
}

func (e *Impossible) Error() string { return e.Why }

func impossible(instead Want, format string, a ...any) error {
	return &Impossible{fmt.Sprintf(format, a...), instead}
}

// number is a length in a sentence, to a hundredth.
func number(v float64) string { return sheet.Number(math.Round(v*100) / 100) }

// check refuses what no sheet can give. The sheet lies as it is given.
func (w Want) check(s sheet.Sheet) error {
	bad := func(field string, v float64, want string) error {
		return &given.Error{Field: field, Value: sheet.Number(v), Want: want}
	}
	short, long := math.Min(s.WidthMM, s.HeightMM), math.Max(s.WidthMM, s.HeightMM)
	switch w.Kind {
	case Square:
		if w.WidthMM != 0 && !(w.WidthMM >= leastMM) {
			return bad("width_mm", w.WidthMM, fmt.Sprintf("%s mm or more, or 0 for the largest square", number(leastMM)))
		}
		if w.WidthMM > short+1e-9 {
			return impossible(Want{Kind: Square}, "a square of %s mm cannot be cut from this sheet: its short edge is %s mm. The largest square has %s mm", number(w.WidthMM), number(short), number(short))
		}
	case Half:
		if long/2 < leastMM {
			return impossible(Want{}, "half of this sheet is %s mm high; nothing under %s mm can be folded", number(long/2), number(leastMM))
		}
	case Strip:
		if !(w.WidthMM >= leastMM/2) {
			return bad("width_mm", w.WidthMM, fmt.Sprintf("%s mm or more", number(leastMM/2)))
		}
		if w.WidthMM > short {
			return impossible(Want{Kind: Strip, WidthMM: short}, "a strip %s mm wide cannot be cut from this sheet: its short edge is %s mm", number(w.WidthMM), number(short))
		}
	case NGon:
		if w.N < 3 || w.N > 8 {
			return bad("n", float64(w.N), "3 to 8 corners")
		}
	case Ratio:
		if !(w.Ratio >= 0.1 && w.Ratio <= 10) {
			return bad("ratio", w.Ratio, "0.1 to 10 times as high as wide")
		}
	case Size:
		for _, f := range []struct {
			name string
			v    float64
		}{{"width_mm", w.WidthMM}, {"height_mm", w.HeightMM}} {
			if !sheet.SideRange.Holds(f.v) {
				return bad(f.name, f.v, sheet.SideRange.String())
			}
		}
		a, b := math.Min(w.WidthMM, w.HeightMM), math.Max(w.WidthMM, w.HeightMM)
		if a > short+1e-9 || b > long+1e-9 {
			side, need, have := "wide", a, short
			if a <= short+1e-9 {
				side, need, have = "long", b, long
			}
			t := sheet.SameRatio(short, long, a, b)
			return impossible(Want{Kind: Size, WidthMM: t.WidthMM, HeightMM: t.HeightMM},
				"%s × %s mm cannot be cut from this sheet: it would be %s mm %s, and there are %s mm. The largest sheet of the same proportions is %s × %s mm, %s %% of the size",
				number(a), number(b), number(need), side, number(have), number(t.WidthMM), number(t.HeightMM), number(100*t.Scale))
		}
	case Margin:
		total := 0.0
		for _, f := range []struct {
			name string
			v    float64
		}{{"left_mm", w.LeftMM}, {"right_mm", w.RightMM}, {"bottom_mm", w.BottomMM}, {"top_mm", w.TopMM}} {
			if !(f.v >= 0) || f.v > 0 && f.v < 1 {
				return bad(f.name, f.v, "0, or 1 mm or more")
			}
			total += f.v
		}
		if total == 0 {
			return bad("left_mm", 0, "1 mm or more, for at least one edge")
		}
		if x, y := s.WidthMM-w.LeftMM-w.RightMM, s.HeightMM-w.BottomMM-w.TopMM; x < leastMM || y < leastMM {
			return impossible(Want{}, "after that %s × %s mm are left; a sheet needs at least %s mm each way", number(x), number(y), number(leastMM))
		}
	default:
		return &given.Error{Field: "kind", Value: fmt.Sprintf("%q", w.Kind), Want: fmt.Sprintf("one of %v", Kinds)}
	}
	return nil
}
