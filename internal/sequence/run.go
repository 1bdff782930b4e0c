package sequence

import (
	"maps"
	"math"
	"slices"

	"tussock/internal/fold"
	"tussock/internal/geom"
)

// run is one replay under way: the state reached and what the names mean there.
type run struct {
	pat    *Pattern
	values map[string]float64
	state  *fold.State
	points map[string]geom.Vec // landmarks, sheet coordinates: they travel with the paper
	lines  map[string]paperLine
	box    geom.Box
}

// paperLine is a named line as pieces of the sheet, with the crease it is.
type paperLine struct {
	pieces []geom.Segment
	crease fold.CreaseID
}

func (r *run) setState(s *fold.State) {
	r.state = s
	r.box = s.Box()
}

// across is a line cut down to the toy's extent, for lines that have no ends.
func (r *run) across(l geom.Line) geom.Segment {
	c := l.Foot(r.box.Centre())
	half := math.Hypot(r.box.Width(), r.box.Height()) / 2
	return geom.Segment{A: c.Sub(l.Dir().Scale(half)), B: c.Add(l.Dir().Scale(half))}
}

// place says where a point of the sheet lies now.
func (r *run) place(p geom.Vec, name string) (geom.Vec, *fold.Error) {
	at := r.state.FacetsAtSheet(p)
	if len(at) == 0 {
		return p, fold.Errorf(fold.CodeOffPaper, "%s is not on this sheet (it would be at %.2f, %.2f mm)", name, p.X, p.Y)
	}
	return r.state.F[at[0]].Iso.Apply(p), nil
}

// pin is the point of the sheet on top at a place of the folded plane.
func (r *run) pin(p geom.Vec, name string) (geom.Vec, *fold.Error) {
	id, ok := r.state.TopAt(p)
	if !ok {
		return p, fold.Errorf(fold.CodeOffPaper, "%s falls off the paper, at (%.2f, %.2f) mm", name, p.X, p.Y)
	}
	return r.unfolded(id, p), nil
}

func (r *run) unfolded(id fold.FacetID, p geom.Vec) geom.Vec {
	return r.state.F[id].Iso.Inverse().Apply(p)
}

// lineOn is the named line whose paper holds two landmarks, those of the pattern
// before those of every sheet; "" when there is none.
func (r *run) lineOn(a, b pointExpr) string {
	p, err := a.sheet(r)
	if err != nil {
		return ""
	}
	q, err := b.sheet(r)
	if err != nil || p.Dist(q) < geom.Distinct {
		return ""
	}
	found := ""
	for _, name := range slices.Sorted(maps.Keys(r.lines)) {
		for _, s := range r.lines[name].pieces {
			l, ok := geom.LineThrough(s.A, s.B)
			if !ok || !within(l, s, p) || !within(l, s, q) {
				continue
			}
			if _, everySheet := builtInLines[name]; !everySheet {
				return name
			}
			found = name
		}
	}
	return found
}

// within tells whether a point lies on a segment of a line.
func within(l geom.Line, s geom.Segment, p geom.Vec) bool {
	t := s.B.Sub(s.A).Unit().Dot(p.Sub(s.A))
	return math.Abs(l.Side(p)) < geom.OnPaper && t > -geom.OnPaper && t < s.Len()+geom.OnPaper
}

// pinLayer pins to the layer that a pattern asks for.
func (r *run) pinLayer(p geom.Vec, c layerChoice, name string) (geom.Vec, *fold.Error) {
	if c.which == "" || c.which == "top" {
		return r.pin(p, name)
	}
	var candidates []fold.FacetID
	if c.which == "layer" {
		q, err := c.of.sheet(r)
		if err != nil {
			return q, err
		}
		candidates = r.state.FacetsAtSheet(q)
	} else {
		for i := range r.state.F {
			candidates = append(candidates, fold.FacetID(i))
		}
	}
	best := fold.FacetID(-1)
	for _, id := range candidates {
		if !r.state.Folded(id).Contains(p, geom.OnPaper) {
			continue
		}
		lower := best >= 0 && r.state.Above(id, best) < 0
		if best < 0 || lower == (c.which == "bottom") {
			best = id
		}
	}
	if best < 0 {
		return p, fold.Errorf(fold.CodeOffPaper, "%s does not lie on the layer named", name)
	}
	return r.unfolded(best, p), nil
}

