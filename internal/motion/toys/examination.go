package toys

import (
	"context"
	"fmt"
	"math"

	"tussock/internal/motion"
	"tussock/internal/sequence"
)

// Examination is a toy under the eyes of a clinic: what it is tried by, how it is set, what
// was found so far.
type Examination struct {
	Try   motion.Trying
	Knobs map[string]float64
	Log   []motion.Noted
	Out   *motion.Finding
}

// Seen is how often the symptom was noted, in words.
func (e *Examination) Seen() string {
	return fmt.Sprintf("%s in %d of %d", e.Out.Symptom, e.Out.Seen, e.Out.Of)
}

// Cause adds a possible cause with its law and weight.
func (e *Examination) Cause(words, law string, weight float64) {
	e.Out.Causes = append(e.Out.Causes, motion.Cause{Words: words, Law: law, Log: e.Seen(), Weight: math.Max(leastWeight, weight)})
}

// leastWeight is that of a cause that is hardly believed.
const leastWeight = 0.05

// Outlook of knobs; nil when they cannot be folded.
func (e *Examination) Outlook(knobs map[string]float64) *motion.Outlook {
	o, err := e.Try.Outlook(context.Background(), knobs)
	if err != nil {
		return nil
	}
	return &o
}

// Propose puts a remedy forward, with what is predicted before and after it.
func (e *Examination) Propose(r motion.Remedy) {
	r.Now = e.Outlook(e.Knobs)
	if len(r.Changes) > 0 {
		r.After = e.Outlook(With(e.Knobs, r.Changes...))
	}
	e.Out.Propose(r)
}

// Less makes a symptom of readings whose middle lies below where nineteen of twenty trials
// are predicted; false where it does not.
func Less(out *motion.Finding, read []float64, said motion.Range) bool {
	if len(read) < motion.Enough {
		return false
	}
	middle := motion.RangeOf(append([]float64{}, read...)).Middle
	if said.Holds(middle) || middle >= said.Middle {
		return false
	}
	out.Unlike(read, said)
	return true
}

// Bent are the names of knobs that leave the shape of a toy alone.
func Bent(knobs []sequence.Knob) map[string]bool {
	out := map[string]bool{}
	for _, k := range knobs {
		out[k.Name] = true
	}
	return out
}
