package web

import (
	"time"

	"tussock/internal/bench"
	"tussock/internal/draw"
	"tussock/internal/given"
	"tussock/internal/motion"
	"tussock/internal/sheet"
)

// SheetInput is a sheet as a person gives it.
type SheetInput struct {
	Width       float64 `json:"width" doc:"in the unit given"`
	Height      float64 `json:"height" doc:"in the unit given"`
	Unit        string  `json:"unit" enum:"mm,cm,in" doc:"of width and height"`
	GSM         float64 `json:"gsm" doc:"paper weight, g/m²"`
	ThicknessMM float64 `json:"thickness_mm" doc:"of one layer, mm"`
	Paper       string  `json:"paper,omitempty" maxLength:"80" doc:"what the paper is called"`
	Front       string  `json:"front,omitempty" doc:"face colour, #rrggbb"`
	Back        string  `json:"back,omitempty" doc:"face colour, #rrggbb"`
	SheetOrigin
}

// SheetOrigin is what the sheet of a build brings along from before the first fold.
type SheetOrigin struct {
	Turned  bool             `json:"turned,omitempty" doc:"the paper lies with its own front down; front is the colour of its back"`
	Way     string           `json:"way,omitempty" maxLength:"80" doc:"how it was got from another sheet"`
	Made    [][4]float64     `json:"made,omitempty" maxItems:"64" doc:"creases that this left in it, x1 y1 x2 y2, mm"`
	ErrorMM float64          `json:"error_mm,omitempty" doc:"how exact its edges are, one standard deviation"`
	From    *bench.SheetFrom `json:"from,omitempty" doc:"the sheet it was got from, and what was wanted of it"`
}

// spec checks the input and converts it to mm. Sides are refused in the unit
// that they were given in.
func (in SheetInput) spec() (bench.SheetSpec, error) {
	out := bench.SheetSpec{GSM: in.GSM, ThicknessMM: in.ThicknessMM, Paper: in.Paper, Front: in.Front, Back: in.Back,
		Turned: in.Turned, Way: in.Way, Made: in.Made, ErrorMM: in.ErrorMM, From: in.From}
	for _, side := range []struct {
		field string
		v     float64
		mm    *float64
	}{{"width", in.Width, &out.WidthMM}, {"height", in.Height, &out.HeightMM}} {
		mm, err := sheet.ToMM(side.v, in.Unit)
		if err != nil {
			return out, err
		}
		if !sheet.SideRange.Holds(mm) {
			one, err := sheet.ToMM(1, in.Unit)
			if err != nil {
				return out, err
			}
			want := sheet.Range{Min: sheet.SideRange.Min / one, Max: sheet.SideRange.Max / one, Unit: in.Unit}
			return out, &given.Error{Field: side.field, Value: sheet.Number(side.v) + " " + in.Unit, Want: want.String()}
		}
		*side.mm = mm
	}
	if out.Front == "" {
		out.Front = bench.DefaultFront
	}
	if out.Back == "" {
		out.Back = bench.DefaultBack
	}
	return out, checkSheet(out)
}

func checkSheet(s bench.SheetSpec) error {
	if _, err := sheet.New(s.WidthMM, s.HeightMM, s.GSM, s.ThicknessMM); err != nil {
		return err
	}
	if err := bench.CheckColour("front", s.Front); err != nil {
		return err
	}
	if err := bench.CheckColour("back", s.Back); err != nil {
		return err
	}
	return s.CheckMade()
}

// SizeView is a sheet size offered by name.
type SizeView struct {
	ID       string  `json:"id"`
	Name     string  `json:"name"`
	WidthMM  float64 `json:"width_mm"`
	HeightMM float64 `json:"height_mm"`
}

