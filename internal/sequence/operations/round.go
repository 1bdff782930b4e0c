package operations

import (
	"math"
	"slices"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sequence/lang"
	"tussock/internal/sheet"
)

// open along LINE [and LINE] moving P [and P] angle DEG [up|down] [with LINE [and LINE]] [instead NAME]
type openStep struct {
	lines  []sequence.LineExpr
	moving []sequence.PointExpr
	angle  sequence.NumExpr
	rides  bool
	fresh  int8
	with   []sequence.LineExpr
	in     string // the name of an opening that this one stands instead of
}

func readOpen(p *lang.Parser, _ *sequence.Step) sequence.Action {
	a := readOpening(p)
	if p.Accept("up") {
		a.fresh = 1
	} else if p.Accept("down") {
		a.fresh = -1
	}
	if p.Accept("with") {
		a.with = append(a.with, p.LineExpr())
		for p.Accept("and") {
			a.with = append(a.with, p.LineExpr())
		}
	}
	if p.Accept("instead") {
		a.in = p.Known(sequence.ALine)
	}
	return a
}

// readSetting reads an opening by the word of a way of moving.
func readSetting(p *lang.Parser, _ *sequence.Step, t sequence.Setting) sequence.Action {
	a := readOpening(p)
	a.rides = t.Rides
	return a
}

func readOpening(p *lang.Parser) *openStep {
	a := &openStep{}
	p.Need("along")
	a.lines = append(a.lines, p.LineExpr())
	for p.Accept("and") {
		a.lines = append(a.lines, p.LineExpr())
	}
	p.Need("moving")
	a.moving = append(a.moving, p.Point())
	for p.Accept("and") {
		a.moving = append(a.moving, p.Point())
	}
	if len(a.moving) != len(a.lines) {
		p.Fail(numbered(len(a.lines))+" need as many landmarks that move", `join them with "and"`)
	}
	p.Need("angle")
	a.angle = p.Number("the angle in degrees")
	return a
}

func numbered(n int) string {
	if n == 1 {
		return "one line"
	}
	return "several lines"
}

func (a *openStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	d.AngleDeg = a.angle.Num(r)
	if d.AngleDeg < 0 || d.AngleDeg > 180 {
		return fold.Errorf(fold.CodeKnob, "a flap opens to between 0 and 180 degrees, not %s", sheet.Number(d.AngleDeg))
	}
	if r.Sh == nil && a.in != "" {
		old := r.Pat.StepNamed(a.in)
		for i := range r.Out.Openings {
			if o := &r.Out.Openings[i]; o.Step == old && o.Until == 0 {
				o.Until = s.No
			}
		}
	}
	for i, l := range a.lines {
		line, seg, err := l.Folded(r)
		if err != nil {
			return err
		}
		m, err := a.moving[i].Sheet(r)
		if err != nil {
			return err
		}
		at, err := r.Unseen(a.moving[i])
		if err != nil {
			return err
		}
		if i == 0 { // the one on top stands for both in pictures
			d.Line, d.At = line, &at
		}
		if r.Sh != nil {
			continue
		}
		pieces, err := sheetPieces(r, l)
		if err != nil {
			return err
		}
		with, err := a.along(r, l, pieces)
		if err != nil && r.Lax() { // on a sheet that is a little off it does not open: the flat toy is looked at
			continue
		}
		if err != nil {
			return err
		}
		d.Lines = append(d.Lines, seg)
		r.Out.Openings = append(r.Out.Openings, sequence.Opening{Pieces: pieces, Moving: m, AngleDeg: d.AngleDeg, Step: s.No, Op: s.Op, Rides: a.rides, Fresh: a.fresh, With: with})
	}
	return nil
}

