package demo

import (
	"path/filepath"
	"testing"

	"tussock/internal/sheet"
	"tussock/internal/shelf"
	"tussock/internal/store"
	"tussock/internal/ways"
)

// Every set-up of the demo folds, every throw is one that could be typed, and
// seeding twice gives the same data.
func TestSeed(t *testing.T) {
	var sums [2]float64
	for i := range sums {
		s, err := store.Open(t.Context(), filepath.Join(t.TempDir(), "d.db"))
		if err != nil {
			t.Fatal(err)
		}
		if err := Seed(t.Context(), s); err != nil {
			t.Fatal(err)
		}
		builds, err := s.Builds(t.Context())
		if err != nil {
			t.Fatal(err)
		}
		for _, b := range builds {
			p, ok := shelf.Find(b.Pattern)
			if !ok {
				t.Fatalf("%s is of no pattern", b.Name)
			}
			if b.Step > len(p.Steps) {
				t.Errorf("%s is folded to step %d of %d", b.Name, b.Step, len(p.Steps))
			}
			setups := []map[string]float64{b.Current().Knobs}
			for _, tw := range b.Tweaks {
				setups = append(setups, tw.Setup.Knobs)
				for _, x := range tw.Trials {
					if err := x.Check(&ways.For(p).Way); err != nil {
						t.Errorf("%s: %v", b.Name, err)
					}
					sums[i] += x.Read["distance"]
				}
			}
			sp := b.Current().Sheet
			sh, err := sheet.New(sp.WidthMM, sp.HeightMM, sp.GSM, sp.ThicknessMM)
			if err != nil {
				t.Fatal(err)
			}
			for _, k := range setups {
				if r := p.Run(sh, k); r.Err != nil {
					t.Errorf("%s: %v", b.Name, r.Err)
				}
			}
		}
		if err := s.Close(); err != nil {
			t.Fatal(err)
		}
	}
	if sums[0] != sums[1] || sums[0] == 0 {
		t.Errorf("seeding gives %v and %v metres", sums[0], sums[1])
	}
}
