package operations

import (
	"errors"
	"fmt"
	"math"

	"tussock/internal/fold"
	"tussock/internal/fold/layermap"
	"tussock/internal/fold/steps"
	"tussock/internal/geom"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sequence/basis"
	"tussock/internal/sequence/lang"
)

// Steps that move several groups of layers at once.

// placeExpr says where moved layers are to end.
type placeExpr struct{ under, over sequence.PointExpr }

func place(p *lang.Parser) (e placeExpr) {
	for {
		switch {
		case p.Accept("under"):
			e.under = p.Point()
		case p.Accept("over"):
			e.over = p.Point()
		default:
			return e
		}
	}
}

func (e placeExpr) at(r *sequence.Course) (at steps.Place, err error) {
	for _, q := range []struct {
		e sequence.PointExpr
		f *[]fold.FacetID
	}{{e.under, &at.Under}, {e.over, &at.Over}} {
		if q.e == nil {
			continue
		}
		p, err := q.e.Sheet(r)
		if err != nil {
			return at, err
		}
		*q.f = r.State.FacetsAtSheet(p)
	}
	return at, nil
}

// spinePieces are the stretches of the sheet that a spine is: between two
// landmarks, or a named crease.
func sheetPieces(r *sequence.Course, e sequence.LineExpr) ([]geom.Segment, error) {
	switch e := e.(type) {
	case sequence.LinePair:
		a, err := e.A.Sheet(r)
		if err != nil {
			return nil, err
		}
		b, err := e.B.Sheet(r)
		return []geom.Segment{{A: a, B: b}}, err
	case sequence.LineName:
		return r.Lines[string(e)].Pieces, nil
	}
	return nil, fold.Errorf(fold.CodeName, "%s is not a crease of the paper; name one, or two landmarks in brackets", e.Words(r))
}

// reverse inside|outside P FOLD spine P P [and P P]…
// crimp P along L and L spine P P [and P P]…
type reverseStep struct {
	outside bool
	tip     sequence.PointExpr
	fold    sequence.FoldLine
	second  sequence.LineExpr // crimp only
	spine   []sequence.LinePair
}

func readReverse(p *lang.Parser, _ *sequence.Step) sequence.Action {
	a := &reverseStep{outside: p.OneOf("a kind of reverse fold", "inside", "outside") == "outside"}
	a.tip = p.Point()
	a.fold = p.FoldLine()
	a.readSpine(p)
	return a
}

func readCrimp(p *lang.Parser, _ *sequence.Step) sequence.Action {
	a := &reverseStep{tip: p.Point()}
	p.Need("along")
	a.fold = sequence.FoldLine{Kind: sequence.FoldAlong, L: p.LineExpr()}
	p.Need("and")
	a.second = p.LineExpr()
	a.readSpine(p)
	return a
}

func (a *reverseStep) readSpine(p *lang.Parser) {
	p.Need("spine")
	a.spine = append(a.spine, sequence.LinePair{A: p.Point(), B: p.Point()})
	for p.Accept("and") {
		a.spine = append(a.spine, sequence.LinePair{A: p.Point(), B: p.Point()})
	}
}

func (a *reverseStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	at, err := r.ResolveBy(a.fold, func(at sequence.Resolved) (fold.Plan, error) { return a.plan(r, at.Line, 0) })
	if err != nil {
		return err
	}
	lines := []geom.Line{at.Line}
	if a.second != nil {
		l, _, err := a.second.Folded(r)
		if err != nil {
			return err
		}
		lines = append(lines, l.Moved(geom.Reflection(at.Line)))
	}
	d.Line, d.Meets, d.GapMM = at.Line, at.Meets, at.Gap
	tip, err := r.Unseen(a.tip)
	if err != nil {
		return err
	}
	d.At = &tip
	for _, l := range lines {
		err := r.Move(d, []geom.Line{l}, false, func() (fold.Plan, error) {
			return a.plan(r, l, fold.CreaseID(s.No))
		})
		if err != nil {
			return a.wrongWay(r, l, err)
		}
	}
	return nil
}

