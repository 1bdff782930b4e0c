package sequence

import (
	"math"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sheet"
)

// Steps in the round. They are kept beside the flat toy and evaluated on the
// finished one: each says what bends where, and by how much.

// Opening is a crease that is opened to an angle once the folding is done.
type Opening struct {
	Pieces   []geom.Segment // of the crease, on the sheet
	Moving   geom.Vec       // a point of the part that swings, on the sheet
	AngleDeg float64        // 180 flat-folded, 0 flat open
	Step     int
	Op       Op   // the word it was set by
	Rides    bool // what swings stands on another part
}

// Bending bends layers about a line without a crease, over an arc of a given
// radius. Line and Moving are places of the sheet: the line runs through A and B
// as they lie in the finished toy.
type Bending struct {
	Step     int
	Kind     Op
	A, B     geom.Vec // two spots of the sheet that the line goes through
	Moving   geom.Vec // a spot of the part that is bent away
	AngleDeg float64  // positive towards the viewer
	RadiusMM float64
}

// Parting spreads the leaves that hang on a line to equal angles.
type Parting struct {
	Step   int
	Pieces []geom.Segment // of the axis, on the sheet
	Leaves int
}

// Pivoting slides layers by a small turn in their own plane. It is not strictly
// flat: the paper bulges a little by what does not close.
type Pivoting struct {
	Step     int
	At       geom.Vec // on the sheet
	Moving   geom.Vec
	AngleDeg float64
}

// open along LINE [and LINE] moving P [and P] angle DEG
type openStep struct {
	lines  []lineExpr
	moving []pointExpr
	angle  numExpr
	rides  bool
}

func readOpen(p *parser, _ *Step) action { return readOpening(p) }

// readSetting reads an opening by the word of a way of moving.
func readSetting(p *parser, _ *Step, t Setting) action {
	a := readOpening(p)
	a.rides = t.Rides
	return a
}

func readOpening(p *parser) *openStep {
	a := &openStep{}
	p.need("along")
	a.lines = append(a.lines, p.lineExpr())
	for p.accept("and") {
		a.lines = append(a.lines, p.lineExpr())
	}
	p.need("moving")
	a.moving = append(a.moving, p.point())
	for p.accept("and") {
		a.moving = append(a.moving, p.point())
	}
	if len(a.moving) != len(a.lines) {
		p.fail(numbered(len(a.lines))+" need as many landmarks that move", `join them with "and"`)
	}
	p.need("angle")
	a.angle = p.number("the angle in degrees")
	return a
}

func numbered(n int) string {
	if n == 1 {
		return "one line"
	}
	return "several lines"
}

func (a *openStep) do(r *run, s *Step, d *Done) error {
	d.AngleDeg = a.angle.num(r)
	if d.AngleDeg < 0 || d.AngleDeg > 180 {
		return fold.Errorf(fold.CodeKnob, "a flap opens to between 0 and 180 degrees, not %s", sheet.Number(d.AngleDeg))
	}
	for i, l := range a.lines {
		line, seg, err := l.folded(r)
		if err != nil {
			return err
		}
		m, err := a.moving[i].sheet(r)
		if err != nil {
			return err
		}
		at, err := a.moving[i].folded(r)
		if err != nil {
			return err
		}
		if i == 0 { // the one on top stands for both in pictures
			d.Line, d.At = line, &at
		}
		if r.sh != nil {
			continue
		}
		pieces, err := r.sheetPieces(l)
		if err != nil {
			return err
		}
		d.Lines = append(d.Lines, seg)
		r.out.Openings = append(r.out.Openings, Opening{pieces, m, d.AngleDeg, s.No, s.Op, a.rides})
	}
	return nil
}

// bend|curl|wrap LINE moving P [angle DEG] [radius MM | girth MM | diameter MM] [down]
// A bend has an angle, a curl an angle or a radius, a wrap goes as far round as
// the paper reaches.
type bendStep struct {
	line   lineExpr
	moving pointExpr
	angle  numExpr
	radius numExpr
	factor float64 // what the number is multiplied by to be a radius
	down   bool
}

func readBend(p *parser, s *Step) action {
	a := &bendStep{line: p.lineExpr(), factor: 1}
	p.need("moving")
	a.moving = p.point()
	if p.accept("angle") {
		a.angle = p.number("the angle in degrees")
	}
	switch {
	case p.accept("radius"):
		a.radius = p.number("the radius in mm")
	case p.accept("diameter"):
		a.radius, a.factor = p.number("the diameter in mm"), 0.5
	case p.accept("girth"):
		a.radius, a.factor = p.number("the girth in mm"), 1/(2*math.Pi)
	}
	a.down = p.accept("down")
	switch {
	case s.Op == OpBend && a.angle == nil:
		p.fail("a bend needs an angle", "write: angle DEG")
	case s.Op == OpWrap && a.radius == nil:
		p.fail("a wrap needs a radius, a diameter or a girth", "write for example: girth 55")
	case a.angle == nil && a.radius == nil:
		p.fail("a curl needs an angle or a radius", "write: angle DEG or radius MM")
	}
	return a
}

