package operations

import (
	"math"

	"tussock/internal/fold"
	"tussock/internal/fold/steps"
	"tussock/internal/geom"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sequence/lang"
)

// foldStep is a crease, a valley, a mountain, or a leaf that is turned.
type foldStep struct {
	fold    sequence.FoldLine
	moving  []sequence.PointExpr
	grab    []sequence.PointExpr
	all     bool
	layers  layerRange
	under   sequence.PointExpr
	over    sequence.PointExpr
	between [2]sequence.PointExpr
}

// layerRange names layers by counting at a landmark, 1 being the uppermost (or
// the lowest, from the bottom).
type layerRange struct {
	at       sequence.PointExpr // nil when layers are not counted
	from, to int
	bottom   bool
}

func readFold(p *lang.Parser, s *sequence.Step) sequence.Action {
	a := &foldStep{fold: p.FoldLine()}
	a.clauses(p)
	named := a.fold.Kind == sequence.FoldPointPoint || a.fold.Kind == sequence.FoldLineLine || a.fold.Kind == sequence.FoldPointLine ||
		a.fold.Kind == sequence.FoldTwoPoints || a.fold.Kind == sequence.FoldBalance
	if s.Op != sequence.OpCrease && !named && len(a.moving) == 0 {
		p.Fail("it is not said which side moves", `add "moving" and a landmark on the side that moves`)
	}
	return a
}

func (a *foldStep) clauses(p *lang.Parser) {
	for {
		switch {
		case p.Accept("moving"):
			a.moving = []sequence.PointExpr{p.Point()}
		case p.Accept("grab"):
			a.grab = append(a.grab, p.Point())
			for p.StartsPoint() {
				a.grab = append(a.grab, p.Point())
			}
		case p.Accept("layers"):
			a.readLayers(p)
		case p.Accept("under"):
			a.under = p.Point()
		case p.Accept("over"):
			a.over = p.Point()
		case p.Accept("between"):
			a.between = [2]sequence.PointExpr{p.Point(), p.Point()}
		default:
			return
		}
	}
}

// layers all | layers top N at P | layers bottom N at P | layers N to N at P
func (a *foldStep) readLayers(p *lang.Parser) {
	count := func() int { return p.Count("the number of layers", 1, fold.MaxFacets) }
	r := &a.layers
	switch {
	case p.Accept("all"):
		a.all = true
		return
	case p.Accept("top"):
		r.from, r.to = 1, count()
	case p.Accept("bottom"):
		r.from, r.to, r.bottom = 1, count(), true
	default:
		r.from = count()
		p.Need("to")
		r.to = count()
	}
	p.Need("at")
	r.at = p.Point()
}

func (a *foldStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	at, err := r.ResolveBy(a.fold, func(at sequence.Resolved) (fold.Plan, error) {
		plan, _, err := a.plan(r, s.Op, at, 0)
		return plan, err
	})
	if err != nil {
		return err
	}
	d.Line, d.Meets, d.Pivot, d.ShiftMM, d.TiltDeg, d.GapMM = at.Line, at.Meets, at.Pivot, at.Shift, at.Tilt, at.Gap
	return r.Move(d, []geom.Line{at.Line}, false, func() (fold.Plan, error) {
		plan, sel, err := a.plan(r, s.Op, at, fold.CreaseID(s.No))
		if err != nil {
			return plan, err
		}
		d.Side, d.Moving = sel.Side, r.State.Closure(sel)
		if s.Op == sequence.OpCrease {
			return plan, nil
		}
		d.Moved = len(d.Moving)
		if s.Op == sequence.OpLeaf && len(plan.Split)+len(plan.Splits) > 0 {
			return plan, fold.Errorf(fold.CodeMissesLine, "a leaf turns about a crease that is there, and this line would make a new one")
		}
		return plan, nil
	})
}

// plan is the fold along a line, and what it takes along.
func (a *foldStep) plan(r *sequence.Course, op sequence.Op, at sequence.Resolved, crease fold.CreaseID) (plan fold.Plan, sel fold.Selection, err error) {
	sel = fold.Selection{Line: at.Line, Side: 1, Sense: fold.ValleySense}
	if op == sequence.OpMountain {
		sel.Sense = fold.MountainSense
	}
	if a.between[0] != nil {
		var ends [2]geom.Vec
		for i, e := range a.between {
			p, err := e.Folded(r)
			if err != nil {
				return plan, sel, err
			}
			ends[i] = at.Line.Foot(p)
		}
		sel.Pressed = &geom.Segment{A: ends[0], B: ends[1]}
	}
	if sel.Side, sel.Seeds, err = a.hold(r, at); err != nil {
		return plan, sel, err
	}
	switch {
	case op == sequence.OpCrease:
		plan, err = r.State.CreaseOnly(sel, crease)
	case a.under != nil || a.over != nil:
		plan, err = a.tuck(r, sel, crease)
		sel.Free = true
	default:
		plan, err = r.State.SimpleFold(sel, crease)
		if all := fold.As(err); op == sequence.OpLeaf && all != nil && all.Code == fold.CodeMissesLine {
			// A pack that goes all to one side: its outer leaf lies round all others, and goes
			// over with both halves, one above and one below.
			sel.Free = true
			plan, err = steps.Around(r.State, sel, crease)
		}
	}
	return plan, sel, err
}

