package lang

import (
	"fmt"
	"slices"
	"strings"

	"tussock/internal/sequence"
)

// Number reads a number: written, a knob or param by its name, a measure of the sheet, a
// distance between landmarks, or what is reckoned from such.
func (p *Parser) Number(what string) sequence.NumExpr { return p.sum(what, 0) }

// startsNumber tells whether a number comes next.
func (p *Parser) startsNumber() bool {
	t := p.Peek()
	return t.Kind == tokNumber || t.Kind == tokSign && (t.Text == "(" || t.Text == "-")
}

// oneOf takes the next sign if it is one of some.
func (p *Parser) oneOf(signs string) (byte, bool) {
	if t := p.Peek(); t.Kind == tokSign && strings.Contains(signs, t.Text) {
		p.Next()
		return t.Text[0], true
	}
	return 0, false
}

func (p *Parser) sum(what string, depth int) sequence.NumExpr {
	a := p.product(what, p.deeper(depth))
	for {
		op, ok := p.oneOf("+-")
		if !ok {
			return a
		}
		a = sequence.NumSum{Op: op, A: a, B: p.product(what, depth+1)}
	}
}

func (p *Parser) product(what string, depth int) sequence.NumExpr {
	a := p.factor(what, depth)
	for {
		op, ok := p.oneOf("*/")
		if !ok {
			return a
		}
		a = sequence.NumSum{Op: op, A: a, B: p.factor(what, depth)}
	}
}

func (p *Parser) factor(what string, depth int) sequence.NumExpr {
	t := p.Peek()
	switch {
	case t.Kind == tokNumber:
		return sequence.NumLit(p.Next().num)
	case t.Kind == tokSign && t.Text == "-":
		p.Next()
		return sequence.NumSum{Op: '-', A: sequence.NumLit(0), B: p.factor(what, p.deeper(depth))}
	case t.Kind == tokSign && t.Text == "(":
		p.Next()
		e := p.sum(what, depth)
		p.Need(")")
		return e
	case t.Kind != TokWord:
		p.Fail(fmt.Sprintf("%s stands where %s is needed", t, what), "write a number or the name of a knob")
	case p.names[t.Text] != "": // an author's own name goes before
	case p.calls():
		return p.call(depth)
	case slices.Contains(sequence.SheetNumbers, t.Text):
		p.Next()
		return sequence.NumOfSheet(t.Text)
	}
	return sequence.NumName(p.Known(sequence.ANumber))
}

// calls tells whether a function of numbers comes next.
func (p *Parser) calls() bool {
	_, known := sequence.Functions[p.Peek().Text]
	return (known || p.Peek().Text == "dist") && p.toks[p.i+1].Text == "("
}

// call reads a function and its arguments.
func (p *Parser) call(depth int) sequence.NumExpr {
	t := p.Next()
	p.Need("(")
	if t.Text == "dist" {
		a := p.pointNested(depth)
		p.Need(",")
		b := p.pointNested(depth)
		p.Need(")")
		return sequence.NumDistance{P: a, Q: b}
	}
	f := sequence.Functions[t.Text]
	args := []sequence.NumExpr{p.sum("a number", depth)}
	for p.Accept(",") {
		args = append(args, p.sum("a number", depth))
	}
	p.Need(")")
	if len(args) < f.Least || f.Most > 0 && len(args) > f.Most {
		p.failAt(t.col, fmt.Sprintf("%s is given %d numbers", t.Text, len(args)), fmt.Sprintf("give it %d", f.Least))
	}
	return sequence.NumCall{Name: t.Text, Args: args}
}

// needConstant reads a number that depends on nothing.
func (p *Parser) needConstant(what string) float64 {
	t := p.Peek()
	strange := t.Kind == TokWord && p.names[t.Text] == "" && !p.calls() && !slices.Contains(sequence.SheetNumbers, t.Text)
	if t.Kind == tokEnd || t.Kind == TokText || strange {
		p.Fail(fmt.Sprintf("%s stands where %s is needed", t, what), "write a number")
	}
	v, depends := p.result(t, p.Number(what))
	if depends {
		p.failAt(t.col, what+" must be a number that depends on nothing", "write it without knobs, landmarks or measures of the sheet")
	}
	return v
}

// result is the value of a number that depends on nothing.
func (p *Parser) result(at token, e sequence.NumExpr) (v float64, depends bool) {
	v, depends, err := sequence.Constant(e)
	if err != nil {
		p.failAt(at.col, "what begins here is not a number: it divides by 0, or has no result", "write 12, 0.5, -3 or 1/3")
	}
	return v, depends
}
