package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/chromedp/kb"
)

// From an empty database: a wheel of every number of blades folds from an office sheet and from
// a square; what the words count is what the picture shows.
func TestWheelsOfEveryNumber(t *testing.T) {
	h := open(t, "", false)
	p := sit(t, 1280, 900)
	p.watch(h.url)
	for i, size := range [][2]string{{"210", "297"}, {"150", "150"}} {
		p.visit(h.url + "/start/seaaster")
		p.fills("Width", size[0])
		p.fills("Height", size[1])
		p.clicks("Begin folding")
		bench := fmt.Sprintf("/bench/%d", i+1)
		p.at(bench + "/paper")
		p.clicks("Fold it")
		p.at(bench + "/fold/1")
		p.sees("5 times", "10 creases run out")
		for n := 3; n <= 8; n++ {
			p.visit(h.url + bench + "/set?look=motion")
			eval[bool](p, `(document.querySelectorAll("details").forEach((d) => { d.open = true; }), true)`)
			p.fills("Blades, value", fmt.Sprint(n))
			p.types(kb.Enter)
			p.until(fmt.Sprintf("%d blades", n), fmt.Sprintf(`document.querySelectorAll("[data-blade]").length === %d`, n))
			p.until("it is kept", fmt.Sprintf(`(() => { const x = new XMLHttpRequest(); x.open("GET", "/api/v1/builds/%d", false); x.send(); return JSON.parse(x.responseText).setup.knobs.n === %d; })()`, i+1, n))
			p.visit(h.url + bench + "/fold/2")
			p.sees(fmt.Sprintf("%d leaves lie on one side and %d on the other", n-n/2, n/2), fmt.Sprintf("%d creases, in turn a ridge to a corner", 2*n))
			p.until("every crease can be tapped", fmt.Sprintf(`document.querySelectorAll("[data-ray]").length === %d`, 2*n))
			p.visit(h.url + bench + "/paper")
			p.until("the outline", fmt.Sprintf(`document.querySelector("[data-outline='%d']")`, n))
			p.sees(fmt.Sprintf("First %d equal sides", n))
			if n == 5 && i == 0 {
				p.sees("Pentagon, the customary mark", "Pentagon, the exact mark", "°")
			}
		}
	}
	p.quiet()
}

// A five-blade wheel from an office sheet: the creases are looked at, the wrong one is marked;
// it is logged uneven by counts and evened out in fewer moves than it has blades; then it is
// blown, dropped and tuned. At both widths.
func TestAnUnevenWheel(t *testing.T) {
	for _, wide := range []int{1280, 390} {
		t.Run(fmt.Sprint(wide), func(t *testing.T) {
			h := open(t, "", false)
			p := sit(t, wide, 844)
			p.watch(h.url)
			p.visit(h.url + "/start/seaaster")
			p.fills("Width", "210")
			p.fills("Height", "297")
			p.clicks("Begin folding")
			p.at("/bench/1/paper")
			p.sees("First 5 equal sides", "Pentagon, the customary mark", "Print it at true size")
			p.clicks("Fold it")
			p.at("/bench/1/fold/1")
			foldsTheWheel(p)
			p.visit(h.url + "/bench/1/set?look=motion")
			evensOut(p)
			// It turns at the computed rate, also under the stroboscope.
			p.clicks("Play slowly")
			p.until("it turns", `Number(document.querySelector("[data-turned]")?.dataset.turned) > 5`)
			p.clicks("Stop")
			blowsDropsAndTunes(p)
			p.quiet()
		})
	}
}

// foldsTheWheel goes through the steps that have aids.
func foldsTheWheel(p *person) {
	p.types(kb.ArrowRight)
	p.at("/bench/1/fold/2")
	// The first crease should be a ridge: two taps make it a valley.
	ray := `document.querySelectorAll("[data-ray]")[0]`
	eval[bool](p, `(`+ray+`.click(), true)`)
	p.until("a ridge is right", ray+`.dataset.ray === "right"`)
	eval[bool](p, `(`+ray+`.click(), true)`)
	p.until("a valley is marked", ray+`.dataset.ray === "wrong"`)
	p.sees("should be a ridge", "1 crease stands the wrong way")
	for range 16 {
		p.types(kb.ArrowRight)
	}
	p.at("/bench/1/fold/18")
	p.sees("Press again in single layers", "0 of 14 pressed again", "made through 10 layers")
	eval[bool](p, `(document.querySelector("[data-aid=list] input[type=checkbox]").click(), true)`)
	p.sees("1 of 14 pressed again")
	p.types(kb.ArrowRight)
	p.at("/bench/1/fold/19")
	p.sees("Press and twist with both hands", "turn clockwise, and press")
	p.types(kb.ArrowRight)
	p.at("/bench/1/fold/20")
	p.types(kb.ArrowRight)
	p.at("/bench/1/set")
	p.sees("turns a second", "Blunt the point first", "Blades stand evenly")
}

