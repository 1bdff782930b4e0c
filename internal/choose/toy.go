// Package choose says what a pattern asks of the one who folds it, and which patterns do
// for what lies on the table.
//
// In words: this one takes nine minutes and a fold through eight layers, so it is nothing
// for small children; that one needs a square, and your sheet gives one with a cut.
//
// Difficulty and audience are rules of thumb; what they are made of is counted.
package choose

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"tussock/internal/care"
	"tussock/internal/say"
	"tussock/internal/sequence"
	"tussock/internal/sequence/remarks"
	"tussock/internal/sequence/spread"
	"tussock/internal/sheet"
)

// Tool is something that lies on the table.
type Tool string

// The tools that patterns ask for.
const (
	Scissors Tool = "scissors"
	Glue     Tool = "glue"
	Tape     Tool = "tape"
	Skewer   Tool = "skewer"
)

// Tools lists them.
var Tools = []Tool{Scissors, Glue, Tape, Skewer}

// Level is how hard a pattern is to fold.
type Level string

// The levels, easiest first.
const (
	Easy      Level = "easy"
	Moderate  Level = "moderate"
	Demanding Level = "demanding"
	Hard      Level = "hard"
)

// levels lists them, and from which score each begins.
var levels = []struct {
	level Level
	from  float64
}{{Easy, 0}, {Moderate, 4.5}, {Demanding, 7}, {Hard, 9.5}}

// Audience is who is to fold.
type Audience string

// The audiences: a grown-up with nimble fingers, one who learns, a child of about six,
// many at a time under one leader.
const (
	Adult   Audience = "adult"
	Learner Audience = "learner"
	Child   Audience = "young child"
	Class   Audience = "class"
)

// Audiences lists them.
var Audiences = []Audience{Adult, Learner, Child, Class}

// What an audience can do: the hardest score, the most layers in one fold, the longest
// time, the narrowest flap, mm; and whether it may cut.
type limit struct {
	score, leastMM  float64
	layers, minutes int
	cuts            bool
}

// Rules of thumb: a child of six folds four layers of office paper, sits for ten minutes
// and holds nothing narrower than a finger; a class has one leader for all faults.
var limits = map[Audience]limit{
	Adult:   {score: math.Inf(1), layers: math.MaxInt, minutes: math.MaxInt, cuts: true},
	Learner: {score: 7, layers: 9, minutes: math.MaxInt, cuts: true},
	Child:   {score: 4.5, layers: 4, minutes: 10, leastMM: 15},
	Class:   {score: 7, layers: 9, minutes: 15, cuts: true},
}

// Toy is a pattern with what it asks for, folded from its own sheet of ordinary paper.
type Toy struct {
	ID, Title, Moves, Family string
	Show                     bool
	Minutes, Steps           int
	Layers                   int // that the fingers fold at once, at most
	Critical                 int // steps at which 1 mm shows
	LeastMM                  float64
	Needs                    []Tool
	Score                    float64
	Level                    Level
	For                      []Audience
}

// Of folds a pattern and looks what it asks for. The error is that of a pattern that does
// not fold from its own sheet.
func Of(p *sequence.Pattern) (Toy, error) {
	t := Toy{ID: p.ID, Title: p.Title, Moves: p.Moves, Family: p.Family, Show: p.Show, Minutes: p.Minutes, Steps: len(p.Steps)}
	s, err := sheet.New(p.WidthMM, p.HeightMM, sheet.PlainGSM, sheet.PlainThicknessMM)
	if err != nil {
		return t, err
	}
	r := p.Run(s, nil)
	if r.Err != nil {
		return t, r.Err
	}
	steps, err := care.Of(r, spread.Adult)
	if err != nil {
		return t, err
	}
	for _, c := range steps {
		t.Layers = max(t.Layers, c.Layers)
		if c.Class == spread.Critical || c.Author == string(spread.Critical) {
			t.Critical++
		}
	}
	t.LeastMM, _ = remarks.SmallestFlap(r)
	t.Needs = needs(p)
	t.Score = score(t)
	for _, l := range levels {
		if t.Score >= l.from {
			t.Level = l.level
		}
	}
	for _, a := range Audiences {
		if t.unfit(a) == "" {
			t.For = append(t.For, a)
		}
	}
	return t, nil
}

// needs are the tools that the steps of a pattern ask for.
func needs(p *sequence.Pattern) []Tool {
	by := map[sequence.Op]Tool{sequence.OpCut: Scissors, sequence.OpSlit: Scissors, sequence.OpGlue: Glue, sequence.OpTape: Tape}
	var out []Tool
	for _, s := range p.Steps {
		if tool, asks := by[s.Op]; asks && !s.Optional && !slices.Contains(out, tool) {
			out = append(out, tool)
		}
	}
	return out
}

// score adds up what makes folding hard: six steps, two layers more than two, two steps
// that must be exact count one each; so does a narrowest flap half as wide as a finger.
func score(t Toy) float64 {
	const fingerMM = 16.0
	narrow := 0.0
	if t.LeastMM > 0 {
		narrow = math.Max(0, fingerMM/t.LeastMM-1)
	}
	return float64(t.Steps)/6 + math.Max(0, float64(t.Layers-2))/2 + float64(t.Critical)/2 + narrow
}

// Why says what makes it as hard as it is.
func (t Toy) Why() string {
	parts := []string{counted(t.Steps, "step", "steps"), fmt.Sprintf("up to %s in one fold", counted(t.Layers, "layer", "layers"))}
	if t.Critical > 0 {
		parts = append(parts, counted(t.Critical, "step that must be exact", "steps that must be exact"))
	}
	if t.LeastMM > 0 {
		parts = append(parts, "the narrowest flap "+say.MM(t.LeastMM, 0)+" wide")
	}
	return strings.Join(parts, ", ")
}

func counted(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}

// unfit says why a toy is nothing for an audience; "" when it is.
func (t Toy) unfit(a Audience) string {
	l := limits[a]
	switch {
	case t.Layers > l.layers:
		return fmt.Sprintf("%d layers in one fold", t.Layers)
	case t.Minutes > l.minutes:
		return fmt.Sprintf("%d minutes", t.Minutes)
	case !l.cuts && slices.Contains(t.Needs, Scissors):
		return "scissors"
	case t.LeastMM > 0 && t.LeastMM < l.leastMM:
		return "a flap only " + say.MM(t.LeastMM, 0) + " wide"
	case t.Score >= l.score:
		return string(t.Level)
	}
	return ""
}
