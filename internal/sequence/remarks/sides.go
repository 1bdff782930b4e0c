package remarks

import (
	"fmt"
	"math"
	"regexp"
	"strings"

	"tussock/internal/fold"
	"tussock/internal/geom"
	"tussock/internal/sequence"
)

// side is a word for one side of the picture.
type side struct {
	across bool    // left and right, else up and down
	sign   float64 // +1 right or up
}

var sides = map[string]side{
	"left": {true, -1}, "right": {true, 1},
	"top": {false, 1}, "upper": {false, 1}, "bottom": {false, -1}, "lower": {false, -1},
}

var sideWords = regexp.MustCompile(`(?i)\b(left|right|top|upper|bottom|lower)\b`)

// brought ends the words for what is brought: behind it they say where it goes.
var brought = regexp.MustCompile(`(?i)\b(to|onto|towards|over|down|up|against|until|so that)\b`)

// plainPart is how far from the middle, as a part of the toy's extent, a thing must lie before
// a word for the other side is wrong.
const plainPart = 0.06

// misnamed compares the words for sides in a step's sentence with the picture that it stands
// under: what is brought lies where the first word says, after every turn. It gives the word
// and the right one; "" when nothing is wrong or nothing can be told.
func misnamed(d sequence.Done) (said, is string) {
	m := d.Meets[0]
	if m.Name == "" || d.Say == "" {
		return "", ""
	}
	box := d.Before.Box()
	c := box.Centre()
	at := m.At.Sub(c)
	told := map[bool]bool{}
	for _, w := range sideWords.FindAllString(brought.Split(d.Say, 2)[0], 2) {
		s := sides[strings.ToLower(w)]
		if told[s.across] {
			break
		}
		told[s.across] = true
		off, extent := at.X, box.Width()
		if !s.across {
			off, extent = at.Y, box.Height()
		}
		if off*s.sign >= -plainPart*extent {
			continue
		}
		// The thing may lie on both sides, as an edge across the picture does.
		if m.Line && spans(m.Along, c, s.across, s.sign) {
			continue
		}
		for other, o := range sides {
			if o.across == s.across && o.sign == -s.sign && (other != "upper" && other != "lower" || w == "upper" || w == "lower") {
				is = other
			}
		}
		return w, is
	}
	return "", ""
}

// Agrees tells whether the words for sides in the name of something are those of where it
// lies in the picture: after a turn the left edge of the sheet may lie on the right.
func Agrees(m sequence.Mark, box geom.Box) bool {
	c := box.Centre()
	for _, w := range sideWords.FindAllString(m.Name, -1) {
		s := sides[strings.ToLower(w)]
		off, extent := m.At.X-c.X, box.Width()
		if !s.across {
			off, extent = m.At.Y-c.Y, box.Height()
		}
		if off*s.sign < -plainPart*extent && !(m.Line && spans(m.Along, c, s.across, s.sign)) {
			return false
		}
	}
	return true
}

// spans tells whether a stretch reaches plainly to the side that is named.
func spans(s geom.Segment, c geom.Vec, across bool, sign float64) bool {
	u, v := s.A.Sub(c), s.B.Sub(c)
	if across {
		return math.Max(u.X*sign, v.X*sign) > 0
	}
	return math.Max(u.Y*sign, v.Y*sign) > 0
}

// sidesAndMarks are the remarks on a pattern's sentences: sides that are called by the wrong
// name, and marks that nobody has made.
func sidesAndMarks(r *sequence.Replay) []Finding {
	var out []Finding
	marked := false
	for _, d := range r.Steps {
		if said, is := misnamed(d); said != "" {
			out = append(out, Finding{d.Step.Line, "words", fmt.Sprintf("step %d says %s, and what it brings lies %s in the picture: write %s", d.No, strings.ToLower(said), where(is), is)})
		}
		if !marked && theMark.MatchString(d.Say) && !makesMark(d) {
			out = append(out, Finding{d.Step.Line, "words", fmt.Sprintf("step %d speaks of a mark, and no step before it makes one: pinch or crease one first, or say what is meant", d.No)})
		}
		marked = marked || makesMark(d)
	}
	return out
}

func where(word string) string {
	if s := sides[word]; s.across {
		return "on the " + word
	}
	return "at the " + map[float64]string{1: "top", -1: "bottom"}[sides[word].sign]
}

var theMark = regexp.MustCompile(`(?i)\bthe (?:[a-z]+ )?marks?\b`)

// makesMark tells whether something is left on the paper to go by.
func makesMark(d sequence.Done) bool {
	switch d.Op {
	case sequence.OpCrease, sequence.OpPinch, sequence.OpTransfer, sequence.OpInk, sequence.OpLabel, sequence.OpUnfold:
		return true
	}
	return d.Op != sequence.OpTurn && d.Op != sequence.OpRotate && d.Before.Count().Hinges < d.After.Count().Hinges && creased(d.After)
}

// creased tells whether a crease lies open somewhere, to be seen.
func creased(s *fold.State) bool {
	c := s.Count()
	return c.Hinges > c.Folded
}
