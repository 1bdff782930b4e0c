package glide

import (
	"fmt"
	"math"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/motion/glide/flight"
	"tussock/internal/say"
)

// Faults: what there may be of a glider or of a throw that was not meant. The model is run
// with each, and what was logged tells which is the likeliest.

// The causes.
const (
	asSet      = "as it is set"
	edgesDown  = "tail edges lower than meant"
	edgesUp    = "tail edges higher than meant"
	noseHeavy  = "nose-heavy"
	tailHeavy  = "tail-heavy"
	thrownHard = "thrown too hard"
	thrownSlow = "thrown too slowly"
	thrownUp   = "thrown upwards"
	thrownDown = "thrown downwards"
	keelRight  = "the keel's tail is bent to the right"
	keelLeft   = "the keel's tail is bent to the left"
	rightEdge  = "the right tail edge stands higher"
	leftEdge   = "the left tail edge stands higher"
	rightTwist = "the right wing's front edge stands higher"
	leftTwist  = "the left wing's front edge stands higher"
	rightWing  = "the right wing is set higher"
	leftWing   = "the left wing is set higher"
	noseRight  = "the nose is bent to the right"
	noseLeft   = "the nose is bent to the left"
	hanging    = "the wings hang"
)

// fault is one of a size: a knob that is off by some degrees, or the throw, or the weight.
type fault struct {
	cause string
	knob  string
	by    float64 // what the knob is off by
	speed float64 // factor on the speed of the throw, 0 for none
	angle float64 // degrees on its angle
	aftMM float64 // by which its weight lies further back
	prior float64
}

// size is by how much it is off, for the mean of several.
func (f fault) size() float64 {
	switch {
	case f.knob != "":
		return f.by
	case f.speed > 0:
		return f.speed
	case f.aftMM != 0:
		return f.aftMM
	}
	return f.angle
}

// faults are all that are thought of, small ones more usual than large ones.
func faults() []fault {
	out := []fault{{cause: asSet, prior: 5}}
	add := func(cause string, sizes []float64, as func(v, prior float64) fault) {
		for i, v := range sizes {
			f := as(v, 1/(1+0.5*float64(i))/float64(len(sizes)))
			f.cause = cause
			out = append(out, f)
		}
	}
	knob := func(name string) func(v, prior float64) fault {
		return func(v, prior float64) fault { return fault{knob: name, by: v, prior: prior} }
	}
	aft := func(v, prior float64) fault { return fault{aftMM: v, prior: prior} }
	speed := func(v, prior float64) fault { return fault{speed: v, prior: prior} }
	angle := func(v, prior float64) fault { return fault{angle: v, prior: prior} }
	add(edgesDown, []float64{-4, -8}, knob("curl"))
	add(edgesUp, []float64{4, 8}, knob("curl"))
	add(noseHeavy, []float64{-4, -8}, aft)
	add(tailHeavy, []float64{3, 6}, aft)
	add(thrownHard, []float64{1.4, 1.9}, speed)
	add(thrownSlow, []float64{0.7, 0.5}, speed)
	add(thrownUp, []float64{15, 28}, angle)
	add(thrownDown, []float64{-12, -22}, angle)
	add(keelRight, []float64{3, 7}, knob("rudder"))
	add(keelLeft, []float64{-3, -7}, knob("rudder"))
	add(rightEdge, []float64{3, 7}, knob("curl_uneven"))
	add(leftEdge, []float64{-3, -7}, knob("curl_uneven"))
	add(rightTwist, []float64{1.5, 3}, knob("twist"))
	add(leftTwist, []float64{-1.5, -3}, knob("twist"))
	add(rightWing, []float64{8, 16}, knob("wing_uneven"))
	add(leftWing, []float64{-8, -16}, knob("wing_uneven"))
	add(noseRight, []float64{6, 12}, knob("nose_side"))
	add(noseLeft, []float64{-6, -12}, knob("nose_side"))
	add(hanging, []float64{12, 20}, func(v, prior float64) fault { return fault{knob: "wing", by: v, prior: prior / 8} })
	return out
}

// sides are the causes that make it turn.
var sides = map[string]bool{keelRight: true, keelLeft: true, rightEdge: true, leftEdge: true, rightTwist: true, leftTwist: true, rightWing: true, leftWing: true, noseRight: true, noseLeft: true}

// kindOf is what causes do the same as this one, so that no throw tells them apart: those
// that turn it to one side, those that hold its nose down, or up.
func kindOf(cause string) string {
	switch cause {
	case edgesDown, noseHeavy, thrownDown:
		return "nose down"
	case edgesUp, tailHeavy:
		return "nose up"
	}
	if sides[cause] {
		return "turns"
	}
	return ""
}

