package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp/kb"
)

// Fold the pin token by keys on an empty database, hang it, log three leans by number and a
// tap on the clock, and cure it; at both widths.
func TestATokenThatLeans(t *testing.T) {
	for _, wide := range []int{1280, 390} {
		t.Run(fmt.Sprint(wide), func(t *testing.T) {
			h := open(t, "", false)
			p := sit(t, wide, 844)
			p.watch(h.url)
			p.visit(h.url + "/start/tidegauge")
			p.fills("Width", "210")
			p.fills("Height", "297")
			p.clicks("Begin folding")
			p.at("/bench/1/fold/1")
			for range 9 {
				p.types(kb.ArrowRight)
			}
			p.at("/bench/1/set")
			p.sees("mm off the balance", "Weight below the pin", "Both halves alike", "the point away from faces")
			p.clicks("Show the balance")
			p.sees("From above, as it hangs", "where it rests", "the mark made on the way")
			p.until("the signs", `document.querySelector("[data-support]") && document.querySelector("[data-com]") && document.querySelector("[data-trace]")`)
			p.clicks("Hang it on a pin")
			p.at("/bench/1/try")
			for range 3 {
				p.fills("Leans by", "8")
				p.clicks("Leans or rubs towards: 3 o'clock")
				p.clicks("leaned")
				p.clicks("Log how it hangs")
				p.sees("The trial of 8° is logged")
				p.until("an empty field", `document.querySelector("form input[data-quick]").value === ""`)
			}
			p.sees("3 o'clock", "° median")
			p.clicks("What to change next")
			p.at("/bench/1/tune")
			p.sees("It is heavier towards 3 o'clock than folded. Move the point 1.9 mm towards 3 o'clock.")
			eval[bool](p, `(document.querySelectorAll("details").forEach((d) => { d.open = true; }), true)`)
			p.sees("of the mass", "Leaned towards 3 o'clock in 3 readings, by 8°")
			p.clicks("Where to aim")
			p.sees("Bring point and weight together", "What a fold does to the balance")
			p.clicks("Make it tweak 2")
			p.sees("before you decide")
			p.visit(h.url + "/bench/1/set?look=motion")
			p.sees("Predicted: hangs level", "where it was found")
			p.quiet()
		})
	}
}

// A point that is moved off the balance: the offset is the biggest number, a check says by
// how much and which way, one button brings it back; the real balance is tapped on the
// picture, and used.
func TestAPointOffTheBalance(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 900)
	p.watch(h.url)
	p.visit(h.url + "/bench/17/set?look=motion") // the cockle
	p.sees("Predicted: stands and spins", "turns a second", "stands from here up", "Optional step 12 moves the balance")
	p.fills("Point moved to the right, value", "3")
	p.types(kb.Enter)
	p.sees("3 mm off the centre of mass. Bring it 3 mm towards 9 o'clock", "Or bring the weight to the point")
	p.until("the big number", `document.querySelector("main .figure")?.innerText === "3"`)
	p.clicks("Move the point there")
	p.until("it is back", `document.querySelector("[data-check=offset][data-ok=true]")`)
	p.clicks("I found the balance elsewhere")
	// Beside the middle of the picture, a twentieth of it to the right.
	eval[bool](p, `(() => { const s = document.querySelector("[data-token]"); const r = s.getBoundingClientRect();
		s.dispatchEvent(new MouseEvent("click", { bubbles: true, clientX: r.x + r.width * 0.55, clientY: r.y + r.height / 2 })); return true; })()`)
	p.sees("where it was found", "Found", "from where it is computed")
	p.until("it is off by what was tapped", `Math.abs(Number(document.querySelector("main .figure")?.innerText) - 7) < 2.5`)
	p.sees("Predicted: rubs", "It does not turn long enough to draw")
	p.clicks("Move the point there")
	p.sees("Predicted: stands and spins")
	// It turns while it is played, and stands still again.
	p.clicks("Play slowly")
	p.until("it turns", `Number(document.querySelector("[data-turned]")?.dataset.turned) > 10`)
	p.clicks("Stop")
	at := eval[string](p, `document.querySelector("[data-turned]").dataset.turned`)
	p.settled()
	if now := eval[string](p, `document.querySelector("[data-turned]").dataset.turned`); now != at {
		t.Errorf("it turns on from %s to %s", at, now)
	}
	p.quiet()
}
