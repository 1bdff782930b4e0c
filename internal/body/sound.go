package body

import (
	"fmt"
	"math"
	"slices"

	"tussock/internal/closure"
	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sequence/remarks"
)

const (
	// MissedDeg is by how much a joint may miss the angle that is asked of it: a twentieth
	// of what a hand can set.
	MissedDeg = 0.05
	// slidPart is how far hinges may gape where layers are slid in their plane, as a part of
	// the sheet's longer side: the paper between bulges by as much.
	slidPart = 0.03
	// settleSteps are the frames in which a toy is opened to find its angles.
	settleSteps = 8
)

// Sound tells that a pose is one that paper can take: no hinge is torn, every joint has
// the angle that is asked of it, and nothing passes through anything.
func (p Pose) Sound() bool { return p.Unsound() == "" }

// Unsound says what is wrong with a pose, and where; "" for a sound one.
func (p Pose) Unsound() string {
	limit := closure.SaidMM
	if p.slid {
		limit = slidPart * longer(p.State)
	}
	switch {
	case p.Residual > limit:
		h := p.State.H[p.torn()]
		return fmt.Sprintf("the paper would tear by %s at the crease %s", say.MM(p.Residual, 1), onSheet(h))
	case p.MissDeg > MissedDeg:
		return fmt.Sprintf("the crease %s cannot reach its angle: it is off by %.1f°", onSheet(p.State.H[p.Missed]), p.MissDeg)
	case p.shut > 0:
		return fmt.Sprintf("the crease %s stays shut", onSheet(p.State.H[p.shut-1]))
	case len(p.Crossing) > 0:
		a, b := p.Crossing[0].A, p.Crossing[0].B
		more := ""
		if n := len(p.Crossing); n > 1 {
			more = fmt.Sprintf(", and %d more", n-1)
		}
		return fmt.Sprintf("the piece %s passes through the piece %s%s", place(p.State.F[a].Poly.Centroid()), place(p.State.F[b].Poly.Centroid()), more)
	}
	return ""
}

func onSheet(h fold.Hinge) string { return place(geom.Mid(h.P, h.Q)) }

// place says where something is on the flat sheet.
func place(v geom.Vec) string {
	return fmt.Sprintf("%s from the left and %s from below on the flat sheet", say.MM(v.X, 0), say.MM(v.Y, 0))
}

// measure looks at every hinge: its gap, and the angle it has against the one asked.
func (p *Pose) measure(asked []float64) {
	p.Residual, p.MissDeg = closure.Gap(p.State, p.At), 0
	for i, h := range p.State.H {
		if h.Kind == fold.Glue {
			continue
		}
		if off := math.Abs(turnOf(p.foldAt(h) - asked[i])); geom.Deg(off) > p.MissDeg {
			p.MissDeg, p.Missed = geom.Deg(off), i
		}
	}
}

// turnOf brings an angle to between -π and π: folded right over is folded right over,
// whichever way.
func turnOf(rad float64) float64 { return math.Remainder(rad, 2*math.Pi) }

// foldAt is the angle by which the paper is folded at a hinge, rad, positive for a
// mountain.
func (p *Pose) foldAt(h fold.Hinge) float64 {
	a, b := p.At[h.A], p.At[h.B]
	d := h.Q.Sub(h.P).Unit()
	axis := a.Turn(geom.Vec3{X: d.X, Y: d.Y})
	na, nb := a.Turn(geom.Vec3{Z: 1}), b.Turn(geom.Vec3{Z: 1})
	rho := math.Atan2(axis.Dot(na.Cross(nb)), na.Dot(nb))
	if d.Cross(p.State.F[h.A].Poly.Centroid().Sub(h.P)) < 0 {
		rho = -rho
	}
	return rho
}

