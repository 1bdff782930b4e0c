package remarks

import (
	"math"

	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Advice says which single change lets a pattern be folded again, found by
// replaying it: a knob with the interval that works, or a height of the sheet.
type Advice struct {
	Knob  string // name, or "" when the sheet is the cause
	Label string
	Unit  string
	Now   float64
	Min   float64 // the interval that works around Fix
	Max   float64
	Fix   float64 // a value that surely works
	// All is set when no single knob is to blame: then every knob goes back.
	All bool
}

// Advise searches for what would make a failing replay work. It tries each knob
// that is off its default, then all knobs together, then the sheet. Intervals
// are those around a value that works, each bound found by replaying and
// rounded inward to a tenth where that works too. nil when nothing helps or nothing is wrong.
func Advise(p *sequence.Pattern, s sheet.Sheet, knobs map[string]float64) []Advice {
	works := func(s sheet.Sheet, k map[string]float64) bool { return p.Run(s, k).Err == nil }
	if works(s, knobs) {
		return nil
	}
	var out []Advice
	for _, k := range p.Knobs {
		now, set := knobs[k.Name]
		if !set || now == k.Default || k.Plain || k.Implied {
			continue
		}
		at := func(v float64) bool { return works(s, with(knobs, k.Name, v)) }
		if !at(k.Default) {
			continue
		}
		lo, hi := interval(at, k.Default, k.Min, k.Max, grain(k))
		out = append(out, Advice{Knob: k.Name, Label: k.Label, Unit: k.Told(), Now: now, Min: lo, Max: hi, Fix: math.Min(math.Max(now, lo), hi)})
	}
	if len(out) > 0 {
		return out
	}
	if works(s, nil) {
		return []Advice{{All: true, Label: "all knobs back to the pattern"}}
	}
	// The sheet: at this width, which heights work?
	ratio := p.HeightMM / p.WidthMM
	at := func(h float64) bool {
		t, err := sheet.New(s.WidthMM, h, s.GSM, s.ThicknessMM)
		return err == nil && works(t, nil)
	}
	start := s.WidthMM * ratio
	if !at(start) {
		return nil
	}
	lo, hi := interval(at, start, math.Max(sheet.SideRange.Min, start/4), math.Min(sheet.SideRange.Max, start*4), tenths)
	return []Advice{{Label: "sheet height at this width", Unit: "mm", Now: s.HeightMM, Min: lo, Max: hi, Fix: start}}
}

func with(knobs map[string]float64, name string, v float64) map[string]float64 {
	out := make(map[string]float64, len(knobs)+1)
	for n, x := range knobs {
		out[n] = x
	}
	out[name] = v
	return out
}

// interval is the stretch around a working value in which everything tried
// works: a coarse walk outward, then bisection at each end. Bounds are rounded
// inward to grains, so many a unit, so that a person can set them; a bound within 1e-4 of a
// grain takes it if that works as well.
func interval(works func(float64) bool, from, lo, hi, grains float64) (a, b float64) {
	const steps, rounds = 24, 20
	bound := func(end float64) float64 {
		good := from
		for i := 1; i <= steps; i++ {
			v := from + (end-from)*float64(i)/steps
			if works(v) {
				good = v
				continue
			}
			for range rounds {
				if m := (good + v) / 2; works(m) {
					good = m
				} else {
					v = m
				}
			}
			break
		}
		return good
	}
	return -inward(-bound(lo), -from, grains, func(v float64) bool { return works(-v) }), inward(bound(hi), from, grains, works)
}

// A person sets tenths of millimetres and degrees, and hundredths of a fraction.
const tenths, hundredths = 10.0, 100.0

func grain(k sequence.Knob) float64 {
	if k.Unit == "" {
		return hundredths
	}
	return tenths
}

// inward rounds an upper bound down to a grain that works, but not below from.
func inward(bound, from, grains float64, works func(float64) bool) float64 {
	r := math.Floor(bound*grains+1e-3) / grains
	for _, v := range []float64{r, math.Round(r*grains-1) / grains} {
		if v >= from && works(v) {
			return v
		}
	}
	return bound
}
