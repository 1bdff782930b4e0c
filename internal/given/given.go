// Package given is the one way in which something given is refused: its field, its value
// and what would be right.
package given

import (
	"fmt"
	"strconv"

	"tussock/internal/say"
)

// Error names the field, the value and what would be right. Want carries its quantities
// as package say has them.
type Error struct {
	Field string
	Value any
	Want  string
	// Said is what is given as people say it, field and value, where the field's own name
	// and the bare value would not do: "the rope is 12 cm".
	Said string
}

// Error says it in millimetres; what is told to people is Words.
func (e *Error) Error() string { return say.Plain(e.Words()) }

// Words are the sentence for people.
func (e *Error) Words() string {
	if e.Said != "" {
		return e.Said + "; it must be " + e.Want
	}
	v := fmt.Sprint(e.Value)
	if n, ok := e.Value.(float64); ok {
		v = strconv.FormatFloat(n, 'f', -1, 64)
	}
	return fmt.Sprintf("%s is %s; it must be %s", e.Field, v, e.Want)
}
