package puppet

import (
	"context"
	"math"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/flap/hump"
	"tussock/internal/motion/flap/papers"
	"tussock/internal/motion/flap/snap"
	"tussock/internal/motion/glide/air"
	"tussock/internal/motion/toys"
	"tussock/internal/order"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Shapes are the flappers of one pattern on one sheet. They may be shared.
type Shapes struct{ toys.Toys[Geometry] }

func newShapes(p *sequence.Pattern, s sheet.Sheet) *Shapes {
	return &Shapes{toys.Toys[Geometry]{Pattern: p, Sheet: s, Bent: toys.Bent(knobs()), Of: Of}}
}

// Workbench sets and presses one pattern on one sheet. It may be used by several at once.
type Workbench struct {
	*Shapes
	FingerM    float64 // girth
	Child      bool
	Own        motion.Calibration
	conditions motion.Conditions
}

// Under gives it conditions and what was learnt.
func (s *Shapes) Under(c motion.Conditions, own motion.Calibration) motion.Trying {
	return &Workbench{s, c["finger"] / 1e3, c["hand"] == 1, own, c}
}

const mm = 1e-3

// joined is how far dry layers hold together between sliding and bonded.
const joined = 0.02

// set is a flapper at knob values, SI.
type set struct {
	Geometry
	push      float64 // rad: fold of the short crease
	against   bool
	alongside bool    // grain along the tube
	b, weight float64 // stiffness and weight of the layers at the root: N m, kg/m²
	root      snap.Root
	wing      float64 // m from the crease to its tip
	values    map[string]float64
}

func (w *Workbench) at(ctx context.Context, knobs map[string]float64) (set, error) {
	if err := ctx.Err(); err != nil {
		return set{}, err
	}
	g, err := w.Toy(knobs)
	if err != nil {
		return set{}, err
	}
	return setOf(g, w.Values(knobs)), nil
}

func setOf(g Geometry, v map[string]float64) set {
	s := set{Geometry: g, values: v, push: geom.Rad(v[KnobPush]), against: v[KnobSense] == 0, alongside: v[KnobGrain] == 1, wing: g.LongMM / 2 * mm}
	s.b = sheet.StackFactor(g.Layers, joined) * sheet.Bending(sheet.Ordinary, g.Sheet.ThicknessMM)
	s.weight = g.Layers * g.Sheet.GSM * 1e-3
	s.root = snap.Root{WidthM: g.AroundMM * mm, RadiusM: g.GirthMM / (2 * math.Pi) * mm}
	return s
}

// moment is what folds the root steadily, N m.
func (s set) moment() float64 { return s.root.Moment(s.b, s.against) }

// swing of a wing, rad, for the crease pushed in by so much.
func (s set) swing(push float64) float64 { return snap.Swing(push) * s.reach() }

// reach is how much of the cone's swing the length of the crease lets the root have: all of
// it from a third of the way round on.
func (s set) reach() float64 { return math.Min(1, s.CreaseMM/(s.AroundMM/3)) }

// takes is the energy of one snap, J: the root past its peak over the swing of both wings,
// and the cone from rest to snapped.
func (s set) takes(peak float64) float64 {
	cone := snap.Snapped.Joules(s.b, s.push, s.AroundMM/2*mm) - snap.Rest.Joules(s.b, s.push, s.AroundMM/2*mm)
	return peak*s.moment()*2*s.swing(s.push) + cone
}

// droop is the moment of a wing's own weight about its root, N m.
func (s set) droop() float64 {
	return s.weight * air.Gravity * s.wing * s.wing / 2 * s.root.WidthM
}

// holds tells whether it stays in both shapes by itself.
func (s set) holds() bool { return s.root.TwoRests() && s.droop() < s.moment() }

// needs is the gap that the fold over the middle needs, mm.
func (s set) needs() float64 { return 1e3 * (snap.Gap(s.Most, s.Sheet.ThicknessMM*mm) + snap.AlignM) }

// strain of the paper at the fold over the middle.
func (s set) strain() float64 {
	return snap.Strain(s.Most, s.Sheet.ThicknessMM*mm, s.GapMM*mm, math.Max(1, s.CreaseMM)*mm)
}

// tears is the strain at which it does.
func (s set) tears() float64 {
	if s.alongside {
		return snap.TearsAlong
	}
	return snap.TearsAcross
}

// undersize is how much smaller the tube is than what the finger and the paper on it need,
// as a part: from -1 % to 3 % it grips.
func (w *Workbench) undersize(s set) float64 {
	need := w.FingerM*1e3 + 2*math.Pi*s.Layers*s.Sheet.ThicknessMM/2
	return 1 - s.GirthMM/need
}

// Where a tube grips, as parts.
const loosest, tightest = -0.01, 0.08

const (
	// fingersGive is the energy that fingers put into a press, J: 2 N over 8 mm; a child half.
	fingersGive, childGives = 16e-3, 8e-3
	// slackens is what each beat takes of the fold of the short crease, as a part.
	slackens = 0.02
	// doubt is how far the swing may be out before anything was learnt, of its logarithm.
	doubt, learntFloor = 0.35, 0.1
	slackDeg           = 6.0 // a swing under which it is called slack
)

// peaked is the peak over the steady moment that is taken: between what tape springs have.
var peaked = math.Sqrt(snap.PeakLeast * snap.PeakMost)

// beat is one press, and what it comes to.
type beat struct {
	swing, tip float64 // rad, m
	takes      float64
	beats      float64
	mode       string
}

// How it goes.
const (
	modeFlaps   = "flaps"
	modeBack    = "flutters back"
	modeNoSnap  = "does not snap"
	modeSlips   = "slips off the finger"
	modeTears   = "tears"
	modeTooWide = "does not go on the finger"
)

// press carries one press out.
func (w *Workbench) press(s set, push, peak, gives, under, factor float64) beat {
	q := s
	q.push = push
	b := beat{takes: q.takes(peak), mode: modeFlaps}
	b.swing = factor * q.swing(push)
	b.tip = hump.Tip(s.wing, 0, b.swing)
	most := factor * s.swing(push)
	if deg := geom.Deg(most); deg > slackDeg {
		b.beats = math.Log(slackDeg/deg) / math.Log(1-slackens)
	}
	switch {
	case s.strain() > s.tears():
		b.mode = modeTears
	case under < loosest:
		b.mode = modeSlips
	case under > tightest:
		b.mode = modeTooWide
	case b.takes > gives:
		b.mode = modeNoSnap
		b.swing, b.tip = b.swing*gives/b.takes, b.tip*gives/b.takes
	case !q.holds():
		b.mode = modeBack
	}
	return b
}

// The numbers that a press is drawn from, those that matter most first.
const (
	nSwing = iota
	nPush
	nGives
	nPeak
	nGirth
	numbers
)

type hand struct{ push, gives, girth float64 }

var adult, child = hand{0.15, 0.3, 0.012}, hand{0.3, 0.4, 0.025}

func (w *Workbench) gives() float64 {
	if w.Child {
		return childGives
	}
	return fingersGive
}

func (w *Workbench) scatter(s set, by motion.Sample) []beat {
	h := adult
	if w.Child {
		h = child
	}
	sd, factor := doubt, 1.0
	if w.Own.Spread > 0 {
		sd, factor = w.Own.Spread, w.Own.Factor
	}
	out := make([]beat, 0, by.N)
	for i := range by.N {
		u := motion.Numbers(by.From+i, numbers)
		z := func(k int) float64 { return motion.Normal(u[k]) }
		peak := snap.PeakLeast * math.Pow(snap.PeakMost/snap.PeakLeast, u[nPeak])
		out = append(out, w.press(s, s.push*math.Exp(h.push*z(nPush)), peak, w.gives()*math.Exp(h.gives*z(nGives)), w.undersize(s)+h.girth*z(nGirth), factor*math.Exp(sd*z(nSwing))))
	}
	return out
}

// What a flapper is measured by.
const (
	bySwing = "swing"
	byTip   = "travel of a tip"
	byBeats = "beats before it is slack"
	byTakes = "energy of a snap"
	bySnaps = "snaps in a hundred"
	byPulls = "strain at the fold"
)

// Measure folds, sets and presses at lever positions: middles over scattered presses.
func (w *Workbench) Measure(levers []motion.Lever) motion.Measure {
	return func(ctx context.Context, at []float64, by motion.Sample) (motion.Measures, error) {
		knobs, _ := motion.Split(levers, at)
		s, err := w.at(ctx, knobs)
		if err != nil {
			return nil, err
		}
		var swing, tip, beats, takes []float64
		good := 0.0
		for _, b := range w.scatter(s, by) {
			swing, tip, beats, takes = append(swing, geom.Deg(b.swing)), append(tip, b.tip*1e3), append(beats, b.beats), append(takes, b.takes*1e3)
			if b.mode == modeFlaps {
				good += 100 / float64(by.N)
			}
		}
		return motion.Measures{bySwing: order.Median(swing), byTip: order.Median(tip), byBeats: order.Median(beats), byTakes: order.Median(takes), bySnaps: good, byPulls: 100 * s.strain()}, nil
	}
}

// Levers are the knobs.
func (w *Workbench) Levers(knobs map[string]float64) []motion.Lever {
	return append(w.Toys.Levers(knobs, nil), way.Levers(w.conditions)...)
}

// Goal scores measures for an aim.
func (w *Workbench) Goal(aim string, _ float64) motion.Goal {
	return func(m motion.Measures) float64 {
		sure := m[bySnaps] / 10
		switch aim {
		case "easy":
			return sure - m[byTakes]
		case "beats":
			return sure + m[byBeats]/5
		case "gentle":
			return sure - 10*m[byPulls] - m[byTakes]/10
		}
		return sure + m[bySwing]
	}
}

// Take puts what was measured of the finished toy into the knobs.
func (w *Workbench) Take(knobs, measured map[string]float64) error {
	if v, ok := measured["push"]; ok {
		knobs[KnobPush] = v
	}
	return nil
}

// Told is the flapper on other papers.
func (w *Workbench) Told(ctx context.Context, knobs map[string]float64, _ []motion.Noted) (*motion.Drawing, error) {
	s, err := w.at(ctx, knobs)
	if err != nil {
		return nil, err
	}
	d := papers.PaperDrawing{Rows: []papers.Row{}, Effort: "a snap takes, mJ"}
	for _, p := range papers.All(s.Sheet) {
		g := s.Geometry
		g.Sheet, g.MassG = p.On(s.Sheet), s.MassG*p.GSM/s.Sheet.GSM
		q := setOf(g, s.values)
		q.b *= p.Factor()
		all := w.spread(q)
		d.Rows = append(d.Rows, p.Told(motion.Outlook{Outcome: all.first(), Mode: all.usual()}, all.takes.Middle))
	}
	return &motion.Drawing{Kind: "papers", Data: d}, nil
}
