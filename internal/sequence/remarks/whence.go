package remarks

import (
	"maps"
	"slices"

	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// Whence is one point of the sheet, flat and after every step.
type Whence struct {
	Landmark string // that it is, "" when it is none
	At       geom.Vec
	Steps    []*geom.Vec // in the folded plane after each step; nil when it has been cut off
}

// snapMM is how near a landmark a finger must point to mean it.
const snapMM = 6.0

// WhenceOf follows what a finger points at, after a step (0 for the flat sheet), back to the
// sheet and through all steps. ok is false where there is no paper.
func WhenceOf(r *sequence.Replay, step int, at geom.Vec) (w Whence, ok bool) {
	if step > 0 {
		state := r.Steps[step-1].After
		f, on := state.TopAt(at)
		if !on {
			return w, false
		}
		at = state.F[f].Iso.Inverse().Apply(at)
	} else if !slices.ContainsFunc(r.Sheet.Pieces(), func(q geom.Polygon) bool { return q.Contains(at, 1) }) {
		return w, false
	}
	near := snapMM
	for _, name := range slices.Sorted(maps.Keys(r.Landmarks)) {
		if q := r.Landmarks[name]; q.Dist(at) < near {
			near, w.Landmark = q.Dist(at), name
		}
	}
	w.At = at
	if w.Landmark != "" {
		w.At = r.Landmarks[w.Landmark]
	}
	for _, d := range r.Steps {
		var spot *geom.Vec
		if q, on := sequence.Place(d.After, w.At); on {
			spot = &q
		}
		w.Steps = append(w.Steps, spot)
	}
	return w, true
}
