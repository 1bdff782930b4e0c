package e2e

import (
	"context"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"tussock/internal/bench"
	"tussock/internal/store"
)

// undo presses Ctrl+Z.
func (p *person) undo() {
	p.t.Helper()
	p.do(chromedp.KeyEvent("z", chromedp.KeyModifiers(chromedp.ModifierCtrl)))
}

// becomes waits until something on disk is so.
func (p *person) becomes(what string, is func() bool) {
	p.t.Helper()
	for deadline := time.Now().Add(patience); !is(); time.Sleep(100 * time.Millisecond) {
		if time.Now().After(deadline) {
			p.t.Fatalf("waited for %s in vain", what)
		}
	}
}

func (h *hall) papers(t *testing.T) []bench.Paper {
	t.Helper()
	return onDisk(t, h, func(ctx context.Context, s *store.Store) ([]bench.Paper, error) { return s.Papers(ctx, false) })
}

func (h *hall) settings(t *testing.T) bench.Settings {
	t.Helper()
	return onDisk(t, h, func(ctx context.Context, s *store.Store) (bench.Settings, error) { return s.Settings(ctx) })
}

// Every change of a build, a trial, a paper and the settings is taken back, the last one
// first, by Ctrl+Z, and after the page was loaded anew.
func TestUndoInOrderAcrossAReload(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url + "/bench/1/set")
	start := h.at(t, 1)
	p.dial("Tail curl")
	p.types(kb.ArrowRight)
	h.comes(t, 1, "the curl", func(b *bench.Build) bool {
		return b.Draft != nil && b.Draft.Knobs["curl"] != start.Current().Knobs["curl"]
	})
	curl := h.at(t, 1).Draft.Knobs["curl"]
	p.clicks("Make it tweak 4")
	h.comes(t, 1, "the tweak", func(b *bench.Build) bool { return len(b.Tweaks) == 4 && b.Draft == nil })
	p.dial("Tail curl")
	p.types(kb.ArrowRight)
	h.comes(t, 1, "the curl again", func(b *bench.Build) bool { return b.Draft != nil })
	p.visit(h.url + "/bench/1/try")
	p.fills("Distance", "6.5")
	p.types(kb.Enter)
	h.comes(t, 1, "a trial that makes a tweak", func(b *bench.Build) bool { return len(b.Tweaks) == 5 && b.Draft == nil && len(b.Tweaks[4].Trials) == 1 })
	p.types(kb.Escape)
	p.clicks("Build ▾")
	p.clicks("Rename")
	p.fills("Name of the build", "Curlew renamed")
	p.types(kb.Enter)
	h.comes(t, 1, "the name", func(b *bench.Build) bool { return b.Name == "Curlew renamed" })
	p.visit(h.url + "/papers")
	papers := h.papers(t)
	p.clicks("One sheet of " + papers[0].Name + " less")
	p.becomes("one sheet less", func() bool { return *h.papers(t)[0].Left == *papers[0].Left-1 })
	p.clicks("Settings")
	p.clicks("inch, to 1/16")
	p.becomes("inches", func() bool { return h.settings(t).Units == "in" })

	p.visit(h.url + "/bench/1/try") // everything anew
	p.undo()
	p.becomes("millimetres", func() bool { return h.settings(t).Units == "mm" })
	p.undo()
	p.sees("Undone: the count of")
	if got := h.papers(t)[0]; *got.Left != *papers[0].Left || got.Name != papers[0].Name {
		t.Errorf("%d sheets, %d before", *got.Left, *papers[0].Left)
	}
	p.undo()
	h.comes(t, 1, "the old name", func(b *bench.Build) bool { return b.Name == start.Name })
	p.undo()
	h.comes(t, 1, "no trial and no tweak", func(b *bench.Build) bool {
		return len(b.Tweaks) == 4 && b.Draft != nil && b.Draft.Knobs["curl"] != curl
	})
	p.undo()
	h.comes(t, 1, "the curl of tweak 4", func(b *bench.Build) bool { return b.Draft == nil && b.Current().Knobs["curl"] == curl })
	p.undo()
	h.comes(t, 1, "no tweak 4", func(b *bench.Build) bool { return len(b.Tweaks) == 3 && b.Draft != nil })
	p.undo()
	h.comes(t, 1, "all as it was", func(b *bench.Build) bool {
		return b.Draft == nil && b.Current().Knobs["curl"] == start.Current().Knobs["curl"] && b.Trials() == start.Trials()
	})
	p.undo()
	p.sees("There is nothing to undo")
	p.quiet()
}

// Set so again is that tweak again, and its trials count on; two knobs at once are named.
func TestSetSoAgainCountsOn(t *testing.T) {
	h := open(t, "", true)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	before := h.at(t, 4)
	p.visit(h.url + "/bench/4/try")
	p.clicks("Set it so again")
	p.sees("on the table")
	h.comes(t, 4, "tweak 1 on the table", func(b *bench.Build) bool { return b.Draft == nil && b.OnTable().No == 1 })
	p.fills("Distance", "4.4")
	p.types(kb.Enter)
	h.comes(t, 4, "one more at tweak 1", func(b *bench.Build) bool {
		return len(b.Tweaks) == len(before.Tweaks) && len(b.Tweaks[0].Trials) == len(before.Tweaks[0].Trials)+1
	})
	p.visit(h.url + "/bench/4/set")
	p.gone("at once")
	for _, knob := range []string{"Tail curl", "Wing angle"} {
		p.dial(knob)
		p.types(kb.ArrowRight)
		p.settled()
	}
	p.sees("Two things at once: you will not know which of them did it.")
	p.quiet()
}
