package sequence

import (
	"math"
	"sort"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sheet"
)

// Mark is a thing that meets another in a fold: a point, or a stretch of a line.
// Coordinates are in the folded plane before the step.
type Mark struct {
	Name  string
	At    geom.Vec
	Line  bool
	Along geom.Segment
}

func pointMark(name string, at geom.Vec) Mark { return Mark{Name: name, At: at} }
func lineMark(name string, s geom.Segment) Mark {
	return Mark{Name: name, At: s.Mid(), Line: true, Along: s}
}

// Done is one step as it happened on the sheet at hand.
type Done struct {
	*Step
	Before, After *fold.State
	Line          geom.Line      // of the crease, folded plane before the step
	Side          int8           // the side of Line that moves
	Moving        []fold.FacetID // pieces of Before that take part
	Moved         int            // pieces of After that have moved
	Meets         [2]Mark        // what is brought, and to what; Name "" when nothing is
	Pivot         *geom.Vec
	ShiftMM       float64 // how far off its landmarks the crease is meant to lie
	TiltDeg       float64
	AngleDeg      float64   // of a wing or rotation
	Grip          *geom.Vec // of a wing: the landmark that swings about Line
}

// HasLine tells whether the step makes or uses a fold line.
func (d Done) HasLine() bool { return d.Op == OpCrease || d.Op == OpValley || d.Op == OpMountain }

// Wing is a crease that is opened to an angle once the folding is done.
type Wing struct {
	Pieces   []geom.Segment // of the crease, on the sheet
	Moving   geom.Vec       // a point of the part that swings, on the sheet
	AngleDeg float64        // 180 flat-folded, 0 flat open
}

// Replay is a pattern carried out on a sheet, as far as it went.
type Replay struct {
	Pattern   *Pattern
	Sheet     sheet.Sheet
	Values    map[string]float64 // all knobs and params
	Start     *fold.State
	Steps     []Done
	Wings     []Wing
	Landmarks map[string]geom.Vec       // named points of the sheet, sheet coordinates
	Lines     map[string][]geom.Segment // named creases, sheet coordinates
	Err       *fold.Error               // nil when every step could be made
}

// Final is the last good state.
func (r *Replay) Final() *fold.State {
	if len(r.Steps) == 0 {
		return r.Start
	}
	return r.Steps[len(r.Steps)-1].After
}

// Place says where a point of the sheet lies in a state. ok is false off the paper.
func Place(s *fold.State, p geom.Vec) (at geom.Vec, ok bool) {
	f := s.FacetsAtSheet(p)
	if len(f) == 0 {
		return p, false
	}
	return s.F[f[0]].Iso.Apply(p), true
}

// Run carries the pattern out on a sheet with knob values; missing knobs take
// their defaults. It always returns what could be folded; Err says what stopped
// it. The result depends on nothing else: same inputs, same result.
func (p *Pattern) Run(s sheet.Sheet, knobs map[string]float64) *Replay {
	out := &Replay{Pattern: p, Sheet: s, Values: map[string]float64{},
		Landmarks: map[string]geom.Vec{}, Lines: map[string][]geom.Segment{}}
	r := &run{pat: p, values: out.Values, points: out.Landmarks, lines: map[string]paperLine{}}
	out.Start = fold.Start(s)
	r.setState(out.Start)
	r.builtIns(s)
	if out.Err = r.setValues(knobs); out.Err != nil {
		return out
	}
	if q := s.Ratio(); p.MinRatio > 0 && (q < p.MinRatio-1e-9 || q > p.MaxRatio+1e-9) {
		out.Err = fold.Errorf(fold.CodeRequire,
			"%s needs a sheet between %s and %s times as high as wide; this one is %s times",
			p.Title, sheet.Number(p.MinRatio), sheet.Number(p.MaxRatio), sheet.Number(q))
		return out
	}
	for _, st := range p.stmts {
		var err *fold.Error
		line := st.at()
		switch st := st.(type) {
		case stepStmt:
			step := &p.Steps[st.step]
			line = step.Line
			var d Done
			if d, err = r.do(step, out); err == nil {
				out.Steps = append(out.Steps, d)
				r.setState(d.After)
			} else {
				err.Step = step.No
			}
		case pointStmt:
			err = r.definePoint(st)
		case expectStmt:
			err = r.check(st)
		}
		if err != nil {
			err.Line = line
			if err.Step == 0 {
				err.Step = len(out.Steps)
			}
			out.Err = err
			break
		}
	}
	for name, l := range r.lines {
		out.Lines[name] = l.pieces
	}
	return out
}

