package closure

import (
	"tussock/internal/fold"
	"tussock/internal/geom"
)

// Spot is a spot of the paper: a piece and a place of the sheet on it.
type Spot struct {
	Facet fold.FacetID
	At    geom.Vec
}

// Drive is something that is moved to where it is wanted: the angle of a hinge, rad, or
// the distance of two spots, mm.
type Drive struct {
	Hinge int32
	Spots *[2]Spot
	Want  float64
}

// Home says what paper does that nothing drives.
type Home int8

const (
	// Least opens as little as it can.
	Least Home = iota
	// Evenly opens every fold by the same part.
	Evenly
	// Towards goes to the angles of Ask.Target.
	Towards
)

// Ask is what is asked of a mechanism.
type Ask struct {
	Drives []Drive
	From   []float64        // angle of every hinge to start from; nil for the flat-folded state
	Movers func(i int) bool // hinges that may turn; nil for all creases and folds
	Sense  map[int32]int8   // of hinges that lie open at the start: +1 must become a mountain, -1 a valley
	Must   []int32          // hinges that must move from the start, in their sense
	Home   Home
	Target []float64
	Tied   bool         // what is symmetric moves alike
	Loose  bool         // layers may begin by passing through each other
	Ranks  bool         // ranks and freedoms are counted for every frame
	Root   fold.FacetID // stays where it lies in the flat-folded toy
}

// Way is one way out of a pose.
type Way struct {
	Rates []float64 // of every hinge, at the start, rad; the fastest drive has rate 1
	// Distance is how far it is from home, AgainstOrder by how much the wrong layers come
	// to lie above at first (mm per rad and mm of sheet; 0 when the order is kept).
	Distance, AgainstOrder float64
	Movers                 int
	Why                    string
	orbit                  []int32
	n                      int
}

// Verdict is how a motion went.
type Verdict string

const (
	// Sound closes and goes where it is wanted.
	Sound Verdict = "sound"
	// Over closes but cannot go where all drives want it at once.
	Over Verdict = "over-driven"
	// Stuck was not found to go on, and may still have a way.
	Stuck Verdict = "stuck"
	// Locked has no way on at all.
	Locked Verdict = "locked"
	// Crosses closes, but pieces pass through each other.
	Crosses Verdict = "crosses"
)

// Pair are two pieces that pass through each other.
type Pair struct{ A, B fold.FacetID }

// Found is a pose.
type Found struct {
	Rho      []float64
	At       []geom.Iso3
	Closure  float64 // the largest error of any loop, rad or part of the sheet
	GapMM    float64 // the worst mismatch at any hinge
	MissDeg  float64 // the worst difference of an angle asked and reached
	MissMM   float64 // the worst difference of a distance asked and reached
	Rank     int     // of the closure equations
	Freedoms int     // unknowns less rank
	AtStop   []int32 // hinges that have come flat against their paper and stay so
	Crossing []Pair
	State    Verdict
	Part     float64 // of the way asked that was gone
}

// Motion is a way gone, frame by frame; the first is the start.
type Motion struct {
	Frames []Found
	State  Verdict
	Part   float64 // of the way asked that was gone
}

// Last is the pose that was reached.
func (m Motion) Last() Found { return m.Frames[len(m.Frames)-1] }

// Tolerances of closure, rad and parts of the sheet's size; of gaps in mm. What is aimed at is
// far below what is accepted: landmarks typed with seven digits do not close better.
const (
	aimed    = 1e-11
	accepted = 1e-7
	SoundMM  = 1e-6 // a gap up to here is none
	SaidMM   = 0.01 // a gap above this is said
	reached  = 1e-6 // rad and parts of the size: a drive within this is where it is wanted
)

// closed is the error up to which a loop counts as closed: more where the toy itself, as it
// lies flat, is a little open.
func (m *Mechanism) closed() float64 { return accepted + 10*m.slack }

// movable are the hinges that may turn.
func (m *Mechanism) movable(a Ask) []bool {
	out := make([]bool, len(m.s.H))
	for i, h := range m.s.H {
		switch {
		case h.Kind == fold.Glue:
		case a.Movers != nil:
			out[i] = a.Movers(i)
		default:
			out[i] = h.Kind == fold.Crease || m.flat[i] != 0
		}
	}
	return out
}

func (m *Mechanism) from(a Ask) []float64 {
	if a.From != nil {
		return a.From
	}
	return m.flat
}
