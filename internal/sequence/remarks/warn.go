package remarks

import (
	"fmt"
	"math"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/say"
	"tussock/internal/sequence"
)

// Warning is something that can be folded and yet deserves a word.
type Warning struct {
	Step int    `json:"step"`
	Kind string `json:"kind"` // thin, narrow, deep, choice
	Text string `json:"text"`
}

const (
	// thinMM is the width below which a piece of paper is more likely a slip of
	// the pattern (a typed number where a landmark was meant) than a piece.
	thinMM = 0.2
	// fingerMM is the width of a flap that fingers can still take hold of.
	fingerMM = 3.0
)

// Warnings go through the steps of a replay.
func Warnings(r *sequence.Replay) []Warning {
	var out []Warning
	tell := func(no int, kind, format string, a ...any) {
		out = append(out, Warning{no, kind, fmt.Sprintf(format, a...)})
	}
	thin := map[fold.FacetID]bool{}
	run := &sequence.Course{Pat: r.Pattern, Values: r.Values, Points: r.Landmarks, Lines: map[string]sequence.PaperLine{}}
	for _, d := range r.Steps {
		if d.Before == d.After {
			continue
		}
		now := map[fold.FacetID]bool{}
		for i, f := range d.After.F {
			if w := width(f.Poly); w < thinMM {
				now[fold.FacetID(i)] = true
				if !thin[parentIn(d, f)] && len(now) == 1 { // one word a step
					tell(d.No, "thin", "a piece only %s wide comes about, %s: bring landmarks together instead of typing numbers", say.MM(w, 2), run.Places().Piece(d.After, fold.FacetID(i)))
				}
			}
		}
		thin = now
		if w := flapWidth(d); w > 0 && w < fingerMM {
			tell(d.No, "narrow", "the part to be folded is only %s wide: hardly to be held by fingers", say.MM(w, 1))
		}
		if n := buried(d); n > 0 && d.Op != sequence.OpReverse && d.Op != sequence.OpSink && d.Op != sequence.OpCrimp {
			tell(d.No, "deep", "what moves ends between layers that are closed all round (%d of its pieces): no finger gets there unless the paper is opened first", n)
		}
		if c := d.After.Choice; c != nil && c != d.Before.Choice {
			a, b := run.Places().Pair(d.After, c.I, c.J)
			tell(d.No, "choice", "the layers can lie in more than one way: %s and %s can change places; say which with over or under, or expect P above P", a, b)
		}
	}
	return out
}

func parentIn(d sequence.Done, f fold.Facet) fold.FacetID {
	at := d.Before.FacetsAtSheet(f.Poly.Centroid())
	if len(at) == 0 {
		return -1
	}
	return at[0]
}

// width is the least distance between parallel lines that hold a convex piece.
func width(p geom.Polygon) float64 {
	least := math.Inf(1)
	for i, a := range p {
		l, ok := geom.LineThrough(a, p[(i+1)%len(p)])
		if !ok {
			continue
		}
		far := 0.0
		for _, v := range p {
			far = math.Max(far, math.Abs(l.Side(v)))
		}
		least = math.Min(least, far)
	}
	return least
}

// flapWidth is how far the moving part of a simple fold reaches beyond its line;
// 0 for other steps.
func flapWidth(d sequence.Done) float64 {
	if d.Op != sequence.OpValley && d.Op != sequence.OpMountain {
		return 0
	}
	far := 0.0
	for _, f := range d.Moving {
		for _, v := range d.Before.Folded(f) {
			far = math.Max(far, float64(d.Side)*d.Line.Side(v))
		}
	}
	return far
}

// buried counts moved pieces that end in a gap with no way out: between a layer
// above and one below that hang together by folds along all of the piece's rim
// but its own hinge. Told only where the two walls are one fold.
func buried(d sequence.Done) int {
	if len(d.Moves) == 0 || d.Op == sequence.OpTurn || d.Op == sequence.OpRotate || d.Op == sequence.OpUnfold || d.Op == sequence.OpRefold {
		return 0
	}
	s := d.After
	n := 0
	moved := make([]bool, len(s.F))
	for i, f := range s.F {
		moved[i] = !f.Iso.Near(d.Before.F[maxID(parentIn(d, f), 0)].Iso, geom.Still)
	}
	held := folds(s, moved)
	for i := range s.F {
		if !moved[i] {
			continue
		}
		poly := s.Folded(fold.FacetID(i))
		closed := 0
		for k, a := range poly {
			b := poly[(k+1)%len(poly)]
			if shut(s, held, fold.FacetID(i), geom.Segment{A: a, B: b}.Mid()) {
				closed++
			}
		}
		if closed == len(poly) {
			n++
		}
	}
	return n
}

func maxID(a, b fold.FacetID) fold.FacetID { return max(a, b) }

// holding is a fold where it lies, and its two pieces.
type holding struct {
	at   geom.Segment
	a, b fold.FacetID
}

// folds are those that may hold a gap shut: not those that have moved along, which the
// pieces were in before.
func folds(s *fold.State, moved []bool) []holding {
	var out []holding
	for _, h := range s.H {
		if s.Assigned(h) != fold.Flat && !(moved[h.A] && moved[h.B]) {
			iso := s.F[h.A].Iso
			out = append(out, holding{geom.Segment{A: iso.Apply(h.P), B: iso.Apply(h.Q)}, h.A, h.B})
		}
	}
	return out
}

// shut tells whether the gap that a piece lies in is closed at the middle of one of its
// sides by a fold that holds layers on both faces of it.
func shut(s *fold.State, held []holding, f fold.FacetID, mid geom.Vec) bool {
	for _, h := range held {
		if h.a != f && h.b != f && s.Above(h.a, f)*s.Above(h.b, f) < 0 && h.at.Dist(mid) <= geom.OnPaper {
			return true
		}
	}
	return false
}
