package hop

import "tussock/internal/sequence"

// What hoppers add to the pattern language: the creases of the pleat, the landmarks that
// stand in front, and the spring: set-up knobs that every pattern with a pleat has
// without writing them down. They say how the last two folds are pressed and how the toy
// stands; no fold uses them, the leap does.

// The words of the language.
const (
	headSpring = "spring"
	headToes   = "toes"
	headNose   = "nose"
)

// SpringSet are their values.
type SpringSet struct {
	HipRadiusMM, CatchRadiusMM float64
	OpeningDeg                 float64 // measured; 0 for what the radius gives
	NoseUpMM                   float64 // measured; 0 for what the legs give
	TailDeg                    float64
	GrainDeg                   float64 // between the grain and the crease at the hip
}

// radii are the names for how a crease is pressed, and the radius in mm.
var radii = []sequence.Named{{Value: 0.1, Label: "sharp"}, {Value: 0.3, Label: "firm"}, {Value: 1, Label: "soft"}, {Value: 2, Label: "bend"}}

// The names of the knobs.
const (
	KnobHipRadius   = "hip_radius"
	KnobCatchRadius = "catch_radius"
	KnobOpening     = "opening"
	KnobNoseUp      = "nose_up"
	KnobTail        = "tail_bent"
	KnobGrain       = "grain"
)

var springKnobs = []sequence.Knob{
	{Name: KnobHipRadius, Label: "Hip crease, radius", Unit: "mm", Default: 1, Min: 0.1, Max: 2.5, Step: 0.1, Named: radii,
		Changes: "How hard the first fold of the pleat is pressed: a nail makes it sharp, a fingertip soft; a bend is not creased at all. Softer opens further and springs more."},
	{Name: KnobCatchRadius, Label: "Second crease, radius", Unit: "mm", Default: 1, Min: 0.1, Max: 2.5, Step: 0.1, Named: radii,
		Changes: "The same for the fold after it."},
	{Name: KnobOpening, Label: "Opening of the pleat, measured", Unit: "deg", Max: 170, Step: 5, Named: []sequence.Named{{Value: 0, Label: "as computed"}},
		Changes: "The angle to which the pleat opens by itself. 0: it is computed from how the creases are pressed."},
	{Name: KnobNoseUp, Label: "Nose held up by the front legs", Unit: "mm", Max: 30, Named: []sequence.Named{{Value: 0, Label: "as computed"}},
		Changes: "How high the front stands, measured. 0: it is computed from the legs. A nose that stands higher makes it leap farther and less high."},
	{Name: KnobTail, Label: "Tail edge bent down for the slip", Unit: "deg", Max: 45, Step: 5,
		Changes: "A little ramp for the finger to slide off. Rough: it saves some of what the finger takes."},
	{Name: KnobGrain, Label: "Grain against the hip crease", Unit: "deg", Default: 45, Max: 90, Step: 15, Named: []sequence.Named{{Value: 0, Label: "along it"}, {Value: 45, Label: "not known"}, {Value: 90, Label: "across it"}},
		Changes: "Paper bends harder across its grain: a pleat with the grain across springs more."},
}

var language = sequence.Vocabulary{
	Moves: "hop",
	Heads: []sequence.Head{
		{Word: headSpring, Kind: sequence.ALine, Least: 2, Most: 2, What: "the spring", Fix: "spring hip catch"},
		{Word: headToes, Kind: sequence.APoint, Least: 1, What: "the toes", Fix: "toes TL TR"},
		{Word: headNose, Kind: sequence.APoint, Least: 1, Most: 1, What: "the nose", Fix: "nose T"},
	},
	Knobs: springKnobs,
	Implies: func(p *sequence.Pattern, k sequence.Knob) (sequence.Knob, int, bool) {
		hip, catch := springStep(p, 0), springStep(p, 1)
		if hip == 0 || catch == 0 {
			return k, 0, false
		}
		step := hip
		if k.Name == KnobCatchRadius {
			step = catch
		}
		// How hard its folds are pressed is what their steps say.
		if k.Name == KnobHipRadius || k.Name == KnobCatchRadius {
			for _, n := range radii {
				if n.Label == string(p.Steps[step-1].Character) {
					k.Default = n.Value
				}
			}
		}
		return k, step, true
	},
	Entries: []sequence.Entry{
		{Group: "head", Word: "spring", Syntax: "HIP CATCH", Meaning: "The pleat that makes a toy hop: the fold at the end of the body, and the one after it. Such a pattern has further set-up knobs without writing them.",
			Example: "sheet rect 60 200\nmoves hop\nnose T\nvalley along par(bottom,60,T) moving B soft as hip\nvalley bring B to sheet(30,60) soft as catch\nspring hip catch\nexpect B at sheet(30,60) within 0.001"},
		{Group: "head", Word: "toes", Syntax: "P P…", Meaning: "Landmarks on which a hopper stands in front.",
			Example: "sheet rect 60 200\nmoves hop\nnose T\ntoes TL TR\nvalley along par(bottom,60,T) moving B soft as hip\nvalley bring B to sheet(30,60) soft as catch\nspring hip catch\nexpect TL at sheet(0,200) within 0.001"},
	},
}

// spring is the crease of the pleat: 0 the hip, 1 the catch; "" when there is none.
func spring(p *sequence.Pattern, which int) string {
	if h := p.Heads(headSpring); len(h) == 2 {
		return h[which]
	}
	return ""
}

// springStep is the step that makes a crease of the pleat; 0 when there is none.
func springStep(p *sequence.Pattern, which int) int { return p.StepNamed(spring(p, which)) }

// SpringSetOf are the values of the spring's knobs.
func SpringSetOf(v map[string]float64) SpringSet {
	return SpringSet{HipRadiusMM: v[KnobHipRadius], CatchRadiusMM: v[KnobCatchRadius], OpeningDeg: v[KnobOpening], NoseUpMM: v[KnobNoseUp], TailDeg: v[KnobTail], GrainDeg: v[KnobGrain]}
}
