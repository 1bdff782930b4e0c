package sequence

import (
	"fmt"
	"math"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/say"
	"tussock/internal/sequence/basis"
	"tussock/internal/sheet"
)

// Expressions are evaluated on the state that a run has reached.

// NumExpr is a number: written, or the value of a knob.
type NumExpr interface{ Num(r *Course) float64 }

type (
	// NumLit is a number as it is written.
	NumLit float64
	// NumName is a number by the name of a knob or param.
	NumName string
)

func (n NumLit) Num(*Course) float64    { return float64(n) }
func (n NumName) Num(r *Course) float64 { return r.Values[string(n)] }

// PointExpr is a place: in the folded plane now, and on the sheet for ever.
type PointExpr interface {
	Folded(r *Course) (geom.Vec, error)
	Sheet(r *Course) (geom.Vec, error)
	Words(r *Course) string
}

// PointName is a landmark by its name.
type PointName string

func (n PointName) Words(r *Course) string { return r.Pat.Called(string(n)) }
func (n PointName) Sheet(r *Course) (geom.Vec, error) {
	return r.known(string(n))
}
func (n PointName) Folded(r *Course) (geom.Vec, error) {
	p, err := r.placeNamed(string(n))
	if err == nil {
		r.refNamed(string(n), p)
	}
	return p, err
}

// PointOnSheet is a spot of the sheet by its coordinates, mm.
type PointOnSheet struct{ X, Y NumExpr }

func (e PointOnSheet) Words(r *Course) string {
	if r.varies(e.X, e.Y) {
		return "the given spot of the sheet"
	}
	return fmt.Sprintf("the spot %s from the left and %s from below", say.MM(e.X.Num(r), 0), say.MM(e.Y.Num(r), 0))
}
func (e PointOnSheet) Sheet(r *Course) (geom.Vec, error) {
	return geom.Vec{X: e.X.Num(r), Y: e.Y.Num(r)}, nil
}
func (e PointOnSheet) Folded(r *Course) (geom.Vec, error) {
	p, _ := e.Sheet(r)
	at, err := r.place(p, e.Words(r))
	if err == nil {
		r.ref(basis.Ref{Kind: basis.Point, At: at})
	}
	return at, err
}

// pinned makes the sheet point of a place that is only known when folded.
func pinned(r *Course, e PointExpr) (geom.Vec, error) {
	p, err := e.Folded(r)
	if err != nil {
		return p, err
	}
	return r.Pin(p, e.Words(r))
}

// PointPart is part of the way from one place to another.
type PointPart struct { // k of the way from a to b
	A, B PointExpr
	K    NumExpr
	Mm   bool // k is a length instead of a fraction
}

func (e PointPart) Words(r *Course) string {
	return "the point between " + e.A.Words(r) + " and " + e.B.Words(r)
}
func (e PointPart) Sheet(r *Course) (geom.Vec, error) {
	return pinned(r, e)
}
func (e PointPart) Folded(r *Course) (geom.Vec, error) {
	p, from, err := e.placed(r)
	if err == nil {
		r.ref(basis.Ref{Kind: basis.Point, At: p})
		if e.Mm || !written(e.K) {
			r.RefLength(from, p)
		}
	}
	return p, err
}

func (e PointPart) placed(r *Course) (at, from geom.Vec, err error) {
	defer r.aside()()
	a, err := e.A.Folded(r)
	if err != nil {
		return a, a, err
	}
	b, err := e.B.Folded(r)
	if err != nil {
		return b, a, err
	}
	k := e.K.Num(r)
	if e.Mm {
		d := a.Dist(b)
		if d < geom.Distinct {
			return a, a, fold.Errorf(fold.CodeNoLine, "%s and %s lie on the same spot, so there is no way from one to the other", e.A.Words(r), e.B.Words(r))
		}
		k /= d
	}
	return a.Lerp(b, k), a, nil
}

// PointMeet is where two lines cross.
type PointMeet struct{ L, M LineExpr }

func (e PointMeet) Words(r *Course) string {
	return "the crossing of " + e.L.Words(r) + " and " + e.M.Words(r)
}
func (e PointMeet) Sheet(r *Course) (geom.Vec, error) {
	return pinned(r, e)
}
func (e PointMeet) Folded(r *Course) (geom.Vec, error) {
	p, err := e.placed(r)
	if err == nil {
		r.ref(basis.Ref{Kind: basis.Point, At: p})
	}
	return p, err
}

