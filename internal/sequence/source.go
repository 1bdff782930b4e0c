package sequence

import (
	_ "embed"
	"fmt"
	"slices"
	"strconv"
	"strings"
	"sync"
)

// source is one line of a pattern as tokens, after macros and repeats have been
// written out.
type source struct {
	Source
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
func (p *parser) add(s statement) { p.pat.stmts = append(p.pat.stmts, s) }

func (p *parser) lexAll(text string) []source {
	var out []source
	for n, line := range strings.Split(text, "\n") {
		p.line = n + 1
		toks, problem, fix, col := lexLine(strings.TrimRight(line, "\r"))
		if problem != "" {
			p.failAt(col, problem, fix)
		}
		if len(toks) > 1 {
			out = append(out, source{Source{Line: n + 1, Text: statementText(line)}, toks})
		}
	}
	return out
}

// gather takes macro definitions out of the lines.
func (p *parser) gather(lines []source) []source {
	var out []source
	name := ""
	for _, s := range lines {
		p.line, p.toks, p.i = s.Line, s.toks, 0
		switch {
		case name == "" && p.accept("macro"):
			if p.peek().kind != tokWord {
				p.fail(fmt.Sprintf("%s stands where a name is needed", p.peek()), "write: macro NAME")
			}
			name = p.next().text
			if _, taken := p.macros[name]; taken {
				p.failAt(1, fmt.Sprintf("there is a macro %q already", name), "choose another name")
			}
			p.macros[name] = nil
			p.atEnd()
		case name != "" && p.isWord("macro"):
			p.fail("a macro cannot hold another", `write "end" first`)
		case name != "" && p.accept("end"):
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

func (p *parser) atEnd() {
	if p.peek().kind != tokEnd {
		p.fail(fmt.Sprintf("%s is not expected here", p.peek()), "end the line before it")
	}
}

// maxDepth bounds macros inside macros.
const maxDepth = 6

// read works through lines, writing out macros and repeats as it goes.
func (p *parser) read(lines []source, depth int) {
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
func (p *parser) one(s source) {
	p.used = map[string]bool{}
	before, names := len(p.pat.stmts), len(p.given)
	p.statement(s.Text)
	p.atEnd()
	if len(p.pat.stmts) > MaxStatements {
		p.failAt(1, fmt.Sprintf("a pattern has at most %d statements", MaxStatements), "shorten it")
	}
	s.Defines = slices.Clone(p.given[names:])
	s.Used = p.used
	p.read1 = append(p.read1, s)
	for range len(p.pat.stmts) - before {
		p.pat.sources = append(p.pat.sources, s.Source)
	}
}

// use NAME [as SUFFIX]
func (p *parser) use(depth int) {
	p.next()
	t := p.peek()
	body, ok := p.macros[t.text]
	own := ok
	if !ok {
		body, ok = bases()[t.text]
	}
	if !ok || t.kind != tokWord {
		p.fail(fmt.Sprintf("there is no macro %s", t), "macros of every pattern are "+listOf(Bases()))
	}
	if depth >= maxDepth {
		p.fail("macros are nested too deeply", "write the inner one out")
	}
	p.next()
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

func (p *parser) suffix() string {
	if !p.accept("as") {
		return ""
	}
	t := p.next()
	if t.kind != tokWord {
		p.failAt(t.col, fmt.Sprintf("%s is not a suffix", t), "write a letter or word that is put after every name")
	}
	return t.text
}

// namesGiven are the names that lines define: after "point", "as" and "param".
func (p *parser) namesGiven(lines []source) []string {
	var out []string
	for _, s := range lines {
		for i, t := range s.toks[:len(s.toks)-1] {
			next := s.toks[i+1]
			if t.kind == tokWord && next.kind == tokWord && (t.text == "as" || i == 0 && (t.text == "point" || t.text == "param" || t.text == "knob")) {
				out = append(out, next.text)
			}
		}
	}
	return out
}

// repeat NAME [to NAME] [N times] [mirrored lr|tb] [swap A B]… as SUFFIX
func (p *parser) repeat(depth int) {
	start := p.peek().col
	p.next()
	find := func() int {
		t := p.next()
		i := slices.IndexFunc(p.read1, func(s source) bool { return slices.Contains(s.Defines, t.text) })
		if t.kind != tokWord || i < 0 {
			p.failAt(t.col, fmt.Sprintf("no step or landmark above is called %s", t), "name one by the word after its \"as\" or \"point\"")
		}
		return i
	}
	from := find()
	to := from
	if p.accept("to") {
		to = find()
	}
	if to < from {
		p.failAt(start, "the repeat ends before it begins", "name the earlier step first")
	}
	times := 1
	if p.peek().kind == tokNumber {
		times = int(p.ranged("the count", 1, 24))
		p.need("times")
	}
	swaps := map[string]string{}
	both := func(a, b string) { swaps[a], swaps[b] = b, a }
	mirrored := p.accept("mirrored")
	if mirrored {
		if p.oneOf("an axis", "lr", "tb") == "lr" {
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
	for p.accept("swap") {
		a := p.next()
		both(a.text, p.next().text)
	}
	if !p.isWord("as") {
		p.fail("the names made by the repeat need a suffix", "end with: as SUFFIX")
	}
	suffix := p.suffix()
	p.atEnd()
	for to+1 < len(p.read1) && len(p.read1[to+1].toks) > 0 && slices.Contains([]string{"say", "looks"}, p.read1[to+1].toks[0].text) {
		to++
	}
	lines := slices.Clone(p.read1[from : to+1])
	if depth >= maxDepth || times*len(lines) > MaxStatements {
		p.failAt(start, "the repeat makes the pattern too long", "repeat fewer steps")
	}
	names := p.namesGiven(lines)
	for k := range times {
		s := suffix
		if times > 1 {
			s += strconv.Itoa(k + 1)
		}
		p.read(p.renamed(lines, names, s, swaps, mirrored), depth+1)
	}
}

// renamed copies lines with names given in them suffixed and others swapped.
func (p *parser) renamed(lines []source, names []string, suffix string, swaps map[string]string, mirrored bool) []source {
	var out []source
	for _, s := range lines {
		c := source{Source{Line: p.line}, slices.Clone(s.toks)}
		for i, t := range c.toks {
			switch {
			case t.kind == tokText && mirrored:
				c.toks[i].text = sidesSwapped(t.text)
			case t.kind != tokWord:
			case suffix != "" && slices.Contains(names, t.text):
				c.toks[i].text += suffix
			case swaps[t.text] != "":
				c.toks[i].text = swaps[t.text]
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
		if t.kind == tokEnd || t.text == "called" {
			break
		}
		tight := i == 0 || strings.Contains("),]", t.text) && t.kind == tokSign ||
			toks[i-1].kind == tokSign && strings.Contains("([", toks[i-1].text) || t.text == "(" && t.kind == tokSign
		if !tight {
			b.WriteByte(' ')
		}
		if t.kind == tokText {
			b.WriteString(strconv.Quote(t.text))
		} else {
			b.WriteString(t.text)
		}
	}
	return b.String()
}
