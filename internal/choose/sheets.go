package choose

import (
	"tussock/internal/sequence"
	"tussock/internal/sequence/remarks"
	"tussock/internal/sheet"
)

// Paper is a paper in the drawer as it serves for a toy.
type Paper struct {
	Sheet sheet.Sheet
	Class sheet.Class
	None  bool // counted, and none is left
}

// AtHand is the best sheet that a drawer gives for a pattern.
type AtHand struct {
	Paper             int // its place in the drawer
	WidthMM, HeightMM float64
	Turned, Cut       bool // laid the other way round, or cut down first
	Suits             sheet.Suits
}

// BestSheet is the paper of a drawer that a pattern is folded from best: one that suits
// the way it moves, needs no cut and no turn, in that order. false when no paper does.
func BestSheet(p *sequence.Pattern, bands sheet.Bands, layers int, drawer []Paper) (best AtHand, found bool) {
	rank := map[sheet.Verdict]int{sheet.Good: 0, sheet.Fair: 2, sheet.Poor: 8}
	least := 0
	for i, d := range drawer {
		if d.None {
			continue
		}
		h, does := From(p, d.Sheet)
		if !does {
			continue
		}
		h.Paper, h.Suits = i, sheet.SuitsFor(bands, d.Sheet.GSM, d.Sheet.ThicknessMM, d.Class, p.Title, layers)
		cost := rank[h.Suits.Verdict]
		if h.Cut {
			cost += 3
		}
		if h.Turned {
			cost++
		}
		if !found || cost < least {
			best, least, found = h, cost, true
		}
	}
	return best, found
}

// From is how a pattern is folded from a sheet: as it is, turned, or cut to the pattern's
// own proportions, where fingers can fold that.
func From(p *sequence.Pattern, s sheet.Sheet) (AtHand, bool) {
	folds := func(s sheet.Sheet) bool {
		r := p.Run(s, nil)
		// What its author folds is not too small for fingers.
		own := s.WidthMM >= 0.99*p.WidthMM && s.HeightMM >= 0.99*p.HeightMM
		return r.Err == nil && (own || !remarks.TooSmall(r))
	}
	if folds(s) {
		return AtHand{WidthMM: s.WidthMM, HeightMM: s.HeightMM}, true
	}
	turned := s
	turned.WidthMM, turned.HeightMM = s.HeightMM, s.WidthMM
	if s.Shape == nil && folds(turned) {
		return AtHand{WidthMM: turned.WidthMM, HeightMM: turned.HeightMM, Turned: true}, true
	}
	var best AtHand
	for _, t := range []sheet.Sheet{s, turned} {
		own := sheet.SameRatio(t.WidthMM, t.HeightMM, p.WidthMM*1e3, p.HeightMM*1e3)
		cut := t
		cut.WidthMM, cut.HeightMM = own.WidthMM, own.HeightMM
		if own.WidthMM > best.WidthMM+1e-6 && s.Shape == nil && folds(cut) {
			best = AtHand{WidthMM: own.WidthMM, HeightMM: own.HeightMM, Turned: t != s, Cut: true}
		}
	}
	return best, best.Cut
}
