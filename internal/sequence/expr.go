package sequence

import (
	"math"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sheet"
)

// Expressions are evaluated on the state that a run has reached.

type numExpr interface{ num(r *run) float64 }

type (
	numLit  float64
	numName string
)

func (n numLit) num(*run) float64    { return float64(n) }
func (n numName) num(r *run) float64 { return r.values[string(n)] }

// pointExpr is a place: in the folded plane now, and on the sheet for ever.
type pointExpr interface {
	folded(r *run) (geom.Vec, error)
	sheet(r *run) (geom.Vec, error)
	words(r *run) string
}

type pointName string

func (n pointName) words(r *run) string { return r.pat.Called(string(n)) }
func (n pointName) sheet(r *run) (geom.Vec, error) {
	return r.points[string(n)], nil
}
func (n pointName) folded(r *run) (geom.Vec, error) {
	return r.placeNamed(string(n))
}

type pointOnSheet struct{ x, y numExpr }

func (e pointOnSheet) words(*run) string { return "the given spot of the sheet" }
func (e pointOnSheet) sheet(r *run) (geom.Vec, error) {
	return geom.Vec{X: e.x.num(r), Y: e.y.num(r)}, nil
}
func (e pointOnSheet) folded(r *run) (geom.Vec, error) {
	p, _ := e.sheet(r)
	return r.place(p, e.words(r))
}

// pinned makes the sheet point of a place that is only known when folded.
func pinned(r *run, e pointExpr) (geom.Vec, error) {
	p, err := e.folded(r)
	if err != nil {
		return p, err
	}
	return r.pin(p, e.words(r))
}

type pointPart struct { // k of the way from a to b
	a, b pointExpr
	k    numExpr
	mm   bool // k is a length instead of a fraction
}

func (e pointPart) words(r *run) string {
	return "the point between " + e.a.words(r) + " and " + e.b.words(r)
}
func (e pointPart) sheet(r *run) (geom.Vec, error) {
	return pinned(r, e)
}
func (e pointPart) folded(r *run) (geom.Vec, error) {
	a, err := e.a.folded(r)
	if err != nil {
		return a, err
	}
	b, err := e.b.folded(r)
	if err != nil {
		return b, err
	}
	k := e.k.num(r)
	if e.mm {
		d := a.Dist(b)
		if d < geom.Distinct {
			return a, fold.Errorf(fold.CodeNoLine, "%s and %s lie on the same spot, so there is no way from one to the other", e.a.words(r), e.b.words(r))
		}
		k /= d
	}
	return a.Lerp(b, k), nil
}

type pointMeet struct{ l, m lineExpr }

func (e pointMeet) words(r *run) string {
	return "the crossing of " + e.l.words(r) + " and " + e.m.words(r)
}
func (e pointMeet) sheet(r *run) (geom.Vec, error) {
	return pinned(r, e)
}
func (e pointMeet) folded(r *run) (geom.Vec, error) {
	a, _, err := e.l.folded(r)
	if err != nil {
		return geom.Vec{}, err
	}
	b, _, err := e.m.folded(r)
	if err != nil {
		return geom.Vec{}, err
	}
	p, ok := geom.Meet(a, b)
	if !ok {
		return p, fold.Errorf(fold.CodeNoLine, "%s and %s run side by side and never cross", e.l.words(r), e.m.words(r))
	}
	return p, nil
}

type pointFoot struct {
	p pointExpr
	l lineExpr
}

func (e pointFoot) words(r *run) string { return "the foot of " + e.p.words(r) + " on " + e.l.words(r) }
func (e pointFoot) sheet(r *run) (geom.Vec, error) {
	return pinned(r, e)
}
func (e pointFoot) folded(r *run) (geom.Vec, error) {
	p, err := e.p.folded(r)
	if err != nil {
		return p, err
	}
	l, _, err := e.l.folded(r)
	return l.Foot(p), err
}

