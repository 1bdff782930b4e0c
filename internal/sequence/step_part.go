package sequence

import (
	"math"

	"tussock/internal/fold"
	"tussock/internal/geom"
)

// Steps that part paper, join it, take it back, or carry a mark.

// cut|tear FOLD removing P [layers …] | cut FOLD moving P …: what lies beyond the
// line on the side of P comes off.
type cutStep struct {
	foldStep
	removing pointExpr
}

func readCut(p *parser, _ *Step) action {
	a := &cutStep{}
	a.fold = p.foldLine()
	p.need("removing")
	a.removing = p.point()
	a.all = true
	if p.accept("layers") {
		a.all = false
		a.readLayers(p)
	}
	return a
}

func (a *cutStep) do(r *run, s *Step, d *Done) error {
	at, err := r.resolve(a.fold)
	if err != nil {
		return err
	}
	d.Line, d.Meets = at.line, at.meets
	sign, err := r.side(at.line, a.removing)
	if err != nil {
		return err
	}
	d.Side = sign
	return r.move(d, []geom.Line{at.line}, false, func() (fold.Plan, error) {
		var set []fold.FacetID
		if a.layers.at != nil {
			if set, err = a.counted(r); err != nil {
				return fold.Plan{}, err
			}
		} else {
			for i := range r.state.F {
				set = append(set, fold.FacetID(i))
			}
		}
		d.Moving = set
		return cutOff(r.state, at.line, float64(sign), set, fold.CreaseID(s.No))
	})
}

// cutOff plans the removal of what lies beyond a line.
func cutOff(s *fold.State, l geom.Line, side float64, set []fold.FacetID, id fold.CreaseID) (fold.Plan, error) {
	p := fold.Plan{Crease: id}
	if crossed := s.Crossed(set, l); len(crossed) > 0 {
		p.Splits = []fold.Split{{Line: l, Facets: crossed}}
	}
	d := s
	if len(p.Splits) > 0 {
		var err error
		if d, err = s.Divide(p.Splits, id); err != nil {
			return p, err
		}
	}
	in := make(map[fold.FacetID]bool, len(set))
	for _, f := range set {
		in[f] = true
	}
	for i := range d.F {
		parent := fold.FacetID(i)
		if d != s {
			parent = d.F[i].Parent
		}
		if in[parent] && side*l.Side(d.Folded(fold.FacetID(i)).Centroid()) > 0 {
			p.Remove = append(p.Remove, fold.FacetID(i))
		}
	}
	if len(p.Remove) == 0 || len(p.Remove) == len(d.F) {
		return p, fold.Errorf(fold.CodeMissesLine, "the cut does not part the paper")
	}
	after, err := s.Apply(p)
	if err != nil {
		return p, err
	}
	if !after.InOnePiece() {
		return p, fold.Errorf(fold.CodeTear, "the cut would leave the paper in more than one piece")
	}
	return p, nil
}

// slit P P [and P P]…: a cut inside the paper, along the sheet between two
// landmarks, through the layer they lie on.
type slitStep struct{ cuts []linePair }

func readSlit(p *parser, _ *Step) action {
	a := &slitStep{}
	for {
		a.cuts = append(a.cuts, linePair{p.point(), p.point()})
		if !p.accept("and") {
			return a
		}
	}
}

func (a *slitStep) do(r *run, s *Step, d *Done) error {
	var lines []geom.Line
	var cuts []geom.Segment
	for _, c := range a.cuts {
		u, err := c.a.sheet(r)
		if err != nil {
			return err
		}
		v, err := c.b.sheet(r)
		if err != nil {
			return err
		}
		lines, cuts = append(lines, geom.LineAt(u, v.Sub(u))), append(cuts, geom.Segment{A: u, B: v})
	}
	return r.move(d, lines, true, func() (fold.Plan, error) {
		p := fold.Plan{Crease: fold.CreaseID(s.No), Slit: cuts}
		for k, c := range cuts {
			l, ok := geom.LineThrough(c.A, c.B)
			if !ok {
				return p, fold.Errorf(fold.CodeNoLine, "the two ends of the slit lie on one spot")
			}
			var set []fold.FacetID
			for i := range r.state.F {
				if geom.Crosses(r.state.F[i].Poly, l, c.A, c.B) {
					set = append(set, fold.FacetID(i))
				}
			}
			if len(set) > 0 {
				p.Splits = append(p.Splits, fold.Split{Line: l, OnSheet: true, Facets: set, Pressed: &cuts[k], From: int8(k)})
			}
		}
		after, err := r.state.Apply(p)
		if err == nil && !after.InOnePiece() {
			err = fold.Errorf(fold.CodeTear, "the slit would part the paper in two; use cut for that")
		}
		return p, err
	})
}

