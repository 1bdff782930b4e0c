package glide

import (
	"cmp"
	"math"
	"slices"

	"tussock/internal/geom"
	"tussock/internal/motion"
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
			c.MM = depth * math.Sin(geom.Rad(min(max(math.Abs(need), 0), 60)))
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
