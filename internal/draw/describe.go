package draw

import (
	"fmt"
	"math"

	"tussock/internal/say"
	"tussock/internal/sequence"
)

// Describe is a step for somebody who cannot see the picture; the paper is then so wide
// and high, mm, and so many layers thick.
func Describe(d sequence.Done, widthMM, heightMM float64, layers int) string {
	s := fmt.Sprintf("Step %d. %s", d.No, d.Say)
	if d.Meets[0].Name != "" {
		s += fmt.Sprintf(" %s goes to %s.", say.Capital(d.Meets[0].Name), d.Meets[1].Name)
	}
	if n := d.LayersFolded(); n > 0 {
		s += fmt.Sprintf(" At most %s folded.", layersAre(n))
	}
	return s + fmt.Sprintf(" Afterwards the paper is %s, %s at its thickest.", say.By(math.Round(widthMM), math.Round(heightMM), 0), layersOf(layers))
}

func layersOf(n int) string {
	if n == 1 {
		return "1 layer"
	}
	return fmt.Sprintf("%d layers", n)
}

func layersAre(n int) string {
	if n == 1 {
		return "1 layer is"
	}
	return layersOf(n) + " are"
}