// unfold all | unfold [last] | unfold to NAME; refold
type unfoldStep struct {
	all  bool
	to   string
	back bool // refold
}

func readUnfold(p *parser, _ *Step) action {
	switch {
	case p.accept("all"):
		return &unfoldStep{all: true}
	case p.accept("to"):
		return &unfoldStep{to: p.known(ALine)}
	}
	p.accept("last")
	return &unfoldStep{}
}

func readRefold(*parser, *Step) action { return &unfoldStep{back: true} }

func (a *unfoldStep) do(r *run, s *Step, d *Done) error {
	if r.sh != nil {
		return r.sh.follow(r, nil)
	}
	to, err := a.target(r, s.No)
	if err != nil {
		return err
	}
	return r.pass(d, fold.Plan{States: &fold.Known{To: to}})
}

func (a *unfoldStep) target(r *run, no int) (*fold.State, error) {
	done := r.out.Steps
	switch {
	case a.all:
		return r.out.Start, nil
	case a.back:
		for i := len(done) - 1; i >= 0; i-- {
			if done[i].Op == OpUnfold {
				return done[i].Before, nil
			}
		}
		return nil, fold.Errorf(fold.CodeOrder, "nothing has been unfolded that could be folded again")
	case a.to != "":
		for i := range done {
			if done[i].Name == a.to {
				return done[i].After, nil
			}
		}
		return nil, fold.Errorf(fold.CodeOrder, "no step before this one is called %q", a.to)
	case len(done) == 0:
		return nil, fold.Errorf(fold.CodeOrder, "there is nothing to unfold before step %d", no)
	}
	return done[len(done)-1].Before, nil
}

// transfer P across LINE as NAME: the toy is folded at the line for a moment and
// the mark carried to the layer it then touches.
type transferStep struct {
	p    pointExpr
	l    lineExpr
	name string
}

func readTransfer(p *parser, _ *Step) action {
	a := &transferStep{p: p.point()}
	p.need("across")
	a.l = p.lineExpr()
	p.need("as")
	a.name = p.newName(APoint)
	p.calledWords(a.name)
	return a
}

func (a *transferStep) do(r *run, _ *Step, d *Done) error {
	at, err := a.p.folded(r)
	if err != nil {
		return err
	}
	l, _, err := a.l.folded(r)
	if err != nil {
		return err
	}
	to := l.Mirror(at)
	q, err := r.pin(to, "the mark carried over")
	if err != nil {
		return err
	}
	r.points[a.name] = q
	d.Line, d.At = l, &at
	d.Meets = [2]Mark{pointMark(a.p.words(r), at), pointMark(r.pat.Called(a.name), to)}
	return nil
}

// glue P to P [mass G]: the faces at two spots of the sheet that lie on each other.
type glueStep struct {
	a, b pointExpr
	mass numExpr
}

func readGlue(p *parser, _ *Step) action {
	a := &glueStep{a: p.point()}
	p.need("to")
	a.b = p.point()
	a.mass = numLit(0)
	if p.accept("mass") {
		a.mass = p.number("the mass in g")
	}
	return a
}