// along checks that there is something to open, and finds what opens with it.
func (a *openStep) along(r *sequence.Course, l sequence.LineExpr, pieces []geom.Segment) (with []geom.Segment, err error) {
	already := folded(r, pieces) || slices.ContainsFunc(r.Out.Openings, func(o sequence.Opening) bool {
		return o.Fresh != 0 && slices.Equal(o.Pieces, pieces)
	})
	switch {
	case a.fresh == 0 && !already:
		return nil, fold.Errorf(fold.CodeNoLine, "nothing is folded along %s, so there is nothing to open; fold it first, say up or down behind the angle where it is creased, or write a bend", l.Words(r))
	case a.fresh != 0 && folded(r, pieces):
		return nil, fold.Errorf(fold.CodeNoLine, "%s is folded already, and so it opens the way it was folded; leave up or down out", l.Words(r))
	case a.fresh != 0 && !slices.ContainsFunc(r.State.H, func(h fold.Hinge) bool { return h.Along(pieces...) }):
		return nil, fold.Errorf(fold.CodeNoLine, "no crease lies along %s; crease it first, or write a bend", l.Words(r))
	}
	for _, w := range a.with {
		more, err := sheetPieces(r, w)
		if err != nil {
			return nil, err
		}
		if !folded(r, more) {
			return nil, fold.Errorf(fold.CodeNoLine, "nothing is folded along %s, so it cannot open", w.Words(r))
		}
		with = append(with, more...)
	}
	return with, nil
}

// folded tells whether the paper is folded along stretches of the sheet.
func folded(r *sequence.Course, along []geom.Segment) bool {
	return slices.ContainsFunc(r.State.H, func(h fold.Hinge) bool {
		return r.State.Assigned(h) != fold.Flat && h.Along(along...)
	})
}

// bend|curl|wrap LINE moving P [angle DEG] [radius MM | girth MM | diameter MM] [down]
// A bend has an angle, a curl an angle or a radius, a wrap goes as far round as
// the paper reaches.
type bendStep struct {
	line   sequence.LineExpr
	moving sequence.PointExpr
	angle  sequence.NumExpr
	radius sequence.NumExpr
	factor float64 // what the number is multiplied by to be a radius
	down   bool
	all    bool // all layers beyond the line
}

func readBend(p *lang.Parser, s *sequence.Step) sequence.Action {
	a := &bendStep{line: p.LineExpr(), factor: 1}
	p.Need("moving")
	a.moving = p.Point()
	if p.Accept("angle") {
		a.angle = p.Number("the angle in degrees")
	}
	switch {
	case p.Accept("radius"):
		a.radius = p.Number("the radius in mm")
	case p.Accept("diameter"):
		a.radius, a.factor = p.Number("the diameter in mm"), 0.5
	case p.Accept("girth"):
		a.radius, a.factor = p.Number("the girth in mm"), 1/(2*math.Pi)
	}
	a.down = p.Accept("down")
	if p.Accept("layers") {
		p.Need("all")
		a.all = true
	}
	switch {
	case s.Op == sequence.OpBend && a.angle == nil:
		p.Fail("a bend needs an angle", "write: angle DEG")
	case s.Op == sequence.OpWrap && a.radius == nil:
		p.Fail("a wrap needs a radius, a diameter or a girth", "write for example: girth 55")
	case a.angle == nil && a.radius == nil:
		p.Fail("a curl needs an angle or a radius", "write: angle DEG or radius MM")
	}
	return a
}

// bendRadius is the radius of a bend made by fingers when none is given, in mm:
// about that of a pencil.
const bendRadius = 4.0

