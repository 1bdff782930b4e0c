package glide

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"runtime"
	"slices"

	"golang.org/x/sync/errgroup"

	"tussock/internal/motion"
	"tussock/internal/motion/blame"
	"tussock/internal/motion/glide/flight"
	"tussock/internal/motion/toys"
	"tussock/internal/order"
	"tussock/internal/say"
)

// The clinic: from what was read and seen of throws to the likeliest cause, and to the
// smallest change that should help.

// symptoms are the chips that call for a cure, the worst first where several were seen
// as often.
var symptoms = []string{"rolled", "looped", "dived", "stalled", "turned left", "turned right"}

// What is found by readings alone.
const shorter, farther = "shorter than predicted", "farther than predicted"

// chips are what is looked for in a log.
var chips = append(slices.Clone(symptoms), "glided")

// asExpected is the share of the belief that all is as it is set from which, with no fault
// noted, there is nothing to cure.
const asExpected = 0.42

// Examine finds what to change after throws at knob values.
func (w *Workbench) Examine(ctx context.Context, knobs map[string]float64, log []motion.Noted) (motion.Finding, error) {
	out, count, sick := motion.Look(log, symptoms, "throw", "throws")
	w = w.asked(ctx)
	m, err := w.Model(knobs)
	if err != nil || out.Wants > 0 {
		return out, err
	}
	trials := noted(log)
	if !slices.ContainsFunc(trials, func(t blame.Trial) bool { return t.Noted || !math.IsNaN(t.Read[0]) }) {
		return out, nil
	}
	e := &examination{w: w, knobs: knobs, m: m, log: log, throw: w.throw(m), out: &out}
	if err := e.weigh(trials); err != nil {
		return out, err
	}
	if !sick {
		if e.share(asSet) >= asExpected && e.within() || e.better() || len(e.readings(Distance)) < motion.Enough {
			if out.Clear && count["dived"] > 0 && count["stalled"] > 0 {
				out.Title, out.Clear = "It dives and it stalls: throw more evenly first", false
			}
			return out, nil
		}
		e.unlike()
	}
	e.conclude()
	return out, ctx.Err()
}

type examination struct {
	w        *Workbench
	knobs    map[string]float64
	m        *flight.Model
	log      []motion.Noted
	throw    flight.Throw
	out      *motion.Finding
	faults   []fault
	models   []*flight.Model // with each
	cases    []blame.Case
	shares   []float64
	verdicts []blame.Verdict
	believed []believed
}

func (e *examination) value(knob string) float64 { return e.w.Value(e.knobs, knob) }

// readings of a log.
func (e *examination) readings(id string) []float64 { return motion.Values(e.log, id) }

// share of a cause.
func (e *examination) share(cause string) float64 {
	for _, v := range e.verdicts {
		if v.Cause == cause {
			return v.Share
		}
	}
	return 0
}

// Errors of reading, of the middle of a log: logarithms of distance and time, and the
// angle aside.
var floors = []float64{0.06, 0.09, 0.03}

// noted are throws as causes are weighed by: how far, how long, to which side, and what
// was seen.
func noted(log []motion.Noted) []blame.Trial {
	out := make([]blame.Trial, len(log))
	for i, n := range log {
		t := blame.Trial{Read: []float64{math.NaN(), math.NaN(), math.NaN()}, Seen: make([]bool, len(chips))}
		d, far := n.Value(Distance)
		if far {
			t.Read[0] = math.Log(math.Max(d, 0.3))
		}
		if s, timed := n.Value(Time); timed {
			t.Read[1] = math.Log(math.Max(s, 0.2))
		}
		if a, aside := n.Value(Aside); aside && far && d > 0.3 {
			t.Read[2] = math.Asin(min(max(a/d, -1), 1))
		}
		for k, c := range chips {
			t.Seen[k] = slices.Contains(n.Chips, c)
			t.Noted = t.Noted || t.Seen[k]
		}
		out[i] = t
	}
	return out
}

// turnSeen is the turn, degrees, from which somebody who watches calls it one.
const turnSeen = 20

