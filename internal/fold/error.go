package fold

import (
	"errors"
	"fmt"
	"regexp"

	"tussock/internal/say"
)

// Code says what kind of thing went wrong; scripts rely on these words.
type Code string

const (
	CodeTear       Code = "tear"        // paper would have to stretch
	CodeExpect     Code = "expect"      // more or fewer layers move than the pattern says
	CodeNoLine     Code = "no_line"     // the two things cannot be brought together
	CodeBent       Code = "bent"        // a named line is no longer straight
	CodeOffPaper   Code = "off_paper"   // a landmark falls off the sheet
	CodeMissesLine Code = "misses"      // the fold line does not cross the layers meant
	CodeRequire    Code = "require"     // the sheet has the wrong proportions
	CodeKnob       Code = "knob"        // a knob is outside its range or unknown
	CodeCheck      Code = "check"       // a "looks right when" does not hold
	CodeName       Code = "name"        // a name means nothing here
	CodeSheet      Code = "sheet"       // the sheet itself is impossible
	CodeLayers     Code = "layers"      // layers would have to pass through each other
	CodeGlue       Code = "glue"        // faces that cannot be glued
	CodeOrder      Code = "order"       // a step stands before one that must come first
	CodePrecision  Code = "precision"   // a file's numbers are rounded too much
	CodeTooMany    Code = "too_complex" // more pieces than the engine takes
)

// Error is what a fold that cannot be made says. Step and Line are filled in by
// the replay (0 when unknown); Detail is a sentence for a folder that carries
// its quantities as package say has them.
type Error struct {
	Step   int    `json:"step"`
	Line   int    `json:"line"`
	Code   Code   `json:"code"`
	Detail string `json:"detail"`
	// Pieces of the state before the step that the fault is about, and the crease
	// and layer rule concerned, so that it can be said with landmarks and drawn.
	Pieces []FacetID `json:"-"`
	Crease CreaseID  `json:"-"`
	Rule   string    `json:"-"`
	GapMM  float64   `json:"-"` // by how much paper would have to open, where that is the fault
}

func (e *Error) Error() string {
	if e.Step > 0 {
		return fmt.Sprintf("step %d (line %d): %s", e.Step, e.Line, say.Plain(e.Detail))
	}
	return say.Plain(e.Detail)
}

// hints for whoever writes a pattern, which a folder has no use for.
var hints = regexp.MustCompile(`; (name|write|say|leave|take|crease|change|put|use|try|give|fold it first)\b.*$`)

// Told is the fault for a folder: without what would have to be written otherwise.
func (e *Error) Told() string { return hints.ReplaceAllString(e.Detail, "") }

// Where is Told with the step at which it happens; of a sheet that does not suit no step is
// to blame.
func (e *Error) Where() string {
	if e.Step < 1 {
		return e.Told()
	}
	return fmt.Sprintf("step %d cannot be folded: %s", e.Step, e.Told())
}

// Errorf makes an Error without a place.
func Errorf(code Code, format string, a ...any) error {
	return failure(code, format, a...)
}

func failure(code Code, format string, a ...any) *Error {
	return &Error{Code: code, Detail: fmt.Sprintf(format, a...)}
}

// As is the *Error that err is or wraps; nil when there is none, as for a nil err.
func As(err error) *Error {
	var e *Error
	if errors.As(err, &e) {
		return e
	}
	return nil
}
