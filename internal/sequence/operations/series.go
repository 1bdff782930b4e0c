package operations

import (
	"math"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sequence/basis"
	"tussock/internal/sequence/lang"
	"tussock/internal/sheet"
)

// Steps that are several simple folds, one after the other.

// one makes a single simple fold as part of a step.
func one(r *sequence.Course, s *sequence.Step, d *sequence.Done, l geom.Line, side int8, sense fold.Sense, seeds func() ([]fold.FacetID, error)) error {
	return r.Move(d, []geom.Line{l}, false, func() (fold.Plan, error) {
		f, err := seeds()
		if err != nil {
			return fold.Plan{}, err
		}
		sel := fold.Selection{Line: l, Side: side, Seeds: f, Sense: sense}
		if len(d.Moving) == 0 {
			d.Line, d.Side, d.Moving = l, side, r.State.Closure(sel)
		}
		return r.State.SimpleFold(sel, fold.CreaseID(s.No))
	})
}

// seedsAt finds the pieces that hold a landmark, as the state is then.
func seedsAt(r *sequence.Course, e sequence.PointExpr) func() ([]fold.FacetID, error) {
	return func() ([]fold.FacetID, error) {
		p, err := e.Sheet(r)
		if err != nil {
			return nil, err
		}
		f := r.State.FacetsAtSheet(p)
		if len(f) == 0 {
			return nil, fold.Errorf(fold.CodeOffPaper, "%s is not on the paper", e.Words(r))
		}
		return f, nil
	}
}

func side(r *sequence.Course, l geom.Line, e sequence.PointExpr) (int8, error) {
	v, err := sequence.SideOf(r, l, e, "the fold line")
	return int8(v), err
}

// pinch FOLD near P [length MM] [angle DEG]: a mark, or with an angle a crease that stays
// folded over its own length and no further. Nothing is divided; landmarks may lie on it,
// and a later fold makes its own crease.
type pinchStep struct {
	fold          sequence.FoldLine
	near          sequence.PointExpr
	length, angle sequence.NumExpr
}

func readPinch(p *lang.Parser, _ *sequence.Step) sequence.Action {
	a := &pinchStep{fold: p.FoldLine(), length: sequence.NumLit(10)}
	if a.fold.Near == nil {
		p.Need("near")
		a.near = p.Point()
	} else {
		a.near = a.fold.Near
	}
	if p.Accept("length") {
		a.length = p.Number("the length in mm")
	}
	if p.Accept("angle") {
		a.angle = p.Number("the angle in degrees")
	}
	return a
}

func (a *pinchStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	at, err := r.Resolve(a.fold)
	if err != nil {
		return err
	}
	d.Line, d.Meets = at.Line, at.Meets
	p, err := a.near.Folded(r)
	if err != nil {
		return err
	}
	c := at.Line.Foot(p)
	half := at.Line.Dir().Scale(a.length.Num(r) / 2)
	// The mark lies on the top layer there, or on the one that holds the landmark.
	q, err := r.Pin(c, "the pinch")
	if err != nil {
		return err
	}
	if r.Sh != nil {
		return nil
	}
	if a.angle != nil { // it stays, and how long it is matters
		d.Refs = basis.Add(d.Refs, basis.Ref{Kind: basis.Length, Along: geom.Segment{A: c.Sub(half), B: c.Add(half)}, Value: a.length.Num(r)})
	}
	n := sequence.Note{Step: s.No, Kind: sequence.OpPinch, At: q, To: q, Text: s.Text}
	if a.angle != nil {
		n.FoldDeg = a.angle.Num(r)
		if !(math.Abs(n.FoldDeg) <= 180) {
			return fold.Errorf(fold.CodeKnob, "a crease is folded by up to 180° to either side, not %s°", sheet.Number(n.FoldDeg))
		}
	}
	if f := r.State.FacetsAtSheet(q); len(f) > 0 { // its ends, as far as the layer reaches
		n.At, n.To = onPiece(r, f[0], q, c.Sub(half)), onPiece(r, f[0], q, c.Add(half))
	}
	d.Lines = []geom.Segment{{A: c.Sub(half), B: c.Add(half)}}
	r.Out.Notes = append(r.Out.Notes, n)
	return nil
}

