package sequence

import (
	"math"

	"tussock/internal/fold"
	"tussock/internal/fold/shadow"
	"tussock/internal/geom"
	"tussock/internal/say"
	"tussock/internal/sequence/basis"
)

// Resolved is a fold line placed on the state reached.
type Resolved struct {
	Line  geom.Line
	Meets [2]Mark   // what is brought, and to where; empty for folds without
	Held  *geom.Vec // what the fingers hold by default, sheet coordinates
	Pivot *geom.Vec // the point the crease passes through, if it is given
	Shift float64   // mm that the crease lies off its landmarks
	Tilt  float64   // degrees likewise
	Gap   float64   // mm that what is brought stops short of its target
}

// Resolve places a fold line on the state reached.
func (r *Course) Resolve(f FoldLine) (out Resolved, err error) { return r.ResolveBy(f, r.valley) }

// valley plans a plain valley fold of what is held.
func (r *Course) valley(at Resolved) (fold.Plan, error) {
	side := int8(1)
	if at.Line.Side(at.Meets[0].At) < 0 {
		side = -1
	}
	return r.State.SimpleFold(fold.Selection{Line: at.Line, Side: side, Seeds: r.State.FacetsAtSheet(*at.Held), Sense: fold.ValleySense}, 0)
}

// ResolveBy is Resolve for a step that folds in its own way: a line that depends on what
// the fold does is found by folding so on trial.
func (r *Course) ResolveBy(f FoldLine, plan func(at Resolved) (fold.Plan, error)) (out Resolved, err error) {
	switch f.Kind {
	case FoldPointPoint:
		err = r.pointToPoint(f, &out)
	case FoldPointLine:
		err = r.pointToLine(f, &out)
	case FoldLineLine:
		err = r.lineToLine(f, &out)
	case FoldThrough:
		out.Line, _, err = LinePair{f.P, f.Q}.Folded(r)
	case FoldSquare:
		out.Line, _, err = LineSquare{f.P, f.L}.Folded(r)
	case FoldAlong:
		out.Line, _, err = f.L.Folded(r)
	case FoldTwoPoints:
		err = r.twoPoints(f, &out)
	case FoldBalance:
		err = r.toBalance(f, &out, plan)
	}
	if err != nil {
		return out, err
	}
	if f.Offset != nil {
		out.Shift = f.Offset.Num(r)
		was := out.Line
		if out.Line, err = shifted(r, out.Line, out.Shift, f.OffsetToward, "the fold line"); err != nil {
			return out, err
		}
		at := was.Foot(r.Box.Centre())
		r.RefLength(at, out.Line.Foot(at))
	}
	if f.Tilt != nil {
		out.Tilt = f.Tilt.Num(r)
		if err = r.tilted(f, &out); err != nil {
			return out, err
		}
	}
	if f.Gap != nil || f.GapAuto {
		err = r.stopShort(f, &out)
	}
	return out, err
}

// stopShort moves the fold line so that what is brought stops short of its target
// by the gap: half of the gap, away from the target.
func (r *Course) stopShort(f FoldLine, out *Resolved) error {
	if out.Meets[0].Name == "" || out.Held == nil {
		return fold.Errorf(fold.CodeNoLine, "a gap is kept only where something is brought to something")
	}
	if f.GapAuto {
		d, err := r.Decided(func() (Decision, error) {
			return Decision{I: int32(r.layersAt(*out.Held))}, nil
		})
		if err != nil {
			return err
		}
		out.Gap = shadow.CreepMM(int(d.I), r.State.Sheet.ThicknessMM)
	} else {
		out.Gap = f.Gap.Num(r)
	}
	from := out.Meets[0].At
	if m := out.Meets[0]; m.Line { // the end of the edge that moves farther
		from = m.Along.A
		if math.Abs(out.Line.Side(m.Along.B)) > math.Abs(out.Line.Side(m.Along.A)) {
			from = m.Along.B
		}
	}
	if target := out.Line.Mirror(from); f.Gap != nil && !constant(f.Gap) && out.Gap > 0 { // a knob sets it
		r.RefLength(target, target.Add(out.Line.N.Scale(math.Copysign(out.Gap, out.Line.Side(from)))))
	}
	out.Line = out.Line.Offset(math.Copysign(out.Gap/2, out.Gap*out.Line.Side(from)))
	return nil
}

