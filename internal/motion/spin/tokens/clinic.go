package tokens

import (
	"context"
	"fmt"
	"math"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/toys"
	"tussock/internal/order"
	"tussock/internal/say"
)

// The clinic: from how it leaned, rubbed and slowed to the smallest change that should help.

// What can be noted.
const (
	steady  = "spun steadily"
	level   = "hung level"
	leaned  = "leaned"
	fell    = "fell over at once"
	rubbed  = "rubbed"
	wobbled = "wobbled"
	short   = "slowed soon"
	off     = "slid off"
	missed  = "the start failed"
)

// symptoms call for a cure, the one that must go first where several were seen as often.
var symptoms = []string{off, fell, rubbed, leaned, wobbled, short}

// Examine finds what to change after trials at knob values.
func (w *Workbench) Examine(ctx context.Context, knobs map[string]float64, log []motion.Noted) (motion.Finding, error) {
	out, _, sick := motion.Look(log, symptoms, w.way.Words.One, w.way.Words.Many)
	s, err := w.at(ctx, knobs)
	if err != nil {
		return out, err
	}
	e := &examination{w: w, s: s, knobs: knobs, log: log, out: &out, leans: leansOf(log)}
	if len(log) < motion.Enough {
		return out, nil
	}
	// A lean that was read counts, whether it was tapped or not.
	if !sick && e.leans.n >= motion.Enough && e.leans.known() && e.leanMM() > goodMM {
		sick, out.Symptom, out.Seen, out.Clear = true, leaned, e.leans.n, false
	}
	if !sick {
		e.enough()
		return out, ctx.Err()
	}
	switch out.Symptom {
	case leaned, wobbled, off:
		e.lean()
	case fell:
		e.falls()
	case rubbed:
		e.rubs()
	case short:
		e.slows()
	}
	out.Weigh()
	return out, ctx.Err()
}

type examination struct {
	w     *Workbench
	s     set
	knobs map[string]float64
	log   []motion.Noted
	out   *motion.Finding
	leans leans
}

// leans are the readings of which way it leans: their mean direction, how well that is
// known, and how far it leans, where that was read.
type leans struct {
	n        int
	dir      geom.Vec // unit
	sure     float64  // standard error of the direction, radians
	deg      float64  // median; 0 when none was read
	degError float64
}

// What one tap on the clock may be off by, and one lean that is read, at least.
const tapRad, leanError = 0.17, 1.0

func leansOf(log []motion.Noted) leans {
	out := leans{}
	var sum geom.Vec
	for _, h := range motion.Values(log, Towards) {
		sum = sum.Add(fromClock(h))
		out.n++
	}
	if out.n == 0 || sum.Len() < 1e-6 {
		return out
	}
	out.dir = sum.Unit()
	scatter := math.Sqrt(math.Max(0, -2*math.Log(math.Min(1, sum.Len()/float64(out.n)))))
	out.sure = math.Max(tapRad, scatter) / math.Sqrt(float64(out.n))
	if v := motion.Values(log, Lean); len(v) > 0 {
		r := motion.RangeOf(v)
		out.deg = r.Middle
		out.degError = math.Max(leanError, (r.Hi-r.Lo)/2.563) / math.Sqrt(float64(len(v)))
	}
	return out
}

// known tells whether the readings agree on a side.
func (l leans) known() bool { return l.n > 0 && l.sure < math.Pi/6 }

// leanMM is how far the centre of mass lies beside the point by the lean that was read.
func (e *examination) leanMM() float64 { return e.offsetAt(geom.Rad(e.leans.deg)) }

// offsetAt is the offset that leans by an angle, mm: at rest on a pin, soon after the start
// on a point.
func (e *examination) offsetAt(tau float64) float64 {
	if e.s.Hangs {
		return math.Max(0.5, e.s.DepthMM) * math.Tan(tau)
	}
	unit, ok := e.s.body().Wobble(1e-3, leanAt*2*math.Pi*e.w.start.turns)
	if !ok {
		return 0
	}
	return tau / unit
}

// hidden is the shift of the weight that the readings show beside what is computed, and how
// well it is known, mm.
func (e *examination) hidden() (d geom.Vec, sd float64, ok bool) {
	if !e.leans.known() || e.leans.deg == 0 {
		return d, 0, false
	}
	mm := e.leanMM()
	real := e.leans.dir.Scale(mm)
	per := e.offsetAt(geom.Rad(e.leans.deg+e.leans.degError)) - mm
	sd = math.Hypot(mm*e.leans.sure, per)
	return real.Sub(e.s.Off), sd, true
}

