package glide

import (
	"context"
	"fmt"
	"math"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/toys"
	"tussock/internal/say"
)

// The clinic: from what was seen of throws to the smallest change that should help.

// symptoms are the chips that call for a cure, the worst first where several were seen
// as often.
var symptoms = []string{"rolled", "looped", "dived", "stalled", "turned left", "turned right"}

// Examine finds what to change after throws at knob values.
func (w *Workbench) Examine(ctx context.Context, knobs map[string]float64, log []motion.Noted) (motion.Finding, error) {
	out, count, sick := motion.Look(log, symptoms, "throw", "throws")
	w = w.asked(ctx)
	m, err := w.Model(knobs)
	if err != nil {
		return out, err
	}
	if !sick {
		if out.Clear && count["dived"] > 0 && count["stalled"] > 0 {
			out.Title, out.Clear = "It dives and it stalls: throw more evenly first", false
		}
		return out, nil
	}
	e := examination{w, knobs, m, log, w.throw(m), &out}
	e.out.Confidence = motion.Possible
	if f := m.Fly(w.throw(m), w.Room, nil); e.agrees(f) {
		e.out.Confidence = motion.Likely
	}
	switch out.Symptom {
	case "dived":
		e.dived()
	case "stalled":
		e.stalled()
	case "looped":
		e.looped()
	case "rolled":
		e.rolled()
	default:
		e.turned()
	}
	out.Weigh()
	return out, ctx.Err()
}

type examination struct {
	w     *Workbench
	knobs map[string]float64
	m     *Model
	log   []motion.Noted
	throw Throw
	out   *motion.Finding
}

// agrees tells whether the model sees what was seen.
func (e examination) agrees(f Flight) bool {
	switch e.out.Symptom {
	case "dived":
		return f.Mode == Dive
	case "stalled":
		return f.Mode == Stalling
	case "looped":
		return f.Mode == Loop
	case "rolled":
		return f.Mode == Roll || f.Mode == SpiralLeft || f.Mode == SpiralRight
	case "turned left":
		return f.HeadingDeg < -10
	case "turned right":
		return f.HeadingDeg > 10
	}
	return false
}

func (e examination) value(knob string) float64 { return e.w.Value(e.knobs, knob) }

// with are the knobs after changes.
func (e examination) with(changes ...motion.Change) map[string]float64 {
	return toys.With(e.knobs, changes...)
}

func (e examination) change(knob string, by float64) motion.Change {
	return e.w.Change(e.knobs, knob, by)
}

// smallest is the least change of a knob, in steps, after which the throw is as wanted.
// ok is false when none within reach does. It is judged by throws out of the scatter, not by the one throw that is just as meant.
func (e examination) smallest(knob string, step float64, most int, want func(m *Model, share func(...Mode) float64) bool) (motion.Change, bool) {
	for n := 1; n <= most; n++ {
		c := e.change(knob, float64(n)*step)
		m, err := e.w.Model(e.with(c))
		if err != nil || math.Abs(c.To-c.From) < math.Abs(float64(n)*step)-1e-9 {
			return c, false
		}
		if want(m, e.shares(m)) {
			return c, true
		}
	}
	return e.change(knob, float64(most)*step), false
}

// judged is how many throws a change is judged by.
const judged = 40

// rest is the share of throws in which a symptom may still be left.
const rest = 0.35

// shares gives the share of scattered throws that fly in any of some modes.
func (e examination) shares(m *Model) func(...Mode) float64 {
	s := m.Spread(e.throw, e.w.Room, e.w.Scatter, judged)
	return func(modes ...Mode) float64 {
		n := 0
		for _, q := range modes {
			n += s.Modes[q]
		}
		return float64(n) / judged
	}
}

// outlook predicts throws out of the scatter.
func (e examination) outlook(knobs map[string]float64, t Throw) *motion.Outlook {
	m, err := e.w.Model(knobs)
	if err != nil {
		return nil
	}
	s := m.Spread(t, e.w.Room, e.w.Scatter, motion.Draws)
	return &motion.Outlook{Outcome: distanceOf(s), Mode: string(s.Usual())}
}

func (e examination) remedy(r motion.Remedy) motion.Remedy {
	r.Now, r.After = e.outlook(e.knobs, e.throw), e.outlook(e.with(r.Changes...), e.throw)
	return r
}

