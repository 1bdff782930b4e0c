package glide

import (
	"math"
	"strings"
	"testing"

	"tussock/internal/motion"
)

func seen(n int, chips ...string) []motion.Noted {
	out := make([]motion.Noted, n)
	for i := range out {
		out[i].Chips = chips
	}
	return out
}

func examine(t *testing.T, w *Workbench, knobs map[string]float64, log []motion.Noted) motion.Finding {
	t.Helper()
	f, err := w.Examine(t.Context(), knobs, log)
	if err != nil {
		t.Fatal(err)
	}
	return f
}

// Nothing is said of two throws, of throws without a note, or of a good flight.
func TestClinicHoldsItsTongue(t *testing.T) {
	w := workbench(t, "curlew")
	if f := examine(t, w, nil, seen(2, "dived")); f.Remedy != nil || f.Wants != 1 {
		t.Errorf("%+v", f)
	}
	for _, log := range [][]motion.Noted{seen(5), seen(5, "glided"), append(seen(1, "dived"), seen(4, "glided")...)} {
		if f := examine(t, w, nil, log); f.Remedy != nil || f.Symptom != "" {
			t.Errorf("%+v", f)
		}
	}
}

// It dives: curl goes up, by the least that helps, and the prediction is better.
func TestDiveIsCured(t *testing.T) {
	for _, id := range []string{"curlew", "shelduck"} {
		w := workbench(t, id)
		w.Throw.SpeedMS = 5
		knobs := map[string]float64{"curl": -1, "wing": 80}
		f := examine(t, w, knobs, seen(3, "dived"))
		if f.Remedy == nil || len(f.Remedy.Changes) != 1 || f.Remedy.Changes[0].Knob != "curl" {
			t.Fatalf("%s: %+v", id, f)
		}
		c := f.Remedy.Changes[0]
		if c.To <= c.From || c.To-c.From > 8 || !strings.Contains(f.Remedy.Do, "+") || !strings.Contains(f.Remedy.Do, "mm") {
			t.Errorf("%s: curl from %v to %v: %s", id, c.From, c.To, f.Remedy.Do)
		}
		if f.Remedy.After.Middle <= f.Remedy.Now.Middle {
			t.Errorf("%s: %v m after %v", id, f.Remedy.After.Middle, f.Remedy.Now.Middle)
		}
		if f.Remedy.Against == "" || len(f.Causes) < 2 || f.Causes[0].Law == "" || f.Causes[0].Log == "" {
			t.Errorf("%s: %+v", id, f)
		}
		sum := 0.0
		for i, q := range f.Causes {
			sum += q.Weight
			if i > 0 && q.Weight > f.Causes[i-1].Weight {
				t.Errorf("%s: causes are not in order", id)
			}
		}
		if math.Abs(sum-1) > 1e-9 {
			t.Errorf("%s: causes sum to %v", id, sum)
		}
	}
}

// It stalls: curl goes down, and the other schools are offered with what they do.
func TestStallIsCured(t *testing.T) {
	w := workbench(t, "shelduck")
	f := examine(t, w, map[string]float64{"curl": 8}, seen(4, "stalled"))
	if f.Confidence != motion.Likely || f.Remedy == nil || f.Remedy.Changes[0].To >= 8 {
		t.Fatalf("%+v", f)
	}
	schools := map[string]bool{f.Remedy.School: true}
	for _, o := range f.Others {
		schools[o.School] = true
		if o.After == nil || o.Then == "" {
			t.Errorf("%+v", o)
		}
	}
	if len(schools) < 2 {
		t.Errorf("only one school: %v", schools)
	}
	loop := examine(t, w, map[string]float64{"curl": 12}, seen(3, "looped"))
	if loop.Remedy == nil || loop.Remedy.Changes[0].To >= 12 {
		t.Errorf("%+v", loop)
	}
	roll := examine(t, w, map[string]float64{"wing": 95}, seen(3, "rolled"))
	if roll.Remedy == nil || roll.Remedy.Changes[0].Knob != "wing" || roll.Remedy.Changes[0].To >= 95 {
		t.Errorf("%+v", roll)
	}
}

// It turns left: the keel's tail goes right, and mirrored throws give the mirrored cure.
// A cause put in is found again: what explains the turn is what was bent.
func TestTurnIsCured(t *testing.T) {
	w := workbench(t, "curlew")
	w.Throw.SpeedMS = 5
	knobs := map[string]float64{"curl": 5}
	log := func(off float64) []motion.Noted {
		d := 6.0
		s := seen(4, "turned left")
		if off > 0 {
			s = seen(4, "turned right")
		}
		for i := range s {
			s[i].Read = map[string]float64{Distance: d, Aside: off}
		}
		return s
	}
	left, right := examine(t, w, knobs, log(-0.5)), examine(t, w, knobs, log(0.5))
	if left.Remedy == nil || right.Remedy == nil {
		t.Fatalf("%+v %+v", left, right)
	}
	a, b := left.Remedy.Changes[0], right.Remedy.Changes[0]
	if a.Knob != "rudder" || a.To <= 0 || math.Abs(a.To+b.To) > 1e-9 || !strings.Contains(left.Title, "right") {
		t.Errorf("left: %+v, right: %+v", a, b)
	}
	for _, knob := range []string{"rudder", "twist"} {
		bent := map[string]float64{"curl": 5, knob: 0.6}
		turn, _, err := w.heading(bent)
		if err != nil {
			t.Fatal(err)
		}
		causes, err := w.TurnCauses(knobs, turn)
		if err != nil {
			t.Fatal(err)
		}
		for _, c := range causes {
			if c.Knob == knob && math.Abs(c.Deg-0.6) > 0.2 {
				t.Errorf("%s of 0.6° turns by %.1f° and is taken for %v°", knob, turn, c.Deg)
			}
		}
	}
	// The cure straightens the toy that was bent.
	bent := map[string]float64{"curl": 5, "rudder": -1}
	turn, ahead, err := w.heading(bent)
	if err != nil {
		t.Fatal(err)
	}
	off, d := ahead*math.Tan(turn/2*math.Pi/180), ahead
	s := seen(3, "turned left")
	for i := range s {
		s[i].Read = map[string]float64{Distance: d, Aside: off}
	}
	f := examine(t, w, bent, s)
	if f.Remedy == nil {
		t.Fatalf("%+v", f)
	}
	bent["rudder"] = f.Remedy.Changes[0].To
	if after, _, _ := w.heading(bent); math.Abs(after) > 0.5*math.Abs(turn) {
		t.Errorf("it turned by %.1f° and turns by %.1f° after the cure", turn, after)
	}
}

// Where there is hardly a keel the model does not know: it proposes a test throw.
func TestUnsureTurnAsksForATestThrow(t *testing.T) {
	w := workbench(t, "shelduck")
	w.Throw.SpeedMS = 4
	f := examine(t, w, map[string]float64{"curl": 2, "depth": 2}, seen(4, "turned left"))
	if f.Confidence != motion.Unsure || f.Remedy == nil || f.Remedy.Now != nil || !strings.Contains(f.Remedy.Then, "Either") {
		t.Errorf("%s: %+v", f.Confidence, f.Remedy)
	}
}