func (r *run) builtIns(s sheet.Sheet) {
	w, h := s.WidthMM, s.HeightMM
	for name, p := range map[string]geom.Vec{
		"BL": {}, "BR": {X: w}, "TR": {X: w, Y: h}, "TL": {Y: h},
		"B": {X: w / 2}, "R": {X: w, Y: h / 2}, "T": {X: w / 2, Y: h}, "L": {Y: h / 2},
		"C": {X: w / 2, Y: h / 2},
	} {
		r.points[name] = p
	}
	for name, e := range map[string][2]string{
		"left": {"BL", "TL"}, "right": {"BR", "TR"}, "top": {"TL", "TR"}, "bottom": {"BL", "BR"},
		"hcentre": {"L", "R"}, "vcentre": {"B", "T"},
	} {
		r.lines[name] = paperLine{pieces: []geom.Segment{{A: r.points[e[0]], B: r.points[e[1]]}}}
	}
}

func (r *run) setValues(knobs map[string]float64) *fold.Error {
	for _, k := range r.pat.Knobs {
		r.values[k.Name] = k.Default
	}
	names := make([]string, 0, len(knobs))
	for n := range knobs {
		names = append(names, n)
	}
	sort.Strings(names)
	for _, n := range names {
		i := r.pat.KnobIndex(n)
		if i < 0 {
			return fold.Errorf(fold.CodeKnob, "%s has no knob called %q", r.pat.Title, n)
		}
		k, v := r.pat.Knobs[i], knobs[n]
		if math.IsNaN(v) || v < k.Min || v > k.Max {
			err := fold.Errorf(fold.CodeKnob, "%s is %s %s; it must be from %s to %s %s", k.Label,
				sheet.Number(v), k.Unit, sheet.Number(k.Min), sheet.Number(k.Max), k.Unit)
			err.Line = k.line
			return err
		}
		r.values[n] = v
	}
	return nil
}

// KnobIndex finds a knob by name; -1 when there is none.
func (p *Pattern) KnobIndex(name string) int {
	for i, k := range p.Knobs {
		if k.Name == name {
			return i
		}
	}
	return -1
}

func (r *run) definePoint(s pointStmt) *fold.Error {
	p, err := s.p.folded(r)
	if err != nil {
		return err
	}
	q, err := r.pinLayer(p, s.layer, r.pat.Called(s.name))
	if err != nil {
		return err
	}
	r.points[s.name] = q
	return nil
}

func (r *run) check(s expectStmt) *fold.Error {
	if s.facets > 0 {
		if n := len(r.state.F); n != s.facets {
			return fold.Errorf(fold.CodeCheck, "the creases should divide the paper into %d pieces, and divide it into %d", s.facets, n)
		}
		return nil
	}
	p, err := s.p.folded(r)
	if err != nil {
		return err
	}
	var off float64
	var where string
	if s.q != nil {
		q, err := s.q.folded(r)
		if err != nil {
			return err
		}
		off, where = p.Dist(q), "at "+s.q.words(r)
	} else {
		l, _, err := s.l.folded(r)
		if err != nil {
			return err
		}
		off, where = math.Abs(l.Side(p)), "on "+s.l.words(r)
	}
	if off > s.within.num(r) {
		return fold.Errorf(fold.CodeCheck, "%s should now lie %s and is %.1f mm away", s.p.words(r), where, off)
	}
	return nil
}

func (r *run) do(s *Step, out *Replay) (Done, *fold.Error) {
	d := Done{Step: s, Before: r.state}
	var err *fold.Error
	switch s.Op {
	case OpTurn:
		l := geom.Line{N: geom.Vec{X: 1}, D: r.state.Sheet.WidthMM / 2}
		if s.axis == "tb" {
			l = geom.Line{N: geom.Vec{Y: 1}, D: r.state.Sheet.HeightMM / 2}
		}
		d.Line = l
		d.After, err = r.state.Apply(r.state.Whole(geom.Reflection(l)))
	case OpRotate:
		d.AngleDeg = s.angle.num(r)
		d.After, err = r.state.Apply(r.state.Whole(geom.Rotation(geom.Rad(d.AngleDeg), r.points["C"])))
	case OpWing:
		d.After = r.state
		err = r.wing(s, &d, out)
	default:
		err = r.foldStep(s, &d)
	}
	return d, err
}

