package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// A whole pattern by the keyboard, full screen; the mirror image; hidden edges; what
// it looks like when it goes wrong.
func TestFollowByKeyboard(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url + "/bench/7/fold/1")
	p.clicks("Follow, full screen")
	p.at("/bench/7/follow/1")
	p.sees("Fold the sheet in half from left to right", "Before you go on: it looks right when")
	p.types(" ")
	p.at("/bench/7/follow/2")
	p.sees("1 mm off here moves")
	p.types("d")
	p.sees("Which one is yours?", "As it should be", "It was brought past its target", "bring the two signs together")
	if n := eval[int](p, `document.querySelectorAll("section[aria-label='Mine looks different'] svg").length`); n < 3 {
		t.Errorf("%d pictures of mistakes", n)
	}
	p.types("d")
	p.gone("Which one is yours?")
	picture := `document.querySelector("main svg").innerHTML`
	before := eval[string](p, picture)
	p.clicks("More")
	p.clicks("mirror image")
	p.clicks("hidden edges")
	p.sees("Press with a finger", "Show a timer")
	p.clicks("Show a timer")
	p.sees("0:0")
	p.clicks("More")
	p.until("another picture", picture+" !== "+quote(before))
	if s := eval[string](p, `getComputedStyle(document.querySelector("main svg > g")).transform`); s == "none" || s[:9] != "matrix(-1" {
		t.Errorf("the mirror image is drawn by %q", s)
	}
	p.clicks("More")
	p.clicks("mirror image")
	p.clicks("hidden edges")
	p.clicks("More")
	for n := 3; n <= 10; n++ {
		p.types(kb.ArrowRight)
		p.at(fmt.Sprintf("/bench/7/follow/%d", n))
	}
	p.quiet()
}

// On a phone: swipes and taps, a small fold magnified, and no sideways scrolling.
func TestFollowOnAPhone(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 390, 844)
	p.watch(h.url)
	p.visit(h.url + "/bench/4/follow/7")
	p.sees("Fold the small point up over both corners", "magnified")
	if wide := eval[float64](p, `document.documentElement.scrollWidth`); wide > 390 {
		t.Errorf("%v pixels wide", wide)
	}
	if high := eval[float64](p, `document.querySelector("main svg").getBoundingClientRect().height`); high < 250 {
		t.Errorf("the picture is only %v pixels high", high)
	}
	p.do(chromedp.DragAndDropXY(300, 300, 100, 300, 4))
	p.at("/bench/4/follow/8")
	p.do(chromedp.DragAndDropXY(100, 300, 300, 300, 4))
	p.at("/bench/4/follow/7")
	p.do(chromedp.MouseClickXY(330, 300))
	p.at("/bench/4/follow/8")
	p.do(chromedp.MouseClickXY(30, 300))
	p.at("/bench/4/follow/7")
	p.visit(h.url + "/bench/8/fold/9")
	p.clicks("Where does it come from?")
	p.clicks("upper left")
	p.sees("the top left corner")
	if wide := eval[float64](p, `document.documentElement.scrollWidth`); wide > 390 {
		t.Errorf("the crease map is %v pixels wide", wide)
	}
	p.visit(h.url + "/bench/4/follow/7")
	p.clicks("Leave")
	p.at("/bench/4/fold/7")
	p.quiet()
}

