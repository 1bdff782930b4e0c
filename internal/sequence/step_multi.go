package sequence

import (
	"math"
	"strconv"

	"tussock/internal/fold"
	"tussock/internal/fold/steps"
	"tussock/internal/geom"
)

// Steps that move several groups of layers at once.

// placeExpr says where moved layers are to end.
type placeExpr struct{ under, over pointExpr }

func (p *parser) place() (e placeExpr) {
	for {
		switch {
		case p.accept("under"):
			e.under = p.point()
		case p.accept("over"):
			e.over = p.point()
		default:
			return e
		}
	}
}

func (e placeExpr) at(r *run) (at steps.Place, err error) {
	for _, q := range []struct {
		e pointExpr
		f *[]fold.FacetID
	}{{e.under, &at.Under}, {e.over, &at.Over}} {
		if q.e == nil {
			continue
		}
		p, err := q.e.sheet(r)
		if err != nil {
			return at, err
		}
		*q.f = r.state.FacetsAtSheet(p)
	}
	return at, nil
}

// spinePieces are the stretches of the sheet that a spine is: between two
// landmarks, or a named crease.
func (r *run) sheetPieces(e lineExpr) ([]geom.Segment, error) {
	switch e := e.(type) {
	case linePair:
		a, err := e.a.sheet(r)
		if err != nil {
			return nil, err
		}
		b, err := e.b.sheet(r)
		return []geom.Segment{{A: a, B: b}}, err
	case lineName:
		return r.lines[string(e)].pieces, nil
	}
	return nil, fold.Errorf(fold.CodeName, "%s is not a crease of the paper; name one, or two landmarks in brackets", e.words(r))
}

// reverse inside|outside P FOLD spine P P [and P P]…
// crimp P along L and L spine P P [and P P]…
type reverseStep struct {
	outside bool
	tip     pointExpr
	fold    foldLine
	second  lineExpr // crimp only
	spine   []linePair
}

func readReverse(p *parser, _ *Step) action {
	a := &reverseStep{outside: p.oneOf("a kind of reverse fold", "inside", "outside") == "outside"}
	a.tip = p.point()
	a.fold = p.foldLine()
	a.readSpine(p)
	return a
}

func readCrimp(p *parser, _ *Step) action {
	a := &reverseStep{tip: p.point()}
	p.need("along")
	a.fold = foldLine{kind: foldAlong, l: p.lineExpr()}
	p.need("and")
	a.second = p.lineExpr()
	a.readSpine(p)
	return a
}

func (a *reverseStep) readSpine(p *parser) {
	p.need("spine")
	a.spine = append(a.spine, linePair{p.point(), p.point()})
	for p.accept("and") {
		a.spine = append(a.spine, linePair{p.point(), p.point()})
	}
}

func (a *reverseStep) do(r *run, s *Step, d *Done) error {
	at, err := r.resolve(a.fold)
	if err != nil {
		return err
	}
	lines := []geom.Line{at.line}
	if a.second != nil {
		l, _, err := a.second.folded(r)
		if err != nil {
			return err
		}
		lines = append(lines, l.Moved(geom.Reflection(at.line)))
	}
	d.Line, d.Meets, d.GapMM = at.line, at.meets, at.gap
	tip, err := a.tip.folded(r)
	if err != nil {
		return err
	}
	d.At = &tip
	for _, l := range lines {
		err := r.move(d, []geom.Line{l}, false, func() (fold.Plan, error) {
			t, err := a.tip.sheet(r)
			if err != nil {
				return fold.Plan{}, err
			}
			var spine []geom.Segment
			for _, q := range a.spine {
				u, err := q.a.sheet(r)
				if err != nil {
					return fold.Plan{}, err
				}
				v, err := q.b.sheet(r)
				if err != nil {
					return fold.Plan{}, err
				}
				spine = append(spine, geom.Segment{A: u, B: v})
			}
			return steps.Reverse(r.state, t, l, spine, a.outside, fold.CreaseID(s.No))
		})
		if err != nil {
			return err
		}
	}
	return nil
}

