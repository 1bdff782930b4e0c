package folding

import (
	"tussock/internal/bench"
	"tussock/internal/draw"
	"tussock/internal/motion"
	"tussock/internal/web/answer"
)

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
	Unit    string         `json:"unit" enum:"mm,deg,g,part," doc:"part: of a way along the paper, told in per cent; empty for a count"`
	Default float64        `json:"default"`
	Min     float64        `json:"min"`
	Max     float64        `json:"max"`
	Kind    string         `json:"kind" enum:"fold,set" doc:"fold needs a new sheet, set is a last bend"`
	Changes string         `json:"changes"`
	Steps   []int          `json:"steps"`
	Implied bool           `json:"implied" doc:"a last bend of the finished toy: no fold uses it"`
	Step    float64        `json:"step" doc:"a step that a hand can make; 0 for the usual one of its unit"`
	Named   []motion.Named `json:"named" doc:"values that people call by a name"`
	Read    bool           `json:"read" doc:"read off the finished toy: it has no dial"`
	Either  bool           `json:"either" doc:"a switch: the two values with a name are the only ones"`
}

// PatternView is a card of the shelf.
type PatternView struct {
	ID       string        `json:"id"`
	Title    string        `json:"title"`
	Moves    string        `json:"moves"`
	Way      string        `json:"way" doc:"name of the way of moving that is its own, of those that it may move by"`
	Good     string        `json:"good"`
	Show     bool          `json:"show" doc:"made to be looked at; how it moves is predicted all the same"`
	Minutes  int           `json:"minutes"`
	WidthMM  float64       `json:"width_mm"`
	HeightMM float64       `json:"height_mm"`
	Size     string        `json:"size" doc:"name of the sheet it was written for"`
	MinRatio float64       `json:"min_ratio"`
	MaxRatio float64       `json:"max_ratio"`
	Corners  int           `json:"corners" doc:"of the regular outline that is cut from a sheet first; 0 where it is folded as it is"`
	Steps    int           `json:"steps"`
	Thickest int           `json:"thickest" doc:"layers in the thickest stack"`
	Knobs    []KnobView    `json:"knobs"`
	Picture  *draw.Picture `json:"picture,omitempty" doc:"the finished toy"`
	Level    string        `json:"level" enum:"easy,moderate,demanding,hard" doc:"a rule of thumb"`
	Why      string        `json:"why" doc:"what makes it as hard as it is, counted"`
	Layers   int           `json:"layers" doc:"the most that is folded at once"`
	Needs    []string      `json:"needs" doc:"besides paper and fingers"`
	Family   string        `json:"family"`
	Easier   *PatternRef   `json:"easier,omitempty" doc:"the next easier one of its family"`
	Harder   *PatternRef   `json:"harder,omitempty"`
	Credit   string        `json:"credit" doc:"whose work it is"`
	Adapts   *PatternRef   `json:"adapts,omitempty" doc:"what it was made from"`
	AddOns   []PatternRef  `json:"add_ons" doc:"what can be folded to go with it"`
}

// PatternRef names a pattern.
type PatternRef struct {
	ID    string `json:"id"`
	Title string `json:"title"`
}

// StepView is one step as it happened on the sheet at hand.
type StepView struct {
	SetsFrom     string               `json:"sets_from,omitempty" doc:"what the angle of a step that sets a part is taken from"`
	SetsSays     string               `json:"sets_says,omitempty" doc:"what that angle comes to"`
	No           int                  `json:"no"`
	Op           string               `json:"op" doc:"the word of the pattern language"`
	Title        string               `json:"title" doc:"what the field calls it"`
	Sets         bool                 `json:"sets" doc:"it sets a part of the toy, which stands from then on as the finished toy is shown"`
	Character    string               `json:"character" enum:"sharp,firm,soft,bend"`
	Class        string               `json:"class" doc:"what the author says of its exactness, or empty"`
	Optional     bool                 `json:"optional"`
	GapMM        float64              `json:"gap_mm" doc:"how far short of its target what is brought stops"`
	Made         bool                 `json:"made" doc:"its creases are in the sheet already"`
	Cautions     []answer.CautionView `json:"cautions"`
	Gap          *GapView             `json:"gap,omitempty" doc:"what the thickness of the layers inside asks for"`
	Guards       []string             `json:"guards" doc:"why it must come before a later step"`
	Text         string               `json:"text" doc:"the line of the pattern"`
	Say          string               `json:"say"`
	Looks        string               `json:"looks"`
	From         string               `json:"from" doc:"what is brought; empty where its name would say another side than the picture"`
	To           string               `json:"to" doc:"what it is brought to"`
	ShiftMM      float64              `json:"shift_mm" doc:"how far off its landmarks the crease is meant to lie"`
	TiltDeg      float64              `json:"tilt_deg"`
	AngleDeg     float64              `json:"angle_deg"`
	LayersFolded int                  `json:"layers_folded"`
	FoldedMM     float64              `json:"folded_mm" doc:"thickness of the layers folded"`
	MaxLayers    int                  `json:"max_layers"`
	WidthMM      float64              `json:"width_mm"`
	HeightMM     float64              `json:"height_mm"`
	AreaMM2      float64              `json:"area_mm2"`
	Focus        *[4]float64          `json:"focus,omitempty" doc:"where the step happens, when that is small: left, top, width and height in the picture before"`
	AwayDeg      float64              `json:"away_deg" doc:"the picture turned so far, clockwise, shows the flap moving away from the body; 0 when nothing is folded over"`
	Before       *draw.Picture        `json:"before,omitempty" doc:"the paper before it, where that is shown in the round; else what the step before leaves"`
	Next         draw.Overlay         `json:"next" doc:"drawn over the picture before the step"`
	Frame        draw.Frame           `json:"frame" doc:"what the picture before is drawn in"`
	AfterFrame   [4]float64           `json:"after_frame" doc:"what the picture after is drawn in: at the same scale, where it fits"`
	Halved       bool                 `json:"halved" doc:"its two ends do not show the way: ask for the paper half-way"`
	After        draw.Picture         `json:"after"`
	Round        *draw.Picture        `json:"round,omitempty" doc:"after a step in the round: the toy as it then stands, seen as before it"`
	Layers       []draw.Region        `json:"layers" doc:"layer map after the step"`
	Describe     string               `json:"describe" doc:"the picture in words"`
	Aid          *motion.Aid          `json:"aid,omitempty" doc:"what its way of moving helps with"`
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
	OK      bool               `json:"ok" doc:"every step can be folded"`
	Sound   bool               `json:"sound" doc:"and the toy can stand as its steps in the round set it: nothing torn, every angle reached, nothing passing through anything"`
	Corners int                `json:"corners" doc:"of the regular outline that is cut from the sheet first; 0 where it is folded as it is"`
	Nearly  string             `json:"nearly" doc:"of a sheet folded as one of the proportions that the pattern needs: what is off and what that does; empty where it is not"`
	Error   *FoldErrorView     `json:"error,omitempty"`
	Advice  []AdviceView       `json:"advice"`
	Start   draw.Picture       `json:"start"`
	Steps   []StepView         `json:"steps"`
	Toy     *ToyView           `json:"toy,omitempty" doc:"absent when a step could not be made"`
}
