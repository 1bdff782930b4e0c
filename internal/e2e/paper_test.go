package e2e

import (
	"fmt"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// Another sheet for a build that has not been thrown; a paper kept in the drawer.
func TestAnotherSheet(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url + "/bench/7/paper")
	p.sees("1.44 g", "152.4 × 152.4 mm, front side up")
	p.clicks("A4 210 × 297 mm")
	p.fills("Paper weight", "100")
	p.clicks("Take this sheet")
	p.sees("6.24 g", "210 × 297 mm, front side up", "Curlew on Sweet wrapper square, A4, 100 g/m²")
	p.clicks("Step 4")
	p.sees("210 mm × 297 mm, 4 layers")

	// Own measures in inches, with a fraction, given a name and kept.
	p.clicks("Paper, the sheet")
	p.clicks("inch")
	p.fills("Width", "7 1/2")
	p.fills("Height", "10,5")
	p.clicks("Faces, and keep this paper")
	p.fills("Name of the paper", "Ferry poster")
	p.clicks("Keep in the drawer")
	p.until("the paper in the drawer", `[...document.querySelectorAll("form button")].some((b) => b.innerText.trim() === "Ferry poster")`)
	p.clicks("Take this sheet")
	p.sees("190.5 × 266.7 mm, front side up")
	p.clicks("Put Ferry poster into the bin")
	p.sees("Ferry poster is in the bin")
	p.visit(h.url + "/bin")
	p.sees("Ferry poster, a paper")

	// A sheet on which it cannot be folded is refused with what would do; the mat
	// keeps the sheet that works.
	p.visit(h.url + "/bench/7/paper")
	p.fills("Width", "266.7")
	p.fills("Height", "190.5")
	p.clicks("Take this sheet")
	p.sees("Not as it is", "between 1 and 2 times as high as wide", "At this width it works from 266.7 mm to 533.4 mm high", "The build keeps the sheet that works", "Curlew on Ferry poster, 190.5 × 266.7 mm")
	if v := p.value("Width"); v != "266.7" {
		t.Errorf("the refused width is lost: %q", v)
	}
	// It only lies the wrong way round.
	p.clicks("The same sheet, the other way round")
	p.sees("Lay the sheet upright first")
	p.clicks("Take this piece")
	p.sees("Fits", "Curlew on Ferry poster, 190.5 × 266.7 mm")

	// After throws another sheet is another toy.
	p.visit(h.url + "/bench/1/paper")
	p.clicks("Letter 215.9 × 279.4 mm")
	p.clicks("Take this sheet")
	p.sees("another sheet", "This toy has been tried already")
	p.clicks("Fold it anew as a child build")
	p.sees("Leaflet Curlew, child 1", "Letter", "Step 1 of 10")
	p.quiet()
}

// Knobs by slider: with the mouse and with keys; what is typed wrong is explained.
func TestKnobs(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url + "/bench/7/set")
	p.sees("predicted", "Static margin", "for rigid wings in still air")
	x, y := p.find("Wing angle", "[role=slider]")
	p.do(chromedp.DragAndDropXY(x, y, x-60, y, 6))
	p.sees("Wing angle 90° →")
	if v := p.value("Wing angle, value"); v == "90" {
		t.Error("dragging the slider moves nothing")
	}
	p.find("Keel depth, from the landmark", "[role=slider]")
	eval[bool](p, `(window.__hit.focus(), true)`)
	keel := measured(p, "Keel depth")
	for range 4 {
		p.types(kb.ArrowRight)
	}
	p.until("a deeper keel", `![...document.querySelectorAll("[data-measures] div")].find((d) => d.innerText.startsWith("Keel depth")).innerText.includes(`+quote(keel)+`)`)
	p.sees("Keel depth, from the landmark 0 mm → 2 mm")
	// How far it goes on this sheet, and what ends it there.
	p.sees("On this sheet it goes from 0 mm to")
	p.clicks("On this sheet it goes from 0 mm to 16 mm")
	p.sees("Found by folding it, the other knobs as they are", "It can be folded with “")
	p.fills("Wing angle, value", "190")
	p.types(kb.Enter)
	p.sees("Wing angle is “190”; it must be 0° to 180°.")
	p.types(kb.Escape)
	p.gone("it must be 0°")
	// Typed with its own unit.
	p.fills("Keel depth, from the landmark, value", `1/4"`)
	p.types(kb.Enter)
	p.sees("0 mm → 6.4 mm") // 6.35, shown to a tenth
	// The same knob stands at the step it belongs to, and the picture follows it.
	before := eval[string](p, `document.querySelector("nav[aria-label=Trail] [aria-label^='Step 7'] svg").innerHTML`)
	p.clicks("Step 7")
	p.sees("The crease lies off its landmarks on purpose: 6.4 mm")
	p.fills("Keel depth, from the landmark, value", "0")
	p.types(kb.Enter)
	p.gone("off its landmarks on purpose")
	p.until("the trail's picture follows the knob", `document.querySelector("nav[aria-label=Trail] [aria-label^='Step 7'] svg").innerHTML !== `+quote(before))
	p.quiet()
}

// Addresses that lead nowhere, and a server that has gone, are told plainly.
func TestLostAndGone(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	for path, words := range map[string]string{
		"/bench/99": "This build is not on the bench", "/start/heron": "no pattern called “heron”", "/pier": "nothing at this address",
	} {
		p.visit(h.url + path)
		p.sees(words, "Go to the shelf")
	}
	// A step beyond the last is the last; one that is no number the first.
	for path, words := range map[string]string{"/bench/1/fold/99": "Step 10 of 10", "/bench/1/fold/x": "Step 1 of 10", "/bench/1/nowhere": "How far did it go?"} {
		p.visit(h.url + path)
		p.sees(words)
	}
	p.visit(h.url + "/bench/1/try")
	h.stop()
	p.types("6")
	p.types(kb.Enter)
	p.sees("Tussock does not answer")
	if v := p.value("Distance"); v != "6" {
		t.Errorf("the throw that could not be sent is lost: %q", v)
	}
}

// Lengths are shown in the person's unit everywhere, inches in sixteenths.
func TestInchesAreSixteenths(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.visit(h.url)
	p.types("m")
	p.sees("A4, 8 1/4 × 11 11/16 in") // 210 and 297 mm to the nearest sixteenth
	pages := []string{"/papers", "/papers/get", "/papers/sizes", "/papers/divide", "/papers/cut", "/bench/8/fold/9", "/bench/4/follow/7"}
	for b := 1; b <= 8; b++ {
		for _, s := range []string{"paper", "fold/2", "set"} {
			pages = append(pages, fmt.Sprintf("/bench/%d/%s", b, s))
		}
	}
	for _, path := range pages {
		p.visit(h.url + path)
		for _, line := range strings.Split(p.screen(), "\n") {
			if (strings.HasSuffix(line, " mm") || strings.Contains(line, " mm ")) && !strings.Contains(line, "mm thick") && !strings.Contains(line, "a hair, ") && line != "Thickness of one sheet mm" {
				t.Errorf("%s still says %q", path, line)
			}
		}
	}
}
