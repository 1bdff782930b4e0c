package e2e

import (
	"testing"

	"github.com/chromedp/chromedp/kb"
)

// A base or single operation is looked at from the shelf, by clicks and by keys:
// its steps, its crease map, what is hidden, its layers and pockets, and what
// small errors do.
func TestStudies(t *testing.T) {
	h := open(t, "", false)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url)
	p.sees("Bases and single folds, to look at", "Bird base", "Tide ring", "Whirl")
	p.clicks("Tern")
	p.at("/study/flapper")
	p.sees("Tern", "What small errors do", "comes from step", "Predicted", "centre of mass then scatters", "as a multiple of the error")
	for name, says := range map[string]string{
		"Crease map": "dashes are valleys", "What is hidden": "under other layers", "Layers": "more layers", "Best pocket": "the mouth",
	} {
		p.clicks(name)
		p.sees(says)
	}
	p.clicks("Step by step")
	p.at("/study/flapper/1")
	for range 11 {
		p.types(kb.ArrowRight)
	}
	p.at("/study/flapper/12")
	p.sees("inside reverse fold", "Push one lower point up", "In this order", "× the error made here", "reverse inside TL")
	p.types(kb.ArrowLeft)
	p.at("/study/flapper/11")
	p.sees("petal fold")
	p.visit(h.url + "/study/heron")
	p.sees("This study cannot be shown", "there is no study")
	// At the table, on a phone: nothing runs out of the page.
	q := sit(t, 390, 844)
	q.watch(h.url)
	for _, path := range []string{"/study/frog", "/study/frog/17", "/study/twist"} {
		q.visit(h.url + path)
		q.sees("layers")
		if wide := eval[float64](q, `document.documentElement.scrollWidth`); wide > 390 {
			t.Errorf("%s is %v pixels wide on a phone", path, wide)
		}
	}
}
