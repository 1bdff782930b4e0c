package sequence

import (
	"fmt"
	"maps"
	"math"
	"slices"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/say"
	"tussock/internal/sequence/basis"
	"tussock/internal/sheet"
)

// Course is one replay under way: the state reached and what the names mean there.
type Course struct {
	Pat    *Pattern
	Values map[string]float64
	State  *fold.State
	Points map[string]geom.Vec // landmarks, sheet coordinates: they travel with the paper
	Lines  map[string]PaperLine
	Box    geom.Box
	Out    *Replay
	log    []Decision              // what was chosen, in the order it was asked for
	pos    int                     // in log, of the next answer in a shadow run
	mute   int                     // above 0 choices are not kept
	on     map[string]fold.FacetID // by landmark, the piece it is read from
	lax    bool                    // a check that fails is kept and does not stop
	step   *Done                   // the step under way
	asides int                     // above 0 what is looked up is on the way to what places it
	hushed int                     // above 0 what is looked up does not place it
	fault  error                   // of the arithmetic in the statement under way
	Sh     *shadowRun              // nil in a nominal run
}

// PaperLine is a named line as pieces of the sheet.
type PaperLine struct{ Pieces []geom.Segment }

// Decision is a choice that depends on where things lie: a piece of paper, one
// of its sides, or one fold line of several. A nominal run makes and keeps them;
// a run with errors takes the same ones, so that only lengths differ.
type Decision struct {
	I, J int32
	line geom.Line
}

// Decided makes a choice and keeps it, or takes the one that the nominal run has made.
func (r *Course) Decided(choose func() (Decision, error)) (Decision, error) {
	if r.Sh != nil {
		if r.pos >= len(r.log) {
			return Decision{}, fold.Errorf(fold.CodeCheck, "the steps are not those of the replay")
		}
		r.pos++
		return r.log[r.pos-1], nil
	}
	d, err := choose()
	if err == nil && r.mute == 0 {
		r.log = append(r.log, d)
	}
	return d, err
}

// quietly evaluates something that leaves no trace in the log.
func (r *Course) quietly(f func() error) error {
	r.mute++
	defer func() { r.mute-- }()
	return f()
}

// Iso is where a piece lies, with its errors in a shadow run.
func (r *Course) Iso(f fold.FacetID) geom.Iso2 {
	if r.Sh != nil {
		return r.Sh.Iso[f]
	}
	return r.State.F[f].Iso
}

// nearest is the line of several that lies nearest to another, over the toy.
func (r *Course) nearest(lines []geom.Line, to geom.Line) geom.Line {
	if len(lines) == 1 {
		return lines[0]
	}
	s := r.across(to)
	off := func(l geom.Line) float64 { return math.Max(math.Abs(l.Side(s.A)), math.Abs(l.Side(s.B))) }
	best := lines[0]
	for _, l := range lines[1:] {
		if off(l) < off(best) {
			best = l
		}
	}
	return best
}

// centreOfMass of the toy as it lies, with all that is fixed to it by now; with its errors
// in a shadow run.
func (r *Course) centreOfMass() geom.Vec { return weighed(r.State, r.Iso, r.loads()) }

// loads are what is fixed to the paper by now. A shadow run goes along a replay that has
// them all.
func (r *Course) loads() []Mass {
	if r.Sh == nil {
		return r.Out.Masses
	}
	return until(r.Out.Masses, r.Sh.done, func(m Mass) int { return m.Step })
}

// weighed is the centre of mass of paper and loads: each layer weighs its area, a load
// hangs at the piece that lies at its spot.
func weighed(s *fold.State, iso func(fold.FacetID) geom.Iso2, loads []Mass) geom.Vec {
	var sum geom.Vec
	var g float64
	perMM2 := s.Sheet.GSM * 1e-6
	for i, f := range s.F {
		a := f.Poly.Area() * perMM2
		sum, g = sum.Add(iso(fold.FacetID(i)).Apply(f.Poly.Centroid()).Scale(a)), g+a
	}
	for _, l := range loads {
		if at := s.FacetsAtSheet(l.At); len(at) > 0 && l.G > 0 {
			sum, g = sum.Add(iso(at[0]).Apply(l.At).Scale(l.G)), g+l.G
		}
	}
	return sum.Scale(1 / g)
}

func (r *Course) setState(s *fold.State) {
	r.State = s
	r.Box = s.Box()
}

// across is a line cut down to the toy's extent, for lines that have no ends.
func (r *Course) across(l geom.Line) geom.Segment {
	c := l.Foot(r.Box.Centre())
	half := math.Hypot(r.Box.Width(), r.Box.Height()) / 2
	return geom.Segment{A: c.Sub(l.Dir().Scale(half)), B: c.Add(l.Dir().Scale(half))}
}