func (e *examination) seen() string {
	return fmt.Sprintf("%s in %d of %d", e.out.Symptom, e.out.Seen, e.out.Of)
}

func (e *examination) clockSeen() string {
	if e.leans.n == 0 {
		return e.seen()
	}
	says := fmt.Sprintf("Leaned towards %s in %d readings", oClock(clock(e.leans.dir)), e.leans.n)
	if e.leans.deg > 0 {
		says += fmt.Sprintf(", by %s°", say.Decimal(e.leans.deg, 1))
	}
	return says
}

// lean finds whether the point is off as computed, or the weight lies elsewhere than it is
// computed; and proposes both remedies.
func (e *examination) lean() {
	s := e.s
	d, sd, known := e.hidden()
	real := s.Off
	uneven := known && d.Len() > surely*sd && d.Len() > unevenMM
	grams := 0.0
	if uneven {
		real = s.Off.Add(d)
		grams = s.MassG * d.Len() / math.Max(1, s.RadiusMM)
	}
	law := fmt.Sprintf("tan τ = offset / depth: %s over %s.", small(real.Len()), say.MM(math.Max(0.5, s.DepthMM), 1))
	if !s.Hangs {
		law = fmt.Sprintf("Weight and centrifugal force in balance, at %s turns a second: %s of offset lean it by %s°.", say.Decimal(leanAt*e.w.start.turns, 1), small(real.Len()), say.Decimal(geom.Deg(e.leanFor(real)), 1))
	}
	computed := motion.Cause{Words: "The point lies off the balance, as folded", Law: law, Log: e.clockSeen(), Weight: 1}
	if s.Off.Len() > goodMM {
		computed.Weight = 2
	} else {
		computed.Weight = 0.4
	}
	side := oClock(clock(real))
	e.out.Confidence = motion.Possible
	e.out.Title = fmt.Sprintf("It leans towards %s. Bring the point %s that way.", side, say.MM(real.Len(), 1))
	switch {
	case uneven:
		side = oClock(clock(d))
		e.out.Confidence = motion.Likely
		e.out.Title = fmt.Sprintf("It is heavier towards %s than folded. Move the point %s.", side, vector(real))
		computed.Weight = 0.3
		e.out.Causes = append(e.out.Causes, motion.Cause{Words: fmt.Sprintf("Weight uneven: %s g too much towards %s", say.Decimal(grams, 3), side),
			Law: fmt.Sprintf("m = M d / r: the balance lies %s from where it is computed, %s g in all, the rim %s out: %s %% of the mass.", say.MM(d.Len(), 2), say.Decimal(s.MassG, 2), say.MM(s.RadiusMM, 0), say.Decimal(100*grams/s.MassG, 1)),
			Log: e.clockSeen(), Weight: 2.5})
	case known && s.Off.Len() > goodMM:
		e.out.Confidence = motion.Likely
	case !known:
		computed.Log += ". Which way was not noted, or not the same way: tap it on the clock."
		e.out.Test = "Set it up three times and tap each time which way it leans."
		if s.Off.Len() < goodMM {
			e.out.Confidence = motion.Unsure
			e.out.Title = "It leans, and by its folds it should not. Note which way."
		}
	}
	if e.out.Symptom == wobbled {
		e.out.Causes = append(e.out.Causes, motion.Cause{Words: "Edges fan on one side", Law: "Each edge that stands up beats the air once a turn.", Log: e.seen(), Weight: 0.6})
	}
	e.out.Causes = append(e.out.Causes, computed)
	if !uneven && real.Len() < goodMM && real.Len() < surely*unevenMM {
		e.test()
		return
	}
	e.moveSupport(real, d, uneven)
	e.moveWeight(real)
	if uneven {
		e.trim(d, grams)
	}
}

// surely is by how many standard errors a shift must stand out.
const surely = 2.0

// small is an offset in words: what is next to nothing says so.
func small(mm float64) string {
	if mm < foundMM {
		return "under " + say.MM(foundMM, 2)
	}
	return say.MM(mm, 2)
}

// leanFor is the lean of an offset, radians.
func (e *examination) leanFor(v geom.Vec) float64 {
	if e.s.Hangs {
		return math.Atan2(v.Len(), math.Max(0.5, e.s.DepthMM))
	}
	tau, ok := e.s.body().Wobble(v.Len()*1e-3, leanAt*2*math.Pi*e.w.start.turns)
	if !ok {
		return math.Pi / 4
	}
	return tau
}

