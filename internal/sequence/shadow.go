package sequence

import (
	"math"

	"tussock/internal/fold"
	"tussock/internal/geom"
)

// Shadow is the same toy folded with small errors. The pieces, hinges, senses and
// layer order are those of the nominal replay; only where things lie differs: each
// piece has a motion of its own, and each hinge a line of its own on the sheet.
// Alignments are evaluated on the displaced paper, so that an early error is
// carried along ("the edge to the crease" follows a misplaced edge).
type Shadow struct {
	Iso   []geom.Iso2    // by piece of the present state
	Hinge []geom.Segment // by hinge of the present state, on the sheet

	err    Errors
	moves  []Move
	next   int // move to be followed
	lineNo int // creased lines so far, the index of the next error
	gaps   []float64
	worst  float64
}

// Errors are what is put into a shadow replay.
type Errors interface {
	// Slip is how far off crease line number n is made, in mm square to it, at
	// two spots half a short side of the sheet either way from About.
	Slip(n int) (a, b float64)
	// Creep is how far off a newly folded hinge is made by the thickness of the
	// layers inside it: the line moves that many mm into the piece that moves.
	Creep(s *fold.State, h fold.Hinge) float64
}

// Outcome is what a shadow replay ends with.
type Outcome struct {
	Shadow    *Shadow
	Landmarks map[string]geom.Vec // final places, folded plane
	CoM       geom.Vec
	Stretch   float64   // worst mismatch at a hinge: what the paper must give, mm
	Lines     int       // creased lines that took an error
	Creeps    []float64 // by step, the largest gap that creep asks for, mm
}

// CreaseLines counts the lines that are creased by hand in a replay, and tells
// for each the step it belongs to.
func (r *Replay) CreaseLines() []int {
	var out []int
	for _, d := range r.Steps {
		for _, m := range d.Moves {
			if m.Loose {
				continue
			}
			for range m.Lines {
				out = append(out, d.No)
			}
		}
	}
	return out
}

// WithErrors folds the toy of a successful replay again with errors.
func (r *Replay) WithErrors(e Errors) (*Outcome, error) {
	sh := &Shadow{err: e, Iso: isos(r.Start), Hinge: hinges(r.Start)}
	run := &Course{Pat: r.Pattern, Values: r.Values, Points: map[string]geom.Vec{}, Lines: map[string]PaperLine{},
		Out: r, log: r.log, Sh: sh}
	run.setState(r.Start)
	run.builtIns(r.Sheet)
	out := &Outcome{Shadow: sh, Landmarks: map[string]geom.Vec{}, Creeps: make([]float64, len(r.Steps)+1)}
	for _, st := range r.Pattern.Stmts {
		var err error
		switch st := st.(type) {
		case StepStmt:
			s := &r.Pattern.Steps[st.Step]
			if r.Steps[st.Step].Skipped {
				continue
			}
			sh.moves, sh.next = r.Steps[st.Step].Moves, 0
			sh.gaps = sh.gaps[:0]
			d := Done{Step: s, Before: run.State}
			if err = s.Act.Do(run, s, &d); err == nil {
				err = run.finish(s, &d)
			}
			for _, g := range sh.gaps {
				out.Creeps[s.No] = math.Max(out.Creeps[s.No], g)
			}
		case PointStmt:
			err = run.definePoint(st)
		case ExpectStmt:
			err = run.check(st)
		}
		if err != nil {
			return nil, err
		}
	}
	final := run.State
	for name, p := range run.Points {
		if f := final.FacetsAtSheet(r.Landmarks[name]); len(f) > 0 {
			out.Landmarks[name] = sh.Iso[f[0]].Apply(p)
		}
	}
	out.CoM, out.Stretch, out.Lines = run.centreOfMass(), sh.worst, sh.lineNo
	return out, nil
}

func isos(s *fold.State) []geom.Iso2 {
	out := make([]geom.Iso2, len(s.F))
	for i, f := range s.F {
		out[i] = f.Iso
	}
	return out
}