// KnobView is a knob of a pattern.
type KnobView struct {
	Name    string         `json:"name"`
	Label   string         `json:"label"`
	Unit    string         `json:"unit" enum:"mm,deg,g," doc:"empty for a plain fraction"`
	Default float64        `json:"default"`
	Min     float64        `json:"min"`
	Max     float64        `json:"max"`
	Kind    string         `json:"kind" enum:"fold,set" doc:"fold needs a new sheet, set is a last bend"`
	Changes string         `json:"changes"`
	Steps   []int          `json:"steps"`
	Implied bool           `json:"implied" doc:"a last bend of the finished toy: no fold uses it"`
	Step    float64        `json:"step" doc:"a step that a hand can make; 0 for the usual one of its unit"`
	Named   []motion.Named `json:"named" doc:"values that people call by a name"`
}

// PatternView is a card of the shelf.
type PatternView struct {
	ID       string        `json:"id"`
	Title    string        `json:"title"`
	Moves    string        `json:"moves"`
	Good     string        `json:"good"`
	Show     bool          `json:"show" doc:"made to be looked at; how it moves is predicted all the same"`
	Minutes  int           `json:"minutes"`
	WidthMM  float64       `json:"width_mm"`
	HeightMM float64       `json:"height_mm"`
	Size     string        `json:"size" doc:"name of the sheet it was written for"`
	MinRatio float64       `json:"min_ratio"`
	MaxRatio float64       `json:"max_ratio"`
	Steps    int           `json:"steps"`
	Thickest int           `json:"thickest" doc:"layers in the thickest stack"`
	Knobs    []KnobView    `json:"knobs"`
	Picture  *draw.Picture `json:"picture,omitempty" doc:"the finished toy"`
}

// StepView is one step as it happened on the sheet at hand.
type StepView struct {
	SetsFrom     string        `json:"sets_from,omitempty" doc:"what the angle of a step that sets a part is taken from"`
	SetsSays     string        `json:"sets_says,omitempty" doc:"what that angle comes to"`
	No           int           `json:"no"`
	Op           string        `json:"op" doc:"the word of the pattern language"`
	Title        string        `json:"title" doc:"what the field calls it"`
	Character    string        `json:"character" enum:"sharp,firm,soft,bend"`
	Class        string        `json:"class" doc:"what the author says of its exactness, or empty"`
	Optional     bool          `json:"optional"`
	GapMM        float64       `json:"gap_mm" doc:"how far short of its target what is brought stops"`
	Made         bool          `json:"made" doc:"its creases are in the sheet already"`
	Cautions     []CautionView `json:"cautions"`
	Gap          *GapView      `json:"gap,omitempty" doc:"what the thickness of the layers inside asks for"`
	Guards       []string      `json:"guards" doc:"why it must come before a later step"`
	Text         string        `json:"text" doc:"the line of the pattern"`
	Say          string        `json:"say"`
	Looks        string        `json:"looks"`
	From         string        `json:"from" doc:"what is brought"`
	To           string        `json:"to" doc:"what it is brought to"`
	ShiftMM      float64       `json:"shift_mm" doc:"how far off its landmarks the crease is meant to lie"`
	TiltDeg      float64       `json:"tilt_deg"`
	AngleDeg     float64       `json:"angle_deg"`
	LayersFolded int           `json:"layers_folded"`
	FoldedMM     float64       `json:"folded_mm" doc:"thickness of the layers folded"`
	MaxLayers    int           `json:"max_layers"`
	WidthMM      float64       `json:"width_mm"`
	HeightMM     float64       `json:"height_mm"`
	AreaMM2      float64       `json:"area_mm2"`
	Focus        *[4]float64   `json:"focus,omitempty" doc:"where the step happens, when that is small: left, top, width and height in the picture before"`
	AwayDeg      float64       `json:"away_deg" doc:"the picture turned so far, clockwise, shows the flap moving away from the body; 0 when nothing is folded over"`
	Next         draw.Overlay  `json:"next" doc:"drawn over the picture before the step"`
	After        draw.Picture  `json:"after"`
	Round        *draw.Picture `json:"round,omitempty" doc:"after a step in the round: the toy as it then stands"`
	Layers       []draw.Region `json:"layers" doc:"layer map after the step"`
	Describe     string        `json:"describe" doc:"the picture in words"`
}

