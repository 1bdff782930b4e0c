package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp/kb"
)

// active is what has the focus: its tag, and what it is called.
func (p *person) active() string {
	return eval[string](p, `(() => { const e = document.activeElement; return e.tagName + " " + (e.id || e.getAttribute("aria-label") || e.labels?.[0]?.innerText || e.innerText || "").slice(0, 60); })()`)
}

// A throw with what was seen is three keys, and after it the keys work as before it:
// letters are never typed into a number, Escape leaves the field.
func TestAThrowInThreeKeys(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url + "/bench/4/try")
	p.until("the field is there", `document.querySelector("form input") !== null`)
	before := eval[int](p, `document.querySelectorAll("table:last-of-type tbody tr").length`)
	for _, key := range []string{"d", "6", kb.Enter} {
		p.types(key)
	}
	p.sees("is logged at tweak")
	p.until("it is in the list, with what was seen", `[...document.querySelectorAll("tbody tr")].some((r) => /6\.0 m/.test(r.innerText) && /dived/.test(r.innerText))`)
	if n := eval[int](p, `document.querySelectorAll("table:last-of-type tbody tr").length`); n != before+1 {
		t.Errorf("%d rows, %d before", n, before)
	}
	// The field still has the focus: in a number that was begun letters are nothing, but
	// for those of a unit, and a chip's key taps its chip.
	p.types("7")
	for _, key := range []string{"n", "?", "b", "p", "t", "/"} {
		p.types(key)
		if eval[bool](p, `document.querySelector("[role=dialog]") !== null`) || !eval[bool](p, `location.pathname.endsWith("/try")`) {
			t.Fatalf("%q did something while a number is typed", key)
		}
	}
	p.types("d")
	if v := p.value("Distance"); v != "7" && v != "7/" {
		t.Errorf("the field holds %q", v)
	}
	if !eval[bool](p, `[...document.querySelectorAll("[aria-pressed=true]")].some((b) => b.innerText === "dived")`) {
		t.Error("the chip's key did nothing beside a number")
	}
	p.fills("Distance", "23 ft")
	p.sees("= 7.01 m")
	p.types(kb.Escape)
	if a := p.active(); a[:4] != "BODY" {
		t.Errorf("Escape leaves %s in focus", a)
	}
	p.types("?")
	p.sees("They work here and now")
	p.types(kb.Escape)
	p.gone("They work here and now")
	// An empty field is as good as none.
	p.fills("Distance", "")
	p.types(kb.Backspace)
	p.types("b")
	p.at("/bench/4/set")
	p.quiet()
}

// A reading far off all others is asked for once; said again it is kept.
func TestFarOffAsksOnce(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.visit(h.url + "/bench/4/try")
	p.fills("Distance", "55 m")
	p.types(kb.Enter)
	p.sees("55 m? The others are", "Log it once more")
	if v := p.value("Distance"); v != "55 m" {
		t.Errorf("the field holds %q", v)
	}
	p.find("Distance", "input")
	p.clicks("Distance")
	p.types(kb.Enter)
	p.sees("The throw of 55.0 m is logged")
}

// What was pressed with the mouse keeps no keys: Space goes on, arrows too.
func TestTickingABoxStopsNoKeys(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.visit(h.url + "/bench/1/fold/3")
	for _, box := range []string{"layer map", "other side"} {
		p.clicks(box)
		p.settled()
		was := eval[bool](p, `document.activeElement.checked`)
		p.types(" ")
		p.at("/bench/1/fold/4")
		// The other side is looked at of one step only.
		if !was || box == "layer map" && !eval[bool](p, `document.activeElement.checked`) {
			t.Errorf("Space ticked %q as well", box)
		}
		p.types(kb.ArrowLeft)
		p.at("/bench/1/fold/3")
		p.clicks(box)
	}
	// By keyboard a box is a box.
	p.find("layer map", "label")
	eval[bool](p, `(document.activeElement.blur(), true)`)
	eval[bool](p, `(window.dispatchEvent(new KeyboardEvent("keydown", {key: "Tab"})), window.__hit.querySelector("input").focus(), true)`)
	p.types(" ")
	p.at("/bench/1/fold/3")
	p.until("it is ticked", `document.activeElement.checked`)
}

