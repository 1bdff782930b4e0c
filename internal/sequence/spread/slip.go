package spread

import (
	"cmp"
	"math"
	"slices"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// Slip is what one fold made off its place does at the end, and what makes up for it.
// To first order: a slip twice as large does twice as much.
type Slip struct {
	Step     int
	PastMM   float64     // how far what was brought went past its target; below 0 it fell short
	Moved    []Moved     // landmarks that end up elsewhere, the worst first
	CoMMM    geom.Vec    // of the centre of mass
	RMSMM    float64     // over all landmarks
	Stretch  float64     // what the paper must give, mm
	State    *fold.State // the finished toy with the slip
	Remedies []Remedy    // the best first; none when nothing later makes it better
}

// Moved is a landmark at the end.
type Moved struct {
	Name string
	MM   float64
}

// Remedy is a later fold that is made off its place on purpose.
type Remedy struct {
	Step   int
	PastMM float64 // past its target; below 0 short of it
	LeftMM float64 // RMS over all landmarks that is left
}

// Advice is what to do about a slip.
type Advice string

// Leave it, make up for it at a later step, or fold the step again.
const (
	Accept     Advice = "accept"
	Compensate Advice = "compensate"
	Redo       Advice = "redo"
)

// A slip that ends within acceptMM is what hands do anyway; one that ends above redoMM,
// and that no later fold brings down to half, is better folded again.
const acceptMM, redoMM = 1.0, 2.0

// Advice weighs what a slip does at the end against what can be made up for.
func (s *Slip) Advice() Advice {
	worst := 0.0
	if len(s.Moved) > 0 {
		worst = s.Moved[0].MM
	}
	switch {
	case worst <= acceptMM:
		return Accept
	case len(s.Remedies) > 0 && s.Remedies[0].LeftMM < s.RMSMM/2:
		return Compensate
	case worst > redoMM:
		return Redo
	}
	return Accept
}

// worthwhile is the part of the error that a remedy must take away to be told.
const worthwhile = 0.25

// SlipAt answers "I folded past by so much" at a step of a successful replay. ok is
// false for steps that crease no line by hand.
func SlipAt(r *sequence.Replay, step int, pastMM float64) (out *Slip, ok bool, err error) {
	base, err := r.WithErrors(one{line: -1})
	if err != nil {
		return nil, false, err
	}
	names, at := places(base)
	lines := r.CreaseLines()
	answers, err := probe(r, base, names, len(lines))
	if err != nil {
		return nil, false, err
	}
	first := slices.Index(lines, step)
	if first < 0 {
		return nil, false, nil
	}
	st := study{r: r, names: names, at: at, lines: lines, answers: answers, base: base}
	// What is brought moves twice as far as the line.
	line := lineShift(r, step, pastMM)
	moves := st.shift(first, line)
	out = &Slip{Step: step, PastMM: pastMM, RMSMM: rms(moves), CoMMM: answers[2*first].com.Add(answers[2*first+1].com).Scale(line)}
	out.Stretch = math.Abs(line) * math.Hypot(answers[2*first].stretch, answers[2*first+1].stretch)
	for i, m := range moves {
		if m.Len() > 1e-6 {
			out.Moved = append(out.Moved, Moved{names[i], m.Len()})
		}
	}
	slices.SortStableFunc(out.Moved, func(a, b Moved) int { return cmp.Compare(b.MM, a.MM) })
	final := r.Final()
	iso := make([]geom.Iso2, len(final.F))
	slipped, err := r.WithErrors(both{first, line})
	if err != nil {
		return nil, false, err
	}
	copy(iso, slipped.Shadow.Iso)
	out.State = final.Displaced(iso)
	for l := range lines {
		if lines[l] <= step || slices.ContainsFunc(out.Remedies, func(q Remedy) bool { return q.Step == lines[l] }) {
			continue
		}
		// The shift that leaves least, by least squares.
		resp := st.shift(l, 1)
		var dot, sq float64
		for i := range moves {
			dot += moves[i].Dot(resp[i])
			sq += resp[i].Dot(resp[i])
		}
		if sq < 1e-9 {
			continue
		}
		x := -dot / sq
		left := make([]geom.Vec, len(moves))
		for i := range moves {
			left[i] = moves[i].Add(resp[i].Scale(x))
		}
		if e := rms(left); e < (1-worthwhile)*out.RMSMM {
			out.Remedies = append(out.Remedies, Remedy{lines[l], pastOf(r, lines[l], x), e})
		}
	}
	slices.SortStableFunc(out.Remedies, func(a, b Remedy) int { return cmp.Compare(a.LeftMM, b.LeftMM) })
	return out, true, nil
}

// both ends of one line are off by the same.
type both struct {
	line int
	mm   float64
}

func (e both) Slip(n int) (a, b float64) {
	if n != e.line {
		return 0, 0
	}
	return e.mm, e.mm
}
func (both) Creep(*fold.State, fold.Hinge) float64 { return 0 }

// shift is how all landmarks move when a whole line lies off by so much.
func (st *study) shift(line int, mm float64) []geom.Vec {
	out := make([]geom.Vec, len(st.names))
	for i := range out {
		out[i] = st.answers[2*line].land[i].Add(st.answers[2*line+1].land[i]).Scale(mm)
	}
	return out
}

// lineShift is how far the line lies off, along its normal, when what is brought goes
// past its target: half as far, away from the part that moves.
func lineShift(r *sequence.Replay, step int, pastMM float64) float64 {
	return -float64(r.Steps[step-1].Side) * pastMM / 2
}

// pastOf is the other way round. A step without a moving side has none: its line's own
// shift is told.
func pastOf(r *sequence.Replay, step int, lineMM float64) float64 {
	if s := r.Steps[step-1].Side; s != 0 {
		return -2 * lineMM * float64(s)
	}
	return lineMM
}

func rms(v []geom.Vec) float64 {
	sum := 0.0
	for _, m := range v {
		sum += m.Dot(m)
	}
	return math.Sqrt(sum / float64(max(1, len(v))))
}
