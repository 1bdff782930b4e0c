package hop

import (
	"fmt"
	"math"
	"runtime"
	"slices"

	"golang.org/x/sync/errgroup"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/blame"
	"tussock/internal/order"
	"tussock/internal/say"
	"tussock/internal/turn"
)

// Faults: what there may be of a hopper, its table or a finger that was not meant. The
// model is run with each, and what was logged tells which is the likeliest.

// The causes.
const (
	asSet     = "as it is set"
	pressed   = "pressed too hard"
	overhangs = "the rear edge passes the hip fold"
	slick     = "a slippery table"
	soft      = "a table that gives"
	pulls     = "the finger pulls instead of sliding off"
	weary     = "tired folds"
)

// fault is one of a size: factors are 0 where nothing is off.
type fault struct {
	cause   string
	radius  float64 // factor on how both folds are pressed
	overMM  float64 // by which the rear edge lies further towards the hip
	table   float64 // friction of the table, instead of the one told
	energy  float64 // factor on what comes back
	finger  float64 // share that the finger leaves
	opening float64 // factor on how far the pleat opens
	prior   float64
}

// What is taken of faults: friction of a slick table, the share that a table which gives
// leaves of the push, what a finger that pulls leaves. Guesses; they only order causes.
const slickFriction, softShare, pullShare = 0.1, 0.45, 0.4

func faults() []fault {
	return []fault{{cause: asSet, prior: 2.5},
		{cause: pressed, radius: 0.4, prior: 0.5}, {cause: pressed, radius: 0.15, prior: 0.5},
		{cause: overhangs, overMM: 1.8, prior: 0.35}, {cause: overhangs, overMM: 2.8, prior: 0.35}, {cause: overhangs, overMM: 4, prior: 0.3},
		{cause: slick, table: slickFriction, prior: 0.7}, {cause: soft, energy: softShare, prior: 0.7},
		{cause: pulls, finger: pullShare, prior: 0.3}, {cause: weary, opening: 0.6, prior: 0.3}}
}

// put gives a fault to a toy.
func (f *fault) put(g *Geometry, set *SpringSet) {
	g.FootMM += f.overMM
	if f.radius > 0 {
		set.HipRadiusMM, set.CatchRadiusMM = set.HipRadiusMM*f.radius, set.CatchRadiusMM*f.radius
	}
}

// weaken is what a fault does to the spring, after it is made.
func (f *fault) weaken(t *Toy) {
	if f.opening > 0 {
		t.Hip.Rest, t.Catch.Rest = t.Hip.Rest*f.opening, t.Catch.Rest*f.opening
	}
}

// with is the workbench with a fault in all that it does.
func (w *Workbench) with(f fault) *Workbench {
	q := *w
	q.fault = &f
	if f.table > 0 && !q.Trigger.palm {
		q.Table = f.table
	}
	return &q
}

// symptoms and ways that are looked for in a log.
var seenFor = []string{caught, shut, hardly, straightUp, tooMany, forward, backward}

// What somebody who watches calls so: a hop as low as that is none, one so much steeper
// than far goes straight up, and more half flips than that are too many.
const hardlyM, steepUp, manyFlips = 0.025, 3.0, 6.0

// noticed is a predicted hop as somebody would note it.
func noticed(t Toy, a Arc) blame.Trial {
	l, h := math.Max(math.Abs(a.LengthM), 0.003), math.Max(a.HeightM, 0.003)
	r := blame.Trial{Noted: true, Seen: make([]bool, len(seenFor)), Read: []float64{math.Log(h), math.Log(l / h), math.Log(l)}}
	seen := func(chip string, is bool) { r.Seen[slices.Index(seenFor, chip)] = is }
	stays := geom.Deg(t.Hip.Rest) < overPressedDeg
	seen(caught, t.Overhang()*1e3 > 0.6)
	seen(shut, stays)
	seen(hardly, !stays && a.HeightM < hardlyM && math.Abs(a.LengthM) < hardlyM)
	seen(straightUp, a.HeightM >= hardlyM && a.HeightM > steepUp*math.Abs(a.LengthM))
	seen(tooMany, a.HalfFlips > manyFlips)
	far := math.Abs(a.LengthM) >= hardlyM
	seen(forward, far && a.LengthM > 0)
	seen(backward, far && a.LengthM < 0)
	return r
}

func read(log []motion.Noted) []blame.Trial {
	out := make([]blame.Trial, len(log))
	for i, n := range log {
		t := blame.Trial{Read: []float64{math.NaN(), math.NaN(), math.NaN()}, Seen: make([]bool, len(seenFor))}
		l, far := n.Value(Length)
		h, up := n.Value(Height)
		if up {
			t.Read[0] = math.Log(math.Max(h, 0.003))
		}
		// What leans a leap is told by how far it goes for its height, whatever the spring.
		if far && up {
			t.Read[1] = math.Log(math.Max(l, 0.003) / math.Max(h, 0.003))
		} else if far {
			t.Read[2] = math.Log(math.Max(l, 0.003))
		}
		for k, c := range seenFor {
			t.Seen[k] = slices.Contains(n.Chips, c)
			t.Noted = t.Noted || t.Seen[k]
		}
		out[i] = t
	}
	return out
}

// How many toys each fault is run for, and how often each hops.
const worlds, each = 40, 4

