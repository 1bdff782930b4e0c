package lang

import (
	"fmt"
	"slices"

	"tussock/internal/fold"
	"tussock/internal/sequence"
)

// stepReader reads what follows the word of a step; nil when it is none.
func (p *Parser) stepReader(op sequence.Op) StepReader {
	if t, ok := p.language.Setting(op); ok {
		return func(p *Parser, s *sequence.Step) sequence.Action {
			s.Sets = &t
			return p.language.Set(p, s, t)
		}
	}
	return p.language.Steps[op]
}

func (p *Parser) step(text string, read StepReader) {
	s := sequence.Step{No: len(p.pat.Steps) + 1, Line: p.line, Text: text, Op: sequence.Op(p.Next().Text), Expect: -1, Character: sequence.Sharp}
	s.Act = read(p, &s)
	p.flags(&s)
	for name := range p.used {
		for i := range p.pat.Knobs {
			if p.pat.Knobs[i].Name == name {
				p.pat.Knobs[i].Steps = append(p.pat.Knobs[i].Steps, s.No)
			}
		}
	}
	p.pat.Steps = append(p.pat.Steps, s)
	p.add(sequence.StepStmt{Step: s.No - 1})
}

// flags may follow any step: what is expected, how it is pressed, how exact it
// must be, and last the name of the crease it makes.
func (p *Parser) flags(s *sequence.Step) {
	for p.Peek().Kind != tokEnd {
		switch t := p.Peek().Text; {
		case p.Accept("expect"):
			s.Expect = p.Count("the count", 0, fold.MaxFacets)
		case p.Accept("bent"):
			s.Character = sequence.Bend
		case p.Accept("sharp"), p.Accept("firm"), p.Accept("soft"):
			s.Character = sequence.Character(t)
		case p.Accept("class"):
			s.Class = p.OneOf("a class", "critical", "normal", "free")
		case p.Accept("optional"):
			s.Optional = true
		case p.Accept("conditioning"):
			s.Conditioning = true
		case p.Accept("both"):
			p.Need("ways")
			s.BothWays = true
		case p.Accept("as"):
			s.Name = p.NewName(sequence.ALine)
			p.CalledWords(s.Name)
			return
		default:
			p.Fail(fmt.Sprintf("%s is not part of this step", p.Peek()),
				"what may follow is expect, sharp, firm, soft, bent, class, optional, conditioning, both ways and, last, as")
		}
	}
}

// FoldLine reads where a crease goes.
func (p *Parser) FoldLine() sequence.FoldLine {
	var f sequence.FoldLine
	switch p.OneOf("a way to place a crease", "bring", "through", "along") {
	case "along":
		f.Kind, f.L = sequence.FoldAlong, p.LineExpr()
	case "through":
		f.P = p.Point()
		if p.Accept("square") {
			f.Kind, f.L = sequence.FoldSquare, p.LineExpr()
		} else {
			f.Kind, f.Q = sequence.FoldThrough, p.Point()
		}
	case "bring":
		p.bring(&f)
	}
	for {
		switch {
		case f.Offset == nil && p.Accept("offset"):
			f.Offset = p.Number("the distance in mm")
			p.Need("toward")
			f.OffsetToward = p.Point()
		case f.Tilt == nil && p.Accept("tilt"):
			f.Tilt = p.Number("the angle in degrees")
			p.Need("toward")
			f.TiltToward = p.Point()
			p.Need("about")
			f.TiltAbout = p.Point()
		case f.Gap == nil && !f.GapAuto && p.Accept("gap"):
			if p.Accept("auto") {
				f.GapAuto = true
			} else {
				f.Gap = p.Number("the gap in mm")
			}
		default:
			return f
		}
	}
}

func (p *Parser) bring(f *sequence.FoldLine) {
	if p.StartsLine() {
		f.Kind, f.L = sequence.FoldLineLine, p.LineExpr()
		p.Need("to")
		f.M = p.LineExpr()
	} else {
		f.P = p.Point()
		p.Need("to")
		if p.Accept("balance") {
			f.Kind = sequence.FoldBalance
			return
		}
		if !p.StartsLine() {
			f.Kind, f.Q = sequence.FoldPointPoint, p.Point()
			return
		}
		f.Kind, f.L = sequence.FoldPointLine, p.LineExpr()
		if p.Accept("and") {
			f.Kind, f.Q = sequence.FoldTwoPoints, p.Point()
			p.Need("to")
			f.M = p.LineExpr()
		} else {
			p.Need("through")
			f.Through = p.Point()
		}
	}
	if p.Accept("near") {
		f.Near = p.Point()
	}
}

var pointWords = []string{"mid", "part", "toward", "meet", "foot", "sheet", "com"}
var lineWords = []string{"square", "par", "bis", "turned", "taper", "edge"}

// StartsLine tells whether a line comes next.
func (p *Parser) StartsLine() bool {
	t := p.Peek()
	return t.Kind == tokSign && t.Text == "[" ||
		t.Kind == TokWord && (slices.Contains(lineWords, t.Text) || p.names[t.Text] == sequence.ALine)
}