func (e PointMeet) placed(r *Course) (geom.Vec, error) {
	defer r.aside()()
	a, _, err := e.L.Folded(r)
	if err != nil {
		return geom.Vec{}, err
	}
	b, _, err := e.M.Folded(r)
	if err != nil {
		return geom.Vec{}, err
	}
	p, ok := geom.Meet(a, b)
	if !ok {
		return p, fold.Errorf(fold.CodeNoLine, "%s and %s run side by side and never cross", e.L.Words(r), e.M.Words(r))
	}
	return p, nil
}

// PointFoot is the foot of a place on a line.
type PointFoot struct {
	P PointExpr
	L LineExpr
}

func (e PointFoot) Words(r *Course) string {
	return "the foot of " + e.P.Words(r) + " on " + e.L.Words(r)
}
func (e PointFoot) Sheet(r *Course) (geom.Vec, error) {
	return pinned(r, e)
}
func (e PointFoot) Folded(r *Course) (geom.Vec, error) {
	back := r.aside()
	p, l, _, err := r.pointAndLine(e.P, e.L)
	back()
	if err == nil {
		p = l.Foot(p)
		r.ref(basis.Ref{Kind: basis.Point, At: p})
	}
	return p, err
}

// LineExpr is a straight line in the folded plane, with the stretch that is
// meant of it.
type LineExpr interface {
	Folded(r *Course) (geom.Line, geom.Segment, error)
	// held is the point of the sheet that fingers take to bring the line somewhere.
	held(r *Course) (geom.Vec, error)
	Words(r *Course) string
}

func heldByMiddle(r *Course, e LineExpr) (geom.Vec, error) {
	_, s, err := e.Folded(r)
	if err != nil {
		return geom.Vec{}, err
	}
	return r.Pin(s.Mid(), "the middle of "+e.Words(r))
}

// LineName is a crease or edge by its name.
type LineName string

func (n LineName) Words(r *Course) string { return r.Pat.Called(string(n)) }
func (n LineName) Folded(r *Course) (geom.Line, geom.Segment, error) {
	l, s, err := r.straight(string(n))
	if err == nil {
		r.ref(basis.Ref{Kind: basis.Line, Name: string(n), At: s.Mid(), Along: s})
	}
	return l, s, err
}

// held of a named line is the middle of its longest piece of paper.
func (n LineName) held(r *Course) (geom.Vec, error) {
	var best geom.Segment
	for _, s := range r.Lines[string(n)].Pieces {
		if s.Len() > best.Len() {
			best = s
		}
	}
	return best.Mid(), nil
}

// LinePair is the line through two places.
type LinePair struct{ A, B PointExpr }

// Words of two landmarks that lie on one named line of the paper are that line's.
func (e LinePair) Words(r *Course) string {
	if name := r.lineOn(e.A, e.B); name != "" {
		return r.Pat.Called(name)
	}
	return "the line from " + e.A.Words(r) + " to " + e.B.Words(r)
}
func (e LinePair) Folded(r *Course) (geom.Line, geom.Segment, error) {
	a, err := e.A.Folded(r)
	if err != nil {
		return geom.Line{}, geom.Segment{}, err
	}
	b, err := e.B.Folded(r)
	if err != nil {
		return geom.Line{}, geom.Segment{}, err
	}
	l, ok := geom.LineThrough(a, b)
	if !ok {
		err = fold.Errorf(fold.CodeNoLine, "%s and %s lie on the same spot on this sheet, so they give no line", e.A.Words(r), e.B.Words(r))
	}
	return l, geom.Segment{A: a, B: b}, err
}

// held of a pair of landmarks is the middle between them on the sheet.
func (e LinePair) held(r *Course) (geom.Vec, error) {
	a, err := e.A.Sheet(r)
	if err != nil {
		return a, err
	}
	b, err := e.B.Sheet(r)
	return geom.Mid(a, b), err
}

// LineSquare is the square to a line through a place.
type LineSquare struct {
	P PointExpr
	L LineExpr
}

func (e LineSquare) Words(r *Course) string           { return "the square to " + e.L.Words(r) }
func (e LineSquare) held(r *Course) (geom.Vec, error) { return heldByMiddle(r, e) }
func (e LineSquare) Folded(r *Course) (geom.Line, geom.Segment, error) {
	p, err := e.P.Folded(r)
	if err != nil {
		return geom.Line{}, geom.Segment{}, err
	}
	defer r.aside()()
	l, _, err := e.L.Folded(r)
	if err != nil {
		return l, geom.Segment{}, err
	}
	sq := geom.LineAt(p, l.N)
	return sq, r.across(sq), nil
}

// LinePar is the parallel to a line at a distance, towards a place.
type LinePar struct {
	L      LineExpr
	Mm     NumExpr
	Toward PointExpr
}