// tuck plans a fold that ends under or over a named layer.
func (a *foldStep) tuck(r *sequence.Course, sel fold.Selection, id fold.CreaseID) (fold.Plan, error) {
	var at steps.Place
	for i, e := range []sequence.PointExpr{a.under, a.over} {
		if e == nil {
			continue
		}
		p, err := e.Sheet(r)
		if err != nil {
			return fold.Plan{}, err
		}
		f := r.State.FacetsAtSheet(p)
		if len(f) == 0 {
			return fold.Plan{}, fold.Errorf(fold.CodeOffPaper, "%s is no longer on the paper", e.Words(r))
		}
		if i == 0 {
			at.Under = f
		} else {
			at.Over = f
		}
	}
	return steps.Tuck(r.State, sel, at, id)
}

// hold finds the side that moves and the pieces the fingers hold.
func (a *foldStep) hold(r *sequence.Course, at sequence.Resolved) (int8, []fold.FacetID, error) {
	var grips []geom.Vec // on the sheet
	var sideBy sequence.PointExpr
	for _, g := range a.grab {
		p, err := g.Sheet(r)
		if err != nil {
			return 0, nil, err
		}
		grips = append(grips, p)
	}
	if len(a.moving) > 0 {
		sideBy = a.moving[0]
		p, err := sideBy.Sheet(r)
		if err != nil {
			return 0, nil, err
		}
		if len(grips) == 0 {
			grips = append(grips, p)
		}
	}
	if at.Held != nil && len(grips) == 0 {
		grips = append(grips, *at.Held)
	}
	side := 1.0
	switch {
	case sideBy != nil:
		v, err := sequence.SideOf(r, at.Line, sideBy, "the fold line")
		if err != nil {
			return 0, nil, err
		}
		side = v
	case at.Meets[0].Line: // the far end of the edge that is brought
		u, v := at.Line.Side(at.Meets[0].Along.A), at.Line.Side(at.Meets[0].Along.B)
		side = u
		if math.Abs(v) > math.Abs(u) {
			side = v
		}
	case at.Meets[0].Name != "":
		side = at.Line.Side(at.Meets[0].At)
	case len(a.grab) > 0:
		v, err := sequence.SideOf(r, at.Line, a.grab[0], "the fold line")
		if err != nil {
			return 0, nil, err
		}
		side = v
	case !a.all: // a crease between landmarks: both sides are creased alike
		for _, e := range []sequence.PointExpr{a.fold.P, a.fold.Q} {
			if e == nil {
				continue
			}
			p, err := e.Sheet(r)
			if err != nil {
				return 0, nil, err
			}
			grips = append(grips, p)
		}
	}
	sign := int8(1)
	if side < 0 {
		sign = -1
	}
	if a.layers.at != nil {
		f, err := a.counted(r)
		return sign, f, err
	}
	if a.all || len(grips) == 0 {
		return sign, nil, nil
	}
	var seeds []fold.FacetID
	for _, g := range grips {
		at := r.State.FacetsAtSheet(g)
		if len(at) == 0 {
			return 0, nil, fold.Errorf(fold.CodeOffPaper, "what should be held is not on the paper, at %s, %s of the sheet", say.MM(g.X, 1), say.MM(g.Y, 1))
		}
		seeds = append(seeds, at...)
	}
	return sign, seeds, nil
}

// counted are the layers of a range at a landmark's place. Where the landmark lies
// on a crease, the count is made beside it, on the piece that holds it.
func (a *foldStep) counted(r *sequence.Course) ([]fold.FacetID, error) {
	p, err := a.layers.at.Sheet(r)
	if err != nil {
		return nil, err
	}
	at := r.State.FacetsAtSheet(p)
	if len(at) == 0 {
		return nil, fold.Errorf(fold.CodeOffPaper, "%s is not on the paper", a.layers.at.Words(r))
	}
	q := r.State.F[at[0]].Iso.Apply(p.Lerp(r.State.F[at[0]].Poly.Centroid(), 1e-3))
	stack := r.State.StackAt(q)
	if a.layers.bottom {
		for i, j := 0, len(stack)-1; i < j; i, j = i+1, j-1 {
			stack[i], stack[j] = stack[j], stack[i]
		}
	}
	if a.layers.to > len(stack) || a.layers.from > a.layers.to {
		return nil, fold.Errorf(fold.CodeExpect, "there are %d layers at %s, and layers %d to %d are asked for", len(stack), a.layers.at.Words(r), a.layers.from, a.layers.to)
	}
	return stack[a.layers.from-1 : a.layers.to], nil
}

// turnStep turns the toy over or rotates it.
type turnStep struct {
	axis  string
	angle sequence.NumExpr
}

func readTurn(p *lang.Parser, _ *sequence.Step) sequence.Action {
	return &turnStep{axis: p.OneOf("a way to turn over", "lr", "tb")}
}
func readRotate(p *lang.Parser, _ *sequence.Step) sequence.Action {
	return &turnStep{angle: p.Number("the angle in degrees")}
}

func (a *turnStep) Do(r *sequence.Course, _ *sequence.Step, d *sequence.Done) error {
	if a.angle != nil {
		d.AngleDeg = a.angle.Num(r)
		c := geom.Vec{X: r.State.Sheet.WidthMM / 2, Y: r.State.Sheet.HeightMM / 2}
		err := r.Pass(d, r.State.Whole(geom.Rotation(geom.Rad(d.AngleDeg), c)))
		d.Moved = 0
		return err
	}
	d.Line = geom.Line{N: geom.Vec{X: 1}, D: r.State.Sheet.WidthMM / 2}
	if a.axis == "tb" {
		d.Line = geom.Line{N: geom.Vec{Y: 1}, D: r.State.Sheet.HeightMM / 2}
	}
	err := r.Pass(d, r.State.Whole(geom.Reflection(d.Line)))
	d.Moved = 0
	return err
}