// straight is a named line as it lies now. A line that an earlier fold has bent
// is refused, since no crease can be meant by it.
func (r *run) straight(name string) (geom.Line, geom.Segment, *fold.Error) {
	var segs []geom.Segment
	var longest geom.Segment
	for _, piece := range r.lines[name].pieces {
		l, ok := geom.LineThrough(piece.A, piece.B)
		if !ok {
			continue
		}
		for i := range r.state.F {
			f := &r.state.F[i]
			part, ok := stretch(f.Poly, l, piece)
			if !ok {
				continue
			}
			s := geom.Segment{A: f.Iso.Apply(part.A), B: f.Iso.Apply(part.B)}
			segs = append(segs, s)
			if s.Len() > longest.Len() {
				longest = s
			}
		}
	}
	l, ok := geom.LineThrough(longest.A, longest.B)
	if !ok {
		return l, longest, fold.Errorf(fold.CodeNoLine, "%s has no length on this sheet", r.pat.Called(name))
	}
	whole := longest
	for _, s := range segs {
		for _, p := range []geom.Vec{s.A, s.B} {
			if math.Abs(l.Side(p)) > geom.OnPaper {
				return l, longest, fold.Errorf(fold.CodeBent,
					"%s is bent by an earlier fold, so it is no longer one straight line; name the piece that is meant by two landmarks, for example [T B]", r.pat.Called(name))
			}
			whole = extended(whole, p, l.Dir())
		}
	}
	return l, whole, nil
}

// stretch is the part of a sheet segment that lies on a piece of paper, its rim
// included.
func stretch(poly geom.Polygon, l geom.Line, s geom.Segment) (geom.Segment, bool) {
	part, ok := poly.ClipLine(l)
	if !ok {
		return part, false
	}
	d := s.B.Sub(s.A).Unit()
	t := func(p geom.Vec) float64 { return d.Dot(p.Sub(s.A)) }
	lo := math.Max(0, math.Min(t(part.A), t(part.B)))
	hi := math.Min(s.Len(), math.Max(t(part.A), t(part.B)))
	if hi-lo <= geom.Overlap {
		return part, false
	}
	return geom.Segment{A: s.A.Add(d.Scale(lo)), B: s.A.Add(d.Scale(hi))}, true
}

func extended(s geom.Segment, p, d geom.Vec) geom.Segment {
	if d.Dot(s.A) > d.Dot(s.B) {
		s.A, s.B = s.B, s.A
	}
	switch t := d.Dot(p); {
	case t < d.Dot(s.A):
		s.A = p
	case t > d.Dot(s.B):
		s.B = p
	}
	return s
}

// resolved is a fold line placed on the state reached.
type resolved struct {
	line  geom.Line
	meets [2]Mark   // what is brought, and to where; empty for folds without
	held  *geom.Vec // what the fingers hold by default, sheet coordinates
	pivot *geom.Vec // the point the crease passes through, if it is given
	shift float64   // mm that the crease lies off its landmarks
	tilt  float64   // degrees likewise
}

func (r *run) resolve(f foldLine) (out resolved, err *fold.Error) {
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
		err = r.tilted(f, &out)
	}
	return out, err
}

// tilted turns the line about the foot of a landmark, the way that carries it
// towards another.
func (r *run) tilted(f foldLine, out *resolved) *fold.Error {
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
	foot := out.line.Foot(about)
	// Counter-clockwise carries a line towards points that lie on the left of
	// the way from the foot to the point's own foot on the line.
	way := out.line.Foot(toward).Sub(foot)
	sign := math.Copysign(1, way.Cross(toward.Sub(foot)))
	out.line = out.line.Turned(sign*geom.Rad(out.tilt), foot)
	return nil
}

func (r *run) pointToPoint(f foldLine, out *resolved) *fold.Error {
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

func (r *run) pointToLine(f foldLine, out *resolved) *fold.Error {
	p, err := f.p.folded(r)
	if err != nil {
		return err
	}
	l, seg, err := f.l.folded(r)
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
	choice, err := r.chooseLanding(f, landings)
	if err != nil {
		return err
	}
	held, err := f.p.sheet(r)
	out.line, out.held, out.pivot = folds[choice], &held, &pivot
	to := lineMark(f.l.words(r), seg)
	to.At = landings[choice]
	out.meets = [2]Mark{pointMark(f.p.words(r), p), to}
	return err
}

// chooseLanding takes the landing nearest to "near", else the only one that is
// on the paper.
func (r *run) chooseLanding(f foldLine, landings []geom.Vec) (int, *fold.Error) {
	if f.near != nil {
		n, err := f.near.folded(r)
		if err != nil {
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

func (r *run) lineToLine(f foldLine, out *resolved) *fold.Error {
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