func (e LinePar) Words(r *Course) string           { return "the parallel to " + e.L.Words(r) }
func (e LinePar) held(r *Course) (geom.Vec, error) { return heldByMiddle(r, e) }
func (e LinePar) Folded(r *Course) (geom.Line, geom.Segment, error) {
	l, seg, err := e.L.Folded(r)
	if err != nil {
		return l, geom.Segment{}, err
	}
	out, err := shifted(r, l, e.Mm.Num(r), e.Toward, e.L.Words(r))
	r.RefLength(seg.Mid(), out.Foot(seg.Mid()))
	return out, r.across(out), err
}

// shifted moves a line in parallel by mm towards a landmark.
func shifted(r *Course, l geom.Line, mm float64, toward PointExpr, name string) (geom.Line, error) {
	if mm == 0 {
		return l, nil
	}
	side, err := SideOf(r, l, toward, name)
	return l.Offset(mm * side), err
}

// SideOf is +1 or -1 for the side of the line on which a landmark lies.
func SideOf(r *Course, l geom.Line, p PointExpr, name string) (float64, error) {
	v, err := r.Unseen(p)
	if err != nil {
		return 1, err
	}
	d := l.Side(v)
	if math.Abs(d) < geom.OnPaper {
		return 1, fold.Errorf(fold.CodeNoLine, "%s lies on %s itself; name a spot beside it, so that the side is clear", p.Words(r), name)
	}
	return math.Copysign(1, d), nil
}

// LineBis is a bisector of two lines.
type LineBis struct{ L, M LineExpr }

func (e LineBis) Words(r *Course) string {
	return "the bisector of " + e.L.Words(r) + " and " + e.M.Words(r)
}
func (e LineBis) held(r *Course) (geom.Vec, error) { return heldByMiddle(r, e) }
func (e LineBis) Folded(r *Course) (geom.Line, geom.Segment, error) {
	f, err := bisector(r, e.L, e.M, nil)
	return f, r.across(f), err
}

// bisector is the crease that lays l on m. Of the two there are it takes the one
// that lands the middle of l on the stretch of m that is named, or else moves it
// least; with near, the one that lands it nearest to there.
func bisector(r *Course, le, me LineExpr, near PointExpr) (geom.Line, error) {
	l, seg, err := le.Folded(r)
	if err != nil {
		return l, err
	}
	m, goal, err := me.Folded(r)
	if err != nil {
		return m, err
	}
	folds := geom.FoldLineToLine(l, m)
	if len(folds) == 0 {
		return l, fold.Errorf(fold.CodeNoLine, "%s lies on %s already, so there is nothing to bring together", le.Words(r), me.Words(r))
	}
	target := seg.Mid()
	if near != nil {
		if target, err = r.Unseen(near); err != nil {
			return l, err
		}
	}
	d, err := r.Decided(func() (Decision, error) {
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
		return Decision{line: best}, nil
	})
	return r.nearest(folds, d.line), err
}

// LineBeside is the parallel to a line through a landmark.
type LineBeside struct {
	L LineExpr
	P PointExpr
}

func (e LineBeside) Words(r *Course) string {
	return "the parallel to " + e.L.Words(r) + " through " + e.P.Words(r)
}
func (e LineBeside) held(r *Course) (geom.Vec, error) { return heldByMiddle(r, e) }
func (e LineBeside) Folded(r *Course) (geom.Line, geom.Segment, error) {
	l, _, err := e.L.Folded(r)
	if err != nil {
		return l, geom.Segment{}, err
	}
	p, err := e.P.Folded(r)
	if err != nil {
		return l, geom.Segment{}, err
	}
	out := geom.LineAt(p, l.Dir())
	return out, r.across(out), nil
}

// LineTurned is a line through a landmark at an angle to another line.
type LineTurned struct {
	L             LineExpr
	Deg           NumExpr
	About, Toward PointExpr
}

func (e LineTurned) Words(r *Course) string {
	if r.varies(e.Deg) {
		return "the line aslant to " + e.L.Words(r)
	}
	return "the line at " + sheet.Number(e.Deg.Num(r)) + "° to " + e.L.Words(r)
}
func (e LineTurned) held(r *Course) (geom.Vec, error) { return heldByMiddle(r, e) }
func (e LineTurned) Folded(r *Course) (geom.Line, geom.Segment, error) {
	l, _, err := LineBeside{e.L, e.About}.Folded(r)
	if err != nil {
		return l, geom.Segment{}, err
	}
	p, err := e.About.Folded(r)
	if err != nil {
		return l, geom.Segment{}, err
	}
	q, err := r.Unseen(e.Toward)
	if err != nil {
		return l, geom.Segment{}, err
	}
	out, err := r.turned(l, e.Deg.Num(r), p, q)
	r.refAngle(p, l, out, e.Deg.Num(r), q)
	return out, r.across(out), err
}

