package bird

import (
	"fmt"
	"math"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/flap/hump"
	"tussock/internal/say"
)

// floppyMM is the droop of a wing above which it is floppy.
const floppyMM = 15.0

func (w *Workbench) readings(s set, all spread) []motion.Reading {
	var out []motion.Reading
	exact := func(id, label, unit string, v float64, decimals int, lo, hi float64, meaning, moved, says string) {
		out = append(out, motion.Reading{ID: id, Label: label, Unit: unit, Value: v, Lo: v, Hi: v, Decimals: decimals, UsualLo: lo, UsualHi: hi, Meaning: meaning, MovedBy: moved, Says: says})
	}
	predicted := func(id, label, unit string, v, lo, hi float64, decimals int, uLo, uHi float64, meaning, moved, says string) {
		out = append(out, motion.Reading{ID: id, Label: label, Unit: unit, Value: v, Lo: math.Min(v, lo), Hi: math.Max(v, hi), Decimals: decimals, UsualLo: uLo, UsualHi: uHi, Predicted: true, Meaning: meaning, MovedBy: moved, Says: says})
	}
	b := w.beat(s, w.PullM, w.part())
	predicted("swing", "Each wing swings by", "deg", all.swing.Middle, all.swing.Lo, all.swing.Hi, 0, wideDeg, 45, fmt.Sprintf("At a pull of %s.", say.MM(w.PullM*1e3, 0)), "hump at rest, hold and pull, curve of the wings", "")
	out[0].Brief = "swing of a wing"
	predicted("tip", "Tip of a wing travels", "mm", all.tip.Middle, all.tip.Lo, all.tip.Hi, 0, 10, 50, "The chord, with what the wing bends.", "swing, length of the wing", "")
	exact("rest", "Hump open at rest", "deg", 2*geom.Deg(s.rest), 1, 6, 30, "Between the ridges of neck and tail.", "how flat it is pressed", restSays(s))
	exact("slope", "Wing turns for each degree of the hump", "°/°", w.slope(s), 2, 0.4, 2, "By the trigonometry of the hump, for rigid paper, at rest; it falls as the hump opens.", "hump at rest", "")
	exact("binds", "Binds after a pull of", "mm", s.pullFor(s.ceiling, w.part())*1e3, 1, 12, 60, fmt.Sprintf("Then %s.", holds(s.binds)), "neck, tail, curve of the wings", "")
	exact("ceiling", "Hump opens to at most", "deg", 2*geom.Deg(s.ceiling), 0, 30, 90, "Between both ridges.", "neck, tail, curve of the wings", "")
	exact("floor", "Hump cannot shut under", "deg", 2*geom.Deg(s.shut), 2, 0, 0, fmt.Sprintf("%d layers at the root of a wing, each %s.", s.Layers, say.MM(s.Sheet.ThicknessMM, 3)), "paper", "")
	predicted("force", "Force of the pull", "N", b.force, b.force/2, b.force*2, 2, 0.05, 1.5, "The folds at the hump work against it. Good to a factor of two.", "paper, how hard it is creased, where it is held", "")
	if adv, ok := s.Vertex.Advantage(b.phi, s.WingMM*mm, (s.HoldM+s.PullM)/2); ok {
		exact("advantage", "Force at the tail over that at a tip", "", adv, 2, 0.3, 3, "Above 1 the tip is the easier to stop.", "length of the wing, hold and pull", "")
	}
	exact("hold", "Held from the hump", "mm", s.HoldM*1e3, 1, 0, 0, fmt.Sprintf("The ridge is %s long there.", say.MM(s.RidgeMM, 0)), "", "")
	exact("wing", "Wing, root to tip", "mm", s.WingMM, 1, 0, 0, "", "place of the wing line", "")
	f := hump.Frequency(s.stiffness, s.weight, s.WingMM*mm)
	predicted("own", "Beat of the wing's own", "1/s", f, 0.75*f, 1.3*f, 1, 2, 10, fmt.Sprintf("Beaten nearly so often the tips whip: at %s a second they go %s times as far.", say.Decimal(w.Beats, 1), say.Decimal(b.gain, 2)), "length of the wing, paper", "")
	droop := hump.Droop(s.stiffness, s.weight, s.WingMM*mm) * 1e3
	predicted("droop", "Tip of a wing hangs by", "mm", droop, droop/1.6, droop*1.6, 1, 0, floppyMM, "By its own weight, as a flat strip; a curve stiffens it.", "length of the wing, paper", droopSays(droop))
	exact("mass", "Mass", "g", s.MassG, 2, 0, 0, "", "sheet and paper", "")
	return out
}

