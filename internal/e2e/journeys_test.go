package e2e

import (
	"strings"
	"testing"

	"github.com/chromedp/chromedp/kb"
)

// Ten journeys of people who use Tussock for the first time. Three more stand by
// themselves: a throw in three keys (TestAThrowInThreeKeys), files (TestBuildsAreNeverLost)
// and every word (TestEverySentence).

// atMost fails when somebody needed more actions than that.
func (p *person) atMost(n int, what string) {
	p.t.Helper()
	p.t.Logf("%s: %d actions", what, p.acts)
	if p.acts > n {
		p.t.Errorf("%s took %d actions, %d are allowed", what, p.acts, n)
	}
}

// A parent with ten minutes and a child of six: from the empty shelf to a logged throw.
func TestJourneyOfAParent(t *testing.T) {
	h := open(t, "", false)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url)
	p.picks("Who folds", "young child")
	p.picks("Time there is", "up to 10 minutes")
	p.sees("Too much for a young child", "Longer than 10 minutes", "patterns do", "Fold a Curlew")
	if n := eval[int](p, `[...document.querySelectorAll("main a")].filter((a) => getComputedStyle(a).backgroundColor === "rgb(255, 107, 44)").length`); n != 1 {
		t.Errorf("%d orange things on the shelf", n)
	}
	p.clicks("Fold a Curlew")
	p.clicks("Begin folding")
	p.at("/bench/1/fold/1")
	p.clicks("Follow, full screen")
	for range 9 {
		p.clicks("Next →")
		p.settled()
	}
	p.clicks("Done")
	p.at("/bench/1/set")
	p.clicks("Throw it →")
	p.at("/bench/1/try")
	p.fills("Distance", "4 m")
	p.types(kb.Enter)
	p.sees("The throw of 4.0 m is logged")
	p.atMost(20, "a parent from the shelf to a throw")
	p.quiet()
}

// A teacher of 24: squares for all from office sheets, planned and printed; the plan is
// there again the next day.
func TestJourneyOfATeacher(t *testing.T) {
	h := open(t, "", false)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url)
	p.clicks("Papers")
	p.clicks("Cut pieces")
	p.clicks("Take row 2 of pieces wanted away")
	p.fills("Count", "24")
	p.find("Papers at hand, row 1", "[role=group]")
	eval[bool](p, `(window.__hit.querySelectorAll("input")[3].focus(), window.__hit.querySelectorAll("input")[3].select(), true)`)
	p.acts++
	p.press("30")
	p.clicks("Plan the cuts")
	p.sees("6 sheets are opened", "6 sheets like this: leaflet", "4 at 105 mm", "2 at 148.5 mm", "Print the plan, 1 page")
	link := eval[string](p, `[...document.querySelectorAll("a")].find((a) => a.innerText.startsWith("Print the plan")).getAttribute("href")`)
	p.acts++ // pressing it
	pdf := h.get(t, link)
	if !strings.HasPrefix(pdf, "%PDF") {
		t.Errorf("the print is %.60q", pdf)
	}
	p.atMost(8, "a teacher's plan and its print")
	p.visit(h.url + "/papers/cut")
	p.sees("6 sheets are opened")
	p.clicks("2 at 148.5 mm")
	p.sees("12 sheets like this")
	p.quiet()
}

// A square a millimetre out, in inches: it folds, and says what the millimetre does; one
// that is much out is trimmed; a sheet that lies across is turned, not cut.
func TestJourneyWithASheetThatIsNotSquare(t *testing.T) {
	h := open(t, "", false)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url + "/settings")
	p.clicks("inch, to 1/16")
	p.visit(h.url + "/start/backswimmer")
	p.acts = 0
	p.fills("Width", "6")
	p.fills("Height", "6.04 in")
	p.clicks("Begin folding")
	p.at("/bench/1/fold/1")
	p.sees("too high for its width, and is folded all the same")
	p.atMost(8, "a square a millimetre out")

	p.visit(h.url + "/start/backswimmer")
	p.acts = 0
	p.fills("Width", "6")
	p.fills("Height", `6 1/4"`)
	p.clicks("Begin folding")
	p.sees("is folded from a square; this sheet is 1/4 in higher than wide")
	p.clicks("Trim 1/4 in off its upper edge")
	p.clicks("Take this piece and begin")
	p.until("the sheet is got", `location.pathname.endsWith("/paper")`)
	p.atMost(8, "a square a quarter of an inch out")

	p.visit(h.url + "/start/curlew")
	p.acts = 0
	p.fills("Width", "11")
	p.fills("Height", "8 1/2")
	p.clicks("Begin folding")
	p.clicks("Turn the sheet a quarter and go on")
	p.until("it is folded", `location.pathname.endsWith("/fold/1")`)
	if s := h.at(t, 3).Draft.Sheet; s.WidthMM > s.HeightMM || s.Way != "" {
		t.Errorf("the sheet is %+v", s)
	}
	p.atMost(8, "a sheet that lies across")

	// An exact square, measured with a ruler.
	p.visit(h.url + "/settings")
	p.clicks("mm")
	p.visit(h.url + "/papers/sizes")
	p.fills("Width", "150")
	p.fills("Height", "150")
	p.fills("Rising", "212.1")
	p.picks("What will it do to the toy?", "Natterjack")
	p.sees("Square enough to fold", "Natterjack closes as it should")
	p.fills("Height", "151")
	p.fills("Rising", "212.8")
	p.picks("What will it do to the toy?", "Backswimmer")
	p.sees("Each mm that the sheet is off moves edges that should meet by 0.5 mm", "Trim it to 150 × 150 mm")
	p.quiet()
}