// bendRadius is the radius of a bend made by fingers when none is given, in mm:
// about that of a pencil.
const bendRadius = 4.0

func (a *bendStep) do(r *run, s *Step, d *Done) error {
	line, seg, err := a.line.folded(r)
	if err != nil {
		return err
	}
	at, m, err := r.spot(a.moving)
	if err != nil {
		return err
	}
	side, err := sideOf(r, line, a.moving, a.line.words(r))
	if err != nil || r.sh != nil {
		return err
	}
	b := Bending{Step: s.No, Kind: s.Op, Moving: m, RadiusMM: bendRadius}
	if a.radius != nil {
		b.RadiusMM = a.radius.num(r) * a.factor
	}
	if !(b.RadiusMM > 0.05 && b.RadiusMM < 1e4) {
		return fold.Errorf(fold.CodeKnob, "the radius is more than 0.05 mm and less than 10 m, not %s mm", sheet.Number(b.RadiusMM))
	}
	if a.angle != nil {
		b.AngleDeg = a.angle.num(r)
	} else { // as far as the paper beyond the line reaches round the radius
		far := 0.0
		for _, p := range r.boxCorners() {
			far = math.Max(far, side*line.Side(p))
		}
		b.AngleDeg = math.Min(geom.Deg(far/b.RadiusMM), 1440)
	}
	if math.Abs(b.AngleDeg) > 1440 {
		return fold.Errorf(fold.CodeKnob, "a bend goes at most four times round, not %s°", sheet.Number(b.AngleDeg))
	}
	if a.down {
		b.AngleDeg = -b.AngleDeg
	}
	// Two spots of the paper on the line, on the layer that moves.
	for i, p := range []geom.Vec{seg.A, seg.B} {
		q, err := r.onLayerOf(p, m)
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
	r.out.Bends = append(r.out.Bends, b)
	return nil
}

// onLayerOf is a place of the folded plane as a spot of the plane of the piece
// that holds sheet point m, on the paper or beyond it.
func (r *run) onLayerOf(p, m geom.Vec) (geom.Vec, error) {
	f := r.state.FacetsAtSheet(m)
	if len(f) == 0 {
		return m, fold.Errorf(fold.CodeOffPaper, "the part that bends is not on the paper")
	}
	return r.unfolded(f[0], p), nil
}

func (r *run) boxCorners() []geom.Vec {
	b := r.box
	return []geom.Vec{{X: b.MinX, Y: b.MinY}, {X: b.MaxX, Y: b.MinY}, {X: b.MaxX, Y: b.MaxY}, {X: b.MinX, Y: b.MaxY}}
}

// part LINE into N
type partStep struct {
	line   lineExpr
	leaves int
}

func readPart(p *parser, _ *Step) action {
	a := &partStep{line: p.lineExpr()}
	p.need("into")
	a.leaves = int(p.ranged("the number of leaves", 2, 24))
	return a
}

func (a *partStep) do(r *run, s *Step, d *Done) error {
	line, seg, err := a.line.folded(r)
	if err != nil || r.sh != nil {
		return err
	}
	// The leaves hang together at the folds that lie on the line.
	var pieces []geom.Segment
	for _, h := range r.state.H {
		iso := r.state.F[h.A].Iso
		if r.state.Assigned(h) != fold.Flat && math.Abs(line.Side(iso.Apply(h.P))) < geom.OnPaper && math.Abs(line.Side(iso.Apply(h.Q))) < geom.OnPaper {
			pieces = append(pieces, geom.Segment{A: h.P, B: h.Q})
		}
	}
	if len(pieces) == 0 {
		return fold.Errorf(fold.CodeMissesLine, "no leaves hang on %s", a.line.words(r))
	}
	d.Line, d.AngleDeg, d.Lines = line, 360/float64(a.leaves), []geom.Segment{seg}
	r.out.Parts = append(r.out.Parts, Parting{s.No, pieces, a.leaves})
	return nil
}

// pivot P about P angle DEG
type pivotStep struct {
	moving, about pointExpr
	angle         numExpr
}

func readPivot(p *parser, _ *Step) action {
	a := &pivotStep{moving: p.point()}
	p.need("about")
	a.about = p.point()
	p.need("angle")
	a.angle = p.number("the angle in degrees")
	return a
}

func (a *pivotStep) do(r *run, s *Step, d *Done) error {
	at, m, err := r.spot(a.moving)
	if err != nil {
		return err
	}
	about, err := a.about.sheet(r)
	if err != nil || r.sh != nil {
		return err
	}
	d.At, d.AngleDeg = &at, a.angle.num(r)
	if math.Abs(d.AngleDeg) > 15 || math.IsNaN(d.AngleDeg) {
		return fold.Errorf(fold.CodeKnob, "layers slide by 15° at most, not by %s°", sheet.Number(d.AngleDeg))
	}
	r.out.Pivots = append(r.out.Pivots, Pivoting{s.No, about, m, d.AngleDeg})
	return nil
}
