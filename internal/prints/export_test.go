package prints

import (
	"image"
	"testing"

	"tussock/internal/geom"
)

// What tests from outside look at: they use the shelf, which knows this package.
func Paragraph(text string, width, size float64) []string { return paragraph(text, width, size) }

func AtMost(lines int, text string, width, size float64) []string {
	return atMost(lines, text, width, size)
}

func WideMM(text string, size float64) float64 { return wideMM(text, size) }

func Rendered(t *testing.T, leaves []Leaf) []*image.Gray { return rendered(t, leaves) }

func Rect(w, h float64) geom.Polygon { return rect(w, h) }
