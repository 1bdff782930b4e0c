package sequence

// The last bends of a flying toy: set-up knobs that every pattern with a nose, a keel
// and wings has without writing them down. They bend edges of the finished toy and
// crease nothing, so no step uses them; the air does. A pattern may write a knob of
// the same name itself, with a default and a range of its own.

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

var lastBends = []Knob{
	{Name: "curl", Label: "Tail curl", Unit: "deg", Default: 5, Min: -10, Max: 20,
		Changes: "Bends the tail edge of both wings up. More lifts the nose: slower, and in the end stalling. Less lets it dive."},
	{Name: "curl_uneven", Label: "Right tail edge higher than the left", Unit: "deg", Min: -15, Max: 15,
		Changes: "0 is alike. Any difference makes it roll or turn."},
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

// addLastBends gives a glider the knobs of its last bends.
func (p *Pattern) addLastBends() {
	wing := 0
	for _, s := range p.Steps {
		if s.Op == OpWing {
			wing = s.No
		}
	}
	if p.Moves != "fly" || wing == 0 || p.NoseName == "" || p.KeelName == "" {
		return
	}
	for _, k := range lastBends {
		p.imply(k, wing)
	}
}

// imply adds a set-up knob that no line writes; one of the same name that the pattern
// does write keeps its own default and range.
func (p *Pattern) imply(k Knob, step int) {
	if i := p.KnobIndex(k.Name); i >= 0 {
		own := &p.Knobs[i]
		own.Kind, own.Implied, own.Steps, own.Step, own.Named = SetUp, true, []int{step}, k.Step, k.Named
		return
	}
	k.Kind, k.Implied, k.Steps = SetUp, true, []int{step}
	p.Knobs = append(p.Knobs, k)
}

// LastBends are the last bends that a replay was given.
func (r *Replay) LastBends() LastBends {
	v := r.Values
	lip := v["curl_depth"]
	if lip == 0 {
		lip = defaultLipMM
	}
	return LastBends{UnevenDeg: v["wing_uneven"], CurlRightDeg: v["curl"] + v["curl_uneven"]/2, CurlLeftDeg: v["curl"] - v["curl_uneven"]/2,
		LipMM: lip, RudderDeg: v["rudder"], NoseDeg: v["nose_side"], TwistDeg: v["twist"] / 2, ClipG: v["clip"], ClipAftMM: v["clip_aft"]}
}
