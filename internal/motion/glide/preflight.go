package glide

import (
	"fmt"
	"math"

	"tussock/internal/motion"
	"tussock/internal/motion/glide/air"
	"tussock/internal/motion/glide/flight"
	"tussock/internal/say"
)

// How far apart both sides may be before it shows in a throw: angles of the wings and of
// the edges, degrees; the nose; wings and fins as a part of their area; the balance aside, m.
const (
	wingsApart, edgesApart, noseAside = 2.0, 1.0, 1.0
	areaApart, balanceAside, hairM    = 0.02, 0.5e-3, 0.05e-3
)

// Beyond these a glider settles to no useful glide: static margin, and the angle of attack
// of its trim, degrees.
const leastMargin, mostMargin, steepTrim = -0.08, 0.15, 20.0

// preflight is what to look at before the first throw: what was measured or set of both
// sides, whether it is alike, and what puts it right.
func (w *Workbench) preflight(knobs map[string]float64, m *flight.Model) []motion.Check {
	v := func(name string) float64 { return w.Value(knobs, name) }
	out := []motion.Check{w.mirrored(m)}
	add := func(id, title string, ok bool, says, do string, fix ...motion.Change) {
		c := motion.Check{ID: id, Title: title, OK: ok, Says: says, Fix: []motion.Change{}}
		if !ok && len(fix) > 0 {
			c.Do, c.Fix = do, fix
		}
		out = append(out, c)
	}
	away := func(knob string) motion.Change { return w.Change(knobs, knob, -v(knob)) }
	nose := v("nose_side")
	add("nose", "Nose", math.Abs(nose) <= noseAside, straight(nose, "seen from above"), "Straighten the nose", away("nose_side"))
	mean, apart := 90-v("wing"), v("wing_uneven")
	says := fmt.Sprintf("left %.0f°, right %.0f° up", mean-apart/2, mean+apart/2)
	ok, fix := math.Abs(apart) <= wingsApart, away("wing_uneven")
	if !ok {
		says += fmt.Sprintf(": %.0f° apart rolls it", math.Abs(apart))
	} else if mean < 0 {
		says, ok, fix = says+": wings that hang roll it over", false, w.Change(knobs, "wing", mean)
	}
	add("v", "V of the wings", ok, says+".", "Set both wings alike", fix)
	curl, uneven := v("curl"), v("curl_uneven")
	add("edges", "Tail edges", math.Abs(uneven) <= edgesApart, fmt.Sprintf("left %.0f°, right %.0f° up.", curl-uneven/2, curl+uneven/2), "Make both edges alike", away("curl_uneven"))
	rudder := v("rudder")
	add("keel", "Keel's tail", math.Abs(rudder) <= repeatDeg, straight(rudder, "seen from behind")+" Bend it only against a turn.", "Straighten the keel's tail", away("rudder"))
	out = append(out, w.balanced(knobs, m))
	return out
}

// straight tells which way something is bent.
func straight(deg float64, seen string) string {
	switch {
	case math.Abs(deg) < 0.05:
		return "straight, " + seen + "."
	case deg > 0:
		return fmt.Sprintf("bent %.0f° to the right, %s.", deg, seen)
	}
	return fmt.Sprintf("bent %.0f° to the left, %s.", -deg, seen)
}

// mirrored compares wings, fins and weight of both sides, as folded.
func (w *Workbench) mirrored(m *flight.Model) motion.Check {
	var wings, fins [2]float64
	for _, s := range m.Shape.Strips {
		side := 0
		if s.Left.Lead.Y+s.Right.Lead.Y > 0 {
			side = 1
		}
		switch {
		case s.Part.Wing():
			wings[side] += s.Area() * 1e4
		case s.Part == air.Fin:
			fins[side] += s.Area() * 1e4
		}
	}
	alike := func(v [2]float64) bool { return math.Abs(v[0]-v[1]) <= areaApart*(v[0]+v[1])/2 }
	aside := m.Weight.CoM.Y
	c := motion.Check{ID: "symmetry", Title: "Left and right", Fix: []motion.Change{}, OK: alike(wings) && alike(fins) && math.Abs(aside) < balanceAside}
	c.Says = differ("wing", wings)
	if fins[0]+fins[1] > 0 {
		c.Says += ", " + differ("fin", fins)
	}
	if math.Abs(aside) < hairM {
		c.Says += ", balance in the middle, as folded."
	} else {
		c.Says += fmt.Sprintf(", balance %s from the middle, as folded.", say.MM(math.Abs(aside)*1e3, 1))
	}
	if !c.OK {
		c.Says += " It will lean to the heavier, turn to the smaller side."
	}
	return c
}

// differ tells by how much the areas of both sides do.
func differ(what string, v [2]float64) string {
	part := 100 * (v[1] - v[0]) / ((v[0] + v[1]) / 2)
	switch {
	case part > 0.5:
		return fmt.Sprintf("right %s %.0f %% larger", what, part)
	case part < -0.5:
		return fmt.Sprintf("left %s %.0f %% larger", what, -part)
	}
	return what + "s alike"
}

// balanced tells whether it settles to a glide.
func (w *Workbench) balanced(knobs map[string]float64, m *flight.Model) motion.Check {
	c := motion.Check{ID: "balance", Title: "Balance", OK: true, Fix: []motion.Change{}, Says: fmt.Sprintf("%s behind the nose, on a finger", say.MM(m.Weight.CoM.X*1e3, 0))}
	trims := m.Trims()
	heavier, lighter := w.Change(knobs, "clip", 0.3), w.Change(knobs, "clip", -math.Min(0.3, w.Value(knobs, "clip")))
	switch margin := m.Margin(); {
	case len(trims) == 0 || trims[0].AttackDeg > steepTrim || margin < leastMargin:
		c.OK, c.Do, c.Fix = false, "Put 0.3 g on the nose", []motion.Change{heavier}
		c.Says += ": too far back, it sinks with its nose up."
	case margin > mostMargin:
		c.OK = false
		c.Says += ": far ahead, it wants much curl and a fast throw."
		if lighter.To < lighter.From {
			c.Do, c.Fix = "Take weight from the nose", []motion.Change{lighter}
		}
	default:
		c.Says += fmt.Sprintf("; it settles to %.1f m/s.", trims[0].SpeedMS)
	}
	return c
}
