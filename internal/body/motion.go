package body

import (
	"errors"
	"math"
	"slices"

	"gonum.org/v1/gonum/mat"

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
		part, fine := moved(v, d.Op == sequence.OpCrease, per)
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
	for k := range poses {
		t := float64(k) / float64(poses-1)
		part := *r.UpTo(step)
		part.Openings, part.Bends, part.Pivots = slices.Clone(part.Openings), slices.Clone(part.Bends), slices.Clone(part.Pivots)
		for i := range part.Openings {
			if w := &part.Openings[i]; w.Step == step {
				w.AngleDeg = 180 + t*(w.AngleDeg-180)
			}
		}
		for i := range part.Bends {
			if b := &part.Bends[i]; b.Step == step {
				b.AngleDeg *= t
			}
		}
		for i := range part.Pivots {
			if v := &part.Pivots[i]; v.Step == step {
				v.AngleDeg *= t
			}
		}
		p := Standing(&part)
		m.Poses = append(m.Poses, p)
		m.Residual = math.Max(m.Residual, p.Residual)
	}
	return m, m.Residual < tornPart*longer(r.Start)
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

// kin is a mechanism: pieces that hang on one another in a tree, and hinges that close
// loops.
type kin struct {
	s     *fold.State
	start geom.Iso3
	root  fold.FacetID
	tree  []link
	loops []int // hinges that are not in the tree
	free  []int // hinges that may turn
	rho   []float64
}

type link struct {
	from, to fold.FacetID
	hinge    int
}

// moved is one motion of a step. Hinges go from their angle before to that after; where
// they form loops the angles between are found so that the loops stay closed.
func moved(v fold.Move, opened bool, poses int) (m Motion, ok bool) {
	k, from, to, ok := mechanism(v)
	if !ok {
		return m, false
	}
	if opened { // a fold that is opened again swings over and back
		to = slices.Clone(to)
		swung := false
		for i, h := range v.After.H {
			if h.Kind == fold.Crease && h.Parent < 0 {
				to[i], swung = -creasedDeg, true
			}
		}
		if !swung {
			return m, false
		}
	}
	before, after := lifts(v.Before), lifts(v.After)
	guess := slices.Clone(from)
	limit := tornPart * longer(v.After)
	for n := range poses {
		t := float64(n) / float64(poses-1)
		if opened {
			t = math.Sin(math.Pi * t)
		}
		want := make([]float64, len(from))
		for i := range want {
			want[i] = from[i] + t*(to[i]-from[i])
		}
		if n > 0 && len(k.loops) > 0 {
			// Start from what was found last, moved on as far as the hinges go.
			for i := range guess {
				k.rho[i] = guess[i] + (want[i] - guess[i])
			}
			k.close(want)
		} else {
			copy(k.rho, want)
		}
		copy(guess, k.rho)
		p := k.pose()
		m.Residual = math.Max(m.Residual, p.Residual)
		if p.Residual > limit {
			return m, false
		}
		lift := make([]float64, len(after))
		for i, f := range v.After.F {
			lift[i] = before[f.Parent] + t*(after[i]-before[f.Parent])
		}
		m.Poses, m.lifts = append(m.Poses, p), append(m.lifts, lift)
	}
	return m, true
}

// mechanism sets up the pieces after a motion, with every hinge's angle before and
// after it: degrees, positive for a mountain.
func mechanism(v fold.Move) (k kin, from, to []float64, ok bool) {
	s := v.After
	k.s, k.rho = s, make([]float64, len(s.H))
	from, to = make([]float64, len(s.H)), make([]float64, len(s.H))
	for i, h := range s.H {
		to[i] = 180 * float64(s.Assigned(h))
		if h.Parent >= 0 && int(h.Parent) < len(v.Before.H) {
			from[i] = 180 * float64(v.Before.Assigned(v.Before.H[h.Parent]))
		}
		if h.Kind == fold.Crease {
			k.free = append(k.free, i)
		}
	}
	// What stays where it was, the largest of it.
	found := false
	for i, f := range s.F {
		if int(f.Parent) >= len(v.Before.F) || !v.Before.F[f.Parent].Iso.Near(f.Iso, geom.Still) {
			continue
		}
		if !found || f.Poly.Area() > s.F[k.root].Poly.Area() {
			k.root, found = fold.FacetID(i), true
		}
	}
	if !found {
		return k, nil, nil, false
	}
	k.start = geom.Lift(s.F[k.root].Iso)
	seen, used := make([]bool, len(s.F)), make([]bool, len(s.H))
	seen[k.root] = true
	for queue := []fold.FacetID{k.root}; len(queue) > 0; queue = queue[1:] {
		for i, h := range s.H {
			if g, other := h.Other(queue[0]); other && !seen[g] && h.Kind != fold.Glue {
				seen[g], used[i] = true, true
				k.tree = append(k.tree, link{queue[0], g, i})
				queue = append(queue, g)
			}
		}
	}
	for i := range s.H {
		if !used[i] {
			k.loops = append(k.loops, i)
		}
	}
	return k, from, to, !slices.Contains(seen, false)
}

// place says where every piece lies for the present angles.
func (k *kin) place(at []geom.Iso3) {
	at[k.root] = k.start
	for _, l := range k.tree {
		h := k.s.H[l.hinge]
		deg := k.rho[l.hinge]
		sense := fold.Mountain
		if deg < 0 {
			sense = fold.Valley
		}
		at[l.to] = at[l.from].After(turned(k.s, h, l.from, deg, sense))
	}
}

func (k *kin) pose() Pose {
	p := Pose{State: k.s, At: make([]geom.Iso3, len(k.s.F)), partOf: make([]int, len(k.s.F))}
	k.place(p.At)
	p.Residual = p.worst()
	return p
}

// gaps are the mismatches at the hinges that close loops, in mm.
func (k *kin) gaps(at []geom.Iso3, out []float64) {
	for n, i := range k.loops {
		h := k.s.H[i]
		pb, qb := h.Ends(h.B)
		for e, v := range [2][2]geom.Vec{{h.P, pb}, {h.Q, qb}} {
			d := at[h.A].Apply(geom.Vec3{X: v[0].X, Y: v[0].Y}).Sub(at[h.B].Apply(geom.Vec3{X: v[1].X, Y: v[1].Y}))
			out[6*n+3*e], out[6*n+3*e+1], out[6*n+3*e+2] = d.X, d.Y, d.Z
		}
	}
}

const (
	closeRounds = 25
	probeDeg    = 0.05
	// homing is how strongly the angles are drawn to the wanted ones, mm per degree:
	// weak against any gap, strong enough to choose among the ways that close.
	homing = 0.004
)

// close looks for angles near the wanted ones at which all loops close (Gauss-Newton
// with damping, on the gaps).
func (k *kin) close(want []float64) {
	n, g := len(k.free), 6*len(k.loops)
	at := make([]geom.Iso3, len(k.s.F))
	base, moved := make([]float64, g), make([]float64, g)
	jac := make([][]float64, n)
	for i := range jac {
		jac[i] = make([]float64, g)
	}
	measure := func() float64 {
		k.place(at)
		k.gaps(at, base)
		sum := 0.0
		for _, v := range base {
			sum += v * v
		}
		return sum
	}
	damp := 1e-3
	cost := measure()
	for range closeRounds {
		if cost < 1e-6 {
			return
		}
		for i, h := range k.free {
			old := k.rho[h]
			k.rho[h] = old + probeDeg
			k.place(at)
			k.gaps(at, moved)
			for j := range moved {
				jac[i][j] = (moved[j] - base[j]) / probeDeg
			}
			k.rho[h] = old
		}
		j := mat.NewDense(g, n, nil) // gaps by angle
		for i := range n {
			j.SetCol(i, jac[i])
		}
		var normal, step mat.Dense
		normal.Mul(j.T(), j)
		var right mat.VecDense
		right.MulVec(j.T(), mat.NewVecDense(g, base))
		for i, h := range k.free {
			normal.Set(i, i, normal.At(i, i)+homing*homing+damp)
			right.SetVec(i, -right.AtVec(i)-homing*homing*(k.rho[h]-want[h]))
		}
		if err := step.Solve(&normal, &right); err != nil {
			var near mat.Condition
			if !errors.As(err, &near) || math.IsInf(float64(near), 0) {
				return
			}
		}
		old := slices.Clone(k.rho)
		for i, h := range k.free {
			k.rho[h] += math.Max(-20, math.Min(20, step.At(i, 0)))
		}
		if now := measure(); now < cost {
			cost, damp = now, math.Max(damp/4, 1e-9)
		} else {
			copy(k.rho, old)
			if damp *= 8; damp > 1e6 {
				return
			}
			cost = measure()
		}
	}
}