// evensOut types counts and moves one blade after the other, as it is told.
func evensOut(p *person) {
	p.sees("It turns clockwise, seen from the breath", "Evening out")
	counts := []string{"3.5", "5", "5.5", "6", "5"}
	for i, v := range counts {
		p.fills(fmt.Sprintf("%d to %d", i+1, (i+1)%5+1), v)
	}
	p.clicks("Take these counts")
	p.sees("folds of spread about a mean of 5", "Move blade")
	p.until("a spread of the counts", `Math.abs(Number(document.querySelector("[data-even] .figure")?.innerText) - 0.84) < 0.011`)
	p.until("one blade is marked", `document.querySelector("[data-heavy]") && document.querySelector("[data-move-first]")`)
	moves := 0
	for ; moves < 4; moves++ {
		if !eval[bool](p, `!!document.querySelector("[data-move-first]")`) {
			break
		}
		was := eval[string](p, `document.querySelector("[data-move-first]").innerText`)
		spread := eval[float64](p, `Number(document.querySelector("[data-even] .figure").innerText)`)
		eval[bool](p, `([...document.querySelectorAll("[data-even] button")].at(-1).click(), true)`)
		p.until("the next move", fmt.Sprintf(`document.querySelector("[data-move-first]")?.innerText !== %q`, was))
		if now := eval[float64](p, `Number(document.querySelector("[data-even] .figure").innerText)`); now > spread {
			p.t.Errorf("%s: the spread goes from %v to %v", was, spread, now)
		}
	}
	p.sees("No blade stands off by half a fold")
}

// blowsDropsAndTunes logs both and looks at what they say.
func blowsDropsAndTunes(p *person) {
	p.clicks("Blow at it or drop it")
	p.at("/bench/1/try")
	p.sees("Not tried yet", "Take turns and rest", "Flashing light")
	for _, v := range []string{"6.5", "7", "6.8"} {
		p.fills("Turns a second", v)
		p.types(kb.Enter)
		p.sees("The trial of " + v)
		p.until("an empty field", `document.querySelector("form input[data-quick]").value === ""`)
	}
	p.clicks("Drop")
	for range 2 {
		p.fills("Time to the floor", "1.2")
		p.types(kb.Enter)
		p.sees("The trial of 1.2")
		p.until("an empty field", `document.querySelector("form input[data-quick]").value === ""`)
	}
	p.clicks("What to change next")
	p.at("/bench/1/tune")
	p.sees("Learnt from 3 of your own")
	p.clicks("Four ways to try it")
	p.until("four cells", `document.querySelectorAll("[data-cell]").length === 4`)
	p.sees("measured, 3 trials")
	p.clicks("Other numbers of blades")
	p.sees("Other numbers of blades from the same sheet", "5, yours", "Layers of the pack")
	p.clicks("Search")
}

// The screen flashes only when somebody has said that nobody minds, and stops by a key.
func TestTheStroboscope(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url + "/bench/19/tune?view=strobe") // the sea aster
	p.sees("The screen as a stroboscope", "Flashes can bring on a fit")
	if eval[bool](p, `!!document.querySelector("[data-flashing]")`) {
		t.Error("it flashes unasked")
	}
	p.fills("Flashes a second", "90")
	p.sees("is not from 1 to 30")
	p.fills("Flashes a second", "10")
	p.clicks("Nobody here minds flashes")
	p.until("it flashes", `document.querySelector("[data-flashing] .bg-white")`)
	p.types(kb.Escape)
	p.until("it stops", `!document.querySelector("[data-flashing]")`)
	p.visit(h.url + "/bench/21/set?look=motion") // the marsh mill
	p.sees("seen from the breath", "Skewers and pins")
	if got := eval[string](p, `document.body.innerText`); strings.Contains(got, "NaN") || strings.Contains(got, "undefined") {
		t.Error("the page tells what is no number")
	}
	p.quiet()
}