// flown is a predicted throw as somebody would note it.
func flown(f flight.Flight) blame.Trial {
	t := blame.Trial{Noted: true, Seen: make([]bool, len(chips)),
		Read: []float64{math.Log(math.Max(f.DistanceM, 0.3)), math.Log(math.Max(f.TimeS, 0.2)), math.Atan2(f.DriftM, math.Max(f.AheadM, 0.05))}}
	seen := func(chip string) { t.Seen[slices.Index(chips, chip)] = true }
	switch f.Mode {
	case flight.Dive:
		seen("dived")
	case flight.Stalling:
		seen("stalled")
	case flight.Loop, flight.Tumble:
		seen("looped")
	case flight.Roll:
		seen("rolled")
	case flight.Glide, flight.Swing:
		if math.Abs(f.HeadingDeg) < turnSeen {
			seen("glided")
		}
	}
	if f.HeadingDeg >= turnSeen {
		seen("turned right")
	}
	if f.HeadingDeg <= -turnSeen {
		seen("turned left")
	}
	return t
}

// How many people with toys of their own each fault is run for, and how often each throws;
// how far one person's throws differ from what is told, speed and angle.
const worlds, each = 48, 4

// fewWorlds are enough to see what is out of the question: what has less than that share.
const fewWorlds, outOfQuestion = 16, 0.003

const personSpeed, personAngle = 0.12, 3.0

// leastCareful is the part of a hand's scatter that is left in the toys of those who fold
// most carefully.
const leastCareful = 0.25

// drawn is throw k of person j with a fault; their toy is that of its first throw.
func (e *examination) drawn(f fault, m *flight.Model, j, k int) flight.Drawn {
	t := e.throw
	if f.speed > 0 {
		t.SpeedMS *= f.speed
	}
	t.AngleDeg += f.angle
	person := motion.Numbers(j, 3)
	t.SpeedMS *= math.Exp(personSpeed * motion.Normal(person[0]))
	t.AngleDeg += personAngle * motion.Normal(person[1])
	d := e.w.Scatter.Careful(leastCareful+(1-leastCareful)*person[2]).Draw(j, t, m.Bends)
	d.AftM += f.aftMM * 1e-3
	d.Throw = e.w.Scatter.Draw(motion.Draws+j*each+k, t, m.Bends).Throw
	return d
}

// faulty is the toy with a fault, and after changes.
func (e *examination) faulty(f fault, changed map[string]float64) (*flight.Model, error) {
	if f.knob == "" {
		return e.w.Model(changed)
	}
	return e.w.Model(toys.With(changed, motion.Change{Knob: f.knob, To: e.w.Value(changed, f.knob) + f.by}))
}

// weigh runs the model with every fault and weighs them by the log: a few people for each,
// then more for what is not out of the question.
func (e *examination) weigh(log []blame.Trial) error {
	for _, f := range faults() {
		if m, err := e.faulty(f, e.knobs); err == nil { // what cannot be so is no cause
			e.faults = append(e.faults, f)
			e.models = append(e.models, m)
			e.cases = append(e.cases, blame.Case{Cause: f.cause, Size: f.size(), Prior: f.prior})
		}
	}
	for _, upTo := range []int{fewWorlds, worlds} {
		var g errgroup.Group
		g.SetLimit(runtime.GOMAXPROCS(0))
		for i := range e.cases {
			if len(e.shares) > 0 && e.shares[i] < outOfQuestion {
				continue
			}
			g.Go(func() error {
				many := e.models[i].Many()
				for j := len(e.cases[i].Worlds); j < upTo; j++ {
					toy := many.Of(e.drawn(e.faults[i], e.models[i], j, 0))
					var w blame.World
					for k := range each {
						w = append(w, flown(toy.Fly(e.drawn(e.faults[i], e.models[i], j, k).Throw, e.w.Room, nil)))
					}
					e.cases[i].Worlds = append(e.cases[i].Worlds, w)
				}
				return e.w.ctx.Err()
			})
		}
		if err := g.Wait(); err != nil {
			return err
		}
		e.shares = blame.Weigh(e.cases, log, floors)
	}
	e.verdicts = blame.Verdicts(e.cases, e.shares)
	e.believe()
	return nil
}