// After a change of place the work there has the focus, and every window has a name of
// its own.
func TestFocusAndTitles(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.visit(h.url)
	titles := map[string]string{}
	note := func(path string) {
		t.Helper()
		title := eval[string](p, `document.title`)
		if other, there := titles[title]; there {
			t.Errorf("%s and %s are both called %q", path, other, title)
		}
		titles[title] = path
	}
	note("/")
	for _, c := range []struct{ click, path string }{{"Papers", "/papers"}, {"Settings", "/settings"}, {"Bin", "/bin"}, {"Shelf", "/"}} {
		p.clicks(c.click)
		p.at(c.path)
		p.until("the focus on the work at "+c.path, `document.activeElement.id === "main"`)
		if c.path != "/" {
			note(c.path)
		}
	}
	p.visit(h.url + "/bench/4/paper")
	note("paper")
	for _, key := range []string{"f", "b", "t", "n"} {
		before := p.path()
		p.types(key)
		p.until("another place", `location.pathname !== `+quote(before))
		p.settled()
		if a := p.active(); a != "MAIN main" {
			t.Errorf("after %q the focus is on %s", key, a)
		}
		note(p.path())
	}
	p.visit(h.url + "/bench/4/follow/2")
	note("follow")
	// Nothing that is covered can be reached.
	for range 30 {
		p.types(kb.Tab)
		if eval[bool](p, `document.activeElement.closest("header") !== null`) {
			t.Fatal("the covered header has the focus")
		}
	}
}

func (p *person) path() string { return eval[string](p, `location.pathname`) }

// hiddenFocus is where the focus is hidden under something else, walking by Tab.
const hiddenFocus = `(() => {
  const e = document.activeElement;
  if (!e || e === document.body || e.id === "main") return "";
  const r = e.getBoundingClientRect();
  if (r.width === 0) return "";
  const x = Math.min(innerWidth - 2, Math.max(1, r.x + r.width / 2)), y = r.y + Math.min(r.height, 40) / 2;
  if (y < 0 || y > innerHeight) return e.tagName + " is outside: " + (e.innerText || e.getAttribute("aria-label"));
  const top = document.elementFromPoint(x, y);
  return !top || e.contains(top) || top.contains(e) || top.closest("label")?.contains(e) ? "" : e.tagName + " " + (e.innerText || e.getAttribute("aria-label")) + " lies under " + top.tagName + " " + top.className;
})()`

// Nothing scrolls sideways at 320 pixels, and at 200 per cent nothing covers what has the
// focus, nor the way out of Follow.
func TestNarrowAndZoomed(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 320, 640)
	for _, path := range []string{"/", "/start/curlew", "/bench/1/paper", "/bench/1/fold/4", "/bench/5/set", "/bench/5/set?look=motion", "/bench/4/try", "/bench/6/tune", "/bench/11/tune?view=sizes", "/not-known/fly", "/settings", "/bin", "/study/frog/17", "/papers", "/papers/sizes", "/papers/get", "/papers/divide", "/papers/cut", "/bench/1/follow/2"} {
		p.visit(h.url + path)
		if over := eval[int](p, `document.scrollingElement.scrollWidth - innerWidth`); over > 0 {
			who := eval[string](p, `[...document.querySelectorAll("main *")].filter((e) => e.getBoundingClientRect().right > innerWidth + 1 && !e.closest("[class*=overflow-x-auto],[class*=overflow-auto],nav[aria-label=Trail]")).slice(0, 3).map((e) => e.tagName + " " + e.className + " " + e.innerText?.slice(0, 30)).join("\n")`)
			t.Errorf("%s scrolls %d pixels sideways: %s", path, over, who)
		}
	}
	p = sit(t, 640, 400)
	p.visit(h.url + "/bench/4/follow/5")
	for _, name := range []string{"More", "Leave", "Next →"} {
		x, y := p.find(name, pressable)
		if x < 0 || y < 0 || x > 640 || y > 400 || !eval[bool](p, fmt.Sprintf("window.__hit.contains(document.elementFromPoint(%v, %v))", x, y)) {
			t.Errorf("%s is covered or outside, at %v %v", name, x, y)
		}
	}
	for _, path := range []string{"/bench/4/fold/3", "/bench/4/set", "/bench/4/try", "/bench/4/tune", "/bench/4/follow/3", "/start/curlew", "/papers/cut"} {
		p.visit(h.url + path)
		for range 45 {
			p.types(kb.Tab)
			if why := eval[string](p, hiddenFocus); why != "" {
				t.Errorf("%s: %s", path, why)
			}
		}
	}
}

