package glide

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"tussock/internal/geom"
	"tussock/internal/motion"
	"tussock/internal/say"
)

// Left against right: what would make it turn, and from a turn back to its cause.

// TurnCause is one unevenness that explains a turn by itself.
type TurnCause struct {
	Knob   string  `json:"knob"`
	Words  string  `json:"words"`   // side and place
	Deg    float64 `json:"deg"`     // how much of it explains the turn
	MM     float64 `json:"mm"`      // the same at the edge, where it is measured; 0 when it is none
	PerDeg float64 `json:"per_deg"` // degrees of turn at the end of the flight for one degree of it
	Weight float64 `json:"weight"`  // share among the causes, 0 to 1: small and usual ones count most
	Unsure bool    `json:"unsure"`  // the model does not know the side
}

// turnSources are what usually makes a glider turn, and how far it usually is off.
var turnSources = []struct {
	knob        string
	right, left string // where it is, for a positive and a negative value
	usual       float64
	edge        bool // measured as a lip
}{
	{"rudder", "the keel's tail is bent to the right", "the keel's tail is bent to the left", 1.0, true},
	{"twist", "the right wing's front edge stands higher", "the left wing's front edge stands higher", 0.7, false},
	{"curl_uneven", "the right tail edge stands higher", "the left tail edge stands higher", 1.4, true},
	{"wing_uneven", "the right wing is set higher", "the left wing is set higher", 3, false},
	{"nose_side", "the nose is bent to the right", "the nose is bent to the left", 1.0, false},
}

// firm is the turn, degrees at the end for one degree of a cause, under which the model
// cannot tell its side.
const firm = 0.7

// heading is the turn to the right at the end of a flight, degrees.
func (w *Workbench) heading(knobs map[string]float64) (turn, ahead float64, err error) {
	m, err := w.Model(knobs)
	if err != nil {
		return 0, 0, err
	}
	f := m.Fly(w.throw(m), w.Room, nil)
	return f.HeadingDeg, f.AheadM, nil
}

// TurnCauses tell for each unevenness how much of it, by itself, would explain a turn of
// so many degrees to the right by the end of the flight.
func (w *Workbench) TurnCauses(knobs map[string]float64, turnDeg float64) ([]TurnCause, error) {
	base, _, err := w.heading(knobs)
	if err != nil {
		return nil, err
	}
	m, err := w.Model(knobs)
	if err != nil {
		return nil, err
	}
	_, band := m.EdgeTurn()
	var out []TurnCause
	total := 0.0
	for _, s := range turnSources {
		now := knobs[s.knob]
		at := func(d float64) float64 {
			k := map[string]float64{}
			for n, v := range knobs {
				k[n] = v
			}
			k[s.knob] = now + d
			h, _, err := w.heading(k)
			if err != nil {
				return base
			}
			return h - base
		}
		per := (at(0.5) - at(-0.5)) // for one degree
		if math.Abs(per) < 1e-6 {
			continue
		}
		need := turnDeg / per
		c := TurnCause{Knob: s.knob, Deg: need, PerDeg: per, Words: s.right, Unsure: math.Abs(per) < firm || s.knob == "curl_uneven" && edgeSide(band.Lo, band.Hi) == 0}
		if need < 0 {
			c.Words = s.left
		}
		if s.edge {
			depth := w.Value(knobs, "curl_depth")
			c.MM = depth * math.Sin(geom.Rad(clamp(math.Abs(need), 0, 60)))
		}
		// As likely as being so far off usually is.
		c.Weight = math.Exp(-0.5*math.Pow(need/(2*s.usual), 2)) / (1 + math.Abs(need)/s.usual)
		if c.Unsure {
			c.Weight *= 0.5
		}
		total += c.Weight
		out = append(out, c)
	}
	for i := range out {
		out[i].Weight /= math.Max(total, 1e-12)
	}
	slices.SortStableFunc(out, func(a, b TurnCause) int { return cmp.Compare(b.Weight, a.Weight) })
	return out, nil
}

// usualTurn is what a turn is taken for when only its side was noted, degrees.
const usualTurn = 30

// SeenTurn is the turn to the right that a log tells, degrees at the end of the flight:
// from offsets where they were measured, an arc through the spot where it came down.
func SeenTurn(log []motion.Noted) (deg float64, measured int) {
	var v []float64
	left, right := 0, 0
	for _, t := range log {
		off, seen := t.Value(Aside)
		if d, far := t.Value(Distance); seen && far && d > 0.5 {
			v = append(v, geom.Deg(2*math.Atan2(off, math.Sqrt(math.Max(0.01, d*d-off*off)))))
		}
		if slices.Contains(t.Chips, "turned left") {
			left++
		}
		if slices.Contains(t.Chips, "turned right") {
			right++
		}
	}
	if len(v) > 0 {
		return motion.RangeOf(v).Middle, len(v)
	}
	return usualTurn * float64(right-left) / math.Max(1, float64(right+left)), 0
}

