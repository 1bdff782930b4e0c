package e2e

import (
	"strings"
	"testing"

	"github.com/chromedp/chromedp/kb"
)

// Paper before the first fold: what a sheet holds, a third by folding, pieces by
// straight cuts; each answer follows what is typed, and a wrong entry is named.
// Long because it visits every tool of the papers once, in one browser.
func TestPapers(t *testing.T) {
	h := open(t, "", false)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url)
	p.clicks("Papers")
	p.at("/papers")
	p.sees("The drawer is empty")
	p.clicks("Sizes")
	p.at("/papers/sizes")
	p.sees("210 mm is the largest square", "2 squares of 87 mm", "148.5 mm", "trim 25.2 mm off the height")
	p.fills("Width", "20")
	p.sees("20 mm is the largest square")
	p.fills("Width", "150")
	p.fills("Height", "150")
	p.fills("Rising, mm", "213.06")
	p.fills("Falling, mm", "211.21")
	p.sees("Corners miss by 1.3 mm", "Trim it to 148.7 × 150 mm", "The lower left corner has 89.5°")
	p.fills("Falling, mm", "213")
	p.sees("Square enough to fold")
	p.fills("Width", "151")
	p.fills("Rising, mm", kb.Backspace)
	p.fills("Falling, mm", kb.Backspace)
	p.picks("What will it do to the toy?", "Saltmarsh oracle")
	p.sees("Saltmarsh oracle: up to 1 mm out at the end", "the two halves of the lower edge: leave a gap of 1 mm", "the two halves of the right edge: overlap by 1 mm", "Trim it to 150 × 150 mm", "1 mm off the width, 0 mm off the height")
	p.picks("What will it do to the toy?", "no toy chosen")
	p.fills("Width", "150")
	p.fills("Rising, mm", "213.06")
	p.fills("Falling, mm", "250")
	p.sees("measure again")
	p.fills("Falling, mm", "x")
	p.sees("“x” is no length")
	p.fills("Width", "wide")
	p.sees("“wide” is no length")
	p.fills("Width", "150")
	p.fills("Height", "150")
	p.sees("1 square of 150 mm", "150 × 150 mm: nothing to trim")

	p.clicks("Divide by folding")
	p.at("/papers/divide")
	p.sees("4 creases, exact", "1 crease: 12 mm off", "where crease 3 meets crease 1", "the lower end, then the upper end")
	p.fills("First, mm", "101")
	p.fills("Middle, mm", "9.7cm")
	p.fills("Last, mm", "some")
	p.sees("“some” is no length")
	p.fills("Last, mm", "99")
	p.sees("First fold: 2 mm towards the first end", "Second fold: leave it where it is", "Each third is 99 mm")
	p.fills("First, mm", "99.2")
	p.fills("Middle, mm", "99")
	p.sees("Press it")
	p.clicks("3 creases: 0.01 mm off")
	p.sees("On this sheet it gives 0.333")
	p.fills("of", "5")
	p.sees("A guess", "then the lower end")
	p.fills("Part", "7")
	p.sees("That cannot be divided")
	p.fills("Part", "1")
	p.clicks("equal parts")
	p.fills("Equal parts of the left edge", "7")
	p.sees("Then the other marks", "by the recipe above", "6 of 7")
	p.fills("Equal parts of the left edge", "8")
	p.sees("The marks, by halving", "Bring the beginning to the end, pinch, open.")
	p.fills("Equal parts of the left edge", "2.5")
	p.sees("equal parts; it must be 2 to 33")
	p.clicks("at a length")
	p.fills("Length on the left edge", "4in")
	p.sees("° seen from the lower right corner")
	p.fills("Length on the left edge", "300")
	p.sees("it must be a length on the left edge, which has 297 mm")
	p.clicks("the corner")
	p.sees("From the lower edge")
	if n := eval[int](p, `document.querySelectorAll("main ol svg").length`); n == 0 {
		t.Error("no picture of the creases of an angle")
	}

	p.clicks("Cut pieces")
	p.at("/papers/cut")
	p.sees("72 % of the paper used", "1 sheet is opened", "Level cut, 105 mm from the lower edge", "square 105 × 105 mm")
	// Strips that must run along the grain, on a paper whose grain is known.
	eval[bool](p, `(() => {
		const all = [...document.querySelectorAll("select")];
		const set = Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, "value").set;
		[["height", all[3]], ["height", all[4]]].forEach(([v, e]) => { set.call(e, v); e.dispatchEvent(new Event("change", { bubbles: true })); });
		return true;
	})()`)
	p.clicks("Plan the cuts")
	p.sees("strip 148.5 × 40 mm")
	p.gone("40 × 148.5 mm")
	p.sees("Small children need an adult's help")
	p.clicks("Put the")
	p.sees("in the drawer")
	p.picks("Shape", "6 equal sides")
	p.fills("Side, mm", "40")
	p.types(kb.Enter)
	p.sees("then the outlines within their rectangles")
	if n := eval[int](p, `document.querySelectorAll("main li svg path").length`); n != 3 {
		t.Errorf("%d hexagons are drawn", n)
	}
	p.picks("Shape", "rectangle")
	p.fills("Width, mm", "105")
	p.fills("Count", "40")
	p.types(kb.Enter)
	p.sees("Not everything fits", "cannot be cut from these papers")
	p.fills("Count", "some")
	p.types(kb.Enter)
	p.sees("A size or count is no number")
	p.fills("Count", "0")
	p.types(kb.Enter)
	p.sees("The order is not clear", "count")

	// The unit is the person's, and a size typed in the other one is understood.
	p.clicks("mm / inch")
	p.clicks("Divide by folding")
	p.sees("3 creases: under 0.001 in off", "A hand that is 0.012 in out") // too small for sixteenths
	p.clicks("Sizes")
	p.fills("Rising, in", "14")
	p.clicks("mm / inch")
	p.sees("Rising, mm")
	if v := p.value("Rising, mm"); v != "355.6" {
		t.Errorf("14 in become %q", v)
	}
	p.clicks("mm / inch")
	p.visit(h.url + "/papers/sizes")
	p.fills("Width", "8 1/2")
	p.sees("8 1/2 in is the largest square")
	p.clicks("mm / inch")
	p.sees("215.9 mm is the largest square")

	q := sit(t, 390, 844)
	q.watch(h.url)
	for path, says := range map[string]string{"/papers": "Leftover of leaflet", "/papers/sizes": "largest square", "/papers/get": "One fold, one cut", "/papers/divide": "creases, exact", "/papers/cut": "paper used"} {
		q.visit(h.url + path)
		q.sees(says)
		if wide := eval[float64](q, `document.documentElement.scrollWidth`); wide > 390 {
			t.Errorf("%s is %v pixels wide on a phone", path, wide)
		}
	}
	if text := eval[string](q, `document.querySelector("header").innerText`); !strings.Contains(text, "Papers") {
		t.Errorf("the header of a phone says %q", text)
	}
}
