package cutting

import (
	"fmt"
	"math"
	"slices"

	"tussock/internal/say"
	"tussock/internal/sheet"
)

// minLeftoverMM is the least side of a leftover worth keeping.
const minLeftoverMM = 15.0

// laid places a block on a sheet and lists its cuts, outermost first.
func (p *planner) laid(paper int, b *block) Sheet {
	q := p.o.Papers[paper]
	l := layer{p: p}
	l.place(b, 0, 0, q.WidthMM, q.HeightMM)
	slices.SortStableFunc(l.left, func(a, b Placed) int {
		if x, y := a.WidthMM*a.HeightMM, b.WidthMM*b.HeightMM; x > y {
			return -1
		} else if x < y {
			return 1
		}
		return 0
	})
	return Sheet{Paper: paper, Pieces: l.pieces, Leftovers: l.left, Cuts: l.cuts}
}

type layer struct {
	p      *planner
	pieces []Placed
	left   []Placed
	cuts   []Cut
}

// place puts a block into the lower left corner of a rectangle. What is beyond it
// comes off first, by the cut that leaves the larger leftover whole.
func (l *layer) place(b *block, x, y, w, h float64) {
	kerf := l.p.o.KerfMM
	dw, dh := w-b.w, h-b.h
	right, above := dw > 1e-6, dh > 1e-6
	// Either the right strip keeps the full height, or the upper one the full width.
	rightWhole := math.Max((dw-kerf)*h, b.w*(dh-kerf)) >= math.Max((dw-kerf)*b.h, w*(dh-kerf))
	takeRight := func(height float64) {
		l.cut(true, x+b.w, y, y+height)
		l.keep(x+b.w+kerf, y, dw-kerf, height)
		w = b.w
	}
	takeAbove := func(width float64) {
		l.cut(false, y+b.h, x, x+width)
		l.keep(x, y+b.h+kerf, width, dh-kerf)
		h = b.h
	}
	switch {
	case right && above && rightWhole:
		takeRight(h)
		takeAbove(w)
	case right && above:
		takeAbove(w)
		takeRight(h)
	case right:
		takeRight(h)
	case above:
		takeAbove(w)
	}
	if b.piece >= 0 {
		l.pieces = append(l.pieces, Placed{Piece: b.piece, X: x, Y: y, WidthMM: b.w, HeightMM: b.h, Turned: b.turned})
		return
	}
	if b.beside {
		l.cut(true, x+b.a.w, y, y+b.h)
		l.place(b.a, x, y, b.a.w, b.h)
		l.place(b.b, x+b.a.w+kerf, y, b.b.w, b.h)
		return
	}
	l.cut(false, y+b.a.h, x, x+b.w)
	l.place(b.a, x, y, b.w, b.a.h)
	l.place(b.b, x, y+b.a.h+kerf, b.w, b.b.h)
}

func (l *layer) cut(upright bool, at, from, to float64) {
	words := "level, from the lower edge"
	if upright {
		words = "upright, from the left edge"
	}
	l.cuts = append(l.cuts, Cut{upright, at, from, to, fmt.Sprintf("%s %s", words, say.MM(at, 1))})
}

func (l *layer) keep(x, y, w, h float64) {
	if w >= minLeftoverMM && h >= minLeftoverMM {
		l.left = append(l.left, Placed{Piece: -1, X: x, Y: y, WidthMM: w, HeightMM: h})
	}
}

// Keeps tells whether a leftover is worth keeping: no side under what can be folded.
func (p Placed) Keeps() bool {
	return p.Piece < 0 && sheet.SideRange.Holds(p.WidthMM) && sheet.SideRange.Holds(p.HeightMM)
}
