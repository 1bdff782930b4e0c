package craft

import (
	"fmt"
	"math"

	"tussock/internal/body"
	"tussock/internal/sequence"
	"tussock/internal/sheet"
)

// What gliders add to the pattern language: the landmark that points forward, the crease
// that becomes the keel's lower edge, the steps that set wings and fins, and the last
// bends: set-up knobs that every pattern with a nose, a keel and wings has without
// writing them down. They bend edges of the finished toy; the air uses them.

// The words of the language.
const (
	headNose             = "nose"
	headKeel             = "keel"
	OpWing   sequence.Op = "wing"
	OpFin    sequence.Op = "fin"
)

// LastBends are their values. Right and left are those of somebody who looks forward.
type LastBends struct {
	UnevenDeg    float64 // the right wing so much higher than the left
	CurlRightDeg float64 // tail edge of the right wing, up positive
	CurlLeftDeg  float64
	LipMM        float64 // depth of the curled edge
	RudderDeg    float64 // tail of the keel, to the right positive
	NoseDeg      float64 // nose, to the right positive
	TwistDeg     float64 // half the difference of the wings' twist, right nose up
	ClipG        float64
	ClipAftMM    float64 // behind the nose, on the keel's edge
}

const defaultLipMM = 10

var lastBends = []sequence.Knob{
	{Name: "curl", Label: "Tail curl", Unit: "deg", Default: 5, Min: -10, Max: 20,
		Changes: "Bends the tail edge of both wings up. More lifts the nose: slower, and in the end stalling. Less lets it dive."},
	{Name: "curl_uneven", Label: "Right tail edge higher than the left", Unit: "deg", Min: -15, Max: 15,
		Changes: "How unlike the two tail edges are bent. Any difference makes it roll or turn; 0 is alike."},
	{Name: "curl_depth", Label: "Depth of the curled edge", Unit: "mm", Default: defaultLipMM, Min: 4, Max: 25,
		Changes: "How much of the tail edge is bent. A deeper edge does more for the same angle."},
	{Name: "wing_uneven", Label: "Right wing higher than the left", Unit: "deg", Min: -20, Max: 20,
		Changes: "Seen from behind. 0 is alike."},
	{Name: "twist", Label: "Right wing's front edge higher than the left", Unit: "deg", Min: -5, Max: 5,
		Changes: "A warp of the wings, measured at the front edge. 0 is alike; any difference rolls it."},
	{Name: "rudder", Label: "Keel's tail bent to the right", Unit: "deg", Min: -20, Max: 20,
		Changes: "Turns the nose to the same side: the surest way to stop a turn of a glider with a deep keel."},
	{Name: "nose_side", Label: "Nose bent to the right", Unit: "deg", Min: -15, Max: 15,
		Changes: "0 is straight, as it should be."},
	{Name: "clip", Label: "Clip or tape on the keel", Unit: "g", Min: 0, Max: 3,
		Changes: "Weight that is fixed to the keel. At the nose it moves the balance forward."},
	{Name: "clip_aft", Label: "Clip behind the nose", Unit: "mm", Min: 0, Max: 200,
		Changes: "Where the clip sits."},
}

var Language = sequence.Vocabulary{
	Moves: "fly",
	Heads: []sequence.Head{
		{Word: headNose, Kind: sequence.APoint, Least: 1, Most: 1, What: "the nose", Fix: "nose T"},
		{Word: headKeel, Kind: sequence.ALine, Least: 1, Most: 1, What: "the keel", Fix: "keel spine", Check: keelStays},
	},
	Sets:  []sequence.Setting{{Op: OpWing, Title: "set the wings", From: "from the keel", Says: wingSays}, {Op: OpFin, Title: "set the fins", From: "from the wing", Rides: true}},
	Knobs: lastBends,
	Implies: func(p *sequence.Pattern, k sequence.Knob) (sequence.Knob, int, bool) {
		wing := p.Setting(OpWing)
		return k, wing, wing > 0 && p.Head(headNose) != "" && p.Head(headKeel) != ""
	},
	Entries: []sequence.Entry{
		{Group: "head", Word: "nose, keel", Syntax: "nose P   keel LINE", Meaning: "The landmark that points forward, and the crease that becomes the lower edge of the keel. A glider with both, and with wings that are set, has knobs for its last bends without writing them.",
			Example: "sheet rect 210 297\nmoves fly\nnose T\nvalley bring left to right as spine\nwing along spine moving TL angle 90\nkeel spine\nexpect facets 2"},
		{Group: "step", Word: "wing", Syntax: "wing along LINE [and LINE]… moving P [and P]… angle DEG", Meaning: "The wings of a glider are set to an angle from the keel.",
			Example: "sheet square 100\nvalley bring left to right as f\nwing along f moving L angle 80\nexpect L at R within 0.001"},
		{Group: "step", Word: "fin", Syntax: "fin along LINE [and LINE]… moving P [and P]… angle DEG", Meaning: "Fins of a glider are set to an angle from the wing they stand on: they steer and carry nothing.",
			Example: "sheet square 100\nvalley bring left to right as f\nfin along f moving L angle 90\nexpect L at R within 0.001"},
	},
}

// keelStays looks whether the crease of the keel is still on the body once the wings are set:
// a wing line that crosses it would swing the keel, and leave nothing that could fly.
func keelStays(r *sequence.Replay, names []string) string {
	if len(r.Openings) == 0 || r.Pattern.Setting(OpWing) == 0 || r.Pattern.Head(headNose) == "" {
		return ""
	}
	if _, ok := FrameOf(r, body.Standing(r)); ok {
		return ""
	}
	return fmt.Sprintf("the wing lines leave no keel: %s would swing along with a wing. Move the wing lines farther from it, or turn them less", r.Pattern.Called(names[0]))
}

// wingSays tells what a wing's angle from the keel comes to.
func wingSays(deg float64) string {
	switch up := sheet.Number(math.Round(10*math.Abs(90-deg)) / 10); {
	case deg < 90:
		return "90° is level; this lifts each wing by " + up + "°."
	case deg > 90:
		return "90° is level; this lets each wing hang by " + up + "°."
	}
	return "90° is level; both wings lie flat."
}

// LastBendsOf are the last bends among knob values.
func LastBendsOf(v map[string]float64) LastBends {
	lip := v["curl_depth"]
	if lip == 0 {
		lip = defaultLipMM
	}
	return LastBends{UnevenDeg: v["wing_uneven"], CurlRightDeg: v["curl"] + v["curl_uneven"]/2, CurlLeftDeg: v["curl"] - v["curl_uneven"]/2,
		LipMM: lip, RudderDeg: v["rudder"], NoseDeg: v["nose_side"], TwistDeg: v["twist"] / 2, ClipG: v["clip"], ClipAftMM: v["clip_aft"]}
}