// squash spine P P onto L [under P] [over P]
type squashStep struct {
	spine linePair
	onto  lineExpr
	place placeExpr
}

func readSquash(p *parser, _ *Step) action {
	p.need("spine")
	a := &squashStep{spine: linePair{p.point(), p.point()}}
	p.need("onto")
	a.onto = p.lineExpr()
	a.place = p.place()
	return a
}

func (a *squashStep) do(r *run, s *Step, d *Done) error {
	_, seg, err := a.spine.folded(r)
	if err != nil {
		return err
	}
	m, to, err := a.onto.folded(r)
	if err != nil {
		return err
	}
	b, ok := steps.SquashLines(seg, m)
	if !ok {
		return fold.Errorf(fold.CodeNoLine, "%s lies on %s already, so there is nothing to squash", a.spine.words(r), a.onto.words(r))
	}
	d.Line = b
	d.Meets = [2]Mark{lineMark(a.spine.words(r), seg), lineMark(a.onto.words(r), to)}
	return r.move(d, []geom.Line{m, b}, false, func() (fold.Plan, error) {
		spine, err := r.sheetPieces(a.spine)
		if err != nil {
			return fold.Plan{}, err
		}
		at, err := a.place.at(r)
		if err != nil {
			return fold.Plan{}, err
		}
		return steps.Squash(r.state, spine, m, b, at, fold.CreaseID(s.No))
	})
}

// petal P creases L L spines L L [under P] [over P]
type petalStep struct {
	tip           pointExpr
	crease, spine [2]lineExpr
	place         placeExpr
}

func readPetal(p *parser, _ *Step) action {
	a := &petalStep{tip: p.point()}
	p.need("creases")
	a.crease = [2]lineExpr{p.lineExpr(), p.lineExpr()}
	p.need("spines")
	a.spine = [2]lineExpr{p.lineExpr(), p.lineExpr()}
	a.place = p.place()
	return a
}

func (a *petalStep) do(r *run, s *Step, d *Done) error {
	var k, sp [2]geom.Line
	for i := range 2 {
		var err error
		if k[i], _, err = a.crease[i].folded(r); err != nil {
			return err
		}
		if sp[i], _, err = a.spine[i].folded(r); err != nil {
			return err
		}
	}
	h, ok := steps.PetalLine(k, sp)
	if !ok {
		return fold.Errorf(fold.CodeNoLine, "the side creases do not meet the folded edges, so the petal has no line to lift about")
	}
	tip, err := a.tip.folded(r)
	if err != nil {
		return err
	}
	d.Line, d.At = h, &tip
	d.Meets[0] = pointMark(a.tip.words(r), tip)
	d.Meets[1] = pointMark("where it comes to lie", h.Mirror(tip))
	return r.move(d, []geom.Line{k[0], k[1], h}, false, func() (fold.Plan, error) {
		t, err := a.tip.sheet(r)
		if err != nil {
			return fold.Plan{}, err
		}
		var spines [2][]geom.Segment
		for i := range 2 {
			if spines[i], err = r.sheetPieces(a.spine[i]); err != nil {
				return fold.Plan{}, err
			}
		}
		at, err := a.place.at(r)
		if err != nil {
			return fold.Plan{}, err
		}
		return steps.Petal(r.state, t, k, h, spines, at, fold.CreaseID(s.No))
	})
}

// sink P FOLD
type sinkStep struct {
	tip  pointExpr
	fold foldLine
}

func readSink(p *parser, _ *Step) action { return &sinkStep{p.point(), p.foldLine()} }