// One hand on a phone: all that a folder needs at a step is there without leaving Follow.
func TestJourneyWithOneHandOnAPhone(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 390, 844)
	p.watch(h.url)
	p.visit(h.url + "/bench/1/follow/1")
	stays := func() {
		t.Helper()
		if path := p.path(); !strings.HasPrefix(path, "/bench/1/follow/") {
			t.Fatalf("left Follow for %s", path)
		}
	}
	for step := 1; step < 10; step++ {
		p.clicks("Other side")
		p.clicks("Other side")
		p.clicks("Mine looks different")
		p.sees("Which one is yours?")
		stays()
		p.clicks("I folded it off its place")
		p.until("the form, or why there is none", `document.body.innerText.includes("By how much") || document.body.innerText.includes("No crease is made at this step")`)
		p.clicks("More")
		p.sees("Signs in this picture", "Show a timer")
		stays()
		p.clicks("Next →")
		p.settled()
		stays()
	}
	p.clicks("Done")
	p.at("/bench/1/set")
	p.quiet()
}

// A left hand by night: the slip and the buttons lie at the left, and pictures stand out
// from the ground.
func TestJourneyOfALeftHandByNight(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.visit(h.url + "/settings")
	p.clicks("Left")
	p.clicks("Night")
	for _, path := range []string{"/bench/5/set", "/bench/4/fold/5", "/bench/4/follow/5", "/bench/11/set?look=motion"} {
		p.visit(h.url + path)
		for _, f := range eval[[]string](p, faint) {
			t.Errorf("%s: %s", path, f)
		}
		if strings.Contains(path, "follow") {
			continue
		}
		if slip, mat := eval[float64](p, `document.querySelector("section[aria-label=Slip]").getBoundingClientRect().x`), eval[float64](p, `document.querySelector("section[aria-label=Mat]").getBoundingClientRect().x`); slip >= mat {
			t.Errorf("%s: the slip lies at %v, the mat at %v", path, slip, mat)
		}
	}
}

// Nonsense in every field for a number: what was typed stays, and what would be right is
// said; nothing fails.
func TestJourneyOfNonsense(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	for _, path := range []string{"/start/curlew", "/bench/1/paper", "/bench/5/set", "/bench/4/try", "/papers/sizes", "/papers/get", "/papers/cut", "/papers/divide", "/bench/4/tune?view=search"} {
		p.visit(h.url + path)
		eval[bool](p, `(document.querySelectorAll("details").forEach((d) => (d.open = true)), true)`)
		n := eval[int](p, `document.querySelectorAll("main input[data-unit]:not(:disabled)").length`)
		if n == 0 {
			t.Errorf("%s has no field for a number", path)
		}
		for i := range min(n, 9) {
			eval[bool](p, `(() => { const e = [...document.querySelectorAll("main input[data-unit]:not(:disabled)")][`+string(rune('0'+i))+`]; e.focus(); e.select(); return true; })()`)
			p.press("x9z")
			p.press(kb.Enter)
			p.settled()
			if !eval[bool](p, `document.querySelector("main h1") !== null`) {
				t.Fatalf("%s failed: %s", path, p.screen())
			}
			if said := eval[bool](p, `document.body.innerText.includes("x9z") || document.body.innerText.includes("no number") || document.body.innerText.includes("is no")`); !said {
				t.Errorf("%s: nothing is said of field %d", path, i)
			}
			eval[bool](p, `(document.activeElement.select?.(), true)`)
			p.press("10")
		}
	}
	p.quiet()
}
