package tokens

import (
	"cmp"
	"context"
	"math"
	"slices"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/toys"
)

// AimDrawing is what brings the point under the weight, and what each fold does to the balance.
type AimDrawing struct {
	OffsetMM float64      `json:"offset_mm"` // as it is set
	Choices  []AimChoice  `json:"choices"`   // the one that leaves least first; as near ones by how little they change its look
	Folds    []FoldEffect `json:"folds"`
}

// AimChoice is one way to bring the point and the weight together.
type AimChoice struct {
	Words   string          `json:"words"`
	Changes []motion.Change `json:"changes"` // none where no knob does it
	LeftMM  float64         `json:"left_mm"` // offset that is left
	LooksMM float64         `json:"looks_mm"`
	NewOne  bool            `json:"new_one"` // wants a new sheet
}

// FoldEffect is what one fold does to the balance.
type FoldEffect struct {
	Step    int     `json:"step"`
	Words   string  `json:"words"`
	PerMM   float64 `json:"per_mm"`  // shift of the balance for each mm past its mark
	Towards float64 `json:"towards"` // o'clock
	CureMM  float64 `json:"cure_mm"` // past its mark, or short of it, to cure the offset as far as it can; 0 when there is nothing to cure
	LeftMM  float64 `json:"left_mm"`
}

// Told is where to aim, ranked.
func (w *Workbench) Told(ctx context.Context, knobs map[string]float64, _ []motion.Noted) (*motion.Drawing, error) {
	s, err := w.at(ctx, knobs)
	if err != nil {
		return nil, err
	}
	d := AimDrawing{OffsetMM: s.Off.Len(), Choices: []AimChoice{}, Folds: w.effects(s)}
	if s.Off.Len() > foundMM {
		moved := w.moveSupport(s)
		after, err := w.at(ctx, toys.With(knobs, moved...))
		if err == nil {
			d.Choices = append(d.Choices, AimChoice{"move the point " + vector(s.Off), moved, after.Off.Len(), s.Off.Len(), false})
		}
		for _, l := range w.Toys.Levers(knobs, nil) {
			if c, ok := w.solved(ctx, knobs, l, s); ok {
				d.Choices = append(d.Choices, c)
			}
		}
		for i, a := range s.answers(s.Off.Scale(-1)) {
			if i < 3 {
				d.Choices = append(d.Choices, AimChoice{"fold " + w.stepWords(s, a.step) + " again, " + told(a.mm) + " of its mark", []motion.Change{}, a.left.Len(), math.Abs(a.mm), true})
			}
		}
	}
	for i := range d.Choices {
		d.Choices[i].LeftMM, d.Choices[i].LooksMM = round2(d.Choices[i].LeftMM), round2(d.Choices[i].LooksMM)
	}
	slices.SortStableFunc(d.Choices, func(a, b AimChoice) int { return cmp.Compare(a.LeftMM+a.LooksMM/20, b.LeftMM+b.LooksMM/20) })
	return &motion.Drawing{Kind: "aim", Data: d}, ctx.Err()
}

// effects of all folds in words.
func (w *Workbench) effects(s set) []FoldEffect {
	out := []FoldEffect{}
	for _, f := range s.folds() {
		e := FoldEffect{Step: f.step, Words: w.stepWords(s, f.step), PerMM: round2(f.perMM.Len()), Towards: clock(f.perMM), LeftMM: s.Off.Len()}
		if s.Off.Len() > foundMM {
			mm := -s.Off.Dot(f.perMM) / f.perMM.Dot(f.perMM)
			mm = math.Max(-mostFoldMM, math.Min(mostFoldMM, mm))
			e.CureMM, e.LeftMM = round2(mm), round2(s.Off.Add(f.perMM.Scale(mm)).Len())
		}
		out = append(out, e)
	}
	slices.SortStableFunc(out, func(a, b FoldEffect) int { return cmp.Compare(b.PerMM, a.PerMM) })
	return out
}

// solved is a knob of the pattern brought to where the least offset is left, by the secant of
// what it does along the offset.
func (w *Workbench) solved(ctx context.Context, knobs map[string]float64, l motion.Lever, s set) (AimChoice, bool) {
	if w.Bent[l.Name] {
		return AimChoice{}, false
	}
	step := (l.Max - l.Min) / 40
	if l.Value+step > l.Max {
		step = -step
	}
	at := l.Value
	off := s.Off
	best, left := l.Value, s.Off.Len()
	for range 3 {
		c := w.Change(knobs, l.Name, at+step-l.Value)
		q, err := w.at(ctx, toys.With(knobs, c))
		if err != nil || c.To == at {
			return AimChoice{}, false
		}
		slope := q.Off.Sub(off).Scale(1 / (c.To - at))
		if slope.Len() < 1e-6 {
			return AimChoice{}, false
		}
		at = math.Max(l.Min, math.Min(l.Max, at-off.Dot(slope)/slope.Dot(slope)))
		if q, err = w.at(ctx, toys.With(knobs, w.Change(knobs, l.Name, at-l.Value))); err != nil {
			return AimChoice{}, false
		}
		if off = q.Off; off.Len() < left {
			best, left = at, off.Len()
		}
		step = step / 10
	}
	if left > 0.7*s.Off.Len() {
		return AimChoice{}, false
	}
	c := w.Change(knobs, l.Name, best-l.Value)
	c.Unit = l.Unit
	// How far the outline changes is how far it looks another toy.
	after, err := w.at(ctx, toys.With(knobs, c))
	if err != nil {
		return AimChoice{}, false
	}
	return AimChoice{l.Label, []motion.Change{c}, left, looks(s.Geometry, after.Geometry), l.Hard}, true
}

// looks is how far the farthest corner of one outline lies from the nearest of the other, mm,
// both about their centre of mass.
func looks(a, b Geometry) float64 {
	far := 0.0
	for _, p := range a.Rim {
		near := math.Inf(1)
		for _, q := range b.Rim {
			near = math.Min(near, p.At.Sub(a.CoM).Dist(q.At.Sub(b.CoM)))
		}
		far = math.Max(far, near)
	}
	if math.IsInf(far, 1) {
		return 0
	}
	return far
}

// side is which half weighs more, for toys that should be alike on both sides.
func side(v geom.Vec) string {
	if v.X < 0 {
		return "left"
	}
	return "right"
}
