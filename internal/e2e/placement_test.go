package e2e

import (
	"testing"

	"github.com/chromedp/chromedp/kb"
)

// A length that the pattern measures is found by folding instead: the knob takes what
// the recipe gives, the pinches stand at the step, and measuring can come back.
func TestMeasuredPlaceFoundByFolding(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url + "/bench/7/fold/2")
	p.fills("Nose width, each side, value", "24")
	p.types(kb.Enter)
	p.sees("0 mm → 24 mm")
	p.clicks("Find it by folding, without a ruler")
	p.sees("on the upper edge, 52.2 mm from the upper left corner, which is 0.3425 of it")
	p.clicks("2 creases")
	p.sees("Pinch it first, without a ruler", "Where the pattern wants the same on the other side, mirror it")
	v := p.value("Nose width, each side, value")
	if v == "24" {
		t.Error("the knob does not take what the recipe gives")
	}
	// It is kept with the build.
	p.visit(h.url + "/bench/7/fold/3")
	p.sees("Pinch it first, without a ruler")
	p.clicks("Measure it after all")
	p.gone("Pinch it first")
	if now := p.value("Nose width, each side, value"); now != v {
		t.Errorf("measuring again moves the knob from %s to %s", v, now)
	}
	// A length that lies on no edge has to be measured.
	p.visit(h.url + "/bench/7/fold/7")
	p.clicks("Find it by folding, without a ruler")
	p.sees("has to be measured")
	p.quiet()
}
