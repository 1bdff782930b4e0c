package answer

import (
	"io"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"
	v1 "github.com/go-json-experiment/json/v1"
)

// WriteJSON is how answers are encoded: as usual, but a list or a map that nobody has
// filled is an empty one, never null. The API promises that, and pages go through it
// without asking.
func WriteJSON(w io.Writer, v any) error {
	return json.MarshalWrite(w, v, v1.DefaultOptionsV1(), jsontext.EscapeForHTML(false),
		json.FormatNilSliceAsNull(false), json.FormatNilMapAsNull(false))
}
