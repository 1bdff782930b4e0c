package e2e

import (
	"encoding/json"
	"math"
	"os/exec"
	"path/filepath"
	"testing"
)

const amounts = `
const fs = require("fs"), ts = require("typescript");
const out = ts.transpileModule(fs.readFileSync("src/amount.ts", "utf8"), { compilerOptions: { module: "commonjs", target: "es2022" } });
const m = { exports: {} };
new Function("exports", "module", out.outputText)(m.exports, m);
const cases = JSON.parse(process.argv[process.argv.length - 1]);
console.log(JSON.stringify(cases.map(({ Text: text, Unit: unit }) => ({ text, unit })).map((c) => ({
  v: m.exports.parse(c.text, c.unit) ?? null,
  says: m.exports.understood(c.text, c.unit) ?? "",
  may: Array.from(c.text).every((_, i) => m.exports.mayBecome(c.text.slice(0, i + 1), c.unit)),
}))));
`

// Numbers as people type them, in whatever unit they say, read by every field alike.
func TestNumbersAsPeopleTypeThem(t *testing.T) {
	none := math.NaN()
	cases := []struct {
		Text, Unit string
		want       float64
		says       string
	}{
		{"12", "mm", 12, ""}, {"7,4", "m", 7.4, ""}, {"7.4", "m", 7.4, ""}, {".5", "m", 0.5, ""}, {"-3", "mm", -3, ""}, {"−3", "mm", -3, ""},
		{"4 m", "m", 4, "= 4 m"}, {"15ft", "m", 4.572, "= 4.572 m"}, {"15 ft", "ft", 15, "= 15 ft"}, {"21cm", "mm", 210, "= 210 mm"},
		{"8 1/2 in", "mm", 215.9, "= 215.9 mm"}, {"8 1/2", "in", 8.5, "= 8.5 in"}, {"8½", "in", 8.5, "= 8.5 in"}, {`1/4"`, "in", 0.25, "= 0.25 in"},
		{`1'3"`, "m", 0.381, "= 0.381 m"}, {"1′3″", "ft", 1.25, "= 1.25 ft"}, {"1 ft 3 in", "ft", 1.25, "= 1.25 ft"}, {"5ft 6", "ft", 5.5, "= 5.5 ft"}, {"12 feet", "ft", 12, "= 12 ft"},
		{"210 MM", "mm", 210, "= 210 mm"}, {"1.5 m", "cm", 150, "= 150 cm"}, {"90°", "°", 90, "= 90°"}, {"90 deg", "°", 90, "= 90°"}, {"2.5 s", "s", 2.5, "= 2.5 s"},
		{"80 gsm", "g/m²", 80, "= 80 g/m²"}, {"80 g/m2", "g/m²", 80, "= 80 g/m²"}, {"80g", "g/m²", 80, "= 80 g/m²"}, {"5 m/s", "m/s", 5, "= 5 m/s"}, {"3/4", "", 0.75, "= 0.75"},
		{"", "mm", none, ""}, {"abc", "mm", none, ""}, {"4 s", "m", none, ""}, {"90°", "mm", none, ""}, {"1/0", "in", none, ""}, {"1 2 3", "mm", none, ""},
		{"12 in 3 ft", "in", none, ""}, {"4 m 5 cm", "m", none, ""}, {"1,234.5", "mm", none, ""}, {"--3", "mm", none, ""}, {"4 m", "s", none, ""}, {"5 kg", "g", none, ""}, {"1e3", "mm", none, ""}, {"∞", "mm", none, ""},
	}
	in, err := json.Marshal(cases)
	if err != nil {
		t.Fatal(err)
	}
	run := exec.CommandContext(t.Context(), "node", "-e", amounts, string(in))
	run.Dir = filepath.Join("..", "..", "web")
	out, err := run.Output()
	if err != nil {
		t.Fatal(err)
	}
	var got []struct {
		V    *float64
		Says string
		May  bool
	}
	if err := json.Unmarshal(out, &got); err != nil || len(got) != len(cases) {
		t.Fatal(len(got), err)
	}
	for i, c := range cases {
		v := math.NaN()
		if got[i].V != nil {
			v = *got[i].V
		}
		if same := math.Abs(v-c.want) < 1e-9 || math.IsNaN(v) && math.IsNaN(c.want); !same || got[i].Says != c.says {
			t.Errorf("%q in %q is %v, said %q; want %v, %q", c.Text, c.Unit, v, got[i].Says, c.want, c.says)
		}
		// Whatever is a number can be typed letter by letter.
		if !math.IsNaN(c.want) && !got[i].May {
			t.Errorf("%q cannot be typed into a field of %q", c.Text, c.Unit)
		}
	}
}
