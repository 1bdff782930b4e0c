package motion

import (
	"cmp"
	"context"
	"slices"
)

// Bench is one pattern on one sheet, to be set and tried again and again. It may be used
// by several at once.
type Bench interface {
	// Under gives it conditions, all of those of its way, and what was learnt from trials.
	Under(c Conditions, own Calibration) Trying
}

// Trying sets and tries a toy under conditions. Knobs are by name; those not given stand
// at the pattern's own values. Errors say which step cannot be folded, or what is wrong;
// all stop with the context's error when the asker has gone.
type Trying interface {
	Levers(knobs map[string]float64) []Lever
	Measure(levers []Lever) Measure
	// Goal scores measures for an aim of the way; at is its distance or height, m.
	Goal(aim string, at float64) Goal
	// Predict is what a set-up comes to, with earlier ones drawn beside it.
	Predict(ctx context.Context, knobs map[string]float64, ghosts []Ghost) (Prediction, error)
	// Outlook is the first outcome alone.
	Outlook(ctx context.Context, knobs map[string]float64) (Outlook, error)
	// Examine finds what to change after trials.
	Examine(ctx context.Context, knobs map[string]float64, log []Noted) (Finding, error)
	// Told is what this way alone can tell of trials, nil when there is nothing.
	Told(ctx context.Context, knobs map[string]float64, log []Noted) (*Drawing, error)
	// Take puts what was measured of the finished toy into the knobs. The error is a
	// *given.Error.
	Take(knobs, measured map[string]float64) error
}

// Inner is the trying of a model itself, without what is laid round it for all ways alike.
func Inner(t Trying) Trying {
	for {
		u, wrapped := t.(interface{ Unwrap() Trying })
		if !wrapped {
			return t
		}
		t = u.Unwrap()
	}
}

// Ghost is an earlier set-up.
type Ghost struct {
	Name  string
	Knobs map[string]float64
}

// Prediction is what a set-up is predicted to do.
type Prediction struct {
	Works     bool      `json:"works"` // the toy has what this way of moving needs
	Mode      string    `json:"mode"`
	ModeWords string    `json:"mode_words"`
	Modes     []Share   `json:"modes"`    // of scattered trials, most first
	Outcomes  []Outcome `json:"outcomes"` // eight of ten scattered trials; the first counts most
	Readings  []Reading `json:"readings"`
	Checks    []Check   `json:"checks"`
	Tries     int       `json:"tries"` // scattered trials that bands rest on
	// Offered are the conditions that were left to the toy, and what it takes.
	Offered map[string]float64 `json:"offered"`
	// Drawing is what only this way of moving can draw.
	Drawing *Drawing `json:"drawing,omitempty"`
	// Loop is the middle trial as a small picture shows it, a few moments of it.
	Loop []Moment `json:"-"`
}

// Moment is where a toy is at a time of its trial, seen from the side.
type Moment struct {
	T     float64 `json:"t"`     // s
	Along float64 `json:"along"` // m from where it was let go
	Up    float64 `json:"up"`    // m over the floor or table
	Pitch float64 `json:"pitch"` // degrees, nose up
}

// loopMoments is how many a small picture needs.
const loopMoments = 24

// Looped picks the moments that a small picture needs of a path of n; at tells each.
func Looped(n int, at func(i int) Moment) []Moment {
	every := max(1, (n+loopMoments-2)/(loopMoments-1))
	var out []Moment
	for i := range n {
		if i%every == 0 || i == n-1 {
			out = append(out, at(i))
		}
	}
	return out
}

// Drawing is what only one way of moving can draw or tell; Kind says what Data is.
type Drawing struct {
	Kind string `json:"kind"`
	Data any    `json:"data"`
}

// Share is how many of the scattered trials go so.
type Share struct {
	Mode  string  `json:"mode"`
	Share float64 `json:"share"`
}

// Shares of modes counted in n trials, the commonest first.
func Shares[M ~string](modes map[M]int, n int) []Share {
	out := []Share{}
	for m, k := range modes {
		out = append(out, Share{string(m), float64(k) / float64(n)})
	}
	slices.SortFunc(out, func(a, b Share) int { return cmp.Or(cmp.Compare(b.Share, a.Share), cmp.Compare(a.Mode, b.Mode)) })
	return out
}

// Outcome is something a trial is predicted to come to, with its band.
type Outcome struct {
	ID       string   `json:"id"`
	Label    string   `json:"label"`
	Unit     string   `json:"unit"` // m, cm for metres shown in centimetres, s, %, or empty
	Lo       float64  `json:"lo"`
	Middle   float64  `json:"middle"`
	Hi       float64  `json:"hi"`
	Lo95     float64  `json:"lo95"` // nineteen of twenty lie between
	Hi95     float64  `json:"hi95"`
	Decimals int      `json:"decimals"`
	Most     float64  `json:"most"`  // beyond this the number is not to be trusted and is told as more; 0 for none
	Sides    []string `json:"sides"` // names of the negative and the positive side, and of neither
}

// Check is something to look at before the toy is tried.
type Check struct {
	ID    string   `json:"id"`
	Title string   `json:"title"`
	OK    bool     `json:"ok"`
	Says  string   `json:"says"`
	Fix   []Change `json:"fix"`          // the knobs that put it right
	Do    string   `json:"do,omitempty"` // the same as a hand does it
}

// Calibration is what trials of the person's own say of the model.
type Calibration struct {
	// Factor multiplies the one number that is least certain; 0 counts as 1.
	Factor float64 `json:"factor"`
	// Spread is by how much, as a part, that number is still uncertain: one standard
	// deviation of its logarithm. 0 leaves the model's own doubt.
	Spread float64 `json:"spread"`
	Trials int     `json:"trials"`
	Builds int     `json:"builds"`
	What   string  `json:"what"` // what the factor multiplies
	// Also are further numbers that are learnt apart from it.
	Also []Learnt `json:"also,omitempty"` // further numbers that are learnt apart from it
}

// Learnt is one more number that trials teach, as Calibration has it.
type Learnt struct {
	Factor float64 `json:"factor"`
	Spread float64 `json:"spread"`
	Trials int     `json:"trials"`
	Builds int     `json:"builds"`
	What   string  `json:"what"` // what the factor multiplies
}

// Learnt is a calibration as one more number.
func (c Calibration) Learnt() Learnt { return Learnt{c.Factor, c.Spread, c.Trials, c.Builds, c.What} }

// Observation is what was tried at one set-up.
type Observation struct {
	Trying Trying
	Knobs  map[string]float64
	Log    []Noted
	Build  int64
}
