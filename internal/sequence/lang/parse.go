package lang

import (
	"fmt"
	"maps"
	"math"
	"path/filepath"
	"slices"
	"strings"

	"tussock/internal/sequence"
	"tussock/internal/sequence/basis"
)

// MaxStatements bounds the length of a pattern.
const MaxStatements = 400

// Parser reads one pattern. What it cannot read ends the reading with a *ParseError that
// says where, why and what would be right.
type Parser struct {
	language  *Language
	pat       *sequence.Pattern
	names     map[string]sequence.NameKind
	toks      []token
	i         int
	line      int
	used      map[string]bool            // numbers used in the statement being read
	uses      map[string]map[string]bool // numbers that a landmark depends on
	given     []string                   // names in the order they were given
	wanted    map[string]bool            // names that something has used
	inherited map[string]bool            // names that a macro of every pattern leaves behind
	macros    map[string][]source
	read1     []source // every plain line read so far
}

func newParser(l *Language, file, text string) *Parser {
	id := strings.TrimSuffix(filepath.Base(file), filepath.Ext(file))
	p := &Parser{
		language: l,
		pat: &sequence.Pattern{ID: id, File: file, Text: text, Title: id, CalledWords: map[string]string{}, MadeWords: map[string]string{},
			Lines: map[string]bool{}, HeadNames: map[string][]string{}, HeadLines: map[string]int{}, Reader: l},
		names:  map[string]sequence.NameKind{},
		uses:   map[string]map[string]bool{},
		wanted: map[string]bool{}, inherited: map[string]bool{},
		macros: map[string][]source{},
	}
	if len(l.Ways) > 0 {
		p.pat.Moves = l.Ways[0].Moves
	}
	for n := range basis.Points {
		p.names[n] = sequence.APoint
	}
	for n := range basis.Lines {
		p.names[n] = sequence.ALine
	}
	return p
}

// Parse reads a pattern from its text. file is only used in messages. The error
// is a *ParseError.
func (l *Language) Parse(file, text string) (pat *sequence.Pattern, err error) {
	p := newParser(l, file, text)
	defer func() {
		if e := recover(); e != nil {
			pe, ok := e.(*ParseError) // thrown by fail; anything else is a bug
			if !ok {
				panic(e)
			}
			pat, err = nil, pe
		}
	}()
	if len(text) > MaxPatternBytes {
		p.line = 1
		p.failAt(1, fmt.Sprintf("the pattern is longer than %d bytes", MaxPatternBytes), "shorten it")
	}
	p.read(p.gather(p.lexAll(text)), 0)
	if p.pat.WidthMM == 0 {
		p.failAt(1, "the pattern names no sheet", `begin with a line like "sheet rect 210 297"`)
	}
	if len(p.pat.Steps) == 0 {
		p.failAt(1, "the pattern has no steps", `add a line like "valley bring left to right as keel"`)
	}
	p.checkHeads()
	for _, n := range p.given {
		if !p.wanted[n] && p.pat.CalledWords[n] == "" && !p.inherited[n] {
			p.pat.Unused = append(p.pat.Unused, n)
		}
	}
	p.pat.AddImplied(l.Ways)
	p.pat.NameTheRest()
	for n, k := range p.names {
		if k == sequence.ALine {
			p.pat.Lines[n] = true
		}
	}
	return p.pat, nil
}

// StatementText is a line as shown to people: no comment, single spaces,
// without the words for people at its end.
func StatementText(line string) string {
	if i := strings.IndexByte(line, '#'); i >= 0 {
		line = line[:i]
	}
	text := strings.Join(strings.Fields(line), " ")
	if i := strings.Index(text, ` called "`); i >= 0 {
		text = text[:i]
	}
	return text
}

func (p *Parser) failAt(col int, problem, fix string) {
	panic(&ParseError{p.pat.File, p.line, col, problem, fix})
}

// Fail ends the reading at the next word.
func (p *Parser) Fail(problem, fix string) { p.failAt(p.Peek().col, problem, fix) }

// Peek is the next word, left where it is.
func (p *Parser) Peek() token { return p.toks[p.i] }

// Next takes the next word.
func (p *Parser) Next() token {
	t := p.toks[p.i]
	if t.Kind != tokEnd {
		p.i++
	}
	return t
}

func (p *Parser) isWord(w string) bool { return p.Peek().Kind == TokWord && p.Peek().Text == w }

// Accept takes the next word if it is this one.
func (p *Parser) Accept(w string) bool {
	t := p.Peek()
	if (t.Kind == TokWord || t.Kind == tokSign) && t.Text == w {
		p.Next()
		return true
	}
	return false
}

// Need takes a word that must come next.
func (p *Parser) Need(w string) {
	if !p.Accept(w) {
		p.Fail(fmt.Sprintf("%s stands where %q is needed", p.Peek(), w), fmt.Sprintf("write %q", w))
	}
}

// NeedText takes words in quotes.
// Word takes a word of the author's own, which names nothing else.
func (p *Parser) Word(what string) string {
	t := p.Peek()
	if t.Kind != TokWord {
		p.Fail(what+" is missing", "write a word")
	}
	p.Next()
	return t.Text
}

// NeedText takes a text in quotes.
func (p *Parser) NeedText(what string) string {
	if p.Peek().Kind != TokText {
		p.Fail(fmt.Sprintf("%s stands where %s is needed", p.Peek(), what), `put it in quotes: "…"`)
	}
	return p.Next().Text
}