// law is what lies behind a cause, with the numbers of this toy.
func law(cause string, m *flight.Model, t flight.Throw) string {
	trim := "it settles to no steady glide"
	if tr := m.Trims(); len(tr) > 0 {
		trim = fmt.Sprintf("it settles to %.1f m/s, thrown at %.1f", tr[0].SpeedMS, t.SpeedMS)
	}
	d := m.D
	switch cause {
	case edgesDown, edgesUp:
		return fmt.Sprintf("Moments about the centre of mass balance at one angle of attack, and the edges set it: as set, %s.", trim)
	case noseHeavy, tailHeavy:
		return fmt.Sprintf("Static margin %s %% of the mean chord as folded, good to 3.", say.Decimal(100*m.Margin(), 1))
	case thrownHard, thrownSlow:
		return fmt.Sprintf("Lift grows with the square of the speed: %s.", trim)
	case thrownUp, thrownDown:
		return "A path that starts steep swings before it settles."
	case keelRight, keelLeft:
		return fmt.Sprintf("1° of the keel's tail gives a yawing moment of %s, as a coefficient of the wing.", say.Decimal(geom.Rad(d.CnRud), 4))
	case rightEdge, leftEdge:
		return fmt.Sprintf("1° apart gives a rolling moment of %s and a yawing moment of %s, as coefficients of the wing.", say.Decimal(geom.Rad(d.Clda)/2, 4), say.Decimal(geom.Rad(d.Cnda)/2, 4))
	case rightTwist, leftTwist:
		return fmt.Sprintf("1° of twist apart gives a rolling moment of %s, as a coefficient of the wing.", say.Decimal(geom.Rad(d.ClTw)/2, 4))
	case rightWing, leftWing:
		return "The wing that stands steeper carries less."
	case noseRight, noseLeft:
		return fmt.Sprintf("1° of the nose yaws with Cn %.4f.", geom.Rad(d.CnNos))
	case hanging:
		return fmt.Sprintf("Roll out of a slip is Clβ = %.3f as set: a V makes it more negative, hanging wings less.", d.Clb)
	}
	return "Thrown as meant, a toy as it is set does so too: " + trim + "."
}

// cure is one way against a cause: a knob by steps that a hand can make, or the throw.
type cure struct {
	knob   string
	sign   float64
	speed  bool // throw it at its own speed
	level  bool // throw it as it is offered, a little down
	school string
}

// cures of a cause, the nearest first; for what is as set, by what was seen.
func cures(cause, symptom string) []cure {
	up, down := cure{knob: "curl", sign: 1, school: "bend an edge"}, cure{knob: "curl", sign: -1, school: "bend an edge"}
	lighter, heavier := cure{knob: "clip", sign: -1, school: "move the weight"}, cure{knob: "clip", sign: 1, school: "move the weight"}
	own, level := cure{speed: true, school: "change the throw"}, cure{level: true, school: "change the throw"}
	turn := func(knob string, sign float64, keel float64) []cure {
		out := []cure{{knob: knob, sign: sign, school: "take the cause away"}}
		return append(out, cure{knob: "rudder", sign: keel, school: "bend the keel"})
	}
	switch cause {
	case edgesDown:
		return []cure{up, own, lighter}
	case edgesUp:
		return []cure{down, heavier, own}
	case noseHeavy:
		return []cure{lighter, up, own}
	case tailHeavy:
		return []cure{heavier, down}
	case thrownHard, thrownSlow:
		return []cure{own, down, up}
	case thrownUp, thrownDown:
		return []cure{level, up, down}
	case keelRight:
		return []cure{{knob: "rudder", sign: -1, school: "bend the keel"}}
	case keelLeft:
		return []cure{{knob: "rudder", sign: 1, school: "bend the keel"}}
	case rightEdge:
		return turn("curl_uneven", -1, side(symptom))
	case leftEdge:
		return turn("curl_uneven", 1, side(symptom))
	case rightTwist:
		return turn("twist", -1, side(symptom))
	case leftTwist:
		return turn("twist", 1, side(symptom))
	case rightWing:
		return turn("wing_uneven", -1, side(symptom))
	case leftWing:
		return turn("wing_uneven", 1, side(symptom))
	case noseRight:
		return turn("nose_side", -1, side(symptom))
	case noseLeft:
		return turn("nose_side", 1, side(symptom))
	case hanging:
		return []cure{{knob: "wing", sign: -1, school: "set the wings"}}
	}
	switch symptom {
	case "dived", motion.Shorter:
		return []cure{up, own, lighter}
	case "stalled", "looped":
		return []cure{down, heavier, own}
	case "rolled":
		return []cure{{knob: "wing", sign: -1, school: "set the wings"}, {knob: "wing", sign: 1, school: "set the wings"}, down, own}
	case "turned left", "turned right":
		out := []cure{{knob: "rudder", sign: side(symptom), school: "bend the keel"}}
		for _, k := range []string{"curl_uneven", "twist", "wing_uneven", "nose_side"} {
			out = append(out, cure{knob: k, sign: 1, school: "take the cause away"}, cure{knob: k, sign: -1, school: "take the cause away"})
		}
		return out
	}
	return []cure{up, down, own}
}

