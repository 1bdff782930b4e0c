package e2e

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
)

// TestScreenshots renews docs/screenshots when TUSSOCK_SCREENSHOTS names a
// folder; make screenshots does that. It checks nothing.
func TestScreenshots(t *testing.T) {
	dir := os.Getenv("TUSSOCK_SCREENSHOTS")
	if dir == "" {
		t.Skip("TUSSOCK_SCREENSHOTS is not set")
	}
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	for _, v := range []struct {
		name, path string
		w, h       int64
	}{
		{"start", "/start/shelduck", 1280, 800},
		{"bench-fold", "/bench/1/fold/4", 1280, 800},
		{"bench-set", "/bench/5/set", 1280, 800},
		{"bench-trials", "/bench/4/try", 1280, 800},
		{"bench-paper", "/bench/8/paper", 1280, 800},
		{"settings", "/settings", 1280, 800},
		{"study", "/study/flapper", 1280, 800},
		{"bench-flight", "/bench/2/set?look=motion", 1280, 800},
		{"bench-tune", "/bench/6/tune", 1280, 800},
		{"bench-wheel", "/bench/19/set?look=motion", 1280, 1150},
		{"papers", "/papers", 1280, 800},
		{"bench-write", "/bench/8/set?look=write", 1280, 1100},
		{"bench-hop", "/bench/11/set?look=motion", 1280, 800},
		{"bench-ring", "/bench/24/set?look=motion", 1280, 1000},
		{"bench-beat", "/bench/15/set?look=motion", 1280, 800},
		{"bench-balance", "/bench/17/set?look=motion", 1280, 800},
		{"follow", "/bench/4/follow/5", 1280, 800},
		{"shelf", "/", 1280, 800}, // late: the first shelf of a cold server takes seconds
		{"phone-follow", "/bench/4/follow/7", 390, 844},
	} {
		p.do(chromedp.EmulateViewport(v.w, v.h))
		p.visit(h.url + v.path)
		p.settled()
		p.until("all answers", `!document.querySelector("[data-waiting]")`)
		p.settled()
		p.picture(filepath.Join(dir, v.name+".png"))
	}
}
