// Package internal holds only the test of who may import whom.
package internal

import (
	"os/exec"
	"slices"
	"strings"
	"testing"
)

// core packages compute and know nothing of HTTP, SQL or pages. Each may import
// only the others named with it.
var core = map[string][]string{
	"geom":          {},
	"sheet":         {"geom"},
	"sheet/cutting": {"geom", "sheet"},
	"sheet/divide":  {"geom"},
	"fold/layers":   {"geom"},
	"fold":          {"geom", "sheet", "fold/layers"},
	"fold/steps":    {"geom", "sheet", "fold/layers", "fold"},
	"fold/layermap": {"geom", "sheet", "fold/layers", "fold"},
	"sequence":      {"geom", "sheet", "fold/layers", "fold", "fold/steps"},
	"fold/shadow":   {"geom", "sheet", "fold/layers", "fold", "fold/steps", "sequence"},
	"prepare":       {"geom", "sheet", "fold/layers", "fold", "fold/steps", "fold/layermap", "fold/shadow", "sequence"},
	"prints":        {"geom", "sheet", "sheet/divide", "fold/layers", "fold", "fold/steps", "fold/layermap", "fold/shadow", "sequence", "body", "draw"},
	"shelf":         {"geom", "sheet", "fold/layers", "fold", "fold/steps", "sequence"},
	"body":          {"geom", "sheet", "fold/layers", "fold", "fold/steps", "fold/layermap", "sequence"},
	"care":          {"geom", "sheet", "fold/layers", "fold", "fold/steps", "fold/shadow", "sequence"},
	"draw":          {"geom", "sheet", "sheet/divide", "fold/layers", "fold", "fold/steps", "fold/layermap", "fold/shadow", "sequence", "body"},
	"motion":        {},
	"motion/toys":   {"geom", "sheet", "fold/layers", "fold", "fold/steps", "sequence", "motion"},
	"motion/glide":  {"geom", "sheet", "fold/layers", "fold", "fold/steps", "fold/layermap", "sequence", "body", "motion", "motion/toys"},
	"motion/hop":    {"geom", "sheet", "fold/layers", "fold", "fold/steps", "fold/layermap", "sequence", "body", "motion", "motion/toys"},
	"ways":          {"geom", "sheet", "fold/layers", "fold", "fold/steps", "fold/layermap", "sequence", "body", "motion", "motion/toys", "motion/glide", "motion/hop"},
	"tune":          {"motion"},
	"fit":           {},
	"exchange":      {"geom", "sheet", "fold/layers", "fold", "fold/steps", "sequence"},
	"bench":         {"geom", "sheet", "motion"},
}

// outside are parts of package paths that have no place in the core.
var outside = []string{"net/http", "database/sql", "sqlx", "sqlite", "gin-gonic", "huma", "html/template", "chromedp", "os/exec"}

func TestCoreStaysApart(t *testing.T) {
	for name, allowed := range core {
		out, err := exec.CommandContext(t.Context(), "go", "list", "-deps", "-f", "{{.ImportPath}}", "./"+name).Output()
		if err != nil {
			t.Fatalf("go list %s: %v", name, err)
		}
		for _, dep := range strings.Fields(string(out)) {
			if own, ok := strings.CutPrefix(dep, "tussock/"); ok {
				pkg := strings.TrimPrefix(own, "internal/")
				if pkg != name && !slices.Contains(allowed, pkg) {
					t.Errorf("%s imports %s", name, dep)
				}
			}
			for _, o := range outside {
				if strings.Contains(dep, o) {
					t.Errorf("%s imports %s", name, dep)
				}
			}
		}
	}
}

// Every package is either core or one of the known leaves, so that a new one
// cannot slip past the rule above.
func TestEveryPackageIsPlaced(t *testing.T) {
	out, err := exec.CommandContext(t.Context(), "go", "list", "./...").Output()
	if err != nil {
		t.Fatal(err)
	}
	leaves := []string{"foldtest", "store", "web", "demo", "e2e"}
	for _, p := range strings.Fields(string(out)) {
		name := strings.TrimPrefix(p, "tussock/internal/")
		if _, isCore := core[name]; !isCore && !slices.Contains(leaves, name) && p != "tussock/internal" {
			t.Errorf("%s is neither core nor a known leaf", p)
		}
	}
}