// lipFor names the place of a cure.
const keelTail = "of the keel, at its tail"

func (e examination) turned() {
	side, other := "left", "right"
	if e.out.Symptom == "turned right" {
		side, other = other, side
	}
	turn, measured := SeenTurn(e.log)
	if side == "left" && turn >= 0 || side == "right" && turn <= 0 {
		turn = math.Copysign(usualTurn, -1)
		if side == "right" {
			turn = usualTurn
		}
		measured = 0
	}
	causes, err := e.w.TurnCauses(e.knobs, turn)
	if err != nil {
		return
	}
	how := fmt.Sprintf("taken for %.0f° of turn; measure how far aside it lands to know it", math.Abs(turn))
	if measured > 0 {
		how = fmt.Sprintf("%.0f° of turn, from how far aside %d throws landed", math.Abs(turn), measured)
	}
	var rudder *TurnCause
	for i, c := range causes {
		w := fmt.Sprintf("%.1f°", math.Abs(c.Deg))
		if c.MM > 0 {
			w = fmt.Sprintf("%s (%.1f°)", say.MM(c.MM, 1), math.Abs(c.Deg))
		}
		law := fmt.Sprintf("1° of it turns it by %.1f° over the flight; %s would explain it.", math.Abs(c.PerDeg), w)
		if c.Unsure {
			law += " The model is not sure of the side."
		}
		e.out.Causes = append(e.out.Causes, motion.Cause{Words: "Perhaps " + c.Words, Law: law, Log: e.seenWords() + "; " + how, Weight: c.Weight})
		if c.Knob == "rudder" {
			rudder = &causes[i]
		}
	}
	e.out.Title = fmt.Sprintf("It turns %s. Bend the keel's tail to the %s.", side, other)
	if rudder == nil || math.Abs(rudder.PerDeg) < firm || math.Abs(rudder.Deg) > 12 {
		e.testThrow(side, other)
		return
	}
	// Half of it first: too much is worse than too little.
	by := -rudder.Deg
	by = math.Copysign(math.Max(0.5, math.Round(math.Abs(by)*2)/2), by)
	c := e.change("rudder", by)
	r := e.remedy(motion.Remedy{Changes: []motion.Change{c}, Do: fmt.Sprintf("%s to the %s", say.MM(e.value("curl_depth")*math.Sin(geom.Rad(math.Abs(by))), 1), other),
		Where: keelTail + fmt.Sprintf(" (%.1f°). Nothing else this time.", math.Abs(by)), School: "bend the keel",
		Why:  fmt.Sprintf("%.1f° of the keel's tail turns it by %.0f° over the flight: as much as it turns %s now.", math.Abs(by), math.Abs(turn), side),
		Then: "It should fly straight.", Against: fmt.Sprintf("If it then turns %s, take half back. If it turns %s more, the fault is a warped wing: lay both wings together and flatten them.", other, side)})
	e.out.Remedy = &r
	even := []motion.Change{}
	for _, k := range []string{"curl_uneven", "twist", "wing_uneven", "nose_side"} {
		if v := e.value(k); math.Abs(v) > 0.2 {
			even = append(even, e.change(k, -v))
		}
	}
	if len(even) > 0 {
		o := e.remedy(motion.Remedy{Changes: even, Do: "Make left and right alike", Where: "what was measured to differ", School: "take the cause away",
			Why: "A bend against a bend costs glide; what differs can be taken out.", Then: "It should turn less.", Against: "If it turns as before, the cause lies elsewhere."})
		e.out.Others = append(e.out.Others, o)
	}
}

// testThrow proposes a trial where the model does not know.
func (e examination) testThrow(side, other string) {
	e.out.Confidence = motion.Unsure
	e.out.Title = fmt.Sprintf("It turns %s. The model does not know the cure: try one.", side)
	by := 3.0
	if side == "right" {
		by = -3
	}
	c := e.change("curl_uneven", by)
	e.out.Remedy = &motion.Remedy{Changes: []motion.Change{c}, Do: fmt.Sprintf("%s more on the %s", say.MM(e.lipMM(3), 1), other), Where: fmt.Sprintf("tail edge (3°), against the %s one. Then three throws.", side), School: "test throw",
		Why:  "With so little keel the tail edges are the only handle, and which way they turn it is uncertain: the edge that is up rolls it to its own side and drags the nose the other way.",
		Then: fmt.Sprintf("Either it turns %s less: keep it. Or more: then the same on the %s.", side, side), Against: "Three throws decide, not the model."}
}
