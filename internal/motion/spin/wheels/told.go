package wheels

import (
	"context"
	"errors"

	"tussock/internal/motion"
	"tussock/internal/motion/toys"
	"tussock/internal/order"
)

// Told is the grid of trials, and wheels with other numbers of blades from the same sheet.
func (w *Workbench) Told(ctx context.Context, knobs map[string]float64, log []motion.Noted) (*motion.Drawing, error) {
	s, err := w.at(ctx, knobs)
	if errors.Is(err, ErrNoWheel) {
		return nil, nil //nolint:nilnil // nothing to tell
	}
	if err != nil {
		return nil, err
	}
	out := &WheelsDrawing{Grid: []WheelCell{}, Of: []WheelOther{}}
	for _, kind := range []string{blow, drop} {
		for up, label := range []string{"the open side", "the tip"} {
			out.Grid = append(out.Grid, w.cell(s, kind, up, label, log))
		}
	}
	if name := w.Pattern.Corners; name != "" {
		k := w.Pattern.Knobs[w.Pattern.KnobIndex(name)]
		for n := k.Min; n <= k.Max; n++ {
			q, err := w.at(ctx, toys.With(knobs, motion.Change{Knob: name, To: n}))
			if ctx.Err() != nil {
				return nil, ctx.Err()
			}
			if err != nil {
				continue // so many cannot be folded from this sheet
			}
			out.Of = append(out.Of, w.told(q, n == w.Value(knobs, name)))
		}
	}
	return &motion.Drawing{Kind: "wheels", Data: out}, nil
}

// toldTries is how many trials a row rests on.
const toldTries = 60

func (w *Workbench) cell(s set, kind string, up int, label string, log []motion.Noted) WheelCell {
	q := *w
	q.up = up
	q.drive = byBreath
	how := "Blown"
	if kind == drop {
		q.drive, how = byFall, "Dropped"
	}
	t := q.spread(q.setOf(s.Geometry, s.values), q.drive, motion.Sample{N: toldTries})
	c := WheelCell{Kind: kind, How: how, Up: label, Outcome: t.first(), Mode: t.usual()}
	var read []float64
	for _, n := range log {
		if n.Kind != kind || n.Under["up"] != label {
			continue
		}
		c.Tries++
		v, ok := n.Value(Fall)
		if kind == blow {
			v, ok = q.rateOf(n, len(s.Leaves))
		}
		if ok {
			read = append(read, v)
		}
	}
	if len(read) > 0 {
		c.Measured = order.Median(read)
	}
	return c
}

func (w *Workbench) told(s set, here bool) WheelOther {
	n := len(s.Leaves)
	driven := w.drive
	if driven == byFall {
		driven = byBreath
	}
	sample := motion.Sample{N: toldTries}
	blown := w.spread(s, driven, sample)
	dropped := w.spread(s, byFall, sample)
	return WheelOther{Blades: n, Here: here, Apart: round2(360 / float64(n)), Layers: 2 * n, ReachMM: round2(s.ReachMM), MassG: round3(s.MassG), Blown: blown.first(), Fall: dropped.first(), Starts: round2(blown.start.Middle)}
}
