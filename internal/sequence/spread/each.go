package spread

import (
	"slices"

	"golang.org/x/sync/errgroup"

	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// Off is a toy of which one step was made off its place: where its pieces lie then, by
// piece of the last state.
type Off struct {
	Step int
	Iso  []geom.Iso2
}

// Each folds a toy again for each step that creases a line by hand, with what that step
// brings so far past its target, mm; below 0 short of it. Steps of several lines have their
// first one off.
func Each(r *sequence.Replay, pastMM float64) ([]Off, error) {
	lines := r.CreaseLines()
	var out []Off
	for i, step := range lines {
		if slices.Index(lines, step) == i && r.Steps[step-1].Side != 0 {
			out = append(out, Off{Step: step})
		}
	}
	var g errgroup.Group
	for i := range out {
		g.Go(func() error {
			step := out[i].Step
			o, err := r.WithErrors(both{slices.Index(lines, step), lineShift(r, step, pastMM)})
			if err == nil {
				out[i].Iso = o.Shadow.Iso
			}
			return err
		})
	}
	return out, g.Wait()
}
