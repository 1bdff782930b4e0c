package e2e

import (
	"fmt"
	"io"
	"net/http"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
)

// A knob is moved with real keys; the time runs from the key to the frame after
// the new picture is in the page. The bar is 100 ms for 95 of 100 moves; the test
// allows three times that, since other work may share the machine.
func TestSpeedOfAKnob(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.visit(h.url + "/bench/7/set")
	p.find("Wing angle", "[role=slider]")
	eval[bool](p, `(window.__hit.focus(), true)`)
	timed(p, `document.querySelector("[aria-label=Mat] [role=img]").parentElement`)
	within(p, "knob to picture", 300, 60, func(int) { p.types(kb.ArrowLeft) })
}

// From the key to the picture of the next step in the page, in Follow: 80 ms for 95 of
// 100 steps is the bar; the test allows three times that.
func TestSpeedOfAStep(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.visit(h.url + "/bench/8/follow/3")
	p.sees("Bring the top left corner")
	timed(p, `document.querySelector("main")`)
	within(p, "step to picture", 240, 40, func(i int) { p.types(thereAndBack(i, kb.ArrowRight, kb.ArrowLeft)) })
}

// From the key on a slider to the repainted flight path: 120 ms for 95 of 100 moves is the
// bar; the test allows three times that.
func TestSpeedOfAFlight(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.visit(h.url + "/bench/1/set?look=motion")
	p.until("the path", `document.querySelector("[data-path]")`)
	p.find("Wing angle", "[role=slider]")
	eval[bool](p, `(window.__hit.focus(), true)`)
	timed(p, `document.querySelector("[data-path]")`)
	within(p, "slider to flight path", 360, 40, func(int) { p.types(kb.ArrowLeft) })
}

// thereAndBack goes ten steps one way and ten back.
func thereAndBack(i int, there, back string) string {
	if i/10%2 == 1 {
		return back
	}
	return there
}

// within makes n moves, reports what timed has noted, and fails when 95 of 100 take longer
// than so many ms. A machine that is disturbed by other work is measured again.
func within(p *person, what string, most float64, n int, move func(i int)) {
	p.t.Helper()
	withinTries(p, what, most, n, 3, move)
}

// withinTries is within, measured so many times at most. Moves during which the machine itself
// stood still are not of the program, and do not count; when too few are left nothing is known.
func withinTries(p *person, what string, most float64, n, tries int, move func(i int)) {
	p.t.Helper()
	m := watched(p.t)
	known := false
	for range tries {
		eval[bool](p, `(window.__took = [], true)`)
		var calm []int
		for i := range n {
			begun := time.Now()
			move(i)
			p.until("what is new", fmt.Sprintf("window.__took.length > %d", i))
			if !m.stoodStill(begun) {
				calm = append(calm, i)
			}
		}
		all := eval[[]float64](p, `window.__took`)
		took := make([]float64, len(calm))
		for k, i := range calm {
			took[k] = all[i]
		}
		if len(took) < n/2 {
			slices.Sort(all)
			p.t.Logf("%s: the machine stood still during %d of %d moves; median %.0f ms", what, n-len(took), n, all[len(all)/2])
			continue
		}
		known = true
		slices.Sort(took)
		p95 := took[len(took)*95/100]
		p.t.Logf("%s: median %.0f ms, p95 %.0f ms, worst %.0f ms of %d", what, took[len(took)/2], p95, took[len(took)-1], len(took))
		if p95 <= most {
			return
		}
	}
	if known {
		p.t.Errorf("%s takes longer than %.0f ms", what, most)
		return
	}
	p.t.Logf("%s: nothing is known, the machine never was calm", what)
}

