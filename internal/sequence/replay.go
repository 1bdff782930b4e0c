package sequence

import (
	"maps"
	"slices"
	"sort"
	"strconv"

	"tussock/internal/fold"
	"tussock/internal/fold/layermap"
	"tussock/internal/geom"
	"tussock/internal/sequence/basis"
	"tussock/internal/sequence/round"
	"tussock/internal/sheet"
)

// Mark is a thing that meets another in a fold.
type Mark = basis.Mark

// Done is one step as it happened on the sheet at hand.
type Done struct {
	*Step
	Say, Looks    string      // the words of the step, with the numbers on this sheet
	Refs          []basis.Ref // what places it
	Before, After *fold.State
	Moves         []fold.Move    // the motions of the step, one after the other
	Line          geom.Line      // of the crease, folded plane before the step
	Lines         []geom.Segment // all creases of a step with several, where they cross the paper
	Side          int8           // the side of Line that moves
	Moving        []fold.FacetID // pieces of Before that take part
	Moved         int            // pieces of After that have moved
	Meets         [2]Mark        // what is brought, and to what; Name "" when nothing is
	Pivot, Held   *geom.Vec      // what the crease passes through; where the paper is held down
	At            *geom.Vec      // where a note, a tip or what opens is, folded plane before
	ShiftMM       float64        // how far off its landmarks the crease is meant to lie
	TiltDeg       float64
	GapMM         float64 // how far short of its target what is brought stops
	AngleDeg      float64 // of an opening or rotation
	Skipped       bool    // an optional step that is left out
	named         []int32 // hinges of After that the step's name stands for
}

// InTheRound tells whether the step opens, bends, parts or slides something
// without a fold.
func (d Done) InTheRound() bool {
	switch d.Op {
	case OpOpen, OpBend, OpCurl, OpWrap, OpPart, OpPivot:
		return true
	}
	return d.Sets != nil
}

// LayersFolded is the thickest stack that the step takes along; 0 for steps without a
// fold.
func (d Done) LayersFolded() int {
	return layermap.LayersFolded(d.Before, d.Moving, d.Line, d.Side)
}

// HasLine tells whether the step makes or uses one fold line.
func (d Done) HasLine() bool {
	switch d.Op {
	case OpCrease, OpValley, OpMountain, OpLeaf, OpPinch, OpReverse, OpSink, OpCut, OpTear, OpRoll, OpPleat:
		return true
	}
	return false
}

// Mass is something fixed to the paper that weighs: tape, glue, a clip.
type Mass struct {
	Step     int
	Kind     Op
	At       geom.Vec // on the sheet
	G        float64
	Width    float64 // mm along the sheet's width; 0 for a clip
	Height   float64
	OnBack   bool
	Describe string
}

// Note is something written on the paper: it moves with it.
type Note struct {
	Step    int
	Kind    Op
	At      geom.Vec // on the sheet
	To      geom.Vec // the other end of an inked line, a pinch or an axle
	Text    string
	OnBack  bool
	SizeMM  float64 // height of what is written
	TurnDeg float64 // against the clock, as one looks at the face it is written on
	Zone    string  // what a way of moving calls the place
	FoldDeg float64 // of a pinch: how far its crease is folded, up to its ends and no further
}

// Replay is a pattern carried out on a sheet, as far as it went.
type Replay struct {
	Pattern   *Pattern
	Sheet     sheet.Sheet
	Values    map[string]float64 // all knobs and params
	Given     map[string]float64 // those that were given
	Start     *fold.State
	Steps     []Done
	Openings  []Opening
	Bends     []Bending
	Parts     []Parting
	Pivots    []Pivoting
	Masses    []Mass
	Notes     []Note
	Landmarks map[string]geom.Vec       // named points of the sheet, sheet coordinates
	Lines     map[string][]geom.Segment // named creases, sheet coordinates
	Err       error                     // nil when every step could be made; else read with fold.As
	Measures  map[string]Measured       // by landmark, how it was measured
	Misses    []Miss                    // checks that failed, when the replay went on all the same
	Resumed   int                       // steps taken over from an earlier replay

	essential bool // optional steps are left out
	log       []Decision
	marks     []mark // by statement carried out
}