func (a *bendStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	line, seg, err := a.line.Folded(r)
	if err != nil {
		return err
	}
	at, m, err := r.Spot(a.moving)
	if err != nil {
		return err
	}
	side, err := sequence.SideOf(r, line, a.moving, a.line.Words(r))
	if err != nil || r.Sh != nil {
		return err
	}
	if near, far := reach(r, line, side); far < geom.OnPaper || near > geom.OnPaper {
		return fold.Errorf(fold.CodeNoLine, "%s runs beside the paper, so nothing would be bent; take a line that crosses it", a.line.Words(r))
	}
	b := bending{sequence.Bending{Step: s.No, Kind: s.Op, Moving: m, RadiusMM: bendRadius, All: a.all}}
	if a.radius != nil {
		b.RadiusMM = a.radius.Num(r) * a.factor
	}
	if !(b.RadiusMM > 0.05 && b.RadiusMM < 1e4) {
		return fold.Errorf(fold.CodeKnob, "the radius is %s, not %s", say.Range(0.05, 1e4, 2), say.MM(b.RadiusMM, 2))
	}
	if a.angle != nil {
		b.AngleDeg = a.angle.Num(r)
	} else { // as far as the paper beyond the line reaches round the radius
		far := 0.0
		for _, p := range boxCorners(r) {
			far = math.Max(far, side*line.Side(p))
		}
		b.AngleDeg = math.Min(geom.Deg(far/b.RadiusMM), mostTurns*360)
		if s.Op == sequence.OpWrap {
			b.wound(r, line, side, far)
		}
	}
	if math.Abs(b.AngleDeg) > mostTurns*360 {
		return fold.Errorf(fold.CodeKnob, "a bend goes at most four times round, not %s°", sheet.Number(b.AngleDeg))
	}
	if a.down {
		b.AngleDeg = -b.AngleDeg
	}
	// Two spots of the paper on the line, on the layer that moves.
	for i, p := range []geom.Vec{seg.A, seg.B} {
		q, err := onLayerOf(r, p, m)
		if err != nil {
			return err
		}
		if i == 0 {
			b.A = q
		} else {
			b.B = q
		}
	}
	d.Line, d.At, d.AngleDeg, d.Lines = line, &at, b.AngleDeg, []geom.Segment{seg}
	r.Out.Bends = append(r.Out.Bends, b.Bending)
	return nil
}

// reach is from how far to how far the paper lies to one side of a line, mm.
func reach(r *sequence.Course, l geom.Line, side float64) (near, far float64) {
	near, far = math.Inf(1), math.Inf(-1)
	for i := range r.State.F {
		for _, v := range r.State.Folded(fold.FacetID(i)) {
			d := side * l.Side(v)
			near, far = math.Min(near, d), math.Max(far, d)
		}
	}
	return near, far
}

// onLayerOf is a place of the folded plane as a spot of the plane of the piece
// that holds sheet point m, on the paper or beyond it.
func onLayerOf(r *sequence.Course, p, m geom.Vec) (geom.Vec, error) {
	f := r.State.FacetsAtSheet(m)
	if len(f) == 0 {
		return m, fold.Errorf(fold.CodeOffPaper, "the part that bends is not on the paper")
	}
	return r.Unfolded(f[0], p), nil
}

func boxCorners(r *sequence.Course) []geom.Vec {
	b := r.Box
	return []geom.Vec{{X: b.MinX, Y: b.MinY}, {X: b.MaxX, Y: b.MinY}, {X: b.MaxX, Y: b.MaxY}, {X: b.MinX, Y: b.MaxY}}
}

// pivot P about P angle DEG
type pivotStep struct {
	moving, about sequence.PointExpr
	angle         sequence.NumExpr
}

func readPivot(p *lang.Parser, _ *sequence.Step) sequence.Action {
	a := &pivotStep{moving: p.Point()}
	p.Need("about")
	a.about = p.Point()
	p.Need("angle")
	a.angle = p.Number("the angle in degrees")
	return a
}

func (a *pivotStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	at, m, err := r.Spot(a.moving)
	if err != nil {
		return err
	}
	about, err := a.about.Sheet(r)
	if err != nil || r.Sh != nil {
		return err
	}
	d.At, d.AngleDeg = &at, a.angle.Num(r)
	if math.Abs(d.AngleDeg) > 15 || math.IsNaN(d.AngleDeg) {
		return fold.Errorf(fold.CodeKnob, "layers slide by 15° at most, not by %s°", sheet.Number(d.AngleDeg))
	}
	r.Out.Pivots = append(r.Out.Pivots, sequence.Pivoting{Step: s.No, At: about, Moving: m, AngleDeg: d.AngleDeg})
	return nil
}