// timed notes, from now on, how long it takes from a key to the frame after pictures
// below an element have changed, in window.__took.
func timed(p *person, element string) {
	p.t.Helper()
	eval[bool](p, `(() => {
		window.__took = [];
		let from = 0;
		addEventListener("keydown", () => { from = performance.now(); }, true);
		new MutationObserver(() => {
			if (!from) return;
			const start = from;
			from = 0;
			requestAnimationFrame(() => { const c = new MessageChannel(); c.port1.onmessage = () => window.__took.push(performance.now() - start); c.port2.postMessage(0); });
		}).observe(`+element+`, { subtree: true, childList: true, attributes: true, attributeFilter: ["points", "d"] });
		return true;
	})()`)
}

// The scripts of the first load, as they cross the wire, stay below 120 kB.
func TestSpeedOfFirstLoad(t *testing.T) {
	h := open(t, "", false)
	get := func(path string) (body []byte, wire int) {
		req, err := http.NewRequestWithContext(t.Context(), http.MethodGet, h.url+path, nil)
		if err != nil {
			t.Fatal(err)
		}
		req.Header.Set("Accept-Encoding", "gzip") // set by hand, so it is not unpacked
		res, err := http.DefaultClient.Do(req)
		if err != nil {
			t.Fatal(err)
		}
		b, err := io.ReadAll(res.Body)
		if err != nil {
			t.Fatal(err)
		}
		if err := res.Body.Close(); err != nil {
			t.Fatal(err)
		}
		if strings.HasSuffix(path, ".js") && len(b) > 2000 && res.Header.Get("Content-Encoding") != "gzip" {
			t.Errorf("%s is not compressed", path)
		}
		return b, len(b)
	}
	html, _ := get("/")
	total := 0
	for _, m := range regexp.MustCompile(`(?:src|href)="(/assets/[^"]+\.js)"`).FindAllSubmatch(html, -1) {
		_, n := get(string(m[1]))
		total += n
	}
	t.Logf("first load: %d kB of compressed script", total/1000)
	if total == 0 || total > 120_000 {
		t.Errorf("first load is %d bytes of script", total)
	}
}

// A page of a build is there soon after its address is opened: its largest part is painted
// within 400 ms, which is the bar; the test allows three times that.
func TestSpeedOfOpening(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.visit(h.url)
	var took []float64
	for i := range 5 {
		p.visit(fmt.Sprintf("%s/bench/1/fold/%d", h.url, 3+i))
		p.sees(fmt.Sprintf("Step %d of 10", 3+i))
		took = append(took, eval[float64](p, `new Promise((done) => new PerformanceObserver((l) => done(Math.max(...l.getEntries().map((e) => e.startTime)))).observe({ type: "largest-contentful-paint", buffered: true }))`, chromedp.EvalAwaitPromise))
	}
	slices.Sort(took)
	t.Logf("opening a step by its address: median %.0f ms, worst %.0f ms of %d", took[2], took[4], len(took))
	if took[2] > 1200 {
		t.Errorf("opening a step takes %.0f ms", took[2])
	}
}

// The same for a hop: how hard a fold is pressed leaves the fold alone, the place of the
// last fold needs the toy folded anew. 100 ms is the bar.
func TestSpeedOfAHop(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	// All places are new, so that no answer comes from a cache: the second time it goes on,
	// or to the other side of where the knob stood.
	for _, c := range []struct {
		knob string
		n    int
		back bool
	}{{"Hip crease, radius", 9, false}, {"Last fold, along the rear flap from the hip", 7, true}} {
		p.visit(h.url + "/bench/11/set?look=motion")
		p.until("the path", `document.querySelector("[data-path]")`)
		p.find(c.knob, "[role=slider]")
		eval[bool](p, `(window.__hit.focus(), true)`)
		p.types(kb.ArrowRight) // the first move warms the page up
		p.settled()
		timed(p, `document.querySelector("[data-path]")`)
		moved, to := 0, kb.ArrowRight
		withinTries(p, "slider to hop, "+c.knob, 300, c.n, 2, func(int) {
			if moved == c.n && c.back {
				to = kb.ArrowLeft
				for range c.n + 1 {
					p.types(to)
				}
				p.settled()
				eval[bool](p, `(window.__took = [], true)`)
			}
			p.types(to)
			moved++
		})
	}
}