// onPiece is how far a piece reaches from a spot of it towards a place of the folded plane,
// on the sheet.
func onPiece(r *sequence.Course, f fold.FacetID, from, to geom.Vec) geom.Vec {
	end := r.Unfolded(f, to)
	poly := r.State.F[f].Poly
	if poly.Contains(end, geom.OnPaper) {
		return end
	}
	if rim, ok := poly.Exit(from, end.Sub(from)); ok {
		return rim
	}
	return from
}

// pair valley|mountain LINE moving P and LINE moving P
type pairStep struct {
	sense  fold.Sense
	lines  []sequence.LineExpr
	moving []sequence.PointExpr
}

func readPair(p *lang.Parser, _ *sequence.Step) sequence.Action {
	a := &pairStep{sense: fold.ValleySense}
	if p.OneOf("a sense", "valley", "mountain") == "mountain" {
		a.sense = fold.MountainSense
	}
	for {
		a.lines = append(a.lines, p.LineExpr())
		p.Need("moving")
		a.moving = append(a.moving, p.Point())
		if !p.Accept("and") {
			return a
		}
	}
}

func (a *pairStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	for i, e := range a.lines {
		l, seg, err := e.Folded(r)
		if err != nil {
			return err
		}
		side, err := side(r, l, a.moving[i])
		if err != nil {
			return err
		}
		if r.Sh == nil {
			d.Lines = append(d.Lines, seg)
		}
		if err := one(r, s, d, l, side, a.sense, seedsAt(r, a.moving[i])); err != nil {
			return err
		}
	}
	return nil
}

// pleat along L and L [and L…] moving P: forth and back, as often as lines are
// named. All lines are those of the paper before the step.
type pleatStep struct {
	lines  []sequence.LineExpr
	moving sequence.PointExpr
}

func readPleat(p *lang.Parser, _ *sequence.Step) sequence.Action {
	p.Need("along")
	a := &pleatStep{lines: []sequence.LineExpr{p.LineExpr()}}
	for p.Accept("and") {
		a.lines = append(a.lines, p.LineExpr())
	}
	if len(a.lines) < 2 {
		p.Fail("a pleat has two creases or more", `join them with "and"`)
	}
	p.Need("moving")
	a.moving = p.Point()
	return a
}

func (a *pleatStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	var lines []geom.Line
	for _, e := range a.lines {
		l, seg, err := e.Folded(r)
		if err != nil {
			return err
		}
		lines = append(lines, l)
		if r.Sh == nil {
			d.Lines = append(d.Lines, seg)
		}
	}
	m := geom.Identity // where the moving part has got to
	for _, l := range lines {
		now := l.Moved(m)
		side, err := side(r, now, a.moving)
		if err != nil {
			return err
		}
		if err := one(r, s, d, now, side, fold.ValleySense, seedsAt(r, a.moving)); err != nil {
			return err
		}
		m = geom.Reflection(now).After(m)
	}
	return nil
}

// roll LINE turns N [width MM | to LINE] moving P: an edge is folded over again
// and again by one width, or so that the last turn ends at a line.
type rollStep struct {
	edge   sequence.LineExpr
	turns  int
	width  sequence.NumExpr
	to     sequence.LineExpr
	moving sequence.PointExpr
}

func readRoll(p *lang.Parser, _ *sequence.Step) sequence.Action {
	a := &rollStep{edge: p.LineExpr()}
	p.Need("turns")
	a.turns = p.Count("the number of turns", 1, 20)
	if p.Accept("to") {
		a.to = p.LineExpr()
	} else {
		p.Need("width")
		a.width = p.Number("the width in mm")
	}
	p.Need("moving")
	a.moving = p.Point()
	return a
}

