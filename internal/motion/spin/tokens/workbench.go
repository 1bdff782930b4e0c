package tokens

import (
	"context"
	"math"
	"slices"

	"tussock/internal/geom"
	"tussock/internal/given"
	"tussock/internal/motion"
	"tussock/internal/motion/flap/hump"
	"tussock/internal/motion/spin/token"
	"tussock/internal/motion/toys"
	"tussock/internal/order"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Shapes are the tokens of one pattern on one sheet. They may be shared.
type Shapes struct {
	toys.Toys[Geometry]
	way *motion.Way
}

func newShapes(p *sequence.Pattern, s sheet.Sheet, w *motion.Way) *Shapes {
	return &Shapes{toys.Toys[Geometry]{Pattern: p, Sheet: s, Bent: toys.Bent(knobs()), Of: Of}, w}
}

// Workbench sets and spins one pattern on one sheet. It may be used by several at once.
type Workbench struct {
	*Shapes
	on         support
	start      start
	Child      bool
	Own        motion.Calibration
	conditions motion.Conditions
}

// support is what it rests on.
type support struct {
	label, says    string
	friction       float64
	contactM, tipM float64 // of the rubbing spot; how round its end is
	heightM        float64 // over the table; 0 for the table itself
}

// supports are what tokens rest on; the first is what the toy is made for. Friction of paper
// on wood, glass and steel: handbooks; radii of contact are estimates.
var supports = []support{
	{"as it is made for", "A token with a point of its own stands on the table; one that hangs, on a pin.", 0.3, 0.2e-3, 0.3e-3, 0},
	{"a table of wood", "Bare and level.", 0.3, 0.2e-3, 0, 0},
	{"glass", "A pane or a plate.", 0.15, 0.15e-3, 0, 0},
	{"the dimple of a bottle cap", "Dented in the middle with a blunt nail: the point stays in it.", 0.2, 0.15e-3, 0, 2e-3},
	{"a pencil, blunt", "Held upright, still, pointing away from faces.", 0.3, 0.6e-3, 1e-3, 0.15},
	{"a pin in a cork", "Head down in the cork, standing upright.", 0.2, 0.15e-3, 0.2e-3, 0.04},
	{"a folded stand", "A point of paper, folded hard.", 0.3, 0.4e-3, 0.5e-3, 0.04},
}

// start is how it is set spinning: turns a second, and by how much that scatters.
type start struct {
	label, says string
	turns       float64
	scatter     float64 // standard deviation of its logarithm
}

// starts are usual figures, estimates within a factor of one and a half.
var starts = []start{
	{"between finger and thumb", "Hold the point, twist, let go.", 10, 0.25},
	{"both hands rolling", "Roll the point between flat hands.", 14, 0.3},
	{"a pulled string", "Wind a thread round the point and pull.", 22, 0.3},
	{"a push at the rim", "Flick one end with a finger.", 2, 0.35},
	{"blown at the rim", "Blow along the rim, from a hand's breadth.", 5, 0.35},
}

// pushed is the usual start of a toy that hangs.
const pushed = 3

// Under gives it conditions and what was learnt.
func (s *Shapes) Under(c motion.Conditions, own motion.Calibration) motion.Trying {
	on := supports[int(c["support"])]
	if c["support"] == 0 && s.Pattern.Head(headStands) == "" {
		on = supports[pinInCork]
	}
	return &Workbench{Shapes: s, on: on, start: starts[int(c["start"])], Child: c["hand"] == 1, Own: own, conditions: c}
}

const pinInCork = 5

// set is a token at knob values.
type set struct {
	Geometry
	Off      geom.Vec // of the centre of mass beside the point, mm, as found and as moved
	Bends    []float64
	TipMM    float64
	EdgesMM  float64 // how high loose edges stand
	values   map[string]float64
	measured geom.Vec // how far the balance was found from where it is computed
}

// at is the token at knob values; the error says what cannot be folded.
func (w *Workbench) at(ctx context.Context, knobs map[string]float64) (set, error) {
	g, values, err := w.At(ctx, knobs)
	if err != nil {
		return set{}, err
	}
	return w.setOf(g, values), nil
}

// bendDepthMM is how far in from its corner a rim is bent.
const bendDepthMM = 10.0

func (w *Workbench) setOf(g Geometry, v map[string]float64) set {
	s := set{Geometry: g, values: v, TipMM: v[KnobTip], EdgesMM: v[KnobEdges], measured: geom.Vec{X: v[KnobFoundRight], Y: v[KnobFoundUp]}}
	s.Off = g.CoM.Add(s.measured).Sub(geom.Vec{X: v[KnobRight], Y: v[KnobUp]})
	for _, r := range g.Rim {
		up := 0.0
		if r.Knob != "" {
			up = v[r.Knob]
		}
		s.Bends = append(s.Bends, up)
		if up > 0 && r.At.Len() > bendDepthMM {
			// What is bent up comes in a little: its middle, half as deep, by 1 - cos.
			mass := g.Sheet.GSM * 1e-6 * g.Layers * bendDepthMM * bendDepthMM
			in := bendDepthMM / 2 * (1 - math.Cos(math.Atan(up/bendDepthMM)))
			s.Off = s.Off.Sub(r.At.Unit().Scale(mass * in / g.MassG))
		}
	}
	return s
}

// hand is what a hand misses from one toy or trial to the next, standard deviations. Folds
// are those of the folding tolerances of all toys; the rest are estimates.
type hand struct {
	pointMM float64 // where the point comes to lie, along each direction
	steady  float64 // of the start, on top of its own scatter
}

// A fold moves what it brings by twice its own error.
var adult, child = hand{2 * 0.3, 0}, hand{2 * 0.8, 0.25}

// How far even paper is uneven, mm of the centre of mass; how far friction and contact differ
// from place to place, of their logarithm; how far the drag of the air may be out before
// anything was learnt, and what stays uncertain.
const unevenMM, rubbing, doubt, learntFloor = 0.1, 0.3, 0.4, 0.1

// The numbers that a spin is drawn from, those that matter most first.
const (
	nAir = iota
	nStart
	nRight
	nUp
	nRub
	nSag
	numbers
)

// spun is one spin out of a scatter, and how it goes.
type spun struct {
	off      geom.Vec
	body     token.Body
	slowing  token.Slowing
	from, to float64 // rad/s
	seconds  float64
	turns    float64
	lean     float64 // radians: of one that hangs at rest, of one that spins soon after its start; no more than its rim allows
	clear    float64 // mm of the spot that touches first, at that lean
	first    int     // that spot
	mode     string
}

// slowing is what slows it, before anything scatters.
func (w *Workbench) slowing(s set) token.Slowing {
	var areas, radii []float64
	for _, u := range s.Steep {
		areas, radii = append(areas, u.area*1e-6), append(radii, u.r*1e-3)
	}
	areas, radii = append(areas, s.OpenMM*s.EdgesMM*1e-6), append(radii, s.RadiusMM*1e-3*meanRim)
	contact := w.on.contactM * math.Sqrt(s.TipMM/usualTipMM)
	return token.Slowing{Friction: w.on.friction, Contact: contact, Edges: token.Edges(areas, radii)}
}

// meanRim is the radius, over the farthest, at which the edges of a token lie in the mean of
// their cubes: that of a square.
const meanRim, usualTipMM = 0.82, 0.3

// sag is how far a rim hangs by its own weight at most, mm: a strip clamped at the point,
// its layers sliding.
func (s set) sag() float64 {
	b := sheet.Bending(sheet.Ordinary, s.Sheet.ThicknessMM)
	return 1e3 * hump.Droop(b, s.Sheet.GSM*1e-3, s.RadiusMM*1e-3)
}

// ribbed is the most of that sag that ribs of folds leave.
const ribbed = 0.4

// How it goes.
const (
	modeSpins  = "stands and spins"
	modeFalls  = "falls over at once"
	modeRubs   = "rubs"
	modeLevel  = "hangs level"
	modeLeans  = "hangs leaning"
	modeTopple = "topples off"
)

// levelDeg is a lean that an eye takes for level.
const levelDeg = 3.0

// spin carries one spin out.
func (w *Workbench) spin(s set, off geom.Vec, slow token.Slowing, from, sagMM float64) spun {
	q := spun{off: off, body: s.body(), slowing: slow, from: from}
	rim := s.rim(sagMM)
	e := off.Len() * 1e-3
	towards := math.Atan2(off.Y, off.X)
	if s.Hangs {
		tau, ok := token.Lean(e, s.DepthMM*1e-3)
		q.lean, q.mode = tau, modeLevel
		switch {
		case !ok && -s.DepthMM*1e-3 > token.StandsTo(w.on.tipM, dimpleOf(s)), tau > slides:
			q.mode = modeTopple
		case geom.Deg(tau) > levelDeg:
			q.mode = modeLeans
		}
		q.to = hangsStill
		h := w.on.heightM * 1e3
		q.first, q.clear = token.Touches(h, rim, tau, towards)
	} else {
		limit, first := w.limit(s, rim, towards)
		q.first = first
		q.to = math.Max(q.body.Stands(), math.Min(q.body.Rubs(e, limit), 1e3))
		q.mode = modeSpins
		if q.to >= from {
			q.mode = modeFalls
			if q.body.Rubs(e, limit) > q.body.Stands() {
				q.mode = modeRubs
			}
		}
		q.lean = limit
		if tau, ok := q.body.Wobble(e, leanAt*from); ok {
			q.lean = math.Min(tau, limit)
		}
		_, q.clear = token.Touches(s.PointMM+w.on.heightM*1e3, rim, q.lean, towards)
	}
	if q.mode != modeFalls && q.mode != modeRubs && q.mode != modeTopple {
		q.seconds, q.turns = q.body.SpinDown(slow, from, q.to)
	}
	return q
}

// leanAt is the part of its first rate at which the lean of a spinning token is told.
const leanAt = 0.7

// hangsStill is the rate, rad/s, under which a toy on a pin counts as stopped: a turn in three
// seconds. An estimate.
const hangsStill = 2.0

// slides is the lean at which paper slides off a pin, radians: friction of 0.5.
const slides = 0.46

// dimpleOf is the radius of the fold that sits on a pin, m: it is as round as the layers in it.
func dimpleOf(s set) float64 { return 1e-3 * math.Max(0.3, s.Layers*s.Sheet.ThicknessMM) }

// rim are the spots that could touch, with what they are bent up by and hang down by; mm.
func (s set) rim(sagMM float64) []token.Rim {
	out := make([]token.Rim, len(s.Rim))
	for i, r := range s.Rim {
		part := r.At.Len() / math.Max(1, s.RadiusMM)
		out[i] = token.Rim{R: r.At.Len(), Angle: math.Atan2(r.At.Y, r.At.X), Z: r.UpMM + s.Bends[i] - sagMM*part*part*part*part}
	}
	return out
}

// limit is the lean at which the first spot of the rim touches the table, radians, and which.
func (w *Workbench) limit(s set, rim []token.Rim, towards float64) (tau float64, first int) {
	tau, first = math.Pi/3, -1
	for i, r := range rim {
		down := r.R * math.Cos(r.Angle-towards)
		if down <= 0 {
			continue
		}
		if t := math.Asin(math.Max(0, math.Min(0.86, (s.PointMM+w.on.heightM*1e3+r.Z-rubClearMM)/down))); t < tau {
			tau, first = t, i
		}
	}
	return tau, first
}

// rubClearMM is what a rim needs above the table so as not to rub on it.
const rubClearMM = 0.5

// scatter draws spins: what hands miss, and, with constants, what the model does not know.
func (w *Workbench) scatter(s set, by motion.Sample) []spun {
	hand := adult
	if w.Child {
		hand = child
	}
	slow := w.slowing(s)
	sag := s.sag()
	out := make([]spun, 0, by.N)
	for i := range by.N {
		u := motion.Numbers(by.From+i, numbers)
		z := func(k int) float64 { return motion.Normal(u[k]) }
		sd := doubt
		if w.Own.Spread > 0 {
			sd = w.Own.Spread
		}
		q := slow
		q.Air = math.Exp(sd * z(nAir))
		if w.Own.Factor > 0 {
			q.Air *= w.Own.Factor
		}
		q.Friction *= math.Exp(rubbing * z(nRub))
		from := 2 * math.Pi * w.start.turns * math.Exp(math.Hypot(w.start.scatter, hand.steady)*z(nStart))
		miss := math.Hypot(hand.pointMM, unevenMM)
		off := s.Off.Add(geom.Vec{X: miss * z(nRight), Y: miss * z(nUp)})
		if w.found(s) { // measured on the finished toy: what hands missed is in it
			off = s.Off.Add(geom.Vec{X: measuredMM * z(nRight), Y: measuredMM * z(nUp)})
		}
		out = append(out, w.spin(s, off, q, from, ribbed*sag*u[nSag]))
	}
	return out
}

// measuredMM is how exactly a balance is found on a pencil.
const measuredMM = 0.4

// found tells whether the balance was measured.
func (w *Workbench) found(s set) bool { return s.measured != geom.Vec{} }

// What a token is measured by.
const (
	byOffset = "off the point"
	byTime   = "spin time"
	byLean   = "lean"
	byClear  = "clearance"
	byTurns  = "turns"
	bySpread = "spread of the spin time"
)

// Measure folds, sets and spins at lever positions: middles over scattered spins.
func (w *Workbench) Measure(levers []motion.Lever) motion.Measure {
	return func(ctx context.Context, at []float64, by motion.Sample) (motion.Measures, error) {
		knobs, _ := motion.Split(levers, at)
		s, err := w.at(ctx, knobs)
		if err != nil {
			return nil, err
		}
		all := w.scatter(s, by)
		of := func(f func(spun) float64) []float64 {
			out := make([]float64, len(all))
			for i, q := range all {
				out[i] = f(q)
			}
			return out
		}
		times := motion.RangeOf(of(func(q spun) float64 { return q.seconds }))
		return motion.Measures{byOffset: s.Off.Len(), byTime: times.Middle, bySpread: (times.Hi - times.Lo) / 2.563,
			byTurns: order.Median(of(func(q spun) float64 { return q.turns })), byClear: order.Median(of(func(q spun) float64 { return q.clear })),
			byLean: geom.Deg(order.Median(of(func(q spun) float64 { return q.lean })))}, nil
	}
}

// Levers are the knobs; what was found is not for a search to choose.
func (w *Workbench) Levers(knobs map[string]float64) []motion.Lever {
	out := w.Toys.Levers(knobs, map[string]bool{KnobRight: true, KnobUp: true})
	out = slices.DeleteFunc(out, func(l motion.Lever) bool { return l.Name == KnobFoundRight || l.Name == KnobFoundUp })
	return append(out, w.way.Levers(w.conditions)...)
}

// Goal scores measures for an aim.
func (w *Workbench) Goal(aim string, _ float64) motion.Goal {
	return func(m motion.Measures) float64 {
		switch aim {
		case "level":
			return -m[byOffset] - m[byLean]/50
		case "steady":
			return -m[byLean] + 0.02*m[byTime]
		case "clear":
			return math.Min(m[byClear], 5) + 0.01*m[byTime]
		}
		return m[byTime] - m[bySpread]/4
	}
}

// Take puts what was measured of the finished toy into the knobs.
func (w *Workbench) Take(knobs, measured map[string]float64) error {
	plain := toys.With(knobs, motion.Change{Knob: KnobFoundRight}, motion.Change{Knob: KnobFoundUp})
	s, err := w.at(context.Background(), plain)
	if err != nil {
		return err
	}
	for _, q := range []struct {
		field, knob string
		computed    float64
	}{{"right", KnobFoundRight, s.Off.X}, {"up", KnobFoundUp, s.Off.Y}} {
		v, there := measured[q.field]
		if !there {
			continue
		}
		off := v - q.computed
		if i := w.Pattern.KnobIndex(q.knob); math.Abs(off) > w.Pattern.Knobs[i].Max {
			return &given.Error{Field: q.field, Value: v, Want: "within 15 mm of the computed balance: farther off the toy is folded otherwise than planned"}
		}
		knobs[q.knob] = math.Round(10*off) / 10
	}
	return nil
}
