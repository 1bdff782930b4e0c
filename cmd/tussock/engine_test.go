package main

import (
	"encoding/json"
	"errors"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"tussock/internal/shelf"
)

func decoded(t *testing.T, text string) map[string]any {
	t.Helper()
	var m map[string]any
	if err := json.Unmarshal([]byte(text), &m); err != nil {
		t.Fatalf("no JSON: %v\n%.300s", err, text)
	}
	return m
}

// All the files of a replay, and the FOLD file read back by tussock orders.
func TestReplayFiles(t *testing.T) {
	dir := t.TempDir()
	at := func(n string) string { return filepath.Join(dir, n) }
	out, err := call(t, "replay", "flapper", "--json", "--svg", at("a.svg"), "--map", at("m.svg"), "--contact", at("c.svg"),
		"--fold", at("a.fold"), "--dxf", at("a.dxf"), "--bundle", at("a.json"))
	if err != nil {
		t.Fatal(err)
	}
	study := decoded(t, out)["study"].(map[string]any)
	for _, key := range []string{"outline", "layers", "pockets", "seen_from_above", "in_the_round", "warnings", "symmetry", "hidden_edges_mm"} {
		if study[key] == nil {
			t.Errorf("the study has no %q", key)
		}
	}
	for name, want := range map[string]string{"a.svg": "<polygon", "m.svg": `id="mountain"`, "c.svg": "reverse fold neck", "a.fold": "faceOrders", "a.dxf": "AC1009", "a.json": "tussock_pattern"} {
		b, err := os.ReadFile(at(name))
		if err != nil || !strings.Contains(string(b), want) {
			t.Errorf("%s has no %q (%v)", name, want, err)
		}
	}
	again, err := call(t, "replay", at("a.json"), "--json")
	if err != nil {
		t.Fatal(err)
	}
	if a, b := decoded(t, out)["final"], decoded(t, again)["final"]; mustJSON(t, a) != mustJSON(t, b) {
		t.Error("the bundle folds to another toy")
	}
	if n, err := call(t, "orders", at("a.fold")); err != nil || strings.TrimSpace(n) == "0" {
		t.Errorf("the bird has %q layer orders (%v)", n, err)
	}
	step, err := call(t, "replay", "flapper", "--json", "--step", "12", "--svg", at("s.svg"))
	if err != nil || len(decoded(t, step)["steps"].([]any)) != 12 {
		t.Errorf("--step 12 gives %.200s (%v)", step, err)
	}
	if _, err := call(t, "replay", "flapper", "--json", "--step", "99"); !errors.Is(err, errReported) {
		t.Errorf("--step 99 ends with %v", err)
	}
}

func mustJSON(t *testing.T, v any) string {
	t.Helper()
	b, err := json.Marshal(v)
	if err != nil {
		t.Fatal(err)
	}
	return string(b)
}

// On a sheet that does not do, the survey names what misses and what would work,
// and a picture shows the last good state.
func TestReplaySurveysOtherSheets(t *testing.T) {
	svg := filepath.Join(t.TempDir(), "f.svg")
	out, err := call(t, "replay", "fortune", "--json", "--sheet", "A4", "--svg", svg)
	if !errors.Is(err, errReported) {
		t.Fatal(err)
	}
	m := decoded(t, out)
	survey := m["survey"].(map[string]any)
	ranges := survey["ranges"].([]any)
	first, _ := ranges[0].(map[string]any)
	if least, most := first["min"].(float64), first["max"].(float64); first["name"] != "ratio" || least > 1 || most < 1 || most > 1.5 {
		t.Errorf("it opens from a square only: %s", out)
	}
	misses := survey["misses"].([]any)
	if len(misses) == 0 || survey["first_step"] != 12.0 || strings.Contains(out, "⟨") {
		t.Errorf("what misses: %s", out)
	}
	if b, err := os.ReadFile(svg); err != nil || !strings.Contains(string(b), "<svg") {
		t.Errorf("no picture of the last good state: %v", err)
	}
}

