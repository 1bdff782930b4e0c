package sequence

import (
	"math"

	"tussock/internal/fold"
	"tussock/internal/geom"
)

// resolved is a fold line placed on the state reached.
type resolved struct {
	line  geom.Line
	meets [2]Mark   // what is brought, and to where; empty for folds without
	held  *geom.Vec // what the fingers hold by default, sheet coordinates
	pivot *geom.Vec // the point the crease passes through, if it is given
	shift float64   // mm that the crease lies off its landmarks
	tilt  float64   // degrees likewise
	gap   float64   // mm that what is brought stops short of its target
}

func (r *run) resolve(f foldLine) (out resolved, err error) {
	switch f.kind {
	case foldPointPoint:
		err = r.pointToPoint(f, &out)
	case foldPointLine:
		err = r.pointToLine(f, &out)
	case foldLineLine:
		err = r.lineToLine(f, &out)
	case foldThrough:
		out.line, _, err = linePair{f.p, f.q}.folded(r)
	case foldSquare:
		out.line, _, err = lineSquare{f.p, f.l}.folded(r)
	case foldAlong:
		out.line, _, err = f.l.folded(r)
	case foldTwoPoints:
		err = r.twoPoints(f, &out)
	case foldBalance:
		err = r.toBalance(f, &out)
	}
	if err != nil {
		return out, err
	}
	if f.offset != nil {
		out.shift = f.offset.num(r)
		if out.line, err = shifted(r, out.line, out.shift, f.offsetToward, "the fold line"); err != nil {
			return out, err
		}
	}
	if f.tilt != nil {
		out.tilt = f.tilt.num(r)
		if err = r.tilted(f, &out); err != nil {
			return out, err
		}
	}
	if f.gap != nil || f.gapAuto {
		err = r.stopShort(f, &out)
	}
	return out, err
}

// CreepMM is how much longer the way round a fold is with n layers inside it than
// without, in mm: half a turn at a radius larger by n·t/2 each side of the middle
// surface gives (π/2)·n·t. Paper folded exactly to a mark stops short or binds by
// that much.
func CreepMM(layers int, thicknessMM float64) float64 {
	return math.Pi / 2 * float64(layers) * thicknessMM
}

// stopShort moves the fold line so that what is brought stops short of its target
// by the gap: half of the gap, away from the target.
func (r *run) stopShort(f foldLine, out *resolved) error {
	if out.meets[0].Name == "" || out.held == nil {
		return fold.Errorf(fold.CodeNoLine, "a gap is kept only where something is brought to something")
	}
	if f.gapAuto {
		d, err := r.decided(func() (decision, error) {
			return decision{i: int32(r.layersAt(*out.held))}, nil
		})
		if err != nil {
			return err
		}
		out.gap = CreepMM(int(d.i), r.state.Sheet.ThicknessMM)
	} else {
		out.gap = f.gap.num(r)
	}
	from := out.meets[0].At
	if m := out.meets[0]; m.Line { // the end of the edge that moves farther
		from = m.Along.A
		if math.Abs(out.line.Side(m.Along.B)) > math.Abs(out.line.Side(m.Along.A)) {
			from = m.Along.B
		}
	}
	out.line = out.line.Offset(math.Copysign(out.gap/2, out.gap*out.line.Side(from)))
	return nil
}

// layersAt counts the layers that lie at a sheet point's place.
func (r *run) layersAt(p geom.Vec) int {
	at := r.state.FacetsAtSheet(p)
	if len(at) == 0 {
		return 0
	}
	// A little inside the piece, so that a corner counts what lies at it.
	in := r.state.F[at[0]].Poly.Centroid()
	q := r.state.F[at[0]].Iso.Apply(p.Lerp(in, 1e-3))
	n := 0
	for i := range r.state.F {
		if r.state.Folded(fold.FacetID(i)).Contains(q, 0) {
			n++
		}
	}
	return n
}

// tilted turns the line about the foot of a landmark, the way that carries it
// towards another.
func (r *run) tilted(f foldLine, out *resolved) error {
	if out.tilt == 0 {
		return nil
	}
	about, err := f.tiltAbout.folded(r)
	if err != nil {
		return err
	}
	toward, err := f.tiltToward.folded(r)
	if err != nil {
		return err
	}
	out.line = out.line.TurnedToward(geom.Rad(out.tilt), about, toward)
	return nil
}

func (r *run) pointToPoint(f foldLine, out *resolved) error {
	a, err := f.p.folded(r)
	if err != nil {
		return err
	}
	b, err := f.q.folded(r)
	if err != nil {
		return err
	}
	l, ok := geom.FoldPointToPoint(a, b)
	if !ok {
		return fold.Errorf(fold.CodeNoLine, "%s lies on %s already, so there is nothing to bring together", f.p.words(r), f.q.words(r))
	}
	held, err := f.p.sheet(r)
	out.line, out.held = l, &held
	out.meets = [2]Mark{pointMark(f.p.words(r), a), pointMark(f.q.words(r), b)}
	return err
}

// spot is where a point lies now, and which spot of the sheet it is.
func (r *run) spot(e pointExpr) (at, onSheet geom.Vec, err error) {
	if at, err = e.folded(r); err == nil {
		onSheet, err = e.sheet(r)
	}
	return at, onSheet, err
}

// pointAndLine is where a point and a line lie now.
func (r *run) pointAndLine(pe pointExpr, le lineExpr) (p geom.Vec, l geom.Line, seg geom.Segment, err error) {
	if p, err = pe.folded(r); err == nil {
		l, seg, err = le.folded(r)
	}
	return p, l, seg, err
}

