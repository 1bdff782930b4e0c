package e2e

import (
	"encoding/json"
	"fmt"
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
	check := func(t *testing.T, p *person, theme, path string) {
		t.Helper()
		var list []string
		eval[bool](p, `(document.documentElement.dataset.theme = `+quote(theme)+`, true)`)
		eval[bool](p, string(axe)+`; true`)
		found, err := chromedp.Run(p.ctx, chromedp.Evaluate[string](axeRun, chromedp.EvalAwaitPromise))
		if err != nil {
			t.Fatal(err)
		}
		if err := json.Unmarshal([]byte(found), &list); err != nil {
			t.Fatal(err)
		}
		list = append(list, eval[[]string](p, faint)...)
		for _, v := range list {
			t.Errorf("%s by %s, %d wide: %s", path, theme, eval[int](p, `innerWidth`), v)
		}
	}
	screens := [][]string{
		{"/", "/start/curlew", "/bench/1/paper", "/bench/1/fold/4", "/bench/5/set", "/bench/4/try", "/bench/6/tune", "/bench/11/set?look=motion", "/bench/11/try", "/bench/12/tune", "/bench/11/tune?view=schools", "/bench/11/tune?view=sizes", "/bench/15/set?look=motion", "/bench/16/set?look=motion", "/bench/17/set?look=motion"},
		{"/bench/18/try", "/bench/17/tune?view=aim", "/bench/16/tune?view=papers", "/not-known/hop", "/settings", "/bin", "/study/flapper", "/study/frog/17", "/papers", "/papers/sizes", "/papers/get", "/papers/divide", "/papers/cut", "/bench/8/paper", "/bench/8/fold/3", "/bench/1/follow/2"},
		{"/bench/19/set?look=motion", "/bench/19/fold/2", "/bench/19/fold/18", "/bench/19/paper", "/bench/19/tune?view=grid", "/bench/19/tune?view=blades", "/bench/19/tune?view=strobe", "/bench/21/try"},
		{"/bench/8/set?look=motion", "/bench/8/set?look=write", "/bench/8/play", "/bench/8/tune?view=tally", "/bench/22/set?look=write", "/bench/24/set?look=motion", "/bench/24/set?look=write", "/bench/24/play", "/bench/23/fold/16", "/bench/24/tune?view=papers", "/packs", "/packs/riddles"},
	}
	for _, high := range []struct{ w, h int }{{1280, 800}, {390, 844}} {
		for part, paths := range screens {
			t.Run(fmt.Sprintf("%d wide, part %d", high.w, part+1), func(t *testing.T) {
				p := sit(t, high.w, high.h)
				for _, path := range paths {
					p.visit(h.url + path)
					for _, theme := range []string{"light", "dark"} {
						check(t, p, theme, path)
					}
				}
			})
		}
	}
}

// axeRun checks the page by the rules of WCAG 2.1 A and AA, and by those for headings,
// sizes of what is pressed and names that are not what is read.
const axeRun = `(async () => {
	// The bar with the way on stays at the bottom: what scrolls under it can be scrolled out.
	for (const bar of document.querySelectorAll("[data-ways]")) bar.style.position = "static";
	const rules = ["label-content-name-mismatch", "target-size", "heading-order", "page-has-heading-one"];
	const runs = [await axe.run(document, {runOnly: ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa"]}), await axe.run(document, {runOnly: {type: "rule", values: rules}})];
	return JSON.stringify(runs.flatMap((r) => r.violations).map((v) => v.id + ": " + v.nodes.slice(0, 4).map((n) => n.target.join(" ") + " " + n.html.slice(0, 120) + " " + n.failureSummary).join(" | ")));
})()`

