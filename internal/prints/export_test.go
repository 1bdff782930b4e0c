package prints

import (
	"image"
	"testing"
	"tussock/internal/geom"
)

// What tests from outside look at: they use the shelf, which knows this package.
const LetterPart = letterPart

func Paragraph(text string, width int) []string { return paragraph(text, width) }

func Rendered(t *testing.T, leaves []Leaf) []*image.Gray { return rendered(t, leaves) }

func Rect(w, h float64) geom.Polygon { return rect(w, h) }