func (a *sinkStep) do(r *run, s *Step, d *Done) error {
	at, err := r.resolve(a.fold)
	if err != nil {
		return err
	}
	tip, err := a.tip.folded(r)
	if err != nil {
		return err
	}
	d.Line, d.Meets, d.At = at.line, at.meets, &tip
	return r.move(d, []geom.Line{at.line}, false, func() (fold.Plan, error) {
		t, err := a.tip.sheet(r)
		if err != nil {
			return fold.Plan{}, err
		}
		return steps.Sink(r.state, t, at.line, fold.CreaseID(s.No))
	})
}

// collapse|draw|flex [P] fixed P {M|V|A|F P P…}… [over P P]…
// A sense holds for all pairs of landmarks up to the next one.
type collapseStep struct {
	moved pointExpr // draw only: what is drawn out
	fixed pointExpr
	lines []collapseLine
	over  [][2]pointExpr
}

type collapseLine struct {
	a, b  pointExpr
	named string // a named crease instead of two landmarks
	sense steps.Sense
}

var senses = map[string]steps.Sense{"M": steps.Mountain, "V": steps.Valley, "A": steps.Either, "F": steps.Open}

func readCollapse(p *parser, s *Step) action {
	a := &collapseStep{}
	if s.Op == OpDraw {
		a.moved = p.point()
	}
	p.need("fixed")
	a.fixed = p.point()
	for p.peek().kind == tokWord {
		sense, ok := senses[p.peek().text]
		if !ok {
			break
		}
		p.next()
		for p.startsPoint() || p.startsLine() {
			if p.startsLine() {
				a.lines = append(a.lines, collapseLine{named: p.known(ALine), sense: sense})
				continue
			}
			a.lines = append(a.lines, collapseLine{a: p.point(), b: p.point(), sense: sense})
		}
	}
	if len(a.lines) == 0 {
		p.fail("it is not said which creases fold", "write M, V, A (either) or F (flat) and pairs of landmarks")
	}
	for p.accept("over") {
		a.over = append(a.over, [2]pointExpr{p.point(), p.point()})
	}
	return a
}

func (a *collapseStep) do(r *run, s *Step, d *Done) error {
	var lines []steps.Line
	for _, c := range a.lines {
		if c.named != "" {
			for _, seg := range r.lines[c.named].pieces {
				lines = append(lines, steps.Line{Seg: seg, Sense: c.sense})
			}
			continue
		}
		u, err := c.a.sheet(r)
		if err != nil {
			return err
		}
		v, err := c.b.sheet(r)
		if err != nil {
			return err
		}
		lines = append(lines, steps.Line{Seg: geom.Segment{A: u, B: v}, Sense: c.sense})
	}
	if a.moved != nil {
		at, err := a.moved.folded(r)
		if err != nil {
			return err
		}
		d.At = &at
	}
	return a.gathered(r, s, d, lines)
}

// gathered moves along lines of the sheet while one piece stays.
func (a *collapseStep) gathered(r *run, s *Step, d *Done, lines []steps.Line) error {
	onSheet := make([]geom.Line, len(lines))
	for i, c := range lines {
		onSheet[i] = geom.LineAt(c.Seg.A, c.Seg.B.Sub(c.Seg.A))
	}
	if r.sh == nil {
		d.Lines = r.visible(lines)
	}
	return r.move(d, onSheet, true, func() (fold.Plan, error) {
		fixed, err := a.fixed.sheet(r)
		if err != nil {
			return fold.Plan{}, err
		}
		var over []steps.Pair
		for _, q := range a.over {
			u, err := q[0].sheet(r)
			if err != nil {
				return fold.Plan{}, err
			}
			v, err := q[1].sheet(r)
			if err != nil {
				return fold.Plan{}, err
			}
			over = append(over, steps.Pair{Above: u, Below: v})
		}
		return steps.Collapse(r.state, fixed, lines, over, fold.CreaseID(s.No))
	})
}

