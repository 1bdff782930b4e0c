package e2e

import (
	"context"
	"fmt"
	"io"
	"net/http"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"tussock/internal/bench"
	"tussock/internal/store"
)

// onDisk is what the data file holds now.
func onDisk[T any](t *testing.T, h *hall, read func(context.Context, *store.Store) (T, error)) T {
	t.Helper()
	s, err := store.Open(t.Context(), h.data)
	if err != nil {
		t.Fatal(err)
	}
	v, err := read(t.Context(), s)
	if err != nil {
		t.Fatal(err)
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	return v
}

// at is a build as it is on disk.
func (h *hall) at(t *testing.T, id int64) *bench.Build {
	t.Helper()
	return onDisk(t, h, func(ctx context.Context, s *store.Store) (*bench.Build, error) { return s.Build(ctx, id) })
}

// comes waits until a build on disk is as wanted.
func (h *hall) comes(t *testing.T, id int64, what string, is func(*bench.Build) bool) {
	t.Helper()
	for deadline := time.Now().Add(patience); ; time.Sleep(100 * time.Millisecond) {
		b := h.at(t, id)
		if is(b) {
			return
		}
		if time.Now().After(deadline) {
			t.Fatalf("waited for %s in vain: draft %+v, %d tweaks, %d trials", what, b.Draft, len(b.Tweaks), b.Trials())
		}
	}
}

// dial puts the focus on a dial.
func (p *person) dial(knob string) {
	p.t.Helper()
	p.find(knob, "[role=slider]")
	eval[bool](p, `(window.__hit.focus(), true)`)
}

// thrown logs a distance on the page.
func (p *person) thrown(distance string) {
	p.t.Helper()
	p.fills("Distance", distance)
	p.types(kb.Enter)
}

// A knob that was moved while the server was away: the throw that follows is booked on
// what the page showed, and not on what the server still had.
func TestThrowAfterTheServerWasAway(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.visit(h.url + "/bench/1/set")
	p.dial("Tail curl")
	h.stop()
	for range 4 {
		p.types(kb.ArrowRight)
	}
	moved := eval[float64](p, `Number(window.__hit.getAttribute("aria-valuenow"))`)
	p.sees("does not answer")
	h.again(t)
	p.clicks("Throw it →")
	p.sees("Log the throw")
	p.thrown("6.3")
	p.sees("is logged at tweak 4")
	b := h.at(t, 1)
	if tw := b.Latest(); tw.No != 4 || tw.Setup.Knobs["curl"] != moved || len(tw.Trials) != 1 || len(b.Tweaks[2].Trials) != 11 {
		t.Errorf("thrown with curl %v, booked on tweak %d with %v", moved, tw.No, tw.Setup.Knobs["curl"])
	}
}

// Two people at one build: each sees what the other moves within a moment, other knobs are
// merged, and where both move the same one they are asked.
func TestTwoPeopleAtOneBuild(t *testing.T) {
	h := open(t, "", true)
	a, b := sit(t, 1280, 800), sit(t, 1280, 800)
	for _, p := range []*person{a, b} {
		p.visit(h.url + "/bench/1/set")
	}
	now := func(p *person, knob string) float64 {
		p.dial(knob)
		return eval[float64](p, `Number(window.__hit.getAttribute("aria-valuenow"))`)
	}
	was := now(b, "Tail curl")
	a.dial("Tail curl")
	a.types(kb.ArrowRight)
	a.types(kb.ArrowRight)
	b.dial("Tail curl")
	b.until("the other's curl", fmt.Sprintf(`Number(window.__hit.getAttribute("aria-valuenow")) > %v`, was))
	curl := now(b, "Tail curl")
	b.dial("Keel's tail bent to the right")
	b.types(kb.ArrowRight)
	a.dial("Keel's tail bent to the right")
	a.until("the other's rudder", `Number(window.__hit.getAttribute("aria-valuenow")) > 0`)
	h.comes(t, 1, "both knobs", func(b *bench.Build) bool {
		return b.Draft != nil && b.Draft.Knobs["curl"] == curl && b.Draft.Knobs["rudder"] > 0
	})
	// Both at the same time: a has not heard of b's move when it moves the same knob.
	late := h.holds("PATCH", "/draft")
	a.dial("Wing angle")
	a.types(kb.ArrowLeft)
	h.come(t) // its move is on its way, and waits
	b.dial("Wing angle")
	b.types(kb.ArrowRight)
	b.types(kb.ArrowRight)
	h.comes(t, 1, "the faster one", func(b *bench.Build) bool { return b.Draft.Knobs["wing"] > 84 })
	theirs := h.at(t, 1).Draft.Knobs["wing"]
	late.let()
	a.sees("Moved on another device as well", "moved elsewhere")
	if got := h.at(t, 1).Draft.Knobs["wing"]; got != theirs {
		t.Errorf("the slower one wins: %v", got)
	}
	a.clicks("Keep what I moved")
	a.gone("Moved on another device as well")
	h.comes(t, 1, "what is kept", func(b *bench.Build) bool { return b.Draft.Knobs["wing"] < 84 })
	// A trial and its restoring reach the other page as well.
	b.visit(h.url + "/bench/1/try")
	a.visit(h.url + "/bench/1/try")
	n := h.at(t, 1).Trials()
	a.thrown("7.1")
	a.sees("is logged at tweak 4")
	b.sees("7.1 m")
	if b := h.at(t, 1); b.Trials() != n+1 {
		t.Errorf("%d trials after one more than %d", b.Trials(), n)
	}
}

// What was asked before a knob was moved, and answered late, does not stand for what is there
// now: the throw that follows is booked on what was moved.
func TestALateAnswerIsOld(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.visit(h.url + "/bench/1/set")
	p.dial("Tail curl")
	was := eval[float64](p, `Number(window.__hit.getAttribute("aria-valuenow"))`)
	late := h.holdsAnswers("GET", "/builds/1")
	// Somebody else gives it another name, so this page asks for the build anew.
	eval[bool](p, `fetch("/api/v1/builds/1", { method: "PATCH", headers: { "Content-Type": "application/json" }, body: JSON.stringify({ name: "Quay Curlew" }) }).then((r) => r.ok)`, chromedp.EvalAwaitPromise)
	h.come(t)
	p.dial("Tail curl")
	p.types(kb.ArrowRight)
	p.types(kb.ArrowRight)
	moved := eval[float64](p, `Number(window.__hit.getAttribute("aria-valuenow"))`)
	h.comes(t, 1, "what was moved", func(b *bench.Build) bool { return b.Draft != nil && b.Draft.Knobs["curl"] == moved })
	p.settled()
	late.let()
	p.sees("Quay Curlew") // what is newer has come
	p.dial("Tail curl")
	if now := eval[float64](p, `Number(window.__hit.getAttribute("aria-valuenow"))`); now != moved || moved == was {
		t.Errorf("curl %v was moved to %v and is shown as %v", was, moved, now)
	}
	p.clicks("Throw it →")
	p.sees("Log the throw")
	p.thrown("6.3")
	p.sees("is logged at tweak 4")
}

// Enter twice logs one throw; what is typed meanwhile stays and is logged as the next.
func TestEnterTwice(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.visit(h.url + "/bench/1/try")
	n := h.at(t, 1).Trials()
	late := h.holds("POST", "/trials")
	p.fills("Distance", "6.9")
	p.types(kb.Enter)
	p.types(kb.Enter)
	p.types("5.4")
	h.come(t) // it has been sent, and waits
	late.let()
	p.sees("6.9 m is logged")
	if got := p.value("Distance"); got != "5.4" {
		t.Errorf("what was typed meanwhile is %q", got)
	}
	p.types(kb.Enter)
	p.sees("5.4 m is logged")
	time.Sleep(time.Second)
	if got := h.at(t, 1).Trials(); got != n+2 {
		t.Errorf("%d trials were logged, of two", got-n)
	}
	// Refused, it stands there again.
	p.fills("Distance", "900")
	p.types(kb.Enter)
	p.sees("0 to 200 m")
	if got := p.value("Distance"); got != "900" {
		t.Errorf("what was refused is now %q", got)
	}
}

// A knob moved just before the page is left is kept, and u takes a move back.
func TestMovesAreKeptAndTakenBack(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.visit(h.url + "/bench/1/set")
	p.dial("Tail curl")
	p.types(kb.ArrowRight)
	p.do(chromedp.Navigate("about:blank"))
	h.comes(t, 1, "the last move", func(b *bench.Build) bool { return b.Draft != nil && b.Draft.Knobs["curl"] > 4 })
	p.visit(h.url + "/bench/1/set")
	p.dial("Keel's tail bent to the right")
	p.types(kb.ArrowRight)
	h.comes(t, 1, "the rudder", func(b *bench.Build) bool { return b.Draft.Knobs["rudder"] > 0 })
	p.dial("Tail curl")
	p.types(kb.ArrowRight)
	h.comes(t, 1, "the curl", func(b *bench.Build) bool { return b.Draft.Knobs["curl"] > 4.9 })
	p.types("u")
	h.comes(t, 1, "the curl back", func(b *bench.Build) bool { return b.Draft.Knobs["curl"] < 4.9 && b.Draft.Knobs["rudder"] > 0 })
	p.types("u")
	h.comes(t, 1, "the rudder back", func(b *bench.Build) bool { return b.Draft.Knobs["rudder"] == 0 && b.Draft.Knobs["curl"] > 4 })
}

// get is what the server answers at a path.
func (h *hall) get(t *testing.T, path string) string {
	t.Helper()
	req, err := http.NewRequestWithContext(t.Context(), http.MethodGet, h.url+path, nil)
	if err != nil {
		t.Fatal(err)
	}
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
	return string(b)
}
