package sequence

import (
	"math"

	"tussock/internal/fold"
	"tussock/internal/fold/steps"
	"tussock/internal/geom"
)

// foldStep is a crease, a valley, a mountain, or a leaf that is turned.
type foldStep struct {
	fold    foldLine
	moving  []pointExpr
	grab    []pointExpr
	all     bool
	layers  layerRange
	under   pointExpr
	over    pointExpr
	between [2]pointExpr
}

// layerRange names layers by counting at a landmark, 1 being the uppermost (or
// the lowest, from the bottom).
type layerRange struct {
	at       pointExpr // nil when layers are not counted
	from, to int
	bottom   bool
}

func readFold(p *parser, s *Step) action {
	a := &foldStep{fold: p.foldLine()}
	a.clauses(p)
	named := a.fold.kind == foldPointPoint || a.fold.kind == foldLineLine || a.fold.kind == foldPointLine ||
		a.fold.kind == foldTwoPoints || a.fold.kind == foldBalance
	if s.Op != OpCrease && !named && len(a.moving) == 0 {
		p.fail("it is not said which side moves", `add "moving" and a landmark on the side that moves`)
	}
	return a
}

func (a *foldStep) clauses(p *parser) {
	for {
		switch {
		case p.accept("moving"):
			a.moving = []pointExpr{p.point()}
		case p.accept("grab"):
			a.grab = append(a.grab, p.point())
			for p.startsPoint() {
				a.grab = append(a.grab, p.point())
			}
		case p.accept("layers"):
			a.readLayers(p)
		case p.accept("under"):
			a.under = p.point()
		case p.accept("over"):
			a.over = p.point()
		case p.accept("between"):
			a.between = [2]pointExpr{p.point(), p.point()}
		default:
			return
		}
	}
}

// layers all | layers top N at P | layers bottom N at P | layers N to N at P
func (a *foldStep) readLayers(p *parser) {
	count := func() int { return int(p.ranged("the number of layers", 1, fold.MaxFacets)) }
	r := &a.layers
	switch {
	case p.accept("all"):
		a.all = true
		return
	case p.accept("top"):
		r.from, r.to = 1, count()
	case p.accept("bottom"):
		r.from, r.to, r.bottom = 1, count(), true
	default:
		r.from = count()
		p.need("to")
		r.to = count()
	}
	p.need("at")
	r.at = p.point()
}

func (a *foldStep) do(r *run, s *Step, d *Done) error {
	at, err := r.resolve(a.fold)
	if err != nil {
		return err
	}
	d.Line, d.Meets, d.Pivot, d.ShiftMM, d.TiltDeg, d.GapMM = at.line, at.meets, at.pivot, at.shift, at.tilt, at.gap
	sel := fold.Selection{Line: at.line, Side: 1, Sense: fold.ValleySense}
	if s.Op == OpMountain {
		sel.Sense = fold.MountainSense
	}
	if a.between[0] != nil {
		var ends [2]geom.Vec
		for i, e := range a.between {
			p, err := e.folded(r)
			if err != nil {
				return err
			}
			ends[i] = at.line.Foot(p)
		}
		sel.Pressed = &geom.Segment{A: ends[0], B: ends[1]}
	}
	return r.move(d, []geom.Line{at.line}, false, func() (plan fold.Plan, err error) {
		if sel.Side, sel.Seeds, err = a.hold(r, at); err != nil {
			return plan, err
		}
		d.Side = sel.Side
		crease := fold.CreaseID(s.No)
		switch {
		case s.Op == OpCrease:
			d.Moving = r.state.Closure(sel)
			return r.state.CreaseOnly(sel, crease)
		case a.under != nil || a.over != nil:
			plan, err = a.tuck(r, sel, crease)
		default:
			plan, err = r.state.SimpleFold(sel, crease)
		}
		if err != nil {
			return plan, err
		}
		d.Moving = r.state.Closure(sel)
		if a.under != nil || a.over != nil {
			sel.Free = true
			d.Moving = r.state.Closure(sel)
		}
		d.Moved = len(d.Moving)
		if s.Op == OpLeaf && len(plan.Split)+len(plan.Splits) > 0 {
			return plan, fold.Errorf(fold.CodeMissesLine, "a leaf turns about a crease that is there, and this line would make a new one")
		}
		return plan, nil
	})
}

// tuck plans a fold that ends under or over a named layer.
func (a *foldStep) tuck(r *run, sel fold.Selection, id fold.CreaseID) (fold.Plan, error) {
	var at steps.Place
	for i, e := range []pointExpr{a.under, a.over} {
		if e == nil {
			continue
		}
		p, err := e.sheet(r)
		if err != nil {
			return fold.Plan{}, err
		}
		f := r.state.FacetsAtSheet(p)
		if len(f) == 0 {
			return fold.Plan{}, fold.Errorf(fold.CodeOffPaper, "%s is no longer on the paper", e.words(r))
		}
		if i == 0 {
			at.Under = f
		} else {
			at.Over = f
		}
	}
	return steps.Tuck(r.state, sel, at, id)
}

