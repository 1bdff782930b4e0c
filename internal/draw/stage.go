package draw

import (
	"math"
	"slices"

	"tussock/internal/body"
	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// Stage is a step as it is shown: the paper before it and what is to be done. Steps that
// act in the round, and those after them, are shown in the round.
type Stage struct {
	Picture Picture
	Over    Overlay
	Round   bool
	// Halfway is the paper in the middle of the step, where the way there was found and the
	// two ends alone do not show it.
	Halfway *Picture
	// After is the paper after a step in the round, seen from the same side, and Pose how it
	// stands then.
	After *Picture
	Pose  *body.Pose
}

// Shown is a step in the round of a replay, and how the toy stands before and after it.
type Shown struct {
	Replay        *sequence.Replay
	Step          int
	Before, After body.Pose
}

// Look says from where a step in the round is looked at.
type Look func(s Shown) Camera

// Stages show all steps of a replay.
func Stages(r *sequence.Replay, look Look) []Stage {
	out := make([]Stage, len(r.Steps))
	var last *body.Pose
	for i, d := range r.Steps {
		out[i] = stageOf(r, d.No, look, last)
		last = out[i].Pose
	}
	return out
}

// StageOf shows a step of a replay, without its half-way picture.
func StageOf(r *sequence.Replay, step int, look Look) Stage { return stageOf(r, step, look, nil) }

// stageOf is StageOf; last is how the toy stands after the step before, nil when that is
// not known.
func stageOf(r *sequence.Replay, step int, look Look, last *body.Pose) Stage {
	d := r.Steps[step-1]
	if !InRound(r, step) {
		return Stage{Picture: At(r, step-1), Over: Next(d)}
	}
	if last == nil {
		p := body.Standing(r.UpTo(step - 1))
		last = &p
	}
	stands := body.Standing(r.UpTo(step))
	c := look(Shown{r, step, *last, stands})
	thick := lifted(d.Before)
	before, after := last.Fanned(thick), stands.Fanned(thick)
	pic, end := InSpace(before, c), InSpace(after, c)
	pic.CoM, end.CoM = nil, nil
	k := &scene{before: before, after: after, c: c, size: math.Max(pic.View[2], pic.View[3]), o: Overlay{Strokes: []Stroke{}, Arrows: []Arrow{}, Signs: []Sign{}, Moving: []Region{}}}
	for _, w := range r.Openings {
		if w.Step == step {
			for _, s := range w.Pieces {
				k.line(s)
			}
			k.arrow(w.Moving)
		}
	}
	for _, b := range r.Bends {
		if b.Step == step {
			k.line(geom.Segment{A: b.A, B: b.B})
			k.arrow(b.Moving)
		}
	}
	if len(k.o.Arrows) == 0 {
		k.farthest()
	}
	for _, m := range r.Notes {
		if m.Step == step {
			k.sign(m.At)
		}
	}
	for _, m := range r.Masses {
		if m.Step == step {
			k.sign(m.At)
		}
	}
	b := geom.Box{MinX: pic.View[0], MaxX: pic.View[0] + pic.View[2], MinY: -pic.View[1] - pic.View[3], MaxY: -pic.View[1]}
	k.o.frame(b)
	return Stage{Picture: pic, Over: k.o, Round: true, After: &end, Pose: &stands}
}

// InRound tells whether a step is shown in the round: it opens, bends or parts something,
// or one before it has.
func InRound(r *sequence.Replay, step int) bool {
	d := r.Steps[step-1]
	if d.InTheRound() {
		return true
	}
	if len(d.Moves) > 0 || d.Op == sequence.OpTurn || d.Op == sequence.OpRotate {
		return false
	}
	for _, e := range r.Steps[:step-1] {
		if e.InTheRound() && !e.Conditioning && !e.Skipped {
			return true
		}
	}
	return false
}

// scene is what is drawn over a toy in the round.
type scene struct {
	before, after body.Pose
	c             Camera
	size          float64
	o             Overlay
}

// spot is where a point of the sheet is in a pose; ok is false off the paper.
func spot(p body.Pose, at geom.Vec) (geom.Vec3, bool) {
	for _, f := range p.State.FacetsAtSheet(at) {
		if int(f) < len(p.At) {
			return p.At[f].Apply(lift(at)), true
		}
	}
	return geom.Vec3{}, false
}

func (k *scene) line(s geom.Segment) {
	a, ok := spot(k.before, s.A)
	b, fine := spot(k.before, s.B)
	if u, v := k.c.project(a), k.c.project(b); ok && fine && u.Dist(v) > shortArrow*k.size {
		k.o.Strokes = append(k.o.Strokes, Stroke{"axis", flatPoints(u, v)})
	}
}

func (k *scene) sign(at geom.Vec) {
	if p, ok := spot(k.before, at); ok {
		k.o.Signs = append(k.o.Signs, signAt("meet", k.c.project(p), k.size))
	}
}

// corner is a corner of the paper and its way in a step.
type corner struct{ from, to geom.Vec3 }

// corners are those of the pieces that go the way of the one at a point of the sheet, or all.
func (k *scene) corners(like geom.Vec, all bool) []corner {
	move := func(f fold.FacetID) (geom.Iso3, bool) {
		mid := k.after.State.F[f].Poly.Centroid()
		at := k.before.State.FacetsAtSheet(mid)
		if len(at) == 0 {
			return geom.Iso3{}, false
		}
		return k.after.At[f].After(k.before.At[at[0]].Inverse()), true
	}
	var of geom.Iso3
	if !all {
		at := k.after.State.FacetsAtSheet(like)
		if len(at) == 0 {
			return nil
		}
		m, ok := move(at[0])
		if !ok {
			return nil
		}
		of = m
	}
	probes := []geom.Vec3{{}, {X: 50}, {Y: 50}, {Z: 50}}
	var out []corner
	for i, f := range k.after.State.F {
		m, ok := move(fold.FacetID(i))
		same := slices.IndexFunc(probes, func(p geom.Vec3) bool { return m.Apply(p).Dist(of.Apply(p)) > 0.01 }) < 0
		if !ok || !all && !same {
			continue
		}
		mid := f.Poly.Centroid()
		root := k.before.State.FacetsAtSheet(mid)[0]
		for _, v := range f.Poly {
			v = v.Lerp(mid, inward)
			out = append(out, corner{k.before.At[root].Apply(lift(v)), k.after.At[i].Apply(lift(v))})
		}
	}
	return out
}

// arrow shows the way of the part that a point of the sheet belongs to.
func (k *scene) arrow(moving geom.Vec) { k.longest(k.corners(moving, false)) }

// farthest shows the way of the corner that goes farthest.
func (k *scene) farthest() { k.longest(k.corners(geom.Vec{}, true)) }

func (k *scene) longest(all []corner) {
	best, far := corner{}, shortArrow*k.size
	for _, c := range all {
		if d := k.c.project(c.from).Dist(k.c.project(c.to)); d > far {
			best, far = c, d
		}
	}
	if best == (corner{}) {
		return
	}
	from, to := k.c.project(best.from), k.c.project(best.to)
	size := k.size
	bow := to.Sub(from).Left().Scale(0.22)
	if geom.Mid(from, to).Add(bow).Y < geom.Mid(from, to).Sub(bow).Y { // over, not under
		bow = bow.Scale(-1)
	}
	k.o.Arrows = append(k.o.Arrows, arrowOf("fold", from, geom.Mid(from, to).Add(bow), to, size))
}

// halved are the steps whose two ends do not show the way between them.
var halved = []sequence.Op{sequence.OpCollapse, sequence.OpSquash, sequence.OpReverse, sequence.OpSink, sequence.OpPetal, sequence.OpRabbit,
	sequence.OpPleat, sequence.OpCrimp, sequence.OpTwist, sequence.OpGather, sequence.OpDraw, sequence.OpFlex}

// Halved tells whether the two ends of a step of a kind do not show the way between them.
func Halved(op sequence.Op) bool { return slices.Contains(halved, op) }

// halfwayPoses is in how many poses the way is followed: few, for it is only looked at.
const halfwayPoses = 9

// liftTimes is how many times thicker than it is paper is drawn in the round, and liftPart
// how thick a whole stack is at most, as a part of the toy's size.
const (
	liftTimes = 4
	liftPart  = 0.02
)

// lifted is by how much every layer of a state is lifted off the one below to be drawn.
func lifted(s *fold.State) float64 {
	deepest := 1
	for _, d := range s.Depths() {
		deepest = max(deepest, d)
	}
	return math.Min(liftTimes*s.Sheet.ThicknessMM, liftPart*longer(s.Box())/float64(deepest))
}

// HalfwayOf is the paper in the middle of a step, with what moves shaded; ok is false for
// plain folds, and where no way of flat, stiff pieces was found.
func HalfwayOf(r *sequence.Replay, step int) (Picture, bool) {
	if !Halved(r.Steps[step-1].Op) {
		return Picture{}, false
	}
	m, ok := body.MotionOf(r, step, halfwayPoses)
	if !ok {
		return Picture{}, false
	}
	poses := m.Fanned(lifted(r.Steps[step-1].After))
	n := len(poses) / 2
	if len(r.Steps[step-1].Moves) > 1 { // one after the other: in the middle of the last
		n = len(poses) - 1 - (len(poses)-1)/(2*len(r.Steps[step-1].Moves))
	}
	c := Slanted(24, 48)
	still := poses[0]
	pic := inSpace(poses[n], c, func(f fold.FacetID) bool {
		return !sameTurn(still.At[rootOf(still.State, poses[n].State.F[f])], poses[n].At[f])
	})
	pic.CoM = nil
	return pic, true
}

// sameTurn tells whether a piece lies as it did, but for the lift of its layer.
func sameTurn(a, b geom.Iso3) bool {
	for _, v := range []geom.Vec3{{X: 1}, {Y: 1}} {
		if a.Turn(v).Dist(b.Turn(v)) > 1e-3 {
			return false
		}
	}
	return true
}

// views are from where steps in the round may be looked at, azimuth and elevation.
var views = [][2]float64{{28, 38}, {-28, 38}, {90, 16}, {-90, 16}, {0, 16}, {28, 12}, {65, 24}, {-65, 24}}

// Watching is from where one sees best what a step in the round does: where what moves goes
// a long way across the picture, and the toy is not seen edge on.
func Watching(s Shown) Camera {
	k := &scene{before: s.Before, after: s.After}
	all := k.corners(geom.Vec{}, true)
	best, at := -1.0, views[0]
	for _, v := range views {
		c := Slanted(v[0], v[1])
		var far float64
		box := geom.EmptyBox()
		for _, q := range all {
			a, b := c.project(q.from), c.project(q.to)
			far = math.Max(far, a.Dist(b))
			box = box.Grow(a, b)
		}
		if score := far * (0.3 + math.Min(box.Width(), box.Height())/longer(box)); score > best+geom.OnPaper {
			best, at = score, v
		}
	}
	return Slanted(at[0], at[1])
}