func (r *run) pointToLine(f foldLine, out *resolved) error {
	p, l, seg, err := r.pointAndLine(f.p, f.l)
	if err != nil {
		return err
	}
	pivot, err := f.through.folded(r)
	if err != nil {
		return err
	}
	folds, landings := geom.FoldPointToLine(p, l, pivot)
	if len(folds) == 0 {
		return fold.Errorf(fold.CodeNoLine, "%s cannot reach %s when the crease goes through %s: it is %.1f mm too short",
			f.p.words(r), f.l.words(r), f.through.words(r), math.Abs(l.Side(pivot))-p.Dist(pivot))
	}
	d, err := r.decided(func() (decision, error) {
		choice, err := r.chooseLanding(f, landings)
		return decision{line: folds[max(choice, 0)]}, err
	})
	if err != nil {
		return err
	}
	held, err := f.p.sheet(r)
	out.line, out.held, out.pivot = r.nearest(folds, d.line), &held, &pivot
	to := lineMark(f.l.words(r), seg)
	to.At = out.line.Mirror(p)
	out.meets = [2]Mark{pointMark(f.p.words(r), p), to}
	return err
}

// chooseLanding takes the landing nearest to "near", else the only one that is
// on the paper.
func (r *run) chooseLanding(f foldLine, landings []geom.Vec) (int, error) {
	if f.near != nil {
		var n geom.Vec
		if err := r.quietly(func() (err error) { n, err = f.near.folded(r); return err }); err != nil {
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
		if _, ok := r.state.TopAt(q); !ok {
			continue
		}
		if found >= 0 {
			return 0, fold.Errorf(fold.CodeNoLine, "%s can reach %s in two places; say which with near", f.p.words(r), f.l.words(r))
		}
		found = i
	}
	if found < 0 {
		return 0, fold.Errorf(fold.CodeNoLine, "%s would meet %s beyond the paper", f.p.words(r), f.l.words(r))
	}
	return found, nil
}

func (r *run) lineToLine(f foldLine, out *resolved) error {
	l, err := bisector(r, f.l, f.m, f.near)
	if err != nil {
		return err
	}
	held, err := f.l.held(r)
	if err != nil {
		return err
	}
	_, a, _ := f.l.folded(r)
	_, b, _ := f.m.folded(r)
	out.line, out.held = l, &held
	out.meets = [2]Mark{lineMark(f.l.words(r), a), lineMark(f.m.words(r), b)}
	return nil
}

// twoPoints brings two points to two lines at once.
func (r *run) twoPoints(f foldLine, out *resolved) error {
	p, l, seg, err := r.pointAndLine(f.p, f.l)
	if err != nil {
		return err
	}
	q, m, _, err := r.pointAndLine(f.q, f.m)
	if err != nil {
		return err
	}
	folds, landings := geom.FoldPointsToLines(p, l, q, m, 2*math.Hypot(r.state.Sheet.WidthMM, r.state.Sheet.HeightMM))
	if len(folds) == 0 {
		return fold.Errorf(fold.CodeNoLine, "no crease brings %s to %s and %s to %s at once", f.p.words(r), f.l.words(r), f.q.words(r), f.m.words(r))
	}
	d, err := r.decided(func() (decision, error) {
		choice, err := r.chooseLanding(f, landings)
		return decision{line: folds[max(choice, 0)]}, err
	})
	if err != nil {
		return err
	}
	held, err := f.p.sheet(r)
	out.line, out.held = r.nearest(folds, d.line), &held
	to := lineMark(f.l.words(r), seg)
	to.At = out.line.Mirror(p)
	out.meets = [2]Mark{pointMark(f.p.words(r), p), to}
	return err
}

// toBalance finds the fold that lays a point on the centre of mass which the toy
// has after that fold. The place is found by folding on trial: each trial fold
// brings the point to the centre that the one before left, until they agree to
// 1e-9 mm. Since only part of the mass moves, the trials draw together.
func (r *run) toBalance(f foldLine, out *resolved) error {
	p, held, err := r.spot(f.p)
	if err != nil {
		return err
	}
	d, err := r.decided(func() (decision, error) {
		target := r.centreOfMass()
		for range 200 {
			l, ok := geom.FoldPointToPoint(p, target)
			if !ok {
				return decision{}, fold.Errorf(fold.CodeNoLine, "%s lies on the centre of mass already", f.p.words(r))
			}
			side := int8(1)
			if l.Side(p) < 0 {
				side = -1
			}
			plan, err := r.state.SimpleFold(fold.Selection{Line: l, Side: side, Seeds: r.state.FacetsAtSheet(held), Sense: fold.ValleySense}, 0)
			if err != nil {
				return decision{}, err
			}
			after, err := r.state.Apply(plan)
			if err != nil {
				return decision{}, err
			}
			var sum geom.Vec
			var area float64
			for i, q := range after.F {
				a := q.Poly.Area()
				sum, area = sum.Add(after.Folded(fold.FacetID(i)).Centroid().Scale(a)), area+a
			}
			c := sum.Scale(1 / area)
			if c.Dist(target) < 1e-9 {
				return decision{line: l}, nil
			}
			target = c
		}
		return decision{}, fold.Errorf(fold.CodeNoLine, "no fold was found that lays %s on the centre of mass", f.p.words(r))
	})
	if err != nil {
		return err
	}
	out.line, out.held = d.line, &held
	out.meets = [2]Mark{pointMark(f.p.words(r), p), pointMark("the centre of mass", d.line.Mirror(p))}
	return nil
}
