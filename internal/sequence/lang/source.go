package lang

import (
	_ "embed"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"sync"

	"tussock/internal/sequence"
)

// source is one line of a pattern as tokens, after macros and repeats have been
// written out.
type source struct {
	sequence.Source
	toks []token
}

//go:embed bases.macros
var baseMacros string

// bases are the macros that every pattern has.
var bases = sync.OnceValue(func() map[string][]source {
	p := newParser(&Language{}, "bases.macros", "")
	p.macros = map[string][]source{}
	p.gather(p.lexAll(baseMacros))
	return p.macros
})

// Bases are the names of the macros that every pattern can use.
func Bases() []string {
	var out []string
	for n := range bases() {
		out = append(out, n)
	}
	slices.Sort(out)
	return out
}

// BaseNames are the names that such a macro leaves behind.
func BaseNames(macro string) []string {
	return newParser(&Language{}, "", "").namesGiven(bases()[macro])
}

// add puts a statement behind those read so far.
func (p *Parser) add(s sequence.Statement) { p.pat.Stmts = append(p.pat.Stmts, s) }

func (p *Parser) lexAll(text string) []source {
	var out []source
	for n, line := range strings.Split(text, "\n") {
		p.line = n + 1
		toks, problem, fix, col := lexLine(strings.TrimRight(line, "\r"))
		if problem != "" {
			p.failAt(col, problem, fix)
		}
		if len(toks) > 1 {
			out = append(out, source{sequence.Source{Line: n + 1, Text: StatementText(line)}, toks})
		}
	}
	return out
}

// gather takes macro definitions out of the lines.
func (p *Parser) gather(lines []source) []source {
	var out []source
	name := ""
	for _, s := range lines {
		p.line, p.toks, p.i = s.Line, s.toks, 0
		switch {
		case name == "" && p.Accept("macro"):
			if p.Peek().Kind != TokWord {
				p.Fail(fmt.Sprintf("%s stands where a name is needed", p.Peek()), "write: macro NAME")
			}
			name = p.Next().Text
			if _, taken := p.macros[name]; taken {
				p.failAt(1, fmt.Sprintf("there is a macro %q already", name), "choose another name")
			}
			p.macros[name] = nil
			p.atEnd()
		case name != "" && p.isWord("macro"):
			p.Fail("a macro cannot hold another", `write "end" first`)
		case name != "" && p.Accept("end"):
			p.atEnd()
			name = ""
		case name != "":
			p.macros[name] = append(p.macros[name], s)
		default:
			out = append(out, s)
		}
	}
	if name != "" {
		p.failAt(1, fmt.Sprintf("the macro %q has no end", name), `write "end" after its last line`)
	}
	return out
}

func (p *Parser) atEnd() {
	if p.Peek().Kind != tokEnd {
		p.Fail(fmt.Sprintf("%s is not expected here", p.Peek()), "end the line before it")
	}
}

// maxDepth bounds macros inside macros.
const maxDepth = 6

// read works through lines, writing out macros and repeats as it goes.
func (p *Parser) read(lines []source, depth int) {
	for _, s := range lines {
		p.line, p.toks, p.i = s.Line, s.toks, 0
		switch {
		case p.isWord("use"):
			p.use(depth)
		case p.isWord("repeat"):
			p.repeat(depth)
		default:
			p.one(s)
		}
	}
}

// one reads a plain statement.
func (p *Parser) one(s source) {
	p.used = map[string]bool{}
	before, names := len(p.pat.Stmts), len(p.given)
	p.statement(s.Text)
	p.atEnd()
	if len(p.pat.Stmts) > MaxStatements {
		p.failAt(1, fmt.Sprintf("a pattern has at most %d statements", MaxStatements), "shorten it")
	}
	s.Defines = slices.Clone(p.given[names:])
	s.Used = p.used
	p.read1 = append(p.read1, s)
	for range len(p.pat.Stmts) - before {
		p.pat.Sources = append(p.pat.Sources, s.Source)
	}
}

// use NAME [as SUFFIX]
func (p *Parser) use(depth int) {
	p.Next()
	t := p.Peek()
	body, ok := p.macros[t.Text]
	own := ok
	if !ok {
		body, ok = bases()[t.Text]
	}
	if !ok || t.Kind != TokWord {
		p.Fail(fmt.Sprintf("there is no macro %s", t), "macros of every pattern are "+listOf(Bases()))
	}
	if depth >= maxDepth {
		p.Fail("macros are nested too deeply", "write the inner one out")
	}
	p.Next()
	suffix := p.suffix()
	p.atEnd()
	given := len(p.given)
	p.read(p.renamed(body, p.namesGiven(body), suffix, nil, false), depth+1)
	if !own {
		for _, n := range p.given[given:] {
			p.inherited[n] = true
		}
	}
}

func (p *Parser) suffix() string {
	if !p.Accept("as") {
		return ""
	}
	t := p.Next()
	if t.Kind != TokWord {
		p.failAt(t.col, fmt.Sprintf("%s is not a suffix", t), "write a letter or word that is put after every name")
	}
	return t.Text
}

