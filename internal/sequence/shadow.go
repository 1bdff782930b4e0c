package sequence

import (
	"fmt"
	"math"

	"tussock/internal/fold"
	"tussock/internal/fold/shadow"
	"tussock/internal/geom"
)

// shadowRun is a toy with errors and the motions of the exact step that it follows.
// Alignments are evaluated on the displaced paper, so that an early error is carried
// along ("the edge to the crease" follows a misplaced edge).
type shadowRun struct {
	*shadow.Toy
	moves []fold.Move
	next  int // move to be followed
	done  int // the step under way, or the last that is done
}

// Outcome is what a shadow replay ends with.
type Outcome struct {
	Shadow    *shadow.Toy
	Landmarks map[string]geom.Vec // final places, folded plane
	CoM       geom.Vec
	Stretch   float64   // worst mismatch at a hinge: what the paper must give, mm
	Lines     int       // creased lines that took an error
	Creeps    []float64 // by step, the largest gap that creep asks for, mm
}

// CutEdge is what spots of cut edges are called in the study of errors.
const CutEdge = "the cut edge"

// middle is where the middle of the sheet is found on paper with errors: where its creases
// cross, the first two that do so plainly.
func (r *Course) middle(p geom.Vec) geom.Vec {
	at := r.Out.Landmarks["C"]
	var lines []geom.Line
	for i, h := range r.State.H {
		if h.Kind != fold.Crease || h.P.Dist(at) > geom.OnPaper && h.Q.Dist(at) > geom.OnPaper {
			continue
		}
		s := r.Sh.Hinge[i]
		l := geom.LineAt(s.A, s.B.Sub(s.A))
		for _, e := range lines {
			if x, ok := geom.Meet(l, e); ok && math.Abs(l.N.Cross(e.N)) > leastCross {
				return x
			}
		}
		lines = append(lines, l)
	}
	return p
}

// leastCross is the sine of the least angle at which two lines mark a spot.
const leastCross = 0.3

// CreaseLines counts the lines that are creased by hand in a replay, and tells
// for each the step it belongs to.
func (r *Replay) CreaseLines() []int {
	var out []int
	for _, d := range r.Steps {
		if d.Op == OpTransfer && !d.Skipped { // a mark is set by hand as well
			out = append(out, d.No)
		}
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
func (r *Replay) WithErrors(e shadow.Errors) (*Outcome, error) {
	sh := &shadowRun{Toy: shadow.New(r.Start, e)}
	run := &Course{Pat: r.Pattern, Values: r.Values, Points: map[string]geom.Vec{}, Lines: map[string]PaperLine{},
		Out: r, log: r.log, Sh: sh}
	run.setState(r.Start)
	run.builtIns(r.Sheet)
	out := &Outcome{Shadow: sh.Toy, Landmarks: map[string]geom.Vec{}, Creeps: make([]float64, len(r.Steps)+1)}
	for _, st := range r.Pattern.Stmts {
		var err error
		switch st := st.(type) {
		case StepStmt:
			s := &r.Pattern.Steps[st.Step]
			if r.Steps[st.Step].Skipped {
				continue
			}
			sh.moves, sh.next = r.Steps[st.Step].Moves, 0
			sh.Gaps = sh.Gaps[:0]
			sh.done = s.No - 1
			d := Done{Step: s, Before: run.State}
			if err = run.reckoned(s.Act.Do(run, s, &d)); err == nil {
				err = run.finish(s, &d)
			}
			sh.done = s.No
			for _, g := range sh.Gaps {
				out.Creeps[s.No] = math.Max(out.Creeps[s.No], g)
			}
		case PointStmt:
			err = run.reckoned(run.definePoint(st))
		case ExpectStmt:
			err = run.reckoned(run.check(st))
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
	for n, rim := range sh.Rims {
		for e, v := range []geom.Vec{rim.On.A, rim.On.B} {
			out.Landmarks[fmt.Sprintf("%s (%d)", CutEdge, 2*n+e+1)] = sh.Iso[rim.Facet].Apply(sh.End(rim, v))
		}
	}
	out.CoM, out.Stretch, out.Lines = run.centreOfMass(), sh.Worst, sh.Lines
	return out, nil
}

// follows carries out the next motion of the step along displaced lines.
func (r *Course) follows(lines []geom.Line) error {
	if r.Sh.next >= len(r.Sh.moves) {
		return fold.Errorf(fold.CodeCheck, "the steps are not those of the replay")
	}
	m := r.Sh.moves[r.Sh.next]
	r.Sh.next++
	r.Sh.Follow(m, lines)
	r.setState(m.After)
	return nil
}

// Followed goes through a motion that no hand can get wrong, on paper with errors.
func (r *Course) Followed() error { return r.follows(nil) }
