package web

import (
	"encoding/json"
	"errors"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"tussock/internal/bench"
	"tussock/internal/sheet"
	"tussock/internal/store"
)

// asProblem turns errors of the core into the one problem shape (RFC 9457): what
// is wrong, and for a field where it stands, its value and what would be right.
func asProblem(err error, prefix string) error {
	var field *sheet.FieldError
	var problem *bench.Problem
	var made huma.StatusError
	switch {
	case err == nil:
		return nil
	case errors.As(err, &made):
		return err
	case errors.As(err, &field):
		return refuse(prefix+field.Field, field.Value, err.Error())
	case errors.As(err, &problem):
		return refuse(prefix+problem.Field, problem.Value, err.Error())
	case errors.Is(err, store.ErrNotFound):
		return huma.Error404NotFound("this does not exist, or lies in the bin")
	case errors.Is(err, bench.ErrNothingChanged), errors.Is(err, bench.ErrNeedsChild):
		return huma.Error409Conflict(err.Error())
	}
	return huma.Error500InternalServerError("Tussock could not do this; nothing has been changed", err)
}

func refuse(location string, value any, message string) error {
	return huma.Error422UnprocessableEntity(message, &huma.ErrorDetail{Location: location, Value: value, Message: message})
}

func writeProblem(w http.ResponseWriter, status int, detail string) {
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(status)
	// The client has gone if this fails; there is nobody to tell.
	_ = json.NewEncoder(w).Encode(huma.ErrorModel{Status: status, Title: http.StatusText(status), Detail: detail})
}