// StartsPoint tells whether a place comes next.
func (p *Parser) StartsPoint() bool {
	t := p.Peek()
	return t.Kind == TokWord && (p.names[t.Text] == sequence.APoint || t.Text == "com" || slices.Contains(pointWords, t.Text) && p.toks[p.i+1].Text == "(")
}

// maxNesting bounds expressions inside expressions.
const maxNesting = 12

// Point reads a place.
func (p *Parser) Point() sequence.PointExpr { return p.pointNested(0) }

func (p *Parser) deeper(depth int) int {
	if depth >= maxNesting {
		p.Fail("this is nested too deeply", "name the inner point on a line of its own")
	}
	return depth + 1
}

func (p *Parser) pointNested(depth int) sequence.PointExpr {
	depth = p.deeper(depth)
	t := p.Peek()
	if t.Text == "[" {
		p.Fail("a pair of landmarks in brackets is a line, and a point is meant here", "name one of the two, or write mid(P, P) for the spot half-way between them")
	}
	if t.Kind != TokWord || !slices.Contains(pointWords, t.Text) {
		return sequence.PointName(p.Known(sequence.APoint))
	}
	p.Next()
	if t.Text == "com" {
		return sequence.PointCoM{Standing: p.Accept("standing")}
	}
	p.Need("(")
	e := p.pointCall(t.Text, depth)
	p.Need(")")
	return e
}

func (p *Parser) pointCall(word string, depth int) sequence.PointExpr {
	switch word {
	case "sheet":
		x := p.Number("x in mm")
		p.Need(",")
		return sequence.PointOnSheet{X: x, Y: p.Number("y in mm")}
	case "meet":
		l := p.lineNested(depth)
		p.Need(",")
		return sequence.PointMeet{L: l, M: p.lineNested(depth)}
	case "foot":
		q := p.pointNested(depth)
		p.Need(",")
		return sequence.PointFoot{P: q, L: p.lineNested(depth)}
	}
	a := p.pointNested(depth)
	p.Need(",")
	b := p.pointNested(depth)
	if word == "mid" {
		return sequence.PointPart{A: a, B: b, K: sequence.NumLit(0.5)}
	}
	p.Need(",")
	return sequence.PointPart{A: a, B: b, K: p.Number("how far along"), Mm: word == "toward"}
}

// LineExpr reads a line.
func (p *Parser) LineExpr() sequence.LineExpr { return p.lineNested(0) }

func (p *Parser) lineNested(depth int) sequence.LineExpr {
	depth = p.deeper(depth)
	t := p.Peek()
	if p.Accept("[") {
		a := p.pointNested(depth)
		b := p.pointNested(depth)
		p.Need("]")
		return sequence.LinePair{A: a, B: b}
	}
	if t.Kind != TokWord || !slices.Contains(lineWords, t.Text) {
		return sequence.LineName(p.Known(sequence.ALine))
	}
	p.Next()
	p.Need("(")
	e := p.lineCall(t.Text, depth)
	p.Need(")")
	return e
}

func (p *Parser) lineCall(word string, depth int) sequence.LineExpr {
	switch word {
	case "square":
		q := p.pointNested(depth)
		p.Need(",")
		return sequence.LineSquare{P: q, L: p.lineNested(depth)}
	case "edge":
		return p.edgeCall(depth)
	case "bis":
		l := p.lineNested(depth)
		p.Need(",")
		return sequence.LineBis{L: l, M: p.lineNested(depth)}
	}
	l := p.lineNested(depth)
	p.Need(",")
	switch word {
	case "turned": // turned(LINE, DEG, P, P): about the first, towards the second
		e := sequence.LineTurned{L: l, Deg: p.Number("the angle in degrees")}
		p.Need(",")
		e.About = p.pointNested(depth)
		p.Need(",")
		e.Toward = p.pointNested(depth)
		return e
	case "taper": // taper(LINE, MM, P, MM, P, P)
		e := sequence.LineTaper{L: l, A: p.Number("the first width in mm")}
		p.Need(",")
		e.P = p.pointNested(depth)
		p.Need(",")
		e.B = p.Number("the second width in mm")
		p.Need(",")
		e.Q = p.pointNested(depth)
		p.Need(",")
		e.Toward = p.pointNested(depth)
		return e
	}
	if p.StartsPoint() {
		return sequence.LineBeside{L: l, P: p.pointNested(depth)}
	}
	mm := p.Number("the distance in mm")
	p.Need(",")
	return sequence.LinePar{L: l, Mm: mm, Toward: p.pointNested(depth)}
}

// edge(P, P): the rim of the layer at the first landmark that lies nearest to the
// second, hidden or not.
func (p *Parser) edgeCall(depth int) sequence.LineExpr {
	e := sequence.LineRim{Of: p.pointNested(depth)}
	p.Need(",")
	e.Near = p.pointNested(depth)
	return e
}
