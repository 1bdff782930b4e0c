package basis

import "tussock/internal/geom"

// Mark is a thing that meets another in a fold: a point, or a stretch of a line.
// Coordinates are in the folded plane before the step.
type Mark struct {
	Name  string
	At    geom.Vec
	Line  bool
	Along geom.Segment
}

// PointMark is a point that meets another.
func PointMark(name string, at geom.Vec) Mark { return Mark{Name: name, At: at} }

// LineMark is a stretch of a line that meets another.
func LineMark(name string, s geom.Segment) Mark {
	return Mark{Name: name, At: s.Mid(), Line: true, Along: s}
}

// Points are the built-in landmarks of a rectangular sheet, as people call them.
var Points = map[string]string{
	"BL": "the bottom left corner", "BR": "the bottom right corner",
	"TR": "the top right corner", "TL": "the top left corner",
	"B": "the middle of the bottom edge", "R": "the middle of the right edge",
	"T": "the middle of the top edge", "L": "the middle of the left edge",
	"C": "the middle of the sheet",
}

// Lines are the built-in lines of a rectangular sheet, as people call them.
var Lines = map[string]string{
	"left": "the left edge", "right": "the right edge", "top": "the top edge", "bottom": "the bottom edge",
	"hcentre": "the line across the middle", "vcentre": "the upright middle line",
}