// layersAt counts the layers that lie at a sheet point's place.
func (r *Course) layersAt(p geom.Vec) int {
	at := r.State.FacetsAtSheet(p)
	if len(at) == 0 {
		return 0
	}
	// A little inside the piece, so that a corner counts what lies at it.
	in := r.State.F[at[0]].Poly.Centroid()
	q := r.State.F[at[0]].Iso.Apply(p.Lerp(in, 1e-3))
	n := 0
	for i := range r.State.F {
		if r.State.Folded(fold.FacetID(i)).Contains(q, 0) {
			n++
		}
	}
	return n
}

// tilted turns the line about the foot of a landmark, the way that carries it
// towards another.
func (r *Course) tilted(f FoldLine, out *Resolved) error {
	if out.Tilt == 0 {
		return nil
	}
	about, err := f.TiltAbout.Folded(r)
	if err != nil {
		return err
	}
	toward, err := r.Unseen(f.TiltToward)
	if err != nil {
		return err
	}
	was := out.Line
	out.Line, err = r.turned(was, out.Tilt, about, toward)
	r.refAngle(out.Line.Foot(about), was, out.Line, out.Tilt, toward)
	return err
}

// turned is a line turned by degrees about the foot of a spot, the way that carries it
// towards another.
func (r *Course) turned(l geom.Line, deg float64, about, toward geom.Vec) (geom.Line, error) {
	d, err := r.Decided(func() (Decision, error) { return Decision{I: int32(l.SenseToward(about, toward))}, nil })
	return l.TurnedBy(geom.Rad(deg), about, int(d.I)), err
}

func (r *Course) pointToPoint(f FoldLine, out *Resolved) error {
	a, err := f.P.Folded(r)
	if err != nil {
		return err
	}
	b, err := f.Q.Folded(r)
	if err != nil {
		return err
	}
	l, ok := geom.FoldPointToPoint(a, b)
	if !ok {
		return fold.Errorf(fold.CodeNoLine, "%s lies on %s already, so there is nothing to bring together", f.P.Words(r), f.Q.Words(r))
	}
	held, err := f.P.Sheet(r)
	out.Line, out.Held = l, &held
	out.Meets = [2]Mark{basis.PointMark(f.P.Words(r), a), basis.PointMark(f.Q.Words(r), b)}
	return err
}

// Spot is where a point lies now, and which spot of the sheet it is.
func (r *Course) Spot(e PointExpr) (at, onSheet geom.Vec, err error) {
	if at, err = e.Folded(r); err == nil {
		onSheet, err = e.Sheet(r)
	}
	return at, onSheet, err
}

// pointAndLine is where a point and a line lie now.
func (r *Course) pointAndLine(pe PointExpr, le LineExpr) (p geom.Vec, l geom.Line, seg geom.Segment, err error) {
	if p, err = pe.Folded(r); err == nil {
		l, seg, err = le.Folded(r)
	}
	return p, l, seg, err
}

func (r *Course) pointToLine(f FoldLine, out *Resolved) error {
	p, l, seg, err := r.pointAndLine(f.P, f.L)
	if err != nil {
		return err
	}
	pivot, err := f.Through.Folded(r)
	if err != nil {
		return err
	}
	folds, landings := geom.FoldPointToLine(p, l, pivot)
	if len(folds) == 0 {
		return fold.Errorf(fold.CodeNoLine, "%s cannot reach %s when the crease goes through %s: it is %s too short",
			f.P.Words(r), f.L.Words(r), f.Through.Words(r), say.MM(math.Abs(l.Side(pivot))-p.Dist(pivot), 1))
	}
	d, err := r.Decided(func() (Decision, error) {
		choice, err := r.chooseLanding(f, landings)
		return Decision{line: folds[max(choice, 0)]}, err
	})
	if err != nil {
		return err
	}
	held, err := f.P.Sheet(r)
	out.Line, out.Held, out.Pivot = r.nearest(folds, d.line), &held, &pivot
	to := basis.LineMark(f.L.Words(r), seg)
	to.At = out.Line.Mirror(p)
	out.Meets = [2]Mark{basis.PointMark(f.P.Words(r), p), to}
	return err
}

// chooseLanding takes the landing nearest to "near", else the only one that is
// on the paper.
func (r *Course) chooseLanding(f FoldLine, landings []geom.Vec) (int, error) {
	if f.Near != nil {
		var n geom.Vec
		if err := r.quietly(func() (err error) { n, err = f.Near.Folded(r); return err }); err != nil {
			return 0, err
		}
		best := 0
		for i, q := range landings {
			if q.Dist(n) < landings[best].Dist(n) {
				best = i
			}
		}
		return best, nil
	}
	found := -1
	for i, q := range landings {
		if _, ok := r.State.TopAt(q); !ok {
			continue
		}
		if found >= 0 {
			return 0, fold.Errorf(fold.CodeNoLine, "%s can reach %s in two places; say which with near", f.P.Words(r), f.L.Words(r))
		}
		found = i
	}
	if found < 0 {
		return 0, fold.Errorf(fold.CodeNoLine, "%s would meet %s beyond the paper", f.P.Words(r), f.L.Words(r))
	}
	return found, nil
}

