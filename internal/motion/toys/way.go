package toys

import (
	"math/rand/v2"

	"tussock/internal/body"
	"tussock/internal/draw"
	"tussock/internal/motion"
	"tussock/internal/prints"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// Way is everything that a way of moving brings: how it is spoken of, tried and tuned,
// what it adds to the pattern language, which paper suits it, how its finished toys
// stand and are looked at, and what makes its predictions.
type Way struct {
	motion.Way
	// Is tells a pattern of this way from others that move by the same word; nil where all of
	// them are its own. The first way that says yes has the pattern.
	Is func(*sequence.Pattern) bool
	// Language is what it adds to the pattern language.
	Language sequence.Vocabulary
	// Paper is what suits it.
	Paper sheet.Bands
	// On makes the bench for a pattern on a sheet.
	On func(*sequence.Pattern, sheet.Sheet) motion.Bench
	// Learn calibrates from trials; nil where nothing is learnt.
	Learn func([]motion.Observation) motion.Calibration
	// Show is how a finished toy stands and is looked at; ok is false, or Show nil, where it
	// stands and is looked at like any other.
	Show func(*sequence.Replay) (Shown, bool)
	// Watch is from where a step in the round is looked at; ok is false, or Watch
	// nil, where that is chosen by what moves.
	Watch func(draw.Shown) (c draw.Camera, ok bool)
	// Card is a printed card that helps to measure the finished toy; nil for none.
	Card *Card
	// Data are zero values of what its drawings hold, for the description of the API.
	Data []any
	// Aids are what helps with single steps of a pattern of this way, by number; nil for none.
	Aids func(*sequence.Replay) map[int]motion.Aid
	// Writing is how such toys are written on; nil for those that are not.
	Writing *Writing
	// Between are pictures of the way from one state of a toy to another, as its drawing numbers
	// them; nil for toys without states. The error says what is wrong with the numbers.
	Between func(r *sequence.Replay, w motion.Written, from, to int) ([]draw.Picture, error)
	// Invent makes up a trial for demo data, scattered about what is meant, with a note or "".
	Invent func(*rand.Rand, Meant) (motion.Noted, string)
}

// Shown is a finished toy as it is looked at.
type Shown struct {
	Pose             body.Pose
	LengthMM, SpanMM float64
	Sizes            []Size
	// Round is from where it is looked at, Second from where once more, with what that shows.
	Round, Second draw.Camera
	SecondTitle   string
	SecondSays    string
}

// Size is one size of a finished toy; By is the other side of an area.
type Size struct {
	Label string
	Value float64
	By    *float64
	Unit  string // mm or g
}

// Card is a printed card. Depth is the depth of an edge that it shows, mm.
type Card struct {
	Name string
	Lay  func(page prints.Page, depthMM float64, inches bool) prints.Leaf
}

// Meant is what invented trials scatter about: the usual reading, by how much it
// scatters, and more by name. Mean and spread are in the unit of the reading.
type Meant struct {
	Mean, SD float64
	More     map[string]float64
	Seen     []string // what may be noted of it
	Chance   float64  // that something is noted
}

// Chip is something noted by chance.
func (m Meant) Chip(r *rand.Rand) []string {
	if len(m.Seen) > 0 && r.Float64() < m.Chance {
		return []string{m.Seen[r.IntN(len(m.Seen))]}
	}
	return nil
}

// From where a toy is looked at that nothing else is said of, in degrees.
const lookAcross, lookDown = 28, 38

// Ordinary is the camera that looks at it.
func Ordinary() draw.Camera { return draw.Slanted(lookAcross, lookDown) }

// Look is from where a step in the round is looked at.
func (w *Way) Look(s draw.Shown) draw.Camera {
	if w.Watch != nil {
		if c, ok := w.Watch(s); ok {
			return c
		}
	}
	return draw.Watching(s)
}
