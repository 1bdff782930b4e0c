package sequence

import (
	"fmt"
	"maps"
	"math"
	"path/filepath"
	"slices"
	"strings"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sheet"
)

// MaxStatements bounds the length of a pattern.
const MaxStatements = 400

type parser struct {
	language  *Language
	pat       *Pattern
	names     map[string]NameKind
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

func newParser(l *Language, file, text string) *parser {
	id := strings.TrimSuffix(filepath.Base(file), filepath.Ext(file))
	p := &parser{
		language: l,
		pat: &Pattern{ID: id, File: file, Text: text, Title: id, called: map[string]string{},
			lines: map[string]bool{}, heads: map[string][]string{}, reader: l},
		names:  map[string]NameKind{},
		uses:   map[string]map[string]bool{},
		wanted: map[string]bool{}, inherited: map[string]bool{},
		macros: map[string][]source{},
	}
	if len(l.Ways) > 0 {
		p.pat.Moves = l.Ways[0].Moves
	}
	for n := range builtInPoints {
		p.names[n] = APoint
	}
	for n := range builtInLines {
		p.names[n] = ALine
	}
	return p
}

// Parse reads a pattern from its text. file is only used in messages. The error
// is a *ParseError.
func (l *Language) Parse(file, text string) (pat *Pattern, err error) {
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
		if !p.wanted[n] && p.pat.called[n] == "" && !p.inherited[n] {
			p.pat.Unused = append(p.pat.Unused, n)
		}
	}
	p.pat.addImplied(l.Ways)
	for n, k := range p.names {
		if k == ALine {
			p.pat.lines[n] = true
		}
	}
	return p.pat, nil
}

// statementText is a line as shown to people: no comment, single spaces,
// without the words for people at its end.
func statementText(line string) string {
	if i := strings.IndexByte(line, '#'); i >= 0 {
		line = line[:i]
	}
	text := strings.Join(strings.Fields(line), " ")
	if i := strings.Index(text, ` called "`); i >= 0 {
		text = text[:i]
	}
	return text
}

func (p *parser) failAt(col int, problem, fix string) {
	panic(&ParseError{p.pat.File, p.line, col, problem, fix})
}
func (p *parser) fail(problem, fix string) { p.failAt(p.peek().col, problem, fix) }

func (p *parser) peek() token { return p.toks[p.i] }
func (p *parser) next() token {
	t := p.toks[p.i]
	if t.kind != tokEnd {
		p.i++
	}
	return t
}

func (p *parser) isWord(w string) bool { return p.peek().kind == tokWord && p.peek().text == w }
func (p *parser) accept(w string) bool {
	t := p.peek()
	if (t.kind == tokWord || t.kind == tokSign) && t.text == w {
		p.next()
		return true
	}
	return false
}
func (p *parser) need(w string) {
	if !p.accept(w) {
		p.fail(fmt.Sprintf("%s stands where %q is needed", p.peek(), w), fmt.Sprintf("write %q", w))
	}
}

func (p *parser) needText(what string) string {
	if p.peek().kind != tokText {
		p.fail(fmt.Sprintf("%s stands where %s is needed", p.peek(), what), `put it in quotes: "…"`)
	}
	return p.next().text
}

func (p *parser) needLiteral(what string) float64 {
	if p.peek().kind != tokNumber {
		p.fail(fmt.Sprintf("%s stands where %s is needed", p.peek(), what), "write a number")
	}
	return p.next().num
}

// oneOf reads one of a few words.
func (p *parser) oneOf(what string, words ...string) string {
	t := p.peek()
	if t.kind != tokWord || !slices.Contains(words, t.text) {
		p.fail(fmt.Sprintf("%s is not %s", t, what), "write "+listOf(words))
	}
	return p.next().text
}

func listOf(words []string) string {
	if len(words) == 1 {
		return words[0]
	}
	return strings.Join(words[:len(words)-1], ", ") + " or " + words[len(words)-1]
}

// newName reads a name that is not taken and gives it a meaning.
func (p *parser) newName(kind NameKind) string {
	t := p.peek()
	if t.kind != tokWord {
		p.fail(fmt.Sprintf("%s stands where a name is needed", t), "give it a name such as c1")
	}
	if k, taken := p.names[t.text]; taken {
		p.fail(fmt.Sprintf("%q is a %s already", t.text, k), "choose another name")
	}
	if slices.Contains(reserved, t.text) {
		p.fail(fmt.Sprintf("%q is a word of the language", t.text), "choose another name")
	}
	p.names[t.text] = kind
	p.given = append(p.given, t.text)
	return p.next().text
}

var reserved = append(append([]string{"balance", "auto"}, pointWords...), lineWords...)

