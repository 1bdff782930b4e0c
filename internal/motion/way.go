package motion

import (
	"cmp"
	"slices"
	"strconv"

	"tussock/internal/given"
	"tussock/internal/say"
)

// Way is the description of a way of moving: all that the bench must know of it to set a
// toy, try it and tune it. Screens know only this; what a way alone can draw or tell
// comes as its own drawing.
type Way struct {
	Name       string      `json:"name"`  // its own: no other way has it
	Moves      string      `json:"moves"` // as patterns say it: fly, hop …; toys of several ways may move by one word
	Words      Words       `json:"words"`
	Writes     bool        `json:"writes"`          // its toys are written on
	Plays      bool        `json:"plays"`           // it can be played on the screen
	Predicts   bool        `json:"predicts"`        // a model of this way of moving is there
	Headline   string      `json:"headline"`        // id of the reading that matters most while it is set
	Conditions []Condition `json:"conditions"`      // how and where it is tried
	Records    []Record    `json:"records"`         // what is read off a trial
	Kinds      []Kind      `json:"kinds"`           // of trials, the usual one first
	Chips      []Chip      `json:"chips"`           // what can be noted of a trial
	Measures   []Gauge     `json:"measures"`        // what a set-up is measured by, the most asked for first
	Aims       []Aim       `json:"aims"`            // what it can be tuned for
	Free       []string    `json:"free"`            // levers that a search moves when nothing is said
	Sweep      []string    `json:"sweep"`           // lever, and perhaps a second, that a sweep begins with
	Asked      *Asked      `json:"asked,omitempty"` // what can be measured of the finished toy
	Schools    []School    `json:"schools"`         // where folders disagree: both ways, to be tried against each other
	Cautions   []Caution   `json:"cautions"`
	Accuracy   string      `json:"accuracy"` // of its predictions, in a sentence
	Constants  []Constant  `json:"constants"`
	Limits     []string    `json:"limits"`
	// About tells whether a prediction is about such a trial; nil where it is about all of them.
	About func(Prediction, Noted) bool `json:"-"`
	// Fits refuses conditions that do not go together, with a *given.Error; nil when all do.
	Fits func(Conditions) error `json:"-"`
}

// Words are how people talk of this way of moving.
type Words struct {
	One        string `json:"one"` // a throw, a hop
	Many       string `json:"many"`
	Do         string `json:"do"`     // the button that goes on to the trials
	Log        string `json:"log"`    // the button that logs one
	None       string `json:"none"`   // before the first trial
	Who        string `json:"who"`    // who does it
	Motion     string `json:"motion"` // what is seen on the mat: Flight, Hop
	Busy       string `json:"busy"`   // while it is worked out
	Conditions string `json:"conditions"`
	Title      string `json:"title"`    // over its patterns on the shelf: Fly, Hop
	Made       string `json:"made"`     // of a toy made to be played with
	ForShow    string `json:"for_show"` // of one made to be looked at
	Untried    string `json:"untried"`  // folded, and no trial yet
	Tried      string `json:"tried"`    // of a toy with trials: has been thrown already
	Last       string `json:"last"`     // what the set-up knobs of it are
	Noting     string `json:"noting"`   // what to tap when a trial is logged
	Better     string `json:"better"`   // what a search is for when nothing is to be cured
	Unlike     string `json:"unlike"`   // when the toy lacks what this way of moving needs
}

// Option is one of the values of a condition or knob that has a name.
type Option struct {
	Value float64 `json:"value"`
	Label string  `json:"label"`
	Says  string  `json:"says,omitempty"`
}

// Condition is something of how and where a toy is tried.
type Condition struct {
	Name    string   `json:"name"`
	Label   string   `json:"label"`
	Unit    string   `json:"unit"`  // m, cm, m/s, deg, or empty
	Group   string   `json:"group"` // what it belongs to; conditions of a group stand together
	Default float64  `json:"default"`
	Min     float64  `json:"min"`
	Max     float64  `json:"max"`
	None    bool     `json:"none"`          // 0, an empty field, means that there is none of it
	Own     string   `json:"own,omitempty"` // 0, an empty field, means that it is left to the toy: what it then is, in words
	Check   bool     `json:"check"`         // either 0 or 1
	Options []Option `json:"options"`       // the only values, when there are any
	Step    float64  `json:"step"`          // a step that a hand can make, when it can be tuned; else 0
	Least   float64  `json:"least"`         // of what is tuned
	Most    float64  `json:"most"`
	Logged  bool     `json:"logged"`            // its name is kept with every trial
	Setting string   `json:"setting,omitempty"` // the person's setting that it is taken from, for all toys
	Says    string   `json:"says,omitempty"`
}

