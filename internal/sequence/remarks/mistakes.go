package remarks

import (
	"math"
	"regexp"
	"strings"

	"tussock/internal/fold"
	"tussock/internal/sequence"
	"tussock/internal/sequence/lang"
	"tussock/internal/sheet"
)

// Mistake is a likely mistake at a step, carried out.
type Mistake struct {
	Kind  string // face, side, turn, layers, past, short
	Words string // what was done
	Cure  string // what to do about it
	After *fold.State
}

// faceSteps is up to which step the wrong side up is still easily put right.
const faceSteps = 3

var expects = regexp.MustCompile(` expect \d+`)

// Mistakes carries out what most often goes wrong at a step, on the same sheet with
// the same knobs: folded to the other side, the turn before forgotten, other layers
// taken along, the edge brought past its target or not up to it. Those that look like
// the right fold, or that paper does not do, are left out; so are steps that a macro
// or a repeat wrote.
func Mistakes(p *sequence.Pattern, r *sequence.Replay, step int) []Mistake {
	if step < 1 || step > len(r.Steps) {
		return nil
	}
	d := r.Steps[step-1]
	lines := strings.Split(p.Text, "\n")
	if d.Step.Line < 1 || d.Step.Line > len(lines) || lang.StatementText(lines[d.Step.Line-1]) != d.Text {
		return nil
	}
	var out []Mistake
	try := func(kind, words, cure string, line int, text string) {
		if after := instead(p, r, lines, d.Step.Line, line, text); after != nil && !sameLook(after, d.After) {
			for _, m := range out {
				if sameLook(m.After, after) {
					return
				}
			}
			out = append(out, Mistake{kind, words, cure, after})
		}
	}
	plain := expects.ReplaceAllString(d.Text, "")
	if first := r.Steps[0].Step.Line; step <= faceSteps && d.Op != sequence.OpTurn && lang.StatementText(lines[first-1]) == r.Steps[0].Text {
		try("face", "The sheet was begun with its other side up.", "Unfold it, turn the sheet over, and begin again.", first, "turn lr\n"+lines[first-1])
	}
	switch d.Op {
	case sequence.OpValley:
		try("side", "It was folded behind instead of to the front.", "Open it and fold along the same crease the other way.", d.Step.Line, strings.Replace(plain, "valley", "mountain", 1))
	case sequence.OpMountain:
		try("side", "It was folded to the front instead of behind.", "Open it and fold along the same crease the other way.", d.Step.Line, strings.Replace(plain, "mountain", "valley", 1))
	}
	for back := step - 1; d.Op != sequence.OpTurn && back >= max(1, step-2); back-- {
		if e := r.Steps[back-1]; e.Op == sequence.OpTurn && e.Step.Line <= len(lines) && lang.StatementText(lines[e.Step.Line-1]) == e.Text {
			try("turn", "The paper was not turned over before.", "Open this fold, turn the paper over, and fold again.", e.Step.Line, "")
			break
		}
	}
	if d.Op == sequence.OpValley || d.Op == sequence.OpMountain {
		if strings.Contains(plain, "layers all") {
			try("layers", "Only the upper layer was folded.", "Open it and take all layers together.", d.Step.Line, strings.Replace(plain, "layers all", "", 1))
		} else if !strings.Contains(plain, "layers") {
			try("layers", "One layer too many came along.", "Open it and lift only the layers that are hatched.", d.Step.Line, inserted(plain, "layers all"))
		}
		if d.Meets[0].Name != "" && !strings.Contains(plain, " gap ") && strings.Contains(plain, "bring ") {
			past := sheet.Number(max(2, 0.03*max(r.Sheet.WidthMM, r.Sheet.HeightMM)))
			try("past", "It was brought past its target.", "Open it and bring the two signs together before you press.", d.Step.Line, inserted(plain, "gap -"+past))
			try("short", "It was not brought up to its target.", "Open it and bring the two signs together before you press.", d.Step.Line, inserted(plain, "gap "+past))
		}
	}
	return out
}

// Slipped replays the whole pattern with what is brought at a step going past its target
// by so much (below 0: falling short), as somebody folds on who has not noticed. What
// follows is folded to where the paper then lies. ok is false for steps that bring
// nothing, or that a macro or a repeat wrote.
func Slipped(p *sequence.Pattern, r *sequence.Replay, step int, pastMM float64) (out *sequence.Replay, ok bool) {
	if step < 1 || step > len(r.Steps) {
		return nil, false
	}
	d := r.Steps[step-1]
	lines := strings.Split(p.Text, "\n")
	line := d.Step.Line
	if d.Meets[0].Name == "" || line < 1 || line > len(lines) || lang.StatementText(lines[line-1]) != d.Text || !strings.Contains(d.Text, "bring ") || strings.Contains(d.Text, " gap ") {
		return nil, false
	}
	lines[line-1] = inserted(expects.ReplaceAllString(d.Text, ""), "gap "+sheet.Number(-pastMM))
	q, err := p.Again(strings.Join(lines, "\n"))
	if err != nil {
		return nil, false
	}
	return q.Despite(r.Sheet, r.Given), true
}

// inserted puts words behind the fold of a step: before its name and its layers.
func inserted(text, words string) string {
	for _, before := range []string{" moving ", " grab ", " layers ", " under ", " over ", " as ", " called "} {
		if i := strings.Index(text, before); i >= 0 {
			return text[:i] + " " + words + text[i:]
		}
	}
	return text + " " + words
}

// instead replays the pattern up to a step with one line changed, and gives the state
// after that step; nil when it cannot be folded so.
func instead(p *sequence.Pattern, r *sequence.Replay, lines []string, upTo, line int, text string) *fold.State {
	var kept []string
	for i, l := range lines[:upTo] {
		word, _, _ := strings.Cut(strings.TrimSpace(l), " ")
		switch {
		case i == line-1:
			kept = append(kept, text)
		case word == "expect" || p.IsHead(word):
			kept = append(kept, "") // of what comes later, or checks of what is right
		default:
			kept = append(kept, l)
		}
	}
	q, err := p.Again(strings.Join(kept, "\n"))
	if err != nil {
		return nil
	}
	known := map[string]float64{}
	for k, v := range r.Given {
		if q.KnobIndex(k) >= 0 {
			known[k] = v
		}
	}
	run := q.Despite(r.Sheet, known)
	if run.Err != nil || len(run.Steps) == 0 {
		return nil
	}
	return run.Final()
}

// sameLook tells whether two states look alike, from the front: where the pieces lie
// and which face each shows.
func sameLook(a, b *fold.State) bool {
	if len(a.F) != len(b.F) {
		return false
	}
	used := make([]bool, len(b.F))
next:
	for i := range a.F {
		p := a.Folded(fold.FacetID(i))
		for j := range b.F {
			q := b.Folded(fold.FacetID(j))
			if !used[j] && a.F[i].Iso.FaceUp() == b.F[j].Iso.FaceUp() && len(p) == len(q) && p.Centroid().Dist(q.Centroid()) < lookMM && math.Abs(p.Area()-q.Area()) < lookMM*lookMM {
				used[j] = true
				continue next
			}
		}
		return false
	}
	return true
}

// lookMM is a difference that nobody sees.
const lookMM = 0.5