func countOf(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}

// wrongWay explains why a tip cannot be wrapped round its flap where it could be pushed in.
func (a *reverseStep) wrongWay(r *sequence.Course, l geom.Line, err error) error {
	if !a.outside || fold.As(err) == nil || fold.As(err).Code != fold.CodeLayers {
		return err
	}
	in := *a
	in.outside = false
	plan, planErr := in.plan(r, l, 0)
	if planErr != nil {
		return err
	}
	if _, inErr := r.State.Apply(plan); inErr != nil {
		return err
	}
	return fold.Errorf(fold.CodeLayers, "along this line the tip at %s can only be pushed in, not wrapped round: write reverse inside, or tilt the line so that the tip turns to its folded edge", a.tip.Words(r))
}

// plan is the reverse fold along one line.
func (a *reverseStep) plan(r *sequence.Course, l geom.Line, crease fold.CreaseID) (fold.Plan, error) {
	t, err := a.tip.Sheet(r)
	if err != nil {
		return fold.Plan{}, err
	}
	var spine []geom.Segment
	for _, q := range a.spine {
		u, err := q.A.Sheet(r)
		if err != nil {
			return fold.Plan{}, err
		}
		v, err := q.B.Sheet(r)
		if err != nil {
			return fold.Plan{}, err
		}
		spine = append(spine, geom.Segment{A: u, B: v})
	}
	return steps.Reverse(r.State, t, l, spine, a.outside, crease)
}

// squash spine P P onto L [under P] [over P]
type squashStep struct {
	spine sequence.LinePair
	onto  sequence.LineExpr
	place placeExpr
}

func readSquash(p *lang.Parser, _ *sequence.Step) sequence.Action {
	p.Need("spine")
	a := &squashStep{spine: sequence.LinePair{A: p.Point(), B: p.Point()}}
	p.Need("onto")
	a.onto = p.LineExpr()
	a.place = place(p)
	return a
}

func (a *squashStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	_, seg, err := a.spine.Folded(r)
	if err != nil {
		return err
	}
	m, to, err := a.onto.Folded(r)
	if err != nil {
		return err
	}
	b, ok := steps.SquashLines(seg, m, to)
	if !ok {
		return fold.Errorf(fold.CodeNoLine, "%s lies on %s already, so there is nothing to squash", a.spine.Words(r), a.onto.Words(r))
	}
	d.Line = b
	d.Meets = [2]sequence.Mark{basis.LineMark(a.spine.Words(r), seg), basis.LineMark(a.onto.Words(r), to)}
	return r.Move(d, []geom.Line{m, b}, false, func() (fold.Plan, error) {
		spine, err := sheetPieces(r, a.spine)
		if err != nil {
			return fold.Plan{}, err
		}
		at, err := a.place.at(r)
		if err != nil {
			return fold.Plan{}, err
		}
		return steps.Squash(r.State, spine, m, b, at, fold.CreaseID(s.No))
	})
}

// petal P creases L L spines L L [under P] [over P]
type petalStep struct {
	tip           sequence.PointExpr
	crease, spine [2]sequence.LineExpr
	place         placeExpr
}

func readPetal(p *lang.Parser, _ *sequence.Step) sequence.Action {
	a := &petalStep{tip: p.Point()}
	p.Need("creases")
	a.crease = [2]sequence.LineExpr{p.LineExpr(), p.LineExpr()}
	p.Need("spines")
	a.spine = [2]sequence.LineExpr{p.LineExpr(), p.LineExpr()}
	a.place = place(p)
	return a
}

