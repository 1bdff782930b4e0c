package say

import (
	"strings"
	"unicode"
)

// OneLine is a text without what does not print: control characters, marks that turn the
// direction of writing, and bytes that are no letters become spaces, and several spaces one.
func OneLine(text string) string {
	return strings.Join(strings.Fields(strings.Map(func(r rune) rune {
		if unicode.IsControl(r) || r >= 0x202a && r <= 0x202e || r >= 0x2066 && r <= 0x2069 || r == unicode.ReplacementChar || r == 0xfffe || r == 0xffff {
			return ' '
		}
		return r
	}, text)), " ")
}