// lipMM is how high an edge of the curled depth stands at an angle.
func (e examination) lipMM(deg float64) float64 {
	return e.value("curl_depth") * math.Sin(geom.Rad(deg))
}

func signed(v float64, decimals int) string {
	s := fmt.Sprintf("%.*f", decimals, math.Abs(v))
	if v < 0 {
		return "−" + s
	}
	return "+" + s
}

// curlWords tell a change of both tail edges as a hand makes it.
func (e examination) curlWords(c motion.Change) (do, where string) {
	return say.Signed(e.lipMM(c.To)-e.lipMM(c.From), 1) + " on both sides",
		fmt.Sprintf("of the %s tail edge (%s°, to %.1f°). Nothing else this time.", say.MM(e.value("curl_depth"), 0), signed(c.To-c.From, 1), c.To)
}

func (e examination) trim() (Trim, bool) {
	t := e.m.Trims()
	if len(t) == 0 {
		return Trim{}, false
	}
	return t[0], true
}

func (e examination) seenWords() string {
	return fmt.Sprintf("%s in %d of %d throws", e.out.Symptom, e.out.Seen, e.out.Of)
}

const lawTrim = "Moments about the centre of mass balance at one angle of attack; at it, weight = ½ρV²S·C gives the speed."

func (e examination) dived() {
	e.out.Title = "It dives. Curl the tail up."
	t, trims := e.trim()
	v := e.throw.SpeedMS
	c, found := e.smallest("curl", 0.5, 16, func(m *Model, share func(...Mode) float64) bool {
		tr := m.Trims()
		return share(Dive) <= rest && len(tr) > 0 && tr[0].SpeedMS < 1.25*v
	})
	if e.out.Confidence == motion.Possible || !found {
		c = e.change("curl", 2) // the usual first step
	}
	do, where := e.curlWords(c)
	why := "With the tail edge flat a glider whose weight lies forward finds no balance short of a dive."
	balance := fmt.Sprintf("it has no steady glide now (curl %.1f°)", e.value("curl"))
	if trims {
		balance = fmt.Sprintf("it would balance at %.1f m/s and you throw at about %.1f", t.SpeedMS, v)
		why = fmt.Sprintf("It would balance at %.1f m/s and you throw at about %.1f. More curl lets it balance at less.", t.SpeedMS, v)
	}
	if e.out.Confidence == motion.Possible {
		why += " The model does not see the dive; this is the usual first step."
	}
	r := e.remedy(motion.Remedy{Changes: []motion.Change{c}, Do: do, Where: where, Why: why, School: "bend an edge",
		Then: "It should level out and come further.", Against: "If it then rises and drops, take back half."})
	e.out.Remedy = &r
	margin := e.m.Margin()
	e.out.Causes = append(e.out.Causes,
		motion.Cause{Words: "Too little tail curl", Law: lawTrim + " Now " + balance + ".", Log: e.seenWords(), Weight: 1 + math.Max(0, 4-e.value("curl"))/2},
		motion.Cause{Words: "Nose-heavy", Law: fmt.Sprintf("Static margin %.1f %% of the mean chord; over 10 %% it wants more than 8° of curl.", 100*margin), Log: e.seenWords(), Weight: math.Max(0.1, 10*margin)},
		motion.Cause{Words: "Thrown downwards or too slowly", Law: fmt.Sprintf("Under 0.7 of its trim speed it drops before it flies; you throw at about %.1f m/s.", v), Log: e.speedLog(), Weight: 0.3})
	if clip := e.value("clip"); clip > 0.05 {
		o := e.remedy(motion.Remedy{Changes: []motion.Change{e.change("clip", -math.Min(clip, 0.2))}, Do: fmt.Sprintf("−%.1f g at the nose", math.Min(clip, 0.2)), Where: "a lighter clip", School: "move the weight",
			Why: "Less weight in front lets the same curl hold the nose up.", Then: "It should level out.", Against: "If it then pitches up and drops, put it back."})
		e.out.Others = append(e.out.Others, o)
	}
	faster := e.throw
	if trims && t.SpeedMS > 1.1*v && t.SpeedMS < 9 {
		faster.SpeedMS = t.SpeedMS
		o := motion.Remedy{Changes: []motion.Change{}, Do: fmt.Sprintf("Throw at about %.0f m/s", t.SpeedMS), Where: "leave the toy as it is", School: "change the throw",
			Why: "At the speed it balances at, it needs no change.", Then: "It should fly straight on from the hand.", Against: "If it still drops at once, curl the tail."}
		o.Now, o.After = r.Now, e.outlook(e.knobs, faster)
		e.out.Others = append(e.out.Others, o)
	}
}