// mark is how far everything had got before a statement.
type mark struct {
	log, steps, openings, bends, parts, pivots, masses, notes int
	on                                                        map[string]fold.FacetID
}

func (r *Replay) mark() mark {
	return mark{len(r.log), len(r.Steps), len(r.Openings), len(r.Bends), len(r.Parts), len(r.Pivots), len(r.Masses), len(r.Notes), nil}
}

// Final is the last good state.
func (r *Replay) Final() *fold.State {
	if len(r.Steps) == 0 {
		return r.Start
	}
	return r.Steps[len(r.Steps)-1].After
}

// UpTo is the replay as it was after a step (from 1).
func (r *Replay) UpTo(step int) *Replay {
	out := *r
	out.Steps = r.Steps[:step:step]
	out.Openings = until(r.Openings, step, func(w Opening) int { return w.Step })
	out.Bends = until(r.Bends, step, func(b Bending) int { return b.Step })
	out.Parts = until(r.Parts, step, func(p Parting) int { return p.Step })
	out.Pivots = until(r.Pivots, step, func(p Pivoting) int { return p.Step })
	out.Masses = until(r.Masses, step, func(m Mass) int { return m.Step })
	out.Notes = until(r.Notes, step, func(n Note) int { return n.Step })
	return &out
}

// until are the first of a list that belong to steps up to one.
func until[T any](all []T, step int, of func(T) int) []T {
	n := 0
	for n < len(all) && of(all[n]) <= step {
		n++
	}
	return all[:n:n]
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
	return p.Rerun(nil, s, knobs)
}

// Rerun is Run, taking over from an earlier replay all steps before the first
// whose words or numbers have changed. prev may be nil, or of another text of the
// same pattern; the result is the same as that of Run.
func (p *Pattern) Rerun(prev *Replay, s sheet.Sheet, knobs map[string]float64) *Replay {
	return p.run(prev, s, knobs, false)
}

// Despite is Run on a sheet that is not what the pattern asks for: its proportions
// are not checked, and a check that fails is kept in Misses and does not stop it.
func (p *Pattern) Despite(s sheet.Sheet, knobs map[string]float64) *Replay {
	lax := *p
	lax.MinRatio, lax.MaxRatio = 0, 0
	return lax.run(nil, s, knobs, true)
}

// RunEssential is Run without the optional steps.
func (p *Pattern) RunEssential(s sheet.Sheet, knobs map[string]float64) *Replay {
	return p.carryOut(nil, s, knobs, false, true)
}

// run is Rerun; lax goes on where a check fails, and keeps the miss.
func (p *Pattern) run(prev *Replay, s sheet.Sheet, knobs map[string]float64, lax bool) *Replay {
	return p.carryOut(prev, s, knobs, lax, false)
}