func hinges(s *fold.State) []geom.Segment {
	out := make([]geom.Segment, len(s.H))
	for i, h := range s.H {
		out[i] = geom.Segment{A: h.P, B: h.Q}
	}
	return out
}

// Follow carries out the next motion of the nominal step along displaced lines.
func (sh *Shadow) Follow(r *Course, lines []geom.Line) error {
	if sh.next >= len(sh.moves) {
		return fold.Errorf(fold.CodeCheck, "the steps are not those of the replay")
	}
	m := sh.moves[sh.next]
	sh.next++
	moved := make([]geom.Line, len(lines))
	for i, l := range lines {
		moved[i] = l
		if !m.Loose {
			moved[i] = sh.slipped(r, m, i, l)
		}
	}
	before := sh.Iso
	hinge := make([]geom.Segment, len(m.After.H))
	for i, h := range m.After.H {
		seg := geom.Segment{A: h.P, B: h.Q}
		switch {
		case h.Kind == fold.Glue:
		case h.Parent >= 0:
			seg = projected(seg, sh.Hinge[h.Parent])
		case int(h.Line) < len(moved):
			l := moved[h.Line]
			if !m.OnSheet {
				l = l.Moved(before[m.After.F[h.A].Parent].Inverse())
			}
			seg = geom.Segment{A: l.Foot(h.P), B: l.Foot(h.Q)}
		}
		hinge[i] = seg
	}
	sh.creep(m, hinge)
	sh.Hinge = hinge
	sh.place(m, before)
	r.setState(m.After)
	return nil
}

// slipped puts the error of the next line on it.
func (sh *Shadow) slipped(r *Course, m Move, i int, l geom.Line) geom.Line {
	a, b := sh.err.Slip(sh.lineNo)
	sh.lineNo++
	if a == 0 && b == 0 {
		return l
	}
	half := math.Min(r.State.Sheet.WidthMM, r.State.Sheet.HeightMM) / 2
	mid := geom.Vec{X: r.State.Sheet.WidthMM / 2, Y: r.State.Sheet.HeightMM / 2}
	d := l.Dir()
	p, q := l.Foot(mid).Sub(d.Scale(half)).Add(l.N.Scale(a)), l.Foot(mid).Add(d.Scale(half)).Add(l.N.Scale(b))
	out, _ := geom.LineThrough(p, q)
	return out
}

// projected is a stretch laid on the line of another.
func projected(s, on geom.Segment) geom.Segment {
	l := geom.LineAt(on.A, on.B.Sub(on.A))
	return geom.Segment{A: l.Foot(s.A), B: l.Foot(s.B)}
}

// creep moves the lines of hinges that are folded in this motion.
func (sh *Shadow) creep(m Move, hinge []geom.Segment) {
	for i, h := range m.After.H {
		if h.Kind == fold.Glue || m.After.Assigned(h) == fold.Flat {
			continue
		}
		if h.Parent >= 0 && m.Before.Assigned(m.Before.H[h.Parent]) != fold.Flat {
			continue
		}
		off := sh.err.Creep(m.After, h)
		if off == 0 {
			continue
		}
		sh.gaps = append(sh.gaps, 2*off)
		// Into the piece that moved: B when A kept its place.
		into := h.B
		if !m.After.F[h.A].Iso.Near(m.Before.F[m.After.F[h.A].Parent].Iso, 1e-7) {
			into = h.A
		}
		l := geom.LineAt(hinge[i].A, hinge[i].B.Sub(hinge[i].A))
		n := l.N.Scale(math.Copysign(off, l.Side(m.After.F[into].Poly.Centroid())))
		hinge[i] = geom.Segment{A: hinge[i].A.Add(n), B: hinge[i].B.Add(n)}
	}
}

// sweeps bounds the relaxation where hinges form loops.
const sweeps = 60