// shifted is the outlook with the weight so far beside the point.
func (e *examination) shifted(by geom.Vec) *motion.Outlook {
	s := e.s
	s.Off = by
	all := e.w.spread(s)
	return &motion.Outlook{Outcome: all.first(s.Hangs), Mode: all.usual()}
}

// moveSupport brings the point under the weight.
func (e *examination) moveSupport(real, d geom.Vec, uneven bool) {
	at := e.s
	at.Off = real
	changes := e.w.moveSupport(at)
	where := "bend the end of the point over to that side; its root stays."
	if e.s.Hangs {
		where = "set the pin there, or deepen the notch to that side."
	}
	if uneven { // what was found is used from now on
		for _, q := range []struct {
			knob string
			by   float64
		}{{KnobFoundRight, d.X}, {KnobFoundUp, d.Y}} {
			c := e.w.Change(e.knobs, q.knob, math.Round(10*q.by)/10)
			if c.From != c.To {
				changes = append(changes, c)
			}
		}
	}
	e.out.Propose(motion.Remedy{Changes: changes, Do: "Move the point " + vector(real), Where: where, School: "move the support",
		Why:  fmt.Sprintf("The weight lies %s from it.", vector(real)),
		Then: "It should stand level, and wobble less.", Against: "If it now leans to the other side, go back half the way.",
		Now: e.shifted(real), After: e.shifted(geom.Vec{})})
}

// moveWeight is the fold that brings the weight over the point.
func (e *examination) moveWeight(real geom.Vec) {
	for i, a := range e.s.answers(real.Scale(-1)) {
		if i == 2 || math.Abs(a.mm) < leastFoldMM {
			break
		}
		e.out.Propose(motion.Remedy{Changes: []motion.Change{}, Do: fmt.Sprintf("Fold %s again, %s of its mark", e.w.stepWords(e.s, a.step), told(a.mm)),
			Where: "the point stays where it is.", School: "move the weight",
			Why:  fmt.Sprintf("1 mm past its mark moves the balance %s; %s is left.", vector(a.perMM), say.MM(a.left.Len(), 1)),
			Then: "It should stand level.", Against: "If it leans as before, the layers did not follow: ease them as well.",
			Now: e.shifted(real), After: e.shifted(a.left.Scale(-1))})
	}
}

// leastFoldMM is what a hand can fold otherwise on purpose.
const leastFoldMM = 0.2

// trim takes away or adds weight at the rim.
func (e *examination) trim(d geom.Vec, grams float64) {
	e.out.Propose(motion.Remedy{Changes: []motion.Change{}, Do: fmt.Sprintf("Stick %s g of tape at the rim, towards %s", say.Decimal(grams, 3), oClock(clock(d.Scale(-1)))),
		Where: "opposite of the heavy side, as far out as it goes.", School: "move the weight", Why: "It weighs as much as is too much on the other side.",
		Then: "It should stand level.", Against: "If it leans the other way now, cut half of it off.", Now: e.shifted(e.s.Off.Add(d)), After: e.shifted(e.s.Off)})
}

// test asks for a look before anything is changed.
func (e *examination) test() {
	e.out.Confidence = motion.Unsure
	e.out.Propose(motion.Remedy{Changes: []motion.Change{}, Do: "Find the balance on a pencil", Where: "turn it over, slide it until it lies level, and type where that is under Set.", School: "test",
		Why: "By its folds the weight lies over the point.", Then: "What is found is used from then on.", Against: "If it lies where it is computed, the table slopes."})
}

