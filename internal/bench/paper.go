package bench

import (
	"fmt"
	"regexp"
	"time"
)

// Paper is a kind of paper a person owns.
type Paper struct {
	ID        int64
	Name      string
	Sheet     SheetSpec
	DeletedAt *time.Time
}

// Settings are a person's choices.
type Settings struct {
	Units string `json:"units" db:"units" enum:"mm,in"`
	Hand  string `json:"hand" db:"hand" enum:"right,left"`
	Theme string `json:"theme" db:"theme" enum:"auto,light,dark"`
}

// Default face colours: warm white in front, tide grey behind.
const (
	DefaultFront = "#fdf8ea"
	DefaultBack  = "#b5c9c4"
)

var colour = regexp.MustCompile(`^#[0-9a-f]{6}$`)

// CheckColour wants #rrggbb in lower case.
func CheckColour(field, c string) error {
	if !colour.MatchString(c) {
		return &Problem{field, fmt.Sprintf("%q", c), "a colour like #fdf8ea"}
	}
	return nil
}
