package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// hops logs hops by typing their distances, each with something seen.
func hops(p *person, seen string, cm ...string) {
	p.t.Helper()
	for _, d := range cm {
		p.fills("Distance", d)
		p.clicks(seen)
		p.clicks("Log the hop")
		p.sees("The hop of " + d + " cm is logged")
		p.until("an empty field", `document.querySelector("form input").value === ""`)
	}
}

// begins starts a Mudskipper on a sheet of its own and folds it to the end by keys.
func begins(p *person, home, name, wide, high string, build int) {
	p.t.Helper()
	p.visit(home + "/start/mudskipper")
	p.fills("Width", wide)
	p.fills("Height", high)
	p.fills("Name of the build", name)
	p.clicks("Begin folding")
	p.at(fmt.Sprintf("/bench/%d/fold/1", build))
	p.sees("Step 1 of 18", name)
	for range 17 {
		p.types(kb.ArrowRight)
	}
	p.at(fmt.Sprintf("/bench/%d/fold/18", build))
	p.sees("it stands on its front legs and the second fold")
	p.clicks("Done: set and balance")
	p.at(fmt.Sprintf("/bench/%d/set", build))
}

// Fold a hopper and its smaller sibling on an empty database, log ten hops of each, and
// see what size does and what to do about it; the model has learnt by then.
func TestHopperAndItsSmallSibling(t *testing.T) {
	h := open(t, "", false)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	begins(p, h.url, "Big Mudskipper", "75", "150", 1)
	p.sees("mm overhang", "Overhang", "ends 1.6 mm short of the hip fold", "Layers at the pleat", "Energy stored", "Take-off speed", "predicted: leaps forward", "more knobs", "Hip crease, radius")
	p.do(chromedp.Click(`[data-more-knobs] summary`))
	p.sees("The pleat and the stance", "They can be changed on the finished toy")
	p.clicks("Show the hop")
	p.sees("Predicted: leaps forward", "Lands on its feet", "good to a factor of two", "From the side", "From above, nose to the right")
	p.until("the arrow", `document.querySelector("[data-direction=forward]")`)
	p.clicks("Let it hop")
	p.at("/bench/1/try")
	p.sees("No hops yet", "Before the first hop", "never at faces")
	p.types("9")
	p.types(kb.Enter) // two keystrokes
	p.sees("The hop of 9 cm is logged at tweak 1")
	hops(p, "landed on its feet", "8", "9", "10", "8.5", "9.5", "9", "8", "10", "9")
	p.sees("cm median", "n = 10", "slide off the back", "wood or laminate")

	begins(p, h.url, "Small Mudskipper", "50", "100", 2)
	p.clicks("Let it hop")
	hops(p, "landed on its back", "20", "19", "21", "18", "22", "20", "19", "21", "20", "18")
	p.clicks("What to change next")
	p.at("/bench/2/tune")
	p.sees("Nothing to cure", "Learnt from 20 hops of 2 builds")
	p.clicks("Sizes")
	p.sees("Measured: Small Mudskipper, on a sheet 50 mm wide, comes to 2.2 times what Big Mudskipper does on 75 mm (n = 10, 10)", "The smaller one does better", "is predicted to come to most", "this build", "50 % of this", "width of the sheet, mm")
	p.until("both measured", `document.querySelectorAll("[data-sizes] svg circle").length === 2`)
	p.until("the caution on a small toy", `[...document.querySelectorAll("[data-size]")].some((r) => r.innerText.includes("can choke small children"))`)
	p.quiet()
}

// Soft against firm: the plan, both ways set up and logged, and what the log says.
func TestSoftAgainstFirm(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url + "/bench/14/tune?view=schools") // half a wrapper, not tried yet
	p.sees("How should the last two folds be pressed?", "Soft first: a crease that was pressed hard does not get soft again", "Not set so yet", "Where does the last fold go?")
	p.clicks("Set it up as A")
	p.sees("On the table now")
	p.visit(h.url + "/bench/14/try")
	hops(p, "leapt forward", "9", "11", "10", "12", "9", "11")
	p.visit(h.url + "/bench/14/tune?view=schools")
	p.clicks("Set it up as B")
	p.sees("Tweak 2", "On the table now")
	p.visit(h.url + "/bench/14/try")
	hops(p, "hardly hopped", "2", "2.5", "2", "3", "2.5", "2")
	p.visit(h.url + "/bench/14/tune?view=schools")
	p.sees("Your trials say: soft: a hard crease loses height (n = 6, 6)", "measured at tweak 1, n = 6")
	// The clinic says the same: it is pressed too hard, go back.
	p.sees("Go back to tweak 1", "roll both folds over a pencil")
	p.quiet()
}

