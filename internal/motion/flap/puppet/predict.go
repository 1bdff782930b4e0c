package puppet

import (
	"context"
	"fmt"
	"math"

	"tussock/internal/draw"
	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/flap/hump"
	"tussock/internal/motion/flap/snap"
	"tussock/internal/motion/toys"
	"tussock/internal/say"
)

// SnapDrawing is a flapper as it is pressed.
type SnapDrawing struct {
	Frames   []SnapFrame  `json:"frames"` // from rest to pressed
	Curve    []PressSpot  `json:"curve"`  // how far the crease is in, against swing and energy
	Ghosts   []PressGhost `json:"ghosts"`
	PushDeg  float64      `json:"push_deg"`
	GivesMJ  float64      `json:"gives_mj"` // what fingers give
	TakesMJ  float64      `json:"takes_mj"` // what a snap takes
	TakesLo  float64      `json:"takes_lo"`
	TakesHi  float64      `json:"takes_hi"`
	TubeMM   float64      `json:"tube_mm"` // girth that the tube is rolled to
	FingerMM float64      `json:"finger_mm"`
	Turns    float64      `json:"turns"`
	TwoRests bool         `json:"two_rests"`
	Fading   []FadeSpot   `json:"fading"` // swing beat after beat, pressed again each time
}

// SnapFrame is the toy at a moment of a press.
type SnapFrame struct {
	SwingDeg float64      `json:"swing_deg"`
	TipMM    float64      `json:"tip_mm"`
	Side     draw.Picture `json:"side"`
	Front    draw.Picture `json:"front"`
}

// PressSpot is how far the short crease is in, and what it comes to.
type PressSpot struct {
	PushDeg  float64 `json:"push_deg"`
	SwingDeg float64 `json:"swing_deg"`
	Lo       float64 `json:"lo"`
	Hi       float64 `json:"hi"`
	TakesMJ  float64 `json:"takes_mj"`
}

// PressGhost is the curve of an earlier set-up.
type PressGhost struct {
	Name  string      `json:"name"`
	Curve []PressSpot `json:"curve"`
}

// FadeSpot is the swing that is left after so many beats.
type FadeSpot struct {
	Beat     int     `json:"beat"`
	SwingDeg float64 `json:"swing_deg"`
}

type spread struct {
	swing, tip, beats, takes motion.Range
	modes                    map[string]int
}

func (w *Workbench) spread(s set) spread {
	out := spread{modes: map[string]int{}}
	var swing, tip, beats, takes []float64
	for _, b := range w.scatter(s, motion.Whole) {
		swing, tip, beats, takes = append(swing, geom.Deg(b.swing)), append(tip, b.tip*1e3), append(beats, b.beats), append(takes, b.takes*1e3)
		out.modes[b.mode]++
	}
	out.swing, out.tip, out.beats, out.takes = motion.RangeOf(swing), motion.RangeOf(tip), motion.RangeOf(beats), motion.RangeOf(takes)
	return out
}

func (s spread) usual() string { return motion.Shares(s.modes, 1)[0].Mode }

func (s spread) first() motion.Outcome { return s.swing.Outcome(Swing, "Swing of a wing", "deg", 0) }

// Predict presses a set-up.
func (w *Workbench) Predict(ctx context.Context, knobs map[string]float64, ghosts []motion.Ghost) (motion.Prediction, error) {
	out := motion.Prediction{Readings: []motion.Reading{}, Checks: []motion.Check{}, Modes: []motion.Share{}, Outcomes: []motion.Outcome{}, Tries: motion.Draws}
	s, err := w.at(ctx, knobs)
	if err == ErrNoTube { //nolint:errorlint // Of returns it bare
		out.Mode, out.ModeWords = "no tube", way.Words.Unlike
		return out, nil
	}
	if err != nil {
		return out, err
	}
	out.Works = true
	all := w.spread(s)
	out.Mode, out.Modes = all.usual(), motion.Shares(all.modes, motion.Draws)
	out.Outcomes = []motion.Outcome{all.first(), all.tip.Outcome(Tip, "Tip travels", "mm", 0), all.beats.Outcome(Beats, "Beats before it is slack", "", 0)}
	out.ModeWords = w.modeWords(s, all)
	d := w.drawing(s, all)
	for _, h := range ghosts {
		if ctx.Err() != nil {
			return out, ctx.Err()
		}
		was, err := w.at(ctx, h.Knobs)
		if err != nil {
			continue // it cannot be folded on this sheet: no ghost
		}
		d.Ghosts = append(d.Ghosts, PressGhost{h.Name, w.curve(was)})
	}
	out.Drawing = &motion.Drawing{Kind: "snap", Data: d}
	out.Readings = w.readings(s, all)
	out.Checks = w.checks(knobs, s)
	return out, nil
}

