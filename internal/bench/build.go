package bench

import (
	"fmt"
	"maps"
	"slices"
	"time"

	"tussock/internal/given"
	"tussock/internal/motion"
	"tussock/internal/say"
	"tussock/internal/sheet"
)

// SheetSpec is the sheet of a set-up.
type SheetSpec struct {
	WidthMM     float64 `json:"width_mm"`
	HeightMM    float64 `json:"height_mm"`
	GSM         float64 `json:"gsm"`
	ThicknessMM float64 `json:"thickness_mm"`
	Paper       string  `json:"paper"` // what the person calls it
	Front       string  `json:"front"` // face colours, #rrggbb
	Back        string  `json:"back"`
	// Turned says that the paper lies with its own front down: Front is then the
	// colour of its back.
	Turned bool `json:"turned,omitempty"`
	// Way is how the sheet was got from another, Made the creases that this left in
	// it (x1, y1, x2, y2 on the sheet, mm), ErrorMM how exact its edges are.
	Way     string       `json:"way,omitempty"`
	Made    [][4]float64 `json:"made,omitempty"`
	ErrorMM float64      `json:"error_mm,omitempty"`
	From    *SheetFrom   `json:"from,omitempty"`
}

// Plain is the sheet as it is folded.
func (s SheetSpec) Plain() (sheet.Sheet, error) {
	return sheet.New(s.WidthMM, s.HeightMM, s.GSM, s.ThicknessMM)
}

// PlainPaper is ordinary copying paper of a size, when nobody has said which.
func PlainPaper(widthMM, heightMM float64) SheetSpec {
	return SheetSpec{WidthMM: widthMM, HeightMM: heightMM, GSM: sheet.PlainGSM, ThicknessMM: sheet.PlainThicknessMM, Front: DefaultFront, Back: DefaultBack}
}

// TurnedOver is the same sheet turned over sideways: its other side up, the creases it
// has mirrored.
func (s SheetSpec) TurnedOver() SheetSpec {
	made := make([][4]float64, len(s.Made))
	for i, c := range s.Made {
		made[i] = [4]float64{s.WidthMM - c[0], c[1], s.WidthMM - c[2], c[3]}
	}
	if s.Made != nil {
		s.Made = made
	}
	s.Front, s.Back, s.Turned = s.Back, s.Front, !s.Turned
	return s
}

// SheetFrom is the sheet that another was got from, and what was wanted of it.
type SheetFrom struct {
	WidthMM  float64   `json:"width_mm"`
	HeightMM float64   `json:"height_mm"`
	Want     SheetWant `json:"want"`
}

// SheetWant is the sheet that is wanted of another.
type SheetWant struct {
	Kind     string  `json:"kind"`
	WidthMM  float64 `json:"width_mm,omitempty"`  // of a square (0: the largest), a strip or a size
	HeightMM float64 `json:"height_mm,omitempty"` // of a size
	Ratio    float64 `json:"ratio,omitempty"`     // height over width
	N        int     `json:"n,omitempty"`         // corners of an n-gon, 3 to 8
	LeftMM   float64 `json:"left_mm,omitempty"`   // margins that come off
	RightMM  float64 `json:"right_mm,omitempty"`
	BottomMM float64 `json:"bottom_mm,omitempty"`
	TopMM    float64 `json:"top_mm,omitempty"`
}

// MaxMade bounds the creases that a sheet brings along.
const MaxMade = 64

// mostErrorMM bounds how far a sheet may be from its sizes, mm.
const mostErrorMM = 50.0

// CheckMade refuses creases that do not lie on the sheet.
func (s SheetSpec) CheckMade() error {
	if len(s.Made) > MaxMade {
		return &given.Error{Field: "made", Value: len(s.Made), Want: fmt.Sprintf("at most %d creases", MaxMade)}
	}
	for i, m := range s.Made {
		for k, v := range m {
			most := s.WidthMM
			if k%2 == 1 {
				most = s.HeightMM
			}
			if !(v >= -0.1 && v <= most+0.1) {
				return &given.Error{Field: fmt.Sprintf("made[%d]", i), Value: v, Want: fmt.Sprintf("on the sheet, 0 to %s", say.MM(most, 1))}
			}
		}
	}
	if !(s.ErrorMM >= 0 && s.ErrorMM <= mostErrorMM) {
		return &given.Error{Field: "error_mm", Value: s.ErrorMM, Want: say.Between(0, mostErrorMM, "mm", 1)}
	}
	return nil
}

// sameFold tells whether two sheets make the same toy: they fold and weigh alike and
// the same side is up. Colours do not matter.
func (s SheetSpec) sameFold(t SheetSpec) bool {
	return s.WidthMM == t.WidthMM && s.HeightMM == t.HeightMM && s.GSM == t.GSM && s.ThicknessMM == t.ThicknessMM && s.Turned == t.Turned
}