// CautionView is a caution at the step that needs it.
type CautionView struct {
	ID    string `json:"id"`
	Title string `json:"title"`
	Text  string `json:"text"`
}

// GapView is how exactly a fold meets its target.
type GapView struct {
	Verdict  string       `json:"verdict" enum:"touch,leave,overlap"`
	MM       float64      `json:"mm" doc:"left, or overlapped"`
	NeedMM   float64      `json:"need_mm" doc:"what the layers inside push out at most"`
	LeavesMM float64      `json:"leaves_mm" doc:"what the pattern leaves"`
	Inside   int          `json:"inside" doc:"layers inside the fold"`
	Picture  draw.Picture `json:"picture" doc:"cut through the fold, magnified"`
	Over     draw.Overlay `json:"over"`
	Times    float64      `json:"times" doc:"how many times larger than life, at 60 mm wide"`
}

// ToyView is the finished toy in numbers and pictures.
type ToyView struct {
	MassG       float64        `json:"mass_g"`
	ThickestMM  float64        `json:"thickest_mm"`
	MaxLayers   int            `json:"max_layers"`
	LengthMM    float64        `json:"length_mm"`
	SpanMM      float64        `json:"span_mm"`
	Measures    []SizeLineView `json:"measures" doc:"sizes of the finished toy"`
	SecondTitle string         `json:"second_title,omitempty" doc:"from where it is looked at once more"`
	SecondSays  string         `json:"second_says,omitempty" doc:"what that shows"`
	FacesAbove  FacesView      `json:"faces_above" doc:"what shows from the viewer's side, folded flat, started with the front up"`
	FacesBehind FacesView      `json:"faces_behind"`
	Round       *draw.Picture  `json:"round,omitempty" doc:"as its way of moving shows it; absent when all is flat"`
	Second      *draw.Picture  `json:"second,omitempty" doc:"from another side"`
}

// SizeLineView is one size of the finished toy.
type SizeLineView struct {
	Label string   `json:"label"`
	Value float64  `json:"value"`
	By    *float64 `json:"by,omitempty" doc:"the other side of an area"`
	Unit  string   `json:"unit" enum:"mm,g"`
}

// FoldErrorView says which step cannot be made and why.
type FoldErrorView struct {
	Step   int    `json:"step"`
	Line   int    `json:"line"`
	Code   string `json:"code"`
	Detail string `json:"detail"`
	// Over shows on the last good state what the fault is about.
	Over *draw.Overlay `json:"over,omitempty"`
}

// AdviceView says what would make an impossible fold possible.
type AdviceView struct {
	Knob  string  `json:"knob" doc:"empty when the sheet is the cause"`
	Label string  `json:"label"`
	Unit  string  `json:"unit"`
	Now   float64 `json:"now"`
	Min   float64 `json:"min"`
	Max   float64 `json:"max"`
	Fix   float64 `json:"fix"`
	All   bool    `json:"all" doc:"all knobs must go back to the pattern"`
}

// ReplayView is a pattern replayed on a sheet.
type ReplayView struct {
	Pattern string             `json:"pattern"`
	Title   string             `json:"title"`
	Sheet   bench.SheetSpec    `json:"sheet"`
	Size    string             `json:"size" doc:"name of the sheet's size, empty for one's own"`
	Knobs   map[string]float64 `json:"knobs"`
	OK      bool               `json:"ok"`
	Error   *FoldErrorView     `json:"error,omitempty"`
	Advice  []AdviceView       `json:"advice"`
	Start   draw.Picture       `json:"start"`
	Steps   []StepView         `json:"steps"`
	Toy     *ToyView           `json:"toy,omitempty" doc:"absent when a step could not be made"`
}

