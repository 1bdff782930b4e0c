package web

import (
	"tussock/internal/bench"
	"tussock/internal/motion"
	"tussock/internal/motion/glide"
)

// ThrowInput is how a glider is thrown.
type ThrowInput struct {
	SpeedMS  float64 `json:"speed_ms" minimum:"0.5" maximum:"30" doc:"m/s"`
	AngleDeg float64 `json:"angle_deg" minimum:"-60" maximum:"85" doc:"of the path, up positive"`
	HeightM  float64 `json:"height_m" minimum:"0.1" maximum:"20" doc:"of the hand over the floor"`
	BankDeg  float64 `json:"bank_deg" minimum:"-90" maximum:"90" doc:"right wing down positive"`
}

// RoomInput is the hall; 0 means that there is none of it.
type RoomInput struct {
	LengthM  float64 `json:"length_m,omitempty" minimum:"0" maximum:"500" doc:"from the hand to the wall ahead"`
	WidthM   float64 `json:"width_m,omitempty" minimum:"0" maximum:"200" doc:"between the side walls, the thrower in the middle"`
	CeilingM float64 `json:"ceiling_m,omitempty" minimum:"0" maximum:"60"`
	RopeAtM  float64 `json:"rope_at_m,omitempty" minimum:"0" maximum:"200" doc:"how far ahead a rope hangs"`
	RopeM    float64 `json:"rope_m,omitempty" minimum:"0" maximum:"20" doc:"how high it hangs"`
}

// FlightInput is a set-up with how and where it is thrown.
type FlightInput struct {
	SetupInput
	Throw     ThrowInput   `json:"throw"`
	Room      RoomInput    `json:"room"`
	Hand      string       `json:"hand,omitempty" enum:"adult,child" default:"adult" doc:"whose throws and bends scatter"`
	Softening bool         `json:"softening,omitempty" doc:"bent edges give way at speed: optional, the speed for it is a guess"`
	Ghosts    []GhostInput `json:"ghosts,omitempty" maxItems:"12" doc:"other set-ups of the same fold to draw beside it"`
}

// GhostInput is an earlier set-up.
type GhostInput struct {
	Name  string             `json:"name" maxLength:"80"`
	Knobs map[string]float64 `json:"knobs"`
}

// SampleView is a moment of a flight. X ahead, y to the right, z up from the floor.
type SampleView struct {
	T       float64 `json:"t"`
	X       float64 `json:"x"`
	Y       float64 `json:"y"`
	Z       float64 `json:"z"`
	Speed   float64 `json:"speed"`
	Attack  float64 `json:"attack" doc:"angle of attack, degrees"`
	Pitch   float64 `json:"pitch" doc:"nose above level, degrees"`
	Bank    float64 `json:"bank" doc:"right wing down, degrees"`
	Heading float64 `json:"heading"`
}

// BandView is where eight of ten throws pass.
type BandView struct {
	X   float64 `json:"x"`
	LoZ float64 `json:"lo_z"`
	HiZ float64 `json:"hi_z"`
	LoY float64 `json:"lo_y"`
	HiY float64 `json:"hi_y"`
}

// GhostView is the path of an earlier set-up.
type GhostView struct {
	Name      string       `json:"name"`
	DistanceM float64      `json:"distance_m"`
	Mode      string       `json:"mode"`
	Path      []SampleView `json:"path"`
}

// ModeShare is how many of the scattered throws fly so.
type ModeShare struct {
	Mode  string  `json:"mode"`
	Share float64 `json:"share"`
}

// FlightView is a predicted flight. It is predicted for rigid wings in still air.
type FlightView struct {
	Glider    bool             `json:"glider" doc:"false: no nose, keel and wings; thrown as the flat plate it is folded"`
	Readings  []motion.Reading `json:"readings"`
	Path      []SampleView     `json:"path"`
	Band      []BandView       `json:"band"`
	Ghosts    []GhostView      `json:"ghosts"`
	Mode      string           `json:"mode"`
	ModeWords string           `json:"mode_words"`
	Modes     []ModeShare      `json:"modes" doc:"of the scattered throws, most first"`
	End       string           `json:"end"`
	RopeOverM *float64         `json:"rope_over_m,omitempty" doc:"how far over the rope; under is negative"`
	Distance  motion.Outlook   `json:"distance"`
	Nominal   NominalView      `json:"nominal" doc:"the throw without scatter, drawn as the path"`
	Time      glide.Range      `json:"time"`
	Height    glide.Range      `json:"height" doc:"highest point"`
	Drift     glide.Range      `json:"drift" doc:"to the right"`
	Throws    int              `json:"throws" doc:"scattered throws that the bands rest on"`
}

// NominalView is the throw without scatter.
type NominalView struct {
	DistanceM  float64 `json:"distance_m"`
	TimeS      float64 `json:"time_s"`
	HighestM   float64 `json:"highest_m"`
	DriftM     float64 `json:"drift_m"`
	HeadingDeg float64 `json:"heading_deg"`
}

// LeverView is something that can be tuned.
type LeverView struct {
	Name  string  `json:"name"`
	Label string  `json:"label"`
	Unit  string  `json:"unit"`
	Min   float64 `json:"min"`
	Max   float64 `json:"max"`
	Value float64 `json:"value"`
	Step  float64 `json:"step"`
	Hard  bool    `json:"hard" doc:"moves a fold: needs a new sheet"`
	Even  bool    `json:"even" doc:"tells left from right"`
}