// Conditions are conditions by name, SI units and degrees.
type Conditions map[string]float64

// Number is a number as people write it, without an exponent.
func Number(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }

// Full are all conditions of a way, those not given at their defaults. The error is a
// *given.Error.
func (w *Way) Full(values Conditions) (Conditions, error) {
	out := Conditions{}
	for _, c := range w.Conditions {
		out[c.Name] = c.Default
		v, there := values[c.Name]
		if !there {
			continue
		}
		if len(c.Options) > 0 && !slices.ContainsFunc(c.Options, func(o Option) bool { return o.Value == v }) {
			return nil, &given.Error{Field: c.Name, Value: v, Want: "one of the choices for " + c.Label}
		}
		if !(v >= c.Min && v <= c.Max) && !((c.None || c.Own != "") && v == 0) {
			return nil, &given.Error{Field: c.Name, Value: v, Want: say.Between(c.Min, c.Max, c.Unit, 2), Said: c.Label + " is " + say.Value(v, c.Unit, 2)}
		}
		out[c.Name] = v
	}
	for name, v := range values {
		if _, known := out[name]; !known {
			return nil, &given.Error{Field: name, Value: v, Want: "left out: there is no such condition"}
		}
	}
	if w.Fits != nil {
		return out, w.Fits(out)
	}
	return out, nil
}

// Record is something that is read off a trial.
type Record struct {
	ID    string   `json:"id"`
	Label string   `json:"label"`
	Unit  string   `json:"unit"` // m and s as they are kept; cm for metres that are typed in centimetres; empty for a count
	Min   float64  `json:"min"`
	Max   float64  `json:"max"`
	Sides []string `json:"sides"` // for what lies to one of two sides: names of the negative and the positive one
	Watch bool     `json:"watch"` // timed with a stopwatch
	Clock bool     `json:"clock"` // a direction, in hours of a clock that lies on the picture: tapped on its face
	Kept  bool     `json:"kept"`  // usually the same as the time before: a condition
	Less  bool     `json:"less"`  // less is better
	Tally bool     `json:"tally"` // one of several things by number: counted, and never compared
	Usual []int    `json:"usual"` // values to tap, in the unit it is typed in; none: round the usual one
}

// Kind is a kind of trial.
type Kind struct {
	Name   string   `json:"name"`
	Label  string   `json:"label"`
	Asks   string   `json:"asks"`            // the question it answers
	Record string   `json:"record"`          // id of the reading that counts
	Others []string `json:"others"`          // ids of readings that may be added
	Rules  string   `json:"rules,omitempty"` // how it is done
}

// Chip is something that can be noted of a trial.
type Chip struct {
	Name string `json:"name"`
	Bad  bool   `json:"bad"` // a fault that asks for a cure
	// Modes are the predicted modes that look so; none where the prediction says nothing of it.
	Modes []string `json:"-"`
}

// Bad are the names of the faults.
func (w *Way) Bad() []string {
	var out []string
	for _, c := range w.Chips {
		if c.Bad {
			out = append(out, c.Name)
		}
	}
	return out
}

// Gauge by its name.
func (w *Way) Gauge(name string) Gauge {
	for _, g := range w.Measures {
		if g.Name == name {
			return g
		}
	}
	return Gauge{Name: name}
}

// Record by its id.
func (w *Way) Record(id string) (Record, bool) {
	for _, r := range w.Records {
		if r.ID == id {
			return r, true
		}
	}
	return Record{}, false
}

// Compared are the readings by which set-ups can be compared, the one that counts first:
// nothing that is a condition, or lies to a side.
func (w *Way) Compared() []Record {
	var out []Record
	seen := map[string]bool{}
	for _, k := range w.Kinds {
		for _, id := range append([]string{k.Record}, k.Others...) {
			if r, known := w.Record(id); known && !seen[id] && !r.Kept && !r.Clock && !r.Tally && len(r.Sides) == 0 {
				seen[id] = true
				out = append(out, r)
			}
		}
	}
	return out
}

// Kind of trial by its name; the usual one for "".
func (w *Way) Kind(name string) (Kind, bool) {
	for i, k := range w.Kinds {
		if k.Name == name || name == "" && i == 0 {
			return k, true
		}
	}
	return Kind{}, false
}