// At a step: what a millimetre costs, a slip with what makes up for it, a point of the
// flat sheet found in the folded paper.
func TestSlipAndCreaseMap(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url + "/bench/1/fold/2")
	p.sees("1 mm off here moves", "Press with a finger", "It opens by itself to about")
	p.clicks("I folded it off its place")
	p.sees("without the slip", "If you fold on with it", "Predicted, to first order")
	p.fills("By how much", "0.1")
	p.sees("Leave it: it hardly shows at the end")
	p.fills("By how much", "1/4in")
	p.gone("Leave it: it hardly shows at the end")
	p.clicks("or a landmark is off at the end")
	p.sees("Which one", "That comes from folding about")
	p.clicks("went past")
	p.fills("By how much", "90")
	p.sees("it must be −20 to 20 mm")
	p.fills("By how much", "xyz")
	p.sees("“xyz” is no length")
	p.clicks("Close")
	p.clicks("Where does it come from?")
	p.sees("Press a spot on the flat sheet")
	p.clicks("upper left")
	p.sees("the top left corner")
	// On the map, on the folded paper, and on both steps so far.
	p.until("four marks", `document.querySelectorAll("section[aria-label='Crease map'] [data-hold]").length === 4`)
	p.clicks("middle")
	p.sees("the middle of the sheet")
	p.clicks("lower left")
	p.sees("the bottom left corner")
	p.find("Crease map of the flat sheet", "svg")
	at := eval[[]float64](p, `(() => { const svg = document.querySelectorAll("section[aria-label='Crease map'] figure svg")[0]; const r = svg.getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2]; })()`)
	p.do(chromedp.MouseClickXY(at[0], at[1]))
	p.sees("the middle of the sheet")
	// Few words, and where the fold has got to.
	p.clicks("few words")
	p.sees("valley fold: the top left corner to the centre crease")
	p.clicks("few words")
	p.clicks("Fold again from here")
	p.sees("I have it folded up to here")
	p.clicks("I have it folded up to here")
	p.sees("Fold again from here")
	// Signs on the trail have their words.
	if n := eval[int](p, `document.querySelectorAll("nav[aria-label=Trail] a[aria-label*='Step']").length`); n != 10 {
		t.Errorf("%d steps on the trail", n)
	}
	p.quiet()
}

// A step in the round: scrubbed by slider and by keys, seen from underneath, and drawn
// only when something changes.
func TestInTheRound(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url + "/bench/1/fold/2")
	p.types("r")
	p.sees("Computed with flat, stiff pieces", "before", "after")
	shape := `document.querySelector("figure svg g polygon").parentElement.parentElement.innerHTML`
	label := `document.querySelector("figure svg").getAttribute("aria-label")`
	if l := eval[string](p, label); l != "Step 2 in the round, 40 % of the way" {
		t.Errorf("it begins with %q", l)
	}
	p.find("How far the step has gone", "input")
	eval[bool](p, `(window.__hit.focus(), true)`)
	before := eval[string](p, shape)
	for range 10 {
		p.types(kb.ArrowRight)
	}
	p.until("half of the way", label+` === "Step 2 in the round, 50 % of the way"`)
	if after := eval[string](p, shape); after == before {
		t.Error("scrubbing changes nothing")
	}
	before = eval[string](p, shape)
	p.clicks("From underneath")
	p.until("another side", shape+" !== "+quote(before))
	// Nothing is drawn while nothing happens.
	changes := eval[int](p, `new Promise((done) => {
		let n = 0;
		const w = new MutationObserver((m) => { n += m.length; });
		w.observe(document.querySelector("figure"), { subtree: true, childList: true, attributes: true });
		setTimeout(() => { w.disconnect(); done(n); }, 400);
	})`, chromedp.EvalAwaitPromise)
	if changes != 0 {
		t.Errorf("%d changes at rest", changes)
	}
	p.clicks("Play")
	p.until("the end", label+` === "Step 2 in the round, 100 % of the way"`)
	// Where no motion can be shown, before fades into after.
	p.visit(h.url + "/bench/8/fold/14")
	p.clicks("in the round")
	p.sees("before fades into after")
	if n := eval[int](p, `document.querySelectorAll("figure [style*=opacity] svg").length`); n != 2 {
		t.Errorf("%d pictures fade", n)
	}
	// How long a frame takes, from the slider to the painted picture: of the flapping
	// bird, 40 pieces and more, in software.
	p.visit(h.url + "/study/flapper/14")
	p.clicks("in the round")
	p.sees("Computed with flat, stiff pieces")
	if n := eval[int](p, `document.querySelectorAll("figure svg polygon").length`); n < 30 {
		t.Errorf("the bird is %d pieces", n)
	}
	frame := eval[float64](p, `new Promise((done) => {
		const e = document.querySelector("input[type=range][aria-label='How far the step has gone']");
		const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set;
		let n = 0;
		const begin = performance.now();
		const next = () => {
			if (n === 20) return done((performance.now() - begin) / 20);
			n += 1;
			set.call(e, String(5 * n - 5));
			e.dispatchEvent(new Event("input", { bubbles: true }));
			requestAnimationFrame(() => setTimeout(next));
		};
		next();
	})`, chromedp.EvalAwaitPromise)
	t.Logf("a frame takes %.1f ms", frame)
	if frame > 60 {
		t.Errorf("a frame takes %.0f ms", frame)
	}
	p.quiet()
}
