package bird

import (
	"context"
	"math"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/flap/hump"
	"tussock/internal/motion/flap/papers"
	"tussock/internal/motion/toys"
	"tussock/internal/order"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Shapes are the birds of one pattern on one sheet. They may be shared.
type Shapes struct{ toys.Toys[Geometry] }

func newShapes(p *sequence.Pattern, s sheet.Sheet) *Shapes {
	return &Shapes{toys.Toys[Geometry]{Pattern: p, Sheet: s, Bent: toys.Bent(knobs()), Of: Of}}
}

// Workbench sets and pulls one pattern on one sheet. It may be used by several at once.
type Workbench struct {
	*Shapes
	PullM      float64 // how far the tail is pulled
	Beats      float64 // a second
	Child      bool
	Own        motion.Calibration
	conditions motion.Conditions
}

// Under gives it conditions and what was learnt.
func (s *Shapes) Under(c motion.Conditions, own motion.Calibration) motion.Trying {
	return &Workbench{s, c["pull"] / 1e3, c["beats"], c["hand"] == 1, own, c}
}

// set is a bird at knob values, SI, angles as halves in radians.
type set struct {
	Geometry
	Rest, Neck, Tail  float64 // half of the hump's opening: at rest, as far as each fold lets it
	CurveM            float64
	HoldM, PullM      float64 // from the hump to the hands
	values            map[string]float64
	shut, rest        float64 // the least that thickness allows; where it rests
	ceiling           float64 // how far it can open
	binds             bind
	stiffness, weight float64 // of a wing: N m, kg/m²
	grain             float64 // stiffness of folds over that of paper of which the grain is not known
}

// bind is what holds the hump from opening further.
type bind string

const (
	byNeck  bind = "the fold of the neck"
	byTail  bind = "the fold of the tail"
	byWing  bind = "the roots of the wings"
	byFlat  bind = "the hump itself, which lies flat"
	byHands bind = "the hands, which are in line with the hump"
)

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

const mm = 1e-3

func setOf(g Geometry, v map[string]float64) set {
	s := set{Geometry: g, values: v, grain: 1, Rest: geom.Rad(v[KnobRest]) / 2, Neck: geom.Rad(v[KnobNeck]) / 2, Tail: geom.Rad(v[KnobTail]) / 2, CurveM: v[KnobCurve] * mm,
		HoldM: math.Min(v[KnobHold], g.RidgeMM) * mm, PullM: math.Max(5, g.TailMM-v[KnobPull]) * mm}
	s.stiffness, s.weight = sheet.Bending(sheet.Ordinary, g.Sheet.ThicknessMM), g.Sheet.GSM*1e-3
	s.settle()
	return s
}

// settle finds where the hump rests and how far it opens.
func (s *set) settle() {
	s.shut = hump.Shut(s.Layers, s.Sheet.ThicknessMM*mm, s.RootMM*mm)
	s.rest = math.Max(s.Rest, s.shut)
	flat := math.Pi/2 - 1e-6
	s.ceiling, s.binds = flat, byFlat
	least := func(v float64, by bind) {
		if v < s.ceiling {
			s.ceiling, s.binds = math.Max(v, s.rest), by
		}
	}
	least(s.Neck, byNeck)
	least(s.Tail, byTail)
	least((math.Pi-s.Lean)/2, byHands)
	least(s.curved(), byWing)
}

// curved is how far the hump opens until a wing's root cannot follow: a root with a curve of
// so much sagitta turns by 4 atan(2 c / w) at most, and by slackRad without any.
func (s *set) curved() float64 {
	room := slackRad + 4*math.Atan(2*s.CurveM/(s.RootMM*mm))
	from, _ := s.Vertex.Wing(s.rest)
	lo, hi := s.rest, math.Pi/2-1e-6
	for range 50 {
		mid := (lo + hi) / 2
		if lam, ok := s.Vertex.Wing(mid); ok && lam-from < room {
			lo = mid
		} else {
			hi = mid
		}
	}
	return lo
}

// slackRad is what a straight soft root gives before it locks.
const slackRad = 0.09

// apart is how far the hands are from each other, m, with the hump open by phi: the chord
// between them.
func (s set) apart(phi float64) float64 {
	return math.Sqrt(s.HoldM*s.HoldM + s.PullM*s.PullM - 2*s.HoldM*s.PullM*math.Cos(math.Min(math.Pi, s.Lean+2*phi)))
}

// opened is how far the hump is open after a pull, m, of which only a part comes to it.
func (s set) opened(pullM, part float64) (phi float64, bound bool) {
	want := s.apart(s.rest) + pullM*part
	if s.apart(s.ceiling) <= want {
		return s.ceiling, true
	}
	lo, hi := s.rest, s.ceiling
	for range 50 {
		if mid := (lo + hi) / 2; s.apart(mid) < want {
			lo = mid
		} else {
			hi = mid
		}
	}
	return (lo + hi) / 2, false
}

// pullFor is the pull after which the hump is open by phi, m.
func (s set) pullFor(phi, part float64) float64 { return (s.apart(phi) - s.apart(s.rest)) / part }

// wing is how far the roots lean out.
func (s set) wing(phi float64) float64 { lam, _ := s.Vertex.Wing(phi); return lam }

// force is what the tail is pulled with, N: the work of the folds at the hump over the way
// of the hands. It is good to a factor of two.
func (s set) force(phi float64) float64 {
	k := sheet.CreaseStiffness(sheet.Ordinary, s.Sheet.ThicknessMM, sheet.CreaseRadius("firm"))
	soft := sheet.CreaseStiffness(sheet.Ordinary, s.Sheet.ThicknessMM, sheet.CreaseRadius("soft"))
	work := func(phi float64) float64 {
		ridge, root := 2*(phi-s.rest), s.wing(phi)-s.wing(s.rest)
		return s.grain * (k*s.Ridges*mm*ridge*ridge/2 + soft*s.Roots*mm*root*root/2)
	}
	const d = 1e-4
	way := s.apart(phi+d) - s.apart(phi-d)
	if way <= 0 {
		return math.Inf(1)
	}
	return (work(phi+d) - work(phi-d)) / way
}

// hand is what a hand misses: standard deviations. Folds are the folding tolerances of all
// toys, the rest estimates.
type hand struct{ rest, pull, fold float64 }

var adult, child = hand{0.2, 0.12, 0.3}, hand{0.35, 0.3, 0.8}

const (
	// comes is the part of a pull that opens the hump; the rest bends the paper round it.
	comes = 0.75
	// doubt is how far that may be out before anything was learnt, of its logarithm, and
	// learntFloor what stays uncertain.
	doubt, learntFloor = 0.3, 0.08
	// folds of neck and tail give more or less than they are set to, of their logarithm.
	gives = 0.2
)

// beat is one pull, and what it comes to.
type beat struct {
	from, phi     float64
	swing, tip    float64 // rad, m
	bound         bool
	by            bind
	mode          string
	set           set
	gain          float64
	pulled, force float64
}

// How it goes.
const (
	modeFree   = "beats freely"
	modeBound  = "beats until it binds"
	modeLittle = "hardly beats"
	modeLocks  = "locks"
)

// What makes a beat, degrees.
const wideDeg, littleDeg = 12.0, 4.0

func (w *Workbench) beat(s set, pullM, part float64) beat {
	phi, bound := s.opened(pullM, part)
	b := beat{from: s.rest, phi: phi, bound: bound, by: s.binds, set: s, pulled: pullM}
	a, z := s.wing(s.rest), s.wing(phi)
	b.swing = z - a
	var ok bool
	b.gain, ok = hump.Gain(w.Beats, hump.Frequency(s.stiffness, s.weight, s.WingMM*mm))
	if !ok {
		b.gain = 1 / (1 - 0.36)
	}
	b.tip = hump.Tip(s.WingMM*mm, a, z) * b.gain
	b.force = s.force(math.Max(s.rest+1e-3, phi))
	switch deg := geom.Deg(b.swing); {
	case deg < littleDeg && bound:
		b.mode = modeLocks
	case deg < wideDeg:
		b.mode = modeLittle
	case bound:
		b.mode = modeBound
	default:
		b.mode = modeFree
	}
	return b
}

// The numbers that a beat is drawn from, those that matter most first.
const (
	nComes = iota
	nRest
	nPull
	nNeck
	nTail
	nFold
	numbers
)

// part is the part of a pull that comes to the hump, as learnt.
func (w *Workbench) part() float64 {
	if w.Own.Factor > 0 {
		return math.Min(1, comes*w.Own.Factor)
	}
	return comes
}

// scatter draws beats: what hands miss and, with it, what the model does not know.
func (w *Workbench) scatter(s set, by motion.Sample) []beat {
	hand := adult
	if w.Child {
		hand = child
	}
	sd := doubt
	if w.Own.Spread > 0 {
		sd = w.Own.Spread
	}
	out := make([]beat, 0, by.N)
	for i := range by.N {
		u := motion.Numbers(by.From+i, numbers)
		z := func(k int) float64 { return motion.Normal(u[k]) }
		q := s
		q.Rest *= math.Exp(hand.rest * z(nRest))
		q.Neck *= math.Exp(gives * z(nNeck))
		q.Tail *= math.Exp(gives * z(nTail))
		// A fold that lies a little elsewhere moves where the hands are.
		q.HoldM = math.Max(2*mm, q.HoldM+hand.fold*mm*z(nFold))
		q.settle()
		out = append(out, w.beat(q, w.PullM*math.Exp(hand.pull*z(nPull)), math.Min(1, w.part()*math.Exp(sd*z(nComes)))))
	}
	return out
}

// What a bird is measured by.
const (
	bySwing = "swing"
	byTip   = "travel of the tip"
	byForce = "force"
	byPull  = "pull for 15°"
	byWork  = "bend at the hump"
)

// easyDeg is the swing that the easiest pull is told for.
const easyDeg = 15.0

// Measure folds, sets and pulls at lever positions: middles over scattered beats.
func (w *Workbench) Measure(levers []motion.Lever) motion.Measure {
	return func(ctx context.Context, at []float64, by motion.Sample) (motion.Measures, error) {
		knobs, c := motion.Split(levers, at)
		v := w
		if len(c) > 0 {
			q := *w
			if p, ok := c["pull"]; ok {
				q.PullM = p * mm
			}
			v = &q
		}
		s, err := v.at(ctx, knobs)
		if err != nil {
			return nil, err
		}
		var swing, tip, force, bend []float64
		for _, b := range v.scatter(s, by) {
			swing, tip, force, bend = append(swing, geom.Deg(b.swing)), append(tip, b.tip*1e3), append(force, b.force), append(bend, geom.Deg(b.swing+2*(b.phi-b.from)))
		}
		return motion.Measures{bySwing: order.Median(swing), byTip: order.Median(tip), byForce: order.Median(force), byWork: order.Median(bend), byPull: v.easy(s)}, nil
	}
}

// easy is the pull in mm after which a wing has swung by easyDeg; far more than hands pull
// where it binds before.
func (w *Workbench) easy(s set) float64 {
	from := s.wing(s.rest)
	if s.wing(s.ceiling)-from < geom.Rad(easyDeg) {
		return neverMM
	}
	lo, hi := s.rest, s.ceiling
	for range 40 {
		if mid := (lo + hi) / 2; s.wing(mid)-from < geom.Rad(easyDeg) {
			lo = mid
		} else {
			hi = mid
		}
	}
	return s.pullFor(lo, w.part()) * 1e3
}

// neverMM stands for a swing that no pull brings about.
const neverMM = 200.0

// Levers are the knobs and the pull.
func (w *Workbench) Levers(knobs map[string]float64) []motion.Lever {
	return append(w.Toys.Levers(knobs, nil), way.Levers(w.conditions)...)
}

// Goal scores measures for an aim.
func (w *Workbench) Goal(aim string, _ float64) motion.Goal {
	return func(m motion.Measures) float64 {
		switch aim {
		case "easy":
			return -m[byPull] - 20*m[byForce]
		case "gentle":
			// It must still beat.
			return math.Min(m[bySwing], wideDeg) - m[byWork]/10
		}
		return m[bySwing]
	}
}

// Take puts what was measured of the finished toy into the knobs.
func (w *Workbench) Take(knobs, measured map[string]float64) error {
	for field, knob := range map[string]string{"rest": KnobRest, "neck": KnobNeck, "tail": KnobTail, "curve": KnobCurve} {
		if v, ok := measured[field]; ok {
			knobs[knob] = v
		}
	}
	return nil
}

// Told is the bird on other papers.
func (w *Workbench) Told(ctx context.Context, knobs map[string]float64, _ []motion.Noted) (*motion.Drawing, error) {
	s, err := w.at(ctx, knobs)
	if err != nil {
		return nil, err
	}
	d := papers.PaperDrawing{Rows: []papers.Row{}, Effort: "pull, N"}
	for _, p := range papers.All(s.Sheet) {
		q := s
		q.Sheet, q.MassG = p.On(s.Sheet), s.MassG*p.GSM/s.Sheet.GSM
		q.grain = p.Factor()
		q.stiffness, q.weight = q.grain*sheet.Bending(sheet.Ordinary, p.ThicknessMM), p.GSM*1e-3
		q.settle()
		all := w.spread(q)
		d.Rows = append(d.Rows, p.Told(motion.Outlook{Outcome: all.first(), Mode: all.usual()}, all.force.Middle))
	}
	return &motion.Drawing{Kind: "papers", Data: d}, nil
}
