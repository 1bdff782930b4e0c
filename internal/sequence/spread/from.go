package spread

import (
	"errors"

	"tussock/internal/sequence"
)

// MostSlipMM is the largest slip that is answered: beyond it the fold is another one.
const MostSlipMM = 20.0

// Why no slip explains a landmark.
var (
	ErrNotCreased = errors.New("nothing is creased by hand at this step, so nothing can slip")
	ErrUnmoved    = errors.New("a slip at this step does not move this landmark; look at another step")
	ErrTooFar     = errors.New("that would take a slip larger than any at this step; look at an earlier one")
)

// PastFrom is the slip at a step, in mm past the target, that puts a landmark of the
// finished toy so far off its place. To first order, without a sign. The error is one of
// those above.
func PastFrom(r *sequence.Replay, step int, landmark string, offMM float64) (float64, error) {
	unit, creased, err := SlipAt(r, step, 1)
	if err != nil || !creased {
		return 0, ErrNotCreased
	}
	for _, m := range unit.Moved {
		if m.Name == landmark {
			if past := offMM / m.MM; past <= MostSlipMM {
				return past, nil
			}
			return 0, ErrTooFar
		}
	}
	return 0, ErrUnmoved
}