// lineExpr is a straight line in the folded plane, with the stretch that is
// meant of it.
type lineExpr interface {
	folded(r *run) (geom.Line, geom.Segment, error)
	// held is the point of the sheet that fingers take to bring the line somewhere.
	held(r *run) (geom.Vec, error)
	words(r *run) string
}

func heldByMiddle(r *run, e lineExpr) (geom.Vec, error) {
	_, s, err := e.folded(r)
	if err != nil {
		return geom.Vec{}, err
	}
	return r.pin(s.Mid(), "the middle of "+e.words(r))
}

type lineName string

func (n lineName) words(r *run) string { return r.pat.Called(string(n)) }
func (n lineName) folded(r *run) (geom.Line, geom.Segment, error) {
	return r.straight(string(n))
}

// held of a named line is the middle of its longest piece of paper.
func (n lineName) held(r *run) (geom.Vec, error) {
	var best geom.Segment
	for _, s := range r.lines[string(n)].pieces {
		if s.Len() > best.Len() {
			best = s
		}
	}
	return best.Mid(), nil
}

type linePair struct{ a, b pointExpr }

// words of two landmarks that lie on one named line of the paper are that line's.
func (e linePair) words(r *run) string {
	if name := r.lineOn(e.a, e.b); name != "" {
		return r.pat.Called(name)
	}
	return "the line from " + e.a.words(r) + " to " + e.b.words(r)
}
func (e linePair) folded(r *run) (geom.Line, geom.Segment, error) {
	a, err := e.a.folded(r)
	if err != nil {
		return geom.Line{}, geom.Segment{}, err
	}
	b, err := e.b.folded(r)
	if err != nil {
		return geom.Line{}, geom.Segment{}, err
	}
	l, ok := geom.LineThrough(a, b)
	if !ok {
		err = fold.Errorf(fold.CodeNoLine, "%s and %s lie on the same spot on this sheet, so they give no line", e.a.words(r), e.b.words(r))
	}
	return l, geom.Segment{A: a, B: b}, err
}

// held of a pair of landmarks is the middle between them on the sheet.
func (e linePair) held(r *run) (geom.Vec, error) {
	a, err := e.a.sheet(r)
	if err != nil {
		return a, err
	}
	b, err := e.b.sheet(r)
	return geom.Mid(a, b), err
}

type lineSquare struct {
	p pointExpr
	l lineExpr
}

func (e lineSquare) words(r *run) string           { return "the square to " + e.l.words(r) }
func (e lineSquare) held(r *run) (geom.Vec, error) { return heldByMiddle(r, e) }
func (e lineSquare) folded(r *run) (geom.Line, geom.Segment, error) {
	p, err := e.p.folded(r)
	if err != nil {
		return geom.Line{}, geom.Segment{}, err
	}
	l, _, err := e.l.folded(r)
	if err != nil {
		return l, geom.Segment{}, err
	}
	sq := geom.LineAt(p, l.N)
	return sq, r.across(sq), nil
}

type linePar struct {
	l      lineExpr
	mm     numExpr
	toward pointExpr
}

func (e linePar) words(r *run) string           { return "the parallel to " + e.l.words(r) }
func (e linePar) held(r *run) (geom.Vec, error) { return heldByMiddle(r, e) }
func (e linePar) folded(r *run) (geom.Line, geom.Segment, error) {
	l, _, err := e.l.folded(r)
	if err != nil {
		return l, geom.Segment{}, err
	}
	out, err := shifted(r, l, e.mm.num(r), e.toward, e.l.words(r))
	return out, r.across(out), err
}

// shifted moves a line in parallel by mm towards a landmark.
func shifted(r *run, l geom.Line, mm float64, toward pointExpr, name string) (geom.Line, error) {
	if mm == 0 {
		return l, nil
	}
	side, err := sideOf(r, l, toward, name)
	return l.Offset(mm * side), err
}

