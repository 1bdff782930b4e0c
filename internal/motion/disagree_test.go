package motion_test

import (
	"strings"
	"testing"

	"tussock/internal/motion"
)

// Where a log lies outside of what was predicted the words say both; where it lies inside,
// or is too short, nothing is said.
func TestLogAgainstPrediction(t *testing.T) {
	w := motion.Way{Words: motion.Words{Many: "throws"}, Records: []motion.Record{{ID: "far", Label: "Distance", Unit: "m"}},
		Chips: []motion.Chip{{Name: "dived", Modes: []string{"dive"}}, {Name: "odd"}}}
	p := motion.Prediction{Outcomes: []motion.Outcome{{ID: "far", Middle: 5, Lo95: 4, Hi95: 7, Decimals: 1}}, Modes: []motion.Share{{Mode: "glide", Share: 0.95}, {Mode: "dive", Share: 0.05}}}
	log := func(n int, v float64, chips ...string) []motion.Noted {
		out := make([]motion.Noted, n)
		for i := range out {
			out[i] = motion.Noted{Read: map[string]float64{"far": v}, Chips: chips}
		}
		return out
	}
	for name, q := range map[string]struct {
		log  []motion.Noted
		says []string
	}{
		"inside":                                 {log(5, 6), nil},
		"too few":                                {log(2, 1), nil},
		"short":                                  {log(4, 2), []string{"Distance", "4 throws", "nineteen of twenty"}},
		"far":                                    {log(4, 9), []string{"Distance"}},
		"dives":                                  {log(4, 5, "dived"), []string{"dived in 4 of 4", "5 of 100"}},
		"what is noted and not predicted at all": {log(4, 5, "odd"), nil},
	} {
		got := w.Disagrees(p, q.log)
		if (got == "") != (q.says == nil) {
			t.Errorf("%s: %q", name, got)
		}
		for _, s := range q.says {
			if !strings.Contains(got, s) {
				t.Errorf("%s: %q lacks %q", name, got, s)
			}
		}
	}
	back := motion.Prediction{Outcomes: []motion.Outcome{{ID: "far", Middle: -5, Lo95: -7, Hi95: -4, Sides: []string{"back", "ahead"}}}}
	if s := w.Disagrees(back, log(4, 5)); s != "" {
		t.Errorf("one that goes back: %q", s)
	}
	either := motion.Prediction{Outcomes: []motion.Outcome{{ID: "far", Middle: 4, Lo95: -1, Hi95: 7, Sides: []string{"back", "ahead"}}}}
	if s := w.Disagrees(either, log(4, 5)); s != "" {
		t.Errorf("one that may go either way: %q", s)
	}
	if s := w.Disagrees(either, log(4, 8)); s == "" {
		t.Error("one that goes too far is let be")
	}
}