// ChangeView is one difference between set-ups, with words.
type ChangeView struct {
	Knob  string  `json:"knob"`
	Label string  `json:"label"`
	Unit  string  `json:"unit"`
	From  float64 `json:"from"`
	To    float64 `json:"to"`
	Hard  bool    `json:"hard"`
}

// TrialView is one trial.
type TrialView struct {
	ID int64     `json:"id"`
	At time.Time `json:"at"`
	TrialInput
}

// TrialInput is a trial as logged or edited.
type TrialInput struct {
	Kind    string             `json:"kind,omitempty" maxLength:"40" doc:"of trial, as the way of moving names it; empty for the usual one"`
	Read    map[string]float64 `json:"read,omitempty" doc:"readings by id, as the way of moving asks for them; m and s"`
	Under   map[string]string  `json:"under,omitempty" doc:"conditions that are kept with it, by name, as they are called"`
	Seen    []string           `json:"seen,omitempty" maxItems:"8"`
	Thrower string             `json:"thrower,omitempty"`
	Place   string             `json:"place,omitempty"`
	Air     string             `json:"air,omitempty"`
	Note    string             `json:"note,omitempty"`
}

// TweakView is a numbered set-up with its throws.
type TweakView struct {
	No        int                    `json:"no"`
	Why       string                 `json:"why"`
	Setup     bench.Setup            `json:"setup"`
	Changes   []ChangeView           `json:"changes" doc:"since the tweak before, or since the pattern"`
	CreatedAt time.Time              `json:"created_at"`
	Stats     map[string]bench.Stats `json:"stats" doc:"by reading; those that occur"`
	Trials    []TrialView            `json:"trials"`
}

// BuildRef names another build.
type BuildRef struct {
	ID    int64  `json:"id"`
	Name  string `json:"name"`
	Tweak int    `json:"tweak" doc:"the parent's tweak it was made from"`
}

// BuildView is a build with all that belongs to it.
type BuildView struct {
	ID         int64        `json:"id"`
	Name       string       `json:"name"`
	Pattern    string       `json:"pattern"`
	Title      string       `json:"title" doc:"of the pattern"`
	Step       int          `json:"step"`
	Setup      bench.Setup  `json:"setup" doc:"on the table now: the draft, or the newest tweak"`
	Draft      bool         `json:"draft"`
	Changes    []ChangeView `json:"changes" doc:"of the draft, since the newest tweak or the pattern"`
	NeedsChild bool         `json:"needs_child" doc:"the draft can only become a child build"`
	Tweaks     []TweakView  `json:"tweaks"`
	Trials     int          `json:"trials"`
	Parent     *BuildRef    `json:"parent,omitempty"`
	Children   []BuildRef   `json:"children"`
	Conditions TrialInput   `json:"conditions" doc:"of the trial before: kind, thrower, place, air and what is usually the same"`
	UpdatedAt  time.Time    `json:"updated_at"`
}

// BuildCard is a build in a list.
type BuildCard struct {
	ID        int64           `json:"id"`
	Name      string          `json:"name"`
	Pattern   string          `json:"pattern"`
	Title     string          `json:"title"`
	Sheet     bench.SheetSpec `json:"sheet"`
	Size      string          `json:"size"`
	Tweaks    int             `json:"tweaks"`
	Trials    int             `json:"trials"`
	Moves     string          `json:"moves"`
	Record    string          `json:"record" doc:"id of the reading that counts"`
	Stats     bench.Stats     `json:"stats" doc:"of that reading, of the newest tweak that has any"`
	Step      int             `json:"step"`
	Steps     int             `json:"steps"`
	ParentID  *int64          `json:"parent_id,omitempty"`
	Picture   *draw.Picture   `json:"picture,omitempty" doc:"the toy as it is set up now"`
	UpdatedAt time.Time       `json:"updated_at"`
}