// side is the side, 1 right, that the keel's tail is bent to against a turn.
func side(symptom string) float64 {
	if symptom == "turned right" {
		return -1
	}
	return 1
}

// A hand repeats an edge within half a millimetre, or an angle within a degree: no step is
// smaller.
const repeatMM, repeatDeg = 0.5, 1.0

// step is the smallest change of a knob that a hand can repeat.
func (w *Workbench) step(knobs map[string]float64, knob string) float64 {
	switch knob {
	case "curl", "rudder", "curl_uneven":
		return math.Max(repeatDeg, geom.Deg(math.Asin(math.Min(0.9, repeatMM/w.Value(knobs, "curl_depth")))))
	case "clip":
		return 0.1
	case "wing":
		return 4
	case "wing_uneven", "nose_side":
		return 3
	}
	return repeatDeg
}

// mostSteps is how many steps a remedy has at most: more at once is guesswork.
const mostSteps = 4

// madeWords tell a change as a hand makes it, where, and what it is in short.
func (e examination) madeWords(knob string, from, to float64) (do, where, short string) {
	by := to - from
	lip := func(deg float64) float64 { return e.value("curl_depth") * math.Sin(geom.Rad(deg)) }
	to1 := func(right, left string, v float64) string {
		if v > 0 {
			return right
		}
		return left
	}
	switch knob {
	case "curl":
		return say.Signed(lip(to)-lip(from), 1) + " on both sides", fmt.Sprintf("of the %s tail edge (%s°, to %.0f°). Nothing else this time.", say.MM(e.value("curl_depth"), 0), signed(by, 0), to),
			to1("Curl the tail up.", "Take curl out of the tail.", by)
	case "rudder":
		s := to1("right", "left", by)
		return fmt.Sprintf("%s to the %s", say.MM(math.Abs(lip(by)), 1), s), fmt.Sprintf("of the keel, at its tail (%.0f°). Nothing else this time.", math.Abs(by)), "Bend the keel's tail to the " + s + "."
	case "curl_uneven":
		s, o := to1("right", "left", by), to1("left", "right", by)
		return fmt.Sprintf("%s more on the %s", say.MM(math.Abs(lip(by)), 1), s), fmt.Sprintf("tail edge, or as much less on the %s: now they should be alike.", o), "Make both tail edges alike."
	case "twist":
		s := to1("right", "left", -by)
		return fmt.Sprintf("Press the %s wing's front edge down", s), fmt.Sprintf("by about %.0f°: lay both wings together and flatten them.", math.Abs(by)), "Flatten the wings."
	case "wing_uneven":
		s := to1("right", "left", by)
		return fmt.Sprintf("Lift the %s wing by %.0f°", s, math.Abs(by)), "seen from behind, until both stand alike.", "Set both wings alike."
	case "nose_side":
		return "Straighten the nose", fmt.Sprintf("to the %s, by about %.0f°.", to1("right", "left", by), math.Abs(by)), "Straighten the nose."
	case "clip":
		if by < 0 {
			return fmt.Sprintf("%s g at the nose", signed(by, 1)), "a lighter clip, or none.", "Take weight from the nose."
		}
		return fmt.Sprintf("%s g at the nose", signed(by, 1)), "a clip or tape on the keel.", "Put weight on the nose."
	case "wing":
		if by < 0 {
			return fmt.Sprintf("%.0f° up on both sides", -by), fmt.Sprintf("of the wings, seen from behind: a V of %.0f° each. Nothing else this time.", 90-to), "Lift the wings into a V."
		}
		return fmt.Sprintf("%.0f° down on both sides", by), fmt.Sprintf("of the wings, seen from behind: a V of %.0f° each. Nothing else this time.", 90-to), "Let the wings down a little."
	}
	return "", "", ""
}

func signed(v float64, decimals int) string {
	s := fmt.Sprintf("%.*f", decimals, math.Abs(v))
	if v < 0 {
		return "−" + s
	}
	return "+" + s
}