// Gauge is something a set-up is measured by.
type Gauge struct {
	Name  string `json:"name"`
	Unit  string `json:"unit"`
	Firm  bool   `json:"firm"`  // small steps can be trusted
	Shown bool   `json:"shown"` // among what the result of a search names
	Less  bool   `json:"less"`  // less is better
}

// Aim is something to tune for.
type Aim struct {
	Name  string  `json:"name"`
	Label string  `json:"label"`
	Gain  string  `json:"gain"`         // the measure that what it gains is told in
	At    string  `json:"at,omitempty"` // what distance or height it is about, when there is one
	Unit  string  `json:"unit,omitempty"`
	First float64 `json:"first,omitempty"`
	Child bool    `json:"child"`           // judged by a child's hand
	Needs string  `json:"needs,omitempty"` // a condition without which the aim means nothing
}

// Asked is what can be measured of the finished toy, to replace what was meant.
type Asked struct {
	Title    string  `json:"title"`
	How      string  `json:"how"`
	CardName string  `json:"card_name,omitempty"`
	OnMat    bool    `json:"on_mat"` // it has a place of its own on the mat, and no form
	Fields   []Field `json:"fields"`
}

// Field is a number asked for.
type Field struct {
	Name  string  `json:"name"`
	Label string  `json:"label"`
	Unit  string  `json:"unit"` // mm or deg
	Min   float64 `json:"min"`
	Max   float64 `json:"max"`
}

// School is a question on which folders disagree, with the knobs of both answers.
type School struct {
	ID       string             `json:"id"`
	Question string             `json:"question"`
	A        string             `json:"a"`
	B        string             `json:"b"`
	KnobsA   map[string]float64 `json:"knobs_a"`
	KnobsB   map[string]float64 `json:"knobs_b"`
	Order    string             `json:"order"` // which is tried first on one toy, and why
}

// Caution is shown where it is needed.
type Caution struct {
	ID    string `json:"id"`
	At    string `json:"at"` // while it is set; before the first trial; for a kind of trial
	Kind  string `json:"kind,omitempty"`
	Title string `json:"title"`
	Text  string `json:"text"`
}

// Of are the fields asked for; none when nothing is asked.
func (a *Asked) Of() []Field {
	if a == nil {
		return nil
	}
	return a.Fields
}

// Named turns conditions as they were called with a trial back into values; what is not
// known by that name is left out.
func (w *Way) Named(under map[string]string) Conditions {
	out := Conditions{}
	for _, c := range w.Conditions {
		for _, o := range c.Options {
			if said, ok := under[c.Name]; ok && said == o.Label {
				out[c.Name] = o.Value
			}
		}
	}
	return out
}

// Filled is the description without missing lists: empty ones stand for them.
func (w Way) Filled() Way {
	w.Moves = cmp.Or(w.Moves, w.Name)
	fill(&w.Conditions)
	for i := range w.Conditions {
		fill(&w.Conditions[i].Options)
	}
	fill(&w.Records)
	for i := range w.Records {
		fill(&w.Records[i].Sides)
		fill(&w.Records[i].Usual)
	}
	fill(&w.Kinds)
	for i := range w.Kinds {
		fill(&w.Kinds[i].Others)
	}
	fill(&w.Chips)
	fill(&w.Measures)
	fill(&w.Aims)
	fill(&w.Free)
	fill(&w.Sweep)
	fill(&w.Schools)
	fill(&w.Cautions)
	w.carry()
	fill(&w.Constants)
	fill(&w.Limits)
	return w
}

// carry makes the lengths in the words of a description quantities of package say.
func (w *Way) carry() {
	for i := range w.Conditions {
		w.Conditions[i].Says = say.Prose(w.Conditions[i].Says)
	}
	for i := range w.Kinds {
		w.Kinds[i].Rules = say.Prose(w.Kinds[i].Rules)
	}
	for i := range w.Cautions {
		w.Cautions[i].Text = say.Prose(w.Cautions[i].Text)
	}
	for i := range w.Limits {
		w.Limits[i] = say.Prose(w.Limits[i])
	}
	for i := range w.Constants {
		c := &w.Constants[i]
		c.Name, c.Source, c.Effect = say.Prose(c.Name), say.Prose(c.Source), say.Prose(c.Effect)
	}
}

func fill[T any](s *[]T) {
	if *s == nil {
		*s = []T{}
	}
}
