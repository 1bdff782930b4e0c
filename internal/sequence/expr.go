package sequence

import (
	"math"

	"tussock/internal/fold"
	"tussock/internal/geom"
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
	folded(r *run) (geom.Vec, *fold.Error)
	sheet(r *run) (geom.Vec, *fold.Error)
	words(r *run) string
}

type pointName string

func (n pointName) words(r *run) string { return r.pat.Called(string(n)) }
func (n pointName) sheet(r *run) (geom.Vec, *fold.Error) {
	return r.points[string(n)], nil
}
func (n pointName) folded(r *run) (geom.Vec, *fold.Error) {
	return r.place(r.points[string(n)], n.words(r))
}

type pointOnSheet struct{ x, y numExpr }

func (e pointOnSheet) words(*run) string { return "the given spot of the sheet" }
func (e pointOnSheet) sheet(r *run) (geom.Vec, *fold.Error) {
	return geom.Vec{X: e.x.num(r), Y: e.y.num(r)}, nil
}
func (e pointOnSheet) folded(r *run) (geom.Vec, *fold.Error) {
	p, _ := e.sheet(r)
	return r.place(p, e.words(r))
}

// pinned makes the sheet point of a place that is only known when folded.
func pinned(r *run, e pointExpr) (geom.Vec, *fold.Error) {
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
func (e pointPart) sheet(r *run) (geom.Vec, *fold.Error) {
	return pinned(r, e)
}
func (e pointPart) folded(r *run) (geom.Vec, *fold.Error) {
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
func (e pointMeet) sheet(r *run) (geom.Vec, *fold.Error) {
	return pinned(r, e)
}
func (e pointMeet) folded(r *run) (geom.Vec, *fold.Error) {
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
func (e pointFoot) sheet(r *run) (geom.Vec, *fold.Error) {
	return pinned(r, e)
}
func (e pointFoot) folded(r *run) (geom.Vec, *fold.Error) {
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
	folded(r *run) (geom.Line, geom.Segment, *fold.Error)
	// held is the point of the sheet that fingers take to bring the line somewhere.
	held(r *run) (geom.Vec, *fold.Error)
	words(r *run) string
}

func heldByMiddle(r *run, e lineExpr) (geom.Vec, *fold.Error) {
	_, s, err := e.folded(r)
	if err != nil {
		return geom.Vec{}, err
	}
	return r.pin(s.Mid(), "the middle of "+e.words(r))
}

type lineName string

func (n lineName) words(r *run) string { return r.pat.Called(string(n)) }
func (n lineName) folded(r *run) (geom.Line, geom.Segment, *fold.Error) {
	return r.straight(string(n))
}

// held of a named line is the middle of its longest piece of paper.
func (n lineName) held(r *run) (geom.Vec, *fold.Error) {
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
func (e linePair) folded(r *run) (geom.Line, geom.Segment, *fold.Error) {
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
func (e linePair) held(r *run) (geom.Vec, *fold.Error) {
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

func (e lineSquare) words(r *run) string                 { return "the square to " + e.l.words(r) }
func (e lineSquare) held(r *run) (geom.Vec, *fold.Error) { return heldByMiddle(r, e) }
func (e lineSquare) folded(r *run) (geom.Line, geom.Segment, *fold.Error) {
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

func (e linePar) words(r *run) string                 { return "the parallel to " + e.l.words(r) }
func (e linePar) held(r *run) (geom.Vec, *fold.Error) { return heldByMiddle(r, e) }
func (e linePar) folded(r *run) (geom.Line, geom.Segment, *fold.Error) {
	l, _, err := e.l.folded(r)
	if err != nil {
		return l, geom.Segment{}, err
	}
	out, err := shifted(r, l, e.mm.num(r), e.toward, e.l.words(r))
	return out, r.across(out), err
}

// shifted moves a line in parallel by mm towards a landmark.
func shifted(r *run, l geom.Line, mm float64, toward pointExpr, name string) (geom.Line, *fold.Error) {
	if mm == 0 {
		return l, nil
	}
	side, err := sideOf(r, l, toward, name)
	return l.Offset(mm * side), err
}

// sideOf is +1 or -1 for the side of the line on which a landmark lies.
func sideOf(r *run, l geom.Line, p pointExpr, name string) (float64, *fold.Error) {
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
func (e lineBis) held(r *run) (geom.Vec, *fold.Error) { return heldByMiddle(r, e) }
func (e lineBis) folded(r *run) (geom.Line, geom.Segment, *fold.Error) {
	f, err := bisector(r, e.l, e.m, nil)
	return f, r.across(f), err
}

// bisector is the crease that lays l on m. Of the two there are it takes the one
// that moves the middle of l least, or the one that lands it nearest to near.
func bisector(r *run, le, me lineExpr, near pointExpr) (geom.Line, *fold.Error) {
	l, seg, err := le.folded(r)
	if err != nil {
		return l, err
	}
	m, _, err := me.folded(r)
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
	best := folds[0]
	for _, f := range folds[1:] {
		if f.Mirror(seg.Mid()).Dist(target) < best.Mirror(seg.Mid()).Dist(target)-geom.OnLine {
			best = f
		}
	}
	return best, nil
}
