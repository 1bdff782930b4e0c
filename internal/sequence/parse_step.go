package sequence

import (
	"fmt"
	"slices"

	"tussock/internal/fold"
)

// stepReader reads what follows the word of a step; nil when it is none.
func (p *parser) stepReader(op Op) StepReader {
	if t, ok := p.language.Setting(op); ok {
		return func(p *parser, s *Step) action {
			s.Sets = &t
			return p.language.Set(p, s, t)
		}
	}
	return p.language.Steps[op]
}

func (p *parser) step(text string, read StepReader) {
	s := Step{No: len(p.pat.Steps) + 1, Line: p.line, Text: text, Op: Op(p.next().text), expect: -1, Character: Sharp}
	s.act = read(p, &s)
	p.flags(&s)
	for name := range p.used {
		for i := range p.pat.Knobs {
			if p.pat.Knobs[i].Name == name {
				p.pat.Knobs[i].Steps = append(p.pat.Knobs[i].Steps, s.No)
			}
		}
	}
	p.pat.Steps = append(p.pat.Steps, s)
	p.add(stepStmt{s.No - 1})
}

// flags may follow any step: what is expected, how it is pressed, how exact it
// must be, and last the name of the crease it makes.
func (p *parser) flags(s *Step) {
	for p.peek().kind != tokEnd {
		switch t := p.peek().text; {
		case p.accept("expect"):
			s.expect = int(p.ranged("the count", 0, fold.MaxFacets))
		case p.accept("bent"):
			s.Character = Bend
		case p.accept("sharp"), p.accept("firm"), p.accept("soft"):
			s.Character = Character(t)
		case p.accept("class"):
			s.Class = p.oneOf("a class", "critical", "normal", "free")
		case p.accept("optional"):
			s.Optional = true
		case p.accept("conditioning"):
			s.Conditioning = true
		case p.accept("both"):
			p.need("ways")
			s.BothWays = true
		case p.accept("as"):
			s.Name = p.newName(ALine)
			p.calledWords(s.Name)
			return
		default:
			p.fail(fmt.Sprintf("%s is not part of this step", p.peek()),
				"what may follow is expect, sharp, firm, soft, bent, class, optional, conditioning, both ways and, last, as")
		}
	}
}

func (p *parser) foldLine() foldLine {
	var f foldLine
	switch p.oneOf("a way to place a crease", "bring", "through", "along") {
	case "along":
		f.kind, f.l = foldAlong, p.lineExpr()
	case "through":
		f.p = p.point()
		if p.accept("square") {
			f.kind, f.l = foldSquare, p.lineExpr()
		} else {
			f.kind, f.q = foldThrough, p.point()
		}
	case "bring":
		p.bring(&f)
	}
	for {
		switch {
		case f.offset == nil && p.accept("offset"):
			f.offset = p.number("the distance in mm")
			p.need("toward")
			f.offsetToward = p.point()
		case f.tilt == nil && p.accept("tilt"):
			f.tilt = p.number("the angle in degrees")
			p.need("toward")
			f.tiltToward = p.point()
			p.need("about")
			f.tiltAbout = p.point()
		case f.gap == nil && !f.gapAuto && p.accept("gap"):
			if p.accept("auto") {
				f.gapAuto = true
			} else {
				f.gap = p.number("the gap in mm")
			}
		default:
			return f
		}
	}
}

func (p *parser) bring(f *foldLine) {
	if p.startsLine() {
		f.kind, f.l = foldLineLine, p.lineExpr()
		p.need("to")
		f.m = p.lineExpr()
	} else {
		f.p = p.point()
		p.need("to")
		if p.accept("balance") {
			f.kind = foldBalance
			return
		}
		if !p.startsLine() {
			f.kind, f.q = foldPointPoint, p.point()
			return
		}
		f.kind, f.l = foldPointLine, p.lineExpr()
		if p.accept("and") {
			f.kind, f.q = foldTwoPoints, p.point()
			p.need("to")
			f.m = p.lineExpr()
		} else {
			p.need("through")
			f.through = p.point()
		}
	}
	if p.accept("near") {
		f.near = p.point()
	}
}

func (p *parser) number(what string) numExpr {
	if p.peek().kind == tokNumber {
		return numLit(p.next().num)
	}
	if p.peek().kind != tokWord {
		p.fail(fmt.Sprintf("%s stands where %s is needed", p.peek(), what), "write a number or the name of a knob")
	}
	return numName(p.known(ANumber))
}

