package sheet

import "math"

// Squareness is what four lengths with a ruler tell of a sheet whose opposite
// sides are parallel. Lengths mm, angles degrees.
type Squareness struct {
	OffDeg      float64 // 90 less the angle at the lower left corner
	OffByDeg    float64 // how far OffDeg may be out for the ruler's error
	MissWideMM  float64 // left edge folded to the right one: the corners miss each other by
	MissHighMM  float64 // lower edge folded to the upper one, likewise
	TrimWidthMM float64 // the largest rectangle of full height that can be trimmed from it
	TrimHighMM  float64
	MisfitMM    float64 // by how much the diagonals disagree with the sides; large when a side was misread
}

// RulerMM is how exactly a length is read off a ruler, one standard deviation:
// about a third of its marks.
const RulerMM = 0.3

// How far corners may miss each other on a sheet called square: no more than the
// fold itself is off. And how far the diagonals may disagree with the sides, five
// readings' errors, before one of them must have been misread.
const (
	squareMM  = 0.5
	misreadMM = 5 * RulerMM
)

// Square tells whether the sheet folds as if it were square-cornered.
func (q Squareness) Square() bool { return math.Max(q.MissWideMM, q.MissHighMM) <= squareMM }

// Misread tells whether sides and diagonals cannot belong to one sheet.
func (q Squareness) Misread() bool { return q.MisfitMM > misreadMM }

// Measured judges a sheet by its sides and one or both of its diagonals; rising
// goes from the lower left to the upper right corner, and 0 means not measured.
// ok is false when no sheet has such lengths. Law of cosines:
// rising² = w² + h² + 2wh sin(off), falling² = w² + h² - 2wh sin(off).
func Measured(w, h, rising, falling float64) (q Squareness, ok bool) {
	sides := w*w + h*h
	var s, reach float64
	switch {
	case rising > 0 && falling > 0:
		s = (rising*rising - falling*falling) / (4 * w * h)
		reach = RulerMM * math.Hypot(rising, falling) / (2 * w * h)
		q.MisfitMM = math.Abs(math.Sqrt((rising*rising+falling*falling)/2) - math.Sqrt(sides))
	case rising > 0:
		s = (rising*rising - sides) / (2 * w * h)
		reach = RulerMM * math.Sqrt(rising*rising+sides) / (w * h)
	case falling > 0:
		s = (sides - falling*falling) / (2 * w * h)
		reach = RulerMM * math.Sqrt(falling*falling+sides) / (w * h)
	default:
		return q, false
	}
	if math.Abs(s) > 0.5 { // no corner of a sheet is 30 degrees off
		return q, false
	}
	c := math.Sqrt(1 - s*s)
	q.OffDeg, q.OffByDeg = math.Asin(s)*180/math.Pi, math.Asin(math.Min(1, reach))*180/math.Pi
	q.MissWideMM, q.MissHighMM = w*math.Abs(s), h*math.Abs(s)
	q.TrimWidthMM, q.TrimHighMM = w-h*math.Abs(s), h*c
	return q, q.TrimWidthMM > 0
}
