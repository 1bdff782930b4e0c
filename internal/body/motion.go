package body

import (
	"math"
	"slices"

	"tussock/internal/closure"
	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// Motion is the paper on its way through a step: poses from before to after, in which
// every piece stays flat and stiff and every hinge stays whole to within Residual.
type Motion struct {
	Poses    []Pose
	Residual float64 // the worst mismatch at a hinge in any of them, mm
	lifts    [][]float64
}

// Fanned are the poses with every layer lifted off the one below by so many mm, so that
// one sees what lies on what: the thickness of paper, drawn larger than it is.
func (m Motion) Fanned(mm float64) []Pose {
	out := slices.Clone(m.Poses)
	for i := range out {
		if i >= len(m.lifts) || m.lifts[i] == nil {
			continue
		}
		out[i].At = slices.Clone(out[i].At)
		for f, lift := range m.lifts[i] {
			up := out[i].At[f].Turn(geom.Vec3{Z: 1})
			out[i].At[f].T = out[i].At[f].T.Add(up.Scale(lift * mm))
		}
	}
	return out
}

// Fanned is a pose with every layer lifted off the one below by so many mm, as those of a
// motion are.
func (p Pose) Fanned(mm float64) Pose {
	if _, ok := p.State.Ranked(); !ok {
		return p
	}
	return Motion{Poses: []Pose{p}, lifts: [][]float64{lifts(p.State)}}.Fanned(mm)[0]
}

// lifts are by how many layers each piece is lifted towards the front of its paper.
func lifts(s *fold.State) []float64 {
	out := make([]float64, len(s.F))
	for i, d := range s.Depths() {
		out[i] = float64(d)
		if !s.F[i].Iso.FaceUp() {
			out[i] = -out[i]
		}
	}
	return out
}

// A motion is shown when no hinge is torn by more than this part of the sheet's longer
// side: paper gives as much.
const tornPart = 0.004

// creasedDeg is how far a fold that is opened again is folded over.
const creasedDeg = 165

// MotionOf is the motion of a step of a replay in so many poses, the first before it
// and the last after it. ok is false where no motion of flat, stiff pieces was found:
// then the step can only be shown before and after.
func MotionOf(r *sequence.Replay, step, poses int) (m Motion, ok bool) {
	m, ok = motionOf(r, step, poses)
	notes := r.UpTo(step).Notes
	for i := range m.Poses {
		m.Poses[i].Notes = notes
	}
	return m, ok
}

func motionOf(r *sequence.Replay, step, poses int) (m Motion, ok bool) {
	d := r.Steps[step-1]
	switch {
	case d.InTheRound():
		return inTheRound(r, step, poses)
	case d.Op == sequence.OpTurn || d.Op == sequence.OpRotate:
		return rigid(d, poses)
	case len(d.Moves) == 0:
		return m, false
	}
	per := max(2, (poses-1)/len(d.Moves)+1)
	for i, v := range d.Moves {
		part, fine := moved(v, d.Op, per)
		if !fine {
			return m, false
		}
		if i > 0 {
			part.Poses, part.lifts = part.Poses[1:], part.lifts[1:]
		}
		m.Poses, m.lifts = append(m.Poses, part.Poses...), append(m.lifts, part.lifts...)
		m.Residual = math.Max(m.Residual, part.Residual)
	}
	return m, true
}

// inTheRound opens, bends and slides a little at a time.
func inTheRound(r *sequence.Replay, step, poses int) (m Motion, ok bool) {
	at, gives := r.UpTo(step), tornPart
	if len(at.Pivots) > 0 {
		gives = slidPart
	}
	if r.Steps[step-1].Op == sequence.OpPivot {
		for k := range poses {
			t := float64(k) / float64(poses-1)
			part := *at
			part.Pivots = slices.Clone(part.Pivots)
			for i := range part.Pivots {
				if v := &part.Pivots[i]; v.Step == step {
					v.AngleDeg *= t
				}
			}
			m.Poses = append(m.Poses, Standing(&part))
		}
	} else {
		m.Poses = standing(at, at.Openings, poses)
	}
	for _, p := range m.Poses {
		m.Residual = math.Max(m.Residual, p.Residual)
	}
	return m, len(m.Poses) > 1 && m.Residual < gives*longer(r.Start)
}

func longer(s *fold.State) float64 { return math.Max(s.Sheet.WidthMM, s.Sheet.HeightMM) }

// rigid turns the whole toy: over its axis, or in its plane about the point that stays.
func rigid(d sequence.Done, poses int) (m Motion, ok bool) {
	s := d.Before
	if len(s.F) == 0 || len(d.After.F) != len(s.F) {
		return m, false
	}
	whole := d.After.F[0].Iso.After(s.F[0].Iso.Inverse())
	swing := func(t float64) geom.Iso3 {
		if !whole.FaceUp() {
			foot := d.Line.Foot(s.Box().Centre())
			dir := d.Line.Dir()
			return geom.Swing(geom.Vec3{X: foot.X, Y: foot.Y}, geom.Vec3{X: dir.X, Y: dir.Y}, math.Pi*t)
		}
		angle := math.Atan2(whole.C, whole.A)
		// The point that stays: c = R c + T.
		a, b := 1-whole.A, -whole.B
		det := a*a + b*b
		if det < 1e-12 {
			return geom.Swing(geom.Vec3{}, geom.Vec3{Z: 1}, 0)
		}
		c := geom.Vec3{X: (a*whole.TX - b*whole.TY) / det, Y: (b*whole.TX + a*whole.TY) / det}
		return geom.Swing(c, geom.Vec3{Z: 1}, angle*t)
	}
	for k := range poses {
		p := Pose{State: s, At: make([]geom.Iso3, len(s.F)), partOf: make([]int, len(s.F))}
		turn := swing(float64(k) / float64(poses-1))
		for i := range s.F {
			p.At[i] = turn.After(geom.Lift(s.F[i].Iso))
		}
		m.Poses, m.lifts = append(m.Poses, p), append(m.lifts, lifts(s))
	}
	// The last pose must be the state after: else the axis is not the one taken.
	last := m.Poses[poses-1]
	for i := range s.F {
		c := s.F[i].Poly.Centroid()
		q := d.After.F[i].Iso.Apply(c)
		if last.At[i].Apply(geom.Vec3{X: c.X, Y: c.Y}).Dist(geom.Vec3{X: q.X, Y: q.Y}) > 0.01 {
			return m, false
		}
	}
	return m, true
}

// moved is one motion of a step. Hinges go from their angle before to that after; where
// they form loops the angles between are found so that the loops stay closed.
func moved(v fold.Move, op sequence.Op, poses int) (m Motion, ok bool) {
	opened := op == sequence.OpCrease
	from, to, root, ok := between(v)
	if !ok {
		return m, false
	}
	if opened { // a fold that is opened again swings over and back
		to = slices.Clone(to)
		swung := false
		for i, h := range v.After.H {
			if h.Kind == fold.Crease && h.Parent < 0 {
				to[i], swung = -geom.Rad(creasedDeg), true
			}
		}
		if !swung {
			return m, false
		}
	}
	parts := make([]float64, poses)
	for n := range parts {
		parts[n] = float64(n) / float64(poses-1)
		if opened {
			parts[n] = math.Sin(math.Pi * parts[n])
		}
	}
	before, after := lifts(v.Before), lifts(v.After)
	limit := tornPart * longer(v.After)
	crease := func(i int) bool { return v.After.H[i].Kind == fold.Crease }
	mech := closure.Of(v.After)
	found := mech.Between(from, to, crease, parts, root, false)
	// A tip that is reversed turns its spine inside out: stiff pieces jump there, paper bends.
	if jumps := op == sequence.OpReverse || op == sequence.OpCrimp; !arrives(found, from, to, parts, jumps) {
		if found = backwards(mech, from, to, poses, root); found == nil {
			found = shutThenOpen(mech, from, to, poses, crease, root)
		}
		if found == nil {
			found = mech.Between(from, to, crease, parts, root, true)
		}
		if !arrives(found, from, to, parts, jumps) {
			return m, false
		}
	}
	for n, f := range found {
		p := Pose{State: v.After, At: f.At, Residual: f.GapMM, partOf: make([]int, len(f.At))}
		m.Residual = math.Max(m.Residual, p.Residual)
		if p.Residual > limit {
			return m, false
		}
		lift := make([]float64, len(after))
		for i, f := range v.After.F {
			lift[i] = before[f.Parent] + parts[n]*(after[i]-before[f.Parent])
		}
		m.Poses, m.lifts = append(m.Poses, p), append(m.lifts, lift)
	}
	return m, true
}

// arrives tells whether poses that close end where a step leaves the paper.
func arrives(found []closure.Found, from, to, parts []float64, jumps bool) bool {
	for k := 1; k < len(found) && !jumps; k++ {
		for i, rho := range found[k].Rho {
			if math.Abs(rho-found[k-1].Rho[i]) > jumpRad {
				return false
			}
		}
	}
	return off(found[len(found)-1].Rho, from, to, parts[len(parts)-1]) < strayRad
}

// mostLeads are the hinges tried as the one that leads the way back.
const mostLeads = 4

// backwards goes the way of a step from its end: the creases it has made or changed move
// back to where they were, one of them leading. nil where none leads all the way.
func backwards(m *closure.Mechanism, from, to []float64, poses int, root fold.FacetID) []closure.Found {
	ask := closure.Ask{From: to, Movers: func(i int) bool { return from[i] != to[i] }, Home: closure.Towards, Target: from, Tied: true, Root: root}
	orbits := m.Orbits(ask)
	tried := map[int32]bool{}
	for i := range from {
		o := orbits[i]
		if o < 0 || tried[o] || len(tried) == mostLeads {
			continue
		}
		tried[o] = true
		ask.Drives = nil
		for j := range from {
			if orbits[j] == o {
				ask.Drives = append(ask.Drives, closure.Drive{Hinge: int32(j), Want: from[j]})
			}
		}
		ways := m.Ways(ask)
		if len(ways) == 0 {
			continue
		}
		mo := m.Follow(ask, ways[0], poses-1)
		if mo.Part < 1 || off(mo.Last().Rho, to, from, 1) > strayRad {
			continue
		}
		slices.Reverse(mo.Frames)
		return mo.Frames
	}
	return nil
}

// shutThenOpen goes the way of a ring that flexes: what is to be shut shuts first, and from
// the star that comes about the folds open that are to be open. nil where that is no way.
func shutThenOpen(m *closure.Mechanism, from, to []float64, poses int, crease func(int) bool, root fold.FacetID) []closure.Found {
	var shut, open []closure.Drive
	opens := map[int]bool{}
	shuts := map[int]bool{}
	for i := range from {
		switch {
		case from[i] == to[i]:
		case from[i] == 0:
			shut, shuts[i] = append(shut, closure.Drive{Hinge: int32(i), Want: to[i]}), true
		case to[i] == 0:
			open, opens[i] = append(open, closure.Drive{Hinge: int32(i), Want: 0}), true
		}
	}
	if len(shut) == 0 || len(open) == 0 {
		return nil
	}
	half := max(1, (poses-1)/2)
	joint := func(i int) bool { return crease(i) && from[i] == 0 } // what lies shut stays in one pat
	first := closure.Ask{From: from, Drives: shut, Movers: joint, Root: root}
	for _, w := range m.Ways(first) {
		a := m.Follow(first, w, half)
		if a.Part < 1 || a.State != closure.Sound {
			continue
		}
		second := closure.Ask{From: a.Last().Rho, Drives: open, Movers: func(i int) bool { return opens[i] || joint(i) && !shuts[i] }, Root: root}
		for _, w := range m.Ways(second) {
			b := m.Follow(second, w, poses-1-half)
			if b.Part == 1 && b.State == closure.Sound && off(b.Last().Rho, from, to, 1) < strayRad {
				return append(a.Frames, b.Frames[1:]...)
			}
		}
	}
	return nil
}

// jumpRad is how far a hinge may go from one pose to the next: more than that is no way,
// but two poses.
const jumpRad = 2.6

// strayRad is how far a hinge may be from where a step leaves it at the end of its motion.
const strayRad = 0.02

// off is the largest difference of angles from a part of the way between others.
func off(rho, from, to []float64, t float64) float64 {
	var most float64
	for i := range rho {
		most = math.Max(most, math.Abs(rho[i]-from[i]-t*(to[i]-from[i])))
	}
	return most
}

// between are the angles of every hinge before and after a motion, rad, positive for a
// mountain, and the largest piece that stays where it was.
func between(v fold.Move) (from, to []float64, root fold.FacetID, ok bool) {
	s := v.After
	from, to = make([]float64, len(s.H)), make([]float64, len(s.H))
	for i, h := range s.H {
		to[i] = math.Pi * float64(s.Assigned(h))
		if h.Parent >= 0 && int(h.Parent) < len(v.Before.H) {
			from[i] = math.Pi * float64(v.Before.Assigned(v.Before.H[h.Parent]))
		}
	}
	for i, f := range s.F {
		if int(f.Parent) >= len(v.Before.F) || !v.Before.F[f.Parent].Iso.Near(f.Iso, geom.Still) {
			continue
		}
		if !ok || f.Poly.Area() > s.F[root].Poly.Area() {
			root, ok = fold.FacetID(i), true
		}
	}
	return from, to, root, ok && s.InOnePiece()
}