// LeverEffectView is what a step of a lever does.
type LeverEffectView struct {
	Lever LeverView          `json:"lever"`
	Up    map[string]float64 `json:"up,omitempty" doc:"by measure; absent where it cannot go up"`
	Down  map[string]float64 `json:"down,omitempty"`
}

// SensitivityView is what one step of each lever does, the most first.
type SensitivityView struct {
	Measures []MeasureView      `json:"measures"`
	Now      map[string]float64 `json:"now"`
	Effects  []LeverEffectView  `json:"effects"`
	Throws   int                `json:"throws" doc:"each is an average over so many scattered throws"`
}

// MeasureView is something a toy is measured by.
type MeasureView struct {
	Name string `json:"name"`
	Unit string `json:"unit"`
}

// SweepInput asks for one lever, or a pair, over a range.
type SweepInput struct {
	FlightInput
	Lever  string `json:"lever" maxLength:"80"`
	Second string `json:"second,omitempty" maxLength:"80" doc:"a second lever for a pair"`
}

// SweepView is measures over one lever, or over two.
type SweepView struct {
	Lever    LeverView     `json:"lever"`
	Second   *LeverView    `json:"second,omitempty"`
	Measures []MeasureView `json:"measures"`
	Points   []SweepPoint  `json:"points"`
}

// SweepPoint is one position; measures are absent where the toy cannot be made.
type SweepPoint struct {
	At       float64            `json:"at"`
	Second   float64            `json:"second,omitempty"`
	Measures map[string]float64 `json:"measures,omitempty"`
}

// OptimiseInput asks for the best set-up for an aim over chosen levers.
type OptimiseInput struct {
	FlightInput
	Aim    string            `json:"aim" enum:"farthest,longest,straightest,forgiving,ring"`
	RingM  float64           `json:"ring_m,omitempty" minimum:"0" maximum:"100"`
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
	Throw         ThrowInput         `json:"throw"`
	Changes       []ReasonView       `json:"changes" doc:"what changes and what each is worth, the most first"`
	Before        map[string]float64 `json:"before"`
	After         map[string]float64 `json:"after"`
	NothingToGain bool               `json:"nothing_to_gain"`
	NeedsSheet    bool               `json:"needs_sheet" doc:"a fold changes: it needs a new sheet"`
	Tried         int                `json:"tried"`
}

// ReasonView is one change of a result.
type ReasonView struct {
	Lever   LeverView          `json:"lever"`
	From    float64            `json:"from"`
	To      float64            `json:"to"`
	Without map[string]float64 `json:"without,omitempty" doc:"measures when this change alone is left out"`
}

// MeasuredInput is what was measured of a finished toy.
type MeasuredInput struct {
	SetupInput
	LeftV    *float64 `json:"left_v,omitempty" minimum:"-60" maximum:"80" doc:"left wing over level, degrees"`
	RightV   *float64 `json:"right_v,omitempty" minimum:"-60" maximum:"80"`
	LeftLip  *float64 `json:"left_lip,omitempty" minimum:"-10" maximum:"15" doc:"height of the left tail edge, mm"`
	RightLip *float64 `json:"right_lip,omitempty" minimum:"-10" maximum:"15"`
}

// ClinicInput is how throws of a build are thrown.
type ClinicInput struct {
	Throw     ThrowInput `json:"throw"`
	Room      RoomInput  `json:"room"`
	Hand      string     `json:"hand,omitempty" enum:"adult,child" default:"adult"`
	Softening bool       `json:"softening,omitempty"`
}

// ClinicView is what is concluded from the throws of the newest tweak.
type ClinicView struct {
	Tweak   int            `json:"tweak"`
	Finding motion.Finding `json:"finding"`
	// Kept compares the newest tweak with the one before; absent for the first.
	Kept     *KeepView         `json:"kept,omitempty"`
	Turn     []glide.TurnCause `json:"turn" doc:"what would explain the turn that was seen, likeliest first"`
	TurnDeg  float64           `json:"turn_deg"`
	TurnN    int               `json:"turn_n" doc:"throws whose offset was measured; 0: only the side was noted"`
	Residual []ResidualView    `json:"residual" doc:"by how much left and right differ in the fold, mm"`
}

// ResidualView is a pair of landmarks and how far they are from mirroring each other.
type ResidualView struct {
	Left  string  `json:"left"`
	Right string  `json:"right"`
	MM    float64 `json:"mm"`
}

// KeepView is "keep or revert".
type KeepView struct {
	Against int            `json:"against" doc:"number of the tweak before"`
	Changes []ChangeView   `json:"changes"`
	Reading string         `json:"reading" enum:"distance,time"`
	Before  bench.Stats    `json:"before"`
	After   bench.Stats    `json:"after"`
	Shift   float64        `json:"shift"`
	Lo      float64        `json:"lo"`
	Hi      float64        `json:"hi"`
	Chance  float64        `json:"chance" doc:"that mere scatter gives so much"`
	Verdict string         `json:"verdict" enum:"too few,better,worse,no difference seen"`
	Advice  string         `json:"advice" enum:"keep,revert,throw more"`
	More    int            `json:"more" doc:"throws still wanted"`
	Symptom *SymptomChange `json:"symptom,omitempty"`
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