func TestOrders(t *testing.T) {
	file := filepath.Join(t.TempDir(), "cross.fold")
	text := `{"vertices_coords":[[0,0],[1,0],[2,0],[0,1],[1,1],[2,1],[0,2],[1,2],[2,2]],"edges_vertices":[[0,1],[1,2],[2,5],[5,8],[8,7],[7,6],[6,3],[3,0],[4,1],[4,5],[4,7],[4,3]],"edges_assignment":["B","B","B","B","B","B","B","B","U","U","U","U"]}`
	if err := os.WriteFile(file, []byte(text), 0o600); err != nil {
		t.Fatal(err)
	}
	if out, err := call(t, "orders", file); err != nil || out != "8\n" {
		t.Errorf("a cross has %q orders (%v), want 8", out, err)
	}
	out, err := call(t, "orders", "--json", file)
	if m := decoded(t, out); err != nil || m["orders"] != 8.0 || m["complete"] != true {
		t.Errorf("%s (%v)", out, err)
	}
	if err := os.WriteFile(file, []byte(`{"vertices_coords":[[0,0]]}`), 0o600); err != nil {
		t.Fatal(err)
	}
	out, err = call(t, "orders", "--json", file)
	if m := decoded(t, out); !errors.Is(err, errReported) || m["ok"] != false || !strings.Contains(mustJSON(t, m["error"]), "vertices_coords") {
		t.Errorf("a broken file gives %s (%v)", out, err)
	}
}

func TestSpread(t *testing.T) {
	adult, err := call(t, "spread", "curlew", "--json")
	if err != nil {
		t.Fatal(err)
	}
	child, err := call(t, "spread", "curlew", "--json", "--hand", "child", "--samples", "1000")
	if err != nil {
		t.Fatal(err)
	}
	a, c := decoded(t, adult), decoded(t, child)
	sd := func(m map[string]any) float64 { return m["com"].(map[string]any)["sd_x"].(float64) }
	if r := sd(c) / sd(a); r < 2.6 || r > 2.73 { // 0.8 to 0.3
		t.Errorf("a child's toys scatter %v times as far as an adult's", r)
	}
	if steps := a["steps"].([]any); len(steps) != 10 || steps[1].(map[string]any)["class"] == "" {
		t.Errorf("the steps are %v", steps)
	}
	if again, err := call(t, "spread", "curlew", "--json"); err != nil || again != adult {
		t.Error("the same seed gives other figures")
	}
	for _, args := range [][]string{{"--hand", "elephant"}, {"--samples", "3"}, {"--sigma", "-1"}, {"--set", "depth=900"}} {
		if _, err := call(t, append([]string{"spread", "curlew"}, args...)...); !errors.Is(err, errReported) {
			t.Errorf("%v ends with %v", args, err)
		}
	}
	if out, err := call(t, "spread", "bird"); err != nil || !strings.Contains(out, "petal") {
		t.Errorf("as text: %.200s (%v)", out, err)
	}
}

// The shelf is clean; a pattern with faults is told them, and fails only when it
// cannot be folded.
func TestCheck(t *testing.T) {
	for _, n := range shelf.Names() {
		if out, err := call(t, "check", n); err != nil || !strings.Contains(out, "nothing to remark") {
			t.Errorf("%s: %s (%v)", n, out, err)
		}
	}
	file := filepath.Join(t.TempDir(), "p.pattern")
	for text, c := range map[string]struct {
		want  string
		fails bool
	}{
		"sheet square 100\nvalley bring left to right as f":                                                      {"has no words", false},
		"sheet square 100\ncrease bring left to right as k\nvalley bring BL to TR\nvalley along k moving TL":     {"bent by an earlier fold", true},
		"sheet square 100\nrequire ratio between 0.1 and 9\nvalley bring left to top as d\n  say \"Fold over.\"": {"ratio", false},
	} {
		if err := os.WriteFile(file, []byte(text), 0o600); err != nil {
			t.Fatal(err)
		}
		out, err := call(t, "check", file)
		if (err != nil) != c.fails || !strings.Contains(out, c.want) {
			t.Errorf("%q gives %q (%v), want %q", text, out, err, c.want)
		}
		js, _ := call(t, "check", "--json", file)
		if m := decoded(t, js); m["ok"] != !c.fails {
			t.Errorf("%s", js)
		}
	}
	if out, err := call(t, "words"); err != nil || !strings.Contains(out, "### petal") {
		t.Errorf("words prints %.100s (%v)", out, err)
	}
}