// namesGiven are the names that lines define: after "point", "as" and "param".
func (p *Parser) namesGiven(lines []source) []string {
	var out []string
	for _, s := range lines {
		for i, t := range s.toks[:len(s.toks)-1] {
			next := s.toks[i+1]
			if t.Kind == TokWord && next.Kind == TokWord && (t.Text == "as" || i == 0 && (t.Text == "point" || t.Text == "param" || t.Text == "knob")) {
				out = append(out, next.Text)
			}
		}
	}
	return out
}

// repeat NAME [to NAME] [N times] [mirrored lr|tb] [swap A B]… as SUFFIX
func (p *Parser) repeat(depth int) {
	start := p.Peek().col
	p.Next()
	find := func() int {
		t := p.Next()
		i := slices.IndexFunc(p.read1, func(s source) bool { return slices.Contains(s.Defines, t.Text) })
		if t.Kind != TokWord || i < 0 {
			p.failAt(t.col, fmt.Sprintf("no step or landmark above is called %s", t), "name one by the word after its \"as\" or \"point\"")
		}
		return i
	}
	from := find()
	to := from
	if p.Accept("to") {
		to = find()
	}
	if to < from {
		p.failAt(start, "the repeat ends before it begins", "name the earlier step first")
	}
	times := 1
	if p.startsNumber() {
		times = p.Count("the count", 1, 24)
		p.Need("times")
	}
	swaps := map[string]string{}
	both := func(a, b string) { swaps[a], swaps[b] = b, a }
	mirrored := p.Accept("mirrored")
	if mirrored {
		if p.OneOf("an axis", "lr", "tb") == "lr" {
			both("TL", "TR")
			both("BL", "BR")
			both("L", "R")
			both("left", "right")
		} else {
			both("TL", "BL")
			both("TR", "BR")
			both("T", "B")
			both("top", "bottom")
		}
	}
	for p.Accept("swap") {
		a := p.Next()
		both(a.Text, p.Next().Text)
	}
	if !p.isWord("as") {
		p.Fail("the names made by the repeat need a suffix", "end with: as SUFFIX")
	}
	suffix := p.suffix()
	p.atEnd()
	for to+1 < len(p.read1) && len(p.read1[to+1].toks) > 0 && slices.Contains([]string{"say", "looks"}, p.read1[to+1].toks[0].Text) {
		to++
	}
	lines := slices.Clone(p.read1[from : to+1])
	if depth >= maxDepth || times*len(lines) > MaxStatements {
		p.failAt(start, "the repeat makes the pattern too long", "repeat fewer steps")
	}
	names := p.namesGiven(lines)
	first := p.firstStep(lines)
	for k := range times {
		s := suffix
		if times > 1 {
			s += strconv.Itoa(k + 1)
		}
		before := len(p.pat.Steps)
		p.read(p.renamed(lines, names, s, swaps, mirrored), depth+1)
		for i := before; i < len(p.pat.Steps) && first > 0; i++ {
			p.pat.Steps[i].Like = first + i - before
		}
	}
}

// firstStep is the number of the first step that was read from lines; 0 when they have none.
func (p *Parser) firstStep(lines []source) int {
	for _, l := range lines {
		for _, s := range p.pat.Steps {
			if s.Line == l.Line {
				return s.No
			}
		}
	}
	return 0
}

// renamed copies lines with names given in them suffixed and others swapped.
func (p *Parser) renamed(lines []source, names []string, suffix string, swaps map[string]string, mirrored bool) []source {
	var out []source
	for _, s := range lines {
		c := source{sequence.Source{Line: p.line}, slices.Clone(s.toks)}
		other := func(word string) string {
			switch {
			case suffix != "" && slices.Contains(names, word):
				return word + suffix
			case swaps[word] != "":
				return swaps[word]
			}
			return word
		}
		for i, t := range c.toks {
			switch t.Kind {
			case TokText:
				if mirrored {
					c.toks[i].Text = sidesSwapped(t.Text)
				}
				c.toks[i].Text = requoted(c.toks[i].Text, other)
			case TokWord:
				c.toks[i].Text = other(t.Text)
			}
		}
		c.Text = tokensText(c.toks)
		out = append(out, c)
	}
	return out
}

// sidesSwapped exchanges left and right in words for people.
func sidesSwapped(s string) string {
	return strings.NewReplacer("left", "right", "right", "left", "Left", "Right", "Right", "Left").Replace(s)
}

// tokensText writes tokens as a statement, without the words for people.
func tokensText(toks []token) string {
	var b strings.Builder
	for i, t := range toks {
		if t.Kind == tokEnd || t.Text == "called" {
			break
		}
		tight := i == 0 || strings.Contains("),]", t.Text) && t.Kind == tokSign ||
			toks[i-1].Kind == tokSign && strings.Contains("([", toks[i-1].Text) || t.Text == "(" && t.Kind == tokSign
		if !tight {
			b.WriteByte(' ')
		}
		if t.Kind == TokText {
			b.WriteString(strconv.Quote(t.Text))
		} else {
			b.WriteString(t.Text)
		}
	}
	return b.String()
}