// floors are errors of reading, of the middle of a log: logarithms of height, and of
// distance over height, and of distance where no height was read.
var floors = []float64{0.10, 0.10, 0.08}

// weigh runs the model with every fault and weighs them by the log.
func (e *examination) weigh() error {
	all := faults()
	cases := make([]blame.Case, len(all))
	sd := doubt
	if e.w.Own.Spread > 0 {
		sd = e.w.Own.Spread
	}
	var g errgroup.Group
	g.SetLimit(runtime.GOMAXPROCS(0))
	for i, f := range all {
		g.Go(func() error {
			_, done, err := turn.Take(e.w.ctx)
			if err != nil {
				return err
			}
			defer done()
			cases[i] = blame.Case{Cause: f.cause, Size: f.overMM, Prior: f.prior}
			w := e.w.with(f)
			_, geo, set, err := w.toyAt(e.knobs)
			if err != nil {
				return err
			}
			for j := range worlds {
				energy := math.Exp(sd * motion.Normal(motion.Numbers(j, 1)[0]))
				var one blame.World
				for _, q := range w.scatter(geo, set, motion.Sample{From: j * each, N: each}, false) {
					q.trial.Energy *= energy
					one = append(one, noticed(q.toy, q.toy.Leap(q.trial)))
				}
				cases[i].Worlds = append(cases[i].Worlds, one)
			}
			return nil
		})
	}
	if err := g.Wait(); err != nil {
		return err
	}
	e.cases = cases
	e.shares = blame.Weigh(cases, read(e.log), floors)
	e.verdicts = blame.Verdicts(cases, e.shares)
	return nil
}

// kindOf is what causes do the same as this one.
func kindOf(cause string) string {
	if cause == soft || cause == pulls || cause == weary {
		return "less energy"
	}
	return ""
}

// laws behind the causes, with the numbers of this toy.
func (e *examination) law(cause string) string {
	switch cause {
	case pressed:
		return fmt.Sprintf("Each fold stores ½k(ψ − θ)² with ψ = %.0f° by itself as set; under %.0f° next to nothing is left.", geom.Deg(e.toy.Hip.Rest), overPressedDeg)
	case overhangs:
		return say.Prose(fmt.Sprintf("Overhang %s as folded; 1 mm costs about a quarter, 3 mm three quarters.", say.MM(e.overhangMM(), 1)))
	case slick:
		return "Vx/Vy ≈ 0.56µ/(1 + 0.4µ): the less the foot grips, the steeper it goes."
	case soft:
		return "A table that gives takes the push before the toy has it."
	case pulls:
		return "A finger that stays on takes what it is pushed by."
	case weary:
		return "Rest opening falls by 1 to 3 % a hop and by 3 to 5° for each tenfold of time pressed shut."
	}
	return fmt.Sprintf("%.1f mJ stored, about a sixth of it becomes speed, for %.2f g.", e.toy.Stored(e.toy.Pressed())*1e3, e.g.MassG)
}

// told lists the causes by what was seen.
func (e *examination) told() {
	e.out.Causes = e.out.Causes[:0]
	for i, v := range e.verdicts {
		if i > 4 || v.Share < 0.02 && i > 1 {
			break
		}
		e.out.Causes = append(e.out.Causes, motion.Cause{Words: say.Capital(v.Cause), Law: e.law(v.Cause), Log: e.foretold(v.Cause), Weight: v.Share})
	}
	e.out.Confidence = motion.Possible
	switch tied := blame.Tied(e.verdicts, kindOf); {
	case len(tied) > 1 && e.verdicts[0].Cause != asSet:
		e.out.Confidence, e.out.Tied, e.out.Test = motion.Unsure, len(tied), e.test(tied[0].Cause, tied[1].Cause)
	case e.verdicts[0].Share > 0.5:
		e.out.Confidence = motion.Likely
	}
}

// foretold is what a cause lets expect, beside what was logged.
func (e *examination) foretold(cause string) string {
	var d, h []float64
	for i, c := range e.cases {
		if c.Cause != cause || e.shares[i] < 1e-9 && len(d) > 0 {
			continue
		}
		for _, w := range c.Worlds {
			for _, t := range w {
				d, h = append(d, math.Exp(t.Read[0]+t.Read[1])), append(h, math.Exp(t.Read[0]))
			}
		}
	}
	out := fmt.Sprintf("it foretells about %s far and %s high", say.CM(order.Median(d), 0), say.CM(order.Median(h), 0))
	if v := motion.Values(e.log, Length); len(v) > 0 {
		out += fmt.Sprintf("; the log has %s far", say.CM(order.Median(v), 0))
	}
	if e.out.Seen > 0 {
		out += "; " + e.seen()
	}
	return out
}

// test is a hop, or a look, that tells two causes apart.
func (e *examination) test(a, b string) string {
	either := func(c string) bool { return a == c || b == c }
	switch {
	case either(overhangs):
		return "To tell them apart, look at it from the side, pressed flat: does the rear edge pass the hip fold? Measure by how much and take it over at Set."
	case either(pressed) || either(weary):
		return "To tell them apart, let it lie open for a minute and hold the pleat against the angle card: under 45° it is pressed too hard."
	case either(soft) || either(slick):
		return "To tell them apart, hop three times from a bare wooden table: if it leaps as predicted there, it was the table."
	}
	return "To tell them apart, let somebody else hop it three times from a bare wooden table."
}
