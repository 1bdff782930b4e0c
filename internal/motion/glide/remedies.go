package glide

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"tussock/internal/motion"
	"tussock/internal/motion/blame"
	"tussock/internal/motion/glide/flight"
	"tussock/internal/motion/toys"
	"tussock/internal/say"
)

// Remedies: what helps against the likeliest cause by the model itself, and what tells two
// causes apart.

// worthwhile is by how much, as a part, a remedy must be predicted to be better.
const worthwhile = 0.02

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
		if v := worth(f) - base; v > 1.1*gain && v > worthwhile*math.Abs(base) {
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
	if v-base < worthwhile*math.Abs(base) {
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