func (p *Pattern) carryOut(prev *Replay, s sheet.Sheet, knobs map[string]float64, lax, essential bool) *Replay {
	s, shapeErr := p.shaped(p.AsFolded(s), knobs)
	out := &Replay{Pattern: p, Sheet: s, Given: knobs, essential: essential, Values: map[string]float64{},
		Landmarks: map[string]geom.Vec{}, Lines: map[string][]geom.Segment{}, Measures: map[string]Measured{}}
	r := &Course{Pat: p, Values: out.Values, Points: out.Landmarks, Lines: map[string]PaperLine{}, Out: out, lax: lax, on: map[string]fold.FacetID{}}
	out.Start = fold.Start(s)
	r.setState(out.Start)
	r.builtIns(s)
	if out.Err = shapeErr; out.Err != nil {
		return out
	}
	if out.Err = r.setValues(knobs); out.Err != nil {
		return out
	}
	if out.Err = r.derive(); out.Err != nil {
		return out
	}
	if s, out.Err = r.trimmed(s); out.Err != nil {
		return out
	}
	if s != out.Sheet {
		out.Sheet, out.Start = s, fold.Start(s)
		r.setState(out.Start)
		r.builtIns(s)
		if out.Err = r.derive(); out.Err != nil { // what is left of the sheet counts
			return out
		}
	}
	if q := s.Ratio(); !p.Takes(q) {
		out.Err = fold.Errorf(fold.CodeRequire, "%s", p.needs().Unlike(s.WidthMM, s.HeightMM))
		return out
	}
	k := r.resume(prev)
	for ; k < len(p.Stmts); k++ {
		m := out.mark()
		m.on = maps.Clone(r.on)
		out.marks = append(out.marks, m)
		line, err := r.carry(p.Stmts[k])
		out.log = r.log
		if err != nil {
			out.Err = placed(err, len(out.Steps), line)
			break
		}
	}
	for name, l := range r.Lines {
		out.Lines[name] = l.Pieces
	}
	if out.Err == nil && !lax {
		if line, why := p.Reader.Missing(out); why != "" {
			out.Err = placed(fold.Errorf(fold.CodeCheck, "%s", why), len(out.Steps), line)
		}
	}
	return out
}

// placed says of an error in which step and line it came about, unless it knows the step.
func placed(err error, step, line int) *fold.Error {
	e := fold.As(err)
	if e == nil {
		e = &fold.Error{Code: fold.CodeSheet, Detail: err.Error()}
	}
	e.Line = line
	if e.Step == 0 {
		e.Step = step
	}
	return e
}

// ownSideMM is any side of an n-gon: it is made as large as the sheet allows.
const ownSideMM = 100

// shaped cuts the pattern's own outline from a rectangle, as large as it fits.
func (p *Pattern) shaped(s sheet.Sheet, knobs map[string]float64) (sheet.Sheet, error) {
	if p.Shape == nil || s.Shape != nil {
		return s, nil
	}
	own := sheet.Sheet{WidthMM: p.WidthMM, HeightMM: p.HeightMM, Shape: p.Shape}
	if n, given := knobs[p.Corners]; given && p.Corners != "" {
		var err error
		if own, err = sheet.NGon(int(n), ownSideMM, sheet.PlainGSM, sheet.PlainThicknessMM); err != nil {
			return s, fold.Errorf(fold.CodeKnob, "%s", err)
		}
	}
	cut, err := own.Fitted(s.WidthMM, s.HeightMM, s.GSM, s.ThicknessMM)
	if err != nil {
		return s, fold.Errorf(fold.CodeSheet, "%s", err)
	}
	return cut, nil
}

// carry out one statement.
func (r *Course) carry(st Statement) (line int, err error) {
	switch st := st.(type) {
	case StepStmt:
		step := &r.Pat.Steps[st.Step]
		d := Done{Step: step, Say: step.Say, Looks: step.Looks, Before: r.State}
		if step.Optional && r.Out.essential {
			d.After, d.Skipped = r.State, true
			r.Out.Steps = append(r.Out.Steps, d)
			return step.Line, nil
		}
		if err = r.say(&d); err == nil {
			r.step = &d
			err = r.reckoned(step.Act.Do(r, step, &d))
			r.step = nil
		}
		if err == nil && len(d.Moves) > 0 {
			err = r.flatStill(step)
		}
		if err == nil {
			err = r.finish(step, &d)
		}
		if err != nil {
			r.setState(d.Before)
			e := placed(err, step.No, step.Line)
			e.Step = step.No
			r.Places().Explain(e, r.State, r.creaseWords(e.Crease))
			return step.Line, e
		}
		r.Out.Steps = append(r.Out.Steps, d)
		return step.Line, nil
	case PointStmt:
		return st.Line, r.reckoned(r.definePoint(st))
	case ExpectStmt:
		return st.Line, r.reckoned(r.check(st))
	}
	return 0, nil
}