// sideOf is +1 or -1 for the side of the line on which a landmark lies.
func sideOf(r *run, l geom.Line, p pointExpr, name string) (float64, error) {
	v, err := p.folded(r)
	if err != nil {
		return 1, err
	}
	d := l.Side(v)
	if math.Abs(d) < geom.OnPaper {
		return 1, fold.Errorf(fold.CodeNoLine, "%s lies on %s itself, so it does not say which side is meant", p.words(r), name)
	}
	return math.Copysign(1, d), nil
}

type lineBis struct{ l, m lineExpr }

func (e lineBis) words(r *run) string {
	return "the bisector of " + e.l.words(r) + " and " + e.m.words(r)
}
func (e lineBis) held(r *run) (geom.Vec, error) { return heldByMiddle(r, e) }
func (e lineBis) folded(r *run) (geom.Line, geom.Segment, error) {
	f, err := bisector(r, e.l, e.m, nil)
	return f, r.across(f), err
}

// bisector is the crease that lays l on m. Of the two there are it takes the one
// that lands the middle of l on the stretch of m that is named, or else moves it
// least; with near, the one that lands it nearest to there.
func bisector(r *run, le, me lineExpr, near pointExpr) (geom.Line, error) {
	l, seg, err := le.folded(r)
	if err != nil {
		return l, err
	}
	m, goal, err := me.folded(r)
	if err != nil {
		return m, err
	}
	folds := geom.FoldLineToLine(l, m)
	if len(folds) == 0 {
		return l, fold.Errorf(fold.CodeNoLine, "%s lies on %s already, so there is nothing to bring together", le.words(r), me.words(r))
	}
	target := seg.Mid()
	if near != nil {
		if target, err = near.folded(r); err != nil {
			return l, err
		}
	}
	d, err := r.decided(func() (decision, error) {
		best := folds[0]
		for _, f := range folds[1:] {
			a, b := f.Mirror(seg.Mid()), best.Mirror(seg.Mid())
			da, db := a.Dist(target), b.Dist(target)
			if near == nil {
				// On the stretch that is named, rather than beyond its ends.
				if x, y := goal.Dist(a), goal.Dist(b); math.Abs(x-y) > geom.Distinct {
					da, db = x, y
				}
			}
			if da < db-geom.OnLine {
				best = f
			}
		}
		return decision{line: best}, nil
	})
	return r.nearest(folds, d.line), err
}

// lineBeside is the parallel to a line through a landmark.
type lineBeside struct {
	l lineExpr
	p pointExpr
}

func (e lineBeside) words(r *run) string {
	return "the parallel to " + e.l.words(r) + " through " + e.p.words(r)
}
func (e lineBeside) held(r *run) (geom.Vec, error) { return heldByMiddle(r, e) }
func (e lineBeside) folded(r *run) (geom.Line, geom.Segment, error) {
	l, _, err := e.l.folded(r)
	if err != nil {
		return l, geom.Segment{}, err
	}
	p, err := e.p.folded(r)
	if err != nil {
		return l, geom.Segment{}, err
	}
	out := geom.LineAt(p, l.Dir())
	return out, r.across(out), nil
}

// lineTurned is a line through a landmark at an angle to another line.
type lineTurned struct {
	l             lineExpr
	deg           numExpr
	about, toward pointExpr
}

func (e lineTurned) words(r *run) string {
	return "the line at " + sheet.Number(e.deg.num(r)) + "° to " + e.l.words(r)
}
func (e lineTurned) held(r *run) (geom.Vec, error) { return heldByMiddle(r, e) }
func (e lineTurned) folded(r *run) (geom.Line, geom.Segment, error) {
	l, _, err := lineBeside{e.l, e.about}.folded(r)
	if err != nil {
		return l, geom.Segment{}, err
	}
	p, err := e.about.folded(r)
	if err != nil {
		return l, geom.Segment{}, err
	}
	q, err := e.toward.folded(r)
	if err != nil {
		return l, geom.Segment{}, err
	}
	out := l.TurnedToward(geom.Rad(e.deg.num(r)), p, q)
	return out, r.across(out), nil
}