// believed is one of many throws as they are believed to be now: with a fault, by its share.
type believed struct {
	fault int
	world int
}

// believedThrows is how many of them predictions of the clinic rest on.
const believedThrows = 80

// believe picks faults by their shares, evenly.
func (e *examination) believe() {
	at, sum := 0, e.shares[0]
	for i := range believedThrows {
		for q := (float64(i) + 0.5) / believedThrows; sum < q && at+1 < len(e.shares); {
			at++
			sum += e.shares[at]
		}
		e.believed = append(e.believed, believed{at, (i * 7) % motion.Draws})
	}
}

// changed is what is done about it: knobs, and perhaps another throw.
type changed struct {
	knobs map[string]float64
	throw flight.Throw
	rid   string // the cause that another throw takes away
}

// fly throws what is believed after a change.
func (e *examination) fly(c changed, only string) []flight.Thrown {
	q := *e
	q.throw = c.throw
	many := map[int]flight.Many{}
	made := map[int]*flight.Model{}
	var who []believed
	for _, b := range e.believed {
		if only != "" && e.faults[b.fault].cause != only {
			continue
		}
		if _, there := made[b.fault]; !there {
			m, err := e.faulty(e.faults[b.fault], c.knobs)
			if err != nil {
				return nil
			}
			made[b.fault], many[b.fault] = m, m.Many()
		}
		who = append(who, b)
	}
	out := make([]flight.Thrown, len(who))
	var g errgroup.Group
	workers := runtime.GOMAXPROCS(0)
	for k := range workers {
		g.Go(func() error {
			for i := k; i < len(who); i += workers {
				f := e.faults[who[i].fault]
				if f.cause == c.rid {
					f.speed, f.angle = 0, 0
				}
				d := q.drawn(f, made[who[i].fault], who[i].world, 0)
				out[i] = flight.Thrown{Flight: many[who[i].fault].Of(d).Fly(d.Throw, e.w.Room, nil)}
			}
			return nil
		})
	}
	_ = g.Wait() // a throw does not fail
	return out
}

// worth is how good throws are: how far ahead, less what they go aside, and less a third for
// those that go wrong.
func worth(of []flight.Thrown) float64 {
	v := make([]float64, len(of))
	for i, f := range of {
		v[i] = f.AheadM - math.Abs(f.DriftM)
		if f.Mode != flight.Glide && f.Mode != flight.Swing {
			v[i] -= math.Abs(f.AheadM) / 3
		}
	}
	if len(v) == 0 {
		return math.Inf(-1)
	}
	sum := 0.0
	for _, x := range v {
		sum += x / float64(len(v))
	}
	return sum
}

// within tells whether the log lies where nineteen of twenty throws are predicted.
func (e *examination) within() bool {
	v := e.readings(Distance)
	if len(v) == 0 {
		return true
	}
	s := e.m.Spread(e.throw, e.w.Room, e.w.Scatter, motion.Draws)
	d := order.Median(v)
	return d >= s.Distance.Lo95 && d <= s.Distance.Hi95
}

// better tells whether the log lies at the upper end of what is predicted: nobody wants
// that cured.
func (e *examination) better() bool {
	v := e.readings(Distance)
	return len(v) > 0 && e.within() && order.Median(v) >= e.m.Spread(e.throw, e.w.Room, e.w.Scatter, motion.Draws).Distance.Middle
}

// unlike names what readings alone tell: the log lies elsewhere than the prediction.
func (e *examination) unlike() {
	d := order.Median(e.readings(Distance))
	s := e.m.Spread(e.throw, e.w.Room, e.w.Scatter, motion.Draws)
	e.out.Symptom, e.out.Seen, e.out.Clear = shorter, 0, false
	for _, v := range e.readings(Distance) {
		if v < s.Distance.Middle == (d < s.Distance.Middle) {
			e.out.Seen++
		}
	}
	if d > s.Distance.Middle {
		e.out.Symptom = farther
	}
	// All as it is set is what the log speaks against.
	e.verdicts = slices.DeleteFunc(e.verdicts, func(v blame.Verdict) bool { return v.Cause == asSet })
}