// flatStill refuses to fold flat what an earlier step has opened, bent or parted: it does
// not lie flat any more, and what is folded then would lie elsewhere than it is drawn.
// Paper that was only conditioned lies flat again.
func (r *Course) flatStill(s *Step) error {
	for _, d := range r.Out.Steps {
		if d.InTheRound() && !d.Conditioning && !d.Skipped {
			return fold.Errorf(fold.CodeOrder, "step %d has %s, so the toy does not lie flat any more; put this step before it", d.No, round.Did(d.Op))
		}
	}
	return nil
}

// finish names what a step has made and checks what it was expected to move.
func (r *Course) finish(s *Step, d *Done) error {
	d.After = r.State
	if r.Sh != nil {
		if s.Name != "" {
			pieces := make([]geom.Segment, len(r.Out.Steps[s.No-1].named))
			for i, h := range r.Out.Steps[s.No-1].named {
				pieces[i] = r.Sh.Hinge[h]
			}
			r.Lines[s.Name] = PaperLine{pieces}
		}
		return nil
	}
	if s.Expect >= 0 && s.Op != OpCrease && d.Moved != s.Expect {
		more := "more layers come along than should"
		if d.Moved < s.Expect {
			more = "it misses layers it should take along"
		}
		return fold.Errorf(fold.CodeExpect, "the fold would move %d pieces of paper instead of %d: %s", d.Moved, s.Expect, more)
	}
	if s.Name != "" {
		d.named = d.After.Creased(d.Line, fold.CreaseID(s.No))
		r.Lines[s.Name] = PaperLine{d.After.Segments(d.named)}
	}
	return nil
}

// resume takes over what an earlier replay did before the first difference, and
// gives the number of the statement to go on with.
func (r *Course) resume(prev *Replay) int {
	if prev == nil || prev.essential != r.Out.essential || prev.Sheet != r.Out.Sheet || prev.Pattern.MinRatio != r.Pat.MinRatio {
		return 0
	}
	k := 0
	for k < len(r.Pat.Stmts) && k < len(prev.marks) && k < len(prev.Pattern.Stmts) {
		a, b := r.Pat.Sources[k], prev.Pattern.Sources[k]
		same := a.Text == b.Text && slices.Equal(a.Defines, b.Defines) && r.Pat.quotesLike(prev.Pattern, k)
		for n := range a.Used {
			same = same && r.Values[n] == prev.Values[n]
		}
		if !same {
			break
		}
		k++
	}
	if k == len(prev.marks) { // the last statement may be the one that failed
		k--
	}
	if k <= 0 {
		return 0
	}
	m := prev.marks[k]
	out := r.Out
	for i, d := range prev.Steps[:m.steps] {
		d.Step = &r.Pat.Steps[i]
		if len(d.Quotes) == 0 { // words may be others
			d.Say, d.Looks = d.Step.Say, d.Step.Looks
		}
		out.Steps = append(out.Steps, d)
	}
	out.Openings, out.Bends, out.Parts = clip(prev.Openings, m.openings), clip(prev.Bends, m.bends), clip(prev.Parts, m.parts)
	out.Pivots, out.Masses, out.Notes = clip(prev.Pivots, m.pivots), clip(prev.Masses, m.masses), clip(prev.Notes, m.notes)
	out.log, out.marks, out.Resumed = clip(prev.log, m.log), clip(prev.marks, k), m.steps
	r.log = out.log
	for i := range k {
		for _, n := range r.Pat.Sources[i].Defines {
			if v, ok := prev.Landmarks[n]; ok {
				r.Points[n] = v
			}
			if v, ok := prev.Measures[n]; ok {
				out.Measures[n] = v
			}
			if v, ok := prev.Lines[n]; ok {
				r.Lines[n] = PaperLine{v}
			}
		}
	}
	r.on = maps.Clone(m.on)
	r.setState(out.Final())
	return k
}