// lineTaper lies at one distance from a line at one landmark and at another
// distance at another, both on the side of a third.
type lineTaper struct {
	l            lineExpr
	a, b         numExpr
	p, q, toward pointExpr
}

func (e lineTaper) words(r *run) string           { return "the taper along " + e.l.words(r) }
func (e lineTaper) held(r *run) (geom.Vec, error) { return heldByMiddle(r, e) }
func (e lineTaper) folded(r *run) (geom.Line, geom.Segment, error) {
	l, _, err := e.l.folded(r)
	if err != nil {
		return l, geom.Segment{}, err
	}
	side, err := sideOf(r, l, e.toward, e.l.words(r))
	if err != nil {
		return l, geom.Segment{}, err
	}
	p, err := e.p.folded(r)
	if err != nil {
		return l, geom.Segment{}, err
	}
	q, err := e.q.folded(r)
	if err != nil {
		return l, geom.Segment{}, err
	}
	u, v := l.Foot(p).Add(l.N.Scale(side*e.a.num(r))), l.Foot(q).Add(l.N.Scale(side*e.b.num(r)))
	out, ok := geom.LineThrough(u, v)
	if !ok {
		return l, geom.Segment{}, fold.Errorf(fold.CodeNoLine, "%s and %s stand at the same place along %s, so they give no taper", e.p.words(r), e.q.words(r), e.l.words(r))
	}
	return out, geom.Segment{A: u, B: v}, nil
}

// lineRim is a side of the piece of paper at one landmark, the one nearest to
// another. It may be hidden in the pack.
type lineRim struct{ of, near pointExpr }

func (e lineRim) words(r *run) string           { return "the edge of the layer at " + e.of.words(r) }
func (e lineRim) held(r *run) (geom.Vec, error) { return e.of.sheet(r) }
func (e lineRim) folded(r *run) (geom.Line, geom.Segment, error) {
	p, err := e.of.sheet(r)
	if err != nil {
		return geom.Line{}, geom.Segment{}, err
	}
	n, err := e.near.folded(r)
	if err != nil {
		return geom.Line{}, geom.Segment{}, err
	}
	d, err := r.decided(func() (decision, error) {
		at := r.state.FacetsAtSheet(p)
		if len(at) == 0 {
			return decision{}, fold.Errorf(fold.CodeOffPaper, "%s is not on the paper", e.of.words(r))
		}
		best, dist := 0, math.Inf(1)
		poly := r.state.F[at[0]].Poly
		for i, a := range poly {
			iso := r.state.F[at[0]].Iso
			s := geom.Segment{A: iso.Apply(a), B: iso.Apply(poly[(i+1)%len(poly)])}
			if x := s.Dist(n); x < dist {
				best, dist = i, x
			}
		}
		return decision{i: int32(at[0]), j: int32(best)}, nil
	})
	if err != nil {
		return geom.Line{}, geom.Segment{}, err
	}
	poly, iso := r.state.F[d.i].Poly, r.iso(fold.FacetID(d.i))
	s := geom.Segment{A: iso.Apply(poly[d.j]), B: iso.Apply(poly[(int(d.j)+1)%len(poly)])}
	l, ok := geom.LineThrough(s.A, s.B)
	if !ok {
		return l, s, fold.Errorf(fold.CodeNoLine, "the edge at %s has no length on this sheet", e.of.words(r))
	}
	return l, s, nil
}

// pointCoM is the centre of mass of the toy as it lies.
type pointCoM struct{}

func (pointCoM) words(*run) string                { return "the centre of mass" }
func (e pointCoM) sheet(r *run) (geom.Vec, error) { return pinned(r, e) }
func (pointCoM) folded(r *run) (geom.Vec, error)  { return r.centreOfMass(), nil }