// faint are texts and lines of pictures that hardly stand out from what lies beneath them:
// 4.5 to 1 is asked for texts and 3 to 1 for lines, on the shape painted last beneath their
// middle, else on the page.
const faint = `(() => {
	const rgb = (c) => { const m = /rgba?\(([^)]+)\)/.exec(c); if (!m) return null; const v = m[1].split(",").map(Number); return v[3] === 0 ? null : v; };
	const lum = ([r, g, b]) => { const f = (v) => ((v /= 255) <= 0.03928 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4); return 0.2126 * f(r) + 0.7152 * f(g) + 0.0722 * f(b); };
	const ratio = (a, b) => { const [x, y] = [lum(a), lum(b)].sort((p, q) => q - p); return (x + 0.05) / (y + 0.05); };
	const ground = (e) => { for (; e; e = e.parentElement) { const c = rgb(getComputedStyle(e).backgroundColor); if (c && (c[3] ?? 1) > 0.9) return c; } return rgb(getComputedStyle(document.documentElement).backgroundColor); };
	const quiet = rgb(getComputedStyle(document.documentElement).getPropertyValue("--line")) ?? null;
	const line = (() => { const d = document.createElement("i"); d.style.color = "var(--line)"; document.body.append(d); const c = getComputedStyle(d).color; d.remove(); return c; })();
	const out = [];
	for (const svg of document.querySelectorAll("main svg, nav svg")) {
		if (!svg.checkVisibility() || svg.getBoundingClientRect().width === 0) continue;
		const page = ground(svg);
		const shapes = [...svg.querySelectorAll("polygon, path, rect, circle, polyline, line, text")];
		// Packs that are bent in strips have hundreds of the lines that other pictures have few of.
		if (shapes.length > 300) continue;
		const opaque = (e) => { const s = getComputedStyle(e); return rgb(s.fill) && s.fill !== "none" && Number(s.fillOpacity) > 0.9 && Number(s.opacity) > 0.9 ? rgb(s.fill) : null; };
		const beneath = (e, x, y) => {
			let c = page;
			for (const q of shapes) {
				if (q === e) break;
				if (q.tagName === "text" || q.closest("defs")) continue;
				const m = q.getScreenCTM()?.inverse();
				if (!m) continue;
				const at = new DOMPoint(x, y).matrixTransform(m), f = opaque(q);
				if (f && q.isPointInFill?.(at)) c = f;
				const s = getComputedStyle(q), stroke = rgb(s.stroke);
				if (stroke && (q.hasAttribute("data-halo") || q.hasAttribute("data-rim")) && q.isPointInStroke?.(at)) c = stroke;
			}
			return c;
		};
		for (const e of shapes) {
			if (e.closest("defs") || !e.checkVisibility()) continue;
			const s = getComputedStyle(e);
			if (e.tagName === "text") {
				const r = e.getBoundingClientRect(), c = rgb(s.fill);
				if (!c || r.width === 0 || Number(s.opacity) < 0.9) continue;
				const halo = s.paintOrder.startsWith("stroke") && rgb(s.stroke);
				const k = ratio(c, halo || beneath(e, r.x + r.width / 2, r.y + r.height / 2));
				if (k < 4.5) out.push("the text " + JSON.stringify(e.textContent.slice(0, 30)) + " stands out by " + k.toFixed(1) + " in " + (svg.getAttribute("aria-label") ?? "a picture").slice(0, 60));
				continue;
			}
			const c = rgb(s.stroke);
			if (!c || s.stroke === line || s.fill !== "none" || Number(s.strokeOpacity) < 0.9 || Number(s.opacity) < 0.9 || e.hasAttribute("data-rim") || e.hasAttribute("data-halo")) continue;
			const n = e.getTotalLength?.() ?? 0;
			if (n === 0) continue;
			const m = e.getScreenCTM(), at = e.getPointAtLength(n / 2), p = new DOMPoint(at.x, at.y).matrixTransform(m);
			const k = ratio(c, beneath(e, p.x, p.y));
			if (k < 2.9) out.push("a " + e.tagName + " in " + s.stroke + " stands out by " + k.toFixed(1) + " in " + (svg.getAttribute("aria-label") ?? "a picture").slice(0, 60));
		}
	}
	return [...new Set(out)].slice(0, 5);
})()`

// From the shelf to a logged throw with the keyboard alone.
func TestKeyboardAlone(t *testing.T) {
	h := open(t, "", false)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url)
	// tab moves on until the thing in focus has these words; the page as a whole is none.
	tab := func(words string) {
		t.Helper()
		called := `((e) => (e.innerText || (e.getAttribute("aria-label") ?? "")).includes(` + quote(words) + `))`
		p.until(quote(words)+" to be there", `[...document.querySelectorAll("a, button, summary, input, select, [tabindex]")].some(`+called+`)`)
		for range 60 {
			p.types(kb.Tab)
			if eval[bool](p, `document.activeElement !== document.body && `+called+`(document.activeElement)`) {
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
