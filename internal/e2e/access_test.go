package e2e

import (
	"encoding/json"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// Every view, by day and by night, without violations of the accessibility rules
// (WCAG 2.1 A and AA) that can be checked by program.
func TestAccessibility(t *testing.T) {
	axe, err := os.ReadFile(filepath.Join("..", "..", "web", "node_modules", "axe-core", "axe.min.js"))
	if err != nil {
		t.Fatal(err)
	}
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	for _, theme := range []string{"light", "dark"} {
		for _, path := range []string{"/", "/start/curlew", "/bench/1/paper", "/bench/1/fold/4", "/bench/5/set", "/bench/4/try", "/bench/6/tune", "/bench/11/set?look=motion", "/bench/11/try", "/bench/12/tune", "/bench/11/tune?view=schools", "/bench/11/tune?view=sizes", "/not-known/hop", "/settings", "/bin", "/study/flapper", "/study/frog/17", "/papers", "/papers/sizes", "/papers/get", "/papers/divide", "/papers/cut", "/bench/8/paper", "/bench/8/fold/3", "/bench/1/follow/2"} {
			p.visit(h.url + path)
			eval[bool](p, `(document.documentElement.dataset.theme = `+quote(theme)+`, true)`)
			eval[bool](p, string(axe)+`; true`)
			found, err := chromedp.Run(p.ctx, chromedp.Evaluate[string](`axe.run(document, {runOnly: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa"]}).then((r) =>
				JSON.stringify(r.violations.map((v) => v.id + ": " + v.nodes.map((n) => n.target.join(" ") + " " + n.failureSummary).join(" | "))))`, chromedp.EvalAwaitPromise))
			if err != nil {
				t.Fatal(err)
			}
			var list []string
			if err := json.Unmarshal([]byte(found), &list); err != nil {
				t.Fatal(err)
			}
			for _, v := range list {
				t.Errorf("%s by %s: %s", path, theme, v)
			}
		}
	}
}

// From the shelf to a logged throw with the keyboard alone.
func TestKeyboardAlone(t *testing.T) {
	h := open(t, "", false)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url)
	// tab moves on until the thing in focus has these words.
	tab := func(words string) {
		t.Helper()
		for range 60 {
			p.types(kb.Tab)
			if eval[bool](p, `((document.activeElement?.innerText || document.activeElement?.getAttribute("aria-label")) ?? "").includes(`+quote(words)+`)`) {
				return
			}
		}
		t.Fatalf("no way by Tab to %q; the screen says:\n%s", words, p.screen())
	}
	tab("Fold a Shelduck")
	if !eval[bool](p, `getComputedStyle(document.activeElement).outlineStyle !== "none"`) {
		t.Error("the focus cannot be seen")
	}
	p.types(kb.Enter)
	p.sees("Which sheet do you have?")
	tab("Begin folding")
	p.types(kb.Enter)
	p.sees("Step 1 of 12")
	for range 12 {
		p.types(" ")
	}
	p.at("/bench/1/set")
	p.sees("Set and balance")
	p.types("l")
	p.sees("how many layers lie there")
	tab("Wing angle") // the value
	p.until("a slider", `document.querySelector("[role=slider]")`)
	p.types("t") // typed into the field, not a shortcut
	p.at("/bench/1/set?look=layers")
	p.types(kb.Escape + kb.Tab)
	eval[bool](p, `(document.activeElement.blur(), true)`)
	p.types("?")
	p.sees("Undo", "Switch mm and inch", "Try: log throws", "Layer map")
	p.types(kb.Escape)
	p.gone("They work here and now")
	p.types("/")
	p.until("the finder", `document.querySelector("[cmdk-input]")`)
	p.types("try: log")
	p.until("the command found", `document.querySelector("[cmdk-item][data-selected=true]")?.innerText.startsWith("Try: log")`)
	p.types(kb.Enter)
	p.at("/bench/1/try")
	p.types("5")
	p.types(kb.Enter)
	p.sees("The throw of 5.0 m is logged at tweak 1")
	p.quiet()
}

// On a phone: nothing wider than the screen, big targets, two taps for a throw.
func TestPhone(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 390, 844)
	p.watch(h.url)
	for _, path := range []string{"/", "/start/shelduck", "/bench/6/paper", "/bench/6/fold/7", "/bench/6/set", "/bench/6/try", "/settings", "/bin", "/study/flapper", "/study/frog/17", "/papers", "/papers/sizes", "/papers/get", "/papers/divide", "/papers/cut", "/bench/8/paper", "/bench/8/fold/3", "/bench/1/follow/2"} {
		p.visit(h.url + path)
		if w := eval[int](p, `document.documentElement.scrollWidth`); w > 390 {
			t.Errorf("%s is %d pixels wide on a screen of 390", path, w)
		}
	}
	p.visit(h.url + "/bench/6/fold/7")
	// What to do, the picture and the way on are in sight without scrolling.
	for _, what := range []string{`[...document.querySelectorAll("p")].find((e) => e.innerText.startsWith("Fold the small point"))`, `document.querySelector("[aria-label=Mat] svg")`, `[...document.querySelectorAll("button")].find((b) => b.innerText.startsWith("Next"))`} {
		if !eval[bool](p, `(() => { const r = (`+what+`).getBoundingClientRect(); return r.top >= 0 && r.top < 800 && r.height > 20; })()`) {
			t.Errorf("%s is not in sight", what)
		}
	}
	p.clicks("Next")
	p.at("/bench/6/fold/8")
	p.visit(h.url + "/bench/6/try")
	for _, name := range []string{"5", "Log the throw"} {
		p.find(name, "button")
		if h := eval[float64](p, `window.__hit.getBoundingClientRect().height`); h < 44 {
			t.Errorf("%q is %v pixels high, too small for a thumb", name, h)
		}
		p.clicks(name)
	}
	p.sees("The throw of 5.0 m is logged")
	p.quiet()
}
