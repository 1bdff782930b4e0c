package demo

import (
	"path/filepath"
	"slices"
	"testing"

	"tussock/internal/bench"
	"tussock/internal/motion"
	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/store"
	"tussock/internal/ways"
)

// Logs of the demo lie where they are predicted, but for the one build that shows what is
// said where they do not.
func TestLogAndPredictionTellOneStory(t *testing.T) {
	s, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "d.db"))
	if err != nil {
		t.Fatal(err)
	}
	defer s.Close()
	if err := Seed(t.Context(), s); err != nil {
		t.Fatal(err)
	}
	builds, err := s.Builds(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	var apart []string
	for _, b := range builds {
		p, _ := shelf.Find(b.Pattern)
		w := ways.For(p)
		c, err := w.Full(nil)
		if err != nil || !w.Predicts {
			continue
		}
		for _, tw := range b.Tweaks {
			q := tw.Setup.Sheet
			sh, err := sheet.New(q.WidthMM, q.HeightMM, q.GSM, q.ThicknessMM)
			if err != nil {
				t.Fatal(err)
			}
			v, err := w.On(p, sh).Under(c, motion.Calibration{}).Predict(t.Context(), p.FullKnobs(tw.Setup.Knobs), nil)
			if err != nil {
				t.Fatal(err)
			}
			if says := w.Disagrees(v, bench.Noted(tw.Trials)); says != "" {
				apart = append(apart, b.Name)
				t.Logf("%s, tweak %d: %s", b.Name, tw.No, says)
			}
		}
	}
	slices.Sort(apart)
	// One toy leaps less than the model has it; of another one half is heavier than anybody
	// knows, until it is found.
	if want := []string{"Spadefoot from the leftover", "Tide gauge for the window"}; !slices.Equal(apart, want) {
		t.Errorf("log and prediction part in %q", apart)
	}
}