// OneOf reads one of a few words.
func (p *Parser) OneOf(what string, words ...string) string {
	t := p.Peek()
	if t.Kind != TokWord || !slices.Contains(words, t.Text) {
		p.Fail(fmt.Sprintf("%s is not %s", t, what), "write "+listOf(words))
	}
	return p.Next().Text
}

func listOf(words []string) string {
	if len(words) == 1 {
		return words[0]
	}
	return strings.Join(words[:len(words)-1], ", ") + " or " + words[len(words)-1]
}

// NewName reads a name that is not taken and gives it a meaning.
func (p *Parser) NewName(kind sequence.NameKind) string {
	t := p.Peek()
	if t.Kind != TokWord {
		p.Fail(fmt.Sprintf("%s stands where a name is needed", t), "give it a name such as c1")
	}
	if k, taken := p.names[t.Text]; taken {
		p.Fail(fmt.Sprintf("%q is a %s already", t.Text, k), "choose another name")
	}
	if slices.Contains(reserved, t.Text) {
		p.Fail(fmt.Sprintf("%q is a word of the language", t.Text), "choose another name")
	}
	p.names[t.Text] = kind
	p.given = append(p.given, t.Text)
	return p.Next().Text
}

var reserved = append(append([]string{"balance", "auto"}, pointWords...), lineWords...)

// Known reads a name of the wanted kind.
func (p *Parser) Known(kind sequence.NameKind) string {
	t := p.Peek()
	if t.Kind != TokWord {
		p.Fail(fmt.Sprintf("%s stands where a %s is needed", t, kind), p.suggest("", kind))
	}
	k, ok := p.names[t.Text]
	if !ok {
		p.Fail(fmt.Sprintf("nothing is called %q yet", t.Text), p.suggest(t.Text, kind))
	}
	if k != kind {
		p.Fail(fmt.Sprintf("%q is a %s, and a %s is needed", t.Text, k, kind), p.suggest("", kind))
	}
	p.wanted[t.Text] = true
	if kind == sequence.ANumber {
		p.used[t.Text] = true
	}
	maps.Copy(p.used, p.uses[t.Text])
	return p.Next().Text
}

func (p *Parser) suggest(near string, kind sequence.NameKind) string {
	all := slices.Sorted(maps.Keys(p.names))
	names := slices.DeleteFunc(slices.Clone(all), func(n string) bool { return p.names[n] != kind })
	if best := closest(near, all); best != "" {
		return fmt.Sprintf("did you mean %q?", best)
	}
	if len(names) == 0 {
		return fmt.Sprintf("there is no %s so far", kind)
	}
	return fmt.Sprintf("use one of: %s", strings.Join(names, ", "))
}

// closest is the word at most two letters away from what was written.
func closest(w string, words []string) string {
	best, dist := "", 3
	for _, c := range words {
		if d := editDistance(strings.ToLower(w), strings.ToLower(c)); d < dist && d < len(c) {
			best, dist = c, d
		}
	}
	return best
}

func editDistance(a, b string) int {
	row := make([]int, len(b)+1)
	for j := range row {
		row[j] = j
	}
	for i := range len(a) {
		diag := row[0]
		row[0] = i + 1
		for j := range len(b) {
			cost := diag
			if a[i] != b[j] {
				cost++
			}
			diag = row[j+1]
			row[j+1] = min(cost, row[j+1]+1, row[j]+1)
		}
	}
	return row[len(b)]
}

func (p *Parser) statement(text string) {
	t := p.Peek()
	if t.Kind != TokWord {
		p.Fail(fmt.Sprintf("a line cannot begin with %s", t), "begin with a step such as valley or crease")
	}
	if read := p.stepReader(sequence.Op(t.Text)); read != nil {
		p.step(text, read)
		return
	}
	if h, ok := p.language.head(t.Text); ok {
		p.Next()
		p.headStatement(h)
		return
	}
	read, known := heads[t.Text]
	if !known {
		p.unknown(t)
	}
	p.Next()
	read(p, text)
}

// unknown refuses a word that begins no statement.
func (p *Parser) unknown(t token) {
	steps := p.language.StepWords()
	fix := "steps are " + listOf(steps)
	if c := closest(t.Text, append(steps, p.language.headWords()...)); c != "" {
		fix = fmt.Sprintf("did you mean %q?", c)
	}
	p.Fail(fmt.Sprintf("%q is not a statement", t.Text), fix)
}

// CalledWords reads what people call the name just given, and tells whether it is said.
func (p *Parser) CalledWords(name string) bool {
	said := p.Accept("called")
	if said {
		p.pat.CalledWords[name] = p.NeedText("what people call it")
	}
	return said
}

// MadeWords are words for a name that is called nothing.
func (p *Parser) MadeWords(name, words string) { p.pat.MadeWords[name] = words }

// Count takes a whole number within bounds.
func (p *Parser) Count(what string, lo, hi int) int {
	col := p.Peek().col
	v := p.needConstant(what)
	if v != math.Trunc(v) || v < float64(lo) || v > float64(hi) {
		p.failAt(col, fmt.Sprintf("%s is %v", what, v), fmt.Sprintf("write a whole number from %d to %d", lo, hi))
	}
	return int(v)
}

// Ranged takes a number within bounds.
func (p *Parser) Ranged(what string, lo, hi float64) float64 {
	col := p.Peek().col
	v := p.needConstant(what)
	if math.IsNaN(v) || v < lo || v > hi {
		p.failAt(col, fmt.Sprintf("%s is %v", what, v), fmt.Sprintf("write a number from %v to %v", lo, hi))
	}
	return v
}