// place finds where every piece lies after a motion: from a piece that kept its
// place (or moved with all others) over the hinges, each neighbour lying as the
// hinge's own line says. Where hinges form loops that do not close exactly, each
// piece then takes the mean of what its neighbours say, weighted by length.
func (sh *Shadow) place(m Move, before []geom.Iso2) {
	s := m.After
	root := fold.FacetID(0)
	turn := geom.Identity
	for i, f := range s.F {
		if t := f.Iso.After(m.Before.F[f.Parent].Iso.Inverse()); t.Near(geom.Identity, 1e-7) {
			root = fold.FacetID(i)
			break
		} else if i == 0 {
			turn = t
		}
	}
	if root != 0 {
		turn = geom.Identity
	}
	iso := make([]geom.Iso2, len(s.F))
	for i, f := range s.F {
		iso[i] = turn.After(before[f.Parent])
	}
	step := make([]geom.Iso2, len(s.H)) // B's motion relative to A's
	touching := make([][]int32, len(s.F))
	for i, h := range s.H {
		step[i] = geom.Identity
		if h.Kind == fold.Glue {
			step[i] = s.F[h.A].Iso.Inverse().After(s.F[h.B].Iso)
		} else if s.F[h.A].Iso.FaceUp() != s.F[h.B].Iso.FaceUp() {
			step[i] = geom.Reflection(geom.LineAt(sh.Hinge[i].A, sh.Hinge[i].B.Sub(sh.Hinge[i].A)))
		}
		touching[h.A] = append(touching[h.A], int32(i))
		touching[h.B] = append(touching[h.B], int32(i))
	}
	say := func(i int32, f fold.FacetID) geom.Iso2 { // where hinge i puts f
		h := s.H[i]
		if h.B == f {
			return iso[h.A].After(step[i])
		}
		return iso[h.B].After(step[i].Inverse())
	}
	seen := make([]bool, len(s.F))
	seen[root] = true
	order := []fold.FacetID{root}
	for k := 0; k < len(order); k++ {
		for _, i := range touching[order[k]] {
			g, _ := s.H[i].Other(order[k])
			if !seen[g] {
				seen[g] = true
				iso[g] = say(i, g)
				order = append(order, g)
			}
		}
	}
	gap := func() float64 {
		worst := 0.0
		for i, h := range s.H {
			p, q := sh.Hinge[i].A, sh.Hinge[i].B
			if h.Kind == fold.Glue {
				continue
			}
			a, b := iso[h.A], iso[h.B]
			worst = math.Max(worst, math.Max(a.Apply(p).Dist(b.Apply(p)), a.Apply(q).Dist(b.Apply(q))))
		}
		return worst
	}
	if len(order)-1 < len(s.H) && gap() > 1e-9 {
		for range sweeps {
			var change float64
			for _, f := range order[1:] {
				c := s.F[f].Poly.Centroid()
				var sx, sy, w float64
				var at geom.Vec
				for _, i := range touching[f] {
					t := say(i, f)
					k := s.H[i].P.Dist(s.H[i].Q)
					at = at.Add(t.Apply(c).Scale(k))
					sx, sy, w = sx+k*t.A, sy+k*t.C, w+k
				}
				n := math.Hypot(sx, sy)
				if w == 0 || n == 0 {
					continue
				}
				sign := 1.0
				if !s.F[f].Iso.FaceUp() {
					sign = -1
				}
				t := geom.Iso2{A: sx / n, C: sy / n, B: -sign * sy / n, D: sign * sx / n}
				to := at.Scale(1 / w)
				here := t.Turn(c)
				t.TX, t.TY = to.X-here.X, to.Y-here.Y
				change = math.Max(change, t.Apply(c).Dist(iso[f].Apply(c)))
				iso[f] = t
			}
			if change < 1e-7 {
				break
			}
		}
		sh.worst = math.Max(sh.worst, gap())
	}
	sh.Iso = iso
}
