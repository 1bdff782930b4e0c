package fit

import (
	"fmt"
	"math"

	"tussock/internal/order"
	"tussock/internal/say"
)

// OtherSizes are what to think of beside the sizes that there are, as parts of the sheet
// in hand: half its sides, half its area, itself, twice its area.
var OtherSizes = []float64{0.5, 1 / math.Sqrt2, 1, math.Sqrt2}

// Size is one size of a pattern: of a build that there is, or one to think of.
type Size struct {
	Name     string // of the build; empty for a size to think of
	Here     bool   // the build in hand
	WidthMM  float64
	HeightMM float64
	LengthMM float64   // of the finished toy
	Comes    float64   // what it is predicted to come to; 0 when it cannot be folded
	Log      []float64 // what was read off trials of it
}

// SizesSay compares what was measured of the smallest and the largest size, and says
// which size is predicted to come to most.
func SizesSay(sizes []Size) string { return measuredSizes(sizes) + bestSize(sizes) }

func measuredSizes(sizes []Size) string {
	var small, large *Size
	for i := range sizes {
		s := &sizes[i]
		if len(s.Log) < Fewest {
			continue
		}
		if small == nil || s.WidthMM < small.WidthMM {
			small = s
		}
		if large == nil || s.WidthMM > large.WidthMM {
			large = s
		}
	}
	if small == nil || large.WidthMM < 1.05*small.WidthMM {
		return "Log at least three trials of builds of this pattern at two sizes to see what size does. "
	}
	c := Compare(large.Log, small.Log)
	ratio := order.Median(small.Log) / order.Median(large.Log)
	predicted := math.Abs(small.Comes) / math.Max(1e-9, math.Abs(large.Comes))
	out := fmt.Sprintf("Measured: %s, on a sheet %s wide, comes to %.1f times what %s does on %s (n = %d, %d); predicted %.1f times. For its own length that is %.1f times. ",
		small.Name, say.MM(small.WidthMM, 0), ratio, large.Name, say.MM(large.WidthMM, 0), c.After, c.Before, predicted, ratio*large.LengthMM/math.Max(1e-9, small.LengthMM))
	better := ""
	switch c.Verdict {
	case Better:
		better = "smaller"
	case Worse:
		better = "larger"
	default:
		return out + "The trials do not tell them apart. "
	}
	return out + fmt.Sprintf("The %s one does better, and mere scatter gives as much in %.0f of 100 cases. ", better, math.Max(1, 100*c.Chance))
}

func bestSize(sizes []Size) string {
	var best *Size
	for i := range sizes {
		if s := &sizes[i]; s.Comes != 0 && (best == nil || math.Abs(s.Comes) > math.Abs(best.Comes)) {
			best = s
		}
	}
	if best == nil {
		return ""
	}
	which := fmt.Sprintf("a sheet of %s by %s", say.MM(best.WidthMM, 0), say.MM(best.HeightMM, 0))
	if best.Here {
		which = "this build's own"
	} else if best.Name != "" {
		which = "that of " + best.Name
	}
	return fmt.Sprintf("Of the sizes here %s is predicted to come to most.", which)
}