func (a *petalStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	var k, sp [2]geom.Line
	for i := range 2 {
		var err error
		if k[i], _, err = a.crease[i].Folded(r); err != nil {
			return err
		}
		if sp[i], _, err = a.spine[i].Folded(r); err != nil {
			return err
		}
	}
	h, ok := steps.PetalLine(k, sp)
	if !ok {
		return fold.Errorf(fold.CodeNoLine, "the side creases do not meet the folded edges, so the petal has no line to lift about")
	}
	tip, err := r.Unseen(a.tip)
	if err != nil {
		return err
	}
	d.Line, d.At = h, &tip
	d.Meets[0] = basis.PointMark(a.tip.Words(r), tip)
	d.Meets[1] = basis.PointMark("where it comes to lie", h.Mirror(tip))
	return r.Move(d, []geom.Line{k[0], k[1], h}, false, func() (fold.Plan, error) {
		t, err := a.tip.Sheet(r)
		if err != nil {
			return fold.Plan{}, err
		}
		var spines [2][]geom.Segment
		for i := range 2 {
			if spines[i], err = sheetPieces(r, a.spine[i]); err != nil {
				return fold.Plan{}, err
			}
		}
		at, err := a.place.at(r)
		if err != nil {
			return fold.Plan{}, err
		}
		return steps.Petal(r.State, t, k, h, spines, at, fold.CreaseID(s.No))
	})
}

// sink P FOLD
type sinkStep struct {
	tip  sequence.PointExpr
	fold sequence.FoldLine
}

func readSink(p *lang.Parser, _ *sequence.Step) sequence.Action {
	return &sinkStep{p.Point(), p.FoldLine()}
}

func (a *sinkStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	at, err := r.Resolve(a.fold)
	if err != nil {
		return err
	}
	tip, err := r.Unseen(a.tip)
	if err != nil {
		return err
	}
	d.Line, d.Meets, d.At = at.Line, at.Meets, &tip
	return r.Move(d, []geom.Line{at.Line}, false, func() (fold.Plan, error) {
		t, err := a.tip.Sheet(r)
		if err != nil {
			return fold.Plan{}, err
		}
		return steps.Sink(r.State, t, at.Line, fold.CreaseID(s.No))
	})
}

// collapse|draw|flex [P] fixed P {M|V|A|F P P…}… [over P P]…
// A sense holds for all pairs of landmarks up to the next one.
type collapseStep struct {
	moved sequence.PointExpr // draw only: what is drawn out
	fixed sequence.PointExpr
	lines []collapseLine
	over  [][2]sequence.PointExpr
}

type collapseLine struct {
	a, b  sequence.PointExpr
	named string // a named crease instead of two landmarks
	sense steps.Sense
}

var senses = map[string]steps.Sense{"M": steps.Mountain, "V": steps.Valley, "A": steps.Either, "F": steps.Open}

func readCollapse(p *lang.Parser, s *sequence.Step) sequence.Action {
	a := &collapseStep{}
	if s.Op == sequence.OpDraw {
		a.moved = p.Point()
	}
	p.Need("fixed")
	a.fixed = p.Point()
	for p.Peek().Kind == lang.TokWord {
		sense, ok := senses[p.Peek().Text]
		if !ok {
			break
		}
		p.Next()
		for p.StartsPoint() || p.StartsLine() {
			if p.StartsLine() {
				a.lines = append(a.lines, collapseLine{named: p.Known(sequence.ALine), sense: sense})
				continue
			}
			a.lines = append(a.lines, collapseLine{a: p.Point(), b: p.Point(), sense: sense})
		}
	}
	if len(a.lines) == 0 {
		p.Fail("it is not said which creases fold", "write M, V, A (either) or F (flat) and pairs of landmarks")
	}
	for p.Accept("over") {
		a.over = append(a.over, [2]sequence.PointExpr{p.Point(), p.Point()})
	}
	return a
}

