package e2e

import (
	"testing"
	"time"

	"github.com/chromedp/chromedp/kb"
)

// Two devices on one build: each sees the other's step, within a second.
func TestTwoDevicesOnOneBuild(t *testing.T) {
	h := open(t, "", true)
	p, q := sit(t, 1280, 800), sit(t, 390, 844)
	p.watch(h.url)
	q.watch(h.url)
	p.visit(h.url + "/bench/1/fold/3")
	q.visit(h.url + "/bench/1/follow/3")
	p.types(kb.ArrowRight)
	p.at("/bench/1/fold/4")
	m, begin := watched(t), time.Now()
	q.sees("Another device is at step 4")
	if d := time.Since(begin); d > time.Second && !m.stoodStill(begin) {
		t.Errorf("it takes %v", d)
	}
	q.clicks("Go there")
	q.at("/bench/1/follow/4")
	q.gone("Another device is at step")
	q.types(" ")
	p.sees("Another device is at step 5")
	q.visit(h.url + "/settings")
	q.sees("Only this machine is answered", "tussock serve --share")
	p.quiet()
	q.quiet()
}
