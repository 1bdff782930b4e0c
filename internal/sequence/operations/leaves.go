package operations

import (
	"cmp"
	"fmt"
	"math"
	"slices"

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
	var shut []geom.Segment
	switch {
	case f.turn == 0 || len(f.joints) == leaves:
	case len(f.joints)%leaves == 0: // several leaves stay together as one
		if f.joints, shut, err = together(r, a.line, f.joints, len(f.joints)/leaves); err != nil {
			return err
		}
	default:
		return fold.Errorf(fold.CodeExpect, "%d leaves hang on %s, not %d; write: into %d", len(f.joints), a.line.Words(r), leaves, len(f.joints))
	}
	d.Line, d.AngleDeg, d.Lines = line, 360/float64(leaves), []geom.Segment{seg}
	r.Out.Parts = append(r.Out.Parts, sequence.Parting{Step: s.No, Pieces: f.joints, Shut: shut, Ridges: f.ridges, Turn: f.turn, Leaves: leaves})
	return nil
}

// together leaves one joint of each so many open, the one that was named and those that follow
// as far apart round the spot; the leaves between stay shut.
func together(r *sequence.Course, line sequence.LineExpr, joints []geom.Segment, each int) (open, shut []geom.Segment, err error) {
	named, err := sheetPieces(r, line)
	if err != nil || len(named) == 0 {
		return nil, nil, err
	}
	toward := func(s geom.Segment) float64 { v := s.B.Sub(s.A); return math.Atan2(v.Y, v.X) }
	first := toward(named[0])
	turned := func(s geom.Segment) float64 { // from the first on, a hair before it counts as it
		return math.Mod(toward(s)-first+4*math.Pi+geom.Distinct, 2*math.Pi)
	}
	slices.SortFunc(joints, func(a, b geom.Segment) int { return cmp.Compare(turned(a), turned(b)) })
	for i, j := range joints {
		if i%each == 0 {
			open = append(open, j)
		} else {
			shut = append(shut, j)
		}
	}
	return open, shut, nil
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
		ray := geom.Segment{A: best, B: onward(r.State, best, far)}
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

// onward follows a fold from a spot over the creases that it crosses, as far as it goes
// straight on.
func onward(s *fold.State, from, to geom.Vec) geom.Vec {
	dir := to.Sub(from).Unit()
	for range s.H {
		further := false
		for _, h := range s.H {
			for _, e := range [2][2]geom.Vec{{h.P, h.Q}, {h.Q, h.P}} {
				if e[0].Dist(to) < geom.Distinct && e[1].Sub(e[0]).Unit().Dist(dir) < geom.OnPaper && e[1].Dist(to) > geom.Distinct {
					to, further = e[1], true
				}
			}
		}
		if !further {
			break
		}
	}
	return to
}

// inside tells whether a spot has paper all round it.
func inside(s *fold.State, p geom.Vec) bool {
	var round float64
	for _, f := range s.FacetsAtSheet(p) {
		round += s.F[f].Poly.AngleAt(p)
	}
	return math.Abs(round-2*math.Pi) < 1e-6
}
