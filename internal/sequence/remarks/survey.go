package remarks

import (
	"fmt"
	"math"
	"slices"

	"tussock/internal/fold"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Range is an interval that was searched and found to work.
type Range struct{ Min, Max float64 }

// Survey is what a pattern does on another sheet or with other knobs.
type Survey struct {
	Misses []sequence.Miss
	// First is the first step that misses or cannot be made; 0 when all is well.
	First int
	Works bool
	Ratio *Range // of height over width, found by replaying; nil when none was found
	Err   error
}

// SurveyOf replays a pattern on a sheet without stopping at checks that fail, and
// searches the range of the sheet's ratio in which all of it works. The ratio that the
// pattern requires is not taken on trust: what is found is what folds and passes its
// checks, around the pattern's own sheet.
func SurveyOf(p *sequence.Pattern, s sheet.Sheet, knobs map[string]float64) Survey {
	s = p.AsFolded(s)
	lax := *p
	lax.MinRatio, lax.MaxRatio = 0, 0
	r := p.Despite(s, knobs)
	out := Survey{Misses: r.Misses, Err: r.Err}
	for _, m := range r.Misses {
		if out.First == 0 || m.Step < out.First {
			out.First = m.Step
		}
	}
	if r.Err != nil && (out.First == 0 || fold.As(r.Err).Step < out.First) {
		out.First = fold.As(r.Err).Step
	}
	out.Works = r.Err == nil && len(r.Misses) == 0 && p.Takes(s.Ratio())
	if lo, hi, ok := ratioRange(&lax, s, knobs); ok {
		out.Ratio = &Range{lo, hi}
	}
	return out
}

// ratioRange is the interval of height over width, around the pattern's own, in
// which it folds at this width. ok is false when not even its own works.
func ratioRange(p *sequence.Pattern, s sheet.Sheet, knobs map[string]float64) (lo, hi float64, ok bool) {
	if p.Shape != nil {
		return 0, 0, false
	}
	own := p.HeightMM / p.WidthMM
	at := func(q float64) bool {
		t, err := sheet.New(s.WidthMM, s.WidthMM*q, s.GSM, s.ThicknessMM)
		return err == nil && p.Run(t, knobs).Err == nil
	}
	if !at(own) {
		return 0, 0, false
	}
	bound := func(end float64) float64 {
		good, bad := own, 0.0
		const steps, rounds = 16, 16
		for i := 1; i <= steps; i++ {
			v := own * math.Pow(end/own, float64(i)/steps)
			if at(v) {
				good = v
				continue
			}
			bad = v
			break
		}
		if bad == 0 {
			return good
		}
		for range rounds {
			if m := (good + bad) / 2; at(m) {
				good = m
			} else {
				bad = m
			}
		}
		return good
	}
	return bound(own / 4), bound(own * 4), true
}

// Finding is one remark of a lint.
type Finding struct {
	Line int    `json:"line"`
	Kind string `json:"kind"` // unused, words, long, bent, choice, thin, narrow, deep, ratio, fold
	Text string `json:"text"`
}

// readAloud is how many words a step's sentence has at most.
const readAloud = 25

// Lint looks a pattern over on its own sheet: names never used, steps without
// words, sentences too long to be read aloud, folds that cannot be made or leave
// a choice, and the range of ratios that works against the one it states.
func Lint(p *sequence.Pattern) []Finding {
	var out []Finding
	say := func(line int, kind, format string, a ...any) {
		out = append(out, Finding{line, kind, fmt.Sprintf(format, a...)})
	}
	for _, n := range p.Unused {
		say(lineOf(p, n), "unused", "nothing uses %q", n)
	}
	for _, s := range p.Steps {
		switch n := words(s.Say); {
		case s.Say == "":
			say(s.Line, "words", "step %d has no words for people: add a line with say", s.No)
		case n > readAloud:
			say(s.Line, "long", "step %d has %d words; at most %d are easily read aloud", s.No, n, readAloud)
		}
	}
	sh, err := sheet.New(p.WidthMM, p.HeightMM, sheet.PlainGSM, sheet.PlainThicknessMM)
	if err != nil {
		say(1, "fold", "its own sheet is impossible: %s", err)
		return out
	}
	r := p.Run(sh, nil)
	for _, w := range Warnings(r) {
		say(p.Steps[w.Step-1].Line, w.Kind, "step %d: %s", w.Step, w.Text)
	}
	out = append(out, sidesAndMarks(r)...)
	if r.Err != nil {
		kind := "fold"
		e := fold.As(r.Err)
		if e.Code == fold.CodeBent {
			kind = "bent"
		}
		say(e.Line, kind, "%s", r.Err)
		return out
	}
	lax := *p
	lax.MinRatio, lax.MaxRatio = 0, 0
	if lo, hi, ok := ratioRange(&lax, sh, nil); ok {
		switch {
		case p.MinRatio == 0:
			say(1, "ratio", "it folds from %.2f to %.2f times as high as wide; a line with require would say so", lo, hi)
		case p.MinRatio < lo-0.005 || p.MaxRatio > hi+0.005:
			say(1, "ratio", "it requires a ratio from %s to %s, and folds only from %.2f to %.2f", sheet.Number(p.MinRatio), sheet.Number(p.MaxRatio), lo, hi)
		}
	}
	slices.SortStableFunc(out, func(a, b Finding) int { return a.Line - b.Line })
	return out
}

func lineOf(p *sequence.Pattern, name string) int {
	for _, s := range p.Sources {
		if slices.Contains(s.Defines, name) {
			return s.Line
		}
	}
	for _, k := range p.Knobs {
		if k.Name == name {
			return k.Line
		}
	}
	return 1
}

func words(s string) int {
	n, in := 0, false
	for _, c := range s {
		letter := c != ' ' && c != '\t'
		if letter && !in {
			n++
		}
		in = letter
	}
	return n
}