// Outlook is the swing alone.
func (w *Workbench) Outlook(ctx context.Context, knobs map[string]float64) (motion.Outlook, error) {
	s, err := w.at(ctx, knobs)
	if err != nil {
		return motion.Outlook{}, err
	}
	all := w.spread(s)
	return motion.Outlook{Outcome: all.first(), Mode: all.usual()}, nil
}

func (w *Workbench) modeWords(s set, all spread) string {
	says := fmt.Sprintf("A snap takes about %s mJ; fingers give about %s.", say.Decimal(all.takes.Middle, 1), say.Decimal(w.gives()*1e3, 0))
	switch all.usual() {
	case modeSlips:
		return fmt.Sprintf("The tube is %s round, the finger %s: it slides off.", say.MM(s.GirthMM, 1), say.MM(w.FingerM*1e3, 0))
	case modeTooWide:
		return fmt.Sprintf("The tube is %s round, the finger %s: it is too tight to go on.", say.MM(s.GirthMM, 1), say.MM(w.FingerM*1e3, 0))
	case modeTears:
		return fmt.Sprintf("The fold over the middle is stretched by %s %%: it tears.", say.Decimal(100*s.strain(), 1))
	case modeNoSnap:
		return says + " Thinner paper or a wider tube snaps sooner."
	case modeBack:
		return says + " It does not stay: the roots must be rolled tighter."
	}
	return says + " Wrap it and press again for each flap."
}

const curvePoints, framesDrawn = 24, 5

func (w *Workbench) curve(s set) []PressSpot {
	out := []PressSpot{}
	factor := 1.0
	if w.Own.Factor > 0 {
		factor = w.Own.Factor
	}
	sd := doubt
	if w.Own.Spread > 0 {
		sd = w.Own.Spread
	}
	for i := range curvePoints {
		q := s
		q.push = geom.Rad(120 * float64(i) / (curvePoints - 1))
		deg := factor * geom.Deg(q.swing(q.push))
		const z = 1.2816 // eight of ten of the normal law
		out = append(out, PressSpot{round(geom.Deg(q.push)), round(deg), round(deg * math.Exp(-z*sd)), round(deg * math.Exp(z*sd)), round(1e3 * q.takes(peaked))})
	}
	return out
}

func round(v float64) float64 { return math.Round(1000*v) / 1000 }

func (w *Workbench) drawing(s set, all spread) *SnapDrawing {
	d := &SnapDrawing{Frames: []SnapFrame{}, Curve: w.curve(s), Ghosts: []PressGhost{}, PushDeg: geom.Deg(s.push), GivesMJ: w.gives() * 1e3, TakesMJ: all.takes.Middle, TakesLo: all.takes.Lo, TakesHi: all.takes.Hi,
		TubeMM: s.GirthMM, FingerMM: w.FingerM * 1e3, Turns: s.Turns, TwoRests: s.holds(), Fading: []FadeSpot{}}
	most := geom.Rad(all.swing.Middle)
	hinge := s.along.Cross(s.out)
	var side, front [4]float64
	for i := range framesDrawn {
		a := most * float64(i) / (framesDrawn - 1)
		f := SnapFrame{SwingDeg: round(geom.Deg(a)), TipMM: round(1e3 * hump.Tip(s.wing, 0, a)), Side: s.seen(s.beaten(a), s.along, s.out), Front: s.seen(s.beaten(a), hinge, s.out)}
		side, front = draw.Holding(side, f.Side.View), draw.Holding(front, f.Front.View)
		d.Frames = append(d.Frames, f)
	}
	for i := range d.Frames {
		d.Frames[i].Side.View, d.Frames[i].Front.View = side, front
	}
	swing := all.swing.Middle
	for n := 0; n <= 60 && swing > slackDeg/2; n += 5 {
		d.Fading = append(d.Fading, FadeSpot{n, round(all.swing.Middle * math.Pow(1-slackens, float64(n)))})
		swing = all.swing.Middle * math.Pow(1-slackens, float64(n+5))
	}
	return d
}

