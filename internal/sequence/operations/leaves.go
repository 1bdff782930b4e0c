package operations

import (
	"fmt"
	"math"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sequence"
	"tussock/internal/sequence/lang"
	"tussock/internal/sheet"
)

// part LINE into N
type partStep struct {
	line   sequence.LineExpr
	leaves sequence.NumExpr
}

func readPart(p *lang.Parser, _ *sequence.Step) sequence.Action {
	a := &partStep{line: p.LineExpr()}
	p.Need("into")
	a.leaves = p.Number("the number of leaves")
	if n, depends, err := sequence.Constant(a.leaves); !depends && (err != nil || !leafy(n)) {
		p.Fail(fmt.Sprintf("the number of leaves is %s", sheet.Number(n)), "write a whole number from 2 to 24")
	}
	return a
}

func leafy(n float64) bool { return n == math.Trunc(n) && n >= 2 && n <= 24 }

func (a *partStep) Do(r *sequence.Course, s *sequence.Step, d *sequence.Done) error {
	n := a.leaves.Num(r)
	if !leafy(n) {
		return fold.Errorf(fold.CodeKnob, "a spot has 2 to 24 leaves, not %s", sheet.Number(n))
	}
	leaves := int(n)
	line, seg, err := a.line.Folded(r)
	if err != nil || r.Sh != nil {
		return err
	}
	f, err := fanAlong(r, line)
	if err != nil {
		return err
	}
	if len(f.joints) == 0 {
		return fold.Errorf(fold.CodeMissesLine, "no leaves hang on %s", a.line.Words(r))
	}
	if f.turn != 0 && len(f.joints) != leaves {
		return fold.Errorf(fold.CodeExpect, "%d leaves hang on %s, not %d; write: into %d", len(f.joints), a.line.Words(r), leaves, len(f.joints))
	}
	d.Line, d.AngleDeg, d.Lines = line, 360/float64(leaves), []geom.Segment{seg}
	r.Out.Parts = append(r.Out.Parts, sequence.Parting{Step: s.No, Pieces: f.joints, Ridges: f.ridges, Turn: f.turn, Leaves: leaves})
	return nil
}

// fan are the folds round a spot from which leaves hang: joints lie on the line, also those
// that are not folded, ridges between them.
type fan struct {
	joints, ridges []geom.Segment
	turn           int8
}

// fanAlong finds the spot inside the paper at which most folds lie on a line, and the fan
// round it. Where there is none, the folds on the line alone are the joints.
func fanAlong(r *sequence.Course, line geom.Line) (fan, error) {
	var out fan
	on := func(h fold.Hinge) bool {
		iso := r.State.F[h.A].Iso
		return math.Abs(line.Side(iso.Apply(h.P))) < geom.OnPaper && math.Abs(line.Side(iso.Apply(h.Q))) < geom.OnPaper
	}
	var spots []geom.Vec
	for _, h := range r.State.H {
		if r.State.Assigned(h) != fold.Flat && on(h) {
			out.joints = append(out.joints, geom.Segment{A: h.P, B: h.Q})
			spots = append(spots, h.P, h.Q)
		}
	}
	best, most := geom.Vec{}, 0
	for _, p := range spots {
		n := 0
		for _, q := range spots {
			if p.Dist(q) < geom.Distinct {
				n++
			}
		}
		if n > most {
			best, most = p, n
		}
	}
	if most < 2 || !inside(r.State, best) {
		return out, nil
	}
	var round fan
	var sum, joined int // mountains less valleys, of the ridges and of the joints
	for _, h := range r.State.H {
		far := h.Q
		if h.Q.Dist(best) < geom.Distinct {
			far = h.P
		} else if h.P.Dist(best) >= geom.Distinct {
			continue
		}
		ray := geom.Segment{A: best, B: far}
		switch {
		case on(h):
			round.joints = append(round.joints, ray)
			joined += int(r.State.Assigned(h))
		case r.State.Assigned(h) != fold.Flat:
			round.ridges = append(round.ridges, ray)
			sum += int(r.State.Assigned(h))
		}
	}
	if sum == 0 { // the ridges stand both ways: then as the whole spot does
		sum = joined
	}
	switch {
	case sum > 0:
		round.turn = 1
	case sum < 0:
		round.turn = -1
	default:
		return out, nil
	}
	return round, nil
}

// inside tells whether a spot has paper all round it.
func inside(s *fold.State, p geom.Vec) bool {
	var round float64
	for _, f := range s.FacetsAtSheet(p) {
		round += s.F[f].Poly.AngleAt(p)
	}
	return math.Abs(round-2*math.Pi) < 1e-6
}