// Stepping to and fro breeds no buttons, a slip's form opens where it is asked for, and a
// fault of an earlier step is looked up from a later one, in Follow too.
func TestItWentWrongEarlier(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	for _, build := range []string{"1", "11"} {
		p.visit(h.url + "/bench/" + build + "/fold/5")
		for range 4 {
			p.types(kb.ArrowRight)
			p.settled()
			p.types(kb.ArrowLeft)
			p.settled()
		}
		const count = `[...document.querySelectorAll("button")].filter((b) => b.innerText === "I folded it off its place").length`
		if n := eval[int](p, count); n != 1 {
			t.Errorf("build %s: %d buttons", build, n)
		}
		p.clicks("I folded it off its place")
		p.sees("What was brought")
		if n := eval[int](p, count); n != 0 {
			t.Errorf("build %s: the form opened and %d buttons are left", build, n)
		}
		was := p.screen()
		p.find("It went wrong at", "select")
		p.picks("It went wrong at", eval[string](p, `window.__hit.options[2].text`))
		p.until("another slip", `document.body.innerText !== `+quote(was))
		p.sees("What was brought")
		p.clicks("Close")
		p.clicks("Mine looks different")
		p.sees("Which one is yours?")
		p.find("It went wrong at", "select")
		p.picks("It went wrong at", eval[string](p, `window.__hit.options[1].text`))
		p.sees("Which one is yours?")
	}
	phone := sit(t, 390, 844)
	phone.visit(h.url + "/bench/1/follow/5")
	phone.clicks("Mine looks different")
	phone.sees("Which one is yours?")
	phone.find("It went wrong at", "select")
	phone.picks("It went wrong at", eval[string](phone, `window.__hit.options[1].text`))
	phone.clicks("I folded it off its place")
	phone.sees("What was brought")
	phone.at("/bench/1/follow/5")
	p.quiet()
}

// Next is the widest button of Follow on a phone, and a left hand has it at the left.
func TestNextIsWidestAndOnTheHandsSide(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 390, 844)
	const ways = `[...document.querySelectorAll("[data-ways] button")].map((b) => [b.innerText, b.getBoundingClientRect().x, b.getBoundingClientRect().width])`
	for _, hand := range []string{"right", "left"} {
		p.visit(h.url + "/settings")
		p.clicks(map[string]string{"right": "Right", "left": "Left"}[hand])
		p.settled()
		for _, path := range []string{"/bench/1/follow/3", "/bench/1/fold/3"} {
			p.visit(h.url + path)
			var next, widest float64
			var at float64
			for _, b := range eval[[][]any](p, ways) {
				name, x, w := b[0].(string), b[1].(float64), b[2].(float64)
				if name == "Next →" || name == "Next" {
					next, at = w, x
				} else {
					widest = max(widest, w)
				}
			}
			if next <= widest || next < 150 {
				t.Errorf("%s, %s hand: Next is %v wide, another button %v", path, hand, next, widest)
			}
			if left := at < 100; left != (hand == "left") {
				t.Errorf("%s, %s hand: Next begins at %v", path, hand, at)
			}
		}
	}
}
