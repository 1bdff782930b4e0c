package remarks

import (
	"cmp"
	"fmt"
	"maps"
	"math"
	"slices"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sequence/basis"
)

// A landmark meets another one or a fold line when it lies nearer than metMM to it, and
// misses it when it lies further off than missMM.
const (
	metMM  = 0.02
	missMM = 1.0
)

// Missing are landmarks that meet a fold line or each other when the pattern is folded
// from its own sheet, and miss on this one: each where it first goes wrong, by step and
// then the worst first. Landmarks are those of every sheet and those the pattern gives a
// name to.
func Missing(own, here *sequence.Replay) []sequence.Miss {
	p := own.Pattern
	var names []string
	for _, n := range slices.Sorted(maps.Keys(own.Landmarks)) {
		_, everywhere := basis.Points[n]
		_, called := p.CalledWords[n]
		if _, there := here.Landmarks[n]; there && (everywhere || called) {
			names = append(names, n)
		}
	}
	var out []sequence.Miss
	told := map[[2]string]bool{}
	for n := range min(len(own.Steps), len(here.Steps)) {
		a, b := own.Steps[n], here.Steps[n]
		tell := func(what, with, where string, mm float64) {
			if key := [2]string{what, with}; mm > missMM && !told[key] {
				told[key] = true
				out = append(out, sequence.Miss{Step: a.No, Line: a.Step.Line, Landmark: what, MM: mm,
					Detail: fmt.Sprintf("%s should lie %s and is %s away", p.Called(what), where, say.MM(mm, 1))})
			}
		}
		for i, name := range names {
			u, v, on := bothPlaces(own, here, a.Before, b.Before, name)
			if on && a.HasLine() && b.HasLine() && math.Abs(a.Line.Side(u)) < metMM {
				tell(name, fmt.Sprint(a.No), "on the fold line", math.Abs(b.Line.Side(v)))
			}
			u, v, on = bothPlaces(own, here, a.After, b.After, name)
			for _, other := range names[:i] {
				if q, w, too := bothPlaces(own, here, a.After, b.After, other); on && too && u.Dist(q) < metMM {
					tell(name, other, "at "+p.Called(other), v.Dist(w))
				}
			}
		}
	}
	slices.SortStableFunc(out, func(a, b sequence.Miss) int {
		return cmp.Or(cmp.Compare(a.Step, b.Step), cmp.Compare(b.MM, a.MM))
	})
	return out
}

// bothPlaces is where a landmark lies in two replays; ok is false when either has cut it off.
func bothPlaces(own, here *sequence.Replay, a, b *fold.State, name string) (u, v geom.Vec, ok bool) {
	u, on := sequence.Place(a, own.Landmarks[name])
	v, too := sequence.Place(b, here.Landmarks[name])
	return u, v, on && too
}