// hold finds the side that moves and the pieces the fingers hold.
func (a *foldStep) hold(r *run, at resolved) (int8, []fold.FacetID, error) {
	var grips []geom.Vec // on the sheet
	var sideBy pointExpr
	for _, g := range a.grab {
		p, err := g.sheet(r)
		if err != nil {
			return 0, nil, err
		}
		grips = append(grips, p)
	}
	if len(a.moving) > 0 {
		sideBy = a.moving[0]
		p, err := sideBy.sheet(r)
		if err != nil {
			return 0, nil, err
		}
		if len(grips) == 0 {
			grips = append(grips, p)
		}
	}
	if at.held != nil && len(grips) == 0 {
		grips = append(grips, *at.held)
	}
	side := 1.0
	switch {
	case sideBy != nil:
		v, err := sideOf(r, at.line, sideBy, "the fold line")
		if err != nil {
			return 0, nil, err
		}
		side = v
	case at.meets[0].Line: // the far end of the edge that is brought
		u, v := at.line.Side(at.meets[0].Along.A), at.line.Side(at.meets[0].Along.B)
		side = u
		if math.Abs(v) > math.Abs(u) {
			side = v
		}
	case at.meets[0].Name != "":
		side = at.line.Side(at.meets[0].At)
	case len(a.grab) > 0:
		v, err := sideOf(r, at.line, a.grab[0], "the fold line")
		if err != nil {
			return 0, nil, err
		}
		side = v
	case !a.all: // a crease between landmarks: both sides are creased alike
		for _, e := range []pointExpr{a.fold.p, a.fold.q} {
			if e == nil {
				continue
			}
			p, err := e.sheet(r)
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
		at := r.state.FacetsAtSheet(g)
		if len(at) == 0 {
			return 0, nil, fold.Errorf(fold.CodeOffPaper, "what should be held is not on the paper, at (%.2f, %.2f) mm", g.X, g.Y)
		}
		seeds = append(seeds, at...)
	}
	return sign, seeds, nil
}

// counted are the layers of a range at a landmark's place. Where the landmark lies
// on a crease, the count is made beside it, on the piece that holds it.
func (a *foldStep) counted(r *run) ([]fold.FacetID, error) {
	p, err := a.layers.at.sheet(r)
	if err != nil {
		return nil, err
	}
	at := r.state.FacetsAtSheet(p)
	if len(at) == 0 {
		return nil, fold.Errorf(fold.CodeOffPaper, "%s is not on the paper", a.layers.at.words(r))
	}
	q := r.state.F[at[0]].Iso.Apply(p.Lerp(r.state.F[at[0]].Poly.Centroid(), 1e-3))
	stack := r.state.StackAt(q)
	if a.layers.bottom {
		for i, j := 0, len(stack)-1; i < j; i, j = i+1, j-1 {
			stack[i], stack[j] = stack[j], stack[i]
		}
	}
	if a.layers.to > len(stack) || a.layers.from > a.layers.to {
		return nil, fold.Errorf(fold.CodeExpect, "there are %d layers at %s, and layers %d to %d are asked for", len(stack), a.layers.at.words(r), a.layers.from, a.layers.to)
	}
	return stack[a.layers.from-1 : a.layers.to], nil
}

// turnStep turns the toy over or rotates it.
type turnStep struct {
	axis  string
	angle numExpr
}

func readTurn(p *parser, _ *Step) action {
	return &turnStep{axis: p.oneOf("a way to turn over", "lr", "tb")}
}
func readRotate(p *parser, _ *Step) action { return &turnStep{angle: p.number("the angle in degrees")} }

func (a *turnStep) do(r *run, _ *Step, d *Done) error {
	if a.angle != nil {
		d.AngleDeg = a.angle.num(r)
		c := geom.Vec{X: r.state.Sheet.WidthMM / 2, Y: r.state.Sheet.HeightMM / 2}
		err := r.pass(d, r.state.Whole(geom.Rotation(geom.Rad(d.AngleDeg), c)))
		d.Moved = 0
		return err
	}
	d.Line = geom.Line{N: geom.Vec{X: 1}, D: r.state.Sheet.WidthMM / 2}
	if a.axis == "tb" {
		d.Line = geom.Line{N: geom.Vec{Y: 1}, D: r.state.Sheet.HeightMM / 2}
	}
	err := r.pass(d, r.state.Whole(geom.Reflection(d.Line)))
	d.Moved = 0
	return err
}