// falls: it does not stand, too slow or too far off.
func (e *examination) falls() {
	s := e.s
	need, has := perTurn(s.body().Stands()), e.w.start.turns
	e.out.Confidence = motion.Possible
	e.out.Title = "It falls at once. Start it faster, or lower its weight."
	e.out.Causes = append(e.out.Causes,
		motion.Cause{Words: "Too slow to stand", Law: fmt.Sprintf("ω ≥ 2 √(I m g h) / I: %s turns a second; the start makes about %s.", say.Decimal(need, 1), say.Decimal(has, 0)), Log: e.seen(), Weight: math.Min(3, need/has)},
		motion.Cause{Words: "The weight lies beside the point", Law: fmt.Sprintf("%s off, and falls to that side.", small(s.Off.Len())), Log: e.clockSeen(), Weight: math.Min(2, s.Off.Len())})
	if s.Off.Len() > goodMM {
		e.moveSupport(s.Off, geom.Vec{}, false)
	}
	if c, by, ok := e.w.better(e.knobs, s, func(t set) float64 { return -t.body().Stands() }); ok {
		after := e.w.outlookOf(c, e.knobs)
		e.out.Propose(motion.Remedy{Changes: []motion.Change{c}, Do: fmt.Sprintf("%s from %s to %s", c.Label, say.Value(c.From, c.Unit, 1), say.Value(c.To, c.Unit, 1)), Where: "the weight comes lower.", School: "lower the weight",
			Why: fmt.Sprintf("It then stands from %s turns a second on, instead of %s.", say.Decimal(perTurn(-by), 1), say.Decimal(need, 1)), Then: "It should stand longer.", Against: "If the rim rubs then, bend it up.",
			Now: e.shifted(s.Off), After: after})
	}
	e.out.Propose(motion.Remedy{Changes: []motion.Change{}, Do: "Spin it in the dimple of a bottle cap", Where: "dent it with a blunt nail; the point stays in the middle.", School: "the support",
		Why: "In a hollow a round tip rocks back.", Then: "It should start more easily.", Against: "If it falls there too, it is too slow."})
}

// better is the knob of the pattern whose next step does most for something; by is what
// that comes to.
func (w *Workbench) better(knobs map[string]float64, s set, of func(set) float64) (best motion.Change, by float64, ok bool) {
	by = of(s)
	for _, l := range w.Toys.Levers(knobs, nil) {
		if w.Bent[l.Name] {
			continue
		}
		for _, sign := range []float64{-1, 1} {
			c := w.Change(knobs, l.Name, sign*math.Max(l.Step, (l.Max-l.Min)/8))
			t, err := w.at(context.Background(), toys.With(knobs, c))
			if err != nil || c.From == c.To {
				continue
			}
			if v := of(t); v > by+1e-9 {
				best, by, ok = c, v, true
			}
		}
	}
	return best, by, ok
}

// outlookOf is the outlook after a change; nil when it cannot be folded.
func (w *Workbench) outlookOf(c motion.Change, knobs map[string]float64) *motion.Outlook {
	o, err := w.Outlook(context.Background(), toys.With(knobs, c))
	if err != nil {
		return nil
	}
	return &o
}

// rubs: a spot of the rim comes down to the table.
func (e *examination) rubs() {
	s := e.s
	all := e.w.spread(s)
	q := all.middle
	// Where somebody saw it rub counts more than where it is computed.
	at := s.Off
	if e.leans.known() {
		at = e.leans.dir
	}
	first, near := q.first, math.Inf(1)
	for i, r := range s.Rim {
		if d := r.At.Unit().Sub(at.Unit()).Len(); d < near && e.leans.known() {
			first, near = i, d
		}
	}
	q.first = first
	name := e.w.spotName(s, q)
	up := math.Max(1, rubClearMM-q.clear) + 2
	e.out.Confidence = motion.Possible
	if q.clear < 1 {
		e.out.Confidence = motion.Likely
	}
	e.out.Title = fmt.Sprintf("The rim rubs at %s. Bend it up there by %s.", name, say.MM(up, 1))
	e.out.Causes = append(e.out.Causes,
		motion.Cause{Words: "The rim hangs too low there", Law: fmt.Sprintf("Clearance = height − r sin τ: %s left, %s needed.", say.MM(q.clear, 1), say.MM(rubClearMM, 1)), Log: e.clockSeen(), Weight: 1 + math.Max(0, rubClearMM-q.clear)},
		motion.Cause{Words: "It leans to that side", Law: fmt.Sprintf("The weight lies %s beside the point.", small(s.Off.Len())), Log: e.clockSeen(), Weight: math.Min(2, s.Off.Len()/goodMM)})
	if first >= 0 && s.Rim[first].Knob != "" {
		c := e.w.Change(e.knobs, s.Rim[first].Knob, up)
		e.out.Propose(motion.Remedy{Changes: []motion.Change{c}, Do: fmt.Sprintf("Bend the rim up at %s by %s", name, say.MM(up, 1)), Where: "a soft curve, no crease.", School: "the rim",
			Why: fmt.Sprintf("By its folds it clears the table by %s there; seen from the side it does not.", say.MM(math.Max(0, q.clear), 1)), Then: "It should turn freely.", Against: "If another spot rubs then, it leans: see to the point.",
			Now: e.shifted(s.Off), After: e.w.outlookOf(c, e.knobs)})
	}
	if s.Off.Len() > goodMM/2 {
		e.moveSupport(s.Off, geom.Vec{}, false)
	}
	if c, by, ok := e.w.better(e.knobs, s, func(t set) float64 { return t.PointMM }); ok {
		e.out.Propose(motion.Remedy{Changes: []motion.Change{c}, Do: fmt.Sprintf("%s from %s to %s", c.Label, say.Value(c.From, c.Unit, 1), say.Value(c.To, c.Unit, 1)), Where: "the whole rim comes higher.", School: "raise the point",
			Why: fmt.Sprintf("The point then reaches %s down.", say.MM(by, 1)), Then: "It should turn freely, and need more speed to stand.", Against: "If it falls sooner, bend the rim up instead.",
			Now: e.shifted(s.Off), After: e.w.outlookOf(c, e.knobs)})
	}
}

