package remarks

import "tussock/internal/sequence"

// Caution is a usual caution at the step that needs it. Local and school rules come
// first.
type Caution struct{ ID, Title, Text string }

// The cautions of cutting, scraps and pressing.
var (
	cutCaution   = Caution{"SF01", "Scissors", "Small children need an adult's help. Cut away from your fingers; pass scissors by the handle."}
	scrapCaution = Caution{"SF05", "Scraps", "Folded scraps burn fast: keep them from flames and candles."}
	pressCaution = Caution{"SF10", "Pressing", "Slide the nail along the crease, and mind the paper's edges: they cut."}
)

// pressedLayers is from how many layers on a crease is pressed hard.
const pressedLayers = 6

// Cautions lists, for each step, the cautions that it is the first to need.
func Cautions(steps []sequence.Done) [][]Caution {
	out := make([][]Caution, len(steps))
	told := map[string]bool{}
	for i, d := range steps {
		tell := func(c Caution) {
			if !told[c.ID] {
				told[c.ID] = true
				out[i] = append(out[i], c)
			}
		}
		switch d.Op {
		case sequence.OpCut, sequence.OpSlit:
			tell(cutCaution)
		}
		if d.BothWays || d.HasLine() && d.LayersFolded() >= pressedLayers && d.Op != sequence.OpCut {
			tell(pressCaution)
		}
		if len(d.After.Removed) > len(d.Before.Removed) {
			tell(scrapCaution)
		}
	}
	return out
}