var pointWords = []string{"mid", "part", "toward", "meet", "foot", "sheet", "com"}
var lineWords = []string{"square", "par", "bis", "turned", "taper", "edge"}

func (p *parser) startsLine() bool {
	t := p.peek()
	return t.kind == tokSign && t.text == "[" ||
		t.kind == tokWord && (slices.Contains(lineWords, t.text) || p.names[t.text] == ALine)
}

func (p *parser) startsPoint() bool {
	t := p.peek()
	return t.kind == tokWord && (p.names[t.text] == APoint || t.text == "com" || slices.Contains(pointWords, t.text) && p.toks[p.i+1].text == "(")
}

// maxNesting bounds expressions inside expressions.
const maxNesting = 12

func (p *parser) point() pointExpr { return p.pointNested(0) }

func (p *parser) deeper(depth int) int {
	if depth >= maxNesting {
		p.fail("this is nested too deeply", "name the inner point on a line of its own")
	}
	return depth + 1
}

func (p *parser) pointNested(depth int) pointExpr {
	depth = p.deeper(depth)
	t := p.peek()
	if t.kind != tokWord || !slices.Contains(pointWords, t.text) {
		return pointName(p.known(APoint))
	}
	p.next()
	if t.text == "com" {
		return pointCoM{}
	}
	p.need("(")
	e := p.pointCall(t.text, depth)
	p.need(")")
	return e
}

func (p *parser) pointCall(word string, depth int) pointExpr {
	switch word {
	case "sheet":
		x := p.number("x in mm")
		p.need(",")
		return pointOnSheet{x, p.number("y in mm")}
	case "meet":
		l := p.lineNested(depth)
		p.need(",")
		return pointMeet{l, p.lineNested(depth)}
	case "foot":
		q := p.pointNested(depth)
		p.need(",")
		return pointFoot{q, p.lineNested(depth)}
	}
	a := p.pointNested(depth)
	p.need(",")
	b := p.pointNested(depth)
	if word == "mid" {
		return pointPart{a: a, b: b, k: numLit(0.5)}
	}
	p.need(",")
	return pointPart{a, b, p.number("how far along"), word == "toward"}
}

func (p *parser) lineExpr() lineExpr { return p.lineNested(0) }

func (p *parser) lineNested(depth int) lineExpr {
	depth = p.deeper(depth)
	t := p.peek()
	if p.accept("[") {
		a := p.pointNested(depth)
		b := p.pointNested(depth)
		p.need("]")
		return linePair{a, b}
	}
	if t.kind != tokWord || !slices.Contains(lineWords, t.text) {
		return lineName(p.known(ALine))
	}
	p.next()
	p.need("(")
	e := p.lineCall(t.text, depth)
	p.need(")")
	return e
}

func (p *parser) lineCall(word string, depth int) lineExpr {
	switch word {
	case "square":
		q := p.pointNested(depth)
		p.need(",")
		return lineSquare{q, p.lineNested(depth)}
	case "edge":
		return p.edgeCall(depth)
	case "bis":
		l := p.lineNested(depth)
		p.need(",")
		return lineBis{l, p.lineNested(depth)}
	}
	l := p.lineNested(depth)
	p.need(",")
	switch word {
	case "turned": // turned(LINE, DEG, P, P): about the first, towards the second
		e := lineTurned{l: l, deg: p.number("the angle in degrees")}
		p.need(",")
		e.about = p.pointNested(depth)
		p.need(",")
		e.toward = p.pointNested(depth)
		return e
	case "taper": // taper(LINE, MM, P, MM, P, P)
		e := lineTaper{l: l, a: p.number("the first width in mm")}
		p.need(",")
		e.p = p.pointNested(depth)
		p.need(",")
		e.b = p.number("the second width in mm")
		p.need(",")
		e.q = p.pointNested(depth)
		p.need(",")
		e.toward = p.pointNested(depth)
		return e
	}
	if p.startsPoint() {
		return lineBeside{l, p.pointNested(depth)}
	}
	mm := p.number("the distance in mm")
	p.need(",")
	return linePar{l, mm, p.pointNested(depth)}
}

// edge(P, P): the rim of the layer at the first landmark that lies nearest to the
// second, hidden or not.
func (p *parser) edgeCall(depth int) lineExpr {
	e := lineRim{of: p.pointNested(depth)}
	p.need(",")
	e.near = p.pointNested(depth)
	return e
}
