package lang

import (
	"fmt"
	"slices"

	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// Language is the words that patterns are written in: those of the fold engine, which
// every pattern has, and those of ways of moving. The first way is meant where a pattern
// says nothing.
type Language struct {
	Steps map[sequence.Op]StepReader
	Ways  []sequence.Vocabulary
	// Set reads a step that sets a part, as a way of moving describes it.
	Set func(p *Parser, s *sequence.Step, t sequence.Setting) sequence.Action
	// Stands says where the centre of mass of a toy lies that stands in the round.
	Stands func(r *sequence.Replay) geom.Vec
}

// Standing is where the centre of mass of a toy lies that stands in the round, over the
// plane of the piece that stays.
func (l *Language) Standing(r *sequence.Replay) (geom.Vec, bool) {
	if l.Stands == nil {
		return geom.Vec{}, false
	}
	return l.Stands(r), true
}

// StepReader reads what follows the word of a step, and gives what the step does.
type StepReader func(p *Parser, s *sequence.Step) sequence.Action

func (l *Language) head(word string) (sequence.Head, bool) {
	for _, v := range l.Ways {
		if i := slices.IndexFunc(v.Heads, func(h sequence.Head) bool { return h.Word == word }); i >= 0 {
			return v.Heads[i], true
		}
	}
	return sequence.Head{}, false
}

// Setting is the one of a step's word; ok is false for the words of the fold engine.
func (l *Language) Setting(op sequence.Op) (sequence.Setting, bool) {
	for _, v := range l.Ways {
		if i := slices.IndexFunc(v.Sets, func(s sequence.Setting) bool { return s.Op == op }); i >= 0 {
			return v.Sets[i], true
		}
	}
	return sequence.Setting{}, false
}

// IsHead tells whether a line that begins with a word is a head statement of a way.
func (l *Language) IsHead(word string) bool { _, ok := l.head(word); return ok }

// moves are the words that may follow "moves".
func (l *Language) moves() []string {
	var out []string
	for _, v := range l.Ways {
		if !slices.Contains(out, v.Moves) {
			out = append(out, v.Moves)
		}
	}
	return out
}

// StepWords are the words a step can begin with, in order.
func (l *Language) StepWords() []string {
	var out []string
	for op := range l.Steps {
		out = append(out, string(op))
	}
	for _, v := range l.Ways {
		for _, s := range v.Sets {
			out = append(out, string(s.Op))
		}
	}
	slices.Sort(out)
	return slices.Compact(out)
}

func (l *Language) headWords() []string {
	out := headWords()
	for _, v := range l.Ways {
		for _, h := range v.Heads {
			out = append(out, h.Word)
		}
	}
	return out
}

// Missing says what a head statement of its way names that the folded toy does not have.
func (l *Language) Missing(r *sequence.Replay) (line int, why string) {
	for _, v := range l.Ways {
		if v.Moves != r.Pattern.Moves {
			continue
		}
		for _, h := range v.Heads {
			names := r.Pattern.HeadNames[h.Word]
			if len(names) == 0 || h.Check == nil {
				continue
			}
			if why := h.Check(r, names); why != "" {
				return r.Pattern.HeadLines[h.Word], why
			}
		}
	}
	return 0, ""
}

// headStatement reads the names of a head statement of a way.
func (p *Parser) headStatement(h sequence.Head) {
	many := "names"
	if h.Least == 1 && h.Most == 1 {
		many = "the name"
	}
	kind := map[sequence.NameKind]string{sequence.APoint: "landmark", sequence.ALine: "crease", sequence.AWord: "word"}[h.Kind]
	var given []string
	for p.Peek().Kind == TokWord && (h.Most == 0 || len(given) < h.Most) {
		given = append(given, p.Next().Text)
	}
	if len(given) < h.Least {
		p.Fail(fmt.Sprintf("%s needs %s of a %s", h.What, many, kind), "write for example: "+h.Fix)
	}
	p.pat.HeadNames[h.Word], p.pat.HeadLines[h.Word] = given, p.line
}

// checkHeads refuses names that stand for something else, once all are known.
func (p *Parser) checkHeads() {
	for _, v := range p.language.Ways {
		for _, h := range v.Heads {
			for _, n := range p.pat.HeadNames[h.Word] {
				p.wanted[n] = true
				if n == "" || h.Kind == sequence.AWord || p.names[n] == h.Kind {
					continue
				}
				kind, fix := "landmark", "name a point"
				if h.Kind == sequence.ALine {
					kind, fix = "crease", "name a crease"
				}
				p.failAt(1, fmt.Sprintf("%s %q is not a %s", h.What, n, kind), fix)
			}
		}
		for _, k := range v.Knobs {
			p.wanted[k.Name] = true // the way of moving uses them
		}
	}
}
