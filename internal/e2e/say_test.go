package e2e

import (
	"encoding/json"
	"os"
	"os/exec"
	"path/filepath"
	"testing"
)

// transpiled runs the page's own formatter on cases, outside of the page.
const transpiled = `
const fs = require("fs"), ts = require("typescript");
const out = ts.transpileModule(fs.readFileSync("src/say.ts", "utf8"), { compilerOptions: { module: "commonjs" } });
const m = { exports: {} };
new Function("exports", "module", out.outputText)(m.exports, m);
const cases = JSON.parse(fs.readFileSync(process.argv[1], "utf8"));
console.log(JSON.stringify(cases.map((c) => [m.exports.said(c.text, "mm"), m.exports.said(c.text, "in")])));
`

// The page tells quantities in sentences as the core does.
func TestPageSaysQuantitiesAsTheCoreDoes(t *testing.T) {
	cases, err := filepath.Abs(filepath.Join("..", "say", "cases.json"))
	if err != nil {
		t.Fatal(err)
	}
	b, err := os.ReadFile(cases)
	if err != nil {
		t.Fatal(err)
	}
	var want []struct{ Text, MM, In string }
	if err := json.Unmarshal(b, &want); err != nil {
		t.Fatal(err)
	}
	run := exec.CommandContext(t.Context(), "node", "-e", transpiled, cases)
	run.Dir = filepath.Join("..", "..", "web")
	said, err := run.Output()
	if err != nil {
		t.Fatal(err)
	}
	var got [][2]string
	if err := json.Unmarshal(said, &got); err != nil || len(got) != len(want) {
		t.Fatal(len(got), err)
	}
	for i, w := range want {
		if got[i] != [2]string{w.MM, w.In} {
			t.Errorf("%s: %q, want %q and %q", w.Text, got[i], w.MM, w.In)
		}
	}
}