// known is a landmark on the sheet. A sheet that has as many corners as a knob says lacks
// some that the pattern may name.
func (r *Course) known(name string) (geom.Vec, error) {
	p, ok := r.Points[name]
	if !ok && r.Pat.Corners != "" {
		return p, fold.Errorf(fold.CodeName, "there is no %s on a sheet with %d corners", name, len(r.State.Sheet.Outline()))
	}
	return p, nil
}

// placeNamed says where a landmark lies now, on the piece that it belongs to.
func (r *Course) placeNamed(name string) (geom.Vec, error) {
	p, err := r.known(name)
	if err != nil {
		return p, err
	}
	if r.Sh == nil {
		if f, ok := r.on[name]; ok && int(f) < len(r.State.F) && r.State.F[f].Poly.Contains(p, geom.OnPaper) {
			if r.mute == 0 {
				r.log = append(r.log, Decision{I: int32(f)})
			}
			return r.Iso(f).Apply(p), nil
		}
	}
	if name == "C" && r.Sh != nil {
		p = r.middle(p)
	}
	return r.place(p, r.Pat.Called(name))
}

// Follow keeps track of the piece that each landmark is read from. One at the end
// of a fold, where the two parts meet, goes with the part that moves: that is the
// one the fingers hold. It makes no difference to the exact toy; with errors the
// two parts lie a little differently.
func (r *Course) Follow(before, after *fold.State) {
	// Pieces that a piece was cut into, as a chain; most stay whole.
	head, next := make([]int32, len(before.F)), make([]int32, len(after.F))
	for i := range head {
		head[i] = -1
	}
	whole := len(after.F) == len(before.F)
	for i := len(after.F) - 1; i >= 0; i-- {
		f := after.F[i].Parent
		next[i], head[f] = head[f], int32(i)
		whole = whole && int(f) == i
	}
	if whole {
		return
	}
	for name, p := range r.Points {
		f, ok := r.on[name]
		if !ok || int(f) >= len(head) {
			at := before.FacetsAtSheet(p)
			if len(at) == 0 {
				continue
			}
			f = at[0]
		}
		best, found := fold.FacetID(0), false
		for c := head[f]; c >= 0; c = next[c] {
			if (c != head[f] || next[c] >= 0) && !after.F[c].Poly.Contains(p, geom.OnPaper) {
				continue
			}
			if !found || !after.F[c].Iso.Near(before.F[f].Iso, geom.Still) {
				best, found = fold.FacetID(c), true
			}
		}
		if !found { // it has been cut off, or lay on the very rim
			delete(r.on, name)
			continue
		}
		r.on[name] = best
	}
}

// place says where a point of the sheet lies now.
func (r *Course) place(p geom.Vec, name string) (geom.Vec, error) {
	d, err := r.Decided(func() (Decision, error) {
		at := r.State.FacetsAtSheet(p)
		if len(at) == 0 {
			return Decision{}, fold.Errorf(fold.CodeOffPaper, "%s is not on the paper now (it would be at %s, %s of the sheet)", name, say.MM(p.X, 1), say.MM(p.Y, 1))
		}
		return Decision{I: int32(at[0])}, nil
	})
	if err != nil {
		return p, err
	}
	return r.Iso(fold.FacetID(d.I)).Apply(p), nil
}

// Pin is the point of the sheet on top at a place of the folded plane.
func (r *Course) Pin(p geom.Vec, name string) (geom.Vec, error) {
	d, err := r.Decided(func() (Decision, error) {
		id, ok := r.State.TopAt(p)
		if !ok {
			return Decision{}, fold.Errorf(fold.CodeOffPaper, "%s falls off the paper, %s beside it", name, say.MM(r.State.BesideMM(p), 1))
		}
		return Decision{I: int32(id)}, nil
	})
	if err != nil {
		return p, err
	}
	return r.Unfolded(fold.FacetID(d.I), p), nil
}

// Unfolded is the spot of the sheet that a piece holds at a place of the folded plane.
func (r *Course) Unfolded(id fold.FacetID, p geom.Vec) geom.Vec { return r.Iso(id).Inverse().Apply(p) }

// lineOn is the named line whose paper holds two landmarks, those of the pattern
// before those of every sheet; "" when there is none.
func (r *Course) lineOn(a, b PointExpr) string {
	if r.Sh != nil || r.Lines == nil { // nothing is laid out to look at
		return ""
	}
	r.mute++
	defer func() { r.mute-- }()
	p, err := a.Sheet(r)
	if err != nil {
		return ""
	}
	q, err := b.Sheet(r)
	if err != nil || p.Dist(q) < geom.Distinct {
		return ""
	}
	found := ""
	for _, name := range slices.Sorted(maps.Keys(r.Lines)) {
		for _, s := range r.Lines[name].Pieces {
			l, ok := geom.LineThrough(s.A, s.B)
			if !ok || !s.Within(l, p) || !s.Within(l, q) {
				continue
			}
			if _, everySheet := basis.Lines[name]; !everySheet {
				return name
			}
			found = name
		}
	}
	return found
}

