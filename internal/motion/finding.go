package motion

// Seen is what was noted of one trial.
type Seen struct {
	Chips     []string
	DistanceM *float64
	TimeS     *float64
	OffsetM   *float64 // to the right of the line it was aimed along
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
	Do      string   `json:"do" doc:"the change as a hand makes it, with sign and size"`
	Where   string   `json:"where"`
	Why     string   `json:"why"`
	School  string   `json:"school,omitempty" doc:"where folders disagree: which way this is"`
	Then    string   `json:"then" doc:"what it should do"`
	Against string   `json:"against" doc:"what would contradict it, and what to do then"`
	// Distances predicted before and after, eight of ten throws; nil for a test throw.
	Now   *Outlook `json:"now,omitempty"`
	After *Outlook `json:"after,omitempty"`
}

// Outlook is what throws are predicted to come to.
type Outlook struct {
	LoM     float64 `json:"lo_m"`
	MiddleM float64 `json:"middle_m"`
	HiM     float64 `json:"hi_m"`
	Mode    string  `json:"mode"`
}

// Cause is one possible cause of what was seen.
type Cause struct {
	Words  string  `json:"words"`
	Law    string  `json:"law" doc:"the law behind it, with its numbers"`
	Log    string  `json:"log" doc:"what the log says for or against it"`
	Weight float64 `json:"weight" doc:"share among the causes, 0 to 1"`
}

// Confidence of a finding.
const (
	Likely   = "likely"
	Possible = "possible"
	Unsure   = "unsure" // the model does not know: a test throw is proposed, no verdict
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
	// Wants is how many more trials are needed before anything is said.
	Wants int `json:"wants"`
}
