package prints

import "tussock/internal/geom"

// Text is running text on as many pages as it takes.
type Text struct {
	page Page

	leaves []Leaf
	y      float64
}

// NewText begins one with a title.
func NewText(page Page, title string) *Text {
	t := &Text{page: page}
	t.next()
	t.Line(title, 5)
	t.Gap(2)
	return t
}

const textMarginMM = 15.0

func (t *Text) next() {
	t.leaves = append(t.leaves, Leaf{Page: t.page})
	t.y = textMarginMM
}

// Gap leaves some room.
func (t *Text) Gap(mm float64) { t.y += mm }

// Line adds a paragraph in a size, mm.
func (t *Text) Line(text string, sizeMM float64) {
	for _, l := range paragraph(text, t.page.WidthMM-2*textMarginMM, sizeMM) {
		if t.y += 1.4 * sizeMM; t.y > t.page.HeightMM-textMarginMM {
			t.next()
			t.y += 1.4 * sizeMM
		}
		now := &t.leaves[len(t.leaves)-1]
		now.Words = append(now.Words, Word{At: geom.Vec{X: textMarginMM, Y: t.y}, SizeMM: sizeMM, Text: l})
	}
}

// Pages are the leaves.
func (t *Text) Pages() []Leaf { return t.leaves }