// slows: it loses its speed sooner than it should.
func (e *examination) slows() {
	s := e.s
	now := e.w.spread(s).seconds.Middle
	c := e.w.Change(e.knobs, KnobEdges, 0.1-s.EdgesMM)
	after := e.w.outlookOf(c, e.knobs)
	pressed := s
	pressed.EdgesMM = 0.1
	gain := 1.0
	if now > 0 {
		gain = e.w.spread(pressed).seconds.Middle / now
	}
	slow := e.w.slowing(s)
	e.out.Confidence = motion.Possible
	e.out.Title = "It slows too soon. Press its loose edges flat."
	e.out.Causes = append(e.out.Causes,
		motion.Cause{Words: "Edges stand up and beat the air", Law: fmt.Sprintf("½ ρ C A r³ ω²: edges %s high make %s·10⁻⁹ N m s².", say.MM(s.EdgesMM, 1), say.Decimal(slow.Edges*1e9, 1)), Log: e.seen(), Weight: math.Max(0.1, gain-1) * 3},
		motion.Cause{Words: "The point rubs", Law: "⅔ μ m g a: rough or blunt points slow the last seconds.", Log: e.seen(), Weight: 0.4},
		motion.Cause{Words: "It wobbles", Law: fmt.Sprintf("%s of offset keep it leaning.", small(s.Off.Len())), Log: e.clockSeen(), Weight: math.Min(1, s.Off.Len())})
	if s.EdgesMM > 0.2 && after != nil && gain > 1 {
		e.out.Propose(motion.Remedy{Changes: []motion.Change{c}, Do: "Press all loose edges flat", Where: "with a nail, from the back, so that the face stays clean.", School: "less air",
			Why: fmt.Sprintf("It should spin %s times as long.", say.Decimal(gain, 2)), Then: "A longer, quieter spin.", Against: "If not, the point rubs: polish it.", Now: e.shifted(s.Off), After: after})
	}
	e.out.Propose(motion.Remedy{Changes: []motion.Change{}, Do: "Spin it on glass", Where: "a plate, or the pane of a frame.", School: "the support", Why: "Half the friction of wood; it shows whether the point is what slows it.",
		Then: "A longer spin.", Against: "If it is the same, the air slows it: press edges flat."})
}

// enough says when another round is worth less than what trials differ by anyway.
func (e *examination) enough() {
	v := motion.Values(e.log, Seconds)
	if e.s.Hangs || len(v) < motion.Enough || e.out.Title == "" {
		return
	}
	r := motion.RangeOf(v)
	scatter := (r.Hi - r.Lo) / 2.563
	gain := e.shifted(geom.Vec{}).Middle - e.shifted(e.s.Off).Middle
	if gain < scatter {
		e.out.Title = fmt.Sprintf("Stop here: a perfect point would add %s s, and your spins differ by %s s.", say.Decimal(math.Max(0, gain), 1), say.Decimal(order.Median([]float64{scatter}), 1))
		e.out.Clear = true
		return
	}
	e.out.Title = fmt.Sprintf("Another round pays: a perfect point would add %s s, your spins differ by %s s.", say.Decimal(gain, 1), say.Decimal(scatter, 1))
	e.out.Clear = false
	e.out.Confidence = motion.Possible
	e.out.Symptom, e.out.Seen = "spins shorter than it could", len(v)
	e.out.Causes = append(e.out.Causes, motion.Cause{Words: "The point lies off the balance", Law: fmt.Sprintf("%s off.", say.MM(e.s.Off.Len(), 2)), Log: e.clockSeen(), Weight: 1})
	e.moveSupport(e.s.Off, geom.Vec{}, false)
	e.moveWeight(e.s.Off)
}
