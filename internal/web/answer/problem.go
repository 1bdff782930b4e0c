package answer

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"net/http"
	"regexp"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/bench"
	"tussock/internal/given"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/store"
)

// AsProblem turns errors of the core into the one problem shape (RFC 9457): what
// is wrong, and for a field where it stands, its value and what would be right.
func AsProblem(err error, prefix string) error {
	var wrong *given.Error
	var made huma.StatusError
	var child *bench.NeedsChild
	var odd *bench.Odd
	switch {
	case err == nil:
		return nil
	case errors.As(err, &made):
		return err
	case errors.As(err, &wrong):
		return Refuse(prefix+wrong.Field, wrong.Value, wrong.Words())
	case errors.As(err, &odd):
		return Refuse(prefix+odd.Field, nil, odd.Words)
	case errors.Is(err, store.ErrNotFound):
		return huma.Error404NotFound("this does not exist, or lies in the bin")
	case errors.Is(err, store.ErrFull):
		return huma.Error409Conflict(say.Capital(err.Error()))
	case errors.Is(err, bench.ErrNothingChanged), errors.Is(err, bench.ErrNoChild), errors.Is(err, bench.ErrNotWithdrawn), errors.Is(err, store.ErrRestoring), errors.As(err, &child):
		return huma.Error409Conflict(err.Error())
	case store.Busy(err):
		return huma.ErrorWithHeaders(huma.Error503ServiceUnavailable("Tussock is busy; try again in a moment"), http.Header{"Retry-After": {"1"}})
	case errors.Is(err, context.Canceled), errors.Is(err, context.DeadlineExceeded):
		return huma.Error503ServiceUnavailable("this was called off")
	}
	// What a database says is for whoever runs this, not for the page.
	slog.Error("could not answer", "error", err)
	return huma.Error500InternalServerError("Tussock could not do this; what it was is written where Tussock runs")
}

// Crossed is AsProblem for what moves a build of a pattern: two hands that moved the same
// thing are told what it is now, knob by knob.
func Crossed(p *sequence.Pattern, err error) error {
	var c *bench.Crossed
	if !errors.As(err, &c) {
		return AsProblem(err, "")
	}
	var details []error
	for _, x := range c.Crosses {
		d := &huma.ErrorDetail{Location: "body." + x.What, Message: "the sheet is another one now, changed elsewhere"}
		if x.What == "recipes" {
			d.Message = "how a length is found was changed elsewhere"
		}
		if place, written := strings.CutPrefix(x.What, bench.WrittenTouched+" "); written {
			d.Location, d.Message = "body.written."+place, fmt.Sprintf("what stands at %s was written elsewhere", place)
		}
		if i := p.KnobIndex(x.What); i >= 0 {
			k := p.Knobs[i]
			d.Location, d.Value = "body.knobs."+x.What, x.There
			d.Message = fmt.Sprintf("%s is %s now, moved elsewhere", k.Label, say.Value(x.There, k.Told(), 3))
			if x.Here != x.There {
				d.Message += "; here it is " + say.Value(x.Here, k.Told(), 3)
			}
		}
		details = append(details, d)
	}
	return huma.Error409Conflict(c.Error(), details...)
}

// Refuse answers that something given is wrong: where it stands, its value, and a sentence.
func Refuse(location string, value any, message string) error {
	return huma.Error422UnprocessableEntity(message, &huma.ErrorDetail{Location: location, Value: value, Message: message})
}

var jsonKey = regexp.MustCompile(`"([A-Za-z_][A-Za-z0-9_]*)"\s*:`)

// ReadJSON is how requests are decoded: as usual, but what cannot be read at all
// (NaN, 1e999, a missing quote) names the field it stands at.
func ReadJSON(data []byte, v any) error {
	err := json.Unmarshal(data, v)
	if err == nil {
		return nil
	}
	at := int64(len(data))
	var syntax *json.SyntaxError
	var kind *json.UnmarshalTypeError
	switch {
	case errors.As(err, &syntax):
		at = syntax.Offset
	case errors.As(err, &kind) && kind.Offset > 0:
		at = kind.Offset
	case errors.As(err, &kind):
		// Decoding into any gives no place; the value itself tells it.
		if i := bytes.Index(data, []byte(strings.TrimPrefix(kind.Value, "number "))); i >= 0 {
			at = int64(i)
		}
	}
	keys := jsonKey.FindAllSubmatch(data[:min(at, int64(len(data)))], -1)
	if len(keys) == 0 {
		return fmt.Errorf("the request cannot be read: %w", err)
	}
	return fmt.Errorf("%s cannot be read: %w; give an ordinary value", keys[len(keys)-1][1], err)
}

// WriteProblem answers with a problem outside of the described API.
func WriteProblem(w http.ResponseWriter, status int, detail string) {
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(status)
	// The client has gone if this fails; there is nobody to tell.
	_ = json.NewEncoder(w).Encode(huma.ErrorModel{Status: status, Title: http.StatusText(status), Detail: detail})
}