// visible are lines of the sheet where they lie now, for the picture.
func (r *run) visible(lines []steps.Line) []geom.Segment {
	var out []geom.Segment
	for _, c := range lines {
		l, ok := geom.LineThrough(c.Seg.A, c.Seg.B)
		if !ok {
			continue
		}
		for i := range r.state.F {
			if part, ok := stretch(r.state.F[i].Poly, l, c.Seg); ok {
				iso := r.state.F[i].Iso
				out = append(out, geom.Segment{A: iso.Apply(part.A), B: iso.Apply(part.B)})
			}
		}
	}
	return out
}

// rabbit P P P fixed P: the ear rises from the side between the first two.
// twist N about P radius MM slant DEG [from P] fixed P
// gather about P [fixed P]
type generatedStep struct {
	collapseStep
	kind    Op
	corners [3]pointExpr
	n       int
	about   pointExpr
	radius  numExpr
	slant   numExpr
	from    pointExpr
}

func readRabbit(p *parser, _ *Step) action {
	a := &generatedStep{kind: OpRabbit, corners: [3]pointExpr{p.point(), p.point(), p.point()}}
	p.need("fixed")
	a.fixed = p.point()
	return a
}

func readTwist(p *parser, _ *Step) action {
	a := &generatedStep{kind: OpTwist, n: int(p.ranged("the number of sides", 3, 12))}
	p.need("about")
	a.about = p.point()
	p.need("radius")
	a.radius = p.number("the radius in mm")
	p.need("slant")
	a.slant = p.number("the slant in degrees")
	if p.accept("from") {
		a.from = p.point()
	}
	p.need("fixed")
	a.fixed = p.point()
	return a
}

func readGather(p *parser, _ *Step) action {
	p.need("about")
	a := &generatedStep{kind: OpGather, about: p.point()}
	a.fixed = a.about
	if p.accept("fixed") {
		a.fixed = p.point()
	}
	return a
}

func (a *generatedStep) do(r *run, s *Step, d *Done) error {
	lines, err := a.pattern(r)
	if err != nil {
		return err
	}
	return a.gathered(r, s, d, lines)
}

func (a *generatedStep) pattern(r *run) ([]steps.Line, error) {
	outline := geom.Polygon(r.state.Sheet.Outline())
	if a.kind == OpRabbit {
		var c [3]geom.Vec
		for i, e := range a.corners {
			var err error
			if c[i], err = e.sheet(r); err != nil {
				return nil, err
			}
		}
		return steps.RabbitEar(c[0], c[1], c[2])
	}
	c, err := a.about.sheet(r)
	if err != nil {
		return nil, err
	}
	if a.kind == OpGather {
		return steps.Gather(outline, c), nil
	}
	start := 0.0
	if a.from != nil {
		p, err := a.from.sheet(r)
		if err != nil {
			return nil, err
		}
		start = math.Atan2(p.Y-c.Y, p.X-c.X)
	}
	radius := a.radius.num(r)
	if !(radius > 1) {
		return nil, fold.Errorf(fold.CodeKnob, "the radius of a twist is more than 1 mm, not %s", strconv.FormatFloat(radius, 'f', 1, 64))
	}
	return steps.Twist(outline, c, a.n, radius, start, geom.Rad(a.slant.num(r)))
}

// pop P
type popStep struct{ at pointExpr }

func readPop(p *parser, _ *Step) action { return &popStep{p.point()} }

func (a *popStep) do(r *run, _ *Step, d *Done) error {
	at, err := a.at.folded(r)
	if err != nil {
		return err
	}
	d.At = &at
	return r.move(d, nil, false, func() (fold.Plan, error) {
		p, err := a.at.sheet(r)
		if err != nil {
			return fold.Plan{}, err
		}
		return steps.Pop(r.state, p)
	})
}

// Title is what the field calls it.
func (a *reverseStep) Title() string {
	switch {
	case a.second != nil:
		return "crimp"
	case a.outside:
		return "outside reverse fold"
	}
	return "inside reverse fold"
}