// beginnings of titles, by what was seen.
var beginnings = map[string]string{"rolled": "It rolls over.", "looped": "It loops.", "dived": "It dives.", "stalled": "It stalls.", "turned left": "It turns left.", "turned right": "It turns right.",
	shorter: "It comes shorter than predicted.", farther: "It comes farther than predicted."}

// outstanding is the share from which a cause stands out.
const outstanding = 0.2

// mostTied is how many causes are named that cannot be told apart: more say nothing.
const mostTied = 6

// tells are the causes that there are, with what each foretells.
func (e *examination) conclude() {
	f := e.out
	e.lead()
	tied := blame.Tied(e.verdicts, kindOf)
	e.verdicts = first(e.verdicts, tied)
	f.Confidence = motion.Possible
	switch {
	case len(tied) > 1 && tied[0].Cause != asSet:
		f.Confidence, f.Tied, f.Test = motion.Unsure, min(len(tied), mostTied), e.test(tied)
	case e.verdicts[0].Share > 0.5:
		f.Confidence = motion.Likely
	}
	const shown = 5
	for i, v := range e.verdicts[:min(max(shown, len(tied)), len(e.verdicts))] {
		if v.Share > 0.02 || i < max(2, len(tied)) {
			f.Causes = append(f.Causes, motion.Cause{Words: capital(v.Cause), Law: law(v.Cause, e.m, e.throw), Log: e.foretold(v.Cause), Weight: v.Share})
		}
	}
	// Where readings alone are off, and no cause stands out, nothing is bent.
	standsOut := slices.Contains(symptoms, f.Symptom) || e.verdicts[0].Share >= outstanding
	f.Title = beginnings[f.Symptom] + " "
	if standsOut {
		f.Title += e.treat()
	}
	if f.Remedy == nil {
		f.Title += map[bool]string{true: "No change is predicted to help: try a throw.", false: "No cause stands out: try a throw."}[standsOut]
		f.Remedy = &motion.Remedy{Changes: []motion.Change{}, Do: fmt.Sprintf("Throw it at about %.1f m/s", e.w.ownSpeed(e.m)), Where: "a little down, and leave it as it is. Then three throws more.", School: "test throw",
			Why: "Bending what may be right makes it worse.", Then: "What three gentle throws do tells more than a bend.", Against: "If they go as before, measure the toy against the card."}
	}
}

// lead puts first that all is as it is set, where that itself foretells what was seen and is
// believed nearly as much as any fault: nothing else is needed then.
func (e *examination) lead() {
	at := slices.IndexFunc(e.verdicts, func(v blame.Verdict) bool { return v.Cause == asSet })
	k := slices.Index(chips, e.out.Symptom)
	if at < 0 || k < 0 || e.verdicts[at].Share < e.verdicts[0].Share/4 {
		return
	}
	n, seen := 0.0, 0.0
	for _, c := range e.cases {
		if c.Cause != asSet {
			continue
		}
		for _, w := range c.Worlds {
			for _, t := range w {
				n++
				if t.Seen[k] {
					seen++
				}
			}
		}
	}
	if seen < n/2 {
		return
	}
	v := e.verdicts[at]
	e.verdicts = slices.Insert(slices.Delete(e.verdicts, at, at+1), 0, v)
}

// first puts the causes that cannot be told apart before all others.
func first(of, tied []blame.Verdict) []blame.Verdict {
	out := slices.Clone(tied)
	for _, v := range of {
		if !slices.Contains(tied, v) {
			out = append(out, v)
		}
	}
	return out
}

func capital(s string) string { return string(s[0]-'a'+'A') + s[1:] }