func (w *Workbench) readings(s set, all spread) []motion.Reading {
	var out []motion.Reading
	exact := func(id, label, unit string, v float64, decimals int, lo, hi float64, meaning, moved, says string) {
		out = append(out, motion.Reading{ID: id, Label: label, Unit: unit, Value: v, Lo: v, Hi: v, Decimals: decimals, UsualLo: lo, UsualHi: hi, Meaning: meaning, MovedBy: moved, Says: says})
	}
	predicted := func(id, label, unit string, r motion.Range, decimals int, lo, hi float64, meaning, moved, says string) {
		out = append(out, motion.Reading{ID: id, Label: label, Unit: unit, Value: r.Middle, Lo: r.Lo, Hi: r.Hi, Decimals: decimals, UsualLo: lo, UsualHi: hi, Predicted: true, Meaning: meaning, MovedBy: moved, Says: says})
	}
	within := func(v, by float64) motion.Range { return motion.Range{Lo: v / by, Middle: v, Hi: v * by} }
	predicted("swing", "Each wing swings by", "deg", all.swing, 0, 10, 40, "From one shape of the pushed-in crease to the other.", "how far the short crease is in, and how long it is", "")
	out[0].Brief = "swing of a wing"
	predicted("tip", "Tip of a wing travels", "mm", all.tip, 0, 10, 60, "", "swing, length", "")
	predicted("takes", "A snap takes", "mJ", all.takes, 1, 0.5, 15, fmt.Sprintf("The rolled roots past their peak, and the cone. Fingers give about %s mJ.", say.Decimal(w.gives()*1e3, 0)), "paper most of all (thickness cubed), tube", "")
	predicted("moment", "Moment that folds the root", "N mm", within(1e3*s.moment(), 2), 1, 1, 20, fmt.Sprintf("(1 ± ν) B a, steady; a = %s rad of roll. The peak is 1.5 to 4 times that.", say.Decimal(s.root.Arc(), 1)), "tube, paper", "")
	predicted("tipforce", "Force at a tip", "mN", within(1e3*peaked*s.moment()/s.wing, 2), 0, 5, 200, "At the peak.", "tube, paper, length", "")
	predicted("beats", "Beats before it is slack", "", all.beats, 0, 15, 80, fmt.Sprintf("Each beat takes about %s %% off the fold of the short crease; under %s° of swing it is called slack.", say.Decimal(100*slackens, 0), say.Decimal(slackDeg, 0)), "how far it is pushed in", "")
	exact("tube", "Tube, round the inside", "mm", s.GirthMM, 1, 0, 0, fmt.Sprintf("%s across; the finger measures %s round.", say.MM(s.GirthMM/math.Pi, 1), say.MM(w.FingerM*1e3, 0)), "how tightly it is rolled", "")
	exact("under", "Tube smaller than the finger needs by", "%", 100*w.undersize(s), 1, 1, 3, "It grips from 1 to 3 %. Below −1 % it slides off.", "tube, finger", "")
	exact("turns", "Paper goes round", "", s.Turns, 2, 1, 2, "Turns of the tube, both halves together.", "tube, sheet", "")
	exact("gap", "Gap that is left in the middle", "mm", s.GapMM, 2, s.needs(), 3, fmt.Sprintf("%d layers need %s: π n t / 2, and %s for the aim.", s.Most, say.MM(s.needs(), 2), say.MM(1e3*snap.AlignM, 1)), "the gap", "")
	exact("strain", "Strain at that fold", "%", 100*s.strain(), 2, 0, 100*s.tears(), fmt.Sprintf("It tears from about %s %% on.", say.Decimal(100*s.tears(), 0)), "gap, length of the short crease, grain", "")
	exact("arc", "Root is rolled over", "°", geom.Deg(s.root.Arc()), 0, 30, 700, "From 29° on it stays in both shapes.", "tube, sheet", "")
	droop := 1e3 * hump.Droop(sheetStiffness(s), s.Sheet.GSM*1e-3, s.wing)
	predicted("droop", "A wing would hang by", "mm", within(droop, 2), 1, 0, 15, "As a flat strip; rolled it hangs far less.", "paper, length", "")
	exact("mass", "Mass", "g", s.MassG, 2, 0, 0, "", "sheet and paper", "")
	return out
}

func sheetStiffness(s set) float64 { return s.b / math.Max(1, s.Layers) }