func clip[T any](s []T, n int) []T { return s[:n:n] }

// trimmed takes the margins off that the pattern asks for.
func (r *Course) trimmed(s sheet.Sheet) (sheet.Sheet, error) {
	var m [4]float64
	for i, e := range r.Pat.Margin {
		if e != nil {
			m[i] = e.Num(r)
		}
	}
	if m == [4]float64{} {
		return s, nil
	}
	out, err := s.Margin(m[0], m[1], m[2], m[3])
	if err != nil {
		return s, fold.Errorf(fold.CodeSheet, "%s", err)
	}
	return out, nil
}

func (r *Course) builtIns(s sheet.Sheet) {
	w, h := s.WidthMM, s.HeightMM
	bl, br, tr, tl := geom.Vec{}, geom.Vec{X: w}, geom.Vec{X: w, Y: h}, geom.Vec{Y: h}
	if s.Shape != nil && s.Shape.Kind == "skewed" {
		bl, br, tr, tl = s.Shape.Corners[0], s.Shape.Corners[1], s.Shape.Corners[2], s.Shape.Corners[3]
	}
	for name, p := range map[string]geom.Vec{
		"BL": bl, "BR": br, "TR": tr, "TL": tl,
		"B": geom.Mid(bl, br), "R": geom.Mid(br, tr), "T": geom.Mid(tl, tr), "L": geom.Mid(bl, tl),
		"C": geom.Mid(bl, tr),
	} {
		r.Points[name] = p
	}
	for name, e := range map[string][2]string{
		"left": {"BL", "TL"}, "right": {"BR", "TR"}, "top": {"TL", "TR"}, "bottom": {"BL", "BR"},
		"hcentre": {"L", "R"}, "vcentre": {"B", "T"},
	} {
		r.Lines[name] = PaperLine{Pieces: []geom.Segment{{A: r.Points[e[0]], B: r.Points[e[1]]}}}
	}
	if s.Shape == nil {
		return
	}
	r.Points["C"] = s.Outline().Centroid()
	for i, p := range s.Shape.Corners {
		q := s.Shape.Corners[(i+1)%len(s.Shape.Corners)]
		n := strconv.Itoa(i + 1)
		r.Points["P"+n], r.Points["M"+n] = p, geom.Mid(p, q)
		r.Lines["E"+n] = PaperLine{Pieces: []geom.Segment{{A: p, B: q}}}
	}
}

func (r *Course) setValues(knobs map[string]float64) error {
	for _, k := range r.Pat.Knobs {
		r.Values[k.Name] = k.Default
	}
	names := make([]string, 0, len(knobs))
	for n := range knobs {
		names = append(names, n)
	}
	sort.Strings(names)
	for _, n := range names {
		i := r.Pat.KnobIndex(n)
		if i < 0 {
			return fold.Errorf(fold.CodeKnob, "%s has no knob called %q", r.Pat.Title, n)
		}
		k, v := r.Pat.Knobs[i], knobs[n]
		if why := k.Refuses(v); why != "" {
			return placed(fold.Errorf(fold.CodeKnob, "%s", why), 0, k.Line)
		}
		r.Values[n] = v
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

func (r *Course) definePoint(s PointStmt) error {
	p, err := s.P.Folded(r)
	if err != nil {
		return err
	}
	q, err := r.pinLayer(p, s.Layer, r.Pat.Called(s.Name))
	if err != nil {
		return err
	}
	r.Points[s.Name] = q
	r.measure(s.Name, s.P, q)
	if n := len(r.log); r.Sh == nil && r.mute == 0 && n > 0 { // the piece it was pinned to
		r.on[s.Name] = fold.FacetID(r.log[n-1].I)
	}
	return nil
}