// known reads a name of the wanted kind.
func (p *parser) known(kind NameKind) string {
	t := p.peek()
	if t.kind != tokWord {
		p.fail(fmt.Sprintf("%s stands where a %s is needed", t, kind), p.suggest("", kind))
	}
	k, ok := p.names[t.text]
	if !ok {
		p.fail(fmt.Sprintf("nothing is called %q yet", t.text), p.suggest(t.text, kind))
	}
	if k != kind {
		p.fail(fmt.Sprintf("%q is a %s, and a %s is needed", t.text, k, kind), p.suggest("", kind))
	}
	p.wanted[t.text] = true
	if kind == ANumber {
		p.used[t.text] = true
	}
	maps.Copy(p.used, p.uses[t.text])
	return p.next().text
}

func (p *parser) suggest(near string, kind NameKind) string {
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

var headWords = []string{"pattern", "moves", "good", "made", "minutes", "sheet", "margin", "require", "knob", "param", "point", "expect", "guard", "say", "looks", "use", "repeat", "macro"}

func (p *parser) statement(text string) {
	t := p.peek()
	if t.kind != tokWord {
		p.fail(fmt.Sprintf("a line cannot begin with %s", t), "begin with a step such as valley or crease")
	}
	if read := p.stepReader(Op(t.text)); read != nil {
		p.step(text, read)
		return
	}
	if h, ok := p.language.head(t.text); ok {
		p.next()
		p.headStatement(h)
		return
	}
	if !slices.Contains(headWords, t.text) {
		steps := p.language.StepWords()
		fix := "steps are " + listOf(steps)
		if c := closest(t.text, append(steps, p.language.headWords()...)); c != "" {
			fix = fmt.Sprintf("did you mean %q?", c)
		}
		p.fail(fmt.Sprintf("%q is not a statement", t.text), fix)
	}
	p.next()
	pat := p.pat
	switch t.text {
	case "pattern":
		pat.Title = p.needText("the title")
	case "moves":
		if len(p.language.Ways) == 0 {
			p.fail("this language has no way of moving", "leave the line out")
		}
		pat.Moves = p.oneOf("a way of moving", p.language.moves()...)
	case "good":
		pat.Good = p.needText("what it is good at")
	case "made":
		p.need("for")
		pat.Show = p.oneOf("a purpose", "play", "show") == "show"
	case "minutes":
		pat.Minutes = int(p.ranged("the minutes", 1, 600))
	case "sheet":
		p.sheet()
	case "require":
		p.need("ratio")
		p.need("between")
		pat.MinRatio = p.ranged("the ratio", 0.01, 100)
		p.need("and")
		pat.MaxRatio = p.ranged("the ratio", pat.MinRatio, 100)
	case "knob":
		p.knob()
	case "param":
		k := Knob{Name: p.newName(ANumber), Plain: true, Kind: HardFold, Min: -1e4, Max: 1e4, line: p.line}
		p.need("=")
		k.Label = k.Name
		k.Default = p.ranged("the value", k.Min, k.Max)
		pat.Knobs = append(pat.Knobs, k)
	case "point":
		name := p.newName(APoint)
		p.need("=")
		// The name must not be used inside its own definition.
		delete(p.names, name)
		s := pointStmt{line: p.line, name: name, p: p.point(), text: text}
		p.names[name] = APoint
		if p.accept("on") {
			s.layer.which = p.oneOf("a layer", "top", "bottom", "layer")
			if s.layer.which == "layer" {
				s.layer.of = p.point()
			}
		}
		p.uses[name] = p.used
		p.calledWords(name)
		p.add(s)
	case "expect":
		p.expectation(text)
	case "margin":
		p.margin()
	case "guard":
		p.guard()
	case "say", "looks":
		if len(pat.Steps) == 0 {
			p.failAt(t.col, fmt.Sprintf("%q belongs under a step", t.text), "write a step above it")
		}
		s := &pat.Steps[len(pat.Steps)-1]
		words := p.needText("the words for people")
		if t.text == "say" {
			s.Say = strings.TrimSpace(s.Say + " " + words)
		} else {
			s.Looks = words
		}
	}
}

// calledWords reads what people call the name just given.
func (p *parser) calledWords(name string) {
	if p.accept("called") {
		p.pat.called[name] = p.needText("what people call it")
	}
}

func (p *parser) ranged(what string, lo, hi float64) float64 {
	col := p.peek().col
	v := p.needLiteral(what)
	if math.IsNaN(v) || v < lo || v > hi {
		p.failAt(col, fmt.Sprintf("%s is %v", what, v), fmt.Sprintf("write a number from %v to %v", lo, hi))
	}
	return v
}

func (p *parser) sheet() {
	pat := p.pat
	if pat.WidthMM != 0 {
		p.failAt(1, "the sheet is named twice", "keep one of the two lines")
	}
	side := func(what string) float64 { return p.ranged(what, 20, 2000) }
	switch p.oneOf("a kind of sheet", "rect", "square", "strip", "ngon", "pentagon", "polygon") {
	case "rect":
		pat.WidthMM, pat.HeightMM = side("the width in mm"), side("the height in mm")
	case "square":
		pat.WidthMM = side("the side in mm")
		pat.HeightMM = pat.WidthMM
	case "strip":
		pat.WidthMM, pat.HeightMM = side("the length in mm"), side("the width in mm")
	case "ngon":
		n := int(p.ranged("the number of corners", 3, 8))
		p.shape(sheet.NGon(n, side("the side in mm"), 80, 0.1))
	case "pentagon":
		p.shape(sheet.NGon(5, side("the side in mm"), 80, 0.1))
	case "polygon":
		var pts []geom.Vec
		for p.peek().kind == tokNumber {
			x := p.ranged("x in mm", -2000, 2000)
			pts = append(pts, geom.Vec{X: x, Y: p.ranged("y in mm", -2000, 2000)})
		}
		p.shape(sheet.Polygon(pts, 80, 0.1))
	}
}

func (p *parser) shape(s sheet.Sheet, err error) {
	if err != nil {
		p.failAt(1, err.Error(), "give another outline")
	}
	p.pat.WidthMM, p.pat.HeightMM, p.pat.Shape = s.WidthMM, s.HeightMM, s.Shape
	for i := range s.Shape.Corners {
		n := fmt.Sprint(i + 1)
		p.names["P"+n], p.names["M"+n], p.names["E"+n] = APoint, APoint, ALine
	}
}

// margin EDGE MM
func (p *parser) margin() {
	edge := p.oneOf("an edge", "left", "right", "bottom", "top")
	p.pat.margin[slices.Index([]string{"left", "right", "bottom", "top"}, edge)] = p.number("the width in mm")
}

// guard STEP before STEP "reason"
func (p *parser) guard() {
	find := func() (string, *Step) {
		t := p.next()
		p.wanted[t.text] = true
		for i := range p.pat.Steps {
			if p.pat.Steps[i].Name == t.text {
				return t.text, &p.pat.Steps[i]
			}
		}
		return t.text, nil
	}
	t := p.peek()
	name, first := find()
	p.need("before")
	later, second := find()
	reason := p.needText("what goes wrong otherwise")
	if second == nil {
		p.fail(fmt.Sprintf("no step above is called %q", later), "write the guard below both steps")
	}
	if first == nil || first.No > second.No {
		p.failAt(t.col, fmt.Sprintf("%q must come before %q: %s", name, later, reason), "change the order of the steps")
	}
	first.Guards = append(first.Guards, Guard{later, reason})
}

// knob NAME "label" = DEFAULT [mm|deg] from MIN to MAX [fold|set] [changes "…"]
func (p *parser) knob() {
	k := Knob{Name: p.newName(ANumber), Kind: HardFold, line: p.line}
	k.Label = p.needText("the label")
	p.need("=")
	col := p.peek().col
	k.Default = p.needLiteral("the default")
	for _, u := range []string{"mm", "deg", "g"} {
		if p.accept(u) {
			k.Unit = u
		}
	}
	p.need("from")
	k.Min = p.ranged("the lowest value", -1e4, 1e4)
	p.need("to")
	k.Max = p.ranged("the highest value", k.Min, 1e4)
	if k.Default < k.Min || k.Default > k.Max {
		p.failAt(col, fmt.Sprintf("the default of %s is outside %v to %v", k.Name, k.Min, k.Max), "widen the range or change the default")
	}
	if p.isWord("fold") || p.isWord("set") {
		k.Kind = KnobKind(p.next().text)
	}
	if p.accept("changes") {
		k.Changes = p.needText("what the knob changes")
	}
	p.pat.Knobs = append(p.pat.Knobs, k)
}

func (p *parser) expectation(text string) {
	s := expectStmt{line: p.line, text: text}
	defer func() { p.add(s) }()
	switch {
	case p.accept("facets"):
		s.facets = int(p.ranged("the count", 1, fold.MaxFacets))
		return
	case p.accept("unique"):
		s.unique = true
		return
	case p.accept("sheets"):
		s.sheets = int(p.ranged("the count", 1, fold.MaxFacets))
		p.need("at")
		s.p = p.point()
		return
	case p.startsLine():
		s.l = p.lineExpr()
		p.need("parallel")
		s.m = p.lineExpr()
		p.need("within")
		s.within = p.number("the tolerance in degrees")
		return
	}
	s.p = p.point()
	switch p.oneOf("a check", "at", "on", "above") {
	case "at":
		s.q = p.point()
	case "on":
		s.l = p.lineExpr()
	case "above":
		s.below = p.point()
		return
	}
	p.need("within")
	s.within = p.number("the tolerance in mm")
}
