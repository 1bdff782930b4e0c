package glide

import (
	"math"
	"strings"
	"testing"

	"tussock/internal/motion"
	"tussock/internal/motion/toys"
)

// As they come all gliders pass; each fault that is put in is found by its own check,
// with what was measured, and what the check proposes puts it right.
func TestPreflight(t *testing.T) {
	for _, id := range gliders {
		w := benchOn(t, pattern(t, id), a4, 0)
		check := func(knobs map[string]float64) map[string]motion.Check {
			v, err := w.Predict(t.Context(), knobs, nil)
			if err != nil {
				t.Fatal(err)
			}
			out := map[string]motion.Check{}
			for _, c := range v.Checks {
				if c.Says == "" || c.Title == "" || !c.OK && c.ID != "symmetry" && len(c.Fix) > 0 && c.Do == "" {
					t.Errorf("%s: %+v", id, c)
				}
				out[c.ID] = c
			}
			return out
		}
		for name, c := range check(nil) {
			if !c.OK {
				t.Errorf("%s as it comes: %s: %s", id, name, c.Says)
			}
		}
		if id != "avocet" && id != "curlew" {
			continue
		}
		for name, q := range map[string]struct {
			knobs map[string]float64
			says  string
		}{
			"nose": {map[string]float64{"nose_side": -6}, "6° to the left"}, "v": {map[string]float64{"wing_uneven": 8}, "8° apart"},
			"edges": {map[string]float64{"curl_uneven": 5}, "right"}, "keel": {map[string]float64{"rudder": 6}, "6° to the right"},
		} {
			c := check(q.knobs)[name]
			if c.OK || !strings.Contains(c.Says, q.says) || len(c.Fix) == 0 {
				t.Errorf("%s with %v: %+v", id, q.knobs, c)
			}
			if again := check(toys.With(q.knobs, c.Fix...))[name]; !again.OK {
				t.Errorf("%s: put right it says %s", id, again.Says)
			}
		}
		if c := check(map[string]float64{"wing": 104})["v"]; c.OK || len(c.Fix) != 1 || math.Abs(c.Fix[0].To-90) > 1e-9 {
			t.Errorf("%s with hanging wings: %+v", id, c)
		}
	}
	heavy := benchOn(t, pattern(t, "avocet"), a4, 0)
	m, err := heavy.Model(map[string]float64{"clip": 0, "curl": 12})
	if err != nil {
		t.Fatal(err)
	}
	if c := heavy.balanced(map[string]float64{"clip": 0, "curl": 12}, m); c.OK || len(c.Fix) != 1 || c.Fix[0].To <= 0 {
		t.Errorf("without its clip: %+v", c)
	}
}
