package web_test

import (
	"encoding/json"
	"testing"

	"tussock/internal/web/motions"
)

// drawn reads a drawing that is of one kind.
func drawn[T any](t *testing.T, v *motions.DrawingView, kind string) T {
	t.Helper()
	var out T
	if v == nil || v.Kind != kind {
		t.Fatalf("%+v is no %s", v, kind)
	}
	data, err := json.Marshal(v.Data)
	if err != nil {
		t.Fatal(err)
	}
	if err := json.Unmarshal(data, &out); err != nil {
		t.Fatal(err)
	}
	return out
}