// checks are what to look at before it is pressed.
func (w *Workbench) checks(knobs map[string]float64, s set) []motion.Check {
	u := w.undersize(s)
	t := motion.Check{ID: "tube", Title: "Tube and finger", OK: u >= loosest && u <= tightest, Fix: []motion.Change{}, Says: fmt.Sprintf("the tube is %s round, for a finger of %s: it grips.", say.MM(s.GirthMM, 1), say.MM(w.FingerM*1e3, 0))}
	if !t.OK {
		want := math.Round(10*w.girthFor(s)) / 10
		t.Says = fmt.Sprintf("the tube is %s round; your finger wants %s.", say.MM(s.GirthMM, 1), say.MM(want, 1))
		if c, ok := w.toGirth(knobs, want); ok {
			t.Fix, t.Do = []motion.Change{c}, "Roll it to that girth"
		}
	}
	g := motion.Check{ID: "gap", Title: "Gap", OK: s.GapMM >= s.needs()-1e-6, Fix: []motion.Change{}, Says: fmt.Sprintf("%s are left, %s are needed.", say.MM(s.GapMM, 2), say.MM(s.needs(), 2))}
	if !g.OK {
		g.Says = fmt.Sprintf("only %s are left where %d layers need %s: the fold over it is stretched by %s %%.", say.MM(s.GapMM, 2), s.Most, say.MM(s.needs(), 2), say.Decimal(100*s.strain(), 1))
		if c, ok := w.toGap(knobs, s); ok {
			g.Fix, g.Do = []motion.Change{c}, "Leave a wider gap on the next one"
		}
	}
	p := motion.Check{ID: "paper", Title: "Paper and fingers", OK: s.takes(peaked) <= w.gives(), Fix: []motion.Change{}, Says: fmt.Sprintf("a snap takes %s mJ of the %s that fingers give.", say.Decimal(1e3*s.takes(peaked), 1), say.Decimal(1e3*w.gives(), 0))}
	if !p.OK {
		p.Says = fmt.Sprintf("a snap takes %s mJ, fingers give %s: take paper of 60 to 70 g/m², or push the crease in less.", say.Decimal(1e3*s.takes(peaked), 1), say.Decimal(1e3*w.gives(), 0))
		p.Fix, p.Do = []motion.Change{w.Change(knobs, KnobPush, -20)}, "Push the crease in less"
	}
	r := motion.Check{ID: "rests", Title: "Two rests", OK: s.holds(), Fix: []motion.Change{}, Says: "it stays where it snaps to."}
	if !r.OK {
		r.Says = "it flutters back by itself: roll it tighter, or take a longer short crease."
	}
	return []motion.Check{t, g, p, r}
}

// girthFor is the girth of a tube that grips, mm: 2 % under what finger and paper need.
func (w *Workbench) girthFor(s set) float64 {
	return 0.98 * (w.FingerM*1e3 + math.Pi*s.Layers*s.Sheet.ThicknessMM)
}

// toGirth is the knob that rolls the tube, brought to a girth.
func (w *Workbench) toGirth(knobs map[string]float64, want float64) (motion.Change, bool) {
	return w.to(knobs, want, func(g Geometry) float64 { return g.GirthMM })
}

// toGap is the knob that leaves a gap in the middle, brought to what is needed.
func (w *Workbench) toGap(knobs map[string]float64, s set) (motion.Change, bool) {
	return w.to(knobs, s.needs(), func(g Geometry) float64 { return g.GapMM })
}

// to is a knob of the pattern that brings a measure of the toy to a value: the one that
// moves it most, by the secant.
func (w *Workbench) to(knobs map[string]float64, want float64, of func(Geometry) float64) (motion.Change, bool) {
	now, err := w.Toy(knobs)
	if err != nil {
		return motion.Change{}, false
	}
	best, found := motion.Change{}, false
	for _, l := range w.Toys.Levers(knobs, nil) {
		if w.Bent[l.Name] {
			continue
		}
		c := w.Change(knobs, l.Name, (l.Max-l.Min)/20)
		if c.To == c.From {
			c = w.Change(knobs, l.Name, -(l.Max-l.Min)/20)
		}
		g, err := w.Toy(toys.With(knobs, c))
		if err != nil || math.Abs(of(g)-of(now)) < 1e-6 {
			continue
		}
		c = w.Change(knobs, l.Name, (want-of(now))*(c.To-c.From)/(of(g)-of(now)))
		c.To = math.Round(10*c.To) / 10
		if g, err = w.Toy(toys.With(knobs, c)); err == nil && math.Abs(of(g)-want) < math.Abs(of(now)-want) {
			best, found = c, true
		}
	}
	return best, found
}