// speedLog is what readings say of the speed.
func (e examination) speedLog() string {
	var v []float64
	for _, t := range e.log {
		d, far := t.Value(Distance)
		if s, timed := t.Value(Time); far && timed && s > 0.2 {
			v = append(v, d/s)
		}
	}
	if len(v) == 0 {
		return "no throw has both distance and time, so its speed is not known"
	}
	return fmt.Sprintf("distance over time is %.1f m/s in the middle of %d throws", motion.RangeOf(v).Middle, len(v))
}

func (e examination) stalled() {
	e.out.Title = "It stalls. Take curl out of the tail."
	t, trims := e.trim()
	v := e.throw.SpeedMS
	c, found := e.smallest("curl", -0.5, 16, func(_ *Model, share func(...Mode) float64) bool { return share(Stalling) <= rest })
	if e.out.Confidence == motion.Possible || !found {
		c = e.change("curl", -2)
	}
	do, where := e.curlWords(c)
	law := lawTrim
	why := "Thrown faster than it balances it climbs, loses its speed and drops."
	if trims {
		law += fmt.Sprintf(" Now that is %.1f m/s; you throw at about %.1f.", t.SpeedMS, v)
		why = fmt.Sprintf("It balances at %.1f m/s; thrown at %.1f it climbs, loses its speed and drops. Less curl lets it balance faster.", t.SpeedMS, v)
	}
	r := e.remedy(motion.Remedy{Changes: []motion.Change{c}, Do: do, Where: where, Why: why, School: "bend an edge",
		Then: "It should stop rising and falling.", Against: "If it then dives, give half of it back."})
	e.out.Remedy = &r
	margin := e.m.Margin()
	e.out.Causes = append(e.out.Causes,
		motion.Cause{Words: "Too much tail curl", Law: law, Log: e.seenWords(), Weight: 0.4 + e.value("curl")/5},
		motion.Cause{Words: "Thrown too fast or upwards", Law: "Lift grows with V²: 1.2 times the trim speed has 1.4 times the weight.", Log: e.speedLog(), Weight: thrownFast(t, v)},
		motion.Cause{Words: "Tail-heavy", Law: fmt.Sprintf("Static margin %.1f %%; under −5 %% only steep angles are steady.", 100*margin), Log: e.seenWords(), Weight: math.Max(0.1, 0.5-10*margin)})
	if clip, ok := e.smallest("clip", 0.1, 6, func(_ *Model, share func(...Mode) float64) bool { return share(Stalling) <= rest }); ok {
		o := e.remedy(motion.Remedy{Changes: []motion.Change{clip}, Do: fmt.Sprintf("+%.1f g at the nose", clip.To-clip.From), Where: "a clip or tape on the keel", School: "move the weight",
			Why: "Weight in front holds the nose down without touching the wing.", Then: "It should stop rising and falling, and fly a little faster.", Against: "If it then dives, use half of it."})
		e.out.Others = append(e.out.Others, o)
	}
	if trims && v > 1.1*t.SpeedMS {
		slow := e.throw
		slow.SpeedMS = t.SpeedMS
		o := motion.Remedy{Changes: []motion.Change{}, Do: fmt.Sprintf("Throw at about %.0f m/s, level", t.SpeedMS), Where: "leave the toy as it is", School: "change the throw",
			Why: "At the speed it balances at, it neither climbs nor drops.", Then: "A slow, even glide.", Against: "If it still rises and drops, take curl out."}
		o.Now, o.After = r.Now, e.outlook(e.knobs, slow)
		e.out.Others = append(e.out.Others, o)
	}
}

func thrownFast(t Trim, v float64) float64 {
	if t.SpeedMS == 0 {
		return 0.3
	}
	return clamp(2*(v/t.SpeedMS-1), 0.1, 1.5)
}

