package e2e

import (
	"testing"

	"github.com/chromedp/chromedp/kb"
)

// A square toy from an office sheet: the sheet does not do, the ways to one that
// does are shown and folded, what is left over goes into the drawer, and the crease
// that squaring left is not asked for again.
func TestSquareToyFromAnOfficeSheet(t *testing.T) {
	h := open(t, "", false)
	p := sit(t, 1280, 800)
	p.watch(h.url)
	p.visit(h.url + "/start/fortune")
	p.clicks("A4")
	p.clicks("Begin folding")
	p.sees("Not as it is", "is folded from a square; this sheet is 87 mm higher than wide", "One fold, one cut", "leaves 87 × 210 mm", "± 0.4 mm")
	p.clicks("Without scissors")
	p.sees("Torn, without scissors")
	p.gone("One fold, one cut")
	p.clicks("Without scissors")
	p.clicks("Two folds, both layers cut at once")
	p.clicks("Take this piece and begin")
	p.until("the build", `/\/bench\/\d+\/paper/.test(location.pathname)`)
	p.sees("210 × 210 mm", "Two folds, both layers cut at once: from 210 × 297 mm", "are not asked for again", "Fits")
	p.sees("Cut along the left edge, through both layers at once", "Small children need an adult's help", "Folded scraps burn fast")
	p.clicks("Put what is left over into the drawer")
	p.sees("The leftover is in the drawer")
	p.clicks("The sheet is ready: fold")
	p.until("the first step without its crease", `/\/bench\/\d+\/fold\/3/.test(location.pathname)`)
	p.sees("Bring the top left corner to the middle", "Leave 0.8 mm", "the pattern leaves 0.8 mm")
	p.types(kb.ArrowLeft)
	p.types(kb.ArrowLeft)
	p.sees("This crease is there already")
	p.types(kb.End)
	p.clicks("Done: set and balance")
	p.sees("layers at the thickest")
	p.clicks("Play it →")
	p.clicks("opened both ways")
	p.clicks("Log the play")
	p.sees("The play is logged at tweak 1")
	p.clicks("Papers")
	p.sees("Leftover of 210 × 297 mm", "87 × 210 mm")
	p.clicks("What can be made of it")
	p.sees("2 times 87 × 87 mm", "Fold a Curlew")
	// A sheet that fingers hardly fold is told to be small, with what would do.
	p.visit(h.url + "/start/curlew")
	p.fills("Width", "25")
	p.fills("Height", "35")
	p.clicks("Begin folding")
	p.sees("Smaller than fingers like", "is the least for this paper, by a rule of thumb")
	p.quiet()
}