// LineTaper lies at one distance from a line at one landmark and at another
// distance at another, both on the side of a third.
type LineTaper struct {
	L            LineExpr
	A, B         NumExpr
	P, Q, Toward PointExpr
}

func (e LineTaper) Words(r *Course) string           { return "the taper along " + e.L.Words(r) }
func (e LineTaper) held(r *Course) (geom.Vec, error) { return heldByMiddle(r, e) }
func (e LineTaper) Folded(r *Course) (geom.Line, geom.Segment, error) {
	l, _, err := e.L.Folded(r)
	if err != nil {
		return l, geom.Segment{}, err
	}
	side, err := SideOf(r, l, e.Toward, e.L.Words(r))
	if err != nil {
		return l, geom.Segment{}, err
	}
	p, err := r.Unseen(e.P)
	if err != nil {
		return l, geom.Segment{}, err
	}
	q, err := r.Unseen(e.Q)
	if err != nil {
		return l, geom.Segment{}, err
	}
	u, v := l.Foot(p).Add(l.N.Scale(side*e.A.Num(r))), l.Foot(q).Add(l.N.Scale(side*e.B.Num(r)))
	r.RefLength(l.Foot(p), u)
	r.RefLength(l.Foot(q), v)
	r.ref(basis.Ref{Kind: basis.Point, At: u})
	r.ref(basis.Ref{Kind: basis.Point, At: v})
	out, ok := geom.LineThrough(u, v)
	if !ok {
		return l, geom.Segment{}, fold.Errorf(fold.CodeNoLine, "%s and %s stand at the same place along %s, so they give no taper", e.P.Words(r), e.Q.Words(r), e.L.Words(r))
	}
	return out, geom.Segment{A: u, B: v}, nil
}

// LineRim is a side of the piece of paper at one landmark, the one nearest to
// another. It may be hidden in the pack.
type LineRim struct{ Of, Near PointExpr }

func (e LineRim) Words(r *Course) string           { return "the edge of the layer at " + e.Of.Words(r) }
func (e LineRim) held(r *Course) (geom.Vec, error) { return e.Of.Sheet(r) }
func (e LineRim) Folded(r *Course) (geom.Line, geom.Segment, error) {
	p, err := e.Of.Sheet(r)
	if err != nil {
		return geom.Line{}, geom.Segment{}, err
	}
	n, err := r.Unseen(e.Near)
	if err != nil {
		return geom.Line{}, geom.Segment{}, err
	}
	d, err := r.Decided(func() (Decision, error) {
		at := r.State.FacetsAtSheet(p)
		if len(at) == 0 {
			return Decision{}, fold.Errorf(fold.CodeOffPaper, "%s is not on the paper", e.Of.Words(r))
		}
		best, dist := 0, math.Inf(1)
		poly := r.State.F[at[0]].Poly
		for i, a := range poly {
			iso := r.State.F[at[0]].Iso
			s := geom.Segment{A: iso.Apply(a), B: iso.Apply(poly[(i+1)%len(poly)])}
			if x := s.Dist(n); x < dist {
				best, dist = i, x
			}
		}
		return Decision{I: int32(at[0]), J: int32(best)}, nil
	})
	if err != nil {
		return geom.Line{}, geom.Segment{}, err
	}
	poly, iso := r.State.F[d.I].Poly, r.Iso(fold.FacetID(d.I))
	s := geom.Segment{A: poly[d.J], B: poly[(int(d.J)+1)%len(poly)]}
	if r.Sh != nil {
		if l, cut := r.Sh.Edge(fold.FacetID(d.I), s); cut {
			s = geom.Segment{A: l.Foot(s.A), B: l.Foot(s.B)}
		}
	}
	s = geom.Segment{A: iso.Apply(s.A), B: iso.Apply(s.B)}
	l, ok := geom.LineThrough(s.A, s.B)
	if !ok {
		return l, s, fold.Errorf(fold.CodeNoLine, "the edge at %s has no length on this sheet", e.Of.Words(r))
	}
	return l, s, nil
}

// PointCoM is the centre of mass of the toy as it lies, or as it stands in the round.
type PointCoM struct{ Standing bool }

func (e PointCoM) Sheet(r *Course) (geom.Vec, error) { return pinned(r, e) }

func (e PointCoM) Words(*Course) string {
	if e.Standing {
		return "the centre of mass as it stands"
	}
	return "the centre of mass"
}

func (e PointCoM) Folded(r *Course) (geom.Vec, error) {
	if e.Standing {
		if c, ok := r.Pat.Reader.Standing(r.Out.UpTo(len(r.Out.Steps))); ok {
			return c, nil
		}
	}
	return r.centreOfMass(), nil
}
