package fit_test

import (
	"strings"
	"testing"

	"tussock/internal/fit"
	"tussock/internal/say"
)

// What sizes and schools say follows what was logged, whichever way round it is, and
// promises nothing from few trials.
func TestSizesSay(t *testing.T) {
	more, less := []float64{0.30, 0.32, 0.28, 0.31, 0.33, 0.29}, []float64{0.10, 0.12, 0.09, 0.11, 0.10, 0.12}
	sizes := func(small, large []float64) []fit.Size {
		return []fit.Size{{Name: "Large", Here: true, WidthMM: 100, HeightMM: 200, LengthMM: 80, Comes: 0.1, Log: large},
			{Name: "Small", WidthMM: 50, HeightMM: 100, LengthMM: 40, Comes: -0.2, Log: small}, {WidthMM: 70, HeightMM: 140, LengthMM: 56}}
	}
	for _, c := range []struct {
		name string
		of   []fit.Size
		want []string
	}{
		{"the small one is better", sizes(more, less), []string{"Small, on a sheet 50 mm wide", "2.9 times what Large does", "predicted 2.0 times", "For its own length that is 5.", "The smaller one does better", "that of Small is predicted"}},
		{"the large one is better", sizes(less, more), []string{"0.3 times what Large does", "The larger one does better"}},
		{"alike", sizes(more, more), []string{"1.0 times", "do not tell them apart"}},
		{"too few", sizes(more, less[:2]), []string{"Log at least three trials"}},
		{"one size", sizes(more, less)[1:2], []string{"Log at least three trials", "that of Small is predicted"}},
		{"here", sizes(nil, nil)[:1], []string{"this build's own is predicted"}},
		{"thought of", []fit.Size{{WidthMM: 70, HeightMM: 140, Comes: 0.1}}, []string{"a sheet of 70 mm by 140 mm is predicted"}},
	} {
		says := say.Plain(fit.SizesSay(c.of))
		for _, w := range c.want {
			if !strings.Contains(says, w) {
				t.Errorf("%s: %q is not in %q", c.name, w, says)
			}
		}
	}
	if says := fit.SizesSay(sizes(nil, nil)[2:]); strings.Contains(says, "predicted") {
		t.Errorf("none can be folded: %q", says)
	}
	for want, logs := range map[string][2][]float64{"trials say: soft (n = 6, 6)": {more, less}, "trials say: hard": {less, more}, "do not tell them apart": {more, more}, "Too few trials yet (n = 2, 6): 9 of each": {more[:2], less}} {
		if says := fit.Settled("soft", "hard", logs[0], logs[1], 9); !strings.Contains(says, want) {
			t.Errorf("%q is not in %q", want, says)
		}
	}
}