// pinLayer pins to the layer that a pattern asks for.
func (r *Course) pinLayer(p geom.Vec, c layerChoice, name string) (geom.Vec, error) {
	if c.Which == "" || c.Which == "top" {
		return r.Pin(p, name)
	}
	var q geom.Vec
	if c.Which == "layer" {
		var err error
		if q, err = c.Of.Sheet(r); err != nil {
			return q, err
		}
	}
	d, err := r.Decided(func() (Decision, error) {
		id, ok := r.layerAt(p, c.Which, q)
		if !ok {
			return Decision{}, fold.Errorf(fold.CodeOffPaper, "%s does not lie on the layer that is meant", name)
		}
		return Decision{I: int32(id)}, nil
	})
	if err != nil {
		return p, err
	}
	return r.Unfolded(fold.FacetID(d.I), p), nil
}

// layerAt is the lowest piece at a place, or the uppermost of those that hold the
// sheet point q.
func (r *Course) layerAt(p geom.Vec, which string, q geom.Vec) (best fold.FacetID, ok bool) {
	var candidates []fold.FacetID
	if which == "layer" {
		candidates = r.State.FacetsAtSheet(q)
	} else {
		for i := range r.State.F {
			candidates = append(candidates, fold.FacetID(i))
		}
	}
	for _, id := range candidates {
		if !r.State.Folded(id).Contains(p, geom.OnPaper) {
			continue
		}
		if lower := ok && r.State.Above(id, best) < 0; !ok || lower == (which == "bottom") {
			best, ok = id, true
		}
	}
	return best, ok
}

// straight is a named line as it lies now. A line that an earlier fold has bent
// is refused, since no crease can be meant by it.
func (r *Course) straight(name string) (geom.Line, geom.Segment, error) {
	pieces := r.Lines[name].Pieces
	var whole geom.Segment
	d, err := r.Decided(func() (Decision, error) {
		d, w, err := r.longest(name)
		whole = w
		return d, err
	})
	if err != nil {
		return geom.Line{}, whole, err
	}
	piece, iso := pieces[d.J], r.Iso(fold.FacetID(d.I))
	s := geom.Segment{A: iso.Apply(piece.A), B: iso.Apply(piece.B)}
	l, _ := geom.LineThrough(s.A, s.B)
	if r.Sh == nil {
		s = whole
	}
	return l, s, nil
}

// longest finds the longest stretch of a named line on one piece of paper, and
// checks that all the others lie on the same line.
func (r *Course) longest(name string) (best Decision, whole geom.Segment, err error) {
	var segs []geom.Segment
	for j, piece := range r.Lines[name].Pieces {
		l, ok := geom.LineThrough(piece.A, piece.B)
		if !ok {
			continue
		}
		for i := range r.State.F {
			f := &r.State.F[i]
			part, ok := f.Poly.Stretch(l, piece)
			if !ok {
				continue
			}
			s := geom.Segment{A: f.Iso.Apply(part.A), B: f.Iso.Apply(part.B)}
			segs = append(segs, s)
			if s.Len() > whole.Len()+geom.OnLine {
				whole, best = s, Decision{I: int32(i), J: int32(j)}
			}
		}
	}
	l, ok := geom.LineThrough(whole.A, whole.B)
	if !ok {
		return best, whole, fold.Errorf(fold.CodeNoLine, "%s has no length on this sheet", r.Pat.Called(name))
	}
	longest := whole
	for _, s := range segs {
		for _, p := range []geom.Vec{s.A, s.B} {
			if math.Abs(l.Side(p)) > geom.OnPaper {
				return best, whole, fold.Errorf(fold.CodeBent,
					"%s is bent by an earlier fold, so it is no longer one straight line; name the piece that is meant by two landmarks, for example %s", r.Pat.Called(name), r.pieceNamed(best, longest))
			}
			whole = whole.Extended(p, l.Dir())
		}
	}
	return best, whole, nil
}

// pieceNamed writes a stretch of folded paper by the landmarks at its ends, as
// the pattern would.
func (r *Course) pieceNamed(d Decision, s geom.Segment) string {
	near := func(p geom.Vec) string {
		at := r.Unfolded(fold.FacetID(d.I), p)
		best, dist := "", math.Inf(1)
		for _, n := range slices.Sorted(maps.Keys(r.Points)) {
			if x := r.Points[n].Dist(at); x < dist-geom.OnLine {
				best, dist = n, x
			}
		}
		if dist > 0.5 {
			return fmt.Sprintf("sheet(%s,%s)", sheet.Number(at.X), sheet.Number(at.Y))
		}
		return best
	}
	return "[" + near(s.A) + " " + near(s.B) + "]"
}