func (a *collapseStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	var lines []steps.Line
	for _, c := range a.lines {
		if c.named != "" {
			for _, seg := range r.Lines[c.named].Pieces {
				lines = append(lines, steps.Line{Seg: seg, Sense: c.sense})
			}
			continue
		}
		u, err := c.a.Sheet(r)
		if err != nil {
			return err
		}
		v, err := c.b.Sheet(r)
		if err != nil {
			return err
		}
		lines = append(lines, steps.Line{Seg: geom.Segment{A: u, B: v}, Sense: c.sense})
	}
	if a.moved != nil {
		at, err := r.Unseen(a.moved)
		if err != nil {
			return err
		}
		d.At = &at
	}
	return a.gathered(r, s, d, lines)
}

// gathered moves along lines of the sheet while one piece stays.
func (a *collapseStep) gathered(r *sequence.Course, s *sequence.Step, d *sequence.Done, lines []steps.Line) error {
	onSheet := make([]geom.Line, len(lines))
	for i, c := range lines {
		onSheet[i] = geom.LineAt(c.Seg.A, c.Seg.B.Sub(c.Seg.A))
	}
	if r.Sh == nil {
		d.Lines = visible(r, lines)
	}
	return r.Move(d, onSheet, true, func() (fold.Plan, error) {
		fixed, err := a.fixed.Sheet(r)
		if err != nil {
			return fold.Plan{}, err
		}
		if f := r.State.FacetsAtSheet(fixed); len(f) > 0 {
			at := r.State.F[f[0]].Iso.Apply(fixed)
			d.Held = &at
		}
		var over []steps.Pair
		for _, q := range a.over {
			u, err := q[0].Sheet(r)
			if err != nil {
				return fold.Plan{}, err
			}
			v, err := q[1].Sheet(r)
			if err != nil {
				return fold.Plan{}, err
			}
			over = append(over, steps.Pair{Above: u, Below: v})
		}
		plan, err := steps.Collapse(r.State, fixed, lines, over, fold.CreaseID(s.No))
		var u *steps.Uneven
		if errors.As(err, &u) {
			return plan, fold.Errorf(fold.CodeLayers, "%s and %s meet at %s; where paper folds flat they differ by two; change the sense of one, or write A for one so that its sense is found",
				countOf(u.Mountain, "mountain"), countOf(u.Valley, "valley"), r.Places().Spot(u.At))
		}
		if err != nil || s.Op != sequence.OpFlex || len(over) > 0 || !glued(r.State) {
			return plan, err
		}
		return ringFlexed(r.State, fixed, lines, plan)
	})
}

// visible are lines of the sheet where they lie now, for the picture.
func visible(r *sequence.Course, lines []steps.Line) []geom.Segment {
	var out []geom.Segment
	for _, c := range lines {
		l, ok := geom.LineThrough(c.Seg.A, c.Seg.B)
		if !ok {
			continue
		}
		for i := range r.State.F {
			if part, ok := r.State.F[i].Poly.Stretch(l, c.Seg); ok {
				iso := r.State.F[i].Iso
				out = append(out, geom.Segment{A: iso.Apply(part.A), B: iso.Apply(part.B)})
			}
		}
	}
	return out
}

// rabbit P P P fixed P: the ear rises from the side between the first two.
// twist N about P radius MM slant DEG [from P] fixed P
// gather about P [in two] [fixed P]
type generatedStep struct {
	collapseStep
	kind    sequence.Op
	corners [3]sequence.PointExpr
	n       int
	about   sequence.PointExpr
	radius  sequence.NumExpr
	slant   sequence.NumExpr
	from    sequence.PointExpr
	two     bool // leaves to both sides
}

func readRabbit(p *lang.Parser, _ *sequence.Step) sequence.Action {
	a := &generatedStep{kind: sequence.OpRabbit, corners: [3]sequence.PointExpr{p.Point(), p.Point(), p.Point()}}
	p.Need("fixed")
	a.fixed = p.Point()
	return a
}

func readTwist(p *lang.Parser, _ *sequence.Step) sequence.Action {
	a := &generatedStep{kind: sequence.OpTwist, n: p.Count("the number of sides", 3, 12)}
	p.Need("about")
	a.about = p.Point()
	p.Need("radius")
	a.radius = p.Number("the radius in mm")
	p.Need("slant")
	a.slant = p.Number("the slant in degrees")
	if p.Accept("from") {
		a.from = p.Point()
	}
	p.Need("fixed")
	a.fixed = p.Point()
	return a
}

