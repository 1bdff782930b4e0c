package sequence

import (
	"fmt"
	"slices"

	"tussock/internal/fold"
)

func (p *parser) step(text string) {
	s := Step{No: len(p.pat.Steps) + 1, Line: p.line, Text: text, Op: Op(p.next().text), expect: -1}
	switch s.Op {
	case OpTurn:
		s.axis = p.oneOf("a way to turn over", "lr", "tb")
	case OpRotate:
		s.angle = p.number("the angle in degrees")
	case OpWing:
		p.wing(&s)
	default:
		s.fold = p.foldLine()
		p.clauses(&s)
		named := s.fold.kind == foldPointPoint || s.fold.kind == foldLineLine || s.fold.kind == foldPointLine
		if s.Op != OpCrease && !named && len(s.moving) == 0 {
			p.fail("it is not said which side moves", `add "moving" and a landmark on the side that moves`)
		}
	}
	for name := range p.used {
		for i := range p.pat.Knobs {
			if p.pat.Knobs[i].Name == name {
				p.pat.Knobs[i].Steps = append(p.pat.Knobs[i].Steps, s.No)
			}
		}
	}
	p.pat.Steps = append(p.pat.Steps, s)
	p.pat.stmts = append(p.pat.stmts, stepStmt{s.No - 1})
}

// wing along LINE [and LINE] moving P [and P] angle DEG
func (p *parser) wing(s *Step) {
	p.need("along")
	s.wings = append(s.wings, p.lineExpr())
	for p.accept("and") {
		s.wings = append(s.wings, p.lineExpr())
	}
	p.need("moving")
	s.moving = append(s.moving, p.point())
	for p.accept("and") {
		s.moving = append(s.moving, p.point())
	}
	if len(s.moving) != len(s.wings) {
		p.fail(fmt.Sprintf("%d wings need %d landmarks that move", len(s.wings), len(s.wings)), `join them with "and"`)
	}
	p.need("angle")
	s.angle = p.number("the angle in degrees")
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
		if !p.startsLine() {
			f.kind, f.q = foldPointPoint, p.point()
			return
		}
		f.kind, f.l = foldPointLine, p.lineExpr()
		p.need("through")
		f.through = p.point()
	}
	if p.accept("near") {
		f.near = p.point()
	}
}

func (p *parser) clauses(s *Step) {
	for {
		switch {
		case p.accept("moving"):
			s.moving = []pointExpr{p.point()}
		case p.accept("grab"):
			s.grab = append(s.grab, p.point())
			for p.startsPoint() {
				s.grab = append(s.grab, p.point())
			}
		case p.accept("layers"):
			p.need("all")
			s.all = true
		case p.accept("expect"):
			s.expect = int(p.ranged("the count", 0, fold.MaxFacets))
		case p.accept("as"):
			s.Name = p.newName(aLine)
			p.calledWords(s.Name)
			return
		default:
			if p.peek().kind != tokEnd {
				p.fail(fmt.Sprintf("%s is not part of a fold", p.peek()),
					`what may follow is moving, grab, layers all, expect and as`)
			}
			return
		}
	}
}

func (p *parser) number(what string) numExpr {
	if p.peek().kind == tokNumber {
		return numLit(p.next().num)
	}
	if p.peek().kind != tokWord {
		p.fail(fmt.Sprintf("%s stands where %s is needed", p.peek(), what), "write a number or the name of a knob")
	}
	return numName(p.known(aNumber))
}

var pointWords = []string{"mid", "part", "toward", "meet", "foot", "sheet"}
var lineWords = []string{"square", "par", "bis"}

func (p *parser) startsLine() bool {
	t := p.peek()
	return t.kind == tokSign && t.text == "[" ||
		t.kind == tokWord && (slices.Contains(lineWords, t.text) || p.names[t.text] == aLine)
}

func (p *parser) startsPoint() bool {
	t := p.peek()
	return t.kind == tokWord && (p.names[t.text] == aPoint || slices.Contains(pointWords, t.text) && p.toks[p.i+1].text == "(")
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
		return pointName(p.known(aPoint))
	}
	p.next()
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
		return lineName(p.known(aLine))
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
	case "bis":
		l := p.lineNested(depth)
		p.need(",")
		return lineBis{l, p.lineNested(depth)}
	}
	l := p.lineNested(depth)
	p.need(",")
	mm := p.number("the distance in mm")
	p.need(",")
	return linePar{l, mm, p.pointNested(depth)}
}