// torn is the hinge that gapes most.
func (p Pose) torn() int {
	best, most := 0, -1.0
	for i, h := range p.State.H {
		one := fold.State{H: []fold.Hinge{h}}
		if g := closure.Gap(&one, p.At); g > most {
			best, most = i, g
		}
	}
	return best
}

// settle finds the angles at which a toy closes when some of its joints are opened, all
// others as little as may be: by opening it from flat step by step, or where that finds no
// way by looking for the nearest pose that closes. What is asked of a joint and not
// reached stays to be told. With frames, the poses are those of the last step.
func (p Pose) settle(m *closure.Mechanism, stages []stage, root fold.FacetID, frames int) []Pose {
	rho := m.Flat()
	var found closure.Motion
	var asked []closure.Drive
	for k, g := range stages {
		n := settleSteps
		if k == len(stages)-1 && frames > 1 {
			n = frames - 1
		}
		asked = asked[:0]
		for i := range rho {
			if math.Abs(turnOf(g.rho[i]-m.Flat()[i])) > 1e-9 {
				asked = append(asked, closure.Drive{Hinge: int32(i), Want: g.rho[i]})
			}
		}
		found = opening(m, closure.Ask{From: rho, Drives: asked, Must: g.must, Root: root}, n)
		rho = found.Last().Rho
	}
	if frames == 0 {
		found.Frames = found.Frames[len(found.Frames)-1:]
	}
	out := make([]Pose, len(found.Frames))
	for k, f := range found.Frames {
		q := p
		q.At = m.Place(f.Rho, root)
		q.Residual = m.Gap(q.At)
		q.Crossing = closure.Crossing(p.State, q.At)
		q.MissDeg = 0
		for _, d := range asked {
			off := geom.Deg(math.Abs(turnOf(q.foldAt(p.State.H[d.Hinge]) - d.Want)))
			if k == len(found.Frames)-1 && off > q.MissDeg {
				q.MissDeg, q.Missed = off, int(d.Hinge)
			}
		}
		for _, i := range stages[len(stages)-1].must {
			if k == len(found.Frames)-1 && math.Abs(turnOf(f.Rho[i]-m.Flat()[i])) < geom.Rad(MissedDeg) {
				q.shut = int(i) + 1
			}
		}
		out[k] = q
	}
	return out
}

// opening moves joints to where they are asked to be. What is symmetric moves alike if it
// can.
func opening(m *closure.Mechanism, a closure.Ask, frames int) closure.Motion {
	a.Tied = true
	found := m.Move(a, frames)
	if found.Part < 1 {
		a.Tied = false
		if q := m.Move(a, frames); q.Part > found.Part {
			found = q
		}
	}
	if found.Part == 1 && found.State != closure.Stuck && found.State != closure.Locked {
		return found
	}
	near := slices.Clone(a.From)
	for _, d := range a.Drives {
		near[d.Hinge] = d.Want
	}
	if f := m.Solve(a, near); f.State != closure.Stuck {
		found.Frames = append(found.Frames, f)
	}
	return found
}

// Tears say of each step in the round after which the toy cannot stand as it is set, why.
func Tears(r *sequence.Replay) []remarks.Warning {
	var out []remarks.Warning
	for _, d := range r.Steps {
		if !d.InTheRound() || d.Skipped || d.Conditioning {
			continue
		}
		if why := Standing(r.UpTo(d.No)).Unsound(); why != "" {
			out = append(out, remarks.Warning{Step: d.No, Kind: "torn", Text: TearWords(why)})
		}
	}
	return out
}

// TearWords are a sentence that says what is wrong with a pose, and what can be done.
func TearWords(why string) string {
	return "the toy cannot stand so: " + why + "; take another angle, or open the folds that hold it"
}

// Balance is where the centre of mass of a toy as it stands lies over the plane of the
// piece that stays, folded plane before the toy was opened.
func Balance(r *sequence.Replay) geom.Vec {
	c := Standing(r).Weigh().CoM
	return geom.Vec{X: c.X, Y: c.Y}
}
