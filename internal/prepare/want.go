package prepare

import (
	"fmt"
	"math"

	"tussock/internal/given"
	"tussock/internal/say"
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

func (e *Impossible) Error() string { return say.Plain(e.Why) }

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
			return bad("width_mm", w.WidthMM, fmt.Sprintf("%s or more, or 0 for the largest square", say.MM(leastMM, 1)))
		}
		if w.WidthMM > short+1e-9 {
			return impossible(Want{Kind: Square}, "a square of %s cannot be cut from this sheet: its short edge is %s. The largest square has %s", say.MM(w.WidthMM, 1), say.MM(short, 1), say.MM(short, 1))
		}
	case Half:
		if long/2 < leastMM {
			return impossible(Want{}, "half of this sheet is %s high; nothing under %s can be folded", say.MM(long/2, 1), say.MM(leastMM, 1))
		}
	case Strip:
		if !(w.WidthMM >= leastMM/2) {
			return bad("width_mm", w.WidthMM, fmt.Sprintf("%s or more", say.MM(leastMM/2, 1)))
		}
		if w.WidthMM > short {
			return impossible(Want{Kind: Strip, WidthMM: short}, "a strip %s wide cannot be cut from this sheet: its short edge is %s", say.MM(w.WidthMM, 1), say.MM(short, 1))
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
				"%s cannot be cut from this sheet: it would be %s %s, and there are %s. The largest sheet of the same proportions is %s, %s %% of the size",
				say.By(a, b, 1), say.MM(need, 1), side, say.MM(have, 1), say.By(t.WidthMM, t.HeightMM, 1), number(100*t.Scale))
		}
	case Margin:
		total := 0.0
		for _, f := range []struct {
			name string
			v    float64
		}{{"left_mm", w.LeftMM}, {"right_mm", w.RightMM}, {"bottom_mm", w.BottomMM}, {"top_mm", w.TopMM}} {
			if !(f.v >= 0) || f.v > 0 && f.v < 1 {
				return bad(f.name, f.v, "0, or "+say.MM(1, 0)+" or more")
			}
			total += f.v
		}
		if total == 0 {
			return bad("left_mm", 0, say.MM(1, 0)+" or more, for at least one edge")
		}
		if x, y := s.WidthMM-w.LeftMM-w.RightMM, s.HeightMM-w.BottomMM-w.TopMM; x < leastMM || y < leastMM {
			return impossible(Want{}, "after that %s are left; a sheet needs at least %s each way", say.By(x, y, 1), say.MM(leastMM, 1))
		}
	default:
		return &given.Error{Field: "kind", Value: fmt.Sprintf("%q", w.Kind), Want: fmt.Sprintf("one of %v", Kinds)}
	}
	return nil
}
