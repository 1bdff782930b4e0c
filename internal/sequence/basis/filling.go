package basis

import (
	"math"
	"strings"

	"tussock/internal/say"
)

// none is a number of which nothing is said.
const none = 0.05

// Filling puts a number into words, where text stands in them: written in its unit, or, when
// says is given, those words unless the number is 0.
func Filling(text, says string, v float64, unit string) *strings.Replacer {
	switch {
	case says != "" && math.Abs(v) < none:
		return strings.NewReplacer(" "+text, "", text, "")
	case says != "":
		return strings.NewReplacer(text, says)
	}
	decimals := 1
	if unit == "" {
		decimals = 2
	}
	return strings.NewReplacer(text, say.Value(v, unit, decimals))
}