func (r *run) wing(s *Step, d *Done, out *Replay) *fold.Error {
	d.AngleDeg = s.angle.num(r)
	if d.AngleDeg < 0 || d.AngleDeg > 180 {
		return fold.Errorf(fold.CodeKnob, "a wing opens to between 0 and 180 degrees, not %s", sheet.Number(d.AngleDeg))
	}
	for i, l := range s.wings {
		line, _, err := l.folded(r)
		if err != nil {
			return err
		}
		m, err := s.moving[i].sheet(r)
		if err != nil {
			return err
		}
		if i == 0 { // the wing on top stands for both in pictures
			at, err := s.moving[i].folded(r)
			if err != nil {
				return err
			}
			d.Line, d.Grip = line, &at
		}
		name, ok := l.(lineName)
		if !ok {
			return fold.Errorf(fold.CodeName, "a wing swings about a named crease, not about %s", l.words(r))
		}
		out.Wings = append(out.Wings, Wing{r.lines[string(name)].pieces, m, d.AngleDeg})
	}
	return nil
}

// foldStep makes a crease, a valley or a mountain.
func (r *run) foldStep(s *Step, d *Done) *fold.Error {
	at, err := r.resolve(s.fold)
	if err != nil {
		return err
	}
	d.Line, d.Meets, d.Pivot, d.ShiftMM, d.TiltDeg = at.line, at.meets, at.pivot, at.shift, at.tilt
	sel := fold.Selection{Line: at.line, Side: 1, Sense: fold.ValleySense}
	if s.Op == OpMountain {
		sel.Sense = fold.MountainSense
	}
	if sel.Side, sel.Seeds, err = r.hold(s, at); err != nil {
		return err
	}
	d.Side = sel.Side
	crease := fold.CreaseID(s.No)
	var plan fold.Plan
	if s.Op == OpCrease {
		plan, err = r.state.CreaseOnly(sel, crease)
		d.Moving = r.state.Closure(sel)
	} else {
		plan, err = r.state.SimpleFold(sel, crease)
		if err == nil {
			d.Moving, d.Moved = plan.Bodies[0].Facets, plan.Moved()
		}
	}
	if err != nil {
		return err
	}
	if s.expect >= 0 && s.Op != OpCrease && d.Moved != s.expect {
		more := "more layers come along than should"
		if d.Moved < s.expect {
			more = "it misses layers it should take along"
		}
		return fold.Errorf(fold.CodeExpect, "the fold would move %d pieces of paper instead of %d: %s", d.Moved, s.expect, more)
	}
	if d.After, err = r.state.Apply(plan); err != nil {
		return err
	}
	if s.Name != "" {
		r.lines[s.Name] = paperLine{creasePieces(d.After, at.line, crease), crease}
	}
	return nil
}

// hold finds the side that moves and the pieces the fingers hold.
func (r *run) hold(s *Step, at resolved) (int8, []fold.FacetID, *fold.Error) {
	var grips []geom.Vec // on the sheet
	var sideBy pointExpr
	for _, g := range s.grab {
		p, err := g.sheet(r)
		if err != nil {
			return 0, nil, err
		}
		grips = append(grips, p)
	}
	if len(s.moving) > 0 {
		sideBy = s.moving[0]
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
	var side float64
	switch {
	case sideBy != nil:
		v, err := sideOf(r, at.line, sideBy, "the fold line")
		if err != nil {
			return 0, nil, err
		}
		side = v
	case at.meets[0].Line: // the far end of the edge that is brought
		a, b := at.line.Side(at.meets[0].Along.A), at.line.Side(at.meets[0].Along.B)
		side = a
		if math.Abs(b) > math.Abs(a) {
			side = b
		}
	case at.meets[0].Name != "":
		side = at.line.Side(at.meets[0].At)
	case len(s.grab) > 0:
		v, err := sideOf(r, at.line, s.grab[0], "the fold line")
		if err != nil {
			return 0, nil, err
		}
		side = v
	default: // a crease between landmarks: both sides are creased alike
		side = 1
		if !s.all {
			for _, e := range []pointExpr{s.fold.p, s.fold.q} {
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
	}
	sign := int8(1)
	if side < 0 {
		sign = -1
	}
	if s.all || len(grips) == 0 {
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

// creasePieces are the pieces of the sheet along which a step has folded: new
// creases, and earlier ones that lie on the same line and are folded by it.
func creasePieces(s *fold.State, l geom.Line, made fold.CreaseID) []geom.Segment {
	var out []geom.Segment
	for _, h := range s.H {
		if h.Crease == made {
			out = append(out, geom.Segment{A: h.P, B: h.Q})
		}
	}
	if len(out) > 0 {
		return out
	}
	for _, h := range s.H {
		iso := s.F[h.A].Iso
		if math.Abs(l.Side(iso.Apply(h.P))) < geom.OnPaper && math.Abs(l.Side(iso.Apply(h.Q))) < geom.OnPaper {
			out = append(out, geom.Segment{A: h.P, B: h.Q})
		}
	}
	return out
}
