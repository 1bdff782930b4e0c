package motion

import (
	"fmt"
	"maps"
	"regexp"
	"slices"
	"strings"

	"tussock/internal/given"
	"tussock/internal/say"
)

// Mark is what stands in one place of a toy that is written on.
type Mark struct {
	Text    string `json:"text,omitempty"`
	Colour  string `json:"colour,omitempty"`  // of the place, #rrggbb
	Picture string `json:"picture,omitempty"` // by the name of a shape that ships, or "own:" with the name that an own picture was given
	Read    bool   `json:"read,omitempty"`    // a leader has read and approved it
}

// ownPicture begins the names of pictures of one's own.
const ownPicture = "own:"

// OwnPicture is how a picture of one's own is written that was kept by a name.
func OwnPicture(name string) string { return ownPicture + name }

// OwnName is the name that a picture was kept by, if it is one's own.
func OwnName(picture string) (name string, own bool) { return strings.CutPrefix(picture, ownPicture) }

// OwnNames are the names of all pictures of one's own, each once, in order.
func (w Written) OwnNames() []string {
	var out []string
	for _, m := range w {
		if name, own := OwnName(m.Picture); own {
			out = append(out, name)
		}
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// Written is what is written on a toy, by the names of its places.
type Written map[string]Mark

// Limits of what is written.
const (
	MostMarks   = 60
	MostMarkLen = 120 // characters of one
)

var (
	placeName   = regexp.MustCompile(`^[a-z]+ [0-9]{1,2}$`)
	markColour  = regexp.MustCompile(`^#[0-9a-fA-F]{6}$`)
	pictureName = regexp.MustCompile(`^([a-z]+|` + ownPicture + `[0-9a-f]{16,64})$`)
)

// Clean is what was written as it is kept: texts in one line, places with nothing in them
// left out. The error is a *given.Error.
func (w Written) Clean() (Written, error) {
	out := Written{}
	for _, place := range slices.Sorted(maps.Keys(w)) {
		m := w[place]
		if !placeName.MatchString(place) {
			return nil, &given.Error{Field: place, Want: "the name of a place, such as number 3"}
		}
		m.Text = say.OneLine(m.Text)
		if n := len([]rune(m.Text)); n > MostMarkLen {
			return nil, &given.Error{Field: place + ".text", Value: fmt.Sprintf("%d characters long", n), Want: fmt.Sprintf("at most %d characters", MostMarkLen)}
		}
		if m.Colour != "" && !markColour.MatchString(m.Colour) {
			return nil, &given.Error{Field: place + ".colour", Value: m.Colour, Want: "a colour such as #c23b22"}
		}
		if m.Picture != "" && !pictureName.MatchString(m.Picture) {
			return nil, &given.Error{Field: place + ".picture", Value: m.Picture, Want: "the name of a picture"}
		}
		if m.Text == "" {
			m.Read = false
		}
		if m != (Mark{}) {
			out[place] = m
		}
	}
	if len(out) > MostMarks {
		return nil, &given.Error{Field: "written", Value: len(out), Want: fmt.Sprintf("at most %d places", MostMarks)}
	}
	return out, nil
}

// Moved is a change of what is written as it is kept: empty marks stay, they clear places.
func (w Written) Moved() (Written, error) {
	out, err := w.Clean()
	if err != nil {
		return nil, err
	}
	for place := range w {
		if _, kept := out[place]; !kept {
			out[place] = Mark{}
		}
	}
	return out, nil
}

// Writer is a trying whose predictions depend on what is written on the toy.
type Writer interface {
	With(w Written) Trying
}

// Wrapper lays something round a trying and can lay the same round another.
type Wrapper interface {
	Unwrap() Trying
	Rewrap(Trying) Trying
}

// WithWritten is a trying of the toy with what is written on it; the same where that plays
// no part.
func WithWritten(t Trying, w Written) Trying {
	if v, ok := t.(Writer); ok {
		return v.With(w)
	}
	if v, ok := t.(Wrapper); ok {
		return v.Rewrap(WithWritten(v.Unwrap(), w))
	}
	return t
}
