package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
)

// The page paints every arrow, sign, length, line and moving region of a step's picture
// once, as the API has it; what it shows of a collapse half-way, of the other side and of
// the signs is there for a person with paper in hand.
func TestPagePaintsWhatThePictureHolds(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	type counts struct{ Arrows, Heads, Signs, Sizes, Moving int }
	for _, v := range []struct {
		pattern     string
		build, step int
	}{{"sandhopper", 11, 6}, {"sandhopper", 11, 10}, {"natterjack", 12, 9}, {"shelduck", 4, 9}, {"fortune", 8, 8}} {
		p.visit(fmt.Sprintf("%s/bench/%d/follow/%d", h.url, v.build, v.step))
		p.until("a picture", `document.querySelector("main [role=img]")`)
		held := eval[counts](p, fmt.Sprintf(`(async () => {
			const ask = async (method, path, body) => (await fetch("/api/v1" + path, {method, headers: {"Content-Type": "application/json"}, body: body && JSON.stringify(body)})).json();
			const b = await ask("GET", "/builds/%d");
			const setup = b.setup ?? b.tweaks.at(-1).setup;
			const s = setup.sheet;
			const body = {sheet: {width: s.width_mm, height: s.height_mm, unit: "mm", gsm: s.gsm, thickness_mm: s.thickness_mm}, knobs: setup.knobs};
			const r = await ask("POST", "/patterns/%s/replay", body);
			const n = r.steps[%d - 1].next;
			return {Arrows: n.arrows.length, Heads: n.arrows.reduce((k, a) => k + a.heads.length, 0), Signs: n.signs.length, Sizes: (n.sizes ?? []).length, Moving: n.moving.length};
		})()`, v.build, v.pattern, v.step), chromedp.EvalAwaitPromise)
		drawn := eval[counts](p, `(() => {
			const svg = document.querySelector("main [role=img]");
			const n = (q) => svg.querySelectorAll(q).length;
			return {Arrows: n("[data-arrow]"), Heads: n("[data-arrow] polygon"), Signs: n("[data-sign]"), Sizes: n("[data-size]"), Moving: n('polygon[fill^="url("]')};
		})()`)
		if held != drawn || held.Arrows == 0 {
			t.Errorf("%s step %d: the picture holds %+v, the page paints %+v", v.pattern, v.step, held, drawn)
		}
	}
	p.visit(h.url + "/bench/11/follow/6")
	p.sees("half-way", "then: collapse", "fold towards you", "push in", "becomes")
	p.clicks("Other side")
	p.until("the other side", `document.querySelector("[aria-label='The paper before step 6 from the other side']")`)
	p.clicks("Other side")
	p.until("the picture again", `!document.querySelector("[aria-label='The paper before step 6 from the other side']")`)
	// An order guard stands with its step.
	p.visit(h.url + "/bench/13/follow/12")
	p.sees("Not later:", "a flipper has no room to turn")
	p.visit(h.url + "/bench/13/fold/12")
	p.sees("Not later:")
	p.quiet()
}

// A name in letters that a PDF lacks is told before one is made, and offered whole.
func TestNamesThatAPDFLacks(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	for name, told := range map[string]bool{"李 at the pier": true, "Łódź Щука Ελένη": false, "نورس": true} {
		p.visit(h.url + "/bench/1/fold/1")
		p.clicks("Build")
		p.clicks("Rename")
		p.fills("Name of the build", name)
		p.clicks("Rename")
		p.sees(name)
		p.clicks("Build")
		p.sees("Print the steps in large type")
		if got := eval[bool](p, `document.body.innerText.includes("A PDF lacks the letters")`); got != told {
			t.Errorf("%q: told %v, should be %v: %s", name, got, told, p.screen())
		}
	}
	p.quiet()
}