// foretold is what a cause lets expect, beside what was seen.
func (e *examination) foretold(cause string) string {
	var d []float64
	share := make([]float64, len(chips))
	n := 0.0
	for i, c := range e.cases {
		if c.Cause != cause || e.shares[i] < 0.2*e.share(cause) {
			continue
		}
		for _, w := range c.Worlds {
			for _, t := range w {
				d = append(d, math.Exp(t.Read[0]))
				for k, s := range t.Seen {
					if s {
						share[k]++
					}
				}
				n++
			}
		}
	}
	if n == 0 {
		return "it foretells nothing that was read"
	}
	at := 0
	for k := range share {
		if share[k] > share[at] {
			at = k
		}
	}
	out := fmt.Sprintf("it foretells about %s, and %s in %.0f of 100 throws", say.M(order.Median(d), 1), chips[at], 100*share[at]/n)
	if v := e.readings(Distance); len(v) > 0 {
		out += fmt.Sprintf("; the log has %s", say.M(order.Median(v), 1))
	}
	if slices.Contains(symptoms, e.out.Symptom) {
		out += fmt.Sprintf(", %s in %d of %d", e.out.Symptom, e.out.Seen, e.out.Of)
	}
	return out
}

// better is by how much, as a part, a remedy must be predicted to be better.
const better = 0.02

// offer is a remedy with what it is predicted to be worth.
type offer struct {
	motion.Remedy
	worth float64
	short string
}

// treat finds what to do: of the first causes' cures those that are predicted to help, by
// the steps that help most; nothing that makes it worse. It tells the first in short.
func (e *examination) treat() (short string) {
	now := e.fly(changed{knobs: e.knobs, throw: e.throw}, "")
	base := worth(now)
	var offers []offer
	tried := map[string]bool{}
	for i, v := range e.verdicts {
		if i > 2 || i > 0 && v.Share < 0.08 {
			break
		}
		for _, c := range cures(v.Cause, e.out.Symptom) {
			key := fmt.Sprint(c.knob, c.sign, c.speed, c.level)
			if tried[key] {
				continue
			}
			tried[key] = true
			if o, ok := e.offer(c, v.Cause, now, base); ok {
				offers = append(offers, o)
			}
		}
	}
	if len(offers) == 0 {
		return ""
	}
	// The first cause's own cure goes first unless another is worth clearly more.
	best := 0
	for i, o := range offers {
		if o.worth > base+1.5*(offers[best].worth-base) {
			best = i
		}
	}
	first := offers[best]
	others := slices.Delete(offers, best, best+1)
	slices.SortStableFunc(others, func(a, b offer) int { return cmp.Compare(b.worth, a.worth) })
	e.out.Remedy = &first.Remedy
	seen := map[string]bool{first.School: true}
	for _, o := range others {
		if !seen[o.School] {
			seen[o.School] = true
			e.out.Others = append(e.out.Others, o.Remedy)
		}
	}
	return first.short
}

// offer makes a remedy of a cure, by as many steps as help most.
func (e *examination) offer(c cure, cause string, now []flight.Thrown, base float64) (offer, bool) {
	if c.knob == "" {
		return e.thrown(c, cause, now, base)
	}
	if e.w.Pattern.KnobIndex(c.knob) < 0 {
		return offer{}, false
	}
	step := e.w.step(e.knobs, c.knob)
	best, gain := motion.Change{}, 0.0
	var after []flight.Thrown
	for n := 1; n <= mostSteps; n++ {
		ch := e.w.Change(e.knobs, c.knob, c.sign*step*float64(n))
		if math.Abs(ch.To-ch.From) < step*(float64(n)-0.01) {
			break
		}
		f := e.fly(changed{knobs: toys.With(e.knobs, ch), throw: e.throw}, "")
		// One step more must be worth it: too much is worse than too little.
		if v := worth(f) - base; v > 1.1*gain && v > better*math.Abs(base) {
			best, gain, after = ch, v, f
		}
	}
	if after == nil {
		return offer{}, false
	}
	do, where, short := e.madeWords(c.knob, best.From, best.To)
	r := motion.Remedy{Changes: []motion.Change{best}, Do: do, Where: where, School: c.school, Now: outlookOf(now), After: outlookOf(after),
		Why: e.why(cause), Then: fmt.Sprintf("It should come to about %s.", say.M(flight.Told(after).Distance.Middle, 1)), Against: "If it then goes wrong the other way, take half of it back; if nothing changes, it is another cause."}
	if slices.Contains([]string{"curl", "rudder", "curl_uneven"}, c.knob) {
		edge := map[string]string{"curl": "both tail edges", "rudder": "the keel's tail", "curl_uneven": "one tail edge over the other"}[c.knob]
		r.Bend = &motion.Bend{Edge: edge, DepthMM: e.value("curl_depth"), FromDeg: best.From, ToDeg: best.To}
	}
	return offer{r, base + gain, short}, true
}

