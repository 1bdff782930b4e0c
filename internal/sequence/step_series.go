package sequence

import (
	"math"

	"tussock/internal/fold"
	"tussock/internal/geom"
)

// Steps that are several simple folds, one after the other.

// one makes a single simple fold as part of a step.
func (r *run) one(s *Step, d *Done, l geom.Line, side int8, sense fold.Sense, seeds func() ([]fold.FacetID, error)) error {
	return r.move(d, []geom.Line{l}, false, func() (fold.Plan, error) {
		f, err := seeds()
		if err != nil {
			return fold.Plan{}, err
		}
		sel := fold.Selection{Line: l, Side: side, Seeds: f, Sense: sense}
		if len(d.Moving) == 0 {
			d.Line, d.Side, d.Moving = l, side, r.state.Closure(sel)
		}
		return r.state.SimpleFold(sel, fold.CreaseID(s.No))
	})
}

// seedsAt finds the pieces that hold a landmark, as the state is then.
func (r *run) seedsAt(e pointExpr) func() ([]fold.FacetID, error) {
	return func() ([]fold.FacetID, error) {
		p, err := e.sheet(r)
		if err != nil {
			return nil, err
		}
		f := r.state.FacetsAtSheet(p)
		if len(f) == 0 {
			return nil, fold.Errorf(fold.CodeOffPaper, "%s is not on the paper", e.words(r))
		}
		return f, nil
	}
}

func (r *run) side(l geom.Line, e pointExpr) (int8, error) {
	v, err := sideOf(r, l, e, "the fold line")
	return int8(v), err
}

// pinch FOLD near P [length MM]: a mark only. Nothing is divided; landmarks may
// lie on it, and a later fold makes its own crease.
type pinchStep struct {
	fold   foldLine
	near   pointExpr
	length numExpr
}

func readPinch(p *parser, _ *Step) action {
	a := &pinchStep{fold: p.foldLine(), length: numLit(10)}
	if a.fold.near == nil {
		p.need("near")
		a.near = p.point()
	} else {
		a.near = a.fold.near
	}
	if p.accept("length") {
		a.length = p.number("the length in mm")
	}
	return a
}

func (a *pinchStep) do(r *run, s *Step, d *Done) error {
	at, err := r.resolve(a.fold)
	if err != nil {
		return err
	}
	d.Line, d.Meets = at.line, at.meets
	p, err := a.near.folded(r)
	if err != nil {
		return err
	}
	c := at.line.Foot(p)
	half := at.line.Dir().Scale(a.length.num(r) / 2)
	// The mark lies on the top layer there, or on the one that holds the landmark.
	q, err := r.pin(c, "the pinch")
	if err != nil {
		return err
	}
	if r.sh != nil {
		return nil
	}
	d.Lines = []geom.Segment{{A: c.Sub(half), B: c.Add(half)}}
	r.out.Notes = append(r.out.Notes, Note{Step: s.No, Kind: OpPinch, At: q, To: q, Text: s.Text})
	return nil
}

// pair valley|mountain LINE moving P and LINE moving P
type pairStep struct {
	sense  fold.Sense
	lines  []lineExpr
	moving []pointExpr
}

func readPair(p *parser, _ *Step) action {
	a := &pairStep{sense: fold.ValleySense}
	if p.oneOf("a sense", "valley", "mountain") == "mountain" {
		a.sense = fold.MountainSense
	}
	for {
		a.lines = append(a.lines, p.lineExpr())
		p.need("moving")
		a.moving = append(a.moving, p.point())
		if !p.accept("and") {
			return a
		}
	}
}

func (a *pairStep) do(r *run, s *Step, d *Done) error {
	for i, e := range a.lines {
		l, seg, err := e.folded(r)
		if err != nil {
			return err
		}
		side, err := r.side(l, a.moving[i])
		if err != nil {
			return err
		}
		if r.sh == nil {
			d.Lines = append(d.Lines, seg)
		}
		if err := r.one(s, d, l, side, a.sense, r.seedsAt(a.moving[i])); err != nil {
			return err
		}
	}
	return nil
}

// pleat along L and L [and L…] moving P: forth and back, as often as lines are
// named. All lines are those of the paper before the step.
type pleatStep struct {
	lines  []lineExpr
	moving pointExpr
}

func readPleat(p *parser, _ *Step) action {
	p.need("along")
	a := &pleatStep{lines: []lineExpr{p.lineExpr()}}
	for p.accept("and") {
		a.lines = append(a.lines, p.lineExpr())
	}
	if len(a.lines) < 2 {
		p.fail("a pleat has two creases or more", `join them with "and"`)
	}
	p.need("moving")
	a.moving = p.point()
	return a
}

func (a *pleatStep) do(r *run, s *Step, d *Done) error {
	var lines []geom.Line
	for _, e := range a.lines {
		l, seg, err := e.folded(r)
		if err != nil {
			return err
		}
		lines = append(lines, l)
		if r.sh == nil {
			d.Lines = append(d.Lines, seg)
		}
	}
	m := geom.Identity // where the moving part has got to
	for _, l := range lines {
		now := l.Moved(m)
		side, err := r.side(now, a.moving)
		if err != nil {
			return err
		}
		if err := r.one(s, d, now, side, fold.ValleySense, r.seedsAt(a.moving)); err != nil {
			return err
		}
		m = geom.Reflection(now).After(m)
	}
	return nil
}

