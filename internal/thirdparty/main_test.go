package main

import (
	"bytes"
	"os"
	"path/filepath"
	"strings"
	"testing"
)

// The document names what is shipped now, and every part has a licence that may be.
func TestDocumentIsOfNow(t *testing.T) {
	root := filepath.Join("..", "..")
	var now bytes.Buffer
	if err := write(t.Context(), &now, root); err != nil {
		t.Fatal(err)
	}
	kept, err := os.ReadFile(filepath.Join(root, "docs", "third-party.md"))
	if err != nil {
		t.Fatal(err)
	}
	if now.String() != string(kept) {
		t.Error("docs/third-party.md is not of now; run make third-party")
	}
	for _, want := range []string{"gin-gonic/gin", "modernc.org/sqlite", "| react |", "atkinson", "archivo"} {
		if !strings.Contains(string(kept), want) {
			t.Errorf("%s is not in it", want)
		}
	}
	for line := range strings.Lines(string(kept)) {
		f := strings.Split(line, "|")
		if len(f) < 5 || strings.TrimSpace(f[1]) == "Part" || strings.HasPrefix(f[1], "---") {
			continue
		}
		switch l := strings.TrimSpace(f[3]); l {
		case "MIT", "ISC", "Apache-2.0", "BSD-2-Clause", "BSD-3-Clause", "MPL-2.0", "OFL-1.1", "0BSD":
		default:
			t.Errorf("%s is under %q", f[1], l)
		}
	}
}
