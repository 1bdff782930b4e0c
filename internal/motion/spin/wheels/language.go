package wheels

import (
	"errors"
	"fmt"
	"math"
	"slices"
	"strconv"

	"tussock/internal/geom"
	"tussock/internal/sequence"
)

const headBlades = "blades"

// The names of the knobs that no fold uses.
const (
	KnobAngle = "blade_angle"
	KnobOdd   = "odd_blade"
	KnobOddBy = "odd_by"
	KnobPin   = "pin_radius"
	KnobPlay  = "axle_play"
	KnobTape  = "tip_tape"
	knobGap   = "gap_"
)

// mostBlades is how many blades gaps are counted of.
const mostBlades = 8

// KnobGap is how many folds lie between blade i and the next, from 0.
func KnobGap(i int) string { return knobGap + strconv.Itoa(i+1) }

// evenGap is what gaps stand at that nobody has counted.
const evenGap = 5.0

func knobs() []sequence.Knob {
	out := []sequence.Knob{
		{Name: KnobAngle, Label: "Blades lie over to", Unit: "deg", Default: 30, Min: 5, Max: 85, Step: 1, Named: []sequence.Named{{Value: 15, Label: "nearly flat"}, {Value: 30, Label: "a third"}, {Value: 45, Label: "half"}, {Value: 75, Label: "steep"}},
			Changes: "The angle between a blade, two thirds out, and the plane of the wheel, by a protractor. Pressing and twisting lays them flatter. Flatter turns faster and starts less easily."},
		{Name: KnobOddBy, Label: "One blade lies otherwise by", Unit: "deg", Min: -30, Max: 30, Step: 1, Named: []sequence.Named{{Value: 0, Label: "all alike"}},
			Changes: "By how much the blade named below lies steeper than the others; flatter is negative."},
		{Name: KnobOdd, Label: "Which blade that is", Default: 1, Min: 1, Max: mostBlades, Step: 1, Whole: true,
			Changes: "Counted from the one that is marked, the way that the picture counts."},
		{Name: KnobPin, Label: "Pin or blunt point, radius", Unit: "mm", Default: 0.5, Min: 0.1, Max: 4, Step: 0.1, Named: []sequence.Named{{Value: 0.3, Label: "a needle"}, {Value: 0.5, Label: "a pin"}, {Value: 1.5, Label: "a skewer"}},
			Changes: "How thick what it turns on is where it rubs. A thinner one starts more easily; the hole may be as wide as it likes."},
		{Name: KnobPlay, Label: "Play of the axle", Unit: "mm", Default: 0.3, Min: 0, Max: 3, Step: 0.1,
			Changes: "How far the wheel can be pushed to and fro on its axle. It rattles in it when it turns fast and uneven."},
		{Name: KnobTape, Label: "Tape at the tip", Unit: "g", Max: 0.3, Step: 0.01,
			Changes: "Weight of tape or of anything else at the tip, besides what a step sticks on. It steadies a fall with the tip down."},
	}
	for i := range mostBlades {
		out = append(out, sequence.Knob{Name: KnobGap(i), Label: fmt.Sprintf("Folds between blade %d and the next", i+1), Default: evenGap, Max: 40, Step: 0.5, Read: true,
			Changes: "As counted on the finished wheel."})
	}
	return out
}

// implies gives a wheel its set-up knobs.
func implies(p *sequence.Pattern, k sequence.Knob) (sequence.Knob, int, bool) {
	if p.Head(headBlades) == "" || len(p.Steps) == 0 {
		return k, 0, false
	}
	return k, len(p.Steps), true
}

// What wheels add to the pattern language: the blades that catch the air. The standing toy
// is looked at for them.
var language = sequence.Vocabulary{
	Moves: "spin",
	Heads: []sequence.Head{
		{Word: headBlades, Kind: sequence.APoint, Least: 1, What: "the blades", Fix: "blades P1 P2 P3", Check: blades},
	},
	Knobs:   knobs(),
	Implies: implies,
	Entries: []sequence.Entry{
		{Group: "head", Word: "blades", Syntax: "P P…", Meaning: "A landmark on each blade of a wheel. Its leaves are parted about an axle, and stand and lie over evenly about it. Where a knob counts the corners of the sheet one will do: there is a blade on every corner. A wheel has further set-up knobs without writing them.",
			Example: "sheet square 150\nmoves spin\nblades L R T B\nuse preliminary\npart [C BL] into 4\nexpect facets 8"},
	},
}

// leastPointMM is how far from the axle a blade is marked.
const leastPointMM = 1.0

// unevenDeg is by how much a blade may stand off its even share of the turn; unlike is by
// how much, as a part, it may lie over otherwise than the others.
const unevenDeg, unlike = 3.0, 0.25

// named are the landmarks of the blades: those that are written, or all corners where a knob
// counts them.
func named(r *sequence.Replay, names []string) []string {
	if r.Pattern.Corners == "" {
		return names
	}
	var out []string
	for i := range r.Sheet.Outline() {
		out = append(out, fmt.Sprint("P", i+1))
	}
	return out
}

// blades looks whether they stand evenly about the line that the leaves are parted about,
// and all lie over the same way.
func blades(r *sequence.Replay, names []string) string {
	if len(r.Parts) == 0 {
		return "blades stand about an axle, and no leaves are parted: add a step such as part [C M1] into 5"
	}
	g, err := Of(r)
	if errors.Is(err, ErrNoWheel) && !g.along(r.Parts[0]) {
		return ""
	}
	type blade struct {
		name string
		deg  float64
	}
	var all []blade
	for _, n := range named(r, names) {
		at, ok := g.pose.Spot(r.Landmarks[n])
		out, _, angle := g.axis.of(at)
		if !ok || out < leastPointMM {
			return fmt.Sprintf("%s lies on the axle, so it marks no blade: name a spot further out", r.Pattern.Called(n))
		}
		all = append(all, blade{n, geom.Deg(angle)})
	}
	slices.SortFunc(all, func(a, b blade) int {
		if a.deg < b.deg {
			return -1
		}
		return 1
	})
	even := 360 / float64(len(all))
	for i, b := range all {
		next := all[(i+1)%len(all)]
		gap := math.Mod(next.deg-b.deg+360, 360)
		if len(all) > 1 && math.Abs(gap-even) > unevenDeg {
			return fmt.Sprintf("the blades at %s and %s stand %.0f° apart, not %.0f°: name one spot on each blade, all alike, or part the leaves evenly", r.Pattern.Called(b.name), r.Pattern.Called(next.name), gap, even)
		}
	}
	return g.unequal()
}

// unequal says which blade lies over otherwise than the others; "" where all lie alike.
func (g Geometry) unequal() string {
	most := 0.0
	for _, l := range g.Leaves {
		most = math.Max(most, math.Abs(l.Lies))
	}
	if most < leastLies {
		return ""
	}
	for i, l := range g.Leaves {
		switch {
		case l.Lies*float64(g.Sense) < -leastLies:
			return fmt.Sprintf("unequal: blade %d of %d lies the other way, like one of a mirror image; curl all blades to one side", i+1, len(g.Leaves))
		case math.Abs(l.Lies) < (1-unlike)*most:
			return fmt.Sprintf("unequal: blade %d of %d lies over less than the others; curl all blades alike", i+1, len(g.Leaves))
		}
	}
	return ""
}