// roll LINE turns N [width MM | to LINE] moving P: an edge is folded over again
// and again by one width, or so that the last turn ends at a line.
type rollStep struct {
	edge   lineExpr
	turns  int
	width  numExpr
	to     lineExpr
	moving pointExpr
}

func readRoll(p *parser, _ *Step) action {
	a := &rollStep{edge: p.lineExpr()}
	p.need("turns")
	a.turns = int(p.ranged("the number of turns", 1, 20))
	if p.accept("to") {
		a.to = p.lineExpr()
	} else {
		p.need("width")
		a.width = p.number("the width in mm")
	}
	p.need("moving")
	a.moving = p.point()
	return a
}

func (a *rollStep) do(r *run, s *Step, d *Done) error {
	l, _, err := a.edge.folded(r)
	if err != nil {
		return err
	}
	var width, sign float64
	if a.to != nil {
		to, seg, err := a.to.folded(r)
		if err != nil {
			return err
		}
		if math.Abs(l.N.Cross(to.N)) > 1e-6 && r.sh == nil {
			return fold.Errorf(fold.CodeNoLine, "%s does not run along %s, so the roll cannot end on it", a.edge.words(r), a.to.words(r))
		}
		off := l.Side(seg.Mid())
		width, sign = math.Abs(off)/float64(a.turns), math.Copysign(1, off)
	} else {
		width = a.width.num(r)
		// The edge moves away from its own side: towards the middle of the toy.
		side, err := r.rimSide(l)
		if err != nil {
			return err
		}
		sign = side
	}
	if !(width > 0.2) {
		return fold.Errorf(fold.CodeKnob, "a roll needs a width of more than 0.2 mm; it is %.2f mm", width)
	}
	for k := 1; k <= a.turns; k++ {
		now := l.Offset(sign * width * float64(k))
		if err := r.one(s, d, now, int8(-sign), fold.ValleySense, r.seedsAt(a.moving)); err != nil {
			return err
		}
	}
	return nil
}

// rimSide is the side of an edge on which the toy lies.
func (r *run) rimSide(l geom.Line) (float64, error) {
	d, err := r.decided(func() (decision, error) {
		s := l.Side(r.box.Centre())
		if math.Abs(s) < geom.OnPaper {
			return decision{}, fold.Errorf(fold.CodeNoLine, "the line to roll from runs through the middle, so it is not said which side is rolled")
		}
		return decision{i: int32(math.Copysign(1, s))}, nil
	})
	return float64(d.i), err
}

// round P radius MM count N [behind]: the corner is folded in by small folds that
// touch a circle in it.
type roundStep struct {
	corner pointExpr
	radius numExpr
	count  int
	behind bool
}

func readRound(p *parser, _ *Step) action {
	a := &roundStep{corner: p.point()}
	p.need("radius")
	a.radius = p.number("the radius in mm")
	p.need("count")
	a.count = int(p.ranged("the number of folds", 1, 12))
	a.behind = p.accept("behind")
	return a
}

func (a *roundStep) do(r *run, s *Step, d *Done) error {
	c, at, err := r.spot(a.corner)
	if err != nil {
		return err
	}
	arms, err := r.decided(func() (decision, error) {
		for _, f := range r.state.FacetsAtSheet(at) {
			for k, v := range r.state.F[f].Poly {
				if v.Dist(at) < geom.OnPaper {
					return decision{i: int32(f), j: int32(k)}, nil
				}
			}
		}
		return decision{}, fold.Errorf(fold.CodeMissesLine, "%s is not a corner of the paper", a.corner.words(r))
	})
	if err != nil {
		return err
	}
	poly, iso := r.state.F[arms.i].Poly, r.iso(fold.FacetID(arms.i))
	n := len(poly)
	u := iso.Apply(poly[(int(arms.j)+1)%n]).Sub(c).Unit()
	v := iso.Apply(poly[(int(arms.j)+n-1)%n]).Sub(c).Unit()
	half := math.Acos(math.Max(-1, math.Min(1, u.Dot(v)))) / 2
	radius := a.radius.num(r)
	in := u.Add(v).Unit()
	centre := c.Add(in.Scale(radius / math.Sin(half)))
	sense := fold.ValleySense
	if a.behind {
		sense = fold.MountainSense
	}
	span := math.Pi/2 - half // the arc runs this far either side of the corner
	for k := range a.count {
		turn := -span + 2*span*(float64(k)+0.5)/float64(a.count)
		out := geom.Rotation(turn, geom.Vec{}).Apply(in.Scale(-1))
		l := geom.Line{N: out, D: out.Dot(centre) + radius}
		seeds := func() ([]fold.FacetID, error) {
			var f []fold.FacetID // what of the corner's own layer is left beyond the line
			for i := range r.state.F {
				q := r.state.F[i]
				if q.Poly.Contains(at, 2*radius) && q.Iso.Near(r.state.F[r.state.FacetsAtSheet(at.Lerp(poly.Centroid(), 0.5))[0]].Iso, 1e-6) {
					f = append(f, fold.FacetID(i))
				}
			}
			return f, nil
		}
		if err := r.one(s, d, l, 1, sense, seeds); err != nil {
			return err
		}
	}
	return nil
}