func (a *glueStep) do(r *run, s *Step, d *Done) error {
	at, err := a.a.folded(r)
	if err != nil {
		return err
	}
	d.At = &at
	if r.sh != nil {
		return r.sh.follow(r, nil)
	}
	p, err := a.a.sheet(r)
	if err != nil {
		return err
	}
	q, err := a.b.sheet(r)
	if err != nil {
		return err
	}
	for _, f := range r.state.FacetsAtSheet(p) {
		for _, g := range r.state.FacetsAtSheet(q) {
			if f == g || r.state.Above(f, g) == 0 {
				continue
			}
			r.out.Masses = append(r.out.Masses, Mass{Step: s.No, Kind: OpGlue, At: p, G: math.Max(0, math.Min(100, a.mass.num(r)))})
			return r.pass(d, fold.Plan{Glue: [][2]fold.FacetID{{f, g}}})
		}
	}
	return fold.Errorf(fold.CodeGlue, "%s and %s do not lie on each other, so they cannot be glued", a.a.words(r), a.b.words(r))
}

// tape P [size MM MM] mass G [back] | clip P mass G
type tapeStep struct {
	at            pointExpr
	width, height numExpr
	mass          numExpr
	back          bool
}

func readTape(p *parser, s *Step) action {
	a := &tapeStep{at: p.point(), width: numLit(0), height: numLit(0)}
	if s.Op == OpTape && p.accept("size") {
		a.width, a.height = p.number("the width in mm"), p.number("the height in mm")
	}
	p.need("mass")
	a.mass = p.number("the mass in g")
	a.back = p.accept("back")
	return a
}

func (a *tapeStep) do(r *run, s *Step, d *Done) error {
	at, err := a.at.folded(r)
	if err != nil {
		return err
	}
	p, err := a.at.sheet(r)
	if err != nil || r.sh != nil {
		return err
	}
	d.At = &at
	g := a.mass.num(r)
	if math.IsNaN(g) || g < 0 || g > 100 {
		return fold.Errorf(fold.CodeKnob, "the mass is 0 to 100 g, not %g", g)
	}
	r.out.Masses = append(r.out.Masses, Mass{Step: s.No, Kind: s.Op, At: p, G: g,
		Width: a.width.num(r), Height: a.height.num(r), OnBack: a.back})
	return nil
}

// label P "text" [back] | ink P P "text" [back] | axle P [to P]
type noteStep struct {
	at, to pointExpr
	text   string
	back   bool
}

func readLabel(p *parser, _ *Step) action {
	a := &noteStep{at: p.point()}
	a.text = p.needText("what is written")
	a.back = p.accept("back")
	return a
}

func readInk(p *parser, _ *Step) action {
	a := &noteStep{at: p.point(), to: p.point()}
	if p.peek().kind == tokText {
		a.text = p.next().text
	}
	a.back = p.accept("back")
	return a
}

func readAxle(p *parser, _ *Step) action {
	a := &noteStep{at: p.point()}
	if p.accept("to") {
		a.to = p.point()
	}
	return a
}

func (a *noteStep) do(r *run, s *Step, d *Done) error {
	at, p, err := r.spot(a.at)
	if err != nil {
		return err
	}
	q := p
	if a.to != nil {
		if q, err = a.to.sheet(r); err != nil {
			return err
		}
	}
	if r.sh != nil {
		return nil
	}
	d.At = &at
	if s.Op == OpInk {
		d.Lines = r.visibleStretch(geom.Segment{A: p, B: q})
	}
	r.out.Notes = append(r.out.Notes, Note{Step: s.No, Kind: s.Op, At: p, To: q, Text: a.text, OnBack: a.back})
	return nil
}

func (r *run) visibleStretch(s geom.Segment) []geom.Segment {
	l, ok := geom.LineThrough(s.A, s.B)
	if !ok {
		return nil
	}
	var out []geom.Segment
	for i := range r.state.F {
		if part, ok := stretch(r.state.F[i].Poly, l, s); ok {
			iso := r.state.F[i].Iso
			out = append(out, geom.Segment{A: iso.Apply(part.A), B: iso.Apply(part.B)})
		}
	}
	return out
}

// Title is what the field calls it.
func (a *unfoldStep) Title() string {
	if a.back {
		return "fold again"
	}
	return "open"
}