// Setup is everything that decides the shape of a toy.
type Setup struct {
	Sheet SheetSpec          `json:"sheet"`
	Knobs map[string]float64 `json:"knobs"`
	// Recipes are the knobs whose length is found by folding instead of measuring, and
	// the creases of the recipe.
	Recipes map[string]int `json:"recipes,omitempty"`
	// Written is what is written on the toy, by place.
	Written motion.Written `json:"written,omitempty"`
}

// Clone is a copy that shares nothing.
func (s Setup) Clone() Setup {
	s.Knobs, s.Recipes, s.Written = maps.Clone(s.Knobs), maps.Clone(s.Recipes), maps.Clone(s.Written)
	if s.Knobs == nil {
		s.Knobs = map[string]float64{}
	}
	return s
}

// Build is one toy being made.
type Build struct {
	ID          int64
	Pattern     string
	Name        string
	ParentID    *int64
	ParentTweak *int // number of the parent's tweak it was made from
	Step        int  // how far it is folded, 0 not begun
	Draft       *Setup
	At          int // number of the tweak beneath the draft; 0: the newest
	// Version counts the changes of what lies on the table; Touched says at which version
	// each knob, the "sheet" and the "recipes" changed last.
	Version   int
	Touched   map[string]int
	CreatedAt time.Time
	UpdatedAt time.Time
	DeletedAt *time.Time
	Tweaks    []Tweak
}

// Tweak is a numbered set-up of a build.
type Tweak struct {
	ID        int64
	BuildID   int64
	No        int
	Setup     Setup
	Why       string
	CreatedAt time.Time
	Tried     int     // how many trials it has, where they themselves have not been read
	Trials    []Trial // without those in the bin
}

// Count is how many trials a tweak has.
func (t *Tweak) Count() int { return max(t.Tried, len(t.Trials)) }

// Latest is the newest tweak, nil when nothing has been settled yet.
func (b *Build) Latest() *Tweak {
	if len(b.Tweaks) == 0 {
		return nil
	}
	return &b.Tweaks[len(b.Tweaks)-1]
}

// OnTable is the tweak that lies on the table beneath the draft: the newest, or an older
// one that was gone back to. nil when nothing has been settled yet.
func (b *Build) OnTable() *Tweak {
	for i := range b.Tweaks {
		if b.Tweaks[i].No == b.At {
			return &b.Tweaks[i]
		}
	}
	return b.Latest()
}

// Current is the set-up on the table: the draft if there is one, else the tweak.
func (b *Build) Current() Setup {
	if b.Draft != nil {
		return b.Draft.Clone()
	}
	if t := b.OnTable(); t != nil {
		return t.Setup.Clone()
	}
	return Setup{Knobs: map[string]float64{}}
}

// Trials counts all trials of a build.
func (b *Build) Trials() int {
	n := 0
	for i := range b.Tweaks {
		n += b.Tweaks[i].Count()
	}
	return n
}

// Change is one difference between two set-ups.
type Change struct {
	Knob string  `json:"knob"` // name, or "sheet", or "written"
	From float64 `json:"from"`
	To   float64 `json:"to"`
	Hard bool    `json:"hard"` // needs a new sheet of paper
}

// WrittenTouched is what a change of what is written is called.
const WrittenTouched = "written"

// rewritten counts the places that differ.
func rewritten(from, to motion.Written) (n int) {
	for p, m := range to {
		if from[p] != m {
			n++
		}
	}
	for p := range from {
		if _, still := to[p]; !still {
			n++
		}
	}
	return n
}

// Changes lists what differs, knobs in order of name, then the sheet and what is written. isHard
// tells for a knob whether it moves a hard fold.
func Changes(from, to Setup, isHard func(knob string) bool) []Change {
	var out []Change
	for _, name := range slices.Sorted(maps.Keys(to.Knobs)) {
		a, had := from.Knobs[name]
		if b := to.Knobs[name]; !had || a != b {
			out = append(out, Change{name, a, b, isHard(name)})
		}
	}
	if !from.Sheet.sameFold(to.Sheet) {
		out = append(out, Change{Knob: "sheet", Hard: true})
	}
	if n := rewritten(from.Written, to.Written); n > 0 {
		out = append(out, Change{Knob: WrittenTouched, To: float64(n)})
	}
	return out
}

// Limits of what people write, in characters.
const (
	MaxName = 80
	MaxNote = 2000
)

// CleanName trims a name, takes out what does not print, and checks its length.
func CleanName(field, name string) (string, error) {
	name = say.OneLine(name)
	if n := len([]rune(name)); n == 0 || n > MaxName {
		return "", &given.Error{Field: field, Value: fmt.Sprintf("%d characters long", n), Want: fmt.Sprintf("1 to %d characters", MaxName)}
	}
	return name, nil
}

func atMost(field, text string, limit int) error {
	if n := len([]rune(text)); n > limit {
		return &given.Error{Field: field, Value: fmt.Sprintf("%d characters long", n), Want: fmt.Sprintf("at most %d characters", limit)}
	}
	return nil
}
