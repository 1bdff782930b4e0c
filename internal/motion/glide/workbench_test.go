package glide

import (
	"math"
	"testing"

	"tussock/internal/motion"

	"tussock/internal/motion/glide/flight"
)

func workbench(t testing.TB, id string) *Workbench {
	t.Helper()
	p := pattern(t, id)
	return &Workbench{Shapes: NewShapes(p, a4), Throw: flight.Throw{SpeedMS: 6, HeightM: 1.6}, Scatter: flight.ScatterOf("adult")}
}

// The workbench sets what the replay would: same knobs, same model.
func TestWorkbenchSetsTheToy(t *testing.T) {
	w := workbench(t, "curlew")
	for _, k := range []map[string]float64{{"curl": 2}, {"curl": 6, "curl_uneven": 2, "rudder": 3}, {"wing": 80, "curl": 3, "clip": 0.3}, {}} {
		m, err := w.Model(k)
		if err != nil {
			t.Fatal(err)
		}
		direct := shelfGlider(t, "curlew", k)
		a, b := m.Fly(w.Throw, flight.Room{}, nil), direct.Fly(w.Throw, flight.Room{}, nil)
		if math.Abs(a.DistanceM-b.DistanceM) > 1e-9 || a.DriftM != b.DriftM {
			t.Errorf("%v: %v m from the workbench, %v from the replay", k, a.DistanceM, b.DistanceM)
		}
	}
	if _, err := w.Model(map[string]float64{"depth": -40}); err == nil {
		t.Error("a fold that cannot be made gives no error")
	}
}

// Every reading of a glider has a meaning, what moves it, and a band around its value.
func TestReadingsAreExplained(t *testing.T) {
	seen := map[string]bool{}
	for _, r := range readingsOf(shelfGlider(t, "shelduck", map[string]float64{"wing": 80, "curl": 3})) {
		if r.Label == "" || r.Meaning == "" || r.MovedBy == "" || seen[r.ID] {
			t.Errorf("%+v", r)
		}
		seen[r.ID] = true
		if r.Lo > r.Value || r.Hi < r.Value || r.Predicted && r.Lo == r.Hi && r.Value != 0 {
			t.Errorf("%s: %v within %v to %v", r.ID, r.Value, r.Lo, r.Hi)
		}
		if r.UsualHi > 0 && (r.Value < r.UsualLo/2 || r.Value > r.UsualHi*2) && r.UsualLo > 0 {
			t.Errorf("%s is %v, far from what is usual", r.ID, r.Value)
		}
	}
	for _, id := range []string{"mass", "com", "neutral", "margin", "stiffness", "area", "span", "ratio", "loading", "trim", "glide", "sink", "yaw", "edge", "v_left", "v_right", "lip_left", "lip_right"} {
		if !seen[id] {
			t.Errorf("no reading %q", id)
		}
	}
}

// The bends are read side by side: what was set is what is shown.
func TestBendsAreReadBySide(t *testing.T) {
	got := map[string]float64{}
	for _, r := range readingsOf(shelfGlider(t, "curlew", map[string]float64{"wing": 80, "wing_uneven": 4, "curl": 5, "curl_uneven": 2})) {
		got[r.ID] = r.Value
	}
	for id, want := range map[string]float64{"v_left": 8, "v_right": 12, "lip_left": 10 * math.Sin(4*math.Pi/180), "lip_right": 10 * math.Sin(6*math.Pi/180)} {
		if math.Abs(got[id]-want) > 0.01 {
			t.Errorf("%s is %v, not %v", id, got[id], want)
		}
	}
}

// A band holds the middle; a child's hand scatters more than an adult's; the same seed
// gives the same throws.
func TestSpreadOfThrows(t *testing.T) {
	m := shelfGlider(t, "curlew", map[string]float64{"curl": 4})
	throw := flight.Throw{SpeedMS: 5.5, HeightM: 1.6}
	a := m.Spread(throw, flight.Room{}, flight.ScatterOf("adult"), 64)
	c := m.Spread(throw, flight.Room{}, flight.ScatterOf("child"), 64)
	again := m.Spread(throw, flight.Room{}, flight.ScatterOf("adult"), 64)
	if a.Distance != again.Distance || a.Drift != again.Drift {
		t.Error("the same seed gives other throws")
	}
	width := func(r motion.Range) float64 { return r.Hi - r.Lo }
	if width(c.Distance) <= width(a.Distance) || width(c.Drift) <= width(a.Drift) {
		t.Errorf("a child's throws spread by %v and %v, an adult's by %v and %v", width(c.Distance), width(c.Drift), width(a.Distance), width(a.Drift))
	}
	if math.Abs(a.Drift.Lo+a.Drift.Hi) > 0.35*width(a.Drift) {
		t.Errorf("an even toy drifts %+v", a.Drift)
	}
	nominal := m.Fly(throw, flight.Room{}, nil).DistanceM
	if nominal < a.Distance.Lo || nominal > a.Distance.Hi {
		t.Errorf("%v m lies outside of %+v", nominal, a.Distance)
	}
	a.Band = flight.Told(m.Throws(throw, flight.Room{}, flight.ScatterOf("adult"), 0, 64, true)).Band
	for _, b := range a.Band {
		if b.LoZ > b.HiZ || b.LoY > b.HiY {
			t.Errorf("band %+v", b)
		}
	}
	if last := a.Band[len(a.Band)-1]; last.X < a.Distance.Lo {
		t.Errorf("the band ends at %v", last.X)
	}
	none := m.Spread(throw, flight.Room{}, flight.Scatter{}, 6)
	if width(none.Distance) != 0 {
		t.Error("without scatter throws differ")
	}
}