func (e examination) looped() {
	e.out.Title = "It loops. Take half of the curl out."
	c, found := e.smallest("curl", -0.5, 24, func(_ *Model, share func(...Mode) float64) bool { return share(Loop, Tumble) <= rest/4 })
	if !found || e.out.Confidence == motion.Possible {
		c = e.change("curl", -math.Max(1, e.value("curl")/2))
	}
	do, where := e.curlWords(c)
	t, _ := e.trim()
	r := e.remedy(motion.Remedy{Changes: []motion.Change{c}, Do: do, Where: where, School: "bend an edge",
		Why:  fmt.Sprintf("The moment that lifts the nose grows with the square of the speed. It balances at %.1f m/s, you throw at about %.1f.", t.SpeedMS, e.throw.SpeedMS),
		Then: "It should climb less and come round no more.", Against: "If it then dives, give half of it back."})
	e.out.Remedy = &r
	e.out.Causes = append(e.out.Causes,
		motion.Cause{Words: "Much curl, thrown hard", Law: "Moment ~ V² · (curl − curl for this speed); over twice the trim speed it goes right round.", Log: e.seenWords(), Weight: 1},
		motion.Cause{Words: "Tail-heavy", Law: fmt.Sprintf("Static margin %.1f %%.", 100*e.m.Margin()), Log: e.seenWords(), Weight: math.Max(0.1, 0.4-8*e.m.Margin())})
	slow := e.throw
	slow.SpeedMS *= 0.7
	o := motion.Remedy{Changes: []motion.Change{}, Do: fmt.Sprintf("Throw at about %.1f m/s", slow.SpeedMS), Where: "leave the toy as it is", School: "change the throw",
		Why: "A third less speed halves what lifts the nose.", Then: "No loop.", Against: "If it still loops, take curl out."}
	o.Now, o.After = r.Now, e.outlook(e.knobs, slow)
	e.out.Others = append(e.out.Others, o)
}

func (e examination) rolled() {
	e.out.Title = "It rolls over. Lift the wings into a V."
	c := e.change("wing", -5)
	d := e.m.D
	r := e.remedy(motion.Remedy{Changes: []motion.Change{c}, Do: "5° up on both sides", Where: fmt.Sprintf("of the wings, seen from behind: a V of %.0f° each. Nothing else this time.", 90-c.To), School: "set the wings",
		Why:  fmt.Sprintf("A V rolls it back out of a slip (Clβ now %.3f, below 0 is good).", d.Clb),
		Then: "It should stay upright.", Against: "If it then wobbles from side to side, take half back."})
	e.out.Remedy = &r
	e.out.Causes = append(e.out.Causes,
		motion.Cause{Words: "Wings flat or hanging", Law: fmt.Sprintf("Roll from a slip is Clβ = %.3f: a V makes it more negative.", d.Clb), Log: e.seenWords(), Weight: clamp(0.5+20*d.Clb, 0.2, 2)},
		motion.Cause{Words: "Tail edges not alike", Law: fmt.Sprintf("1° apart rolls with Cl %.4f against damping of %.3f.", geom.Rad(d.Clda)/2, d.Clp), Log: e.unevenLog(), Weight: 0.5 + math.Abs(e.value("curl_uneven"))/2},
		motion.Cause{Words: "A wing is warped", Law: fmt.Sprintf("1° of twist apart rolls with Cl %.4f.", geom.Rad(d.ClTw)/2), Log: e.unevenLog(), Weight: 0.6 + math.Abs(e.value("twist"))/2})
	if u := e.value("curl_uneven"); math.Abs(u) > 0.5 {
		o := e.remedy(motion.Remedy{Changes: []motion.Change{e.change("curl_uneven", -u)}, Do: "Make both tail edges alike", Where: fmt.Sprintf("now %.1f° apart", math.Abs(u)), School: "bend an edge",
			Why: "Unlike edges lift one wing more than the other.", Then: "It should roll less.", Against: "If it rolls the other way, half was too much."})
		e.out.Others = append(e.out.Others, o)
	}
}

func (e examination) unevenLog() string {
	return fmt.Sprintf("measured: edges %.1f° apart, twist %.1f°, wings %.1f° apart", e.value("curl_uneven"), e.value("twist"), e.value("wing_uneven"))
}