func readGather(p *lang.Parser, _ *sequence.Step) sequence.Action {
	p.Need("about")
	a := &generatedStep{kind: sequence.OpGather, about: p.Point()}
	a.fixed = a.about
	if p.Accept("in") {
		p.Need("two")
		a.two = true
	}
	if p.Accept("fixed") {
		a.fixed = p.Point()
	}
	return a
}

// rays about P: creases only.
type raysStep struct{ about sequence.PointExpr }

func readRays(p *lang.Parser, _ *sequence.Step) sequence.Action {
	p.Need("about")
	return &raysStep{p.Point()}
}

func (a *raysStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	c, err := a.about.Sheet(r)
	if err != nil {
		return err
	}
	lines := steps.Gather(asCut(r.State), c)
	onSheet := make([]geom.Line, len(lines))
	for i, l := range lines {
		onSheet[i] = geom.LineAt(l.Seg.A, l.Seg.B.Sub(l.Seg.A))
	}
	if r.Sh == nil {
		d.Lines = visible(r, lines)
	}
	return r.Move(d, onSheet, true, func() (fold.Plan, error) { return steps.Creased(r.State, lines, fold.CreaseID(s.No)) })
}

func (a *generatedStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	lines, err := a.pattern(r)
	if err != nil {
		return err
	}
	return a.gathered(r, s, d, lines)
}

// asCut is the outline of the paper that is still there, as it lies on the flat sheet: of
// its largest part, where slits or holes leave several rims.
func asCut(s *fold.State) geom.Polygon {
	cells := make([]layermap.Cell, len(s.F))
	for i, f := range s.F {
		cells[i] = layermap.Cell{Poly: f.Poly}
	}
	var best geom.Polygon
	for _, rim := range layermap.Silhouette(cells) {
		if best == nil || rim.Area() > best.Area() {
			best = rim
		}
	}
	return best.Straightened()
}

func (a *generatedStep) pattern(r *sequence.Course) ([]steps.Line, error) {
	outline := asCut(r.State)
	if a.kind == sequence.OpRabbit {
		var c [3]geom.Vec
		for i, e := range a.corners {
			var err error
			if c[i], err = e.Sheet(r); err != nil {
				return nil, err
			}
		}
		return steps.RabbitEar(c[0], c[1], c[2])
	}
	c, err := a.about.Sheet(r)
	if err != nil {
		return nil, err
	}
	if a.kind == sequence.OpGather {
		if a.two {
			return steps.InTwo(outline, c), nil
		}
		return steps.Gather(outline, c), nil
	}
	start := 0.0
	if a.from != nil {
		p, err := a.from.Sheet(r)
		if err != nil {
			return nil, err
		}
		start = math.Atan2(p.Y-c.Y, p.X-c.X)
	}
	radius := a.radius.Num(r)
	if !(radius > 1) {
		return nil, fold.Errorf(fold.CodeKnob, "the radius of a twist is more than %s, not %s", say.MM(1, 0), say.MM(radius, 1))
	}
	return steps.Twist(outline, c, a.n, radius, start, geom.Rad(a.slant.Num(r)))
}

// pop P
type popStep struct{ at sequence.PointExpr }

func readPop(p *lang.Parser, _ *sequence.Step) sequence.Action { return &popStep{p.Point()} }

func (a *popStep) Do(r *sequence.Course, _ *sequence.Step, d *sequence.Done) error {
	at, err := a.at.Folded(r)
	if err != nil {
		return err
	}
	d.At = &at
	return r.Move(d, nil, false, func() (fold.Plan, error) {
		p, err := a.at.Sheet(r)
		if err != nil {
			return fold.Plan{}, err
		}
		return steps.Pop(r.State, p)
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
