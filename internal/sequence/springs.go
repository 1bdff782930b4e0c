package sequence

// The spring of a hopping toy: set-up knobs that every pattern with a pleat has without
// writing them down. They say how the last two folds are pressed and how the toy
// stands; no fold uses them, the leap does.

// SpringSet are their values.
type SpringSet struct {
	HipRadiusMM, CatchRadiusMM float64
	OpeningDeg                 float64 // measured; 0 for what the radius gives
	NoseUpMM                   float64
	TailDeg                    float64
	GrainDeg                   float64 // between the grain and the crease at the hip
}

// radii are the names for how a crease is pressed, and the radius in mm.
var radii = []Named{{0.1, "sharp"}, {0.3, "firm"}, {1, "soft"}, {2, "bend"}}

// The names of the knobs.
const (
	KnobHipRadius   = "hip_radius"
	KnobCatchRadius = "catch_radius"
	KnobOpening     = "opening"
	KnobNoseUp      = "nose_up"
	KnobTail        = "tail_bent"
	KnobGrain       = "grain"
)

var springKnobs = []Knob{
	{Name: KnobHipRadius, Label: "Hip crease, radius", Unit: "mm", Default: 1, Min: 0.1, Max: 2.5, Step: 0.1, Named: radii,
		Changes: "How hard the first fold of the pleat is pressed: a nail makes it sharp, a fingertip soft; a bend is not creased at all. Softer opens further and springs more."},
	{Name: KnobCatchRadius, Label: "Second crease, radius", Unit: "mm", Default: 1, Min: 0.1, Max: 2.5, Step: 0.1, Named: radii,
		Changes: "The same for the fold after it."},
	{Name: KnobOpening, Label: "Opening of the pleat, measured", Unit: "deg", Max: 170, Step: 5, Named: []Named{{0, "as computed"}},
		Changes: "The angle to which the pleat opens by itself. 0: it is computed from how the creases are pressed."},
	{Name: KnobNoseUp, Label: "Nose held up by the front legs", Unit: "mm", Default: 2, Max: 30,
		Changes: "How high the front stands. A nose that stands higher makes it leap farther and less high."},
	{Name: KnobTail, Label: "Tail edge bent down for the slip", Unit: "deg", Max: 45, Step: 5,
		Changes: "A little ramp for the finger to slide off. Rough: it saves some of what the finger takes."},
	{Name: KnobGrain, Label: "Grain against the hip crease", Unit: "deg", Default: 45, Max: 90, Step: 15, Named: []Named{{0, "along it"}, {45, "not known"}, {90, "across it"}},
		Changes: "Paper bends harder across its grain: a pleat with the grain across springs more."},
}

// SpringStep is the step that makes a crease of the pleat; 0 when there is none.
func (p *Pattern) SpringStep(which int) int {
	for _, s := range p.Steps {
		if s.Name != "" && s.Name == p.Spring[which] {
			return s.No
		}
	}
	return 0
}

// addSpringKnobs gives a hopper the knobs of its spring; how hard its folds are pressed
// is what their steps say.
func (p *Pattern) addSpringKnobs() {
	hip, catch := p.SpringStep(0), p.SpringStep(1)
	if p.Moves != "hop" || hip == 0 || catch == 0 {
		return
	}
	for _, k := range springKnobs {
		step := hip
		if k.Name == KnobCatchRadius {
			step = catch
		}
		if k.Named != nil && &k.Named[0] == &radii[0] {
			for _, n := range radii {
				if n.Label == string(p.Steps[step-1].Character) {
					k.Default = n.Value
				}
			}
		}
		p.imply(k, step)
	}
}

// SpringSet are the values of the spring's knobs that a replay was given.
func (r *Replay) SpringSet() SpringSet {
	v := r.Values
	return SpringSet{HipRadiusMM: v[KnobHipRadius], CatchRadiusMM: v[KnobCatchRadius], OpeningDeg: v[KnobOpening], NoseUpMM: v[KnobNoseUp], TailDeg: v[KnobTail], GrainDeg: v[KnobGrain]}
}
