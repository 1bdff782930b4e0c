package motion

import (
	"slices"

	"tussock/internal/order"
)

// Noted is what was noted of one trial: readings by id, SI units.
type Noted struct {
	Kind  string
	Chips []string
	Read  map[string]float64
	Under map[string]string // conditions by name, as they were called
}

// Value is a reading, when there is one.
func (n Noted) Value(id string) (float64, bool) {
	v, ok := n.Read[id]
	return v, ok
}

// Values are the readings of all trials that have one.
func Values(log []Noted, id string) []float64 {
	var out []float64
	for _, n := range log {
		if v, ok := n.Value(id); ok {
			out = append(out, v)
		}
	}
	return out
}

// Change is one knob moved.
type Change struct {
	Knob  string  `json:"knob"`
	Label string  `json:"label"`
	Unit  string  `json:"unit"`
	From  float64 `json:"from"`
	To    float64 `json:"to"`
}

// Remedy is a change to try, what it should do, and what would speak against it.
type Remedy struct {
	Changes []Change `json:"changes"`
	Do      string   `json:"do"` // the change as a hand makes it, with sign and size
	Where   string   `json:"where"`
	Why     string   `json:"why"`
	School  string   `json:"school,omitempty"` // where folders disagree: which way this is
	Then    string   `json:"then"`             // what it should do
	Against string   `json:"against"`          // what would contradict it, and what to do then
	// Predicted before and after, eight of ten trials; nil for a test.
	Now   *Outlook `json:"now,omitempty"`
	After *Outlook `json:"after,omitempty"`
	// Bend is the edge that is bent, to be seen from its end; nil for other changes.
	Bend *Bend `json:"bend,omitempty"`
}

// Bend is an edge of paper that is bent from one angle to another, degrees up or to the right.
type Bend struct {
	Edge    string  `json:"edge"`
	DepthMM float64 `json:"depth_mm"`
	FromDeg float64 `json:"from_deg"`
	ToDeg   float64 `json:"to_deg"`
}

// Outlook is what trials are predicted to come to.
type Outlook struct {
	Outcome
	Mode string `json:"mode"`
}

// Cause is one possible cause of what was seen.
type Cause struct {
	Words  string  `json:"words"`
	Law    string  `json:"law"`    // the law behind it, with its numbers
	Log    string  `json:"log"`    // what the log says for or against it
	Weight float64 `json:"weight"` // share among the causes, 0 to 1
}

// Confidence of a finding.
const (
	Likely   = "likely"
	Possible = "possible"
	Unsure   = "unsure" // the model does not know: a test is proposed, no verdict
)

// Finding is what is concluded from trials: symptom, causes in order, and the smallest
// change. Others are other ways to the same end.
type Finding struct {
	Symptom    string   `json:"symptom"`
	Seen       int      `json:"seen"`
	Of         int      `json:"of"`
	Title      string   `json:"title"`
	Confidence string   `json:"confidence"`
	Causes     []Cause  `json:"causes"`
	Remedy     *Remedy  `json:"remedy,omitempty"`
	Others     []Remedy `json:"others"`
	// Tied is how many of the first causes cannot be told apart by what was seen, 0 when the
	// first one can; Test is the trial, or the look, that tells them apart.
	Tied int    `json:"tied"`
	Test string `json:"test,omitempty"`
	// Wants is how many more trials are needed before anything is said.
	Wants int `json:"wants"`
	// Clear: enough was noted, and no fault was in most of it.
	Clear bool `json:"clear"` // no fault in most trials
}

// Enough is how many trials a finding needs.
const Enough = 3

// Look counts what was noted and picks the symptom: the fault seen most, where faults
// were seen as often the one that faults names first. ok is false when there is nothing
// to cure yet; the finding then says why.
func Look(log []Noted, faults []string, one, many string) (out Finding, count map[string]int, ok bool) {
	out = Finding{Causes: []Cause{}, Others: []Remedy{}, Of: len(log)}
	count = map[string]int{}
	if len(log) < Enough {
		out.Wants = Enough - len(log)
		out.Title = "Too few " + many + " to say anything"
		if len(log) == 0 {
			out.Title = "Not a single " + one + " yet"
		}
		return out, count, false
	}
	noted := 0
	for _, t := range log {
		for _, c := range t.Chips {
			count[c]++
		}
		if len(t.Chips) > 0 {
			noted++
		}
	}
	for _, s := range faults {
		if count[s] > count[out.Symptom] || out.Symptom == "" && count[s] > 0 {
			out.Symptom = s
		}
	}
	out.Seen = count[out.Symptom]
	switch {
	case noted == 0:
		out.Symptom, out.Title = "", "Note what you see"
	case out.Symptom == "" || 2*out.Seen < noted || out.Seen < 2:
		out.Symptom, out.Title, out.Clear = "", "Nothing to cure", true
	default:
		ok = true
	}
	return out, count, ok
}

// What is found by readings alone, where no fault was noted.
const (
	Shorter = "shorter than predicted"
	Farther = "farther than predicted"
)

// Unlike makes a symptom of readings whose middle lies elsewhere than the prediction.
func (f *Finding) Unlike(read []float64, said Range) {
	short := order.Median(read) < said.Middle
	f.Symptom, f.Seen, f.Of, f.Clear = Farther, 0, len(read), false
	if short {
		f.Symptom = Shorter
	}
	for _, v := range read {
		if v < said.Middle == short {
			f.Seen++
		}
	}
}

// Propose makes a remedy the first one, or another way when there is one already.
func (f *Finding) Propose(r Remedy) {
	if r.Changes == nil {
		r.Changes = []Change{}
	}
	if f.Remedy != nil {
		f.Others = append(f.Others, r)
		return
	}
	f.Remedy = &r
}

// Weigh brings the causes in order and makes their weights shares.
func (f *Finding) Weigh() {
	total := 0.0
	for _, c := range f.Causes {
		total += c.Weight
	}
	for i := range f.Causes {
		f.Causes[i].Weight /= max(total, 1e-9)
	}
	slices.SortStableFunc(f.Causes, func(a, b Cause) int {
		switch {
		case a.Weight > b.Weight:
			return -1
		case a.Weight < b.Weight:
			return 1
		}
		return 0
	})
}