// Tuning speaks of hops; what cannot be read is told with its field and nothing is
// searched; a ring is searched for where it was said to lie.
func TestHopSearch(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url + "/bench/14/tune?view=sweep")
	p.picks("Together with", "nothing else")
	p.sees("each point is the middle of scattered hops", "Most at")
	p.visit(h.url + "/bench/14/tune?view=search")
	p.picks("Aim", "lands in a ring")
	search := `([...document.querySelectorAll("main button")].filter((b) => b.innerText === "Search").at(-1).click(), true)`
	p.fills("The ring lies", "far")
	eval[bool](p, search)
	p.sees("The ring lies is “far”; write a number")
	p.fills("The ring lies", "0")
	eval[bool](p, search)
	p.sees("it must be more than 0")
	p.fills("The ring lies", "3")
	p.fills("Hip crease, radius, least", "soft")
	eval[bool](p, search)
	p.sees("The bound of Hip crease, radius is “soft”")
	p.fills("Hip crease, radius, least", "0.5")
	eval[bool](p, search)
	p.sees("the middle of fresh hops that nothing was chosen by", "Changes that bring next to nothing were taken back")
	p.gone("left and right are kept alike")
}

// A foot that catches the finger: a check before the first hop, a finding after some, and
// one button that puts it right. The direction seen against the one predicted is a
// finding of its own.
func TestCaughtFingerAndWrongWay(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url + "/bench/12/set")
	p.sees("mm overhang", "will catch the finger", "the overhang shifts by twice as much")
	p.until("the check", `document.querySelector("[data-check=overhang][data-ok=false]")`)
	p.visit(h.url + "/bench/12/tune")
	p.sees("The foot catches the finger. Move the last fold away from the hip.", "mm away from the hip", "caught the finger in")
	p.clicks("Make it tweak 2")
	p.sees("3 more hops before you decide")
	p.visit(h.url + "/bench/12/set")
	p.until("the check is right", `document.querySelector("[data-check=overhang][data-ok=true]")`)
	p.sees("ends 0.5 mm short of the hip fold")

	p.visit(h.url + "/bench/13/set?look=motion") // the backswimmer
	p.until("the arrow back", `document.querySelector("[data-direction=backward]")`)
	p.visit(h.url + "/bench/13/set")
	p.fills("Nose held up by the front legs, value", "4")
	p.types(kb.Enter)
	p.sees("Nose held up by the front legs", "→ 4 mm")
	p.clicks("Let it hop")
	hops(p, "leapt forward", "6", "7", "5")
	p.clicks("What to change next")
	p.sees("It leaps the other way than its pleat says", "leapt forward in 3 of 3", "Look which way the pleat is folded", "This is a test")
	p.quiet()
}

// What is in the way, kinds of trials, and the knobs by name; all at both widths.
func TestHopInTheWay(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url + "/bench/11/set?look=motion")
	p.clicks("bend")
	p.sees("Hip crease, radius 0.3 mm → 2 mm")
	p.clicks("The hop and the table")
	p.fills("Rope ahead", "10")
	p.types(kb.Tab)
	p.sees("it must be given too: a rope has a place and a height")
	p.fills("Height of the rope", "4")
	p.types(kb.Tab)
	p.sees("It clears the rope in", "Over the rope, predicted")
	p.until("the rope", `document.querySelector("[data-rope]")`)
	p.fills("Off a table so high", "70")
	p.types(kb.Tab)
	p.sees("off a table so high 70 cm")
	p.find("Moment of the hop", "input")
	eval[bool](p, `(window.__hit.focus(), true)`)
	p.types(kb.Home)
	p.sees("the finger presses the rear down", "finger")
	for range 20 {
		p.types(kb.ArrowRight)
	}
	p.sees("ms after it slipped off")

	p.visit(h.url + "/bench/11/try")
	p.picks("Tried for", "Onto a target")
	p.sees("From the middle of the ring", "no climbing, no crowding")
	p.fills("From the middle of the ring", "3")
	p.clicks("in the ring")
	p.clicks("Log the hop")
	p.sees("The hop of 3 cm is logged", "onto a target, in the ring")
	p.fills("From the middle of the ring", "600")
	p.clicks("Log the hop")
	p.sees("From the middle of the ring is 600 cm; it must be 0 to 500 cm")
	for _, path := range []string{"/bench/11/set?look=motion", "/bench/11/try", "/bench/11/tune", "/bench/11/tune?view=sizes", "/bench/11/tune?view=schools", "/bench/11/tune?view=sweep"} {
		p.do(chromedp.EmulateViewport(390, 844))
		p.visit(h.url + path)
		p.settled()
		if w := eval[float64](p, `document.documentElement.scrollWidth`); w > 391 {
			t.Errorf("%s is %v wide on a phone", path, w)
		}
	}
}