func (w *Workbench) slope(s set) float64 {
	v, _ := s.Vertex.Slope(math.Max(s.rest, 1e-3))
	return v
}

func restSays(s set) string {
	if s.rest > s.Rest {
		return "Its layers do not let it shut further."
	}
	return ""
}

func droopSays(mm float64) string {
	if mm > floppyMM {
		return "Floppy: a wing a sixth shorter hangs half as far."
	}
	return ""
}

// checks are what to look at before it is pulled.
func (w *Workbench) checks(knobs map[string]float64, s set) []motion.Check {
	at := s.pullFor(s.ceiling, w.part())
	bound := at < w.PullM
	b := motion.Check{ID: "binds", Title: "Free to open", OK: !bound, Fix: []motion.Change{}}
	b.Says = fmt.Sprintf("it binds after a pull of %s: %s.", say.MM(at*1e3, 0), holds(s.binds))
	if bound {
		b.Says = fmt.Sprintf("it binds after %s of the %s that it is pulled: %s.", say.MM(at*1e3, 0), say.MM(w.PullM*1e3, 0), holds(s.binds))
		b.Fix, b.Do = w.free(knobs, s)
	}
	r := motion.Check{ID: "rest", Title: "Hump at rest", OK: 2*geom.Deg(s.rest) <= loosenedDeg, Fix: []motion.Change{}, Says: fmt.Sprintf("shut to %s°, so that a short pull does much.", say.Decimal(2*geom.Deg(s.rest), 0))}
	if !r.OK {
		r.Says = fmt.Sprintf("stands open by %s° already: flatten it, and the same pull swings the wings further.", say.Decimal(2*geom.Deg(s.rest), 0))
		r.Fix, r.Do = []motion.Change{w.Change(knobs, KnobRest, 10-s.values[KnobRest])}, "Flatten the hump"
	}
	c := motion.Check{ID: "curve", Title: "Curve of the wings", OK: s.CurveM >= 2*mm, Fix: []motion.Change{}, Says: "soft enough to follow the hump."}
	if !c.OK {
		c.Says = "a root this straight locks where it crosses the ridge: stroke a curve into it."
		c.Fix, c.Do = []motion.Change{w.Change(knobs, KnobCurve, 4-s.values[KnobCurve])}, "Stroke a curve into both wings"
	}
	h := motion.Check{ID: "hold", Title: "Hold", OK: s.HoldM > 0.4*s.RidgeMM*mm, Fix: []motion.Change{}, Says: "low on the breast, so that the paper there is not torn."}
	if !h.OK {
		h.Says = fmt.Sprintf("only %s from the hump: a pull there tears the belly. Hold lower.", say.MM(s.HoldM*1e3, 0))
		h.Fix, h.Do = []motion.Change{w.Change(knobs, KnobHold, 0.7*s.RidgeMM-s.values[KnobHold])}, "Hold it lower"
	}
	return []motion.Check{b, r, c, h}
}

// loosenedDeg is how far a hump may stand open at rest.
const loosenedDeg = 24.0

// free are the knobs that let it open as far as it is pulled, and that in words.
func (w *Workbench) free(knobs map[string]float64, s set) ([]motion.Change, string) {
	switch s.binds {
	case byWing:
		return []motion.Change{w.Change(knobs, KnobCurve, 2)}, "Stroke a deeper curve into both wings"
	case byNeck, byTail:
		c := []motion.Change{}
		for _, k := range []string{KnobNeck, KnobTail} {
			if v := s.values[k]; v < 2*geom.Deg(s.ceiling)+looserDeg {
				c = append(c, w.Change(knobs, k, math.Round(2*geom.Deg(s.ceiling)+looserDeg-v)))
			}
		}
		return c, "Loosen neck and tail at their base"
	case byHands:
		return []motion.Change{w.Change(knobs, KnobHold, -5)}, "Hold it nearer to the hump"
	}
	return []motion.Change{}, ""
}

// looserDeg is by how much a tight fold is opened.
const looserDeg = 20.0
