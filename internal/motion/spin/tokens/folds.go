package tokens

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"sync"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/say"
	"tussock/internal/sequence/spread"
)

// effect is what one fold made a little off its place does to the balance: how far the
// centre of mass moves against the point for each mm that what is brought goes past its
// target. To first order.
type effect struct {
	step  int
	perMM geom.Vec
}

// effects of all folds of a toy, worked out when somebody asks.
type effects struct {
	once sync.Once
	all  []effect
}

// probeMM is small enough for the first order.
const probeMM = 0.2

// folds are what each fold does to the balance. None where the toy cannot be folded again.
func (g Geometry) folds() []effect {
	g.effects.once.Do(func() {
		offs, err := spread.Each(g.replay, probeMM)
		if err != nil || len(g.pose.State.F) != len(g.replay.Final().F) {
			return
		}
		for _, o := range offs {
			was, now := g.balanced(nil), g.balanced(o.Iso)
			if v := now.Sub(was).Scale(1 / probeMM); v.Len() > leastEffect {
				g.effects.all = append(g.effects.all, effect{o.Step, v})
			}
		}
	})
	return g.effects.all
}

// leastEffect is what counts as moving the balance, mm for a mm.
const leastEffect = 0.005

// balanced is the centre of mass of the paper against the point when pieces lie a little
// elsewhere in the plane: each is carried on by where it stands in space.
func (g Geometry) balanced(iso []geom.Iso2) geom.Vec {
	at := func(f fold.FacetID, v geom.Vec) geom.Vec {
		if iso != nil {
			v = g.pose.State.F[f].Iso.Inverse().Apply(iso[f].Apply(v))
		}
		return g.frame.plan(g.pose.At[f].Apply(lift(v)))
	}
	var sum geom.Vec
	area := 0.0
	for i, f := range g.pose.State.F {
		a := f.Poly.Area()
		area += a
		sum = sum.Add(at(fold.FacetID(i), f.Poly.Centroid()).Scale(a))
	}
	// What is fixed to the paper stays where it is; it weighs down how far the rest moves.
	paper := area * g.Sheet.GSM * 1e-6
	on := g.pose.State.FacetsAtSheet(g.restsOn)
	if len(on) == 0 {
		return geom.Vec{}
	}
	return sum.Scale(1 / area * paper / g.MassG).Sub(at(on[0], g.restsOn))
}

// told is a fold made so far past or short, in words.
func told(mm float64) string {
	if mm < 0 {
		return say.MM(-mm, 1) + " short"
	}
	return say.MM(mm, 1) + " past"
}

// answer is a fold made off its place on purpose, or by mistake, and what it leaves of a
// shift that is wanted.
type answer struct {
	effect
	mm   float64
	left geom.Vec
}

// answers are folds that bring a shift of the balance about, the one that leaves least
// first; among those that leave nearly as little, the one that moves least.
func (g Geometry) answers(shift geom.Vec) []answer {
	var out []answer
	for _, f := range g.folds() {
		mm := shift.Dot(f.perMM) / f.perMM.Dot(f.perMM)
		if math.Abs(mm) > mostFoldMM {
			mm = math.Copysign(mostFoldMM, mm)
		}
		left := shift.Sub(f.perMM.Scale(mm))
		if left.Len() < 0.7*shift.Len() {
			out = append(out, answer{f, mm, left})
		}
	}
	score := func(a answer) float64 { return a.left.Len() + 0.1*math.Abs(a.mm) }
	slices.SortStableFunc(out, func(a, b answer) int { return cmp.Compare(score(a), score(b)) })
	return out
}

// mostFoldMM is the most that a fold is moved by before it is another fold.
const mostFoldMM = 4.0

// nearestFold is the fold that explains most of a balance found elsewhere.
func (w *Workbench) nearestFold(s set, found geom.Vec) (answer, bool) {
	all := s.answers(found)
	if len(all) == 0 || all[0].left.Len() > found.Len()/2 {
		return answer{}, false
	}
	return all[0], true
}

// stepWords is a step as people know it.
func (w *Workbench) stepWords(s set, step int) string {
	d := s.replay.Steps[step-1]
	if n := d.Name; n != "" {
		return fmt.Sprintf("step %d, %s", step, w.Pattern.Called(n))
	}
	return fmt.Sprintf("step %d", step)
}
