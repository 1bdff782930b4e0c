package e2e

import (
	"os"
	"regexp"
	"slices"
	"strings"
	"testing"
)

// everyScreen are the screens of the demo, opened as far as they go.
var everyScreen = []string{
	"/", "/start/curlew", "/start/fortune", "/bench/1/paper", "/bench/8/paper", "/bench/1/fold/1", "/bench/4/fold/5", "/bench/8/fold/3", "/bench/11/fold/12", "/bench/1/follow/2",
	"/bench/5/set", "/bench/11/set", "/bench/5/set?look=motion", "/bench/11/set?look=motion", "/bench/4/try", "/bench/11/try", "/bench/6/tune", "/bench/12/tune", "/bench/4/tune?view=bars", "/bench/4/tune?view=sweep",
	"/bench/4/tune?view=search", "/bench/11/tune?view=schools", "/bench/11/tune?view=sizes", "/bench/15/set?look=motion", "/bench/16/set?look=motion", "/bench/17/set?look=motion", "/bench/18/set?look=motion", "/bench/18/try?tweak=1", "/bench/15/tune", "/bench/17/tune?view=aim", "/bench/16/tune?view=papers", "/bench/17/fold/13", "/bench/18/fold/8", "/bench/16/fold/8", "/not-known/flap", "/not-known/snap", "/not-known/spin", "/not-known/hop", "/not-known/fly", "/settings", "/bin", "/study/flapper", "/study/tidegate", "/study/frog/17",
	"/papers", "/papers/sizes", "/papers/get", "/papers/divide", "/papers/cut",
}

// sentences are the texts of a screen, block by block, with those that only a screen reader
// says.
const sentences = `(() => {
	document.querySelectorAll("details").forEach((d) => (d.open = true));
	const out = new Set();
	const add = (t) => { t = (t ?? "").replace(/\s+/g, " ").trim(); if (t) out.add(t); };
	for (const e of document.querySelectorAll("p, li, h1, h2, h3, dt, dd, button, a, label, legend, th, td, summary, figcaption, option, [role=status]")) {
		if (e.tagName === "LI" && e.querySelector("p, ul, dl, a, button")) continue;
		if (e.tagName === "A" && e.querySelector("span, svg")) { add(e.innerText.replace(/\n/g, " / ")); continue; }
		add(e.innerText);
	}
	for (const e of document.querySelectorAll("[aria-label]")) add(e.getAttribute("aria-label"));
	for (const e of document.querySelectorAll("svg text")) add(e.textContent);
	for (const e of document.querySelectorAll("[placeholder]")) add(e.getAttribute("placeholder"));
	return [...out];
})()`

// house are names and turns of the house that no folder understands, and slips of grammar
// that machines make.
var house = regexp.MustCompile(`(?i:\b1 (layers|steps|throws|hops|sheets|minutes|trials)\b|\bundefined\b|\bNaN\b|\bnull\b|\[object|⟨|⟩|\b[a-z]+\[\d+\]|\b[a-z]+_[a-z]+\b)|\b(v[12]|w[12]|WR|HR|WL|HL|u1r|c[12]|dA|dB)\b|(\d+ cm square) of (\d+) mm by|looks right when a |\b(Leave|Overlap) 0 |a an |\ba [aeio][a-z]+ (line|edge)\b|\.\.|\bIt does as it is\b|-\d|\(\)`)

// Every visible sentence of the demo's screens, in mm and in inches; no name of the house
// stands in any. With TUSSOCK_SENTENCES they are written to that file, to be read.
func TestEverySentence(t *testing.T) {
	h := open(t, "", true)
	var all []string
	for _, units := range []string{"mm", "in"} {
		p := sit(t, 1280, 800)
		p.visit(h.url + "/settings")
		p.clicks(map[string]string{"mm": "mm", "in": "inch, to 1/16"}[units])
		p.settled()
		seen := map[string]bool{}
		for _, path := range everyScreen {
			p.visit(h.url + path)
			p.until("nothing is waited for", `document.querySelector("[data-waiting], [aria-busy=true]") === null`)
			p.settled()
			var fresh []string
			for _, s := range eval[[]string](p, sentences) {
				if !seen[s] {
					seen[s] = true
					fresh = append(fresh, s)
				}
			}
			for _, s := range fresh {
				if w := house.FindString(s); w != "" {
					t.Errorf("%s in %s: %q stands in %q", path, units, w, s)
				}
			}
			if units == "mm" || len(fresh) > 0 {
				all = append(all, "== "+path+", "+units)
				all = append(all, fresh...)
			}
		}
		if len(seen) < 600 {
			t.Errorf("only %d sentences in %s", len(seen), units)
		}
	}
	if file := os.Getenv("TUSSOCK_SENTENCES"); file != "" {
		if err := os.WriteFile(file, []byte(strings.Join(slices.Compact(all), "\n")+"\n"), 0o644); err != nil {
			t.Fatal(err)
		}
	}
}
