// Package sheet knows the paper before the first fold: its outline, weight,
// thickness and the sizes people have in the drawer.
//
// In words: a sheet lies on the table with its front side up, bottom-left corner
// at the origin; its corners are BL, BR, TR and TL as one looks at it.
package sheet

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"tussock/internal/geom"
	"tussock/internal/given"
	"tussock/internal/say"
)

// MMPerInch is exact by definition of the inch.
const MMPerInch = 25.4

// Range is an allowed interval with the unit it is meant in.
type Range struct {
	Min, Max float64
	Unit     string
}

// Holds tells whether v is an ordinary number within the range.
func (r Range) Holds(v float64) bool { return !math.IsNaN(v) && v >= r.Min && v <= r.Max }

func (r Range) String() string { return say.Between(r.Min, r.Max, r.Unit, 3) }

// What a person can fold by hand; wider values are slips of the pen or unit.
var (
	SideRange      = Range{20, 2000, "mm"}
	GSMRange       = Range{10, 600, "g/m²"}
	ThicknessRange = Range{0.01, 2, "mm"}
)

// Ordinary copying paper, when nobody has said which: weight, thickness of a layer, and
// the colours of its faces.
const (
	PlainGSM         = 80.0
	PlainThicknessMM = 0.1
	PlainFront       = "#fdf8ea"
	PlainBack        = "#b5c9c4"
)

// Sheet is the piece actually folded. Values are immutable once made by New.
type Sheet struct {
	WidthMM     float64
	HeightMM    float64
	GSM         float64 // mass of a square metre in g, "paper weight"
	ThicknessMM float64 // of one layer
	Shape       *Shape  // nil for the whole rectangle
}

// Plain is the size of ordinary paper: width and height of an upright A4, mm.
func Plain() (widthMM, heightMM float64) { return 210, 297 }

// New checks a rectangular sheet. Errors are *given.Error with the fields
// width_mm, height_mm, gsm, thickness_mm.
func New(widthMM, heightMM, gsm, thicknessMM float64) (Sheet, error) {
	for _, c := range []struct {
		field string
		v     float64
		r     Range
	}{
		{"width_mm", widthMM, SideRange}, {"height_mm", heightMM, SideRange},
		{"gsm", gsm, GSMRange}, {"thickness_mm", thicknessMM, ThicknessRange},
	} {
		if !c.r.Holds(c.v) {
			return Sheet{}, &given.Error{Field: c.field, Value: Number(c.v), Want: c.r.String()}
		}
	}
	return Sheet{WidthMM: widthMM, HeightMM: heightMM, GSM: gsm, ThicknessMM: thicknessMM}, nil
}

// Ratio is height over width.
func (s Sheet) Ratio() float64 { return s.HeightMM / s.WidthMM }

// Outline is the sheet counter-clockwise, a rectangle from BL.
func (s Sheet) Outline() geom.Polygon {
	if s.Shape != nil {
		return s.Shape.Corners
	}
	return geom.Polygon{{}, {X: s.WidthMM}, {X: s.WidthMM, Y: s.HeightMM}, {Y: s.HeightMM}}
}

// AreaMM2 is the area of one face in mm².
func (s Sheet) AreaMM2() float64 { return s.Outline().Area() }

// MassG is the mass in grams: area in m² times g/m².
func (s Sheet) MassG() float64 { return s.AreaMM2() * 1e-6 * s.GSM }

// Size is a known size of paper.
type Size struct {
	ID, Name          string
	WidthMM, HeightMM float64
}

// Sizes are the sizes offered by name. Letter is 8 1/2 × 11 in.
var Sizes = []Size{
	{"a4", "A4", 210, 297},
	{"letter", "Letter", 8.5 * MMPerInch, 11 * MMPerInch},
	{"six-inch", "6 in square", 6 * MMPerInch, 6 * MMPerInch},
	{"square-150", "15 cm square", 150, 150},
	{"square-100", "10 cm square", 100, 100},
	// The widest strips that fold into ten equal triangles: 6.35 widths long.
	{"strip-a4", "Strip off A4", 46.8, 297},
	{"strip-letter", "Strip off Letter", 44, 11 * MMPerInch},
}

// Usual are how many sizes of Sizes, the first, patterns are usually written for.
const Usual = 3

// nearMM is how near a size must come to a known one to be asked about.
const nearMM = 15.0

// tinyMM is the longer side below which a sheet is more likely one of another unit.
const tinyMM = 60.0

// Meant is a known size that a typed one may stand for.
type Meant struct {
	Size
	Unit  string // in which the typed numbers come near it
	Lying bool   // the other way round
}