func (a *rollStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	l, edge, err := a.edge.Folded(r)
	if err != nil {
		return err
	}
	var width, sign float64
	if a.to != nil {
		to, seg, err := a.to.Folded(r)
		if err != nil {
			return err
		}
		if math.Abs(l.N.Cross(to.N)) > 1e-6 && r.Sh == nil {
			return fold.Errorf(fold.CodeNoLine, "%s does not run along %s, so the roll cannot end on it", a.edge.Words(r), a.to.Words(r))
		}
		off := l.Side(seg.Mid())
		width, sign = math.Abs(off)/float64(a.turns), math.Copysign(1, off)
	} else {
		width = a.width.Num(r)
		// The edge moves away from its own side: towards the middle of the toy.
		side, err := rimSide(r, l)
		if err != nil {
			return err
		}
		sign = side
	}
	if !(width > 0.2) {
		return fold.Errorf(fold.CodeKnob, "a roll needs a width of more than %s; it is %s", say.MM(0.2, 1), say.MM(width, 2))
	}
	r.RefLength(edge.Mid(), edge.Mid().Add(l.N.Scale(sign*width)))
	for k := 1; k <= a.turns; k++ {
		now := l.Offset(sign * width * float64(k))
		if err := one(r, s, d, now, int8(-sign), fold.ValleySense, seedsAt(r, a.moving)); err != nil {
			return err
		}
	}
	return nil
}

// rimSide is the side of an edge on which the toy lies.
func rimSide(r *sequence.Course, l geom.Line) (float64, error) {
	d, err := r.Decided(func() (sequence.Decision, error) {
		s := l.Side(r.Box.Centre())
		if math.Abs(s) < geom.OnPaper {
			return sequence.Decision{}, fold.Errorf(fold.CodeNoLine, "the line to roll from runs through the middle, so it is not said which side is rolled")
		}
		return sequence.Decision{I: int32(math.Copysign(1, s))}, nil
	})
	return float64(d.I), err
}

// round P radius MM count N [behind]: the corner is folded in by small folds that
// touch a circle in it.
type roundStep struct {
	corner sequence.PointExpr
	radius sequence.NumExpr
	count  int
	behind bool
}

func readRound(p *lang.Parser, _ *sequence.Step) sequence.Action {
	a := &roundStep{corner: p.Point()}
	p.Need("radius")
	a.radius = p.Number("the radius in mm")
	p.Need("count")
	a.count = p.Count("the number of folds", 1, 12)
	a.behind = p.Accept("behind")
	return a
}

func (a *roundStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	c, at, err := r.Spot(a.corner)
	if err != nil {
		return err
	}
	arms, err := r.Decided(func() (sequence.Decision, error) {
		for _, f := range r.State.FacetsAtSheet(at) {
			for k, v := range r.State.F[f].Poly {
				if v.Dist(at) < geom.OnPaper {
					return sequence.Decision{I: int32(f), J: int32(k)}, nil
				}
			}
		}
		return sequence.Decision{}, fold.Errorf(fold.CodeMissesLine, "%s is not a corner of the paper", a.corner.Words(r))
	})
	if err != nil {
		return err
	}
	poly, iso := r.State.F[arms.I].Poly, r.Iso(fold.FacetID(arms.I))
	n := len(poly)
	u := iso.Apply(poly[(int(arms.J)+1)%n]).Sub(c).Unit()
	v := iso.Apply(poly[(int(arms.J)+n-1)%n]).Sub(c).Unit()
	half := math.Acos(math.Max(-1, math.Min(1, u.Dot(v)))) / 2
	radius := a.radius.Num(r)
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
			for i := range r.State.F {
				q := r.State.F[i]
				if q.Poly.Contains(at, 2*radius) && q.Iso.Near(r.State.F[r.State.FacetsAtSheet(at.Lerp(poly.Centroid(), 0.5))[0]].Iso, geom.Still) {
					f = append(f, fold.FacetID(i))
				}
			}
			return f, nil
		}
		if err := one(r, s, d, l, 1, sense, seeds); err != nil {
			return err
		}
	}
	return nil
}
