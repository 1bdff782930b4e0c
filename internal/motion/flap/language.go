package flap

import (
	"fmt"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// What flappers add to the pattern language: what moves, by the names that it has in the
// pattern. A bird has a hump at which neck, tail and the roots of its wings meet; a flapper
// for a finger has a tube. The folded toy is looked at for each.
var language = sequence.Vocabulary{
	Moves: "flap",
	Heads: []sequence.Head{
		{Word: "hump", Kind: sequence.APoint, Least: 1, Most: 1, What: "the hump", Fix: "hump C", Check: hump},
		{Word: "neck", Kind: sequence.APoint, Least: 1, Most: 1, What: "the tip of the neck", Fix: "neck TL", Check: ridge},
		{Word: "tail", Kind: sequence.APoint, Least: 1, Most: 1, What: "the tip of the tail", Fix: "tail BR", Check: ridge},
		{Word: "roots", Kind: sequence.ALine, Least: 2, Most: 2, What: "the roots of the wings", Fix: "roots wingA wingB", Check: roots},
		{Word: "tube", Kind: sequence.ALine, Least: 1, Most: 1, What: "the tube", Fix: "tube m", Check: tube},
	},
	Entries: []sequence.Entry{
		{Group: "head", Word: "hump, neck, tail", Syntax: "hump P   neck P   tail P", Meaning: "What a tail-pulled flapper moves with: the spot at which its folds meet, and the tips of neck and tail, whose ridges run to it.",
			Example: "sheet square 150\nmoves flap\nhump C\nneck TL\ntail BR\nuse bird\nexpect facets 20"},
		{Word: "roots", Group: "head", Syntax: "LINE LINE", Meaning: "The creases about which the two wings swing.",
			Example: "sheet square 100\nmoves flap\nroots a b\nvalley along par(left,30,C) moving L as a\nvalley along par(right,30,C) moving R as b\nopen along a and b moving L and R angle 100\nexpect facets 3"},
		{Group: "head", Word: "tube", Syntax: "LINE", Meaning: "The line about which a flapper is wrapped round a finger.",
			Example: "sheet strip 200 40\nmoves flap\ntube m\ncrease bring left to right as m\nwrap m moving L girth 55\nexpect facets 2"},
	},
}

// leastFolds is how many folds meet at a hump that moves: two ridges and a root on each
// side of both.
const leastFolds = 6

// hump looks for the spot at which folds meet, with paper all round.
func hump(r *sequence.Replay, names []string) string {
	n := foldsAt(r.Final(), r.Landmarks[names[0]])
	if n >= leastFolds {
		return ""
	}
	return fmt.Sprintf("the hump is to lie at %s, but %s folds meet there inside the paper, and a hump needs %d: name the spot at which neck, tail and the roots of the wings meet", r.Pattern.Called(names[0]), count(n), leastFolds)
}

func count(n int) string {
	if n == 0 {
		return "no"
	}
	return fmt.Sprintf("only %d", n)
}

// foldsAt are the folds that end at a spot with paper all round it.
func foldsAt(s *fold.State, at geom.Vec) int {
	var round float64
	for _, f := range s.FacetsAtSheet(at) {
		round += s.F[f].Poly.AngleAt(at)
	}
	if geom.Deg(round) < 360-1e-3 {
		return 0
	}
	n := 0
	for _, h := range s.H {
		if s.Assigned(h) != fold.Flat && (h.P.Dist(at) < geom.Distinct || h.Q.Dist(at) < geom.Distinct) {
			n++
		}
	}
	return n
}

// ridge looks for the fold that runs from the hump towards a tip.
func ridge(r *sequence.Replay, names []string) string {
	top := r.Pattern.Head("hump")
	if top == "" {
		return fmt.Sprintf("the ridge to %s starts at the hump, and no hump is named; write for example: hump C", r.Pattern.Called(names[0]))
	}
	from, tip := r.Landmarks[top], r.Landmarks[names[0]]
	s := r.Final()
	for _, h := range s.H {
		if s.Assigned(h) != fold.Flat && h.Along(geom.Segment{A: from, B: tip}) && (h.P.Dist(from) < geom.Distinct || h.Q.Dist(from) < geom.Distinct) {
			return ""
		}
	}
	return fmt.Sprintf("no fold runs from %s towards %s, so nothing pulls there: name the tip of a point whose ridge starts at the hump", r.Pattern.Called(top), r.Pattern.Called(names[0]))
}

// roots looks whether both wings are set by a step in the round.
func roots(r *sequence.Replay, names []string) string {
	if names[0] == names[1] {
		return fmt.Sprintf("both roots are %s: name one crease for each wing", r.Pattern.Called(names[0]))
	}
	for _, n := range names {
		opened := false
		for _, o := range r.Openings {
			for _, p := range o.Pieces {
				for _, q := range r.Lines[n] {
					opened = opened || p.A.Dist(q.A) < geom.Distinct && p.B.Dist(q.B) < geom.Distinct
				}
			}
		}
		if !opened {
			return fmt.Sprintf("the wing at %s is never opened, so it cannot swing: add a step such as open along %s moving P angle 100", r.Pattern.Called(n), n)
		}
	}
	return ""
}

// tube looks whether paper is wrapped about the line.
func tube(r *sequence.Replay, names []string) string {
	s := r.Final()
	for _, b := range r.Bends {
		f := s.FacetsAtSheet(b.Moving)
		if b.Kind != sequence.OpWrap || len(f) == 0 {
			continue
		}
		iso := s.F[f[0]].Iso
		l, ok := geom.LineThrough(iso.Apply(b.A), iso.Apply(b.B))
		for _, q := range r.Lines[names[0]] {
			u, on := sequence.Place(s, q.Mid())
			if ok && on && abs(l.Side(u)) < geom.OnPaper {
				return ""
			}
		}
	}
	return fmt.Sprintf("nothing is wrapped about %s, so there is no tube: add a step such as wrap %s moving P girth 55", r.Pattern.Called(names[0]), names[0])
}

func abs(v float64) float64 { return max(v, -v) }