func (r *Course) lineToLine(f FoldLine, out *Resolved) error {
	l, err := bisector(r, f.L, f.M, f.Near)
	if err != nil {
		return err
	}
	held, err := f.L.held(r)
	if err != nil {
		return err
	}
	_, a, _ := f.L.Folded(r)
	_, b, _ := f.M.Folded(r)
	out.Line, out.Held = l, &held
	out.Meets = [2]Mark{basis.LineMark(f.L.Words(r), a), basis.LineMark(f.M.Words(r), b)}
	return nil
}

// twoPoints brings two points to two lines at once.
func (r *Course) twoPoints(f FoldLine, out *Resolved) error {
	p, l, seg, err := r.pointAndLine(f.P, f.L)
	if err != nil {
		return err
	}
	q, m, _, err := r.pointAndLine(f.Q, f.M)
	if err != nil {
		return err
	}
	folds, landings := geom.FoldPointsToLines(p, l, q, m, 2*math.Hypot(r.State.Sheet.WidthMM, r.State.Sheet.HeightMM))
	if len(folds) == 0 {
		return fold.Errorf(fold.CodeNoLine, "no crease brings %s to %s and %s to %s at once", f.P.Words(r), f.L.Words(r), f.Q.Words(r), f.M.Words(r))
	}
	d, err := r.Decided(func() (Decision, error) {
		choice, err := r.chooseLanding(f, landings)
		return Decision{line: folds[max(choice, 0)]}, err
	})
	if err != nil {
		return err
	}
	held, err := f.P.Sheet(r)
	out.Line, out.Held = r.nearest(folds, d.line), &held
	to := basis.LineMark(f.L.Words(r), seg)
	to.At = out.Line.Mirror(p)
	out.Meets = [2]Mark{basis.PointMark(f.P.Words(r), p), to}
	return err
}

// toBalance finds the fold that lays a point on the centre of mass which the toy
// has after that fold. The place is found by folding on trial: each trial fold
// brings the point to the centre that the one before left, until they agree to
// 1e-9 mm. Since only part of the mass moves, the trials draw together.
func (r *Course) toBalance(f FoldLine, out *Resolved, plan func(at Resolved) (fold.Plan, error)) error {
	p, held, err := r.Spot(f.P)
	if err != nil {
		return err
	}
	d, err := r.Decided(func() (Decision, error) {
		target := r.centreOfMass()
		for range 200 {
			l, ok := geom.FoldPointToPoint(p, target)
			if !ok {
				return Decision{}, fold.Errorf(fold.CodeNoLine, "%s lies on the centre of mass already", f.P.Words(r))
			}
			var folded fold.Plan
			if err := r.quietly(func() (err error) {
				folded, err = plan(Resolved{Line: l, Held: &held, Meets: [2]Mark{basis.PointMark(f.P.Words(r), p), basis.PointMark("the centre of mass", target)}})
				return err
			}); err != nil {
				return Decision{}, err
			}
			after, err := r.State.Apply(folded)
			if err != nil {
				return Decision{}, err
			}
			if i := after.FacetsAtSheet(held); len(i) == 0 || after.F[i[0]].Iso.Apply(held).Dist(target) > geom.OnPaper {
				return Decision{}, fold.Errorf(fold.CodeNoLine, "this fold does not carry %s, so it cannot bring it to the centre of mass", f.P.Words(r))
			}
			c := weighed(after, func(f fold.FacetID) geom.Iso2 { return after.F[f].Iso }, r.loads())
			if c.Dist(target) < 1e-9 {
				return Decision{line: l}, nil
			}
			target = c
		}
		return Decision{}, fold.Errorf(fold.CodeNoLine, "no fold was found that lays %s on the centre of mass", f.P.Words(r))
	})
	if err != nil {
		return err
	}
	out.Line, out.Held = d.line, &held
	out.Meets = [2]Mark{basis.PointMark(f.P.Words(r), p), basis.PointMark("the centre of mass", d.line.Mirror(p))}
	return nil
}
