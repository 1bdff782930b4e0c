// Package internal holds only the tests of how the house is built: who may import whom,
// how large rooms may grow, and what nobody outside of a way of moving may name.
package internal

import (
	"os/exec"
	"slices"
	"strings"
	"testing"
)

// floors are the packages of the core, which compute and know nothing of HTTP, SQL or
// pages. A package imports from the floors below its own alone.
var floors = [][]string{
	{"geom", "say", "order", "turn"},
	{"given", "fit"},
	{"packs", "pictures"},
	{"sheet", "motion"},
	{"sheet/divide", "sheet/cutting", "fold/layers", "tune", "bench", "motion/glide/air", "motion/blame", "motion/hop/leap", "motion/flap/snap", "motion/flap/papers"},
	{"fold"},
	{"fold/steps", "fold/layermap", "fold/shadow", "closure", "sequence/round", "sequence/places", "sequence/basis", "sequence/knob", "sequence/proportion"},
	{"sequence"},
	{"sequence/lang", "sequence/spread"},
	{"sequence/operations", "sequence/remarks", "sequence/manual"},
	{"body", "care", "prepare"},
	{"draw", "choose"},
	{"prints"},
	{"motion/toys"},
	{"motion/glide/craft", "motion/hop", "motion/spin/token", "motion/spin/wheel", "motion/flap/hump", "motion/reveal/teller", "motion/reveal/ring"},
	{"motion/spin/tokens", "motion/spin/wheels", "motion/flap/bird", "motion/flap/puppet", "motion/reveal/tellers", "motion/reveal/rings"},
	{"motion/glide/flight"},
	{"motion/glide"},
	{"motion/play"},
	{"motion/flap", "motion/spin", "motion/reveal"},
	{"ways"},
	{"shelf", "exchange"},
}

// only are packages that stay narrow: they import nothing of ours but these.
var only = map[string][]string{
	"geom": {}, "say": {}, "order": {}, "turn": {},
	"given":            {"say"},
	"fit":              {"order", "say"},
	"motion":           {"given", "order", "say"},
	"tune":             {"motion", "turn"},
	"motion/blame":     {},
	"motion/flap/snap": {}, "motion/flap/hump": {"motion/glide/air"},
	"motion/spin/token": {"motion/glide/air"}, "motion/spin/wheel": {"motion/glide/air"},
	"motion/reveal/teller": {"geom"}, "motion/reveal/ring": {},
	"packs": {"given", "say"}, "pictures": {"given"},
	"bench":               {"given", "motion", "order", "say", "sheet"},
	"closure":             {"fold", "geom"},
	"fold/layers":         {"geom"},
	"fold/shadow":         {"fold", "geom"},
	"fold/steps":          {"fold", "geom", "say"},
	"sequence/round":      {"geom"},
	"sequence/basis":      {"geom", "say"},
	"sequence/knob":       {"say"},
	"sequence/proportion": {"say", "sheet"},
	"sequence/places":     {"fold", "geom", "say"},
	"sheet/divide":        {"geom", "given", "say"},
	"store":               {"bench"},
}

// leaves are all others. Nothing of the core knows them; the areas of the web layer know
// web/answer, and only the wiring knows them all.
var leaves = []string{"store", "demo", "foldtest", "motion/motiontest", "motion/glide/air/airtest", "e2e", "attack", "thirdparty",
	"web", "web/answer", "web/builds", "web/files", "web/folding", "web/hall", "web/motions", "web/papers", "web/writing"}

// outside are parts of package paths that have no place in the core.
var outside = []string{"net/http", "database/sql", "sqlx", "sqlite", "gin-gonic", "huma", "html/template", "chromedp", "os/exec"}

func listed(t *testing.T, format string, args ...string) []string {
	t.Helper()
	out, err := exec.CommandContext(t.Context(), "go", append([]string{"list", "-f", format}, args...)...).Output()
	if err != nil {
		t.Fatalf("go list %v: %v", args, err)
	}
	return strings.Split(strings.TrimSpace(string(out)), "\n")
}

func TestWhoImportsWhom(t *testing.T) {
	floor := map[string]int{}
	for i, f := range floors {
		for _, p := range f {
			floor[p] = i
		}
	}
	const own = "tussock/internal/"
	for _, line := range listed(t, `{{.ImportPath}} {{join .Imports " "}}`, "./...") {
		deps := strings.Fields(line)
		name := strings.TrimPrefix(deps[0], own)
		if name == "tussock/internal" {
			continue
		}
		at, core := floor[name]
		if !core && !slices.Contains(leaves, name) {
			t.Errorf("%s stands on no floor and is no known leaf", name)
		}
		narrow, isNarrow := only[name]
		for _, d := range deps[1:] {
			d, ours := strings.CutPrefix(d, own)
			if !ours {
				continue
			}
			below, known := floor[d]
			switch {
			case isNarrow && !slices.Contains(narrow, d):
				t.Errorf("%s imports %s, and stays narrow", name, d)
			case core && !known:
				t.Errorf("%s of the core imports %s, which is a leaf", name, d)
			case core && below >= at:
				t.Errorf("%s imports %s, which does not stand below it", name, d)
			}
		}
	}
	var all []string
	for _, f := range floors {
		for _, p := range f {
			all = append(all, "./"+p)
		}
	}
	for _, dep := range listed(t, "{{.ImportPath}}", append([]string{"-deps"}, all...)...) {
		for _, o := range outside {
			if strings.Contains(dep, o) {
				t.Errorf("the core comes to %s", dep)
			}
		}
	}
}
