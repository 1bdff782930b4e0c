package motions

import (
	"tussock/internal/bench"
	"tussock/internal/motion"
	"tussock/internal/web/answer"
)

// MotionInput is a set-up with how and where it is tried.
type MotionInput struct {
	answer.SetupInput
	Conditions map[string]float64 `json:"conditions,omitempty" doc:"by name, as the way of moving describes them; those left out stand at their defaults"`
	Ghosts     []GhostInput       `json:"ghosts,omitempty" maxItems:"12" doc:"other set-ups of the same fold to draw beside it"`
}

// GhostInput is an earlier set-up.
type GhostInput struct {
	Name  string             `json:"name" maxLength:"80"`
	Knobs map[string]float64 `json:"knobs"`
}

// DrawingView is what only one way of moving can draw or tell. The kind says which of the
// described types the data are of.
type DrawingView struct {
	Kind string `json:"kind"`
	Data any    `json:"data"`
}

func viewDrawing(d *motion.Drawing) *DrawingView {
	if d == nil {
		return nil
	}
	v := DrawingView(*d)
	return &v
}

// PredictionView is what a set-up is predicted to do.
type PredictionView struct {
	motion.Prediction
	Drawing *DrawingView       `json:"drawing,omitempty"`
	Own     motion.Calibration `json:"own" doc:"what trials of the person's own have taught; no trials: nothing"`
}

// LeverEffectView is what a step of a lever does.
type LeverEffectView struct {
	Lever motion.Lever       `json:"lever"`
	Up    map[string]float64 `json:"up,omitempty" doc:"by measure; absent where it cannot go up"`
	Down  map[string]float64 `json:"down,omitempty"`
}

// SensitivityView is what one step of each lever does, the most first.
type SensitivityView struct {
	Now     map[string]float64 `json:"now"`
	Effects []LeverEffectView  `json:"effects"`
}

// SweepInput asks for one lever, or a pair, over a range.
type SweepInput struct {
	MotionInput
	Lever  string `json:"lever" maxLength:"80"`
	Second string `json:"second,omitempty" maxLength:"80" doc:"a second lever for a pair"`
}

// SweepView is measures over one lever, or over two.
type SweepView struct {
	Lever  motion.Lever       `json:"lever"`
	Second *motion.Lever      `json:"second,omitempty"`
	Points []SweepPoint       `json:"points"`
	Most   map[string]float64 `json:"most" doc:"where each measure is most, or least where less is better"`
}

// SweepPoint is one position; measures are absent where the toy cannot be made.
type SweepPoint struct {
	At       float64            `json:"at"`
	Second   float64            `json:"second,omitempty"`
	Measures map[string]float64 `json:"measures,omitempty"`
}

// OptimiseInput asks for the best set-up for an aim over chosen levers.
type OptimiseInput struct {
	MotionInput
	Aim    string            `json:"aim" maxLength:"40"`
	At     float64           `json:"at,omitempty" minimum:"0" maximum:"100" doc:"the distance or height the aim is about, m"`
	Levers []LeverConstraint `json:"levers" minItems:"1" maxItems:"8"`
}

// LeverConstraint frees a lever within bounds.
type LeverConstraint struct {
	Name string   `json:"name" maxLength:"80"`
	Min  *float64 `json:"min,omitempty"`
	Max  *float64 `json:"max,omitempty"`
}

// OptimumView is what a search came to.
type OptimumView struct {
	Knobs         map[string]float64 `json:"knobs" doc:"the whole set-up"`
	Conditions    map[string]float64 `json:"conditions" doc:"those that were tuned"`
	Changes       []ReasonView       `json:"changes" doc:"what changes and what each is worth, the most first"`
	Before        map[string]float64 `json:"before" doc:"by fresh trials, that nothing was chosen by"`
	After         map[string]float64 `json:"after" doc:"likewise"`
	Gauge         motion.Gauge       `json:"gauge" doc:"the measure that the gain is told in"`
	Gain          motion.Range       `json:"gain" doc:"of a fresh trial against the same trial before: the middle, and eight of ten"`
	NothingToGain bool               `json:"nothing_to_gain"`
	NeedsSheet    bool               `json:"needs_sheet" doc:"a hard fold changes: on a toy that was tried that is a child build"`
	Tried         int                `json:"tried"`
}

// ReasonView is one change of a result and what it is worth.
type ReasonView struct {
	Lever   motion.Lever       `json:"lever"`
	From    float64            `json:"from"`
	To      float64            `json:"to"`
	Without map[string]float64 `json:"without,omitempty" doc:"measures when this change alone is left out"`
}

// MeasuredInput is what was measured of a finished toy.
type MeasuredInput struct {
	MotionInput
	Measured map[string]float64 `json:"measured" doc:"by field, as the way of moving asks for them; mm and degrees"`
}

// ClinicInput is how a build is tried.
type ClinicInput struct {
	Conditions map[string]float64 `json:"conditions,omitempty"`
}

// ClinicView is what is concluded from the trials of the newest tweak.
type ClinicView struct {
	Tweak   int            `json:"tweak"`
	Finding motion.Finding `json:"finding"`
	// Disagrees says where the trials of the newest tweak lie elsewhere than predicted.
	Disagrees string `json:"disagrees" doc:"where the trials lie elsewhere than predicted, in words; empty when they agree"`
	// Kept compares the newest tweak with the one before; absent for the first.
	Kept     *KeepView      `json:"kept,omitempty"`
	Told     *DrawingView   `json:"told,omitempty"`
	Residual []ResidualView `json:"residual" doc:"by how much left and right differ in the fold, mm"`
}

// ResidualView is a pair of landmarks and how far they are from mirroring each other.
type ResidualView struct {
	Left  string  `json:"left"`
	Right string  `json:"right"`
	MM    float64 `json:"mm"`
}

// KeepView is "keep or revert".
type KeepView struct {
	Against int                 `json:"against" doc:"number of the tweak before"`
	Changes []answer.ChangeView `json:"changes"`
	Reading string              `json:"reading" doc:"id of the record that is compared"`
	Before  bench.Stats         `json:"before"`
	After   bench.Stats         `json:"after"`
	Shift   float64             `json:"shift"`
	Lo      float64             `json:"lo"`
	Hi      float64             `json:"hi"`
	Chance  float64             `json:"chance" doc:"that mere scatter gives so much"`
	Verdict string              `json:"verdict" enum:"too few,better,worse,no difference seen"`
	Advice  string              `json:"advice" enum:"keep,revert,try more"`
	More    int                 `json:"more" doc:"trials still wanted"`
	Symptom *SymptomChange      `json:"symptom,omitempty"`
}

// SymptomChange is how often a symptom was seen before and after.
type SymptomChange struct {
	Name    string  `json:"name"`
	Before  int     `json:"before"`
	BeforeN int     `json:"before_n"`
	After   int     `json:"after"`
	AfterN  int     `json:"after_n"`
	Chance  float64 `json:"chance"`
}
