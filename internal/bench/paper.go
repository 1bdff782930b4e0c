package bench

import (
	"fmt"
	"regexp"
	"slices"
	"time"

	"tussock/internal/given"
	"tussock/internal/say"
	"tussock/internal/sheet"
)

// Paper is a kind of paper a person owns.
type Paper struct {
	ID        int64
	Name      string
	Sheet     SheetSpec
	Grain     string // "width" or "height" of the sheet along which the fibres run; "" unknown
	Stiffness string // "soft", "ordinary" or "crisp"
	Left      *int   // how many sheets; nil when nobody counts
	Origin    string // what it was cut from; "" for bought paper
	DeletedAt *time.Time
}

// MaxLeft bounds the count of sheets.
const MaxLeft = 100000

// Check refuses qualities that no paper has, and a count that cannot be.
func (p Paper) Check() error {
	if !slices.Contains([]string{"", "width", "height"}, p.Grain) {
		return &given.Error{Field: "grain", Value: fmt.Sprintf("%q", p.Grain), Want: "width, height, or empty when not known"}
	}
	if !slices.Contains([]string{"soft", "ordinary", "crisp"}, p.Stiffness) {
		return &given.Error{Field: "stiffness", Value: fmt.Sprintf("%q", p.Stiffness), Want: "soft, ordinary or crisp"}
	}
	if p.Left != nil && (*p.Left < 0 || *p.Left > MaxLeft) {
		return &given.Error{Field: "left", Value: *p.Left, Want: fmt.Sprintf("0 to %d sheets", MaxLeft)}
	}
	return atMost("origin", p.Origin, MaxName)
}

// Settings are a person's choices.
type Settings struct {
	Units    string  `json:"units" db:"units"`
	Hand     string  `json:"hand" db:"hand"`
	Theme    string  `json:"theme" db:"theme"`
	Page     string  `json:"page,omitempty" db:"page"`           // in the printer: a4, letter, or auto for the one that goes with the sheet
	FingerMM float64 `json:"finger_mm,omitempty" db:"finger_mm"` // girth of the finger that toys go on; 0 for none measured
}

// Fingers, from a small child's to a large hand's, round the middle.
const leastFingerMM, mostFingerMM = 25.0, 85.0

// Check refuses a finger that no hand has. The error is a *given.Error.
func (s Settings) Check() error {
	if s.FingerMM != 0 && !(s.FingerMM >= leastFingerMM && s.FingerMM <= mostFingerMM) {
		return &given.Error{Field: "finger_mm", Value: s.FingerMM, Want: say.Between(leastFingerMM, mostFingerMM, "mm", 0) + ", the girth of a finger; 0 for none measured"}
	}
	return nil
}

// Default face colours: warm white in front, tide grey behind.
const (
	DefaultFront = sheet.PlainFront
	DefaultBack  = sheet.PlainBack
)

var colour = regexp.MustCompile(`^#[0-9a-f]{6}$`)

// CheckColour wants #rrggbb in lower case.
func CheckColour(field, c string) error {
	if !colour.MatchString(c) {
		return &given.Error{Field: field, Value: fmt.Sprintf("%q", c), Want: "a colour like #fdf8ea"}
	}
	return nil
}
