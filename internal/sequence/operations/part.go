package operations

import (
	"fmt"
	"math"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sequence/basis"
	"tussock/internal/sequence/lang"
)

// Steps that part paper, join it, take it back, or carry a mark.

// cut|tear FOLD removing P [layers …] | cut FOLD moving P …: what lies beyond the
// line on the side of P comes off.
type cutStep struct {
	foldStep
	removing sequence.PointExpr
}

func readCut(p *lang.Parser, _ *sequence.Step) sequence.Action {
	a := &cutStep{}
	a.fold = p.FoldLine()
	p.Need("removing")
	a.removing = p.Point()
	a.all = true
	if p.Accept("layers") {
		a.all = false
		a.readLayers(p)
	}
	return a
}

func (a *cutStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	at, err := r.Resolve(a.fold)
	if err != nil {
		return err
	}
	d.Line, d.Meets = at.Line, at.Meets
	sign, err := side(r, at.Line, a.removing)
	if err != nil {
		return err
	}
	d.Side = sign
	return r.Move(d, []geom.Line{at.Line}, false, func() (fold.Plan, error) {
		var set []fold.FacetID
		if a.layers.at != nil {
			if set, err = a.counted(r); err != nil {
				return fold.Plan{}, err
			}
		} else {
			for i := range r.State.F {
				set = append(set, fold.FacetID(i))
			}
		}
		d.Moving = set
		return cutOff(r.State, at.Line, float64(sign), set, fold.CreaseID(s.No))
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
type slitStep struct{ cuts []sequence.LinePair }

func readSlit(p *lang.Parser, _ *sequence.Step) sequence.Action {
	a := &slitStep{}
	for {
		a.cuts = append(a.cuts, sequence.LinePair{A: p.Point(), B: p.Point()})
		if !p.Accept("and") {
			return a
		}
	}
}

func (a *slitStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	var lines []geom.Line
	var cuts []geom.Segment
	for _, c := range a.cuts {
		u, err := c.A.Sheet(r)
		if err != nil {
			return err
		}
		v, err := c.B.Sheet(r)
		if err != nil {
			return err
		}
		lines, cuts = append(lines, geom.LineAt(u, v.Sub(u))), append(cuts, geom.Segment{A: u, B: v})
	}
	return r.Move(d, lines, true, func() (fold.Plan, error) {
		p := fold.Plan{Crease: fold.CreaseID(s.No), Slit: cuts}
		for k, c := range cuts {
			l, ok := geom.LineThrough(c.A, c.B)
			if !ok {
				return p, fold.Errorf(fold.CodeNoLine, "the two ends of the slit lie on one spot")
			}
			var set []fold.FacetID
			for i := range r.State.F {
				if geom.Crosses(r.State.F[i].Poly, l, c.A, c.B) {
					set = append(set, fold.FacetID(i))
				}
			}
			if len(set) > 0 {
				p.Splits = append(p.Splits, fold.Split{Line: l, OnSheet: true, Facets: set, Pressed: &cuts[k], From: int8(k)})
			}
		}
		after, err := r.State.Apply(p)
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

func readUnfold(p *lang.Parser, _ *sequence.Step) sequence.Action {
	switch {
	case p.Accept("all"):
		return &unfoldStep{all: true}
	case p.Accept("to"):
		return &unfoldStep{to: p.Known(sequence.ALine)}
	}
	p.Accept("last")
	return &unfoldStep{}
}

func readRefold(*lang.Parser, *sequence.Step) sequence.Action { return &unfoldStep{back: true} }

func (a *unfoldStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	if r.Sh != nil {
		return r.Followed()
	}
	to, err := a.target(r, s.No)
	if err != nil {
		return err
	}
	return r.Pass(d, fold.Plan{States: &fold.Known{To: to}})
}

func (a *unfoldStep) target(r *sequence.Course, no int) (*fold.State, error) {
	done := r.Out.Steps
	switch {
	case a.all:
		return r.Out.Start, nil
	case a.back:
		for i := len(done) - 1; i >= 0; i-- {
			if done[i].Op == sequence.OpUnfold {
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
	p    sequence.PointExpr
	l    sequence.LineExpr
	name string
}

func readTransfer(p *lang.Parser, s *sequence.Step) sequence.Action {
	a := &transferStep{p: p.Point()}
	p.Need("across")
	a.l = p.LineExpr()
	p.Need("as")
	a.name = p.NewName(sequence.APoint)
	if !p.CalledWords(a.name) {
		p.MadeWords(a.name, fmt.Sprintf("the mark carried over in step %d", s.No))
	}
	return a
}

func (a *transferStep) Do(r *sequence.Course, _ *sequence.Step, d *sequence.Done) error {
	at, err := a.p.Folded(r)
	if err != nil {
		return err
	}
	l, _, err := a.l.Folded(r)
	if err != nil {
		return err
	}
	to := l.Mirror(at)
	q, err := r.Pin(to, "the mark carried over")
	if err != nil {
		return err
	}
	if r.Sh != nil {
		q = q.Add(r.Sh.Hand())
	}
	r.Points[a.name] = q
	d.Line, d.At = l, &at
	d.Meets = [2]sequence.Mark{basis.PointMark(a.p.Words(r), at), basis.PointMark(r.Pat.Called(a.name), to)}
	return nil
}

// glue P to P [mass G]: the faces at two spots of the sheet that lie on each other.
type glueStep struct {
	a, b sequence.PointExpr
	mass sequence.NumExpr
}

func readGlue(p *lang.Parser, _ *sequence.Step) sequence.Action {
	a := &glueStep{a: p.Point()}
	p.Need("to")
	a.b = p.Point()
	a.mass = sequence.NumLit(0)
	if p.Accept("mass") {
		a.mass = p.Number("the mass in g")
	}
	return a
}

func (a *glueStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	at, err := a.a.Folded(r)
	if err != nil {
		return err
	}
	d.At = &at
	if r.Sh != nil {
		return r.Followed()
	}
	p, err := a.a.Sheet(r)
	if err != nil {
		return err
	}
	q, err := a.b.Sheet(r)
	if err != nil {
		return err
	}
	for _, f := range r.State.FacetsAtSheet(p) {
		for _, g := range r.State.FacetsAtSheet(q) {
			if f == g || r.State.Above(f, g) == 0 {
				continue
			}
			if r.Sh == nil { // with errors the loads are those of the replay
				r.Out.Masses = append(r.Out.Masses, sequence.Mass{Step: s.No, Kind: sequence.OpGlue, At: p, G: math.Max(0, math.Min(100, a.mass.Num(r)))})
			}
			return r.Pass(d, fold.Plan{Glue: [][2]fold.FacetID{{f, g}}})
		}
	}
	return fold.Errorf(fold.CodeGlue, "%s and %s do not lie on each other, so they cannot be glued", a.a.Words(r), a.b.Words(r))
}

// tape P [size MM MM] mass G [back] | clip P mass G
type tapeStep struct {
	at            sequence.PointExpr
	width, height sequence.NumExpr
	mass          sequence.NumExpr
	back          bool
}

func readTape(p *lang.Parser, s *sequence.Step) sequence.Action {
	a := &tapeStep{at: p.Point(), width: sequence.NumLit(0), height: sequence.NumLit(0)}
	if s.Op == sequence.OpTape && p.Accept("size") {
		a.width, a.height = p.Number("the width in mm"), p.Number("the height in mm")
	}
	p.Need("mass")
	a.mass = p.Number("the mass in g")
	a.back = p.Accept("back")
	return a
}

func (a *tapeStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	at, err := a.at.Folded(r)
	if err != nil {
		return err
	}
	p, err := a.at.Sheet(r)
	if err != nil || r.Sh != nil {
		return err
	}
	d.At = &at
	g := a.mass.Num(r)
	if math.IsNaN(g) || g < 0 || g > 100 {
		return fold.Errorf(fold.CodeKnob, "the mass is 0 to 100 g, not %g", g)
	}
	r.Out.Masses = append(r.Out.Masses, sequence.Mass{Step: s.No, Kind: s.Op, At: p, G: g,
		Width: a.width.Num(r), Height: a.height.Num(r), OnBack: a.back})
	return nil
}

// label P "text" [back] [size MM] [turn DEG] [zone NAME] | ink P P "text" [back] | axle P [to P]
type noteStep struct {
	and        *noteStep // what else is written in the same step
	at, to     sequence.PointExpr
	text, zone string
	back       bool
	size, turn sequence.NumExpr
}

// writtenMM is the height of what is written when nothing is said of it.
const writtenMM = 6.0

func readLabel(p *lang.Parser, s *sequence.Step) sequence.Action {
	a := readNote(p)
	if p.Accept("and") {
		a.and = readLabel(p, s).(*noteStep)
	}
	return a
}

func readNote(p *lang.Parser) *noteStep {
	a := &noteStep{at: p.Point()}
	a.text = p.NeedText("what is written")
	for {
		switch {
		case p.Accept("back"):
			a.back = true
		case p.Accept("size"):
			a.size = p.Number("the height of what is written, in mm")
		case p.Accept("turn"):
			a.turn = p.Number("the turn in degrees")
		case p.Accept("zone"):
			a.zone = p.Word("the name of the zone")
		default:
			return a
		}
	}
}

func readInk(p *lang.Parser, _ *sequence.Step) sequence.Action {
	a := &noteStep{at: p.Point(), to: p.Point()}
	if p.Peek().Kind == lang.TokText {
		a.text = p.Next().Text
	}
	a.back = p.Accept("back")
	return a
}

func readAxle(p *lang.Parser, _ *sequence.Step) sequence.Action {
	a := &noteStep{at: p.Point()}
	if p.Accept("to") {
		a.to = p.Point()
	}
	return a
}

func (a *noteStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	if a.and != nil {
		if err := a.and.Do(r, s, d); err != nil {
			return err
		}
	}
	at, p, err := r.Spot(a.at)
	if err != nil {
		return err
	}
	q := p
	if a.to != nil {
		if q, err = a.to.Sheet(r); err != nil {
			return err
		}
	}
	if r.Sh != nil {
		return nil
	}
	d.At = &at
	if s.Op == sequence.OpInk {
		d.Lines = visibleStretch(r, geom.Segment{A: p, B: q})
	}
	n := sequence.Note{Step: s.No, Kind: s.Op, At: p, To: q, Text: a.text, OnBack: a.back, Zone: a.zone, SizeMM: writtenMM}
	if a.size != nil {
		n.SizeMM = a.size.Num(r)
	}
	if !(n.SizeMM >= 1 && n.SizeMM <= 200) {
		return fold.Errorf(fold.CodeKnob, "what is written is %s high, not %s", say.Range(1, 200, 0), say.MM(n.SizeMM, 1))
	}
	if a.turn != nil {
		n.TurnDeg = a.turn.Num(r)
	}
	r.Out.Notes = append(r.Out.Notes, n)
	return nil
}

func visibleStretch(r *sequence.Course, s geom.Segment) []geom.Segment {
	l, ok := geom.LineThrough(s.A, s.B)
	if !ok {
		return nil
	}
	var out []geom.Segment
	for i := range r.State.F {
		if part, ok := r.State.F[i].Poly.Stretch(l, s); ok {
			iso := r.State.F[i].Iso
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
