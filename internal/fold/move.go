package fold

import "tussock/internal/geom"

// Move is one motion of a step, from a state to the next. Lines are the lines
// that it creases, in the folded plane before it or, with OnSheet, on the sheet.
type Move struct {
	Before, After *State
	Lines         []geom.Line
	OnSheet       bool
	Loose         bool // nothing is creased by hand in this motion: no error enters
}
