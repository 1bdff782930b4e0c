package body_test

import (
	"fmt"
	"os"
	"path/filepath"
	"testing"

	"tussock/internal/body"
	"tussock/internal/foldtest"
)

func TestDbg(t *testing.T) {
	for _, dir := range []string{"../shelf/*.pattern", "../foldtest/toys/*.pattern"} {
		files, _ := filepath.Glob(dir)
		for _, f := range files {
			text, _ := os.ReadFile(f)
			r := foldtest.Fold(t, string(text))
			p := body.Standing(r)
			fmt.Println(filepath.Base(f), len(p.State.F), "residual", p.Residual, len(r.Openings), len(r.Bends), len(r.Parts), len(r.Pivots))
		}
	}
}
