// Package exchange reads and writes the open formats: the FOLD interchange JSON
// for crease patterns and folded states, SVG and DXF of the crease map at true
// size, and a JSON bundle of a pattern with its knobs.
//
// In words: a crease pattern is a drawing of the flat sheet with a line for every
// fold; a folded state also says where each piece lies and which lies on which.
//
// Lengths are mm. What is read is checked before anything is built: sizes are
// bounded, numbers must be ordinary, and an error names the field and what would
// be right (*given.Error), or the fold that cannot be (error).
package exchange