// Near lists the known sizes that a typed size may stand for, the nearest first: those
// within 15 mm, either way round, in the unit given; and, where the numbers make no
// sheet in that unit, or a tiny one, those that they come near in another. A size that is known
// already stands for itself.
func Near(width, height float64, unit string) []Meant {
	type found struct {
		Meant
		off float64
	}
	var all []found
	for _, u := range []string{unit, "mm", "cm", "in"} {
		w, err1 := ToMM(width, u)
		h, err2 := ToMM(height, u)
		if err1 != nil || err2 != nil {
			return nil
		}
		makesASheet := SideRange.Holds(w) && SideRange.Holds(h)
		if u == unit && makesASheet && (NameOf(w, h) != "" || NameOf(h, w) != "") {
			return nil
		}
		if makesASheet {
			for _, s := range Sizes {
				for _, lying := range []bool{false, true} {
					a, b := s.WidthMM, s.HeightMM
					if lying {
						a, b = b, a
					}
					off := math.Max(math.Abs(w-a), math.Abs(h-b))
					if off <= nearMM && (!lying || a != b) {
						all = append(all, found{Meant{s, u, lying}, off})
					}
				}
			}
			if u == unit && math.Max(w, h) >= tinyMM {
				break // the numbers make sense as they are
			}
		}
	}
	slices.SortStableFunc(all, func(a, b found) int { return cmp.Compare(a.off, b.off) })
	var out []Meant
	for _, f := range all {
		if !slices.ContainsFunc(out, func(m Meant) bool { return m.ID == f.ID }) {
			out = append(out, f.Meant)
		}
	}
	return out
}

// NameOf is the name of a known size, or "" for a size of one's own.
func NameOf(widthMM, heightMM float64) string {
	for _, s := range Sizes {
		if math.Abs(s.WidthMM-widthMM) < 0.05 && math.Abs(s.HeightMM-heightMM) < 0.05 {
			return s.Name
		}
	}
	return ""
}

// ToMM converts a length in the given unit ("mm", "cm" or "in").
func ToMM(v float64, unit string) (float64, error) {
	switch unit {
	case "mm":
		return v, nil
	case "cm":
		return v * 10, nil
	case "in":
		// 8.5 in is 215.9 mm, not 215.89999999999998.
		return math.Round(v*MMPerInch*1e9) / 1e9, nil
	}
	return 0, &given.Error{Field: "unit", Value: strconv.Quote(unit), Want: `"mm", "cm" or "in"`}
}

// ParseSize reads "210x297", "8.5x11in", "21x29.7cm" or the name of a known
// size, and gives width and height in mm. A bare number is millimetres.
func ParseSize(text string) (widthMM, heightMM float64, err error) {
	t := strings.ToLower(strings.TrimSpace(text))
	for _, s := range Sizes {
		if t == s.ID || t == strings.ToLower(s.Name) {
			return s.WidthMM, s.HeightMM, nil
		}
	}
	bad := &given.Error{Field: "sheet", Value: strconv.Quote(text), Want: `like 210x297, 8.5x11in, A4 or letter`}
	unit, given := "mm", false
	for _, u := range []string{"mm", "cm", "in"} {
		if rest, ok := strings.CutSuffix(t, u); ok {
			t, unit, given = strings.TrimSpace(rest), u, true
			break
		}
	}
	w, h, ok := strings.Cut(strings.ReplaceAll(t, "×", "x"), "x")
	if !ok {
		return 0, 0, bad
	}
	x, err1 := strconv.ParseFloat(strings.TrimSpace(w), 64)
	y, err2 := strconv.ParseFloat(strings.TrimSpace(h), 64)
	if err1 != nil || err2 != nil {
		return 0, 0, bad
	}
	if !given && !(SideRange.Holds(x) && SideRange.Holds(y)) {
		bad.Want = "a size with its unit, like 21x29.7cm or 8.5x11in"
		if near := Near(x, y, unit); len(near) > 0 {
			bad.Want += fmt.Sprintf("; in %s it would be near %s", near[0].Unit, near[0].Name)
		}
		return 0, 0, bad
	}
	if x, err = ToMM(x, unit); err != nil {
		return 0, 0, err
	}
	y, err = ToMM(y, unit)
	return x, y, err
}

// Number is how a number is written in messages: up to three decimals, no
// trailing zeros.
func Number(v float64) string {
	if math.IsNaN(v) || math.IsInf(v, 0) {
		return strconv.FormatFloat(v, 'g', -1, 64)
	}
	s := strings.TrimRight(strings.TrimRight(strconv.FormatFloat(v, 'f', 3, 64), "0"), ".")
	if s == "-0" {
		return "0"
	}
	return s
}