// thrown is a remedy that leaves the toy alone and throws it otherwise.
func (e *examination) thrown(c cure, cause string, now []flight.Thrown, base float64) (offer, bool) {
	t, rid := e.throw, ""
	var do, short string
	switch {
	case c.speed:
		t.SpeedMS = e.w.ownSpeed(e.m)
		if cause == thrownHard || cause == thrownSlow {
			rid = cause
		} else if math.Abs(t.SpeedMS-e.throw.SpeedMS) < 0.15*t.SpeedMS {
			return offer{}, false
		}
		do = fmt.Sprintf("Throw at about %.1f m/s", t.SpeedMS)
		short = map[bool]string{true: "Throw it faster.", false: "Throw it gently."}[cause == thrownSlow]
	default:
		rid = cause
		do, short = fmt.Sprintf("Let it go at %.0f°", t.AngleDeg), "Throw it level, a little down."
	}
	f := e.fly(changed{knobs: e.knobs, throw: t, rid: rid}, "")
	v := worth(f)
	if v-base < better*math.Abs(base) {
		return offer{}, false
	}
	return offer{motion.Remedy{Changes: []motion.Change{}, Do: do, Where: "and leave the toy as it is.", School: c.school, Now: outlookOf(now), After: outlookOf(f), Why: e.why(cause),
		Then: fmt.Sprintf("It should come to about %s.", say.M(flight.Told(f).Distance.Middle, 1)), Against: "If it goes as before, it was not the throw."}, v, short}, true
}

// ownSpeed is the speed that is offered for a toy.
func (w *Workbench) ownSpeed(m *flight.Model) float64 {
	q := *w
	q.Throw.SpeedMS = 0
	return q.throw(m).SpeedMS
}

func outlookOf(f []flight.Thrown) *motion.Outlook {
	s := flight.Told(f)
	return &motion.Outlook{Outcome: distanceOf(s), Mode: string(s.Usual())}
}

// why is the cause that a remedy is for, with how sure it is.
func (e *examination) why(cause string) string {
	if cause == asSet {
		return "As it is set it is predicted to do what you saw."
	}
	return fmt.Sprintf("By what you logged the likeliest cause is this: %s (%.0f of 100).", cause, 100*e.share(cause))
}

// Throws that may tell two causes apart: by their speed and angle.
var testThrows = []struct {
	words        string
	speed, angle float64
}{{"gently, at about %.1f m/s", 0.75, 0}, {"harder, at about %.1f m/s", 1.35, 0}, {"upwards, about 15°, at %.1f m/s", 1, 15}}

// apart is by how much, as a part, middle distances must differ to tell causes apart.
const apart = 0.15

// test is a throw, or a look, that tells the first two causes apart.
func (e *examination) test(tied []blame.Verdict) string {
	a, b := tied[0].Cause, tied[1].Cause
	if sides[a] && sides[b] {
		return fmt.Sprintf("Throws do not tell these apart: look. Hold it against the angle card from behind, and type in both sides at Set: is it that %s, or that %s?", a, b)
	}
	best, most := "", apart
	for _, q := range testThrows {
		t := e.throw
		t.SpeedMS, t.AngleDeg = t.SpeedMS*q.speed, t.AngleDeg+q.angle
		c := changed{knobs: e.knobs, throw: t}
		fa, fb := e.fly(c, a), e.fly(c, b)
		if len(fa) == 0 || len(fb) == 0 {
			continue
		}
		da, db := flight.Told(fa).Distance.Middle, flight.Told(fb).Distance.Middle
		if d := math.Abs(math.Log(math.Max(da, 0.3) / math.Max(db, 0.3))); d > most {
			most = d
			best = fmt.Sprintf("To tell them apart, throw it three times "+q.words+". About %s speaks for the first, about %s for the second.", t.SpeedMS, say.M(da, 1), say.M(db, 1))
		}
	}
	if best == "" {
		return "No throw tells them apart: note time and side as well, or measure the toy against the angle card."
	}
	return best
}
