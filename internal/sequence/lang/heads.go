package lang

import (
	"fmt"
	"maps"
	"math"
	"slices"
	"strconv"
	"strings"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// heads read the statements that are no steps, behind their word; text is the whole line.
var heads map[string]func(p *Parser, text string)

func init() { // an initialiser would refer to itself through the parser
	plain := func(read func(p *Parser)) func(*Parser, string) { return func(p *Parser, _ string) { read(p) } }
	heads = map[string]func(*Parser, string){
		"pattern": plain(func(p *Parser) { p.pat.Title = p.NeedText("the title") }),
		"good":    plain(func(p *Parser) { p.pat.Good = say.Prose(p.NeedText("what it is good at")) }),
		"family":  plain(func(p *Parser) { p.pat.Family = say.OneLine(p.NeedText("the family")) }),
		"credit":  plain(func(p *Parser) { p.pat.Credit = say.OneLine(p.NeedText("whose work it is")) }),
		"adds":    plain((*Parser).adds),
		"adapts":  plain(func(p *Parser) { p.pat.Adapts = say.OneLine(p.NeedText("the pattern it was made from")) }),
		"minutes": plain(func(p *Parser) { p.pat.Minutes = p.Count("the minutes", 1, 600) }),
		"moves":   plain((*Parser).moves), "made": plain((*Parser).made), "sheet": plain((*Parser).sheet),
		"require": plain((*Parser).require), "knob": plain((*Parser).knob), "param": plain((*Parser).param),
		"margin": plain((*Parser).margin), "guard": plain((*Parser).guard),
		"point": (*Parser).pointStatement, "expect": (*Parser).expectation,
		"say":   plain(func(p *Parser) { s, words := p.underStep("say"); s.Say = strings.TrimSpace(s.Say + " " + words) }),
		"looks": plain(func(p *Parser) { s, words := p.underStep("looks"); s.Looks = words }),
	}
}

// headWords are the words of the language's own heads, and those that write lines out.
func headWords() []string {
	return append(slices.Sorted(maps.Keys(heads)), "use", "repeat", "macro")
}

func (p *Parser) moves() {
	if len(p.language.Ways) == 0 {
		p.Fail("this language has no way of moving", "leave the line out")
	}
	p.pat.Moves = p.OneOf("a way of moving", p.language.moves()...)
}

func (p *Parser) made() {
	p.Need("for")
	p.pat.Show = p.OneOf("a purpose", "play", "show") == "show"
}

// adds to "id" …
func (p *Parser) adds() {
	p.Need("to")
	for {
		p.pat.AddsTo = append(p.pat.AddsTo, say.OneLine(p.NeedText("a pattern that it goes with")))
		if p.Peek().Kind == tokEnd {
			return
		}
	}
}

func (p *Parser) require() {
	p.Need("ratio")
	p.Need("between")
	p.pat.MinRatio = p.Ranged("the ratio", 0.01, 100)
	p.Need("and")
	p.pat.MaxRatio = p.Ranged("the ratio", p.pat.MinRatio, 100)
}

func (p *Parser) param() {
	name := p.NewName(sequence.ANumber)
	p.Need("=")
	delete(p.names, name) // it must not be used inside its own definition
	at := p.Peek()
	e := p.Number("the value")
	p.names[name] = sequence.ANumber
	v, depends := p.result(at, e)
	if depends {
		if hasDistance(e) {
			p.failAt(at.col, "a param is reckoned before anything is folded, so it knows no distances", "write dist(…) where the number is needed")
		}
		p.uses[name] = p.used
		p.pat.Derived = append(p.pat.Derived, sequence.Derived{Name: name, Line: p.line, Is: e})
		return
	}
	const most = 1e4
	if v < -most || v > most {
		p.failAt(at.col, fmt.Sprintf("the value is %v", v), fmt.Sprintf("write a number from %v to %v", -most, most))
	}
	p.pat.Knobs = append(p.pat.Knobs, sequence.Knob{Name: name, Plain: true, Kind: sequence.HardFold, Min: -most, Max: most, Line: p.line, Label: name, Default: v})
}

func hasDistance(e sequence.NumExpr) bool {
	switch e := e.(type) {
	case sequence.NumDistance:
		return true
	case sequence.NumSum:
		return hasDistance(e.A) || hasDistance(e.B)
	case sequence.NumCall:
		return slices.ContainsFunc(e.Args, hasDistance)
	}
	return false
}

// point NAME = POINT [on top | bottom | layer POINT] [called "words"]
func (p *Parser) pointStatement(text string) {
	name := p.NewName(sequence.APoint)
	p.Need("=")
	// The name must not be used inside its own definition.
	delete(p.names, name)
	s := sequence.PointStmt{Line: p.line, Name: name, P: p.Point(), Text: text}
	p.names[name] = sequence.APoint
	if p.Accept("on") {
		s.Layer.Which = p.OneOf("a layer", "top", "bottom", "layer")
		if s.Layer.Which == "layer" {
			s.Layer.Of = p.Point()
		}
	}
	p.uses[name] = p.used
	p.CalledWords(name)
	p.add(s)
}

// underStep reads words for people that belong to the step above.
func (p *Parser) underStep(word string) (*sequence.Step, string) {
	if len(p.pat.Steps) == 0 {
		p.failAt(1, fmt.Sprintf("%q belongs under a step", word), "write a step above it")
	}
	s, words := &p.pat.Steps[len(p.pat.Steps)-1], p.NeedText("the words for people")
	p.quotes(s, words)
	return s, say.Prose(words)
}

func (p *Parser) sheet() {
	pat := p.pat
	if pat.WidthMM != 0 {
		p.failAt(1, "the sheet is named twice", "keep one of the two lines")
	}
	side := func(what string) float64 { return p.Ranged(what, 20, 2000) }
	switch p.OneOf("a kind of sheet", "rect", "square", "strip", "ngon", "pentagon", "polygon") {
	case "rect":
		pat.WidthMM, pat.HeightMM = side("the width in mm"), side("the height in mm")
	case "square":
		pat.WidthMM = side("the side in mm")
		pat.HeightMM = pat.WidthMM
	case "strip":
		pat.WidthMM, pat.HeightMM = side("the length in mm"), side("the width in mm")
	case "ngon":
		p.ngon()
	case "pentagon":
		p.shape(sheet.NGon(5, side("the side in mm"), sheet.PlainGSM, sheet.PlainThicknessMM))
	case "polygon":
		var pts []geom.Vec
		for p.startsNumber() {
			x := p.Ranged("x in mm", -2000, 2000)
			pts = append(pts, geom.Vec{X: x, Y: p.Ranged("y in mm", -2000, 2000)})
		}
		p.shape(sheet.Polygon(pts, sheet.PlainGSM, sheet.PlainThicknessMM))
	}
}

// ngon N SIDE: N corners, or as many as a knob says.
func (p *Parser) ngon() {
	const least, most = 3, 8
	at := p.Peek()
	name, known := at.Text, p.names[at.Text] == sequence.ANumber && at.Kind == TokWord
	if !known {
		n := p.Count("the number of corners", least, most)
		p.shape(sheet.NGon(n, p.Ranged("the side in mm", 20, 2000), sheet.PlainGSM, sheet.PlainThicknessMM))
		return
	}
	p.Next()
	i := p.pat.KnobIndex(name)
	if i < 0 {
		p.failAt(at.col, fmt.Sprintf("%q is no knob", name), fmt.Sprintf("write a whole number from %d to %d, or a knob", least, most))
	}
	k := &p.pat.Knobs[i]
	for _, v := range []float64{k.Min, k.Max, k.Default} {
		if v != math.Trunc(v) || v < least || v > most {
			p.failAt(at.col, fmt.Sprintf("%s is %v somewhere in its range, and a sheet has %d to %d corners", name, v, least, most), fmt.Sprintf("write for example: knob %s \"Corners\" = 5 from %d to %d", name, least, most))
		}
	}
	k.Whole, k.Step, p.pat.Corners = true, 1, name
	p.wanted[name] = true
	p.shape(sheet.NGon(int(k.Default), p.Ranged("the side in mm", 20, 2000), sheet.PlainGSM, sheet.PlainThicknessMM))
	for n := 1; n <= int(k.Max); n++ { // a sheet with fewer corners lacks the last of them
		p.corner(n)
	}
}

func (p *Parser) shape(s sheet.Sheet, err error) {
	if err != nil {
		p.failAt(1, err.Error(), "give another outline")
	}
	p.pat.WidthMM, p.pat.HeightMM, p.pat.Shape = s.WidthMM, s.HeightMM, s.Shape
	for i := range s.Shape.Corners {
		p.corner(i + 1)
	}
}

// corner makes the names of one corner of an outline, of the side after it and its middle.
func (p *Parser) corner(n int) {
	for name, q := range map[string]struct {
		kind  sequence.NameKind
		words string
	}{"P": {sequence.APoint, "corner"}, "M": {sequence.APoint, "the middle of side"}, "E": {sequence.ALine, "side"}} {
		name += strconv.Itoa(n)
		p.names[name], p.pat.MadeWords[name] = q.kind, fmt.Sprintf("%s %d", q.words, n)
	}
}

// margin EDGE MM
func (p *Parser) margin() {
	edge := p.OneOf("an edge", "left", "right", "bottom", "top")
	p.pat.Margin[slices.Index([]string{"left", "right", "bottom", "top"}, edge)] = p.Number("the width in mm")
}

// guard STEP before STEP "reason"
func (p *Parser) guard() {
	find := func() (string, *sequence.Step) {
		t := p.Next()
		p.wanted[t.Text] = true
		for i := range p.pat.Steps {
			if p.pat.Steps[i].Name == t.Text {
				return t.Text, &p.pat.Steps[i]
			}
		}
		return t.Text, nil
	}
	t := p.Peek()
	name, first := find()
	p.Need("before")
	later, second := find()
	reason := say.Prose(p.NeedText("what goes wrong otherwise"))
	if second == nil {
		p.Fail(fmt.Sprintf("no step above is called %q", later), "write the guard below both steps")
	}
	if first == nil || first.No > second.No {
		p.failAt(t.col, fmt.Sprintf("%q must come before %q: %s", name, later, reason), "change the order of the steps")
	}
	first.Guards = append(first.Guards, sequence.Guard{Before: later, Reason: reason})
}

// knob NAME "label" = DEFAULT [mm|deg] from MIN to MAX [fold|set] [changes "…"]
func (p *Parser) knob() {
	k := sequence.Knob{Name: p.NewName(sequence.ANumber), Kind: sequence.HardFold, Line: p.line}
	k.Label = p.NeedText("the label")
	p.Need("=")
	col := p.Peek().col
	k.Default = p.needConstant("the default")
	for _, u := range []string{"mm", "deg", "g"} {
		if p.Accept(u) {
			k.Unit = u
		}
	}
	if p.Accept("either") {
		p.either(&k)
	} else {
		p.Need("from")
		k.Min = p.Ranged("the lowest value", -1e4, 1e4)
		p.Need("to")
		k.Max = p.Ranged("the highest value", k.Min, 1e4)
	}
	if k.Default < k.Min || k.Default > k.Max {
		p.failAt(col, fmt.Sprintf("the default of %s is outside %v to %v", k.Name, k.Min, k.Max), "widen the range or change the default")
	}
	if p.isWord("fold") || p.isWord("set") {
		k.Kind = sequence.KnobKind(p.Next().Text)
	}
	if p.Accept("changes") {
		k.Changes = say.Prose(p.NeedText("what the knob changes"))
	}
	p.pat.Knobs = append(p.pat.Knobs, k)
}

// either A "label" or B "label": a switch.
func (p *Parser) either(k *sequence.Knob) {
	a := sequence.Named{Value: p.Ranged("the first value", -1e4, 1e4), Label: p.NeedText("what the first value is called")}
	p.Need("or")
	col := p.Peek().col
	b := sequence.Named{Value: p.Ranged("the second value", -1e4, 1e4), Label: p.NeedText("what the second value is called")}
	if a.Value == b.Value {
		p.failAt(col, fmt.Sprintf("both values of %s are %v", k.Name, a.Value), "give two values that differ")
	}
	if k.Default != a.Value && k.Default != b.Value {
		p.failAt(col, fmt.Sprintf("the default of %s is neither %v nor %v", k.Name, a.Value, b.Value), "take one of the two")
	}
	k.Either, k.Named = true, []sequence.Named{a, b}
	k.Min, k.Max = math.Min(a.Value, b.Value), math.Max(a.Value, b.Value)
	k.Step = k.Max - k.Min
}

func (p *Parser) expectation(text string) {
	s := sequence.ExpectStmt{Line: p.line, Text: text}
	defer func() { p.add(s) }()
	switch {
	case p.Accept("facets"):
		s.Facets = p.Count("the count", 1, fold.MaxFacets)
		return
	case p.Accept("unique"):
		s.Unique = true
		return
	case p.Accept("sheets"):
		s.Sheets = p.Count("the count", 1, fold.MaxFacets)
		p.Need("at")
		s.P = p.Point()
		return
	case p.StartsLine():
		s.L = p.LineExpr()
		p.Need("parallel")
		s.M = p.LineExpr()
		p.Need("within")
		s.Within = p.Number("the tolerance in degrees")
		return
	}
	s.P = p.Point()
	switch p.OneOf("a check", "at", "on", "above") {
	case "at":
		s.Q = p.Point()
	case "on":
		s.L = p.LineExpr()
	case "above":
		s.Below = p.Point()
		return
	}
	p.Need("within")
	s.Within = p.Number("the tolerance in mm")
}
